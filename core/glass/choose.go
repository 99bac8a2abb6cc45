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

	rank int
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
func Choose(q *Question, stacks []Stack) []Option {
	weighed, order := Rank(q, stacks)
	options := make([]Option, len(order))
	for i, k := range order {
		options[i] = weighed[k]
	}
	return options
}

// Rank returns the same without moving them: each stack's option, and the indices of those
// that are offered, best first.
func Rank(q *Question, stacks []Stack) (weighed []Option, order []int) {
	weighed = make([]Option, len(stacks))
	keys := make([]sortKey, len(stacks))
	var modes []Mode
	if q.Light.IsRange() {
		modes = make([]Mode, len(stacks))
	}
	c := newChooser(q)
	isServed := false // by a stack that is no stand-in
	for i := range stacks {
		var mode *Mode
		if modes != nil {
			mode = &modes[i]
		}
		c.weigh(&weighed[i], &stacks[i], mode)
		keys[i] = keyOf(&weighed[i], i)
		isServed = isServed || !stacks[i].standsIn && weighed[i].isOn()
	}
	if isServed {
		keys = slices.DeleteFunc(keys, func(k sortKey) bool { return stacks[k.order].standsIn })
	}
	// Keys are a quarter of an option's size, and sorting is mostly moving.
	slices.SortFunc(keys, sortKey.compare)
	order = make([]int, len(keys))
	for i, k := range keys {
		order[i] = k.order
	}
	return weighed, order
}

// Weigh returns the option that a single stack makes.
func Weigh(q *Question, s *Stack) Option {
	var o Option
	var mode *Mode
	if q.Light.IsRange() {
		mode = new(Mode)
	}
	newChooser(q).weigh(&o, s, mode)
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

func newChooser(q *Question) *chooser {
	c := &chooser{q: q, gap: q.Light.High.Above(q.Setting.EV()), span: q.Light.High.Above(q.Light.Low), headroom: q.Headroom()}
	c.wISO, c.wShutter = q.Priority.weights()
	// In a range a variable filter centres the range in the band, as far as the
	// bright end allows.
	c.want = c.gap - q.Offset - min(q.Band.Bright, c.span/2)
	return c
}

func (c *chooser) weigh(o *Option, s *Stack, mode *Mode) {
	o.Stack = s
	turned := s.turnedTo(c.want)
	mounted := s.mounted
	if s.Turned != nil {
		o.Setting = turned
		if s.turnedMounted {
			mounted += turned
		}
	}
	o.Stops = s.fixed + turned
	o.Error = c.gap - o.Stops
	o.Lost = o.Error + o.Stops - mounted
	o.ISO, o.Shutter = c.q.Setting.ISO, c.q.Setting.Shutter
	if mode == nil {
		c.judge(o)
	} else {
		o.Mode = mode
		c.judgeRange(o)
	}
	o.Cost += s.cost()
}

// isOn reports whether the light is accepted as it is, with nothing giving way.
func (o *Option) isOn() bool { return o.Verdict == On || o.Verdict == Lock }

// judge answers one light.
func (c *chooser) judge(o *Option) {
	b, e := c.q.Offset, o.Error
	off, weight := (e - b).Abs(), weightKept
	switch {
	case stop.AtMost(b-c.q.Band.Dark, e) && stop.AtMost(e, b+c.q.Band.Bright):
		o.Verdict, o.Left = On, e
		if o.Extra > 1 {
			o.rank = 1
		}
	case e > b:
		o.Verdict, o.rank, weight = FasterShutter, 1, c.wShutter
		o.Shutter, o.Left = c.faster(e - b)
		o.Left += b
	case stop.AtMost(b-e, c.headroom+c.q.Band.Dark):
		lift := min(b-e, c.headroom)
		o.Verdict, o.Left, o.rank, weight = RaiseISO, e+lift, 1, c.wISO
		o.ISO = o.ISO.Raised(lift)
	default:
		o.Verdict, o.Left, o.rank = Dark, e+c.headroom, 2
		o.ISO = c.q.Ceiling
	}
	o.Cost = float64(off) * weight
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

// judgeRange answers a range of light: e is the error at the highest light, f at
// the lowest.
func (c *chooser) judgeRange(o *Option) {
	b, e, h := c.q.Offset, o.Error, c.headroom
	f := e - c.span
	over := max(0, e-b)  // too bright at the highest light
	under := max(0, b-f) // too dark at the lowest
	bare, beyond := c.q.Setting, stop.Stops(0)
	m := o.Mode
	*m = Mode{ISOLow: bare.ISO, ISOHigh: bare.ISO, Fastest: bare.Shutter, Slowest: bare.Shutter}
	isBrightEnough := stop.AtMost(e, b+c.q.Band.Bright)
	switch {
	case isBrightEnough && stop.AtMost(b-c.q.Band.Dark, f):
		m.Kind, m.Short = Lock, under
		o.Cost = math.Abs(float64((e+f)/2 - b))
	case isBrightEnough && stop.AtMost(b-c.q.Band.Dark-f, h):
		m.Kind, m.Short = FloatISO, max(0, under-h)
		o.Cost = c.wISO * float64(under)
		o.rank = 1
	default:
		m.Kind = FloatShutter
		m.Fastest, beyond = c.faster(over)
		m.Slowest = bare.Shutter.Times(max(0, under-h))
		if c.q.Rate > 0 {
			m.Slowest = min(c.q.Rate.Frame(), m.Slowest)
		}
		m.Short = max(0, under-h-m.Slowest.Over(bare.Shutter))
		o.Cost = c.wShutter*float64(over+max(0, under-h)) + c.wISO*float64(min(h, under))
		o.rank = 1
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
	o.Verdict, o.ISO, o.Shutter = m.Kind, m.ISOLow, m.Fastest
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

type sortKey struct {
	cost         float64 // in whole costSteps
	weightG      float64
	rank, layers int32
	order        int
}

func keyOf(o *Option, order int) sortKey {
	return sortKey{cost: math.Round(o.Cost / costStep), weightG: o.weightG, rank: int32(o.rank), layers: int32(len(o.Filters)), order: order}
}

func (k sortKey) compare(other sortKey) int {
	if k.rank != other.rank {
		return cmp.Compare(k.rank, other.rank)
	}
	if k.cost != other.cost {
		return cmp.Compare(k.cost, other.cost)
	}
	return cmp.Or(cmp.Compare(k.layers, other.layers), cmp.Compare(k.weightG, other.weightG), cmp.Compare(k.order, other.order))
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

// Beyond returns what stays beyond the accepted after ISO and one stop of shutter.
func (o *Option) Beyond(q *Question) stop.Stops {
	_, most := q.Dark()
	atLow := o.Error - q.Light.High.Above(q.Light.Low)
	return max(0, o.Error-q.Offset-q.Band.Bright-MostGiven, q.Offset-atLow-most-MostGiven)
}

// Dark returns by how much the picture stays darker than is accepted at the lowest light,
// after ISO and shutter have done what they can; 0 where it does not.
func (o *Option) Dark(q *Question) stop.Stops {
	if o.Mode != nil {
		return max(0, o.Mode.Short-q.Band.Dark)
	}
	return max(0, q.Offset-o.Left-q.Band.Dark)
}
