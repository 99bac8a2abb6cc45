package measure

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strings"

	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/core/table"
)

// mostRows bounds a log.
const mostRows = 2_000_000

// row is one sample of a log; what it does not say is NaN.
type row struct {
	t                                 float64 // seconds
	shutter, iso, aperture, bias, fps float64
	latDeg, lonDeg, altitudeM         float64
}

func emptyRow() row {
	nan := math.NaN()
	return row{nan, nan, nan, nan, nan, nan, nan, nan, nan}
}

// field is what a key of a log means, with how its value is read.
type field struct {
	keys []string
	of   func(*row) *float64
	read func(text, unit string) (float64, error)
}

var fields = []field{
	{[]string{"iso", "gain"}, func(r *row) *float64 { return &r.iso }, positive},
	{[]string{"shutter", "shutter_speed", "ss", "tv", "exposure_time"}, func(r *row) *float64 { return &r.shutter }, readShutter},
	{[]string{"fnum", "f", "f_number", "aperture", "av"}, func(r *row) *float64 { return &r.aperture }, readAperture},
	{[]string{"ev", "bias", "exposure_bias", "exposure_compensation"}, func(r *row) *float64 { return &r.bias }, plain},
	{[]string{"fps", "frame_rate"}, func(r *row) *float64 { return &r.fps }, positive},
	{[]string{"lat", "latitude"}, func(r *row) *float64 { return &r.latDeg }, plain},
	{[]string{"lon", "lng", "longitude"}, func(r *row) *float64 { return &r.lonDeg }, plain},
	{[]string{"alt", "altitude", "height"}, func(r *row) *float64 { return &r.altitudeM }, plain},
	{[]string{"time", "t", "timestamp"}, func(r *row) *float64 { return &r.t }, readTime},
}

// fieldOf returns the field that a key names.
func fieldOf(key string) (field, bool) {
	key = strings.NewReplacer(" ", "_", "-", "_").Replace(strings.ToLower(strings.TrimSpace(key)))
	i := slices.IndexFunc(fields, func(f field) bool { return slices.Contains(f.keys, key) })
	if i < 0 {
		return field{}, false
	}
	return fields[i], true
}

// Units of time, in seconds.
var timeUnits = map[string]float64{"s": 1, "ms": 1e-3, "us": 1e-6, "µs": 1e-6, "ns": 1e-9}

// leading is a number at the start of a value, whatever stands after it.
var leading = regexp.MustCompile(`^[+\-−]?\d+(?:[.,]\d+)?`)

func plain(text, _ string) (float64, error) { return stop.ParseSigned(leading.FindString(text)) }

func positive(text, _ string) (float64, error) {
	v, err := plain(text, "")
	if err == nil && !(v > 0) {
		err = fmt.Errorf("%q is not positive", text)
	}
	return v, err
}

func readTime(text, unit string) (float64, error) {
	v, err := plain(text, "")
	return v * orSeconds(unit), err
}

func orSeconds(unit string) float64 {
	if of, ok := timeUnits[unit]; ok {
		return of
	}
	return 1
}

// readShutter reads 1/500, 0.002s, 2" or 500, which is its fraction as cameras show it. An angle
// is not read: what it lasts is not in its row.
func readShutter(text, unit string) (float64, error) {
	text = strings.TrimSpace(text)
	if top, bottom, isFraction := strings.Cut(text, "/"); isFraction {
		a, err := positive(strings.TrimSpace(top), "")
		if err != nil {
			return 0, err
		}
		b, err := positive(strings.TrimSpace(bottom), "")
		return a / b, err
	}
	number := leading.FindString(text)
	v, err := positive(text, "")
	rest := strings.ToLower(strings.TrimSpace(strings.TrimPrefix(text, number)))
	switch {
	case err != nil:
		return 0, err
	case strings.HasPrefix(rest, "°"), strings.HasPrefix(rest, "deg"):
		return 0, fmt.Errorf("%q is an angle", text)
	case timeUnits[unit] != 0:
		return v * timeUnits[unit], nil
	case timeUnits[rest] != 0:
		return v * timeUnits[rest], nil
	case rest == "sec", rest == "seconds", rest == `"`, rest == "″":
		return v, nil
	case v >= 1:
		return 1 / v, nil
	}
	return v, nil
}

// readAperture reads 2.8, f/2.8 or F2.8; above f/64 it is written in hundredths.
func readAperture(text, _ string) (float64, error) {
	text = strings.TrimLeft(strings.ToLower(strings.TrimSpace(text)), "f/")
	v, err := positive(text, "")
	if v > 64 {
		v /= 100
	}
	return v, err
}

// table is a log as it was read.
type logTable struct {
	format string
	rows   []row
	// last is when the last sample ends, where the file says so; else NaN.
	last float64
}

// readLog reads SubRip or CSV.
func readLog(file File) (*logTable, error) {
	fault := func(value string) error {
		return &problem.Fault{Field: "file", Value: file.Name + ": " + value, Allowed: "subtitles (SubRip) of keys and values, or a table (CSV) with a heading of time, shutter, iso and the like"}
	}
	body := bytes.TrimPrefix(file.Bytes, []byte("\uFEFF"))
	if len(bytes.TrimSpace(body)) == 0 {
		return nil, fault("it is empty")
	}
	if bytes.IndexByte(body, 0) >= 0 {
		return nil, fault("it is no text")
	}
	if cueTimes.Match(firstLines(body)) {
		return readSubRip(body, fault)
	}
	return readTable(file.Bytes, fault)
}

// firstLines is as much of a file as tells its format.
func firstLines(body []byte) []byte { return body[:min(len(body), 4096)] }

// cueTimes are the times of a cue of SubRip: 00:00:01,000 --> 00:00:02,000.
var cueTimes = regexp.MustCompile(`(?m)^\s*(\d+):(\d+):(\d+)[,.](\d+)\s*-->\s*(\d+):(\d+):(\d+)[,.](\d+)`)

var (
	tags = regexp.MustCompile(`<[^>\n]*>|[\[\](){}]`)
	// said is a key and a value, whose unit may stand apart; a key may have several words, of
	// which the first may belong to what stands before.
	said = regexp.MustCompile(`([A-Za-z][A-Za-z_]*(?:[ -][A-Za-z_]+)*)\s*[:=]\s*([^\s,;]+(?:,\d+)?(?: (?:s|ms|us|µs|ns|sec|seconds|deg)\b)?)`)
)

// readSubRip reads cues whose text says keys and values. SubRip is read here, and not by a
// library of subtitles: those bring a network with them, which the page would carry.
func readSubRip(body []byte, fault func(string) error) (*logTable, error) {
	out := &logTable{format: "subrip", last: math.NaN()}
	lines := bufio.NewScanner(bytes.NewReader(body))
	lines.Buffer(make([]byte, 0, 64<<10), 1<<20)
	isOpen := false
	for lines.Scan() {
		line := lines.Text()
		if m := cueTimes.FindStringSubmatch(line); m != nil {
			if len(out.rows) == mostRows {
				return nil, fault(fmt.Sprintf("more than %d rows", mostRows))
			}
			r := emptyRow()
			r.t = clockOf(m[1:5])
			out.last = clockOf(m[5:9])
			out.rows = append(out.rows, r)
			isOpen = true
			continue
		}
		if isOpen {
			out.rows[len(out.rows)-1].takeWords(tags.ReplaceAllString(line, " "))
		}
	}
	if lines.Err() != nil {
		return nil, fault("a line of more than a megabyte")
	}
	return out, nil
}

// clockOf returns the seconds of hours, minutes, seconds and decimals.
func clockOf(parts []string) float64 {
	var n [3]float64
	for i := range n {
		n[i], _ = stop.ParseSigned(parts[i]) // digits, by the pattern
	}
	decimals, _ := stop.ParseSigned("0." + parts[3])
	return n[0]*3600 + n[1]*60 + n[2] + decimals
}

// takeWords takes the keys and values of a text.
func (r *row) takeWords(text string) {
	for _, m := range said.FindAllStringSubmatch(text, -1) {
		key := m[1]
		for {
			f, known := fieldOf(key)
			if known {
				if v, err := f.read(m[2], ""); err == nil && f.of(r) != &r.t {
					*f.of(r) = v
				}
				break
			}
			cut := strings.IndexAny(key, " -")
			if cut < 0 {
				break
			}
			key = key[cut+1:]
		}
	}
}

// unitOf parts a heading into its name and its unit: "time (ms)", "time[ms]", "t_s".
var unitOf = regexp.MustCompile(`^(.*?)\s*[(\[]\s*([^)\]]*?)\s*[)\]]$`)

func headingOf(cell string) (name, unit string) {
	cell = strings.ToLower(strings.TrimSpace(cell))
	if m := unitOf.FindStringSubmatch(cell); m != nil {
		return m[1], m[2]
	}
	if at := strings.LastIndexAny(cell, "_"); at > 0 {
		if tail := cell[at+1:]; timeUnits[tail] != 0 || tail == "dps" || tail == "rads" {
			return cell[:at], tail
		}
	}
	return cell, ""
}

// readTable reads a table with a heading.
func readTable(body []byte, fault func(string) error) (*logTable, error) {
	in := table.NewReader(bytes.NewReader(body))
	in.ReuseRecord, in.LazyQuotes = true, true
	heading, err := in.Read()
	if err != nil {
		return nil, fault(fmt.Sprintf("%.120s", err))
	}
	columns := make([]*field, len(heading))
	units := make([]string, len(heading))
	isTimed, isLog := false, false
	for i, cell := range heading {
		name, unit := headingOf(cell)
		if f, known := fieldOf(name); known {
			columns[i], units[i] = &f, unit
			isTimed = isTimed || f.keys[0] == "time"
			isLog = true
		}
	}
	if !isLog || !isTimed {
		return nil, fault("no heading that names a time and something else")
	}
	out := &logTable{format: "csv", last: math.NaN()}
	for {
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		var parse *csv.ParseError
		if errors.As(err, &parse) {
			return nil, fault(fmt.Sprintf("line %d: %v", parse.Line, parse.Err))
		}
		if len(out.rows) == mostRows {
			return nil, fault(fmt.Sprintf("more than %d rows", mostRows))
		}
		r := emptyRow()
		for i, cell := range cells {
			if i >= len(columns) || columns[i] == nil {
				continue
			}
			if v, err := columns[i].read(cell, units[i]); err == nil {
				*columns[i].of(&r) = v
			}
		}
		out.rows = append(out.rows, r)
	}
	if len(out.rows) == 0 {
		return nil, fault("a heading and no rows")
	}
	return out, nil
}
