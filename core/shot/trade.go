package shot

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// TradeKind says what is given up for what.
type TradeKind string

// The trades.
const (
	AnotherLook TradeKind = "look"
	FrameRate   TradeKind = "frame-rate"
	Stand       TradeKind = "stand"
	WiderLens   TradeKind = "wider-lens"
	RaiseISO    TradeKind = "iso"
	MoreGlass   TradeKind = "glass"
)

// Trade is a small change to the scene that resolves a conflict or makes it
// smaller. Its sizes were measured by making the change and looking again.
type Trade struct {
	Kind TradeKind
	Conflict
	Change Change
	// Leaves is what is left of the conflict, in the measure of its state.
	Leaves stop.Stops
	// Does and Costs say the change and its price in words.
	Does, Costs string
}

// Gain returns the stops by which the conflict shrinks.
func (t Trade) Gain() stop.Stops { return t.Stops() - t.Leaves }

// leastGain is the smallest gain worth a trade.
const leastGain = stop.Stops(0.05)

// trades returns the changes that help against a conflict, one of each kind: those
// that resolve it first, then those that leave less.
func (s *Scene) trades(c Conflict, target stop.Shutter) []Trade {
	var helpful []Trade
	for _, t := range s.proposals(c, target) {
		t.Conflict = c
		changed, err := s.With(t.Change)
		if err != nil {
			continue // the kit has no room for it
		}
		after, err := changed.conflictOf(c.Pair)
		if err != nil {
			continue // it asks for what the camera does not offer
		}
		t.Leaves = after.in(c.State)
		if t.Gain() >= leastGain {
			helpful = append(helpful, t)
		}
	}
	slices.SortStableFunc(helpful, func(a, b Trade) int { return cmp.Compare(a.Leaves, b.Leaves) })
	seen := map[TradeKind]bool{}
	return slices.DeleteFunc(helpful, func(t Trade) bool {
		isSeen := seen[t.Kind]
		seen[t.Kind] = true
		return isSeen
	})
}

// proposals are the changes worth trying against a conflict.
func (s *Scene) proposals(c Conflict, target stop.Shutter) []Trade {
	var all []Trade
	add := func(t Trade, ok bool) {
		if ok {
			all = append(all, t)
		}
	}
	if c.Has(Look) {
		add(s.anotherLook(c, target))
	}
	if c.Has(Exposure) {
		add(s.moreGlass(target))
		add(s.higherISO(c))
	}
	for _, rate := range s.otherRates() {
		add(s.frameRate(rate), true)
	}
	if c.Has(Stabiliser) {
		add(s.stand(), true)
	}
	if c.Has(Stabiliser) || c.Has(Wobble) || c.Has(Smearing) || c.Has(Strobing) {
		add(s.widerLens(c))
	}
	return all
}

// anotherLook takes the time nearest to the target at which the other demand holds.
func (s *Scene) anotherLook(c Conflict, target stop.Shutter) (Trade, bool) {
	other := c.A
	if other == Look {
		other = c.B
	}
	d, _ := s.demand(other, target)
	var times []stop.Shutter
	for _, t := range s.Steps {
		if s.offers(t) && d.At(t) == glass.Holds {
			times = append(times, t)
		}
	}
	if len(s.Steps) == 0 {
		if t, ok := stop.Nearest(d.Holds, target); ok && s.offers(t) {
			times = append(times, t)
		}
	}
	if len(times) == 0 {
		return Trade{}, false
	}
	t := slices.MinFunc(times, func(a, b stop.Shutter) int { return cmp.Compare(a.Over(target).Abs(), b.Over(target).Abs()) })
	off := t.Over(target)
	costs := fmt.Sprintf("%v stops less blur than you asked for", off.Abs())
	if off > 0 {
		costs = fmt.Sprintf("%v stops more blur than you asked for", off)
	}
	does := fmt.Sprintf("shutter %v", t)
	if s.Question.Rate > 0 {
		does += fmt.Sprintf(", %v", t.Angle(s.Question.Rate))
	}
	return Trade{Kind: AnotherLook, Change: Change{Time: &t}, Does: does, Costs: costs}, true
}

// otherRates are the camera's other frame rates, the nearest first; without a
// list, twice the present one.
func (s *Scene) otherRates() []stop.FrameRate {
	rate := s.Question.Rate
	if rate == 0 {
		return nil
	}
	if len(s.Rates) == 0 {
		return []stop.FrameRate{2 * rate}
	}
	away := func(r stop.FrameRate) stop.Stops { return stop.FromFactor(float64(r / rate)).Abs() }
	others := slices.DeleteFunc(slices.Clone(s.Rates), func(r stop.FrameRate) bool { return away(r) <= stop.Tolerance })
	slices.SortStableFunc(others, func(a, b stop.FrameRate) int { return cmp.Compare(away(a), away(b)) })
	return others
}

func (s *Scene) frameRate(rate stop.FrameRate) Trade {
	costs := "motion is sampled less often"
	if rate > s.Question.Rate {
		costs = "slow motion where every frame is shown; with frames dropped, a smaller delivered angle"
	}
	return Trade{Kind: FrameRate, Change: Change{Rate: &rate}, Does: fmt.Sprintf("%v fps", rate), Costs: costs}
}

// standing is the shake of a camera on a stand.
const standing = angle.DegPerS(0.1)

func (s *Scene) stand() Trade {
	none, shake := motion.NoStabiliser, standing
	return Trade{
		Kind: Stand, Change: Change{Stabiliser: &none, Shake: &shake},
		Does: "stabiliser off, camera on a stand", Costs: "the camera stays where it stands",
	}
}

// Widest fields of view that a trade proposes.
const (
	widestRectilinear = angle.Deg(120)
	widestFisheye     = angle.Deg(180)
)

// widerLens widens the view until the conflict is gone or the view as wide as
// lenses are.
func (s *Scene) widerLens(c Conflict) (Trade, bool) {
	lens, ok := s.lens()
	if !ok {
		return Trade{}, false
	}
	widest := widestRectilinear
	if lens.Projection == motion.Equidistant {
		widest = widestFisheye
	}
	// A little more than the conflict, so that rounding does not leave a rest.
	hfov := min(lens.Widened(c.Stops().Factor()*1.001).HFOV, widest)
	if hfov <= lens.HFOV {
		return Trade{}, false
	}
	return Trade{
		Kind: WiderLens, Change: Change{HFOV: &hfov},
		Does: fmt.Sprintf("a view of %.0f° instead of %.0f°", float64(hfov), float64(lens.HFOV)), Costs: "another framing: everything comes out smaller",
	}, true
}

// lens returns a lens of the scene; all parts see through the same one.
func (s *Scene) lens() (motion.Lens, bool) {
	switch {
	case s.Shaking != nil:
		return s.Shaking.Lens, true
	case s.Passing != nil:
		return s.Passing.Lens, true
	case s.Vibration != nil:
		return s.Vibration.Lens, true
	}
	return motion.Lens{}, false
}

// moreGlass adds the whole stops of grey glass that come nearest to what the
// target needs, where glass is what is missing.
func (s *Scene) moreGlass(target stop.Shutter) (Trade, bool) {
	q := s.Question
	q.Setting.Shutter = target
	need := stop.Stops(math.Round(float64(q.Need())))
	if need < 1 {
		return Trade{}, false
	}
	return Trade{
		Kind: MoreGlass, Change: Change{Glass: &need},
		Does: fmt.Sprintf("a filter of %.0f stops (ND%.0f)", float64(need), need.Factor()), Costs: "glass that is not in the kit yet",
	}, true
}

// mostISO is how far a trade raises the ISO ceiling.
const mostISO = stop.Stops(2)

func (s *Scene) higherISO(c Conflict) (Trade, bool) {
	if c.State != glass.Breaks { // raised ISO strains, it does not hold
		return Trade{}, false
	}
	more := min(stop.Stops(math.Ceil(float64(c.Breaks-stop.Tolerance))), mostISO)
	ceiling := s.Question.Ceiling.Raised(more)
	return Trade{
		Kind: RaiseISO, Change: Change{Ceiling: &ceiling},
		Does: fmt.Sprintf("ISO up to %.0f", float64(ceiling)), Costs: fmt.Sprintf("%v stops more noise than you like", more),
	}, true
}
