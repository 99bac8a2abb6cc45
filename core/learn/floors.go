package learn

import (
	"fmt"
	"math"
	"slices"
	"time"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// How a floor strays from the computed one, and how grades speak of it, stops.
const (
	modeSpread     = 0.5
	personSpread   = 0.8
	activitySpread = 0.3
	floorReset     = 0.5
	gradeSlope     = 0.3
	usableStops    = 0.5 // between the slowest that is good and the slowest that is usable
	unlikely       = 0.05
	standing       = "stand"
	newtonRounds   = 100
	newtonEnough   = 1e-12
)

// BandErrors is how many standard deviations the shown band reaches to either side: it holds 90 %.
const BandErrors = 1.645

// likely is 1/(1 + e^−z).
func likely(z float64) float64 { return 1 / (1 + math.Exp(-z)) }

// hasFloor reports whether a trial or a floor is of a camera, or of a camera in a mode.
func (l *log) hasFloor(id string) bool {
	isOf := func(m *Mover) bool { return m.isOf(id) }
	return slices.ContainsFunc(l.Trials, func(t Trial) bool { return isOf(&t.Mover) }) ||
		slices.ContainsFunc(l.Floors, func(f FloorAsk) bool { return isOf(&f.Mover) })
}

func (m *Mover) isOf(id string) bool { return id == m.Camera || id == m.Camera+" "+m.Mode }

// hasNoFloor reports whether nothing shakes, or nothing is stabilised.
func (m *Mover) hasNoFloor() bool { return m.Computed == nil || m.Activity == standing }

// floors are the unknowns of all stabilisers.
type floors struct {
	*log
	at     map[string]int
	spread []float64
	resets []Reset
	x      *mat.VecDense
	cov    *mat.SymDense
}

func (f *floors) unknown(name string, spread float64) int {
	at, ok := f.at[name]
	if !ok {
		at = len(f.spread)
		f.at[name] = at
		f.spread = append(f.spread, spread)
	}
	return at
}

// termsOf returns what moves a floor off the computed one at an instant.
func (f *floors) termsOf(m *Mover, at time.Time) []term {
	all := []term{{f.unknown("mode "+m.Camera+"\n"+m.Mode, modeSpread), 1}}
	if !m.IsMeasured {
		all = append(all,
			term{f.unknown("person "+m.Person, personSpread), -1},
			term{f.unknown("activity "+m.Person+"\n"+m.Activity, activitySpread), -1})
	}
	for i, r := range f.resets {
		if m.isOf(r.ID) && !r.Time.After(at) {
			all = append(all, term{f.unknown(fmt.Sprintf("reset %d", i), floorReset), 1})
		}
	}
	return all
}

// vote is a trial as it counts.
type vote struct {
	*Trial
	terms  []term
	off    float64 // log2(t/computed)
	weight float64
}

// voteOf returns a trial as it counts, nil where it does not.
func (f *floors) voteOf(t *Trial) *vote {
	if t.hasNoFloor() {
		return nil
	}
	weight := 1 / aged(f.AsOf, t.Time)
	if t.Grade == Bad {
		switch t.Why {
		case Noise, Other:
			return nil
		case Unsaid:
			if t.ISO > 0 && t.Ceiling > 0 {
				weight *= min(max(math.Log2(t.Ceiling/t.ISO), 0), 1)
			}
		}
	}
	if weight == 0 {
		return nil
	}
	return &vote{t, f.termsOf(&t.Mover, t.Time), math.Log2(float64(t.Shutter / *t.Computed)), weight}
}

// says returns how likely a grade is so many stops above the floor, and the first and second
// derivative of its logarithm there.
func (g Grade) says(x float64) (p, slope, bend float64) {
	const s = gradeSlope
	bad, good := likely(x/s), likely(-(x+usableStops)/s)
	switch g {
	case Bad:
		return bad, (1 - bad) / s, -bad * (1 - bad) / (s * s)
	case Good:
		return good, -(1 - good) / s, -good * (1 - good) / (s * s)
	default:
		// ln(F(u) − F(v)) has the derivative 1 − F(u) − F(v) by both.
		u, v := 1-good, bad
		return u - v, (1 - u - v) / s, -(u*(1-u) + v*(1-v)) / (s * s)
	}
}

// solvedFloors finds the one maximum of what the trials make likely, by Newton's steps.
func (l *log) solvedFloors() (*floors, []*vote, error) {
	f := &floors{log: l, at: map[string]int{}}
	for _, r := range l.Resets {
		if r.Kind == Floor {
			f.resets = append(f.resets, r)
		}
	}
	var votes []*vote
	seen := map[string]bool{}
	for i := range l.Trials {
		t := &l.Trials[i]
		at := fmt.Sprintf("trials[%d]", i)
		if seen[t.ID] {
			return nil, nil, &problem.Fault{Field: at + ".id", Value: t.ID, Allowed: "each test once"}
		}
		seen[t.ID] = true
		if t.Time.After(l.AsOf) {
			return nil, nil, late(at+".time", t.Time)
		}
		if v := f.voteOf(t); v != nil {
			votes = append(votes, v)
		}
	}
	for i := range l.Floors {
		if m := &l.Floors[i].Mover; !m.hasNoFloor() {
			f.termsOf(m, l.AsOf)
		}
	}
	return f, votes, f.climb(votes)
}

func (f *floors) climb(votes []*vote) error {
	n := len(f.spread)
	if n == 0 {
		return nil
	}
	f.x, f.cov = mat.NewVecDense(n, nil), mat.NewSymDense(n, nil)
	var factor mat.Cholesky
	for range newtonRounds {
		slope, bend := mat.NewVecDense(n, nil), mat.NewSymDense(n, nil)
		for i, spread := range f.spread {
			slope.SetVec(i, -f.x.AtVec(i)/(spread*spread))
			bend.SetSym(i, i, 1/(spread*spread))
		}
		for _, v := range votes {
			_, first, second := v.Grade.says(v.off - f.shift(v.terms))
			for _, a := range v.terms {
				slope.SetVec(a.at, slope.AtVec(a.at)-v.weight*first*a.sign)
				for _, b := range v.terms {
					if b.at >= a.at {
						bend.SetSym(a.at, b.at, bend.At(a.at, b.at)-v.weight*second*a.sign*b.sign)
					}
				}
			}
		}
		if !factor.Factorize(bend) {
			return fmt.Errorf("%d tests have no solution", len(votes))
		}
		var step mat.VecDense
		if err := factor.SolveVecTo(&step, slope); err != nil {
			return fmt.Errorf("%d tests are nearly without a solution: %w", len(votes), err)
		}
		if size := mat.Norm(&step, 2); size > 1 { // far off, the curve is no parabola
			step.ScaleVec(1/size, &step)
		}
		f.x.AddVec(f.x, &step)
		if mat.Norm(&step, 2) < newtonEnough {
			break
		}
	}
	return factor.InverseTo(f.cov)
}

func (f *floors) shift(terms []term) float64 {
	sum := 0.0
	for _, t := range terms {
		sum += t.sign * f.x.AtVec(t.at)
	}
	return sum
}

// learnedFloors answers what is asked of stabilisers.
func (k *known) learnedFloors() ([]LearnedFloor, []Doubtful, error) {
	f, votes, err := k.solvedFloors()
	if err != nil {
		return nil, nil, err
	}
	all, doubts := []LearnedFloor{}, []Doubtful{}
	for _, v := range votes {
		if p, _, _ := v.Grade.says(v.off - f.shift(v.terms)); p < unlikely {
			doubts = append(doubts, Doubtful{Kind: DoubtTrial, ID: v.ID, Weight: &p})
		}
	}
	for i := range k.Floors {
		a := &k.Floors[i]
		told := LearnedFloor{ID: a.ID}
		if a.hasNoFloor() {
			all = append(all, told)
			continue
		}
		for i := range k.Trials {
			if t := &k.Trials[i]; t.Camera == a.Camera && t.Mode == a.Mode && t.Person == a.Person && t.Activity == a.Activity {
				told.Trials++
			}
		}
		terms := f.termsOf(&a.Mover, k.AsOf)
		shift, variance := f.shift(terms), 0.0
		for _, t := range terms {
			for _, o := range terms {
				variance += t.sign * o.sign * f.cov.At(t.at, o.at)
			}
		}
		spread := math.Sqrt(variance) * k.scaleOf("floor")
		by := func(stops float64) *stop.Shutter {
			s := *a.Computed * stop.Shutter(math.Exp2(stops))
			return &s
		}
		told.Floor, told.Shift, told.Spread = by(shift), stopsOf(shift), stopsOf(spread)
		told.Low, told.High = by(shift-BandErrors*spread), by(shift+BandErrors*spread)
		all = append(all, told)
	}
	return all, doubts, nil
}
