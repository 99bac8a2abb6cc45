package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"

	"github.com/pressly/goose/v3"
)

// applicationID marks our data files in their header (PRAGMA application_id): "PinH".
const applicationID = 0x50696e48

// marks are what the header of a data file says of it, and what is in it.
type marks struct {
	application, version int64
	tables               int
	isOurs               bool // by its tables, where it has no mark yet
	damage               string
}

// inspect looks at a file without changing it. A file that is missing or empty is new.
func inspect(ctx context.Context, path string) (m marks, isNew bool, err error) {
	info, err := os.Stat(path)
	switch {
	case errors.Is(err, fs.ErrNotExist), err == nil && info.Size() == 0:
		return m, true, nil
	case err != nil:
		return m, false, fmt.Errorf("look at the data file: %w", err)
	case info.IsDir():
		return m, false, fmt.Errorf("%s is a folder: %w", path, ErrForeign)
	}
	db, err := sql.Open("sqlite", uri(path, url.Values{"mode": {"rw"}, "_pragma": {"query_only(ON)", "busy_timeout(5000)"}}))
	if err != nil {
		return m, false, fmt.Errorf("look at the data file: %w", err)
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	m, err = marksOf(ctx, db)
	return m, false, err
}

func marksOf(ctx context.Context, db *sql.DB) (m marks, err error) {
	scan := func(into any, query string) {
		if err == nil {
			err = translate(db.QueryRowContext(ctx, query).Scan(into))
		}
	}
	scan(&m.application, "PRAGMA application_id")
	scan(&m.version, "PRAGMA user_version")
	scan(&m.tables, "SELECT count(*) FROM sqlite_schema WHERE type = 'table'")
	scan(&m.isOurs, "SELECT count(*) = 3 FROM sqlite_schema WHERE type = 'table' AND name IN ('goose_db_version', 'cameras', 'shoots')")
	if err == nil && m.isOurs && m.application == 0 { // of before files were marked
		scan(&m.version, "SELECT coalesce(max(version_id), 0) FROM goose_db_version WHERE is_applied")
	}
	if err == nil && (m.isOurs || m.application == applicationID) {
		scan(&m.damage, "PRAGMA quick_check(1)")
	}
	switch {
	case errors.Is(err, ErrDamaged) && m.application == applicationID:
		m.damage, err = err.Error(), nil
	case errors.Is(err, ErrDamaged):
		err = errors.Join(ErrNoDatabase, err)
	case m.damage == "ok":
		m.damage = ""
	}
	return m, err
}

// refused returns why a file is not opened, nil for one of ours.
func (m *marks) refused(known int64) error {
	switch {
	case m.application != 0 && m.application != applicationID, m.tables > 0 && !m.isOurs && m.application == 0:
		return ErrForeign
	case m.tables == 0 && m.application == 0:
		return ErrNoTables
	case m.version > known:
		return fmt.Errorf("its tables are of version %d and this Pinhole knows %d: %w", m.version, known, ErrNewer)
	}
	return nil
}

// mark writes into the header what the file is, where that is not there yet.
func (s *Store) mark(ctx context.Context, known int64) error {
	m, err := marksOf(ctx, s.writer)
	if err != nil || m.application == applicationID && m.version == known {
		return err
	}
	// Pragmas take no parameters; these are numbers of ours.
	_, err = s.writer.ExecContext(ctx, fmt.Sprintf("PRAGMA application_id = %d; PRAGMA user_version = %d", applicationID, known))
	return translate(err)
}

// migrating returns what brings the tables of a data file up to date.
func migrating(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, files)
}

// latest returns the version of the tables that this program knows.
func latest(provider *goose.Provider) int64 {
	sources := provider.ListSources()
	return sources[len(sources)-1].Version
}

func knownVersion(db *sql.DB) (int64, error) {
	provider, err := migrating(db)
	if err != nil {
		return 0, err
	}
	return latest(provider), nil
}

// uri returns a file's address for the driver, whatever characters its path has.
func uri(path string, query url.Values) string {
	return (&url.URL{Scheme: "file", Opaque: (&url.URL{Path: filepath.ToSlash(path)}).EscapedPath(), RawQuery: query.Encode()}).String()
}
