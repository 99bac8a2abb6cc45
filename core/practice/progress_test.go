package practice_test

import (
	"math"
	"testing"
	"time"

	. "pinhole/core/practice"
	"pinhole/core/stop"
)

var spring = time.Date(2031, 4, 1, 9, 0, 0, 0, time.UTC)

func answered(n int, kind Kind, grade int, isRight bool, seconds float64, c Confidence) []Answered {
	all := make([]Answered, n)
	for i := range all {
		all[i] = Answered{At: spring.Add(time.Duration(i) * time.Minute), Kind: kind, Grade: grade, IsRight: isRight, Seconds: seconds, Confidence: c}
	}
	return all
}

func TestProgress(t *testing.T) {
	all := append(answered(8, Count, 1, true, 4, Sure), answered(8, Labels, 1, false, 9, AGuess)...)
	p, err := TellProgress(ProgressRequest{Answers: all})
	if err != nil {
		t.Fatal(err)
	}
	if len(p.Kinds) != 2 || p.Kinds[0].Grade != 2 || p.Kinds[1].Grade != 1 || p.Kinds[0].Latest != (Stretch{8, 8, 4}) || p.Kinds[0].Before != nil {
		t.Errorf("kinds: %+v", p.Kinds)
	}
	if len(p.Confidence) != 2 || p.Confidence[0] != (ConfidenceShare{Sure, 8, 8}) || p.Confidence[1] != (ConfidenceShare{AGuess, 8, 0}) || p.Eye != nil {
		t.Errorf("confidence: %+v, eye %+v", p.Confidence, p.Eye)
	}
	// A grade that is too hard is left again.
	hard := answered(8, Count, 2, false, 9, Sure)
	for i := range hard {
		hard[i].At = hard[i].At.Add(time.Hour)
	}
	if p, _ = TellProgress(ProgressRequest{Answers: append(all, hard...)}); p.Kinds[0].Grade != 1 {
		t.Errorf("after eight wrong ones the grade is %d", p.Kinds[0].Grade)
	}
}

// The eye grows better: guesses 1.6 stops off in spring are 0.8 off now.
func TestTheEyeGrowsBetter(t *testing.T) {
	var guesses []Guessed
	for i := range 20 {
		off := stop.Stops(1.6)
		if i >= 10 {
			off = 0.8
		}
		if i%2 == 1 {
			off = -off
		}
		guesses = append(guesses, Guessed{At: spring.AddDate(0, 0, 7*i), Off: off})
	}
	p, err := TellProgress(ProgressRequest{Guesses: guesses})
	if err != nil {
		t.Fatal(err)
	}
	if e := p.Eye; math.Abs(float64(e.Latest)-0.8) > 1e-9 || math.Abs(float64(*e.First)-1.6) > 1e-9 || !e.Since.Equal(spring) || math.Abs(float64(e.Bias)) > 1e-9 || e.Of != 20 {
		t.Errorf("the eye: %+v", e)
	}
	if p, _ = TellProgress(ProgressRequest{Guesses: guesses[:2]}); p.Eye != nil {
		t.Error("two guesses tell something")
	}
}

func TestMistakes(t *testing.T) {
	is, not := true, false
	at := func(minutes int) time.Time { return spring.Add(time.Duration(minutes) * time.Minute) }
	got := Mistakes([]Tried{
		{Shot: "a", At: at(0), Why: "bright", Stops: 4, FirstRight: &is},
		{Shot: "b", At: at(1), IsKept: true, Stops: 3},
		{Shot: "a", At: at(5), IsKept: true, Stops: 3}, // less, of what was too bright
		{Shot: "a", At: at(9), Why: "dark", Stops: 6},
		{Shot: "a", At: at(12), IsKept: true, Stops: 4}, // rightly less
		{Shot: "c", At: at(20), IsKept: true, Stops: 4, FirstRight: &not},
	}, []Worn{
		{Label: "ND 2.0", Counted: 6.6, Known: 1.1, At: at(30)}, // counted as a density, and it is a factor
		{Label: "ND8", Counted: 3, Known: 3.4, At: at(31)},      // off, and still what it says
	})
	want := []Kind{Direction, Filter, Labels}
	if len(got) != len(want) {
		t.Fatalf("found %+v", got)
	}
	for i, m := range got {
		if m.Kind != want[i] {
			t.Errorf("%d is %+v, want %s", i, m, want[i])
		}
	}
}
