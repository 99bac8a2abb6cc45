package service

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"pinhole/internal/paper"
	"pinhole/internal/store"
)

// Labels returns what stands on the slots of the filters of those ids, or of the
// whole kit, in the order of their slots.
func (svc *Service) Labels(ctx context.Context, ids []string) ([]paper.Label, error) {
	s, err := svc.shelf(ctx)
	if err != nil {
		return nil, err
	}
	var labels []paper.Label
	for _, f := range s.filters {
		if len(ids) > 0 && !slices.Contains(ids, f.ID) {
			continue
		}
		shown, err := Show(f)
		if err != nil {
			return nil, fmt.Errorf("filter %s as stored: %w", f.ID, err)
		}
		l := paper.Label{Slot: f.Slot, Title: shown.Title, Strength: strength(shown)}
		var goes []string
		for _, r := range s.rigs {
			cell, err := s.seat(r, []store.Filter{f})
			if err != nil {
				return nil, err
			}
			if name := s.cameras[r.CameraID].Name; cell.Offered && !slices.Contains(goes, name) {
				goes = append(goes, name)
			}
		}
		if l.Goes = strings.Join(goes, ", "); l.Goes == "" {
			l.Goes = "goes on nothing here"
		}
		labels = append(labels, l)
	}
	slices.SortStableFunc(labels, func(a, b paper.Label) int { return strings.Compare(a.Slot, b.Slot) })
	return labels, nil
}

// strength is a filter's strength as its slot says it: printed, then measured.
func strength(f ShownFilter) string {
	printed := f.Label
	if f.Open != "" {
		return printed + ", not settled"
	}
	switch {
	case f.MeasuredStops != nil:
		return fmt.Sprintf("%s · measured %.2f stops", printed, float64(*f.MeasuredStops))
	case f.Reads.MinStops != nil && f.Reads.MaxStops != nil:
		return fmt.Sprintf("%s · %.1f to %.1f stops", printed, float64(*f.Reads.MinStops), float64(*f.Reads.MaxStops))
	}
	return fmt.Sprintf("%s · %.1f stops marked", printed, float64(f.Reads.TotalStops))
}
