package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"pinhole/core/angle"
	"pinhole/core/card"
	"pinhole/core/stop"
)

// FieldEntry is something done in the field, as it was stored.
type FieldEntry struct {
	FieldEntryFields
	ID         string    `json:"id"`
	ReceivedAt time.Time `json:"receivedAt"`
	Clash      *Clash    `json:"clash,omitempty"`
}

// FieldEntryFields is what was done, when, and of what.
type FieldEntryFields struct {
	Kind    string        `json:"kind" enum:"tick,untick,override,note,reading,pin,outcome,step"`
	At      time.Time     `json:"at" doc:"by the clock of the device"`
	Device  string        `json:"device,omitempty" maxLength:"60"`
	Turn    string        `json:"turn,omitempty" maxLength:"400" doc:"of the card"`
	Step    string        `json:"step,omitempty" maxLength:"120" doc:"of its checklist"`
	ShotID  string        `json:"shotId,omitempty" maxLength:"60" doc:"outcome, reading: of the shot"`
	Words   string        `json:"words,omitempty" maxLength:"500" doc:"a note, a step as it is worded, the reason of an override, a reading as it was read, an outcome in words"`
	Reading *FieldReading `json:"reading,omitempty"`
	Anchor  *Anchor       `json:"anchor,omitempty" doc:"pin: the new anchor"`
	Outcome *Outcome      `json:"outcome,omitempty" doc:"outcome: what was measured"`
	Tried   *RecordStep   `json:"tried,omitempty" doc:"step: one shutter of a stepped trial, judged"`
	Was     *Anchor       `json:"was,omitempty" doc:"pin: the anchor that it replaces, as the device knew it"`
}

// Outcome is how a shot came out, as its telemetry or its clip says, and as it was judged.
type Outcome struct {
	Grade       string         `json:"grade,omitempty" enum:"good,usable,bad" doc:"as it was judged"`
	Why         string         `json:"why,omitempty" maxLength:"60" doc:"of a take that is not kept: dark, bright, ghost, noise, smear, strobing, lamps, focus, or any word"`
	Clip        *RecordClip    `json:"clip,omitempty"`
	ShakeDegS   *angle.DegPerS `json:"shakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"as the clip shows it, degrees a second"`
	WithinShare *float64       `json:"withinShare,omitempty" minimum:"0" maximum:"1" doc:"of the time within half a stop of the target"`
	TargetS     *stop.Shutter  `json:"targetS,omitempty" minimum:"0" maximum:"86400"`
	MedianS     *stop.Shutter  `json:"medianS,omitempty" minimum:"0" maximum:"86400" doc:"the shutter in the middle of it"`
}

// FieldReading is light read in the field.
type FieldReading struct {
	Kind        string     `json:"kind" enum:"meter,auto,bias,looks,sky"`
	Source      string     `json:"source" enum:"real,simulated"`
	EV100       stop.EV    `json:"ev100" minimum:"-20" maximum:"40"`
	SpreadStops stop.Stops `json:"spreadStops" minimum:"0" maximum:"10"`
	GuessEV100  *stop.EV   `json:"guessEv100,omitempty" minimum:"-20" maximum:"40" doc:"what it was guessed to be before it was read"`
	// Through is what it was read through.
	Through *Through `json:"through,omitempty"`
}

// Through is what light was read through.
type Through struct {
	Glass []string   `json:"glass" maxItems:"4" doc:"ids of the filters"`
	Stops stop.Stops `json:"stops" minimum:"0" maximum:"60" doc:"what they were counted as, turned as they were"`
}

// Clash says what an entry clashes with. The entry is kept, and does nothing.
type Clash struct {
	With   string     `json:"with,omitempty" doc:"the id of the entry that was there first"`
	At     *time.Time `json:"at,omitempty" doc:"when that was"`
	Anchor *Anchor    `json:"anchor,omitempty" doc:"the anchor that stands"`
	Words  string     `json:"words"`
}

// Mark returns the entry as the card takes it; ok is false for what is no mark.
func (e *FieldEntryFields) Mark() (mark card.CardMark, ok bool) {
	switch kind := card.MarkKind(e.Kind); kind {
	case card.Tick, card.Untick, card.Override:
		return card.CardMark{Turn: e.Turn, Step: e.Step, Kind: kind, At: e.At, Words: e.Words}, true
	}
	return mark, false
}

// FieldLogOf returns what was done on a shoot, in the order of arrival.
func (s *Store) FieldLogOf(ctx context.Context, shootID string) ([]FieldEntry, error) {
	return fieldLog(ctx, s.reader, "shoot_id = ? ORDER BY rowid", shootID)
}

// FieldLogPart returns a part of what was done on a shoot, the latest first, and the id after
// which the next part begins, "" where there is none.
func (s *Store) FieldLogPart(ctx context.Context, shootID string, p Page) (part []FieldEntry, next string, err error) {
	condition, args := "shoot_id = ?", []any{shootID}
	if p.After != "" {
		there, err := fieldLog(ctx, s.reader, "shoot_id = ? AND id = ?", shootID, p.After)
		if err == nil && len(there) == 0 {
			err = ErrNotFound
		}
		if err != nil {
			return nil, "", fmt.Errorf("a part of the field log after %s: %w", p.After, err)
		}
		condition, args = condition+" AND rowid < (SELECT rowid FROM field_log WHERE id = ?)", append(args, p.After)
	}
	part, err = fieldLog(ctx, s.reader, condition+" ORDER BY rowid DESC LIMIT ?", append(args, p.Limit+1)...)
	if err != nil {
		return nil, "", err
	}
	part, next = cut(p, part, func(e *FieldEntry) string { return e.ID })
	return part, next, nil
}

// FieldLogSize is how much was done on all shoots, and since when.
type FieldLogSize struct {
	Entries int        `json:"entries"`
	Oldest  *time.Time `json:"oldest,omitempty" doc:"when the first of them arrived"`
}

// FieldLogSize returns how long the field log is.
func (s *Store) FieldLogSize(ctx context.Context) (size FieldLogSize, err error) {
	err = s.reader.QueryRowContext(ctx, "SELECT COUNT(*), MIN(received_at) FROM field_log").Scan(&size.Entries, maybe{&size.Oldest})
	if err != nil {
		return size, fmt.Errorf("measure the field log: %w", err)
	}
	return size, nil
}

// PruneFieldLog removes for good the entries that arrived before an instant. What they did,
// a reading kept or a pin set, stays done.
func (s *Store) PruneFieldLog(ctx context.Context, before time.Time) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, "DELETE FROM field_log WHERE received_at < ?", utc{&before}); err != nil {
			return fmt.Errorf("prune the field log: %w", translate(err))
		}
		return nil
	})
}

// LastLogged returns the last entries of all shoots, in the order of arrival.
func (s *Store) LastLogged(ctx context.Context, most int) ([]LoggedEntry, error) {
	last, err := logged(ctx, s.reader, "TRUE ORDER BY rowid DESC LIMIT ?", most)
	slices.Reverse(last)
	return last, err
}

// LoggedEntry is an entry of the field log with the shoot it is of.
type LoggedEntry struct {
	FieldEntry
	ShootID string `json:"shootId"`
}

func fieldLog(ctx context.Context, db querier, where string, args ...any) ([]FieldEntry, error) {
	found, err := logged(ctx, db, where, args...)
	all := make([]FieldEntry, len(found))
	for i := range found {
		all[i] = found[i].FieldEntry
	}
	return all, err
}

func logged(ctx context.Context, db querier, where string, args ...any) (all []LoggedEntry, err error) {
	all = []LoggedEntry{}
	rows, err := db.QueryContext(ctx, "SELECT id, shoot_id, received_at, entry, clash FROM field_log WHERE "+where, args...)
	if err != nil {
		return nil, fmt.Errorf("read the field log: %w", err)
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		var e LoggedEntry
		if err := rows.Scan(&e.ID, &e.ShootID, utc{&e.ReceivedAt}, asJSON{&e.FieldEntryFields}, asJSON{&e.Clash}); err != nil {
			return nil, fmt.Errorf("read a row of the field log: %w", err)
		}
		all = append(all, e)
	}
	return all, rows.Err()
}

// AddToFieldLog stores an entry under the id that its device made, and does what it
// says: a reading is kept, a pin becomes the anchor. An entry that is there already
// is returned as it is, so that sending twice does no harm. A tick of what is ticked,
// and a pin in place of another anchor than its device knew, are kept as clashes and
// do nothing.
func (s *Store) AddToFieldLog(ctx context.Context, shootID, id string, fields FieldEntryFields) (added FieldEntry, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		there, err := fieldLog(ctx, tx, "id = ?", id)
		if err != nil || len(there) > 0 {
			if len(there) > 0 {
				added = there[0]
			}
			return err
		}
		added = FieldEntry{FieldEntryFields: fields, ID: id, ReceivedAt: s.now()}
		if err := s.apply(ctx, tx, shootID, &added); err != nil {
			return err
		}
		entry, err := json.Marshal(added.FieldEntryFields)
		if err != nil {
			return fmt.Errorf("write an entry of the field log: %w", err)
		}
		_, err = tx.ExecContext(ctx, "INSERT INTO field_log (id, shoot_id, received_at, entry, clash) VALUES (?, ?, ?, ?, ?)",
			id, shootID, utc{&added.ReceivedAt}, string(entry), asJSON{added.Clash})
		if err != nil {
			return fmt.Errorf("add to the field log: %w", translate(err))
		}
		return nil
	})
	return added, err
}

// apply does what an entry says, or finds what it clashes with.
func (s *Store) apply(ctx context.Context, tx *sql.Tx, shootID string, e *FieldEntry) error {
	shoots := s.Shoots().table
	shoot, err := shoots.get(ctx, tx, shootID)
	if err != nil {
		return err
	}
	switch e.Kind {
	case "tick":
		return e.findFirst(ctx, tx, shootID)
	case "reading":
		_, err := lightReadings().insert(ctx, tx, LightReading{LightReadingFields: LightReadingFields{
			ShootID: shootID, Kind: e.Reading.Kind, Source: e.Reading.Source, TakenAt: e.At, Words: e.Words, EV100: e.Reading.EV100, SpreadStops: e.Reading.SpreadStops,
		}}, s.now())
		return err
	case "pin":
		if !sameAnchor(shoot.Day.Anchor, e.Was) {
			e.Clash = &Clash{Anchor: shoot.Day.Anchor, Words: "another reading corrects the forecast, or none, since this device last knew"}
			return nil
		}
		shoot.Day.Anchor = e.Anchor
		_, err := shoots.update(ctx, tx, shoot, s.now())
		return err
	}
	return nil
}

// findFirst looks for a tick of the same step that counts already.
func (e *FieldEntry) findFirst(ctx context.Context, tx *sql.Tx, shootID string) error {
	all, err := fieldLog(ctx, tx, "shoot_id = ? AND entry ->> 'turn' = ? AND entry ->> 'step' = ? ORDER BY rowid", shootID, e.Turn, e.Step)
	if err != nil {
		return err
	}
	all = slices.DeleteFunc(all, func(x FieldEntry) bool { _, isMark := x.Mark(); return !isMark })
	marks := make([]card.Mark, 0, len(all))
	for _, x := range all {
		marks = append(marks, card.Mark{Kind: card.MarkKind(x.Kind), At: x.At, Words: x.Words})
	}
	if i := card.Counting(marks); i >= 0 && marks[i].Kind == card.Tick {
		e.Clash = &Clash{With: all[i].ID, At: &all[i].At, Words: "ticked already: the first tick counts, and both are kept"}
	}
	return nil
}

func sameAnchor(a, b *Anchor) bool {
	if a == nil || b == nil {
		return a == b
	}
	return a.At.Equal(b.At) && a.EV100 == b.EV100
}
