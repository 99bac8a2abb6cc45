package learn

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

var start = time.Date(2031, 3, 1, 9, 0, 0, 0, time.FixedZone("", -3600))

// user is somebody made up: what is true of their glass, cameras, places and days is drawn, and
// what they write down follows from it.
type user struct {
	*rand.Rand
	glass, camera map[string]float64
	place         map[string]float64
	request       Request
	was           []float64 // of each ask, the light
	seen          []float64
}

var userGlass = []Glass{
	{ID: "n3", Kind: glass.ND, Stops: 3}, {ID: "n5", Kind: glass.ND, Stops: 5}, {ID: "pol", Kind: glass.Polariser, Stops: 1.5},
	{ID: "var", Kind: glass.Variable, Stops: 3},
}

// newUser draws a user who shoots on so many days, two to six readings each; of a share of the
// readings the entry is off by stops. On the last day something is asked.
func newUser(seed uint64, days int, mistyped float64) *user {
	u := &user{Rand: rand.New(rand.NewPCG(seed, 18)), glass: map[string]float64{}, camera: map[string]float64{}, place: map[string]float64{}}
	u.request = Request{Filters: userGlass, Instruments: []Reader{{ID: "cam"}, {ID: "second"}, {ID: "meter"}}}
	for _, g := range userGlass {
		u.glass[g.ID] = u.NormFloat64() * glassSpread[g.Kind]
	}
	for _, r := range u.request.Instruments {
		u.camera[r.ID] = u.NormFloat64() * instrumentSpread
	}
	for day := range days {
		u.day(day, day == days-1, mistyped)
	}
	u.request.AsOf = start.AddDate(0, 0, 3*days)
	return u
}

func (u *user) day(day int, isAsked bool, mistyped float64) {
	place := fmt.Sprintf("place %d", u.IntN(3))
	sky := light.Sky("").Values()[u.IntN(3)]
	off, ok := u.place[placeName(place, sky)]
	if !ok {
		off = u.NormFloat64() * placeSpread
		u.place[placeName(place, sky)] = off
	}
	sway := math.Sqrt(dayVariance(sky))
	haze, at := u.NormFloat64()*sway, start.AddDate(0, 0, 3*day)
	n := 2 + u.IntN(5)
	for i := range n {
		step := 0.1 + u.ExpFloat64()
		keep := math.Exp(-step / dayTauH)
		haze = keep*haze + u.NormFloat64()*sway*math.Sqrt(1-keep*keep)
		at = at.Add(time.Duration(step * float64(time.Hour)))
		forecast := stop.EV(10 + 4*u.Float64())
		s := Seeing{By: u.request.Instruments[u.IntN(3)].ID, Kind: ByBias, Light: Light{Place: place, Sky: string(sky), EV: &forecast}}
		if s.By == "meter" {
			s.Kind = ByMeter
		} else if u.IntN(3) > 0 {
			g := userGlass[u.IntN(len(userGlass))]
			s.Glass = []string{g.ID}
			if g.Kind == glass.Variable {
				s.Settings = map[string]stop.Stops{g.ID: stop.Stops(1 + u.IntN(5))}
			}
		}
		lit := float64(forecast) + off + haze
		seen := lit + u.camera[s.By] + u.NormFloat64()*kindNoise[s.Kind]
		for _, id := range s.Glass {
			g := userGlass[indexOf(id)]
			set, ok := s.Settings[id]
			if !ok {
				set = g.Stops
			}
			seen -= float64(set) + u.glass[id]
			if isTurned(g.Kind) {
				seen -= u.NormFloat64() * turnSpread
			}
		}
		if isAsked && i == n-1 {
			u.request.Asks = append(u.request.Asks, Ask{ID: fmt.Sprint("a", day), Time: at, Seeing: s})
			u.was, u.seen = append(u.was, lit), append(u.seen, seen)
			return
		}
		if u.Float64() < mistyped {
			seen += 3 * (1 + u.Float64())
		}
		u.request.Exposures = append(u.request.Exposures, Exposure{ID: fmt.Sprintf("e%d-%d", day, i), Time: at, Seeing: s, Seen: stop.EV(seen)})
	}
}

func indexOf(id string) int {
	for i, g := range userGlass {
		if g.ID == id {
			return i
		}
	}
	return -1
}

// hits counts how many of the stated bands held what was true.
type hits struct{ inside, of int }

func (h *hits) add(stated, spread stop.Stops, was float64) {
	h.of++
	if math.Abs(float64(stated)-was) <= BandErrors*float64(spread) {
		h.inside++
	}
}

func (h *hits) share() float64 { return float64(h.inside) / float64(h.of) }

// held counts over users how often the 90 % bands of light, of what is seen, of filters and of
// instruments hold what is true.
func held(tb testing.TB, users int, mistyped float64) map[string]*hits {
	tb.Helper()
	all := map[string]*hits{"light": {}, "seen": {}, "filter": {}, "instrument": {}}
	for i := range users {
		u := newUser(uint64(i), 4+i%30, mistyped)
		a, err := Learn(u.request)
		if err != nil {
			tb.Fatal(err)
		}
		for k, told := range a.Asks {
			all["light"].add(stop.Stops(told.EV), told.Spread, u.was[k])
			all["seen"].add(stop.Stops(*told.Seen), *told.SeenSpread, u.seen[k])
		}
		for k, f := range a.Filters {
			all["filter"].add(f.Stops, f.Spread, float64(userGlass[k].Stops)+u.glass[f.ID])
		}
		for _, r := range a.Instruments {
			all["instrument"].add(r.Offset, r.Spread, u.camera[r.ID])
		}
	}
	return all
}

// What is said to hold in nine of ten holds in nine of ten.
func TestTheBandsAreTrue(t *testing.T) {
	const users = 250
	for name, mistyped := range map[string]float64{"careful": 0, "careless": 0.03} {
		for what, h := range held(t, users, mistyped) {
			// Two errors of a share of 0.9 over so many, and what robust fits give away.
			if share := h.share(); share < 0.85 || share > 0.96 {
				t.Errorf("%s users: of %d bands of %s %.3f hold, not 0.9", name, h.of, what, share)
			}
		}
	}
}

func BenchmarkTheBandsOf2000Users(b *testing.B) {
	for _, mistyped := range []float64{0, 0.03} {
		b.Run(fmt.Sprintf("mistyped-%v", mistyped), func(b *testing.B) {
			var all map[string]*hits
			for b.Loop() {
				all = held(b, 2000, mistyped)
			}
			for what, h := range all {
				b.ReportMetric(h.share(), what)
			}
		})
	}
}
