package glass

import (
	"math"
	"testing"

	"pinhole/core/stop"
)

func some[T any](v T) *T { return &v }

// A set is as good as the mean of what is counted by each filter, as the worst of what
// shows in any picture, and its figures are known only where all its filters' are.
func TestASetIsSummedUpByItsFilters(t *testing.T) {
	full := func(off, cast stop.Stops, price float64) Member {
		return Member{Fit: some(1.0), Off: &off, Cast: &cast, Corner: some(stop.Stops(0.1)), Flare: some(0.0), SharpnessLost: some(4.0), WeightG: some(10.0), Price: &price, HasSlot: true}
	}
	a, b := full(-0.4, 0.1, 30), full(0.2, -0.3, 50)
	figures, missing := SumUp([]Member{a, b})
	for k, want := range map[Criterion]float64{ByTruth: 0.3, ByTint: 0.3, ByMass: 20, ByPrice: 80, ByCase: 1, ByFit: 1} {
		if math.Abs(figures[k]-want) > 1e-12 {
			t.Errorf("%s is %v, want %v", k, figures[k], want)
		}
	}
	if len(missing) > 0 {
		t.Errorf("missing %v of what is all known", missing)
	}
	b.Flare, b.HasSlot = nil, false
	figures, missing = SumUp([]Member{a, b})
	if _, isKnown := figures[ByFlare]; isKnown || missing[ByFlare] != "1 of 2 not judged" || figures[ByCase] != 0.5 {
		t.Errorf("figures %v, missing %v", figures, missing)
	}
}

func TestHowFarAFilterIsOffItsLabel(t *testing.T) {
	nd8, _ := ParseLabel("ND8")
	turned, _ := ParseLabel("VND 2-5 stop")
	clear, _ := ParseLabel("UV")
	for _, test := range []struct {
		what     string
		printed  Label
		measured *stop.Stops
		ring     Ring
		want     *stop.Stops
	}{
		{"measured", nd8, some(stop.Stops(3.2)), nil, some(stop.Stops(0.2))},
		{"not measured", nd8, nil, nil, nil},
		{"a clear one", clear, nil, nil, some(stop.Stops(0))},
		{"a measured ring", turned, nil, Ring{{"1", 2}, {"5", 5.4}}, some(stop.Stops(0.4))},
		{"a ring not measured", turned, nil, nil, nil},
	} {
		got := OffPrinted(test.printed.Reading, test.measured, test.ring)
		if (got == nil) != (test.want == nil) || got != nil && (*got-*test.want).Abs() > 1e-9 {
			t.Errorf("%s: %v, want %v", test.what, got, test.want)
		}
	}
}
