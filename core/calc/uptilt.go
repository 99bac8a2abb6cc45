package calc

import (
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/motion"
)

// UptiltAnswer is the tilt.
type UptiltAnswer struct {
	TiltDeg angle.Deg `json:"tiltDeg" doc:"degrees"`
}

// TiltUp answers uptilt.
func TiltUp(r assemble.UptiltRequest) (*UptiltAnswer, error) {
	return &UptiltAnswer{motion.Uptilt(r.TiltDeg, r.AtMps, r.SpeedMps)}, nil
}
