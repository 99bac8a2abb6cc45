package assemble

import (
	"fmt"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// PlaceFields is a point on the earth.
type PlaceFields struct {
	LatDeg angle.Deg `json:"latDeg" minimum:"-90" maximum:"90" doc:"latitude, north positive, degrees"`
	LonDeg angle.Deg `json:"lonDeg" minimum:"-180" maximum:"180" doc:"longitude, east positive, degrees"`
}

func (f *PlaceFields) Place() light.Place { return light.Place{Lat: f.LatDeg, Lon: f.LonDeg} }

// Years for which the sun's formulas hold.
const firstYear, lastYear = 1950, 2050

// CheckYear returns the fault of an instant for which the sun is not computed.
func CheckYear(field string, t time.Time) error {
	if year := t.UTC().Year(); year < firstYear || year > lastYear {
		return &problem.Fault{Field: field, Value: t, Allowed: fmt.Sprintf("an instant from %d to %d, for which the sun's formulas hold", firstYear, lastYear)}
	}
	return nil
}

// LightReading is a reading at an instant.
type LightReading struct {
	Time  time.Time `json:"time"`
	EV100 stop.EV   `json:"ev100" minimum:"-20" maximum:"40"`
}

// SkyTurn is a sky from an instant on.
type SkyTurn struct {
	From time.Time `json:"from"`
	Sky  light.Sky `json:"sky"`
}
