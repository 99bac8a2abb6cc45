package service

import (
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"pinhole/internal/store"
)

// Archetype is a kind of camera to start from. Its values are ours, rough, and
// count as assumed until their owner says better.
type Archetype struct {
	Key    string             `json:"key"`
	Name   string             `json:"name"`
	Camera store.CameraFields `json:"camera"`
	Rig    store.RigSheet     `json:"rig"`
}

// measuresOf are how each kind takes a filter, and what pulls at it.
var measuresOf = map[string]fit.RigFields{
	"pocket-gimbal": {Mount: fit.Magnet, PupilDepthMm: number(2.5), PayloadG: number(5), AccelG: number(2), SpeedMps: number(3)},
	"action":        {Mount: fit.Twist, PupilDepthMm: number(3), AccelG: number(6), SpeedMps: number(15)},
	"air-unit":      {Mount: fit.PushOn, PupilDepthMm: number(3), AccelG: number(12), SpeedMps: number(30)},
	"camera-drone":  {Mount: fit.Snap, PupilDepthMm: number(3), FoldMm: number(3), PayloadG: number(4), TiltUpDeg: degrees(30), TiltDownDeg: degrees(90), AccelG: number(3), SpeedMps: number(16)},
	"phone-gimbal":  {Mount: fit.Clip, PupilDepthMm: number(2), PayloadG: number(40), FilterArmMm: number(70), CounterArmMm: number(70), AccelG: number(2), SpeedMps: number(3)},
}

// Archetypes returns the kinds of camera to start from.
func Archetypes() []Archetype {
	var all []Archetype
	for _, a := range assemble.Archetypes() {
		c := store.CameraFields{Name: a.Name, Aperture: a.Aperture, ISOBase: a.ISOBase, ISOCeiling: a.ISOCeiling, Steps: a.Steps, Rates: a.Rates, FrameSizes: []string{"3840x2160"},
			Mounted: []string{}, Profile: &a.Profile, Archetype: a.Key}
		rig := store.BareRig()
		rig.Measures = measuresOf[a.Key]
		c.Sources, rig.Sources = assumed(cameraValues...), assumed(rigValues...)
		all = append(all, Archetype{a.Key, a.Name, c, rig})
	}
	return all
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

func number(v float64) *float64 { return &v }

func degrees(d angle.Deg) *angle.Deg { return &d }
