package store

import (
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"time"

	"pinhole/core/stop"
)

// Filter is a filter as its owner knows it.
type Filter struct {
	Meta
	FilterFields
}

// FilterFields is what an owner says of a filter.
type FilterFields struct {
	Label         string              `json:"label" minLength:"1" maxLength:"60" doc:"the text on its ring"`
	Means         string              `json:"means,omitempty" maxLength:"60" doc:"for an ambiguous label, the reading its owner settled on, as a label with one reading"`
	Name          string              `json:"name,omitempty" maxLength:"80" doc:"what its owner calls it; its label by default"`
	MeasuredStops *stop.Stops         `json:"measuredStops,omitempty" minimum:"-1" maximum:"40" doc:"replaces what is printed"`
	StdErrStops   stop.Stops          `json:"stdErrStops,omitempty" minimum:"0" maximum:"10" doc:"standard error of the measured value"`
	Ring          []assemble.RingMark `json:"ring,omitempty" maxItems:"30" doc:"of a variable filter: marks on its ring and what was measured there"`
	CornerStops   *stop.Stops         `json:"cornerStops,omitempty" minimum:"0" maximum:"20" doc:"how much darker the corners come out, as measured"`
	CastStops     *stop.Stops         `json:"castStops,omitempty" minimum:"-5" maximum:"5" doc:"colour cast as measured, positive towards red"`
	Flare         *float64            `json:"flare,omitempty" minimum:"0" maximum:"3" doc:"as judged against a light: 0 none, 1 slight, 2 plain, 3 heavy"`
	SharpnessLost *float64            `json:"sharpnessLost,omitempty" minimum:"0" maximum:"100" doc:"sharpness lost, per cent"`
	WeightG       float64             `json:"weightG,omitempty" minimum:"0" maximum:"10000" doc:"grams; 0 is not known"`
	Body          fit.Body            `json:"body,omitzero"`
	NeedsBase     bool                `json:"needsBase,omitempty" doc:"cannot sit on the camera itself"`
	Closed        bool                `json:"closed,omitempty" doc:"nothing goes on it"`
	Cameras       []string            `json:"cameras" maxItems:"100" doc:"ids of the cameras it is said to go on"`
	Slot          string              `json:"slot,omitempty" maxLength:"40" doc:"where it lies in the case"`
	Set           string              `json:"set,omitempty" maxLength:"80" doc:"the set it came in"`
	Price         *float64            `json:"price,omitempty" minimum:"0" maximum:"1000000000" doc:"what it cost, in its owner's money"`
	Condition     string              `json:"condition,omitempty" enum:"good,worn,scratched,broken" doc:"left out where nobody looked"`
	History       []Happening         `json:"history,omitempty" maxItems:"200" doc:"what happened to it"`
}

// Happening is one entry of a filter's history.
type Happening struct {
	At   time.Time `json:"at"`
	What string    `json:"what" enum:"bought,cleaned,dropped,lost,found,replaced,measured"`
	Note string    `json:"note,omitempty" maxLength:"200" doc:"of a measurement: what it gave, and from which files"`
}

// Happenings returns the history as fit judges it.
func (f *FilterFields) Happenings() []fit.Happening {
	all := make([]fit.Happening, len(f.History))
	for i, h := range f.History {
		all[i] = fit.Happening{What: fit.Event(h.What), At: h.At}
	}
	return all
}

// Filters returns the collection of filters.
func (s *Store) Filters() Collection[Filter] {
	return Collection[Filter]{s, table[Filter]{
		name: "filters",
		meta: func(f *Filter) *Meta { return &f.Meta },
		columns: func(f *Filter) []column {
			return []column{
				{"label", &f.Label},
				{"means", &f.Means},
				{"name", &f.Name},
				{"measured_stops", optional[stop.Stops]{&f.MeasuredStops}},
				{"std_err_stops", (*float64)(&f.StdErrStops)},
				{"ring", asJSON{&f.Ring}},
				{"corner_stops", optional[stop.Stops]{&f.CornerStops}},
				{"cast_stops", optional[stop.Stops]{&f.CastStops}},
				{"flare", optional[float64]{&f.Flare}},
				{"sharpness_lost", optional[float64]{&f.SharpnessLost}},
				{"weight_g", &f.WeightG},
				{"body", asJSON{&f.Body}},
				{"needs_base", &f.NeedsBase},
				{"closed", &f.Closed},
				{"cameras", asJSON{&f.Cameras}},
				{"slot", &f.Slot},
				{"set_name", &f.Set},
				{"price", optional[float64]{&f.Price}},
				{"condition", &f.Condition},
				{"history", asJSON{&f.History}},
			}
		},
	}}
}
