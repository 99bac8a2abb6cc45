package desk

import (
	"fmt"
	"sync"

	"github.com/ringsaturn/tzf"
	"github.com/ringsaturn/tzf-rel-lite"
	pb "github.com/ringsaturn/tzf/gen/go/tzf/v1"
	"google.golang.org/protobuf/proto"

	"pinhole/core/assemble"
)

// tiles knows the zone of every tile of the map that lies whole within one, and is unpacked in a
// moment when the first place is asked about.
var tiles = sync.OnceValues(unpackTiles)

func unpackTiles() (tzf.F, error) {
	var index pb.PreindexTimezones
	if err := proto.Unmarshal(tzfrellite.PreindexData, &index); err != nil {
		return nil, err
	}
	return tzf.NewFuzzyFinderFromPB(&index)
}

// borders knows the borders of the zones, too. It takes a second and more to unpack, so that happens
// when the first place near one is asked about.
var borders = sync.OnceValues(tzf.NewDefaultFinder)

// ZoneAt returns the IANA name of the time zone of a place, found without a network;
// at sea that of the nautical zone.
func ZoneAt(place assemble.PlaceFields) (string, error) {
	for _, unpacked := range []func() (tzf.F, error){tiles, borders} {
		finder, err := unpacked()
		if err != nil {
			return "", fmt.Errorf("unpack the time zones: %w", err)
		}
		if name := finder.GetTimezoneName(float64(place.LonDeg), float64(place.LatDeg)); name != "" {
			return name, nil
		}
	}
	return "", nil
}
