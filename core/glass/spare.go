package glass

import "pinhole/core/stop"

// PocketSpread is how far a light may be off before another filter is worth having along.
const PocketSpread = stop.Stops(0.4)

// Spares returns what to put on instead of the filters that go on first, should the light be
// brighter or darker by its spread: nil where that is the same, or the spread is small, or the
// light is a range already. The questions are those of the lights at either end.
func (q *Question) Spares(stacks []Stack, first []*Filter, spread stop.Stops) (brighter, darker *Spare) {
	if spread < PocketSpread || q.Light.IsRange() {
		return nil, nil
	}
	at := func(off stop.Stops) *Spare {
		there := *q
		there.Light = Light{Low: q.Light.Low.Plus(off), High: q.Light.High.Plus(off)}
		best := Best(&there, stacks)
		if SameIDs(IDs(best.Filters), IDs(first)) {
			return nil
		}
		return &Spare{there, best}
	}
	return at(spread), at(-spread)
}

// Spare is an option for another light, with the question of that light.
type Spare struct {
	Question Question
	Option   Option
}
