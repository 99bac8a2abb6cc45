package store

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"
)

// inParts reads a list by its parts.
func inParts[T any](t *testing.T, limit int, id func(*T) string, read func(Page) ([]T, string, error)) (ids []string) {
	t.Helper()
	for after := ""; ; {
		part, next, err := read(Page{After: after, Limit: limit})
		if err != nil {
			t.Fatal(err)
		}
		if len(part) > limit || next != "" && len(part) != limit {
			t.Fatalf("a part of %d where %d are asked for, and more follows %q", len(part), limit, next)
		}
		for i := range part {
			ids = append(ids, id(&part[i]))
		}
		if next == "" {
			return ids
		}
		after = next
	}
}

// However a list is parted, its parts hold all of it once and in its order, though things
// made at one instant stand side by side.
func TestPartsMakeTheWholeList(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	now := time.Date(2031, 9, 20, 9, 0, 0, 0, time.UTC)
	s.now = func() time.Time { return now }
	for i := range 11 {
		if i%4 == 0 {
			now = now.Add(time.Millisecond)
		}
		saved(t, s, fmt.Sprint(i))
	}
	all := must[[]Shoot](t)(s.Shoots().List(ctx))
	must[Shoot](t)(s.Shoots().Delete(ctx, all[3].ID, all[3].Version))
	all = must[[]Shoot](t)(s.Shoots().List(ctx))
	id := func(v *Shoot) string { return v.ID }
	var want []string
	for i := range all {
		want = append(want, all[i].ID)
	}
	for _, limit := range []int{1, 3, 5, 10, 11, 500} {
		fromFile := inParts(t, limit, id, func(p Page) ([]Shoot, string, error) { return s.Shoots().Page(ctx, p) })
		fromMemory := inParts(t, limit, id, func(p Page) ([]Shoot, string, error) { return PageOf(p, all, id) })
		if !slices.Equal(fromFile, want) || !slices.Equal(fromMemory, want) {
			t.Errorf("in parts of %d: %v and %v, not %v", limit, fromFile, fromMemory, want)
		}
	}
	if _, _, err := s.Shoots().Page(ctx, Page{After: "nobody", Limit: 3}); !errors.Is(err, ErrNotFound) {
		t.Errorf("after nobody: %v", err)
	}
	if _, _, err := PageOf(Page{After: "nobody", Limit: 3}, all, id); !errors.Is(err, ErrNotFound) {
		t.Errorf("after nobody: %v", err)
	}
}

// A log of any length is taken, read in parts from its end, and cut short at an instant; what
// its entries did stays done.
func TestALongLogIsReadInPartsAndPruned(t *testing.T) {
	s, ctx := open(t, newPath(t)), t.Context()
	shoot, other := harvestIn(t, s), harvestIn(t, s)
	now := time.Date(2031, 9, 20, 9, 0, 0, 0, time.UTC)
	s.now = func() time.Time { return now }
	add := func(shoot Shoot, i int, fields FieldEntryFields) {
		t.Helper()
		now = now.Add(time.Second)
		must[FieldEntry](t)(s.AddToFieldLog(ctx, shoot.ID, fmt.Sprintf("device-entry-%04d", i), fields))
	}
	reading := FieldEntryFields{Kind: "reading", At: tick.At, Words: "+1", Reading: &FieldReading{Kind: "bias", Source: "real", EV100: 13}}
	add(shoot, 0, reading)
	for i := 1; i < 25; i++ {
		note := FieldEntryFields{Kind: "note", At: now, Words: fmt.Sprint(i)}
		add(shoot, i, note)
	}
	add(other, 25, tick)
	id := func(e *FieldEntry) string { return e.ID }
	got := inParts(t, 7, id, func(p Page) ([]FieldEntry, string, error) { return s.FieldLogPart(ctx, shoot.ID, p) })
	if len(got) != 25 || got[0] != "device-entry-0024" || got[24] != "device-entry-0000" || !slices.IsSortedFunc(got, func(a, b string) int { return strings.Compare(b, a) }) {
		t.Fatalf("in parts: %v", got)
	}
	if _, _, err := s.FieldLogPart(ctx, shoot.ID, Page{After: "device-entry-0025", Limit: 5}); !errors.Is(err, ErrNotFound) {
		t.Errorf("after an entry of another shoot: %v", err)
	}
	size := must[FieldLogSize](t)(s.FieldLogSize(ctx))
	if size.Entries != 26 || !size.Oldest.Equal(time.Date(2031, 9, 20, 9, 0, 1, 0, time.UTC)) {
		t.Errorf("the log has %+v", size)
	}
	if err := s.PruneFieldLog(ctx, now.Add(-5*time.Second)); err != nil {
		t.Fatal(err)
	}
	if size := must[FieldLogSize](t)(s.FieldLogSize(ctx)); size.Entries != 6 {
		t.Errorf("%d entries are left of 26, not the 6 of the last five seconds", size.Entries)
	}
	if readings := must[[]LightReading](t)(s.LightReadingsOf(ctx, shoot.ID)); len(readings) != 1 {
		t.Errorf("the reading that was logged is gone: %v", readings)
	}
}
