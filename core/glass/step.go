package glass

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Saw is what a look at the picture said.
type Saw string

// The three answers of an eye.
const (
	TooDark   Saw = "dark"
	JustRight Saw = "right"
	TooBright Saw = "bright"
)

// Values returns every Saw there is.
func (Saw) Values() []Saw {
	return []Saw{TooDark, JustRight, TooBright}
}

// Look is one look at a locked setting.
type Look struct {
	// Stops is the glass that was on, mounted glass included.
	Stops stop.Stops
	// EVSet is what the setting needed.
	EVSet stop.EV
	Saw   Saw
}

// Interval is where the light of the scene lies, after some looks.
type Interval struct{ Low, High stop.EV }

// Where a search starts unless something is known: in all light, from moonlit ground to
// sun on snow; outdoors by day; indoors; at night.
var (
	EveryLight  = Interval{Low: 0, High: 17}
	DayOutdoors = Interval{Low: 11, High: 16}
	Indoors     = Interval{Low: 4, High: 9}
	AtNight     = Interval{Low: 0, High: 6}
)

// Middle returns the light halfway between the ends.
func (i Interval) Middle() stop.EV { return (i.Low + i.High) / 2 }

// Width returns the distance between the ends.
func (i Interval) Width() stop.Stops { return i.High.Above(i.Low) }

// Step is the answer of the way without a meter.
type Step struct {
	Light Interval
	// Settled is true when more looks would not help: Next is then what to fly,
	// and before that what to put on and look at.
	Settled bool
	Next    Option
}

// NextLook narrows the light down by the looks so far and names the glass to put
// on next. The question's own light is not used; Next is weighed for the middle
// of the interval, which starts as from. stacks is not empty.
//
// Looks that contradict each other are refused with a *problem.Fault that names
// the first look no light can explain.
func NextLook(q *Question, stacks []Stack, from Interval, looks []Look) (Step, error) {
	light := from
	isSettled := false
	for i, look := range looks {
		light = light.narrowedBy(look, q)
		if !stop.AtMost(light.Low, light.High) {
			return Step{}, &problem.Fault{Field: fmt.Sprintf("looks[%d].saw", i), Value: look.Saw, Allowed: fmt.Sprintf(
				"a look that agrees with the ones before it: no light is below %v and above %v at once; the light may have changed, so start again", light.High, light.Low)}
		}
		isSettled = isSettled || look.Saw == JustRight
	}
	isSettled = isSettled || stop.AtMost(light.Width(), q.Band.Dark+q.Band.Bright)

	there := *q
	there.Light = Light{Low: light.Middle(), High: light.Middle(), Spread: light.Width() / 2}
	options := make([]candidate, len(stacks))
	for i := range stacks {
		options[i] = newCandidate(&there, &stacks[i], i)
	}
	slices.SortFunc(options, candidate.compare)
	if !isSettled {
		worth := slices.IndexFunc(options, func(c candidate) bool { return c.accepts.overlaps(light) })
		if worth >= 0 {
			return Step{Light: light, Next: options[worth].Option}, nil
		}
	}
	return Step{Light: light, Settled: true, Next: options[0].Option}, nil
}

// accepted returns the light in which glass of s stops at a setting of evSet is
// right: from EVset + S + b − dark to EVset + S + b + bright.
func (q *Question) accepted(evSet stop.EV, s stop.Stops) Interval {
	aim := evSet.Plus(s + q.Offset)
	return Interval{Low: aim.Plus(-q.Band.Dark), High: aim.Plus(q.Band.Bright)}
}

func (i Interval) narrowedBy(look Look, q *Question) Interval {
	right := q.accepted(look.EVSet, look.Stops)
	switch look.Saw {
	case TooBright:
		i.Low = max(i.Low, right.High)
	case TooDark:
		i.High = min(i.High, right.Low)
	default:
		i.Low, i.High = max(i.Low, right.Low), min(i.High, right.High)
	}
	return i
}

// overlaps reports whether the intervals share more than an end point.
func (i Interval) overlaps(other Interval) bool {
	return !stop.AtMost(min(i.High, other.High), max(i.Low, other.Low))
}

// distance returns how far ev lies outside the interval, 0 inside.
func (i Interval) distance(ev stop.EV) float64 {
	return float64(max(0, i.Low-ev, ev-i.High))
}

// candidate is a stack worth looking through.
type candidate struct {
	Option
	accepts         Interval
	order           int
	miss, offCentre float64 // from the middle of the light to accepts, and to its centre
}

func newCandidate(q *Question, s *Stack, order int) candidate {
	c := candidate{Option: Weigh(q, s), order: order}
	c.accepts = q.accepted(q.Setting.EV(), c.Stops)
	middle := q.Light.High
	c.miss = c.accepts.distance(middle)
	c.offCentre = math.Abs(float64(c.accepts.Middle() - middle))
	return c
}

func (c candidate) compare(other candidate) int {
	tied := func(a, b float64) int { return cmp.Compare(math.Round(a/costStep), math.Round(b/costStep)) }
	return cmp.Or(
		tied(c.miss, other.miss),
		cmp.Compare(len(c.Filters), len(other.Filters)),
		tied(c.offCentre, other.offCentre),
		cmp.Compare(c.weightG, other.weightG),
		cmp.Compare(c.order, other.order),
	)
}
