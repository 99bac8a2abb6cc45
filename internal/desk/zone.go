package desk

import (
	"fmt"
	"pinhole/core/assemble"
	"sync"

	"github.com/ringsaturn/tzf"
)

// finder knows the borders of the time zones. It takes its time to unpack, so that
// happens when the first place is asked about.
var finder = sync.OnceValues(tzf.NewDefaultFinder)

// ZoneAt returns the IANA name of the time zone of a place, found without a network;
// at sea that of the nautical zone.
func ZoneAt(place assemble.PlaceFields) (string, error) {
	f, err := finder()
	if err != nil {
		return "", fmt.Errorf("unpack the time zones: %w", err)
	}
	return f.GetTimezoneName(float64(place.LonDeg), float64(place.LatDeg)), nil
}
