package glass

import (
	"math"
	"math/rand/v2"
	"testing"
)

func TestCompareSets(t *testing.T) {
	all := func(fit, truth, tint, corners, flare, sharpness, mass, cased, price float64) Figures {
		return Figures{ByFit: fit, ByTruth: truth, ByTint: tint, ByCorners: corners, ByFlare: flare, BySharpness: sharpness, ByMass: mass, ByCase: cased, ByPrice: price}
	}
	good, bad := all(1, 0, 0, 0, 0, 0, 4, 1, 90), all(0.5, 0.5, 0.4, 0.5, 2, 20, 8, 0, 30)
	c := CompareSets([]Figures{bad, good}, DefaultWeights())
	if c.Ahead != 1 || c.Scores[1].Least != c.Scores[1].Most {
		t.Errorf("the better set is not ahead: %+v", c)
	}
	if got := c.Worth[0][ByMass]; got != 0.5 {
		t.Errorf("twice the mass is worth %v", got)
	}
	// By price alone the other one is.
	if c := CompareSets([]Figures{bad, good}, map[Criterion]float64{ByPrice: 1}); c.Ahead != 0 || math.Abs(c.Scores[1].Most-1.0/3) > 1e-12 {
		t.Errorf("by price: %+v", c)
	}
	// What is not known is not average: the set with a hole may be either.
	delete(good, ByFit)
	weights := DefaultWeights()
	weights[ByFit] = 20
	c = CompareSets([]Figures{bad, good}, weights)
	if c.Ahead != -1 || c.AskOf != 1 || c.Ask != ByFit {
		t.Errorf("with the fit not known: %+v", c)
	}
	if gap := c.Scores[1].Most - c.Scores[1].Least; math.Abs(gap-20/30.5) > 1e-12 {
		t.Errorf("the hole is worth %v, want its weight", gap)
	}
	if c := CompareSets([]Figures{all(1, 0, 0, 0, 0, 0, 1, 1, 1), all(1, 0, 0, 0, 0, 0, 1, 1, 1)}, DefaultWeights()); c.Ahead != -1 || c.AskOf != -1 {
		t.Errorf("equal sets: %+v", c)
	}
}

// Measuring what was not known never leads outside of the score that stood before.
func TestScoresBoundWhatMayCome(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 1))
	for range 500 {
		known := []Figures{{}, {}}
		for i := range known {
			for _, k := range Criteria() {
				if random.Float64() < 0.5 && k != ByMass && k != ByPrice { // whose worth depends on the other's
					known[i][k] = random.Float64() * 2
				}
			}
		}
		before := CompareSets(known, DefaultWeights())
		for i := range known {
			for _, k := range Criteria() {
				if _, is := known[i][k]; !is {
					known[i][k] = random.Float64() * 2
				}
			}
		}
		after := CompareSets(known, DefaultWeights())
		for i := range known {
			if s := after.Scores[i]; s.Least < before.Scores[i].Least-1e-9 || s.Most > before.Scores[i].Most+1e-9 {
				t.Fatalf("from %+v to %+v", before.Scores[i], s)
			}
		}
	}
}
