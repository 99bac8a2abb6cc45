package light

import (
	"math"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Sky is how much cloud there is.
type Sky string

// The skies of the IES availability model.
const (
	ClearSky     Sky = "clear"
	PartlyCloudy Sky = "partly"
	Overcast     Sky = "overcast"
)

// Values returns every Sky there is.
func (Sky) Values() []Sky {
	return []Sky{ClearSky, PartlyCloudy, Overcast}
}

// skyModel holds the constants of one sky: extinction of the direct beam, none
// where it does not come through, and diffuse illuminance A + B·sin^C a in klx
// (Illuminating Engineering Society of North America, Lighting Handbook,
// daylight availability).
type skyModel struct {
	extinction float64
	a, b, c    float64
	skyShare   float64 // of the diffuse light that an upright surface gets
	spread     stop.Stops
}

var skies = map[Sky]*skyModel{
	ClearSky:     {extinction: 0.21, a: 0.8, b: 15.5, c: 0.5, skyShare: 0.5, spread: 0.3},
	PartlyCloudy: {extinction: 0.80, a: 0.3, b: 45, c: 1, skyShare: 0.5, spread: 1},
	// The brighter zenith of the CIE overcast sky leaves less for a wall.
	Overcast: {extinction: math.Inf(1), a: 0.3, b: 21, c: 1, skyShare: 0.396, spread: 0.7},
}

var clearSky = skies[ClearSky]

// Spread returns how far the light under this sky may be off the model.
func (s Sky) Spread() stop.Stops { return skies[s].spread }

const (
	solarKlx    = 127.5 // solar illuminance constant
	lowSunEnds  = 5.0   // degrees; the availability model holds from here up
	darkestDeg  = -18.0 // the twilight curve is held below
	luxInKlx    = 1000
	degsInRight = 90
)

// Daylight is the light of sun and sky on open ground, in lux.
type Daylight struct {
	// DirectNormal falls on a surface that faces the sun.
	DirectNormal float64
	// Diffuse falls from the whole sky on level ground.
	Diffuse float64
	// Total falls on level ground.
	Total float64

	altitude angle.Deg
	skyShare float64
}

// Under returns the daylight under a sky with the sun at a geometric altitude, on
// a day of the year in [1, 366].
//
// From 5° up it is the IES availability model with the air mass of Kasten and
// Young; below it follows the clear-day curve of the Explanatory Supplement to
// the Astronomical Almanac (1992, section 9.34, after Seidelmann), scaled to meet
// the model at 5° and unscaled from 0° down; darker than −18° it stays. Moon and
// lamps are not in it. The direct beam ends with the sun's centre at the horizon,
// where it is worth a tenth of a stop on an upright subject that faces it.
func (s Sky) Under(altitude angle.Deg, day int) Daylight {
	m := skies[s]
	light := Daylight{altitude: altitude, skyShare: m.skyShare}
	switch {
	case altitude >= lowSunEnds:
		direct, diffuse := m.available(altitude, day)
		light.DirectNormal, light.Diffuse = direct, diffuse
		light.Total = direct*altitude.Sin() + diffuse
	case altitude >= 0:
		direct, diffuse := m.available(altitude, day)
		light.Total = m.lowSunLux(altitude, day)
		// The model's own share of direct light, D sin a/(D sin a + d), of the total.
		part := light.Total / (direct*altitude.Sin() + diffuse)
		light.DirectNormal, light.Diffuse = direct*part, diffuse*part
	default:
		light.Total = m.lowSunLux(altitude, day)
		light.Diffuse = light.Total
	}
	return light
}

// available returns the direct normal and the diffuse horizontal illuminance of
// the availability model, in lux; altitude is at least 0°.
func (m *skyModel) available(altitude angle.Deg, day int) (direct, diffuse float64) {
	a := max(altitude, 0)
	extra := solarKlx * (1 + 0.034*math.Cos(2*math.Pi*float64(day-2)/365))
	if !math.IsInf(m.extinction, 1) {
		direct = extra * math.Exp(-m.extinction*airMass(a))
	}
	diffuse = m.a + m.b*math.Pow(a.Sin(), m.c)
	return direct * luxInKlx, diffuse * luxInKlx
}

// airMass returns the relative optical air mass at an altitude of at least 0°
// (Kasten and Young, Applied Optics 28, 1989, p. 4735).
func airMass(altitude angle.Deg) float64 {
	return 1 / (altitude.Sin() + 0.50572*math.Pow(float64(altitude)+6.07995, -1.6364))
}

// lowSunLux returns the light on level ground with the sun below 5°.
func (m *skyModel) lowSunLux(altitude angle.Deg, day int) float64 {
	clearAtFive := clearSky.total(lowSunEnds, day)
	mine := clearAtFive
	if m != clearSky {
		mine = m.total(lowSunEnds, day)
	}
	// log k falls from what meets the model at 5° to 0 at the horizon.
	scale := math.Log10(clearAtFive) - twilight(lowSunEnds)
	scale *= min(max(float64(altitude)/lowSunEnds, 0), 1)
	return math.Pow(10, twilight(float64(altitude))+scale) * mine / clearAtFive
}

// total returns the model's light on level ground.
func (m *skyModel) total(altitude angle.Deg, day int) float64 {
	direct, diffuse := m.available(altitude, day)
	return direct*altitude.Sin() + diffuse
}

// twilightCurve holds log10 of the illuminance in lux as a cubic in altitude/90°,
// for altitudes down to from.
var twilightCurve = []struct {
	from float64
	l    [4]float64
}{
	{-0.8, [4]float64{2.88, 22.26, -207.64, 1034.30}},
	{-5, [4]float64{2.88, 21.81, -258.11, -858.36}},
	{-12, [4]float64{2.70, 12.17, -431.69, -1899.83}},
	{darkestDeg, [4]float64{13.84, 262.72, 1447.42, 2797.93}},
}

// twilight returns log10 of the clear-day illuminance in lux, altitude up to 5°.
func twilight(altitude float64) float64 {
	altitude = max(altitude, darkestDeg)
	part := twilightCurve[len(twilightCurve)-1]
	for _, p := range twilightCurve {
		if altitude >= p.from {
			part = p
			break
		}
	}
	x := altitude / degsInRight
	return part.l[0] + x*(part.l[1]+x*(part.l[2]+x*part.l[3]))
}

// Plane is which way the subject faces.
type Plane string

// The planes.
const (
	Vertical Plane = "vertical" // upright, as most subjects
	Top      Plane = "top"      // seen from above
	Shade    Plane = "shade"    // upright, in open shade
)

// Values returns every Plane there is.
func (Plane) Values() []Plane {
	return []Plane{Vertical, Top, Shade}
}

// DefaultAlbedo is the share of the light that ordinary ground throws back.
const DefaultAlbedo = 0.2

// shadeShare is how much of the diffuse light reaches a subject in open shade.
const shadeShare = 0.5

// On returns the illuminance in lux on a subject. An upright one faces away from
// the sun's azimuth by beta, over ground of an albedo in [0, 1]:
// direct·cos a·max(0, cos β) + h·diffuse + 0.5·ρ·total. The other planes use
// neither.
func (d Daylight) On(plane Plane, beta angle.Deg, albedo float64) float64 {
	switch plane {
	case Top:
		return d.Total
	case Shade:
		return shadeShare * d.Diffuse
	}
	return d.DirectNormal*d.altitude.Cos()*max(0, beta.Cos()) + d.skyShare*d.Diffuse + 0.5*albedo*d.Total
}

// FromSky returns the light of a scene by the sky alone: log2(E/2.5) and how
// much brighter or darker than mid-grey its surfaces are.
func FromSky(s Sky, altitude angle.Deg, day int, plane Plane, beta angle.Deg, albedo float64, surface stop.Stops) Scene {
	lux := s.Under(altitude, day).On(plane, beta, albedo)
	return Scene{EV: stop.FromLux(lux).Plus(surface), Spread: s.Spread()}
}
