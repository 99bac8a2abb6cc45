package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"

	"pinhole/internal/store"
)

const servedData = "PINHOLE_TORTURE_DATA"

// TestServedHelper is the server that the next test kills.
func TestServedHelper(t *testing.T) {
	data := os.Getenv(servedData)
	if data == "" {
		t.Skip("only run by another test")
	}
	say := func(format string, a ...any) { fmt.Printf(format, a...) }
	if err := serve(t.Context(), serveOptions{listen: "127.0.0.1:0", data: data, metrics: true}, slog.New(slog.DiscardHandler), say); err != nil {
		t.Fatal(err)
	}
}

// inProcess starts a server on a data file in a process of its own, and returns where it
// answers.
func inProcess(t *testing.T, data string) (server *exec.Cmd, address string) {
	t.Helper()
	server = exec.CommandContext(t.Context(), os.Args[0], "-test.run=^TestServedHelper$")
	server.Env = append(os.Environ(), servedData+"="+data)
	out, err := server.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := server.Start(); err != nil {
		t.Fatal(err)
	}
	for lines := bufio.NewScanner(out); address == "" && lines.Scan(); {
		address = regexp.MustCompile(`http://\S+`).FindString(lines.Text())
	}
	if address == "" {
		t.Fatal("the server does not start")
	}
	return server, address
}

// addShoot adds a shoot under a key, which is its name too; status is 0 where no answer comes.
func addShoot(t *testing.T, address, key, notes string) (status int, made store.Shoot) {
	body, err := json.Marshal(store.ShootFields{Name: key, Notes: notes})
	if err != nil {
		t.Error(err)
		return 0, made
	}
	r, err := http.NewRequestWithContext(t.Context(), http.MethodPost, address+"api/shoots", bytes.NewReader(body))
	if err != nil {
		t.Error(err)
		return 0, made
	}
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("Idempotency-Key", key)
	response, err := http.DefaultClient.Do(r)
	if err != nil {
		return 0, made // it was killed
	}
	defer func() { _ = response.Body.Close() }()
	if err := json.NewDecoder(response.Body).Decode(&made); err != nil {
		return 0, made
	}
	return response.StatusCode, made
}

// keepWriting has some writers write over and over, until it is ended.
func keepWriting(writers int, write func()) (end func()) {
	ends := make(chan struct{})
	var writing sync.WaitGroup
	for range writers {
		writing.Go(func() {
			for {
				select {
				case <-ends:
					return
				default:
					write()
				}
			}
		})
	}
	return func() {
		close(ends)
		writing.Wait()
	}
}

// namesIn counts the shoots of a data file by their names.
func namesIn(t *testing.T, data string) map[string]int {
	t.Helper()
	s, err := store.Open(t.Context(), data, time.Now)
	if err != nil {
		t.Fatal(err)
	}
	all, err := s.Shoots().List(t.Context())
	if err := errors.Join(err, s.Close()); err != nil {
		t.Fatal(err)
	}
	there := map[string]int{}
	for _, shoot := range all {
		there[shoot.Name]++
	}
	return there
}

// rounds is how often a test goes round: ./dev torture says more.
func rounds(t *testing.T, variable string, otherwise int) int {
	text := os.Getenv(variable)
	if text == "" {
		return otherwise
	}
	n, err := strconv.Atoi(text)
	if err != nil {
		t.Fatal(err)
	}
	return n
}

// A server that is killed in the middle of writing loses nothing that it acknowledged, and
// stores nothing twice that is sent again.
func TestKillsLoseNothing(t *testing.T) {
	data := filepath.Join(t.TempDir(), "x.db")
	var mu sync.Mutex
	acknowledged, sent := map[string]bool{}, []string{}
	kills := rounds(t, "PINHOLE_KILLS", 2)
	for range kills {
		server, address := inProcess(t, data)
		create := func(key string) {
			if status, made := addShoot(t, address, key, ""); status == http.StatusCreated && made.ID == key {
				mu.Lock()
				acknowledged[key] = true
				mu.Unlock()
			}
		}
		end := keepWriting(4, func() {
			mu.Lock()
			key := uuid.NewString()
			if len(sent) > 0 && rand.IntN(5) == 0 {
				key = sent[rand.IntN(len(sent))] // whether or not it was answered before
			}
			sent = append(sent, key)
			mu.Unlock()
			create(key)
		})
		time.Sleep(time.Duration(100+rand.IntN(400)) * time.Millisecond)
		if err := server.Process.Kill(); err != nil {
			t.Fatal(err)
		}
		end()
		_ = server.Wait() // it says that it was killed
	}
	there := namesIn(t, data)
	for key := range acknowledged {
		if there[key] != 1 {
			t.Errorf("%s was acknowledged, and is there %d times", key, there[key])
		}
	}
	if len(acknowledged) == 0 {
		t.Error("nothing was acknowledged, so nothing was tried")
	}
	t.Logf("%d kills, %d writes acknowledged of %d sent, %d stored, none lost and none doubled", kills, len(acknowledged), len(sent), len(there))
}
