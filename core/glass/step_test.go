package glass

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"pinhole/core/stop"
)

func greyKit(stops ...stop.Stops) []Filter {
	var kit []Filter
	for i, s := range stops {
		kit = append(kit, Filter{ID: fmt.Sprint("n", i), Kind: ND, Stops: s})
	}
	return kit
}

// see says what an honest eye sees through the glass in that light.
func see(q *Question, light stop.EV, glass stop.Stops) Saw {
	off := light.Above(q.Setting.EV()) - glass - q.Offset
	switch {
	case off > q.Band.Bright:
		return TooBright
	case off < -q.Band.Dark:
		return TooDark
	}
	return JustRight
}

// Looking ends within a few looks, never contradicts itself for an honest eye,
// and flies what a meter would have chosen whenever something was right.
func TestLookingFindsTheGlass(t *testing.T) {
	random := rand.New(rand.NewPCG(9, 10))
	most := 0
	for range 300 {
		q := noon(0)
		stacks := mustStack(t, greyKit(2, 3, 4, 5, 6, 8, 10), Rules{})
		light := stop.EV(0.5 + 16*random.Float64())
		var looks []Look
		for {
			step, err := NextLook(q, stacks, EveryLight, looks)
			if err != nil {
				t.Fatalf("at %v after %+v: %v", light, looks, err)
			}
			if light < step.Light.Low-1e-9 || light > step.Light.High+1e-9 {
				t.Fatalf("light %v lies outside %+v", float64(light), step.Light)
			}
			if step.Settled {
				if n := len(looks); n > 0 && looks[n-1].Saw == JustRight && see(q, step.Light.Middle(), step.Next.Stops) != JustRight {
					t.Fatalf("settled on glass of %v for %v", step.Next.Stops, step.Light.Middle())
				}
				break
			}
			looks = append(looks, Look{Stops: step.Next.Stops, EVSet: q.Setting.EV(), Saw: see(q, light, step.Next.Stops)})
			if most = max(most, len(looks)); most > 12 {
				t.Fatalf("still looking after %d looks at %v", most, light)
			}
		}
	}
}

func TestContradictingLooksAreNamed(t *testing.T) {
	q := noon(0)
	stacks := mustStack(t, greyKit(3, 6), Rules{})
	set := q.Setting.EV()
	_, err := NextLook(q, stacks, EveryLight, []Look{{3, set, TooBright}, {6, set, TooDark}, {3, set, TooDark}})
	if err == nil || !strings.HasPrefix(err.Error(), `looks[2].saw is "dark"`) {
		t.Errorf("contradiction is reported as %v", err)
	}
	_, err = NextLook(q, stacks, EveryLight, []Look{{20, set, TooBright}})
	if err == nil || !strings.HasPrefix(err.Error(), "looks[0].saw") {
		t.Errorf("light beyond any is reported as %v", err)
	}
}
