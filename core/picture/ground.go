package picture

import "math"

// look is how a ground is drawn: the colour of its texture, how much of the texture is seen,
// and furrows, which only a field has.
type look struct {
	tint     rgb
	texture  float64
	furrows  bool
	overhead rgb // what it mirrors of the sky
}

var looks = map[Ground]look{
	Field: {tint: groundTint, texture: 1, furrows: true},
	Road:  {tint: rgb{0.115, 0.115, 0.12}, texture: 0.45},
	Water: {tint: rgb{0.05, 0.085, 0.1}, texture: 1.6, overhead: rgb{0.22, 0.3, 0.42}},
	Pale:  {tint: rgb{0.52, 0.47, 0.38}, texture: 0.55},
	Snow:  {tint: rgb{0.86, 0.89, 0.95}, texture: 0.16},
}

// The line along the edge of a road, in metres from the camera, and its dashes.
const (
	edgeLineFrom, edgeLineTo = 2.1, 2.4
	dashMetres               = 3.0
)

var paint = rgb{0.7, 0.68, 0.62}

// below draws the ground, whose rows lie at distances of their own.
func (l *Loop) below(row []rgb, at line) {
	down := (at.y - l.horizon + 0.5) / l.fPx
	metres := min(eyeHeight/math.Tan(down), l.view.subjectMetres*farHills)
	s := l.across(at, metres, 6, 0)
	g := looks[l.view.Ground]
	// From one texture to the next without a step.
	at7 := metres * 7
	part := at7 - math.Floor(at7)
	texture, next := s.over(l.ground[int(at7)%groundRows]), s.over(l.ground[(int(at7)+1)%groundRows])
	tint := g.tint
	if g.furrows {
		// Furrows along the way, finer with distance, and greener away from their ridges.
		furrow := 0.82 + 0.18*math.Sin(metres*9)
		grassy := grassTint.times((1 - furrow) * 1.6)
		earth := groundTint.times(furrow)
		tint = rgb{earth[0] + grassy[0], earth[1] + grassy[1], earth[2] + grassy[2]}
	}
	for x := range row {
		grain := 1 + g.texture*(texture.next()*(1-part)+next.next()*part-1)
		// Waves mirror more of the sky where they lean away.
		mirrored := g.overhead.times(max(0, 2-grain))
		own := tint.times(max(0.05, grain))
		row[x] = rgb{own[0] + mirrored[0], own[1] + mirrored[1], own[2] + mirrored[2]}
	}
	if l.view.Ground == Road && metres > edgeLineFrom && metres < edgeLineTo {
		dashes := l.across(at, metres, 2*dashMetres, 0)
		dashes.cover(row, 0, dashMetres/2*l.fPx/metres, paint)
	}
}

// Hands that hold a bar, in shares of the frame's height: where they are, and how large.
const (
	handsFrom   = 0.8
	handAcross  = 0.42 // of the width, from the middle
	handHalf    = 0.17 // of the height
	barHalf     = 0.035
	barAt       = 0.93
	fingersWide = 0.055
)

var glove, bar = rgb{0.045, 0.05, 0.06}, rgb{0.02, 0.02, 0.022}

// hands draws the hands of somebody who rides, on their bar. They ride along: only what shakes
// the camera against them moves them, which the wobble does.
func (l *Loop) hands(row []rgb, at line) {
	height := float64(l.view.Height)
	y := at.y / height
	if y < handsFrom-handHalf/2 {
		return
	}
	middle, width := float64(l.view.Width)/2, float64(l.view.Width)
	soft := max(1, at.soft)
	lay := func(centre, half float64, colour rgb) {
		if half <= 0 {
			return
		}
		for x := range row {
			d := half - math.Abs(float64(x)+0.5-centre-at.dx)
			if share := min(max(d/soft+0.5, 0), 1); share > 0 {
				row[x] = row[x].over(colour.times(share), share)
			}
		}
	}
	if math.Abs(y-barAt) < barHalf {
		lay(middle, handAcross*width, bar)
	}
	for _, side := range []float64{-1, 1} {
		centre := middle + side*handAcross*width
		up := (y - barAt) / handHalf
		half := handHalf * height * math.Sqrt(max(0, 1-up*up))
		// Fingers: four rounded ridges across the fist.
		ridge := 0.8 + 0.2*math.Abs(math.Sin(math.Pi*y/fingersWide))
		lay(centre, half, glove.times(1+1.6*ridge*max(0, -up)))
	}
}
