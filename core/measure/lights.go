package measure

import (
	"math"
	"slices"
)

// least is light below which nothing is told apart: it keeps logarithms finite.
const least = 1e-9

// lights is many numbers that are not negative, as the light of pixels, of which percentiles
// are asked. They are sorted by the halves of their bits, which are in the order of the numbers.
type lights struct {
	all    []float32
	coarse []int // how many there are by their upper 16 bits
	sum    float64
}

func newLights(n int) *lights {
	return &lights{all: make([]float32, 0, n), coarse: make([]int, 1<<16)}
}

func (l *lights) add(v float64) {
	f := float32(v)
	l.all = append(l.all, f)
	l.coarse[math.Float32bits(f)>>16]++
	l.sum += v
}

// percentile returns the ⌈q·n⌉-th smallest.
func (l *lights) percentile(q float64) float64 {
	rank := max(1, int(math.Ceil(q*float64(len(l.all)))))
	upper := 0
	for before := 0; ; upper++ {
		if before+l.coarse[upper] >= rank {
			rank -= before
			break
		}
		before += l.coarse[upper]
	}
	fine := make([]int, 1<<16)
	for _, v := range l.all {
		if bits := math.Float32bits(v); int(bits>>16) == upper {
			fine[bits&0xffff]++
		}
	}
	for lower, before := 0, 0; ; lower++ {
		if before += fine[lower]; before >= rank {
			return float64(math.Float32frombits(uint32(upper)<<16 | uint32(lower)))
		}
	}
}

// Blocks over which evenness is judged, and what of them is left aside at each end: a speck
// or a reflection is not the light.
const (
	evenColumns, evenRows = 12, 8
	asidePart             = 0.03
)

// cv returns the deviation over the mean of the light of 12 by 8 blocks of an area.
func (p *picture) cv(a area) float64 { return cvOf(a, p.meanLuminance) }

func cvOf(a area, mean func(area) float64) float64 {
	var all []float64
	a.blocks(evenColumns, evenRows, func(_, _ int, block area) { all = append(all, mean(block)) })
	slices.Sort(all)
	aside := int(asidePart * float64(len(all)))
	middle, deviation := spread(all[aside : len(all)-aside])
	if middle == 0 {
		return 0
	}
	return deviation / middle
}

// spread returns the mean and the standard deviation of some numbers, which are all there are.
func spread(all []float64) (mean, deviation float64) {
	for _, v := range all {
		mean += v
	}
	mean /= float64(max(1, len(all)))
	for _, v := range all {
		deviation += (v - mean) * (v - mean)
	}
	return mean, math.Sqrt(deviation / float64(max(1, len(all))))
}
