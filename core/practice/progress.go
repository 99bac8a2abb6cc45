package practice

import (
	"math"
	"slices"
	"time"

	"pinhole/core/stop"
)

// Confidence is how sure somebody was of an answer.
type Confidence string

// How sure one can be.
const (
	Sure    Confidence = "sure"
	ThinkSo Confidence = "think-so"
	AGuess  Confidence = "guess"
)

// Values returns every Confidence there is.
func (Confidence) Values() []Confidence { return []Confidence{Sure, ThinkSo, AGuess} }

// Answered is a question that was answered.
type Answered struct {
	At         time.Time  `json:"at"`
	Kind       Kind       `json:"kind"`
	Grade      int        `json:"grade" minimum:"1" maximum:"3"`
	Seed       int        `json:"seed" minimum:"0" maximum:"4294967295"`
	IsRight    bool       `json:"right"`
	Off        *float64   `json:"off,omitempty" minimum:"-10000" maximum:"10000" doc:"how far off, in the unit of the kind"`
	Seconds    float64    `json:"seconds" minimum:"0" maximum:"86400" doc:"until it was answered"`
	Confidence Confidence `json:"confidence"`
}

// Guessed is light that was guessed before it was read.
type Guessed struct {
	At  time.Time  `json:"at"`
	Off stop.Stops `json:"offStops" minimum:"-60" maximum:"60" doc:"guessed less read"`
}

// ProgressRequest asks how practice goes.
type ProgressRequest struct {
	Answers []Answered `json:"answers" maxItems:"20000"`
	Guesses []Guessed  `json:"guesses,omitempty" maxItems:"5000"`
}

// Progress is how practice goes.
type Progress struct {
	Kinds      []KindProgress    `json:"kinds" doc:"that were practised"`
	Confidence []ConfidenceShare `json:"confidence" doc:"whether it was right to be so sure"`
	Eye        *EyeProgress      `json:"eye,omitempty" doc:"how far guesses of light are off; left out before the first few"`
}

// KindProgress is how questions of a kind go: the latest beside those before.
type KindProgress struct {
	Kind   Kind     `json:"kind"`
	Asked  int      `json:"asked"`
	Latest Stretch  `json:"latest"`
	Before *Stretch `json:"before,omitempty" doc:"the first ones, once there are as many again"`
	Grade  int      `json:"grade" doc:"that fits now"`
}

// Stretch is a row of answers.
type Stretch struct {
	Of      int     `json:"of"`
	Right   int     `json:"right"`
	Seconds float64 `json:"seconds" doc:"half were faster"`
}

// ConfidenceShare is how often answers were right that somebody was so sure of.
type ConfidenceShare struct {
	Confidence Confidence `json:"confidence"`
	Of         int        `json:"of"`
	Right      int        `json:"right"`
}

// EyeProgress is how far guesses are off, root mean square, and how far on the average.
type EyeProgress struct {
	Of     int         `json:"of"`
	Latest stop.Stops  `json:"latestStops"`
	Bias   stop.Stops  `json:"biasStops" doc:"of the latest, positive for too bright"`
	First  *stop.Stops `json:"firstStops,omitempty" doc:"of the first ones, once there are as many again"`
	Since  *time.Time  `json:"since,omitempty" doc:"when those were"`
}

const (
	stretch      = 20 // answers that are looked at together
	guessStretch = 10 // guesses
	guessLeast   = 3
	// A grade fits until so many of its last few answers are right.
	gradeLooks = 8
	gradeRight = 7
	gradeWrong = 3
)

// TellProgress answers progress.
func TellProgress(r ProgressRequest) (*Progress, error) {
	answers := slices.Clone(r.Answers)
	slices.SortStableFunc(answers, func(a, b Answered) int { return a.At.Compare(b.At) })
	p := &Progress{Kinds: []KindProgress{}, Confidence: []ConfidenceShare{}}
	for _, kind := range Kind("").Values() {
		of := slices.DeleteFunc(slices.Clone(answers), func(a Answered) bool { return a.Kind != kind })
		if len(of) == 0 {
			continue
		}
		k := KindProgress{Kind: kind, Asked: len(of), Latest: stretchOf(of[max(0, len(of)-stretch):]), Grade: fitting(of)}
		if len(of) >= 2*stretch {
			before := stretchOf(of[:stretch])
			k.Before = &before
		}
		p.Kinds = append(p.Kinds, k)
	}
	for _, c := range Confidence("").Values() {
		share := ConfidenceShare{Confidence: c}
		for _, a := range answers {
			if a.Confidence == c {
				share.Of++
				if a.IsRight {
					share.Right++
				}
			}
		}
		if share.Of > 0 {
			p.Confidence = append(p.Confidence, share)
		}
	}
	p.Eye = eyeOf(r.Guesses)
	return p, nil
}

func stretchOf(of []Answered) Stretch {
	s := Stretch{Of: len(of)}
	var seconds []float64
	for _, a := range of {
		if a.IsRight {
			s.Right++
		}
		seconds = append(seconds, a.Seconds)
	}
	slices.Sort(seconds)
	s.Seconds = (seconds[(len(seconds)-1)/2] + seconds[len(seconds)/2]) / 2
	return s
}

// fitting returns the grade that fits who answered so: one up after seven right of the last eight of
// a grade, one down after fewer than four.
func fitting(of []Answered) int {
	grade := 1
	var looked []bool
	for _, a := range of {
		if a.Grade != grade {
			continue
		}
		looked = append(looked, a.IsRight)
		if len(looked) < gradeLooks {
			continue
		}
		right := 0
		for _, is := range looked[len(looked)-gradeLooks:] {
			if is {
				right++
			}
		}
		switch {
		case right >= gradeRight && grade < Grades:
			grade, looked = grade+1, nil
		case right <= gradeWrong && grade > 1:
			grade, looked = grade-1, nil
		}
	}
	return grade
}

func eyeOf(guesses []Guessed) *EyeProgress {
	if len(guesses) < guessLeast {
		return nil
	}
	sorted := slices.Clone(guesses)
	slices.SortStableFunc(sorted, func(a, b Guessed) int { return a.At.Compare(b.At) })
	off := func(of []Guessed) (rms, mean stop.Stops) {
		sum, squares := 0.0, 0.0
		for _, g := range of {
			sum += float64(g.Off)
			squares += float64(g.Off) * float64(g.Off)
		}
		n := float64(len(of))
		return stop.Stops(math.Sqrt(squares / n)), stop.Stops(sum / n)
	}
	e := &EyeProgress{Of: len(sorted)}
	e.Latest, e.Bias = off(sorted[max(0, len(sorted)-guessStretch):])
	if len(sorted) >= 2*guessStretch {
		first, _ := off(sorted[:guessStretch])
		e.First, e.Since = &first, &sorted[0].At
	}
	return e
}
