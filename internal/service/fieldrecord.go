package service

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"pinhole/core/card"
	"pinhole/core/day"
	"pinhole/core/glass"
	"pinhole/core/learn"
	judge "pinhole/core/shot"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// recordField keeps what was logged in the field as a record: what teaches, and what was done
// beside. What clashes with something that was there first did nothing, and is none.
func (svc *Service) recordField(ctx context.Context, shootID string, e *store.FieldEntry) error {
	switch {
	case e.Clash != nil:
		return nil
	case e.Kind == "reading" && e.Reading != nil:
		return svc.recordRemetered(ctx, shootID, e)
	case e.Kind == "outcome" && e.Outcome != nil && e.Outcome.Grade != "":
		return svc.recordTake(ctx, shootID, e)
	case e.Kind == "step" && e.Tried != nil:
		return svc.recordStep(ctx, shootID, e)
	}
	return svc.recordDone(ctx, shootID, e)
}

// recordRemetered keeps light that was read on the card, through what was on.
func (svc *Service) recordRemetered(ctx context.Context, shootID string, e *store.FieldEntry) error {
	r, err := svc.seenOfShoot(ctx, shootID, e.ID, "card", store.LightReadingFields{
		Kind: e.Reading.Kind, Source: e.Reading.Source, TakenAt: e.At, Words: e.Words, EV100: e.Reading.EV100, SpreadStops: e.Reading.SpreadStops,
	})
	if err != nil {
		return err
	}
	if r == nil { // it was looked for filter by filter
		return svc.recordDone(ctx, shootID, e)
	}
	if guess := e.Reading.GuessEV100; guess != nil {
		off := guess.Above(e.Reading.EV100)
		r.Seen.GuessOff = &off
	}
	shot, err := svc.Store.Shots().Get(ctx, e.ShotID)
	if errors.Is(err, store.ErrNotFound) { // as before a card said of which shot it reads
		return svc.recordSeen(ctx, *r)
	}
	if err != nil {
		return err
	}
	shoot, err := svc.Store.Shoots().Get(ctx, shootID)
	if err != nil {
		return err
	}
	if r.RigID, err = svc.rigOf(ctx, &shot); err != nil {
		return err
	}
	r.ShotID, r.Name, r.There = shot.ID, shot.Name, forecastAt(&shoot, &shot, e.At)
	if through := e.Reading.Through; through != nil && len(through.Glass) > 0 {
		r.Glass, r.Seen.EV100 = through.Glass, r.Seen.EV100.Plus(-through.Stops)
		turned, err := svc.turnedIn(ctx, through.Glass)
		if err != nil {
			return err
		}
		switch {
		case turned != "" && len(through.Glass) > 1:
			return svc.recordDone(ctx, shootID, e) // how much of it the ring made is not said
		case turned != "":
			r.Seen.Settings = map[string]stop.Stops{turned: through.Stops}
		}
	}
	return svc.recordSeen(ctx, *r)
}

// turnedIn returns the first filter of a stack whose strength is what its ring is turned to, "" for
// none.
func (svc *Service) turnedIn(ctx context.Context, ids []string) (string, error) {
	for _, id := range ids {
		f, err := svc.Store.Filters().Get(ctx, id)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return "", err
		}
		if shown, err := Show(f); err == nil && shown.Counts != nil && (shown.Counts.MaxStops != nil || len(shown.Counts.Ring) > 0) {
			return id, nil
		}
	}
	return "", nil
}

// recordDone keeps what was done beside what teaches: ticks, changes of filters, corrections of
// the forecast, notes, readings that tell nothing apart, telemetry that nobody judged.
func (svc *Service) recordDone(ctx context.Context, shootID string, e *store.FieldEntry) error {
	done := &store.RecordDone{What: e.Kind, Turn: e.Turn, Step: e.Step, Anchor: e.Anchor, Outcome: e.Outcome}
	r := store.Record{Meta: store.Meta{ID: e.ID}, RecordFields: store.RecordFields{
		Kind: "done", At: e.At, From: "card", Source: "real", ShootID: shootID, ShotID: cmp.Or(e.ShotID, card.ShotOf(e.Turn)), Words: e.Words, Done: done,
	}}
	if e.Kind == "outcome" {
		done.What, r.From = "telemetry", "telemetry"
	}
	if stack, ok := card.StackOf(e.Turn); ok && e.Kind == "tick" && card.IsSwap(e.Step, day.FiltersOf(stack)) {
		done.What, r.Glass = "swap", day.FiltersOf(stack)
	}
	shot, err := svc.Store.Shots().Get(ctx, r.ShotID)
	switch {
	case errors.Is(err, store.ErrNotFound):
		r.ShotID = ""
	case err != nil:
		return err
	default:
		r.Name = shot.Name
		if r.RigID, err = svc.rigOf(ctx, &shot); err != nil {
			return err
		}
	}
	_, err = svc.Store.Records().Save(ctx, r)
	return err
}

// recordStep keeps a step of a stepped trial.
func (svc *Service) recordStep(ctx context.Context, shootID string, e *store.FieldEntry) error {
	shot, err := svc.Store.Shots().Get(ctx, e.ShotID)
	if err != nil {
		return err
	}
	rigID, err := svc.rigOf(ctx, &shot)
	if err != nil {
		return err
	}
	_, err = svc.Store.Records().Save(ctx, store.Record{Meta: store.Meta{ID: e.ID}, RecordFields: store.RecordFields{
		Kind: "step", At: e.At, From: "trial", Source: cmp.Or(shot.Light.Source, "real"), ShootID: shootID, ShotID: shot.ID, RigID: rigID, Name: shot.Name,
		Words: e.Words, Step: e.Tried,
	}})
	return err
}

// rigOf returns the rig that a shot is on: the one it names, or its camera's first.
func (svc *Service) rigOf(ctx context.Context, s *store.Shot) (string, error) {
	if s.RigID != "" {
		return s.RigID, nil
	}
	rigs, err := svc.Store.RigsOf(ctx, s.CameraID)
	if err != nil || len(rigs) == 0 {
		return s.CameraID, err
	}
	return rigs[0].ID, nil
}

// recordTake keeps what became of a take, with how its shot was set.
func (svc *Service) recordTake(ctx context.Context, shootID string, e *store.FieldEntry) error {
	shot, err := svc.Store.Shots().Get(ctx, e.ShotID)
	if err != nil {
		return err
	}
	shoot, err := svc.Store.Shoots().Get(ctx, shootID)
	if err != nil {
		return err
	}
	rigID, err := svc.rigOf(ctx, &shot)
	if err != nil {
		return err
	}
	chosen := shot.Answer.Given.Chosen
	took := &store.RecordTake{
		Kept: e.Outcome.Grade != "bad", Grade: e.Outcome.Grade, Why: e.Outcome.Why, Activity: string(shot.Scene.Activity), School: cmp.Or(string(shot.Scene.School), string(judge.ByAngle)),
		Look: shot.Look.Target + " at " + shot.Look.FPS, Outcome: e.Outcome, Clip: e.Outcome.Clip,
	}
	on := chosen.Filters
	if stack, ok := card.StackOf(e.Turn); ok {
		on = day.FiltersOf(stack)
	}
	if glass.SameIDs(on, chosen.Filters) { // what the shot was set to is of its own filters
		took.ShutterS, took.ISO = chosen.ShutterS, float64(chosen.ISO)
		if shot.Answer.Given.Settled {
			took.ErrorStops = &chosen.LeftStops
		}
	}
	from := "card"
	if took.Clip != nil {
		from = "clip"
	}
	r := store.Record{Meta: store.Meta{ID: e.ID}, RecordFields: store.RecordFields{
		Kind: "take", At: e.At, From: from, Source: cmp.Or(shot.Light.Source, "real"), ShootID: shootID, ShotID: shot.ID, RigID: rigID,
		Name: shot.Name, Words: e.Words, Glass: on, Took: took, There: forecastAt(&shoot, &shot, e.At),
	}}
	var before []learn.Try
	if shoot.Kept != nil {
		if planned, ok := shoot.Kept.Glass[shot.ID]; ok {
			filters := day.FiltersOf(planned)
			is := glass.SameIDs(filters, on)
			took.FirstRight = &is
			before = append(before, learn.Try{Glass: filters})
		}
	}
	tries, err := svc.triesBefore(ctx, &r)
	if err != nil {
		return err
	}
	took.Swaps, took.MinutesLost = learn.Retaken(append(before, tries...), learn.Try{At: r.At, Glass: on, IsTake: true, IsKept: took.Kept})
	_, err = svc.Store.Records().Save(ctx, r)
	return err
}

// dayLength is how long before a take what was on its shot still belongs to it.
const dayLength = 12 * time.Hour

// triesBefore returns what was on the shot of a take earlier that day, in order of time.
func (svc *Service) triesBefore(ctx context.Context, of *store.Record) (tries []learn.Try, err error) {
	all, err := svc.Store.RecordsOf(ctx, of.ShootID)
	if err != nil {
		return nil, err
	}
	for _, r := range all {
		isTry := r.Took != nil || r.Done != nil && r.Done.What == "swap"
		if isTry && r.Struck == nil && r.ShotID == of.ShotID && r.ID != of.ID && r.At.Before(of.At) && of.At.Sub(r.At) < dayLength {
			tries = append(tries, learn.Try{At: r.At, Glass: r.Glass, IsTake: r.Took != nil, IsKept: r.Took != nil && r.Took.Kept})
		}
	}
	slices.SortStableFunc(tries, func(a, b learn.Try) int { return a.At.Compare(b.At) })
	return tries, nil
}
