package shot

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"pinhole/core/glass"
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

// Values returns every TradeKind there is.
func (TradeKind) Values() []TradeKind {
	return []TradeKind{AnotherLook, FrameRate, Stand, WiderLens, RaiseISO, MoreGlass}
}

// Trade is a small change to the scene that helps a shot in which something gives way.
// It was made and the whole shot judged again: what it claims is what was found.
type Trade struct {
	Kind   TradeKind
	Change Change
	// Pair is what gives way without it.
	Pair
	// State is the state of the shot without it, in whose measure the sizes are; After is
	// its state with it.
	State, After glass.State
	// Before is by how much the worst demand in the measure of State misses without it,
	// Leaves by how much with it; 0 where nothing does.
	Before, Leaves stop.Stops
	// Still names the demand that is worst with it, "" where all hold.
	Still Kind
	// Does and Costs say the change and its price in words.
	Does, Costs string
}

// Serves reports whether no demand of the whole shot breaks with it.
func (t *Trade) Serves() bool { return t.After != glass.Breaks }

// Gain returns the stops by which what gives way becomes less.
func (t *Trade) Gain() stop.Stops { return t.Before - t.Leaves }

// leastGain is the smallest gain worth a trade, and what a demand misses by at least that
// does not hold.
const leastGain = stop.Stops(0.05)

// Misses returns by how much the worst demand misses that is as bad as a state.
func (v *Verdict) Misses(state glass.State) stop.Stops {
	by := stop.Stops(0)
	for _, s := range v.Strains {
		switch {
		case s.State.Compare(state) < 0:
		case s.Kind == Fit && s.State == glass.Breaks:
			by = MaxGap
		default:
			by = max(by, s.Stops, leastGain)
		}
	}
	return by
}

// Trades returns the changes that help the shot as it was judged, one of each kind: those
// that leave it best first. None where it holds.
func (s *Scene) Trades(w *Window) []Trade {
	now := &w.Verdict
	if now.State == glass.Holds {
		return nil
	}
	pair := Pair{now.Strains[0].Kind, now.Strains[0].Kind}
	if len(w.Conflicts) > 0 {
		pair = w.Conflicts[0].Pair
	}
	var helpful []Trade
	for _, t := range s.proposals(w) {
		after, err := s.after(t.Change)
		if err != nil {
			continue // the kit has no room for it, or the camera no such shutter
		}
		t.Pair, t.State, t.After = pair, now.State, after.State
		t.Before, t.Leaves = now.Misses(now.State), after.Misses(now.State)
		if len(after.Strains) > 0 {
			t.Still = after.Strains[0].Kind
		}
		if t.Gain() >= leastGain {
			helpful = append(helpful, t)
		}
	}
	slices.SortStableFunc(helpful, func(a, b Trade) int {
		return cmp.Or(a.After.Compare(b.After), cmp.Compare(a.Leaves, b.Leaves))
	})
	seen := map[TradeKind]bool{}
	return slices.DeleteFunc(helpful, func(t Trade) bool {
		isSeen := seen[t.Kind]
		seen[t.Kind] = true
		return isSeen
	})
}

// after returns the verdict on the scene changed.
func (s *Scene) after(c Change) (*Verdict, error) {
	changed, err := s.With(c)
	if err != nil {
		return nil, err
	}
	return changed.Best()
}

// proposals are the changes worth trying: none the camera cannot do, and none that the
// person has already.
func (s *Scene) proposals(w *Window) []Trade {
	gives := map[Kind]bool{}
	for _, strain := range w.Verdict.Strains {
		gives[strain.Kind] = true
	}
	for _, c := range w.Conflicts {
		gives[c.A], gives[c.B] = true, true
	}
	all := s.otherLooks(w)
	for _, rate := range s.otherRates() {
		all = append(all, s.frameRate(rate))
	}
	if gives[Exposure] {
		all = append(all, s.moreGlass(w)...)
		all = append(all, s.higherISO())
	}
	if gives[Stabiliser] && s.Carried.CanStand() {
		all = append(all, Trade{Kind: Stand, Change: Change{Stand: true}, Does: "stabiliser off, camera on a tripod", Costs: "the camera stays where it stands"})
	}
	if gives[Stabiliser] || gives[Wobble] || gives[Smearing] || gives[Strobing] {
		all = append(all, s.widerViews()...)
	}
	return all
}

// otherLooks returns the time nearest to the wish at which nothing else breaks, and the
// nearest at which all else holds: of the camera's steps, or where it takes any time of
// all.
func (s *Scene) otherLooks(w *Window) []Trade {
	wished := w.Target.Ideal
	holds, bears := []stop.Span{w.Span}, []stop.Span{w.Span}
	for _, d := range w.Demands {
		if d.Kind != Look {
			holds, bears = stop.Intersect(holds, d.Holds), stop.Intersect(bears, d.Bears)
		}
	}
	var all []Trade
	for _, spans := range [][]stop.Span{holds, bears} {
		t, found := s.nearestTo(wished, spans)
		if !found || t.Over(w.Target.Offered).Abs() <= stop.Tolerance {
			continue
		}
		off := t.Over(wished)
		costs := fmt.Sprintf("%v stops less blur than the target", off.Abs())
		if off > 0 {
			costs = fmt.Sprintf("%v stops more blur than the target", off)
		}
		does := fmt.Sprintf("shutter %v", t)
		if s.Question.Rate > 0 {
			does += fmt.Sprintf(", %v", t.Angle(s.Question.Rate))
		}
		all = append(all, Trade{Kind: AnotherLook, Change: Change{Time: &t}, Does: does, Costs: costs})
	}
	return all
}

// nearestTo returns the time nearest to a wish, of those that the camera offers, in spans.
func (s *Scene) nearestTo(wished stop.Shutter, spans []stop.Span) (stop.Shutter, bool) {
	var times []stop.Shutter
	for _, t := range s.Question.Steps {
		if s.offers(t) && stop.Hold(spans, stop.Span{From: t, To: t}) {
			times = append(times, t)
		}
	}
	if len(s.Question.Steps) == 0 {
		if t, ok := stop.Nearest(spans, wished); ok && s.offers(t) {
			times = append(times, t)
		}
	}
	if len(times) == 0 {
		return 0, false
	}
	return slices.MinFunc(times, func(a, b stop.Shutter) int { return cmp.Compare(a.Over(wished).Abs(), b.Over(wished).Abs()) }), true
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

// widerViews switches to the wider fields of view that the camera has.
func (s *Scene) widerViews() []Trade {
	lens, ok := s.lens()
	if !ok {
		return nil
	}
	var all []Trade
	views := slices.Sorted(slices.Values(s.Views))
	for _, hfov := range views {
		if hfov <= lens.HFOV {
			continue
		}
		all = append(all, Trade{
			Kind: WiderLens, Change: Change{HFOV: &hfov},
			Does: fmt.Sprintf("a view of %.0f° instead of %.0f°", float64(hfov), float64(lens.HFOV)), Costs: "another framing: everything comes out smaller",
		})
	}
	return all
}

// moreGlass brings what is not at hand, and adds whole stops of grey glass, the strengths on
// either side of what the target needs, unless the kit has glass so strong.
func (s *Scene) moreGlass(w *Window) []Trade {
	q := s.Question
	q.Setting.Shutter = w.Target.Offered
	var all []Trade
	for _, f := range s.Away {
		all = append(all, Trade{Kind: MoreGlass, Change: Change{Bring: f}, Does: broughtWords(f), Costs: "it has to be fetched"})
	}
	for _, need := range []stop.Stops{stop.Stops(math.Round(float64(q.Need()))), stop.Stops(math.Floor(float64(q.Need()))), stop.Stops(math.Ceil(float64(q.Need())))} {
		if need < 1 || need > glass.DarkestMade || s.has(need) {
			continue
		}
		all = append(all, Trade{
			Kind: MoreGlass, Change: Change{Glass: &need},
			Does: fmt.Sprintf("a filter of %.0f stops (%s)", float64(need), glass.LabelOf(need)), Costs: "a filter that is not in the kit yet",
		})
	}
	return all
}

// broughtWords name a filter of the kit that is not at hand.
func broughtWords(f *glass.Filter) string {
	if f.Kind == glass.Variable {
		return fmt.Sprintf("the variable filter of %v to %v stops that is not at hand", f.Stops, f.Most)
	}
	return fmt.Sprintf("the filter of %v stops that is not at hand", f.Stops)
}

// has reports whether a single loose filter of the kit is as strong, within what one
// filter does for another.
func (s *Scene) has(stops stop.Stops) bool {
	isSo := func(f *glass.Filter) bool { return f.Kind == glass.ND && (f.Stops-stops).Abs() < glass.TwinStops }
	return slices.ContainsFunc(s.Away, isSo) || slices.ContainsFunc(s.Stacks, func(stack glass.Stack) bool {
		return stack.Extra == 1 && len(stack.Filters) == 1 && isSo(stack.Filters[0])
	})
}

// mostISO is how far a trade raises the ISO ceiling.
const mostISO = stop.Stops(2)

// higherISO goes beyond the ISO that still looks good, as far as it helps.
func (s *Scene) higherISO() Trade {
	more := mostISO
	ceiling := s.Question.Ceiling.Raised(more)
	return Trade{
		Kind: RaiseISO, Change: Change{Ceiling: &ceiling},
		Does: fmt.Sprintf("ISO up to %.0f", float64(ceiling)), Costs: fmt.Sprintf("%v stops more noise than you like", more),
	}
}
