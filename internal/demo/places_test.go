package demo

import (
	"flag"
	"fmt"
	"os"
	"pinhole/core/card"
	"strings"
	"testing"

	"pinhole/core/day"
	"pinhole/internal/service"
)

var freeze = flag.Bool("freeze", false, "write testdata/places.txt anew")

// What every place says of each shot of the demo, one line a place, as a person would
// lay them side by side.
func TestThePlacesOfTheDemo(t *testing.T) {
	got := places(t, seeded(t))
	const file = "testdata/places.txt"
	if *freeze {
		if err := os.WriteFile(file, []byte(got), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	want, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	if got != string(want) {
		t.Errorf("the places of the demo say\n%s\nwhere they said\n%s", got, want)
	}
}

func places(t *testing.T, svc *service.Service) string {
	t.Helper()
	shoot := harvest(t, svc)
	plan, err := day.Outing(t.Context(), shoot.Request)
	if err != nil {
		t.Fatal(err)
	}
	held, err := svc.Card(t.Context(), shoot.Shoot.ID, "")
	if err != nil {
		t.Fatal(err)
	}
	card, err := card.Card(t.Context(), held.Request)
	if err != nil {
		t.Fatal(err)
	}
	shots, err := svc.Store.ShotsOf(t.Context(), shoot.Shoot.ID)
	if err != nil {
		t.Fatal(err)
	}
	names := map[string]string{}
	for _, stack := range shoot.Request.Stacks {
		names[stack.ID] = stack.Name
	}
	var b strings.Builder
	for _, shot := range shots {
		given := shot.Answer.Given
		var on []string
		for _, id := range given.Chosen.Filters {
			on = append(on, shot.Answer.Glass[id])
		}
		gives := ""
		if given.Gives != nil {
			gives = ", " + *given.Gives
		}
		fmt.Fprintf(&b, "%s\n  list  %s: %s in EV %.1f%s\n", shot.Name, strings.Join(on, " + "), given.State, float64(given.Reading.EV100), gives)
		for _, p := range plan.Shots {
			if p.ID != shot.ID {
				continue
			}
			for _, pack := range p.Packs {
				fmt.Fprintf(&b, "  plan  %s: %s in EV %.1f to %.1f\n", names[pack.Stack], p.State, float64(pack.LowEV100), float64(pack.HighEV100))
			}
		}
		for _, of := range card.Cameras {
			for _, turn := range of.Turns {
				if turn.Shot == shot.ID {
					fmt.Fprintf(&b, "  card  %s: %s, %s\n", turn.Glass, turn.State, turn.Set.Words)
				}
			}
		}
	}
	return b.String()
}
