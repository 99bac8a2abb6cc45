package demo

import (
	"path/filepath"
	"testing"
	"time"

	"pinhole/core/glass"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

func TestSeedTellsTheHarvestOnce(t *testing.T) {
	svc := seeded(t)
	if err := Seed(t.Context(), svc); err != nil {
		t.Fatal(err)
	}
	shots, err := svc.Store.Shots().List(t.Context())
	if err != nil || len(shots) != 7 {
		t.Fatalf("%d shots, %v, want 7", len(shots), err)
	}
	// The story has both: shots whose glass holds, and some where something gives way.
	states := map[glass.State]int{}
	kinds := map[string]bool{}
	for _, shot := range shots {
		states[shot.Answer.Given.Chosen.State]++
		kinds[shot.Light.Kind] = true
	}
	if states[glass.Holds] == 0 || states[glass.Tight] == 0 || len(kinds) != 3 {
		t.Errorf("states %v from readings %v", states, kinds)
	}
	// A take is held against the shutter that is set, and against none where the camera moves it.
	for _, shot := range shots {
		known, err := svc.TakeOf(t.Context(), shot.ID)
		if err != nil {
			t.Fatal(err)
		}
		want := shot.Answer.Given.Chosen.ShutterS
		if shot.Name == "Dive down the terraces" {
			want = 0
		}
		if known.ShutterS != want {
			t.Errorf("a take of %s is held against %v, want %v", shot.Name, known.ShutterS, want)
		}
	}
	unsettled := 0
	filters, err := svc.Store.Filters().List(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range filters {
		shown, err := service.Show(f)
		if err != nil {
			t.Errorf("filter %q: %v", f.Label, err)
		}
		if shown.Open != "" {
			unsettled++
		}
	}
	if unsettled != 1 {
		t.Errorf("%d labels are badly written, want 1", unsettled)
	}
}

// seeded is a service with the demo on it.
func seeded(t *testing.T) *service.Service {
	t.Helper()
	now := func() time.Time { return time.Date(2031, 9, 19, 18, 0, 0, 0, time.UTC) }
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"), now)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	svc := &service.Service{Store: s, Now: now}
	if err := Seed(t.Context(), svc); err != nil {
		t.Fatal(err)
	}
	return svc
}

// harvest is the demo's first shoot as a page is given it.
func harvest(t *testing.T, svc *service.Service) *service.Day {
	t.Helper()
	shoots, err := svc.Store.Shoots().List(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	shoot, err := svc.Day(t.Context(), shoots[0].ID)
	if err != nil {
		t.Fatal(err)
	}
	return shoot
}
