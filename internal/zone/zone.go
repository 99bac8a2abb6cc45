// Package zone tells the time zone of a place, without a network.
//
// The borders come from a library's table of all zones. Unpacked as a whole it takes a second, and
// a sixth of the binary; so the build packs each zone by itself, with the box that it lies in, and
// only those zones are unpacked in whose box a place lies.
package zone

import (
	"archive/zip"
	"bytes"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"sync"

	"github.com/ringsaturn/tzf"
	pb "github.com/ringsaturn/tzf/gen/go/tzf/v1"
	"google.golang.org/protobuf/proto"

	"pinhole/core/assemble"
)

// made is what the build makes by Pack.
//
//go:embed all:made
var made embed.FS

const tableName = "made/zones.zip"

// box is the smallest box around a zone, in degrees.
type box struct {
	West  float64 `json:"west"`
	South float64 `json:"south"`
	East  float64 `json:"east"`
	North float64 `json:"north"`
}

func (b box) has(lonDeg, latDeg float64) bool {
	return b.West <= lonDeg && lonDeg <= b.East && b.South <= latDeg && latDeg <= b.North
}

// area is a zone with its borders, which are unpacked when they are first asked about.
type area struct {
	name string
	box
	borders func() (tzf.F, error)
}

// areas are all zones in the order of the table: where two overlap the first counts.
var areas = sync.OnceValues(read)

func read() ([]area, error) {
	table, err := made.ReadFile(tableName)
	if err != nil {
		return nil, fmt.Errorf("this binary was made without its time zones: %w", err)
	}
	packed, err := zip.NewReader(bytes.NewReader(table), int64(len(table)))
	if err != nil {
		return nil, err
	}
	all := make([]area, len(packed.File))
	for i, file := range packed.File {
		all[i] = area{name: file.Name, borders: sync.OnceValues(func() (tzf.F, error) { return unpack(file) })}
		if err := json.Unmarshal([]byte(file.Comment), &all[i].box); err != nil {
			return nil, fmt.Errorf("the box of %s: %w", file.Name, err)
		}
	}
	return all, nil
}

func unpack(file *zip.File) (tzf.F, error) {
	r, err := file.Open()
	if err != nil {
		return nil, err
	}
	packed, err := io.ReadAll(r)
	if err := errors.Join(err, r.Close()); err != nil {
		return nil, err
	}
	var zones pb.CompressedTimezones
	if err := proto.Unmarshal(packed, &zones); err != nil {
		return nil, err
	}
	return tzf.NewFinderFromCompressed(&zones, tzf.SetDropPBTZ)
}

// gapDeg is how far around a place is looked that lies in no zone: where borders were
// simplified they leave gaps.
const gapDeg = 0.02

// At returns the IANA name of the time zone of a place; at sea that of the nautical zone, and
// "" where there is none.
func At(place assemble.PlaceFields) (string, error) {
	for _, off := range [][2]float64{{0, 0}, {-1, -1}, {-1, 0}, {-1, 1}, {0, -1}, {0, 1}, {1, -1}, {1, 0}, {1, 1}} {
		name, err := exactlyAt(float64(place.LonDeg)+off[0]*gapDeg, float64(place.LatDeg)+off[1]*gapDeg)
		if name != "" || err != nil {
			return name, err
		}
	}
	return "", nil
}

func exactlyAt(lonDeg, latDeg float64) (string, error) {
	all, err := areas()
	if err != nil {
		return "", err
	}
	for _, area := range all {
		if !area.has(lonDeg, latDeg) {
			continue
		}
		borders, err := area.borders()
		if err != nil {
			return "", fmt.Errorf("unpack the time zone %s: %w", area.name, err)
		}
		if borders.GetTimezoneName(lonDeg, latDeg) != "" {
			return area.name, nil
		}
	}
	return "", nil
}
