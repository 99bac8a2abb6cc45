package service

import (
	"math"
	"slices"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/learn"
	"pinhole/core/practice"
	"pinhole/core/shot"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// What is read on the card through a filter teaches the filter and the camera: as shown behind it,
// at the forecast of its own shot. Through a stack with a ring it is kept and teaches nothing.
func TestAReadingThroughAFilterTeaches(t *testing.T) {
	svc, s, nd16 := lived(t, 0, 1)
	vnd := keep[store.Filter](t)(svc.Store.Filters().Save(t.Context(), store.Filter{FilterFields: store.FilterFields{Label: "VND 2-5", Cameras: []string{s.CameraID}}})).ID
	read := func(id string, glass []string, stops stop.Stops) (store.Record, error) {
		e := store.FieldEntryFields{Kind: "reading", At: svc.Now(), ShotID: s.ID, Turn: s.ID + "/1/" + s.CameraID + "/:", Words: "automatic 1/250",
			Reading: &store.FieldReading{Kind: "auto", Source: "real", EV100: 14, SpreadStops: 0.2, Through: &store.Through{Glass: glass, Stops: stops}}}
		keep[*store.FieldEntry](t)(svc.LogInField(t.Context(), s.ShootID, id, e))
		return svc.Store.Records().Get(t.Context(), id)
	}
	r := keep[store.Record](t)(read("nd", []string{nd16}, 4.2))
	if math.Abs(float64(r.Seen.EV100)-9.8) > 1e-9 || !slices.Equal(r.Glass, []string{nd16}) || r.RigID == "" || r.ShotID != s.ID || r.There == nil {
		t.Errorf("through the ND16: %+v, seen %+v", r, r.Seen)
	}
	if r = keep[store.Record](t)(read("ring", []string{vnd}, 3)); r.Seen.Settings[vnd] != 3 {
		t.Errorf("through a ring at 3 stops: %+v", r.Seen)
	}
	if r = keep[store.Record](t)(read("both", []string{nd16, vnd}, 7)); r.Seen != nil || r.Done.What != "reading" {
		t.Errorf("a ring in a stack is taken as %+v", r.RecordFields)
	}
}

// A day as it went: what is ticked, changed and noted are records; a take says how often filters
// were changed for it and what a binned one before it cost; what clashes is none.
func TestADayAsItWent(t *testing.T) {
	svc, s, nd16 := lived(t, 0, 1)
	nd8 := keep[[]store.Filter](t)(svc.Store.Filters().List(t.Context()))[1].ID
	shoot := keep[store.Shoot](t)(svc.Store.Shoots().Get(t.Context(), s.ShootID))
	turn := func(glass string) string { return s.ID + "/1/" + s.CameraID + "/:" + glass }
	stack := s.CameraID + "/:" + nd16
	shoot.Kept = &store.KeptPlan{At: svc.Now(), Glass: map[string]string{s.ID: stack}}
	keep[store.Shoot](t)(svc.Store.Shoots().Save(t.Context(), shoot))
	noon := svc.Now()
	for i, e := range []store.FieldEntryFields{
		{Kind: "tick", Turn: turn(nd16), Step: "pull", Words: "Pull test"},
		{Kind: "tick", Turn: turn(nd16), Step: "seated", Words: "ND16 on"},
		{Kind: "outcome", Turn: turn(nd16), ShotID: s.ID, Outcome: &store.Outcome{Grade: "bad", Why: "dark"}},
		{Kind: "tick", Turn: turn(nd8), Step: "seated"},
		{Kind: "tick", Turn: turn(nd8), Step: "seated"}, // in another window
		{Kind: "outcome", Turn: turn(nd8), ShotID: s.ID, Outcome: &store.Outcome{Grade: "good"}},
		{Kind: "outcome", ShotID: s.ID, Words: "by its telemetry", Outcome: &store.Outcome{}},
		{Kind: "note", Turn: turn(nd8), Words: "wind"},
	} {
		e.At = noon.Add(time.Duration(i) * 4 * time.Minute)
		keep[*store.FieldEntry](t)(svc.LogInField(t.Context(), s.ShootID, string(rune('a'+i)), e))
	}
	get := func(id string) store.Record { return keep[store.Record](t)(svc.Store.Records().Get(t.Context(), id)) }
	for id, what := range map[string]string{"a": "tick", "b": "swap", "d": "swap", "g": "telemetry", "h": "note"} {
		if r := get(id); r.Kind != "done" || r.Done.What != what || r.ShotID != s.ID || r.Name != s.Name {
			t.Errorf("%s is %+v, %+v; want %s", id, r.RecordFields, r.Done, what)
		}
	}
	if _, err := svc.Store.Records().Get(t.Context(), "e"); err == nil {
		t.Error("a tick that was there already is a record")
	}
	bad, good := get("c").Took, get("f").Took
	if !*bad.FirstRight || *bad.Swaps != 0 || *bad.MinutesLost != 0 || bad.Kept {
		t.Errorf("the first take: %+v", bad)
	}
	if *good.FirstRight || *good.Swaps != 1 || *good.MinutesLost != 12 || !slices.Equal(get("f").Glass, []string{nd8}) {
		t.Errorf("the second take: right %v, %v swaps, %v minutes lost through %v", *good.FirstRight, *good.Swaps, *good.MinutesLost, get("f").Glass)
	}
	svc.Now = func() time.Time { return noon.Add(time.Hour) }
	l := keep[*Learned](t)(svc.Learned(t.Context()))
	if l.Records != 4 { // two lights, two takes
		t.Errorf("%d records teach", l.Records)
	}
}

// A doubted light counts as if it was judged by eye.
func TestADoubtedRecordTeachesLess(t *testing.T) {
	svc, _, nd16 := lived(t, 0.5, 4)
	of := func() learn.LearnedGlass {
		l := keep[*Learned](t)(svc.Learned(t.Context()))
		return l.Filters[slices.IndexFunc(l.Filters, func(g learn.LearnedGlass) bool { return g.ID == nd16 })]
	}
	before := of()
	for _, r := range keep[[]store.Record](t)(svc.Store.Teaching(t.Context())) {
		if len(r.Glass) > 0 {
			r.Doubted = &store.Struck{At: svc.Now(), By: "test"}
			keep[store.Record](t)(svc.Store.Records().Save(t.Context(), r))
		}
	}
	if after := of(); after.Spread < before.Spread+0.02 || after.Stops > before.Stops-0.05 || after.Stops < 4.05 {
		t.Errorf("%.2f ±%.2f, doubted %.2f ±%.2f", before.Stops, before.Spread, after.Stops, after.Spread)
	}
}

// What a version without records has kept becomes records, once, and as it would have been.
func TestEarlierReadingsBecomeRecords(t *testing.T) {
	svc, s, nd16 := lived(t, 0.5, 4)
	light := keep[store.LightReading](t)(svc.SaveLightReading(t.Context(), store.LightReading{LightReadingFields: store.LightReadingFields{
		ShootID: s.ShootID, Kind: "meter", Source: "real", TakenAt: svc.Now(), Words: "EV 14", EV100: 14, SpreadStops: 0.2,
	}}))
	keep[*store.FieldEntry](t)(svc.LogInField(t.Context(), s.ShootID, "done", store.FieldEntryFields{Kind: "outcome", At: svc.Now(), ShotID: s.ID, Outcome: &store.Outcome{Grade: "good"}}))
	was := keep[*Learned](t)(svc.Learned(t.Context()))
	if _, err := svc.Store.ForgetPlace(t.Context(), "Quay"); err != nil {
		t.Fatal(err)
	}
	for range 2 {
		if err := svc.RecordEarlier(t.Context()); err != nil {
			t.Fatal(err)
		}
	}
	all := keep[[]store.Record](t)(svc.Store.Records().List(t.Context()))
	if len(all) != 10 || !slices.ContainsFunc(all, func(r store.Record) bool { return r.ID == light.ID }) {
		t.Errorf("%d records of 8 readings of a shot, one of a shoot and a take", len(all))
	}
	is := keep[*Learned](t)(svc.Learned(t.Context()))
	at := func(l *Learned) learn.LearnedGlass {
		return l.Filters[slices.IndexFunc(l.Filters, func(g learn.LearnedGlass) bool { return g.ID == nd16 })]
	}
	if math.Abs(float64(at(is).Stops-at(was).Stops)) > 1e-9 || at(is).Records != 4 {
		t.Errorf("learned as %+v, from what was kept earlier as %+v", at(was), at(is))
	}
}

// A suggestion is taken by the shots that say nothing else and by new ones, or declined for good.
func TestASuggestionIsSettled(t *testing.T) {
	svc, s, _ := lived(t, 0, 1)
	s.Scene.Activity = "walk"
	s = keep[store.Shot](t)(svc.SaveShot(t.Context(), s))
	own := s
	own.Meta, own.Name, own.Choices.Tolerance = store.Meta{}, "its own", &assemble.Tolerance{Dark: 0.5, Bright: 0.5}
	own.Scene.School = shot.Free
	own = keep[store.Shot](t)(svc.SaveShot(t.Context(), own))
	off := stop.Stops(0.9)
	for i := range 12 {
		took := &store.RecordTake{Kept: true, Grade: "good", ErrorStops: &off, Activity: "walk", School: string(shot.StabiliserFirst)}
		keep[store.Record](t)(svc.Store.Records().Save(t.Context(), store.Record{RecordFields: store.RecordFields{
			Kind: "take", At: svc.Now().Add(-time.Duration(i) * time.Hour), From: "card", Source: "real", Name: "x", Took: took,
		}}))
	}
	taste := func() learn.Taste { return keep[*Learned](t)(svc.Learned(t.Context())).Taste }
	if a := taste(); !a.Bright.IsSuggest || a.Dark.IsSuggest || len(a.Schools) != 1 || !a.Schools[0].IsSuggest {
		t.Fatalf("suggested: %+v", a)
	}
	if _, err := svc.Settle(t.Context(), Settlement{What: "dark", Taken: true}); err == nil {
		t.Error("what is not suggested can be taken")
	}
	if bright := taste().Bright; bright.Limit <= *bright.Offer || *bright.Offer != 0.9 {
		t.Errorf("of a limit of %v, beyond every take that was kept, %v is offered", bright.Limit, *bright.Offer)
	}
	got := keep[*Settled](t)(svc.Settle(t.Context(), Settlement{What: "bright", Taken: true}))
	s = keep[store.Shot](t)(svc.Store.Shots().Get(t.Context(), s.ID))
	if got.Shots != 1 || s.Choices.Tolerance == nil || s.Choices.Tolerance.Bright != 0.9 || *s.Answer.Request.Tolerance != *s.Choices.Tolerance {
		t.Errorf("%d shots changed; accepted is %+v", got.Shots, s.Choices.Tolerance)
	}
	if is := keep[store.Shot](t)(svc.Store.Shots().Get(t.Context(), own.ID)); *is.Choices.Tolerance != *own.Choices.Tolerance || is.Version != own.Version {
		t.Errorf("a shot that says its own became %+v", is.Choices.Tolerance)
	}
	keep[*Settled](t)(svc.Settle(t.Context(), Settlement{What: "school walk", Taken: true}))
	if is := keep[store.Shot](t)(svc.Store.Shots().Get(t.Context(), s.ID)); is.Scene.School != shot.StabiliserFirst {
		t.Errorf("the shot is by %q", is.Scene.School)
	}
	fresh := gear(t, svc)
	fresh.Scene.Activity = "walk"
	if fresh = keep[store.Shot](t)(svc.SaveShot(t.Context(), fresh)); fresh.Scene.School != shot.StabiliserFirst || *fresh.Choices.Tolerance != *s.Choices.Tolerance {
		t.Errorf("a new shot is by %q with %+v", fresh.Scene.School, fresh.Choices.Tolerance)
	}
	said := keep[store.Shot](t)(svc.Keep(t.Context(), "", KeepRequest{Line: "EV 14 > 25 fps · walking", ShootID: s.ShootID}))
	if said.Choices.Tolerance == nil || *said.Choices.Tolerance != *s.Choices.Tolerance {
		t.Errorf("a shot that was said accepts %+v", said.Choices.Tolerance)
	}
	if a := taste(); a.Bright.IsSuggest || a.Schools[0].IsSuggest {
		t.Errorf("what was taken is suggested: %+v", a)
	}
}

func TestASuggestionIsDeclinedForGood(t *testing.T) {
	svc, s, _ := lived(t, 0, 1)
	off := stop.Stops(0.9)
	for i := range 12 {
		keep[store.Record](t)(svc.Store.Records().Save(t.Context(), store.Record{RecordFields: store.RecordFields{
			Kind: "take", At: svc.Now().Add(-time.Duration(i) * time.Hour), From: "card", Source: "real", Name: "x", Took: &store.RecordTake{Kept: true, ErrorStops: &off},
		}}))
	}
	got := keep[*Settled](t)(svc.Settle(t.Context(), Settlement{What: "bright"}))
	if got.Shots != 0 || got.Learned.Taste.Bright.IsSuggest || got.Learned.Taste.Bright.Against != 12 {
		t.Errorf("declined: %+v", got.Learned.Taste.Bright)
	}
	if is := keep[store.Shot](t)(svc.Store.Shots().Get(t.Context(), s.ID)); is.Version != s.Version {
		t.Error("declining changes a shot")
	}
}

// What the log has for practice: a first filter that was wrong, and what was guessed.
func TestTheLogTrains(t *testing.T) {
	svc, s, nd16 := lived(t, 0, 1)
	guess := stop.EV(12.5)
	keep[*store.FieldEntry](t)(svc.LogInField(t.Context(), s.ShootID, "guessed", store.FieldEntryFields{
		Kind: "reading", At: svc.Now(), ShotID: s.ID, Reading: &store.FieldReading{Kind: "meter", Source: "real", EV100: 14, SpreadStops: 0.2, GuessEV100: &guess},
	}))
	wrong := false
	keep[store.Record](t)(svc.Store.Records().Save(t.Context(), store.Record{RecordFields: store.RecordFields{
		Kind: "take", At: svc.Now(), From: "card", Source: "real", Name: "x", Glass: []string{nd16}, Took: &store.RecordTake{Kept: true, FirstRight: &wrong},
	}}))
	p := keep[*Practice](t)(svc.Practice(t.Context()))
	if len(p.Guesses) != 1 || p.Guesses[0].Off != -1.5 || len(p.Mistakes) != 1 || p.Mistakes[0].Kind != practice.Filter {
		t.Errorf("for practice there are %+v", p)
	}
}
