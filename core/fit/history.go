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

// PastTrial is a trial of one filter on one rig, and when it was made.
type PastTrial struct {
	At time.Time
	TrialFields
}

// Join returns what trials, the newest first, found together. The newest says whether the
// filter seats; what it did not look at is what an earlier one saw that seated alike, back to
// when the filter became another one. Where that was after the newest, joined is nil and
// stale says what happened.
func Join(trials []PastTrial, history []Happening) (joined *TrialFields, stale string) {
	for _, t := range trials {
		why := SinceTried(t.At, history)
		switch {
		case joined == nil && why != "":
			return nil, why
		case joined == nil:
			joined = &t.TrialFields
		case why != "" || t.Seated != joined.Seated:
			return joined, ""
		default:
			joined.fillFrom(&t.TrialFields)
		}
	}
	return joined, ""
}

// fillFrom takes what was not looked at from an earlier trial.
func (t *TrialFields) fillFrom(earlier *TrialFields) {
	fill(&t.Wobbles, earlier.Wobbles)
	fill(&t.PullOffG, earlier.PullOffG)
	fill(&t.TiltUpDeg, earlier.TiltUpDeg)
	fill(&t.TiltDownDeg, earlier.TiltDownDeg)
	fill(&t.Folds, earlier.Folds)
	fill(&t.SelfTest, earlier.SelfTest)
	fill(&t.DarkCorners, earlier.DarkCorners)
	fill(&t.MarksLeft, earlier.MarksLeft)
	fill(&t.CornerStops, earlier.CornerStops)
	fill(&t.SharpnessLost, earlier.SharpnessLost)
	fill(&t.Flare, earlier.Flare)
}

func fill[T any](into **T, from *T) {
	if *into == nil {
		*into = from
	}
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
