package light

import (
	"math"

	"pinhole/core/angle"
)

// Direction is where something lies, seen from the camera.
type Direction struct{ Altitude, Azimuth angle.Deg }

type vector [3]float64 // north, east, up

func (d Direction) vector() vector {
	return vector{d.Altitude.Cos() * d.Azimuth.Cos(), d.Altitude.Cos() * d.Azimuth.Sin(), d.Altitude.Sin()}
}

func (v vector) dot(w vector) float64 { return v[0]*w[0] + v[1]*w[1] + v[2]*w[2] }

// From returns the angle between two directions.
func (d Direction) From(other Direction) angle.Deg { return between(d.vector(), other.vector()) }

// between returns the angle between unit vectors.
func between(v, w vector) angle.Deg {
	return angle.FromRadians(math.Acos(min(max(v.dot(w), -1), 1)))
}

// mostPolarised is the degree of polarisation of a clean sky at 90° from the sun.
const mostPolarised = 0.8

// SkyPolarisation returns the degree of polarisation of clear sky at an angle
// from the sun, 0.8·sin²γ/(1 + cos²γ): Rayleigh scattering, less what haze and
// second scattering undo.
func SkyPolarisation(gamma angle.Deg) float64 {
	s, c := gamma.Sin(), gamma.Cos()
	return mostPolarised * s * s / (1 + c*c)
}

// SkyEffect is how much of the sky's light a polariser can take across a frame.
type SkyEffect struct{ Left, Centre, Right float64 }

// unevenSky is the difference across a frame from which the sky looks blotched.
const unevenSky = 0.25

// Uneven reports whether the sky comes out darker on one part of the frame: the
// degrees differ by more than 0.25.
func (e SkyEffect) Uneven() bool {
	return max(e.Left, e.Centre, e.Right)-min(e.Left, e.Centre, e.Right) > unevenSky
}

// AcrossFrame returns the sky effect at the centre and at both edges of a level
// camera's frame. The edges lie half the field of view to either side in the
// camera's own plane, which for a camera that looks up is not the same altitude.
func AcrossFrame(camera, sun Direction, hfov angle.Deg) SkyEffect {
	axis, toSun := camera.vector(), sun.vector()
	right := vector{-camera.Azimuth.Sin(), camera.Azimuth.Cos(), 0}
	at := func(side angle.Deg) float64 {
		var edge vector
		for i := range edge {
			edge[i] = axis[i]*side.Cos() + right[i]*side.Sin()
		}
		return SkyPolarisation(between(edge, toSun))
	}
	return SkyEffect{Left: at(-hfov / 2), Centre: at(0), Right: at(hfov / 2)}
}

// waterIndex is the refractive index of water.
const waterIndex = 1.33

// GlareLeft returns the share of the glare on water that a crossed polariser
// leaves, exposure made up for: 2·Rp/(Rs + Rp), seen at a depression in [0°, 90°].
// It is 1 straight down and level with the water, and nothing near 37°, where the
// light comes in at Brewster's angle.
func GlareLeft(depression angle.Deg) float64 { return ReflectionLeft(90-depression, waterIndex) }

// LittleGlare is the glare left below which a polariser pays on water, and MostGlare that above
// which it does nothing.
const LittleGlare, MostGlare = 0.3, 0.9

// WindowIndex is the refractive index of window glass, and of most that reflects and does
// not conduct.
const WindowIndex = 1.5

// ReflectionLeft returns the share of a reflection that a crossed polariser leaves, exposure
// made up for, on a smooth surface of refractive index n > 1 seen at an incidence in
// [0°, 90°]: 2·Rp/(Rs + Rp).
func ReflectionLeft(incidence angle.Deg, n float64) float64 {
	rs, rp := Fresnel(incidence, n)
	return 2 * rp / (rs + rp)
}

// Fresnel returns the reflectances across and along the plane of incidence of a
// flat surface of refractive index n > 1, at an incidence in [0°, 90°] (M. Born
// and E. Wolf, Principles of Optics, section 1.5).
func Fresnel(incidence angle.Deg, n float64) (rs, rp float64) {
	cosI := max(0, incidence.Cos())
	sinT := incidence.Sin() / n
	cosT := math.Sqrt(1 - sinT*sinT)
	s := (cosI - n*cosT) / (cosI + n*cosT)
	p := (n*cosI - cosT) / (n*cosI + cosT)
	return s * s, p * p
}

// headingStep is how finely headings are looked at, in degrees.
const headingStep = 0.5

// BestHeadings returns the headings at which a camera of its own tilt has most polarised sky
// at its centre: two, one on either side of the sun, a quarter turn from it for a level
// camera alone; one, or none, where the sun stands so that all headings do as much.
func BestHeadings(altitude angle.Deg, sun Direction) []angle.Deg {
	const n = int(360 / headingStep)
	at := func(i int) float64 {
		return SkyPolarisation(Direction{altitude, angle.Deg(float64((i+n)%n) * headingStep)}.From(sun))
	}
	most, least := 0.0, 1.0
	for i := range n {
		most, least = max(most, at(i)), min(least, at(i))
	}
	if most-least < 0.01 { // straight up or down, or the sun overhead: no heading is better
		return nil
	}
	var best []angle.Deg
	for i := range n {
		// A peak: no lower than before, higher than after, and as high as the highest.
		if v := at(i); v >= at(i-1) && v > at(i+1) && most-v < 0.001 {
			best = append(best, angle.Deg(float64(i)*headingStep))
		}
	}
	return best
}
