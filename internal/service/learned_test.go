package service

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/day"
	"pinhole/core/learn"
	"pinhole/core/light"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// lived is a service on whose data a shot was read without and through its ND16, which in truth takes so
// many stops more than is printed, day after day.
func lived(t *testing.T, over stop.Stops, days int) (*Service, store.Shot, string) {
	t.Helper()
	svc := newService(t)
	shot := gear(t, svc, "ND16", "ND8")
	shoot := keep[store.Shoot](t)(svc.Store.Shoots().Get(t.Context(), shot.ShootID))
	shoot.Place = "Quay"
	shoot.Day = store.ShootDay{Where: &assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}, Zone: "Etc/GMT+1", FirstDay: "2031-09-01", LastDay: "2031-09-20", Sky: light.ClearSky}
	keep[store.Shoot](t)(svc.Store.Shoots().Save(t.Context(), shoot))
	filters := keep[[]store.Filter](t)(svc.Store.Filters().List(t.Context()))
	now := time.Date(2031, 9, 1, 11, 0, 0, 0, time.UTC)
	svc.Now = func() time.Time { return now }
	read := func(n int, stops float64, glass ...string) {
		shutter := math.Exp2(math.Log2(1./4000) + stops + 0.02*float64(n)) // each day another light: what repeats is kept once
		shot.Light = assemble.ShotLight{Kind: "auto", At: &assemble.Entry{Shutter: fmt.Sprintf("1/%.1f", 1/shutter), ISO: "100", Glass: glass}}
		shot = keep[store.Shot](t)(svc.SaveShot(t.Context(), shot))
		now = now.Add(5 * time.Minute)
	}
	for day := range days {
		read(day, 0)
		read(day, 4+float64(over), filters[0].ID)
		now = now.Add(24*time.Hour - 10*time.Minute)
	}
	return svc, shot, filters[0].ID
}

// A filter that is darker than its ring says is learned, counts as it is, and the answer of its
// shot follows; struck records teach nothing; without the log everything is as printed.
func TestAFilterIsLearnedAndUsed(t *testing.T) {
	const over = stop.Stops(0.5)
	svc, shot, nd16 := lived(t, over, 6)
	l := keep[*Learned](t)(svc.Learned(t.Context()))
	if l.Records != 12 || len(l.Places) != 1 || l.Places[0].Place != "Quay" {
		t.Fatalf("%d records, places %+v", l.Records, l.Places)
	}
	g := l.Filters[slices.IndexFunc(l.Filters, func(g learn.LearnedGlass) bool { return g.ID == nd16 })]
	if off := float64(g.Stops - 4 - over); math.Abs(off) > 2*float64(g.Spread) || g.Stops < 4.25 || g.Records != 6 {
		t.Errorf("ND16 is %.2f ±%.2f of %d records, in truth %.2f", g.Stops, g.Spread, g.Records, 4+over)
	}
	counted := func() stop.Stops {
		b := keep[*Bench](t)(svc.Bench(t.Context(), shot.CameraID, ""))
		i := slices.IndexFunc(b.Filters, func(f ShownFilter) bool { return f.ID == nd16 })
		if (b.Filters[i].Learned != nil) != (b.Kit[i].MeasuredStops != nil) {
			t.Error("what is counted as learned is not marked so")
		}
		return keep[stop.Stops](t)(b.Kit[i].Takes())
	}
	if got := counted(); got != g.Stops {
		t.Errorf("it counts as %.2f, learned as %.2f", got, g.Stops)
	}
	off := func() stop.Stops {
		shot.Placed = &[]string{nd16}
		answer := keep[store.Answer](t)(svc.answer(t.Context(), shot.ShotFields))
		isUsed := keep[*Learned](t)(svc.Learned(t.Context())).IsUsed
		if says := strings.Contains(strings.Join(answer.Given.Chosen.Reasons, " "), "learned from the log"); says != isUsed {
			t.Errorf("with the log in use %v its reasons are %q", isUsed, answer.Given.Chosen.Reasons)
		}
		return answer.Given.Chosen.ErrorStops
	}
	// Read without glass, so that the light does not move with the filter.
	shot.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: "EV 14"}}
	with := off()
	keep[*Learned](t)(svc.UseLog(t.Context(), false))
	without := off()
	if got := without - with; math.Abs(float64(got-(g.Stops-4))) > 0.01 {
		t.Errorf("the answer moves by %.2f, learned %.2f", got, g.Stops-4)
	}
	if got := counted(); got != 4 {
		t.Errorf("without the log it counts as %.2f", got)
	}
	keep[*Learned](t)(svc.UseLog(t.Context(), true))
	for _, r := range keep[[]store.Record](t)(svc.Store.Records().List(t.Context())) {
		if len(r.Glass) > 0 {
			r.Struck = &store.Struck{At: svc.Now(), By: "test"}
			keep[store.Record](t)(svc.Store.Records().Save(t.Context(), r))
		}
	}
	if l := keep[*Learned](t)(svc.Learned(t.Context())); l.Struck != 6 || counted() != 4 {
		t.Errorf("struck records teach: %d struck, counted as %.2f", l.Struck, counted())
	}
}

// Readings are foretold before they come, and the bands hold; a place can be forgotten.
func TestForetoldAndForgotten(t *testing.T) {
	svc, _, _ := lived(t, 0.2, 5)
	l := keep[*Learned](t)(svc.Learned(t.Context()))
	i := slices.IndexFunc(l.Calibration, func(c learn.Calibration) bool { return c.Kind == "seen" })
	if i < 0 || l.Calibration[i].Of != 10 || l.Calibration[i].Inside < 6 {
		t.Errorf("foretold: %+v", l.Calibration)
	}
	// The forecast of a day there has it in it, until the place is forgotten.
	shoot := keep[[]store.Shoot](t)(svc.Store.Shoots().List(t.Context()))[0]
	known := keep[*Day](t)(svc.Day(t.Context(), shoot.ID)).Request.Known
	if len(known) != 1 || known[0].Sky != light.ClearSky || known[0].Offset != l.Places[0].Offset || known[0].Spread >= light.ClearSky.Spread()+0.1 {
		t.Errorf("the day knows %+v of %+v", known, l.Places)
	}
	// Around the last reading it is surer than days on.
	moments := known[0].Moments
	last := keep[[]store.Record](t)(svc.Store.Records().List(t.Context()))[9].At
	at := slices.IndexFunc(moments, func(m day.KnownMoment) bool { return m.At.After(last) })
	if at < 1 || moments[at].Spread >= 0.9*known[0].Spread || moments[len(moments)-1].Spread <= moments[at].Spread {
		t.Errorf("at %v of %d moments: %+v, in general %+v", last, len(moments), moments[max(at, 0)], known[0].Spread)
	}
	if l = keep[*Learned](t)(svc.ForgetPlace(t.Context(), "Quay")); l.Records != 0 || len(l.Places) != 0 {
		t.Errorf("after forgetting there are %d records at %+v", l.Records, l.Places)
	}
	if known := keep[*Day](t)(svc.Day(t.Context(), shoot.ID)).Request.Known; len(known) > 0 {
		t.Errorf("forgotten, the day knows %+v", known)
	}
	if _, err := svc.ForgetPlace(t.Context(), "Quay"); err == nil {
		t.Error("what is not known can be forgotten")
	}
}

// New firmware makes a camera's offset as unsure as it was, and leaves its filters.
func TestNewFirmwareBeginsAnew(t *testing.T) {
	svc, _, nd16 := lived(t, 0.3, 5)
	before := keep[*Learned](t)(svc.Learned(t.Context()))
	rig := keep[[]store.Record](t)(svc.Store.Records().List(t.Context()))[0].RigID
	r := store.Record{RecordFields: store.RecordFields{Kind: "reset", At: svc.Now(), From: "hand", Source: "real", Name: "c", RigID: rig, Reset: &store.RecordReset{Words: "new firmware"}}}
	if err := svc.CheckRecord(t.Context(), r); err != nil {
		t.Fatal(err)
	}
	keep[store.Record](t)(svc.Store.Records().Save(t.Context(), r))
	after := keep[*Learned](t)(svc.Learned(t.Context()))
	if after.Instruments[0].Spread < before.Instruments[0].Spread+0.05 {
		t.Errorf("± %.3f before, %.3f after", before.Instruments[0].Spread, after.Instruments[0].Spread)
	}
	of := func(l *Learned) learn.LearnedGlass {
		return l.Filters[slices.IndexFunc(l.Filters, func(g learn.LearnedGlass) bool { return g.ID == nd16 })]
	}
	if math.Abs(float64(of(after).Stops-of(before).Stops)) > 1e-9 {
		t.Errorf("the filter moved from %.3f to %.3f", of(before).Stops, of(after).Stops)
	}
	r.RigID = ""
	if err := svc.CheckRecord(t.Context(), r); err == nil {
		t.Error("a reset of no camera is taken")
	}
}

// What is typed over within a moment is one reading, the last.
func TestWhatIsTypedOver(t *testing.T) {
	svc, shot, _ := lived(t, 0, 1)
	before := len(keep[[]store.Record](t)(svc.Store.Records().List(t.Context())))
	for _, text := range []string{"EV 1", "EV 14", "EV 14.3"} {
		shot.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: text}}
		shot = keep[store.Shot](t)(svc.SaveShot(t.Context(), shot))
	}
	records := keep[[]store.Record](t)(svc.Store.Records().List(t.Context()))
	last := records[len(records)-1]
	if len(records) != before+1 || math.Abs(float64(last.Seen.EV100)-14.3) > 1e-9 || last.Words != "EV 14.3" {
		t.Errorf("%d records, %d before; the last is %+v", len(records), before, last.Seen)
	}
}

// A record that nothing can be made of is refused; one that came in from elsewhere takes no answer
// away.
func TestARecordThatCannotBe(t *testing.T) {
	svc, shot, nd16 := lived(t, 0, 1)
	bad := store.Record{RecordFields: store.RecordFields{
		Kind: "seen", At: svc.Now(), From: "hand", Source: "real", Name: "x", Seen: &store.RecordSeen{Kind: "auto", EV100: 9, Settings: map[string]stop.Stops{nd16: 3}},
	}}
	if err := svc.CheckRecord(t.Context(), bad); err == nil {
		t.Error("a setting of a filter that is not on is taken")
	}
	lacking := bad
	lacking.Seen, lacking.Glass = nil, []string{"gone"}
	if err := svc.CheckRecord(t.Context(), lacking); err == nil {
		t.Error("a light that nobody saw is taken")
	}
	for _, r := range []store.Record{bad, lacking} {
		keep[store.Record](t)(svc.Store.Records().Save(t.Context(), r))
	}
	keep[*Learned](t)(svc.Learned(t.Context()))
	keep[*Bench](t)(svc.Bench(t.Context(), shot.CameraID, ""))
}

// A take and the steps of a trial that are logged in the field become records, once each.
func TestTheFieldIsRecorded(t *testing.T) {
	svc, shot, nd16 := lived(t, 0, 1)
	computed := stop.Shutter(0.01)
	entries := map[string]store.FieldEntryFields{
		"a-take": {Kind: "outcome", At: svc.Now(), ShotID: shot.ID, Words: "bad", Outcome: &store.Outcome{Grade: "bad", Why: "bright", Clip: &store.RecordClip{Name: "a.mp4"}}},
		"a-step": {Kind: "step", At: svc.Now(), ShotID: shot.ID, Tried: &store.RecordStep{Mode: "electronic", Activity: "walk", ComputedS: &computed, ShutterS: 0.004, Grade: "bad", Why: "ghost"}},
	}
	for range 2 {
		for id, e := range entries {
			keep[*store.FieldEntry](t)(svc.LogInField(t.Context(), shot.ShootID, id, e))
		}
	}
	take := keep[store.Record](t)(svc.Store.Records().Get(t.Context(), "a-take"))
	if take.Took == nil || take.Took.Kept || take.Took.Why != "bright" || take.From != "clip" || take.There == nil || take.There.Name != "Quay" {
		t.Errorf("the take is %+v", take)
	}
	l := keep[*Learned](t)(svc.Learned(t.Context()))
	if len(l.Stabilisers) != 1 || l.Stabilisers[0].Trials != 1 || *l.Stabilisers[0].Floor >= computed {
		t.Errorf("the trial: %+v", l.Stabilisers)
	}
	if l.Taste.Binned["bright"] != 1 {
		t.Errorf("binned %v", l.Taste.Binned)
	}
	if l.Names[nd16] != "ND16" {
		t.Errorf("names %v", l.Names)
	}
}
