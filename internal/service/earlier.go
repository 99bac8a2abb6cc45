package service

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"pinhole/internal/store"
)

// RecordEarlier makes records of what a version that had none has kept: readings of shots and of
// shoots, and the field log. It does so once; what has a record already is left as it is.
func (svc *Service) RecordEarlier(ctx context.Context) error {
	isMade, err := svc.Store.EarlierRecorded(ctx)
	if err != nil || isMade {
		return err
	}
	fresh, err := svc.earlierSeen(ctx)
	if err != nil {
		return fmt.Errorf("make records of earlier readings: %w", err)
	}
	if err := svc.Store.AddRecords(ctx, fresh); err != nil {
		return fmt.Errorf("keep records of earlier readings: %w", err)
	}
	log, err := svc.Store.LastLogged(ctx, logOfKnown)
	if err != nil {
		return err
	}
	for i := range log {
		e := &log[i]
		if e.Kind == "reading" { // it is among the shoot's readings
			continue
		}
		if err := svc.recordField(ctx, e.ShootID, &e.FieldEntry); err != nil && !errors.Is(err, store.ErrNotFound) {
			return fmt.Errorf("make a record of %s in the field log: %w", e.ID, err)
		}
	}
	return svc.Store.SetEarlierRecorded(ctx)
}

// earlierSeen returns the readings that have no record, as records. Nothing was foretold of them.
func (svc *Service) earlierSeen(ctx context.Context) (fresh []store.Record, err error) {
	there, err := svc.Store.Teaching(ctx)
	if err != nil {
		return nil, err
	}
	add := func(r *store.Record) {
		has := func(o store.Record) bool {
			return o.ID == r.ID || o.Seen != nil && o.ShootID == r.ShootID && (o.ShotID == r.ShotID || r.ShotID == "") && o.At.Sub(r.At).Abs() < typingTime
		}
		if !slices.ContainsFunc(there, has) {
			there, fresh = append(there, *r), append(fresh, *r)
		}
	}
	shots, err := svc.Store.Shots().List(ctx)
	if err != nil {
		return nil, err
	}
	for i := range shots {
		taken, err := svc.Store.ReadingsOf(ctx, shots[i].ID)
		if err != nil {
			return nil, err
		}
		for _, reading := range slices.Backward(taken) { // of what was typed over the last one counts
			r, err := svc.seenOfShot(ctx, &shots[i], &reading)
			if err != nil {
				return nil, err
			}
			if r != nil {
				r.ID = reading.ID
				add(r)
			}
		}
	}
	read, err := svc.Store.LightReadings().List(ctx)
	if err != nil {
		return nil, err
	}
	for _, l := range read {
		r, err := svc.seenOfShoot(ctx, l.ShootID, l.ID, "reading", l.LightReadingFields)
		if err != nil {
			return nil, err
		}
		if r != nil {
			add(r)
		}
	}
	return fresh, nil
}
