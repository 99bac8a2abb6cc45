package take

import (
	"math"
)

// How the share of the frame time that the shutter was open is found (pairs).
const (
	shareMost      = 1.3
	shareStep      = 0.02
	cellHzLow      = 0.03
	cellHzHigh     = 0.42
	cellHzCoarse   = 0.2 // of the fit that compression spares
	cellOverNoise  = 6.0
	cellDiffers    = 0.002
	pairReach      = 3 // frames apart
	timeGroups     = 8
	spreadPx       = 0.4
	spreadShare    = 0.12
	removesLeast   = 0.45
	errorOfShare   = 0.06
	errorLeast     = 0.015
	uncertainShare = 0.18
	uncertainLeast = 0.06
	lossWithin     = 36.0
	ringCount      = 24
	noiseEvery     = 3 // pairs: a mean needs no more
)

var shareGrid = func() []float64 {
	var all []float64
	for i := 0; float64(i)*shareStep <= shareMost+1e-9; i++ {
		all = append(all, float64(i)*shareStep)
	}
	return all
}()

// sincTable holds sinc² of 0 to sincMost.
const sincPerUnit, sincMost = 256, 24

var sincTable = func() []float64 {
	all := make([]float64, sincPerUnit*sincMost+2)
	for i := range all {
		u := float64(i) / sincPerUnit
		all[i] = 1
		if u > 0 {
			s := math.Sin(math.Pi*u) / (math.Pi * u)
			all[i] = s * s
		}
	}
	return all
}()

// sinc2 returns the power that a shutter leaves at u turns within its opening.
func sinc2(u float64) float64 {
	u = math.Abs(u) * sincPerUnit
	i := int(u)
	if i >= sincPerUnit*sincMost {
		return 0
	}
	part := u - float64(i)
	return sincTable[i]*(1-part) + sincTable[i+1]*part
}

// estimate is a share with its error; ok is false where nothing is told.
type estimate struct {
	share, se float64
	ok        bool
}

// cell is what one block at two frames says around one frequency.
//
// There are thousands of a frame: they are held as small as their errors allow.
type cell struct {
	ua, uc float32 // turns within a frame time, of both frames
	pa, pc float32
	noise  float32
	weight float32
	fine   float32 // the frequency's size
	group  int32
}

// comparison is what one frame says beside those after it.
type comparison struct {
	cells  []cell
	links  []link
	blocks int
}

// comparisons are all of a take, place after place.
type comparisons []comparison

func (c comparisons) cells() int {
	n := 0
	for i := range c {
		n += len(c[i].cells)
	}
	return n
}

func (c comparisons) blocks() int {
	n := 0
	for i := range c {
		n += c[i].blocks
	}
	return n
}

func (c comparisons) links() []link {
	var all []link
	for i := range c {
		all = append(all, c[i].links...)
	}
	return all
}

// compared gathers what blocks say at frames that lie up to three apart, the exposure evened out:
// cells of 3 × 3 frequencies of each block, of those that lie up to two apart the power of all
// blocks together, and how many blocks there were.
func (t *tracker) compared(p *path, gain []float64, dropsNear func(i int) bool) comparisons {
	noise := t.noiseRings(p, gain)
	bins := ghostBins(t.block)
	n := len(p.frames)
	each := make(comparisons, n)
	t.spread(n, func(t *tracker, i int) {
		for d := 1; d <= pairReach && i+d < n; d++ {
			if !dropsNear(i) && !dropsNear(i+d) {
				t.compare(&each[i], p, i, d, gain, newLink(i, i+d, bins, noise))
			}
		}
	})
	return each
}

// compare adds what two places of a path say, d apart.
func (t *tracker) compare(to *comparison, p *path, i, d int, gain []float64, between link) {
	a, c := p.frames[i], p.frames[i+d]
	step := p.places[i+d].plus(p.places[i].times(-1))
	even := math.Exp2(2 * (gain[a] - gain[c]))
	for k, place := range t.places {
		fa, fc, _, _, x, y, ok := t.matched(a, c, place, step)
		if !ok {
			continue
		}
		to.blocks++
		between.add(k%2, fa, fc, even)
		vax, vay := p.velocity[i].at(x, y)
		vcx, vcy := p.velocity[i+d].at(x, y)
		for fx := 1; fx+1 < blockPx/2; fx += 3 {
			for fy := -blockPx/2 + 2; fy+1 < blockPx/2; fy += 3 {
				hx, hy := float64(fx)/blockPx, float64(fy)/blockPx
				size := math.Hypot(hx, hy)
				if size < cellHzLow || size > cellHzHigh {
					continue
				}
				var pa, pc float64
				cellNoise := 9 * between.noise[ringOf(size)]
				for gx := fx - 1; gx <= fx+1; gx++ {
					for gy := fy - 1; gy <= fy+1; gy++ {
						at := gx*t.block.h + (gy+t.block.h)%t.block.h
						pa += power(fa[at])
						pc += power(fc[at]) * even
					}
				}
				if total := pa + pc; total > cellOverNoise*cellNoise {
					to.cells = append(to.cells, cell{
						ua: float32(vax*hx + vay*hy), uc: float32(vcx*hx + vcy*hy), pa: float32(pa), pc: float32(pc), noise: float32(cellNoise),
						weight: float32(total / (total + 8*cellNoise) * min(1, size/0.1)), fine: float32(size), group: int32(i * timeGroups / len(p.frames)),
					})
				}
			}
		}
	}
	if d <= ghostReach {
		to.links = append(to.links, between)
	}
}

func power(c complex128) float64 { return real(c)*real(c) + imag(c)*imag(c) }

func ringOf(size float64) int { return min(int(size/0.5*ringCount), ringCount-1) }

// matched cuts a block of linear light from two frames, moved by whole pixels, and returns what
// that leaves of the shift, and the middle of the block.
func (t *tracker) matched(a, c int, place [2]int, step model) (fa, fc []complex128, rx, ry, x, y float64, ok bool) {
	px, py := step.at(float64(place[0])+(blockPx-float64(t.w))/2, float64(place[1])+(blockPx-float64(t.h))/2)
	mx, my := int(math.Round(px)), int(math.Round(py))
	ax, ay, bx, by, ok := t.placed(place, mx, my)
	if !ok {
		return nil, nil, 0, 0, 0, 0, false
	}
	x, y = t.middleOf(ax, ay, bx, by)
	px, py = step.at(x, y)
	fa = t.cutBlock(t.spectra[0], t.frames[a].linear, ax, ay)
	fc = t.cutBlock(t.spectra[1], t.frames[c].linear, bx, by)
	return fa, fc, px - float64(mx), py - float64(my), x, y, true
}

// noiseRings returns the power of the noise by the size of the frequency: what matched neighbours
// do not share.
func (t *tracker) noiseRings(p *path, gain []float64) [ringCount]float64 {
	type rings struct{ sums, counts [ringCount]float64 }
	each := make([]rings, (len(p.frames)-1+noiseEvery-1)/noiseEvery)
	t.spread(len(each), func(t *tracker, at int) {
		i, r := at*noiseEvery, &each[at]
		a, c := p.frames[i], p.frames[i+1]
		step := p.places[i+1].plus(p.places[i].times(-1))
		even := math.Exp2(gain[a] - gain[c])
		for _, place := range t.places {
			fa, fc, rx, ry, _, _, ok := t.matched(a, c, place, step)
			if !ok {
				continue
			}
			for k := t.block.h; k < len(fa); k++ {
				fx, fy := t.block.frequency(k)
				size := math.Hypot(fx, fy)
				if size > 0.5 {
					continue
				}
				sin, cos := math.Sincos(2 * math.Pi * (fx*rx + fy*ry))
				turned := fc[k] * complex(cos*even, sin*even)
				shared := real(fa[k])*real(turned) + imag(fa[k])*imag(turned)
				r.sums[ringOf(size)] += (power(fa[k])+power(turned))/2 - shared
				r.counts[ringOf(size)]++
			}
		}
	})
	var noise, counts [ringCount]float64
	for _, r := range each {
		for k := range noise {
			noise[k], counts[k] = noise[k]+r.sums[k], counts[k]+r.counts[k]
		}
	}
	for k := range noise {
		noise[k] = max(noise[k]/max(counts[k], 1), 1e-12)
	}
	return noise
}

// pairsShare finds the share from the same content at different speeds.
func pairsShare(seen comparisons, speeds []float64) (e estimate, coarse float64) {
	mean, spread := meanAndSpread(speeds)
	if spread < spreadPx || spread < spreadShare*mean {
		return e, 0
	}
	var losses, coarseLosses [timeGroups][]float64
	for g := range losses {
		losses[g], coarseLosses[g] = make([]float64, len(shareGrid)), make([]float64, len(shareGrid))
	}
	used := 0
	for i := range seen {
		for k := range seen[i].cells {
			c := &seen[i].cells[k]
			if c.addTo(losses[c.group], coarseLosses[c.group]) {
				used++
			}
		}
	}
	if used < 4*timeGroups {
		return e, 0
	}
	e = fromLosses(losses[:], used)
	least, most := extremes(summed(losses[:], -1))
	if 1-least/max(most, 1e-300) < removesLeast {
		e.ok = false
	}
	e.se = max(e.se, errorOfShare*e.share, errorLeast)
	return e, bestOf(summed(coarseLosses[:], -1))
}

// addTo adds what each share leaves of a cell; it reports whether the cell tells shares apart.
func (c *cell) addTo(losses, coarse []float64) bool {
	ua, uc, noise, weight := float64(c.ua), float64(c.uc), float64(c.noise), float64(c.weight)
	if math.Abs(ua*ua-uc*uc) <= cellDiffers {
		return false
	}
	total := float64(c.pa) + float64(c.pc)
	seen := float64(c.pc) / total
	for k, s := range shareGrid {
		ha, hc := sinc2(s*ua), sinc2(s*uc)
		signal := (total - 2*noise) / max(ha+hc, 1e-6)
		off := seen - (signal*hc+noise)/(signal*(ha+hc)+2*noise)
		loss := weight * off * off
		losses[k] += loss
		if c.fine < cellHzCoarse {
			coarse[k] += loss
		}
	}
	return true
}

// fromLosses returns where the sum of losses is least, with a jackknife over the groups and at
// least a quarter of the range in which the sum is nearly as small.
func fromLosses(losses [][]float64, cells int) estimate {
	all := summed(losses, -1)
	e := estimate{share: bestOf(all), ok: true}
	var left []float64
	for g := range losses {
		if without := summed(losses, g); without[0] > 0 {
			left = append(left, bestOf(without))
		}
	}
	if n := float64(len(left)); n > 1 {
		_, deviation := meanAndSpread(left)
		e.se = deviation * math.Sqrt(n-1)
	}
	least, _ := extremes(all)
	low, high := -1.0, 0.0
	for k, v := range all {
		if v <= least*(1+lossWithin/float64(cells)) {
			if low < 0 {
				low = shareGrid[k]
			}
			high = shareGrid[k]
		}
	}
	e.se = max(e.se, (high-low)/4)
	return e
}

// summed adds losses up but for one group.
func summed(losses [][]float64, but int) []float64 {
	all := make([]float64, len(shareGrid))
	for g, l := range losses {
		if g != but {
			for k, v := range l {
				all[k] += v
			}
		}
	}
	return all
}

// bestOf returns the share with the least loss, between the steps of the grid.
func bestOf(all []float64) float64 {
	best := 0
	for k, v := range all {
		if v < all[best] {
			best = k
		}
	}
	off := 0.0
	if best > 0 && best+1 < len(all) {
		if d := all[best-1] - 2*all[best] + all[best+1]; d > 0 {
			off = (all[best-1] - all[best+1]) / (2 * d)
		}
	}
	return shareGrid[best] + off*shareStep
}

func extremes(all []float64) (least, most float64) {
	least, most = all[0], all[0]
	for _, v := range all {
		least, most = min(least, v), max(most, v)
	}
	return least, most
}

// meanAndSpread returns the mean and the root mean square about it.
func meanAndSpread(all []float64) (mean, spread float64) {
	for _, v := range all {
		mean += v / float64(len(all))
	}
	for _, v := range all {
		spread += (v - mean) * (v - mean) / float64(len(all))
	}
	return mean, math.Sqrt(spread)
}
