package shot

import (
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Where what swings stops to hold and is only strained, by default.
const (
	strainedRipple = 0.05 // of the exposure; 0.07 stops from frame to frame
	strainedWobble = 2    // times what shows
)

// swings keeps what lamps and motors demand of any shutter, which is the dearest to work out. A
// scene shares it with those it is changed into: most changes leave both as they are.
type swings struct {
	byLamp  map[motion.Lamp]Demand
	byMotor map[Vibrating]Demand
}

// known returns what is kept of the scene's swings.
func (s *Scene) known() *swings {
	if s.swings == nil {
		s.swings = &swings{map[motion.Lamp]Demand{}, map[Vibrating]Demand{}}
	}
	return s.swings
}

// lamps asks for a shutter behind which the lamp does not pulse.
func (k *swings) lamps(l motion.Lamp) Demand {
	return kept(k.byLamp, l, func() Demand {
		return Demand{Lamps, l.Calm(motion.MostRipple, everyTime), l.Calm(strainedRipple, everyTime)}
	})
}

// wobble asks for a shutter behind which the motor does not bend the picture.
func (k *swings) wobble(v Vibrating) Demand {
	return kept(k.byMotor, v, func() Demand {
		return Demand{Wobble, v.Steady(v.Lens, 1, everyTime), v.Steady(v.Lens, strainedWobble, everyTime)}
	})
}

func kept[K comparable](by map[K]Demand, at K, work func() Demand) Demand {
	d, isKnown := by[at]
	if !isKnown {
		d = work()
		by[at] = d
	}
	return d
}

// until returns the demand on shutters up to the longest.
func (d Demand) until(longest stop.Shutter) Demand {
	within := []stop.Span{{To: longest}}
	return Demand{d.Kind, stop.Intersect(d.Holds, within), stop.Intersect(d.Bears, within)}
}
