package service

import (
	"strings"
	"testing"
	"time"

	"pinhole/core/fit"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

func keep[T any](t *testing.T) func(T, error) T {
	t.Helper()
	return func(v T, err error) T {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
}

// on is a day of a made-up month.
func on(day int) time.Time { return time.Date(2031, 9, day, 9, 0, 0, 0, time.UTC) }

// held is a camera with one rig and filters, and what is done with them.
type held struct {
	*Service
	t        *testing.T
	cameraID string
	rig      store.Rig
	filters  []store.Filter
}

func hold(t *testing.T, labels ...string) *held {
	svc := newService(t)
	shot := gear(t, svc, labels...)
	rigs, _, err := svc.Rigs(t.Context(), store.Page{Limit: 10})
	if err != nil {
		t.Fatal(err)
	}
	return &held{svc, t, shot.CameraID, rigs[0], keep[[]store.Filter](t)(svc.Store.Filters().List(t.Context()))}
}

func (h *held) bench() *Bench {
	h.t.Helper()
	return keep[*Bench](h.t)(h.Bench(h.t.Context(), h.cameraID, ""))
}

func (h *held) try(filter, day int, found store.Found) store.Trial {
	h.t.Helper()
	return keep[store.Trial](h.t)(h.Store.Trials().Save(h.t.Context(), store.Trial{TrialFields: store.TrialFields{
		RigID: h.rig.ID, FilterID: h.filters[filter].ID, TriedAt: on(day), Found: found,
	}}))
}

func (h *held) change(filter int, change func(*store.Filter)) {
	h.t.Helper()
	change(&h.filters[filter])
	h.filters[filter] = keep[store.Filter](h.t)(h.Store.Filters().Save(h.t.Context(), h.filters[filter]))
}

func seats(change func(*store.Found)) store.Found {
	f := store.Found{TrialFields: fit.TrialFields{Seated: true}}
	if change != nil {
		change(&f)
	}
	return f
}

// What a trial says does not go is never offered; what was never tried is, with
// that said; the newest trial counts, and taking it back takes its word back.
func TestTheNewestTrialDecidesWhatIsOffered(t *testing.T) {
	h := hold(t, "ND8")
	no, yes := false, true
	if b := h.bench(); len(b.Kit) != 1 || b.Fits[0].Standing != fit.NotKnown {
		t.Errorf("untried glass: %+v", b.Fits)
	}
	h.try(0, 1, seats(func(f *store.Found) { f.Wobbles = &no }))
	if b := h.bench(); b.Fits[0].Standing != fit.Tried {
		t.Errorf("tried and good: %+v", b.Fits)
	}
	bad := h.try(0, 3, store.Found{})
	h.try(0, 2, seats(func(f *store.Found) { f.Wobbles = &yes })) // older, told later
	if b := h.bench(); len(b.Kit) != 0 || len(b.Refused) != 1 || b.Refused[0].Standing != fit.DoesNotGo {
		t.Errorf("glass that does not seat: kit %+v, refused %+v", b.Kit, b.Refused)
	}
	keep[store.Trial](t)(h.Store.Trials().Delete(t.Context(), bad.ID, bad.Version))
	if b := h.bench(); len(b.Kit) != 1 || b.Fits[0].Standing != fit.GoesLoose {
		t.Errorf("with the last trial taken back: %+v", b.Fits)
	}
}

// A filter that was dropped after it was tried is tried no more, a lost one is not
// offered until it is found, and a trial's tilt goes into the shot.
func TestWhatHappenedToAFilterCounts(t *testing.T) {
	h := hold(t, "ND8")
	twelve := degrees(12)
	h.try(0, 1, seats(func(f *store.Found) { f.TiltUpDeg = twelve }))
	if b := h.bench(); *b.Kit[0].TiltUpDeg != *twelve {
		t.Errorf("the kit's tilt is %v", b.Kit[0].TiltUpDeg)
	}
	happens := func(day int, what string) {
		h.change(0, func(f *store.Filter) { f.History = append(f.History, store.Happening{At: on(day), What: what}) })
	}
	happens(2, "dropped")
	if b := h.bench(); b.Fits[0].Standing != fit.NotKnown || !strings.Contains(b.Fits[0].Because[0], "dropped on 2031-09-02") || b.Kit[0].TiltUpDeg != nil {
		t.Errorf("dropped since: %+v", b.Fits)
	}
	h.try(0, 3, seats(nil))
	if b := h.bench(); b.Fits[0].Standing != fit.Tried {
		t.Errorf("tried again: %+v", b.Fits)
	}
	happens(4, "lost")
	if b := h.bench(); len(b.Kit) != 0 || !strings.Contains(b.Refused[0].Because[0], "lost on 2031-09-04") {
		t.Errorf("lost: %+v", b)
	}
	happens(5, "found")
	if b := h.bench(); len(b.Kit) != 1 {
		t.Errorf("found again: %+v", b.Refused)
	}
	h.change(0, func(f *store.Filter) { f.Condition = "broken" })
	if b := h.bench(); len(b.Kit) != 0 {
		t.Error("broken glass is offered")
	}
}

// Clearance counts from the ring that was tried to hold well on the same rig; glass
// that nobody says goes on is offered where its measures do.
func TestClearanceCountsFromWhatHoldsWell(t *testing.T) {
	h := hold(t, "ND8", "ND16")
	h.rig.Measures.Mount, h.rig.Measures.BarrelMm = fit.PushOn, []float64{20, 20}
	h.rig = keep[store.Rig](t)(h.Store.Rigs().Save(t.Context(), h.rig))
	sized := func(seat float64) func(*store.Filter) {
		return func(f *store.Filter) { f.Body = fit.Body{Mount: fit.PushOn, SeatMm: []float64{seat, seat}} }
	}
	h.change(0, sized(20.15)) // a bore that is wide of the mark, and known to hold
	h.change(1, func(f *store.Filter) { sized(20.16)(f); f.Cameras = []string{} })
	if b := h.bench(); len(b.Kit) != 2 || b.Fits[1].Standing != fit.GoesLoose || b.Fits[1].Claimed {
		t.Errorf("without a reference: %+v", b.Fits)
	}
	no := false
	h.try(0, 1, seats(func(f *store.Found) { f.Wobbles = &no }))
	seat := keep[*Seat](t)(h.SeatOn(t.Context(), h.rig.ID, []string{h.filters[1].ID}))
	if seat.Standing != fit.Computed || seat.Reference != "ND8" {
		t.Errorf("beside what holds: %+v", seat)
	}
	if _, err := h.SeatOn(t.Context(), h.rig.ID, []string{"nothing"}); err == nil {
		t.Error("glass that is not there is judged")
	}
	// Another mount does not go, whoever says so.
	h.change(0, func(f *store.Filter) {
		f.Body.Mount = fit.Thread
		f.History = []store.Happening{{At: on(2), What: "replaced"}}
	})
	if b := h.bench(); len(b.Refused) != 1 || !strings.Contains(b.Refused[0].Because[0], "thread") {
		t.Errorf("of another mount: %+v", b.Refused)
	}
}

// A set's figure is not known while one of its filters leaves it open.
func TestSetsSumUpWhatIsKnown(t *testing.T) {
	h := hold(t, "ND8", "ND16", "ND4")
	for i := range 2 {
		h.change(i, func(f *store.Filter) {
			f.Set, f.WeightG, f.Slot = "thin", 1.5, "A"
			measured := stop.Stops(3.2 + float64(i))
			f.MeasuredStops = &measured
		})
	}
	sets := keep[[]FilterSet](t)(h.Sets(t.Context(), h.rig.ID))
	if len(sets) != 1 || len(sets[0].Filters) != 2 || *sets[0].Mass != 3 || *sets[0].Case != 1 || *sets[0].Truth < 0.19 || *sets[0].Truth > 0.21 {
		t.Fatalf("%+v", sets)
	}
	if sets[0].Fit != nil || sets[0].Missing["fit"] != "2 of 2 neither tested nor measured on this rig" || sets[0].Price != nil {
		t.Errorf("%+v", sets[0])
	}
	h.try(0, 1, seats(nil))
	h.try(1, 1, store.Found{})
	if sets = keep[[]FilterSet](t)(h.Sets(t.Context(), h.rig.ID)); *sets[0].Fit != 0.5 {
		t.Errorf("one goes and one does not: %v", *sets[0].Fit)
	}
}
