package store

import (
	"pinhole/core/assemble"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// Shoot is a day or a weekend of shots.
type Shoot struct {
	Meta
	ShootFields
}

// ShootFields is what is planned for a shoot.
type ShootFields struct {
	Name  string    `json:"name" minLength:"1" maxLength:"80"`
	Place string    `json:"place,omitempty" maxLength:"120"`
	Notes string    `json:"notes,omitempty" maxLength:"2000"`
	Day   ShootDay  `json:"day,omitzero"`
	Kept  *KeptPlan `json:"kept,omitempty" doc:"the plan as it was made"`
}

// ShootDay is where and when a shoot is, and what its sky does.
type ShootDay struct {
	Where        *assemble.PlaceFields `json:"where,omitempty"`
	Zone         string                `json:"zone,omitempty" maxLength:"60" doc:"IANA name of the time zone; that of the place by default"`
	FirstDay     string                `json:"firstDay,omitempty" maxLength:"10" doc:"local date, as in 2031-09-20"`
	LastDay      string                `json:"lastDay,omitempty" maxLength:"10"`
	Sky          light.Sky             `json:"sky,omitempty" doc:"clear by default"`
	Turns        []assemble.SkyTurn    `json:"turns,omitempty" maxItems:"100"`
	SurfaceStops stop.Stops            `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5"`
	Anchor       *Anchor               `json:"anchor,omitempty" doc:"the reading that is pinned"`
}

// Anchor is a reading that moves the light of the day.
type Anchor struct {
	At     time.Time `json:"at"`
	EV100  stop.EV   `json:"ev100" minimum:"-20" maximum:"40"`
	Source string    `json:"source" enum:"real,simulated"`
	Words  string    `json:"words,omitempty" maxLength:"200"`
}

// KeptPlan is a plan as it was made, to compare later ones with.
type KeptPlan struct {
	At    time.Time         `json:"at"`
	Glass map[string]string `json:"glass" doc:"stacks by the ids of their shots"`
}

// ShotDay is when a shot is and what daylight falls on its subject.
type ShotDay struct {
	Minutes      int         `json:"minutes,omitempty" minimum:"1" maximum:"1440" doc:"20 by default"`
	Plane        light.Plane `json:"plane,omitempty" doc:"which way the subject faces; left out, its light is what was read"`
	HeadingDeg   *angle.Deg  `json:"headingDeg,omitempty" minimum:"-360" maximum:"360" doc:"where the camera looks, from north, eastward"`
	TiltDeg      angle.Deg   `json:"tiltDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far it looks up"`
	SurfaceStops *stop.Stops `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5"`
	Water        bool        `json:"water,omitempty" doc:"there is water in the picture"`
}

// Shoots returns the collection of shoots.
func (s *Store) Shoots() Collection[Shoot] {
	return Collection[Shoot]{s, table[Shoot]{
		name: "shoots",
		meta: func(s *Shoot) *Meta { return &s.Meta },
		columns: func(s *Shoot) []column {
			return []column{
				{"name", &s.Name},
				{"place", &s.Place},
				{"notes", &s.Notes},
				{"day", asJSON{&s.Day}},
				{"kept", asJSON{&s.Kept}},
			}
		},
	}}
}
