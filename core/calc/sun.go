package calc

import (
	"pinhole/core/assemble"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
)

// SunRequest asks where the sun stands.
type SunRequest struct {
	Time time.Time `json:"time" doc:"an instant with its zone; the day is the local one at that offset"`
	assemble.PlaceFields
}

// SunAnswer is the sun at the instant and on its day.
type SunAnswer struct {
	AltitudeDeg  angle.Deg   `json:"altitudeDeg" doc:"as seen through the air"`
	GeometricDeg angle.Deg   `json:"geometricDeg" doc:"without the air; light is computed from it"`
	AzimuthDeg   angle.Deg   `json:"azimuthDeg" doc:"from north, eastward"`
	Sunrise      *time.Time  `json:"sunrise" doc:"null where the sun does not rise on this day"`
	Sunset       *time.Time  `json:"sunset" doc:"null where it does not set"`
	SolarNoon    time.Time   `json:"solarNoon"`
	Twilight     Twilight    `json:"twilight"`
	Polar        light.Polar `json:"polar,omitempty" enum:"day,night" doc:"the sun stays on one side of the horizon all day"`
}

// Twilight is when each twilight begins and ends; null where the sun does not
// pass its altitude on this day.
type Twilight struct {
	Civil        *DawnDusk `json:"civil" doc:"sun at -6 degrees"`
	Nautical     *DawnDusk `json:"nautical" doc:"sun at -12 degrees"`
	Astronomical *DawnDusk `json:"astronomical" doc:"sun at -18 degrees"`
}

// DawnDusk is when the sun rises and sinks through one altitude.
type DawnDusk struct {
	Dawn *time.Time `json:"dawn"`
	Dusk *time.Time `json:"dusk"`
}

// TheSun answers sun.
func TheSun(r SunRequest) (*SunAnswer, error) {
	if err := assemble.CheckYear("time", r.Time); err != nil {
		return nil, err
	}
	p := light.Sun(r.Time, r.Place())
	day := light.DayOf(r.Time, r.Place())
	a := &SunAnswer{
		AltitudeDeg: p.Apparent(), GeometricDeg: p.Geometric, AzimuthDeg: p.Azimuth, SolarNoon: day.Noon, Polar: day.Polar(),
		Twilight: Twilight{twilight(&day, light.Civil), twilight(&day, light.Nautical), twilight(&day, light.Astronomical)},
	}
	horizon := day.Through(light.Horizon)
	a.Sunrise, a.Sunset = known(horizon.Up), known(horizon.Down)
	return a, nil
}

// known returns the instant, nil for the zero one.
func known(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

func twilight(day *light.Day, altitude angle.Deg) *DawnDusk {
	c := day.Through(altitude)
	if !c.Happens() {
		return nil
	}
	return &DawnDusk{known(c.Up), known(c.Down)}
}
