package calc

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/light"
	"pinhole/core/line"
	"pinhole/core/stop"
)

// asked answers a line, and then the line that it is written as, which must be answered the
// same.
func asked(t *testing.T, text string, cameras ...AskCamera) *AskAnswer {
	t.Helper()
	a, err := Ask(AskRequest{Line: text, Cameras: cameras})
	if err != nil {
		t.Fatalf("%q: %v", text, err)
	}
	again, err := Ask(AskRequest{Line: a.Line, Cameras: cameras})
	if err != nil {
		t.Fatalf("%q: %v", a.Line, err)
	}
	if again.Line != a.Line || len(again.Unread) > 0 || asJSON(t, again.AskGlass) != asJSON(t, a.AskGlass) || again.State != a.State || again.Words != a.Words ||
		asJSON(t, []any{again.EV100, again.LowEV100, again.HighEV100, again.NeedStops, again.ShutterS, again.ISO}) != asJSON(t, []any{a.EV100, a.LowEV100, a.HighEV100, a.NeedStops, a.ShutterS, a.ISO}) {
		t.Errorf("%q is answered %q; its canonical %q is answered %q", text, a.Words, a.Line, again.Words)
	}
	return a
}

func asJSON(t *testing.T, v any) string {
	t.Helper()
	text, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(text)
}

// Lines in the forms that people write, worked out by hand: EV is log2(N²/t) − log2(ISO/100),
// the need is the light's less the setting's.
func TestLinesAreAnswered(t *testing.T) {
	setting := func(n, t, iso float64) float64 { return math.Log2(n*n/t) - math.Log2(iso/100) }
	for _, test := range []struct {
		line    string
		need    float64
		filters string
		left    float64
		state   string
	}{
		{"f2.8 1/1600 iso100 > 30", setting(2.8, 1.0/1600, 100) - setting(2.8, 1.0/60, 100), "ND32", -0.26, "holds"},
		{"f2.8 1/1600 iso100 > 30 · 4 8 16 32", 4.74, "ND32", -0.26, "holds"},
		{"f2,8 1/1600 > 29.97 180° · 4 8 16", math.Log2(1600 / (2 * 30000.0 / 1001)), "ND4 + ND8", -0.26, "holds"},
		{"1/240 behind ND8 > 30fps", math.Log2(240.0/60) + 3, "ND32", 0, "holds"},
		{"auto 1/2000 > 30", math.Log2(2000.0 / 60), "ND32", 0.06, "holds"},
		{"f4 · EV 15 > 25", 15 - setting(4, 1.0/50, 100), "ND32", 0, "tight"},
		{"f2.8 · 90000 lux > 25 fps", math.Log2(90000/2.5) - setting(2.8, 1.0/50, 100), "ND128", -0.47, "holds"},
		{"f2.8 · bias +1 behind ND8 > 50", 4, "ND16", 0, "holds"},
		{"f2.8 · EV 5 > 25", 5 - setting(2.8, 1.0/50, 100), "", 0, "tight"},
	} {
		a := asked(t, test.line)
		if a.NeedStops == nil {
			t.Errorf("%q: %s", test.line, a.Words)
			continue
		}
		if got := strings.Join(a.Filters, " + "); math.Abs(float64(*a.NeedStops)-test.need) > 0.01 || got != test.filters || math.Abs(float64(*a.LeftStops)-test.left) > 0.01 || a.State != test.state {
			t.Errorf("%q needs %.2f, %q leaves %.2f, %s; not %.2f, %q, %.2f, %s", test.line, float64(*a.NeedStops), got, float64(*a.LeftStops), a.State, test.need, test.filters, test.left, test.state)
		}
	}
}

// A line is judged as the same shot is: by a second way, the shot put together by hand.
func TestALineIsJudgedAsItsShot(t *testing.T) {
	a := asked(t, "f2 iso50-800 · EV 13.7 > 25 fps 180° · ND8 ND16 ND32")
	kit := []assemble.KitFilter{{ID: "ND8", Kind: "nd", Stops: 3}, {ID: "ND16", Kind: "nd", Stops: 4}, {ID: "ND32", Kind: "nd", Stops: 5}}
	want, err := AnswerShot(assemble.ShotRequest{Camera: assemble.Camera{Aperture: 2, ISOBase: 50, ISOCeiling: 800}, Kit: kit,
		Look: assemble.ShotLook{FPS: "25", Target: "180°"}, Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 13.7"}}})
	if err != nil {
		t.Fatal(err)
	}
	if !slices.Equal(a.Filters, want.Chosen.Filters) || *a.ErrorStops != want.Chosen.ErrorStops || a.State != string(want.State) || *a.ISO != want.Chosen.ISO {
		t.Errorf("the line comes to %v, %s; the shot to %v, %s", a.Filters, a.State, want.Chosen.Filters, want.State)
	}
}

// With no glass at hand the strength that is nearest is named, with those beside it.
func TestTheNearestStrengthThatIsMade(t *testing.T) {
	for ev := -2.0; ev < 20; ev += 0.37 {
		a := asked(t, "f2.8 · EV "+strings.TrimSuffix(asJSONNumber(ev), ".00")+" > 25")
		for _, other := range a.Alternatives {
			if other.ErrorStops.Abs() < a.ErrorStops.Abs()-1e-9 {
				t.Errorf("EV %.2f: %v leaves %.2f, and %v only %.2f", ev, a.Filters, float64(*a.ErrorStops), other.Filters, float64(*other.ErrorStops))
			}
		}
		if a.IsAtHand || len(a.Alternatives) == 0 || len(a.Filters) > 1 {
			t.Errorf("EV %.2f: %+v", ev, a)
		}
	}
}

func asJSONNumber(v float64) string { return string(must(json.Marshal(math.Round(v*100) / 100))) }

func must(text []byte, err error) []byte {
	if err != nil {
		panic(err)
	}
	return text
}

// Light by eye is answered with its spread, and with what to have along for it.
func TestTheSkyIsAnsweredWithPocketGlass(t *testing.T) {
	a := asked(t, "clouds with gaps > 25 · 4 8 16 32 64 128")
	if *a.SpreadStops < 1 || a.IfBrighter == nil || a.IfDarker == nil || slices.Equal(a.IfBrighter.Filters, a.IfDarker.Filters) {
		t.Errorf("±%.1f: %v, brighter %+v, darker %+v", float64(*a.SpreadStops), a.Filters, a.IfBrighter, a.IfDarker)
	}
	if sure := asked(t, "EV 14 > 25 · 4 8 16 32 64"); sure.IfBrighter != nil || sure.IfDarker != nil {
		t.Errorf("a meter's reading needs pocket glass: %+v", sure)
	}
}

// What is known of cameras is used, and shown as assumed; what is said goes before it.
func TestAKnownCameraIsAssumedOrNamed(t *testing.T) {
	held := func(f float64, kit ...assemble.KitFilter) assemble.Held {
		return assemble.Held{CameraID: "c", Optics: assemble.Camera{Aperture: 2, ISOBase: 100, ISOCeiling: 800}, Kit: kit, Rates: []string{"50"}}
	}
	walker := AskCamera{Name: "Row walker", Held: held(2, assemble.KitFilter{ID: "x", Kind: "nd", Stops: 4}), Titles: map[string]string{"x": "my ND16"}, Last: &assemble.Asked{Look: assemble.ShotLook{FPS: "50", Target: "90°"}}}
	trailer := AskCamera{Name: "Crate trailer", Held: held(2.8)}
	a := asked(t, "EV 16", walker, trailer)
	if a.Camera != "Row walker" || !slices.Equal(a.Filters, []string{"my ND16"}) || math.Abs(float64(*a.ShutterS)-1.0/200) > 1e-9 {
		t.Errorf("%+v", a)
	}
	for _, p := range a.Parts {
		if said := p.Text == "EV 16"; said == p.Assumed {
			t.Errorf("%+v", p)
		}
	}
	if b := asked(t, "crate trailer EV 16 > 25", walker, trailer); b.Camera != "Crate trailer" || b.IsAtHand {
		t.Errorf("%+v", b)
	}
	if b := asked(t, "EV 16 > 50 · with CPL", walker); !slices.Equal(b.Filters, []string{"CPL", "my ND16"}) && !slices.Equal(b.Filters, []string{"my ND16", "CPL"}) {
		t.Errorf("with a polariser asked for: %v", b.Filters)
	}
	if c := asked(t, "drone EV 16 > 25 · 8", walker, trailer); c.Camera != "" || !slices.Equal(c.Filters, []string{"ND8"}) {
		t.Errorf("%+v", c)
	}
}

// drone has two filters that are labelled alike, and one that a line has no word for.
func drone(last *assemble.Asked) AskCamera {
	measured := func(is stop.Stops) *stop.Stops { return &is }
	return AskCamera{Name: "Pond drone", Last: last, Titles: map[string]string{"a": "ND4", "b": "ND16", "c": "ND64", "d": "ND16", "v": "VND 2-5 stop", "o": "the odd one", "m": "mist 1/4", "p": "CPL"}, Held: assemble.Held{
		CameraID: "c", Optics: assemble.Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 800}, Kit: []assemble.KitFilter{
			{ID: "a", Kind: "nd", Stops: 2, MeasuredStops: measured(2.02)}, {ID: "b", Kind: "nd", Stops: 4, MeasuredStops: measured(4.1)}, {ID: "c", Kind: "nd", Stops: 6, MeasuredStops: measured(5.83)}, {ID: "d", Kind: "nd", Stops: 4},
			{ID: "v", Kind: "variable", Stops: 2, MinStops: measured(2), MaxStops: measured(5)}, {ID: "o", Kind: "nd", Stops: 3}, {ID: "m", Kind: "mist", Stops: 0.2}, {ID: "p", Kind: "polariser", Stops: 1.5},
		}}}
}

// A line that names filters is answered with its camera's own of them, and so is the shot that
// is made of it: as it would be with nothing else in the kit.
func TestALineChoosesFromTheGlassItNames(t *testing.T) {
	r := rand.New(rand.NewPCG(20, 2))
	rings := map[string]string{"4": "a", "ND16": "b", "64": "c", "VND 2-5": "v", "od 0.9": "o", "mist 1/4": "m", "CPL": "p"}
	labels := slices.Sorted(maps.Keys(rings))
	for n := range 200 {
		r.Shuffle(len(labels), func(i, j int) { labels[i], labels[j] = labels[j], labels[i] })
		named := labels[:1+r.IntN(4)]
		camera := drone(nil)
		text := fmt.Sprintf("EV %.1f > 25 fps · %s", 6+10*r.Float64(), strings.Join(named, " "))
		a, err := Ask(AskRequest{Line: text, Cameras: []AskCamera{camera}, Whole: true})
		if err != nil || len(a.Unread) > 0 || a.Shot == nil || a.Missing != nil {
			t.Fatalf("%q: %v, %+v", text, err, a)
		}
		alone := *a.Request
		alone.AtHand, alone.Kit = nil, slices.DeleteFunc(slices.Clone(camera.Held.Kit), func(k assemble.KitFilter) bool {
			return !slices.ContainsFunc(named, func(label string) bool { return rings[label] == k.ID })
		})
		want, err := AnswerShot(alone)
		if err != nil || asJSON(t, want.Solve) != asJSON(t, a.Shot.Solve) || asJSON(t, want.Effects) != asJSON(t, a.Shot.Effects) || want.State != a.Shot.State {
			t.Fatalf("%d: %q comes to %v %s; with nothing else in the kit to %v %s, %v", n, text, a.Shot.Chosen.Filters, a.State, want.Chosen.Filters, want.State, err)
		}
		// Its line says so, and written anew it is the same shot.
		is := assemble.Asked{Look: a.Request.Look, Scene: a.Request.Scene, Choices: a.Request.Choices}
		said, err := Say(SayRequest{Camera: camera.Name, Titles: camera.Titles, Asked: is, Light: a.Request.Light})
		if err != nil {
			t.Fatal(err)
		}
		again, err := Ask(AskRequest{Line: said.Line, Cameras: []AskCamera{drone(&is)}, Whole: true, Anew: true})
		if err != nil || asJSON(t, again.Request) != asJSON(t, a.Request) {
			t.Fatalf("%q is written %q, which is %s\nnot %s, %v", text, said.Line, asJSON(t, again.Request), asJSON(t, a.Request), err)
		}
	}
}

// What a line names and its camera does not have counts as at hand, but in the line of a stored
// shot, which can only choose from what is there.
func TestGlassThatIsNotThere(t *testing.T) {
	chosenFrom := func(a *AskAnswer) []string {
		if a.Request.AtHand == nil {
			return nil
		}
		return *a.Request.AtHand
	}
	twin := assemble.Asked{Choices: assemble.Choices{AtHand: &[]string{"d"}}}
	odd := assemble.Asked{Choices: assemble.Choices{AtHand: &[]string{"a", "o"}}}
	for _, test := range []struct {
		line    string
		last    *assemble.Asked
		isAnew  bool
		atHand  []string
		missing []string
	}{
		{"8 16", nil, false, []string{"o", "b"}, nil},
		{"32 16 32", nil, false, []string{"ND32", "b"}, []string{"ND32"}},
		{"32 16", nil, true, []string{"b"}, []string{"ND32"}},
		{"32", nil, true, nil, []string{"ND32"}},
		{"with ND32", nil, true, nil, []string{"ND32"}},
		{"16 16 16", nil, false, []string{"b", "d"}, nil},
		{"mist 1/8 mist filter", nil, false, []string{"mist 1/8", "m"}, []string{"mist 1/8"}},
		{"16", &twin, true, []string{"d"}, nil}, // the one that the shot chose from
		{"", &twin, true, nil, nil},
		{"", &odd, true, []string{"a", "o"}, nil}, // what a line cannot say stays
		{"", &twin, false, nil, nil},              // another day
		{"no filter", &twin, true, []string{}, nil},
	} {
		a, err := Ask(AskRequest{Line: "EV 14 > 25 fps · " + test.line, Cameras: []AskCamera{drone(test.last)}, Whole: true, Anew: test.isAnew})
		if err != nil || asJSON(t, chosenFrom(a)) != asJSON(t, test.atHand) || !slices.Equal(a.Missing, test.missing) || len(a.Request.Required) > 0 {
			t.Errorf("%q, anew %t, is %v without %v, %v; not %v without %v", test.line, test.isAnew, chosenFrom(a), a.Missing, err, test.atHand, test.missing)
		}
		if a.State == unknownState {
			t.Errorf("%q: %s", test.line, a.Words)
		}
	}
}

// A line says that no filter is at hand: of a camera that is known, and of one that is not, the
// shot is what the bare lens makes of it, and its line says so again.
func TestALineSaysThatNoFilterIsThere(t *testing.T) {
	for _, text := range []string{"EV 14 > 25 fps · no filters", "f2 iso100-800 · EV 14 > 25 fps · without ND", "drone · EV 4 > 25 fps · no glass"} {
		for _, cameras := range [][]AskCamera{nil, {drone(nil)}} {
			a := asked(t, text, cameras...)
			if len(a.Filters) > 0 || len(a.Alternatives) > 0 || !strings.HasPrefix(a.Words, "No filter, ") {
				t.Errorf("%q on %d cameras: %s, and %+v", text, len(cameras), a.Words, a.Alternatives)
			}
		}
	}
	is := assemble.Asked{Look: assemble.ShotLook{FPS: "25", Target: "180°"}, Choices: assemble.Choices{AtHand: &[]string{}}}
	if said, err := Say(SayRequest{Asked: is, Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 14"}}}); err != nil || said.Line != "EV 14 > 25 fps 180° · no filter" {
		t.Errorf("without filters at hand it is written %q, %v", said.Line, err)
	}
}

// A time of the last shot that outlasts a frame of this one is no wish for it; one that is said and
// outlasts a frame of the last is a still's.
func TestALineTakesNoTimeThatOutlastsItsFrame(t *testing.T) {
	still, film := assemble.ShotLook{FPS: "still", Target: "2s"}, assemble.ShotLook{FPS: "25", Target: "1/50"}
	for _, test := range []struct {
		last       assemble.ShotLook
		line, want string
	}{
		{still, "EV 12 > 30 fps", "30 fps 180°"},
		{still, "EV 12", "still 2s"},
		{film, "EV 12 > 240 fps", "240 fps 180°"},
		{film, "EV 12 > 30 fps", "30 fps 1/50"},
		{film, "EV 12 > 1s", "1s still"},
	} {
		a := asked(t, test.line, drone(&assemble.Asked{Look: test.last}))
		var look []string
		for _, p := range a.Parts {
			if p.Kind == line.Look {
				look = append(look, p.Text)
			}
		}
		if got := strings.Join(look, " "); got != test.want || a.State == unknownState {
			t.Errorf("%q after %v asks for %s, not %s: %s", test.line, test.last, got, test.want, a.Words)
		}
	}
}

// What a meter says stands in the line of its shot, however it was typed.
func TestALineSaysWhatAMeterSaid(t *testing.T) {
	is := assemble.Asked{Look: assemble.ShotLook{FPS: "25", Target: "180°"}}
	for typed, want := range map[string]string{
		"14,3": "EV 14.3", "LV 12": "EV 12", "2.8 1/1600 100": "f2.8 1/1600 iso100", "f 2.8 @ 1/1600, ISO 100": "f2.8 1/1600 iso100", "90 000 lux": "90000 lux",
	} {
		said, err := Say(SayRequest{Asked: is, Light: assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: typed}}})
		if err != nil || said.Line != want+" > 25 fps 180°" {
			t.Errorf("%q is written %+v, %v", typed, said, err)
		}
	}
}

// Light that was read through a camera's own filter is read by what that measures, in a line as in a
// form; the line of such a shot, written anew, is the same shot.
func TestALineReadsThroughItsCamerasGlass(t *testing.T) {
	for text, want := range map[string]stop.Stops{
		"1/240 iso100 behind ND16": 4.1, "1/240 iso100 behind 4": 2.02, "1/240 iso100 behind ND4 behind ND64": 2.02 + 5.83, "1/240 iso100 behind ND128": 7, "1/240 iso100 behind ND4 behind ND128": 2 + 7,
		"1/1000 iso100 behind ND4 to 1/60 iso100 behind ND4": 2.02,
	} {
		a, err := Ask(AskRequest{Line: text + " > 25 fps · 64 128", Cameras: []AskCamera{drone(nil)}, Whole: true})
		if err != nil || a.Shot == nil {
			t.Fatalf("%q: %v, %+v", text, err, a)
		}
		set := 1.0 / 240
		if strings.Contains(text, "to 1/60") {
			set = 1.0 / 1000
		}
		if ev := math.Log2(2.8*2.8/set) + float64(want); math.Abs(float64(a.Shot.Reading.EV100)-ev) > 1e-9 {
			t.Errorf("%q is EV %v, not %.3f", text, a.Shot.Reading.EV100, ev)
		}
		is := assemble.Asked{Look: a.Request.Look, Scene: a.Request.Scene, Choices: a.Request.Choices}
		said, err := Say(SayRequest{Camera: "Pond drone", Titles: drone(nil).Titles, Asked: is, Light: a.Request.Light})
		if err != nil {
			t.Fatal(err)
		}
		again, err := Ask(AskRequest{Line: said.Line, Cameras: []AskCamera{drone(&is)}, Whole: true, Anew: true})
		if err != nil || again.Shot == nil || again.Shot.Reading.EV100 != a.Shot.Reading.EV100 || asJSON(t, again.Request.Light) != asJSON(t, a.Request.Light) {
			t.Errorf("%q is written %q, which is read as %s, not %s", text, said.Line, asJSON(t, again.Request.Light), asJSON(t, a.Request.Light))
		}
	}
}

// What is not at hand and would help is brought before any is bought, and does what is said.
func TestGlassThatIsAwayIsBrought(t *testing.T) {
	brought := 0
	for ev := 8.0; ev <= 16; ev += 0.5 {
		for _, atHand := range [][]string{{}, {"a"}, {"c", "m"}} {
			camera := drone(nil).Held
			r := *camera.Shot(assemble.Asked{Look: assemble.ShotLook{FPS: "25", Target: "180°"}, Choices: assemble.Choices{AtHand: &atHand}})
			r.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: fmt.Sprintf("EV %.1f", ev)}}
			a, err := AnswerShot(r)
			if err != nil {
				t.Fatal(err)
			}
			for _, trade := range a.Window.Trades {
				if trade.Kind == "glass" && strings.HasPrefix(trade.Does, "a filter of 4 stops") {
					t.Errorf("EV %.1f with %v: %s is to be bought, and there are two", ev, atHand, trade.Does)
				}
				choices, isBrought := trade.Change["choices"].(map[string]any)
				if !isBrought {
					continue
				}
				brought++
				with := r
				with.AtHand = choices["atHand"].(*[]string)
				if after, err := AnswerShot(with); err != nil || after.State != trade.State {
					t.Errorf("EV %.1f with %v: with %s it %s, not %s, %v", ev, atHand, trade.Does, after.State, trade.State, err)
				}
			}
		}
	}
	if brought < 10 {
		t.Errorf("glass was brought %d times", brought)
	}
}

// Whatever stands in a line, it is answered in words, and twice the same.
func TestLinesOfAnyPartsAreAnswered(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 1))
	pick := func(from []string) string { return from[r.IntN(len(from))] }
	light := []string{"f2 1/1250 iso50", "EV 14.3", "6400 lux", "auto 1/2000", "1/500 behind ND8", "bias -0.7 behind ND4", "sunny", "overcast, shade", "heavy, snow, low sun", "EV 9 to 12", ""}
	look := []string{"25 fps 180°", "60 on 30", "50 fps 1/100", "still 1/30", "time-lapse every 4 s 180°", "24 slowed to 12", "30 fps sped up 8x", ""}
	rest := []string{"gimbal", "drone f2.8 iso100-400", "helmet", "walking, subject 1.4 m/s at 3 m", "2 layers", "4 8 16 32/PL CPL", "VND 2-5", "with mist 1/4", "aim -0.7", "brighter", "50 Hz lamps", "pan 20°/s", "nonsense", "stabiliser first", "on automatic"}
	for range 300 {
		parts := []string{pick(light)}
		for range r.IntN(4) {
			parts = append(parts, pick(rest))
		}
		if at := pick(look); at != "" {
			parts = append(parts, "> "+at)
		}
		a := asked(t, strings.Join(parts, " · "))
		if a.Words == "" || (a.NeedStops == nil) != (a.State == "unknown") {
			t.Errorf("%v: %+v", parts, a)
		}
	}
}

// What a line has no words for stays when a shot's line is written anew, and is not assumed of
// another shot, where no part could show it.
func TestWhatHasNoWordsStaysWithItsShot(t *testing.T) {
	shake := angle.DegPerS(55)
	last := assemble.Asked{Look: assemble.ShotLook{FPS: "50", Target: "180°"}, Scene: assemble.ShotScene{
		Shake: &shake, Parts: &assemble.PartsFields{SubjectEV100: 12, BrightEV100: 15, DarkEV100: 9, ExposeFor: light.ForSubject}, Motor: &assemble.MotorSwing{RPM: number(9000.0), AmplitudeDeg: 0.1},
	}}
	camera := AskCamera{Name: "Row walker", Held: assemble.Held{CameraID: "c", Optics: assemble.Camera{Aperture: 2, ISOBase: 100, ISOCeiling: 800}}, Last: &last}
	for _, isAnew := range []bool{true, false} {
		a, err := Ask(AskRequest{Line: "Row walker · EV 14 > 25 fps", Cameras: []AskCamera{camera}, Whole: true, Anew: isAnew})
		if err != nil {
			t.Fatal(err)
		}
		scene := a.Request.Scene
		if (scene.Parts != nil) != isAnew || (scene.Motor != nil) != isAnew || (scene.Shake == nil) != isAnew {
			t.Errorf("anew %t: %+v", isAnew, scene)
		}
		if shown := slices.ContainsFunc(a.Parts, func(p line.Part) bool { return p.Text == "shake 55°/s" && p.Assumed }); shown == isAnew {
			t.Errorf("anew %t: the shake is shown %t", isAnew, shown)
		}
	}
}

// A shot that is written as a line is the same shot when it is read.
func TestAShotIsWrittenAsItsLine(t *testing.T) {
	for _, said := range []string{
		"f2 iso100-800 · f2 1/1250 iso50 > 25 fps 180° · walking, subject 5 km/h at 12 ft, turning 20°/s · 50 Hz lamps · ND8 ND16 CPL · with CPL · 2 layers · brighter, image first, aim -0.3",
		"f2 iso100-800 · EV 9 to 12 > 60 fps on 30", "f2 iso100-800 · hazy sun, open shade, snow, low sun > 24 fps slowed to 12 90°", "f2 iso100-800 · auto 1/500 iso200 behind ND8 > 50 fps 1/100 · ND4 · stabiliser first",
		"f2 iso100-800 · bias +0.7 1/100 iso100 behind ND4 > still 1/30 · ND4", "f2 iso100-800 · 6.4 klx > time-lapse every 4 s 180° · ND64", "f2 iso100-800 · 20000 to 90000 lux > 30 fps sped up 8x · aim +0.25, any shutter",
	} {
		a, err := Ask(AskRequest{Line: said, Whole: true})
		if err != nil || a.Request == nil {
			t.Fatalf("%q: %v, %+v", said, err, a)
		}
		r := a.Request
		text := line.Say("", assemble.Asked{Look: r.Look, Scene: r.Scene, Choices: r.Choices}, r.Light, func(id string) string { return id }).String()
		for _, k := range r.Kit {
			if a.IsAtHand {
				text += " · " + k.ID
			}
		}
		again := asked(t, "f2 iso100-800 · "+text)
		if len(again.Unread) > 0 || asJSON(t, again.AskGlass) != asJSON(t, a.AskGlass) || again.Words != a.Words || again.State != a.State {
			t.Errorf("%q is answered %q; written as %q it is %q, not read %+v", said, a.Words, text, again.Words, again.Unread)
		}
		if said, err := Say(SayRequest{Asked: assemble.Asked{Look: r.Look, Scene: r.Scene, Choices: r.Choices}, Light: r.Light}); err != nil || len(said.Parts) == 0 {
			t.Errorf("%q: %v, %+v", text, err, said)
		}
		if left := line.Unsaid(assemble.Asked{Look: r.Look, Scene: r.Scene, Choices: r.Choices}, func(id string) string { return id }); asJSON(t, left) != asJSON(t, assemble.Asked{}) {
			t.Errorf("of %q a line cannot say %s", said, asJSON(t, left))
		}
	}
}

func BenchmarkAsk(b *testing.B) {
	const line = "gimbal f2 iso50-800 · f2 1/1250 iso50 · 25 fps 180° · walking, subject 1.4 m/s at 3 m · 4 8 16 32 CPL"
	whole, err := Ask(AskRequest{Line: line, Whole: true})
	if err != nil {
		b.Fatal(err)
	}
	b.Run("line", func(b *testing.B) {
		for b.Loop() {
			if _, err := Ask(AskRequest{Line: line}); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("shot alone", func(b *testing.B) { // the baseline: the same shot, put together before
		for b.Loop() {
			if _, err := AnswerShot(*whole.Request); err != nil {
				b.Fatal(err)
			}
		}
	})
}
