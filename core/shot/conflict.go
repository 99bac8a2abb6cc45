package shot

import (
	"cmp"
	"math"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// Pair names two demands.
type Pair struct{ A, B Kind }

// Has reports whether k is one of the pair.
func (p Pair) Has(k Kind) bool { return p.A == k || p.B == k }

// Conflict is two demands that exclude each other.
type Conflict struct {
	Pair
	// State is Breaks where no shutter bears both, and Tight where some shutter
	// bears both but none holds them.
	State glass.State
	// Holds is how many stops lie between where each is at its best, Breaks between
	// where each can be borne; a demand that nothing meets is MaxGap away.
	Holds, Breaks stop.Stops
}

// MaxGap stands for the distance to a demand that no shutter meets.
const MaxGap = stop.Stops(20)

// Stops returns the size of the conflict in the measure of its state.
func (c Conflict) Stops() stop.Stops { return c.in(c.State) }

// in returns the size in the measure of a state.
func (c Conflict) in(state glass.State) stop.Stops {
	if state == glass.Breaks {
		return c.Breaks
	}
	return c.Holds
}

// between measures the conflict of two demands.
func between(a, b Demand) Conflict {
	c := Conflict{Pair: Pair{a.Kind, b.Kind}, State: glass.Holds, Holds: gap(a.atBest(), b.atBest())}
	if c.Holds == 0 {
		return c
	}
	c.State, c.Breaks = glass.Tight, gap(a.Bears, b.Bears)
	if c.Breaks > 0 {
		c.State = glass.Breaks
	}
	return c
}

// atBest returns where the demand holds, or where it can be borne when it holds
// nowhere: what no shutter meets is not the other demand's fault.
func (d Demand) atBest() []stop.Span {
	if len(d.Holds) == 0 {
		return d.Bears
	}
	return d.Holds
}

// gap returns the distance of two lists, 0 where rounding alone parts them.
func gap(a, b []stop.Span) stop.Stops {
	g := stop.Gap(a, b)
	switch {
	case math.IsInf(float64(g), 1):
		return MaxGap
	case g <= stop.Tolerance:
		return 0
	}
	return min(g, MaxGap)
}

// conflicts returns the pairs that exclude each other: those that no shutter bears
// first, then those of the look, which is what the shot is for, then the widest.
func conflicts(all []Demand) []Conflict {
	var found []Conflict
	for i, a := range all {
		for _, b := range all[i+1:] {
			if c := between(a, b); c.State != glass.Holds {
				found = append(found, c)
			}
		}
	}
	slices.SortStableFunc(found, func(a, b Conflict) int {
		return cmp.Or(
			-a.State.Compare(b.State),
			first(a.Has(Look), b.Has(Look)),
			cmp.Compare(b.Stops(), a.Stops()),
		)
	})
	return found
}

// first orders what is before what is not.
func first(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return -1
	}
	return 1
}
