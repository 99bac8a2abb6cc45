package take

import (
	"math"
	"slices"
	"testing"
)

// windows measures a clip in windows of so many frames, each beginning with the last of the one
// before.
func windows(t *testing.T, c *Clip, each int, r Request) []Part {
	t.Helper()
	var parts []Part
	for from := 0; from+1 < len(c.Frames); from += each - 1 {
		own := *c
		own.Frames = c.Frames[from:min(from+each, len(c.Frames))]
		parts = append(parts, Part{*measured(t, &own, r), from > 0})
	}
	return parts
}

// A clip in windows says what it says as a whole.
func TestWindowsAreOneClip(t *testing.T) {
	c := made{frames: 41, share: 0.5, fps: 25, path: hand, seed: 12, gain: func(i int, _ float64) float64 {
		return math.Exp2(0.6 / (1 + math.Exp(-float64(i-20)/4)))
	}}.clip()
	r := Request{HFOVDeg: 70}
	whole, joined := measured(t, c, r), Join(windows(t, c, 21, r))
	if joined.Frames != whole.Frames || len(joined.Exposure.MeanStops) != whole.Frames || len(joined.Motion.Pairs) != len(whole.Motion.Pairs) || len(joined.Gaps) > 0 {
		t.Fatalf("%d frames, %d pairs, gaps %v", joined.Frames, len(joined.Motion.Pairs), joined.Gaps)
	}
	for i, v := range whole.Exposure.GainStops {
		near(t, "gain", joined.Exposure.GainStops[i], v, 0.01)
	}
	near(t, "drift", joined.Exposure.DriftStops, whole.Exposure.DriftStops, 0.01)
	near(t, "share", *joined.Shutter.Share, *whole.Shutter.Share, 0.06)
	near(t, "its error", joined.Shutter.SE, whole.Shutter.SE, 0.03)
	near(t, "shake", float64(*joined.Shake.DegS), float64(*whole.Shake.DegS), 0.2*float64(*whole.Shake.DegS))
	near(t, "step", *joined.Strobe.StepPx, *whole.Strobe.StepPx, 3)
}

// A repeat within a window is told with its number in the clip; windows that lie apart have a gap.
func TestFramesAreCountedThrough(t *testing.T) {
	c := made{frames: 23, share: 0.3, fps: 25, path: hand, seed: 13}.clip()
	c.Frames[16] = c.Frames[15]
	parts := windows(t, c, 12, Request{})
	if got := Join(parts); !slices.Equal(got.Duplicates, []int{16}) || len(got.Gaps) > 0 {
		t.Errorf("duplicates %v, gaps %v", got.Duplicates, got.Gaps)
	}
	apart := Join([]Part{{parts[0].Answer, false}, {parts[1].Answer, false}})
	if !slices.Equal(apart.Gaps, []int{12}) || !slices.Equal(apart.Duplicates, []int{17}) {
		t.Errorf("apart: gaps %v, duplicates %v", apart.Gaps, apart.Duplicates)
	}
}

// A shutter that moves between windows is told with a larger error; a lower bound does not count
// beside what is told; where nothing is told, the reason is.
func TestPartsThatDisagree(t *testing.T) {
	part := func(share, se float64, atLeast bool) Part {
		return Part{Answer: Answer{Frames: 10, FPS: 25, WidthPx: 320, Shutter: Shutter{Share: &share, SE: se, AtLeast: atLeast, By: ByPairs}, Exposure: Exposure{MeanStops: make([]float64, 10), GainStops: make([]float64, 10)}}}
	}
	moved := Join([]Part{part(0.2, 0.02, false), part(0.8, 0.02, false)})
	near(t, "the middle", *moved.Shutter.Share, 0.5, 1e-9)
	if moved.Shutter.SE < 0.2 {
		t.Errorf("0.2 and 0.8 are ±%.2f together", moved.Shutter.SE)
	}
	bounded := Join([]Part{part(0.2, 0.02, true), part(0.5, 0.03, false)})
	if bounded.Shutter.AtLeast || *bounded.Shutter.Share != 0.5 {
		t.Errorf("a bound counts: %+v", bounded.Shutter)
	}
	if bound := Join([]Part{part(0.2, 0.02, true), part(0.3, 0.03, true)}); !bound.Shutter.AtLeast || *bound.Shutter.Share != 0.3 {
		t.Errorf("of bounds the highest: %+v", bound.Shutter)
	}
	mute := Join([]Part{{Answer: Answer{Frames: 10, FPS: 25, Shutter: Shutter{Why: WhyMotion}, Exposure: Exposure{MeanStops: make([]float64, 10), GainStops: make([]float64, 10)}}}})
	if mute.Shutter.Share != nil || mute.Shutter.Why != WhyMotion {
		t.Errorf("%+v", mute.Shutter)
	}
}
