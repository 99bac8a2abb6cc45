package card

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// RemeterRequest asks what a reading on the spot says of the glass that is on.
type RemeterRequest struct {
	Bench   CardBench          `json:"bench"`
	Shot    CardShot           `json:"shot"`
	On      []string           `json:"on" maxItems:"4" doc:"ids of the loose glass that is on"`
	Light   assemble.ShotLight `json:"light" doc:"what was read"`
	Planned *Expected          `json:"planned,omitempty" doc:"the light the plan expects"`
	// ShutterS is what the camera is set to.
	ShutterS stop.Shutter `json:"shutterS" minimum:"0.0000001" maximum:"86400" doc:"what is set, seconds"`
}

// Expected is the light that a plan expects at an instant.
type Expected struct {
	EV100  stop.EV    `json:"ev100" minimum:"-20" maximum:"40" doc:"of this subject"`
	Spread stop.Stops `json:"spreadStops" minimum:"0" maximum:"20"`
	// General is the light of the place in general then, what an anchor is told
	// against. Left out where the subject's light is no daylight.
	General *stop.EV `json:"generalEv100,omitempty" minimum:"-20" maximum:"40"`
}

// RemeterAnswer is what the reading comes to.
type RemeterAnswer struct {
	EV100  stop.EV    `json:"ev100" doc:"the light as read; the middle of what looking leaves"`
	Spread stop.Stops `json:"spreadStops"`
	// Settled is false while looking has only bounded the light.
	Settled bool        `json:"settled"`
	Off     *stop.Stops `json:"offStops" doc:"read less planned; null where nothing was planned, or the light is only bounded"`
	Against string      `json:"against" doc:"how far the plan was off, in words"`
	Serves  glass.State `json:"serves" doc:"of the glass that is on"`
	Words   string      `json:"words" doc:"what the glass that is on does in this light"`
	Set     CardSetting `json:"set" doc:"with the glass that is on"`
	Change  *Change     `json:"change" doc:"what to put on instead; null where what is on serves"`
	Anchor  *stop.EV    `json:"anchorEv100" doc:"what to pin for the place in general; null where this reading cannot move the day"`
	// Unpinned says why a reading cannot move the day.
	Unpinned   string  `json:"unpinned,omitempty"`
	IfBrighter *Change `json:"ifBrighter,omitempty" doc:"other glass for light brighter by the spread, where that is wide"`
	IfDarker   *Change `json:"ifDarker,omitempty" doc:"other glass for light darker by it"`
}

// Change is other glass to put on.
type Change struct {
	Filters []string    `json:"filters"`
	Words   string      `json:"words" doc:"what it does in this light"`
	State   glass.State `json:"state"`
	Set     CardSetting `json:"set"`
}

// Remeter answers remeter.
func Remeter(r RemeterRequest) (*RemeterAnswer, error) {
	asked := r.Bench.Shot(r.Shot.Asked)
	asked.Light = r.Light
	if asked.Light.Prior == nil { // a look is asked for because the light may be anything
		asked.Light.Prior = &assemble.Prior{LowEV100: glass.EveryLight.Low, HighEV100: glass.EveryLight.High}
	}
	ready, err := asked.AssembleLocked(r.ShutterS)
	if err != nil {
		return nil, err
	}
	if ready.Low != nil {
		return nil, &problem.Fault{Field: "light.low", Value: r.Light.Low, Allowed: "one reading"}
	}
	stack, err := ready.Stack(r.On, "on")
	if err != nil {
		return nil, err
	}
	on := glass.Weigh(&ready.Question, stack)
	a := &RemeterAnswer{EV100: ready.High.EV, Spread: ready.High.Spread, Settled: ready.Settled()}
	q := &ready.Question
	if !a.Settled {
		a.Set = settingOf(q, &on, &r.Shot, &r.Bench)
		a.bounded(ready.Setup, ready.Step, &r)
		return a, nil
	}
	if a.Serves, a.Words, err = outcome(ready, on); err != nil {
		return nil, problem.At("shot", err)
	}
	a.Set = settingOf(q, &on, &r.Shot, &r.Bench)
	a.compare(&r)
	first := on.Filters
	if a.Serves != glass.Holds {
		best := glass.Best(q, ready.Stacks)
		if !glass.SameIDs(glass.IDs(best.Filters), glass.IDs(on.Filters)) {
			first = best.Filters
			if a.Change, err = changeTo(ready, q, best, &r); err != nil {
				return nil, err
			}
		}
	}
	return a, a.pocket(ready, first, &r)
}

// changeTo is another option to be put on in the light of a question.
func changeTo(ready *assemble.Assembled, q *glass.Question, o glass.Option, r *RemeterRequest) (*Change, error) {
	v, err := ready.Scene.Judge(*q, o)
	if err != nil {
		return nil, err
	}
	return &Change{glass.IDs(o.Filters), outcomeWords(q, &o, v), v.State, settingOf(q, &o, &r.Shot, &r.Bench)}, nil
}

// pocket answers with the glass for light brighter or darker by the spread, where that is wide
// and the glass another than the one put on first.
func (a *RemeterAnswer) pocket(ready *assemble.Assembled, first []*glass.Filter, r *RemeterRequest) (err error) {
	brighter, darker := ready.Question.Spares(ready.Stacks, first, a.Spread)
	for _, side := range []struct {
		spare *glass.Spare
		into  **Change
	}{{brighter, &a.IfBrighter}, {darker, &a.IfDarker}} {
		if side.spare == nil {
			continue
		}
		if *side.into, err = changeTo(ready, &side.spare.Question, side.spare.Option, r); err != nil {
			return err
		}
	}
	return nil
}

// outcome judges an option of a locked camera: its state, how it is exposed, and what else
// gives way.
func outcome(ready *assemble.Assembled, o glass.Option) (glass.State, string, error) {
	v, err := ready.Scene.Judge(ready.Question, o)
	if err != nil {
		return "", "", err
	}
	return v.State, outcomeWords(&ready.Question, &o, v), nil
}

func outcomeWords(q *glass.Question, o *glass.Option, v *shot.Verdict) string {
	words := o.Outcome(q)
	if len(v.Strains) > 0 && v.Strains[0].Kind != shot.Exposure {
		words += "; " + v.Gives()
	}
	return words
}

// bounded fills in what a look that settles nothing says: a bound, and the glass to
// look through next.
func (a *RemeterAnswer) bounded(b *assemble.Setup, step *glass.Step, r *RemeterRequest) {
	last := r.Light.Looks[len(r.Light.Looks)-1].Saw
	a.Serves, a.Words = glass.Breaks, "too dark as it is"
	if last == glass.TooBright {
		a.Words = "too bright as it is"
	}
	a.Against = fmt.Sprintf("the light is between %v and %v", step.Light.Low, step.Light.High)
	if p := r.Planned; p != nil {
		switch low, high := step.Light.Low.Above(p.EV100), step.Light.High.Above(p.EV100); {
		case low > 0:
			a.Against = fmt.Sprintf("at least %v stops over forecast", low)
		case high < 0:
			a.Against = fmt.Sprintf("at least %v stops under forecast", high.Abs())
		default:
			a.Against = fmt.Sprintf("the forecast, %v, can still be right", p.EV100)
		}
	}
	if next := &step.Next; !glass.SameIDs(glass.IDs(next.Filters), r.On) {
		a.Change = &Change{glass.IDs(next.Filters), "look through this next", glass.Tight, settingOf(&b.Question, next, &r.Shot, &r.Bench)}
	}
}

// compare says how far the plan was off, and what to pin.
func (a *RemeterAnswer) compare(r *RemeterRequest) {
	a.Against = "no forecast for this light"
	p := r.Planned
	if p == nil {
		return
	}
	off := a.EV100.Above(p.EV100)
	a.Off = &off
	switch {
	case off.Abs() < 0.05:
		a.Against = "as forecast"
	case off.Abs() <= p.Spread+a.Spread:
		a.Against = fmt.Sprintf("%s stops from the forecast %v, within its ±%v", off.Signed(), p.EV100, p.Spread+a.Spread)
	default:
		a.Against = fmt.Sprintf("%s stops from the forecast %v, more than its ±%v", off.Signed(), p.EV100, p.Spread+a.Spread)
	}
	switch {
	case p.General == nil:
		a.Unpinned = "no daylight here: the forecast stays as it is"
	case r.Light.Kind == "sky" && a.Spread > p.Spread:
		a.Unpinned = fmt.Sprintf("the forecast (±%v) is surer than the eye (±%v): it stays as it is", p.Spread, a.Spread)
	default:
		// The subject is so much brighter than it was thought to be; so is the place.
		anchor := p.General.Plus(off)
		a.Anchor = &anchor
	}
}
