package take

import "math"

// How the path of a camera is read.
const (
	jumpTimes    = 2.0
	jumpWithin   = 0.3
	jumpLeastPx  = 0.8
	cutTimes     = 4.0
	cutPx        = 4.0
	intendedHz   = 1.0
	shakePart    = 0.9
	shortestS    = 0.8
	trackedLeast = 0.8
)

// track finds the movement from frame to frame, of those that repeat nothing.
func (t *tracker) track(repeats map[int]bool) []pair {
	var pairs []pair
	var before *model
	last := 0
	for i := 1; i < len(t.frames); i++ {
		if repeats[i] {
			continue
		}
		p := t.between(last, i, before)
		pairs = append(pairs, p)
		before = &pairs[len(pairs)-1].model
		last = i
	}
	return pairs
}

// markDrops finds the pairs across which a frame is missing: twice as far as their neighbours,
// which agree. They count one step more.
func markDrops(pairs []pair) []int {
	drops := []int{}
	speed := func(i int) float64 { return math.Hypot(pairs[i].model.dx, pairs[i].model.dy) / pairs[i].steps }
	for i := 1; i+1 < len(pairs); i++ {
		if pairs[i].steps > 1 || pairs[i-1].steps > 1 || pairs[i+1].steps > 1 {
			continue
		}
		a, b := speed(i-1), speed(i+1)
		mean := (a + b) / 2
		if mean > jumpLeastPx && math.Abs(a-b) <= jumpWithin*mean && math.Abs(speed(i)/mean-jumpTimes) <= jumpWithin {
			pairs[i].steps++
			drops = append(drops, pairs[i].to)
		}
	}
	return drops
}

// markCuts finds the pairs across which the picture is another one: far further than their
// neighbours, or not to be followed between two that are.
func markCuts(pairs []pair) []int {
	cuts := []int{}
	size := func(i int) float64 { return math.Hypot(pairs[i].model.dx, pairs[i].model.dy) / pairs[i].steps }
	for i := range pairs {
		before, after := max(i-1, 0), min(i+1, len(pairs)-1)
		isJump := len(pairs) > 2 && size(i) > cutPx+cutTimes*max(sizeBut(size, before, i), sizeBut(size, after, i))
		isLost := !pairs[i].isTracked() && before != i && after != i && pairs[before].isTracked() && pairs[after].isTracked()
		if pairs[i].isCut = isJump || isLost; pairs[i].isCut {
			cuts = append(cuts, pairs[i].to)
		}
	}
	for i := range pairs { // across a cut the camera is taken to have moved as it did around it
		if before, after := max(i-1, 0), min(i+1, len(pairs)-1); pairs[i].isCut {
			pairs[i].model = pairs[before].model.plus(pairs[after].model).times(0.5)
		}
	}
	return cuts
}

// sizeBut is a pair's size, 0 for the pair itself, which has no neighbour there.
func sizeBut(size func(int) float64, i, itself int) float64 {
	if i == itself {
		return 0
	}
	return size(i)
}

// path is where the content stands in each frame that is kept, with how it moves there.
type path struct {
	frames   []int     // of each place
	at       []float64 // in frames, from the first
	places   []model
	velocity []model // a frame
}

// pathOf adds up movements, and takes their slope at each frame: central differences of the
// fourth order, of lower order towards the ends.
func pathOf(pairs []pair) path {
	p := path{frames: []int{pairs[0].from}, at: []float64{0}, places: []model{{}}}
	for i := range pairs {
		last := len(p.places) - 1
		p.frames = append(p.frames, pairs[i].to)
		p.at = append(p.at, p.at[last]+pairs[i].steps)
		p.places = append(p.places, p.places[last].plus(pairs[i].model))
	}
	n := len(p.places)
	even := func(from, to int) bool { return p.at[to]-p.at[from] == float64(to-from) }
	p.velocity = make([]model, n)
	for i := range p.velocity {
		slope := func(a, b int) model {
			return p.places[b].plus(p.places[a].times(-1)).times(1 / (p.at[b] - p.at[a]))
		}
		switch {
		case i >= 2 && i+2 < n && even(i-2, i+2):
			p.velocity[i] = slope(i-1, i+1).times(4.0 / 3).plus(slope(i-2, i+2).times(-1.0 / 3))
		case i >= 1 && i+1 < n:
			p.velocity[i] = slope(i-1, i+1)
		case i == 0 && n > 2 && even(0, 2): // one-sided, of the second order
			p.velocity[i] = slope(0, 1).times(2).plus(slope(0, 2).times(-1))
		case i == n-1 && n > 2 && even(n-3, n-1):
			p.velocity[i] = slope(n-2, n-1).times(2).plus(slope(n-3, n-1).times(-1))
		case i == 0:
			p.velocity[i] = slope(0, 1)
		default:
			p.velocity[i] = slope(i-1, i)
		}
	}
	return p
}

// smoothed returns values at uneven times by local linear regression, Gaussian, with a half
// response at a frequency in cycles a unit of time.
func smoothed(at, values []float64, hz float64) []float64 {
	sigma := math.Sqrt(math.Ln2/2) / (math.Pi * hz)
	out := make([]float64, len(values))
	for i, t := range at {
		var s0, s1, s2, y0, y1 float64
		for k, u := range at {
			d := u - t
			w := math.Exp(-d * d / (2 * sigma * sigma))
			s0, s1, s2, y0, y1 = s0+w, s1+w*d, s2+w*d*d, y0+w*values[k], y1+w*d*values[k]
		}
		if det := s0*s2 - s1*s1; math.Abs(det) > 1e-12 {
			out[i] = (s2*y0 - s1*y1) / det
		} else {
			out[i] = y0 / s0
		}
	}
	return out
}

// shakeOf parts what was intended from the rest, and returns the speed of the rest from frame to
// frame, in degrees a second; perDeg is pixels a degree.
func (p *path) shakeOf(fps, perDeg float64) (speeds []float64, rates [3][]float64) {
	axis := func(of func(model) float64) []float64 {
		all := make([]float64, len(p.places))
		for i, m := range p.places {
			all[i] = of(m)
		}
		low := smoothed(p.at, all, intendedHz/fps)
		var out []float64
		for i := 1; i < len(all); i++ {
			out = append(out, (all[i]-low[i]-all[i-1]+low[i-1])*fps/(p.at[i]-p.at[i-1]))
		}
		return out
	}
	rates[0] = axis(func(m model) float64 { return m.dx / perDeg })
	rates[1] = axis(func(m model) float64 { return m.dy / perDeg })
	rates[2] = axis(func(m model) float64 { return m.roll * 180 / math.Pi })
	for i := range rates[0] {
		speeds = append(speeds, math.Sqrt(rates[0][i]*rates[0][i]+rates[1][i]*rates[1][i]+rates[2][i]*rates[2][i]))
	}
	return speeds, rates
}
