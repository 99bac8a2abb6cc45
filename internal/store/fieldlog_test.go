package store

import (
	"errors"
	"testing"
	"time"
)

// harvestIn stores a shoot to log on.
func harvestIn(t *testing.T, s *Store) Shoot {
	t.Helper()
	return must[Shoot](t)(s.Shoots().Save(t.Context(), Shoot{ShootFields: ShootFields{Name: "Harvest"}}))
}

var tick = FieldEntryFields{Kind: "tick", At: time.Date(2031, 9, 20, 9, 12, 0, 0, time.UTC), Turn: "shot/1/stack", Step: "tether", Device: "phone"}

func TestWhatIsSentTwiceIsStoredOnce(t *testing.T) {
	s := open(t, newPath(t))
	shoot := harvestIn(t, s)
	reading := FieldEntryFields{Kind: "reading", At: tick.At, Words: "+1", Reading: &FieldReading{Kind: "bias", Source: "real", EV100: 13}}
	for range 3 {
		must[FieldEntry](t)(s.AddToFieldLog(t.Context(), shoot.ID, "device-entry-1", tick))
		must[FieldEntry](t)(s.AddToFieldLog(t.Context(), shoot.ID, "device-entry-2", reading))
	}
	log := must[[]FieldEntry](t)(s.FieldLogOf(t.Context(), shoot.ID))
	readings := must[[]LightReading](t)(s.LightReadingsOf(t.Context(), shoot.ID))
	if len(log) != 2 || log[0].Clash != nil || !log[0].At.Equal(tick.At) || len(readings) != 1 || readings[0].EV100 != 13 {
		t.Errorf("the log has %+v, the readings %+v", log, readings)
	}
}

func TestTheSameTickFromTwoWindowsIsKeptAsAClash(t *testing.T) {
	s := open(t, newPath(t))
	shoot := harvestIn(t, s)
	later := tick
	later.At = tick.At.Add(2 * time.Minute)
	add := func(id string, e FieldEntryFields) *Clash {
		return must[FieldEntry](t)(s.AddToFieldLog(t.Context(), shoot.ID, id, e)).Clash
	}
	if c := add("device-entry-1", tick); c != nil {
		t.Errorf("the first clashes with %+v", c)
	}
	if c := add("device-entry-2", later); c == nil || c.With != "device-entry-1" || !c.At.Equal(tick.At) {
		t.Errorf("the second clashes with %+v", c)
	}
	untick := tick
	untick.Kind = "untick"
	add("device-entry-3", untick)
	if c := add("device-entry-4", later); c != nil {
		t.Errorf("ticked anew after it was taken back, it clashes with %+v", c)
	}
	if log := must[[]FieldEntry](t)(s.FieldLogOf(t.Context(), shoot.ID)); len(log) != 4 || log[1].Clash == nil {
		t.Errorf("not all was kept: %+v", log)
	}
}

func TestAPinIsNotLaidOverAnother(t *testing.T) {
	s := open(t, newPath(t))
	shoot := harvestIn(t, s)
	first, second := &Anchor{At: tick.At, EV100: 13, Source: "real"}, &Anchor{At: tick.At.Add(time.Hour), EV100: 12, Source: "real"}
	add := func(id string, was, anchor *Anchor) *Clash {
		return must[FieldEntry](t)(s.AddToFieldLog(t.Context(), shoot.ID, id, FieldEntryFields{Kind: "pin", At: tick.At, Was: was, Anchor: anchor})).Clash
	}
	if c := add("device-entry-1", nil, first); c != nil {
		t.Fatalf("clashes with %+v", c)
	}
	if c := add("device-entry-2", nil, second); c == nil || c.Anchor.EV100 != 13 {
		t.Errorf("a pin that knew of none clashes with %+v", c)
	}
	if c := add("device-entry-3", first, second); c != nil {
		t.Errorf("a pin that knew clashes with %+v", c)
	}
	now := must[Shoot](t)(s.Shoots().Get(t.Context(), shoot.ID))
	if now.Day.Anchor == nil || now.Day.Anchor.EV100 != 12 || now.Version != 3 {
		t.Errorf("the shoot has %+v, version %d", now.Day.Anchor, now.Version)
	}
}

func TestNothingIsLoggedOnWhatIsNotThere(t *testing.T) {
	s := open(t, newPath(t))
	if _, err := s.AddToFieldLog(t.Context(), "nowhere", "device-entry-1", tick); !errors.Is(err, ErrNotFound) {
		t.Errorf("got %v", err)
	}
}
