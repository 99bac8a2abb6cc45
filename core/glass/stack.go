package glass

import (
	"fmt"
	"math"
	"slices"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Limits on the work one question may ask for.
const (
	// MaxKit is the most filters in a kit.
	MaxKit = 200
	// MaxLayers is the most loose layers in a stack.
	MaxLayers = 4
	// MaxStacks is the most stacks that are weighed; a kit and a number of layers
	// that make more are refused.
	MaxStacks = 5000
)

// Rules says which stacks may be built from a kit.
type Rules struct {
	// MaxLayers is the most loose layers; 0 means the default, 2.
	MaxLayers int
	// Allow lists the kinds used for their darkness alone; nil means ND and Variable.
	// A polariser is not a grey filter and waits to be asked for.
	Allow []Kind
	// Fallback lists kinds that stand in for grey glass where none is on.
	Fallback []Kind
	// Required glass is in every stack for its effect and counts its layer.
	Required []string
	// Mounted glass lives on the lens: it is at the bottom of every stack and its
	// stops count, but no layer, corner or cast, which the owner has accepted.
	Mounted []string
	// AtHand is the glass that is there to be chosen for its darkness; nil means all of the kit.
	AtHand *[]string
}

// With returns the rules where fresh glass has come to the kit, at hand with the rest.
func (r Rules) With(fresh ...Filter) Rules {
	if r.AtHand == nil {
		return r
	}
	all := slices.Clone(*r.AtHand)
	for i := range fresh {
		all = append(all, fresh[i].ID)
	}
	r.AtHand = &all
	return r
}

// Away returns what could be chosen of the kit for its darkness if it were at hand.
func (r Rules) Away(kit []Filter) []*Filter {
	if r.AtHand == nil {
		return nil
	}
	isThere := func(f *Filter) bool {
		return slices.Contains(*r.AtHand, f.ID) || slices.Contains(r.Required, f.ID) || slices.Contains(r.Mounted, f.ID)
	}
	all := builder{}
	all.chooseFrom(kit, Rules{Allow: r.Allow, Fallback: r.Fallback})
	return slices.DeleteFunc(all.free, isThere)
}

// DefaultLayers is the most loose layers in a stack unless the rules say.
const DefaultLayers = 2

var defaultAllow = []Kind{ND, Variable}

// Stack is a set of filters in the order they go on.
type Stack struct {
	// Filters are the loose filters, the one on the camera first. Mounted glass is
	// not among them.
	Filters []*Filter
	// Extra is how many of Filters are there for their darkness, beyond Required.
	Extra int
	// Turned is the variable filter in the stack or on the lens, or nil.
	Turned *Filter

	fixed, mounted stop.Stops // of glass that does not turn: all of it, and what is mounted
	corner, cast   stop.Stops
	variance       float64 // of fixed, in stops²
	weightG        float64
	cost           float64 // ownCost, which every light asks for
	turnedMounted  bool
	// standsIn is true where something in it is there for want of grey glass.
	standsIn bool
}

// At returns the stops of the stack when its variable filter, if any, is turned
// to come as near as it can to want.
func (s *Stack) At(want stop.Stops) stop.Stops { return s.fixed + s.turnedTo(want) }

func (s *Stack) turnedTo(want stop.Stops) stop.Stops {
	if s.Turned == nil {
		return 0
	}
	return min(max(want-s.fixed, s.Turned.Stops), s.Turned.Most)
}

// Spread returns how far the stack's stops may stray: the root of the summed
// squares of its filters' spreads, which have nothing to do with each other.
func (s *Stack) Spread() stop.Stops { return stop.Stops(math.Sqrt(s.variance)) }

// standInCost is what a stack costs that stands in for grey glass.
const standInCost = 0.5

// ownCost is the part of a stack's cost that the light has no say in:
// 0.4·(layers − 1) + 0.3·corner + 0.2·|cast|, and 0.5 where it stands in.
func (s *Stack) ownCost() float64 {
	layers := max(len(s.Filters)-1, 0)
	cost := 0.4*float64(layers) + 0.3*float64(s.corner) + 0.2*math.Abs(float64(s.cast))
	if s.standsIn {
		cost += standInCost
	}
	return cost
}

// StandsIn reports whether something in the stack is there only for want of grey glass.
func (s *Stack) StandsIn() bool { return s.standsIn }

func (s *Stack) add(f *Filter, mounted bool) {
	if f.Kind == Variable {
		s.Turned, s.turnedMounted = f, mounted
	} else {
		s.fixed += f.Stops
	}
	if mounted {
		if f.Kind != Variable {
			s.mounted += f.Stops
		}
	} else {
		s.Filters = append(s.Filters, f)
		s.corner += f.Corner
		s.cast += f.Cast
		s.weightG += f.WeightG
	}
	spread := float64(f.spread())
	s.variance += spread * spread
}

// Stacks returns every stack the rules allow, each set of filters once and the
// camera's side first, fewer layers before more and then in the order of the
// kit. A stack holds at most one polarising filter; a layer goes only on a layer
// that takes one, and a filter that needs a base only on other glass.
//
// The error is a *problem.Fault that names the field: an unknown, repeated or
// unfit required filter, required glass that cannot go together, or a kit that
// makes more than MaxStacks stacks.
func Stacks(kit []Filter, rules Rules) ([]Stack, error) {
	b := builder{layers: rules.MaxLayers}
	if b.layers == 0 {
		b.layers = DefaultLayers
	}
	mounted, err := named(kit, rules.Mounted, "mounted")
	if err != nil {
		return nil, err
	}
	required, err := named(kit, rules.Required, "required")
	if err != nil {
		return nil, err
	}
	if polarising(mounted) > 1 {
		return nil, &problem.Fault{Field: "mounted", Value: rules.Mounted, Allowed: "one polarising filter at most: two cross and darken without measure"}
	}
	// What lives on the lens is already where it was asked for.
	required = slices.DeleteFunc(required, func(f *Filter) bool { return slices.Contains(mounted, f) })
	for _, f := range required {
		if f.Unfit {
			return nil, &problem.Fault{Field: "required", Value: f.ID, Allowed: "a filter that goes on this camera"}
		}
	}
	if rules.AtHand != nil {
		if _, err := named(kit, *rules.AtHand, "atHand"); err != nil {
			return nil, err
		}
	}
	b.mounted, b.required = mounted, required
	b.chooseFrom(kit, rules)
	if n := b.count(); n > MaxStacks {
		return nil, &problem.Fault{Field: "kit", Value: len(kit), Allowed: fmt.Sprintf(
			"fewer filters or fewer layers: %d filters in up to %d layers make more than %d stacks", len(b.free), b.layers, MaxStacks)}
	}
	b.build()
	if len(b.stacks) == 0 {
		return nil, &problem.Fault{Field: "required", Value: rules.Required, Allowed: fmt.Sprintf(
			"filters that go together on this camera: one polariser at most, each on a layer that takes it, in up to %d layers", b.layers)}
	}
	return b.stacks, nil
}

// Exactly returns the stack of just the filters named, whatever their kinds, over what lives on
// the lens. Its faults are of "required".
func Exactly(kit []Filter, ids, mounted []string) (*Stack, error) {
	stacks, err := Stacks(kit, Rules{MaxLayers: MaxLayers, Allow: []Kind{}, Required: ids, Mounted: mounted})
	if err != nil {
		return nil, err
	}
	return &stacks[0], nil
}

// named returns the filters with the given ids, in the order of the ids.
func named(kit []Filter, ids []string, field string) ([]*Filter, error) {
	var found []*Filter
	for i, id := range ids {
		at := slices.IndexFunc(kit, func(f Filter) bool { return f.ID == id })
		if at < 0 {
			return nil, &problem.Fault{Field: fmt.Sprintf("%s[%d]", field, i), Value: id, Allowed: "the id of a filter in the kit"}
		}
		if slices.Contains(found, &kit[at]) {
			return nil, &problem.Fault{Field: fmt.Sprintf("%s[%d]", field, i), Value: id, Allowed: "each filter once"}
		}
		found = append(found, &kit[at])
	}
	return found, nil
}

// builder enumerates stacks.
type builder struct {
	layers            int
	mounted, required []*Filter
	free              []*Filter // may be added for their darkness
	fallback          []Kind    // of those, the kinds that only stand in
	stacks            []Stack
	arena             []*Filter // backs every Stack.Filters, so that a search allocates once
	chosen            []*Filter
}

func (b *builder) chooseFrom(kit []Filter, rules Rules) {
	allow := rules.Allow
	if allow == nil {
		allow = defaultAllow
	}
	for _, k := range rules.Fallback {
		if !slices.Contains(allow, k) {
			b.fallback = append(b.fallback, k)
		}
	}
	b.free = make([]*Filter, 0, len(kit))
	for i := range kit {
		f := &kit[i]
		isThere := !f.Unfit && (rules.AtHand == nil || slices.Contains(*rules.AtHand, f.ID))
		if isThere && (slices.Contains(allow, f.Kind) || slices.Contains(b.fallback, f.Kind)) && !slices.Contains(b.mounted, f) && !slices.Contains(b.required, f) {
			b.free = append(b.free, f)
		}
	}
}

// count returns how many sets there are to look at, or more than MaxStacks.
func (b *builder) count() int {
	sets, total := 1, 1
	for k := 1; k <= b.layers-len(b.required) && total <= MaxStacks; k++ {
		sets = sets * (len(b.free) - k + 1) / k
		total += sets
	}
	return total
}

func (b *builder) build() {
	room := b.layers - len(b.required)
	if room < 0 {
		return
	}
	b.stacks = make([]Stack, 0, b.count())
	b.arena = make([]*Filter, 0, b.count()*b.layers)
	b.chosen = append(make([]*Filter, 0, b.layers), b.required...)
	for extra := range room + 1 {
		b.extend(0, extra)
	}
}

// extend adds extra more filters from free[from:] to the chosen ones, in every way.
func (b *builder) extend(from, extra int) {
	if extra == 0 {
		b.keep()
		return
	}
	for i := from; i <= len(b.free)-extra; i++ {
		b.chosen = append(b.chosen, b.free[i])
		b.extend(i+1, extra-1)
		b.chosen = b.chosen[:len(b.chosen)-1]
	}
}

// keep puts the chosen filters in an order in which they go on, and records the
// stack; a set for which there is no such order is dropped.
func (b *builder) keep() {
	if polarising(b.mounted)+polarising(b.chosen) > 1 {
		return
	}
	start := len(b.arena)
	if !b.order() {
		b.arena = b.arena[:start]
		return
	}
	s := Stack{Extra: len(b.chosen) - len(b.required), Filters: b.arena[start:start:len(b.arena)]}
	for _, f := range b.mounted {
		s.add(f, true)
	}
	for _, f := range b.arena[start:] {
		s.add(f, false)
		s.standsIn = s.standsIn || slices.Contains(b.fallback, f.Kind) && !slices.Contains(b.required, f)
	}
	s.cost = s.ownCost()
	b.stacks = append(b.stacks, s)
}

func polarising(filters []*Filter) int {
	n := 0
	for _, f := range filters {
		if f.Kind.Polarises() {
			n++
		}
	}
	return n
}

// order appends the chosen filters to the arena, the camera's side first, and
// reports whether they can go on at all.
//
// Only the bottom and the top matter: the bottom must sit on the camera (or on
// mounted glass that takes a layer), and only the top may be closed.
func (b *builder) order() bool {
	if len(b.chosen) == 0 {
		return true
	}
	onGlass := len(b.mounted) > 0
	if onGlass && b.mounted[len(b.mounted)-1].Closed {
		return false
	}
	top := -1
	for i, f := range b.chosen {
		if f.Closed {
			if top >= 0 {
				return false
			}
			top = i
		}
	}
	bottom := slices.IndexFunc(b.chosen, func(f *Filter) bool {
		return (onGlass || !f.NeedsBase) && (!f.Closed || len(b.chosen) == 1)
	})
	if bottom < 0 {
		return false
	}
	b.arena = append(b.arena, b.chosen[bottom])
	for i, f := range b.chosen {
		if i != bottom && i != top {
			b.arena = append(b.arena, f)
		}
	}
	if top >= 0 && top != bottom {
		b.arena = append(b.arena, b.chosen[top])
	}
	return true
}

// Reach returns the least and the most stops the stack can take: the same where
// nothing in it turns.
func (s *Stack) Reach() (least, most stop.Stops) {
	if s.Turned == nil {
		return s.fixed, s.fixed
	}
	return s.fixed + s.Turned.Stops, s.fixed + s.Turned.Most
}
