package store

import (
	"pinhole/core/assemble"
	"pinhole/core/stop"
)

// Camera is a camera as its owner knows it.
type Camera struct {
	Meta
	CameraFields
}

// Source says where a value comes from.
type Source string

// The sources.
const (
	Printed  Source = "printed"  // in its data sheet, or on it
	Measured Source = "measured" // by its owner
	Assumed  Source = "assumed"  // taken from an archetype, or guessed
)

// CameraFields is what an owner says of a camera.
type CameraFields struct {
	Name       string                  `json:"name" minLength:"1" maxLength:"80"`
	Aperture   stop.FNumber            `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number"`
	TNumber    *stop.FNumber           `json:"tNumber,omitempty" minimum:"0.5" maximum:"64" doc:"T-number; where it is known it is what exposure counts with"`
	ISOBase    stop.ISO                `json:"isoBase" minimum:"1" maximum:"1000000"`
	ISOCeiling stop.ISO                `json:"isoCeiling" minimum:"1" maximum:"10000000" doc:"the highest ISO that still looks good"`
	Steps      []string                `json:"steps" maxItems:"200" maxLength:"12" doc:"the shutter times its menu offers, as written there; none means any"`
	Rates      []string                `json:"rates" maxItems:"40" maxLength:"12" doc:"frame rates it can shoot"`
	FrameSizes []string                `json:"frameSizes,omitempty" maxItems:"40" maxLength:"20" doc:"frame sizes it records, as in 3840x2160, the usual one first"`
	Mounted    []string                `json:"mounted" maxItems:"4" doc:"ids of filters that live on its lens"`
	Profile    *assemble.CameraProfile `json:"profile,omitempty" doc:"lens, stabiliser and automatic, as far as they are known"`
	MassG      float64                 `json:"massG,omitempty" minimum:"0" maximum:"100000" doc:"grams; 0 is not known"`
	PackMin    float64                 `json:"packMin,omitempty" minimum:"0" maximum:"1440" doc:"minutes that a battery lasts; 0 is not known"`
	SealedPort bool                    `json:"sealedPort,omitempty" doc:"its port is swapped for a filter, and keeps water out"`
	Archetype  string                  `json:"archetype,omitempty" maxLength:"40" doc:"what it was started from"`
	Recipe     Recipe                  `json:"recipe,omitzero"`
	Sources    map[string]Source       `json:"sources,omitempty" doc:"where values come from (printed, measured, assumed), by the name of their field"`
	Notes      string                  `json:"notes,omitempty" maxLength:"2000"`
}

// Cameras returns the collection of cameras.
func (s *Store) Cameras() Collection[Camera] {
	return Collection[Camera]{s, table[Camera]{
		name: "cameras",
		meta: func(c *Camera) *Meta { return &c.Meta },
		columns: func(c *Camera) []column {
			return []column{
				{"name", &c.Name},
				{"aperture", (*float64)(&c.Aperture)},
				{"t_number", optional[stop.FNumber]{&c.TNumber}},
				{"iso_base", (*float64)(&c.ISOBase)},
				{"iso_ceiling", (*float64)(&c.ISOCeiling)},
				{"steps", asJSON{&c.Steps}},
				{"rates", asJSON{&c.Rates}},
				{"frame_sizes", asJSON{&c.FrameSizes}},
				{"mounted", asJSON{&c.Mounted}},
				{"notes", &c.Notes},
				{"profile", asJSON{&c.Profile}},
				{"mass_g", &c.MassG},
				{"pack_min", &c.PackMin},
				{"sealed_port", &c.SealedPort},
				{"archetype", &c.Archetype},
				{"recipe", asJSON{&c.Recipe}},
				{"sources", asJSON{&c.Sources}},
			}
		},
	}}
}
