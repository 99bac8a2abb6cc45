package calc

import (
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// LampFields is light that pulses; mainsHz or pulseHz, not both.
type LampFields struct {
	MainsHz *float64 `json:"mainsHz,omitempty" minimum:"1" maximum:"1000" doc:"frequency of the mains; lamps pulse twice as often"`
	PulseHz *float64 `json:"pulseHz,omitempty" minimum:"1" maximum:"1000000" doc:"what the driver of an LED does"`
	Depth   *float64 `json:"depth,omitempty" minimum:"0" maximum:"1" doc:"how much of the light pulses; 1 by default"`
}

func (f *LampFields) lamp(path string) (motion.Lamp, error) {
	var lamp motion.Lamp
	switch {
	case f.MainsHz != nil && f.PulseHz != nil:
		return lamp, &problem.Fault{Field: path + "mainsHz", Value: *f.MainsHz, Allowed: "either mainsHz or pulseHz, not both"}
	case f.MainsHz != nil:
		lamp = motion.OnMains(*f.MainsHz)
	case f.PulseHz != nil:
		lamp = motion.Lamp{PulseHz: *f.PulseHz, Depth: 1}
	default:
		return lamp, &problem.Fault{Field: path + "mainsHz", Allowed: "the frequency of the mains, or pulseHz"}
	}
	if f.Depth != nil {
		lamp.Depth = *f.Depth
	}
	return lamp, nil
}

// LampsRequest asks what pulsing lamps do to the exposure.
type LampsRequest struct {
	LampFields
	ShutterS stop.Shutter `json:"shutterS" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	FPS      float64      `json:"fps" minimum:"0.00001" maximum:"10000" doc:"frames per second"`
}

// LampsAnswer is the ripple and the shutters that avoid it.
type LampsAnswer struct {
	Ripple float64        `json:"ripple" doc:"how much the exposure varies, as a share"`
	BeatHz float64        `json:"beatHz" doc:"how fast the brightness beats on video; 0 is a steady banding"`
	SafeS  []stop.Shutter `json:"safeS" doc:"whole pulses up to the length of a frame, seconds, the first hundred"`
	Safe   bool           `json:"safe" doc:"the ripple is at most 0.02"`
}

// UnderLamps answers lamps.
func UnderLamps(r LampsRequest) (*LampsAnswer, error) {
	lamp, err := r.lamp("")
	if err != nil {
		return nil, err
	}
	fps := stop.ExactRate(r.FPS)
	a := &LampsAnswer{Ripple: lamp.Ripple(r.ShutterS), BeatHz: lamp.BeatHz(fps), SafeS: lamp.SafeShutters(fps), Safe: lamp.Safe(r.ShutterS)}
	if a.SafeS == nil {
		a.SafeS = []stop.Shutter{}
	}
	return a, nil
}
