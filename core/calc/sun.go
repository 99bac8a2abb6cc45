package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/day"
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
	Polar        light.Polar `json:"polar,omitempty" doc:"the sun stays on one side of the horizon all day"`
}

// Twilight is when each twilight begins and ends; null where the sun does not
// pass its altitude on this day.
type Twilight struct {
	Civil        *day.DawnDusk `json:"civil" doc:"sun at -6 degrees"`
	Nautical     *day.DawnDusk `json:"nautical" doc:"sun at -12 degrees"`
	Astronomical *day.DawnDusk `json:"astronomical" doc:"sun at -18 degrees"`
}

// TheSun answers sun.
func TheSun(r SunRequest) (*SunAnswer, error) {
	if err := assemble.CheckYear("time", r.Time); err != nil {
		return nil, err
	}
	p := light.Sun(r.Time, r.Place())
	local := light.DayOf(r.Time, r.Place())
	a := &SunAnswer{
		AltitudeDeg: p.Apparent(), GeometricDeg: p.Geometric, AzimuthDeg: p.Azimuth, SolarNoon: local.Noon, Polar: local.Polar(),
		Twilight: Twilight{twilight(&local, light.Civil), twilight(&local, light.Nautical), twilight(&local, light.Astronomical)},
	}
	horizon := local.Through(light.Horizon)
	a.Sunrise, a.Sunset = day.Known(horizon.Up), day.Known(horizon.Down)
	return a, nil
}

func twilight(local *light.Day, altitude angle.Deg) *day.DawnDusk {
	c := local.Through(altitude)
	if !c.Happens() {
		return nil
	}
	return &day.DawnDusk{Dawn: day.Known(c.Up), Dusk: day.Known(c.Down)}
}
