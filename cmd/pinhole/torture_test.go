package main

import (
	"bufio"
	"bytes"
	"encoding/json"
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
	if err := serve(t.Context(), serveOptions{listen: "127.0.0.1:0", data: data}, slog.New(slog.DiscardHandler), say); err != nil {
		t.Fatal(err)
	}
}

// kills is how often the server is killed: ./dev torture says more.
func kills(t *testing.T) int {
	text := os.Getenv("PINHOLE_KILLS")
	if text == "" {
		return 2
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
	for round := range kills(t) {
		server := exec.CommandContext(t.Context(), os.Args[0], "-test.run=^TestServedHelper$")
		server.Env = append(os.Environ(), servedData+"="+data)
		out, err := server.StdoutPipe()
		if err != nil {
			t.Fatal(err)
		}
		if err := server.Start(); err != nil {
			t.Fatal(err)
		}
		address := ""
		for lines := bufio.NewScanner(out); address == "" && lines.Scan(); {
			if m := regexp.MustCompile(`http://\S+`).FindString(lines.Text()); m != "" {
				address = m
			}
		}
		if address == "" {
			t.Fatalf("in round %d the server does not start", round)
		}
		create := func(key string) {
			r, err := http.NewRequestWithContext(t.Context(), http.MethodPost, address+"api/shoots", bytes.NewReader([]byte(`{"name":"`+key+`"}`)))
			if err != nil {
				t.Error(err)
				return
			}
			r.Header.Set("Content-Type", "application/json")
			r.Header.Set("Idempotency-Key", key)
			response, err := http.DefaultClient.Do(r)
			if err != nil {
				return // it was killed
			}
			var made store.Shoot
			err = json.NewDecoder(response.Body).Decode(&made)
			_ = response.Body.Close()
			if err == nil && response.StatusCode == http.StatusCreated && made.ID == key {
				mu.Lock()
				acknowledged[key] = true
				mu.Unlock()
			}
		}
		var writing sync.WaitGroup
		ends := make(chan struct{})
		for range 4 {
			writing.Go(func() {
				for {
					select {
					case <-ends:
						return
					default:
					}
					mu.Lock()
					key := uuid.NewString()
					if len(sent) > 0 && rand.IntN(5) == 0 {
						key = sent[rand.IntN(len(sent))] // whether or not it was answered before
					}
					sent = append(sent, key)
					mu.Unlock()
					create(key)
				}
			})
		}
		time.Sleep(time.Duration(100+rand.IntN(400)) * time.Millisecond)
		if err := server.Process.Kill(); err != nil {
			t.Fatal(err)
		}
		close(ends)
		writing.Wait()
		_ = server.Wait() // it says that it was killed
	}
	s, err := store.Open(t.Context(), data, time.Now)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	all, err := s.Shoots().List(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	there := map[string]int{}
	for _, shoot := range all {
		there[shoot.Name]++
	}
	for key := range acknowledged {
		if there[key] != 1 {
			t.Errorf("%s was acknowledged, and is there %d times", key, there[key])
		}
	}
	if len(acknowledged) == 0 {
		t.Error("nothing was acknowledged, so nothing was tried")
	}
	t.Logf("%d kills, %d writes acknowledged of %d sent, %d stored, none lost and none doubled", kills(t), len(acknowledged), len(sent), len(all))
}
