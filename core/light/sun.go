package light

import (
	"math"
	"time"

	"pinhole/core/angle"
)

// Place is a point on the earth: latitude north of the equator in [-90°, 90°],
// longitude east of the prime meridian in [-180°, 180°].
type Place struct{ Lat, Lon angle.Deg }

// Position is where the sun stands, seen from a place.
type Position struct {
	// Geometric is the altitude above the horizon without the air.
	Geometric angle.Deg
	// Azimuth is the direction from north, eastward, in [0°, 360°).
	Azimuth angle.Deg
}

// Apparent returns the altitude at which the sun is seen through the air.
func (p Position) Apparent() angle.Deg { return p.Geometric + Refraction(p.Geometric) }

// Sun returns where the sun stands at an instant, within 0.05° from 1950 to 2050.
//
// The low-accuracy solar coordinates of J. Meeus, Astronomical Algorithms, 2nd
// ed., chapter 25, with apparent sidereal time from chapter 12: the method of
// the NOAA solar calculator. The difference between dynamical and universal time,
// about a minute, moves the sun by 0.0007° and is left out.
func Sun(t time.Time, at Place) Position {
	s := apparentSun(centuries(t))
	h := hourAngle(s, t, at)
	sinLat, cosLat := math.Sincos(at.Lat.Radians())
	sinDec, cosDec := math.Sincos(s.declination)
	sinH, cosH := math.Sincos(h)
	up := sinLat*sinDec + cosLat*cosDec*cosH
	north := cosLat*sinDec - sinLat*cosDec*cosH
	east := -cosDec * sinH
	return Position{
		Geometric: angle.FromRadians(math.Atan2(up, math.Hypot(north, east))),
		Azimuth:   angle.FromRadians(math.Atan2(east, north)).Heading(),
	}
}

const (
	j2000        = 2451545.0 // Julian date of 2000 January 1, 12h
	unixEpoch    = 2440587.5 // Julian date of 1970 January 1, 0h
	secondsInDay = 86400
	century      = 36525.0 // days
)

// julianDate returns the Julian date of t in universal time.
func julianDate(t time.Time) float64 {
	return unixEpoch + (float64(t.Unix())+float64(t.Nanosecond())*1e-9)/secondsInDay
}

func centuries(t time.Time) float64 { return (julianDate(t) - j2000) / century }

// equatorial is the sun's place among the stars, in radians, and the angles that
// sidereal time needs.
type equatorial struct {
	rightAscension, declination float64
	obliquity, nutation         float64 // of the ecliptic; in longitude
}

// apparentSun returns the apparent place of the sun at T Julian centuries of
// J2000 (Meeus, eqs. 25.2 to 25.8 and 22.3).
func apparentSun(T float64) equatorial {
	rad := func(deg float64) float64 { return angle.Deg(math.Mod(deg, 360)).Radians() }
	mean := 280.46646 + T*(36000.76983+T*0.0003032)
	anomaly := rad(357.52911 + T*(35999.05029-T*0.0001537))
	centre := (1.914602-T*(0.004817+T*0.000014))*math.Sin(anomaly) +
		(0.019993-T*0.000101)*math.Sin(2*anomaly) + 0.000289*math.Sin(3*anomaly)
	node := rad(125.04 - 1934.136*T)
	longitude := rad(mean + centre - 0.00569 - 0.00478*math.Sin(node))
	obliquity := rad(23 + (26+(21.448-T*(46.8150+T*(0.00059-T*0.001813)))/60)/60 + 0.00256*math.Cos(node))
	sinL, cosL := math.Sincos(longitude)
	return equatorial{
		rightAscension: math.Atan2(math.Cos(obliquity)*sinL, cosL),
		declination:    math.Asin(math.Sin(obliquity) * sinL),
		obliquity:      obliquity,
		nutation:       rad(-0.00478 * math.Sin(node)),
	}
}

// hourAngle returns how far the sun is past the meridian of the place, in
// radians (Meeus, eq. 12.4 for the sidereal time of the prime meridian).
func hourAngle(s equatorial, t time.Time, at Place) float64 {
	d := julianDate(t) - j2000
	T := d / century
	sidereal := math.Mod(280.46061837+360.98564736629*d+T*T*(0.000387933-T/38710000), 360)
	return (angle.Deg(sidereal) + at.Lon).Radians() + s.nutation*math.Cos(s.obliquity) - s.rightAscension
}

// Refraction returns how much the air lifts the sun from a geometric altitude,
// by the approximation of the NOAA solar calculator, its term below the horizon
// too.
func Refraction(geometric angle.Deg) angle.Deg {
	const arcsec = 1.0 / 3600
	h := float64(geometric)
	tan := geometric.Tan()
	switch {
	case h > 85:
		return 0
	case h > 5:
		return angle.Deg(arcsec * (58.1/tan - 0.07/math.Pow(tan, 3) + 0.000086/math.Pow(tan, 5)))
	case h > -0.575:
		return angle.Deg(arcsec * (1735 + h*(-518.2+h*(103.4+h*(-12.79+h*0.711)))))
	}
	return angle.Deg(arcsec * -20.774 / tan)
}
