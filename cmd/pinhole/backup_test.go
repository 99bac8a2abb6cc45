package main

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"pinhole/internal/store"
)

// called runs a command line and returns its exit status and what it printed.
func called(t *testing.T, args ...string) (code int, printed string) {
	t.Helper()
	root := rootCommand()
	var out bytes.Buffer
	root.SetOut(&out)
	root.SetErr(&out)
	root.SetArgs(args)
	err := root.ExecuteContext(t.Context())
	if err != nil {
		out.WriteString(err.Error())
	}
	return exitCode(err), out.String()
}

// A backup is made and restored beside the server that has the data file open.
func TestBackupAndRestoreBesideAServer(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "a b")
	data, backup := filepath.Join(folder, "x.db"), filepath.Join(folder, "backup.db")
	s, err := store.Open(t.Context(), data, time.Now)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	save := func(name string) {
		t.Helper()
		if _, err := s.Shoots().Save(t.Context(), store.Shoot{ShootFields: store.ShootFields{Name: name}}); err != nil {
			t.Fatal(err)
		}
	}
	save("first")
	if code, printed := called(t, "backup", backup, "--data", data); code != 0 {
		t.Fatalf("%d: %s", code, printed)
	}
	if code, printed := called(t, "backup", backup, "--data", data); code != 1 || !strings.Contains(printed, "name another") {
		t.Errorf("a second backup of that name: %d: %s", code, printed)
	}
	save("second")
	code, printed := called(t, "restore", backup, "--data", data)
	if code != 0 || !strings.Contains(printed, "is kept in "+data+".before-") {
		t.Fatalf("%d: %s", code, printed)
	}
	all, err := s.Shoots().List(t.Context())
	if err != nil || len(all) != 1 || all[0].Name != "first" {
		t.Errorf("the server goes on with %v, %v", all, err)
	}
}

// Everything goes out of one data file and into another that is new, and a second time brings
// nothing.
func TestExportAndImport(t *testing.T) {
	folder := t.TempDir()
	data, out, other := filepath.Join(folder, "x.db"), filepath.Join(folder, "all.zip"), filepath.Join(folder, "new", "y.db")
	s, err := store.Open(t.Context(), data, time.Now)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if _, err := s.Shoots().Save(t.Context(), store.Shoot{ShootFields: store.ShootFields{Name: "kept"}}); err != nil {
		t.Fatal(err)
	}
	for _, test := range []struct {
		args []string
		code int
		says string
	}{
		{[]string{"export", out, "--data", data}, 0, "is exported to"},
		{[]string{"export", out, "--data", data}, 1, "exists"},
		{[]string{"import", out, "--data", other, "--look"}, 0, "1 new"},
		{[]string{"import", out, "--data", other}, 0, "1 new"},
		{[]string{"import", out, "--data", other}, 0, "0 new, 0 later there, 0 later here, 1 the same"},
		{[]string{"import", out, "--data", other, "--take", "all"}, 2, "ours or theirs"},
		{[]string{"import", filepath.Join(folder, "none.zip"), "--data", other}, 2, "none.zip"},
		{[]string{"import", data, "--data", other}, 1, "an archive that pinhole export wrote"},
	} {
		if code, printed := called(t, test.args...); code != test.code || !strings.Contains(printed, test.says) {
			t.Errorf("pinhole %v ends with %d: %s", test.args, code, printed)
		}
	}
}

func TestBadUseIsToldFromFaults(t *testing.T) {
	folder := t.TempDir()
	song := filepath.Join(folder, "song.txt")
	if err := os.WriteFile(song, []byte(strings.Repeat("la ", 500)), 0o600); err != nil {
		t.Fatal(err)
	}
	for line, want := range map[string]int{
		"":                     0,
		"dance":                2,
		"backup":               2,
		"backup a b":           2,
		"backup x --loud":      2,
		"restore":              2,
		"serve now":            2,
		"backup x --data NONE": 2,
		"restore NONE":         2,
		"restore SONG":         1,
	} {
		args := strings.Fields(strings.NewReplacer("NONE", filepath.Join(folder, "none.db"), "SONG", song).Replace(line))
		if len(args) > 0 && args[0] == "restore" {
			args = append(args, "--data", filepath.Join(folder, "new.db"))
		}
		if code, printed := called(t, args...); code != want {
			t.Errorf("pinhole %s ends with %d, want %d: %s", line, code, want, printed)
		}
	}
	if _, err := os.Stat(filepath.Join(folder, "new.db")); err == nil {
		t.Error("a data file was made of no backup")
	}
}
