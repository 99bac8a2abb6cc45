package assemble

import (
	"slices"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Archetype is a kind of camera, for a first answer. Its values are ours, rough, and count
// as assumed until its owner says better.
type Archetype struct {
	Key  string
	Name string
	// Called is what people call one in a line, in lower case, the usual word first.
	Called     []string
	Aperture   stop.FNumber
	ISOBase    stop.ISO
	ISOCeiling stop.ISO
	Rates      []string
	Steps      []string
	Profile    CameraProfile
}

var everyStep = []string{"1/25", "1/30", "1/40", "1/50", "1/60", "1/80", "1/100", "1/120", "1/160", "1/200", "1/240", "1/320", "1/400", "1/500",
	"1/640", "1/800", "1/1000", "1/1250", "1/1600", "1/2000", "1/2500", "1/3200", "1/4000", "1/5000", "1/6400", "1/8000"}

// slowStep are the times beside them of cameras that hold still for a long exposure.
var slowStep = []string{"30s", "15s", "8s", "4s", "2s", "1s", "0.5s", "1/4", "1/8", "1/15"}

// Archetypes returns the kinds of camera there are.
func Archetypes() []Archetype {
	return []Archetype{
		{Key: "pocket-gimbal", Name: "Pocket gimbal camera", Called: []string{"gimbal", "pocket gimbal", "pocket camera"}, Aperture: 2, ISOBase: 100, ISOCeiling: 1600,
			Rates: []string{"24", "25", "30", "50", "60", "still"}, Steps: stepsOf(true), Profile: CameraProfile{
				Lens: flatLens(72), FocalMm: 5, Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.016, Automatic: &AutomaticProfile{Priority: glass.ShutterFirst},
			}},
		{Key: "action", Name: "Action camera", Called: []string{"action", "action camera", "action cam"}, Aperture: 2.8, ISOBase: 100, ISOCeiling: 1600,
			Rates: []string{"24", "25", "30", "50", "60", "100", "120", "still"}, Steps: stepsOf(true), Profile: CameraProfile{
				Lens: roundLens(118), FocalMm: 2.7, Stabiliser: motion.Electronic, CropShare: 0.1, ReadoutS: 0.014, Automatic: &AutomaticProfile{Priority: glass.ShutterFirst},
			}},
		{Key: "air-unit", Name: "FPV air unit", Called: []string{"fpv", "air unit", "quad", "fpv quad"}, Aperture: 2.1, ISOBase: 100, ISOCeiling: 800,
			Rates: []string{"30", "60", "120"}, Steps: stepsOf(false), Profile: CameraProfile{
				Lens: roundLens(130), FocalMm: 2.4, Stabiliser: motion.Post, ReadoutS: 0.012, Automatic: &AutomaticProfile{Priority: glass.ISOFirst}, Flies: true,
			}},
		{Key: "camera-drone", Name: "Camera drone", Called: []string{"drone", "camera drone"}, Aperture: 2.8, ISOBase: 100, ISOCeiling: 800,
			Rates: []string{"24", "25", "30", "48", "50", "60", "still"}, Steps: stepsOf(true), Profile: CameraProfile{
				Lens: flatLens(70), FocalMm: 8, Stabiliser: motion.Gimbal, ReadoutS: 0.02, Automatic: &AutomaticProfile{Priority: glass.ShutterFirst}, Flies: true,
			}},
		{Key: "phone-gimbal", Name: "Phone in a motor gimbal", Called: []string{"phone", "phone gimbal"}, Aperture: 1.8, ISOBase: 50, ISOCeiling: 800,
			Rates: []string{"24", "25", "30", "60", "still"}, Steps: stepsOf(true), Profile: CameraProfile{
				Lens: flatLens(68), FocalMm: 6, Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.02, Automatic: &AutomaticProfile{Priority: glass.ISOFirst},
			}},
	}
}

// stepsOf returns the shutter times of a camera's menu, with those of a long exposure where
// it takes stills.
func stepsOf(isLong bool) []string {
	if isLong {
		return append(slices.Clone(slowStep), everyStep...)
	}
	return slices.Clone(everyStep)
}

func flatLens(hfov angle.Deg) *LensFields {
	return &LensFields{WidthPx: UsualWidthPx, HFOVDeg: hfov, Projection: motion.Rectilinear}
}

func roundLens(hfov angle.Deg) *LensFields {
	return &LensFields{WidthPx: UsualWidthPx, HFOVDeg: hfov, Projection: motion.Equidistant}
}
