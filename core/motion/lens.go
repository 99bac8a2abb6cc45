package motion

import (
	"math"

	"pinhole/core/angle"
)

// Projection says how directions become places in the picture.
type Projection string

// The projections.
const (
	// Rectilinear keeps straight lines straight; the usual lens.
	Rectilinear Projection = "rectilinear"
	// Equidistant puts equal angles at equal distances; a fisheye.
	Equidistant Projection = "equidistant"
)

// Values returns every Projection there is.
func (Projection) Values() []Projection {
	return []Projection{Rectilinear, Equidistant}
}

// Lens is what the picture shows and how wide it is.
type Lens struct {
	// WidthPx is the width of the output frame, above 0.
	WidthPx float64
	// HFOV is the horizontal field of view: in (0°, 180°) for a rectilinear
	// lens, in (0°, 360°] for an equidistant one.
	HFOV       angle.Deg
	Projection Projection
}

// PxPerRadian returns the image scale at the centre: (W/2)/tan(HFOV/2) for a
// rectilinear lens, W/HFOV for an equidistant one (the mapping functions
// r = f·tan θ and r = f·θ).
func (l Lens) PxPerRadian() float64 {
	if l.Projection == Equidistant {
		return l.WidthPx / l.HFOV.Radians()
	}
	return l.WidthPx / 2 / (l.HFOV / 2).Tan()
}

// Px returns how far a turn of d moves the centre of the picture.
func (l Lens) Px(d angle.Deg) float64 { return l.PxPerRadian() * d.Radians() }

// Share returns px as a share of the picture's width.
func (l Lens) Share(px float64) float64 { return px / l.WidthPx }

// widened returns the field of view at which the image scale at the centre is
// that of l divided by factor, which is above 0.
func (l Lens) widened(factor float64) angle.Deg {
	if l.Projection == Equidistant {
		return l.HFOV * angle.Deg(factor)
	}
	return angle.FromRadians(2 * math.Atan(factor*(l.HFOV/2).Tan()))
}

// Widened returns l with its field of view changed so that everything at the
// centre comes out smaller by factor, in (0, ∞): a blur of 10 px becomes one of
// 10/factor px.
func (l Lens) Widened(factor float64) Lens {
	l.HFOV = l.widened(factor)
	return l
}

// Cropped returns l as it is seen after share of its width, in [0, 1), is cut away
// and the rest shown at full width, as an electronic stabiliser does.
func (l Lens) Cropped(share float64) Lens {
	l.HFOV = l.widened(1 - share)
	return l
}

// HalfDiagonal returns the angle from the axis to the corner of a frame whose
// height is aspect times its width: the corner is √(1 + aspect²) times as far out
// in the picture as the middle of the side.
func (l Lens) HalfDiagonal(aspect float64) angle.Deg {
	return l.widened(math.Hypot(1, aspect)) / 2
}
