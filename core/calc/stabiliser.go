package calc

import (
	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// ShakeFields is how a body shakes the camera, and what hides it.
type ShakeFields struct {
	Kind           motion.Stabiliser `json:"kind" enum:"none,electronic,gimbal,gimbal+electronic,post" doc:"post: later, from a log of the gyro"`
	ShakeDegS      angle.DegPerS     `json:"shakeDegS" minimum:"0" maximum:"100000" doc:"90th percentile of angular speed, degrees a second"`
	PassShare      *float64          `json:"passShare,omitempty" minimum:"0" maximum:"1" doc:"share of the shake a gimbal lets through; 0.08 by default"`
	ToleranceShare *float64          `json:"toleranceShare,omitempty" minimum:"0.000001" maximum:"1" doc:"blur that is hidden, as a share of the width; 0.002 by default"`
}

func (f *ShakeFields) shake() motion.Shake {
	s := motion.Shake{Stabiliser: f.Kind, Rate: f.ShakeDegS, Passes: motion.GimbalPasses, Tolerance: motion.GhostTolerance}
	if f.PassShare != nil {
		s.Passes = *f.PassShare
	}
	if f.ToleranceShare != nil {
		s.Tolerance = *f.ToleranceShare
	}
	return s
}

// StabiliserRequest asks down to which shutter a stabiliser works.
type StabiliserRequest struct {
	LensFields
	ShakeFields
	ShutterS *stop.Shutter `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
}

// StabiliserAnswer is the floor, and what one shutter does.
type StabiliserAnswer struct {
	FloorS *stop.Shutter `json:"floorS" doc:"the slowest shutter at which it works, seconds; null where there is no floor"`
	BlurPx *float64      `json:"blurPx,omitempty" doc:"blur inside one frame at shutterS"`
	Holds  *bool         `json:"holds,omitempty" doc:"whether that is hidden; left out where nothing shifts frames"`
}

// StabiliserFloor answers stabiliser.
func StabiliserFloor(r StabiliserRequest) (*StabiliserAnswer, error) {
	lens, err := r.lens("")
	if err != nil {
		return nil, err
	}
	shake := r.shake()
	a := &StabiliserAnswer{}
	floor, hasFloor := shake.Floor(lens)
	if hasFloor {
		a.FloorS = &floor
	}
	if r.ShutterS != nil {
		a.BlurPx = number(shake.BlurPx(lens, *r.ShutterS))
		if shake.Stabiliser.ShiftsFrames() {
			isHeld := !hasFloor || stop.AtMost(r.ShutterS.Over(floor), 0)
			a.Holds = &isHeld
		}
	}
	return a, nil
}
