package learn

import (
	"time"

	"pinhole/core/glass"
)

// retakeWithin is how long after a take another one of its shot is the same try.
const retakeWithin = 3 * time.Hour

// Try is a take among the takes and changes of filters of its shot.
type Try struct {
	At    time.Time
	Glass []string // ids of the filters that were on
	// IsTake is false where filters were changed and nothing was shot yet.
	IsTake, IsKept bool
}

// Retaken returns what a take cost beside the one before: how often the filters were changed for
// it, and the minutes since a take of the same shot that had to be done again. before holds what
// was on its shot earlier, in order of time; what was planned is the first of it, where something
// was. Nil is what cannot be told: of the first thing that is known of a shot nothing can.
func Retaken(before []Try, now Try) (swaps, minutesLost *float64) {
	from := 0
	for i, t := range before {
		if t.IsTake {
			from = i
		}
	}
	if len(before) == 0 {
		return nil, nil
	}
	changed, lost := 0.0, 0.0
	on := before[from].Glass
	for _, t := range append(before[from+1:len(before):len(before)], now) {
		if !glass.SameIDs(t.Glass, on) {
			changed++
		}
		on = t.Glass
	}
	if last := before[from]; last.IsTake && !last.IsKept && now.At.Sub(last.At) < retakeWithin {
		lost = now.At.Sub(last.At).Minutes()
	}
	return &changed, &lost
}
