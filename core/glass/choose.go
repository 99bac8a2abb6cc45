package glass

import (
	"cmp"
	"math"
	"slices"

	"pinhole/core/stop"
)

// Verdict says what the camera has to do behind a stack.
type Verdict string

// The verdicts. The first four answer one light, the others a range of light.
const (
	// On: the error lies inside the accepted band.
	On Verdict = "on"
	// RaiseISO: too dark, and ISO lifts it; the shutter is kept.
	RaiseISO Verdict = "iso"
	// FasterShutter: too bright, and only a faster shutter helps.
	FasterShutter Verdict = "shutter"
	// Dark: darker than the ISO headroom can lift.
	Dark Verdict = "dark"
	// Lock: shutter and ISO stay where they are over the whole range.
	Lock Verdict = "lock"
	// FloatISO: the shutter stays, ISO moves in a band.
	FloatISO Verdict = "float-iso"
	// FloatShutter: the shutter moves, ISO up to its ceiling.
	FloatShutter Verdict = "float-shutter"
)

// Values returns every Verdict there is.
func (Verdict) Values() []Verdict {
	return []Verdict{On, RaiseISO, FasterShutter, Dark, Lock, FloatISO, FloatShutter}
}

// Option is one stack and what it does to the shot. In a range of light, Error,
// Left, ISO and Shutter are those at the highest light.
type Option struct {
	*Stack
	// Stops is the glass in all, what is mounted and what is turned included.
	Stops stop.Stops
	// Setting is where the variable filter is turned to, where there is one.
	Setting stop.Stops
	// Error is what is left with ISO at base: (EVscene − S) − EVset.
	Error stop.Stops
	// Left is the error after ISO or shutter has done what it can, as far as the
	// camera goes.
	Left    stop.Stops
	Verdict Verdict
	ISO     stop.ISO
	Shutter stop.Shutter
	// Cost orders options of one class; lower is better.
	Cost float64
	// Lost is the error when the loose glass falls off.
	Lost stop.Stops
	// Mode says how the camera rides the range; nil for one light.
	Mode *Mode
}

// Mode is how the camera rides a range of light.
type Mode struct {
	Kind Verdict
	// ISOLow and ISOHigh bound sensitivity: at the highest and the lowest light.
	ISOLow, ISOHigh stop.ISO
	// Fastest and Slowest bound the shutter: at the highest and the lowest light.
	Fastest, Slowest stop.Shutter
	// Short is how far the lowest light stays below the wanted exposure.
	Short stop.Stops
}

// Choose weighs every stack for the question and returns the options, best first.
// The stacks are kept by the options and must not change while those are in use.
//
// For one light: first what is on with at most one layer beyond the required
// ones, then whatever ISO or shutter can make good, then what stays dark. In a
// range: first what can be locked, then the rest. Stacks that stand in for grey glass
// join only where no other is on. Within a class the lower cost
// leads, then fewer layers, then less weight, then the order of the stacks.
func Choose(q *Question, stacks []Stack) []Option { return Foremost(q, stacks, len(stacks)) }

// Foremost returns the first options that Choose returns, at most so many.
func Foremost(q *Question, stacks []Stack, most int) []Option {
	order := foremost(graded(q, stacks), most)
	options := make([]Option, len(order))
	var modes []Mode
	if q.Light.IsRange() {
		modes = make([]Mode, len(order))
	}
	c := newChooser(q)
	for i, r := range order {
		var mode *Mode
		if modes != nil {
			mode = &modes[i]
		}
		c.weigh(&options[i], &stacks[r.Index], mode)
	}
	return options
}

// Rank returns the options that Choose does, in the same order, with nothing worked out of
// them but what they are ordered by.
func Rank(q *Question, stacks []Stack) []Ranked {
	order := graded(q, stacks)
	slices.SortFunc(order, Ranked.compare)
	return order
}

// graded returns what Rank orders, in the order of the stacks.
func graded(q *Question, stacks []Stack) []Ranked {
	all := make([]Ranked, len(stacks))
	c := newChooser(q)
	isServed := false // by a stack that is no stand-in
	for i := range stacks {
		var g grade
		c.grade(&g, &stacks[i])
		all[i] = rankedOf(&g, &stacks[i], i)
		isServed = isServed || !stacks[i].standsIn && g.verdict.isOn()
	}
	if isServed {
		all = slices.DeleteFunc(all, func(r Ranked) bool { return stacks[r.Index].standsIn })
	}
	return all
}

// foremost returns the first of an order, at most so many. Where they are few, the rest is not
// ordered. It reorders its argument.
func foremost(all []Ranked, most int) []Ranked {
	if most >= len(all)/4 {
		slices.SortFunc(all, Ranked.compare)
		return all[:min(most, len(all))]
	}
	front := all[:0] // never longer than what was looked at
	for _, r := range all {
		if len(front) == most {
			if most == 0 || r.compare(front[most-1]) > 0 {
				continue
			}
			front = front[:most-1]
		}
		at, _ := slices.BinarySearchFunc(front, r, Ranked.compare)
		front = slices.Insert(front, at, r)
	}
	return front
}

// Best returns the first of what Choose returns, without ordering the rest.
func Best(q *Question, stacks []Stack) Option {
	c := newChooser(q)
	var first lead
	isServed := false // by a stack that is no stand-in
	for _, standsIn := range []bool{false, true} {
		for i := range stacks {
			if s := &stacks[i]; s.standsIn == standsIn {
				var g grade
				c.grade(&g, s)
				first.take(&g, s, i)
				isServed = isServed || g.verdict.isOn()
			}
		}
		if isServed {
			break
		}
	}
	return Weigh(q, &stacks[first.Index])
}

// lead is the best so far.
type lead struct {
	Ranked
	isFound bool
}

func (l *lead) take(g *grade, s *Stack, index int) {
	switch { // most are behind by more than what ties are settled by
	case !l.isFound:
	case g.class > l.class || g.class == l.class && g.cost > l.Cost+costStep:
		return
	}
	if r := rankedOf(g, s, index); !l.isFound || r.compare(l.Ranked) < 0 {
		l.Ranked, l.isFound = r, true
	}
}

// Weigh returns the option that a single stack makes.
func Weigh(q *Question, s *Stack) Option {
	var o Option
	var mode *Mode
	if q.Light.IsRange() {
		mode = new(Mode)
	}
	c := newChooser(q)
	c.weigh(&o, s, mode)
	return o
}

// chooser holds what all options of a question share, so that each is a few
// additions.
type chooser struct {
	q              *Question
	gap            stop.Stops // EVscene − EVset at the highest light
	span           stop.Stops // R, highest less lowest light
	want           stop.Stops // the glass a variable filter is turned towards
	headroom       stop.Stops
	wISO, wShutter float64
}

func newChooser(q *Question) chooser {
	c := chooser{q: q, gap: q.Light.High.Above(q.Setting.EV()), span: q.Light.High.Above(q.Light.Low), headroom: q.Headroom()}
	c.wISO, c.wShutter = q.Priority.weights()
	// In a range a variable filter centres the range in the band, as far as the
	// bright end allows.
	c.want = c.gap - q.Offset - min(q.Band.Bright, c.span/2)
	return c
}

// grade is what a stack is ordered by.
type grade struct {
	verdict       Verdict
	class         int32
	turned, stops stop.Stops
	err           stop.Stops
	cost          float64
}

// grade says what the camera has to do behind a stack, and what that costs.
func (c *chooser) grade(g *grade, s *Stack) {
	g.turned = s.turnedTo(c.want)
	g.stops = s.fixed + g.turned
	g.err = c.gap - g.stops
	if c.q.Light.IsRange() {
		c.gradeRange(g)
	} else {
		c.gradeOne(g, s)
	}
	g.cost += s.cost
}

// gradeOne grades for one light.
func (c *chooser) gradeOne(g *grade, s *Stack) {
	b, e := c.q.Offset, g.err
	off, weight := (e - b).Abs(), weightKept
	switch {
	case stop.AtMost(b-c.q.Band.Dark, e) && stop.AtMost(e, b+c.q.Band.Bright):
		g.verdict = On
		if s.Extra > 1 {
			g.class = 1
		}
	case e > b:
		g.verdict, g.class, weight = FasterShutter, 1, c.wShutter
	case stop.AtMost(b-e, c.headroom+c.q.Band.Dark):
		g.verdict, g.class, weight = RaiseISO, 1, c.wISO
	default:
		g.verdict, g.class = Dark, 2
	}
	g.cost = float64(off) * weight
}

// gradeRange grades for a range of light.
func (c *chooser) gradeRange(g *grade) {
	b, e, h := c.q.Offset, g.err, c.headroom
	f := e - c.span
	over, under := c.outside(e)
	isBrightEnough := stop.AtMost(e, b+c.q.Band.Bright)
	switch {
	case isBrightEnough && stop.AtMost(b-c.q.Band.Dark, f):
		g.verdict, g.cost = Lock, math.Abs(float64((e+f)/2-b))
	case isBrightEnough && stop.AtMost(b-c.q.Band.Dark-f, h):
		g.verdict, g.class, g.cost = FloatISO, 1, c.wISO*float64(under)
	default:
		g.verdict, g.class = FloatShutter, 1
		g.cost = c.wShutter*float64(over+max(0, under-h)) + c.wISO*float64(min(h, under))
	}
}

// outside returns by how much the wanted offset is exceeded at the highest light and missed
// at the lowest, of a range with error e at the highest.
func (c *chooser) outside(e stop.Stops) (over, under stop.Stops) {
	f := e - c.span
	return max(0, e-c.q.Offset), max(0, c.q.Offset-f)
}

// weigh works out an option; mode is where a range of light puts how it is ridden, nil for
// one light.
func (c *chooser) weigh(o *Option, s *Stack, mode *Mode) {
	var g grade
	c.grade(&g, s)
	o.Stack, o.Verdict, o.Cost = s, g.verdict, g.cost
	mounted := s.mounted
	if s.Turned != nil {
		o.Setting = g.turned
		if s.turnedMounted {
			mounted += g.turned
		}
	}
	o.Stops, o.Error = g.stops, g.err
	o.Lost = o.Error + o.Stops - mounted
	o.ISO, o.Shutter = c.q.Setting.ISO, c.q.Setting.Shutter
	if mode == nil {
		c.ride(o)
	} else {
		o.Mode = mode
		c.rideRange(o)
	}
}

// isOn reports whether the light is accepted as it is, with nothing giving way.
func (v Verdict) isOn() bool { return v == On || v == Lock }

// ride fills in what the camera does in one light.
func (c *chooser) ride(o *Option) {
	b, e := c.q.Offset, o.Error
	switch o.Verdict {
	case On:
		o.Left = e
	case FasterShutter:
		o.Shutter, o.Left = c.faster(e - b)
		o.Left += b
	case RaiseISO:
		lift := min(b-e, c.headroom)
		o.Left, o.ISO = e+lift, o.ISO.Raised(lift)
	default:
		o.Left, o.ISO = e+c.headroom, c.q.Ceiling
	}
}

// faster returns the target made shorter by the stops there are too many, as far as
// the camera goes where that is known, and what then stays too bright.
func (c *chooser) faster(over stop.Stops) (t stop.Shutter, beyond stop.Stops) {
	t = c.q.Setting.Shutter.Times(-over)
	if fastest := c.q.Fastest; t < fastest {
		return fastest, fastest.Over(t)
	}
	return t, 0
}

// rideRange fills in what the camera does over a range of light.
func (c *chooser) rideRange(o *Option) {
	b, e, h := c.q.Offset, o.Error, c.headroom
	over, under := c.outside(e)
	bare, beyond := c.q.Setting, stop.Stops(0)
	m := o.Mode
	*m = Mode{Kind: o.Verdict, ISOLow: bare.ISO, ISOHigh: bare.ISO, Fastest: bare.Shutter, Slowest: bare.Shutter}
	switch m.Kind {
	case Lock:
		m.Short = under
	case FloatISO:
		m.Short = max(0, under-h)
	default:
		m.Fastest, beyond = c.faster(over)
		m.Slowest = bare.Shutter.Times(max(0, under-h))
		if c.q.Rate > 0 {
			m.Slowest = min(c.q.Rate.Frame(), m.Slowest)
		}
		m.Short = max(0, under-h-m.Slowest.Over(bare.Shutter))
	}
	o.Left = e
	if m.Kind != Lock {
		lift := max(0, b-e)
		m.ISOLow = bare.ISO.Raised(min(h, lift))
		m.ISOHigh = bare.ISO.Raised(min(h, under))
		o.Left += min(h, lift)
	}
	if m.Kind == FloatShutter {
		o.Left -= over - beyond
	}
	o.ISO, o.Shutter = m.ISOLow, m.Fastest
}

// Shutters returns the times the camera is set to: one, or those between which the
// shutter floats.
func (o *Option) Shutters() stop.Span {
	if o.Verdict == FloatShutter {
		return stop.Span{From: o.Mode.Fastest, To: o.Mode.Slowest}
	}
	return stop.Span{From: o.Shutter, To: o.Shutter}
}

// costStep is what two costs may differ by and still be a tie. Costs are rounded
// to it, because comparing with a margin would not order them.
const costStep = stop.Tolerance

// Ranked is a stack in the order of its options.
type Ranked struct {
	Index int // of the stack
	// Cost and Error are those of its option.
	Cost  float64
	Error stop.Stops

	steps         float64 // the cost in whole costSteps
	weightG       float64
	class, layers int32
}

func rankedOf(g *grade, s *Stack, index int) Ranked {
	return Ranked{Index: index, Cost: g.cost, Error: g.err, steps: math.Round(g.cost / costStep), weightG: s.weightG, class: g.class, layers: int32(len(s.Filters))}
}

func (r Ranked) compare(other Ranked) int {
	if r.class != other.class {
		return cmp.Compare(r.class, other.class)
	}
	if r.steps != other.steps {
		return cmp.Compare(r.steps, other.steps)
	}
	return cmp.Or(cmp.Compare(r.layers, other.layers), cmp.Compare(r.weightG, other.weightG), cmp.Compare(r.Index, other.Index))
}

// Restores returns the shutter at base ISO that exposes as metered when the loose glass
// falls off in the highest light, as far as the camera goes, and what then stays over.
func (o *Option) Restores(q *Question) (t stop.Shutter, over stop.Stops) {
	t = q.Setting.Shutter.Times(-o.Lost)
	if t < q.Fastest {
		return q.Fastest, q.Fastest.Over(t)
	}
	return t, 0
}

// Saved reports whether the camera's fastest shutter at base ISO still exposes
// when the loose glass falls off in the highest light; known is false where the
// fastest shutter is not known.
func (o *Option) Saved(q *Question) (saved, known bool) {
	if q.Fastest == 0 {
		return false, false
	}
	reach := q.Setting.Shutter.Over(q.Fastest)
	return stop.AtMost(o.Lost-reach, q.Offset+q.Band.Bright), true
}

// Shifted returns the question with its light brighter by off and what the option, its
// ring left where it is turned to, makes of that.
func (o *Option) Shifted(q *Question, off stop.Stops) (Question, Option) {
	there := *q
	there.Light.High, there.Light.Low = there.Light.High.Plus(off), there.Light.Low.Plus(off)
	c := newChooser(&there)
	c.want -= off
	var mode *Mode
	if there.Light.IsRange() {
		mode = new(Mode)
	}
	var shifted Option
	c.weigh(&shifted, o.Stack, mode)
	return there, shifted
}

// Misses returns by how many stops the exposure misses where it holds, 0 where it does:
// the ISO beyond the free lift, what the shutter gives, and what stays too bright or too
// dark beyond what is accepted.
func (o *Option) Misses(q *Question) stop.Stops {
	if o.State(q) == Holds {
		return 0
	}
	by := max(o.Lift(q)-q.freeLift(), o.given(q), o.beyondShutter(q)-q.Band.Bright)
	if o.Mode != nil {
		return max(by, o.Mode.Short-q.Band.Dark, 0)
	}
	return max(by, q.Offset-q.Band.Dark-o.Left, 0)
}

// Beyond returns what stays beyond the accepted after ISO and one stop of shutter, behind
// glass that leaves an error at the highest light.
func (q *Question) Beyond(left stop.Stops) stop.Stops {
	_, most := q.Dark()
	atLow := left - q.Light.High.Above(q.Light.Low)
	return max(0, left-q.Offset-q.Band.Bright-MostGiven, q.Offset-atLow-most-MostGiven)
}

// Dark returns by how much the picture stays darker than is accepted at the lowest light,
// after ISO and shutter have done what they can; 0 where it does not.
func (o *Option) Dark(q *Question) stop.Stops {
	if o.Mode != nil {
		return max(0, o.Mode.Short-q.Band.Dark)
	}
	return max(0, q.Offset-o.Left-q.Band.Dark)
}
