package shot

import (
	"cmp"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Kind names a demand on the shutter time.
type Kind string

// The demands. Readable is Strobing and Smearing together, as it is shown.
const (
	Look       Kind = "look"
	Stabiliser Kind = "stabiliser"
	Exposure   Kind = "exposure"
	Lamps      Kind = "lamps"
	Wobble     Kind = "wobble"
	Readable   Kind = "readable"
	Strobing   Kind = "strobing"
	Smearing   Kind = "smearing"
	Frame      Kind = "frame" // a shutter cannot stay open for longer
)

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

// Where a demand stops to hold and is only strained. They are defaults: a click
// is the third of a stop that cameras turn by.
const (
	click          = stop.Stops(1.0 / 3)
	strainedRipple = 0.05 // of the exposure; 0.07 stops from frame to frame
	strainedWobble = 2    // times what shows
)

// kinds are the demands in the order in which they are named.
var kinds = []Kind{Look, Stabiliser, Exposure, Lamps, Wobble, Strobing, Smearing, Frame}

// demands gathers every demand of the scene. target is the shutter the camera
// offers for the wish.
func (s *Scene) demands(target stop.Shutter) []Demand {
	var all []Demand
	for _, kind := range kinds {
		if d, isMade := s.demand(kind, target); isMade {
			all = append(all, d)
		}
	}
	return all
}

// demand returns one demand; isMade is false where the scene does not make it.
// Ranges reach beyond a frame, so that what no frame rate allows can be measured.
func (s *Scene) demand(kind Kind, target stop.Shutter) (d Demand, isMade bool) {
	span := s.span(target)
	switch kind {
	case Look:
		return s.look(target, span), true
	case Stabiliser:
		return s.stabiliser()
	case Exposure:
		return s.exposure(), true
	case Lamps:
		if s.Lamp != nil {
			longest := max(2*span.To, stop.Shutter(2/s.Lamp.PulseHz))
			return Demand{Lamps, s.Lamp.Calm(motion.MostRipple, longest), s.Lamp.Calm(strainedRipple, longest)}, true
		}
	case Wobble:
		if v := s.Vibration; v != nil {
			longest := max(2*span.To, stop.Shutter(2/v.Hz))
			return Demand{Wobble, v.Steady(v.Lens, 1, longest), v.Steady(v.Lens, strainedWobble, longest)}, true
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

func (s *Scene) look(target stop.Shutter, span stop.Span) Demand {
	if s.School == Free {
		return Demand{Look, []stop.Span{span}, []stop.Span{span}}
	}
	return Demand{Look, []stop.Span{stop.Around(target, click, click)}, []stop.Span{stop.Around(target, glass.MostGiven, glass.MostGiven)}}
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
	holds, bears := make([]stop.Span, 0, len(s.Stacks)), make([]stop.Span, 0, len(s.Stacks))
	for i := range s.Stacks {
		holds, bears = e.add(&s.Stacks[i], holds, bears)
	}
	return Demand{Exposure, stop.Union(holds), stop.Union(bears)}
}

// Exposes returns the shutter times at which one stack exposes as accepted: with
// ISO at base it holds, with ISO raised it is tight. In a range of light both ends
// must be accepted, so that a wide range leaves no time at which it holds.
func (s *Scene) Exposes(stack *glass.Stack) Demand {
	e := s.exposer()
	holds, bears := e.add(stack, nil, nil)
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
	return exposer{
		holds: stop.Span{From: low.Times(-q.Band.Dark), To: high},
		bears: stop.Span{From: low.Times(-s.lift()), To: high},
	}
}

// add appends the times of one stack, where there are any.
func (e *exposer) add(stack *glass.Stack, holds, bears []stop.Span) (_, _ []stop.Span) {
	reach := reachOf(stack)
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

// lift is how dark a picture may be before ISO lifts it: the headroom, and in a
// range the accepted darkness beyond it, as choosing has it.
func (s *Scene) lift() stop.Stops {
	q := &s.Question
	if q.Light.Ranged {
		return q.Band.Dark + q.Headroom()
	}
	return max(q.Band.Dark, q.Headroom())
}

// everyTime stands for no bound: a day.
const everyTime = stop.Shutter(24 * 3600)

// strobing asks that what passes does not fall apart into single pictures.
func (s *Scene) strobing() (Demand, bool) {
	p := s.Passing
	if p == nil || s.Question.Rate == 0 {
		return Demand{}, false
	}
	from := motion.UnstrobedFrom(p.Lens, p.Movement, s.Question.Rate)
	return Demand{Strobing, []stop.Span{{From: from, To: everyTime}}, []stop.Span{{To: everyTime}}}, from > 0
}

// smearing asks that what passes can still be recognised. In a still or a
// time-lapse it may smear: that is what long exposures are for.
func (s *Scene) smearing() (Demand, bool) {
	p := s.Passing
	if p == nil || s.Question.Rate == 0 {
		return Demand{}, false
	}
	heavy, moves := motion.ShutterForShare(p.Lens, p.Movement, motion.HeavyFrom)
	smeared := heavy * motion.SmearedFrom / motion.HeavyFrom
	return Demand{Smearing, []stop.Span{{To: heavy}}, []stop.Span{{To: smeared}}}, moves
}

// Band is a stretch of the window on which a demand has one state.
type Band struct {
	stop.Span
	State glass.State
}

// Bands returns the states of a demand over a span, in order and without gaps.
func (d Demand) Bands(over stop.Span) []Band {
	edges := []stop.Shutter{over.From, over.To}
	for _, spans := range [][]stop.Span{d.Holds, d.Bears} {
		for _, s := range spans {
			for _, t := range []stop.Shutter{s.From, s.To} {
				if over.From < t && t < over.To {
					edges = append(edges, t)
				}
			}
		}
	}
	slices.SortFunc(edges, cmp.Compare)
	var bands []Band
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
