package card

import (
	"context"
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"slices"

	"pinhole/core/problem"
)

// carding is a card request being answered.
type carding struct {
	*CardRequest
	outing *day.Prepared
	plan   *day.OutingAnswer
}

// Card answers card; it gives up when the context ends, with its error.
func Card(ctx context.Context, r CardRequest) (*CardAnswer, error) {
	if err := assemble.CheckYear("now", r.Now); err != nil {
		return nil, err
	}
	o, unknown, err := r.whole().Prepare(ctx)
	if err != nil {
		return nil, problem.At("outing", err)
	}
	plan, err := o.Answer(ctx)
	if err != nil {
		return nil, err
	}
	plan.Unknown = unknown
	c := &carding{&r, o, plan}
	a := &CardAnswer{Cameras: []CardCamera{}}
	for i := range c.plan.Shots {
		if err := c.add(a, &c.plan.Shots[i]); err != nil {
			return nil, err
		}
	}
	for i := range a.Cameras {
		c.follow(&a.Cameras[i])
	}
	a.Text = c.text(a)
	return a, nil
}

// whole returns the outing with what the card knows of its cameras and shots, so that each
// is judged whole.
func (r *CardRequest) whole() *day.OutingRequest {
	out := r.Outing
	for _, b := range r.Benches {
		out.Held = append(out.Held[:len(out.Held):len(out.Held)], b.Held)
	}
	out.Shots = slices.Clone(out.Shots)
	out.Titles = map[string]string{}
	for _, g := range r.Glass {
		out.Titles[g.ID] = g.Title
	}
	for i := range out.Shots {
		s := &out.Shots[i]
		if k := slices.IndexFunc(r.Shots, func(x CardShot) bool { return x.ID == s.ID }); k >= 0 && s.Look == nil {
			s.Look, s.Scene, s.Choices = &r.Shots[k].Look, r.Shots[k].Scene, &r.Shots[k].Choices
		}
	}
	return &out
}

// add adds the turns of a planned shot to its camera.
func (c *carding) add(a *CardAnswer, p *day.OutingPlan) error {
	s := c.shot(p.ID)
	i := slices.IndexFunc(c.Shots, func(x CardShot) bool { return x.ID == p.ID })
	if i < 0 {
		return &problem.Fault{Field: "shots", Allowed: fmt.Sprintf("what the planned shot %s is set to", p.ID)}
	}
	k := slices.IndexFunc(c.Benches, func(b CardBench) bool { return b.CameraID == s.CameraID && b.RigID == s.RigID })
	if k < 0 {
		return &problem.Fault{Field: "benches", Allowed: fmt.Sprintf("the camera of the planned shot %s, held as it is", p.ID)}
	}
	at := slices.IndexFunc(a.Cameras, func(x CardCamera) bool { return x.CameraID == s.CameraID })
	if at < 0 {
		at = len(a.Cameras)
		a.Cameras = append(a.Cameras, CardCamera{CameraID: s.CameraID, Name: c.Benches[k].Camera, Turns: []CardTurn{}})
	}
	of := &a.Cameras[at]
	for n := range p.Packs {
		of.Turns = append(of.Turns, *c.turn(s, &c.Shots[i], &c.Benches[k], p, n, c.before(of)))
	}
	return nil
}

func (c *carding) shot(id string) *day.OutingShot {
	return &c.Outing.Shots[slices.IndexFunc(c.Outing.Shots, func(s day.OutingShot) bool { return s.ID == id })]
}

// before returns the stack that is on a camera before its next turn, nil for none.
func (c *carding) before(of *CardCamera) *day.OutingStack {
	if n := len(of.Turns); n > 0 {
		return c.outing.Stacks[of.Turns[n-1].Stack]
	}
	return c.outing.Stacks[c.Outing.Start[of.CameraID]]
}

// follow finds where a camera stands in its day, and its next change of glass.
func (c *carding) follow(of *CardCamera) {
	of.Current = len(of.Turns) - 1
	isFound := false
	for i := range of.Turns {
		t := &of.Turns[i]
		if t.When == "on" && !isFound {
			of.Current, isFound = i, true
		}
		if t.When == "later" {
			t.When = "next"
			if !isFound {
				of.Current = i
			}
			break
		}
	}
	for _, s := range c.plan.Swaps {
		if s.CameraID != of.CameraID || s.At.Before(c.Now) {
			continue
		}
		i := slices.IndexFunc(of.Turns, func(t CardTurn) bool { return t.Shot == s.Shot && t.From.Equal(s.At) })
		swap := CardSwap{Swap: s, Due: s.At}
		swap.From, swap.To = c.outing.Names[s.From], c.outing.Names[s.To]
		if i >= 0 {
			swap.Turn = of.Turns[i].ID
		}
		// Between takes there is time to change; within one there is none.
		if i > 0 && s.Latest != nil && s.Latest.Before(of.Turns[i-1].To) {
			swap.Due = *s.Latest
		}
		swap.In = Until(c.Now, swap.Due)
		of.Swap = &swap
		return
	}
}
