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
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // registers the driver "sqlite"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open data file. It is safe for concurrent use.
type Store struct {
	// SQLite takes one writer at a time: a single connection queues writers here
	// instead of letting them fail. Readers have their own and do not wait.
	writer, reader *sql.DB
	now            func() time.Time
}

// Open opens the data file at path, creates it and its folder where they are
// missing, and brings its tables up to date. now is the clock of the time stamps.
func Open(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("make the folder of the data file: %w", err)
	}
	writer, err := sql.Open("sqlite", dsn(path))
	if err != nil {
		return nil, fmt.Errorf("open data file %s: %w", path, err)
	}
	writer.SetMaxOpenConns(1)
	s := &Store{writer: writer, now: now}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("bring data file %s up to date: %w", path, err), writer.Close())
	}
	if s.reader, err = sql.Open("sqlite", dsn(path)); err != nil {
		return nil, errors.Join(fmt.Errorf("open data file %s for reading: %w", path, err), writer.Close())
	}
	return s, nil
}

// dsn returns the connection string, with what every connection must have set.
func dsn(path string) string {
	pragmas := url.Values{"_pragma": {"journal_mode(WAL)", "foreign_keys(ON)", "busy_timeout(5000)", "synchronous(NORMAL)"}, "_txlock": {"immediate"}}
	return (&url.URL{Scheme: "file", Opaque: (&url.URL{Path: path}).EscapedPath(), RawQuery: pragmas.Encode()}).String()
}

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectSQLite3, s.writer, files)
	if err != nil {
		return err
	}
	_, err = provider.Up(ctx)
	return err
}

// Close closes the data file.
func (s *Store) Close() error { return errors.Join(s.reader.Close(), s.writer.Close()) }

// inTx runs work in one transaction, which is undone when work fails.
func (s *Store) inTx(ctx context.Context, work func(*sql.Tx) error) error {
	tx, err := s.writer.BeginTx(ctx, nil)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	if err := work(tx); err != nil {
		if undo := tx.Rollback(); undo != nil {
			err = errors.Join(err, fmt.Errorf("roll back: %w", undo))
		}
		return err
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("commit: %w", err)
	}
	return nil
}
