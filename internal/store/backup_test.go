package store

import (
	"context"
	"database/sql"
	"errors"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"
)

func saved(t *testing.T, s *Store, name string) Shoot {
	t.Helper()
	return must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: name}}))
}

func namesIn(t *testing.T, path string) []string {
	t.Helper()
	s := must[*Store](t)(Beside(t.Context(), path, clock()))
	defer s.Close()
	names := []string{}
	for _, shoot := range must[[]Shoot](t)(s.Shoots().List(t.Context())) {
		names = append(names, shoot.Name)
	}
	return names
}

// A backup that is made while others write holds a state that there was: every shoot up to
// one of them, and none beyond.
func TestABackupIsOneInstant(t *testing.T) {
	s := open(t, newPath(t))
	ctx, stop := context.WithCancel(t.Context())
	var writing sync.WaitGroup
	writing.Go(func() {
		for n := 0; ctx.Err() == nil; n++ {
			_, err := s.Shoots().Save(context.Background(), Shoot{ShootFields: ShootFields{Name: strings.Repeat("n", n+1)}})
			if err != nil {
				t.Error(err)
			}
		}
	})
	for n := range 5 {
		to := filepath.Join(t.TempDir(), "a copy?.db")
		if err := s.Backup(t.Context(), to); err != nil {
			t.Fatal(err)
		}
		if info := must[os.FileInfo](t)(os.Stat(to)); info.Mode().Perm() != 0o600 {
			t.Errorf("a backup is open to others: %v", info.Mode())
		}
		for i, name := range namesIn(t, to) {
			if len(name) != i+1 {
				t.Fatalf("backup %d lacks shoot %d", n, i+1)
			}
		}
		if err := s.Backup(t.Context(), to); !errors.Is(err, ErrThere) {
			t.Errorf("a backup over a backup gives %v", err)
		}
	}
	stop()
	writing.Wait()
}

func TestRestoringPutsBackAndSetsAside(t *testing.T) {
	path := newPath(t)
	s := open(t, path)
	saved(t, s, "first")
	backup := filepath.Join(t.TempDir(), "b.db")
	if err := s.Backup(t.Context(), backup); err != nil {
		t.Fatal(err)
	}
	saved(t, s, "second")
	aside := must[string](t)(RestoreFile(t.Context(), path, backup, clock())) // beside the server
	if names := namesIn(t, path); !slices.Equal(names, []string{"first"}) {
		t.Errorf("after restoring there are %v", names)
	}
	if all := must[[]Shoot](t)(s.Shoots().List(t.Context())); len(all) != 1 {
		t.Errorf("the server goes on with %d shoots", len(all))
	}
	if names := namesIn(t, aside); !slices.Equal(names, []string{"first", "second"}) {
		t.Errorf("set aside is %v", names)
	}
	saved(t, s, "third")
	if names := namesIn(t, path); !slices.Equal(names, []string{"first", "third"}) {
		t.Errorf("and goes on to %v", names)
	}
	must[string](t)(s.Restore(t.Context(), aside)) // by the server itself
	if names := namesIn(t, path); !slices.Equal(names, []string{"first", "second"}) {
		t.Errorf("what was set aside is restored as %v", names)
	}
}

// A backup is of the file as it is: an older one is not changed by it, and is brought up to
// date where it is restored.
func TestABackupLeavesAnOlderFileAsItIs(t *testing.T) {
	path := closed(t)
	inFile(t, path, "DROP TABLE devices", "DROP TABLE packs", "DROP TABLE records", "DROP TABLE practice_answers", "ALTER TABLE rigs DROP COLUMN craft", "ALTER TABLE rigs DROP COLUMN recipe", "DELETE FROM goose_db_version WHERE version_id >= 9", "CREATE TABLE sessions (token TEXT PRIMARY KEY, data BLOB NOT NULL, expiry REAL NOT NULL)", "PRAGMA user_version = 8")
	s := must[*Store](t)(AsItIs(t.Context(), path, clock()))
	backup := filepath.Join(t.TempDir(), "b.db")
	if err := errors.Join(s.Backup(t.Context(), backup), s.Close()); err != nil {
		t.Fatal(err)
	}
	for _, file := range []string{path, backup} {
		db := must[*sql.DB](t)(readOnly(file))
		m := must[marks](t)(marksOf(t.Context(), db))
		if err := db.Close(); err != nil || m.version != 8 {
			t.Errorf("%s is of version %d, %v", file, m.version, err)
		}
	}
	must[string](t)(RestoreFile(t.Context(), path, backup, clock()))
	if names := namesIn(t, path); !slices.Equal(names, []string{"kept"}) {
		t.Errorf("restored, there is %v", names)
	}
	if all := must[[]Device](t)(open(t, path).Devices(t.Context())); len(all) != 0 {
		t.Errorf("devices: %v", all)
	}
}

// What is no backup of ours is not restored, and what is there stays as it is.
func TestWhatIsNoBackupIsNotRestored(t *testing.T) {
	path := closed(t)
	folder := t.TempDir()
	foreign, newer, half := filepath.Join(folder, "foreign.db"), filepath.Join(folder, "newer.db"), filepath.Join(folder, "half.db")
	inFile(t, foreign, "CREATE TABLE songs (title TEXT)")
	copyFile(t, path, newer)
	inFile(t, newer, "PRAGMA user_version = 9999")
	whole := must[[]byte](t)(os.ReadFile(path))
	if err := os.WriteFile(half, whole[:len(whole)/2], 0o600); err != nil {
		t.Fatal(err)
	}
	for _, from := range []string{foreign, newer, half, filepath.Join(folder, "none.db")} {
		if aside, err := RestoreFile(t.Context(), path, from, clock()); err == nil || aside != "" {
			t.Errorf("%s is restored, with %q set aside, %v", from, aside, err)
		}
	}
	if names := namesIn(t, path); !slices.Equal(names, []string{"kept"}) {
		t.Errorf("there is %v", names)
	}
}

// A data file that a crash left with a log beside it, one that is missing, one damaged in
// the middle and one that is no database any more.
func TestRestoringOverWhatACrashLeft(t *testing.T) {
	backup := closed(t)
	for name, leave := range map[string]func(t *testing.T, path string){
		"a log": func(t *testing.T, path string) {
			s := must[*Store](t)(Open(t.Context(), path, clock()))
			saved(t, s, "in the log")
			crashed := filepath.Join(t.TempDir(), "crashed.db")
			for _, beside := range []string{"", "-wal"} {
				copyFile(t, path+beside, crashed+beside)
			}
			if err := s.Close(); err != nil {
				t.Fatal(err)
			}
			for _, beside := range []string{"", "-wal"} {
				copyFile(t, crashed+beside, path+beside)
			}
		},
		"a log of another file": func(t *testing.T, path string) {
			copyFile(t, closed(t), path)
			if err := os.WriteFile(path+"-wal", []byte(strings.Repeat("x", 9000)), 0o600); err != nil {
				t.Fatal(err)
			}
		},
		"nothing":     func(*testing.T, string) {},
		"no database": func(t *testing.T, path string) { copyFile(t, "backup_test.go", path) },
		"no tables":   func(t *testing.T, path string) { inFile(t, path, "PRAGMA journal_mode = WAL") },
		"a newer one": func(t *testing.T, path string) {
			copyFile(t, closed(t), path)
			inFile(t, path, "PRAGMA user_version = 9999")
		},
		"damage": func(t *testing.T, path string) {
			copyFile(t, closed(t), path)
			f := must[*os.File](t)(os.OpenFile(path, os.O_RDWR, 0))
			if _, err := f.WriteAt([]byte(strings.Repeat("\xff", 3*4096)), 5*4096); err != nil {
				t.Fatal(err)
			}
			if err := f.Close(); err != nil {
				t.Fatal(err)
			}
		},
	} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "pin hole.db")
			leave(t, path)
			_, wasThere := os.Stat(path)
			aside, err := RestoreFile(t.Context(), path, backup, clock())
			if err != nil || (aside == "") != (wasThere != nil) {
				t.Fatalf("set aside %q, %v", aside, err)
			}
			if aside != "" {
				if _, err := os.Stat(aside); err != nil {
					t.Error(err)
				}
			}
			if names := namesIn(t, path); !slices.Equal(names, []string{"kept"}) {
				t.Errorf("there is %v", names)
			}
			s := open(t, path)
			if s.Damage() != "" {
				t.Errorf("it is damaged: %s", s.Damage())
			}
			var says string
			if err := s.reader.QueryRow("PRAGMA integrity_check").Scan(&says); err != nil || says != "ok" {
				t.Errorf("%s, %v", says, err)
			}
		})
	}
}

// What cannot be opened is moved aside, and never under a server that has it open.
func TestNothingIsMovedUnderAServer(t *testing.T) {
	path := closed(t)
	held := must[*hold](t)(takeHold(path, time.Now()))
	inFile(t, path, "PRAGMA user_version = 9999") // as a newer one would have it
	if aside, err := RestoreFile(t.Context(), path, closed(t), clock()); !errors.Is(err, ErrHeld) || aside != "" {
		t.Errorf("set aside %q, %v", aside, err)
	}
	if err := held.lock.Unlock(); err != nil {
		t.Fatal(err)
	}
}

// Two months of days leave seven daily copies and four weekly ones before them.
func TestCopiesThatAreKept(t *testing.T) {
	var kept []string
	day := time.Date(2031, 1, 1, 9, 0, 0, 0, time.UTC)
	for range 60 {
		kept = append(kept, day.Format(dailyName))
		gone := outlived(slices.Clone(kept))
		kept = slices.DeleteFunc(kept, func(name string) bool { return slices.Contains(gone, name) })
		day = day.AddDate(0, 0, 1)
	}
	// The last day is 1 March; before the last seven, each week is kept by its first day.
	want := []string{"2031-01-27", "2031-02-03", "2031-02-10", "2031-02-17", "2031-02-23", "2031-02-24", "2031-02-25", "2031-02-26", "2031-02-27", "2031-02-28", "2031-03-01"}
	for i := range want {
		want[i] += ".db"
	}
	if !slices.Equal(kept, want) {
		t.Errorf("kept are %v, want %v", kept, want)
	}
}

func TestCopiesMakeThemselvesOnceADay(t *testing.T) {
	now := time.Date(2031, 1, 1, 9, 0, 0, 0, time.UTC)
	path := closed(t)
	s := must[*Store](t)(Open(t.Context(), path, func() time.Time { return now }))
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	keep := func() {
		t.Helper()
		if err := s.KeepDaily(t.Context()); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.MakeCopy(t.Context()); err != nil {
		t.Fatal(err)
	}
	keep()
	now = now.Add(2 * time.Hour)
	keep()
	now = now.AddDate(0, 0, 1)
	keep()
	if err := s.SetCopiesDaily(t.Context(), false); err != nil {
		t.Fatal(err)
	}
	now = now.AddDate(0, 0, 1)
	keep()
	var daily, own []string
	for _, c := range must[[]Copy](t)(s.Copies()) {
		if c.IsDaily {
			daily = append(daily, c.Name)
		} else {
			own = append(own, c.Name)
		}
		if names := namesIn(t, filepath.Join(s.CopiesFolder(), c.Name)); !slices.Equal(names, []string{"kept"}) {
			t.Errorf("%s holds %v", c.Name, names)
		}
	}
	slices.Sort(daily)
	if !slices.Equal(daily, []string{"2031-01-01.db", "2031-01-02.db"}) || !slices.Equal(own, []string{"2031-01-01T090000.000Z.db"}) {
		t.Errorf("daily %v, by hand %v", daily, own)
	}
	if _, err := s.CopyPath("../pin hole.db"); !errors.Is(err, ErrNotFound) {
		t.Errorf("a file elsewhere counts as a copy: %v", err)
	}
	if err := s.RemoveCopy(own[0]); err != nil || len(must[[]Copy](t)(s.Copies())) != 2 {
		t.Errorf("a copy cannot be removed: %v", err)
	}
}
