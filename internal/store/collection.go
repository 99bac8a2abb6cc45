package store

import (
	"context"
	"database/sql"
)

// Collection is one kind of stored thing, for callers.
type Collection[T any] struct {
	store *Store
	table table[T]
}

// List returns all that are not deleted, oldest first.
func (c Collection[T]) List(ctx context.Context) ([]T, error) {
	return c.table.list(ctx, c.store.reader, "")
}

// Get returns the thing with that id, deleted or not, or ErrNotFound.
func (c Collection[T]) Get(ctx context.Context, id string) (T, error) {
	return c.table.get(ctx, c.store.reader, id)
}

// Save stores a new thing where v has no id, and returns it with its id, or else
// stores v over the version it names, or fails with ErrConflict.
func (c Collection[T]) Save(ctx context.Context, v T) (T, error) {
	return c.write(ctx, func(tx *sql.Tx) (T, error) { return c.table.save(ctx, tx, v, c.store.now()) })
}

// Delete marks the thing as deleted; it can be restored.
func (c Collection[T]) Delete(ctx context.Context, id string, version int64) (T, error) {
	now := c.store.now()
	return c.write(ctx, func(tx *sql.Tx) (T, error) { return c.table.setDeleted(ctx, tx, id, version, &now, now) })
}

// Restore takes a deletion back.
func (c Collection[T]) Restore(ctx context.Context, id string, version int64) (T, error) {
	return c.write(ctx, func(tx *sql.Tx) (T, error) {
		return c.table.setDeleted(ctx, tx, id, version, nil, c.store.now())
	})
}

func (c Collection[T]) write(ctx context.Context, work func(*sql.Tx) (T, error)) (written T, err error) {
	err = c.store.inTx(ctx, func(tx *sql.Tx) error {
		written, err = work(tx)
		return err
	})
	return written, err
}
