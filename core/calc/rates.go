package calc

import (
	"pinhole/core/assemble"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// RatesRequest asks how a stick turns the camera. With a lens and a shutter it
// also asks how far the stick may go.
type RatesRequest struct {
	assemble.StickFields
	Axis       motion.Axis       `json:"axis,omitempty" doc:"what it turns about; a pan by default"`
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
	HeavyStick *float64       `json:"heavyStick,omitempty" doc:"the largest stick whose pan has no excess blur; needs lens and shutter"`
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
	rates, err := r.Rates()
	if err != nil {
		return nil, err
	}
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
	stick := rates.StickFor(motion.RateForShare(r.Axis, lens, r.ShutterS, motion.SmearedFrom))
	rate := rates.At(stick)
	a.HeavyStick, a.HeavyDegS = &stick, &rate
	return a, nil
}

// AxisStick is how the pilot's stick turns the craft about one axis, in this shot.
type AxisStick struct {
	Axis     motion.Axis  `json:"axis"`
	Shutter  string       `json:"shutter,omitempty" doc:"the longest of the shot, at which a pan has excess blur first; left out where the lens is not known"`
	Rates    RatesAnswer  `json:"rates" doc:"the craft's; else those tried for this shot, else those the craft is compared with"`
	Compared *RatesAnswer `json:"compared,omitempty" doc:"the next of these, laid over them"`
}

// sticksOf answers each axis whose rates are known, with the lens as far as it is.
func sticksOf(r *assemble.ShotRequest, q *glass.Question, t stop.Shutter) (all []AxisStick, err error) {
	craft := r.Craft
	if craft == nil {
		craft = &assemble.Craft{}
	}
	answer := func(axis motion.Axis, f axisRates) (*RatesAnswer, error) {
		asked := RatesRequest{StickFields: *f.StickFields, Axis: axis}
		if p := r.Profile; p != nil && p.Lens != nil {
			asked.WidthPx, asked.HFOVDeg, asked.Projection, asked.ShutterS = p.Lens.WidthPx, p.Lens.HFOVDeg, p.Lens.Projection, t
		}
		rates, err := StickRates(asked)
		return rates, problem.At(f.field, err)
	}
	for _, axis := range motion.Axis("").Values() {
		var known []axisRates
		for _, of := range []axisRates{
			{craft.Rates.About(axis), "craft.rates." + string(axis)}, {tried(r, axis), "scene.stick"}, {craft.Compared.About(axis), "craft.compared." + string(axis)},
		} {
			if of.StickFields != nil {
				known = append(known, of)
			}
		}
		if len(known) == 0 {
			continue
		}
		rates, err := answer(axis, known[0])
		if err != nil {
			return nil, err
		}
		out := AxisStick{Axis: axis, Rates: *rates}
		if rates.HeavyStick != nil {
			out.Shutter = q.Spoken(t)
		}
		if len(known) > 1 {
			if out.Compared, err = answer(axis, known[1]); err != nil {
				return nil, err
			}
		}
		all = append(all, out)
	}
	return all, nil
}

// axisRates are rates about one axis, and the field that they stand in.
type axisRates struct {
	*assemble.StickFields
	field string
}

// tried returns the rates that the shot itself has about an axis, nil for none.
func tried(r *assemble.ShotRequest, axis motion.Axis) *assemble.StickFields {
	if axis != motion.Pan {
		return nil
	}
	return r.Scene.Stick
}
