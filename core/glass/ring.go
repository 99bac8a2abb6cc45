package glass

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"pinhole/core/stop"
)

// RingMark is a position marked on the ring of a variable filter, and the stops
// that were measured there.
type RingMark struct {
	Mark  string
	Stops stop.Stops
}

// Ring is the marks of a variable filter from the lightest, two at least where
// there are any.
type Ring []RingMark

// NewRing returns the marks in the order of their stops. ok is false for a single
// mark, and for marks of equal stops: between those the ring says nothing.
func NewRing(marks []RingMark) (r Ring, ok bool) {
	r = slices.Clone(marks)
	slices.SortFunc(r, func(a, b RingMark) int { return cmp.Compare(a.Stops, b.Stops) })
	for i := range r[:max(len(r)-1, 0)] {
		if r[i+1].Stops-r[i].Stops < stop.Tolerance {
			return nil, false
		}
	}
	return r, len(r) != 1
}

// markReach is how near in stops a mark is the place to turn to.
const markReach = stop.Stops(0.08)

var quarters = []string{"", "a quarter of the way", "half way", "three quarters of the way", ""}

// Words says where to turn the ring for so many stops, between the marks in
// proportion; "" without marks.
func (r Ring) Words(want stop.Stops) string {
	if len(r) == 0 {
		return ""
	}
	i := slices.IndexFunc(r, func(m RingMark) bool { return m.Stops >= want })
	if i < 0 {
		return "at " + r[len(r)-1].Mark
	}
	after := r[i]
	before := r[max(i-1, 0)]
	switch {
	case (after.Stops - want).Abs() <= markReach, i == 0:
		return "at " + after.Mark
	case (want - before.Stops).Abs() <= markReach:
		return "at " + before.Mark
	}
	part := float64((want - before.Stops) / (after.Stops - before.Stops))
	switch quarter := int(math.Round(4 * part)); {
	case quarter <= 0:
		return "just past " + before.Mark
	case quarter >= 4:
		return "just before " + after.Mark
	default:
		return fmt.Sprintf("%s from %s to %s", quarters[quarter], before.Mark, after.Mark)
	}
}
