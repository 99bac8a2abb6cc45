package fit

import (
	"fmt"
	"slices"

	"pinhole/core/stop"
)

// Standing says what is known of a filter on a rig. What is not known is never
// good news.
type Standing string

// The standings.
const (
	// Tried: tried by hand, and nothing against it.
	Tried Standing = "tried"
	// Computed: it should seat by its measures, and nobody has tried it.
	Computed Standing = "computed"
	// GoesTight: it goes, with something against it.
	GoesTight Standing = "tight"
	// GoesLoose: it goes on and may come off.
	GoesLoose Standing = "loose"
	// DoesNotGo: it is not to be used on this rig.
	DoesNotGo Standing = "does not go"
	// NotKnown: neither tried nor measured well enough to tell.
	NotKnown Standing = "unknown"
)

// Values returns every Standing there is.
func (Standing) Values() []Standing {
	return []Standing{Tried, Computed, GoesTight, GoesLoose, DoesNotGo, NotKnown}
}

// standings lists them from the best. A known fault weighs more than what is not
// known.
var standings = []Standing{Tried, Computed, NotKnown, GoesTight, GoesLoose, DoesNotGo}

// Worth returns how well a filter that stands so goes on a rig, from 0 to 1; ok is false
// where that is not known.
func (s Standing) Worth() (worth float64, ok bool) {
	switch s {
	case Tried:
		return 1, true
	case Computed:
		return 0.75, true
	case GoesTight:
		return 0.5, true
	case GoesLoose:
		return 0.25, true
	case DoesNotGo:
		return 0, true
	}
	return 0, false
}

// Trial is what trying a filter on a rig found; nil was not looked at.
type Trial struct {
	Seated                                         bool
	Wobbles, Folds, SelfTest, DarkCorners, MarksOn *bool
	// Corner is the loss at the corner in stops, measured from frames.
	Corner *stop.Stops
}

// Evidence is everything known of one filter on one rig. The zero value of each
// field is what is not known.
type Evidence struct {
	// Claimed is true where its owner says that it goes on.
	Claimed bool
	// RigMount and FilterMount say how each of the two holds.
	RigMount, FilterMount Mount
	// Rings are the measured diameters, of mounts that seat by clearance.
	Rings *Rings
	// Trial is what the trials found that still say something about this filter, and
	// Stale why older ones no longer do.
	Trial *Trial
	Stale string
	// InFlight is true where the rig rides on a craft. Hold is the verdict on its
	// pull-off against what pulls at it.
	InFlight bool
	Hold     Verdict
	// Corner is the computed loss at the corner in stops, Black where nothing passes.
	Corner *stop.Stops
	Black  bool
	// FilterG is the filter's mass, PayloadG what the gimbal carries before the lens.
	FilterG, PayloadG float64
	// ThicknessMm is what the filter adds before the barrel, FoldMm the room there
	// when the camera folds, nil for not known.
	ThicknessMm float64
	FoldMm      *float64
}

// Finding is one thing known, and what it comes to.
type Finding struct {
	Standing Standing
	Words    string
}

// darkCorner is the loss from which corners count as dark: a third of a
// stop, which is what people begin to see in a sky.
const darkCorner = stop.Stops(1.0 / 3)

// Judge returns what the evidence comes to and its findings, the one that decides
// first. A trial with the filter in hand outweighs measures; what a trial did not
// look at is filled in from them.
func (e *Evidence) Judge() (Standing, []Finding) {
	findings := append([]Finding{e.seat()}, e.doubts()...)
	slices.SortStableFunc(findings, func(a, b Finding) int {
		return slices.Index(standings, b.Standing) - slices.Index(standings, a.Standing)
	})
	return findings[0].Standing, findings
}

// seat says whether the filter goes on at all.
func (e *Evidence) seat() Finding {
	switch {
	case e.Trial != nil && !e.Trial.Seated:
		return Finding{DoesNotGo, "tested: it does not seat"}
	case e.Trial != nil:
		return Finding{Tried, "tested, no problems"}
	case e.RigMount != "" && e.FilterMount != "" && e.RigMount != e.FilterMount:
		return Finding{DoesNotGo, fmt.Sprintf("a %s filter does not fit a %s mount", e.FilterMount, e.RigMount)}
	}
	f := e.measured()
	if e.Stale != "" {
		f.Words = e.Stale + "; " + f.Words
	}
	return f
}

// measured says what the diameters say.
func (e *Evidence) measured() Finding {
	switch {
	case e.Rings != nil && e.RigMount.SeatsByClearance():
		return e.byClearance()
	case e.Claimed:
		return Finding{NotKnown, "listed as fitting, not tested"}
	}
	return Finding{NotKnown, "not listed for this rig"}
}

func (e *Evidence) byClearance() Finding {
	likely, worst := e.Rings.Likely(), e.Rings.Worst()
	words := fmt.Sprintf("%s by caliper, not tested", worst)
	switch {
	case worst == Snug:
		return Finding{Computed, words}
	case likely != worst && (worst == TooTight || worst == FallsOff):
		return Finding{NotKnown, fmt.Sprintf("%s by caliper, %s at worst: %s", likely, worst, e.Rings.Settle())}
	case worst == TooTight || worst == FallsOff:
		return Finding{DoesNotGo, words}
	case worst == Tight:
		return Finding{GoesTight, words}
	}
	return Finding{GoesLoose, words}
}

// doubts lists what speaks against the filter.
func (e *Evidence) doubts() (all []Finding) {
	add := func(is bool, s Standing, words string) {
		if is {
			all = append(all, Finding{s, words})
		}
	}
	t := e.Trial
	if t == nil {
		t = &Trial{}
	}
	add(is(t.SelfTest, false), DoesNotGo, "gimbal fails its self-test with it on")
	add(is(t.Wobbles, true), GoesLoose, "it wobbles: tether it, or leave it off in flight")
	add(is(t.MarksOn, true), GoesTight, "it leaves marks")
	add(is(t.Folds, false), GoesTight, "the camera does not fold with it on")
	add(t.Folds == nil && e.FoldMm != nil && e.ThicknessMm > *e.FoldMm, GoesTight, fmt.Sprintf("it adds %.1f mm where folding leaves room for %.1f", e.ThicknessMm, deref(e.FoldMm)))
	// What frames show outweighs the eye, and both outweigh what is computed.
	unseen := t.DarkCorners == nil && t.Corner == nil
	add(t.Corner != nil && *t.Corner > darkCorner, GoesTight, fmt.Sprintf("vignetting %.1f stops at the widest (measured)", float64(deref(t.Corner))))
	add(t.Corner == nil && is(t.DarkCorners, true), GoesTight, "vignetting at the widest")
	add(unseen && e.Black, DoesNotGo, "black corners at the widest (computed)")
	add(unseen && e.Corner != nil && *e.Corner > darkCorner, GoesTight, fmt.Sprintf("vignetting %.1f stops at the widest (computed)", float64(deref(e.Corner))))
	over := e.PayloadG > 0 && e.FilterG > e.PayloadG
	add(over && is(t.SelfTest, true), GoesTight, fmt.Sprintf("%.1f g is more than the %.1f g its gimbal is made for", e.FilterG, e.PayloadG))
	add(over && !is(t.SelfTest, true), DoesNotGo, fmt.Sprintf("%.1f g is more than the %.1f g its gimbal carries", e.FilterG, e.PayloadG))
	return append(all, e.hold()...)
}

// noFold reports whether the camera is known not to fold with the filter on: by the trial,
// or else by the room there is.
func (e *Evidence) noFold() bool {
	if e.Trial != nil && e.Trial.Folds != nil {
		return !*e.Trial.Folds
	}
	return e.FoldMm != nil && e.ThicknessMm > *e.FoldMm
}

// hold says what the pull-off comes to. On the ground only a poor hold counts; in
// flight one that was not measured does too.
func (e *Evidence) hold() []Finding {
	switch {
	case e.Hold == DoNotFly && e.InFlight:
		return []Finding{{DoesNotGo, "hold too weak: do not fly with it"}}
	case e.Hold == DoNotFly:
		return []Finding{{GoesLoose, "hold too weak for how this rig is used"}}
	case e.Hold == Tether:
		return []Finding{{GoesTight, "weak hold: tether it"}}
	case e.InFlight && e.Trial != nil && e.Hold != Holds:
		return []Finding{{GoesTight, "hold not measured: tether it, or measure the pull-off"}}
	}
	return nil
}

func is(b *bool, want bool) bool { return b != nil && *b == want }

func deref[T any](p *T) (v T) {
	if p != nil {
		v = *p
	}
	return v
}
