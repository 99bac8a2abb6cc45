package service

import (
	"errors"
	"fmt"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/calc"
	"pinhole/core/card"
	"pinhole/core/day"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
	"pinhole/core/take"
	"pinhole/internal/store"
)

// From nothing, one line makes a camera, its glass and a shot; sent again it makes nothing
// more, and the next line finds the camera and what it has.
func TestALineIsKept(t *testing.T) {
	svc := newService(t)
	ctx := t.Context()
	const key = "0191f3a0-0000-7000-8000-000000000001"
	const said = "gimbal f2 iso50-800 · f2 1/1250 iso50 > 25 fps 180° · walking · 4 8 16 32/PL CPL · with mist 1/4"
	var kept store.Shot
	for range 2 {
		kept = keep[store.Shot](t)(svc.Keep(ctx, key, KeepRequest{Line: said}))
	}
	cameras, filters, shots := keep[[]store.Camera](t)(svc.Store.Cameras().List(ctx)), keep[[]store.Filter](t)(svc.Store.Filters().List(ctx)), keep[[]store.Shot](t)(svc.Store.Shots().List(ctx))
	if len(cameras) != 1 || len(filters) != 6 || len(shots) != 1 || kept.ID != key {
		t.Fatalf("%d cameras, %d filters, %d shots, %s", len(cameras), len(filters), len(shots), kept.ID)
	}
	c := cameras[0]
	if c.Aperture != 2 || c.ISOBase != 50 || c.Archetype != "pocket-gimbal" || c.Sources["aperture"] != store.Printed || c.Sources["steps"] != store.Assumed {
		t.Errorf("the camera is %+v", c)
	}
	mist := filters[slices.IndexFunc(filters, func(f store.Filter) bool { return f.Label == "mist 1/4" })]
	if kept.Look.FPS != "25" || string(kept.Scene.Activity) != "walk" || !slices.Equal(kept.Choices.Required, []string{mist.ID}) || !slices.Contains(kept.Answer.Given.Chosen.Filters, mist.ID) {
		t.Errorf("the shot is %+v, answered with %v", kept.ShotFields, kept.Answer.Given.Chosen.Filters)
	}
	again := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "EV 13 > 25 · 8 64"}))
	filters = keep[[]store.Filter](t)(svc.Store.Filters().List(ctx))
	if again.CameraID != c.ID || len(filters) != 7 || filters[6].Label != "ND64" {
		t.Errorf("the second line is on %s, and there are %d filters", again.CameraID, len(filters))
	}
	other := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "gimbal sunny > 25"}))
	if cameras = keep[[]store.Camera](t)(svc.Store.Cameras().List(ctx)); len(cameras) != 2 || other.CameraID == c.ID || cameras[1].Name == c.Name {
		t.Errorf("a second camera of the kind is %+v", cameras)
	}
	if kept.Name != "Quick shot" || again.Name != "Quick shot 2" || other.Name != "Quick shot 3" {
		t.Errorf("they are called %q, %q and %q", kept.Name, again.Name, other.Name)
	}
	for _, want := range []string{"New shot", "New shot 2"} {
		if named := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "EV 13 > 25", Name: "New shot"})); named.Name != want {
			t.Errorf("%q is called %q", want, named.Name)
		}
	}
	var fault *problem.Fault
	if _, err := svc.Keep(ctx, "", KeepRequest{Line: "gimbal > 25"}); !errors.As(err, &fault) || fault.Field != "line" {
		t.Errorf("without light it is kept with %v", err)
	}
}

// What a line names is what its shot chooses from: with what its camera has else, and measured,
// the shot that is kept is told what the line was told, and so is its day.
func TestAShotChoosesFromWhatItsLineNamed(t *testing.T) {
	svc := newService(t)
	ctx := t.Context()
	first := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "drone f2.8 iso100-400 · EV 13 > 25 · 4 8 16 64 VND 2-5"}))
	for _, f := range keep[[]store.Filter](t)(svc.Store.Filters().List(ctx)) {
		if f.Label == "ND8" {
			measured := stop.Stops(3.3)
			f.MeasuredStops = &measured
			keep[store.Filter](t)(svc.Store.Filters().Save(ctx, f))
		}
	}
	for i, line := range []string{"EV 12.3 > 30 fps · 8 32", "EV 14.5 > 25 · 64 8", "EV 9 > 25 · 64"} {
		cameras := keep[[]calc.AskCamera](t)(svc.Askable(ctx))
		asked := keep[*calc.AskAnswer](t)(calc.Ask(calc.AskRequest{Line: line, Cameras: cameras, Whole: true}))
		kept := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: line}))
		var on []string
		for _, id := range kept.Answer.Given.Chosen.Filters {
			on = append(on, kept.Answer.Glass[id])
		}
		if !slices.Equal(on, asked.Filters) || string(kept.Answer.Given.State) != asked.State || kept.Answer.Given.Chosen.ErrorStops != *asked.ErrorStops {
			t.Errorf("%q is answered %v, %s, %v; its shot %v, %s, %v", line, asked.Filters, asked.State, *asked.ErrorStops, on, kept.Answer.Given.State, kept.Answer.Given.Chosen.ErrorStops)
		}
		at := svc.Now().AddDate(0, 0, 1).Add(time.Duration(i) * time.Hour)
		kept.StartsAt = &at
		kept = keep[store.Shot](t)(svc.SaveShot(ctx, kept))
		work := keep[*Day](t)(svc.Day(ctx, kept.ShootID))
		planned := keep[*day.OutingAnswer](t)(day.Outing(ctx, work.Request))
		plan := planned.Shots[slices.IndexFunc(planned.Shots, func(s day.OutingPlan) bool { return s.ID == kept.ID })]
		if want := day.StackID(kept.CameraID, kept.RigID, kept.Answer.Given.Chosen.Filters); plan.State != kept.Answer.Given.State || plan.Packs[0].Stack != want {
			t.Errorf("%q: its day has %s, %s; not %s, %s", line, plan.Packs[0].Stack, plan.State, want, kept.Answer.Given.State)
		}
	}
	filters := keep[[]store.Filter](t)(svc.Store.Filters().List(ctx))
	if len(filters) != 6 || first.Choices.AtHand != nil {
		t.Errorf("there are %d filters, and the first shot chooses from %v", len(filters), first.Choices.AtHand)
	}
}

// tomorrow keeps a line's shot, planned for the next day, and returns it with all filters.
func tomorrow(t *testing.T, svc *Service, line string) (store.Shot, []store.Filter) {
	t.Helper()
	s := keep[store.Shot](t)(svc.Keep(t.Context(), "", KeepRequest{Line: line}))
	at := svc.Now().AddDate(0, 0, 1)
	s.StartsAt = &at
	return keep[store.Shot](t)(svc.SaveShot(t.Context(), s)), keep[[]store.Filter](t)(svc.Store.Filters().List(t.Context()))
}

// Glass that is put on by hand is what the day plans and the card shows, until it is gone; where
// it breaks and other glass serves, that is said.
func TestGlassPutOnByHandIsPlanned(t *testing.T) {
	svc := newService(t)
	ctx := t.Context()
	s, filters := tomorrow(t, svc, "drone f2.8 iso100-400 · EV 13 > 25 180° · 4 16 CPL")
	idOf := func(label string) string {
		return filters[slices.IndexFunc(filters, func(f store.Filter) bool { return f.Label == label })].ID
	}
	for _, test := range []struct {
		on       []string
		remedies []string
	}{
		{[]string{"ND4"}, []string{"option: ND16 in place of what was put on by hand"}}, {[]string{"ND16"}, []string{}}, {[]string{"CPL", "ND4"}, []string{}},
		{[]string{}, []string{"option: ND16 in place of what was put on by hand"}},
	} {
		on := []string{}
		for _, label := range test.on {
			on = append(on, idOf(label))
		}
		s.Placed = &on
		s = keep[store.Shot](t)(svc.SaveShot(ctx, s))
		planned := keep[*day.OutingAnswer](t)(day.Outing(ctx, keep[*Day](t)(svc.Day(ctx, s.ShootID)).Request)).Shots[0]
		turn := keep[*card.CardAnswer](t)(card.Card(ctx, keep[*Card](t)(svc.Card(ctx, s.ShootID, s.ID)).Request)).Cameras[0].Turns[0]
		given := s.Answer.Given
		onDay, onCard := day.FiltersOf(planned.Packs[0].Stack), day.FiltersOf(turn.Stack)
		if !planned.Placed || planned.State != given.State || !glass.SameIDs(onDay, given.Chosen.Filters) || turn.State != given.State || !glass.SameIDs(onCard, given.Chosen.Filters) {
			t.Errorf("with %v the shot %s with %v; the day says %s with %v, the card %s with %v", test.on, given.State, given.Chosen.Filters, planned.State, onDay, turn.State, onCard)
		}
		if given.State == glass.Breaks && !slices.Equal(planned.Remedies, test.remedies) || given.State != glass.Breaks && len(test.remedies) > 0 {
			t.Errorf("with %v it %s: %q", test.on, given.State, planned.Remedies)
		}
	}
	// What is gone is not planned.
	on := []string{idOf("ND4")}
	s.Placed = &on
	s = keep[store.Shot](t)(svc.SaveShot(ctx, s))
	keep[store.Filter](t)(svc.Store.Filters().Delete(ctx, on[0], 1))
	if planned := keep[*day.OutingAnswer](t)(day.Outing(ctx, keep[*Day](t)(svc.Day(ctx, s.ShootID)).Request)).Shots[0]; planned.Placed || planned.State == glass.Breaks {
		t.Errorf("without it the day says %+v", planned)
	}
}

// A line is answered with what its owner settled for new shots, as the shot that is made of it.
func TestALineIsAnsweredAsSettled(t *testing.T) {
	svc := newService(t)
	ctx := t.Context()
	keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "action f2.8 iso100-400 · EV 13 > 25 · 4 16"}))
	settled := store.Taste{Preferences: assemble.Preferences{Tolerance: &assemble.Tolerance{Dark: 0.1, Bright: 0.1}, Schools: map[motion.ActivityName]shot.School{"walk": shot.Free}}}
	if err := svc.Store.SettleTaste(ctx, settled, nil); err != nil {
		t.Fatal(err)
	}
	for _, line := range []string{"EV 12 > 25 · walking", "EV 12 > 25", "drone EV 12 > 25 · 8 16", "EV 12.3 > 25 · centred", "EV 11 > 25 · walking, stabiliser first"} {
		asked := keep[*calc.AskAnswer](t)(calc.Ask(calc.AskRequest{Line: line, Cameras: keep[[]calc.AskCamera](t)(svc.Askable(ctx)), Whole: true}))
		kept := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: line})).Answer.Given
		if string(kept.State) != asked.State || kept.Chosen.ErrorStops != *asked.ErrorStops || kept.Chosen.ShutterS != asked.Shot.Chosen.ShutterS || kept.Band != asked.Shot.Band {
			t.Errorf("%q is answered %s at %v within %v; its shot %s at %v within %v", line, asked.State, asked.Shot.Chosen.ShutterS, asked.Shot.Band, kept.State, kept.Chosen.ShutterS, kept.Band)
		}
	}
}

// What is measured of a filter is told of each shot that has it, wherever it is told: as if it had
// been typed after. What cannot be answered any more keeps what it was told.
func TestAShotIsToldByTheGearAsItIs(t *testing.T) {
	svc := newService(t)
	ctx := t.Context()
	s, filters := tomorrow(t, svc, "drone f2.8 iso100-400 · 1/240 iso100 behind ND8 > 25 180° · 8 16 32")
	for i := range filters {
		measured := stop.Stops(map[string]float64{"ND8": 2.2, "ND16": 4.4, "ND32": 5}[filters[i].Label])
		filters[i].MeasuredStops = &measured
		filters[i] = keep[store.Filter](t)(svc.Store.Filters().Save(ctx, filters[i]))
	}
	want := keep[store.Answer](t)(svc.answer(ctx, s.ShotFields)).Given
	if want.Chosen.ErrorStops == s.Answer.Given.Chosen.ErrorStops {
		t.Fatalf("what was measured changes nothing: %v", want.Chosen)
	}
	page, _, err := svc.ShotPage(ctx, store.Page{Limit: 9})
	if err != nil {
		t.Fatal(err)
	}
	one := keep[store.Shot](t)(svc.Shot(ctx, s.ID))
	for where, is := range map[string]calc.ShotAnswer{"the list": page[0].Answer.Given, "the shot": one.Answer.Given} {
		if is.Chosen.ErrorStops != want.Chosen.ErrorStops || is.State != want.State || is.Reading.EV100 != want.Reading.EV100 {
			t.Errorf("%s says %v, %s; it %s with %v", where, is.Chosen, is.State, want.State, want.Chosen)
		}
	}
	if read := keep[*Day](t)(svc.Day(ctx, s.ShootID)).Request.Shots[0].Read; *read.EV100 != want.Reading.EV100 {
		t.Errorf("its day reads %v, the shot %v", *read.EV100, want.Reading.EV100)
	}
	if seen := keep[*take.Request](t)(svc.TakeOf(ctx, s.ID)); seen.ShutterS != want.Chosen.ShutterS {
		t.Errorf("a clip of it is expected at %v, not %v", seen.ShutterS, want.Chosen.ShutterS)
	}
	on := []string{filters[0].ID}
	s.Placed = &on
	s = keep[store.Shot](t)(svc.SaveShot(ctx, s))
	keep[store.Filter](t)(svc.Store.Filters().Delete(ctx, on[0], filters[0].Version))
	if gone := keep[store.Shot](t)(svc.Shot(ctx, s.ID)); gone.Answer.At != s.Answer.At || gone.Answer.Given.State != s.Answer.Given.State {
		t.Errorf("without its filter it says %+v", gone.Answer.Given.Chosen)
	}
}

// A filter that is only tried has its name in the answer, as those of the kit have.
func TestATriedFilterHasItsName(t *testing.T) {
	svc := newService(t)
	s := keep[store.Shot](t)(svc.Keep(t.Context(), "", KeepRequest{Line: "gimbal f2.8 1/1600 iso100 > 30 · 4"}))
	stops := stop.Stops(6)
	s.Scene.WhatIf = &assemble.WhatIf{GlassStops: &stops}
	s = keep[store.Shot](t)(svc.SaveShot(t.Context(), s))
	if on := s.Answer.Given.Chosen.Filters; len(on) != 1 || s.Answer.Glass[on[0]] != "new 6-stop filter" {
		t.Errorf("%v is called %v", on, s.Answer.Glass)
	}
}

// A shot that nobody planned has a card: of its shoot where nothing is planned, and of itself,
// now, where something is.
func TestACardWithoutAPlan(t *testing.T) {
	svc := newService(t)
	ctx := t.Context()
	first := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "gimbal f2.8 1/1600 iso100 > 30 · 4 8 16 32"}))
	second := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "drone EV 14 > 25 · 8 16"}))
	of := func(shotID string) card.CardAnswer {
		t.Helper()
		kit := keep[*Card](t)(svc.Card(ctx, first.ShootID, shotID))
		return *keep[*card.CardAnswer](t)(card.Card(ctx, kit.Request))
	}
	if a := of(""); len(a.Cameras) != 2 || len(a.Cameras[0].Turns) != 1 || a.Cameras[0].Turns[0].When != "on" {
		t.Errorf("without a plan the card has %+v", a.Cameras)
	}
	at := svc.Now().AddDate(0, 0, 1)
	second.StartsAt = &at
	keep[store.Shot](t)(svc.SaveShot(ctx, second))
	if a := of(""); len(a.Cameras) != 1 || a.Cameras[0].Turns[0].Name != second.Name || a.Cameras[0].Turns[0].When == "on" {
		t.Errorf("with a plan the card has %+v", a.Cameras)
	}
	for _, s := range []store.Shot{first, second} {
		if a := of(s.ID); len(a.Cameras) != 1 || a.Cameras[0].CameraID != s.CameraID || a.Cameras[0].Turns[0].When != "on" || len(a.Cameras[0].Turns[0].Set.Shutter) == 0 {
			t.Errorf("now it has %+v", a.Cameras)
		}
	}
	if _, err := svc.Card(ctx, first.ShootID, "nobody"); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("of nobody: %v", err)
	}
}

// Glass whose whole list was done before has a short one, until something of it changes.
func TestFamiliarGlassHasAShortList(t *testing.T) {
	ctx := t.Context()
	now := time.Date(2031, 9, 20, 9, 0, 0, 0, time.UTC)
	clock := func() time.Time { return now }
	svc := &Service{Store: keep[*store.Store](t)(store.Open(ctx, filepath.Join(t.TempDir(), "x.db"), clock)), Now: clock}
	t.Cleanup(func() { _ = svc.Store.Close() })
	shot := keep[store.Shot](t)(svc.Keep(ctx, "", KeepRequest{Line: "action f2.8 1/1600 iso100 > 30 · 8 16 32"}))
	turn := func() card.CardTurn {
		t.Helper()
		kit := keep[*Card](t)(svc.Card(ctx, shot.ShootID, shot.ID))
		return keep[*card.CardAnswer](t)(card.Card(ctx, kit.Request)).Cameras[0].Turns[0]
	}
	first := turn()
	now = now.Add(time.Minute) // after everything was stored
	for i, check := range first.Checks {
		entry := store.FieldEntryFields{Kind: "tick", At: now, Turn: first.ID, Step: check.Step}
		keep[store.FieldEntry](t)(svc.Store.AddToFieldLog(ctx, shot.ShootID, fmt.Sprintf("device-entry-%d", i), entry))
	}
	if done := turn(); done.Known || done.Readiness != card.Ready {
		t.Errorf("while its list is being done it is known %t and %s", done.Known, done.Readiness)
	}
	now = now.AddDate(0, 0, 1)
	if next := turn(); !next.Known || len(next.Checks) > 3 || next.Readiness == card.Ready || len(first.Checks) < 6 {
		t.Errorf("the next day its list has %d steps, %s, the first day %d", len(next.Checks), next.Readiness, len(first.Checks))
	}
	now = now.Add(time.Minute)
	glass := keep[[]store.Filter](t)(svc.Store.Filters().List(ctx))
	for _, f := range glass {
		f.Condition = "scratched"
		keep[store.Filter](t)(svc.Store.Filters().Save(ctx, f))
	}
	if next := turn(); next.Known {
		t.Error("glass that was scratched since has a short list")
	}
}
