package service

import (
	"context"
	"slices"
	"time"

	"pinhole/core/card"
	"pinhole/internal/store"
)

// logOfKnown is how many of the last entries of the field log tell what is familiar.
const logOfKnown = 5000

// addKnown adds the glass whose whole checklist was done on its rig before a card begins,
// and of which nothing changed since: neither camera, rig or filter, nor a trial of them.
func (svc *Service) addKnown(ctx context.Context, r *card.CardRequest, begins time.Time) error {
	shelf, err := svc.shelf(ctx)
	if err != nil {
		return err
	}
	log, err := svc.Store.LastLogged(ctx, logOfKnown)
	if err != nil {
		return err
	}
	done := wholeLists(log, begins)
	for _, stack := range r.Outing.Stacks {
		at, isDone := done[stack.ID]
		if isDone && !shelf.changedSince(at, stack.CameraID, stack.RigID, stack.Filters) {
			r.Known = append(r.Known, card.CardKnown{CameraID: stack.CameraID, RigID: stack.RigID, Stack: stack.ID})
		}
	}
	return nil
}

// wholeLists returns when the whole list of each stack was last done before an instant: at its
// first tick, so that what changed while it was done counts as changed.
func wholeLists(log []store.LoggedEntry, before time.Time) map[string]time.Time {
	ticked := map[string]map[string]time.Time{}
	for _, e := range log {
		if !e.At.Before(before) {
			continue
		}
		steps := ticked[e.Turn]
		if steps == nil {
			steps = map[string]time.Time{}
			ticked[e.Turn] = steps
		}
		switch card.MarkKind(e.Kind) {
		case card.Tick:
			steps[e.Step] = e.At
		case card.Untick:
			delete(steps, e.Step)
		}
	}
	done := map[string]time.Time{}
	for turn, steps := range ticked {
		stack, isTurn := card.StackOf(turn)
		if !isTurn || slices.ContainsFunc(card.OfWholeList, func(step string) bool { return steps[step].IsZero() }) {
			continue
		}
		first := before
		for _, at := range steps {
			if at.Before(first) {
				first = at
			}
		}
		if first.After(done[stack]) {
			done[stack] = first
		}
	}
	return done
}

// changedSince reports whether anything of glass on a rig was changed after an instant.
func (s *shelf) changedSince(at time.Time, cameraID, rigID string, filters []string) bool {
	isOn := func(id string) bool { return slices.Contains(filters, id) }
	return s.cameras[cameraID].UpdatedAt.After(at) ||
		slices.ContainsFunc(s.rigs, func(r store.Rig) bool { return r.ID == rigID && r.UpdatedAt.After(at) }) ||
		slices.ContainsFunc(s.filters, func(f store.Filter) bool { return isOn(f.ID) && f.UpdatedAt.After(at) }) ||
		slices.ContainsFunc(s.trials, func(t store.Trial) bool { return t.RigID == rigID && isOn(t.FilterID) && t.UpdatedAt.After(at) })
}
