package picture

import (
	"image"
	"math"
	"sync"

	"pinhole/core/stop"
)

// Loop is a scene made ready for drawing. It may be drawn from several goroutines.
type Loop struct {
	view    View
	fPx     float64
	horizon float64 // row
	*textures
	films sync.Pool // of *film that were developed
}

// Light of the parts of the scene, linear, mid-grey 0.18, before exposure.
var (
	skyTop     = rgb{0.55, 0.75, 1.15}
	skyLow     = rgb{1.0, 1.05, 1.1}
	cloudWhite = rgb{1.6, 1.58, 1.52}
	hillsFar   = rgb{0.16, 0.22, 0.24}
	groundTint = rgb{0.30, 0.23, 0.15}
	leafTint   = rgb{0.10, 0.17, 0.05}
	caskTint   = rgb{0.16, 0.085, 0.04}
	stemTint   = rgb{0.05, 0.038, 0.03}
	grassTint  = rgb{0.13, 0.2, 0.06}
	trousers   = rgb{0.07, 0.08, 0.11}
	coat       = rgb{0.36, 0.08, 0.06}
	skin       = rgb{0.34, 0.22, 0.16}
	wall       = rgb{0.15, 0.12, 0.09}
	lampGlow   = rgb{9, 6.5, 3.4}
)

type rgb [3]float64

func (c rgb) times(f float64) rgb { return rgb{c[0] * f, c[1] * f, c[2] * f} }

// over lays the colour d, covering a share of what is below, on c.
func (c rgb) over(d rgb, share float64) rgb {
	k := 1 - share
	return rgb{c[0]*k + d[0], c[1]*k + d[1], c[2]*k + d[2]}
}

// Sizes of the scene, in metres unless they say otherwise.
const (
	eyeHeight    = 1.4
	vineHeight   = 1.9
	stemHeight   = 0.8
	vineSpacing  = 1.1
	farHills     = 60.0 // times the subject's distance
	figureBehind = 1.35 // times the subject's distance
	walkingMps   = 1.2
)

// NewLoop returns the loop of a view. The same view gives the same pictures.
func NewLoop(v View) *Loop {
	v.subjectMetres = v.distance()
	return &Loop{view: v, fPx: v.fPx(), horizon: 0.46 * float64(v.Height), textures: texturesOf(v.Seed)}
}

// slide is how one layer lies in one frame: how far it has slid, how far it slides
// while the shutter is open, and how many pixels one of its periods takes.
type slide struct{ shift, blur, period float64 }

// slideOf returns the slide of what lies metres away and repeats every period
// metres. The period is changed so that a loop ends where it began.
func (l *Loop) slideOf(metres, period, extraMps, from float64, t stop.Shutter) slide {
	perS := l.view.pxPerS(metres) + l.fPx*extraMps/metres
	px := l.fPx * period / metres
	if whole := perS * Frames / float64(l.view.rate()); whole > px/2 {
		px = whole / math.Round(max(1, whole/px))
	}
	return slide{shift: perS * from, blur: perS * t.Seconds(), period: px}
}

// sampler reads a strip along one row, from its first pixel on.
type sampler struct {
	of strip
	// In samples: where the next pixel starts, one pixel, what of the stretch that slides
	// across a pixel is left beyond whole periods, and the inverse of that stretch.
	from, perPx, rest, perWidth float64
	whole                       float64 // the sum over the whole periods of the stretch
}

// over returns the sampler of a strip on this slide. A pixel sees no less than
// its own width.
func (s slide) over(of strip) sampler {
	n := of.len()
	perPx := n / s.period
	width := max(1, s.blur) * perPx
	periods := math.Floor(width / n)
	return sampler{
		of: of, from: wrapped(s.shift*perPx, n), perPx: wrapped(perPx, n),
		rest: width - periods*n, whole: periods * of.total(), perWidth: 1 / width,
	}
}

// next returns the mean of the strip over what slides across the next pixel.
func (m *sampler) next() float64 {
	from, n := m.from, m.of.len()
	if m.from += m.perPx; m.from >= n {
		m.from -= n
	}
	to, sum := from+m.rest, m.whole
	if to >= n {
		to -= n
		sum += m.of.total()
	}
	return (sum + m.of.integral(to) - m.of.integral(from)) * m.perWidth
}

// Frame draws frame i of the loop at a setting into dst, which has the view's
// size.
func (l *Loop) Frame(i int, e Exposure, dst *image.RGBA) {
	light := l.film()
	defer l.films.Put(light)
	l.expose(light, i, float64(i)/float64(l.view.rate()), e.Shutter)
	l.shake(light, i, e.Shutter)
	l.develop(light, i, e, dst)
}

// film returns a film of the view's size, with whatever is on it.
func (l *Loop) film() *film {
	if used, ok := l.films.Get().(*film); ok {
		return used
	}
	return newFilm(l.view.Width, l.view.Height)
}
