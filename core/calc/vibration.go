package calc

import (
	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// VibrationFields is a swing of the camera; hz or rpm, not both.
type VibrationFields struct {
	Hz           *float64  `json:"hz,omitempty" minimum:"0.001" maximum:"100000" doc:"frequency as measured"`
	RPM          *float64  `json:"rpm,omitempty" minimum:"0.1" maximum:"1000000" doc:"turns of a motor a minute; its speed wanders by 10 %"`
	Blades       *int      `json:"blades,omitempty" minimum:"1" maximum:"20" doc:"with rpm: blades that pass; 1, the rotation itself, by default"`
	AmplitudeDeg angle.Deg `json:"amplitudeDeg" minimum:"0" maximum:"90" doc:"how far it swings to either side, degrees"`
	ReadoutS     float64   `json:"readoutS" minimum:"0" maximum:"1" doc:"time the sensor takes to read a frame, seconds"`
}

func (f *VibrationFields) vibration(path string) (motion.Vibration, error) {
	v := motion.Vibration{Peak: f.AmplitudeDeg, ReadoutS: f.ReadoutS}
	switch {
	case f.Hz == nil && f.RPM == nil:
		return v, &problem.Fault{Field: path + "hz", Allowed: "a frequency in hertz, or rpm"}
	case f.Hz != nil && f.RPM != nil:
		return v, &problem.Fault{Field: path + "hz", Value: *f.Hz, Allowed: "either hz or rpm, not both"}
	case f.Hz != nil && f.Blades != nil:
		return v, &problem.Fault{Field: path + "blades", Value: *f.Blades, Allowed: "nothing beside hz: blades multiply rpm"}
	case f.Hz != nil:
		v.Hz = *f.Hz
	default:
		blades := 1
		if f.Blades != nil {
			blades = *f.Blades
		}
		v.Hz, v.Wanders = motion.FromMotor(*f.RPM, blades), motion.MotorWanders
	}
	return v, nil
}

// VibrationRequest asks what a vibration does to the picture.
type VibrationRequest struct {
	LensFields
	VibrationFields
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
	lens, err := r.lens("")
	if err != nil {
		return nil, err
	}
	v, err := r.vibration("")
	if err != nil {
		return nil, err
	}
	return &VibrationAnswer{
		Hz: v.Hz, Averaging: v.Averaging(r.ShutterS), WobblePx: v.WobblePx(lens, r.ShutterS), Bands: v.Bands(),
		Shows: v.Shows(lens, r.ShutterS), SoftnessPx: v.SoftnessPx(lens, r.ShutterS),
	}, nil
}
