package files

import (
	"bytes"
	"encoding/binary"
	"encoding/csv"
	"errors"
	"flag"
	"fmt"
	"os"
	"runtime"
	"strings"
	"testing"
	"time"

	"pinhole/core/problem"
)

var update = flag.Bool("update", false, "write testdata anew")

// track is a way of so many points, a second and about 5 m apart, northwards.
func track(points int, point func(i int) string) string {
	var b strings.Builder
	b.WriteString(`<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>`)
	for i := range points {
		b.WriteString(point(i))
	}
	b.WriteString(`</trkseg></trk></gpx>`)
	return b.String()
}

func north(i int) string {
	return fmt.Sprintf(`<trkpt lat="%.7f" lon="-20.5"><ele>12</ele><time>2031-09-20T11:%02d:%02dZ</time></trkpt>`, 38.4+float64(i)*5/111195, i/60, i%60)
}

func TestATrackSaysWhereWhenAndHowFast(t *testing.T) {
	got, err := ReadTrack(strings.NewReader(track(121, north)))
	if err != nil {
		t.Fatal(err)
	}
	if got.Points != 121 || got.From.Format(time.RFC3339) != "2031-09-20T11:00:00Z" || got.To.Sub(*got.From) != 2*time.Minute || got.StartAt.LatDeg != 38.4 {
		t.Errorf("%+v", got)
	}
	if v := got.Speeds; v.Median < 4.98 || v.Fastest > 5.02 {
		t.Errorf("five metres a second are read as %+v", *v)
	}
	still, err := ReadTrack(strings.NewReader(track(3, func(int) string { return `<trkpt lat="1" lon="2"/>` })))
	if err != nil || still.From != nil || still.Speeds != nil {
		t.Errorf("without times: %+v, %v", still, err)
	}
}

func TestHostileTracksAreRefused(t *testing.T) {
	bomb := `<?xml version="1.0"?><!DOCTYPE gpx [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><gpx><trk><trkseg><trkpt lat="1" lon="1"><time>&b;</time></trkpt></trkseg></trk></gpx>`
	for name, file := range map[string]string{
		"a bomb of entities": bomb, "an unknown entity": `<gpx><trkpt lat="1" lon="1"><time>&b;</time></trkpt></gpx>`,
		"nothing": "", "no point": `<gpx></gpx>`, "no track": `<html><trkpt lat="1" lon="1"/></html>`, "cut short": track(3, north)[:200],
		"off the earth": track(1, func(int) string { return `<trkpt lat="91" lon="0"/>` }), "not a number": track(1, func(int) string { return `<trkpt lat="NaN" lon="0"/>` }),
		"no place": track(1, func(int) string { return `<trkpt/>` }), "no time": track(1, func(int) string { return `<trkpt lat="1" lon="0"><time>noon</time></trkpt>` }),
		"too many": track(maxPoints+1, func(int) string { return `<trkpt lat="1" lon="0"/>` }), "a picture": "\xff\xd8\xff\xe1",
	} {
		_, err := ReadTrack(strings.NewReader(file))
		var fault *problem.Fault
		if !errors.As(err, &fault) || fault.Field != "file" || len(fmt.Sprint(fault.Value)) > 300 {
			t.Errorf("%s gives %v", name, err)
		}
	}
}

// What is no track is found out without reading all of it into memory.
func TestLargeHostileTracksCostLittle(t *testing.T) {
	const size = 32 << 20
	for name, file := range map[string]string{
		"nested":     "<gpx>" + strings.Repeat("<a>", size/3),
		"attributes": "<gpx " + strings.Repeat(`a="" `, size/5) + ">",
		"one name":   "<" + strings.Repeat("a", size),
		"one text":   `<gpx><trk><trkseg><trkpt lat="1" lon="1"><time>` + strings.Repeat("9", size),
	} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, err := ReadTrack(strings.NewReader(file))
		runtime.ReadMemStats(&after)
		if used := after.TotalAlloc - before.TotalAlloc; err == nil || used > 64<<20 {
			t.Errorf("%s: %d MB were allocated, %v", name, used>>20, err)
		}
	}
}

func FuzzReadTrack(f *testing.F) {
	f.Add(track(3, north))
	f.Fuzz(func(t *testing.T, file string) {
		got, err := ReadTrack(strings.NewReader(file))
		if err == nil && (got.Points == 0 || got.Bounds.South > got.Bounds.North) {
			t.Errorf("%q is read as %+v", file, got)
		}
	})
}

// exifEntry is a tag of a TIFF directory, its value in four bytes or behind an offset.
type exifEntry struct {
	tag, kind uint16
	count     uint32
	value     []byte
}

// jpegWith returns a JPEG that holds EXIF and no picture (Exif 2.32, 4.5.4 and 4.6).
func jpegWith(exif, gps []exifEntry) []byte {
	le := binary.LittleEndian
	var tiff bytes.Buffer
	tiff.WriteString("II*\x00\x08\x00\x00\x00")
	directory := func(entries []exifEntry) {
		at := tiff.Len()
		extra := at + 2 + 12*len(entries) + 4
		var head, tail []byte
		head = le.AppendUint16(head, uint16(len(entries)))
		for _, e := range entries {
			head = le.AppendUint16(le.AppendUint16(head, e.tag), e.kind)
			head = le.AppendUint32(head, e.count)
			if len(e.value) <= 4 {
				head = append(head, append(append([]byte{}, e.value...), make([]byte, 4-len(e.value))...)...)
				continue
			}
			head = le.AppendUint32(head, uint32(extra+len(tail)))
			tail = append(tail, e.value...)
		}
		head = le.AppendUint32(head, 0)
		tiff.Write(head)
		tiff.Write(tail)
	}
	size := func(entries []exifEntry) int {
		n := 2 + 12*len(entries) + 4
		for _, e := range entries {
			if len(e.value) > 4 {
				n += len(e.value)
			}
		}
		return n
	}
	pointer := func(tag uint16, at int) exifEntry { return exifEntry{tag, 4, 1, le.AppendUint32(nil, uint32(at))} }
	exifAt := 8 + 2 + 12*2 + 4
	directory([]exifEntry{pointer(0x8769, exifAt), pointer(0x8825, exifAt+size(exif))})
	directory(exif)
	directory(gps)
	segment := append([]byte("Exif\x00\x00"), tiff.Bytes()...)
	out := []byte{0xff, 0xd8, 0xff, 0xe1}
	out = binary.BigEndian.AppendUint16(out, uint16(len(segment)+2))
	return append(append(out, segment...), 0xff, 0xd9)
}

func rational(pairs ...uint32) []byte {
	var b []byte
	for _, v := range pairs {
		b = binary.LittleEndian.AppendUint32(b, v)
	}
	return b
}

func ascii(tag uint16, text string) exifEntry {
	return exifEntry{tag, 2, uint32(len(text) + 1), append([]byte(text), 0)}
}

// noon is a still of the made-up island: f/2, 1/1000, ISO 100 at 12:00.
func noon() []byte {
	return jpegWith([]exifEntry{
		{0x829a, 5, 1, rational(1, 1000)}, {0x829d, 5, 1, rational(2, 1)}, {0x8827, 3, 1, []byte{100, 0}},
		ascii(0x9003, "2031:09:20 12:00:00"), ascii(0x9011, "-01:00"),
	}, []exifEntry{
		ascii(1, "N"), {2, 5, 3, rational(38, 1, 24, 1, 0, 1)}, ascii(3, "W"), {4, 5, 3, rational(20, 1, 30, 1, 0, 1)},
	})
}

func TestAStillSaysHowItWasExposed(t *testing.T) {
	if *update {
		if err := os.WriteFile("testdata/noon.jpg", noon(), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	file, err := os.Open("testdata/noon.jpg")
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	s, err := ReadStill(file)
	if err != nil {
		t.Fatal(err)
	}
	if s.Text != "f2 1/1000 iso100" || s.EV100 < 11.96 || s.EV100 > 11.97 || s.TakenAt == nil || s.TakenAt.Format(time.RFC3339) != "2031-09-20T12:00:00-01:00" {
		t.Errorf("%+v", s)
	}
	if s.Where == nil || s.Where.LatDeg < 38.399 || s.Where.LatDeg > 38.401 || s.Where.LonDeg > -20.499 {
		t.Errorf("taken at %+v", s.Where)
	}
	// Without a zone the clock is given as it stands, and no place is no place.
	bare, err := ReadStill(bytes.NewReader(jpegWith([]exifEntry{
		{0x829a, 5, 1, rational(1, 50)}, {0x829d, 5, 1, rational(28, 10)}, {0x8827, 3, 1, []byte{200, 0}}, ascii(0x9003, "2031:09:20 07:20:00"),
	}, nil)))
	if err != nil || bare.TakenAt != nil || bare.Clock != "2031-09-20T07:20:00" || bare.Where != nil {
		t.Errorf("%+v, %v", bare, err)
	}
}

func TestHostileStillsAreRefused(t *testing.T) {
	huge := jpegWith([]exifEntry{{0x829a, 5, 0xffffffff, rational(1, 1000)}, {0x829d, 5, 0x7fffffff, rational(2, 1)}}, nil)
	for name, file := range map[string][]byte{
		"nothing": nil, "text": []byte("f2 1/1000"), "absurd sizes": huge, "no exposure": jpegWith([]exifEntry{ascii(0x9003, "2031:09:20 12:00:00")}, nil),
		"an endless shutter": jpegWith([]exifEntry{{0x829a, 5, 1, rational(1, 0)}, {0x829d, 5, 1, rational(2, 1)}, {0x8827, 3, 1, []byte{100, 0}}}, nil),
		"no number":          jpegWith([]exifEntry{{0x829a, 5, 1, rational(1, 1000)}, {0x829d, 5, 1, rational(0, 0)}, {0x8827, 3, 1, []byte{100, 0}}}, nil),
		"next to no light":   jpegWith([]exifEntry{{0x829a, 5, 1, rational(1, 0xffffffff)}, {0x829d, 5, 1, rational(2, 1)}, {0x8827, 3, 1, []byte{100, 0}}}, nil),
		"cut short":          noon()[:60],
	} {
		_, err := ReadStill(bytes.NewReader(file))
		var fault *problem.Fault
		if !errors.As(err, &fault) || fault.Field != "file" {
			t.Errorf("%s gives %v", name, err)
		}
	}
}

// A place whose reference is a number, or whose degrees are text, is no place; the exposure
// is read all the same.
func TestABrokenPlaceIsNoPlace(t *testing.T) {
	exposure := []exifEntry{{0x829a, 5, 1, rational(1, 1000)}, {0x829d, 5, 1, rational(2, 1)}, {0x8827, 3, 1, []byte{100, 0}}}
	degrees := func(tag uint16, deg uint32) exifEntry { return exifEntry{tag, 5, 3, rational(deg, 1, 0, 1, 0, 1)} }
	for name, gps := range map[string][]exifEntry{
		"a number":   {{1, 3, 1, []byte{78, 0}}, degrees(2, 38), {3, 4, 1, rational(1)[:4]}, degrees(4, 20)},
		"a rational": {{1, 5, 1, rational(1, 1)}, degrees(2, 38), ascii(3, "W"), degrees(4, 20)},
		"text":       {ascii(1, "N"), ascii(2, "38"), ascii(3, "W"), ascii(4, "20")},
		"none":       {ascii(1, ""), {2, 5, 1, rational(38, 0)}},
	} {
		s, err := ReadStill(bytes.NewReader(jpegWith(exposure, gps)))
		if err != nil || s.Where != nil {
			t.Errorf("%s: %+v, %v", name, s, err)
		}
	}
}

func FuzzReadStill(f *testing.F) {
	f.Add(noon())
	f.Fuzz(func(t *testing.T, file []byte) {
		s, err := ReadStill(bytes.NewReader(file))
		if err == nil && !(s.Aperture > 0 && s.ShutterS > 0 && s.ISO > 0) {
			t.Errorf("%x is read as %+v", file, s)
		}
	})
}

func TestAPlanAsATableRunsNoFormula(t *testing.T) {
	at := time.Date(2031, 9, 20, 12, 0, 0, 0, time.FixedZone("", -3600))
	p := Plan{Shots: []Shot{{Name: "=SUM(1)", From: at, To: at.Add(time.Hour), Glass: "ND8"}, {Name: "later", From: at.Add(3 * time.Hour), To: at.Add(4 * time.Hour)}},
		Swaps: []Swap{{At: at.Add(3 * time.Hour), From: "ND8", To: "ND4", Latest: &at, Why: "light"}}}
	var file bytes.Buffer
	if err := WritePlanCSV(&file, p); err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(&file).ReadAll()
	if err != nil || len(rows) != 4 || rows[1][3] != "'=SUM(1)" || rows[2][0] != "swap" || rows[3][3] != "later" || rows[1][1] != "2031-09-20T12:00:00-01:00" {
		t.Errorf("%q, %v", rows, err)
	}
}
