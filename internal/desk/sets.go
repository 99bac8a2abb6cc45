package desk

import (
	"context"
	"fmt"
	"math"
	"slices"

	"pinhole/core/calc"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// FilterSet is the filters that came together, and what is known of them as one.
type FilterSet struct {
	calc.SetFigures
	Filters []string          `json:"filters" doc:"ids"`
	Missing map[string]string `json:"missing" doc:"by criterion, why its figure is not known"`
}

// Sets returns the sets in the kit as they are on a rig.
func (d *Desk) Sets(ctx context.Context, rigID string) ([]FilterSet, error) {
	s, err := d.shelf(ctx)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(s.rigs, func(r store.Rig) bool { return r.ID == rigID })
	if i < 0 {
		return nil, fmt.Errorf("rig %s: %w", rigID, store.ErrNotFound)
	}
	members := map[string][]store.Filter{}
	names := []string{}
	for _, f := range s.filters {
		if f.Set == "" {
			continue
		}
		if members[f.Set] == nil {
			names = append(names, f.Set)
		}
		members[f.Set] = append(members[f.Set], f)
	}
	sets := []FilterSet{}
	for _, name := range names {
		// A set that was made for another camera is no choice for this rig.
		if !slices.ContainsFunc(members[name], func(f store.Filter) bool { return slices.Contains(f.Cameras, s.rigs[i].CameraID) }) {
			continue
		}
		set, err := s.set(name, members[name], s.rigs[i])
		if err != nil {
			return nil, err
		}
		sets = append(sets, *set)
	}
	return sets, nil
}

// set sums up filters. A figure that one of them leaves open is not known.
func (s *shelf) set(name string, filters []store.Filter, rig store.Rig) (*FilterSet, error) {
	set := &FilterSet{SetFigures: calc.SetFigures{Name: name}, Filters: []string{}, Missing: map[string]string{}}
	var fits, off, tint, corners, flare, soft, mass, price []*float64
	slots := 0.0
	for _, f := range filters {
		set.Filters = append(set.Filters, f.ID)
		seat, err := s.seat(rig, []store.Filter{f})
		if err != nil {
			return nil, err
		}
		fits = append(fits, worth(seat.Standing))
		shown, err := Show(f)
		if err != nil {
			return nil, fmt.Errorf("filter %s as stored: %w", f.ID, err)
		}
		off = append(off, untruth(shown))
		tint, corners = append(tint, size(f.CastStops)), append(corners, size(f.CornerStops))
		flare, soft, price = append(flare, f.Flare), append(soft, f.SharpnessLost), append(price, f.Price)
		mass = append(mass, known(f.WeightG))
		if f.Slot != "" {
			slots++
		}
	}
	figure := func(of glass.Criterion, field **float64, values []*float64, sum func([]float64) float64, missing string) {
		var all []float64
		for _, v := range values {
			if v != nil {
				all = append(all, *v)
			}
		}
		if len(all) < len(values) {
			set.Missing[string(of)] = fmt.Sprintf("%d of %d %s", len(values)-len(all), len(values), missing)
			return
		}
		*field = number(sum(all))
	}
	figure(glass.ByFit, &set.Fit, fits, mean, "not tried nor measured on this rig")
	figure(glass.ByTruth, &set.Truth, off, mean, "not measured")
	figure(glass.ByTint, &set.Tint, tint, slices.Max[[]float64], "not measured")
	figure(glass.ByCorners, &set.Corners, corners, slices.Max[[]float64], "not measured")
	figure(glass.ByFlare, &set.Flare, flare, slices.Max[[]float64], "not judged")
	figure(glass.BySharpness, &set.Sharpness, soft, slices.Max[[]float64], "not measured")
	figure(glass.ByMass, &set.Mass, mass, total, "not weighed")
	figure(glass.ByPrice, &set.Price, price, total, "without a price")
	set.Case = number(slots / float64(len(filters)))
	return set, nil
}

func worth(s fit.Standing) *float64 {
	if v, isKnown := s.Worth(); isKnown {
		return &v
	}
	return nil
}

// untruth is how far a filter is off what is printed on it, nil where that was not
// measured. Glass that prints no strength keeps its word.
func untruth(f ShownFilter) *float64 {
	switch {
	case f.MeasuredStops != nil:
		return size(gap(*f.MeasuredStops, f.Reads.TotalStops))
	case f.Reads.Kind == glass.Clear || f.Reads.Kind == glass.Graduated:
		return number(0)
	case len(f.Ring) > 1 && f.Reads.MaxStops != nil:
		return size(gap(f.Ring[len(f.Ring)-1].Stops, *f.Reads.MaxStops))
	}
	return nil
}

func size(s *stop.Stops) *float64 {
	if s == nil {
		return nil
	}
	return number(math.Abs(float64(*s)))
}

func total(values []float64) (sum float64) {
	for _, v := range values {
		sum += v
	}
	return sum
}

func mean(values []float64) float64 { return total(values) / float64(len(values)) }

func gap(a, b stop.Stops) *stop.Stops {
	between := a - b
	return &between
}
