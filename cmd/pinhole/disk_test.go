package main

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"

	"pinhole/internal/store"
)

// disk is a small file system of its own, in a file that holds what has reached its device.
type disk struct {
	t            *testing.T
	image, mount string
}

// newDisk makes a disk, where that may be done and is asked for: ./dev torture does.
func newDisk(t *testing.T, megabytes int64) *disk {
	t.Helper()
	if os.Getenv("PINHOLE_CUTS") == "" || os.Geteuid() != 0 {
		t.Skip("mounts disks: run ./dev torture as root")
	}
	d := &disk{t, filepath.Join(t.TempDir(), "image"), t.TempDir()}
	if err := os.WriteFile(d.image, nil, 0o600); err != nil {
		t.Fatal(err)
	}
	if err := os.Truncate(d.image, megabytes<<20); err != nil {
		t.Fatal(err)
	}
	d.run("mkfs.ext4", "-q", d.image)
	d.run("mount", "-o", "loop", d.image, d.mount)
	t.Cleanup(func() { d.run("umount", d.mount) })
	return d
}

func (d *disk) run(command string, args ...string) {
	d.t.Helper()
	// The test's context has ended where a disk is unmounted after it.
	if out, err := exec.Command(command, args...).CombinedOutput(); err != nil {
		d.t.Fatalf("%s %s: %v: %s", command, strings.Join(args, " "), err, out)
	}
}

// After a power cut, which leaves what had reached the device and nothing else, all that was
// acknowledged before it is there.
func TestPowerCutsLoseNothing(t *testing.T) {
	d := newDisk(t, 64)
	server, address := inProcess(t, filepath.Join(d.mount, "x.db"))
	var mu sync.Mutex
	acknowledged := []string{}
	end := keepWriting(2, func() {
		key := uuid.NewString()
		if status, _ := addShoot(t, address, key, ""); status == http.StatusCreated {
			mu.Lock()
			acknowledged = append(acknowledged, key)
			mu.Unlock()
		}
	})
	cuts, checked := rounds(t, "PINHOLE_CUTS", 0), 0
	for n := range cuts {
		time.Sleep(time.Duration(50+rand.IntN(400)) * time.Millisecond)
		mu.Lock()
		before := acknowledged[:len(acknowledged):len(acknowledged)]
		mu.Unlock()
		left := &disk{t, fmt.Sprintf("%s-%d", d.image, n), t.TempDir()}
		d.run("cp", "--sparse=always", d.image, left.image)
		left.run("mount", "-o", "loop", left.image, left.mount)
		there := namesIn(t, filepath.Join(left.mount, "x.db"))
		for _, key := range before {
			if there[key] != 1 {
				t.Errorf("cut %d: %s was acknowledged, and is there %d times", n, key, there[key])
			}
		}
		checked += len(before)
		left.run("umount", left.mount)
		if err := os.Remove(left.image); err != nil {
			t.Error(err)
		}
	}
	end()
	if err := server.Process.Kill(); err != nil {
		t.Fatal(err)
	}
	_ = server.Wait() // it says that it was killed
	if len(acknowledged) == 0 {
		t.Error("nothing was acknowledged, so nothing was tried")
	}
	t.Logf("%d power cuts, %d acknowledged writes looked for, %d different ones, none lost and none doubled", cuts, checked, len(acknowledged))
}

// A disk that is full, or read-only, is told of as what it is; with room again the server goes
// on by itself, and has all that it acknowledged.
func TestFullAndReadOnlyDisks(t *testing.T) {
	d := newDisk(t, 64)
	data := filepath.Join(d.mount, "x.db")
	server, address := inProcess(t, data)
	acknowledged := 0
	add := func(notes string) (status int) {
		status, _ = addShoot(t, address, uuid.NewString(), notes)
		if status == http.StatusCreated {
			acknowledged++
		}
		return status
	}
	filler := filepath.Join(d.mount, "filler")
	for round := range rounds(t, "PINHOLE_CUTS", 0)/10 + 1 {
		_ = os.WriteFile(filler, make([]byte, 96<<20), 0o600) // as much as there is room for
		status := http.StatusCreated
		for n := 0; status == http.StatusCreated && n < 20_000; n++ {
			status = add(strings.Repeat("a long note ", 150))
		}
		if status != http.StatusInsufficientStorage {
			t.Errorf("round %d: on a full disk it still answers %d", round, status)
		}
		if err := os.Remove(filler); err != nil {
			t.Fatal(err)
		}
		if status := add(""); status != http.StatusCreated {
			t.Errorf("round %d: with room again it answers %d", round, status)
		}
	}
	if err := server.Process.Kill(); err != nil {
		t.Fatal(err)
	}
	_ = server.Wait() // it says that it was killed
	there := namesIn(t, data)
	d.run("mount", "-o", "remount,ro", d.mount)
	if _, err := store.Open(t.Context(), data, time.Now); !errors.Is(err, store.ErrReadOnly) {
		t.Errorf("a read-only disk opens with %v", err)
	}
	d.run("mount", "-o", "remount,rw", d.mount)
	if len(there) != acknowledged {
		t.Errorf("%d shoots are there, of %d that were acknowledged", len(there), acknowledged)
	}
	t.Logf("%d writes acknowledged on a disk that was full again and again, all there", acknowledged)
}
