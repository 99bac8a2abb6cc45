package glass

import (
	"fmt"
	"slices"

	"pinhole/core/stop"
)

// Inventory is a kit and the rules by which stacks are built from it, for asking what it
// covers, what to buy and what to carry. Each answer is what asking again would give.
type Inventory struct {
	kit   []Filter
	rules Rules
	built map[string][]Stack
	// over says why an answer is no longer wanted, nil while it is.
	over func() error
}

// NewInventory returns the inventory of a kit, which must not change while it is in use.
// Between pieces of work it asks whether it is over, and gives up with that error.
func NewInventory(kit []Filter, rules Rules, over func() error) *Inventory {
	return &Inventory{kit: kit, rules: rules, built: map[string][]Stack{}, over: over}
}

// layered returns the rules with another number of layers, 0 for their own.
func (v *Inventory) layered(layers int) Rules {
	rules := v.rules
	if layers > 0 {
		rules.MaxLayers = layers
	}
	return rules
}

// stacks returns what the kit makes in so many layers.
func (v *Inventory) stacks(layers int) ([]Stack, error) {
	if err := v.over(); err != nil {
		return nil, err
	}
	key := fmt.Sprint(layers)
	if v.built[key] == nil {
		stacks, err := Stacks(v.kit, v.layered(layers))
		if err != nil {
			return nil, err
		}
		v.built[key] = stacks
	}
	return v.built[key], nil
}

// with returns what the kit makes with new grey filters, of that only the stacks that hold
// all of them.
func (v *Inventory) with(layers int, extra ...stop.Stops) ([]Stack, error) {
	fresh := make([]Filter, len(extra))
	for i, s := range extra {
		fresh[i] = Filter{ID: fmt.Sprintf("new filter %d", i), Kind: ND, Stops: s}
	}
	return v.grown(fmt.Sprint(layers, extra), layers, fresh, len(extra))
}

// grown returns what the kit makes with fresh filters, of that only the stacks that hold so
// many of them. The key says what it is kept as.
func (v *Inventory) grown(key string, layers int, fresh []Filter, least int) ([]Stack, error) {
	if err := v.over(); err != nil {
		return nil, err
	}
	if stacks, isBuilt := v.built[key]; isBuilt {
		return stacks, nil
	}
	bigger := slices.Concat(v.kit, fresh)
	stacks, err := Stacks(bigger, v.layered(layers).With(fresh...))
	if err != nil {
		return nil, err
	}
	added := bigger[len(v.kit):]
	v.built[key] = slices.DeleteFunc(stacks, func(s Stack) bool {
		held := 0
		for i := range added {
			if slices.Contains(s.Filters, &added[i]) {
				held++
			}
		}
		return held < least
	})
	return v.built[key], nil
}

// Wanted is light that somebody really meets.
type Wanted struct {
	// Question is its look, its light and its choices.
	Question Question
	// Weight is how often it is met, above 0.
	Weight float64
	// Layers is the most loose layers there, 0 for as many as the rules have.
	Layers int
	// Judge judges the whole shot with an option weighed for a question like its own; nil
	// where nothing but its exposure is known.
	Judge func(Question, Option) State
}

// brighter returns the same light, brighter by off.
func (w Wanted) brighter(off stop.Stops) Wanted {
	w.Question.Light.Low, w.Question.Light.High = w.Question.Light.Low.Plus(off), w.Question.Light.High.Plus(off)
	return w
}

// servedBy reports whether some of the stacks serves a want: nothing of it breaks.
func (w *Wanted) servedBy(stacks []Stack) bool { return w.comesTo(stacks, Tight) }

// comesTo reports whether some of the stacks makes of a want a state no worse than least.
func (w *Wanted) comesTo(stacks []Stack, least State) bool {
	return anyOf(&w.Question, stacks, least, w.Judge)
}

// Unserved returns the indices of the wants that nothing of the kit serves.
func (v *Inventory) Unserved(wanted []Wanted) ([]int, error) {
	var open []int
	for i := range wanted {
		stacks, err := v.stacks(wanted[i].Layers)
		if err != nil {
			return nil, err
		}
		if !wanted[i].servedBy(stacks) {
			open = append(open, i)
		}
	}
	return open, nil
}
