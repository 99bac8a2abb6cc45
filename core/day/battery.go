package day

import (
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
}

// kit is what the batteries of a shot share.
type kit struct {
	scene *shot.Scene
	// unmet says what of its requirements nothing meets; "" for all met.
	unmet string
	// ids names each of the scene's stacks, and at finds it by that name or by itself.
	ids []string
	at  map[string]int
	of  map[*glass.Stack]int
}

func newKit(scene *shot.Scene, id func([]*glass.Filter) string, unmet string) *kit {
	k := &kit{scene: scene, unmet: unmet, ids: make([]string, len(scene.Stacks)), at: make(map[string]int, len(scene.Stacks)), of: make(map[*glass.Stack]int, len(scene.Stacks))}
	for i := range scene.Stacks {
		k.ids[i] = id(scene.Stacks[i].Filters)
		k.at[k.ids[i]], k.of[&scene.Stacks[i]] = i, i
	}
	return k
}

// weighing is what the glass of a kit makes of a battery in one light.
type weighing struct {
	scene   *shot.Scene
	verdict *shot.Verdict   // on what the school takes
	options []*glass.Option // by the index of the stack
	costs   []float64
	judged  map[int]*shot.Verdict
}

// sure returns a verdict that cannot fail: the camera has a shutter for the wish, which
// assembling has seen to, and no light changes that.
func sure(v *shot.Verdict, err error) *shot.Verdict {
	if err != nil {
		panic("day: a scene that was assembled cannot be judged: " + err.Error())
	}
	return v
}

func newBattery(k *kit, light glass.Light, from, until int) *Battery {
	return &Battery{kit: k, light: light, from: from, until: until, in: map[stop.Stops]*weighing{}}
}

// exposes reports whether some glass exposes the shot in a light, at the shutter wished; of
// a school that chooses the shutter by more than that nothing is said against it.
func (b *Battery) exposes(light glass.Light) bool {
	if b.scene.School != "" {
		return true
	}
	q := b.scene.Question
	q.Light = light
	if glass.OutOfReach(&q, b.scene.Stacks) { // which is found sooner
		return false
	}
	best := glass.Best(&q, b.scene.Stacks)
	return best.State(&q) != glass.Breaks
}

// now returns the weighing in the light as it is expected.
func (b *Battery) now() *weighing { return b.brighter(0) }

func (b *Battery) brighter(off stop.Stops) *weighing {
	if w := b.in[off]; w != nil {
		return w
	}
	there := *b.scene
	there.Question.Light = b.light
	there.Question.Light.Low, there.Question.Light.High = b.light.Low.Plus(off), b.light.High.Plus(off)
	w := &weighing{scene: &there, options: make([]*glass.Option, len(b.ids)), costs: make([]float64, len(b.ids)), judged: map[int]*shot.Verdict{}}
	if off == 0 {
		w.verdict = sure(there.Verdict())
	} else { // light that may come is planned for by its costs alone
		w.verdict = sure(there.Weighed())
	}
	w.order(b.kit)
	if off == 0 {
		w.judged[b.of[w.verdict.Option.Stack]] = w.verdict
	}
	b.in[off] = w
	return w
}

// costStep keeps two stacks apart whose costs tie, in the order in which they are offered.
const costStep = 1e-6

// order gives each stack its cost: that of choosing, and ten times what stays beyond the
// accepted after ISO and one stop of shutter. It never falls along the order in which the
// shot itself offers them, so that a shot alone gets the same glass from the plan.
func (w *weighing) order(k *kit) {
	q := &w.verdict.Question
	least := 0.0
	take := func(o *glass.Option) {
		i := k.of[o.Stack]
		if w.options[i] != nil {
			return
		}
		least = max(least+costStep, o.Cost+weightExcess*float64(o.Beyond(q)))
		w.options[i], w.costs[i] = o, least
	}
	take(&w.verdict.Option)
	for i := range w.verdict.Options {
		take(&w.verdict.Options[i])
	}
}

// judge judges a stack in the light of the weighing.
func (w *weighing) judge(i int) *shot.Verdict {
	if v := w.judged[i]; v != nil {
		return v
	}
	v := sure(w.scene.Judge(w.verdict.Question, *w.options[i]))
	w.judged[i] = v
	return v
}

// option returns the index of a stack that the battery is offered; ok is false for others,
// and for what only stands in where something else is on.
func (b *Battery) option(w *weighing, stackID string) (i int, ok bool) {
	i, ok = b.at[stackID]
	return i, ok && w.options[i] != nil
}

// Verdict judges the battery with a stack that it takes; ok is false for others.
func (b *Battery) Verdict(stackID string) (v *shot.Verdict, ok bool) {
	w := b.now()
	i, ok := b.option(w, stackID)
	if !ok {
		return nil, false
	}
	return w.judge(i), true
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
	if off == 0 {
		return w.judge(i).State == glass.Breaks
	}
	q, shifted := w.options[i].Shifted(&w.verdict.Question, off)
	return w.verdict.BreaksWith(&q, &shifted)
}

// Setting returns the stops of a stack as it is turned for the battery.
func (b *Battery) Setting(stack *Stack) stop.Stops {
	w := b.now()
	if i, ok := b.option(w, stack.ID); ok {
		return w.options[i].Stops
	}
	return stack.near(w.verdict.Question.Need())
}

// Scene returns the scene of the battery in its light.
func (b *Battery) Scene() *shot.Scene { return b.now().scene }

// Closest judges the battery with a stack, or where it does not take that with what it
// would take.
func (b *Battery) Closest(stackID string) *shot.Verdict {
	if v, ok := b.Verdict(stackID); ok {
		return v
	}
	return b.now().verdict
}
