package store

import (
	"context"
	"time"

	"pinhole/core/stop"
)

// LightReading is light that was read on a shoot, kept with how it was read.
type LightReading struct {
	Meta
	LightReadingFields
}

// LightReadingFields is what was read, when, and what it comes to.
type LightReadingFields struct {
	ShootID     string     `json:"shootId" minLength:"1" maxLength:"60"`
	Kind        string     `json:"kind" enum:"meter,auto,bias,lux,sky,still"`
	Source      string     `json:"source" enum:"real,simulated"`
	TakenAt     time.Time  `json:"takenAt"`
	Words       string     `json:"words" maxLength:"200" doc:"as it was read"`
	EV100       stop.EV    `json:"ev100" minimum:"-20" maximum:"40"`
	SpreadStops stop.Stops `json:"spreadStops" minimum:"0" maximum:"10"`
}

func lightReadings() table[LightReading] {
	return table[LightReading]{
		name: "light_readings",
		meta: func(r *LightReading) *Meta { return &r.Meta },
		columns: func(r *LightReading) []column {
			return []column{
				{"shoot_id", &r.ShootID},
				{"kind", &r.Kind},
				{"source", &r.Source},
				{"taken_at", zoned{&r.TakenAt}},
				{"words", &r.Words},
				{"ev100", (*float64)(&r.EV100)},
				{"spread_stops", (*float64)(&r.SpreadStops)},
			}
		},
	}
}

// LightReadings returns the collection of readings of light.
func (s *Store) LightReadings() Collection[LightReading] {
	return Collection[LightReading]{s, lightReadings()}
}

// LightReadingsOf returns the readings taken on a shoot, oldest first.
func (s *Store) LightReadingsOf(ctx context.Context, shootID string) ([]LightReading, error) {
	return lightReadings().list(ctx, s.reader, "shoot_id = ?", shootID)
}
