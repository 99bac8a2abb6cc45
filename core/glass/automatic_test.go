package glass

import (
	"math"
	"testing"

	"pinhole/core/stop"
)

// The two habits behind four stops of glass, in light that leaves each room.
func TestAutomaticBehindGlass(t *testing.T) {
	camera := Automatic{Aperture: 2, Base: 100, Ceiling: 1600, Fastest: 1. / 8000, Slowest: 1. / 30, Preferred: 1. / 500}
	scene := stop.EV(13)
	camera.Moves = ShutterFirst
	slower, err1 := camera.Expose(scene, 4)
	camera.Moves = ISOFirst
	noisier, err2 := camera.Expose(scene, 4)
	if err1.Abs() > 1e-9 || err2.Abs() > 1e-9 {
		t.Errorf("errors %v and %v, want none", err1, err2)
	}
	if slower.ISO != 100 || noisier.Shutter != camera.Preferred || noisier.ISO < 350 {
		t.Errorf("shutter first takes %+v, ISO first %+v", slower, noisier)
	}
	if off := slower.EV().Above(noisier.EV()); off.Abs() > 1e-9 {
		t.Errorf("the two differ by %v", off)
	}
}

// Over the whole reach of light: never outside the camera's limits, no error
// while anything is left to move, and otherwise an error in the right direction.
func TestAutomaticNeverLeavesItsLimits(t *testing.T) {
	for _, moves := range []Moves{ShutterFirst, ISOFirst} {
		a := Automatic{Aperture: 2.8, Base: 100, Ceiling: 3200, Fastest: 1. / 8000, Slowest: 1. / 30, Preferred: 1. / 200, Moves: moves}
		for ev := stop.EV(-10); ev < 25; ev += 0.25 {
			set, err := a.Expose(ev, 3)
			if set.Shutter < a.Fastest || set.Shutter > a.Slowest || set.ISO < a.Base || set.ISO > a.Ceiling {
				t.Fatalf("%s at %v: %+v", moves, ev, set)
			}
			atBright := set.Shutter == a.Fastest && set.ISO == a.Base
			atDark := set.Shutter == a.Slowest && set.ISO == a.Ceiling
			if e := float64(err); math.Abs(e) > 1e-9 && !(e > 0 && atBright) && !(e < 0 && atDark) {
				t.Errorf("%s at %v: an error of %v at %+v", moves, ev, err, set)
			}
		}
	}
}
