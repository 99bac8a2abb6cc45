package card

import (
	"cmp"
	"fmt"
	"pinhole/core/assemble"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// PassageRequest asks how to get through a dark stretch and out at its bright end.
type PassageRequest struct {
	Optics    assemble.Camera     `json:"optics"`
	ShutterS  stop.Shutter        `json:"shutterS" minimum:"0.0000001" maximum:"86400" doc:"what is locked outside, seconds"`
	ISO       stop.ISO            `json:"iso,omitempty" minimum:"1" maximum:"10000000" doc:"what is set outside; base ISO by default"`
	FPS       float64             `json:"fps,omitempty" minimum:"0" maximum:"10000"`
	Glass     stop.Stops          `json:"glassStops" minimum:"-1" maximum:"40" doc:"all of it"`
	Loose     stop.Stops          `json:"looseStops" minimum:"-1" maximum:"40" doc:"what of it could be left off"`
	Offset    stop.Stops          `json:"offsetStops,omitempty" minimum:"-5" maximum:"5"`
	Tolerance *assemble.Tolerance `json:"tolerance,omitempty"`
	Flies     bool                `json:"flies,omitempty"`
	Outside   stop.EV             `json:"outsideEv100" minimum:"-20" maximum:"40"`
	Inside    *stop.EV            `json:"insideEv100,omitempty" minimum:"-20" maximum:"40" doc:"as it was read; this or dark"`
	Dark      Dark                `json:"dark,omitempty" doc:"what it is, where nobody can read it"`
	Seconds   *float64            `json:"seconds,omitempty" minimum:"0.1" maximum:"36000" doc:"how long it takes; this or lengthM and speedMps"`
	LengthM   *float64            `json:"lengthM,omitempty" minimum:"0.1" maximum:"1000000"`
	SpeedMps  *float64            `json:"speedMps,omitempty" minimum:"0.01" maximum:"1000"`
}

// PassageAnswer is the ways through.
type PassageAnswer struct {
	Inside   stop.EV      `json:"insideEv100"`
	Spread   stop.Stops   `json:"spreadStops" doc:"how far that may be off"`
	Seconds  float64      `json:"seconds"`
	Darker   stop.Stops   `json:"darkerStops" doc:"than outside"`
	Take     string       `json:"take" enum:"lock,band,float-shutter,two-takes" doc:"the way to take"`
	Ways     []PassageWay `json:"ways"`
	Cautions []string     `json:"cautions"`
}

// PassageWay is one way through.
type PassageWay struct {
	Name   string      `json:"name" enum:"lock,band,float-shutter,two-takes"`
	Title  string      `json:"title"`
	State  glass.State `json:"state" doc:"tight: dark, and can be lifted afterwards"`
	Inside stop.Stops  `json:"insideStops" doc:"the error inside, negative darker than wanted"`
	Exit   stop.Stops  `json:"exitStops" doc:"how far the first moment outside is burnt"`
	Words  string      `json:"words"`
}

// Through answers passage.
func Through(r PassageRequest) (*PassageAnswer, error) {
	p := Passage{Outside: r.Outside, Setting: stop.Setting{Aperture: r.Optics.Aperture, Shutter: r.ShutterS, ISO: cmp.Or(r.ISO, r.Optics.ISOBase)}, Glass: r.Glass, Loose: r.Loose,
		Ceiling: r.Optics.ISOCeiling, Rate: stop.ExactRate(r.FPS), Offset: r.Offset, Band: glass.DefaultBand, Flies: r.Flies}
	if t := r.Tolerance; t != nil {
		p.Band = glass.Band{Dark: t.Dark, Bright: t.Bright}
	}
	if r.Optics.ISOCeiling < r.Optics.ISOBase {
		return nil, &problem.Fault{Field: "optics.isoCeiling", Value: r.Optics.ISOCeiling, Allowed: fmt.Sprintf("at least isoBase, %.0f", float64(r.Optics.ISOBase))}
	}
	if !r.ShutterS.Possible(p.Rate) {
		return nil, &problem.Fault{Field: "shutterS", Value: r.ShutterS, Allowed: fmt.Sprintf("at most %v, the length of a frame", p.Rate.Frame())}
	}
	spread, err := r.inside(&p)
	if err != nil {
		return nil, err
	}
	if p.Seconds, err = r.lasts(); err != nil {
		return nil, err
	}
	ways, take := p.Ways()
	a := &PassageAnswer{Inside: p.Inside, Spread: spread, Seconds: p.Seconds, Darker: p.Outside.Above(p.Inside), Take: ways[take].Name, Ways: make([]PassageWay, len(ways)), Cautions: p.Cautions()}
	for i, w := range ways {
		a.Ways[i] = PassageWay(w)
	}
	return a, nil
}

// onTheWay is how far a reading taken at the mouth of a passage may be off inside.
const onTheWay = stop.Stops(0.5)

func (r *PassageRequest) inside(p *Passage) (spread stop.Stops, err error) {
	switch {
	case r.Inside != nil && r.Dark != "":
		return 0, &problem.Fault{Field: "dark", Value: r.Dark, Allowed: "either what it is or its reading, not both"}
	case r.Inside == nil && r.Dark == "":
		return 0, &problem.Fault{Field: "insideEv100", Allowed: "the light inside, or what it is: trees, lit-tunnel, hall, unlit"}
	case r.Inside != nil && *r.Inside > r.Outside:
		return 0, &problem.Fault{Field: "insideEv100", Value: *r.Inside, Allowed: fmt.Sprintf("at most the light outside, %v", r.Outside)}
	case r.Inside != nil:
		p.Inside = *r.Inside
		return onTheWay, nil
	}
	p.Inside, spread = r.Dark.Light(r.Outside)
	return spread, nil
}

func (r *PassageRequest) lasts() (float64, error) {
	isByLength := r.LengthM != nil || r.SpeedMps != nil
	switch {
	case r.Seconds != nil && isByLength:
		return 0, &problem.Fault{Field: "seconds", Value: *r.Seconds, Allowed: "either this or lengthM and speedMps, not both"}
	case r.Seconds != nil:
		return *r.Seconds, nil
	case r.LengthM == nil:
		return 0, &problem.Fault{Field: "lengthM", Allowed: "how long the tunnel or shade is, metres, or seconds"}
	case r.SpeedMps == nil:
		return 0, &problem.Fault{Field: "speedMps", Allowed: "how fast it is passed, metres a second, or seconds"}
	}
	return *r.LengthM / *r.SpeedMps, nil
}
