package shot

import (
	"reflect"
	"testing"

	"pinhole/core/motion"
	"pinhole/core/stop"
)

// What was worked out for a shorter shutter is no answer for a longer one, and the other way round.
func TestASwingIsWorkedOutAsFarAsItIsAsked(t *testing.T) {
	lamp := motion.Lamp{PulseHz: 100, Depth: 0.8}
	motor := Vibrating{
		Lens:      motion.Lens{WidthPx: 3840, HFOV: 118, Projection: motion.Equidistant},
		Vibration: motion.Vibration{Hz: 150, Peak: 0.05, ReadoutS: 0.012},
	}
	fresh := func(longest stop.Shutter) [2]Demand {
		k := new(Scene).known()
		return [2]Demand{k.lamps(lamp, longest), k.wobble(motor, longest)}
	}
	k := new(Scene).known()
	for _, longest := range []stop.Shutter{1. / 30, 1. / 25, 1. / 12, 2, 1. / 100, 0.5} {
		got := [2]Demand{k.lamps(lamp, longest), k.wobble(motor, longest)}
		if want := fresh(longest); !reflect.DeepEqual(got, want) {
			t.Errorf("up to %v the demands are %v, by themselves %v", longest, got, want)
		}
		for _, d := range got {
			if n := len(d.Holds); n == 0 || d.Holds[n-1].To > longest {
				t.Errorf("up to %v %s holds at %v", longest, d.Kind, d.Holds)
			}
		}
	}
}
