package practice

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"pinhole/core/assemble"
	"pinhole/core/day"
	"pinhole/core/problem"
)

// Kind is what a question is about.
type Kind string

// The kinds of question.
const (
	Count      Kind = "count"       // stops down the halving ladder
	Direction  Kind = "direction"   // which way it gets brighter
	Labels     Kind = "labels"      // factor, stops, density; two rings stacked
	Target     Kind = "target"      // the shutter of a frame rate, an angle and a delivery
	Filter     Kind = "filter"      // from a reading
	Sky        Kind = "sky"         // the filter under a sky that is drawn
	Fault      Kind = "fault"       // what is wrong with a loop
	WithFilter Kind = "with-filter" // which of two loops had a filter
	GivesWay   Kind = "gives-way"   // shutter target, stabiliser limit or exposure
	Swap       Kind = "swap"        // its latest minute
	Hold       Kind = "hold"        // the margin of a mount, and what to do
	Order      Kind = "order"       // of the steps before a take
	Lost       Kind = "lost"        // what to do first when a filter is lost
	Polariser  Kind = "polariser"   // what it does where
	Range      Kind = "range"       // of light: lock, ISO band or floating shutter
)

// Values returns every Kind there is.
func (Kind) Values() []Kind {
	return []Kind{Count, Direction, Labels, Target, Filter, Sky, Fault, WithFilter, GivesWay, Swap, Hold, Order, Lost, Polariser, Range}
}

// Form is how a question is answered.
type Form string

// The forms.
const (
	Choose  Form = "choose"   // one of the choices
	PutInto Form = "put-into" // all of them, in their order
)

// Values returns every Form there is.
func (Form) Values() []Form { return []Form{Choose, PutInto} }

// Grades are how hard questions are, from 1.
const Grades = 3

// Request asks for a question.
type Request struct {
	Kind  Kind `json:"kind"`
	Grade int  `json:"grade" minimum:"1" maximum:"3" doc:"how hard, from 1"`
	Seed  int  `json:"seed" minimum:"0" maximum:"4294967295" doc:"the same seed asks the same"`
	// Held is the person's own camera.
	Held   *assemble.Held    `json:"held,omitempty" doc:"an own camera with its filters, asked about where the kind lets it"`
	Titles map[string]string `json:"titles,omitempty" doc:"what its filters are called, by id"`
}

// Question is what is asked.
type Question struct {
	Kind    Kind     `json:"kind"`
	Grade   int      `json:"grade"`
	Asks    string   `json:"asks"`
	Given   []string `json:"given" doc:"what is known, a line each"`
	Form    Form     `json:"form"`
	Choices []string `json:"choices"`
	// Loops are drawn, unnamed: what they show is the answer.
	Loops []Drawn `json:"loops,omitempty" doc:"to be looked at; two are told apart as A and B"`
	// Day is drawn as its curve.
	Day *day.OutingRequest `json:"day,omitempty" doc:"to be looked at, without its swaps"`
	// Caution is said with the question where the work can hurt somebody.
	Caution string `json:"caution,omitempty"`
}

// Drawn is a loop, as the computation loop draws it.
type Drawn struct {
	Shot assemble.ShotRequest `json:"shot"`
	Show string               `json:"show" enum:"taken,automatic"`
}

// Given is an answer to a question.
type Given struct {
	Request
	Answer []int `json:"answer" maxItems:"12" minimum:"0" maximum:"11" doc:"the index of the choice; of a question of order all indices, in order"`
}

// Marked is how an answer was.
type Marked struct {
	IsRight bool  `json:"right"`
	Answer  []int `json:"answer" doc:"the right one, as it is given"`
	// Off is how far the choice is from the right one.
	Off     *float64 `json:"off,omitempty" doc:"of the choice that was made, positive for more or later, in the unit"`
	Unit    string   `json:"unit,omitempty" enum:"stops,minutes"`
	Margin  float64  `json:"margin,omitempty" doc:"how far every other choice is from the right one, at the least, in the unit"`
	Working []string `json:"working" doc:"how it comes about, a line each"`
	// Ladder is the row of shutters that was counted along, each half of the one before.
	Ladder []string `json:"ladder,omitempty"`
	// Shot is what the question was about, to be shown as any shot is.
	Shot *assemble.ShotRequest `json:"shot,omitempty"`
}

// made is a question with its answer.
type made struct {
	Question
	answer  []int
	offs    []float64 // of the choices
	unit    string
	margin  float64
	working []string
	ladder  []string
	// shot is what the product is asked, where the question is one of a shot.
	shot *assemble.ShotRequest
}

// draw draws what a question is about.
type draw struct {
	*rand.Rand
	Request
	// aim is which of the answers is to be right. It is drawn once, and kept until a question is
	// found that has it: so each is as often right, however rare its questions are.
	aim int
	// of is how many answers a scale offers.
	of int
}

// aims is a number that divides evenly by as many answers as there are.
const aims = 2 * 2 * 3 * 5 * 7

// mostDraws is after how many draws a kind is taken to be unable to ask: a fault of the kind, which
// the tests would show.
const mostDraws = 20000

// mostOwn is after how many draws a person's own gear is one that a kind has no question about.
const mostOwn = 400

var makers = map[Kind]func(*draw) (*made, bool){
	Count: count, Direction: direction, Labels: labels, Target: target, Filter: filter, Sky: sky, Fault: fault, WithFilter: withFilter,
	GivesWay: givesWay, Swap: swap, Hold: hold, Order: order, Lost: lost, Polariser: polariser, Range: lightRange,
}

// make draws until the kind has a question.
func (r Request) make() (*made, error) {
	kind := slices.Index(r.Kind.Values(), r.Kind)
	d := &draw{Rand: rand.New(rand.NewPCG(uint64(r.Seed), uint64(kind)<<8|uint64(r.Grade))), Request: r}
	d.aim = d.IntN(aims)
	for try := range mostDraws {
		d.of = offered
		if try == mostOwn {
			d.Held = nil
		}
		if m, ok := makers[r.Kind](d); ok {
			m.Kind, m.Grade = r.Kind, r.Grade
			if m.Given == nil {
				m.Given = []string{}
			}
			if m.Form == "" {
				m.Form = Choose
			}
			return m, nil
		}
	}
	return nil, fmt.Errorf("practice: no question of the kind %s, grade %d, seed %d", r.Kind, r.Grade, r.Seed)
}

// Ask answers question.
func Ask(r Request) (*Question, error) {
	m, err := r.make()
	if err != nil {
		return nil, err
	}
	return &m.Question, nil
}

// Mark answers marked.
func Mark(g Given) (*Marked, error) {
	m, err := g.Request.make()
	if err != nil {
		return nil, err
	}
	if len(g.Answer) != len(m.answer) {
		return nil, &problem.Fault{Field: "answer", Value: g.Answer, Allowed: fmt.Sprintf("%d of the choices", len(m.answer))}
	}
	for i, at := range g.Answer {
		if at >= len(m.Choices) || slices.Contains(g.Answer[:i], at) {
			return nil, &problem.Fault{Field: fmt.Sprintf("answer[%d]", i), Value: at, Allowed: "the index of a choice, each once"}
		}
	}
	out := &Marked{IsRight: slices.Equal(g.Answer, m.answer), Answer: m.answer, Unit: m.unit, Margin: m.margin, Working: m.working, Ladder: m.ladder, Shot: m.shot}
	if m.offs != nil {
		out.Off = &m.offs[g.Answer[0]]
	}
	return out, nil
}

// oneOf draws one of some things, each as likely.
func oneOf[T any](d *draw, of ...T) T { return of[d.IntN(len(of))] }

// aimed returns the one that is to be right.
func aimed[T any](d *draw, of ...T) T { return of[d.aim%len(of)] }

// between draws a whole number from low to high, both included.
func (d *draw) between(low, high int) int { return low + d.IntN(high-low+1) }

// graded returns the value for the question's grade.
func graded[T any](d *draw, of ...T) T { return of[d.Grade-1] }

// offered is how many answers a scale offers; of an own kit that has no more, fewer.
const (
	offered      = 4
	offeredLeast = 3
)

// among offers the right answer among wrong ones, in an order that is drawn.
func (m *made) among(d *draw, right string, wrong ...string) {
	all := append([]string{right}, wrong...)
	m.answer = []int{0}
	for i, at := range d.Perm(len(all)) {
		m.Choices = append(m.Choices, all[at])
		if at == 0 {
			m.answer[0] = i
		}
	}
}

// place is where the right answer stands on a scale of the answers that are offered.
func (d *draw) place() int { return d.aim % d.of }

// onScale offers the right answer in its place among others on a scale, each a step from the next.
// text says what is so many steps from the right one, and off by how much that is wrong, in the
// unit.
func (m *made) onScale(d *draw, text func(steps int) string, off func(steps int) float64) {
	below := d.place()
	for k := range d.of {
		steps := k - below
		m.Choices = append(m.Choices, text(steps))
		m.offs = append(m.offs, off(steps))
	}
	m.answer = []int{below}
}

// ofSet offers a whole set, always in the same order.
func (m *made) ofSet(right string, set ...string) {
	m.Choices, m.answer = set, []int{slices.Index(set, right)}
}
