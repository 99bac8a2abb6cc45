package learn

import (
	"testing"
	"time"
)

// What a take cost: each change of filters since the take before, and the time since one that was
// binned.
func TestRetaken(t *testing.T) {
	noon := time.Date(2031, 9, 20, 12, 0, 0, 0, time.UTC)
	at := func(minutes int, isTake, isKept bool, glass ...string) Try {
		return Try{noon.Add(time.Duration(minutes) * time.Minute), glass, isTake, isKept}
	}
	planned := at(-60, false, false, "nd8")
	for name, c := range map[string]struct {
		before      []Try
		now         Try
		swaps, lost float64
	}{
		"as planned":              {[]Try{planned}, at(0, true, true, "nd8"), 0, 0},
		"another than planned":    {[]Try{planned}, at(0, true, true, "nd16"), 1, 0},
		"fitted as planned":       {[]Try{planned, at(-10, false, false, "nd8")}, at(0, true, true, "nd8"), 0, 0},
		"there and back":          {[]Try{planned, at(-10, false, false, "nd16"), at(-5, false, false, "nd8")}, at(0, true, true, "nd8"), 2, 0},
		"binned, then another":    {[]Try{planned, at(0, true, false, "nd8")}, at(7, true, true, "nd16"), 1, 7},
		"kept, then once more":    {[]Try{planned, at(0, true, true, "nd8")}, at(7, true, true, "nd8"), 0, 0},
		"the order is of no note": {[]Try{at(0, true, true, "a", "b")}, at(7, true, true, "b", "a"), 0, 0},
		"binned on another day":   {[]Try{at(-24*60, true, false, "nd8")}, at(0, true, true, "nd8"), 0, 0},
		"before the last take":    {[]Try{planned, at(-20, false, false, "x"), at(-10, true, true, "x")}, at(0, true, true, "x"), 0, 0},
	} {
		swaps, lost := Retaken(c.before, c.now)
		if swaps == nil || lost == nil || *swaps != c.swaps || *lost != c.lost {
			t.Errorf("%s: %v swaps, %v minutes; want %v, %v", name, swaps, lost, c.swaps, c.lost)
		}
	}
	if swaps, lost := Retaken(nil, planned); swaps != nil || lost != nil {
		t.Error("of the first thing that is known something is told")
	}
}
