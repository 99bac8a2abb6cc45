package store

import (
	"pinhole/core/fit"
	"time"
)

// Trial is a filter tried on a rig by hand.
type Trial struct {
	Meta
	TrialFields
}

// TrialFields is what was tried, when, and what it found.
type TrialFields struct {
	RigID    string    `json:"rigId" minLength:"1" maxLength:"60"`
	FilterID string    `json:"filterId" minLength:"1" maxLength:"60"`
	TriedAt  time.Time `json:"triedAt"`
	Found    Found     `json:"found"`
}

// Found is what a trial found. What is left out was not looked at.
type Found struct {
	fit.TrialFields
	Note string `json:"note,omitempty" maxLength:"500"`
}

// Trials returns the collection of trials.
func (s *Store) Trials() Collection[Trial] {
	return Collection[Trial]{s, table[Trial]{
		name: "trials",
		meta: func(t *Trial) *Meta { return &t.Meta },
		columns: func(t *Trial) []column {
			return []column{
				{"rig_id", &t.RigID},
				{"filter_id", &t.FilterID},
				{"tried_at", zoned{&t.TriedAt}},
				{"found", asJSON{&t.Found}},
			}
		},
	}}
}
