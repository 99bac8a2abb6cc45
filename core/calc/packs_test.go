package calc

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

func greys(prefix string, stops ...stop.Stops) []assemble.KitFilter {
	var kit []assemble.KitFilter
	for i, s := range stops {
		kit = append(kit, assemble.KitFilter{ID: fmt.Sprint(prefix, i), Kind: glass.ND, Stops: s})
	}
	return kit
}

func packedCoverage(t *testing.T, kit []assemble.KitFilter, packs ...ConsideredPack) *CoverageAnswer {
	t.Helper()
	r := CoverageRequest{
		Camera: assemble.Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 800}, Kit: kit, Packs: packs, LowEV100: 2, HighEV100: 17, Columns: 31,
		Looks: []CoverageLook{{"25", "180°"}, {"60", "180°"}},
	}
	for i := range 8 {
		ev := stop.EV(8 + i)
		r.Wanted = append(r.Wanted, WantedLight{ID: fmt.Sprint(i), FPS: "25", Target: "180°", LowEV100: ev, HighEV100: ev})
	}
	a, err := Coverage(t.Context(), r)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// openCells counts what no glass holds in, darkness apart.
func openCells(a *CoverageAnswer) int {
	n := 0
	for _, row := range a.Rows {
		for _, g := range row.Gaps {
			if !g.TooDark {
				n += int((g.ToEV100-g.FromEV100)*2+0.5) + 1 // columns of half a stop
			}
		}
	}
	return n
}

// What a pack is said to add is what is seen with it in the kit.
func TestPackAddsWhatItWouldInTheKit(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 2))
	for round := range 40 {
		strengths := func(n int) (out []stop.Stops) {
			for range n {
				out = append(out, stop.Stops(1+r.IntN(10)))
			}
			return out
		}
		kit, pack := greys("own ", strengths(r.IntN(4))...), greys("new ", strengths(1+r.IntN(3))...)
		before := packedCoverage(t, kit, ConsideredPack{ID: "p", Name: "pack", Kit: pack})
		after := packedCoverage(t, slices.Concat(kit, pack))
		got := before.Packs[0]
		if want := openCells(before) - openCells(after); got.Cells != want || got.OpenCells != openCells(before) {
			t.Errorf("round %d: closes %d of %d cells, with it in the kit %d of %d are closed", round, got.Cells, got.OpenCells, want, openCells(before))
		}
		if want := float64(len(before.Hopeless) - len(after.Hopeless)); got.Covers != want || got.Open != float64(len(after.Hopeless)) {
			t.Errorf("round %d: covers %g of the wanted light and leaves %g, with it in the kit %g and %d", round, got.Covers, got.Open, want, len(after.Hopeless))
		}
	}
}

func TestPacksStandBySideOfPrice(t *testing.T) {
	price := func(v float64) *float64 { return &v }
	closed := func(kit []assemble.KitFilter) []assemble.KitFilter { // nothing stacks on it
		kit[0].TakesLayer = new(bool)
		return kit
	}
	a := packedCoverage(t, closed(greys("own ", 3)),
		ConsideredPack{ID: "p", Name: "nothing new", Price: price(10), Kit: closed(greys("a", 3))},
		ConsideredPack{ID: "p", Name: "dear", Price: price(90), Kit: greys("b", 5, 6)},
		ConsideredPack{ID: "p", Name: "cheap", Price: price(30), Kit: greys("c", 5, 6)},
		ConsideredPack{ID: "p", Name: "unpriced", Kit: greys("d", 5, 6)})
	var order []string
	for _, p := range a.Packs {
		order = append(order, p.Name)
		if p.IsCheapest != (p.Name == "cheap") {
			t.Errorf("%s is cheapest: %v", p.Name, p.IsCheapest)
		}
	}
	if want := []string{"cheap", "dear", "unpriced", "nothing new"}; !slices.Equal(order, want) {
		t.Errorf("in the order %v, want %v", order, want)
	}
	last := a.Packs[3]
	if last.Cells != 0 || last.CellPrice != nil || len(last.Like) != 1 || !slices.Equal(last.Like[0], []string{"a0", "own 0"}) {
		t.Errorf("a pack of what is owned: %+v", last)
	}
}

func TestPackWithAnIDOfTheKitIsRefused(t *testing.T) {
	_, err := Coverage(t.Context(), CoverageRequest{Camera: assemble.Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 800}, Kit: greys("own ", 3), LowEV100: 2, HighEV100: 17, Columns: 31,
		Looks: []CoverageLook{{"25", "180°"}}, Packs: []ConsideredPack{{ID: "p", Name: "x", Kit: greys("own ", 3)}}})
	var fault *problem.Fault
	if !errors.As(err, &fault) || fault.Field != "packs[0].kit[0].id" || fault.Value != "own 0" {
		t.Errorf("refused with %v", err)
	}
}
