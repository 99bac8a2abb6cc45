// Package render turns drawings of the core into files: it draws the frames of a
// loop side by side and encodes them.
package render

import (
	"bytes"
	"context"
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

// Sprite returns the frames of a loop below each other in one JPEG. It gives up
// between two frames when the context ends, with the context's error.
func Sprite(ctx context.Context, v picture.View, e picture.Exposure) ([]byte, error) {
	loop := picture.NewLoop(v)
	sheet := image.NewRGBA(image.Rect(0, 0, v.Width, v.Height*picture.Frames))
	frames := make(chan int, picture.Frames)
	for i := range picture.Frames {
		frames <- i
	}
	close(frames)
	var workers sync.WaitGroup
	for range min(runtime.GOMAXPROCS(0), picture.Frames) {
		workers.Go(func() {
			for i := range frames {
				if ctx.Err() != nil {
					return
				}
				loop.Frame(i, e, sheet.SubImage(image.Rect(0, i*v.Height, v.Width, (i+1)*v.Height)).(*image.RGBA))
			}
		})
	}
	workers.Wait()
	if err := ctx.Err(); err != nil {
		return nil, fmt.Errorf("draw the loop: %w", err)
	}
	var out bytes.Buffer
	if err := jpeg.Encode(&out, sheet, &jpeg.Options{Quality: jpegQuality}); err != nil {
		return nil, fmt.Errorf("encode the loop: %w", err)
	}
	return out.Bytes(), nil
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
