package zone

import (
	"archive/zip"
	"compress/flate"
	"encoding/json"
	"fmt"
	"io"

	pb "github.com/ringsaturn/tzf/gen/go/tzf/v1"
	"github.com/ringsaturn/tzf/reduce"
	"google.golang.org/protobuf/proto"
)

// Pack writes the table that At reads, from the library's own: a zip with an entry for each zone,
// its box in the comment. The build calls it; the server does not.
func Pack(library []byte, out io.Writer) error {
	var all pb.CompressedTimezones
	if err := proto.Unmarshal(library, &all); err != nil {
		return fmt.Errorf("read the library's table: %w", err)
	}
	w := zip.NewWriter(out)
	w.RegisterCompressor(zip.Deflate, func(out io.Writer) (io.WriteCloser, error) {
		return flate.NewWriter(out, flate.BestCompression)
	})
	for _, zone := range all.Timezones {
		if err := packZone(w, &pb.CompressedTimezones{Method: all.Method, Version: all.Version, Timezones: []*pb.CompressedTimezone{zone}}); err != nil {
			return fmt.Errorf("pack %s: %w", zone.Name, err)
		}
	}
	return w.Close()
}

func packZone(w *zip.Writer, one *pb.CompressedTimezones) error {
	unpacked, err := reduce.Decompress(one)
	if err != nil {
		return err
	}
	around, err := json.Marshal(boxOf(unpacked.Timezones[0]))
	if err != nil {
		return err
	}
	packed, err := proto.Marshal(one)
	if err != nil {
		return err
	}
	entry, err := w.CreateHeader(&zip.FileHeader{Name: one.Timezones[0].Name, Comment: string(around), Method: zip.Deflate})
	if err != nil {
		return err
	}
	_, err = entry.Write(packed)
	return err
}

func boxOf(zone *pb.Timezone) box {
	b := box{West: 180, South: 90, East: -180, North: -90}
	for _, polygon := range zone.Polygons {
		for _, p := range polygon.Points {
			lon, lat := float64(p.Lng), float64(p.Lat)
			b = box{West: min(b.West, lon), South: min(b.South, lat), East: max(b.East, lon), North: max(b.North, lat)}
		}
	}
	return b
}
