package store

import (
	"context"
	"pinhole/core/assemble"
	"time"

	"pinhole/core/stop"
)

// Reading is light that was read for a shot, kept with how it was read.
type Reading struct {
	Meta
	ReadingFields
}

// ReadingFields is what was read, when, and what it comes to.
type ReadingFields struct {
	ShotID      string             `json:"shotId"`
	Role        string             `json:"role" enum:"at,low" doc:"at: the reading, or the highest of a range; low: the lowest"`
	Source      string             `json:"source" enum:"real,simulated"`
	TakenAt     time.Time          `json:"takenAt"`
	Light       assemble.ShotLight `json:"light" doc:"as it was typed"`
	EV100       stop.EV            `json:"ev100"`
	SpreadStops stop.Stops         `json:"spreadStops"`
}

func readings() table[Reading] {
	return table[Reading]{
		name: "readings",
		meta: func(r *Reading) *Meta { return &r.Meta },
		columns: func(r *Reading) []column {
			return []column{
				{"shot_id", &r.ShotID},
				{"role", &r.Role},
				{"source", &r.Source},
				{"taken_at", zoned{&r.TakenAt}},
				{"light", asJSON{&r.Light}},
				{"ev100", (*float64)(&r.EV100)},
				{"spread_stops", (*float64)(&r.SpreadStops)},
			}
		},
	}
}

// ReadingsOf returns the readings taken for a shot, oldest first.
func (s *Store) ReadingsOf(ctx context.Context, shotID string) ([]Reading, error) {
	return readings().list(ctx, s.reader, "shot_id = ?", shotID)
}
