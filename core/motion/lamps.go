package motion

import (
	"math"

	"pinhole/core/stop"
)

// Lamp is light that pulses.
type Lamp struct {
	// PulseHz is how often, above 0: twice the mains frequency, or what the
	// driver of an LED does.
	PulseHz float64
	// Depth is how much of the light pulses, in [0, 1].
	Depth float64
}

// OnMains returns a lamp that pulses fully, twice in each cycle of the mains.
func OnMains(hz float64) Lamp { return Lamp{PulseHz: 2 * hz, Depth: 1} }

// MostRipple is the ripple up to which a shutter counts as safe.
const MostRipple = 0.02

// Ripple returns how much the exposure varies from frame to frame, as a share:
// |sinc(pulse·t)|·depth.
func (l Lamp) Ripple(t stop.Shutter) float64 {
	return math.Abs(sinc(l.PulseHz*t.Seconds())) * l.Depth
}

// Safe reports whether the ripple at t is at most MostRipple.
func (l Lamp) Safe(t stop.Shutter) bool { return stop.AtMost(l.Ripple(t), MostRipple) }

// BeatHz returns how fast the brightness beats on video: the distance of the
// pulse to the nearest multiple of the frame rate. 0 is a steady banding.
func (l Lamp) BeatHz(fps stop.FrameRate) float64 {
	f := float64(fps)
	return math.Abs(l.PulseHz - math.Round(l.PulseHz/f)*f)
}

// maxSafe is how many safe shutters are listed. From the sixteenth on every
// shutter is safe, because 1/(16π) is below MostRipple.
const maxSafe = 100

// SafeShutters returns the shutter times of whole pulses, k/pulse, up to a frame
// at fps, the shortest first; the first hundred of them.
func (l Lamp) SafeShutters(fps stop.FrameRate) []stop.Shutter {
	var safe []stop.Shutter
	for k := 1.0; len(safe) < maxSafe; k++ {
		t := stop.Shutter(k / l.PulseHz)
		if !t.Possible(fps) {
			break
		}
		safe = append(safe, t)
	}
	return safe
}

// Calm returns the shutter times up to longest whose ripple stays at or below
// most, above 0, in order and apart.
func (l Lamp) Calm(most float64, longest stop.Shutter) []stop.Span {
	if l.Depth <= most {
		return []stop.Span{{To: longest}}
	}
	var calm []stop.Span
	for _, in := range sincWithin(most/l.Depth, l.PulseHz*longest.Seconds()) {
		calm = append(calm, stop.Span{From: stop.Shutter(in.From / l.PulseHz), To: stop.Shutter(in.To / l.PulseHz)})
	}
	return calm
}
