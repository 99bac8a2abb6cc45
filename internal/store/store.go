package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"sync/atomic"
	"time"

	_ "modernc.org/sqlite" // registers the driver "sqlite"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open data file. It is safe for concurrent use.
type Store struct {
	path string
	// SQLite takes one writer at a time: a single connection queues writers here
	// instead of letting them fail. Readers have their own and do not wait.
	writer, reader *sql.DB
	now            func() time.Time
	hold           *hold       // nil beside a server
	file           os.FileInfo // as it was opened
	damage         atomic.Pointer[string]
	patience       time.Duration // of a writer, for others
}

// Open opens the data file at path for this process alone, creates it and its folder where
// they are missing, and brings its tables up to date. now is the clock of the time stamps.
// A damaged file is opened too, for reading (Damage). The error is ErrForeign, ErrNewer or
// ErrNoTables of a file that is not ours to write, and ErrHeld where another serves from it.
func Open(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("make the folder of the data file: %w", err)
	}
	held, err := takeHold(path, now())
	if err != nil {
		return nil, err
	}
	s, err := openFile(ctx, path, now, true)
	if err != nil {
		return nil, errors.Join(err, held.lock.Unlock())
	}
	s.hold = held
	return s, nil
}

// Beside opens a data file that is there, whether or not a server has it open, and brings its
// tables up to date.
func Beside(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	return beside(ctx, path, now, true)
}

// AsItIs opens a data file that is there as Beside does, and leaves its tables as they are: it
// can be backed up before a newer program changes it.
func AsItIs(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	return beside(ctx, path, now, false)
}

func beside(ctx context.Context, path string, now func() time.Time, upToDate bool) (*Store, error) {
	if _, err := os.Stat(path); err != nil {
		return nil, fmt.Errorf("open data file %s: %w", path, err)
	}
	return openFile(ctx, path, now, upToDate)
}

func openFile(ctx context.Context, path string, now func() time.Time, upToDate bool) (*Store, error) {
	s := &Store{path: path, now: now, patience: longestWait}
	if err := s.open(ctx, upToDate); err != nil {
		return nil, fmt.Errorf("open data file %s: %w", path, errors.Join(err, s.closePools()))
	}
	return s, nil
}

func (s *Store) open(ctx context.Context, upToDate bool) error {
	found, isNew, err := inspect(ctx, s.path)
	if err != nil {
		return err
	}
	if s.writer, err = sql.Open("sqlite", dsn(s.path)); err != nil {
		return err
	}
	s.writer.SetMaxOpenConns(1)
	if !isNew {
		known, err := knownVersion(s.writer)
		if err != nil {
			return err
		}
		if err := found.refused(known); err != nil {
			return err
		}
	}
	if err := keepPrivate(s.path); err != nil {
		return err
	}
	if found.damage != "" {
		s.damage.Store(&found.damage)
	} else if upToDate {
		if err := s.bringUpToDate(ctx); err != nil {
			return err
		}
	}
	if s.reader, err = sql.Open("sqlite", dsn(s.path)); err != nil {
		return err
	}
	s.file, err = os.Stat(s.path)
	return err
}

// bringUpToDate gives the data file the tables that this program knows, and marks it.
func (s *Store) bringUpToDate(ctx context.Context) error {
	provider, err := migrating(s.writer)
	if err != nil {
		return err
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("bring it up to date: %w", translate(err))
	}
	if err := s.mark(ctx, latest(provider)); err != nil {
		return fmt.Errorf("mark it: %w", err)
	}
	return nil
}

// keepPrivate makes the data file, and with it what SQLite lays beside it, its user's alone.
func keepPrivate(path string) error {
	f, err := os.OpenFile(path, os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return fmt.Errorf("write the data file: %w", ofSystem(err))
	}
	err = f.Close()
	for _, beside := range []string{"", "-wal", "-shm"} {
		if change := os.Chmod(path+beside, 0o600); !errors.Is(change, fs.ErrNotExist) {
			err = errors.Join(err, change)
		}
	}
	return err
}

// longestWait bounds how long a writer waits for others, in this process and beyond it.
const longestWait = 5 * time.Second

// dsn returns the connection string, with what every connection must have set. What is
// acknowledged has reached the disk (synchronous FULL): a telephone deletes its own copy
// then.
func dsn(path string) string {
	return uri(path, url.Values{"_txlock": {"immediate"}, "_pragma": {
		"journal_mode(WAL)", "foreign_keys(ON)", fmt.Sprintf("busy_timeout(%d)", longestWait.Milliseconds()), "synchronous(FULL)",
	}})
}

// Damage says what is wrong with the data file, "" where it is sound. What is damaged can be
// read as far as that goes, and not written.
func (s *Store) Damage() string {
	if damage := s.damage.Load(); damage != nil {
		return *damage
	}
	return ""
}

// Readable returns why the data cannot be read, nil where it can.
func (s *Store) Readable(ctx context.Context) error {
	_, err := s.Size(ctx)
	return err
}

// Writable returns why nothing can be stored, nil where something can: a transaction that
// changes nothing is made.
func (s *Store) Writable(ctx context.Context) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, "UPDATE settings SET value = value WHERE FALSE")
		return err
	})
}

// Path returns where the data file is.
func (s *Store) Path() string { return s.path }

// Close closes the data file.
func (s *Store) Close() error {
	err := s.closePools()
	if s.hold != nil {
		err = errors.Join(err, s.hold.lock.Unlock())
	}
	return err
}

func (s *Store) closePools() (err error) {
	for _, pool := range []*sql.DB{s.reader, s.writer} {
		if pool != nil {
			err = errors.Join(err, pool.Close())
		}
	}
	return err
}

// inTx runs work in one transaction, which is undone when work fails. When it returns nil,
// what was written has reached the disk, in the file that is still there.
func (s *Store) inTx(ctx context.Context, work func(*sql.Tx) error) error {
	if s.Damage() != "" {
		return ErrDamaged
	}
	conn, tx, err := s.begin(ctx)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	defer func() { _ = conn.Close() }() // back to the pool; there is nothing to lose
	if err := work(tx); err != nil {
		if undo := tx.Rollback(); undo != nil {
			err = errors.Join(err, fmt.Errorf("roll back: %w", undo))
		}
		return translate(err)
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("commit: %w", translate(err))
	}
	return s.stillThere()
}

// begin begins a transaction within the longest wait, however many wait together.
func (s *Store) begin(ctx context.Context) (*sql.Conn, *sql.Tx, error) {
	deadline := time.Now().Add(s.patience)
	waiting, cancel := context.WithDeadline(ctx, deadline)
	defer cancel()
	conn, err := s.writer.Conn(waiting)
	if err != nil {
		if waiting.Err() != nil && ctx.Err() == nil {
			err = errors.Join(ErrBusy, err)
		}
		return nil, nil, translate(err)
	}
	left := max(time.Until(deadline), 0)
	_, err = conn.ExecContext(ctx, fmt.Sprintf("PRAGMA busy_timeout = %d", left.Milliseconds()))
	var tx *sql.Tx
	if err == nil {
		tx, err = conn.BeginTx(ctx, nil)
	}
	if err != nil {
		return nil, nil, errors.Join(translate(err), conn.Close())
	}
	return conn, tx, nil
}

// stillThere asks that the data file is the one that was opened: writes into a file that was
// removed or replaced are lost with it.
func (s *Store) stillThere() error {
	now, err := os.Stat(s.path)
	if err != nil || !os.SameFile(s.file, now) {
		return errors.Join(ErrGone, err)
	}
	return nil
}
