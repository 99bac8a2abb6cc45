package store

import (
	"pinhole/core/calc"
	"pinhole/core/stop"
)

// Camera is a camera as its owner knows it.
type Camera struct {
	Meta
	CameraFields
}

// CameraFields is what an owner says of a camera.
type CameraFields struct {
	Name       string              `json:"name" minLength:"1" maxLength:"80"`
	Aperture   stop.FNumber        `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number, T-number where known"`
	ISOBase    stop.ISO            `json:"isoBase" minimum:"1" maximum:"1000000"`
	ISOCeiling stop.ISO            `json:"isoCeiling" minimum:"1" maximum:"10000000" doc:"the highest ISO that still looks good"`
	Steps      []string            `json:"steps" maxItems:"200" maxLength:"12" doc:"the shutter times its menu offers, as written there; none means any"`
	Rates      []string            `json:"rates" maxItems:"40" maxLength:"12" doc:"frame rates it can shoot"`
	Mounted    []string            `json:"mounted" maxItems:"4" doc:"ids of filters that live on its lens"`
	Profile    *calc.CameraProfile `json:"profile,omitempty" doc:"lens, stabiliser and automatic, as far as they are known"`
	Notes      string              `json:"notes,omitempty" maxLength:"2000"`
}

// Cameras returns the collection of cameras.
func (s *Store) Cameras() Collection[Camera] {
	return Collection[Camera]{s, table[Camera]{
		name:    "cameras",
		columns: []string{"name", "aperture", "iso_base", "iso_ceiling", "steps", "rates", "mounted", "notes", "profile"},
		meta:    func(c *Camera) *Meta { return &c.Meta },
		fields: func(c *Camera) []any {
			return []any{&c.Name, (*float64)(&c.Aperture), (*float64)(&c.ISOBase), (*float64)(&c.ISOCeiling), asJSON{&c.Steps}, asJSON{&c.Rates}, asJSON{&c.Mounted}, &c.Notes, asJSON{&c.Profile}}
		},
	}}
}
