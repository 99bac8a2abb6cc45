package desk

import (
	"context"
	"slices"

	"pinhole/core/calc"
	"pinhole/internal/store"
)

// Askable returns the cameras that a line may name, as they are held and with the glass that
// goes on them: the one that was worked on last first, each with what its last shot asked.
func (d *Desk) Askable(ctx context.Context) ([]calc.AskCamera, error) {
	cameras, err := d.Store.Cameras().List(ctx)
	if err != nil {
		return nil, err
	}
	shots, err := d.Store.Shots().List(ctx)
	if err != nil {
		return nil, err
	}
	slices.SortStableFunc(shots, func(a, b store.Shot) int { return b.UpdatedAt.Compare(a.UpdatedAt) })
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
	all := []calc.AskCamera{}
	for _, c := range cameras {
		rigID := ""
		ask := calc.AskCamera{Name: c.Name, Titles: map[string]string{}}
		if i := lastOf(c.ID); i >= 0 {
			rigID, ask.Last = shots[i].RigID, &shots[i].Asked
		}
		b, err := d.Bench(ctx, c.ID, rigID)
		if err != nil {
			return nil, err
		}
		ask.Held = *b.held()
		for _, f := range b.Filters {
			ask.Titles[f.ID] = f.Title
		}
		all = append(all, ask)
	}
	return all, nil
}
