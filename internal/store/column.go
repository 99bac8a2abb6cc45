package store

import (
	"database/sql/driver"
	"encoding/json"
	"fmt"
	"time"
)

// utcText is how instants of our own clock are stored: fixed in width, so that
// text order is time order.
const utcText = "2006-01-02T15:04:05.000000000Z07:00"

// utc stores an instant in UTC.
type utc struct{ t *time.Time }

func (c utc) Value() (driver.Value, error) { return c.t.UTC().Format(utcText), nil }

func (c utc) Scan(src any) (err error) {
	*c.t, err = parseInstant(src)
	return err
}

// maybe stores an instant that may be missing, with the zone it was given in.
type maybe struct{ t **time.Time }

func (c maybe) Value() (driver.Value, error) {
	if *c.t == nil {
		return nil, nil
	}
	return (*c.t).Format(time.RFC3339Nano), nil
}

func (c maybe) Scan(src any) error {
	if src == nil {
		*c.t = nil
		return nil
	}
	t, err := parseInstant(src)
	*c.t = &t
	return err
}

func parseInstant(src any) (time.Time, error) {
	text, ok := src.(string)
	if !ok {
		return time.Time{}, fmt.Errorf("store: an instant is stored as text, not %T", src)
	}
	return time.Parse(time.RFC3339Nano, text)
}

// asJSON stores a value as JSON text.
type asJSON struct{ v any }

func (c asJSON) Value() (driver.Value, error) {
	text, err := json.Marshal(c.v)
	return string(text), err
}

func (c asJSON) Scan(src any) error {
	text, ok := src.(string)
	if !ok {
		return fmt.Errorf("store: JSON is stored as text, not %T", src)
	}
	return json.Unmarshal([]byte(text), c.v)
}

// optional stores a number that may be missing.
type optional[T ~float64] struct{ v **T }

func (c optional[T]) Value() (driver.Value, error) {
	if *c.v == nil {
		return nil, nil
	}
	return float64(**c.v), nil
}

func (c optional[T]) Scan(src any) error {
	switch v := src.(type) {
	case nil:
		*c.v = nil
	case float64:
		number := T(v)
		*c.v = &number
	default:
		return fmt.Errorf("store: a number is stored as one, not as %T", src)
	}
	return nil
}

// zoned stores an instant with the zone it was given in.
type zoned struct{ t *time.Time }

func (c zoned) Value() (driver.Value, error) { return c.t.Format(time.RFC3339Nano), nil }

func (c zoned) Scan(src any) (err error) {
	*c.t, err = parseInstant(src)
	return err
}
