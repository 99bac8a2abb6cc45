package store

import (
	"bufio"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

const syncEnv = "PINHOLE_STORE_SYNC_HELPER"

// TestSyncHelper is the process that the next test traces.
func TestSyncHelper(t *testing.T) {
	path := os.Getenv(syncEnv)
	if path == "" {
		t.Skip("only run by another test")
	}
	s := open(t, path)
	for n := range 20 {
		must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "x"}}))
		fmt.Fprintf(os.Stderr, "acknowledged %d\n", n)
	}
}

// A power cut loses nothing that was acknowledged: before each answer the log of the data
// file was made to reach the disk.
func TestWhatIsAcknowledgedHasReachedTheDisk(t *testing.T) {
	if _, err := exec.LookPath("strace"); err != nil {
		t.Skip("strace is not here; ./dev test installs it")
	}
	trace := filepath.Join(t.TempDir(), "trace")
	path := filepath.Join(t.TempDir(), "x.db")
	traced := exec.CommandContext(t.Context(), "strace", "-f", "-y", "-e", "trace=write,fsync,fdatasync", "-o", trace, os.Args[0], "-test.run=^TestSyncHelper$")
	traced.Env = append(os.Environ(), syncEnv+"="+path)
	if out, err := traced.CombinedOutput(); err != nil {
		t.Fatalf("%v\n%s", err, out)
	}
	f := must[*os.File](t)(os.Open(trace))
	defer f.Close()
	synced := regexp.MustCompile(`(fsync|fdatasync)\(\d+<[^>]*x\.db(-wal)?>`)
	acknowledged, isSynced := 0, false
	for lines := bufio.NewScanner(f); lines.Scan(); {
		switch line := lines.Text(); {
		case synced.MatchString(line):
			isSynced = true
		case strings.Contains(line, `"acknowledged `):
			acknowledged++
			if !isSynced {
				t.Errorf("acknowledged before it reached the disk: %s", line)
			}
			isSynced = false
		}
	}
	if acknowledged != 20 {
		t.Errorf("%d of 20 writes were seen", acknowledged)
	}
}
