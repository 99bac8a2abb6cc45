package files

import (
	"bytes"
	"fmt"
	"io"
	"math"
	"time"

	"github.com/bep/imagemeta"

	"pinhole/core/angle"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Still is how a picture was exposed, as its EXIF says.
type Still struct {
	Aperture stop.FNumber `json:"aperture"`
	ShutterS stop.Shutter `json:"shutterS"`
	ISO      stop.ISO     `json:"iso"`
	Text     string       `json:"text" doc:"as a reading is typed: f2 1/1250 iso50"`
	EV100    stop.EV      `json:"ev100" doc:"of the scene, where no glass was on"`
	TakenAt  *time.Time   `json:"takenAt,omitempty" doc:"with the zone it states; left out where it states no time or no zone"`
	Clock    string       `json:"clock,omitempty" doc:"the time on its clock, where its zone is not known"`
	Where    *Spot        `json:"where,omitempty"`
}

// MaxStillBytes is the most of a picture that is read: EXIF stands at its head.
const MaxStillBytes = 1 << 20

// exifTime is how EXIF writes an instant, and with its offset (Exif 2.32, 4.6.5).
const exifTime, exifTimeZone = "2006:01:02 15:04:05", "2006:01:02 15:04:05-07:00"

// ReadStill reads the exposure of a JPEG. Faults name "file".
func ReadStill(r io.Reader) (*Still, error) {
	head, err := io.ReadAll(io.LimitReader(r, MaxStillBytes))
	if err != nil {
		return nil, fmt.Errorf("read the still: %w", err)
	}
	tags, err := tagsOf(head)
	exif := tags.EXIF()
	if err != nil && len(exif) == 0 {
		return nil, &problem.Fault{Field: "file", Value: fmt.Sprintf("%.120s", err), Allowed: "a JPEG with EXIF"}
	}
	s := &Still{}
	for _, f := range []struct {
		tags  []string
		into  *float64
		least float64
		most  float64
		name  string
	}{
		{[]string{"FNumber"}, (*float64)(&s.Aperture), 0.5, 64, "aperture"},
		{[]string{"ExposureTime"}, (*float64)(&s.ShutterS), 1e-7, 86400, "shutter"},
		{[]string{"ISO", "ISOSpeedRatings", "PhotographicSensitivity"}, (*float64)(&s.ISO), 1, 1e7, "ISO"},
	} {
		for _, tag := range f.tags {
			if v, ok := number(exif[tag].Value); ok {
				*f.into = v
				break
			}
		}
		if !(*f.into >= f.least && *f.into <= f.most) { // nor is it no number
			return nil, &problem.Fault{Field: "file", Value: "no " + f.name, Allowed: "a still whose EXIF states aperture, shutter and ISO"}
		}
	}
	set := stop.Setting{Aperture: s.Aperture, Shutter: s.ShutterS, ISO: s.ISO}
	s.EV100 = set.EV()
	s.Text = fmt.Sprintf("f%.3g %v iso%.0f", float64(s.Aperture), s.ShutterS, float64(s.ISO))
	s.when(exif)
	s.Where = whereOf(tags)
	return s, nil
}

// tagsOf reads the EXIF of the head of a picture. What breaks the reader is no picture.
func tagsOf(head []byte) (tags imagemeta.Tags, err error) {
	defer func() {
		if cause := recover(); cause != nil {
			err = fmt.Errorf("its EXIF is broken: %v", cause)
		}
	}()
	_, err = imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(head), ImageFormat: imagemeta.JPEG, Sources: imagemeta.EXIF,
		ShouldHandleTag: func(imagemeta.TagInfo) bool { return true },
		HandleTag:       func(t imagemeta.TagInfo) error { tags.Add(t); return nil },
		Timeout:         5 * time.Second,
	})
	return tags, err
}

// whereOf returns where a still was taken, nil where it does not say so soundly: the library
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
func (s *Still) when(exif map[string]imagemeta.TagInfo) {
	clock, _ := exif["DateTimeOriginal"].Value.(string)
	zone, _ := exif["OffsetTimeOriginal"].Value.(string)
	if zone == "" {
		zone, _ = exif["OffsetTime"].Value.(string)
	}
	if t, err := time.Parse(exifTimeZone, clock+zone); err == nil {
		s.TakenAt = &t
		return
	}
	if t, err := time.Parse(exifTime, clock); err == nil {
		s.Clock = t.Format("2006-01-02T15:04:05")
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
