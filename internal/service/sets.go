package service

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"pinhole/core/assemble"
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
func (svc *Service) Sets(ctx context.Context, rigID string) ([]FilterSet, error) {
	s, err := svc.shelf(ctx)
	if err != nil {
		return nil, err
	}
	rig := s.rig(rigID)
	if rig == nil {
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
		if !slices.ContainsFunc(members[name], func(f store.Filter) bool { return slices.Contains(f.Cameras, rig.CameraID) }) {
			continue
		}
		set, err := s.set(name, members[name], *rig)
		if err != nil {
			return nil, err
		}
		sets = append(sets, *set)
	}
	return sets, nil
}

// set sums up filters. A figure that one of them leaves open is not known.
func (s *shelf) set(name string, filters []store.Filter, rig store.Rig) (*FilterSet, error) {
	set := &FilterSet{Filters: []string{}, Missing: map[string]string{}}
	members := make([]glass.Member, len(filters))
	for i, f := range filters {
		set.Filters = append(set.Filters, f.ID)
		seat, err := s.seat(rig, []store.Filter{f})
		if err != nil {
			return nil, err
		}
		off, err := offPrinted(f)
		if err != nil {
			return nil, fmt.Errorf("filter %s as stored: %w", f.ID, err)
		}
		on := seat.measured(f)
		members[i] = glass.Member{
			Fit: worth(seat.Standing), Off: off, Cast: f.CastStops, Corner: on.CornerStops, Flare: on.Flare,
			SharpnessLost: on.SharpnessLost, WeightG: known(f.WeightG), Price: f.Price, HasSlot: f.Slot != "",
		}
	}
	figures, missing := glass.SumUp(members)
	set.SetFigures = calc.SetFiguresOf(name, figures)
	for k, why := range missing {
		set.Missing[string(k)] = why
	}
	return set, nil
}

func worth(s fit.Standing) *float64 {
	if v, isKnown := s.Worth(); isKnown {
		return &v
	}
	return nil
}

// offPrinted returns how far a filter is off its label, nil where that is not known.
func offPrinted(f store.Filter) (*stop.Stops, error) {
	printed, err := glass.ParseLabel(cmp.Or(f.Means, f.Label))
	if err != nil {
		return nil, err
	}
	ring, err := assemble.CheckRing("ring", f.Ring)
	if err != nil {
		return nil, err
	}
	return glass.OffPrinted(printed.Reading, f.MeasuredStops, ring), nil
}
