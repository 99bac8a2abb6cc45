package learn

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/light"
)

// How far things stray is asked of the log itself from so many blocks on, over a grid.
const (
	blocksLeast  = 5
	furtherPrior = 0.6
	straysPrior  = 0.7
	straysCentre = 0.49 * math.Ln2
)

var tauGrid = []float64{1.5, 3, 6, 12, 24}

var furtherGrid = func() []float64 {
	var all []float64
	for i := -6; i <= 6; i++ {
		all = append(all, math.Exp2(float64(i)/3))
	}
	return all
}()

// assumed is how the light strays where the log says nothing.
func assumed() *swayed {
	s := &swayed{map[light.Sky]float64{}, map[light.Sky]float64{}}
	for _, sky := range light.Sky("").Values() {
		s.variance[sky], s.tauH[sky] = dayVariance(sky), dayTauH
	}
	return s
}

// softened bends a block's misfit down where it is beyond chance.
func softened(misfit float64, n int) float64 {
	most := float64(n) + 3*math.Sqrt(2*float64(n))
	if misfit <= most {
		return misfit
	}
	return most * (1 + math.Log(misfit/most))
}

// skySways finds how far and how long the light strays under each sky that was read often enough.
func (l *log) skySways(first *state) *swayed {
	s := assumed()
	for _, sky := range light.Sky("").Values() {
		var blocks []*block
		var lefts [][]float64
		for _, b := range l.blocks {
			if !b.isScene && b.sky == sky {
				blocks = append(blocks, b)
				lefts = append(lefts, b.left(first.x, func(at int) bool { return l.unknowns[at].kind != strayPlace }))
			}
		}
		if len(blocks) < blocksLeast {
			continue
		}
		var mean weighted
		for _, tau := range tauGrid {
			for _, k := range furtherGrid {
				is := -0.5*square(math.Log2(k)/furtherPrior) - 0.5*square(math.Log2(tau/dayTauH))
				for i, b := range blocks {
					d := newDrift(b.hours, b.noise2(), placeSpread*placeSpread, k*k*dayVariance(sky), tau)
					white := d.whitened(make([]float64, len(lefts[i])), lefts[i])
					is -= 0.5 * (d.logDet() + softened(dot(white, white), len(white))) / b.ageing
				}
				mean.add(is, k*k, math.Log2(tau))
			}
		}
		k2, tau := mean.means()
		s.variance[sky], s.tauH[sky] = k2*dayVariance(sky), math.Exp2(tau)
	}
	return s
}

// strays finds how many times further than assumed each kind of unknown strays.
func (l *log) strays(first *state) [3]float64 {
	further := [3]float64{1, 1, 1}
	if len(l.blocks) < blocksLeast {
		return further
	}
	for kind := range further {
		var own []int
		for i, u := range l.unknowns {
			if u.kind == stray(kind) {
				own = append(own, i)
			}
		}
		if len(own) == 0 {
			continue
		}
		var seen, alone weighted
		for _, g := range furtherGrid {
			before := -0.5 * square((math.Log2(g)+straysCentre)/straysPrior)
			left := mat.NewSymDense(len(l.unknowns), nil)
			left.CopySym(first.left)
			for _, i := range own {
				worth := 1 / square(l.unknowns[i].spread)
				left.SetSym(i, i, left.At(i, i)+worth/(g*g)-worth)
			}
			var factor mat.Cholesky
			var x mat.VecDense
			if !factor.Factorize(left) || factor.SolveVecTo(&x, first.right) != nil {
				continue
			}
			after := before - float64(len(own))*math.Log(g) - 0.5*factor.LogDet() + 0.5*mat.Dot(first.right, &x)
			alone.add(before, g*g, 0)
			seen.add(after, g*g, 0)
		}
		now, _ := seen.means()
		before, _ := alone.means()
		further[kind] = math.Sqrt(now / before)
	}
	return further
}

// weighted gathers values with the logarithms of their weights.
type weighted struct {
	logs []float64
	a, b []float64
}

func (w *weighted) add(log, a, b float64) {
	w.logs, w.a, w.b = append(w.logs, log), append(w.a, a), append(w.b, b)
}

func (w *weighted) means() (a, b float64) {
	most := math.Inf(-1)
	for _, v := range w.logs {
		most = max(most, v)
	}
	sum := 0.0
	for i, v := range w.logs {
		k := math.Exp(v - most)
		sum, a, b = sum+k, a+k*w.a[i], b+k*w.b[i]
	}
	return a / sum, b / sum
}

func square(v float64) float64 { return v * v }
