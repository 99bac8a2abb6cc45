package calc

import (
	"pinhole/core/fit"
	"pinhole/core/problem"
)

// HoldRequest asks whether a filter stays on.
type HoldRequest struct {
	Mount      fit.Mount `json:"mount" enum:"push-on,snap,twist,magnet,adhesive,clip,thread"`
	InFlight   bool      `json:"inFlight" doc:"the camera rides on a craft"`
	MassG      float64   `json:"massG" minimum:"0" maximum:"10000" doc:"of the filter, grams"`
	AccelG     float64   `json:"accelG" minimum:"0" maximum:"1000" doc:"peak acceleration in multiples of g"`
	SpeedMps   float64   `json:"speedMps" minimum:"0" maximum:"1000" doc:"fastest speed against the air, metres a second"`
	DiameterMm float64   `json:"diameterMm" minimum:"1" maximum:"500" doc:"outer diameter, millimetres"`
	PullOffN   *float64  `json:"pullOffN,omitempty" minimum:"0.001" maximum:"10000" doc:"measured force that takes it off, newtons"`
	PullOffG   *float64  `json:"pullOffG,omitempty" minimum:"0.1" maximum:"1000000" doc:"the same as a luggage scale shows it, grams"`
	Share      *float64  `json:"share,omitempty" minimum:"0.001" maximum:"1" doc:"what vibration leaves of the hold; by mount by default"`
}

// HoldAnswer is the margin and what it means.
type HoldAnswer struct {
	LoadN   float64     `json:"loadN"`
	DragN   float64     `json:"dragN" doc:"the wind's part of the load"`
	Margin  *float64    `json:"margin,omitempty" doc:"left out where the pull-off is not measured or nothing pulls"`
	Verdict fit.Verdict `json:"verdict" enum:"holds,tether,do-not-fly,unknown"`
	Advice  string      `json:"advice"`
}

// WillHold answers hold.
func WillHold(r HoldRequest) (*HoldAnswer, error) {
	if r.PullOffN != nil && r.PullOffG != nil {
		return nil, &problem.Fault{Field: "pullOffN", Value: *r.PullOffN, Allowed: "either pullOffN or pullOffG, not both"}
	}
	h := fit.Hold{Mount: r.Mount, InFlight: r.InFlight, Share: r.Mount.ShareLeft()}
	if r.Share != nil {
		h.Share = *r.Share
	}
	switch {
	case r.PullOffN != nil:
		h.PullOffN = *r.PullOffN
	case r.PullOffG != nil:
		h.PullOffN = fit.Newtons(*r.PullOffG)
	}
	pull := fit.Pull{MassG: r.MassG, AccelG: r.AccelG, SpeedMps: r.SpeedMps, DiameterMm: r.DiameterMm}
	a := &HoldAnswer{LoadN: pull.LoadN(), DragN: pull.DragN(), Verdict: h.Judge(pull)}
	if margin, isKnown := h.Margin(pull); isKnown {
		a.Margin = &margin
	}
	a.Advice = holdAdvice(h, a.Verdict)
	return a, nil
}

func holdAdvice(h fit.Hold, v fit.Verdict) string {
	switch {
	case v == fit.Unknown:
		return "measure the pull-off with a luggage scale before it goes up; until then it is not known to hold"
	case v == fit.DoNotFly:
		return "do not fly or ride with it: loose glass is a hazard to people below; use another mount or size"
	case v == fit.Tether && h.Mount == fit.Magnet:
		return "a magnet in flight always has a tether: one knock shifts it"
	case v == fit.Tether:
		return "add a tether or tape, and test it by hand before each flight"
	}
	return "it holds; test it by hand before each flight, with the craft disarmed"
}
