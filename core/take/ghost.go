package take

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// How blur that no movement explains is found.
const (
	ghostReach      = 2
	ghostHz         = 0.3
	ghostHzPx       = 0.5
	ghostHzLeast    = 0.075 // below, blocks hold no frequencies to go by
	ghostBinsLeast  = 6
	ghostRounds     = 3
	sharpestPart    = 8
	stabilisedPx    = 1.2
	stabilisedTimes = 1.5
	stabilisedPlus  = 0.5
	stabilisedAlike = 0.8
)

// blurred is the blur of one frame: of a movement by b while the shutter was open it is b·bᵀ.
type blurred struct{ xx, xy, yy float64 }

func (b blurred) trace() float64 { return b.xx + b.yy }

// size returns the length of the movement that blurs so, px.
func (b blurred) size() float64 {
	half := (b.xx + b.yy) / 2
	return math.Sqrt(max(half+math.Hypot((b.xx-b.yy)/2, b.xy), 0))
}

// bin is a frequency that blur is read at.
type bin struct {
	at     int // in a spectrum
	fx, fy float64
	size   float64
}

func ghostBins(f *transform) []bin {
	var all []bin
	for k := f.h; k < len(f.weight); k++ {
		fx, fy := f.frequency(k)
		if size := math.Hypot(fx, fy); size <= ghostHz {
			all = append(all, bin{k, fx, fy, size})
		}
	}
	return all
}

// link is the power of the same content at two places of a path, of even and of odd blocks.
type link struct {
	a, c   int
	bins   []bin
	noise  [ringCount]float64
	pa, pc [2][]float64
	blocks [2]float64
}

func newLink(a, c int, bins []bin, noise [ringCount]float64) link {
	l := link{a: a, c: c, bins: bins, noise: noise}
	for k := range l.pa {
		l.pa[k], l.pc[k] = make([]float64, len(bins)), make([]float64, len(bins))
	}
	return l
}

func (l *link) add(half int, fa, fc []complex128, even float64) {
	l.blocks[half]++
	for i, b := range l.bins {
		l.pa[half][i] += power(fa[b.at])
		l.pc[half][i] += power(fc[b.at]) * even
	}
}

// ghostOf returns the blur of each place of the path, against the sharpest eighth of them; halves
// are those of the blocks that are used. Nil where too little tells.
func ghostOf(links []link, places int, halves ...int) []blurred {
	limit := ghostHz
	var blurs []blurred
	for range ghostRounds {
		blurs = blurAgainst(links, places, limit, halves)
		if blurs == nil {
			return nil
		}
		limit = min(ghostHz, max(ghostHzLeast, ghostHzPx/max(sizeOf(blurs), 1e-3)))
	}
	return blurs
}

func sizeOf(blurs []blurred) float64 {
	var all []float64
	for _, b := range blurs {
		all = append(all, b.size())
	}
	return quantile(all, 0.9)
}

// differs returns the blur of the later place less that of the earlier one, and what the figure
// is worth; ok is false where too little tells.
func (l *link) differs(limit float64, halves []int) (d []float64, worth float64, ok bool) {
	normal := newEquations(3)
	n := 0
	for i, b := range l.bins {
		if b.size > limit {
			continue
		}
		var pa, pc, blocks float64
		for _, half := range halves {
			pa, pc, blocks = pa+l.pa[half][i], pc+l.pc[half][i], blocks+l.blocks[half]
		}
		noise := l.noise[ringOf(b.size)] * blocks
		total := pa + pc
		if total <= cellOverNoise*noise || pa <= 2*noise || pc <= 2*noise {
			continue
		}
		n++
		weight := total / (total + 8*noise)
		row := [4]float64{b.fx * b.fx, 2 * b.fx * b.fy, b.fy * b.fy, -3 / (math.Pi * math.Pi) * math.Log((pc-noise)/(pa-noise))}
		normal.add(weight, row[:])
	}
	d, ok = normal.solved()
	return d, mat.Trace(normal.left), ok && n >= ghostBinsLeast
}

// blurAgainst solves for the blur of each place from what pairs of them lose against each other.
func blurAgainst(links []link, places int, limit float64, halves []int) []blurred {
	// A chain of differences, each place against the two after it: one banded system for all three.
	chain := mat.NewSymBandDense(places, min(ghostReach, places-1), nil)
	right := [3]*mat.VecDense{mat.NewVecDense(places, nil), mat.NewVecDense(places, nil), mat.NewVecDense(places, nil)}
	add := func(i, j int, v float64) { chain.SetSymBand(i, j, chain.At(i, j)+v) }
	for i := range places {
		add(i, i, 1e-9) // what is not tied to the rest stands at none
	}
	known := 0
	for i := range links {
		l := &links[i]
		d, worth, ok := l.differs(limit, halves)
		if !ok {
			continue
		}
		known++
		add(l.a, l.a, worth)
		add(l.c, l.c, worth)
		add(l.a, l.c, -worth)
		for k := range right {
			right[k].SetVec(l.a, right[k].AtVec(l.a)-worth*d[k])
			right[k].SetVec(l.c, right[k].AtVec(l.c)+worth*d[k])
		}
	}
	var factored mat.BandCholesky
	if known < places/2 || !factored.Factorize(chain) {
		return nil
	}
	var found [3]mat.VecDense
	for k := range found {
		if factored.SolveVecTo(&found[k], right[k]) != nil {
			return nil
		}
	}
	blurs := make([]blurred, places)
	for i := range blurs {
		blurs[i] = blurred{found[0].AtVec(i), found[1].AtVec(i), found[2].AtVec(i)}
	}
	return againstSharpest(blurs)
}

// againstSharpest takes off the mean blur of the sharpest eighth: softness that is always there is
// not seen.
func againstSharpest(blurs []blurred) []blurred {
	sharpest := slices.SortedFunc(slices.Values(blurs), func(a, b blurred) int { return cmp.Compare(a.trace(), b.trace()) })
	sharpest = sharpest[:max(1, len(blurs)/sharpestPart)]
	var least blurred
	for _, b := range sharpest {
		n := float64(len(sharpest))
		least = blurred{least.xx + b.xx/n, least.xy + b.xy/n, least.yy + b.yy/n}
	}
	for i, b := range blurs {
		blurs[i] = blurred{b.xx - least.xx, b.xy - least.xy, b.yy - least.yy}
	}
	return blurs
}

// alike returns how the blur of even and of odd blocks goes together.
func alike(a, b []blurred) float64 {
	if len(a) == 0 || len(a) != len(b) {
		return 0
	}
	var xs, ys []float64
	for i := range a {
		xs, ys = append(xs, a[i].trace()), append(ys, b[i].trace())
	}
	mx, sx := meanAndSpread(xs)
	my, sy := meanAndSpread(ys)
	if sx == 0 || sy == 0 {
		return 0
	}
	sum := 0.0
	for i := range xs {
		sum += (xs[i] - mx) * (ys[i] - my)
	}
	return sum / float64(len(xs)) / sx / sy
}
