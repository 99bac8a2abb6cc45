package calc

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// A large case of filters against many looks takes long, and ends when its asker leaves.
func TestLongWorkEndsWithItsAsker(t *testing.T) {
	r := CoverageRequest{Camera: assemble.Camera{Aperture: 2, ISOBase: 100, ISOCeiling: 800}, LowEV100: 2, HighEV100: 17, Columns: 31}
	for n := range 70 {
		r.Kit = append(r.Kit, assemble.KitFilter{ID: fmt.Sprint(n), Kind: glass.ND, Stops: stop.Stops(n) / 7})
	}
	for n := range 24 {
		r.Looks = append(r.Looks, CoverageLook{FPS: fmt.Sprint(20 + n), Target: "180°"})
		r.Wanted = append(r.Wanted, WantedLight{ID: fmt.Sprint(n), FPS: fmt.Sprint(20 + n), Target: "180°", LowEV100: stop.EV(n), HighEV100: stop.EV(n) + 2})
	}
	body, err := json.Marshal(r)
	if err != nil {
		t.Fatal(err)
	}
	op, _ := Named("coverage")
	gone, leave := context.WithCancel(t.Context())
	leave()
	if _, err := op.RunIn(gone, body); !errors.Is(err, context.Canceled) {
		t.Errorf("asked by nobody, it answers with %v", err)
	}
	soon, cancel := context.WithTimeout(t.Context(), 20*time.Millisecond)
	defer cancel()
	if _, err := op.RunIn(soon, body); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		t.Errorf("left in the middle, it ends with %v", err)
	}
}

// Whatever goes over many lights, shots or hours is not begun for an asker who has left.
func TestNothingLongIsDoneForNobody(t *testing.T) {
	gone, leave := context.WithCancel(t.Context())
	leave()
	seeds := seedRequests(t)
	for _, name := range []string{"day", "outing", "card", "year", "coverage"} {
		op, _ := Named(name)
		asked := seeds[name]
		if len(asked) == 0 {
			t.Errorf("%s: no request to ask", name)
		}
		for _, body := range asked {
			if _, err := op.RunIn(gone, body); !errors.Is(err, context.Canceled) {
				t.Errorf("%s, asked by nobody, answers with %v", name, err)
			}
		}
	}
}
