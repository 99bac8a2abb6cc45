package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/stop"
)

// LampsRequest asks what pulsing lamps do to the exposure.
type LampsRequest struct {
	assemble.LampFields
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
	lamp, err := r.Lamp("")
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
