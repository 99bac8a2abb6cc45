package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"

	"pinhole/core/assemble"
)

// Taste is what was settled of what the log suggests.
type Taste struct {
	assemble.Preferences
	// Declined names suggestions that are never made again.
	Declined []string `json:"declined,omitempty"`
}

const taste = "taste"

// Taste returns what was settled.
func (s *Store) Taste(ctx context.Context) (t Taste, err error) {
	value, err := s.Setting(ctx, taste)
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
	value, err := json.Marshal(t)
	if err != nil {
		return fmt.Errorf("write what was settled of preferences: %w", err)
	}
	return s.inTx(ctx, func(tx *sql.Tx) error {
		for _, c := range changed {
			if _, err := shots().save(ctx, tx, c, s.now()); err != nil {
				return fmt.Errorf("change %s: %w", c.Name, err)
			}
		}
		if _, err := tx.ExecContext(ctx, setting, taste, string(value)); err != nil {
			return fmt.Errorf("keep what was settled of preferences: %w", err)
		}
		return nil
	})
}
