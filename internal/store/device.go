package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"strconv"
	"time"
)

// Device is another device on the local network that was let in.
type Device struct {
	ID       string    `json:"id"`
	Since    time.Time `json:"since"`
	LastUsed time.Time `json:"lastUsed"`
	Agent    string    `json:"agent" doc:"what its browser calls itself"`
	Address  string    `json:"address" doc:"where it last asked from"`
}

// How long a device is in: since it was last used, and how often that is noted.
const (
	deviceIdle  = 14 * 24 * time.Hour
	deviceNoted = 5 * time.Minute
)

// keepDaysSetting is how many days a device keeps what it was shown, for when the server is gone.
const keepDaysSetting = "keep-days"

// DefaultKeepDays is that until the owner says otherwise, MostKeepDays the most: a browser's
// timers count no further than 24.
const (
	DefaultKeepDays = 7
	MostKeepDays    = 20
)

// KeepDays returns for how many days a device keeps what it was shown.
func (s *Store) KeepDays(ctx context.Context) (int, error) {
	text, err := s.Setting(ctx, keepDaysSetting)
	if err != nil || text == "" {
		return DefaultKeepDays, err
	}
	days, err := strconv.Atoi(text)
	if err != nil {
		return DefaultKeepDays, fmt.Errorf("read the setting %s: %w", keepDaysSetting, err)
	}
	return days, nil
}

// SetKeepDays sets it.
func (s *Store) SetKeepDays(ctx context.Context, days int) error {
	return s.setSetting(ctx, keepDaysSetting, strconv.Itoa(days))
}

// deviceID is what is kept of a session's token: who reads the data file learns none.
func deviceID(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// SessionOf returns what is kept of a session; isThere is false for one that never was, has
// expired, was idle for too long or was revoked, and isRevoked tells the last apart. That it
// was used is noted now and then.
func (s *Store) SessionOf(ctx context.Context, token string, from Device) (data []byte, isThere, isRevoked bool, err error) {
	var expires, used time.Time
	var revoked *time.Time
	const query = "SELECT data, expires_at, last_used, revoked_at FROM devices WHERE id = ?"
	err = s.reader.QueryRowContext(ctx, query, deviceID(token)).Scan(&data, utc{&expires}, utc{&used}, maybe{&revoked})
	now := s.now()
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return nil, false, false, nil
	case err != nil:
		return nil, false, false, fmt.Errorf("read a session: %w", translate(err))
	case revoked != nil:
		return nil, false, true, nil
	case !now.Before(expires), now.Sub(used) > deviceIdle:
		return nil, false, false, nil
	case now.Sub(used) > deviceNoted:
		err = s.inTx(ctx, func(tx *sql.Tx) error {
			_, err := tx.ExecContext(ctx, "UPDATE devices SET last_used = ?, agent = ?, address = ? WHERE id = ?", utc{&now}, from.Agent, from.Address, deviceID(token))
			return err
		})
	}
	return data, true, false, err
}

// KeepSession stores a session of a device for so long.
func (s *Store) KeepSession(ctx context.Context, token string, data []byte, life time.Duration, of Device) error {
	now := s.now()
	expires := now.Add(life)
	return s.inTx(ctx, func(tx *sql.Tx) error {
		const keep = `INSERT INTO devices (id, data, expires_at, since, last_used, agent, address) VALUES (?, ?, ?, ?, ?, ?, ?)
			ON CONFLICT (id) DO UPDATE SET data = excluded.data, expires_at = excluded.expires_at, last_used = excluded.last_used`
		_, err := tx.ExecContext(ctx, keep, deviceID(token), data, utc{&expires}, utc{&now}, utc{&now}, of.Agent, of.Address)
		if err != nil {
			return fmt.Errorf("keep a session: %w", err)
		}
		return nil
	})
}

// EndSession forgets a session.
func (s *Store) EndSession(ctx context.Context, token string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, "DELETE FROM devices WHERE id = ?", deviceID(token))
		return err
	})
}

// Devices returns the devices that are in, the one last used first.
func (s *Store) Devices(ctx context.Context) (all []Device, err error) {
	all = []Device{}
	now := s.now()
	idle := now.Add(-deviceIdle)
	rows, err := s.reader.QueryContext(ctx, `SELECT id, since, last_used, agent, address FROM devices
		WHERE revoked_at IS NULL AND expires_at > ? AND last_used > ? ORDER BY last_used DESC, id`, utc{&now}, utc{&idle})
	if err != nil {
		return nil, fmt.Errorf("read the devices: %w", translate(err))
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		var d Device
		if err := rows.Scan(&d.ID, utc{&d.Since}, utc{&d.LastUsed}, &d.Agent, &d.Address); err != nil {
			return nil, fmt.Errorf("read a device: %w", err)
		}
		all = append(all, d)
	}
	return all, rows.Err()
}

// HasBeenAt reports whether a device that is in asks from an address.
func (s *Store) HasBeenAt(ctx context.Context, address string) (has bool, err error) {
	err = s.reader.QueryRowContext(ctx, "SELECT count(*) > 0 FROM devices WHERE address = ? AND revoked_at IS NULL", address).Scan(&has)
	return has, translate(err)
}

// RevokeDevice shuts a device out. It is told so when it asks again, and lets go of what it
// kept.
func (s *Store) RevokeDevice(ctx context.Context, id string) error {
	now := s.now()
	return s.inTx(ctx, func(tx *sql.Tx) error {
		result, err := tx.ExecContext(ctx, "UPDATE devices SET revoked_at = ?, data = x'' WHERE id = ? AND revoked_at IS NULL", utc{&now}, id)
		if err != nil {
			return fmt.Errorf("shut a device out: %w", err)
		}
		if n, err := result.RowsAffected(); err != nil || n == 0 {
			return errors.Join(ErrNotFound, err)
		}
		return nil
	})
}

// ForgetExpired removes what is kept of devices whose time is over.
func (s *Store) ForgetExpired(ctx context.Context) error {
	now := s.now()
	return s.inTx(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, "DELETE FROM devices WHERE expires_at <= ?", utc{&now})
		return err
	})
}
