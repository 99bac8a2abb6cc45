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
func TestSpriteHoldsEveryFrameInOrder(t *testing.T) {
	e := picture.Exposure{Shutter: 1. / 100}
	file, err := Sprite(t.Context(), small(), e)
	if err != nil {
		t.Fatal(err)
	}
	sheet, err := jpeg.Decode(bytes.NewReader(file))
	if err != nil || sheet.Bounds() != image.Rect(0, 0, 160, 90*picture.Frames) {
		t.Fatalf("the sheet is %v, %v", sheet.Bounds(), err)
	}
	for _, i := range []int{0, 7, 15} {
		one := image.NewRGBA(image.Rect(0, 0, 160, 90))
		picture.NewLoop(small()).Frame(i, e, one)
		off := 0
		for y := range 90 {
			for x := range 160 {
				r, _, _, _ := sheet.At(x, y+90*i).RGBA()
				off += max(int(r>>8)-int(one.RGBAAt(x, y).R), int(one.RGBAAt(x, y).R)-int(r>>8))
			}
		}
		if mean := off / (160 * 90); mean > 6 { // what the encoding costs
			t.Errorf("frame %d differs by %d codes from the one drawn by itself", i, mean)
		}
	}
}

func TestSpriteGivesUpWithItsCaller(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := Sprite(ctx, small(), picture.Exposure{Shutter: 0.01}); !errors.Is(err, context.Canceled) {
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

func BenchmarkSprite(b *testing.B) {
	v := small()
	v.Width, v.Height, v.Shake, v.ShiftsFrames = 640, 360, 30, true
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Sprite(b.Context(), v, picture.Exposure{Shutter: 1. / 50, Gain: 2}); err != nil {
			b.Fatal(err)
		}
	}
}
