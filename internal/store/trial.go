package store

import (
	"time"

	"pinhole/core/angle"
)

// Trial is a filter tried on a camera by hand.
type Trial struct {
	Meta
	TrialFields
}

// TrialFields is what was tried, when, and what it found.
type TrialFields struct {
	CameraID string    `json:"cameraId" minLength:"1" maxLength:"60"`
	FilterID string    `json:"filterId" minLength:"1" maxLength:"60"`
	TriedAt  time.Time `json:"triedAt"`
	Found    Found     `json:"found"`
}

// Found is what a trial found. What is left out was not looked at.
type Found struct {
	Seated      bool       `json:"seated" doc:"it goes on, straight and all the way"`
	Wobbles     *bool      `json:"wobbles,omitempty" doc:"it moves when it is shaken by hand"`
	PullOffG    *float64   `json:"pullOffG,omitempty" minimum:"0.1" maximum:"1000000" doc:"what a luggage scale shows when it comes off, grams"`
	TiltUpDeg   *angle.Deg `json:"tiltUpDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far the gimbal still tilts up with it on"`
	TiltDownDeg *angle.Deg `json:"tiltDownDeg,omitempty" minimum:"-90" maximum:"180" doc:"how far it tilts down"`
	Folds       *bool      `json:"folds,omitempty" doc:"the camera folds away with it on"`
	SelfTest    *bool      `json:"selfTest,omitempty" doc:"the gimbal passes its self-test at power-on"`
	DarkCorners *bool      `json:"darkCorners,omitempty" doc:"corners are dark at the widest"`
	MarksLeft   *bool      `json:"marksLeft,omitempty" doc:"it left marks"`
	Note        string     `json:"note,omitempty" maxLength:"500"`
}

// Trials returns the collection of trials.
func (s *Store) Trials() Collection[Trial] {
	return Collection[Trial]{s, table[Trial]{
		name:    "trials",
		columns: []string{"camera_id", "filter_id", "tried_at", "found"},
		meta:    func(t *Trial) *Meta { return &t.Meta },
		fields: func(t *Trial) []any {
			return []any{&t.CameraID, &t.FilterID, zoned{&t.TriedAt}, asJSON{&t.Found}}
		},
	}}
}
