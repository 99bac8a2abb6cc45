package day

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// Prepared is an outing made ready: its light, its glass, and each battery of its shots.
type Prepared struct {
	*OutingRequest
	Day    Day
	Stacks map[string]*OutingStack
	Names  map[string]string

	sky
	// batteries are those of each shot that is planned, by its id.
	batteries map[string][]*Battery
	lights    map[string][]LightFor
	// kits and bareKits, of shots of which only the light they need is known, are made once for
	// all shots that ask the same.
	kits     []heldKit
	bareKits map[bareShot]*kit
}

// Prepare makes the outing ready; unknown are the ids of shots whose light or glass is not
// known. It gives up when the context ends, with its error.
func (r *OutingRequest) Prepare(ctx context.Context) (o *Prepared, unknown []string, err error) {
	if err := r.check(); err != nil {
		return nil, nil, err
	}
	o = &Prepared{OutingRequest: r, Stacks: map[string]*OutingStack{}, Names: map[string]string{}, batteries: map[string][]*Battery{}, lights: map[string][]LightFor{}, bareKits: map[bareShot]*kit{}}
	if o.sky, err = r.sky(); err != nil {
		return nil, nil, err
	}
	o.Day = Day{Start: map[string]string{}, Band: glass.DefaultBand, SwapCost: DefaultSwapCost}
	if band := r.Tolerance.Band(); band != nil {
		o.Day.Band = *band
	}
	if r.SwapCost != nil {
		o.Day.SwapCost = *r.SwapCost
	}
	for i := range r.Stacks {
		if _, isThere := o.Names[r.Stacks[i].ID]; isThere {
			return nil, nil, &problem.Fault{Field: fmt.Sprintf("stacks[%d].id", i), Value: r.Stacks[i].ID, Allowed: "an id that no other stack has"}
		}
		o.addStack(&r.Stacks[i])
	}
	unknown = []string{}
	for i := range r.Shots {
		if err := ctx.Err(); err != nil {
			return nil, nil, err
		}
		isKnown, err := o.take(i)
		if err != nil {
			return nil, nil, err
		}
		if !isKnown {
			unknown = append(unknown, r.Shots[i].ID)
		}
	}
	for camera, id := range r.Start {
		// What a camera carried and is no longer there is no start.
		if s := o.Stacks[id]; s != nil && (s.CameraID == "" || s.CameraID == camera) {
			o.Day.Start[camera] = id
		}
	}
	return o, unknown, nil
}

func (o *Prepared) addStack(s *OutingStack) {
	o.Names[s.ID], o.Stacks[s.ID] = cmp.Or(s.Name, s.ID), s
	o.Day.Stacks = append(o.Day.Stacks, s.Stack)
}

func (r *OutingRequest) check() error {
	for field, t := range map[string]time.Time{"from": r.From, "to": r.To} {
		if err := assemble.CheckYear(field, t); err != nil {
			return err
		}
	}
	step := time.Duration(r.StepS * float64(time.Second))
	if r.To.Before(r.From) || r.To.Sub(r.From)/step >= MaxPoints {
		return &problem.Fault{Field: "to", Value: r.To, Allowed: fmt.Sprintf("an instant after from, with at most %d points between them", MaxPoints)}
	}
	for i := range r.Turns[:max(len(r.Turns)-1, 0)] {
		if r.Turns[i+1].From.Before(r.Turns[i].From) {
			return &problem.Fault{Field: fmt.Sprintf("turns[%d].from", i+1), Value: r.Turns[i+1].From, Allowed: "an instant after the take before it"}
		}
	}
	for i := range r.Shots {
		s, path := &r.Shots[i], fmt.Sprintf("shots[%d]", i)
		if err := assemble.CheckYear(path+".from", s.From); err != nil {
			return err
		}
		for j := range r.Shots[:i] {
			other := &r.Shots[j]
			switch {
			case other.ID == s.ID:
				return &problem.Fault{Field: path + ".id", Value: s.ID, Allowed: "an id that no other shot has"}
			case other.CameraID == s.CameraID && other.From.Before(s.until()) && s.From.Before(other.until()):
				return &problem.Fault{Field: path + ".from", Value: s.From, Allowed: fmt.Sprintf("a time at which its camera is free: it shoots %s from %s to %s",
					cmp.Or(other.Name, other.ID), other.From.Format("15:04"), other.until().Format("15:04"))}
			}
		}
	}
	return nil
}

// until returns when a shot ends.
func (s *OutingShot) until() time.Time { return s.From.Add(time.Duration(s.Minutes) * time.Minute) }

// take turns a shot into batteries with their light; isKnown is false where its light is
// not known, or no glass goes on its camera.
func (o *Prepared) take(i int) (isKnown bool, err error) {
	s, path := &o.Shots[i], fmt.Sprintf("shots[%d]", i)
	lights, err := o.lightsOf(s, path)
	if err != nil || len(lights) == 0 {
		return false, err
	}
	glass, err := o.kitFor(s, path)
	if err != nil || glass == nil {
		return false, err
	}
	o.lights[s.ID] = lights
	pack := s.Minutes
	if s.PackMin >= 1 {
		pack = min(pack, int(s.PackMin))
	}
	for at := 0; at < s.Minutes; at += pack {
		until := min(at+pack, s.Minutes)
		from := s.From.Add(time.Duration(at) * time.Minute)
		seen := o.lightOf(s, s.From, at, until)
		b := newBattery(glass, seen.light(), at, until)
		o.batteries[s.ID] = append(o.batteries[s.ID], b)
		q := &b.now().Question
		o.Day.Shots = append(o.Day.Shots, Shot{
			ID: fmt.Sprintf("%s, pack %d", s.ID, 1+at/pack), Name: s.Name, CameraID: s.CameraID, From: from, To: s.From.Add(time.Duration(until) * time.Minute),
			EVSet: q.Setting.EV(), Points: seen.points, HasNoOrder: seen.hasNoOrder, Offset: q.Offset, Headroom: q.Headroom(), Spread: seen.spread, Band: &q.Band, Judge: b,
		})
	}
	return true, nil
}

// kitFor returns what the batteries of a shot are judged with: the whole shot where that is
// known, else the light its setting needs. nil where no glass goes on its camera.
func (o *Prepared) kitFor(s *OutingShot, path string) (*kit, error) {
	i := slices.IndexFunc(o.Held, func(h assemble.Held) bool { return h.CameraID == s.CameraID && h.RigID == s.RigID })
	if s.Look == nil || i < 0 {
		return o.bare(s, path)
	}
	choices := assemble.Choices{OffsetStops: s.Offset, Tolerance: s.Band, MaxLayers: s.Layers, Required: s.Required}
	if s.Choices != nil {
		choices = *s.Choices
	}
	asks := assemble.Asked{Look: *s.Look, Scene: s.Scene, Choices: choices}
	for _, made := range o.kits {
		if made.held == i && reflect.DeepEqual(made.placed, s.Placed) && reflect.DeepEqual(made.asks, asks) {
			return made.kit, nil
		}
	}
	k, err := o.kit(&o.Held[i], asks, s.Placed, path)
	if err == nil {
		o.kits = append(o.kits, heldKit{i, asks, s.Placed, k})
	}
	return k, err
}

// heldKit is the kit of what is asked of a camera as it is held, by its index, and of what is put
// on it by hand.
type heldKit struct {
	held   int
	asks   assemble.Asked
	placed *[]string
	kit    *kit
}

// kit makes ready what is asked of a camera as it is held, of glass put on by hand that alone; nil
// where more glass is there than can be weighed.
func (o *Prepared) kit(h *assemble.Held, asks assemble.Asked, placed *[]string, path string) (*kit, error) {
	asked := h.Shot(asks)
	ready, err := asked.AssembleIn(glass.Light{})
	unmet := ""
	var fault *problem.Fault
	if errors.As(err, &fault) && strings.HasPrefix(fault.Field, "required") {
		// What nothing in the kit meets is planned without, and breaks.
		unmet = "nothing in the kit meets what it asks for: " + fault.Allowed
		asked.Required = nil
		ready, err = asked.AssembleIn(glass.Light{})
	}
	if errors.As(err, &fault) && fault.Field == "kit" {
		return nil, nil // more glass than can be weighed: nothing is known of what it would do
	}
	if err != nil {
		return nil, problem.At(path, err)
	}
	scene := ready.Scene
	if placed != nil {
		on, err := ready.Stack(*placed, "placed")
		if err != nil {
			return nil, problem.At(path, err)
		}
		scene, unmet = scene.PutOn(on), "" // whoever puts something on does without what is not there
	}
	name := func(id string) string {
		if id == shot.NewGlass {
			return asks.Scene.TriedGlass()
		}
		return cmp.Or(o.Titles[id], id)
	}
	id := func(filters []*glass.Filter) string {
		on, rig := glass.IDs(filters), h.RigID
		if slices.Contains(on, shot.NewGlass) {
			rig += " with a " + asks.Scene.TriedGlass() // another shot may try another
		}
		return StackID(h.CameraID, rig, on)
	}
	for k := range scene.Stacks {
		if stack := &scene.Stacks[k]; o.Stacks[id(stack.Filters)] == nil {
			named := stackOf(h.CameraID, h.RigID, stack, asks.Choices.Required, name)
			named.ID = id(stack.Filters)
			o.addStack(&named)
		}
	}
	k, err := newKit(scene, id, unmet)
	return k, problem.At(path, err)
}

// isoForBare and usualShutter stand for the setting of a shot of which only the light it
// needs is known: any setting that needs as much is the same to its exposure.
const (
	isoForBare   = stop.ISO(100)
	usualShutter = stop.Shutter(1.0 / 50)
)
