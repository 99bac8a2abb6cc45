package learn

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// How far things stray before anything is known of them, stops.
const (
	instrumentSpread = 0.3
	placeSpread      = 0.2
	turnSpread       = 0.3 // of each use of glass that is turned
	sceneLevel       = 8.5
	sceneSpread      = 5.0
	dayTauH          = 6.0
	blockGapH        = 12.0
	benchLeast       = 0.03
	filterReset      = 0.25
	instrumentReset  = 0.3
)

var glassSpread = map[glass.Kind]float64{
	glass.ND: 0.25, glass.Graduated: 0.25, glass.Clear: 0.1, glass.Mist: 0.1, glass.Night: 0.3,
	glass.Polariser: 0.25, glass.NDPolariser: 0.35, glass.Variable: 0.4,
}

var kindNoise = map[Kind]float64{ByMeter: 0.15, ByAuto: 0.2, ByBias: 0.2, ByFrame: 0.1, ByEye: 0.5}

// isTurned reports whether glass lets through what it is turned to.
func isTurned(k glass.Kind) bool {
	return k == glass.Polariser || k == glass.NDPolariser || k == glass.Variable
}

// stray is the kind of an unknown, by which it is found how far its like stray.
type stray int

const (
	strayFilter stray = iota
	strayInstrument
	strayPlace
	strayReset // never scaled
)

// unknown is one thing that lasts.
type unknown struct {
	kind   stray
	spread float64
	since  time.Time // of a reset
}

// term is an unknown with its sign in a reading.
type term struct {
	at   int
	sign float64
}

// reading is an exposure as the model has it: above is what was seen over the forecast, the
// printed stops added.
type reading struct {
	*Exposure
	index  int
	terms  []term
	above  float64
	noise2 float64
	weight float64
}

// block is readings of one light that are near in time.
type block struct {
	name     string // of its place and sky, or its scene
	isScene  bool
	place    string
	sky      light.Sky
	readings []reading
	hours    []float64
	columns  []int   // the unknowns that are in it
	widened  float64 // κ
	ageing   float64 // a
	rows     [][]float64
}

// log is a request as the model has it.
type log struct {
	*Request
	filters     map[string]int // places in the request
	instruments map[string]int
	unknowns    []unknown
	places      map[string]int // unknowns
	resets      map[What]map[string][]int
	blocks      []*block
}

// newLog reads a request. Its faults name what is unknown, twice there or later than asOf.
func newLog(r *Request) (*log, error) {
	l := &log{
		Request: r, filters: map[string]int{}, instruments: map[string]int{}, places: map[string]int{},
		resets: map[What]map[string][]int{Filter: {}, Instrument: {}},
	}
	for i := range r.Filters {
		f := &r.Filters[i]
		at := fmt.Sprintf("filters[%d]", i)
		if _, twice := l.filters[f.ID]; twice {
			return nil, &problem.Fault{Field: at + ".id", Value: f.ID, Allowed: "each filter once"}
		}
		for k, b := range f.Benches {
			if b.Time != nil && b.Time.After(r.AsOf) {
				return nil, late(fmt.Sprintf("%s.benches[%d].time", at, k), *b.Time)
			}
		}
		l.filters[f.ID] = i
		spread := glassSpread[f.Kind]
		if f.Spread != nil {
			spread = float64(*f.Spread)
		}
		l.unknowns = append(l.unknowns, unknown{kind: strayFilter, spread: spread})
	}
	for i, reader := range r.Instruments {
		if _, twice := l.instruments[reader.ID]; twice {
			return nil, &problem.Fault{Field: fmt.Sprintf("instruments[%d].id", i), Value: reader.ID, Allowed: "each instrument once"}
		}
		l.instruments[reader.ID] = i
		spread := instrumentSpread
		if reader.Spread != nil {
			spread = float64(*reader.Spread)
		}
		l.unknowns = append(l.unknowns, unknown{kind: strayInstrument, spread: spread})
	}
	if err := l.addResets(); err != nil {
		return nil, err
	}
	return l, l.addReadings()
}

func late(field string, at time.Time) error {
	return &problem.Fault{Field: field, Value: at.Format(time.RFC3339), Allowed: "not after asOf"}
}

func unheard(field, id, what string) error {
	return &problem.Fault{Field: field, Value: id, Allowed: "the id of " + what + " of this request"}
}

func (l *log) addResets() error {
	for i, r := range l.Resets {
		at := fmt.Sprintf("resets[%d]", i)
		if r.Time.After(l.AsOf) {
			return late(at+".time", r.Time)
		}
		spread := filterReset
		switch r.Kind {
		case Filter:
			if _, ok := l.filters[r.ID]; !ok {
				return unheard(at+".id", r.ID, "a filter")
			}
		case Instrument:
			spread = instrumentReset
			if _, ok := l.instruments[r.ID]; !ok {
				return unheard(at+".id", r.ID, "an instrument")
			}
		default:
			if !l.hasFloor(r.ID) {
				return unheard(at+".id", r.ID, "the camera, or camera and mode, of a shutter test or a stabiliser limit")
			}
			continue
		}
		l.resets[r.Kind][r.ID] = append(l.resets[r.Kind][r.ID], len(l.unknowns))
		l.unknowns = append(l.unknowns, unknown{kind: strayReset, spread: spread, since: r.Time})
	}
	return nil
}

// filterTerms returns what a filter adds to a reading at an instant.
func (l *log) filterTerms(id string, at time.Time) []term {
	return l.termsOf(l.filters[id], l.resets[Filter][id], at, -1)
}

// instrumentTerms returns what an instrument adds.
func (l *log) instrumentTerms(id string, at time.Time) []term {
	return l.termsOf(len(l.Filters)+l.instruments[id], l.resets[Instrument][id], at, 1)
}

func (l *log) termsOf(first int, resets []int, at time.Time, sign float64) []term {
	all := []term{{first, sign}}
	for _, r := range resets {
		if !l.unknowns[r].since.After(at) {
			all = append(all, term{r, sign})
		}
	}
	return all
}

// check finds what is wrong with a seeing.
func (l *log) check(s *Seeing, at string) error {
	if s.By != "" {
		if _, ok := l.instruments[s.By]; !ok {
			return unheard(at+".by", s.By, "an instrument")
		}
	}
	for i, id := range s.Glass {
		if _, ok := l.filters[id]; !ok {
			return unheard(fmt.Sprintf("%s.glass[%d]", at, i), id, "a filter")
		}
	}
	for id := range s.Settings {
		if !slices.Contains(s.Glass, id) {
			return &problem.Fault{Field: at + ".settings", Value: id, Allowed: "of filters that are on"}
		}
	}
	isPlace := s.Light.Place != "" && s.Light.Sky != "" && s.Light.EV != nil
	isScene := s.Light.Scene != ""
	if isPlace == isScene || isScene && (s.Light.Place != "" || s.Light.Sky != "" || s.Light.EV != nil) {
		return &problem.Fault{Field: at + ".light", Allowed: "a place, its sky and ev100; or a scene"}
	}
	return nil
}

// printed returns the stops of the glass by what is written on it, and the noise that turned
// glass adds.
func (l *log) printed(s *Seeing) (stops, noise2 float64) {
	for _, id := range s.Glass {
		f := &l.Filters[l.filters[id]]
		v := float64(f.Stops)
		if set, ok := s.Settings[id]; ok {
			v = float64(set)
		}
		stops += v
		if isTurned(f.Kind) {
			noise2 += turnSpread * turnSpread
		}
	}
	return stops, noise2
}

// noise2 returns the variance of one reading by its kind.
func (s *Seeing) noise2() float64 {
	kind := s.Kind
	if kind == "" {
		kind = ByAuto
	}
	return kindNoise[kind] * kindNoise[kind]
}

// level is what is assumed of a light before it is read.
func (l *Light) level() float64 {
	if l.Scene != "" {
		return sceneLevel
	}
	return float64(*l.EV)
}

// name is that of a place under a sky, or of a scene.
func (l *Light) name() string {
	if l.Scene != "" {
		return "scene " + l.Scene
	}
	return placeName(l.Place, l.sky())
}

func placeName(place string, sky light.Sky) string { return fmt.Sprintf("place %s %s", place, sky) }

func (l *log) addReadings() error {
	seen := map[string]bool{}
	byLight := map[string][]reading{}
	var names []string
	for i := range l.Exposures {
		e := &l.Exposures[i]
		at := fmt.Sprintf("exposures[%d]", i)
		if seen[e.ID] {
			return &problem.Fault{Field: at + ".id", Value: e.ID, Allowed: "each record once"}
		}
		seen[e.ID] = true
		if e.Time.After(l.AsOf) {
			return late(at+".time", e.Time)
		}
		if err := l.check(&e.Seeing, at); err != nil {
			return err
		}
		name := e.Light.name()
		if _, ok := byLight[name]; !ok {
			names = append(names, name)
		}
		printed, turned := l.printed(&e.Seeing)
		r := reading{Exposure: e, index: i, above: float64(e.Seen) - e.Light.level() + printed, noise2: e.noise2() + turned, weight: 1}
		if e.Spread != nil {
			r.noise2 = float64(*e.Spread**e.Spread) + turned
		}
		byLight[name] = append(byLight[name], r)
	}
	slices.Sort(names)
	for _, name := range names {
		l.addBlocks(name, byLight[name])
	}
	slices.SortStableFunc(l.blocks, func(a, b *block) int { return a.readings[0].Time.Compare(b.readings[0].Time) })
	return nil
}

// addBlocks parts the readings of one light where twelve hours lie between.
func (l *log) addBlocks(name string, all []reading) {
	slices.SortStableFunc(all, func(a, b reading) int {
		return cmp.Or(a.Time.Compare(b.Time), cmp.Compare(a.index, b.index))
	})
	first := &all[0].Light
	if first.Scene == "" {
		if _, ok := l.places[name]; !ok {
			l.places[name] = len(l.unknowns)
			l.unknowns = append(l.unknowns, unknown{kind: strayPlace, spread: placeSpread})
		}
	}
	from := 0
	for i := 1; i <= len(all); i++ {
		if i < len(all) && (first.Scene != "" || all[i].Time.Sub(all[i-1].Time).Hours() <= blockGapH) {
			continue
		}
		b := &block{name: name, isScene: first.Scene != "", place: first.Place, sky: first.sky(), readings: all[from:i], ageing: 1}
		last := b.readings[len(b.readings)-1].Time
		for k := range b.readings {
			r := &b.readings[k]
			b.hours = append(b.hours, r.Time.Sub(b.readings[0].Time).Hours())
			r.terms = l.termsAt(&r.Seeing, r.Time)
		}
		b.ageing = aged(l.AsOf, last)
		b.fillRows()
		l.blocks = append(l.blocks, b)
		from = i
	}
}

// termsAt returns the unknowns that are in what is seen.
func (l *log) termsAt(s *Seeing, at time.Time) []term {
	var all []term
	for _, id := range s.Glass {
		all = append(all, l.filterTerms(id, at)...)
	}
	if s.By != "" {
		all = append(all, l.instrumentTerms(s.By, at)...)
	}
	if place, ok := l.places[s.Light.name()]; ok {
		all = append(all, term{place, 1})
	}
	return all
}

// fillRows writes the terms of the readings by unknown.
func (b *block) fillRows() {
	where := map[int]int{}
	for k := range b.readings {
		for _, t := range b.readings[k].terms {
			at, ok := where[t.at]
			if !ok {
				at = len(b.columns)
				where[t.at] = at
				b.columns = append(b.columns, t.at)
				b.rows = append(b.rows, make([]float64, len(b.readings)))
			}
			b.rows[at][k] += t.sign
		}
	}
}

// aged returns by how much what was seen then counts less.
func aged(asOf, then time.Time) float64 {
	return math.Exp2(math.Floor(asOf.Sub(then).Hours()/24) / halfLifeDays)
}

// dayVariance is that of a day's light under a sky about its place.
func dayVariance(s light.Sky) float64 {
	sigma := float64(s.Spread())
	return sigma*sigma - placeSpread*placeSpread
}

func stopsOf(v float64) *stop.Stops {
	s := stop.Stops(v)
	return &s
}
