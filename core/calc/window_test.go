package calc

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"pinhole/core/shot"
	"slices"
	"strings"
	"testing"

	"pinhole/core/glass"
)

// trailer is the demo's crate trailer: 50 fps at 180° on a rough lane, stabilised
// in the camera.
const trailer = `{"camera":{"aperture":2.8,"isoBase":100,"isoCeiling":1600,"steps":[0.04,0.02,0.01,0.008,0.005,0.004,0.0025,0.002,0.001,0.000125]},
	"fps":50,"angleDeg":180,"light":{"ev100":13.9},"rates":[25,50,100],
	"kit":[{"id":"nd8","stops":3,"kind":"nd"},{"id":"nd16","stops":4,"kind":"nd"}],
	"stabiliser":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","kind":"electronic","shakeDegS":55},
	"blur":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","speedMps":1,"distanceM":2}}`

func window(t testing.TB, body string) *WindowAnswer {
	t.Helper()
	return run(t, "window", body).(*WindowAnswer)
}

// Checked by hand: f_px = 3840/(118·π/180) = 1864.6; the floor is 0.002·3840 /
// (1864.6·55·π/180) = 0.00429 s, 1/233; the look is 1/100, held to 1/126: they are
// log2(0.01·2^(−1/3)/0.00429) = 0.887 stops apart, and 0.887 − 1/3 − 2/3 < 0 where
// both are strained.
func TestWindowFindsThePairThatExcludesEachOther(t *testing.T) {
	a := window(t, trailer)
	if len(a.Conflicts) == 0 {
		t.Fatal("no conflict between 180° and the stabiliser")
	}
	c := a.Conflicts[0]
	if c.A != shot.Look || c.B != shot.Stabiliser || c.Verdict != glass.Tight || math.Abs(float64(c.HoldsStops)-0.887) > 0.002 || c.BreaksStops != 0 {
		t.Errorf("the conflict is %+v", c)
	}
	if a.Verdict.ShutterS != 0.01 || a.Verdict.State != glass.Breaks || a.Verdict.Gives == nil || *a.Verdict.Gives != "stabiliser limit breaks by 1.2 stops" {
		t.Errorf("the verdict is %+v, %v", a.Verdict, *a.Verdict.Gives)
	}
	if !slices.Contains(a.Verdict.Because, c.Text) || !slices.Equal(a.Verdict.Filters, []string{"nd16"}) {
		t.Errorf("%v because %q", a.Verdict.Filters, a.Verdict.Because)
	}
	var kinds []shot.TradeKind
	for _, trade := range a.Trades {
		kinds = append(kinds, trade.Kind)
	}
	for _, want := range []shot.TradeKind{shot.AnotherLook, shot.FrameRate, shot.Stand} {
		if !slices.Contains(kinds, want) {
			t.Errorf("no trade of kind %s in %v", want, kinds)
		}
	}
}

func TestWindowSchools(t *testing.T) {
	with := func(school string) *WindowAnswer {
		return window(t, strings.Replace(trailer, `"fps":50`, `"school":"`+school+`","fps":50`, 1))
	}
	// The slowest step that the floor of 1/233 holds is 1/250.
	if a := with("stabiliser-first"); a.Verdict.ShutterS != 0.004 || a.Verdict.Gives == nil || !strings.HasPrefix(*a.Verdict.Gives, "shutter target") {
		t.Errorf("stabiliser first: %+v", a.Verdict)
	}
	if a := with("free"); len(a.Conflicts) != 0 || a.Verdict.State != glass.Holds || a.Verdict.Gives != nil || a.Verdict.ShutterS > 0.004 {
		t.Errorf("free: %+v, conflicts %+v", a.Verdict, a.Conflicts)
	}
	if a := with("fixed"); a.Verdict.ShutterS != 0.01 {
		t.Errorf("a fixed time: %+v", a.Verdict)
	}
}

// Bands cover the window without gap, and each says what its demand says.
func TestWindowBandsCoverTheScale(t *testing.T) {
	a := window(t, trailer)
	ends := map[string]float64{}
	for _, b := range a.Bands {
		key := fmt.Sprint(b.Kind, b.Filters)
		from, isLater := ends[key]
		if !isLater {
			from = float64(a.FromS)
		}
		if float64(b.FromS) != from || b.ToS <= b.FromS {
			t.Errorf("%s: a band from %v to %v after one that ends at %v", key, b.FromS, b.ToS, from)
		}
		ends[key] = float64(b.ToS)
	}
	for key, to := range ends {
		if to != float64(a.ToS) {
			t.Errorf("%s ends at %v, the window at %v", key, to, a.ToS)
		}
	}
	for _, kind := range []shot.Kind{shot.Look, shot.Stabiliser, shot.Exposure, shot.Readable} {
		if !slices.ContainsFunc(a.Bands, func(b WindowBand) bool { return b.Kind == kind }) {
			t.Errorf("no band of %s", kind)
		}
	}
}

// merged applies a JSON merge patch (RFC 7396).
func merged(target, patch any) any {
	fields, ok := patch.(map[string]any)
	if !ok {
		return patch
	}
	object, _ := target.(map[string]any)
	out := map[string]any{}
	for k, v := range object {
		out[k] = v
	}
	for k, v := range fields {
		if v == nil {
			delete(out, k)
		} else {
			out[k] = merged(out[k], v)
		}
	}
	return out
}

func randomWindow(r *rand.Rand) map[string]any {
	pick := func(options ...any) any { return options[r.IntN(len(options))] }
	lens := map[string]any{"widthPx": 3840, "hfovDeg": 60 + 55*r.Float64(), "projection": pick("rectilinear", "equidistant")}
	with := func(fields map[string]any) any { return merged(lens, fields) }
	w := map[string]any{
		"camera": map[string]any{"aperture": 2.8, "isoBase": 100, "isoCeiling": pick(100, 400, 1600)},
		"fps":    pick(24, 25, 30, 50, 60), "light": map[string]any{"ev100": 2 + 14*r.Float64()},
		"kit":    []any{map[string]any{"id": "a", "stops": 3, "kind": "nd"}, map[string]any{"id": "b", "stops": 5, "kind": "nd", "takesLayer": false}},
		"school": pick("angle", "fixed", "stabiliser-first"),
	}
	if r.IntN(3) > 0 {
		w["angleDeg"] = pick(45, 90, 180, 270, 360)
	} else {
		w["shutterS"] = 1 / (60 + 400*r.Float64())
	}
	if r.IntN(2) == 0 {
		w["camera"].(map[string]any)["steps"] = []any{0.04, 1. / 30, 0.02, 1. / 60, 0.01, 0.005, 0.0025, 0.00125, 0.0005, 0.000125}
	}
	if r.IntN(2) == 0 {
		w["rates"] = []any{24, 30, 60, 120}
	}
	if r.IntN(4) > 0 {
		w["stabiliser"] = with(map[string]any{"kind": pick("electronic", "gimbal+electronic", "post", "none"), "shakeDegS": 150 * r.Float64()})
	}
	if r.IntN(2) == 0 {
		w["blur"] = with(map[string]any{"speedMps": 20 * r.Float64(), "distanceM": 1 + 5*r.Float64(), "turnDegS": 80 * r.Float64()})
	}
	if r.IntN(3) == 0 {
		w["vibration"] = with(map[string]any{"rpm": 6000 + 20000*r.Float64(), "amplitudeDeg": 0.3 * r.Float64(), "readoutS": 0.012})
	}
	if r.IntN(3) == 0 {
		w["lamps"] = map[string]any{"mainsHz": pick(50, 60)}
	}
	w["viewsDeg"] = []float64{60, 90, 120, 150}
	if r.IntN(4) == 0 {
		w["light"] = map[string]any{"lowEv100": 8, "highEv100": 8 + 5*r.Float64()}
	}
	return w
}

// Each trade does what it claims: applied to the request and asked again, the
// whole shot has the state and what still misses that it claims.
func TestTradesDoWhatTheyClaim(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	const within = 1e-6 // stops; a change goes through JSON and is measured afresh
	tried := map[shot.TradeKind]int{}
	for range 1500 {
		request := randomWindow(r)
		before := window(t, marshal(t, request))
		for _, trade := range before.Trades {
			tried[trade.Kind]++
			var change any
			if err := json.Unmarshal([]byte(marshal(t, trade.Change)), &change); err != nil {
				t.Fatal(err)
			}
			after := window(t, marshal(t, merged(request, change)))
			was, left := sizeOf(before, trade), sizeOf(after, trade)
			if after.Verdict.State != trade.State || trade.Serves != (trade.State != glass.Breaks) {
				t.Fatalf("%s claims %s, serves %t; asked again the whole shot %s\nrequest %s", trade.Does, trade.State, trade.Serves, after.Verdict.State, marshal(t, request))
			}
			if math.Abs(left-float64(trade.LeavesStops)) > within || math.Abs(was-left-float64(trade.GainStops)) > within || trade.GainStops <= 0 {
				t.Fatalf("%s against %s and %s: claims %v and to leave %v, asked again it was %v and is %v\nrequest %s\nchange %s", trade.Kind, trade.A, trade.B,
					trade.GainStops, trade.LeavesStops, was, left, marshal(t, request), marshal(t, trade.Change))
			}
		}
	}
	for _, kind := range []shot.TradeKind{shot.AnotherLook, shot.FrameRate, shot.Stand, shot.WiderLens, shot.RaiseISO, shot.MoreGlass} {
		if tried[kind] < 5 {
			t.Errorf("a trade of kind %s was tried %d times", kind, tried[kind])
		}
	}
}

// sizeOf returns by how much the worst demand misses in a trade's measure, by hand: 0.05
// at least for one that does not hold.
func sizeOf(a *WindowAnswer, trade WindowTrade) float64 {
	size := 0.0
	for _, s := range a.Verdict.Strains {
		if trade.Measure == glass.Tight || s.State == glass.Breaks {
			size = max(size, float64(s.Stops), 0.05)
		}
	}
	return size
}

func marshal(t testing.TB, v any) string {
	t.Helper()
	text, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(text)
}

func TestWindowRefusesWhatContradictsItself(t *testing.T) {
	tests := []struct{ from, to, field string }{
		{`"kind":"electronic"`, `"kind":"elastic"`, "stabiliser.kind"},
		{`"blur":{"widthPx":3840,"hfovDeg":118`, `"blur":{"widthPx":3840,"hfovDeg":90`, "blur.hfovDeg"},
		{`"speedMps":1,"distanceM":2`, `"speedMps":1`, "blur.distanceM"},
		{`"angleDeg":180`, `"angleDeg":400`, "angleDeg"},
		{`"rates":[25,50,100]`, `"lamps":{}`, "lamps.mainsHz"},
		{`"rates":[25,50,100]`, `"vibration":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","hz":5,"rpm":5,"amplitudeDeg":1,"readoutS":0.01}`, "vibration.hz"},
	}
	for _, test := range tests {
		op, _ := Named("window")
		_, err := op.Run([]byte(strings.Replace(trailer, test.from, test.to, 1)))
		if doc := documentOf(err); doc == nil || len(doc.Errors) == 0 || doc.Errors[0].Field != test.field {
			t.Errorf("with %s: %v, want a fault of %s", test.to, err, test.field)
		}
	}
}

func BenchmarkWindow(b *testing.B) {
	var kit []string
	for i := range 14 {
		kit = append(kit, fmt.Sprintf(`{"id":"f%d","stops":%d,"kind":"nd"}`, i, 1+i%10))
	}
	body := strings.Replace(trailer, `"kit":[{"id":"nd8","stops":3,"kind":"nd"},{"id":"nd16","stops":4,"kind":"nd"}]`, `"kit":[`+strings.Join(kit, ",")+`]`, 1)
	body = strings.Replace(body, `"rates"`, `"lamps":{"mainsHz":50},"vibration":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","rpm":9000,"amplitudeDeg":0.05,"readoutS":0.012},"rates"`, 1)
	var request WindowRequest
	if err := json.Unmarshal([]byte(body), &request); err != nil {
		b.Fatal(err)
	}
	b.Run("window", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := ShutterWindow(request); err != nil {
				b.Fatal(err)
			}
		}
	})
	// The baseline: choosing among the same stacks, which a window contains.
	b.Run("baseline-choose", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			_, bench, err := request.scene()
			if err != nil {
				b.Fatal(err)
			}
			glass.Choose(&bench.Question, bench.Stacks)
		}
	})
}
