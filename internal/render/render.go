// Package render turns drawings of the core into files: it draws the frames of a
// loop side by side and encodes them.
package render

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"runtime"
	"sync"

	"pinhole/core/picture"
)

// jpegQuality keeps noise and edges as they are drawn, at a tenth of the size.
const jpegQuality = 88

// Frames returns the first frames of a loop, as many as count, as JPEG files in order. It
// gives up between two frames when the context ends, with the context's error.
func Frames(ctx context.Context, v picture.View, e picture.Exposure, count int) ([][]byte, error) {
	loop := picture.NewLoop(v)
	next := make(chan int, count)
	for i := range count {
		next <- i
	}
	close(next)
	files, faults := make([][]byte, count), make([]error, count)
	var workers sync.WaitGroup
	for range min(runtime.GOMAXPROCS(0), count) {
		workers.Go(func() {
			frame := image.NewRGBA(image.Rect(0, 0, v.Width, v.Height))
			for i := range next {
				if faults[i] = ctx.Err(); faults[i] != nil {
					return
				}
				loop.Frame(i, e, frame)
				var out bytes.Buffer
				faults[i] = jpeg.Encode(&out, frame, &jpeg.Options{Quality: jpegQuality})
				files[i] = out.Bytes()
			}
		})
	}
	workers.Wait()
	if err := errors.Join(faults...); err != nil {
		return nil, fmt.Errorf("draw the loop: %w", err)
	}
	return files, nil
}

// Still returns one frame as PNG.
func Still(v picture.View, e picture.Exposure) ([]byte, error) {
	frame := image.NewRGBA(image.Rect(0, 0, v.Width, v.Height))
	picture.NewLoop(v).Frame(0, e, frame)
	var out bytes.Buffer
	if err := png.Encode(&out, frame); err != nil {
		return nil, fmt.Errorf("encode the frame: %w", err)
	}
	return out.Bytes(), nil
}
