package day

import (
	"sync"

	"pinhole/core/glass"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// Battery is one battery of a shot as it is judged: the scene, in the light of its time.
// It is the Judge of its shot in the plan.
type Battery struct {
	*kit
	light glass.Light
	// from and until are the minutes of its shot that it lasts.
	from, until int
	in          map[stop.Stops]*weighing // by how much brighter the light is
	judged      map[int]*shot.Verdict    // in the light as it is expected, by the index of the stack
}

// kit is what the batteries of a shot share.
type kit struct {
	scene *shot.Scene // in no light of its own
	aim   *shot.Aim
	reach glass.Extremes
	// tries are the changes that could serve its shots.
	tries func() []*try
	// unmet says what of its requirements nothing meets; "" for all met.
	unmet string
	// ids names each of the scene's stacks, and at finds it by that name.
	ids []string
	at  map[string]int
}

// newKit makes a scene ready for its batteries. The error is that of the aim.
func newKit(scene *shot.Scene, id func([]*glass.Filter) string, unmet string) (*kit, error) {
	aim, err := scene.Aim()
	if err != nil {
		return nil, err
	}
	k := &kit{scene: scene, aim: aim, reach: glass.ExtremesOf(scene.Stacks), tries: sync.OnceValue(func() []*try { return triesOf(scene) }), unmet: unmet, ids: make([]string, len(scene.Stacks)), at: make(map[string]int, len(scene.Stacks))}
	for i := range scene.Stacks {
		k.ids[i] = id(scene.Stacks[i].Filters)
		k.at[k.ids[i]] = i
	}
	return k, nil
}

// nameOf returns the id of one of the scene's stacks.
func (k *kit) nameOf(s *glass.Stack) string { return k.ids[k.indexOf(s)] }

func (k *kit) indexOf(s *glass.Stack) int {
	for i := range k.scene.Stacks {
		if s == &k.scene.Stacks[i] {
			return i
		}
	}
	panic("day: a stack of another kit")
}

// weighing is what the glass of a kit makes of a battery in one light.
type weighing struct {
	*shot.Weighing
	// costs are by the index of the stack, 0 for what is not offered.
	costs []float64
}

func newBattery(k *kit, light glass.Light, from, until int) *Battery {
	return &Battery{kit: k, light: light, from: from, until: until, in: map[stop.Stops]*weighing{}, judged: map[int]*shot.Verdict{}}
}

// exposes reports whether some glass exposes the shot in a light, at the shutter wished; of
// a school that chooses the shutter by more than that nothing is said against it.
func (b *Battery) exposes(light glass.Light) bool {
	if b.scene.School != "" {
		return true
	}
	q := b.scene.Question
	q.Light = light
	if b.reach.Miss(&q) { // which is found sooner
		return false
	}
	best := glass.Best(&q, b.scene.Stacks)
	return best.State(&q) != glass.Breaks
}

// now returns the weighing in the light as it is expected.
func (b *Battery) now() *weighing { return b.brighter(0) }

// brighter returns the weighing in light brighter by off.
func (b *Battery) brighter(off stop.Stops) *weighing {
	if w := b.in[off]; w != nil {
		return w
	}
	light := b.light
	light.Low, light.High = light.Low.Plus(off), light.High.Plus(off)
	w := &weighing{b.aim.Weigh(light), make([]float64, len(b.ids))}
	w.order(b.kit)
	b.in[off] = w
	return w
}

// costStep keeps two stacks apart whose costs tie, in the order in which they are offered.
const costStep = 1e-6

// order gives each stack its cost: that of choosing, and ten times what stays beyond the
// accepted after ISO and one stop of shutter. It never falls along the order in which the
// shot itself offers them, so that a shot alone gets the same glass from the plan.
func (w *weighing) order(k *kit) {
	least := 0.0
	take := func(i int, cost float64, left stop.Stops) {
		if w.costs[i] == 0 {
			least = max(least+costStep, cost+weightExcess*float64(w.Question.Beyond(left)))
			w.costs[i] = least
		}
	}
	take(k.indexOf(w.Taken.Stack), w.Taken.Cost, w.Taken.Error)
	for _, r := range w.Order {
		take(r.Index, r.Cost, r.Error)
	}
}

// expected judges the battery with what its school takes.
func (b *Battery) expected() *shot.Verdict {
	w := b.now()
	return b.judge(w, b.indexOf(w.Taken.Stack))
}

// judge judges a stack in the light as it is expected.
func (b *Battery) judge(w *weighing, i int) *shot.Verdict {
	v := b.judged[i]
	if v == nil {
		v = b.aim.Judge(w.Question, glass.Weigh(&w.Question, &b.scene.Stacks[i]))
		b.judged[i] = v
	}
	return v
}

// option returns the index of a stack that the battery is offered; ok is false for others,
// and for what only stands in where something else is on.
func (b *Battery) option(w *weighing, stackID string) (i int, ok bool) {
	i, ok = b.at[stackID]
	return i, ok && w.costs[i] > 0
}

// Verdict judges the battery with a stack that it takes; ok is false for others.
func (b *Battery) Verdict(stackID string) (v *shot.Verdict, ok bool) {
	w := b.now()
	i, ok := b.option(w, stackID)
	if !ok {
		return nil, false
	}
	return b.judge(w, i), true
}

// State returns the state of the battery with a stack, and what it comes to in words.
func (b *Battery) State(stack *Stack) (glass.State, string) {
	v, ok := b.Verdict(stack.ID)
	switch {
	case b.unmet != "":
		return glass.Breaks, b.unmet
	case !ok:
		return glass.Breaks, "the shot does not take " + stack.name()
	}
	return v.State, stack.name() + ": " + v.Words()
}

// Cost returns what the battery costs with a stack in light brighter by off.
func (b *Battery) Cost(stack *Stack, off stop.Stops) (cost float64, takes bool) {
	w := b.brighter(off)
	i, ok := b.option(w, stack.ID)
	if !ok {
		return 0, false
	}
	return w.costs[i], true
}

// Breaks reports whether the battery breaks with a stack in light brighter by off. The
// shutter and the ring stay where they are set for the light that was expected.
func (b *Battery) Breaks(stack *Stack, off stop.Stops) bool {
	w := b.now()
	i, ok := b.option(w, stack.ID)
	if !ok {
		return true
	}
	v := b.judge(w, i)
	if off == 0 {
		return v.State == glass.Breaks
	}
	q, shifted := v.Option.Shifted(&w.Question, off)
	return v.BreaksWith(&q, &shifted)
}

// Setting returns the stops of a stack as it is turned for the battery.
func (b *Battery) Setting(stack *Stack) stop.Stops {
	w := b.now()
	if i, ok := b.option(w, stack.ID); ok {
		return b.judge(w, i).Option.Stops
	}
	return stack.near(w.Question.Need())
}

// Scene returns the scene of the battery in its light.
func (b *Battery) Scene() *shot.Scene {
	there := *b.scene
	there.Question.Light = b.light
	return &there
}

// Closest judges the battery with a stack, or where it does not take that with what it
// would take.
func (b *Battery) Closest(stackID string) *shot.Verdict {
	if v, ok := b.Verdict(stackID); ok {
		return v
	}
	return b.expected()
}
