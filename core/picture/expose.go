package picture

import (
	"math"

	"pinhole/core/stop"
)

// film is the light that one exposure gathered: red, green and blue of each pixel,
// row by row.
type film struct {
	width, height int
	light         []float32
}

func newFilm(width, height int) *film {
	return &film{width, height, make([]float32, 3*width*height)}
}

// row returns the values of a row, three a pixel.
func (f *film) row(y int) []float32 { return f.light[3*y*f.width : 3*(y+1)*f.width] }

// expose gathers the light of one frame on a film, from an instant on for as long as the
// shutter is open.
func (l *Loop) expose(f *film, frame int, from float64, t stop.Shutter) {
	v := &l.view
	row := make([]rgb, v.Width)
	wobble, soft := v.wobble(t)
	for y := range f.height {
		phase := 2*math.Pi*float64(y)/float64(f.height)*l.bands() + 2.1*float64(frame)
		at := line{y: float64(y), dx: wobble * math.Sin(phase), soft: soft, stride: frame, from: from, t: t}
		if at.y < l.horizon {
			l.above(row, at)
		} else {
			l.below(row, at)
		}
		l.figure(row, at)
		l.vine(row, at)
		if v.IsInterior {
			l.lamps(row, at)
		}
		if v.HasHands {
			l.hands(row, at)
		}
		k := v.ripple(t, frame, at.y)
		out := f.row(y)
		for x, c := range row {
			for i := range c {
				out[3*x+i] = float32(c[i] * k)
			}
		}
	}
}

func (l *Loop) bands() float64 {
	if l.view.Vibration == nil {
		return 0
	}
	return l.view.Vibration.Bands()
}

// line is one row of one exposure.
type line struct {
	y, dx, soft float64
	stride      int     // the frame, for what moves in itself
	from        float64 // when the shutter opens, in seconds
	t           stop.Shutter
}

// across returns the slide of a layer on this row: the wobble shifts it, the
// averaged vibration softens it.
func (l *Loop) across(at line, metres, period, extraMps float64) slide {
	s := l.slideOf(metres, period, extraMps, at.from, at.t)
	s.shift += at.dx
	s.blur += at.soft
	return s
}

// hillsFrom is how far down the sky the highest hill reaches up.
const hillsFrom = 0.75

// above draws sky, clouds and far hills, or the wall of an interior.
func (l *Loop) above(row []rgb, at line) {
	far := l.view.subjectMetres * farHills
	height := at.y / l.horizon // 0 at the top, 1 at the horizon
	hill := l.across(at, far, far*0.9, 0)
	if l.view.IsInterior {
		stones := l.across(at, l.view.subjectMetres*2, 2.5, 0)
		texture := stones.over(l.ground[int(height*9)%groundRows])
		for x := range row {
			row[x] = wall.times(texture.next())
		}
		return
	}
	cloud := l.across(at, far, far*1.8, 0)
	layer := min(height*float64(len(l.sky)), float64(len(l.sky))-1.001)
	upper, part := cloud.over(l.sky[int(layer)]), layer-math.Floor(layer)
	lower, ridge := cloud.over(l.sky[int(layer)+1]), hill.over(l.hills)
	blue := skyTop.times(1-height).over(skyLow.times(height), height)
	for x := range row {
		c := upper.next()*(1-part) + lower.next()*part
		cover, bright := l.view.Weather.cloud(c)
		row[x] = blue.over(cloudWhite.times(cover*bright), cover)
		if height < hillsFrom {
			continue
		}
		// The hills' edge is as soft as a pixel, so that it does not crawl.
		top := 0.86 + 0.1*(1-ridge.next())
		if h := min(max((height-top)*40, 0), 1); h > 0 {
			row[x] = row[x].over(hillsFar.times(h), h)
		}
	}
}

// vine draws the row of vines, or of barrels' stands, at the subject's distance.
func (l *Loop) vine(row []rgb, at line) {
	metres := l.view.subjectMetres
	// Heights in metres above the ground at that distance.
	up := eyeHeight - (at.y-l.horizon)/l.fPx*metres
	if up < 0 || up > vineHeight {
		return
	}
	s := l.across(at, metres, vineSpacing, 0)
	if up < stemHeight {
		stems := s.over(l.posts)
		for x := range row {
			c := stems.next()
			row[x] = row[x].over(stemTint.times(c), c)
		}
		return
	}
	tint := leafTint
	if l.view.IsInterior { // casks on their stands
		tint = caskTint
	}
	// Between two heights of the crown, so that no row of them is seen.
	height := (up-stemHeight)/(vineHeight-stemHeight)*canopyRows - 0.5
	lower := min(max(int(height), 0), canopyRows-2)
	part := min(max(height-float64(lower), 0), 1)
	below, above := l.canopy[lower], l.canopy[lower+1]
	cover, bright := s.over(below.cover), s.over(below.bright)
	coverAbove, brightAbove := s.over(above.cover), s.over(above.bright)
	for x := range row {
		c := cover.next()*(1-part) + coverAbove.next()*part
		shine := bright.next()*(1-part) + brightAbove.next()*part
		if c > 0 {
			row[x] = row[x].over(tint.times(shine), c)
		}
	}
}

// figure draws somebody who walks along behind the row of vines, one in every few
// vines.
func (l *Loop) figure(row []rgb, at line) {
	metres := l.view.subjectMetres * figureBehind
	up := eyeHeight - (at.y-l.horizon)/l.fPx*metres
	const tall = 1.75
	if up < 0 || up > tall {
		return
	}
	s := l.across(at, metres, 9*vineSpacing, -walkingMps)
	pxPerM := l.fPx / metres
	step := math.Sin(2 * math.Pi * float64(at.stride) / 8)
	// limb lays an arm or a leg that swings about its upper end, bent at its middle.
	limb := func(from, to, swing, bend, half float64, colour rgb) {
		if up < to || up > from {
			return
		}
		along := (from - up) / (from - to)
		sway := swing*along + bend*math.Sin(math.Pi*along)
		s.cover(row, sway*pxPerM, half*(1-0.3*along)*pxPerM, colour)
	}
	limb(0.9, 0, -0.24*step, 0.05*max(0, -step), 0.085, trousers)
	limb(1.42, 0.82, 0.2*step, 0.05, 0.05, coat.times(0.7))
	limb(0.9, 0, 0.24*step, 0.05*max(0, step), 0.085, trousers)
	switch {
	case up > 1.49: // head
		r := math.Sqrt(max(0, 0.13*0.13-(up-1.62)*(up-1.62)))
		s.cover(row, 0, r*pxPerM, skin)
	case up > 0.8: // coat, rounded at the shoulders
		round := math.Sqrt(min(1, max(0, (1.5-up)/0.1)))
		s.cover(row, 0, (0.17+0.06*(1.5-up))*round*pxPerM, coat)
	}
	limb(1.42, 0.82, -0.2*step, 0.05, 0.05, coat.times(1.25))
	limb(0.84, 0.76, -0.2*step, 0.02, 0.045, skin)
}

// cover lays a colour on what lies within half pixels of the middle of each
// period, moved by at pixels: the share of the exposure for which it is there.
func (s slide) cover(row []rgb, at, half float64, colour rgb) {
	if half <= 0 {
		return
	}
	width := max(1, s.blur)
	for x := range row {
		from := wrapped(float64(x)+s.shift-at, s.period)
		share := max(0, min(from+width, s.period/2+half)-max(from, s.period/2-half)) / width
		if share > 0 {
			row[x] = row[x].over(colour.times(share), share)
		}
	}
}

// lamps draws lamps under the ceiling of an interior.
func (l *Loop) lamps(row []rgb, at line) {
	metres := l.view.subjectMetres * 1.6
	up := (l.horizon - at.y) / l.fPx * metres
	r := math.Sqrt(max(0, 0.16*0.16-(up-0.75)*(up-0.75)))
	s := l.across(at, metres, 3.2, 0)
	s.cover(row, 0, r*l.fPx/metres, lampGlow)
}
