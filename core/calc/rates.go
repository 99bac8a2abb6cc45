package calc

import (
	"fmt"
	"pinhole/core/assemble"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// RatesRequest asks how a stick turns the camera. With a lens and a shutter it
// also asks how far the stick may go.
type RatesRequest struct {
	CentreDegS angle.DegPerS     `json:"centreDegS" minimum:"0" maximum:"100000" doc:"slope around the middle, degrees a second at full stick"`
	MaxDegS    angle.DegPerS     `json:"maxDegS" minimum:"0" maximum:"100000" doc:"rate at full stick, at least centreDegS"`
	Expo       float64           `json:"expo" minimum:"0" maximum:"1"`
	Stick      *float64          `json:"stick,omitempty" minimum:"-1" maximum:"1"`
	WidthPx    float64           `json:"widthPx,omitempty" minimum:"1" maximum:"100000" doc:"width of the output frame in pixels"`
	HFOVDeg    angle.Deg         `json:"hfovDeg,omitempty" minimum:"0.01" maximum:"360" doc:"horizontal field of view in degrees"`
	Projection motion.Projection `json:"projection,omitempty"`
	ShutterS   stop.Shutter      `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
}

// RatesAnswer is the stick's curve.
type RatesAnswer struct {
	RateDegS   *angle.DegPerS `json:"rateDegS,omitempty" doc:"at stick"`
	Curve      []StickPoint   `json:"curve"`
	HeavyStick *float64       `json:"heavyStick,omitempty" doc:"the largest stick whose turn does not smear; needs lens and shutter"`
	HeavyDegS  *angle.DegPerS `json:"heavyDegS,omitempty" doc:"the rate there"`
}

// StickPoint is one point of the curve.
type StickPoint struct {
	Stick    float64       `json:"stick"`
	RateDegS angle.DegPerS `json:"rateDegS"`
}

// curvePoints is how many steps the curve is drawn in.
const curvePoints = 20

// StickRates answers rates.
func StickRates(r RatesRequest) (*RatesAnswer, error) {
	if r.MaxDegS < r.CentreDegS {
		return nil, &problem.Fault{Field: "maxDegS", Value: r.MaxDegS, Allowed: fmt.Sprintf("at least centreDegS, %v", float64(r.CentreDegS))}
	}
	rates := motion.Rates{Centre: r.CentreDegS, Max: r.MaxDegS, Expo: r.Expo}
	a := &RatesAnswer{}
	for i := range curvePoints + 1 {
		x := float64(i) / curvePoints
		a.Curve = append(a.Curve, StickPoint{x, rates.At(x)})
	}
	if r.Stick != nil {
		rate := rates.At(*r.Stick)
		a.RateDegS = &rate
	}
	given := 0
	for _, is := range []bool{r.WidthPx > 0, r.HFOVDeg > 0, r.Projection != "", r.ShutterS > 0} {
		if is {
			given++
		}
	}
	switch given {
	case 0:
		return a, nil
	case 4:
	default:
		return nil, &problem.Fault{Field: "shutterS", Allowed: "widthPx, hfovDeg, projection and shutterS together, or none of them"}
	}
	lens, err := (&assemble.LensFields{WidthPx: r.WidthPx, HFOVDeg: r.HFOVDeg, Projection: r.Projection}).Lens("")
	if err != nil {
		return nil, err
	}
	stick := rates.StickFor(motion.TurnForShare(lens, r.ShutterS, motion.SmearedFrom))
	rate := rates.At(stick)
	a.HeavyStick, a.HeavyDegS = &stick, &rate
	return a, nil
}
