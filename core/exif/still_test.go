package exif

import (
	"bytes"
	"encoding/binary"
	"errors"
	"flag"
	"image"
	"image/png"
	"math"
	"os"
	"testing"
	"time"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

var update = flag.Bool("update", false, "write testdata anew")

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
	file, err := os.ReadFile("testdata/noon.jpg")
	if err != nil {
		t.Fatal(err)
	}
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
	bare, err := ReadStill(jpegWith([]exifEntry{
		{0x829a, 5, 1, rational(1, 50)}, {0x829d, 5, 1, rational(28, 10)}, {0x8827, 3, 1, []byte{200, 0}}, ascii(0x9003, "2031:09:20 07:20:00"),
	}, nil))
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
		_, err := ReadStill(file)
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
		s, err := ReadStill(jpegWith(exposure, gps))
		if err != nil || s.Where != nil {
			t.Errorf("%s: %+v, %v", name, s, err)
		}
	}
}

func FuzzReadStill(f *testing.F) {
	f.Add(noon())
	f.Fuzz(func(t *testing.T, file []byte) {
		s, err := ReadStill(file)
		if err == nil && !(s.Aperture > 0 && s.ShutterS > 0 && s.ISO > 0) {
			t.Errorf("%x is read as %+v", file, s)
		}
	})
}

// tiffWith returns the block that jpegWith puts into a JPEG.
func tiffWith(exif []exifEntry) []byte {
	picture := jpegWith(exif, nil)
	return picture[12 : len(picture)-2]
}

// What is written of an exposure is read again, from a PNG and as a raw file.
func TestAnExposureIsWrittenAndReadAgain(t *testing.T) {
	for _, set := range []stop.Setting{{Aperture: 2.8, Shutter: 1.0 / 4000, ISO: 100}, {Aperture: 1.7, Shutter: 2.5, ISO: 51200}} {
		var plain bytes.Buffer
		if err := png.Encode(&plain, image.NewGray(image.Rect(0, 0, 2, 2))); err != nil {
			t.Fatal(err)
		}
		marked := IntoPNG(plain.Bytes(), set)
		if _, err := png.Decode(bytes.NewReader(marked)); err != nil {
			t.Errorf("what is marked is no PNG: %v", err)
		}
		for name, file := range map[string][]byte{"PNG": marked, "raw": Block(set)} {
			s, err := ReadStill(file)
			if err != nil || math.Abs(float64(s.Aperture/set.Aperture-1)) > 1e-3 || math.Abs(float64(s.ShutterS/set.Shutter-1)) > 1e-5 || s.ISO != set.ISO {
				t.Errorf("%s: %+v, %v, want %+v", name, s, err, set)
			}
		}
	}
}

func TestFormatsAreToldByTheirFirstBytes(t *testing.T) {
	box := func(brand string) []byte { return []byte("\x00\x00\x00\x18ftyp" + brand + "\x00\x00\x00\x00") }
	for head, want := range map[string]string{
		string(noon()): "JPEG", string(box("heic")): "HEIF", string(box("mif1")): "HEIF", string(box("avif")): "AVIF",
		"II*\x00\x10\x00\x00\x00CR": "CR2", string(tiffWith(nil)): "DNG", "MM\x00*": "DNG", "\x89PNG\r\n\x1a\n": "PNG",
	} {
		if f, ok := FormatOf([]byte(head)); !ok || f.String() != want {
			t.Errorf("%.12q is %v, want %s", head, f, want)
		}
	}
	for _, head := range []string{"", "GIF89a", string(box("isom")), "f2 1/1000"} {
		if f, ok := FormatOf([]byte(head)); ok {
			t.Errorf("%q is taken for %v", head, f)
		}
	}
}

// A HEIC and an AVIF of the simulated camera say what its PNG said.
func TestOtherFormatsSayTheSame(t *testing.T) {
	for _, name := range []string{"lamp.heic", "lamp.avif"} {
		file, err := os.ReadFile("testdata/" + name)
		if err != nil {
			t.Fatal(err)
		}
		if s, err := ReadStill(file); err != nil || s.Text != "f2.8 1/1045 iso100" {
			t.Errorf("%s: %+v, %v", name, s, err)
		}
	}
}
