// Package exif reads what pictures say of how they were taken (Exif 2.32).
package exif

import (
	"bytes"
	"errors"
	"fmt"
	"math"
	"time"

	"github.com/bep/imagemeta"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Spot is a place on the earth.
type Spot struct {
	LatDeg angle.Deg `json:"latDeg"`
	LonDeg angle.Deg `json:"lonDeg"`
}

// Tags is what a picture says; what it does not say, or not soundly, is zero.
type Tags struct {
	Aperture    stop.FNumber
	ShutterS    stop.Shutter
	ISO         stop.ISO
	Orientation int // 1 to 8
	// TakenAt is when, where a zone is stated; else Clock is what its clock showed.
	TakenAt *time.Time
	Clock   string
	Where   *Spot
}

// Format is a kind of file that holds EXIF.
type Format = imagemeta.ImageFormat

// FormatOf returns the format that the head of a picture says; ok is false for one whose EXIF is
// not read. Raw files of most cameras are TIFF inside.
func FormatOf(head []byte) (f Format, ok bool) {
	starts := func(at int, with string) bool {
		return len(head) >= at+len(with) && string(head[at:at+len(with)]) == with
	}
	isTIFF := starts(0, "II*\x00") || starts(0, "MM\x00*")
	switch {
	case starts(0, "\xff\xd8\xff"):
		return imagemeta.JPEG, true
	case starts(0, "\x89PNG\r\n\x1a\n"):
		return imagemeta.PNG, true
	case starts(4, "ftypavif"), starts(4, "ftypavis"):
		return imagemeta.AVIF, true
	case starts(4, "ftyphei"), starts(4, "ftyphev"), starts(4, "ftypmif1"), starts(4, "ftypmsf1"):
		return imagemeta.HEIF, true
	case isTIFF && starts(8, "CR"):
		return imagemeta.CR2, true
	case isTIFF:
		return imagemeta.DNG, true
	}
	return 0, false
}

// MaxHeadBytes is the most of a picture that is read: EXIF stands at its head.
const MaxHeadBytes = 1 << 20

// exifTime is how EXIF writes an instant, and with its offset (Exif 2.32, 4.6.5).
const exifTime, exifTimeZone = "2006:01:02 15:04:05", "2006:01:02 15:04:05-07:00"

// ErrFormat is the error of what is no picture whose EXIF is read.
var ErrFormat = errors.New("it is no JPEG, PNG, HEIC, AVIF or raw file of a camera")

// Read returns what the head of a picture says. Broken EXIF says nothing; TryRead says why.
func Read(picture []byte) Tags {
	tags, _ := TryRead(picture)
	return tags
}

// TryRead returns what the head of a picture says, and an error where it cannot be read.
func TryRead(picture []byte) (Tags, error) {
	format, ok := FormatOf(picture)
	if !ok {
		return Tags{}, ErrFormat
	}
	all, err := tagsOf(picture[:min(len(picture), MaxHeadBytes)], format)
	exif := all.EXIF()
	var t Tags
	t.Aperture = stop.FNumber(within(exif, 0.5, 64, "FNumber"))
	t.ShutterS = stop.Shutter(within(exif, 1e-7, 86400, "ExposureTime"))
	t.ISO = stop.ISO(within(exif, 1, 1e7, "ISO", "ISOSpeedRatings", "PhotographicSensitivity"))
	t.Orientation = int(within(exif, 1, 8, "Orientation"))
	t.when(exif)
	t.Where = whereOf(all)
	if len(exif) > 0 {
		err = nil // what could be read is said
	}
	return t, err
}

// within returns the first of some tags that is there, 0 where it is out of range.
func within(exif map[string]imagemeta.TagInfo, least, most float64, names ...string) float64 {
	for _, name := range names {
		if v, ok := number(exif[name].Value); ok {
			if v >= least && v <= most { // nor is it no number
				return v
			}
			return 0
		}
	}
	return 0
}

// tagsOf reads the EXIF of the head of a picture. What breaks the reader is no picture.
func tagsOf(head []byte, format Format) (tags imagemeta.Tags, err error) {
	defer func() {
		if cause := recover(); cause != nil {
			err = fmt.Errorf("its EXIF is broken: %v", cause)
		}
	}()
	_, err = imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(head), ImageFormat: format, Sources: imagemeta.EXIF,
		ShouldHandleTag: func(imagemeta.TagInfo) bool { return true },
		HandleTag:       func(t imagemeta.TagInfo) error { tags.Add(t); return nil },
		Timeout:         5 * time.Second,
	})
	return tags, err
}

// whereOf returns where a picture was taken, nil where it does not say so soundly: the library
// takes the type of a reference for granted.
func whereOf(tags imagemeta.Tags) (where *Spot) {
	defer func() {
		if recover() != nil {
			where = nil
		}
	}()
	lat, lon, err := tags.GetLatLong()
	if err != nil || lat == 0 && lon == 0 || !(math.Abs(lat) <= 90 && math.Abs(lon) <= 180) {
		return nil
	}
	return &Spot{angle.Deg(lat), angle.Deg(lon)}
}

// when takes the time, whose zone EXIF keeps apart and often leaves out.
func (t *Tags) when(exif map[string]imagemeta.TagInfo) {
	clock, _ := exif["DateTimeOriginal"].Value.(string)
	zone, _ := exif["OffsetTimeOriginal"].Value.(string)
	if zone == "" {
		zone, _ = exif["OffsetTime"].Value.(string)
	}
	if at, err := time.Parse(exifTimeZone, clock+zone); err == nil {
		t.TakenAt = &at
		return
	}
	if at, err := time.Parse(exifTime, clock); err == nil {
		t.Clock = at.Format("2006-01-02T15:04:05")
	}
}

// number returns a tag's value as a number.
func number(v any) (float64, bool) {
	switch v := v.(type) {
	case float64:
		return v, true
	case float32:
		return float64(v), true
	case interface{ Float64() float64 }: // a rational
		return v.Float64(), true
	case uint16:
		return float64(v), true
	case uint32:
		return float64(v), true
	case int64:
		return float64(v), true
	case []uint16:
		if len(v) > 0 {
			return float64(v[0]), true
		}
	}
	return 0, false
}
