package desk

import (
	"testing"

	"github.com/ringsaturn/tzf"

	"pinhole/core/angle"
	"pinhole/core/assemble"
)

// The index of tiles says of a place what the borders say, wherever it says anything.
func TestTilesAgreeWithBorders(t *testing.T) {
	whole, err := borders()
	if err != nil {
		t.Fatal(err)
	}
	index, err := tiles()
	if err != nil {
		t.Fatal(err)
	}
	known := 0
	for lat := -89.5; lat < 90; lat += 7.3 {
		for lon := -179.5; lon < 180; lon += 9.1 {
			want := whole.GetTimezoneName(lon, lat)
			if got, err := ZoneAt(assemble.PlaceFields{LatDeg: angle.Deg(lat), LonDeg: angle.Deg(lon)}); err != nil || got != want {
				t.Errorf("%.1f, %.1f lies in %s, %v, by the borders in %s", lat, lon, got, err, want)
			}
			if index.GetTimezoneName(lon, lat) != "" {
				known++
			}
		}
	}
	if known < 500 {
		t.Errorf("of 1,000 places the index knows %d", known)
	}
}

// The first place is told from the index, beside unpacking all borders.
func BenchmarkFirstZone(b *testing.B) {
	for name, unpack := range map[string]func() (tzf.F, error){"index": unpackTiles, "borders": tzf.NewDefaultFinder} {
		b.Run(name, func(b *testing.B) {
			for range b.N {
				f, err := unpack()
				if err != nil || f.GetTimezoneName(-20.5, 38.4) != "Etc/GMT+1" {
					b.Fatal(err)
				}
			}
		})
	}
}
