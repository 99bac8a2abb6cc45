package calc

import (
	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
)

// LensFields is a picture's width and what it shows.
type LensFields struct {
	WidthPx    float64           `json:"widthPx" minimum:"1" maximum:"100000" doc:"width of the output frame in pixels"`
	HFOVDeg    angle.Deg         `json:"hfovDeg" minimum:"0.01" maximum:"360" doc:"horizontal field of view in degrees; below 180 for a rectilinear lens"`
	Projection motion.Projection `json:"projection" enum:"rectilinear,equidistant" doc:"equidistant is a fisheye"`
}

// lens returns the lens; path is where the fields stand, as in "blur.".
func (f *LensFields) lens(path string) (motion.Lens, error) {
	if f.Projection == motion.Rectilinear && f.HFOVDeg > widestFlat {
		return motion.Lens{}, &problem.Fault{Field: path + "hfovDeg", Value: f.HFOVDeg, Allowed: "at most 179 degrees for a rectilinear lens: its picture of a half circle would be infinitely wide"}
	}
	return motion.Lens{WidthPx: f.WidthPx, HFOV: f.HFOVDeg, Projection: f.Projection}, nil
}

// widestFlat is the widest rectilinear view that is accepted.
const widestFlat = angle.Deg(179)
