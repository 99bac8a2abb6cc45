package glass

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"pinhole/core/stop"
)

// sum is how far two sums of the same stops may differ by their order.
const sum = 1e-9

func close9(a, b float64) bool { return math.Abs(a-b) <= sum*math.Max(1, math.Abs(b)) }

// noon is a pocket camera at f/2, 1/50, in the light given.
func noon(ev stop.EV) *Question {
	return &Question{
		Setting: stop.Setting{Aperture: 2, Shutter: 1.0 / 50, ISO: 100}, Rate: 25, Ceiling: 1600, Fastest: 1.0 / 8000,
		Light: Light{Low: ev, High: ev}, Band: DefaultBand,
	}
}

func mustStack(t testing.TB, kit []Filter, rules Rules) []Stack {
	t.Helper()
	stacks, err := Stacks(kit, rules)
	if err != nil {
		t.Fatal(err)
	}
	return stacks
}

func TestChooseAgreesWithNestedLoops(t *testing.T) {
	random := rand.New(rand.NewPCG(5, 6))
	for range 400 {
		kit := make([]Filter, random.IntN(9))
		for i := range kit {
			kit[i] = Filter{
				ID: fmt.Sprint("f", i), Kind: ND, Stops: stop.Stops(random.Float64() * 10), Corner: stop.Stops(random.Float64() * 0.3),
				Cast: stop.Stops(random.Float64()*0.4 - 0.2), WeightG: float64(random.IntN(3)),
				Unfit: random.IntN(6) == 0, NeedsBase: random.IntN(4) == 0, Closed: random.IntN(4) == 0,
			}
			if random.IntN(8) == 0 {
				kit[i].Kind = Polariser
			}
		}
		q := noon(stop.EV(random.Float64() * 17))
		q.Offset = stop.Stops(random.IntN(3)-1) / 3
		if random.IntN(2) == 0 {
			q.Priority = ImageFirst
		}
		got, want := Choose(q, mustStack(t, kit, Rules{})), naive(q, kit)
		if len(got) != len(want) {
			t.Fatalf("%d options, nested loops find %d", len(got), len(want))
		}
		for i := range got {
			g, w := &got[i], want[i]
			if key(g) != naiveKey(w) || g.Verdict != w.verdict || !close9(g.Cost, w.cost) || !close9(float64(g.Error), w.err) ||
				!close9(float64(g.ISO), w.iso) || !close9(float64(g.Shutter), w.shutS) {
				t.Fatalf("option %d is %s %v %v %v, nested loops say %s %v %v %v", i, key(g), g.Verdict, g.Error, g.Cost, naiveKey(w), w.verdict, w.err, w.cost)
			}
		}
	}
}

// However few are asked for, they are the first of all.
func TestTheForemostAreTheFirstOfAll(t *testing.T) {
	random := rand.New(rand.NewPCG(20, 12))
	for range 100 {
		kit := make([]Filter, random.IntN(9))
		for i := range kit {
			kit[i] = Filter{ID: fmt.Sprint("f", i), Kind: ND, Stops: stop.Stops(random.IntN(8)), WeightG: float64(random.IntN(2))}
		}
		q, stacks := noon(stop.EV(8+random.Float64()*9)), mustStack(t, kit, Rules{})
		all := Choose(q, stacks)
		for most := range len(all) + 2 {
			want := all[:min(most, len(all))]
			got := Foremost(q, stacks, most)
			if !slices.EqualFunc(got, want, func(a, b Option) bool { return a.Stack == b.Stack && a.Cost == b.Cost }) {
				t.Fatalf("of %d stacks the foremost %d are not the first of all", len(stacks), most)
			}
		}
	}
}

func TestAStopOfGlassDarkensByAStop(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 8))
	for range 500 {
		q := noon(stop.EV(random.Float64()*20 - 2))
		s := stop.Stops(random.Float64() * 9)
		weigh := func(s stop.Stops) Option {
			stacks := mustStack(t, []Filter{{ID: "x", Kind: ND, Stops: s}}, Rules{Required: []string{"x"}})
			return Weigh(q, &stacks[0])
		}
		lighter, darker := weigh(s), weigh(s+1)
		if !close9(float64(lighter.Error-darker.Error), 1) {
			t.Fatalf("a stop more of glass changes the error from %v to %v", lighter.Error, darker.Error)
		}
		if !close9(float64(lighter.Lost), float64(darker.Lost)) {
			t.Fatalf("without the glass the error is %v or %v", lighter.Lost, darker.Lost)
		}
	}
}

func filterIDs(stacks []Stack) []string {
	var all []string
	for _, s := range stacks {
		var ids []string
		for _, f := range s.Filters {
			ids = append(ids, f.ID)
		}
		all = append(all, strings.Join(ids, "+"))
	}
	return all
}

func TestStacks(t *testing.T) {
	kit := []Filter{
		{ID: "a", Kind: ND, Stops: 3},
		{ID: "b", Kind: ND, Stops: 4, Closed: true},
		{ID: "c", Kind: ND, Stops: 5, NeedsBase: true},
		{ID: "p", Kind: Polariser, Stops: 1.5},
		{ID: "h", Kind: NDPolariser, Stops: 4.5},
		{ID: "v", Kind: Variable, Stops: 1, Most: 5, Unfit: true},
		{ID: "u", Kind: Clear},
	}
	tests := []struct {
		name  string
		rules Rules
		want  []string
	}{
		{"a closed filter is on top and one that needs a base is not at the bottom", Rules{}, []string{"", "a", "b", "a+b", "a+c"}},
		{"one layer", Rules{MaxLayers: 1}, []string{"", "a", "b"}},
		{"three layers", Rules{MaxLayers: 3}, []string{"", "a", "b", "a+b", "a+c", "a+c+b"}},
		{"a polariser asked for is in every stack, with one layer beside it", Rules{Required: []string{"p"}}, []string{"p", "p+a", "p+b", "p+c"}},
		{"a second polariser never joins it", Rules{Required: []string{"p"}, Allow: []Kind{ND, NDPolariser}}, []string{"p", "p+a", "p+b", "p+c"}},
		{"on mounted glass everything has a base", Rules{MaxLayers: 1, Mounted: []string{"u"}}, []string{"", "a", "b", "c"}},
		{"nothing goes on mounted glass that takes no layer", Rules{Mounted: []string{"b"}}, []string{""}},
		{"what is mounted need not be asked for", Rules{MaxLayers: 1, Mounted: []string{"p"}, Required: []string{"p"}}, []string{"", "a", "b", "c"}},
		{"of what is at hand, in the order of the kit", Rules{AtHand: &[]string{"c", "a", "h", "v"}}, []string{"", "a", "a+c"}},
		{"what is asked for comes beside it", Rules{AtHand: &[]string{"b"}, Required: []string{"p"}}, []string{"p", "p+b"}},
		{"nothing at hand", Rules{AtHand: &[]string{}}, []string{""}},
		{"glass that came to it", Rules{AtHand: &[]string{"b"}}.With(kit[0]), []string{"", "a", "b", "a+b"}},
	}
	for _, test := range tests {
		if got := filterIDs(mustStack(t, kit, test.rules)); !slices.Equal(got, test.want) {
			t.Errorf("%s: %q, want %q", test.name, got, test.want)
		}
	}
}

func TestStacksRefuses(t *testing.T) {
	kit := []Filter{{ID: "a", Kind: ND, Stops: 3, Unfit: true}, {ID: "p", Kind: Polariser}, {ID: "q", Kind: Polariser}}
	var many []Filter
	for i := range MaxKit {
		many = append(many, Filter{ID: fmt.Sprint(i), Kind: ND, Stops: 1})
	}
	tests := []struct {
		name  string
		kit   []Filter
		rules Rules
		field string
	}{
		{"unknown", kit, Rules{Required: []string{"p", "x"}}, "required[1]"},
		{"twice", kit, Rules{Mounted: []string{"p", "p"}}, "mounted[1]"},
		{"nothing in the kit that is at hand", kit, Rules{AtHand: &[]string{"p", "x"}}, "atHand[1]"},
		{"unfit", kit, Rules{Required: []string{"a"}}, "required"},
		{"two polarisers", kit, Rules{Required: []string{"p", "q"}}, "required"},
		{"two polarisers for good", kit, Rules{Mounted: []string{"p", "q"}}, "mounted"},
		{"more layers than allowed", kit, Rules{MaxLayers: 1, Required: []string{"p", "q"}}, "required"},
		{"more stacks than anyone needs", many, Rules{MaxLayers: 3}, "kit"},
	}
	for _, test := range tests {
		_, err := Stacks(test.kit, test.rules)
		if err == nil || !strings.HasPrefix(err.Error(), test.field+" is ") {
			t.Errorf("%s: %v, want a fault of %s", test.name, err, test.field)
		}
	}
}

func TestVariableGlassIsTurnedToTheNeed(t *testing.T) {
	kit := []Filter{{ID: "v", Kind: Variable, Stops: 1, Most: 5}}
	for ev, want := range map[stop.EV]stop.Stops{11: 3.356143810225276, 8: 1, 17: 5} {
		q := noon(ev)
		stacks := mustStack(t, kit, Rules{})
		o := Weigh(q, &stacks[1])
		if !close9(float64(o.Setting), float64(want)) {
			t.Errorf("at %v the ring is turned to %v, want %v", ev, float64(o.Setting), float64(want))
		}
	}
}

func TestRangeModes(t *testing.T) {
	kit := []Filter{{ID: "a", Kind: ND, Stops: 4}}
	tests := []struct {
		name      string
		low, high stop.EV
		want      Verdict
		short     float64
	}{
		{"half a stop stays inside the band", 11.4, 11.9, Lock, 0.24385618977472385},
		{"two stops of shade: ISO floats", 9.7, 11.7, FloatISO, 0},
		{"sun and deep shade: the shutter floats", 4, 14, FloatShutter, 1.6438561897747253},
	}
	for _, test := range tests {
		q := noon(0)
		q.Light = Light{Low: test.low, High: test.high}
		stacks := mustStack(t, kit, Rules{Required: []string{"a"}})
		o := Weigh(q, &stacks[0])
		short := float64(o.Mode.Short)
		if o.Verdict != test.want || test.want != FloatShutter && !close9(short, test.short) {
			t.Errorf("%s: %v, short by %v, want %v, %v", test.name, o.Verdict, short, test.want, test.short)
		}
		if o.Mode.Slowest < o.Mode.Fastest || o.Mode.ISOHigh < o.Mode.ISOLow || o.Mode.Slowest > q.Rate.Frame() {
			t.Errorf("%s: mode %+v is the wrong way round", test.name, *o.Mode)
		}
	}
}

// No option sets a camera to a shutter it does not have; what is then too bright is
// left over.
func TestTheShutterEndsWhereTheCameraDoes(t *testing.T) {
	stacks := mustStack(t, nil, Rules{})
	q := noon(0)
	q.Fastest = 1.0 / 250
	over := q.Fastest.Over(q.Setting.Shutter).Abs()
	for _, beyond := range []stop.Stops{-0.5, 1.5} {
		q.Light.High = q.Setting.EV().Plus(over + beyond)
		q.Light.Low = q.Light.High
		one := Weigh(q, &stacks[0])
		q.Light.Low = q.Light.High.Plus(-6)
		ranged := Weigh(q, &stacks[0])
		for _, o := range []Option{one, ranged} {
			if at := o.Shutters().From; at < q.Fastest || !close9(float64(o.Left-q.Offset), float64(max(0, beyond))) || (o.State(q) == Breaks) != (beyond > 0 || o.given(q) > MostGiven) {
				t.Errorf("%v, %v stops beyond the camera: set to %v, %v left, %s", o.Verdict, beyond, at, o.Left, o.State(q))
			}
			if says := strings.Contains(strings.Join(o.Reasons(q), " "), "the camera goes no faster: 1.5 stops over"); says != (beyond > 0) {
				t.Errorf("%v, %v stops beyond the camera: %q", o.Verdict, beyond, o.Reasons(q))
			}
		}
	}
}

func TestLadderCountsFromTheBareShutter(t *testing.T) {
	q := noon(0)
	q.Light.High = q.Setting.EV() + 4
	var said []string
	for _, c := range q.Ladder() {
		said = append(said, c.Shutter.Spoken())
	}
	if got := strings.Join(said, " "); got != "1/800 1/400 1/200 1/100 1/50" {
		t.Errorf("the ladder is %s", got)
	}
	q.Light.High = q.Setting.EV() - 2.5
	if n := len(q.Ladder()); n != 3 {
		t.Errorf("%d rungs down to a light two and a half stops short, want 3", n)
	}
}

func TestReasonsAndState(t *testing.T) {
	measured := Filter{ID: "m", Kind: ND, Stops: 4.9, Measured: true, StdErr: 0.05, Corner: 0.2, Cast: -0.3}
	q := noon(0)
	q.Light = Light{Low: q.Setting.EV() + 5.2, High: q.Setting.EV() + 5.2, Spread: 0.2}
	tests := []struct {
		name   string
		filter Filter
		change func(*Question)
		state  State
		want   string
	}{
		{"on", measured, nil, Holds, "cuts 4.9 stops (measured), 5.2 needed: 0.3 over, within tolerance (third of a stop over)"},
		{"may fall outside", measured, nil, Holds, "±0.2 stops from the reading and the filter: may be tight. Shoot a test clip"},
		{"cast", measured, nil, Holds, "colour shifts 0.3 stops towards blue; set white balance with the filter on"},
		{"falls off", measured, nil, Holds, "filter lost: 5.2 stops over; 1/8000 at base ISO still covers it"},
		{"cannot be saved", measured, func(q *Question) { q.Fastest = 1.0 / 200 }, Holds, "filter lost: 5.2 stops over; even 1/200 at base ISO is too slow"},
		{"not known", measured, func(q *Question) { q.Fastest = 0 }, Holds, "filter lost: 5.2 stops over; this camera's fastest shutter is not known"},
		{"ISO", Filter{ID: "i", Kind: ND, Stops: 6.2}, nil, Holds, "ISO 200 makes up 1.0 stops; more noise, shutter stays 1/50"},
		{"more ISO than is free", Filter{ID: "i", Kind: ND, Stops: 6.4}, nil, Tight, "ISO 250 makes up 1.2 stops; more noise, shutter stays 1/50"},
		{"shutter", Filter{ID: "s", Kind: ND, Stops: 4.2}, nil, Tight, "needs 1/100 (90°): 1.0 stops less blur than the target"},
		{"look lost", Filter{ID: "s", Kind: ND, Stops: 3}, nil, Breaks, "cuts 3.0 stops (marked), 5.2 needed: 2.2 over, 1.9 beyond tolerance (third of a stop over)"},
		{"dark", Filter{ID: "d", Kind: ND, Stops: 11}, nil, Breaks, "1.8 stops under at highest ISO 1600"},
	}
	for _, test := range tests {
		asked := *q
		if test.change != nil {
			test.change(&asked)
		}
		stacks := mustStack(t, []Filter{test.filter}, Rules{Required: []string{test.filter.ID}})
		o := Weigh(&asked, &stacks[0])
		if got := o.Reasons(&asked); !slices.Contains(got, test.want) {
			t.Errorf("%s: no reason %q in\n%s", test.name, test.want, strings.Join(got, "\n"))
		}
		if got := o.State(&asked); got != test.state {
			t.Errorf("%s: %v, want %v", test.name, got, test.state)
		}
	}
}

func BenchmarkSolve(b *testing.B) {
	kit := caseOf14()
	q := noon(14.3)
	b.Run("core", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			stacks, err := Stacks(kit, Rules{})
			if err != nil {
				b.Fatal(err)
			}
			Choose(q, stacks)
		}
	})
	b.Run("core with reasons", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			stacks, _ := Stacks(kit, Rules{})
			for _, o := range Choose(q, stacks) {
				o.Reasons(q)
			}
		}
	})
	b.Run("baseline nested loops", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			naive(q, kit)
		}
	})
}
