package day

import (
	"context"
	"fmt"
	"slices"
	"time"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
)

// Outing answers outing; it gives up when the context ends, with its error.
func Outing(ctx context.Context, r OutingRequest) (*OutingAnswer, error) {
	o, unknown, err := r.Prepare(ctx)
	if err != nil {
		return nil, err
	}
	a, err := o.Answer(ctx)
	if err != nil {
		return nil, err
	}
	a.Unknown = unknown
	if r.Place != nil {
		a.Curve, a.Days = o.curve(), o.days()
	}
	return a, nil
}

// Answer plans the shots; the light of the place is left out. It gives up when the context
// ends, with its error.
func (o *Prepared) Answer(ctx context.Context) (*OutingAnswer, error) {
	a := &OutingAnswer{Curve: []CurvePoint{}, Days: []SunDay{}, Shots: []OutingPlan{}, Swaps: []Swap{}, Names: map[string]string{}, Unknown: []string{}, Changes: []string{}, Offset: o.offset}
	if len(o.Day.Shots) == 0 {
		return a, nil
	}
	p, err := o.Day.Plan(ctx)
	if err != nil {
		return nil, err
	}
	a.Cost = p.Cost
	packs, shotOf := map[string]*Planned{}, map[string]string{}
	for i := range p.Shots {
		packs[p.Shots[i].Shot.ID] = &p.Shots[i]
	}
	next := 0 // the batteries stand in the order of the shots
	for i := range o.Shots {
		s := &o.Shots[i]
		n := len(o.batteries[s.ID])
		if n == 0 {
			continue
		}
		var planned []*Planned
		for k := next; k < next+n; k++ {
			id := o.Day.Shots[k].ID
			planned, shotOf[id] = append(planned, packs[id]), s.ID
		}
		next += n
		a.Shots = append(a.Shots, o.planned(s, planned))
	}
	slices.SortStableFunc(a.Shots, func(x, y OutingPlan) int { return x.Packs[0].From.Compare(y.Packs[0].From) })
	for _, swap := range p.Swaps {
		swap.Shot = shotOf[swap.Shot] // the shot of the battery
		a.Swaps = append(a.Swaps, swap)
	}
	a.Changes = append(a.Changes, o.changes(a.Shots)...)
	o.name(a)
	return a, nil
}

// name says what the glass of a plan is called.
func (o *Prepared) name(a *OutingAnswer) {
	for i := range a.Shots {
		for _, p := range a.Shots[i].Packs {
			for _, id := range []string{p.Stack, p.Brighter, p.Darker} {
				if id != "" {
					a.Names[id] = o.Names[id]
				}
			}
		}
	}
}

// planned sums up the batteries of one shot: it is as good as the worst of them.
func (o *Prepared) planned(s *OutingShot, packs []*Planned) OutingPlan {
	out := OutingPlan{ID: s.ID, Lights: o.lights[s.ID], State: glass.Holds, Placed: s.Placed != nil, Remedies: []string{}}
	for i, p := range packs {
		low, high := slices.Min(p.Shot.Points), slices.Max(p.Shot.Points)
		state, words := o.batteries[s.ID][i].State(p.Stack)
		out.Packs = append(out.Packs, OutingPack{
			From: p.Shot.From, To: p.Shot.To, Stack: p.Stack.ID, SettingStops: p.Setting, LowEV100: low, HighEV100: high, State: state, Words: words,
			LastMinute: servesUntil(state, p.LastMinute), Brighter: IDOf(p.Brighter), Darker: IDOf(p.Darker),
		})
		if i == 0 {
			out.LowEV100, out.HighEV100, out.Words = low, high, words
		}
		out.LowEV100, out.HighEV100, out.Spread = min(out.LowEV100, low), max(out.HighEV100, high), max(out.Spread, p.Shot.Spread)
		if p.Worst.Abs() > out.WorstStops.Abs() {
			out.WorstStops = p.Worst
		}
		if state.Compare(out.State) > 0 {
			out.State, out.Words = state, words
		}
	}
	if out.State == glass.Breaks {
		out.Remedies = o.remedies(s)
	}
	if s.Heading != nil && o.Place != nil {
		out.SunInFrame = o.sunFor(s)
	}
	return out
}

// Battery returns one battery of a planned shot, from 0.
func (o *Prepared) Battery(shotID string, n int) *Battery { return o.batteries[shotID][n] }

// ExpectedAt returns the light of a shot at an instant within it: what it is judged in.
func (o *Prepared) ExpectedAt(s *OutingShot, at time.Time) light.Scene {
	minute := int(at.Sub(s.From) / time.Minute)
	there := o.lightOf(s, s.From, minute, minute)
	return light.Scene{EV: there.light().High, Spread: there.spread}
}

// Where the sun counts as before the camera, within sight of a wide view, and from
// where on it counts as behind.
const sunBefore, sunBehind = angle.Deg(45), angle.Deg(110)

// sunFor says where the sun stands for the camera, midway through the shot.
func (o *Prepared) sunFor(s *OutingShot) *SunView {
	sun := light.Sun(s.From.Add(time.Duration(s.Minutes)*time.Minute/2), o.Place.Place())
	v := &SunView{AltitudeDeg: sun.Apparent(), OffAxisDeg: (sun.Azimuth - *s.Heading).Turn()}
	switch off := v.OffAxisDeg.Abs(); {
	case v.AltitudeDeg < 0:
		v.Words = "the sun is down"
	case off <= sunBefore && v.AltitudeDeg <= sunBefore:
		v.Words = "the sun is before the camera: it may be in the frame; never look at it through a filter"
	case off <= sunBehind:
		v.Words = "the sun is at the side"
	default:
		v.Words = "the sun is behind the camera"
	}
	return v
}

// changes compares the plan with the one that was made before.
func (o *Prepared) changes(now []OutingPlan) []string {
	var words []string
	for i := range now {
		s := &now[i]
		before, wasPlanned := o.Before[s.ID]
		if !wasPlanned || before == s.Packs[0].Stack {
			continue
		}
		was, isThere := o.Names[before]
		if !isThere {
			was = "a filter that is gone"
		}
		k := slices.IndexFunc(o.Shots, func(x OutingShot) bool { return x.ID == s.ID })
		words = append(words, fmt.Sprintf("%s: %s in place of %s", o.Shots[k].Name, o.Names[s.Packs[0].Stack], was))
	}
	return words
}

// Known returns the instant, nil for the zero one.
func Known(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

// MaxPoints bounds a curve: two days by the minute and a little.
const MaxPoints = 3000

// servesUntil returns the last minute of glass, nil of glass that does not serve at all,
// whatever its exposure.
func servesUntil(state glass.State, last time.Time) *time.Time {
	if state == glass.Breaks {
		return nil
	}
	return Known(last)
}
