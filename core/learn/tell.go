package learn

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/light"
	"pinhole/core/stop"
)

// How surely something is known.
const (
	staleAYear     = 0.15 // stops that what was read long ago may have moved
	daysAYear      = 365.0
	correlateLeast = 0.5
	spreadLeast    = 0.1
)

// known is the log solved.
type known struct {
	*log
	swayed     *swayed
	further    [3]float64
	x          *mat.VecDense
	covariance *mat.SymDense
	stale      map[string]float64 // variance that age adds, by "filter n5"
	scale      map[string]float64 // by kind of what is foretold
}

// solved solves a log: first as assumed, then with how far things stray found from it.
func solved(r *Request) (*known, error) {
	l, err := newLog(r)
	if err != nil {
		return nil, err
	}
	k := &known{log: l, swayed: assumed(), further: [3]float64{1, 1, 1}, covariance: &mat.SymDense{}}
	first, err := l.settled(k.swayed, k.further)
	if err != nil {
		return nil, err
	}
	if first == nil {
		k.x = &mat.VecDense{}
	} else {
		sways, further := l.skySways(first), l.strays(first)
		k.swayed, k.further = sways, further
		last, err := l.settled(sways, further)
		if err != nil {
			return nil, err
		}
		k.x = last.x
		k.covariance = mat.NewSymDense(len(l.unknowns), nil)
		if err := last.factor.InverseTo(k.covariance); err != nil {
			return nil, fmt.Errorf("the log of %d records is nearly without a solution: %w", len(l.Exposures), err)
		}
	}
	k.stale = l.staleness()
	return k, nil
}

// sum returns the sum of some unknowns and its variance.
func (k *known) sum(terms []term) (v, variance float64) {
	for _, t := range terms {
		v += t.sign * k.x.AtVec(t.at)
		for _, o := range terms {
			variance += t.sign * o.sign * k.covariance.At(t.at, o.at)
		}
	}
	return v, variance
}

func (k *known) covary(a, b []term) float64 {
	sum := 0.0
	for _, t := range a {
		for _, o := range b {
			sum += t.sign * o.sign * k.covariance.At(t.at, o.at)
		}
	}
	return sum
}

// staleness returns what age adds to the variance of each filter and instrument: by the mean age
// of what was read of it since it became another.
func (l *log) staleness() map[string]float64 {
	ages := map[string][]float64{}
	add := func(what What, id string, at time.Time) {
		for _, r := range l.resets[what][id] {
			if l.unknowns[r].since.After(at) {
				return
			}
		}
		name := fmt.Sprintf("%s %s", what, id)
		ages[name] = append(ages[name], l.AsOf.Sub(at).Hours()/24/daysAYear)
	}
	for i := range l.Exposures {
		e := &l.Exposures[i]
		for _, id := range e.Glass {
			add(Filter, id, e.Time)
		}
		if e.By != "" {
			add(Instrument, e.By, e.Time)
		}
	}
	for i := range l.Filters {
		for _, b := range l.Filters[i].Benches {
			add(Filter, l.Filters[i].ID, l.benchedAt(&b))
		}
	}
	stale := map[string]float64{}
	for name, all := range ages {
		sum := 0.0
		for _, age := range all {
			sum += age
		}
		stale[name] = staleAYear * staleAYear * sum / float64(len(all))
	}
	return stale
}

func (k *known) staleOf(what What, id string) float64 { return k.stale[fmt.Sprintf("%s %s", what, id)] }

// records counts the readings by an instrument, or through a filter.
func (k *known) records(isIn func(e *Exposure) bool) int {
	n := 0
	for i := range k.Exposures {
		if isIn(&k.Exposures[i]) {
			n++
		}
	}
	return n
}

func (k *known) glass() []LearnedGlass {
	all := []LearnedGlass{}
	for i := range k.Filters {
		f := &k.Filters[i]
		v, variance := k.sum(k.termsOf(i, k.resets[Filter][f.ID], k.AsOf, 1))
		all = append(all, LearnedGlass{
			ID: f.ID, Stops: f.Stops + stop.Stops(v), Spread: stop.Stops(math.Sqrt(variance + k.staleOf(Filter, f.ID))),
			Records: k.records(func(e *Exposure) bool { return slices.Contains(e.Glass, f.ID) }), Benches: len(f.Benches),
		})
	}
	return all
}

func (k *known) readers() []LearnedReader {
	all := []LearnedReader{}
	for _, reader := range k.Instruments {
		v, variance := k.sum(k.instrumentTerms(reader.ID, k.AsOf))
		all = append(all, LearnedReader{
			ID: reader.ID, Offset: stop.Stops(v), Spread: stop.Stops(math.Sqrt(variance + k.staleOf(Instrument, reader.ID))),
			Records: k.records(func(e *Exposure) bool { return e.By == reader.ID }),
		})
	}
	return all
}

func (k *known) learnedPlaces() []LearnedPlace {
	all := []LearnedPlace{}
	for name, at := range k.places {
		p := LearnedPlace{Offset: stop.Stops(k.x.AtVec(at)), Spread: stop.Stops(math.Sqrt(k.covariance.At(at, at)))}
		for _, b := range k.blocks {
			if b.name == name {
				p.Place, p.Sky = b.place, b.sky
				p.Days++
			}
		}
		p.DaySpread = stop.Stops(math.Sqrt(k.covariance.At(at, at)+k.swayed.variance[p.Sky]) * k.scaleOf("light"))
		all = append(all, p)
	}
	slices.SortFunc(all, func(a, b LearnedPlace) int {
		return cmp.Or(strings.Compare(a.Place, b.Place), strings.Compare(string(a.Sky), string(b.Sky)))
	})
	return all
}

func (k *known) skies() []LearnedSky {
	var all []LearnedSky
	for _, sky := range light.Sky("").Values() {
		s := LearnedSky{Sky: sky, Spread: stop.Stops(math.Sqrt(placeSpread*placeSpread + k.swayed.variance[sky])), TauH: k.swayed.tauH[sky]}
		for _, b := range k.blocks {
			if !b.isScene && b.sky == sky {
				s.Days++
			}
		}
		all = append(all, s)
	}
	return all
}

// nearest returns the block of the reading of a light that is nearest in time, nil where none is
// within twelve hours. A scene has one light, whenever it was.
func (k *known) nearest(l *Light, at time.Time) *block {
	var best *block
	bestHours := blockGapH
	name := l.name()
	for _, b := range k.blocks {
		if b.name != name {
			continue
		}
		if b.isScene {
			return b
		}
		for i := range b.readings {
			if hours := math.Abs(at.Sub(b.readings[i].Time).Hours()); hours <= bestHours && (best == nil || hours < bestHours) {
				best, bestHours = b, hours
			}
		}
	}
	return best
}

// tell answers what is asked of a light.
func (k *known) tell(a *Ask) Told {
	asked := a.Light.level()
	day, dayVariance, terms, gain := k.dayAt(a)
	place, placeVariance := k.sumWith(terms, gain)
	told := Told{ID: a.ID, EV: stop.EV(asked + day + place), Spread: stop.Stops(math.Sqrt(dayVariance+placeVariance) * k.scaleOf("light"))}
	if a.By == "" {
		return told
	}
	printed, noise2 := k.printed(&a.Seeing)
	all := append(slices.Clone(terms), k.instrumentTerms(a.By, a.Time)...)
	variance := dayVariance + noise2 + a.noise2() + k.staleOf(Instrument, a.By)
	for _, id := range a.Glass {
		all = append(all, k.filterTerms(id, a.Time)...)
		variance += k.staleOf(Filter, id)
	}
	v, lasting := k.sumWith(all, gain)
	seen := stop.EV(asked + day + v - printed)
	told.Seen, told.SeenSpread = &seen, stopsOf(math.Sqrt(variance+lasting)*k.scaleOf("seen"))
	return told
}

// sumWith is the sum of some unknowns, and its variance together with what the day's light owes
// to the unknowns: gain is by how much it falls when one of them grows.
func (k *known) sumWith(terms []term, gain []term) (v, variance float64) {
	v, _ = k.sum(terms)
	_, variance = k.sum(append(slices.Clone(terms), gain...))
	return v, variance
}

// dayAt returns a day's light over its place's at an instant, its variance where the lasting
// unknowns are known, the place as unknown, and how the day's light hangs on all unknowns.
func (k *known) dayAt(a *Ask) (day, variance float64, place, gain []term) {
	isScene := a.Light.Scene != ""
	if at, ok := k.places[a.Light.name()]; ok {
		place = []term{{at, 1}}
	} else if !isScene {
		variance = square(placeSpread * k.further[strayPlace])
	}
	b := k.nearest(&a.Light, a.Time)
	if b == nil {
		if isScene {
			return 0, sceneSpread * sceneSpread, nil, nil
		}
		return 0, variance + k.swayed.variance[a.Light.sky()], place, nil
	}
	level, sway, tauH := k.swayed.of(b)
	level += b.widened
	at := a.Time.Sub(b.readings[0].Time).Hours()
	shared := make([]float64, len(b.readings))
	for i, h := range b.hours {
		shared[i] = level + sway*math.Exp(-math.Abs(at-h)/tauH)
	}
	d := b.drift(k.swayed, b.widened)
	white := d.whitened(make([]float64, len(shared)), shared)
	day = dot(white, d.whitened(make([]float64, len(shared)), b.left(k.x, nil)))
	variance += b.ageing * (level + sway - dot(white, white))
	for i, row := range b.rows {
		gain = append(gain, term{b.columns[i], -dot(white, d.whitened(make([]float64, len(row)), row))})
	}
	return day, variance, place, gain
}

func (k *known) scaleOf(kind string) float64 {
	if s, ok := k.scale[kind]; ok {
		return s
	}
	return 1
}

// unresolved lists the unknowns that were always seen together.
func (k *known) unresolved() []Unresolved {
	type thing struct {
		name  string
		kind  stray
		at    int
		terms []term
	}
	pairs := map[[2]int]bool{}
	things := map[int]thing{}
	for i := range k.Exposures {
		e := &k.Exposures[i]
		var here []int
		add := func(t thing) {
			things[t.at] = t
			here = append(here, t.at)
		}
		for _, id := range e.Glass {
			at := k.filters[id]
			add(thing{"filter " + id, strayFilter, at, k.termsOf(at, k.resets[Filter][id], k.AsOf, 1)})
		}
		if e.By != "" {
			add(thing{"instrument " + e.By, strayInstrument, len(k.Filters) + k.instruments[e.By], k.instrumentTerms(e.By, k.AsOf)})
		}
		if at, ok := k.places[e.Light.name()]; ok {
			add(thing{e.Light.name(), strayPlace, at, []term{{at, 1}}})
		}
		for _, a := range here {
			for _, b := range here {
				if a < b {
					pairs[[2]int{a, b}] = true
				}
			}
		}
	}
	all := []Unresolved{}
	for pair := range pairs {
		a, b := things[pair[0]], things[pair[1]]
		_, va := k.sum(a.terms)
		_, vb := k.sum(b.terms)
		c := k.covary(a.terms, b.terms)
		r := c / math.Sqrt(va*vb)
		if math.Abs(r) < correlateLeast || min(va, vb) < spreadLeast*spreadLeast {
			continue
		}
		need := NeedBare
		switch {
		case a.kind == strayFilter && b.kind == strayFilter:
			need = NeedAlone
		case a.kind != strayFilter && b.kind != strayFilter:
			need = NeedElsewhere
		}
		all = append(all, Unresolved{a.name, b.name, r, stop.Stops(math.Sqrt(max(va+vb-2*math.Abs(c), 0))), need})
	}
	slices.SortFunc(all, func(a, b Unresolved) int {
		return cmp.Or(strings.Compare(a.A, b.A), strings.Compare(a.B, b.B))
	})
	return all
}
