package practice

import (
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// Tried is a take as a log has it, for the mistakes that it shows.
type Tried struct {
	Shot       string
	At         time.Time
	IsKept     bool
	Why        string // it was binned: dark, bright, or any word
	Stops      stop.Stops
	FirstRight *bool // the filter that was planned stayed on; nil where none was
}

// Worn is a filter as it was counted, and as a log or a bench knows it.
type Worn struct {
	Label   string
	Counted stop.Stops // by its label
	Known   stop.Stops
	At      time.Time // since when that is known
}

// Mistake is a mistake of the field that a kind of question trains.
type Mistake struct {
	Kind Kind      `json:"kind"`
	At   time.Time `json:"at"`
	// Words say what it was.
	Words string `json:"words"`
}

// otherLanguage is by how much nearer another reading of a label has to be.
const otherLanguage = stop.Stops(1)

// Mistakes finds in takes and filters what a kind of question trains, the latest last: a first
// filter that was wrong; a take after one that was too bright (or dark) with less (or more) before
// the lens; a label read in another language than it is written in.
func Mistakes(takes []Tried, worn []Worn) []Mistake {
	all := []Mistake{}
	sorted := slices.Clone(takes)
	slices.SortStableFunc(sorted, func(a, b Tried) int { return a.At.Compare(b.At) })
	last := map[string]Tried{}
	for _, t := range sorted {
		if t.FirstRight != nil && !*t.FirstRight {
			all = append(all, Mistake{Filter, t.At, "the first filter was wrong"})
		}
		before, has := last[t.Shot]
		more := t.Stops - before.Stops
		if has && !before.IsKept && (before.Why == "bright" && more < -stop.Tolerance || before.Why == "dark" && more > stop.Tolerance) {
			all = append(all, Mistake{Direction, t.At, "changed in the wrong direction"})
		}
		last[t.Shot] = t
	}
	for _, w := range worn {
		label, err := glass.ParseLabel(w.Label)
		if err != nil {
			continue
		}
		off := (w.Known - w.Counted).Abs()
		for _, other := range append([]glass.Reading{label.Reading}, label.Others...) {
			if (w.Known - other.Total()).Abs() < off-otherLanguage {
				all = append(all, Mistake{Labels, w.At, "“" + w.Label + "” was read in another language than it is written in"})
				break
			}
		}
	}
	slices.SortStableFunc(all, func(a, b Mistake) int { return a.At.Compare(b.At) })
	return all
}
