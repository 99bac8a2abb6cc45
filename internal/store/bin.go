package store

import (
	"context"
	"database/sql"
	"fmt"
	"slices"
	"time"
)

// Binned is a thing that was deleted and can be brought back.
type Binned struct {
	// Kind is the name of its collection, as it stands in addresses.
	Kind      string    `json:"kind"`
	ID        string    `json:"id"`
	Name      string    `json:"name"`
	Version   int64     `json:"version"`
	DeletedAt time.Time `json:"deletedAt"`
}

// Bin returns what was deleted, the latest first.
func (s *Store) Bin(ctx context.Context) ([]Binned, error) {
	all := []Binned{}
	for _, gather := range []func() ([]Binned, error){
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "shoots", s.Shoots().table, func(v *Shoot) string { return v.Name })
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "shots", shots(), func(v *Shot) string { return v.Name })
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "cameras", s.Cameras().table, func(v *Camera) string { return v.Name })
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "rigs", rigs(), func(v *Rig) string { return v.Name })
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "filters", s.Filters().table, func(v *Filter) string {
				if v.Name != "" {
					return v.Name
				}
				return v.Label
			})
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "packs", s.Packs().table, func(v *Pack) string { return v.Name })
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "records", records(), func(v *Record) string { return v.Name })
		},
		func() ([]Binned, error) {
			return binned(ctx, s.reader, "light-readings", lightReadings(), func(v *LightReading) string { return v.Words })
		},
	} {
		some, err := gather()
		if err != nil {
			return nil, err
		}
		all = append(all, some...)
	}
	slices.SortStableFunc(all, func(a, b Binned) int { return b.DeletedAt.Compare(a.DeletedAt) })
	return all, nil
}

func binned[T any](ctx context.Context, db querier, kind string, t table[T], name func(*T) string) ([]Binned, error) {
	things, err := t.query(ctx, db, "deleted_at IS NOT NULL")
	if err != nil {
		return nil, err
	}
	var all []Binned
	for i := range things {
		m := t.meta(&things[i])
		all = append(all, Binned{kind, m.ID, name(&things[i]), m.Version, *m.DeletedAt})
	}
	return all, nil
}

// emptying removes for good what was deleted, and with it what belongs to it alone. Gear of
// which an old shot still tells stays.
var emptying = []string{
	"DELETE FROM readings WHERE shot_id IN (SELECT id FROM shots WHERE deleted_at IS NOT NULL OR shoot_id IN (SELECT id FROM shoots WHERE deleted_at IS NOT NULL))",
	"DELETE FROM shots WHERE deleted_at IS NOT NULL OR shoot_id IN (SELECT id FROM shoots WHERE deleted_at IS NOT NULL)",
	"DELETE FROM light_readings WHERE deleted_at IS NOT NULL OR shoot_id IN (SELECT id FROM shoots WHERE deleted_at IS NOT NULL)",
	"DELETE FROM field_log WHERE shoot_id IN (SELECT id FROM shoots WHERE deleted_at IS NOT NULL)",
	"DELETE FROM shoots WHERE deleted_at IS NOT NULL",
	"DELETE FROM trials WHERE deleted_at IS NOT NULL OR filter_id IN (SELECT id FROM filters WHERE deleted_at IS NOT NULL) OR rig_id IN (SELECT id FROM rigs WHERE deleted_at IS NOT NULL)",
	"DELETE FROM filters WHERE deleted_at IS NOT NULL",
	"DELETE FROM packs WHERE deleted_at IS NOT NULL",
	"DELETE FROM records WHERE deleted_at IS NOT NULL",
	"DELETE FROM trials WHERE rig_id IN (SELECT rigs.id FROM rigs JOIN cameras ON cameras.id = rigs.camera_id WHERE cameras.deleted_at IS NOT NULL AND cameras.id NOT IN (SELECT camera_id FROM shots))",
	"DELETE FROM rigs WHERE deleted_at IS NOT NULL OR camera_id IN (SELECT id FROM cameras WHERE deleted_at IS NOT NULL AND id NOT IN (SELECT camera_id FROM shots))",
	"DELETE FROM cameras WHERE deleted_at IS NOT NULL AND id NOT IN (SELECT camera_id FROM shots)",
}

// EmptyBin removes for good what was deleted: all of it or nothing.
func (s *Store) EmptyBin(ctx context.Context) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, statement := range emptying {
			if _, err := tx.ExecContext(ctx, statement); err != nil {
				return fmt.Errorf("empty the bin: %w", err)
			}
		}
		return nil
	})
}
