package calc

import (
	"flag"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/card"
	"pinhole/core/day"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

var manyShots = flag.Int("shots", 600, "how many random shots are compared over all places")

// randomShot draws a shot with everything that can make a demand.
func randomShot(r *rand.Rand) *assemble.ShotRequest {
	pick := func(of ...string) string { return of[r.IntN(len(of))] }
	q := &assemble.ShotRequest{
		Camera: assemble.Camera{Aperture: stop.FNumber(1.7 + 2*r.Float64()), ISOBase: 100, ISOCeiling: []stop.ISO{100, 200, 400, 1600, 6400}[r.IntN(5)]},
		Look:   assemble.ShotLook{FPS: pick("24", "25", "30", "50", "60", "120"), Target: pick("180°", "180°", "90°", "360°", "1/200")},
		Rates:  []string{"24", "25", "30", "50", "60", "120"},
	}
	q.Camera.Mount = []fit.Mount{"", "push-on", "magnet", "snap"}[r.IntN(4)]
	if r.IntN(3) > 0 {
		for _, d := range []float64{24, 25, 30, 50, 60, 80, 100, 120, 160, 200, 250, 320, 500, 1000, 2000, 4000, 8000} {
			q.Camera.Steps = append(q.Camera.Steps, stop.Shutter(1/d))
		}
	}
	for i := range r.IntN(6) {
		q.Kit = append(q.Kit, assemble.KitFilter{ID: fmt.Sprint("f", i), Kind: glass.ND, Stops: stop.Stops(1 + r.IntN(10))})
	}
	if r.IntN(3) == 0 {
		least, most := stop.Stops(1), stop.Stops(6)
		q.Kit = append(q.Kit, assemble.KitFilter{ID: "v", Kind: glass.Variable, MinStops: &least, MaxStops: &most})
	}
	if r.IntN(3) == 0 {
		q.Kit = append(q.Kit, assemble.KitFilter{ID: "h", Kind: glass.NDPolariser, Stops: 6.5})
	}
	if len(q.Kit) > 0 && r.IntN(4) == 0 {
		q.Choices.Mounted = []string{q.Kit[0].ID}
	}
	if len(q.Kit) > 2 && r.IntN(4) == 0 {
		q.Choices.Required = []string{q.Kit[1].ID}
	}
	if len(q.Kit) > 1 && r.IntN(4) == 0 {
		atHand := []string{}
		for i := range q.Kit {
			if r.IntN(2) == 0 {
				atHand = append(atHand, q.Kit[i].ID)
			}
		}
		q.Choices.AtHand = &atHand
	}
	if r.IntN(4) == 0 {
		q.Choices.Priority = glass.ImageFirst
	}
	if r.IntN(4) == 0 {
		q.Choices.OffsetStops = stop.Stops(r.IntN(3)-1) / 3
	}
	if r.IntN(4) == 0 {
		q.Choices.MaxLayers = 1 + r.IntN(3)
	}
	if r.IntN(5) > 0 {
		q.Profile = &assemble.CameraProfile{Lens: &assemble.LensFields{WidthPx: 3840, HFOVDeg: 115, Projection: motion.Equidistant},
			Stabiliser: []motion.Stabiliser{motion.Electronic, motion.Gimbal, motion.NoStabiliser, motion.GimbalAndElectronic}[r.IntN(4)], Flies: r.IntN(4) == 0,
			Automatic: &assemble.AutomaticProfile{Priority: glass.ShutterFirst}}
		q.Scene.Activity = motion.ActivityName(pick("stand", "walk", "brisk", "helmet-smooth", "cruise", ""))
		speed, distance := 5*r.Float64(), 0.5+5*r.Float64()
		q.Scene.Movement = &assemble.MovementFields{SpeedMps: &speed, DistanceM: &distance}
	}
	if r.IntN(4) == 0 {
		mains := 50.0
		q.Scene.Lamps = &assemble.LampFields{MainsHz: &mains}
	}
	q.Scene.School = []shot.School{"", "", "", "stabiliser-first", "free", "automatic"}[r.IntN(6)]
	if q.Scene.School == "automatic" {
		q.Camera.FastestS = 1.0 / 8000
	}
	if len(q.Kit) > 0 && r.IntN(4) == 0 {
		placed := []string{}
		if id := q.Kit[r.IntN(len(q.Kit))].ID; r.IntN(3) > 0 && !slices.Contains(q.Choices.Mounted, id) {
			placed = append(placed, id)
		}
		q.Placed = &placed
	}
	if r.IntN(6) == 0 {
		tried := stop.Stops(1 + r.IntN(9))
		q.Scene.WhatIf = &assemble.WhatIf{GlassStops: &tried}
	}
	high := 3 + float64(r.IntN(140))/10
	q.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: fmt.Sprintf("EV %.1f", high)}}
	if r.IntN(3) == 0 {
		q.Light.Low = &assemble.Entry{Text: fmt.Sprintf("EV %.1f", high-float64(r.IntN(40))/10)}
	}
	return q
}

// A random shot gets one answer: the shot itself, the plan of a day that holds it, its
// card, choosing, a re-metering of the same light and a coverage of it agree on the glass
// and on the state, whatever batteries it lasts.
func TestOneShotOneAnswer(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 26))
	compared := map[glass.State]int{}
	for range *manyShots {
		q := randomShot(r)
		a, err := AnswerShot(*q)
		if err != nil {
			continue // a wish that the camera cannot meet, or glass that does not go together
		}
		compared[a.State]++
		held := assemble.Held{CameraID: "c", Optics: q.Camera, Profile: q.Profile, Rates: q.Rates, Kit: q.Kit}
		read := &assemble.SceneLight{EV100: &a.Reading.EV100, SpreadStops: a.Reading.SpreadStops}
		if a.Low != nil {
			read = &assemble.SceneLight{LowEV100: &a.Low.EV100, HighEV100: &a.Reading.EV100, SpreadStops: a.Reading.SpreadStops}
		}
		asked := assemble.Asked{Look: q.Look, Scene: q.Scene, Choices: q.Choices}
		from := time.Date(2031, 9, 20, 12, 0, 0, 0, time.UTC)
		outing := day.OutingRequest{Sky: "clear", From: from, To: from.Add(time.Hour), StepS: 3600, Held: []assemble.Held{held}, Stacks: []day.OutingStack{},
			Shots: []day.OutingShot{{ID: "s", CameraID: "c", From: from, Minutes: 40, PackMin: float64(10 * r.IntN(3)), Look: &q.Look, Scene: q.Scene, Choices: &q.Choices, Placed: q.Placed, Read: read}}}
		disagree := func(place string, state glass.State, filters []string) {
			if state != a.State || !glass.SameIDs(filters, a.Chosen.Filters) {
				t.Errorf("the shot says %v %s (%v), %s says %v %s\n%s", a.Chosen.Filters, a.State, a.Window.Verdict.Strains, place, filters, state, marshal(t, q))
			}
		}
		drawn := a.Window.Bands[slices.IndexFunc(a.Window.Bands, func(b WindowBand) bool { return b.Kind == shot.Exposure })]
		disagree("the window first", a.State, drawn.Filters)
		plan, err := day.Outing(t.Context(), outing)
		if err != nil {
			t.Fatalf("%v\n%s", err, marshal(t, q))
		}
		for _, pack := range plan.Shots[0].Packs {
			if name := plan.Names[pack.Stack]; name == "" || strings.Contains(name, shot.NewGlass) {
				t.Errorf("the plan calls %s %q", pack.Stack, name)
			}
			disagree("the plan", pack.State, idsIn(pack.Stack))
		}
		field, err := card.Card(t.Context(), card.CardRequest{Now: from, Outing: outing, Shots: []card.CardShot{{ID: "s", Asked: asked}}, Benches: []card.CardBench{{Held: held}}})
		if err != nil {
			t.Fatalf("%v\n%s", err, marshal(t, q))
		}
		for _, turn := range field.Cameras[0].Turns {
			disagree("the card", turn.State, idsIn(turn.Stack))
			if turn.Set.Stops != a.Chosen.Stops {
				t.Errorf("the shot turns its glass to %v stops, the card to %v\n%s", a.Chosen.Stops, turn.Set.Stops, marshal(t, q))
			}
		}
		if a.Low == nil {
			again, err := card.Remeter(card.RemeterRequest{Bench: card.CardBench{Held: held}, Shot: card.CardShot{ID: "s", Asked: asked},
				On: a.Chosen.Filters, Light: q.Light, ShutterS: a.Window.Verdict.ShutterS})
			if err != nil {
				t.Fatalf("%v\n%s", err, marshal(t, q))
			}
			disagree("re-metering", again.Serves, a.Chosen.Filters)
		}
		if q.Scene.School == "" && a.Low == nil && q.Placed == nil && q.Scene.WhatIf == nil {
			cover, err := Coverage(t.Context(), CoverageRequest{Camera: q.Camera, Kit: q.Kit, Looks: []CoverageLook{{FPS: q.Look.FPS, Target: q.Look.Target}}, LowEV100: a.Reading.EV100, HighEV100: a.Reading.EV100 + 1, Columns: 2, Choices: q.Choices})
			if err != nil {
				t.Fatalf("%v\n%s", err, marshal(t, q))
			}
			if cell := cover.Rows[0].Cells[0]; !glass.SameIDs(cell.Filters, a.Chosen.Filters) || cell.State != a.Chosen.State {
				t.Errorf("the shot's exposure says %v %s, coverage %v %s\n%s", a.Chosen.Filters, a.Chosen.State, cell.Filters, cell.State, marshal(t, q))
			}
		}
		if q.Scene.School == "" && q.Placed == nil && q.Scene.WhatIf == nil {
			servedAsAsked(t, q, a)
		}
		if t.Failed() {
			t.FailNow()
		}
	}
	t.Logf("compared %v", compared)
	for _, state := range []glass.State{glass.Holds, glass.Tight, glass.Breaks} {
		if compared[state] < *manyShots/20 {
			t.Errorf("only %d of the shots %s", compared[state], state)
		}
	}
}

// servedAsAsked holds what coverage says of a whole shot against the shot itself: one that does
// not break is served, and what is said to serve it does not break when it is put on.
func servedAsAsked(t *testing.T, q *assemble.ShotRequest, a *ShotAnswer) {
	t.Helper()
	low := a.Reading.EV100
	if a.Low != nil {
		low = a.Low.EV100
	}
	cover, err := Coverage(t.Context(), CoverageRequest{Camera: q.Camera, Kit: q.Kit, Profile: q.Profile, Looks: []CoverageLook{{FPS: q.Look.FPS, Target: q.Look.Target}}, LowEV100: 10, HighEV100: 11, Columns: 2, Choices: q.Choices,
		Wanted: []WantedLight{{ID: "s", FPS: q.Look.FPS, Target: q.Look.Target, LowEV100: low, HighEV100: a.Reading.EV100, MaxLayers: q.Choices.MaxLayers, Shot: &assemble.Asked{Look: q.Look, Scene: q.Scene, Choices: q.Choices}}}})
	if err != nil {
		t.Fatalf("%v\n%s", err, marshal(t, q))
	}
	if len(cover.Hopeless) > 0 {
		if a.State != glass.Breaks {
			t.Errorf("the shot %s with %v, coverage says that nothing serves it\n%s", a.State, a.Chosen.Filters, marshal(t, q))
		}
		return
	}
	on := *q
	placed := append(slices.Clone(q.Choices.Required), cover.Carry...)
	on.Placed = &placed
	again, err := AnswerShot(on)
	if err != nil {
		t.Fatalf("%v\n%s", err, marshal(t, on))
	}
	if again.State == glass.Breaks {
		t.Errorf("coverage says that %v serves, the shot that it breaks: %v\n%s", cover.Carry, again.Window.Verdict.Strains, marshal(t, on))
	}
}

// idsIn returns the filters that a stack's id names.
func idsIn(stack string) []string {
	_, ids, _ := strings.Cut(stack, ":")
	if ids == "" {
		return nil
	}
	return strings.Split(ids, "+")
}

// Two shots of one camera may each try a filter that is not in the kit: the plan puts each where it
// is tried, by its own name and strength.
func TestTwoShotsTryTwoFilters(t *testing.T) {
	from := time.Date(2031, 9, 20, 12, 0, 0, 0, time.UTC)
	light := stop.EV(14.6)
	outing := day.OutingRequest{Sky: "clear", From: from, To: from.Add(3 * time.Hour), StepS: 3600, Stacks: []day.OutingStack{},
		Held: []assemble.Held{{CameraID: "c", Optics: assemble.Camera{Aperture: 2, ISOBase: 100, ISOCeiling: 800}}}}
	tried := map[string]stop.Stops{"a": 7, "b": 5}
	for id, stops := range tried {
		fps := map[string]string{"a": "25", "b": "100"}[id]
		outing.Shots = append(outing.Shots, day.OutingShot{ID: id, Name: id, CameraID: "c", From: from.Add(time.Duration(len(outing.Shots)) * time.Hour), Minutes: 30,
			Look: &assemble.ShotLook{FPS: fps, Target: "180°"}, Scene: assemble.ShotScene{WhatIf: &assemble.WhatIf{GlassStops: &stops}}, Choices: &assemble.Choices{}, Read: &assemble.SceneLight{EV100: &light}})
	}
	plan, err := day.Outing(t.Context(), outing)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range plan.Shots {
		on := s.Packs[0]
		if want := fmt.Sprintf("new %g-stop filter", float64(tried[s.ID])); plan.Names[on.Stack] != want || on.SettingStops != tried[s.ID] || s.State != glass.Holds {
			t.Errorf("%s is planned with %q of %v stops, %s; want %s", s.ID, plan.Names[on.Stack], on.SettingStops, s.Words, want)
		}
		if in := day.FiltersOf(on.Stack); !slices.Equal(in, []string{shot.NewGlass}) { // as the shot itself names it
			t.Errorf("%s is planned with the filters %v", s.ID, in)
		}
	}
	if len(plan.Swaps) != 1 {
		t.Errorf("from one to the other there are %d swaps", len(plan.Swaps))
	}
}
