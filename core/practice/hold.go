package practice

import (
	"fmt"
	"math"

	"pinhole/core/fit"
)

// What to do about how a mount holds.
var holdWords = map[fit.Verdict]string{
	fit.Holds: "It holds: test it by hand, then go", fit.Tether: "Tether it, then go", fit.DoNotFly: "Leave it off", fit.Unknown: "Measure its pull-off first",
}

// holdMargin is how far, as a share, the margin stays from where another verdict begins.
const holdMargin = 0.12

// hold asks what to do about a filter that so much holds and so much pulls at.
func hold(d *draw) (*made, bool) {
	r := fit.HoldRequest{
		Mount: oneOf(d, fit.PushOn, fit.Snap, fit.Twist, fit.Magnet), InFlight: true, MassG: float64(d.between(3, 14)), AccelG: float64(d.between(3, 12)),
		SpeedMps: float64(d.between(10, 40)), DiameterMm: float64(d.between(20, 46)),
	}
	newtons := math.Round(10*math.Exp2(d.Float64()*6-1)) / 10
	if d.IntN(5) > 0 {
		r.PullOffN = &newtons
	}
	a, err := fit.WillHold(r)
	if err != nil {
		return nil, false
	}
	if a.Margin != nil {
		for _, limit := range fit.Margins() {
			if math.Abs(*a.Margin/limit-1) < holdMargin {
				return nil, false // nobody works that out in the head
			}
		}
	}
	if a.Verdict != aimed(d, fit.Verdict("").Values()...) {
		return nil, false
	}
	m := &made{}
	m.Asks = "It is to go up on a drone. What do you do?"
	m.Caution = "Where a filter can fall on people, local rules come first."
	m.Question.Given = []string{fmt.Sprintf("Filter held by %v, %.0f g, %.0f mm across", r.Mount, r.MassG, r.DiameterMm), fmt.Sprintf("Shaken by up to %.0f g, %.0f m/s through the air", r.AccelG, r.SpeedMps)}
	pulls := fmt.Sprintf("What pulls: %.1f N, of which %.1f N wind.", a.LoadN, a.DragN)
	if d.Grade < Grades { // the hardest work the load out themselves
		m.Question.Given = append(m.Question.Given, pulls)
	}
	if r.PullOffN == nil {
		m.Question.Given = append(m.Question.Given, "Pull-off force not measured")
	} else {
		m.Question.Given = append(m.Question.Given, fmt.Sprintf("Comes off at %.1f N; vibration leaves %.0f %% of that", newtons, 100*r.Mount.ShareLeft()))
	}
	v := fit.Verdict("").Values()
	m.ofSet(holdWords[a.Verdict], holdWords[v[0]], holdWords[v[1]], holdWords[v[2]], holdWords[v[3]])
	m.working = []string{pulls}
	if a.Margin != nil {
		limits := fit.Margins()
		m.working = append(m.working, fmt.Sprintf("It holds %.1f times that: %.1f is needed to hold, %.1f with a tether.", *a.Margin, limits[1], limits[0]))
	}
	m.working = append(m.working, sentence(a.Advice))
	return m, true
}
