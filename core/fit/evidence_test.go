package fit

import (
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
		{"nothing", Evidence{}, NotKnown, "nobody says"},
		{"said only", Evidence{Claimed: true}, NotKnown, "never tried"},
		{"other mount", Evidence{Claimed: true, RigMount: Thread, FilterMount: Magnet}, DoesNotGo, "a magnet filter does not go on a thread mount"},
		{"same thread", Evidence{RigMount: Thread, FilterMount: Thread, Rings: rings(0, 0)}, NotKnown, "nobody says"},
		{"snug by measure", Evidence{RigMount: PushOn, Rings: rings(0.02, 0)}, Computed, "snug by its measures"},
		{"tight by measure", Evidence{RigMount: PushOn, Rings: rings(-0.1, 0)}, GoesTight, "tight by its measures"},
		{"loose by measure", Evidence{RigMount: Snap, Rings: rings(0.15, 0)}, GoesLoose, "loose by its measures"},
		{"falls off", Evidence{RigMount: Snap, Rings: rings(0.5, 0), Claimed: true}, DoesNotGo, "falls off by its measures"},
		{"open", Evidence{RigMount: PushOn, Rings: rings(0, 0.3), Claimed: true}, NotKnown, "measure"},
		{"tried beats measures", Evidence{RigMount: PushOn, Rings: rings(0.5, 0), Trial: seats(nil)}, Tried, "nothing against it"},
		{"tried beats mounts", Evidence{RigMount: Thread, FilterMount: Clip, Trial: seats(nil)}, Tried, "nothing against it"},
		{"does not seat", Evidence{RigMount: PushOn, Rings: rings(0.02, 0), Trial: &Trial{}}, DoesNotGo, "does not seat"},
		{"wobbles", Evidence{Trial: seats(func(t *Trial) { t.Wobbles, t.MarksOn = &yes, &yes })}, GoesLoose, "wobbles"},
		{"self-test", Evidence{Trial: seats(func(t *Trial) { t.SelfTest, t.Wobbles = &no, &yes })}, DoesNotGo, "self-test"},
		{"dropped since", Evidence{Claimed: true, Stale: "dropped on 2031-09-02"}, NotKnown, "dropped on 2031-09-02; said to go on"},
		{"ring in the corners", Evidence{Trial: seats(nil), Corner: &dark}, GoesTight, "0.6 stops"},
		{"seen to be clean", Evidence{Trial: seats(func(t *Trial) { t.DarkCorners = &no }), Corner: &dark}, Tried, "nothing against it"},
		{"black corners", Evidence{RigMount: PushOn, Rings: rings(0.02, 0), Black: true}, DoesNotGo, "blacks out"},
		{"thick", Evidence{Trial: seats(nil), ThicknessMm: 4, FoldMm: &fold}, GoesTight, "folding leaves room for 3.0"},
		{"thick, but folds", Evidence{Trial: seats(func(t *Trial) { t.Folds = &yes }), ThicknessMm: 4, FoldMm: &fold}, Tried, "nothing"},
		{"heavy", Evidence{Trial: seats(nil), FilterG: 5, PayloadG: 4}, DoesNotGo, "carries"},
		{"heavy, passes", Evidence{Trial: seats(func(t *Trial) { t.SelfTest = &yes }), FilterG: 5, PayloadG: 4}, GoesTight, "made for"},
		{"weak in flight", Evidence{Trial: seats(nil), InFlight: true, Hold: DoNotFly}, DoesNotGo, "do not fly"},
		{"weak by hand", Evidence{Trial: seats(nil), Hold: DoNotFly}, GoesLoose, "too weak"},
		{"tether", Evidence{Trial: seats(nil), InFlight: true, Hold: Tether}, GoesTight, "tether"},
		{"holds", Evidence{Trial: seats(nil), InFlight: true, Hold: Holds}, Tried, "nothing"},
		{"flies, hold not measured", Evidence{Trial: seats(nil), InFlight: true, Hold: Unknown}, GoesTight, "not measured"},
		{"walks, hold not measured", Evidence{Trial: seats(nil), Hold: Unknown}, Tried, "nothing"},
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
