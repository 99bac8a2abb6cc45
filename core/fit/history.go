package fit

import (
	"slices"
	"time"
)

// Event is what happens to a filter in its life.
type Event string

// The events that bear on how it fits.
const (
	Dropped  Event = "dropped"
	Lost     Event = "lost"
	Found    Event = "found"
	Replaced Event = "replaced"
)

// Happening is an event and when it was.
type Happening struct {
	What Event
	At   time.Time
}

// SinceTried says what happened to a filter after it was tried that makes the trial
// worthless, "" for nothing: a filter that was dropped or replaced is another one.
func SinceTried(tried time.Time, history []Happening) string {
	for _, h := range slices.Backward(history) {
		if (h.What == Dropped || h.What == Replaced) && h.At.After(tried) {
			return string(h.What) + " on " + h.At.Format(time.DateOnly) + ", after it was tested"
		}
	}
	return ""
}

// Gone says why a filter cannot be put on anything, "" where it can.
func Gone(isBroken bool, history []Happening) string {
	if isBroken {
		return "it is broken"
	}
	for _, h := range slices.Backward(history) {
		switch h.What {
		case Lost:
			return "lost on " + h.At.Format(time.DateOnly)
		case Found, Replaced:
			return ""
		}
	}
	return ""
}
