package shot

import (
	"cmp"
	"fmt"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// Remedy is a small change that could serve a shot that breaks. It has to be made and
// judged again before it is offered.
type Remedy struct {
	Kind   TradeKind
	Change Change
	from   stop.Shutter // the shutter that another would stand in for
}

// Does says the change in words.
func (r *Remedy) Does() string {
	switch r.Kind {
	case MoreGlass:
		if r.Change.Bring != nil {
			return broughtWords(r.Change.Bring)
		}
		return fmt.Sprintf("a filter of %v stops (%s)", *r.Change.Glass, glass.LabelOf(*r.Change.Glass))
	case AnotherLook:
		return fmt.Sprintf("a shutter of %s in place of %s", *r.Change.Time, r.from.Spoken())
	case FrameRate:
		return fmt.Sprintf("%v fps", *r.Change.Rate)
	}
	return "the stabiliser off and the camera on a tripod"
}

// FarthestShutter is how far from the wish another shutter is looked for.
const FarthestShutter = stop.Stops(3)

// Remedies returns what could be tried, of each kind what costs least first: a filter to
// bring or to buy, another shutter, another frame rate, a stand. None that the person has, that the
// camera cannot do, or that what carries it does not allow.
func (s *Scene) Remedies() []Remedy {
	var all []Remedy
	for _, f := range s.Away {
		all = append(all, Remedy{Kind: MoreGlass, Change: Change{Bring: f}})
	}
	for _, stops := range glass.Purchasable() {
		if !s.has(stops) {
			all = append(all, Remedy{Kind: MoreGlass, Change: Change{Glass: &stops}})
		}
	}
	for _, t := range s.otherShutters() {
		all = append(all, Remedy{AnotherLook, Change{Time: &t}, s.Question.Setting.Shutter})
	}
	if len(s.Rates) > 0 {
		for _, rate := range s.otherRates() {
			all = append(all, Remedy{Kind: FrameRate, Change: Change{Rate: &rate}})
		}
	}
	if s.Shaking != nil && s.Shaking.Stabiliser.ShiftsFrames() && s.Carried.CanStand() {
		all = append(all, Remedy{Kind: Stand, Change: Change{Stand: true}})
	}
	return all
}

// otherShutters returns the times that the camera offers beside the one for the wish, the
// nearest first: of its steps, or where it takes any time of the marked numbers.
func (s *Scene) otherShutters() []stop.Shutter {
	target, err := s.target()
	if err != nil {
		return nil
	}
	steps := s.Question.Steps
	if len(steps) == 0 {
		steps = stop.Nominal()
	}
	type other struct {
		at   stop.Shutter
		away stop.Stops
	}
	others := make([]other, 0, len(steps))
	for _, t := range steps {
		if away := t.Over(target.Offered).Abs(); s.offers(t) && away > click/2 && away <= FarthestShutter {
			others = append(others, other{t, away})
		}
	}
	slices.SortStableFunc(others, func(a, b other) int { return cmp.Compare(a.away, b.away) })
	times := make([]stop.Shutter, len(others))
	for i := range others {
		times[i] = others[i].at
	}
	return times
}
