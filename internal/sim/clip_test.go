package sim

import (
	"bytes"
	"math"
	"testing"

	"pinhole/core/take"
)

// A simulated clip is measured as the shot that it is of.
func TestASimulatedClipIsAsItsShot(t *testing.T) {
	known := take.Request{ShutterS: 1. / 50, HFOVDeg: 70}
	recorded := Clip(known, 25, 12, 3)
	clip, err := take.ReadY4M(bytes.NewReader(recorded))
	if err != nil {
		t.Fatal(err)
	}
	a, err := take.Measure(clip, known)
	if err != nil {
		t.Fatal(err)
	}
	if a.FPS != 25 || a.Shutter.Share == nil || math.Abs(*a.Shutter.Share-0.5) > 0.1 || a.Shake.DegS == nil || math.Abs(float64(*a.Shake.DegS)-12) > 3 || *a.Flicker.Depth != 0 {
		t.Errorf("shutter %+v, shake %+v, flicker %+v", a.Shutter, a.Shake, a.Flicker)
	}
	if !bytes.Equal(Clip(known, 25, 12, 3), recorded) {
		t.Error("a seed does not say which clip it is")
	}
	lit, err := take.ReadY4M(bytes.NewReader(Clip(take.Request{ShutterS: 1. / 200, MainsHz: 50, ReadoutS: 0.016}, 30, 0, 4)))
	if err != nil {
		t.Fatal(err)
	}
	if a, err = take.Measure(lit, take.Request{ReadoutS: 0.016}); err != nil || a.Flicker.Depth == nil || math.Abs(*a.Flicker.Depth-clipLampDepth) > 0.03 {
		t.Errorf("lamps: %+v, %v", a.Flicker, err)
	}
}
