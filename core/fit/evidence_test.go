package fit

import (
	"math"
	"strings"
	"testing"

	"pinhole/core/stop"
)

func TestJudgeWeighsTrialsAndMeasures(t *testing.T) {
	yes, no := true, false
	seats := func(change func(*Trial)) *Trial {
		trial := &Trial{Seated: true}
		if change != nil {
			change(trial)
		}
		return trial
	}
	rings := func(clearance, width float64) *Rings {
		return &Rings{Barrel: Range{20, 20 + width}, Filter: Range{20 + clearance, 20 + clearance + width}, GaugeMm: 0.01}
	}
	dark, fold := stop.Stops(0.6), 3.0
	tests := []struct {
		name     string
		evidence Evidence
		want     Standing
		words    string
	}{
		{"no problems", Evidence{}, NotKnown, "not listed"},
		{"said only", Evidence{Claimed: true}, NotKnown, "not tested"},
		{"other mount", Evidence{Claimed: true, RigMount: Thread, FilterMount: Magnet}, DoesNotGo, "a magnet filter does not fit a thread mount"},
		{"same thread", Evidence{RigMount: Thread, FilterMount: Thread, Rings: rings(0, 0)}, NotKnown, "not listed"},
		{"snug by measure", Evidence{RigMount: PushOn, Rings: rings(0.02, 0)}, Computed, "snug by caliper"},
		{"tight by measure", Evidence{RigMount: PushOn, Rings: rings(-0.1, 0)}, GoesTight, "tight by caliper"},
		{"loose by measure", Evidence{RigMount: Snap, Rings: rings(0.15, 0)}, GoesLoose, "loose by caliper"},
		{"falls off", Evidence{RigMount: Snap, Rings: rings(0.5, 0), Claimed: true}, DoesNotGo, "falls off by caliper"},
		{"open", Evidence{RigMount: PushOn, Rings: rings(0, 0.3), Claimed: true}, NotKnown, "measure"},
		{"tried beats measures", Evidence{RigMount: PushOn, Rings: rings(0.5, 0), Trial: seats(nil)}, Tried, "no problems"},
		{"tried beats mounts", Evidence{RigMount: Thread, FilterMount: Clip, Trial: seats(nil)}, Tried, "no problems"},
		{"does not seat", Evidence{RigMount: PushOn, Rings: rings(0.02, 0), Trial: &Trial{}}, DoesNotGo, "does not seat"},
		{"wobbles", Evidence{Trial: seats(func(t *Trial) { t.Wobbles, t.MarksOn = &yes, &yes })}, GoesLoose, "wobbles"},
		{"self-test", Evidence{Trial: seats(func(t *Trial) { t.SelfTest, t.Wobbles = &no, &yes })}, DoesNotGo, "self-test"},
		{"dropped since", Evidence{Claimed: true, Stale: "dropped on 2031-09-02"}, NotKnown, "dropped on 2031-09-02; listed as fitting"},
		{"ring in the corners", Evidence{Trial: seats(nil), Corner: &dark}, GoesTight, "0.6 stops"},
		{"seen to be clean", Evidence{Trial: seats(func(t *Trial) { t.DarkCorners = &no }), Corner: &dark}, Tried, "no problems"},
		{"corners from frames", Evidence{Trial: seats(func(t *Trial) { t.Corner = &dark })}, GoesTight, "0.6 stops at the widest (measured)"},
		{"frames outweigh eye and rings", Evidence{Trial: seats(func(t *Trial) { t.Corner, t.DarkCorners = new(stop.Stops), &yes }), Corner: &dark, Black: true}, Tried, "no problems"},
		{"black corners", Evidence{RigMount: PushOn, Rings: rings(0.02, 0), Black: true}, DoesNotGo, "black corners"},
		{"thick", Evidence{Trial: seats(nil), ThicknessMm: 4, FoldMm: &fold}, GoesTight, "folding leaves room for 3.0"},
		{"thick, but folds", Evidence{Trial: seats(func(t *Trial) { t.Folds = &yes }), ThicknessMm: 4, FoldMm: &fold}, Tried, "no problems"},
		{"heavy", Evidence{Trial: seats(nil), FilterG: 5, PayloadG: 4}, DoesNotGo, "carries"},
		{"heavy, passes", Evidence{Trial: seats(func(t *Trial) { t.SelfTest = &yes }), FilterG: 5, PayloadG: 4}, GoesTight, "made for"},
		{"weak in flight", Evidence{Trial: seats(nil), InFlight: true, Hold: DoNotFly}, DoesNotGo, "do not fly"},
		{"weak by hand", Evidence{Trial: seats(nil), Hold: DoNotFly}, GoesLoose, "too weak"},
		{"tether", Evidence{Trial: seats(nil), InFlight: true, Hold: Tether}, GoesTight, "tether"},
		{"holds", Evidence{Trial: seats(nil), InFlight: true, Hold: Holds}, Tried, "no problems"},
		{"flies, hold not measured", Evidence{Trial: seats(nil), InFlight: true, Hold: Unknown}, GoesTight, "not measured"},
		{"walks, hold not measured", Evidence{Trial: seats(nil), Hold: Unknown}, Tried, "no problems"},
	}
	for _, test := range tests {
		got, findings := test.evidence.Judge()
		if got != test.want || findings[0].Standing != got || !strings.Contains(findings[0].Words, test.words) {
			t.Errorf("%s: %s, %+v, want %s saying %q", test.name, got, findings, test.want, test.words)
		}
	}
}

// Whatever is not known, nothing is called tried without a trial, nor computed
// without measures.
func TestUnknownIsNeverGood(t *testing.T) {
	for _, claimed := range []bool{true, false} {
		for _, mount := range []Mount{"", PushOn, Magnet} {
			for _, flies := range []bool{true, false} {
				e := Evidence{Claimed: claimed, RigMount: mount, FilterMount: mount, InFlight: flies, Hold: Unknown}
				if s, _ := e.Judge(); s != NotKnown {
					t.Errorf("%+v is %s", e, s)
				}
			}
		}
	}
}

// What holds well on one barrel of a camera holds well on its other: the clearance is that
// of the barrel it was tried on, and a trial on the rig itself comes first.
func TestTheReferenceIsSharedByTheRigsOfACamera(t *testing.T) {
	still, shakes := false, true
	frame, cage := &Range{21.02, 21.04}, &Range{24.00, 24.02}
	tried := []TriedRing{
		{RigID: "frame", FilterID: "wobbly", Seated: true, Wobbles: &shakes, Barrel: frame, Seat: &Range{21.2, 21.2}},
		{RigID: "frame", FilterID: "good", Seated: true, Wobbles: &still, Barrel: frame, Seat: &Range{21.07, 21.09}},
		{RigID: "frame", FilterID: "again", Seated: false, Barrel: frame, Seat: &Range{21, 21}},
		{RigID: "frame", FilterID: "again", Seated: true, Wobbles: &still, Barrel: frame, Seat: &Range{21, 21}},
	}
	if got := ReferenceFor("cage", "", tried); got == nil || got.FilterID != "good" || math.Abs(got.ClearanceMm-0.05) > 1e-9 {
		t.Errorf("from the other rig: %+v", got)
	}
	if got := ReferenceFor("cage", "good", tried); got != nil {
		t.Errorf("a filter says of itself %+v", got)
	}
	own := append(tried, TriedRing{RigID: "cage", FilterID: "own", Seated: true, Wobbles: &still, Barrel: cage, Seat: &Range{24.0, 24.02}})
	if got := ReferenceFor("cage", "", own); got == nil || got.FilterID != "own" || got.ClearanceMm != 0 {
		t.Errorf("with a trial of its own: %+v", got)
	}
}

// A loose ring has its remedies, each with its caution, and those that ruin lenses are not
// advised.
func TestALooseRingIsAdvised(t *testing.T) {
	seat := func(inFlight bool) *SeatAnswer {
		a, err := Seat(SeatRequest{Rig: RigFields{Mount: PushOn, BarrelMm: []float64{21, 21}}, InFlight: inFlight, Claimed: true, Glass: []SeatedGlass{{Body: Body{Mount: PushOn, SeatMm: []float64{21.15, 21.15}}}}})
		if err != nil {
			t.Fatal(err)
		}
		return a
	}
	a := seat(true)
	if len(a.Advice) != 5 || a.Advice[0].IsNamed || !a.Advice[4].IsNamed || !strings.Contains(a.Advice[0].Caution, "props") {
		t.Errorf("advised is %+v", a.Advice)
	}
	for _, advice := range seat(false).Advice {
		if advice.Caution == "" {
			t.Errorf("%q has no caution", advice.Do)
		}
	}
	snug, err := Seat(SeatRequest{Rig: RigFields{Mount: PushOn, BarrelMm: []float64{21, 21}}, Glass: []SeatedGlass{{Body: Body{Mount: PushOn, SeatMm: []float64{21, 21}}}}})
	if err != nil || snug.Advice != nil {
		t.Errorf("a snug ring is advised %+v, %v", snug.Advice, err)
	}
}

// What lives on the lens weighs as much as what is put on.
func TestAllGlassOnACraftWeighsTogether(t *testing.T) {
	bare, limit, weight := 246.2, 249.0, 1.6
	a, err := Seat(SeatRequest{Rig: RigFields{Mount: Snap, BareG: &bare, LimitG: &limit}, Glass: []SeatedGlass{{WeightG: &weight}}, AlsoG: []float64{1.5}})
	if err != nil || a.Mass == nil || a.Mass.Within || math.Abs(a.Mass.TotalG-249.3) > 1e-9 {
		t.Errorf("all up %+v, %v", a.Mass, err)
	}
}
