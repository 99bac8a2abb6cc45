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

// swings keeps what lamps and motors demand, which is the dearest to work out. A scene shares
// it with those it is changed into: most changes leave both as they are.
type swings struct {
	byLamp  map[lampUntil]Demand
	byMotor map[motorUntil]Demand
}

type lampUntil struct {
	motion.Lamp
	longest stop.Shutter
}

type motorUntil struct {
	Vibrating
	longest stop.Shutter
}

// known returns what is kept of the scene's swings.
func (s *Scene) known() *swings {
	if s.swings == nil {
		s.swings = &swings{map[lampUntil]Demand{}, map[motorUntil]Demand{}}
	}
	return s.swings
}

// lamps asks for a shutter up to the longest behind which the lamp does not pulse.
func (k *swings) lamps(l motion.Lamp, longest stop.Shutter) Demand {
	at := lampUntil{l, longest}
	d, isKnown := k.byLamp[at]
	if !isKnown {
		d = Demand{Lamps, l.Calm(motion.MostRipple, longest), l.Calm(strainedRipple, longest)}
		k.byLamp[at] = d
	}
	return d
}

// wobble asks for a shutter up to the longest behind which the motor does not bend the picture.
func (k *swings) wobble(v Vibrating, longest stop.Shutter) Demand {
	at := motorUntil{v, longest}
	d, isKnown := k.byMotor[at]
	if !isKnown {
		d = Demand{Wobble, v.Steady(v.Lens, 1, longest), v.Steady(v.Lens, strainedWobble, longest)}
		k.byMotor[at] = d
	}
	return d
}
