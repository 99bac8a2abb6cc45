package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/stop"
)

// StabiliserRequest asks down to which shutter a stabiliser works.
type StabiliserRequest struct {
	assemble.LensFields
	assemble.ShakeFields
	ShutterS *stop.Shutter `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
}

// StabiliserAnswer is the floor, and what one shutter does.
type StabiliserAnswer struct {
	FloorS *stop.Shutter `json:"floorS" doc:"the slowest shutter at which it works, seconds; null where there is no floor"`
	BlurPx *float64      `json:"blurPx,omitempty" doc:"blur inside one frame at shutterS"`
	Holds  *bool         `json:"holds,omitempty" doc:"whether that is hidden; left out where nothing shifts frames"`
}

// StabiliserFloor answers stabiliser.
func StabiliserFloor(r StabiliserRequest) (*StabiliserAnswer, error) {
	lens, err := r.Lens("")
	if err != nil {
		return nil, err
	}
	shake := r.Shake()
	a := &StabiliserAnswer{}
	floor, hasFloor := shake.Floor(lens)
	if hasFloor {
		a.FloorS = &floor
	}
	if r.ShutterS != nil {
		a.BlurPx = number(shake.BlurPx(lens, *r.ShutterS))
		if shake.Stabiliser.ShiftsFrames() {
			isHeld := !hasFloor || stop.AtMost(r.ShutterS.Over(floor), 0)
			a.Holds = &isHeld
		}
	}
	return a, nil
}
