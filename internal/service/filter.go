package service

import (
	"errors"
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"strings"

	"pinhole/core/calc"
	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// ShownFilter is a filter with what its label says.
type ShownFilter struct {
	store.Filter
	Title string           `json:"title" doc:"its name, or its label"`
	Reads calc.LabelAnswer `json:"reads" doc:"what the label says, or what its owner settled on"`
	// Counts is nil while the label can be read in two ways and nothing was measured.
	Counts *assemble.KitFilter `json:"counts,omitempty" doc:"as it is counted in choosing; left out while its strength is not settled"`
	Takes  stop.Stops          `json:"takesStops" doc:"what it takes as it is counted; a variable filter at its lightest, 0 while that is not settled"`
	// Learned is what the log makes of its strength, where it has records of it.
	Learned *FilterLearned `json:"learned,omitempty" doc:"as the log teaches it"`
	Open    string         `json:"open,omitempty" doc:"the question to its owner that keeps it from being used"`
}

// Show returns the filter with what its label says. Its faults name the fields of
// store.FilterFields.
func Show(f store.Filter) (ShownFilter, error) {
	out := ShownFilter{Filter: f, Title: f.Name}
	if out.Title == "" {
		out.Title = f.Label
	}
	field, text := "label", f.Label
	if f.Means != "" {
		field, text = "means", f.Means
	}
	reads, err := calc.ReadLabel(calc.LabelRequest{Label: text})
	if err != nil {
		return out, named(field, text, err)
	}
	out.Reads = *reads
	if reads.Kind == glass.Variable && f.MeasuredStops != nil {
		return out, &problem.Fault{Field: "measuredStops", Value: *f.MeasuredStops, Allowed: "nothing for a variable filter: what it takes depends on its ring"}
	}
	if err := problem.At("body", fit.CheckBody(&f.Body)); err != nil {
		return out, err
	}
	ring, err := assemble.CheckRing("ring", f.Ring)
	if err != nil {
		return out, err
	}
	if len(f.Ring) > 0 && reads.Kind != glass.Variable {
		return out, &problem.Fault{Field: "ring", Value: f.Ring, Allowed: "nothing: only a variable filter has marks on its ring"}
	}
	if reads.Ambiguous && f.MeasuredStops == nil {
		out.Open = question(reads)
		return out, nil
	}
	out.Counts = &assemble.KitFilter{
		ID: f.ID, Kind: reads.Kind, Stops: reads.TotalStops, MinStops: reads.MinStops, MaxStops: reads.MaxStops,
		MeasuredStops: f.MeasuredStops, StdErrStops: f.StdErrStops, CornerStops: orZero(f.CornerStops), CastStops: orZero(f.CastStops),
		WeightG: f.WeightG, Base: truth(!f.NeedsBase), TakesLayer: truth(!f.Closed),
	}
	if reads.Kind == glass.Graduated {
		out.Counts.GraduatedStops = reads.Stops
	}
	if len(ring) > 0 { // what was measured replaces what is printed
		out.Counts.Ring, out.Counts.MinStops, out.Counts.MaxStops = f.Ring, &ring[0].Stops, &ring[len(ring)-1].Stops
	}
	out.Takes, err = out.Counts.Takes()
	return out, err
}

func question(l *calc.LabelAnswer) string {
	ways := []string{l.Reads}
	for _, a := range l.Alternatives {
		ways = append(ways, a.Reads)
	}
	return "Is it " + strings.Join(ways, " or ") + "?"
}

// orZero counts what was not measured as nothing, which is how choosing weighs it.
func orZero(s *stop.Stops) stop.Stops {
	if s == nil {
		return 0
	}
	return *s
}

func truth(is bool) *bool { return &is }

// CheckFilter returns the fault of a filter whose label cannot be read.
func (svc *Service) CheckFilter(f store.Filter) error {
	_, err := Show(f)
	return err
}

// named gives a fault of another field, or of a parser, the name of the field it
// has here.
func named(field string, value any, err error) error {
	var fault *problem.Fault
	if errors.As(err, &fault) {
		return &problem.Fault{Field: field, Value: value, Allowed: fault.Allowed}
	}
	var parse *stop.ParseError
	if errors.As(err, &parse) {
		return &problem.Fault{Field: field, Value: value, Allowed: parse.Err.Error()}
	}
	return err
}
