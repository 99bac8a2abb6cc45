package files

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"pinhole/core/angle"
	"pinhole/core/exif"
	"pinhole/core/problem"
)

// Track is what a recorded way says of a shoot: where, when and how fast.
type Track struct {
	Points  int        `json:"points"`
	From    *time.Time `json:"from" doc:"null where its points carry no time"`
	To      *time.Time `json:"to"`
	StartAt Spot       `json:"startAt"`
	Middle  Spot       `json:"middle" doc:"of the box around all points"`
	Bounds  Bounds     `json:"bounds"`
	// Speeds are percentiles over time; nil where the points carry no time.
	Speeds *Speeds `json:"speedMps,omitempty" doc:"left out where its points carry no time"`
}

// Spot is a place.
type Spot = exif.Spot

// Bounds is the box around a track.
type Bounds struct {
	South angle.Deg `json:"southDeg"`
	North angle.Deg `json:"northDeg"`
	West  angle.Deg `json:"westDeg"`
	East  angle.Deg `json:"eastDeg"`
}

// Speeds are percentiles of speed over ground, metres a second.
type Speeds struct {
	Median  float64 `json:"p50"`
	Ninety  float64 `json:"p90"`
	Fastest float64 `json:"max"`
}

// maxPoints bounds a track: two days at one point a second.
const maxPoints = 200_000

// What a track needs of XML: elements within elements, attributes of one, and bytes between
// two tokens. Beyond, a file is no track, whatever it costs to find out.
const (
	maxDepth      = 32
	maxAttributes = 32
	maxTokenBytes = 1 << 20
)

// ReadTrack reads a GPX file (GPX 1.1), its tracks and routes joined in their order.
// Faults name "file".
func ReadTrack(r io.Reader) (*Track, error) {
	allowance := &allowance{r: r}
	d := xml.NewDecoder(allowance) // strict: it knows no entities but XML's own five
	t := &trackReader{}
	for depth := 0; ; {
		allowance.left = maxTokenBytes
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			return t.sum()
		}
		if err != nil {
			return nil, notGPX(err.Error())
		}
		switch token := token.(type) {
		case xml.Directive:
			return nil, notGPX("a document type is declared, which no track needs")
		case xml.StartElement:
			if depth++; depth > maxDepth || len(token.Attr) > maxAttributes {
				return nil, notGPX("elements deeper or with more attributes than any track has")
			}
			err = t.start(token)
		case xml.CharData:
			t.said(token)
		case xml.EndElement:
			depth--
			err = t.end(token)
		}
		if err != nil {
			return nil, err
		}
	}
}

// allowance reads no more than is left; who reads sets that anew.
type allowance struct {
	r    io.Reader
	left int
}

func (a *allowance) Read(p []byte) (int, error) {
	if a.left <= 0 {
		return 0, errors.New("an element longer than any track has")
	}
	n, err := a.r.Read(p[:min(len(p), a.left)])
	a.left -= n
	return n, err
}

func notGPX(why string) error {
	if len(why) > 200 {
		why = why[:200]
	}
	return &problem.Fault{Field: "file", Value: why, Allowed: "a GPX track"}
}

type fix struct {
	lat, lon float64
	at       time.Time
}

type trackReader struct {
	isGPX bool
	fixes []fix
	point *fix   // that is being read
	clock []byte // the text of its time, nil outside of that
}

func (t *trackReader) start(e xml.StartElement) error {
	switch e.Name.Local {
	case "gpx":
		t.isGPX = true
	case "trkpt", "rtept":
		if !t.isGPX {
			return notGPX("points outside of a gpx element")
		}
		if len(t.fixes) == maxPoints {
			return &problem.Fault{Field: "file", Value: fmt.Sprintf("more than %d points", maxPoints), Allowed: fmt.Sprintf("at most %d points", maxPoints)}
		}
		lat, err1 := coordinate(e, "lat", 90)
		lon, err2 := coordinate(e, "lon", 180)
		if err1 != nil || err2 != nil || t.point != nil {
			return &problem.Fault{Field: "file", Value: fmt.Sprintf("point %d", len(t.fixes)+1), Allowed: "a latitude from -90 to 90 and a longitude from -180 to 180 at every point"}
		}
		t.point = &fix{lat: lat, lon: lon}
	case "time":
		if t.point != nil {
			t.clock = []byte{}
		}
	}
	return nil
}

func coordinate(e xml.StartElement, name string, most float64) (float64, error) {
	for _, a := range e.Attr {
		if a.Name.Local == name {
			v, err := strconv.ParseFloat(strings.TrimSpace(a.Value), 64)
			if err == nil && !(math.Abs(v) <= most) {
				err = strconv.ErrRange
			}
			return v, err
		}
	}
	return 0, strconv.ErrSyntax
}

// longestClock bounds the text of a time.
const longestClock = 64

func (t *trackReader) said(text xml.CharData) {
	if t.clock != nil && len(t.clock) < longestClock {
		t.clock = append(t.clock, text[:min(len(text), longestClock)]...)
	}
}

func (t *trackReader) end(e xml.EndElement) error {
	switch e.Name.Local {
	case "trkpt", "rtept":
		t.fixes = append(t.fixes, *t.point)
		t.point = nil
	case "time":
		text := strings.TrimSpace(string(t.clock))
		t.clock = nil
		if text == "" || t.point == nil {
			return nil
		}
		var err error
		if t.point.at, err = time.Parse(time.RFC3339, text); err != nil || t.point.at.UTC().Year() < 1970 || t.point.at.UTC().Year() > 2200 {
			return &problem.Fault{Field: "file", Value: fmt.Sprintf("point %d has the time %.40q", len(t.fixes)+1, text), Allowed: "a time with its zone, as in 2031-09-20T07:30:00Z"}
		}
	}
	return nil
}

// sum says what the points come to.
func (t *trackReader) sum() (*Track, error) {
	if len(t.fixes) == 0 {
		return nil, notGPX("there is no point in it")
	}
	first := t.fixes[0]
	out := &Track{Points: len(t.fixes), StartAt: Spot{LatDeg: angle.Deg(first.lat), LonDeg: angle.Deg(first.lon)}}
	b := &out.Bounds
	b.South, b.North, b.West, b.East = 90, -90, 180, -180
	var speeds []weighted
	var before fix
	for i, f := range t.fixes {
		b.South, b.North = min(b.South, angle.Deg(f.lat)), max(b.North, angle.Deg(f.lat))
		b.West, b.East = min(b.West, angle.Deg(f.lon)), max(b.East, angle.Deg(f.lon))
		if !f.at.IsZero() {
			at := f.at
			if out.From == nil || at.Before(*out.From) {
				out.From = &at
			}
			if out.To == nil || at.After(*out.To) {
				out.To = &at
			}
			if seconds := f.at.Sub(before.at).Seconds(); i > 0 && !before.at.IsZero() && seconds > 0 && seconds < 60 {
				speeds = append(speeds, weighted{metres(before, f) / seconds, seconds})
			}
		}
		before = f
	}
	out.Middle = Spot{LatDeg: (b.South + b.North) / 2, LonDeg: (b.West + b.East) / 2}
	if len(speeds) > 0 {
		out.Speeds = percentiles(speeds)
	}
	return out, nil
}

type weighted struct{ speed, seconds float64 }

// percentiles returns the speeds below which half and nine tenths of the time passed.
func percentiles(all []weighted) *Speeds {
	slices.SortFunc(all, func(a, b weighted) int {
		switch {
		case a.speed < b.speed:
			return -1
		case a.speed > b.speed:
			return 1
		}
		return 0
	})
	total := 0.0
	for _, w := range all {
		total += w.seconds
	}
	at := func(share float64) float64 {
		passed := 0.0
		for _, w := range all {
			if passed += w.seconds; passed >= share*total {
				return w.speed
			}
		}
		return all[len(all)-1].speed
	}
	return &Speeds{at(0.5), at(0.9), all[len(all)-1].speed}
}

// earthM is the mean radius of the earth in metres (IUGG).
const earthM = 6_371_008.8

// metres returns the great-circle distance between two fixes (haversine formula).
func metres(a, b fix) float64 {
	rad := func(deg float64) float64 { return angle.Deg(deg).Radians() }
	sinLat, sinLon := math.Sin(rad(b.lat-a.lat)/2), math.Sin(rad(b.lon-a.lon)/2)
	h := sinLat*sinLat + math.Cos(rad(a.lat))*math.Cos(rad(b.lat))*sinLon*sinLon
	return 2 * earthM * math.Asin(math.Min(1, math.Sqrt(h)))
}
