package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
)

// PassphraseHash is the setting that holds the hash of the passphrase that devices on
// the local network give.
const PassphraseHash = "passphrase-hash"

// Setting returns a setting, "" where it was never set.
func (s *Store) Setting(ctx context.Context, name string) (value string, err error) {
	return settingIn(ctx, s.reader, name)
}

func settingIn(ctx context.Context, db querier, name string) (value string, err error) {
	err = db.QueryRowContext(ctx, "SELECT value FROM settings WHERE name = ?", name).Scan(&value)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	if err != nil {
		err = fmt.Errorf("read the setting %s: %w", name, err)
	}
	return value, err
}

const setting = "INSERT INTO settings (name, value) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET value = excluded.value"

func (s *Store) setSetting(ctx context.Context, name, value string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, setting, name, value); err != nil {
			return fmt.Errorf("keep the setting %s: %w", name, err)
		}
		return nil
	})
}

// SetPassphraseHash stores the hash of a new passphrase, and ends every session that
// the old one began. Both or neither happen.
func (s *Store) SetPassphraseHash(ctx context.Context, hash string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, setting, PassphraseHash, hash); err != nil {
			return fmt.Errorf("set the passphrase: %w", err)
		}
		if _, err := tx.ExecContext(ctx, "DELETE FROM devices"); err != nil {
			return fmt.Errorf("end the sessions: %w", err)
		}
		return nil
	})
}
