package sim

import (
	"math"
	"pinhole/core/assemble"
	"testing"
	"time"

	"pinhole/core/light"
)

var island = assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}

// The meter follows the day within what its sky may stray and its own noise, and shows
// the same twice.
func TestTheMeterFollowsTheDay(t *testing.T) {
	for _, sky := range []light.Sky{light.ClearSky, light.PartlyCloudy, light.Overcast} {
		o := &light.Outdoors{Place: light.Place{Lat: island.LatDeg, Lon: island.LonDeg}, Sky: sky, Plane: light.Vertical, Albedo: light.DefaultAlbedo}
		moved := false
		for m := range 600 {
			at := time.Date(2031, 9, 20, 7, m, 0, 0, time.UTC)
			model, _ := o.At(at)
			a := Meter(MeterRequest{At: at, Place: island, Sky: sky})
			off := float64(a.EV100.Above(model.EV))
			if math.Abs(off) > float64(model.Spread)+5*float64(meterNoise) || !a.Simulated {
				t.Fatalf("%s at %v: off by %v", sky, at, off)
			}
			if again := Meter(MeterRequest{At: at, Place: island, Sky: sky}); *again != *a {
				t.Fatalf("%v is read as %v and %v", at, a.EV100, again.EV100)
			}
			moved = moved || math.Abs(off) > 0.1
		}
		if !moved {
			t.Errorf("%s: the meter shows the model", sky)
		}
	}
}

func TestTheSkyServiceKeepsItsWord(t *testing.T) {
	r := SkyRequest{From: time.Date(2031, 9, 20, 0, 0, 0, 0, time.UTC), To: time.Date(2031, 9, 27, 0, 0, 0, 0, time.UTC), Place: island}
	a, b := Sky(r), Sky(r)
	if a.Sky != b.Sky || len(a.Turns) == 0 || len(a.Turns) != len(b.Turns) || len(a.Turns) > mostTurns {
		t.Errorf("%+v and %+v", a, b)
	}
	last := a.Sky
	for i, turn := range a.Turns {
		if turn.Sky == last || !turn.From.After(r.From) || i > 0 && !turn.From.After(a.Turns[i-1].From) {
			t.Errorf("turn %d is %+v after %s", i, turn, last)
		}
		last = turn.Sky
	}
}
