package card

import (
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// The short list of familiar glass keeps all that stops a take, and three steps more at most.
func TestTheShortListOfFamiliarGlass(t *testing.T) {
	for _, m := range []Mounting{
		{Glass: []string{"ND8"}, Mount: fit.Magnet}, {Glass: []string{"ND8"}, Flies: true, Hold: fit.Tether, Margin: 2}, {Glass: []string{"ND8"}, Flies: true, Hold: fit.DoNotFly, Margin: 1},
		{}, {Glass: []string{"ND8"}, SealedPort: true, Stays: true},
	} {
		whole := m.Checks()
		known := m
		known.Known = true
		short := known.Checks()
		rest := 0
		for _, c := range short {
			if !slices.Contains(whole, c) {
				t.Errorf("%+v: %q is in the short list alone", m, c.Words)
			}
			if !c.Hard {
				rest++
			}
		}
		for _, c := range whole {
			if c.Hard && !slices.Contains(short, c) {
				t.Errorf("%+v: %q is left out of the short list", m, c.Words)
			}
		}
		if rest > 3 || len(short) >= len(whole) {
			t.Errorf("%+v: a short list of %d, with %d that stop nothing, of %d", m, len(short), rest, len(whole))
		}
	}
}

func steps(checks []Check) (all, hard []string) {
	for _, c := range checks {
		all = append(all, c.Step)
		if c.Hard {
			hard = append(hard, c.Step)
		}
	}
	return all, hard
}

func TestOnlyTheStepsThatApply(t *testing.T) {
	for _, c := range []struct {
		name  string
		m     Mounting
		steps string
		hard  string
	}{
		{"a quad with a push-on filter that holds", Mounting{Flies: true, Glass: []string{"ND16"}, Mount: fit.PushOn, Hold: fit.Holds},
			"power wiped seated straight pull balance locked 1/50 clip extremes bias", "power seated pull"},
		{"a magnet on a craft", Mounting{Flies: true, Glass: []string{"ND16"}, Mount: fit.Magnet, Hold: fit.Tether},
			"power wiped seated straight pull tether balance locked 1/50 clip extremes bias", "power seated pull tether"},
		{"a craft's filter that nobody has pulled", Mounting{Flies: true, Glass: []string{"ND16"}, Mount: fit.Snap, Hold: fit.Unknown, Stabiliser: motion.Gimbal},
			"power wiped seated straight pull tether gimbal balance locked 1/50 clip extremes bias", "power seated pull tether gimbal"},
		{"a hold too weak to fly", Mounting{Flies: true, Glass: []string{"ND16"}, Mount: fit.PushOn, Hold: fit.DoNotFly, Margin: 1.2},
			"power wiped seated straight pull hold balance locked 1/50 clip extremes bias", "power seated pull hold"},
		{"a magnet by hand", Mounting{Glass: []string{"ND16"}, Mount: fit.Magnet, Hold: fit.Holds, Stabiliser: motion.Gimbal},
			"power wiped seated straight pull gimbal balance locked 1/50 clip extremes bias", ""},
		{"a bare lens, with glass to come off", Mounting{Off: []string{"ND8"}, CannotFold: true}, "power off wiped balance locked 1/50 clip extremes bias", ""},
		{"glass that stays on", Mounting{Flies: true, Stays: true, Glass: []string{"ND16"}, Hold: fit.Holds, Mount: fit.Snap, CannotFold: true},
			"pull fold balance locked 1/50 clip extremes bias", "pull"},
		{"a port in place of a filter, and a ring to turn", Mounting{Glass: []string{"VND"}, SealedPort: true, Ring: "to 3"},
			"power wiped seated straight ring pull seal balance locked 1/50 clip extremes bias", "seal"},
	} {
		c.m.Setting = "1/50"
		all, hard := steps(c.m.Checks())
		if strings.Join(all, " ") != c.steps || strings.Join(hard, " ") != c.hard {
			t.Errorf("%s:\nsteps %s\n want %s\nhard %s\nwant %s", c.name, strings.Join(all, " "), c.steps, strings.Join(hard, " "), c.hard)
		}
	}
}

func at(minute int) time.Time { return time.Date(2031, 9, 20, 7, minute, 0, 0, time.UTC) }

func TestHardStopsStandUntilTickedOrOverriddenWithAReason(t *testing.T) {
	checks := []Check{{Step: "tether", Words: "Tethered", Hard: true}, {Step: "hold", Words: "Do not fly", Hard: true, Barred: true}, {Step: "clip", Words: "Test clip"}}
	for _, c := range []struct {
		name  string
		marks []Mark
		want  Readiness
		stops int
	}{
		{"nothing done", nil, Stopped, 2},
		{"what is barred is not ticked away", []Mark{{Step: "tether", Kind: Tick}, {Step: "hold", Kind: Tick}}, Stopped, 1},
		{"an override without a reason is none", []Mark{{Step: "tether", Kind: Tick}, {Step: "hold", Kind: Override, Words: " "}}, Stopped, 1},
		{"overridden with a reason", []Mark{{Step: "tether", Kind: Tick}, {Step: "hold", Kind: Override, Words: "taped all round"}}, Open, 0},
		{"all done", []Mark{{Step: "tether", Kind: Tick}, {Step: "hold", Kind: Override, Words: "taped"}, {Step: "clip", Kind: Tick}}, Ready, 0},
		{"taken back", []Mark{{Step: "tether", Kind: Untick, At: at(2)}, {Step: "tether", Kind: Tick, At: at(1)}}, Stopped, 2},
		{"and done again", []Mark{{Step: "tether", Kind: Tick, At: at(3)}, {Step: "tether", Kind: Untick, At: at(2)}, {Step: "tether", Kind: Tick, At: at(1)}}, Stopped, 1},
	} {
		_, got, stops := Judge(checks, c.marks)
		if got != c.want || len(stops) != c.stops {
			t.Errorf("%s: %s with stops %q, want %s with %d", c.name, got, stops, c.want, c.stops)
		}
	}
}

func TestTheFirstOfTwoTicksCounts(t *testing.T) {
	done, _, _ := Judge([]Check{{Step: "clip"}}, []Mark{{Step: "clip", Kind: Tick, At: at(9)}, {Step: "clip", Kind: Tick, At: at(5)}})
	if !done[0].Mark.At.Equal(at(5)) || len(done[0].Again) != 1 || !done[0].Again[0].At.Equal(at(9)) {
		t.Errorf("got %+v", done[0])
	}
}

// Every kind of take there is, more or less.
func takes() []Take {
	var all []Take
	for _, flies := range []bool{false, true} {
		for _, flown := range []motion.Flown{"", motion.Level, motion.Manual} {
			for _, carried := range []motion.Carried{motion.ByHand, motion.Ridden, motion.OnStand} {
				for _, s := range []motion.Stabiliser{"", motion.Electronic, motion.Gimbal, motion.GimbalAndElectronic} {
					for _, left := range []stop.Stops{0, 2} {
						all = append(all, Take{Flies: flies, Flown: flown, Carried: carried, Glass: true, Lost: 4.1, Restores: 1.0 / 8000, Left: left, Stabiliser: s,
							Shutter: 1.0 / 50, Floor: 1.0 / 100, Rate: 25, Low: 10, High: 13, Brighter: "ND64", Darker: "ND4", PulseHz: 100, PayloadG: 2.5, SealedPort: true})
					}
				}
			}
		}
	}
	return append(all, Take{}, Take{Glass: true, Flies: true})
}

func TestTheMarkThatCountsIsFoundByItsPlace(t *testing.T) {
	for _, test := range []struct {
		kinds []MarkKind
		want  int
	}{
		{nil, -1},
		{[]MarkKind{Tick}, 0},
		{[]MarkKind{Tick, Tick}, 0},
		{[]MarkKind{Tick, Untick}, -1},
		{[]MarkKind{Tick, Untick, Tick, Tick}, 2},
		{[]MarkKind{Override}, -1}, // it has no reason
	} {
		var marks []Mark
		for _, k := range test.kinds {
			marks = append(marks, Mark{Kind: k})
		}
		if got := Counting(marks); got != test.want {
			t.Errorf("%v: %d counts, want %d", test.kinds, got, test.want)
		}
	}
}

func TestDrillsAreReadAtAGlance(t *testing.T) {
	for _, take := range takes() {
		for _, d := range take.Drills() {
			if len(d.Lines) == 0 || len(d.Lines) > MostLines {
				t.Errorf("%s has %d lines: %+v", d.Name, len(d.Lines), take)
			}
			for _, line := range d.Lines {
				if len([]rune(line)) > 110 || strings.Contains(line, "%!") || strings.Contains(line, "NaN") {
					t.Errorf("%s: %q", d.Name, line)
				}
			}
		}
	}
}

func drill(t *testing.T, take Take, name string) string {
	t.Helper()
	drills := take.Drills()
	i := slices.IndexFunc(drills, func(d Drill) bool { return d.Name == name })
	if i < 0 {
		t.Fatalf("no drill %s", name)
	}
	return strings.Join(drills[i].Lines, "\n")
}

// First level, then exposure if that can be done, then home: in that order, and for
// an unknown craft as for one that cannot hover.
func TestGlassLostInFlight(t *testing.T) {
	take := Take{Flies: true, Glass: true, Lost: 4.1, Restores: 1.0 / 8000}
	for flown, first := range map[motion.Flown]string{"": "full manual cannot hover", motion.Manual: "full manual cannot hover", motion.Level: "Release the sticks"} {
		take.Flown = flown
		text := drill(t, take, "glass-lost")
		level, expose, home := strings.Index(text, first), strings.Index(text, "4.1 stops over: auto exposure or 1/8000"), strings.Index(text, "land")
		if level < 0 || expose < level || home < expose || !strings.Contains(text, "Local rules") {
			t.Errorf("%q:\n%s", flown, text)
		}
	}
	take.Left = 1.5
	if text := drill(t, take, "glass-lost"); !strings.Contains(text, "set 1/8000, still 1.5 over") {
		t.Errorf("what the fastest shutter cannot save is not said:\n%s", text)
	}
}

func TestLampsSayShuttersThatAreWholePulses(t *testing.T) {
	if text := drill(t, Take{PulseHz: 100, Rate: 25}, "lamps"); !strings.Contains(text, "1/100 or 1/50") {
		t.Errorf("%s", text)
	}
	if text := drill(t, Take{PulseHz: 100, Rate: 240}, "lamps"); !strings.Contains(text, "change the frame rate") {
		t.Errorf("%s", text)
	}
}

// A setting that is right outside at EV 15 behind 5 stops of glass.
func passage(inside stop.EV) Passage {
	set := stop.Setting{Aperture: 2.8, Shutter: 1.0 / 100, ISO: 100}
	return Passage{Outside: set.EV().Plus(5), Inside: inside, Seconds: 6, Setting: set, Glass: 5, Loose: 5, Ceiling: 800, Rate: 50, Band: glass.DefaultBand}
}

func TestWaysThroughThePassage(t *testing.T) {
	outside := passage(0).Outside
	for _, c := range []struct {
		name string
		dark stop.Stops
		take string
		want map[string]stop.Stops // errors inside
	}{
		{"a shadow that the tolerance takes", 0.5, LockThrough, map[string]stop.Stops{LockThrough: -0.5, BandThrough: 0}},
		{"trees that ISO lifts", 3, BandThrough, map[string]stop.Stops{LockThrough: -3, BandThrough: 0, Float: 0}},
		{"a shutter can slow by a stop more", 3.9, Float, map[string]stop.Stops{LockThrough: -3.9, BandThrough: -0.9, Float: 0, TwoTakes: 0}},
		{"a tunnel for two takes", 8, TwoTakes, map[string]stop.Stops{LockThrough: -8, BandThrough: -5, Float: -4, TwoTakes: 0}},
		{"too dark for anything", 14, TwoTakes, map[string]stop.Stops{TwoTakes: -6}},
	} {
		p := passage(outside.Plus(-c.dark))
		ways, i := p.Ways()
		if ways[i].Name != c.take {
			t.Errorf("%s: takes %s, want %s", c.name, ways[i].Name, c.take)
		}
		for _, w := range ways {
			if want, asked := c.want[w.Name]; asked && (w.Inside-want).Abs() > 1e-9 {
				t.Errorf("%s: %s leaves %v, want %v", c.name, w.Name, w.Inside, want)
			}
		}
		if !strings.Contains(p.Cautions()[0], "Never take a filter off") {
			t.Errorf("%s: %q", c.name, p.Cautions())
		}
	}
}

func TestWhatFloatsIsBurntAtTheExit(t *testing.T) {
	p := passage(passage(0).Outside.Plus(-3))
	for _, w := range firstOf(p.Ways()) {
		if want := map[string]stop.Stops{BandThrough: 3, Float: 3}[w.Name]; (w.Exit - want).Abs() > 1e-9 {
			t.Errorf("%s: the exit is %v over, want %v", w.Name, w.Exit, want)
		}
	}
}

func firstOf(ways []Way, _ int) []Way { return ways }

func TestDarkPlacesAreDarkerThanOutside(t *testing.T) {
	for _, outside := range []stop.EV{15, 4, -2} {
		for _, d := range []Dark{UnderTrees, LitTunnel, Underground, Unlit} {
			if inside, _ := d.Light(outside); inside > outside {
				t.Errorf("%s under %v: %v", d, outside, inside)
			}
		}
	}
}
