package store

import (
	"context"
	"fmt"
	"slices"
)

// Page asks for part of a list: what comes after the thing with that id, from the start
// where it is "", and no more than Limit things.
type Page struct {
	After string
	Limit int
}

// Page returns a part of what List returns, and the id after which the next part begins,
// "" where there is none. It fails with ErrNotFound where nothing has the id.
func (c Collection[T]) Page(ctx context.Context, p Page) (part []T, next string, err error) {
	condition, args := "TRUE", []any{}
	if p.After != "" {
		last, err := c.Get(ctx, p.After)
		if err != nil {
			return nil, "", err
		}
		m := c.table.meta(&last)
		condition, args = "(created_at, id) > (?, ?)", []any{utc{&m.CreatedAt}, m.ID}
	}
	// One more than is asked for tells whether there are more.
	part, err = c.table.query(ctx, c.store.reader, "deleted_at IS NULL AND "+condition+" ORDER BY created_at, id LIMIT ?", append(args, p.Limit+1)...)
	if err != nil {
		return nil, "", err
	}
	part, next = cut(p, part, func(v *T) string { return c.table.meta(v).ID })
	return part, next, nil
}

// cut returns no more things than the page takes, and the id of the last where there are more.
func cut[T any](p Page, things []T, id func(*T) string) (part []T, next string) {
	if len(things) <= p.Limit {
		return things, ""
	}
	part = things[:p.Limit]
	return part, id(&part[p.Limit-1])
}

// PageOf returns a part of a list that is in an order of its own, as Collection.Page does.
func PageOf[T any](p Page, all []T, id func(*T) string) (part []T, next string, err error) {
	if p.After != "" {
		i := slices.IndexFunc(all, func(v T) bool { return id(&v) == p.After })
		if i < 0 {
			return nil, "", fmt.Errorf("a page after %s: %w", p.After, ErrNotFound)
		}
		all = all[i+1:]
	}
	part, next = cut(p, all, id)
	return part, next, nil
}
