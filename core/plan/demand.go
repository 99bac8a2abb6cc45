package plan

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
func (d Demand) At(t stop.Shutter) glass.State {
	switch {
	case stop.Holds(d.Holds, t):
		return glass.Holds
	case stop.Holds(d.Bears, t):
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

// demands gathers every demand of the scene. The look's target is the shutter
// the camera offers. Ranges reach beyond a frame, so that what no frame rate
// allows can be measured.
func (s *Scene) demands(target stop.Shutter) []Demand {
	span := s.span(target)
	all := []Demand{s.look(target, span)}
	if d, ok := s.stabiliser(); ok {
		all = append(all, d)
	}
	all = append(all, s.exposure())
	if s.Lamp != nil {
		longest := max(2*span.To, stop.Shutter(2/s.Lamp.PulseHz))
		all = append(all, Demand{Lamps, s.Lamp.Calm(motion.MostRipple, longest), s.Lamp.Calm(strainedRipple, longest)})
	}
	if v := s.Vibration; v != nil {
		longest := max(2*span.To, stop.Shutter(2/v.Hz))
		all = append(all, Demand{Wobble, v.Steady(v.Lens, 1, longest), v.Steady(v.Lens, strainedWobble, longest)})
	}
	if s.Passing != nil {
		all = append(all, s.readable()...)
	}
	if s.Question.Rate > 0 {
		within := []stop.Span{{To: s.Question.Rate.Frame()}}
		all = append(all, Demand{Frame, within, within})
	}
	return all
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
	floor, ok := s.Shaking.floor()
	if !ok {
		return Demand{}, false
	}
	return Demand{Stabiliser, []stop.Span{{To: floor}}, []stop.Span{{To: floor.Times(click)}}}, true
}

// exposure is where some stack exposes as accepted, with ISO at base or raised.
func (s *Scene) exposure() Demand {
	d := Demand{Kind: Exposure}
	holds, bears := make([]stop.Span, 0, len(s.Stacks)), make([]stop.Span, 0, len(s.Stacks))
	for i := range s.Stacks {
		one := s.Exposes(&s.Stacks[i])
		holds, bears = append(holds, one.Holds...), append(bears, one.Bears...)
	}
	d.Holds, d.Bears = stop.Union(holds), stop.Union(bears)
	return d
}

// Exposes returns the shutter times at which one stack exposes as accepted: with
// ISO at base it holds, with ISO raised it is tight. In a range of light both ends
// must be accepted, so that a wide range leaves no time at which it holds.
func (s *Scene) Exposes(stack *glass.Stack) Demand {
	q := &s.Question
	least, most := stack.Reach()
	// The time at which light less glass meets the wanted offset: N²/(2^EV·ISO/100),
	// EV = light − S − b.
	right := func(ev stop.EV, glass stop.Stops) stop.Shutter {
		return stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, ev.Plus(-glass-q.Offset))
	}
	d := Demand{Kind: Exposure}
	over := func(dark stop.Stops) []stop.Span {
		from := right(q.Light.Low, least).Times(-dark)
		// Turning a filter moves both ends alike: what fits at one setting fits at all.
		if from > right(q.Light.High, least).Times(q.Band.Bright) {
			return nil
		}
		return []stop.Span{{From: from, To: right(q.Light.High, most).Times(q.Band.Bright)}}
	}
	d.Holds, d.Bears = over(q.Band.Dark), over(s.lift())
	return d
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

// readable are the two demands of what passes: that it does not fall apart into
// single pictures, and that it does not smear.
func (s *Scene) readable() []Demand {
	p, q := s.Passing, &s.Question
	var all []Demand
	everything := []stop.Span{{To: stop.Shutter(24 * 3600)}}
	if q.Rate > 0 {
		if from := motion.UnstrobedFrom(p.Lens, p.Movement, q.Rate); from > 0 {
			all = append(all, Demand{Strobing, []stop.Span{{From: from, To: everything[0].To}}, everything})
		}
	}
	if heavy, moves := motion.ShutterForShare(p.Lens, p.Movement, motion.HeavyFrom); moves {
		smeared := heavy * motion.SmearedFrom / motion.HeavyFrom
		all = append(all, Demand{Smearing, []stop.Span{{To: heavy}}, []stop.Span{{To: smeared}}})
	}
	return all
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
