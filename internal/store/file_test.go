package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"
)

// oneShoot is a data file with one shoot in it, made once: its tables take their time.
var oneShoot []byte

// closed makes a data file with one shoot in it and returns where it is.
func closed(t *testing.T) string {
	t.Helper()
	path := newPath(t)
	if oneShoot != nil {
		if err := errors.Join(os.MkdirAll(filepath.Dir(path), 0o700), os.WriteFile(path, oneShoot, 0o600)); err != nil {
			t.Fatal(err)
		}
		return path
	}
	s := must[*Store](t)(Open(t.Context(), path, clock()))
	must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "kept"}}))
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	oneShoot = must[[]byte](t)(os.ReadFile(path))
	return path
}

// inFile runs statements in any SQLite file.
func inFile(t *testing.T, path string, statements ...string) {
	t.Helper()
	db := must[*sql.DB](t)(sql.Open("sqlite", uri(path, nil)))
	for _, s := range statements {
		if _, err := db.ExecContext(t.Context(), s); err != nil {
			t.Fatalf("%s: %v", s, err)
		}
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
}

// What is not ours to write is refused with what to do, and not one byte of it changes.
func TestFilesThatAreNotOpened(t *testing.T) {
	for name, test := range map[string]struct {
		make func(t *testing.T, path string)
		want error
	}{
		"another program's": {func(t *testing.T, path string) {
			inFile(t, path, "CREATE TABLE songs (title TEXT)", "INSERT INTO songs VALUES ('x')")
		}, ErrForeign},
		"another program's, marked": {func(t *testing.T, path string) {
			inFile(t, path, "PRAGMA application_id = 42", "CREATE TABLE cameras (x)", "CREATE TABLE shoots (x)", "CREATE TABLE goose_db_version (x)")
		}, ErrForeign},
		"no database": {func(t *testing.T, path string) {
			if err := os.WriteFile(path, []byte(strings.Repeat("a diary. ", 200)), 0o600); err != nil {
				t.Fatal(err)
			}
		}, ErrNoDatabase},
		"a newer one": {func(t *testing.T, path string) {
			copyFile(t, closed(t), path)
			inFile(t, path, "PRAGMA user_version = 9999")
		}, ErrNewer},
		"a newer one of before files were marked": {func(t *testing.T, path string) {
			copyFile(t, closed(t), path)
			inFile(t, path, "PRAGMA application_id = 0", "PRAGMA user_version = 0", "INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)")
		}, ErrNewer},
		"a copy without its tables": {func(t *testing.T, path string) {
			inFile(t, path, "PRAGMA journal_mode = WAL")
		}, ErrNoTables},
	} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "some file.db")
			test.make(t, path)
			before := must[[]byte](t)(os.ReadFile(path))
			s, err := Open(t.Context(), path, clock())
			if !errors.Is(err, test.want) {
				t.Errorf("got %v, want %v", err, test.want)
			}
			if s != nil {
				t.Error("it is open")
			}
			if after := must[[]byte](t)(os.ReadFile(path)); string(after) != string(before) {
				t.Error("it was changed")
			}
		})
	}
}

func copyFile(t *testing.T, from, to string) {
	t.Helper()
	if err := os.WriteFile(to, must[[]byte](t)(os.ReadFile(from)), 0o600); err != nil {
		t.Fatal(err)
	}
}

// The copy that a person makes of the file of a running server.
func TestACopyOfARunningFileIsRecognised(t *testing.T) {
	path := newPath(t)
	s := open(t, path)
	must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "kept"}}))
	taken := filepath.Join(t.TempDir(), "copy.db")
	copyFile(t, path, taken)
	if _, err := Open(t.Context(), taken, clock()); !errors.Is(err, ErrNoTables) {
		t.Errorf("the copy is opened with %v", err)
	}
}

func TestAFileOfBeforeFilesWereMarkedIsMarked(t *testing.T) {
	path := closed(t)
	inFile(t, path, "PRAGMA application_id = 0", "PRAGMA user_version = 0")
	s := open(t, path)
	if all := must[[]Shoot](t)(s.Shoots().List(t.Context())); len(all) != 1 {
		t.Errorf("it holds %d shoots", len(all))
	}
	var application, version int64
	if err := errors.Join(s.reader.QueryRow("PRAGMA application_id").Scan(&application), s.reader.QueryRow("PRAGMA user_version").Scan(&version)); err != nil || application != applicationID || version < 7 {
		t.Errorf("it is marked %x, version %d, %v", application, version, err)
	}
}

// A damaged file is read as far as that goes, and says so.
func TestADamagedFileIsOpenedForReading(t *testing.T) {
	path := closed(t)
	inFile(t, path, "PRAGMA wal_checkpoint(TRUNCATE)", "PRAGMA journal_mode = DELETE")
	var page int64
	db := must[*sql.DB](t)(sql.Open("sqlite", uri(path, nil)))
	if err := db.QueryRow("SELECT rootpage FROM sqlite_schema WHERE name = 'shots_of_shoot'").Scan(&page); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	f := must[*os.File](t)(os.OpenFile(path, os.O_RDWR, 0))
	if _, err := f.WriteAt([]byte(strings.Repeat("\xff", 4096)), (page-1)*4096); err != nil {
		t.Fatal(err)
	}
	if err := f.Close(); err != nil {
		t.Fatal(err)
	}
	s := open(t, path)
	if s.Damage() == "" {
		t.Error("nothing is said of the damage")
	}
	if all := must[[]Shoot](t)(s.Shoots().List(t.Context())); len(all) != 1 {
		t.Errorf("%d shoots can be read", len(all))
	}
	if _, err := s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "new"}}); !errors.Is(err, ErrDamaged) {
		t.Errorf("writing gives %v", err)
	}
}

func TestASecondServerIsToldWhoHoldsTheFile(t *testing.T) {
	path := newPath(t)
	s := open(t, path)
	if err := s.Announce("http://127.0.0.1:8321/"); err != nil {
		t.Fatal(err)
	}
	_, err := Open(t.Context(), path, clock())
	if !errors.Is(err, ErrHeld) || !strings.Contains(err.Error(), fmt.Sprintf("process %d", os.Getpid())) || !strings.Contains(err.Error(), "127.0.0.1:8321") {
		t.Errorf("got %v", err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	open(t, path)
}

// Writes into a file that is gone, or is another by now, are not acknowledged.
func TestAFileThatIsGoneTakesNothing(t *testing.T) {
	for name, loseIt := range map[string]func(t *testing.T, path string){
		"removed": func(t *testing.T, path string) {
			if err := os.RemoveAll(filepath.Dir(path)); err != nil {
				t.Fatal(err)
			}
		},
		"replaced": func(t *testing.T, path string) {
			copyFile(t, closed(t), path+".new")
			if err := os.Rename(path+".new", path); err != nil {
				t.Fatal(err)
			}
		},
	} {
		t.Run(name, func(t *testing.T) {
			path := newPath(t)
			s := open(t, path)
			save := func() error {
				_, err := s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "x"}})
				return err
			}
			if err := save(); err != nil {
				t.Fatal(err)
			}
			loseIt(t, path)
			for range 3 {
				if err := save(); !errors.Is(err, ErrGone) {
					t.Errorf("a write is answered with %v", err)
				}
			}
		})
	}
}

func TestTheDataIsItsUsersAlone(t *testing.T) {
	old := syscall.Umask(0)
	defer syscall.Umask(old)
	path := newPath(t)
	s := open(t, path)
	must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "x"}}))
	for _, beside := range []string{"", "-wal", "-shm", ".lock"} {
		if info, err := os.Stat(path + beside); err != nil || info.Mode().Perm() != 0o600 {
			t.Errorf("%s is open to others: %v, %v", beside, info.Mode(), err)
		}
	}
}

// What a disk or another program does to a write is told apart.
func TestWritesThatFailSayWhy(t *testing.T) {
	s := open(t, newPath(t))
	save := func() error {
		_, err := s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "x", Notes: strings.Repeat("y", 20_000)}})
		return err
	}
	for _, test := range []struct {
		set, back string
		want      error
	}{
		{"PRAGMA max_page_count = 1", "PRAGMA max_page_count = 1000000", ErrFull},
		{"PRAGMA query_only = ON", "PRAGMA query_only = OFF", ErrReadOnly},
	} {
		if _, err := s.writer.Exec(test.set); err != nil {
			t.Fatal(err)
		}
		if err := save(); !errors.Is(err, test.want) {
			t.Errorf("after %s: %v", test.set, err)
		}
		if _, err := s.writer.Exec(test.back); err != nil {
			t.Fatal(err)
		}
		if err := save(); err != nil {
			t.Errorf("it does not go on by itself: %v", err)
		}
	}
	signal.Ignore(syscall.SIGXFSZ) // so that writing past the limit fails, as on a failing disk
	var free, none syscall.Rlimit
	limit := func(l *syscall.Rlimit) error { return syscall.Setrlimit(syscall.RLIMIT_FSIZE, l) }
	if err := syscall.Getrlimit(syscall.RLIMIT_FSIZE, &free); err != nil {
		t.Fatal(err)
	}
	none.Max = free.Max
	if err := limit(&none); err != nil {
		t.Fatal(err)
	}
	err := save()
	if back := limit(&free); back != nil {
		t.Fatal(back)
	}
	if !errors.Is(err, ErrDisk) {
		t.Errorf("on a disk that takes nothing: %v", err)
	}
	if err := save(); err != nil {
		t.Errorf("it does not go on by itself: %v", err)
	}
	if all := must[[]Shoot](t)(s.Shoots().List(t.Context())); len(all) != 3 {
		t.Errorf("%d shoots are stored, of 3 that were acknowledged", len(all))
	}
}

// Writers behind a lock wait together, not one after the other.
func TestAllWaitForALockTogether(t *testing.T) {
	path := newPath(t)
	s := open(t, path)
	s.patience = 300 * time.Millisecond
	other := must[*sql.DB](t)(sql.Open("sqlite", dsn(path)))
	defer other.Close()
	tx := must[*sql.Tx](t)(other.Begin())
	var all sync.WaitGroup
	start := time.Now()
	for range 5 {
		all.Go(func() {
			if _, err := s.Shoots().Save(context.Background(), Shoot{ShootFields: ShootFields{Name: "x"}}); !errors.Is(err, ErrBusy) {
				t.Errorf("behind a lock a write is answered with %v", err)
			}
		})
	}
	all.Wait()
	if waited := time.Since(start); waited > 4*s.patience {
		t.Errorf("five writers waited %v", waited)
	}
	if err := tx.Rollback(); err != nil {
		t.Fatal(err)
	}
	must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "after"}}))
}
