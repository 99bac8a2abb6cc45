package glass

import (
	"math"
	"slices"
)

// Criterion is one thing by which sets of filters are compared.
type Criterion string

// The criteria.
const (
	ByFit       Criterion = "fit"       // how well its filters go on the rig, 0 to 1
	ByTruth     Criterion = "truth"     // mean of how far its filters are off what is printed, stops
	ByTint      Criterion = "tint"      // the strongest cast of its filters, stops
	ByCorners   Criterion = "corners"   // the darkest corners, stops
	ByFlare     Criterion = "flare"     // the worst flare as judged, 0 none to 3 heavy
	BySharpness Criterion = "sharpness" // the most sharpness lost, per cent
	ByMass      Criterion = "mass"      // of all its filters, grams
	ByCase      Criterion = "case"      // share of its filters that have a slot, 0 to 1
	ByPrice     Criterion = "price"     // of all of it
)

// scale says how a figure becomes a worth from 0 to 1: a share is one already; up to
// worst the worth falls from 1 to 0; a ratio is the least figure over this one.
type scale struct {
	worst   float64
	isShare bool
}

// scales gives each criterion's scale, and so lists them. The worst are rules of
// ours: what makes people leave a filter at home.
var scales = map[Criterion]scale{
	ByFit: {isShare: true}, ByCase: {isShare: true},
	ByTruth: {worst: 2.0 / 3}, ByTint: {worst: 0.5}, ByCorners: {worst: 1}, ByFlare: {worst: 3}, BySharpness: {worst: 30},
	ByMass: {}, ByPrice: {},
}

// Criteria returns the criteria in the order in which they are asked.
func Criteria() []Criterion {
	return []Criterion{ByFit, ByTruth, ByTint, ByCorners, ByFlare, BySharpness, ByMass, ByCase, ByPrice}
}

// DefaultWeights say how much each criterion counts until somebody says otherwise.
func DefaultWeights() map[Criterion]float64 {
	return map[Criterion]float64{ByFit: 3, ByTruth: 2, ByTint: 2, ByCorners: 2, ByFlare: 1, BySharpness: 1, ByMass: 1, ByCase: 0.5, ByPrice: 1}
}

// Figures are what is known of a set. What is missing is not known.
type Figures map[Criterion]float64

// Score is what a set is worth in all, from 0 to 1: at the least if everything not
// known turns out badly, at the most if all of it turns out well.
type Score struct{ Least, Most float64 }

// Comparison is how sets stand against each other.
type Comparison struct {
	Scores []Score
	// Worth is what each known figure is worth, by set.
	Worth []map[Criterion]float64
	// Ahead is the set that is ahead whatever the unknown turns out to be, −1 where
	// none is.
	Ahead int
	// Ask is the set and the criterion whose measuring would tell most, where none is
	// ahead; AskOf is −1 where nothing is left to measure.
	AskOf int
	Ask   Criterion
}

// CompareSets weighs sets by figures. Weights are at least 0; one of them is above.
// A figure that is not known counts as unknown, from 0 to 1, and never as average;
// one of mass or price that comes later and is the least takes worth from the others.
func CompareSets(sets []Figures, weights map[Criterion]float64) Comparison {
	c := Comparison{Ahead: -1, AskOf: -1}
	total := 0.0
	for _, k := range Criteria() {
		total += weights[k]
	}
	for _, figures := range sets {
		worth, score := map[Criterion]float64{}, Score{}
		for _, k := range Criteria() {
			share := weights[k] / total
			figure, isKnown := figures[k]
			if !isKnown {
				score.Most += share
				continue
			}
			worth[k] = worthOf(k, figure, sets)
			score.Least += share * worth[k]
			score.Most += share * worth[k]
		}
		c.Worth, c.Scores = append(c.Worth, worth), append(c.Scores, score)
	}
	for i := range sets {
		if !slices.ContainsFunc(others(c.Scores, i), func(s Score) bool { return s.Most >= c.Scores[i].Least }) {
			c.Ahead = i
		}
	}
	if c.Ahead < 0 {
		c.ask(sets, weights)
	}
	return c
}

func worthOf(k Criterion, figure float64, sets []Figures) float64 {
	switch s := scales[k]; {
	case s.isShare:
		return min(max(figure, 0), 1)
	case s.worst > 0:
		return 1 - min(max(figure/s.worst, 0), 1)
	}
	least := math.Inf(1)
	for _, f := range sets {
		if v, ok := f[k]; ok {
			least = min(least, v)
		}
	}
	if figure <= 0 { // free, or weighing nothing: as good as it gets
		return 1
	}
	return max(least, 0) / figure
}

func others(scores []Score, i int) []Score {
	return append(slices.Clone(scores[:i]), scores[i+1:]...)
}

// ask finds the heaviest unknown figure of the sets that may still win.
func (c *Comparison) ask(sets []Figures, weights map[Criterion]float64) {
	bar := 0.0
	for _, s := range c.Scores {
		bar = max(bar, s.Least)
	}
	heaviest := 0.0
	for i, figures := range sets {
		if c.Scores[i].Most < bar {
			continue
		}
		for _, k := range Criteria() {
			if _, isKnown := figures[k]; !isKnown && weights[k] > heaviest {
				heaviest, c.AskOf, c.Ask = weights[k], i, k
			}
		}
	}
}
