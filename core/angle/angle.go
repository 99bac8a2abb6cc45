// Package angle holds plane angles and angular rates in degrees, the unit people
// use for fields of view, headings, tilts and turns.
//
// A shutter angle is a share of a frame's time, not a direction; it has a type
// of its own in package stop.
package angle

import "math"

// Deg is a plane angle in degrees.
type Deg float64

// FromRadians returns an angle of r radians.
func FromRadians(r float64) Deg { return Deg(r * 180 / math.Pi) }

// Radians returns the angle in radians.
func (d Deg) Radians() float64 { return float64(d) * math.Pi / 180 }

// Sin returns the sine of d.
func (d Deg) Sin() float64 { return math.Sin(d.Radians()) }

// Cos returns the cosine of d.
func (d Deg) Cos() float64 { return math.Cos(d.Radians()) }

// Tan returns the tangent of d.
func (d Deg) Tan() float64 { return math.Tan(d.Radians()) }

// Abs returns the size of d without its direction.
func (d Deg) Abs() Deg { return Deg(math.Abs(float64(d))) }

// Heading returns d brought into [0, 360): a direction from north, eastward.
func (d Deg) Heading() Deg {
	h := math.Mod(float64(d), 360)
	if h < 0 {
		h += 360
	}
	if h >= 360 { // the sum of a tiny negative and 360
		h = 0
	}
	return Deg(h)
}

// Turn returns d brought into [-180, 180): the shorter way round.
func (d Deg) Turn() Deg { return (d + 180).Heading() - 180 }

// DegPerS is an angular rate in degrees a second.
type DegPerS float64

// RadiansPerS returns the rate in radians a second.
func (r DegPerS) RadiansPerS() float64 { return Deg(r).Radians() }

// Abs returns the size of r without its direction.
func (r DegPerS) Abs() DegPerS { return DegPerS(math.Abs(float64(r))) }
