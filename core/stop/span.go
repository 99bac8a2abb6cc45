package stop

import (
	"cmp"
	"math"
	"slices"
)

// Span is a closed range of shutter times, From ≤ To. Lists of spans are in order
// and apart from each other.
type Span struct{ From, To Shutter }

// Around returns the times from shorter stops below t to longer stops above it.
func Around(t Shutter, shorter, longer Stops) Span { return Span{t.Times(-shorter), t.Times(longer)} }

// Hold reports whether one of the spans holds all of a stretch, their ends included
// within Tolerance of a stop.
func Hold(spans []Span, stretch Span) bool {
	return slices.ContainsFunc(spans, func(s Span) bool { return s.holds(stretch.From) && s.holds(stretch.To) })
}

// slack is Tolerance as a factor: ends are compared without a logarithm.
var slack = Shutter(Stops(Tolerance).Factor())

func (s Span) holds(t Shutter) bool { return t <= s.To*slack && s.From <= t*slack }

// Union returns the times in any of the spans, which may come in any order and
// overlap. It reorders its argument.
func Union(spans []Span) []Span {
	slices.SortFunc(spans, func(a, b Span) int { return cmp.Compare(a.From, b.From) })
	var all []Span
	for _, s := range spans {
		if n := len(all); n > 0 && s.From <= all[n-1].To {
			all[n-1].To = max(all[n-1].To, s.To)
			continue
		}
		all = append(all, s)
	}
	return all
}

// Intersect returns the times in both lists.
func Intersect(a, b []Span) []Span {
	var both []Span
	for i, j := 0, 0; i < len(a) && j < len(b); {
		if s := (Span{max(a[i].From, b[j].From), min(a[i].To, b[j].To)}); s.From <= s.To {
			both = append(both, s)
		}
		if a[i].To < b[j].To {
			i++
		} else {
			j++
		}
	}
	return both
}

// Gap returns how many stops lie between the nearest ends of two lists: 0 where
// they meet, +Inf where either is empty.
func Gap(a, b []Span) Stops {
	gap := Stops(math.Inf(1))
	for _, s := range a {
		for _, u := range b {
			switch {
			case s.To < u.From:
				gap = min(gap, u.From.Over(s.To))
			case u.To < s.From:
				gap = min(gap, s.From.Over(u.To))
			default:
				return 0
			}
		}
	}
	return gap
}

// Nearest returns the time in the spans nearest to t in stops; ok is false where
// there is none.
func Nearest(spans []Span, t Shutter) (near Shutter, ok bool) {
	for _, s := range spans {
		at := min(max(t, s.From), s.To)
		if !ok || at.Over(t).Abs() < near.Over(t).Abs() {
			near, ok = at, true
		}
	}
	return near, ok
}
