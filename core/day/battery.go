package day

import (
	"pinhole/core/glass"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// Battery is one battery of a shot as it is judged: the scene, in the light of its time.
// It is the Judge of its shot in the plan.
type Battery struct {
	scene *shot.Scene
	light glass.Light
	id    func([]*glass.Filter) string
	// unmet says what of its requirements nothing meets; "" for all met.
	unmet string
	in    map[stop.Stops]*weighing // by how much brighter the light is
}

// weighing is what the glass of a kit makes of a battery in one light.
type weighing struct {
	scene   *shot.Scene
	verdict *shot.Verdict // on what the school takes
	options map[string]*glass.Option
	costs   map[string]float64
	judged  map[string]*shot.Verdict
}

// sure returns a verdict that cannot fail: the camera has a shutter for the wish, which
// assembling has seen to, and no light changes that.
func sure(v *shot.Verdict, err error) *shot.Verdict {
	if err != nil {
		panic("day: a scene that was assembled cannot be judged: " + err.Error())
	}
	return v
}

func newBattery(scene *shot.Scene, light glass.Light, id func([]*glass.Filter) string, unmet string) *Battery {
	return &Battery{scene: scene, light: light, id: id, unmet: unmet, in: map[stop.Stops]*weighing{}}
}

// now returns the weighing in the light as it is expected.
func (b *Battery) now() *weighing { return b.at(0) }

func (b *Battery) at(off stop.Stops) *weighing {
	if w := b.in[off]; w != nil {
		return w
	}
	there := *b.scene
	there.Question.Light = b.light
	there.Question.Light.Low, there.Question.Light.High = b.light.Low.Plus(off), b.light.High.Plus(off)
	w := &weighing{scene: &there, options: map[string]*glass.Option{}, costs: map[string]float64{}, judged: map[string]*shot.Verdict{}}
	w.verdict = sure(there.Verdict())
	w.order(b.id)
	b.in[off] = w
	return w
}

// costStep keeps two stacks apart whose costs tie, in the order in which they are offered.
const costStep = 1e-6

// order gives each stack its cost: that of choosing, and ten times what stays beyond the
// accepted after ISO and one stop of shutter. It never falls along the order in which the
// shot itself offers them, so that a shot alone gets the same glass from the plan.
func (w *weighing) order(id func([]*glass.Filter) string) {
	q := &w.verdict.Question
	least := 0.0
	take := func(o *glass.Option) {
		name := id(o.Filters)
		if _, isThere := w.costs[name]; isThere {
			return
		}
		least = max(least+costStep, o.Cost+weightExcess*float64(o.Beyond(q)))
		w.options[name], w.costs[name] = o, least
	}
	take(&w.verdict.Option)
	for i := range w.verdict.Options {
		take(&w.verdict.Options[i])
	}
}

// verdict judges a stack in the light of the weighing.
func (w *weighing) judge(id string) *shot.Verdict {
	if v := w.judged[id]; v != nil {
		return v
	}
	v := sure(w.scene.Judge(w.verdict.Question, *w.options[id]))
	w.judged[id] = v
	return v
}

// Verdict judges the battery with a stack that it takes; ok is false for others.
func (b *Battery) Verdict(stackID string) (v *shot.Verdict, ok bool) {
	w := b.now()
	if w.options[stackID] == nil {
		return nil, false
	}
	return w.judge(stackID), true
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
	cost, takes = b.at(off).costs[stack.ID]
	return cost, takes
}

// Breaks reports whether the battery breaks with a stack in light brighter by off. The
// shutter and the ring stay where they are set for the light that was expected.
func (b *Battery) Breaks(stack *Stack, off stop.Stops) bool {
	w := b.now()
	o := w.options[stack.ID]
	if o == nil {
		return true
	}
	if off == 0 {
		return w.judge(stack.ID).State == glass.Breaks
	}
	q, shifted := o.Shifted(&w.verdict.Question, off)
	return sure(w.scene.Judge(q, shifted)).State == glass.Breaks
}

// Setting returns the stops of a stack as it is turned for the battery.
func (b *Battery) Setting(stack *Stack) stop.Stops {
	if o := b.now().options[stack.ID]; o != nil {
		return o.Stops
	}
	need := b.now().verdict.Question.Need()
	return stack.near(need)
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
