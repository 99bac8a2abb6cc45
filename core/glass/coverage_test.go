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

func TestBuyNamesWhatClosesMost(t *testing.T) {
	kit := []Filter{{ID: "nd8", Kind: ND, Stops: 3}}
	stacks := mustStack(t, kit, Rules{})
	q := noon(0)
	want := func(need, weight float64) Wanted {
		there := *q
		ev := q.Setting.EV().Plus(stop.Stops(need))
		there.Light = Light{Low: ev, High: ev}
		return there.Wants(weight)
	}
	wanted := []Wanted{want(3, 5), want(6, 2), want(9, 3)}
	// Six stops close 6 alone and 9 together with the ND8.
	single, pair := Buy(wanted, stacks, 2)
	if !slices.Equal(single.Stops, []stop.Stops{6}) || single.Closes != 5 || single.Open != 0 {
		t.Errorf("the single filter is %+v, want 6 stops that close 5", single)
	}
	if pair.Closes != 5 {
		t.Errorf("the pair is %+v", pair)
	}
	// In one layer only two filters close both.
	single, pair = Buy(wanted, mustStack(t, kit, Rules{MaxLayers: 1}), 1)
	if single.Closes != 3 || !slices.Equal(pair.Stops, []stop.Stops{6, 9}) || pair.Closes != 5 {
		t.Errorf("in one layer: %+v and %+v", single, pair)
	}
	if single, _ = Buy([]Wanted{want(-7, 1)}, stacks, 2); single.Closes != 0 || single.Open != 1 {
		t.Errorf("glass is bought against the dark: %+v", single)
	}
}

// What ISO makes good is no reason to buy glass.
func TestWantsCountWhatISOLifts(t *testing.T) {
	q := noon(0)
	at := func(low, high float64) Wanted {
		there := *q
		there.Light = Light{Low: q.Setting.EV().Plus(stop.Stops(low)), High: q.Setting.EV().Plus(stop.Stops(high))}
		return there.Wants(1)
	}
	if w := at(-3, -3); !w.servedBy(pile{}) {
		t.Errorf("three stops short is lifted by four of ISO, and wanted is %+v", w)
	}
	if w := at(3, 6); !w.servedBy(pile{stops: 6}) || w.servedBy(pile{stops: 5}) {
		t.Errorf("a range of three stops wants %+v", w)
	}
	if w := at(5, 5); w.servedBy(pile{stops: 6}) {
		t.Errorf("one light wants %+v", w)
	}
}

// What is bought really closes what it says: with the new filters in the kit, the
// weight that stays open is the one named.
func TestBuyingClosesWhatItSays(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	q := noon(0)
	for range 60 {
		var kit []Filter
		for i := range 1 + r.IntN(4) {
			kit = append(kit, Filter{ID: string(rune('a' + i)), Kind: ND, Stops: stop.Stops(1 + r.IntN(8)), Closed: r.IntN(4) == 0})
		}
		var wanted []Wanted
		for range 12 {
			there := *q
			high := q.Setting.EV().Plus(stop.Stops(10 * r.Float64()))
			there.Light = Light{Low: high.Plus(-stop.Stops(1.4 * r.Float64())), High: high}
			w := there.Wants(1 + float64(r.IntN(3)))
			w.Layers = r.IntN(3)
			wanted = append(wanted, w)
		}
		layers := 1 + r.IntN(2)
		rules := Rules{MaxLayers: layers}
		single, pair := Buy(wanted, mustStack(t, kit, rules), layers)
		for _, p := range []Purchase{single, pair} {
			bigger := slices.Clone(kit)
			for i, s := range p.Stops {
				bigger = append(bigger, Filter{ID: string(rune('x' + i)), Kind: ND, Stops: s})
			}
			open := 0.0
			for _, w := range unserved(wanted, mustStack(t, bigger, rules)) {
				open += w.Weight
			}
			if open != p.Open {
				t.Fatalf("%v stops leave %v open, with them in the kit %v stay open", p.Stops, p.Open, open)
			}
		}
	}
}

func TestCarryTakesTheFewest(t *testing.T) {
	q := noon(0)
	at := func(need float64) Wanted {
		there := *q
		ev := q.Setting.EV().Plus(stop.Stops(need))
		there.Light = Light{Low: ev, High: ev}
		return there.Wants(1)
	}
	kit := []Filter{{ID: "a", Kind: ND, Stops: 1}, {ID: "b", Kind: ND, Stops: 2}, {ID: "c", Kind: ND, Stops: 3}, {ID: "d", Kind: ND, Stops: 5}}
	carried, hopeless, err := Carry(kit, []Wanted{at(3), at(5), at(8), at(14)}, Rules{})
	if err != nil || !slices.Equal(carried, []int{2, 3}) || !slices.Equal(hopeless, []int{3}) {
		t.Errorf("carried %v, hopeless %v, %v", carried, hopeless, err)
	}
	if carried, _, _ = Carry(kit, []Wanted{at(0)}, Rules{}); len(carried) != 0 {
		t.Errorf("%v is carried for nothing", carried)
	}
	big := slices.Clone(kit)
	for i := range MaxCarried {
		big = append(big, Filter{ID: string(rune('m' + i)), Kind: ND, Stops: 9})
	}
	if carried, _, err = Carry(big, []Wanted{at(3), at(5), at(8)}, Rules{}); err != nil || len(carried) > 3 {
		t.Errorf("of a large kit %v is carried, %v", carried, err)
	}
}

// A gap's filter, put into the kit, closes all of the gap but what it leaves.
func TestGapsAreClosedByWhatTheyName(t *testing.T) {
	evs := lights(2, 17, 31)
	for i, q := range looks(6) {
		kit := []Filter{{ID: "a", Kind: ND, Stops: 2}, {ID: "b", Kind: ND, Stops: 6.3}}
		row := Cover([]Question{q}, evs, mustStack(t, kit, Rules{}))[0]
		seen := 0
		for _, g := range q.Gaps(row, evs) {
			seen += g.To - g.From + 1
			if g.Dark {
				continue
			}
			bigger := mustStack(t, append(slices.Clone(kit), Filter{ID: "x", Kind: ND, Stops: g.Closes}), Rules{MaxLayers: 1})
			open := 0
			for _, c := range Cover([]Question{q}, evs[g.From:g.To+1], bigger)[0] {
				if c.State != Holds {
					open++
				}
			}
			if open != g.Left {
				t.Errorf("look %d: %+v leaves %d open", i, g, open)
			}
		}
		failing := 0
		for _, c := range row {
			if c.State != Holds {
				failing++
			}
		}
		if seen != failing {
			t.Errorf("look %d: gaps hold %d of %d cells", i, seen, failing)
		}
	}
}

func TestSpareServesLightThatMoved(t *testing.T) {
	q := noon(0)
	ev := q.Setting.EV().Plus(5)
	there := *q
	there.Light = Light{Low: ev, High: ev}
	wanted := []Wanted{there.Wants(1)}
	kit := []Filter{{ID: "a", Kind: ND, Stops: 5}, {ID: "b", Kind: ND, Stops: 6, Unfit: true}, {ID: "c", Kind: ND, Stops: 6}, {ID: "d", Kind: ND, Stops: 4}, {ID: "e", Kind: ND, Stops: 9}}
	spare, adds, found, err := Spare(kit, []int{0}, wanted, 1, Rules{})
	if err != nil || !found || spare != 3 || adds != 1 {
		t.Errorf("spare %d adds %v, %t, %v; want the lighter of two that each serve one way", spare, adds, found, err)
	}
	if _, _, found, _ = Spare(kit, []int{0, 2, 3}, wanted, 1, Rules{}); found {
		t.Error("a spare is named where what is carried serves both ways")
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
				wanted = append(wanted, q.Wants(1))
			}
		}
		for b.Loop() {
			Buy(wanted, stacks, 2)
		}
	})
}
