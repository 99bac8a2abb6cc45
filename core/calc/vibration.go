package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/stop"
)

// VibrationRequest asks what a vibration does to the picture.
type VibrationRequest struct {
	assemble.LensFields
	assemble.VibrationFields
	ShutterS stop.Shutter `json:"shutterS" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
}

// VibrationAnswer is the wobble and the softness that is left.
type VibrationAnswer struct {
	Hz         float64 `json:"hz"`
	Averaging  float64 `json:"averaging" doc:"share of the swing that the exposure leaves"`
	WobblePx   float64 `json:"wobblePx" doc:"from peak to peak"`
	Bands      float64 `json:"bands" doc:"swings within one readout"`
	Shows      bool    `json:"shows"`
	SoftnessPx float64 `json:"softnessPx" doc:"blur that the averaged swing becomes"`
}

// Vibrate answers vibration.
func Vibrate(r VibrationRequest) (*VibrationAnswer, error) {
	lens, err := r.Lens("")
	if err != nil {
		return nil, err
	}
	v, err := r.Vibration("")
	if err != nil {
		return nil, err
	}
	return &VibrationAnswer{
		Hz: v.Hz, Averaging: v.Averaging(r.ShutterS), WobblePx: v.WobblePx(lens, r.ShutterS), Bands: v.Bands(),
		Shows: v.Shows(lens, r.ShutterS), SoftnessPx: v.SoftnessPx(lens, r.ShutterS),
	}, nil
}
