package store

import "pinhole/core/stop"

// Filter is a filter as its owner knows it.
type Filter struct {
	Meta
	FilterFields
}

// FilterFields is what an owner says of a filter.
type FilterFields struct {
	Label         string      `json:"label" minLength:"1" maxLength:"60" doc:"the text on its ring"`
	Means         string      `json:"means,omitempty" maxLength:"60" doc:"for an ambiguous label, the reading its owner settled on, as a label with one reading"`
	Name          string      `json:"name,omitempty" maxLength:"80" doc:"what its owner calls it; its label by default"`
	MeasuredStops *stop.Stops `json:"measuredStops,omitempty" minimum:"-1" maximum:"40" doc:"replaces what is printed"`
	StdErrStops   stop.Stops  `json:"stdErrStops,omitempty" minimum:"0" maximum:"10" doc:"standard error of the measured value"`
	CornerStops   stop.Stops  `json:"cornerStops,omitempty" minimum:"0" maximum:"20" doc:"how much darker the corners come out"`
	CastStops     stop.Stops  `json:"castStops,omitempty" minimum:"-5" maximum:"5" doc:"colour cast, positive towards red"`
	WeightG       float64     `json:"weightG,omitempty" minimum:"0" maximum:"10000" doc:"grams"`
	NeedsBase     bool        `json:"needsBase,omitempty" doc:"cannot sit on the camera itself"`
	Closed        bool        `json:"closed,omitempty" doc:"nothing goes on it"`
	Cameras       []string    `json:"cameras" maxItems:"100" doc:"ids of the cameras it goes on"`
	Slot          string      `json:"slot,omitempty" maxLength:"40" doc:"where it lies in the case"`
}

// Filters returns the collection of filters.
func (s *Store) Filters() Collection[Filter] {
	return Collection[Filter]{s, table[Filter]{
		name: "filters",
		columns: []string{"label", "means", "name", "measured_stops", "std_err_stops", "corner_stops", "cast_stops",
			"weight_g", "needs_base", "closed", "cameras", "slot"},
		meta: func(f *Filter) *Meta { return &f.Meta },
		fields: func(f *Filter) []any {
			return []any{&f.Label, &f.Means, &f.Name, optional{&f.MeasuredStops}, (*float64)(&f.StdErrStops), (*float64)(&f.CornerStops),
				(*float64)(&f.CastStops), &f.WeightG, &f.NeedsBase, &f.Closed, asJSON{&f.Cameras}, &f.Slot}
		},
	}}
}
