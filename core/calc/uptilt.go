package calc

import (
	"pinhole/core/angle"
	"pinhole/core/motion"
)

// UptiltRequest asks for the camera tilt at another speed.
type UptiltRequest struct {
	TiltDeg  angle.Deg `json:"tiltDeg" minimum:"0" maximum:"89" doc:"the tilt that was right at atMps, degrees"`
	AtMps    float64   `json:"atMps" minimum:"0.01" maximum:"1000" doc:"metres a second"`
	SpeedMps float64   `json:"speedMps" minimum:"0" maximum:"1000" doc:"metres a second"`
}

// UptiltAnswer is the tilt.
type UptiltAnswer struct {
	TiltDeg angle.Deg `json:"tiltDeg" doc:"degrees"`
}

// TiltUp answers uptilt.
func TiltUp(r UptiltRequest) (*UptiltAnswer, error) {
	return &UptiltAnswer{motion.Uptilt(r.TiltDeg, r.AtMps, r.SpeedMps)}, nil
}
