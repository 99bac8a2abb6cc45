package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"time"

	"github.com/gofrs/flock"
)

// Holder says who serves from a data file.
type Holder struct {
	PID   int       `json:"pid"`
	Since time.Time `json:"since"`
	// Address is where its page is, once that is known.
	Address string `json:"address,omitempty"`
}

func (h Holder) String() string {
	text := fmt.Sprintf("process %d since %s", h.PID, h.Since.Local().Format("2 Jan 15:04"))
	if h.Address != "" {
		text += ", at " + h.Address
	}
	return text
}

// hold takes the data file for this process alone. The lock is the system's: it ends with
// the process however that ends. What is written beside it only tells others who has it.
type hold struct {
	lock   *flock.Flock
	holder Holder
}

func takeHold(path string, now time.Time) (*hold, error) {
	h := &hold{flock.New(path+".lock", flock.SetPermissions(0o600)), Holder{PID: os.Getpid(), Since: now}}
	isTaken, err := h.lock.TryLock()
	if err != nil {
		return nil, fmt.Errorf("lock the data file: %w", ofSystem(err))
	}
	if !isTaken {
		return nil, fmt.Errorf("%s is served by %s: %w", path, holderOf(path), ErrHeld)
	}
	if err := h.tell(); err != nil {
		return nil, errors.Join(ofSystem(err), h.lock.Unlock())
	}
	return h, nil
}

func holderOf(path string) string {
	var who Holder
	text, err := os.ReadFile(path + ".lock")
	if err != nil || json.Unmarshal(text, &who) != nil {
		return "another process"
	}
	return who.String()
}

func (h *hold) tell() error {
	text, err := json.Marshal(h.holder)
	if err == nil {
		err = os.WriteFile(h.lock.Path(), text, 0o600)
	}
	if err != nil {
		return fmt.Errorf("say who holds the data file: %w", err)
	}
	return nil
}

// Announce tells others who try to serve from the same data file where this one's page is.
func (s *Store) Announce(address string) error {
	s.hold.holder.Address = address
	return s.hold.tell()
}
