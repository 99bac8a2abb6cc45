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

// swings keeps what lamps and motors demand of shutters, which is the dearest to work out. A
// scene shares it with those it is changed into: most changes leave both as they are.
type swings struct {
	byLamp  map[motion.Lamp]swung
	byMotor map[Vibrating]swung
}

// swung is a demand on shutters up to the longest that was thought of.
type swung struct {
	Demand
	longest stop.Shutter
}

// known returns what is kept of the scene's swings.
func (s *Scene) known() *swings {
	if s.swings == nil {
		s.swings = &swings{map[motion.Lamp]swung{}, map[Vibrating]swung{}}
	}
	return s.swings
}

// lamps asks for a shutter up to the longest behind which the lamp does not pulse.
func (k *swings) lamps(l motion.Lamp, longest stop.Shutter) Demand {
	return kept(k.byLamp, l, longest, func(longest stop.Shutter) Demand {
		return Demand{Lamps, l.Calm(motion.MostRipple, longest), l.Calm(strainedRipple, longest)}
	})
}

// wobble asks for a shutter up to the longest behind which the motor does not bend the picture.
func (k *swings) wobble(v Vibrating, longest stop.Shutter) Demand {
	return kept(k.byMotor, v, longest, func(longest stop.Shutter) Demand {
		return Demand{Wobble, v.Steady(v.Lens, 1, longest), v.Steady(v.Lens, strainedWobble, longest)}
	})
}

// kept returns a demand up to the longest. It is worked out for twice as long: half the frame
// rate, which is tried next, needs no other.
func kept[K comparable](by map[K]swung, at K, longest stop.Shutter, work func(longest stop.Shutter) Demand) Demand {
	d := by[at]
	if d.longest < longest {
		d = swung{work(2 * longest), 2 * longest}
		by[at] = d
	}
	return d.until(longest)
}

// until returns the demand on shutters up to the longest.
func (d Demand) until(longest stop.Shutter) Demand {
	within := []stop.Span{{To: longest}}
	return Demand{d.Kind, stop.Intersect(d.Holds, within), stop.Intersect(d.Bears, within)}
}
