package glass

import (
	"math/rand/v2"
	"slices"
	"testing"

	"pinhole/core/stop"
)

func looks(n int) []Question {
	var all []Question
	for i := range n {
		q := *noon(0)
		q.Setting.Shutter = stop.Shutter(1 / float64(50+10*i))
		all = append(all, q)
	}
	return all
}

func lights(from, to stop.EV, n int) []stop.EV {
	var all []stop.EV
	for i := range n {
		all = append(all, from+(to-from)*stop.EV(i)/stop.EV(n-1))
	}
	return all
}

// Each cell is what choosing by itself puts first.
func TestCoverIsChoosingCellByCell(t *testing.T) {
	stacks := mustStack(t, caseOf14(), Rules{})
	rows := Cover(looks(5), lights(2, 17, 31), stacks)
	for i, q := range looks(5) {
		for j, ev := range lights(2, 17, 31) {
			q.Light = Light{Low: ev, High: ev}
			want := Choose(&q, stacks)[0]
			if got := rows[i][j]; !slices.Equal(got.Best.Filters, want.Filters) || got.Best.Error != want.Error || got.State != want.State(&q) {
				t.Fatalf("look %d at %v: %v, choosing gives %v", i, ev, got.Best.Filters, want.Filters)
			}
		}
	}
}

// wantedAt is light that needs so many stops of glass at noon's setting.
func wantedAt(need, weight float64) Wanted {
	q := *noon(0)
	ev := q.Setting.EV().Plus(stop.Stops(need))
	q.Light = Light{Low: ev, High: ev}
	return Wanted{Question: q, Weight: weight}
}

func TestBuyNamesWhatClosesMost(t *testing.T) {
	kit := []Filter{{ID: "nd8", Kind: ND, Stops: 3}}
	// The ND8 serves 3 to 4.3; ISO lifts what is darker. Six stops serve 7 alone, and 10
	// together with it.
	wanted := []Wanted{wantedAt(3, 5), wantedAt(7, 2), wantedAt(10, 3)}
	single, pair, err := NewInventory(kit, Rules{}, never).Buy(wanted)
	if err != nil || single.Closes != 5 || single.Open != 0 {
		t.Errorf("the single filter is %+v, %v, want one that closes 5", single, err)
	}
	if pair.Closes != 5 {
		t.Errorf("the pair is %+v", pair)
	}
	// Nothing is bought against the dark.
	if single, _, _ = NewInventory(kit, Rules{}, never).Buy([]Wanted{wantedAt(-9, 1)}); single.Closes != 0 || single.Open != 1 {
		t.Errorf("glass is bought against the dark: %+v", single)
	}
}

// randomInventory is a kit with glass of every sort, and rules that mount and require some.
func randomInventory(r *rand.Rand) ([]Filter, Rules) {
	kit := []Filter{}
	for i := range 1 + r.IntN(5) {
		kit = append(kit, Filter{ID: string(rune('a' + i)), Kind: ND, Stops: stop.Stops(1 + r.IntN(8)), Closed: r.IntN(4) == 0})
	}
	rules := Rules{MaxLayers: 1 + r.IntN(2)}
	if r.IntN(3) == 0 {
		kit = append(kit, Filter{ID: "var", Kind: Variable, Stops: 1, Most: 4 + stop.Stops(r.IntN(3))})
	}
	if r.IntN(3) == 0 {
		kit = append(kit, Filter{ID: "uv", Kind: Clear, Stops: 0.1})
		rules.Mounted = []string{"uv"}
	}
	if r.IntN(4) == 0 {
		kit = append(kit, Filter{ID: "pol", Kind: Polariser, Stops: 1.5})
		rules.Required = []string{"pol"}
	}
	return kit, rules
}

func randomWants(r *rand.Rand) []Wanted {
	var wanted []Wanted
	for range 10 {
		w := wantedAt(12*r.Float64()-2, 1+float64(r.IntN(3)))
		w.Question.Light.Low = w.Question.Light.High.Plus(-stop.Stops(3 * r.Float64()))
		wanted = append(wanted, w)
	}
	return wanted
}

// What is bought really closes what it says: with the new filters in the kit and asked
// again, the weight that stays open is the one named; whatever is mounted and required.
func TestBuyingClosesWhatItSays(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	for range 120 {
		kit, rules := randomInventory(r)
		wanted := randomWants(r)
		single, pair, err := NewInventory(kit, rules, never).Buy(wanted)
		if err != nil {
			t.Fatal(err)
		}
		for _, p := range []Purchase{single, pair} {
			bigger := slices.Clone(kit)
			for i, s := range p.Stops {
				bigger = append(bigger, Filter{ID: string(rune('x' + i)), Kind: ND, Stops: s})
			}
			open := 0.0
			for _, w := range wanted {
				if !servedPlainly(t, bigger, rules, w) {
					open += w.Weight
				}
			}
			if open != p.Open {
				t.Fatalf("%v stops leave %v open, with them in the kit %v stay open: %+v %+v", p.Stops, p.Open, open, kit, rules)
			}
		}
	}
}

// servedPlainly asks whether any stack of a kit serves a want, one by one.
func servedPlainly(t *testing.T, kit []Filter, rules Rules, w Wanted) bool {
	t.Helper()
	for _, o := range Choose(&w.Question, mustStack(t, kit, rules)) {
		if o.State(&w.Question) != Breaks {
			return true
		}
	}
	return false
}

// The fewest are enough, no fewer are, and what is hopeless is served by nothing.
func TestCarryTakesTheFewest(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	for range 60 {
		kit, rules := randomInventory(r)
		wanted := randomWants(r)
		carried, hopeless, err := NewInventory(kit, rules, never).Carry(wanted)
		if err != nil {
			t.Fatal(err)
		}
		part := func(set []int) []Filter {
			var some []Filter
			for i, f := range kit {
				if slices.Contains(set, i) || slices.Contains(rules.Mounted, f.ID) || slices.Contains(rules.Required, f.ID) {
					some = append(some, f)
				}
			}
			return some
		}
		for i, w := range wanted {
			isHopeless := slices.Contains(hopeless, i)
			if isHopeless == servedPlainly(t, kit, rules, w) {
				t.Fatalf("hopeless %v, and the whole kit says otherwise of %d", hopeless, i)
			}
			if !isHopeless && !servedPlainly(t, part(carried), rules, w) {
				t.Fatalf("%v is carried and does not serve %d", carried, i)
			}
		}
		for k := range carried { // none of them can stay at home
			fewer := slices.Delete(slices.Clone(carried), k, k+1)
			if !slices.ContainsFunc(wanted, func(w Wanted) bool {
				return servedPlainly(t, kit, rules, w) && !servedPlainly(t, part(fewer), rules, w)
			}) {
				t.Fatalf("%v is carried, and %v would do", carried, fewer)
			}
		}
	}
	big := []Filter{}
	for i := range MaxCarried + 4 {
		big = append(big, Filter{ID: string(rune('a' + i)), Kind: ND, Stops: 9})
	}
	if carried, _, err := NewInventory(big, Rules{}, never).Carry([]Wanted{wantedAt(9, 1)}); err != nil || len(carried) != 1 {
		t.Errorf("of a large kit of twins %v is carried, %v", carried, err)
	}
}

// Light that widens is never served where narrower light was hopeless.
func TestWiderLightIsNotEasier(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	for range 300 {
		kit, rules := randomInventory(r)
		w := randomWants(r)[0]
		wider := w
		wider.Question.Light.Low, wider.Question.Light.High = wider.Question.Light.Low.Plus(-1), wider.Question.Light.High.Plus(1)
		if !servedPlainly(t, kit, rules, w) && servedPlainly(t, kit, rules, wider) {
			t.Fatalf("%+v is hopeless, and served a stop wider both ways: %+v", w.Question.Light, kit)
		}
	}
}

// A gap's filter, put into the kit and asked again, closes all of the gap but what it
// leaves; and the gaps are just what nothing holds.
func TestGapsAreClosedByWhatTheyName(t *testing.T) {
	evs := lights(2, 17, 31)
	r := rand.New(rand.NewPCG(41, 42))
	for range 40 {
		kit, rules := randomInventory(r)
		q := looks(6)[r.IntN(6)]
		row := Cover([]Question{q}, evs, mustStack(t, kit, rules))[0]
		gaps, err := NewInventory(kit, rules, never).Gaps(&q, row, evs)
		if err != nil {
			t.Fatal(err)
		}
		seen := 0
		for _, g := range gaps {
			seen += g.To - g.From + 1
			if g.Dark || g.Closes == 0 {
				continue
			}
			bigger := mustStack(t, append(slices.Clone(kit), Filter{ID: "x", Kind: ND, Stops: g.Closes}), rules)
			open := 0
			for _, c := range Cover([]Question{q}, evs[g.From:g.To+1], bigger)[0] {
				if !c.Holds {
					open++
				}
			}
			if open != g.Left {
				t.Errorf("%+v leaves %d open: %+v %+v", g, open, kit, rules)
			}
		}
		failing := 0
		for _, c := range row {
			if !c.Holds {
				failing++
			}
		}
		if seen != failing {
			t.Errorf("gaps hold %d of %d cells", seen, failing)
		}
	}
}

func TestSpareServesLightThatMoved(t *testing.T) {
	// Without headroom, so that ISO does not serve what is darker.
	w := wantedAt(5, 1)
	w.Question.Ceiling = w.Question.Setting.ISO
	kit := []Filter{{ID: "a", Kind: ND, Stops: 5}, {ID: "b", Kind: ND, Stops: 3, Unfit: true}, {ID: "c", Kind: ND, Stops: 3}, {ID: "d", Kind: ND, Stops: 2.6}, {ID: "e", Kind: ND, Stops: 9}}
	spare, adds, found, err := NewInventory(kit, Rules{MaxLayers: 1}, never).Spare([]int{0}, []Wanted{w}, 2)
	if err != nil || !found || spare != 3 || adds != 1 {
		t.Errorf("spare %d adds %v, %t, %v; want the lighter of two that each serve one way", spare, adds, found, err)
	}
	if _, _, found, _ = NewInventory(kit, Rules{MaxLayers: 1}, never).Spare([]int{0, 2, 3}, []Wanted{w}, 2); found {
		t.Error("a spare is named where what is carried serves as much")
	}
}

func BenchmarkCoverage14x12x40(b *testing.B) {
	stacks, err := Stacks(caseOf14(), Rules{})
	if err != nil {
		b.Fatal(err)
	}
	questions, evs := looks(12), lights(0, 17, 40)
	b.Run("cover", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			Cover(questions, evs, stacks)
		}
	})
	b.Run("baseline-nested-loops", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			for i := range questions {
				for _, ev := range evs {
					q := questions[i]
					q.Light = Light{Low: ev, High: ev}
					naive(&q, caseOf14())
				}
			}
		}
	})
	b.Run("buy", func(b *testing.B) {
		b.ReportAllocs()
		var wanted []Wanted
		for i := range questions {
			for _, ev := range evs {
				q := questions[i]
				q.Light = Light{Low: ev, High: ev}
				wanted = append(wanted, Wanted{Question: q, Weight: 1})
			}
		}
		for b.Loop() {
			if _, _, err := NewInventory(caseOf14(), Rules{}, never).Buy(wanted); err != nil {
				b.Fatal(err)
			}
		}
	})
}

// never is over.
func never() error { return nil }
