package take

import (
	"math"

	"gonum.org/v1/gonum/mat"
)

// How a share is found from the gaps that a steady pan leaves in the spectrum (nulls).
const (
	nullsFromPx   = 4.0
	nullsRemove   = 0.2
	nullsFloor    = 0.02
	nullsGroups   = 6
	nullsOfShare  = 0.05
	nullsPerSpeed = 0.1
	nullsMost     = 48 // frames, spread over the clip: of a steady pan more say the same
)

// nullsShare finds the share from single frames that move by four pixels or more.
func (t *tracker) nullsShare(p *path, dropsNear func(int) bool) (e estimate, speed float64) {
	f := t.block
	var at []int // of the frequencies that are looked at
	for k := f.h; k < len(f.weight); k++ {
		fx, fy := f.frequency(k)
		if size := math.Hypot(fx, fy); size >= cellHzLow && size <= cellHzHigh && fx < 0.5 {
			at = append(at, k)
		}
	}
	basis := nullsBasis(f, at)
	var moving []int
	var speeds []float64
	for i, v := range p.velocity {
		if speed := math.Hypot(v.dx, v.dy); speed >= nullsFromPx && !dropsNear(i) {
			moving, speeds = append(moving, i), append(speeds, speed)
		}
	}
	moving = thinned(moving, nullsMost)
	each := make([][]float64, len(moving))
	t.spread(len(moving), func(t *tracker, k int) {
		each[k] = t.nullsLosses(p, moving[k], basis, at)
	})
	losses := make([][]float64, nullsGroups)
	for g := range losses {
		losses[g] = make([]float64, len(shareGrid))
	}
	for k, i := range moving {
		for s, v := range each[k] {
			losses[i*nullsGroups/len(p.frames)][s] += v
		}
	}
	used := len(moving) * len(at)
	if len(speeds) == 0 {
		return e, 0
	}
	speed = median(speeds)
	e = fromLosses(losses, used)
	all := summed(losses, -1)
	least, _ := extremes(all)
	if least > (1-nullsRemove)*all[0] || e.share*speed < nullsFromPx {
		e.ok = false
	}
	e.se = max(e.se, nullsOfShare*e.share+nullsPerSpeed/speed)
	return e, speed
}

// nullsLosses returns what each share leaves of one frame's spectrum.
func (t *tracker) nullsLosses(p *path, i int, basis *mat.Dense, at []int) []float64 {
	v := p.velocity[i]
	mean := t.meanPower(p.frames[i])
	y := make([]float64, len(at))
	for j, k := range at {
		y[j] = math.Log(max(mean[k], 1e-300))
	}
	losses := make([]float64, len(shareGrid))
	shifted := make([]float64, len(at))
	for s, share := range shareGrid {
		for j, k := range at {
			shifted[j] = y[j] - math.Log(smeared(t.block, k, share*v.dx, share*v.dy)+nullsFloor)
		}
		losses[s] = left(basis, shifted)
	}
	return losses
}

// thinned returns at most so many of a list, evenly spread.
func thinned(all []int, most int) []int {
	if len(all) <= most {
		return all
	}
	some := make([]int, most)
	for i := range some {
		some[i] = all[i*len(all)/most]
	}
	return some
}

// meanPower returns the mean power of a frame's blocks, each over its mean of P·f².
func (t *tracker) meanPower(frame int) []float64 {
	f := t.block
	mean := make([]float64, len(f.weight))
	for _, place := range t.places {
		spectrum := t.cutBlock(t.spectra[0], t.frames[frame].linear, place[0], place[1])
		scale, n := 0.0, 0.0
		for k := f.h; k < len(spectrum); k++ {
			fx, fy := f.frequency(k)
			scale += power(spectrum[k]) * (fx*fx + fy*fy)
			n++
		}
		if scale == 0 {
			continue
		}
		for k := range spectrum {
			mean[k] += power(spectrum[k]) * n / scale / float64(len(t.places))
		}
	}
	return mean
}

// smeared returns what a shutter leaves at a frequency, as the window of the block smears it.
func smeared(f *transform, k int, bx, by float64) float64 {
	fx, fy := f.frequency(k)
	sum := 0.0
	for i, wx := range [3]float64{1. / 6, 2. / 3, 1. / 6} {
		for j, wy := range [3]float64{1. / 6, 2. / 3, 1. / 6} {
			sum += wx * wy * sinc2((fx+float64(i-1)/float64(f.w))*bx+(fy+float64(j-1)/float64(f.h))*by)
		}
	}
	return sum
}

// nullsBasis returns an orthonormal basis of the spectra that scenes have: a constant, log f and
// its square, and two orders of direction.
func nullsBasis(f *transform, at []int) *mat.Dense {
	const terms = 6
	a := mat.NewDense(len(at), terms, nil)
	for j, k := range at {
		fx, fy := f.frequency(k)
		l, phi := math.Log(math.Hypot(fx, fy)), math.Atan2(fy, fx)
		a.SetRow(j, []float64{1, l, l * l, math.Cos(2 * phi), math.Sin(2 * phi), math.Cos(4 * phi)})
	}
	var qr mat.QR
	qr.Factorize(a)
	var q mat.Dense
	qr.QTo(&q)
	return mat.DenseCopyOf(q.Slice(0, len(at), 0, terms))
}

// left returns the squares that a basis leaves of values.
func left(basis *mat.Dense, y []float64) float64 {
	v := mat.NewVecDense(len(y), y)
	var inside mat.VecDense
	inside.MulVec(basis.T(), v)
	return mat.Dot(v, v) - mat.Dot(&inside, &inside)
}
