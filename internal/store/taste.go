package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"maps"
	"slices"

	"pinhole/core/assemble"
)

// Taste is what was settled of what the log suggests.
type Taste struct {
	assemble.Preferences
	// Declined names suggestions that are never made again.
	Declined []string `json:"declined,omitempty" maxItems:"100" maxLength:"80" doc:"dark, bright, or school and an activity"`
}

// with returns what was settled, and of what was settled elsewhere that of which nothing was here.
func (t Taste) with(theirs Taste) Taste {
	t.Tolerance = cmp.Or(t.Tolerance, theirs.Tolerance)
	if len(theirs.Schools) > 0 {
		schools := maps.Clone(theirs.Schools)
		maps.Copy(schools, t.Schools)
		t.Schools = schools
	}
	for _, what := range theirs.Declined {
		if !slices.Contains(t.Declined, what) {
			t.Declined = append(slices.Clip(t.Declined), what)
		}
	}
	return t
}

const taste = "taste"

// Taste returns what was settled.
func (s *Store) Taste(ctx context.Context) (t Taste, err error) { return tasteIn(ctx, s.reader) }

func tasteIn(ctx context.Context, db querier) (t Taste, err error) {
	value, err := settingIn(ctx, db, taste)
	if err != nil || value == "" {
		return t, err
	}
	if err := json.Unmarshal([]byte(value), &t); err != nil {
		return t, fmt.Errorf("read what was settled of preferences: %w", err)
	}
	return t, nil
}

// SettleTaste keeps what was settled together with the shots that are changed by it: all or nothing.
func (s *Store) SettleTaste(ctx context.Context, t Taste, changed []Shot) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, c := range changed {
			if _, err := shots().save(ctx, tx, c, s.now()); err != nil {
				return fmt.Errorf("change %s: %w", c.Name, err)
			}
		}
		return settleTaste(ctx, tx, t)
	})
}

func settleTaste(ctx context.Context, db querier, t Taste) error {
	value, err := json.Marshal(t)
	if err != nil {
		return fmt.Errorf("write what was settled of preferences: %w", err)
	}
	if _, err := db.ExecContext(ctx, setting, taste, string(value)); err != nil {
		return fmt.Errorf("keep what was settled of preferences: %w", err)
	}
	return nil
}
