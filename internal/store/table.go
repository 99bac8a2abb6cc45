package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
)

// Meta is what every stored thing carries beside its own fields.
type Meta struct {
	ID        string     `json:"id"`
	Version   int64      `json:"version" doc:"raised by every change; a change names the version it was made on"`
	CreatedAt time.Time  `json:"createdAt"`
	UpdatedAt time.Time  `json:"updatedAt"`
	DeletedAt *time.Time `json:"deletedAt,omitempty"`
}

// table is the life of one kind of thing: made, read, changed, deleted, restored.
type table[T any] struct {
	name string
	// meta and columns point into a value.
	meta    func(*T) *Meta
	columns func(*T) []column
}

// column is where a field of a thing is stored, and what stores and scans it.
type column struct {
	name string
	at   any
}

// names returns the columns of a table in their order.
func (t table[T]) names() []string {
	var names []string
	for _, c := range t.columns(new(T)) {
		names = append(names, c.name)
	}
	return names
}

// fields returns what stores and scans the columns of a value, in their order.
func (t table[T]) fields(v *T) []any {
	var fields []any
	for _, c := range t.columns(v) {
		fields = append(fields, c.at)
	}
	return fields
}

// querier is what a table needs of a pool or a transaction.
type querier interface {
	ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error)
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
	QueryRowContext(ctx context.Context, query string, args ...any) *sql.Row
}

var (
	_ querier = (*sql.DB)(nil)
	_ querier = (*sql.Tx)(nil)
)

const metaColumns = "id, version, created_at, updated_at, deleted_at"

func metaFields(m *Meta) []any {
	return []any{&m.ID, &m.Version, utc{&m.CreatedAt}, utc{&m.UpdatedAt}, maybe{&m.DeletedAt}}
}

// list returns the things that are not deleted and meet the condition, oldest
// first. The condition is a literal of ours; its values are bound.
func (t table[T]) list(ctx context.Context, db querier, condition string, args ...any) ([]T, error) {
	if condition == "" {
		condition = "TRUE"
	}
	return t.query(ctx, db, "deleted_at IS NULL AND "+condition+" ORDER BY created_at, id", args...)
}

func (t table[T]) query(ctx context.Context, db querier, tail string, args ...any) (found []T, err error) {
	found = []T{}
	rows, err := db.QueryContext(ctx, fmt.Sprintf("SELECT %s, %s FROM %s WHERE %s", metaColumns, strings.Join(t.names(), ", "), t.name, tail), args...)
	if err != nil {
		return nil, fmt.Errorf("read %s: %w", t.name, err)
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		var v T
		if err := rows.Scan(append(metaFields(t.meta(&v)), t.fields(&v)...)...); err != nil {
			return nil, fmt.Errorf("read a row of %s: %w", t.name, err)
		}
		found = append(found, v)
	}
	return found, rows.Err()
}

// get returns the thing with that id, deleted or not.
func (t table[T]) get(ctx context.Context, db querier, id string) (T, error) {
	found, err := t.query(ctx, db, "id = ?", id)
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		var none T
		return none, fmt.Errorf("get %s %s: %w", t.name, id, err)
	}
	return found[0], nil
}

// IsNew reports whether a thing is to be stored for the first time: it has no version yet.
func (m *Meta) IsNew() bool { return m.Version == 0 }

// save inserts a thing that is new and updates one that is not.
func (t table[T]) save(ctx context.Context, db querier, v T, now time.Time) (T, error) {
	if t.meta(&v).IsNew() {
		return t.insert(ctx, db, v, now)
	}
	return t.update(ctx, db, v, now)
}

// isSent reports whether a new thing, which came with an id that its sender made, is there
// already: it was sent before, and the answer was lost on the way.
func (t table[T]) isSent(ctx context.Context, db querier, v T) (bool, error) {
	m := t.meta(&v)
	if m.ID == "" || !m.IsNew() {
		return false, nil
	}
	_, err := t.get(ctx, db, m.ID)
	if errors.Is(err, ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// insert stores a new thing and returns it with its id and first version. One that comes
// with an id, which its sender made, is stored once: what was interrupted can be sent again.
func (t table[T]) insert(ctx context.Context, db querier, v T, now time.Time) (T, error) {
	id := t.meta(&v).ID
	if id == "" {
		made, err := uuid.NewV7() // sorts by time
		if err != nil {
			return v, fmt.Errorf("make an id: %w", err)
		}
		id = made.String()
	} else if there, err := t.get(ctx, db, id); !errors.Is(err, ErrNotFound) {
		return there, err
	}
	*t.meta(&v) = Meta{ID: id, Version: 1, CreatedAt: now, UpdatedAt: now}
	args := append(metaFields(t.meta(&v)), t.fields(&v)...)
	query := fmt.Sprintf("INSERT INTO %s (%s, %s) VALUES (?%s)", t.name, metaColumns, strings.Join(t.names(), ", "), strings.Repeat(", ?", len(args)-1))
	if _, err := db.ExecContext(ctx, query, args...); err != nil {
		return v, fmt.Errorf("insert into %s: %w", t.name, translate(err))
	}
	return v, nil
}

// update stores v over the version it names and returns it with its new one.
// It fails with ErrConflict when the stored version is another, or deleted.
func (t table[T]) update(ctx context.Context, db querier, v T, now time.Time) (T, error) {
	m := t.meta(&v)
	set := "version = version + 1, updated_at = ?, " + strings.Join(t.names(), " = ?, ") + " = ?"
	args := append([]any{utc{&now}}, t.fields(&v)...)
	if err := t.change(ctx, db, set, m.ID, m.Version, "deleted_at IS NULL", args...); err != nil {
		return v, err
	}
	return t.get(ctx, db, m.ID)
}

// setDeleted marks the thing as deleted at an instant, or with nil as not deleted.
func (t table[T]) setDeleted(ctx context.Context, db querier, id string, version int64, at *time.Time, now time.Time) (T, error) {
	state := "deleted_at IS NULL"
	if at == nil {
		state = "deleted_at IS NOT NULL"
	}
	if err := t.change(ctx, db, "version = version + 1, updated_at = ?, deleted_at = ?", id, version, state, utc{&now}, maybe{&at}); err != nil {
		var none T
		return none, err
	}
	return t.get(ctx, db, id)
}

// change updates the one row with that id, version and state.
func (t table[T]) change(ctx context.Context, db querier, set, id string, version int64, state string, args ...any) error {
	result, err := db.ExecContext(ctx, fmt.Sprintf("UPDATE %s SET %s WHERE id = ? AND version = ? AND %s", t.name, set, state), append(args, id, version)...)
	if err != nil {
		return fmt.Errorf("change %s %s: %w", t.name, id, translate(err))
	}
	changed, err := result.RowsAffected()
	if err != nil || changed == 1 {
		return err
	}
	if _, err := t.get(ctx, db, id); err != nil {
		return err
	}
	return fmt.Errorf("change %s %s on version %d: %w", t.name, id, version, ErrConflict)
}
