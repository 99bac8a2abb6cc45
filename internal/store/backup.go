package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"modernc.org/sqlite"
)

// ErrThere: a backup is never written over a file.
var ErrThere = errors.New("there is a file of that name already: name another")

// Backup writes a copy of the data file as it is at one instant, whatever goes on in it
// meanwhile, and proves it before it gets its name.
func (s *Store) Backup(ctx context.Context, to string) error {
	if err := copyInto(ctx, s.reader, to); err != nil {
		return fmt.Errorf("back up to %s: %w", to, err)
	}
	return nil
}

// copyInto copies what a connection sees into a new file.
func copyInto(ctx context.Context, from *sql.DB, to string) (err error) {
	if _, err := os.Stat(to); !errors.Is(err, fs.ErrNotExist) {
		return errors.Join(ErrThere, err)
	}
	part := to + ".part"
	if err := os.Remove(part); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	f, err := os.OpenFile(part, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, os.Remove(part))
		}
	}()
	defer func() { err = errors.Join(err, f.Close()) }()
	if _, err := from.ExecContext(ctx, "VACUUM INTO ?", part); err != nil {
		return translate(err)
	}
	if err := prove(ctx, part); err != nil {
		return err
	}
	if err := f.Sync(); err != nil {
		return err
	}
	if err := os.Rename(part, to); err != nil {
		return err
	}
	return syncFolder(filepath.Dir(to))
}

func syncFolder(folder string) error {
	f, err := os.Open(folder)
	if err != nil {
		return err
	}
	return errors.Join(f.Sync(), f.Close())
}

// prove opens a backup and reads all of it: it is a sound data file of ours that this
// program knows.
func prove(ctx context.Context, path string) (err error) {
	if _, err := os.Stat(path); err != nil {
		return err
	}
	db, err := readOnly(path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	m, err := marksOf(ctx, db)
	if err != nil {
		return err
	}
	known, err := knownVersion(db)
	if err != nil {
		return err
	}
	if err := m.refused(known); err != nil {
		return err
	}
	var says string
	if err := db.QueryRowContext(ctx, "PRAGMA integrity_check(1)").Scan(&says); err != nil || says != "ok" {
		return errors.Join(ErrDamaged, translate(err), errors.New(says))
	}
	return nil
}

// proveBackup is prove, of a file that somebody wants restored.
func proveBackup(ctx context.Context, from string) error {
	if err := prove(ctx, from); err != nil {
		return fmt.Errorf("restore %s: %w", from, errors.Join(ErrBadBackup, err))
	}
	return nil
}

func readOnly(path string) (*sql.DB, error) {
	return sql.Open("sqlite", uri(path, url.Values{"mode": {"ro"}, "_pragma": {"query_only(ON)"}}))
}

// Restore puts the state that a backup holds in place of the present one, in one step for
// everybody who has the data file open. What was there is set aside first, in the file whose
// path is returned.
func (s *Store) Restore(ctx context.Context, from string) (aside string, err error) {
	if err := proveBackup(ctx, from); err != nil {
		return "", err
	}
	aside = asideOf(s.path, s.now())
	if s.Damage() == "" {
		err = s.Backup(ctx, aside)
	} else { // a sound copy of it cannot be made
		err = copyAside(s.path, aside)
	}
	if err != nil {
		return "", fmt.Errorf("set the present state aside: %w", err)
	}
	return aside, s.takeOver(ctx, from)
}

// Fill puts the state of another data file in place of that of one in which nothing is kept.
func (s *Store) Fill(ctx context.Context, from string) error {
	if err := proveBackup(ctx, from); err != nil {
		return err
	}
	return s.takeOver(ctx, from)
}

// takeOver puts a backup, which may be of an older version, in place of what is there.
func (s *Store) takeOver(ctx context.Context, from string) error {
	err := s.overwrite(ctx, from)
	if err == nil {
		err = s.bringUpToDate(ctx)
	}
	if err != nil {
		return fmt.Errorf("restore %s: %w", from, err)
	}
	s.damage.Store(nil)
	return nil
}

// asideOf names where what is replaced is kept: a file that is not there yet.
func asideOf(path string, now time.Time) string {
	for n := 1; ; n++ {
		aside := fmt.Sprintf("%s.before-%s-%d", path, now.UTC().Format("20060102T150405Z"), n)
		if _, err := os.Stat(aside); err != nil { // whatever else is wrong there, making it will tell
			return aside
		}
	}
}

// overwrite copies a sound file over the pages of the data file, in one transaction.
func (s *Store) overwrite(ctx context.Context, from string) error {
	conn, err := s.writer.Conn(ctx)
	if err != nil {
		return err
	}
	err = conn.Raw(func(driver any) error {
		to, ok := driver.(interface {
			NewRestore(string) (*sqlite.Backup, error)
		})
		if !ok {
			return errors.New("this driver cannot restore")
		}
		copying, err := to.NewRestore(uri(from, url.Values{"mode": {"ro"}}))
		if err != nil {
			return err
		}
		_, err = copying.Step(-1)
		return errors.Join(err, copying.Finish())
	})
	return errors.Join(translate(err), conn.Close())
}

// copyAside copies a data file byte by byte, with what lies beside it.
func copyAside(path, aside string) error {
	for _, beside := range []string{"", "-wal"} {
		if err := copyBytes(path+beside, aside+beside); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
	}
	return syncFolder(filepath.Dir(aside))
}

func copyBytes(from, to string) (err error) {
	source, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, source.Close()) }()
	f, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(f, source)
	return errors.Join(err, f.Sync(), f.Close())
}

// RestoreFile restores a backup into a data file that may be missing, sound, damaged, or no
// data file any more; a server may have it open. It returns where what was there is kept, ""
// where nothing was.
func RestoreFile(ctx context.Context, path, from string, now func() time.Time) (aside string, err error) {
	s, err := AsItIs(ctx, path, now)
	switch {
	case err == nil:
		aside, err = s.Restore(ctx, from)
		return aside, errors.Join(err, s.Close())
	case errors.Is(err, fs.ErrNotExist):
	case errors.Is(err, ErrNoDatabase), errors.Is(err, ErrNoTables), errors.Is(err, ErrNewer):
		if err := proveBackup(ctx, from); err != nil { // before anything is moved
			return "", err
		}
		var held *hold
		if held, err = takeHold(path, now()); err != nil { // nothing is moved under a server
			return "", err
		}
		defer func() { err = errors.Join(err, held.lock.Unlock()) }()
		aside = asideOf(path, now())
		for _, beside := range []string{"", "-wal", "-shm"} {
			if err := os.Rename(path+beside, aside+beside); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return "", fmt.Errorf("set the present state aside: %w", err)
			}
		}
	default:
		return "", err
	}
	if err := proveBackup(ctx, from); err != nil {
		return aside, err
	}
	if s, err = openFile(ctx, path, now, true); err != nil { // a new one
		return aside, err
	}
	return aside, errors.Join(s.takeOver(ctx, from), s.Close())
}
