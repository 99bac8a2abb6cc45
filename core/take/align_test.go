package take

import (
	"math"
	"math/rand/v2"
	"testing"
)

// walk is a trace of somebody who walks; seen from a frame on, with an error of its own.
func walk(r *rand.Rand, from, n int, fps float64) Trace {
	t := Trace{FPS: fps}
	for i := range n {
		at := float64(from)/25 + float64(i)/fps
		speed := func(phase float64) float64 {
			return 3*math.Sin(1.3*at+phase) + 2*math.Sin(3.7*at+2*phase) + math.Sin(7.9*at)
		}
		t.Pairs = append(t.Pairs, Move{DxPx: speed(0)*25/fps + 0.2*r.NormFloat64(), DyPx: speed(1)*25/fps + 0.2*r.NormFloat64()})
		t.MeanStops = append(t.MeanStops, 0.3*math.Sin(0.9*at))
	}
	return t
}

// Two takes of one path are laid over each other to the frame, at other frame rates too; turned
// round, the offset is the same the other way.
func TestTakesAreAligned(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	for _, test := range []struct {
		late int
		fps  float64
	}{{0, 25}, {17, 25}, {-31, 25}, {40, 50}} {
		first, second := walk(r, 100, 120, 25), walk(r, 100-test.late, 200, test.fps)
		there, err := Align(AlignRequest{first, second})
		if err != nil || there.OffsetS == nil {
			t.Fatalf("%+v: %+v, %v", test, there, err)
		}
		near(t, "offset", *there.OffsetS, float64(test.late)/25, 0.03)
		near(t, "as bright", *there.DarkerStops, 0, 3.5*there.SE)
		for i := range second.MeanStops { // the same behind an ND8
			second.MeanStops[i] -= 3
		}
		behind, err := Align(AlignRequest{first, second})
		if err != nil || behind.DarkerStops == nil {
			t.Fatalf("behind: %+v, %v", behind, err)
		}
		near(t, "darker", *behind.DarkerStops, 3, 3.5*behind.SE)
		back, err := Align(AlignRequest{second, first})
		if err != nil || back.OffsetS == nil {
			t.Fatalf("back %+v: %+v, %v", test, back, err)
		}
		near(t, "back", *back.OffsetS, -*there.OffsetS, 0.03)
	}
}

// What has nothing in common, stands still or swings like a clock is not aligned.
func TestWhatCannotBeAligned(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	noise := func() Trace {
		a := Trace{FPS: 25}
		for range 100 {
			a.Pairs, a.MeanStops = append(a.Pairs, Move{DxPx: r.NormFloat64(), DyPx: r.NormFloat64()}), append(a.MeanStops, 0)
		}
		return a
	}
	swing := Trace{FPS: 25}
	for i := range 200 {
		v := math.Sin(2 * math.Pi * float64(i) / 20)
		swing.Pairs, swing.MeanStops = append(swing.Pairs, Move{DxPx: v, DyPx: v}), append(swing.MeanStops, 0)
	}
	still := Trace{FPS: 25, Pairs: make([]Move, 50), MeanStops: make([]float64, 51)}
	for name, pair := range map[string][2]Trace{
		"apart": {noise(), noise()}, "alike": {swing, swing}, "short": {walk(r, 0, 4, 25), walk(r, 0, 90, 25)},
	} {
		if a, err := Align(AlignRequest{pair[0], pair[1]}); err != nil || a.OffsetS != nil || a.Why != name {
			t.Errorf("%s: %+v, %v", name, a, err)
		}
	}
	if a, err := Align(AlignRequest{still, still}); err != nil || a.OffsetS != nil {
		t.Errorf("still: %+v, %v", a, err)
	}
}
