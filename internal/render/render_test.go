package render

import (
	"bytes"
	"context"
	"errors"
	"image"
	"image/jpeg"
	"image/png"
	"testing"

	"pinhole/core/motion"
	"pinhole/core/picture"
)

func small() picture.View {
	return picture.View{Width: 160, Height: 90, Lens: motion.Lens{WidthPx: 1920, HFOV: 70, Projection: motion.Rectilinear}, Rate: 25, Seed: 3,
		Movement: motion.Movement{SpeedMps: 3, DistanceM: 3, OffAxis: 90}}
}

// Frames drawn side by side are those drawn one by one.
func TestFramesComeInOrder(t *testing.T) {
	e := picture.Exposure{Shutter: 1. / 100}
	files, err := Frames(t.Context(), small(), e, picture.Frames)
	if err != nil || len(files) != picture.Frames {
		t.Fatalf("%d frames, %v", len(files), err)
	}
	for i, file := range files {
		frame, err := jpeg.Decode(bytes.NewReader(file))
		if err != nil {
			t.Fatal(err)
		}
		one := image.NewRGBA(image.Rect(0, 0, 160, 90))
		picture.NewLoop(small()).Frame(i, e, one)
		off := 0
		for y := range 90 {
			for x := range 160 {
				r, _, _, _ := frame.At(x, y).RGBA()
				off += max(int(r>>8)-int(one.RGBAAt(x, y).R), int(one.RGBAAt(x, y).R)-int(r>>8))
			}
		}
		if mean := off / (160 * 90); mean > 6 { // what the encoding costs
			t.Errorf("frame %d differs by %d codes from the one drawn by itself", i, mean)
		}
	}
}

func TestFramesGiveUpWithTheirCaller(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := Frames(ctx, small(), picture.Exposure{Shutter: 0.01}, picture.Frames); !errors.Is(err, context.Canceled) {
		t.Errorf("drawn for nobody: %v", err)
	}
}

func TestStillIsAPicture(t *testing.T) {
	file, err := Still(small(), picture.Exposure{Shutter: 0.01})
	if err != nil {
		t.Fatal(err)
	}
	if frame, err := png.Decode(bytes.NewReader(file)); err != nil || frame.Bounds().Dx() != 160 {
		t.Errorf("the still is %v", err)
	}
}

func BenchmarkFrames640x360x16(b *testing.B) {
	v := small()
	v.Width, v.Height, v.Shake, v.ShiftsFrames = 640, 360, 30, true
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Frames(b.Context(), v, picture.Exposure{Shutter: 1. / 50, Gain: 2}, picture.Frames); err != nil {
			b.Fatal(err)
		}
	}
}
