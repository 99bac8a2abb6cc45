package desk

import (
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
	"pinhole/internal/store"
	"slices"
)

// Archetype is a kind of camera to start from. Its values are ours, rough, and
// count as assumed until their owner says better.
type Archetype struct {
	Key    string             `json:"key"`
	Name   string             `json:"name"`
	Camera store.CameraFields `json:"camera"`
	Rig    store.RigSheet     `json:"rig"`
}

var everyStep = []string{"1/25", "1/30", "1/40", "1/50", "1/60", "1/80", "1/100", "1/120", "1/160", "1/200", "1/240", "1/320", "1/400", "1/500",
	"1/640", "1/800", "1/1000", "1/1250", "1/1600", "1/2000", "1/2500", "1/3200", "1/4000", "1/5000", "1/6400", "1/8000"}

// slowStep are the times beside them of cameras that hold still for a long exposure.
var slowStep = []string{"30s", "15s", "8s", "4s", "2s", "1s", "0.5s", "1/4", "1/8", "1/15"}

// Archetypes returns the kinds of camera to start from.
func Archetypes() []Archetype {
	return []Archetype{
		archetype("pocket-gimbal", "Pocket gimbal camera", 2, 100, 1600, []string{"24", "25", "30", "50", "60", "still"}, assemble.CameraProfile{
			Lens: flatLens(72), FocalMm: 5, Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.016, Automatic: &assemble.AutomaticProfile{Priority: glass.ShutterFirst},
		}, fit.RigFields{Mount: fit.Magnet, PupilDepthMm: number(2.5), PayloadG: number(5), AccelG: number(2), SpeedMps: number(3)}),
		archetype("action", "Action camera", 2.8, 100, 1600, []string{"24", "25", "30", "50", "60", "100", "120", "still"}, assemble.CameraProfile{
			Lens: roundLens(118), FocalMm: 2.7, Stabiliser: motion.Electronic, CropShare: 0.1, ReadoutS: 0.014, Automatic: &assemble.AutomaticProfile{Priority: glass.ShutterFirst},
		}, fit.RigFields{Mount: fit.Twist, PupilDepthMm: number(3), AccelG: number(6), SpeedMps: number(15)}),
		archetype("air-unit", "FPV air unit", 2.1, 100, 800, []string{"30", "60", "120"}, assemble.CameraProfile{
			Lens: roundLens(130), FocalMm: 2.4, Stabiliser: motion.Post, ReadoutS: 0.012, Automatic: &assemble.AutomaticProfile{Priority: glass.ISOFirst}, Flies: true,
		}, fit.RigFields{Mount: fit.PushOn, PupilDepthMm: number(3), AccelG: number(12), SpeedMps: number(30)}),
		archetype("camera-drone", "Camera drone", 2.8, 100, 800, []string{"24", "25", "30", "48", "50", "60", "still"}, assemble.CameraProfile{
			Lens: flatLens(70), FocalMm: 8, Stabiliser: motion.Gimbal, ReadoutS: 0.02, Automatic: &assemble.AutomaticProfile{Priority: glass.ShutterFirst}, Flies: true,
		}, fit.RigFields{Mount: fit.Snap, PupilDepthMm: number(3), FoldMm: number(3), PayloadG: number(4), TiltUpDeg: degrees(30), TiltDownDeg: degrees(90), AccelG: number(3), SpeedMps: number(16)}),
		archetype("phone-gimbal", "Phone in a motor gimbal", 1.8, 50, 800, []string{"24", "25", "30", "60", "still"}, assemble.CameraProfile{
			Lens: flatLens(68), FocalMm: 6, Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.02, Automatic: &assemble.AutomaticProfile{Priority: glass.ISOFirst},
		}, fit.RigFields{Mount: fit.Clip, PupilDepthMm: number(2), PayloadG: number(40), FilterArmMm: number(70), CounterArmMm: number(70), AccelG: number(2), SpeedMps: number(3)}),
	}
}

func archetype(key, name string, n stop.FNumber, base, ceiling stop.ISO, rates []string, profile assemble.CameraProfile, measures fit.RigFields) Archetype {
	steps := everyStep
	if slices.Contains(rates, "still") {
		steps = append(slices.Clone(slowStep), everyStep...)
	}
	c := store.CameraFields{Name: name, Aperture: n, ISOBase: base, ISOCeiling: ceiling, Steps: steps, Rates: rates, FrameSizes: []string{"3840x2160"},
		Mounted: []string{}, Profile: &profile, Archetype: key}
	rig := store.BareRig()
	rig.Measures = measures
	c.Sources, rig.Sources = assumed(cameraValues...), assumed(rigValues...)
	return Archetype{key, name, c, rig}
}

// cameraValues and rigValues are the fields whose source is kept.
var (
	cameraValues = []string{"aperture", "isoBase", "isoCeiling", "steps", "rates", "frameSizes", "profile.lens.hfovDeg", "profile.lens.projection", "profile.focalMm", "profile.stabiliser",
		"profile.cropShare", "profile.readoutS", "profile.automatic.priority"}
	rigValues = []string{"mount", "pupilDepthMm", "foldMm", "payloadG", "tiltUpDeg", "tiltDownDeg", "filterArmMm", "counterArmMm", "accelG", "speedMps"}
)

func assumed(fields ...string) map[string]store.Source {
	sources := map[string]store.Source{}
	for _, f := range fields {
		sources[f] = store.Assumed
	}
	return sources
}

// firstRig returns how a new camera is held until its owner says.
func firstRig(c store.CameraFields) store.RigSheet {
	for _, a := range Archetypes() {
		if a.Key == c.Archetype {
			return a.Rig
		}
	}
	return store.BareRig()
}

func flatLens(hfov angle.Deg) *assemble.LensFields {
	return &assemble.LensFields{WidthPx: assemble.UsualWidthPx, HFOVDeg: hfov, Projection: motion.Rectilinear}
}

func roundLens(hfov angle.Deg) *assemble.LensFields {
	return &assemble.LensFields{WidthPx: assemble.UsualWidthPx, HFOVDeg: hfov, Projection: motion.Equidistant}
}

func number(v float64) *float64 { return &v }

func degrees(d angle.Deg) *angle.Deg { return &d }
