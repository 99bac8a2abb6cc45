package light

import (
	"math"
	"testing"
	"time"

	"pinhole/core/stop"
)

// What is known of a place moves the model by as much, between two moments in a straight line, and
// beyond them as in general; another sky is left alone.
func TestKnownLight(t *testing.T) {
	noon := time.Date(2031, 6, 1, 12, 0, 0, 0, time.UTC)
	bare := &Outdoors{Place: Place{Lat: 38.4, Lon: -20.5}, Sky: ClearSky, Plane: Vertical, Albedo: DefaultAlbedo}
	known := *bare
	known.Known = map[Sky]Known{ClearSky: {Offset: 0.2, Spread: 0.25, Moments: []KnownMoment{{noon, 0.6, 0.1}, {noon.Add(time.Hour), 0.4, 0.2}}}}
	for _, test := range []struct {
		at             time.Duration
		offset, spread stop.Stops
	}{{-time.Minute, 0.2, 0.25}, {0, 0.6, 0.1}, {15 * time.Minute, 0.55, 0.125}, {time.Hour, 0.4, 0.2}, {2 * time.Hour, 0.2, 0.25}} {
		at := noon.Add(test.at)
		model, _ := bare.At(at)
		got, _ := known.At(at)
		if off := got.EV.Above(model.EV); math.Abs(float64(off-test.offset)) > 1e-9 || math.Abs(float64(got.Spread-test.spread)) > 1e-9 {
			t.Errorf("at %v it is moved by %.3f ±%.3f, want %.3f ±%.3f", test.at, off, got.Spread, test.offset, test.spread)
		}
	}
	known.Sky = Overcast
	bare.Sky = Overcast
	model, _ := bare.At(noon)
	if got, _ := known.At(noon); got != model {
		t.Errorf("another sky is moved: %+v, not %+v", got, model)
	}
}
