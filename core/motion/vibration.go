package motion

import (
	"math"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Vibration is a steady swing of the camera, from a motor or its propeller.
type Vibration struct {
	// Hz is the frequency, above 0.
	Hz float64
	// Wanders is by what share of Hz the speed strays: 0 where the frequency was
	// measured, MotorWanders where it was counted from a motor's turns.
	Wanders float64
	// Peak is the amplitude: how far the camera swings to either side.
	Peak angle.Deg
	// ReadoutS is how long the sensor takes to read a frame, in seconds, at least 0.
	ReadoutS float64
}

// MotorWanders is how far a motor's speed strays while it flies, as a share.
const MotorWanders = 0.1

// FromMotor returns the frequency in Hz of a motor at rpm turns a minute:
// rpm/60 for its rotation, times the blades for their passing.
func FromMotor(rpm float64, blades int) float64 { return rpm / 60 * float64(blades) }

// Thresholds of wobble: a share of the picture's width, peak to peak, and bands
// across one frame.
const (
	wobbleShare = 0.001
	wobbleBands = 0.5
)

// Averaging returns the share of the swing that an exposure of t leaves:
// |sinc(f·t)|, the largest within the range in which the frequency wanders, so
// that no shutter looks perfect by chance.
func (v Vibration) Averaging(t stop.Shutter) float64 {
	x := v.Hz * t.Seconds()
	return largestSinc(x*(1-v.Wanders), x*(1+v.Wanders))
}

// swingPx is the swing from peak to peak, unaveraged.
func (v Vibration) swingPx(l Lens) float64 { return l.Px(2 * v.Peak) }

// WobblePx returns the wobble from peak to peak that is left:
// 2·A·f_px·|sinc(f·t)|.
func (v Vibration) WobblePx(l Lens, t stop.Shutter) float64 {
	return v.swingPx(l) * v.Averaging(t)
}

// Bands returns how many swings one frame's readout sees: f·Tr.
func (v Vibration) Bands() float64 { return v.Hz * v.ReadoutS }

// Shows reports whether the wobble is seen: above 0.1 % of the width with at
// least half a band across the frame. With fewer bands the whole frame moves,
// which is shake, not wobble.
func (v Vibration) Shows(l Lens, t stop.Shutter) bool {
	return v.bends() && !stop.AtMost(l.Share(v.WobblePx(l, t)), wobbleShare)
}

func (v Vibration) bends() bool { return stop.AtMost(wobbleBands, v.Bands()) }

// SoftnessPx returns what the averaged swing becomes: blur of
// 2·A·f_px·sin(π·min(f·t, ½)) px.
func (v Vibration) SoftnessPx(l Lens, t stop.Shutter) float64 {
	return v.swingPx(l) * math.Sin(math.Pi*min(v.Hz*t.Seconds(), 0.5))
}

// Steady returns the shutter times up to longest at which the wobble stays below
// the given multiple of what shows, in order and apart.
func (v Vibration) Steady(l Lens, multiple float64, longest stop.Shutter) []stop.Span {
	most := multiple * wobbleShare / l.Share(v.swingPx(l))
	if !v.bends() || most >= 1 {
		return []stop.Span{{To: longest}}
	}
	// A shutter is steady when its whole range of x = f·t is.
	low, high := 1-v.Wanders, 1+v.Wanders
	var steady []stop.Span
	for _, in := range sincWithin(most, v.Hz*longest.Seconds()*high) {
		span := stop.Span{From: stop.Shutter(in.From / low / v.Hz), To: min(longest, stop.Shutter(in.To/high/v.Hz))}
		if span.From <= span.To {
			steady = append(steady, span)
		}
	}
	return steady
}
