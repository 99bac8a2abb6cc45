package service

import (
	"context"
	"slices"

	"pinhole/core/assemble"
	"pinhole/core/calc"
	"pinhole/internal/store"
)

// What a line is asked with: of more cameras those that were worked on last, and no glass of
// one that has more than a request takes.
const (
	mostAsked      = 50
	mostAskedGlass = 200
)

// Askable returns the cameras that a line may name, as they are held and with the glass that
// goes on them: the one that was worked on last first, each with what its last shot asked.
func (svc *Service) Askable(ctx context.Context) ([]calc.AskCamera, error) {
	cameras, err := svc.Store.Cameras().List(ctx)
	if err != nil {
		return nil, err
	}
	shots, err := svc.Store.LastShots(ctx)
	if err != nil {
		return nil, err
	}
	lastOf := func(id string) int {
		return slices.IndexFunc(shots, func(s store.Shot) bool { return s.CameraID == id })
	}
	// A camera of no shot comes after all that have one.
	rank := func(id string) int {
		if i := lastOf(id); i >= 0 {
			return i
		}
		return len(shots)
	}
	slices.SortStableFunc(cameras, func(a, b store.Camera) int { return rank(a.ID) - rank(b.ID) })
	taste, err := svc.Store.Taste(ctx)
	if err != nil {
		return nil, err
	}
	var settled *assemble.Preferences
	if taste.Tolerance != nil || len(taste.Schools) > 0 {
		settled = &taste.Preferences
	}
	shelf, err := svc.shelf(ctx)
	if err != nil {
		return nil, err
	}
	all := []calc.AskCamera{}
	for _, c := range cameras[:min(len(cameras), mostAsked)] {
		rigID := ""
		ask := calc.AskCamera{Name: c.Name, Titles: map[string]string{}, Settled: settled}
		if i := lastOf(c.ID); i >= 0 {
			rigID, ask.Last = shots[i].RigID, &shots[i].Asked
		}
		b, err := svc.benchFrom(ctx, shelf, c.ID, rigID)
		if err != nil {
			return nil, err
		}
		ask.Held = *b.held()
		if len(ask.Held.Kit) > mostAskedGlass { // a line is still answered, as with no glass at hand
			ask.Held.Kit = []assemble.KitFilter{}
			if ask.Last != nil {
				last := *ask.Last
				last.Choices.Mounted, last.Choices.Required = nil, nil
				ask.Last = &last
			}
		}
		for _, f := range b.Filters {
			ask.Titles[f.ID] = f.Title
		}
		all = append(all, ask)
	}
	return all, nil
}
