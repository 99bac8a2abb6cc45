package shot

import (
	"cmp"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Kind names a demand on a shot.
type Kind string

// The demands. Readable is Strobing and Smearing together, as it is drawn.
const (
	Look       Kind = "look"
	Stabiliser Kind = "stabiliser"
	Exposure   Kind = "exposure"
	Lamps      Kind = "lamps"
	Wobble     Kind = "wobble"
	Readable   Kind = "readable"
	Strobing   Kind = "strobing"
	Smearing   Kind = "smearing"
	Pan        Kind = "pan"   // a turn slow enough to be read; no shutter changes it
	Fit        Kind = "fit"   // how the glass that is on stands on its rig
	Frame      Kind = "frame" // a shutter cannot stay open for longer
)

// Values returns every Kind there is.
func (Kind) Values() []Kind {
	return []Kind{Look, Stabiliser, Exposure, Lamps, Wobble, Readable, Strobing, Smearing, Pan, Fit, Frame}
}

// Demand is what one need asks of the shutter.
type Demand struct {
	Kind Kind
	// Holds are the times at which it is met, Bears those at which it is met or
	// merely strained: Bears contains Holds.
	Holds, Bears []stop.Span
}

// At returns whether the demand holds, is tight or breaks at t.
func (d Demand) At(t stop.Shutter) glass.State { return d.Throughout(stop.Span{From: t, To: t}) }

// Throughout returns the same of a shutter that floats.
func (d Demand) Throughout(s stop.Span) glass.State {
	switch {
	case stop.Hold(d.Holds, s):
		return glass.Holds
	case stop.Hold(d.Bears, s):
		return glass.Tight
	}
	return glass.Breaks
}

// click is the third of a stop that cameras turn by: up to it a wish is met, by default.
const click = stop.Stops(1.0 / 3)

// kinds are the demands on the shutter in the order in which they are named.
var kinds = []Kind{Look, Stabiliser, Exposure, Lamps, Wobble, Strobing, Smearing, Frame}

// demands gathers every demand that the scene makes on its shutter.
func (s *Scene) demands(target stop.Snapped) []Demand { return s.demandsOf(kinds, target) }

// withoutExposure leaves out the exposure, which each stack has its own of: to judge one
// stack, nobody has to know what all of them could do.
var withoutExposure = slices.DeleteFunc(slices.Clone(kinds), func(k Kind) bool { return k == Exposure })

func (s *Scene) demandsOf(kinds []Kind, target stop.Snapped) []Demand {
	all := make([]Demand, 0, len(kinds))
	for _, kind := range kinds {
		if d, isMade := s.demand(kind, target); isMade {
			all = append(all, d)
		}
	}
	return all
}

// demand returns one demand; isMade is false where the scene does not make it.
// Ranges reach beyond a frame, so that what no frame rate allows can be measured.
func (s *Scene) demand(kind Kind, target stop.Snapped) (d Demand, isMade bool) {
	span := s.span(target.Offered)
	switch kind {
	case Look:
		return s.look(target.Ideal, span), true
	case Stabiliser:
		return s.stabiliser()
	case Exposure:
		return s.exposure(), true
	case Lamps:
		if s.Lamp != nil {
			return s.known().lamps(*s.Lamp, max(2*span.To, stop.Shutter(2/s.Lamp.PulseHz))), true
		}
	case Wobble:
		if v := s.Vibration; v != nil {
			return s.known().wobble(*v, max(2*span.To, stop.Shutter(2/v.Hz))), true
		}
	case Strobing:
		return s.strobing()
	case Smearing:
		return s.smearing()
	case Frame:
		if s.Question.Rate > 0 {
			within := []stop.Span{{To: s.Question.Rate.Frame()}}
			return Demand{Frame, within, within}, true
		}
	}
	return Demand{}, false
}

// look asks for the wished time, whatever the camera offers in its place.
func (s *Scene) look(wished stop.Shutter, span stop.Span) Demand {
	if s.School == Free {
		return Demand{Look, []stop.Span{span}, []stop.Span{span}}
	}
	return Demand{Look, []stop.Span{stop.Around(wished, click, click)}, []stop.Span{stop.Around(wished, glass.MostGiven, glass.MostGiven)}}
}

func (s *Scene) stabiliser() (Demand, bool) {
	if s.Shaking == nil {
		return Demand{}, false
	}
	floor, ok := s.Shaking.Slowest()
	if !ok {
		return Demand{}, false
	}
	return Demand{Stabiliser, []stop.Span{{To: floor}}, []stop.Span{{To: floor.Times(click)}}}, true
}

// exposure is where some stack exposes as accepted, with ISO at base or raised.
func (s *Scene) exposure() Demand {
	e := s.exposer()
	reaches := make([]reach, len(s.Stacks))
	for i := range s.Stacks {
		reaches[i] = reachOf(&s.Stacks[i])
	}
	// Sorted once, what holds and what bears come in their order.
	slices.SortFunc(reaches, func(a, b reach) int { return cmp.Compare(a.least, b.least) })
	holds, bears := make([]stop.Span, 0, len(reaches)), make([]stop.Span, 0, len(reaches))
	for _, r := range reaches {
		holds, bears = e.add(r, holds, bears)
	}
	return Demand{Exposure, stop.Union(holds), stop.Union(bears)}
}

// Exposes returns the shutter times at which one stack exposes as accepted, as choosing
// has it: it holds with ISO at base or raised by no more than the free lift, and is tight
// with ISO up to its ceiling. In a range of light both ends must be accepted, so that a
// wide range leaves no time at which it holds.
func (s *Scene) Exposes(stack *glass.Stack) Demand {
	e := s.exposer()
	holds, bears := e.add(reachOf(stack), nil, nil)
	return Demand{Exposure, holds, bears}
}

// exposer holds the times at which the bare camera exposes as accepted; they may
// be the wrong way round where the light has too wide a range. A stack of S stops
// moves both ends by 2^S.
type exposer struct{ holds, bears stop.Span }

func (s *Scene) exposer() exposer {
	q := &s.Question
	// The time that meets the wanted offset: N²/(2^(EV − b)·ISO/100).
	right := func(ev stop.EV) stop.Shutter {
		return stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, ev.Plus(-q.Offset))
	}
	low, high := right(q.Light.Low), right(q.Light.High).Times(q.Band.Bright)
	free, most := q.Dark()
	return exposer{
		holds: stop.Span{From: low.Times(-free), To: high},
		bears: stop.Span{From: low.Times(-most), To: high},
	}
}

// add appends the times of a stack that reaches so far, where there are any.
func (e *exposer) add(reach reach, holds, bears []stop.Span) (_, _ []stop.Span) {
	if e.holds.From <= e.holds.To {
		holds = append(holds, reach.times(e.holds))
	}
	if e.bears.From <= e.bears.To {
		bears = append(bears, reach.times(e.bears))
	}
	return holds, bears
}

// reach is by what a stack lengthens exposure, at its lightest and at its darkest.
// Turning a filter moves both ends of a span alike, so that what fits at one
// setting fits at all of them.
type reach struct{ least, most float64 }

func reachOf(stack *glass.Stack) reach {
	least, most := stack.Reach()
	r := reach{least: least.Factor()}
	if r.most = r.least; most != least {
		r.most = most.Factor()
	}
	return r
}

func (r reach) times(s stop.Span) stop.Span {
	return stop.Span{From: s.From * stop.Shutter(r.least), To: s.To * stop.Shutter(r.most)}
}

// everyTime stands for no bound: a day.
const everyTime = stop.Shutter(24 * 3600)

// strainedUncovered is the uncovered part of the step from which a look of single
// pictures is a strain: people choose 90°, 75 % of the step uncovered, and a little less.
const strainedUncovered = 0.76

// strobing asks that what passes does not fall apart into single pictures, in the frames
// that are shown.
func (s *Scene) strobing() (Demand, bool) {
	p := s.Passing
	if p == nil || s.Question.Rate == 0 {
		return Demand{}, false
	}
	shown := s.Delivery.Shown(s.Question.Rate)
	if !motion.IsLongStep(p.Lens, p.Movement, shown) {
		return Demand{}, false
	}
	from := shown.Frame() * (1 - strainedUncovered)
	return Demand{Strobing, []stop.Span{{From: from, To: everyTime}}, []stop.Span{{To: everyTime}}}, true
}

// Shares of the picture's width over which what should be read is smeared: it holds to
// the first, strains to the second and breaks beyond. They are held against what
// practised eyes see (docs/model.md, One judge).
const (
	readableSmear = motion.SmearedFrom
	strainedSmear = 0.07
	// passingSmear is how many times as far what merely passes close by may smear.
	passingSmear = 2
)

// moment is how long a subject is in view, in seconds, before it is looked at.
const moment = 0.5

// smearing asks that what should be read can still be recognised: the subject, and in a
// turn the whole picture. In a still or a time-lapse it may smear: that is what long
// exposures are for.
func (s *Scene) smearing() (Demand, bool) {
	p := s.Passing
	if p == nil || s.Question.Rate == 0 {
		return Demand{}, false
	}
	share := stop.Shutter(1)
	if s.passesBy() {
		share = passingSmear
	}
	until := func(limit float64) (t stop.Shutter, moves bool) {
		all, moves := motion.ShutterForShare(p.Lens, p.Movement, limit)
		turn, turns := motion.ShutterForShare(p.Lens, motion.Movement{Turn: p.Turn}, limit)
		if all *= share; turns {
			all = min(all, turn)
		}
		return all, moves
	}
	holds, moves := until(readableSmear)
	bears, _ := until(strainedSmear)
	return Demand{Smearing, []stop.Span{{To: holds}}, []stop.Span{{To: bears}}}, moves
}

// passesBy reports whether the subject merely passes: the camera rides or flies along, or
// the subject is in view for no longer than a moment.
func (s *Scene) passesBy() bool {
	return s.Carried.TravelsAlong() || s.Passing.InViewS(s.Passing.Lens) < moment
}

// Band is a stretch of the window on which a demand has one state.
type Band struct {
	stop.Span
	State glass.State
}

// Bands returns the states of a demand over a span, in order and without gaps.
func (d Demand) Bands(over stop.Span) []Band {
	most := 2 + 2*len(d.Holds) + 2*len(d.Bears)
	edges := append(make([]stop.Shutter, 0, most), over.From, over.To)
	for _, spans := range [][]stop.Span{d.Holds, d.Bears} {
		for _, s := range spans {
			for _, t := range [2]stop.Shutter{s.From, s.To} {
				if over.From < t && t < over.To {
					edges = append(edges, t)
				}
			}
		}
	}
	slices.Sort(edges)
	bands := make([]Band, 0, len(edges)-1)
	for i, from := range edges[:len(edges)-1] {
		to := edges[i+1]
		state := d.At((from + to) / 2)
		if n := len(bands); n > 0 && bands[n-1].State == state {
			bands[n-1].To = to
		} else if from < to {
			bands = append(bands, Band{stop.Span{From: from, To: to}, state})
		}
	}
	return bands
}

// both returns the demand that both demands make together.
func both(kind Kind, a, b Demand) Demand {
	return Demand{kind, stop.Intersect(a.Holds, b.Holds), stop.Intersect(a.Bears, b.Bears)}
}
