package glass

import (
	"cmp"
	"slices"

	"pinhole/core/stop"
)

// Cell is one light met with one look.
type Cell struct {
	// Best is the option that serves it best, and State whether it does.
	Best  Option
	State State
}

// Cover weighs every stack for every question and keeps the best of each: rows of
// questions, whose lights are not used, by columns of lights. stacks is not empty.
//
// A cell holds where some glass is on: accepted as it is, with ISO at base.
func Cover(questions []Question, lights []stop.EV, stacks []Stack) [][]Cell {
	rows := make([][]Cell, len(questions))
	for i := range questions {
		rows[i] = make([]Cell, len(lights))
		for j, ev := range lights {
			q := questions[i]
			q.Light = Light{Low: ev, High: ev}
			rows[i][j] = Cell{Best: Best(&q, stacks)}
			rows[i][j].State = rows[i][j].Best.State(&q)
		}
	}
	return rows
}

// Gap is a stretch of one row's columns in which no glass is on, ends included.
type Gap struct {
	From, To int
	// Dark is true where light is missing, so that no glass would help. Otherwise
	// Closes is the single filter that closes most of the stretch, and Left how many
	// of its columns stay open.
	Dark   bool
	Closes stop.Stops
	Left   int
}

// Gaps returns the stretches of a row of cells that do not hold, from left to right.
func (q *Question) Gaps(row []Cell, lights []stop.EV) []Gap {
	at := *q
	isDark := func(j int) bool {
		at.Light = Light{Low: lights[j], High: lights[j]}
		return at.Need() < 0
	}
	var gaps []Gap
	for j := 0; j < len(row); j++ {
		if row[j].State == Holds {
			continue
		}
		g := Gap{From: j, To: j, Dark: isDark(j)}
		for g.To+1 < len(row) && row[g.To+1].State != Holds && isDark(g.To+1) == g.Dark {
			g.To++
		}
		if !g.Dark {
			g.Closes, g.Left = q.closing(lights[g.From : g.To+1])
		}
		gaps = append(gaps, g)
		j = g.To
	}
	return gaps
}

// closing returns the filter that serves most of the lights by itself, of equal
// ones the lightest, and how many it leaves.
func (q *Question) closing(lights []stop.EV) (closes stop.Stops, left int) {
	left = len(lights) + 1
	at := *q
	for _, s := range purchasable {
		open := 0
		for _, ev := range lights {
			at.Light = Light{Low: ev, High: ev}
			if w := at.Wants(1); !w.servedBy(pile{stops: s, layers: 1}) {
				open++
			}
		}
		if open < left {
			closes, left = s, open
		}
	}
	return closes, left
}

// Best returns the first of what Choose returns, without ordering the rest.
func Best(q *Question, stacks []Stack) Option {
	c := newChooser(q)
	var other Option
	var leader, plain lead // of all stacks, and of those that do not stand in
	isServed := false
	var modes []Mode
	if q.Light.IsRange() {
		modes = make([]Mode, len(stacks))
	}
	for i := range stacks {
		other = Option{}
		var mode *Mode
		if modes != nil {
			mode = &modes[i]
		}
		c.weigh(&other, &stacks[i], mode)
		key := keyOf(&other, i)
		leader.take(&other, key)
		if !stacks[i].standsIn {
			plain.take(&other, key)
			isServed = isServed || other.isOn()
		}
	}
	if isServed {
		return plain.option
	}
	return leader.option
}

// lead is the best option so far.
type lead struct {
	option  Option
	key     sortKey
	isFound bool
}

func (l *lead) take(o *Option, key sortKey) {
	if !l.isFound || key.compare(l.key) < 0 {
		l.option, l.key, l.isFound = *o, key, true
	}
}

// Wanted is light that somebody really meets: the glass it needs, the band around
// it, and how often it is met.
type Wanted struct {
	// Least and Most bound the stops that serve it: need − bright to need + dark, in
	// a range of light what serves both ends. Least may lie above Most: then no
	// fixed glass does.
	Least, Most stop.Stops
	// Weight is how often it is met, above 0.
	Weight float64
	// Layers is the most loose layers there, 0 for as many as the rules have.
	Layers int
}

// Wants returns what a question wants of its glass in all. Light too wide to be
// locked, or darker than the bare lens, counts as served where ISO lifts its dark
// end: that is no matter of glass.
func (q *Question) Wants(weight float64) Wanted {
	w := Wanted{Least: q.Need() - q.Band.Bright, Most: q.lowestNeed() + q.Band.Dark, Weight: weight}
	if w.Most < 0 || w.Least > w.Most {
		w.Most += q.Headroom()
	}
	return w
}

// pile is glass as it counts: its stops in all and its loose layers.
type pile struct {
	stops  stop.Stops
	layers int
}

func (w Wanted) servedBy(p pile) bool {
	return stop.AtMost(w.Least, p.stops) && stop.AtMost(p.stops, w.Most) && w.allows(p.layers)
}

func (w Wanted) allows(layers int) bool { return w.Layers == 0 || layers <= w.Layers }

// Purchase is glass that is not there yet, and what it would close.
type Purchase struct {
	Stops []stop.Stops
	// Closes is the weight that is met with it and was not before, by itself or with
	// one of the filters that are there; Open is what stays open.
	Closes, Open float64
}

// purchasable are the strengths that are made: whole stops from one to ten.
var purchasable = []stop.Stops{1, 2, 3, 4, 5, 6, 7, 8, 9, DarkestMade}

// Purchasable returns the strengths that are made, the lightest first.
func Purchasable() []stop.Stops { return slices.Clone(purchasable) }

// DarkestMade is the darkest filter that is commonly made, in stops.
const DarkestMade = stop.Stops(10)

// TwinStops is how near two filters are when one does for both.
const TwinStops = stop.Stops(1.0 / 6)

// Buy returns the single filter and the pair of filters that close most of what is
// wanted and not served by the stacks: of equal ones the lighter. Closes is 0 where
// nothing helps. layers is the most loose layers that may be stacked; the lens, or
// what lives on it, takes a layer.
func Buy(wanted []Wanted, stacks []Stack, layers int) (single, pair Purchase) {
	open, under := unserved(wanted, stacks), withRoom(stacks, layers)
	var options []Purchase
	for i, a := range purchasable {
		options = append(options, purchase([]stop.Stops{a}, open, under, layers))
		for _, b := range purchasable[i+1:] {
			options = append(options, purchase([]stop.Stops{a, b}, open, under, layers))
		}
	}
	better := func(a, b Purchase) int { return cmp.Compare(b.Closes, a.Closes) }
	slices.SortStableFunc(options, better)
	of := func(n int) Purchase {
		return options[slices.IndexFunc(options, func(p Purchase) bool { return len(p.Stops) == n })]
	}
	return of(1), of(2)
}

// unserved returns what no stack serves.
func unserved(wanted []Wanted, stacks []Stack) []Wanted {
	return slices.DeleteFunc(slices.Clone(wanted), func(w Wanted) bool {
		return slices.ContainsFunc(stacks, func(s Stack) bool {
			least, most := s.Reach()
			return stop.AtMost(w.Least, w.Most) && stop.AtMost(w.Least, most) && stop.AtMost(least, w.Most) && w.allows(len(s.Filters))
		})
	})
}

// withRoom returns what one more layer can be added to: the stacks that leave room
// for it, of fixed strength.
func withRoom(stacks []Stack, layers int) []pile {
	var all []pile
	for i := range stacks {
		// New glass is open: what closes a stack goes on top of it.
		if n := len(stacks[i].Filters); stacks[i].Turned == nil && n < layers {
			all = append(all, pile{stacks[i].fixed, n})
		}
	}
	return all
}

// purchase sums up what new filters close.
func purchase(stops []stop.Stops, open []Wanted, under []pile, layers int) Purchase {
	var reached []pile
	for _, s := range stops {
		for _, u := range under {
			reached = append(reached, pile{u.stops + s, u.layers + 1})
		}
	}
	if len(stops) == 2 && len(under) > 0 && under[0].layers+2 <= layers {
		reached = append(reached, pile{under[0].stops + stops[0] + stops[1], under[0].layers + 2})
	}
	p := Purchase{Stops: stops}
	for _, w := range open {
		if slices.ContainsFunc(reached, w.servedBy) {
			p.Closes += w.Weight
		} else {
			p.Open += w.Weight
		}
	}
	return p
}

// Carry returns the fewest filters of the kit that serve every want that the whole
// kit serves, as indices in order, and the indices of the wants that nothing serves.
// Of equally few the set that comes first in the order of the kit. Kits of more
// than MaxCarried filters are searched greedily, which may keep one too many.
func Carry(kit []Filter, wanted []Wanted, rules Rules) (carried, hopeless []int, err error) {
	serves := servers(kit, rules)
	all := make([]int, len(kit))
	for i := range all {
		all[i] = i
	}
	whole, err := serves(all)
	if err != nil {
		return nil, nil, err
	}
	var hoped []Wanted
	for i, w := range wanted {
		if whole(w) {
			hoped = append(hoped, w)
		} else {
			hopeless = append(hopeless, i)
		}
	}
	enough := func(set []int) (bool, error) {
		served, err := serves(set)
		if err != nil {
			return false, err
		}
		return !slices.ContainsFunc(hoped, func(w Wanted) bool { return !served(w) }), nil
	}
	if len(kit) > MaxCarried {
		carried, err = shed(all, enough)
		return carried, hopeless, err
	}
	for size := range len(kit) + 1 {
		found, err := combination(len(kit), size, enough)
		if found != nil || err != nil {
			return found, hopeless, err
		}
	}
	return all, hopeless, nil
}

// servers returns the function that says what a part of the kit serves, given as
// indices.
func servers(kit []Filter, rules Rules) func([]int) (func(Wanted) bool, error) {
	return func(set []int) (func(Wanted) bool, error) {
		var some []Filter
		for i, f := range kit { // what is asked for or lives on the lens comes along anyway
			if slices.Contains(set, i) || slices.Contains(rules.Required, f.ID) || slices.Contains(rules.Mounted, f.ID) {
				some = append(some, f)
			}
		}
		stacks, err := Stacks(some, rules)
		if err != nil {
			return nil, err
		}
		return func(w Wanted) bool { return len(unserved([]Wanted{w}, stacks)) == 0 }, nil
	}
}

// Spare returns the filter that is worth a pocket beside those carried: the one
// that serves most of what is wanted when the light comes out swing stops brighter
// or darker than planned, and the weight that it adds. Of equal ones the lighter;
// found is false where no filter adds anything.
func Spare(kit []Filter, carried []int, wanted []Wanted, swing stop.Stops, rules Rules) (spare int, adds float64, found bool, err error) {
	serves := servers(kit, rules)
	have, err := serves(carried)
	if err != nil {
		return 0, 0, false, err
	}
	var open []Wanted
	for _, w := range wanted {
		for _, by := range []stop.Stops{swing, -swing} {
			moved := w
			moved.Least, moved.Most = w.Least+by, w.Most+by
			if !have(moved) {
				open = append(open, moved)
			}
		}
	}
	for i := range kit {
		if slices.Contains(carried, i) || kit[i].Unfit {
			continue
		}
		with, err := serves(append(slices.Clone(carried), i))
		if err != nil {
			return 0, 0, false, err
		}
		added := 0.0
		for _, w := range open {
			if with(w) {
				added += w.Weight
			}
		}
		if added > adds || found && added == adds && kit[i].Stops < kit[spare].Stops {
			spare, adds, found = i, added, true
		}
	}
	return spare, adds, found, nil
}

// MaxCarried is the largest kit of which every part is tried.
const MaxCarried = 12

// combination returns the first set of size out of n that is enough, nil where
// none is.
func combination(n, size int, enough func([]int) (bool, error)) ([]int, error) {
	set := make([]int, 0, size)
	var extend func(from int) ([]int, error)
	extend = func(from int) ([]int, error) {
		if len(set) == size {
			if ok, err := enough(set); err != nil || !ok {
				return nil, err
			}
			return append([]int{}, set...), nil
		}
		for i := from; i < n; i++ {
			set = append(set, i)
			found, err := extend(i + 1)
			if found != nil || err != nil {
				return found, err
			}
			set = set[:len(set)-1]
		}
		return nil, nil
	}
	return extend(0)
}

// shed takes filters out of a set, the last first, as long as it stays enough.
func shed(set []int, enough func([]int) (bool, error)) ([]int, error) {
	for i := len(set) - 1; i >= 0; i-- {
		without := slices.Delete(slices.Clone(set), i, i+1)
		ok, err := enough(without)
		if err != nil {
			return nil, err
		}
		if ok {
			set = without
		}
	}
	return set, nil
}
