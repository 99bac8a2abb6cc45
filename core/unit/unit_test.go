package unit

import (
	"math"
	"testing"
)

// Figures from everyday tables: a walk, a highway, a fall, a letter.
func TestSizesAreThoseOfEverydayTables(t *testing.T) {
	for _, c := range []struct {
		amount float64
		from   Unit
		want   float64
	}{
		{3, MilesPerHour, 1.34112}, {36, KilometresPerHour, 10}, {100, FeetPerSecond, 30.48},
		{6, Feet, 1.8288}, {100, Yards, 91.44}, {5, Centimetres, 0.05}, {8.8, Ounces, 249.4758},
	} {
		if got := c.amount * c.from.Of; math.Abs(got-c.want) > 1e-4 {
			t.Errorf("%g %s is %g, want %g", c.amount, c.from.Name, got, c.want)
		}
	}
}

func TestWhatIsComputedInComesFirst(t *testing.T) {
	all := Choices()
	for _, units := range [][]Unit{all.Speeds, all.Lengths, all.Masses} {
		if len(units) < 2 || units[0].Of != 1 {
			t.Errorf("%v", units)
		}
	}
}
