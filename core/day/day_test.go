package day

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

var morning = time.Date(2031, 9, 20, 7, 0, 0, 0, time.FixedZone("", -3600))

// taken makes a shot of that many minutes whose light runs from one EV to another.
func taken(id, camera string, after time.Duration, minutes int, from, to float64) Shot {
	s := Shot{ID: id, CameraID: camera, From: morning.Add(after), EVSet: 9, Headroom: 2}
	s.To = s.From.Add(time.Duration(minutes-1) * time.Minute)
	for m := range minutes {
		s.Points = append(s.Points, stop.EV(from+(to-from)*float64(m)/float64(max(1, minutes-1))))
	}
	return s
}

func ladder(stops ...stop.Stops) []Stack {
	var all []Stack
	for _, s := range stops {
		all = append(all, Stack{ID: fmt.Sprintf("%v stops", float64(s)), Stops: s})
	}
	return all
}

func stopsOf(stacks []Stack, id string) stop.Stops {
	return stacks[slices.IndexFunc(stacks, func(s Stack) bool { return s.ID == id })].Stops
}

func randomDay(r *rand.Rand, shots, stacks int) Day {
	d := Day{Band: glass.DefaultBand, SwapCost: []float64{0, 0.2, 1, 3}[r.IntN(4)]}
	for i := range shots {
		s := taken(fmt.Sprint("s", i), []string{"x", "y"}[r.IntN(2)], time.Duration(i)*time.Hour, 1+r.IntN(20), 8+6*r.Float64(), 8+6*r.Float64())
		s.Headroom, s.Offset = stop.Stops(r.IntN(4)), stop.Stops(r.Float64()-0.5)
		d.Shots = append(d.Shots, s)
	}
	for i := range stacks {
		s := Stack{ID: fmt.Sprint("g", i), Stops: stop.Stops(i) * 1.3}
		if i > 1 && r.IntN(4) == 0 {
			s.CameraID = "x"
		}
		d.Stacks = append(d.Stacks, s)
	}
	if r.IntN(2) == 0 {
		d.Start = map[string]string{"x": "g1"}
	}
	return d
}

// The cost of a shot, straight from the formula.
func plainCost(d *Day, s *Shot, glass stop.Stops) float64 {
	var x, y, a float64
	for _, ev := range s.Points {
		e := float64(ev) - float64(s.EVSet) - float64(glass)
		b, dark, bright, head := float64(s.Offset), float64(d.Band.Dark), float64(d.Band.Bright), float64(s.Headroom)
		x += max(0, e-b-bright, b-e-dark-head)
		y += min(head, max(0, b-e-dark))
		a += math.Abs(e - b)
	}
	n := float64(len(s.Points))
	return 10*x/n + 0.6*y/n + 0.05*a/n
}

// bruteForce tries every way to put a stack on every shot of one camera.
func bruteForce(d *Day, camera string) float64 {
	shots, stacks := d.shotsOf(camera), d.stacksFor(camera)
	best := math.Inf(1)
	var try func(i int, carried string, cost float64)
	try = func(i int, carried string, cost float64) {
		if i == len(shots) {
			best = min(best, cost)
			return
		}
		for _, s := range stacks {
			c := cost + plainCost(d, shots[i], s.Stops)
			if carried != "" && carried != s.ID {
				c += d.SwapCost
			}
			try(i+1, s.ID, c)
		}
	}
	try(0, d.Start[camera], 0)
	return best
}

func TestPlanAgainstBruteForce(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	const within = 1e-9
	for range 150 {
		d := randomDay(r, 1+r.IntN(6), 2+r.IntN(4))
		want := 0.0
		for _, camera := range d.cameras() {
			want += bruteForce(&d, camera)
		}
		p := planOf(t, d)
		if math.Abs(p.Cost-want) > within {
			t.Fatalf("plan costs %v, brute force %v: %+v", p.Cost, want, d)
		}
		// What the plan says adds up to what it costs.
		sum := float64(len(p.Swaps)) * d.SwapCost
		for _, s := range p.Shots {
			sum += plainCost(&d, s.Shot, s.Stack.Stops)
		}
		if math.Abs(sum-p.Cost) > within {
			t.Fatalf("the parts cost %v, the plan says %v", sum, p.Cost)
		}
	}
}

// No swap where the glass already on still serves: with ISO at base inside the
// band, for every shot until the glass is changed again.
func TestNoSwapWhereTheGlassStillServes(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	swaps := 0
	for range 400 {
		d := randomDay(r, 8, 6)
		d.SwapCost = DefaultSwapCost
		p := planOf(t, d)
		for i, swap := range p.Swaps {
			swaps++
			needed := false
			for _, s := range p.Shots {
				isUnderIt := s.Shot.CameraID == swap.CameraID && !s.Shot.From.Before(swap.At) && s.Stack.ID == swap.To
				for _, later := range p.Swaps[i+1:] {
					isUnderIt = isUnderIt && (later.CameraID != swap.CameraID || s.Shot.From.Before(later.At))
				}
				for _, ev := range s.Shot.Points {
					off := ev.Above(s.Shot.EVSet) - stopsOf(d.Stacks, swap.From) - s.Shot.Offset
					needed = needed || isUnderIt && (off > d.Band.Bright || off < -d.Band.Dark)
				}
			}
			if !needed {
				t.Fatalf("%s: not needed", swap.Because)
			}
		}
	}
	if swaps == 0 {
		t.Fatal("no swap was planned, so none was looked at")
	}
}

func TestPlanNamesSwapsMinutesAndSpares(t *testing.T) {
	d := Day{
		Shots: []Shot{
			taken("dawn", "x", 0, 31, 11, 14), taken("noon", "x", 2*time.Hour, 11, 14, 14), taken("pond", "y", time.Hour, 5, 13, 13),
		},
		Stacks: ladder(0, 2, 3, 5), Start: map[string]string{"x": "2 stops"}, Band: glass.DefaultBand, SwapCost: 1,
	}
	d.Shots[1].Spread = 1
	p := planOf(t, d)
	if len(p.Shots) != 3 || p.Shots[0].Shot.ID != "dawn" || p.Shots[1].Shot.ID != "pond" {
		t.Fatalf("shots out of order: %+v", p.Shots)
	}
	if len(p.Swaps) != 1 {
		t.Fatalf("%d swaps, want one", len(p.Swaps))
	}
	s := p.Swaps[0]
	// Two stops at EV 9: served up to EV 11.33, which a tenth of a stop a minute
	// passes after the third minute.
	if s.From != "2 stops" || s.To != "5 stops" || !s.At.Equal(morning) || !s.Latest.Equal(morning.Add(3*time.Minute)) {
		t.Errorf("swap %+v, latest %v", s, s.Latest)
	}
	for _, want := range []string{"07:00 swap 2 stops for 5 stops, for dawn", "2.7 stops over tolerance otherwise", "5 stops: 1.5 stops under on average"} {
		if !strings.Contains(s.Because, want) {
			t.Errorf("%q does not say %q", s.Because, want)
		}
	}
	noon := p.Shots[2]
	if noon.Brighter != nil || noon.Darker != nil {
		t.Errorf("spares %v, %v: five stops still serve with ISO up or down", noon.Brighter, noon.Darker)
	}
	d.Shots[1].Spread = 3
	if noon = planOf(t, d).Shots[2]; noon.Brighter != nil || noon.Darker == nil || noon.Darker.ID != "2 stops" {
		t.Errorf("spares for three stops either way: %+v, %+v", noon.Brighter, noon.Darker)
	}
}

// Equal plans: the one with fewer swaps, then the earlier stack.
func TestTiesTakeFewerSwaps(t *testing.T) {
	d := Day{
		Shots:  []Shot{taken("a", "x", 0, 3, 11, 11), taken("b", "x", time.Hour, 3, 11, 11)},
		Stacks: append(ladder(2), Stack{ID: "twin", Stops: 2}), Band: glass.DefaultBand,
	}
	if p := planOf(t, d); len(p.Swaps) != 0 || p.Shots[0].Stack.ID != "2 stops" {
		t.Errorf("%d swaps, first %s", len(p.Swaps), p.Shots[0].Stack.ID)
	}
}

func BenchmarkDay40Shots60Stacks(b *testing.B) {
	var d Day
	d.Band, d.SwapCost = glass.DefaultBand, DefaultSwapCost
	for i := range 40 { // a full day, 36 minutes each, on two cameras
		s := taken(fmt.Sprint("s", i), []string{"x", "y"}[i%2], time.Duration(i)*36*time.Minute, 36, 8+6*math.Sin(float64(i)/13), 8+6*math.Sin(float64(i+1)/13))
		s.Spread = 0.7
		d.Shots = append(d.Shots, s)
	}
	for i := range 60 {
		d.Stacks = append(d.Stacks, Stack{ID: fmt.Sprint("g", i), Stops: stop.Stops(i) / 6})
	}
	b.Run("plan", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			planOf(b, d)
		}
	})
	b.Run("baseline-costs-alone", func(b *testing.B) {
		b.ReportAllocs()
		sum := 0.0
		for b.Loop() {
			for i := range d.Shots {
				for _, s := range d.Stacks {
					sum += plainCost(&d, &d.Shots[i], s.Stops)
				}
			}
		}
		_ = sum
	})
}

func planOf(tb testing.TB, d Day) Plan {
	tb.Helper()
	p, err := d.Plan(tb.Context())
	if err != nil {
		tb.Fatal(err)
	}
	return p
}
