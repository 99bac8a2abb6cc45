package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"strings"
	"time"
)

// Archive is everything that is kept, what is deleted and can be brought back included; of other
// settings and of devices that are in, nothing.
type Archive struct {
	Cameras       []Camera
	Rigs          []Rig // each camera's in their order
	Filters       []Filter
	Packs         []Pack
	Trials        []Trial
	Shoots        []Shoot
	Shots         []Shot
	Readings      []Reading
	LightReadings []LightReading
	FieldLog      []LoggedEntry // in the order of arrival
	Records       []Record
	Practice      []PracticeAnswer
	Settled       []Taste // one, or none where nothing was settled
}

// Archive returns everything as it is at one instant.
func (s *Store) Archive(ctx context.Context) (a *Archive, err error) {
	folder, err := os.MkdirTemp("", "pinhole-archive-")
	if err != nil {
		return nil, fmt.Errorf("make room for an archive: %w", err)
	}
	defer func() { err = errors.Join(err, os.RemoveAll(folder)) }()
	path := filepath.Join(folder, "instant.db")
	if err := s.Backup(ctx, path); err != nil {
		return nil, err
	}
	db, err := readOnly(path)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	a = &Archive{}
	err = errors.Join(
		whole(ctx, db, s.Cameras().table, &a.Cameras, "created_at, id"), whole(ctx, db, rigs(), &a.Rigs, "camera_id, position"),
		whole(ctx, db, s.Filters().table, &a.Filters, "created_at, id"), whole(ctx, db, s.Trials().table, &a.Trials, "created_at, id"),
		whole(ctx, db, s.Packs().table, &a.Packs, "created_at, id"), whole(ctx, db, records(), &a.Records, "created_at, id"), whole(ctx, db, practiceAnswers(), &a.Practice, "created_at, id"),
		whole(ctx, db, s.Shoots().table, &a.Shoots, "created_at, id"), whole(ctx, db, shots(), &a.Shots, "created_at, id"),
		whole(ctx, db, readings(), &a.Readings, "created_at, id"), whole(ctx, db, lightReadings(), &a.LightReadings, "created_at, id"),
	)
	if err == nil {
		a.FieldLog, err = logged(ctx, db, "TRUE ORDER BY rowid")
	}
	if err != nil {
		return a, err
	}
	t, err := tasteIn(ctx, db)
	if !reflect.DeepEqual(t, Taste{}) {
		a.Settled = append(a.Settled, t)
	}
	return a, err
}

func whole[T any](ctx context.Context, db querier, t table[T], into *[]T, order string) (err error) {
	*into, err = t.query(ctx, db, "TRUE ORDER BY "+order)
	return err
}

// Take says what becomes of a thing that was changed both here and in an archive.
type Take string

// What can be taken.
const (
	TakeNone   Take = "" // nothing is stored while there are such
	TakeOurs   Take = "ours"
	TakeTheirs Take = "theirs"
)

// Values returns every Take there is.
func (Take) Values() []Take { return []Take{TakeOurs, TakeTheirs} }

// Merged says what an archive brings.
type Merged struct {
	New     int `json:"new" doc:"things that were not here"`
	Changed int `json:"changed" doc:"things that are later there than here"`
	Same    int `json:"same"`
	Kept    int `json:"kept" doc:"things that are later here than there"`
	// Clashes are those that were changed both here and there.
	Clashes  []Clashing `json:"clashes" doc:"changed both here and there"`
	IsStored bool       `json:"isStored"`
}

// Clashing is a thing that was changed both here and in an archive.
type Clashing struct {
	Kind   string    `json:"kind"`
	ID     string    `json:"id"`
	Name   string    `json:"name"`
	Ours   time.Time `json:"ours" doc:"when it was last changed here"`
	Theirs time.Time `json:"theirs" doc:"when it was last changed there"`
}

// errNotKept undoes what was merged to see what it comes to.
var errNotKept = errors.New("only looked at")

// Merge brings an archive in, by the ids and versions of its things: all of it or nothing.
// With isLook, or with clashes of which none is taken, nothing is stored.
func (s *Store) Merge(ctx context.Context, a *Archive, take Take, isLook bool) (*Merged, error) {
	m := &Merged{Clashes: []Clashing{}}
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, "PRAGMA defer_foreign_keys = ON"); err != nil {
			return err
		}
		in := merging{ctx, tx, take, m}
		for _, err := range []error{
			mergeAll(in, s.Cameras().table, a.Cameras), mergeAll(in, rigs(), a.Rigs), mergeAll(in, s.Filters().table, a.Filters), mergeAll(in, s.Trials().table, a.Trials), mergeAll(in, s.Packs().table, a.Packs),
			mergeAll(in, s.Shoots().table, a.Shoots), mergeAll(in, shots(), a.Shots), mergeAll(in, readings(), a.Readings), mergeAll(in, lightReadings(), a.LightReadings),
			in.log(a.FieldLog), mergeAll(in, records(), a.Records), mergeAll(in, practiceAnswers(), a.Practice), in.settled(a.Settled),
		} {
			if err != nil {
				return err
			}
		}
		if isLook || take == TakeNone && len(m.Clashes) > 0 {
			return errNotKept
		}
		return nil
	})
	if errors.Is(err, errNotKept) {
		return m, nil
	}
	m.IsStored = err == nil
	return m, err
}

// merging is one archive on its way in.
type merging struct {
	ctx  context.Context
	tx   *sql.Tx
	take Take
	*Merged
}

func mergeAll[T any](in merging, t table[T], come []T) error {
	for i := range come {
		if err := mergeOne(in, t, &come[i]); err != nil {
			return fmt.Errorf("bring in %s %s: %w", t.name, t.meta(&come[i]).ID, err)
		}
	}
	return nil
}

func mergeOne[T any](in merging, t table[T], theirs *T) error {
	their := t.meta(theirs)
	ours, err := t.get(in.ctx, in.tx, their.ID)
	if errors.Is(err, ErrNotFound) {
		in.New++
		return t.put(in.ctx, in.tx, theirs)
	}
	if err != nil {
		return err
	}
	our := t.meta(&ours)
	a, err1 := json.Marshal(ours)
	b, err2 := json.Marshal(theirs)
	if err := errors.Join(err1, err2); err != nil {
		return err
	}
	switch {
	case bytes.Equal(a, b):
		in.Same++
	case their.Version > our.Version && !their.UpdatedAt.Before(our.UpdatedAt):
		in.Changed++
		return t.put(in.ctx, in.tx, theirs)
	case their.Version < our.Version && !our.UpdatedAt.Before(their.UpdatedAt):
		in.Kept++
	default:
		in.Clashes = append(in.Clashes, Clashing{strings.ReplaceAll(t.name, "_", " "), our.ID, nameIn(a), our.UpdatedAt, their.UpdatedAt})
		if in.take == TakeTheirs {
			return t.put(in.ctx, in.tx, theirs)
		}
	}
	return nil
}

// nameIn returns what a thing is called, of its JSON.
func nameIn(text []byte) string {
	var named struct{ Name, Label, Words string }
	if json.Unmarshal(text, &named) != nil {
		return ""
	}
	for _, name := range []string{named.Name, named.Label, named.Words} {
		if name != "" {
			return name
		}
	}
	return ""
}

// put stores a thing as it comes, over one of its id.
func (t table[T]) put(ctx context.Context, db querier, v *T) error {
	args := append(metaFields(t.meta(v)), t.fields(v)...)
	columns := append(strings.Split(metaColumns, ", "), t.names()...)
	var set []string
	for _, c := range columns[1:] {
		set = append(set, c+" = excluded."+c)
	}
	query := fmt.Sprintf("INSERT INTO %s (%s) VALUES (?%s) ON CONFLICT (id) DO UPDATE SET %s",
		t.name, strings.Join(columns, ", "), strings.Repeat(", ?", len(args)-1), strings.Join(set, ", "))
	_, err := db.ExecContext(ctx, query, args...)
	return translate(err)
}

// log adds the entries that are not there: what was done in the field does not change.
func (in merging) log(entries []LoggedEntry) error {
	for _, e := range entries {
		result, err := in.tx.ExecContext(in.ctx, "INSERT INTO field_log (id, shoot_id, received_at, entry, clash) VALUES (?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING",
			e.ID, e.ShootID, utc{&e.ReceivedAt}, asJSON{e.FieldEntryFields}, asJSON{e.Clash})
		if err != nil {
			return fmt.Errorf("bring in the entry %s of the field log: %w", e.ID, translate(err))
		}
		if n, err := result.RowsAffected(); err != nil {
			return err
		} else if n == 1 {
			in.New++
		} else {
			in.Same++
		}
	}
	return nil
}

// settled takes over what was settled there of which nothing is settled here.
func (in merging) settled(come []Taste) error {
	for _, theirs := range come {
		ours, err := tasteIn(in.ctx, in.tx)
		if err != nil {
			return err
		}
		both := ours.with(theirs)
		switch {
		case reflect.DeepEqual(ours, Taste{}):
			in.New++
		case !reflect.DeepEqual(both, ours):
			in.Changed++
		case reflect.DeepEqual(ours, theirs):
			in.Same++
			continue
		default:
			in.Kept++
			continue
		}
		if err := settleTaste(in.ctx, in.tx, both); err != nil {
			return err
		}
	}
	return nil
}
