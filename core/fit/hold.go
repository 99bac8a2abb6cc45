package fit

import (
	"math"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Constants of the load.
const (
	// gravity is the standard acceleration of free fall in m/s² (CGPM 1901).
	gravity = 9.80665
	// airDensity is that of the standard atmosphere at sea level, kg/m³ (ISO 2533).
	airDensity = 1.225
	// discDrag is the drag coefficient of a flat disc across the flow (S. F.
	// Hoerner, Fluid-Dynamic Drag, 1965, chapter 3).
	discDrag = 1.17
)

// Newtons returns the force that a luggage scale shows as grams.
func Newtons(grams float64) float64 { return grams * 1e-3 * gravity }

// Pull is what tries to take a filter off.
type Pull struct {
	MassG float64 // at least 0
	// AccelG is the peak acceleration in multiples of free fall, at least 0.
	AccelG float64
	// SpeedMps is the fastest speed against the air, in metres a second.
	SpeedMps float64
	// DiameterMm is the filter's outer diameter.
	DiameterMm float64
}

// DragN returns the wind's part of the load: 0.5·1.225·v²·1.17·π(D/2)².
func (p Pull) DragN() float64 {
	r := p.DiameterMm / 1000 / 2
	return 0.5 * airDensity * p.SpeedMps * p.SpeedMps * discDrag * math.Pi * r * r
}

// LoadN returns the whole load: m·a and the drag, as if both pulled the same way.
func (p Pull) LoadN() float64 { return Newtons(p.MassG)*p.AccelG + p.DragN() }

// ShareLeft returns the share of its hold that a mount keeps under vibration; a
// default that a trial replaces.
func (m Mount) ShareLeft() float64 {
	switch m {
	case Twist, Thread, Adhesive:
		return 0.9
	}
	return 0.6
}

// Verdict says whether a filter may go up.
type Verdict string

// The verdicts on a hold. Unknown is not a good one.
const (
	Holds    Verdict = "holds"
	Tether   Verdict = "tether"
	DoNotFly Verdict = "do-not-fly"
	Unknown  Verdict = "unknown"
)

// Values returns every Verdict there is.
func (Verdict) Values() []Verdict {
	return []Verdict{Holds, Tether, DoNotFly, Unknown}
}

// Margins at which the verdicts begin.
const (
	holdsFrom  = 3
	tetherFrom = 1.5
)

// Margins returns from which margin on a tether is enough, and from which none is needed.
func Margins() [2]float64 { return [2]float64{tetherFrom, holdsFrom} }

// Hold is a mount and the force it was found to hold.
type Hold struct {
	Mount Mount
	// InFlight is true where the camera rides on a craft.
	InFlight bool
	// PullOffN is the measured force that takes the filter off; 0 is not measured.
	PullOffN float64
	// Share is what vibration leaves of it, in (0, 1].
	Share float64
}

// Margin returns share·pull-off/load. known is false where the pull-off was not
// measured or nothing pulls.
func (h Hold) Margin(p Pull) (margin float64, known bool) {
	load := p.LoadN()
	if h.PullOffN == 0 || load == 0 {
		return 0, false
	}
	return h.Share * h.PullOffN / load, true
}

// Judge returns the verdict: from 3 it holds, from 1.5 it needs a tether, below
// it must not fly. A magnet on a craft is never better than tethered: one knock
// shifts it, and a magnet that has shifted holds nothing.
func (h Hold) Judge(p Pull) Verdict {
	margin, known := h.Margin(p)
	switch {
	case h.PullOffN == 0:
		return Unknown
	case known && !stop.AtMost(tetherFrom, margin):
		return DoNotFly
	case known && !stop.AtMost(holdsFrom, margin), h.InFlight && h.Mount == Magnet:
		return Tether
	}
	return Holds
}

// HoldRequest asks whether a filter stays on.
type HoldRequest struct {
	Mount      Mount    `json:"mount"`
	InFlight   bool     `json:"inFlight" doc:"the camera rides on a craft"`
	MassG      float64  `json:"massG" minimum:"0" maximum:"10000" doc:"of the filter, grams"`
	AccelG     float64  `json:"accelG" minimum:"0" maximum:"1000" doc:"peak acceleration in multiples of g"`
	SpeedMps   float64  `json:"speedMps" minimum:"0" maximum:"1000" doc:"fastest speed against the air, metres a second"`
	DiameterMm float64  `json:"diameterMm" minimum:"1" maximum:"500" doc:"outer diameter, millimetres"`
	PullOffN   *float64 `json:"pullOffN,omitempty" minimum:"0.001" maximum:"10000" doc:"measured force that takes it off, newtons"`
	PullOffG   *float64 `json:"pullOffG,omitempty" minimum:"0.1" maximum:"1000000" doc:"the same as a luggage scale shows it, grams"`
	Share      *float64 `json:"share,omitempty" minimum:"0.001" maximum:"1" doc:"what vibration leaves of the hold; by mount by default"`
}

// HoldAnswer is the margin and what it means.
type HoldAnswer struct {
	LoadN   float64  `json:"loadN"`
	DragN   float64  `json:"dragN" doc:"the wind's part of the load"`
	Margin  *float64 `json:"margin,omitempty" doc:"left out where the pull-off is not measured or nothing pulls"`
	Verdict Verdict  `json:"verdict"`
	Advice  string   `json:"advice"`
}

// WillHold answers hold.
func WillHold(r HoldRequest) (*HoldAnswer, error) {
	if r.PullOffN != nil && r.PullOffG != nil {
		return nil, &problem.Fault{Field: "pullOffN", Value: *r.PullOffN, Allowed: "either pullOffN or pullOffG, not both"}
	}
	h := Hold{Mount: r.Mount, InFlight: r.InFlight, Share: r.Mount.ShareLeft()}
	if r.Share != nil {
		h.Share = *r.Share
	}
	switch {
	case r.PullOffN != nil:
		h.PullOffN = *r.PullOffN
	case r.PullOffG != nil:
		h.PullOffN = Newtons(*r.PullOffG)
	}
	pull := Pull{MassG: r.MassG, AccelG: r.AccelG, SpeedMps: r.SpeedMps, DiameterMm: r.DiameterMm}
	a := &HoldAnswer{LoadN: pull.LoadN(), DragN: pull.DragN(), Verdict: h.Judge(pull)}
	if margin, isKnown := h.Margin(pull); isKnown {
		a.Margin = &margin
	}
	a.Advice = holdAdvice(h, a.Verdict)
	return a, nil
}

func holdAdvice(h Hold, v Verdict) string {
	switch {
	case v == Unknown:
		return "measure the pull-off with a luggage scale before it goes up; until then it is not known to hold"
	case v == DoNotFly:
		return "do not fly or ride with it: a loose filter is a hazard to people below; use another mount or size"
	case v == Tether && h.Mount == Magnet:
		return "a magnet in flight always has a tether: one knock shifts it"
	case v == Tether:
		return "add a tether or tape, and test it by hand before each flight"
	}
	return "it holds; test it by hand before each flight, with the drone disarmed"
}
