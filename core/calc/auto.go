package calc

import (
	"fmt"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// AutoCamera is a camera on automatic.
type AutoCamera struct {
	Aperture   stop.FNumber  `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number, T-number where known"`
	ISOBase    stop.ISO      `json:"isoBase" minimum:"1" maximum:"1000000"`
	ISOCeiling stop.ISO      `json:"isoCeiling" minimum:"1" maximum:"10000000" doc:"the highest ISO the automatic takes"`
	FastestS   stop.Shutter  `json:"fastestS" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	SlowestS   stop.Shutter  `json:"slowestS" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	Priority   glass.Moves   `json:"priority" doc:"what moves first"`
	PreferredS *stop.Shutter `json:"preferredS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds; with priority iso, the shutter it holds"`
}

// AutoRequest asks what a camera's automatic does behind glass.
type AutoRequest struct {
	Camera     AutoCamera `json:"camera"`
	EV100      stop.EV    `json:"ev100" minimum:"-20" maximum:"40" doc:"the light of the scene, before the glass"`
	GlassStops stop.Stops `json:"glassStops" minimum:"0" maximum:"40"`
}

// AutoAnswer is the setting it takes.
type AutoAnswer struct {
	ShutterS   stop.Shutter `json:"shutterS" doc:"seconds"`
	ISO        stop.ISO     `json:"iso"`
	ErrorStops stop.Stops   `json:"errorStops" doc:"what it cannot make good, positive brighter"`
	Text       string       `json:"text"`
}

// OnAutomatic answers auto.
func OnAutomatic(r AutoRequest) (*AutoAnswer, error) {
	c := r.Camera
	a := glass.Automatic{Aperture: c.Aperture, Base: c.ISOBase, Ceiling: c.ISOCeiling, Fastest: c.FastestS, Slowest: c.SlowestS, Moves: c.Priority}
	switch {
	case c.ISOCeiling < c.ISOBase:
		return nil, &problem.Fault{Field: "camera.isoCeiling", Value: c.ISOCeiling, Allowed: fmt.Sprintf("at least isoBase, %.0f", float64(c.ISOBase))}
	case c.SlowestS < c.FastestS:
		return nil, &problem.Fault{Field: "camera.slowestS", Value: c.SlowestS, Allowed: fmt.Sprintf("at least fastestS, %v", c.FastestS.Seconds())}
	case c.PreferredS != nil:
		if a.Preferred = *c.PreferredS; a.Preferred < c.FastestS || a.Preferred > c.SlowestS {
			return nil, &problem.Fault{Field: "camera.preferredS", Value: a.Preferred, Allowed: "a time from fastestS to slowestS"}
		}
	case c.Priority == glass.ISOFirst:
		return nil, &problem.Fault{Field: "camera.preferredS", Allowed: "the shutter that the automatic holds while it raises ISO, in seconds"}
	}
	set, left := a.Expose(r.EV100, r.GlassStops)
	return &AutoAnswer{ShutterS: set.Shutter, ISO: set.ISO, ErrorStops: left, Text: autoText(set, left)}, nil
}

func autoText(set stop.Setting, left stop.Stops) string {
	text := fmt.Sprintf("%s at %v", set.Shutter.Spoken(), set.ISO)
	if left.Abs() >= 0.05 {
		text += fmt.Sprintf(", %s stops against its meter", left.Signed())
	}
	return text
}
