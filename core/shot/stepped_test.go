package shot

import (
	"math"
	"testing"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// walked is a camera with an electronic stabiliser that is walked with in some light.
func walked(t *testing.T, ev stop.EV, kit ...stop.Stops) *Scene {
	t.Helper()
	q := glass.Question{
		Setting: stop.Setting{Aperture: 2.8, Shutter: 1. / 50, ISO: 100}, Rate: 25, Ceiling: 1600, Fastest: 1. / 8000, Light: glass.Light{Low: ev, High: ev},
	}
	var filters []glass.Filter
	for i, s := range kit {
		filters = append(filters, glass.Filter{ID: string(rune('a' + i)), Kind: glass.ND, Stops: s})
	}
	stacks, err := glass.Stacks(filters, glass.Rules{MaxLayers: 1})
	if err != nil {
		t.Fatal(err)
	}
	return &Scene{Question: q, Stacks: stacks, Carried: motion.ByHand, Shaking: &Shaking{
		Lens:  motion.Lens{WidthPx: 3840, HFOV: 115, Projection: motion.Equidistant},
		Shake: motion.Shake{Stabiliser: motion.Electronic, Rate: 20, Tolerance: motion.GhostTolerance},
	}}
}

// The steps lie around the computed limit, each exposes as the light asks, and one stack serves
// all of them.
func TestASteppedTrial(t *testing.T) {
	for _, ev := range []stop.EV{9, 11, 13, 15} {
		s := walked(t, ev, 2, 4, 6)
		trial, ok := s.SteppedTrial()
		if !ok {
			t.Errorf("EV %v: no trial", ev)
			continue
		}
		first, last := trial.Steps[0].Shutter, trial.Steps[len(trial.Steps)-1].Shutter
		if !(first < trial.Computed && trial.Computed < last) {
			t.Errorf("EV %v: %v to %v around %v", ev, first, last, trial.Computed)
		}
		for i, step := range trial.Steps {
			if i > 0 && step.Shutter <= trial.Steps[i-1].Shutter {
				t.Errorf("EV %v: step %d is no slower", ev, i)
			}
			setting := stop.Setting{Aperture: 2.8, Shutter: step.Shutter, ISO: step.ISO}
			left := float64(ev.Above(setting.EV()) - trial.Stack.At(0) - step.Off)
			if math.Abs(left) > 1./6+1e-9 { // ISO goes by thirds
				t.Errorf("EV %v, %v, %v: off by %.2f", ev, step.Shutter, step.ISO, left)
			}
		}
	}
}

// Where nothing shakes, nothing is stabilised, or it is far too dark, there is nothing to try.
func TestNothingToTry(t *testing.T) {
	stand, bare, dark := walked(t, 12), walked(t, 12), walked(t, -3)
	stand.Shaking.Rate = motion.StandShake
	bare.Shaking.Stabiliser = motion.Gimbal
	for name, s := range map[string]*Scene{"a stand": stand, "a gimbal": bare, "night": dark} {
		if trial, ok := s.SteppedTrial(); ok {
			t.Errorf("%s: %+v", name, trial)
		}
	}
}
