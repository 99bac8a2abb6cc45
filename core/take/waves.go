package take

import (
	"math"
	"math/cmplx"
)

// How waves over time and rows are found: light that flickers, a picture that wobbles.
const (
	stripRows     = 12
	segmentPx     = 40
	sheetStep     = 2 // px across: neighbours say the same
	wavePeakTimes = 300
	waveVariance  = 0.4
	waveStands    = 0.2 // radians a frame
	depthLeast    = 0.004
	beatLeastHz   = 3.0
	bandsFew      = 0.3
	bandsOfWobble = 0.5
	fewestPairs   = 6
	bandsStep     = 0.1
	wobbleShakes  = 0.25 // px, from which a share cannot be told
)

// sheet is one value for each pair of neighbours and each strip of rows.
type sheet struct {
	t      []float64   // when each pair begins, in frames
	y      []float64   // the middle of each strip, as a share of the height
	values [][]float64 // by pair
	// isLevelled says that a line in y was taken off each pair.
	isLevelled bool
}

// wave is one wave over a sheet: by a turn from frame to frame and bands down the picture.
type wave struct {
	turn      float64 // radians a frame, within half a turn
	bands     float64
	amplitude float64 // of the differences from frame to frame
	peak      float64 // power, over the median of all
	share     float64 // of the variance
	floor     float64 // the amplitude that would be found
}

// swing returns the amplitude of what makes such differences.
func (w *wave) swing(of float64) float64 { return of / max(2*math.Abs(math.Sin(w.turn/2)), 1e-3) }

func (w *wave) isFound() bool { return w.peak >= wavePeakTimes && w.share >= waveVariance }

// strongest finds the strongest wave of a sheet, nil where it is too small.
func (s *sheet) strongest(fewestBands float64) *wave {
	n := len(s.t)
	if n < fewestPairs || len(s.y) < 4 {
		return nil
	}
	span := s.t[n-1] - s.t[0] + 1
	most := float64(len(s.y)) / 2
	turns := int(math.Ceil(4 * span))
	var powers []float64
	best := wave{}
	bestPower := -1.0
	down := make([]complex128, n)
	for bands := fewestBands; bands <= most; bands += bandsStep {
		for p := range s.values {
			down[p] = 0
			for i, v := range s.values[p] {
				down[p] += complex(v, 0) * cmplx.Exp(complex(0, -2*math.Pi*bands*s.y[i]))
			}
		}
		for k := range turns {
			turn := 2*math.Pi*float64(k)/float64(turns) - math.Pi
			var c complex128
			for p, d := range down {
				c += d * cmplx.Exp(complex(0, -turn*s.t[p]))
			}
			power := real(c)*real(c) + imag(c)*imag(c)
			powers = append(powers, power)
			if power > bestPower {
				bestPower, best.turn, best.bands = power, turn, bands
			}
		}
	}
	count := float64(n * len(s.y))
	floor := median(powers)
	best.peak = bestPower / max(floor, 1e-300)
	best.floor = 2 * math.Sqrt(wavePeakTimes*floor) / count
	s.refine(&best, 2*math.Pi/float64(turns), fewestBands)
	return &best
}

// refine moves a wave to where it explains most of the variance, and fits its amplitude there.
func (s *sheet) refine(w *wave, turnStep, fewestBands float64) {
	w.amplitude, w.share = s.explains(w.turn, w.bands)
	dt, db := turnStep/2, bandsStep/2
	for range 24 {
		moved := false
		for _, by := range [4][2]float64{{dt, 0}, {-dt, 0}, {0, db}, {0, -db}} {
			turn, bands := w.turn+by[0], max(w.bands+by[1], fewestBands)
			if a, share := s.explains(turn, bands); share > w.share {
				w.turn, w.bands, w.amplitude, w.share, moved = turn, bands, a, share, true
			}
		}
		if !moved {
			dt, db = dt/2, db/2
		}
	}
	w.turn = math.Remainder(w.turn, 2*math.Pi)
}

// explains fits one wave and returns its amplitude and the share of the variance that it makes.
func (s *sheet) explains(turn, bands float64) (amplitude, share float64) {
	var cc, cs, ss, cv, sv, vv float64
	cosines, sines := make([]float64, len(s.y)), make([]float64, len(s.y))
	for p, row := range s.values {
		for i, y := range s.y {
			sines[i], cosines[i] = math.Sincos(turn*s.t[p] + 2*math.Pi*bands*y)
		}
		if s.isLevelled {
			levelled(s.y, cosines)
			levelled(s.y, sines)
		}
		for i, v := range row {
			cc, cs, ss = cc+cosines[i]*cosines[i], cs+cosines[i]*sines[i], ss+sines[i]*sines[i]
			cv, sv, vv = cv+cosines[i]*v, sv+sines[i]*v, vv+v*v
		}
	}
	det := cc*ss - cs*cs
	if det < 1e-9 || vv == 0 {
		return 0, 0
	}
	a, b := (ss*cv-cs*sv)/det, (cc*sv-cs*cv)/det
	return math.Hypot(a, b), (a*cv + b*sv) / vv
}

// levelled takes a line in y off values.
func levelled(y, values []float64) {
	var n, sy, syy, sv, syv float64
	for i, v := range values {
		n, sy, syy, sv, syv = n+1, sy+y[i], syy+y[i]*y[i], sv+v, syv+y[i]*v
	}
	det := n*syy - sy*sy
	if det == 0 {
		return
	}
	slope := (n*syv - sy*sv) / det
	start := (sv - slope*sy) / n
	for i := range values {
		values[i] -= start + slope*y[i]
	}
}

// strips returns where strips of rows begin, and their middles as shares of the height.
func (w *work) strips() (from []int, middle []float64) {
	for y := 0; y+stripRows <= w.h; y += stripRows {
		from = append(from, y)
		middle = append(middle, (float64(y)+stripRows/2)/float64(w.h))
	}
	return from, middle
}

// sheet reads the strips of the pairs that are neighbours in time.
func (t *tracker) sheet(pairs []pair, isUsed func(p *pair) bool, read func(t *tracker, p *pair, y0 int) float64) *sheet {
	from, middle := t.strips()
	s := &sheet{y: middle}
	var used []*pair
	for i := range pairs {
		if p := &pairs[i]; p.steps == 1 && !p.isCut && isUsed(p) {
			used = append(used, p)
			s.t = append(s.t, float64(p.from))
		}
	}
	s.values = make([][]float64, len(used))
	t.spread(len(used), func(t *tracker, i int) {
		row := make([]float64, len(from))
		for k, y0 := range from {
			row[k] = read(t, used[i], y0)
		}
		s.values[i] = row
	})
	return s
}

// flickerSheet returns how much brighter each strip became, in natural logarithms.
func (t *tracker) flickerSheet(pairs []pair) *sheet {
	return t.sheet(pairs, func(*pair) bool { return true }, func(t *tracker, p *pair, y0 int) float64 {
		var all []float64
		for x0 := 0; x0+segmentPx <= t.w; x0 += segmentPx {
			var before, after float64
			for y := y0; y < y0+stripRows; y++ {
				for x := x0; x < x0+segmentPx; x += sheetStep {
					if a, b, ok := t.matchedLight(*p, x, y); ok {
						before, after = before+a, after+b
					}
				}
			}
			if before > 0 && after > 0 {
				all = append(all, math.Log(after/before))
			}
		}
		return median(all)
	})
}

// matchedLight returns the light of a place half the way back in the first frame of a pair and
// half forth in the second, so that both are smoothed alike.
func (w *work) matchedLight(p pair, x, y int) (before, after float64, ok bool) {
	dx, dy := p.model.at(float64(x)-float64(w.w-1)/2, float64(y)-float64(w.h-1)/2)
	before, okA := w.sample(w.frames[p.from].linear, float64(x)-dx/2, float64(y)-dy/2)
	after, okB := w.sample(w.frames[p.to].linear, float64(x)+dx/2, float64(y)+dy/2)
	ok = okA && okB && before > gainLow && before < gainHigh && after > gainLow && after < gainHigh
	return before, after, ok
}

// wobbleSheet returns how far each strip moved sideways beyond the model, px, less a line in y.
func (t *tracker) wobbleSheet(pairs []pair) *sheet {
	s := t.sheet(pairs, (*pair).isTracked, (*tracker).sideways)
	s.isLevelled = true
	for _, row := range s.values {
		levelled(s.y, row)
	}
	return s
}

// sideways returns how far one strip moved sideways beyond the model, px.
func (t *tracker) sideways(p *pair, y0 int) float64 {
	a, b := t.frames[p.from].encoded, t.frames[p.to].encoded
	var gg, gd float64
	for y := y0; y < y0+stripRows; y++ {
		for x := 2; x < t.w-2; x += sheetStep {
			dx, dy := p.model.at(float64(x)-float64(t.w-1)/2, float64(y)-float64(t.h-1)/2)
			va, slopeA, okA := t.slope(a, float64(x)-dx/2, float64(y)-dy/2)
			vb, slopeB, okB := t.slope(b, float64(x)+dx/2, float64(y)+dy/2)
			if okA && okB {
				g := (slopeA + slopeB) / 2
				gg, gd = gg+g*g, gd+g*(va-vb)
			}
		}
	}
	if gg == 0 {
		return 0
	}
	return gd / gg
}

// slope returns a picture between its pixels and how steep it is there across, a pixel.
func (w *work) slope(picture []float32, x, y float64) (v, slope float64, ok bool) {
	x0, y0 := int(math.Floor(x)), int(math.Floor(y))
	if x0 < 1 || y0 < 0 || x0+2 >= w.w || y0+1 >= w.h {
		return 0, 0, false
	}
	px, py := x-float64(x0), y-float64(y0)
	k := y0*w.w + x0
	up, down := picture[k-1:k+3], picture[k-1+w.w:k+3+w.w]
	var across [4]float64
	for i := range across {
		across[i] = float64(up[i])*(1-py) + float64(down[i])*py
	}
	before, after := across[0]*(1-px)+across[1]*px, across[2]*(1-px)+across[3]*px
	return across[1]*(1-px) + across[2]*px, (after - before) / 2, true
}
