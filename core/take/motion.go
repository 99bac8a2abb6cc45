package take

import (
	"math"
)

// How movement is found.
const (
	blockPx     = 64
	blockStep   = 48
	agreePx     = 0.35
	agreeShare  = 0.1
	leastBlocks = 4
	peakLeast   = 0.04 // of a block that says anything
	fitRounds   = 8
	nearPx      = 1.5
	tukeyScale  = 4.685
)

// model is how the content moved from frame to frame: shifted, turned clockwise about the middle
// and widened.
type model struct {
	dx, dy float64 // px, right and down
	roll   float64 // radians
	zoom   float64 // natural logarithm
}

// at returns the shift at a place, from the middle.
func (m model) at(x, y float64) (dx, dy float64) {
	return m.dx + m.zoom*x - m.roll*y, m.dy + m.zoom*y + m.roll*x
}

func (m model) times(k float64) model { return model{m.dx * k, m.dy * k, m.roll * k, m.zoom * k} }
func (m model) plus(o model) model {
	return model{m.dx + o.dx, m.dy + o.dy, m.roll + o.roll, m.zoom + o.zoom}
}

// moved is the shift of one block.
type moved struct {
	x, y     float64 // of its middle, from the middle of the frame
	dx, dy   float64
	peak     float64
	isAgreed bool    // with the model
	off      float64 // from the model, px
}

// pair is the movement from one frame to the next that is kept.
type pair struct {
	from, to int // frames
	steps    float64
	model    model
	blocks   []moved
	agreed   int
	isCut    bool // the picture is another one
}

func (p *pair) isTracked() bool { return p.agreed >= leastBlocks }

// tracker finds movement.
type tracker struct {
	*work
	block   *transform
	whole   *transform
	window  []float64
	windowX []float64 // of the whole frame at half its size
	windowY []float64
	places  [][2]int // upper left corners of the blocks
	spectra [2][]complex128
	cut     []float64
	halves  map[int][]complex128 // spectra of whole frames
	others  []*tracker           // that work beside this one
}

func newTracker(w *work) *tracker {
	t := &tracker{
		work: w, block: newTransform(blockPx, blockPx), whole: newTransform(w.w/2/2*2, w.h/2/2*2), window: hann(blockPx),
		cut: make([]float64, blockPx*blockPx), halves: map[int][]complex128{},
	}
	t.windowX, t.windowY = hann(t.whole.w), hann(t.whole.h)
	for i := range t.spectra {
		t.spectra[i] = make([]complex128, (blockPx/2+1)*blockPx)
	}
	columns, rows := spaced(w.w), spaced(w.h)
	for _, y := range rows {
		for _, x := range columns {
			t.places = append(t.places, [2]int{x, y})
		}
	}
	return t
}

// spaced returns where blocks begin along a side, evenly.
func spaced(n int) []int {
	count := max(1, int(math.Round(float64(n-blockPx)/blockStep))+1)
	all := make([]int, count)
	for i := range all {
		if count > 1 {
			all[i] = int(math.Round(float64(i*(n-blockPx)) / float64(count-1)))
		} else {
			all[i] = (n - blockPx) / 2
		}
	}
	return all
}

// cutBlock fills dst with the spectrum of a windowed block, its mean taken off.
func (t *tracker) cutBlock(dst []complex128, picture []float32, x0, y0 int) []complex128 {
	sum, weights := 0.0, 0.0
	for y := range blockPx {
		row := picture[(y0+y)*t.w+x0 : (y0+y)*t.w+x0+blockPx]
		for x, v := range row {
			k := t.window[x] * t.window[y]
			sum, weights = sum+k*float64(v), weights+k
		}
	}
	mean := sum / weights
	for y := range blockPx {
		row := picture[(y0+y)*t.w+x0 : (y0+y)*t.w+x0+blockPx]
		for x, v := range row {
			t.cut[y*blockPx+x] = (float64(v) - mean) * t.window[x] * t.window[y]
		}
	}
	return t.block.forward(dst, t.cut)
}

// placed returns where a block is cut from both frames so that the content that moves by whole
// pixels mx, my stands in both: half the way back in the first, half forth in the second.
func (t *tracker) placed(place [2]int, mx, my int) (ax, ay, bx, by int, ok bool) {
	inside := func(at, m, n int) (int, bool) {
		at -= m / 2
		low, high := max(0, -m), n-blockPx-max(0, m)
		if low > high {
			return 0, false
		}
		return min(max(at, low), high), true
	}
	ax, okX := inside(place[0], mx, t.w)
	ay, okY := inside(place[1], my, t.h)
	return ax, ay, ax + mx, ay + my, okX && okY
}

// middleOf returns the middle of a block between both frames, from the middle of the frame.
func (t *tracker) middleOf(ax, ay, bx, by int) (x, y float64) {
	return (float64(ax+bx)+blockPx-float64(t.w))/2 - 0.5, (float64(ay+by)+blockPx-float64(t.h))/2 - 0.5
}

// half returns the spectrum of a whole frame at half its size.
func (t *tracker) half(i int) []complex128 {
	if f, ok := t.halves[i]; ok {
		return f
	}
	w, h := t.whole.w, t.whole.h
	picture := make([]float64, w*h)
	e := t.frames[i].encoded
	mean := 0.0
	for y := range h {
		for x := range w {
			k := 2*y*t.w + 2*x
			picture[y*w+x] = float64(e[k]+e[k+1]+e[k+t.w]+e[k+t.w+1]) / 4
			mean += picture[y*w+x] / float64(w*h)
		}
	}
	for y := range h {
		for x := range w {
			picture[y*w+x] = (picture[y*w+x] - mean) * t.windowX[x] * t.windowY[y]
		}
	}
	f := t.whole.forward(make([]complex128, (w/2+1)*h), picture)
	t.halves[i] = f
	delete(t.halves, i-4)
	return f
}

// between finds the movement between two frames, starting at that of the whole frame and, where
// few blocks follow that, at the movement before.
func (t *tracker) between(from, to int, before *model) pair {
	dx, dy, _ := t.whole.shift(t.half(from), t.half(to))
	start := model{dx: 2 * dx, dy: 2 * dy}
	if before != nil { // a camera turns and nears much as it did
		start.roll, start.zoom = before.roll, before.zoom
	}
	best := t.follow(from, to, start)
	if before != nil && best.agreed < len(t.places)*4/5 {
		if other := t.follow(from, to, *before); other.agreed > best.agreed {
			best = other
		}
	}
	return best
}

// follow refines a movement by the blocks, once more where it was not near yet.
func (t *tracker) follow(from, to int, start model) pair {
	p := pair{from: from, to: to, steps: float64(to - from), model: start}
	for round := range 2 {
		p.blocks = t.blocksNear(from, to, p.model)
		if len(p.blocks) == 0 {
			break
		}
		before := p.model
		p.model = fitted(p.blocks, p.model, round == 0)
		if t.isNear(before, p.model) {
			break
		}
	}
	p.agreed = 0
	for i := range p.blocks {
		b := &p.blocks[i]
		mx, my := p.model.at(b.x, b.y)
		b.off = math.Hypot(b.dx-mx, b.dy-my)
		if b.isAgreed = b.off <= max(agreePx, agreeShare*math.Hypot(mx, my)) && b.peak >= peakLeast; b.isAgreed {
			p.agreed++
		}
	}
	return p
}

// isNear reports whether two movements match the same pixels, but for one or so, all over the
// frame.
func (t *tracker) isNear(a, b model) bool {
	for _, corner := range [4][2]float64{{-1, -1}, {-1, 1}, {1, -1}, {1, 1}} {
		x, y := corner[0]*float64(t.w)/2, corner[1]*float64(t.h)/2
		ax, ay := a.at(x, y)
		bx, by := b.at(x, y)
		if math.Hypot(ax-bx, ay-by) > nearPx {
			return false
		}
	}
	return true
}

// blocksNear finds the shift of each block near a movement.
func (t *tracker) blocksNear(from, to int, near model) []moved {
	found := make([]*moved, len(t.places))
	t.spread(len(found), func(t *tracker, i int) {
		place := t.places[i]
		x, y := float64(place[0])+(blockPx-float64(t.w))/2, float64(place[1])+(blockPx-float64(t.h))/2
		px, py := near.at(x, y)
		if b, ok := t.match(from, to, place, px, py); ok {
			found[i] = &b
		}
	})
	var all []moved
	for _, b := range found {
		if b != nil {
			all = append(all, *b)
		}
	}
	return all
}

// match finds the shift of one block near one that is expected.
func (t *tracker) match(from, to int, place [2]int, px, py float64) (moved, bool) {
	mx, my := int(math.Round(px)), int(math.Round(py))
	ax, ay, bx, by, ok := t.placed(place, mx, my)
	if !ok {
		return moved{}, false
	}
	fa := t.cutBlock(t.spectra[0], t.frames[from].encoded, ax, ay)
	fb := t.cutBlock(t.spectra[1], t.frames[to].encoded, bx, by)
	dx, dy, peak := t.block.shift(fa, fb)
	x, y := t.middleOf(ax, ay, bx, by)
	return moved{x: x, y: y, dx: float64(mx) + dx, dy: float64(my) + dy, peak: peak}, true
}

// fitted returns the model that most blocks follow: least squares, reweighted after Tukey, from
// a median start.
func fitted(blocks []moved, start model, isFirst bool) model {
	m := start
	if isFirst {
		var xs, ys []float64
		for _, b := range blocks {
			if b.peak >= peakLeast {
				xs, ys = append(xs, b.dx), append(ys, b.dy)
			}
		}
		if len(xs) > 0 {
			m = model{dx: median(xs), dy: median(ys)}
		}
	}
	for range fitRounds {
		offs := make([]float64, len(blocks))
		for i, b := range blocks {
			x, y := m.at(b.x, b.y)
			offs[i] = math.Hypot(b.dx-x, b.dy-y)
		}
		scale := tukeyScale * max(1.4826*median(offs), 0.05)
		normal := newEquations(4)
		for i, b := range blocks {
			u := offs[i] / scale
			if u >= 1 {
				continue
			}
			k := (1 - u*u) * (1 - u*u) * max(b.peak, 1e-3)
			for _, row := range [2][5]float64{{1, 0, -b.y, b.x, b.dx}, {0, 1, b.x, b.y, b.dy}} {
				normal.add(k, row[:])
			}
		}
		v, ok := normal.solved()
		if !ok {
			return m
		}
		m = model{v[0], v[1], v[2], v[3]}
	}
	return m
}
