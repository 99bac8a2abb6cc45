package fit

import (
	"pinhole/core/angle"
	"pinhole/core/stop"
)

// View is what the lens of a rig sees.
type View struct {
	Aperture        stop.FNumber `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number, not the T-number"`
	FocalMm         float64      `json:"focalMm" minimum:"0.1" maximum:"2000" doc:"true focal length, millimetres"`
	HalfDiagonalDeg angle.Deg    `json:"halfDiagonalDeg" minimum:"0" maximum:"89" doc:"from the axis to the corner of the frame"`
}
