package motion

import (
	"math"
	"testing"
)

func TestFrameSizes(t *testing.T) {
	for text, want := range map[string]FrameSize{"3840x2160": {3840, 2160}, " 1920 × 1080 ": {1920, 1080}, "2704X1520": {2704, 1520}} {
		got, err := ParseFrameSize(text)
		if err != nil || got != want {
			t.Errorf("%q is %v, %v", text, got, err)
		}
		if again, err := ParseFrameSize(got.String()); err != nil || again != got {
			t.Errorf("%v reads back as %v, %v", got, again, err)
		}
	}
	for _, text := range []string{"", "4k", "0x2160", "3840x", "-1x2", "1234567x2", "3840x2160x3"} {
		if got, err := ParseFrameSize(text); err == nil {
			t.Errorf("%q is read as %v", text, got)
		}
	}
}

// The corner of a flat picture lies where its side and its upper edge say; of a
// fisheye's, in proportion.
func TestTheCornerOfTheFrame(t *testing.T) {
	flat := Lens{WidthPx: 3840, HFOV: 90, Projection: Rectilinear}
	if got, want := flat.HalfDiagonal(1).Radians(), math.Atan(math.Sqrt2); math.Abs(got-want) > 1e-12 {
		t.Errorf("the corner of a square of 90° lies at %v, want %v", got, want)
	}
	round := Lens{WidthPx: 4000, HFOV: 120, Projection: Equidistant}
	if got := round.HalfDiagonal(0.75); math.Abs(float64(got)-75) > 1e-12 {
		t.Errorf("the corner of 120° by 90° lies at %v, want 75", got)
	}
}

// What is cropped away is what the image scale grows by.
func TestACropMagnifies(t *testing.T) {
	for _, p := range []Projection{Rectilinear, Equidistant} {
		l := Lens{WidthPx: 3840, HFOV: 100, Projection: p}
		if got := l.Cropped(0.2).PxPerRadian() / l.PxPerRadian(); math.Abs(got-1.25) > 1e-12 {
			t.Errorf("%s: a fifth cropped away magnifies by %v, want 1.25", p, got)
		}
	}
}
