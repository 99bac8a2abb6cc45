package demo

import (
	"math"
	"slices"
	"testing"

	"pinhole/core/learn"
)

// What the log teaches of the season is what is hidden in it: within the band that it states.
func TestTheSeasonIsLearned(t *testing.T) {
	svc := seeded(t)
	l, err := svc.Learned(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	ids := map[string]string{}
	filters, err := svc.Store.Filters().List(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range filters {
		for _, on := range f.Cameras {
			ids[f.Label+" on "+l.Names[on]] = f.ID
		}
	}
	const errors = 2.6 // one in a hundred
	for name, off := range hidden {
		want := float64(off)
		if name == "ND64 on "+crate {
			want += fellBy
		}
		for _, g := range l.Filters {
			if g.ID != ids[name] {
				continue
			}
			if got := float64(g.Stops - l.Printed[g.ID]); math.Abs(got-want) > errors*float64(g.Spread) || g.Records < 10 {
				t.Errorf("%s is off by %.2f ±%.2f of %d records, in truth %.2f", name, got, g.Spread, g.Records, want)
			}
		}
	}
	for id, want := range map[string]float64{"meter": meterHigh, "eye": eyeDark} {
		i := slices.IndexFunc(l.Instruments, func(i learn.LearnedReader) bool { return i.ID == id })
		if i < 0 {
			t.Errorf("nothing is learned of the %s", id)
		} else if of := l.Instruments[i]; math.Abs(float64(of.Offset)-want) > errors*float64(of.Spread) || of.Spread > 0.2 {
			t.Errorf("the %s reads %.2f ±%.2f too high, in truth %.2f", id, of.Offset, of.Spread, want)
		}
	}
	isDoubted := false
	for _, doubt := range l.Doubtful {
		isDoubted = isDoubted || doubt.ID == "season-13-3"
	}
	if !isDoubted {
		t.Errorf("what was mistyped is not doubted: %+v", l.Doubtful)
	}
	for _, trend := range l.Trend {
		if trend.What == "firstRight" && trend.Verdict != learn.Better {
			t.Errorf("the season grows better: %+v", trend)
		}
	}
}
