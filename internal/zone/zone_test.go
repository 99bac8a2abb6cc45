package zone

import (
	"sync"
	"testing"

	"github.com/ringsaturn/tzf"

	"pinhole/core/angle"
	"pinhole/core/assemble"
)

// Zones are found without a network: on land, at sea, and across the date line.
func TestZonesOfPlaces(t *testing.T) {
	for want, place := range map[string]assemble.PlaceFields{
		"Etc/GMT+1": {LatDeg: 38.4, LonDeg: -20.5}, "Etc/GMT-12": {LatDeg: -45, LonDeg: 179}, "Etc/GMT": {LatDeg: 0, LonDeg: 0},
	} {
		if name, err := At(place); err != nil || name != want {
			t.Errorf("%+v lies in %s, %v, want %s", place, name, err, want)
		}
	}
}

// Zone by zone it is the same as by the library, which unpacks them all and an index of tiles.
func TestEachZoneByItselfAgreesWithAllTogether(t *testing.T) {
	all, err := tzf.NewDefaultFinder()
	if err != nil {
		t.Fatal(err)
	}
	zones := map[string]bool{}
	for lat := -89.5; lat < 90; lat += 3.7 {
		for lon := -179.5; lon < 180; lon += 4.3 {
			want := all.GetTimezoneName(lon, lat)
			got, err := At(assemble.PlaceFields{LatDeg: angle.Deg(lat), LonDeg: angle.Deg(lon)})
			if err != nil || got != want {
				t.Errorf("%.1f, %.1f lies in %s, %v, by the library in %s", lat, lon, got, err, want)
			}
			zones[got] = true
		}
	}
	if len(zones) < 200 {
		t.Errorf("the places lie in %d zones", len(zones))
	}
}

// The first place, of which no zone is unpacked yet, beside unpacking them all: at sea, inland, and
// where many zones meet.
func BenchmarkFirstZone(b *testing.B) {
	for name, place := range map[string]assemble.PlaceFields{
		"sea":    {LatDeg: 38.4, LonDeg: -20.5},
		"inland": {LatDeg: 45, LonDeg: 25},
		"ice":    {LatDeg: -89.9, LonDeg: 10},
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if name, err := At(place); err != nil || name == "" {
					b.Fatal(name, err)
				}
				areas = sync.OnceValues(read)
			}
		})
	}
	b.Run("baseline-all", func(b *testing.B) {
		for b.Loop() {
			if _, err := tzf.NewDefaultFinder(); err != nil {
				b.Fatal(err)
			}
		}
	})
}
