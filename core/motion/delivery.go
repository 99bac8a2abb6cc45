package motion

import "pinhole/core/stop"

// Showing says how recorded frames become shown ones.
type Showing string

// The ways.
const (
	EveryFrame Showing = "every-frame" // slow motion, where more are recorded than shown
	RealTime   Showing = "real-time"   // frames are dropped
	SpeedUp    Showing = "speed-up"
)

// Values returns every Showing there is.
func (Showing) Values() []Showing {
	return []Showing{EveryFrame, RealTime, SpeedUp}
}

// Delivery is how recorded frames are shown. The zero value shows each of them.
type Delivery struct {
	Showing Showing
	// Rate is the frame rate at which it is shown; of no matter for EveryFrame.
	Rate stop.FrameRate
	// Factor is how many times faster than life SpeedUp is, above 0.
	Factor float64
}

// Shown returns how many moments of the scene are shown in a second of it: the step
// between shown frames is 1/Shown. It is capture where every frame is shown, the shown
// rate in real time, and that over the factor sped up. Strobing, and everything else that
// is about shown frames, is judged with it; so is the delivered angle, 360·t·Shown.
func (d Delivery) Shown(capture stop.FrameRate) stop.FrameRate {
	switch d.Showing {
	case RealTime:
		return d.Rate
	case SpeedUp:
		return stop.FrameRate(float64(d.Rate) / d.Factor)
	}
	return capture
}
