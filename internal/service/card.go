package service

import (
	"cmp"
	"context"
	"fmt"
	"pinhole/core/card"
	"pinhole/core/day"
	"slices"
	"time"

	"pinhole/core/fit"
	"pinhole/core/problem"
	"pinhole/internal/store"
)

// Card is all that a card needs, so that a device that has it once can go on without
// the server.
type Card struct {
	Shoot   store.Shoot        `json:"shoot"`
	Zone    string             `json:"zone" doc:"the time zone that everything is in"`
	Request card.CardRequest   `json:"request" doc:"to be asked again as time passes and marks are made"`
	Log     []store.FieldEntry `json:"log" doc:"what was last done in the field, in the order of arrival"`
	Earlier string             `json:"earlier,omitempty" doc:"after which the field log goes on, where more was done before"`
}

// Card returns what the card of a shoot needs; of the shot of the id nowID alone, as it is
// shot now, where that is named. A shoot without any planned time is shot now: of each camera
// the shot that was worked on last.
func (svc *Service) Card(ctx context.Context, shootID, nowID string) (*Card, error) {
	shoot, err := svc.Store.Shoots().Get(ctx, shootID)
	if err != nil {
		return nil, err
	}
	shots, err := svc.Store.ShotsOf(ctx, shootID)
	if err != nil {
		return nil, err
	}
	shots, isNow, err := svc.shotNow(ctx, shots, nowID)
	if err != nil {
		return nil, err
	}
	planned, err := svc.dayOf(ctx, shoot, shots)
	if err != nil {
		return nil, err
	}
	out := &Card{Shoot: planned.Shoot, Zone: planned.Zone}
	out.Request = card.CardRequest{Now: svc.Now(), Name: planned.Shoot.Name, Outing: planned.Request, Shots: []card.CardShot{}, Benches: []card.CardBench{}, Glass: []card.CardGlass{}, Seats: []card.CardSeat{}, Marks: []card.CardMark{}}
	out.Request.Outing.StepS = maxStepS // the card draws no curve
	out.Request.Outing.Held = nil       // its benches hold them
	for _, s := range shots {
		if s.StartsAt == nil {
			continue
		}
		out.Request.Shots = append(out.Request.Shots, card.CardShot{ID: s.ID, Asked: s.Asked})
	}
	if err := svc.addBenches(ctx, &out.Request); err != nil {
		return nil, err
	}
	log, err := svc.Store.FieldLogOf(ctx, shootID)
	if err != nil {
		return nil, err
	}
	out.Request.Marks = marksOf(log)
	begins := out.Request.Outing.From
	if isNow {
		// What was ticked for a take before is not ticked for this one.
		begins = svc.Now().Add(-nowMinutes * time.Minute)
		out.Request.Marks = slices.DeleteFunc(out.Request.Marks, func(m card.CardMark) bool { return m.At.Before(begins) })
	}
	if err := svc.addKnown(ctx, &out.Request, begins); err != nil {
		return nil, err
	}
	if older := len(log) - logOfCard; older > 0 {
		log = log[older:]
		out.Earlier = log[0].ID
	}
	out.Log = log
	return out, nil
}

// A shot without a time is shot now, for so long; a reading that is no older is its light.
const (
	nowMinutes   = 180
	readingHolds = 2 * time.Hour
)

// shotNow returns the shots that a card is of: those that have a time, or one that is named or
// the latest of each camera where none has, as if planned for now.
func (svc *Service) shotNow(ctx context.Context, shots []store.Shot, nowID string) (of []store.Shot, isNow bool, err error) {
	hasTime := func(s store.Shot) bool { return s.StartsAt != nil }
	var now []store.Shot
	switch i := slices.IndexFunc(shots, func(s store.Shot) bool { return s.ID == nowID }); {
	case i >= 0:
		now = shots[i : i+1]
	case nowID != "":
		return nil, false, fmt.Errorf("shot %s of this shoot: %w", nowID, store.ErrNotFound)
	case slices.ContainsFunc(shots, hasTime):
		return shots, false, nil
	default:
		latest := slices.Clone(shots)
		slices.SortStableFunc(latest, func(a, b store.Shot) int { return b.UpdatedAt.Compare(a.UpdatedAt) })
		for _, s := range latest {
			if !slices.ContainsFunc(now, func(o store.Shot) bool { return o.CameraID == s.CameraID }) {
				now = append(now, s)
			}
		}
	}
	now = slices.Clone(now)
	for i := range now {
		s := &now[i]
		at := svc.Now().Truncate(time.Minute)
		readings, err := svc.Store.ReadingsOf(ctx, s.ID)
		if err != nil {
			return nil, false, err
		}
		for _, r := range readings {
			if age := at.Sub(r.TakenAt); age >= 0 && age < readingHolds {
				at = r.TakenAt.Truncate(time.Minute)
				break
			}
		}
		s.StartsAt, s.Day.Minutes = &at, nowMinutes
	}
	return now, true, nil
}

// What a card is given of a long log: the last entries, of each step the marks that were last
// made, and of all the last.
const (
	logOfCard   = 500
	marksOfStep = 10
	marksOfCard = 5000
)

// marksOf returns the marks of a field log that a card goes by, in their order.
func marksOf(log []store.FieldEntry) []card.CardMark {
	marks := []card.CardMark{}
	type step struct{ turn, step string }
	later := map[step]int{}
	for _, entry := range slices.Backward(log) {
		mark, isMark := entry.Mark()
		of := step{mark.Turn, mark.Step}
		if !isMark || later[of] == marksOfStep || len(marks) == marksOfCard {
			continue
		}
		later[of]++
		marks = append(marks, mark)
	}
	slices.Reverse(marks)
	return marks
}

// maxStepS is the longest step of a curve: a day.
const maxStepS = 86_400

// addBenches adds each camera of the day as it is held, its glass, and what is known of
// its stacks.
func (svc *Service) addBenches(ctx context.Context, r *card.CardRequest) error {
	shelf, err := svc.shelf(ctx)
	if err != nil {
		return err
	}
	for _, s := range r.Outing.Shots {
		if slices.ContainsFunc(r.Benches, func(b card.CardBench) bool { return b.CameraID == s.CameraID && b.RigID == s.RigID }) {
			continue
		}
		b, err := svc.benchFrom(ctx, shelf, s.CameraID, s.RigID)
		if err != nil {
			return err
		}
		r.Benches = append(r.Benches, card.CardBench{Held: *b.held(), Camera: b.Camera.Name,
			Rig: b.Rig.Measures, SealedPort: b.Camera.SealedPort, WhiteBalance: b.recipe().WhiteBalance, Recipe: b.Recipe})
		for _, f := range b.Filters {
			if !slices.ContainsFunc(r.Glass, func(g card.CardGlass) bool { return g.ID == f.ID }) {
				r.Glass = append(r.Glass, card.CardGlass{ID: f.ID, Title: f.Title, Slot: f.Slot})
			}
		}
		for _, stack := range r.Outing.Stacks {
			if stack.CameraID != s.CameraID || stack.RigID != s.RigID || len(stack.Filters) == 0 {
				continue
			}
			seat, err := shelf.seatOf(b, stack)
			if err != nil {
				return err
			}
			r.Seats = append(r.Seats, *seat)
		}
	}
	return nil
}

// seatOf returns what is known of a stack on its rig: of its hold by all of it, of the
// rest by the filter that sits on the rig.
func (s *shelf) seatOf(b *Bench, of day.OutingStack) (*card.CardSeat, error) {
	var stack []store.Filter
	for _, id := range of.Filters {
		i := slices.IndexFunc(s.filters, func(f store.Filter) bool { return f.ID == id })
		stack = append(stack, s.filters[i]) // a stack is built from what is on the shelf
	}
	seat, err := s.seat(b.Rig, stack)
	if err != nil {
		return nil, err
	}
	out := &card.CardSeat{Stack: of.ID, Standing: seat.Standing, Mount: cmp.Or(b.Rig.Measures.Mount, stack[0].Body.Mount), Hold: fit.Unknown}
	if len(seat.Because) > 0 {
		out.Because = seat.Because[0]
	}
	if hold := seat.Answer.Hold; hold != nil {
		out.Hold = hold.Verdict
		if hold.Margin != nil {
			out.Margin = *hold.Margin
		}
	}
	out.NoFold = seat.Answer.NoFold
	return out, nil
}

// LogInField stores an entry of the field log under the id its device made.
func (svc *Service) LogInField(ctx context.Context, shootID, id string, e store.FieldEntryFields) (*store.FieldEntry, error) {
	if err := checkEntry(&e); err != nil {
		return nil, err
	}
	added, err := svc.Store.AddToFieldLog(ctx, shootID, id, e)
	if err != nil {
		return nil, err
	}
	return &added, svc.recordField(ctx, shootID, &added)
}

// checkEntry returns the fault of an entry that lacks what its kind needs.
func checkEntry(e *store.FieldEntryFields) error {
	needs := func(is bool, field, allowed string) error {
		if is {
			return nil
		}
		return &problem.Fault{Field: field, Allowed: allowed}
	}
	switch e.Kind {
	case "tick", "untick", "override":
		if err := needs(e.Turn != "" && e.Step != "", "step", "a take of the field card and a step of its checklist"); err != nil {
			return err
		}
		return needs(e.Kind != "override" || e.Words != "", "words", "the reason for going on all the same")
	case "note":
		return needs(e.Words != "", "words", "what is noted")
	case "outcome":
		return needs(e.ShotID != "" && e.Outcome != nil, "outcome", "the id of a shot and what was measured of it")
	case "step":
		return needs(e.ShotID != "" && e.Tried != nil, "tried", "the id of a shot and a step of its shutter test")
	case "reading":
		return needs(e.Reading != nil, "reading", "what was read")
	}
	return needs(e.Kind != "pin" || e.Anchor != nil, "anchor", "the reading that corrects the forecast")
}
