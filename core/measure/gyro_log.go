package measure

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"pinhole/core/problem"
	"pinhole/core/table"
)

// gyroLog is a log as it stands in the file: seconds, and degrees a second about each axis.
type gyroLog struct {
	t       []float64
	axes    [3][]float64
	skipped int
	// What its units were, and whether that of time was told from its steps.
	timeUnit       string
	isUnitInferred bool
	rateUnit       string
}

// axisNames are what the three axes are called, after their prefix.
var axisNames = [3][]string{{"x", "roll"}, {"y", "pitch"}, {"z", "yaw"}}

// axisPrefixes are what stands before an axis; none is one of them.
var axisPrefixes = []string{"gyro", "g", "w", "omega", "rate"}

// axisOf returns the axis that a heading names, and how surely: a prefix is surer than none.
func axisOf(name string) (axis, sure int, ok bool) {
	name = strings.NewReplacer("_", "", "-", "", " ", "", ".", "").Replace(name)
	for axis, names := range axisNames {
		for _, n := range names {
			if name == n {
				return axis, 0, true
			}
			for _, prefix := range axisPrefixes {
				if name == prefix+n || name == n+prefix {
					return axis, 1, true
				}
			}
		}
	}
	return 0, 0, false
}

// rateUnits are the units of turning, in degrees a second.
var rateUnits = map[string]float64{
	"deg/s": 1, "°/s": 1, "dps": 1, "degs": 1, "deg/sec": 1,
	"rad/s": 180 / math.Pi, "rads": 180 / math.Pi, "rad/sec": 180 / math.Pi,
}

// namedUnits are the ways to say a unit of time.
var namedUnits = []string{"s", "ms", "us", "ns"}

// Rates at which a gyro samples: outside, a unit of time is not what it was.
const slowestHz, fastestHz = 20.0, 8000.0

// What no gyro says: a faster turn is a fault of the file, as is a later time, whatever its unit.
const fastestDegS, latestS = 1e5, 1e18

// readGyro reads a table with a column of time and three of turning.
func readGyro(in Input) (*gyroLog, error) {
	file := in.file("file")
	fault := func(value, allowed string) error {
		return &problem.Fault{Field: "file", Value: file.Name + ": " + value, Allowed: allowed}
	}
	const allowed = "a table (CSV) with a heading: a time and x, y, z or roll, pitch, yaw of the gyro"
	body := file.Bytes
	if len(bytes.TrimSpace(body)) == 0 || bytes.IndexByte(body[:min(len(body), 4096)], 0) >= 0 {
		return nil, fault("no text", allowed)
	}
	rows := table.NewReader(bytes.NewReader(body))
	rows.ReuseRecord, rows.LazyQuotes = true, true
	heading, err := rows.Read()
	if err != nil {
		return nil, fault(fmt.Sprintf("%.120s", err), allowed)
	}
	rows.TrimLeadingSpace = false // numbers are trimmed as they are read
	columns, err := gyroColumns(in, heading)
	if err != nil {
		return nil, err
	}
	if columns == nil {
		return nil, fault(fmt.Sprintf("%.120s", strings.Join(heading, ", ")), allowed)
	}
	log := &gyroLog{timeUnit: columns.timeUnit, rateUnit: columns.rateUnit}
	log.makeRoom(min(bytes.Count(body, []byte{'\n'})+1, mostRows))
	for {
		cells, err := rows.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, fault(lineFault(err), allowed)
		}
		if len(log.t) == mostRows {
			return nil, fault(fmt.Sprintf("more than %d rows", mostRows), allowed)
		}
		log.take(cells, columns)
	}
	if len(log.t) < 2 {
		return nil, fault(fmt.Sprintf("%d rows of numbers", len(log.t)), allowed)
	}
	if err := log.inferTime(); err != nil {
		return nil, err
	}
	return log, nil
}

// lineFault says what is wrong in a table, and where.
func lineFault(err error) string {
	var parse *csv.ParseError
	if errors.As(err, &parse) {
		return fmt.Sprintf("line %d: %v", parse.Line, parse.Err)
	}
	return fmt.Sprintf("%.120s", err)
}

// gyroHeading is where the columns stand.
type gyroHeading struct {
	time               int
	axes               [3]int
	timeUnit, rateUnit string
	perRate            float64
}

// gyroColumns finds the columns, nil where there are not enough of them.
func gyroColumns(in Input, heading []string) (*gyroHeading, error) {
	timeUnit, err := in.oneOf("time-unit", namedUnits...)
	if err != nil {
		return nil, err
	}
	rateUnit, err := in.oneOf("rate-unit", "deg/s", "rad/s")
	if err != nil {
		return nil, err
	}
	h := &gyroHeading{time: -1, axes: [3]int{-1, -1, -1}, timeUnit: timeUnit, rateUnit: rateUnit}
	var chosen []string
	if text := in.text("columns"); text != "" {
		chosen = strings.Split(strings.ToLower(text), ",")
		if len(chosen) != 3 {
			return nil, &problem.Fault{Field: "columns", Value: text, Allowed: "three names of columns, with commas between"}
		}
	}
	sure := [3]int{-1, -1, -1}
	for i, cell := range heading {
		name, unit := headingOf(cell)
		if slices.Contains([]string{"time", "t", "timestamp"}, name) && h.time < 0 {
			h.time = i
			if timeUnit == "" && timeUnits[unit] != 0 {
				h.timeUnit = strings.ReplaceAll(unit, "µ", "u")
			}
			continue
		}
		axis, how, ok := axisOf(name)
		if chosen != nil {
			axis = slices.IndexFunc(chosen, func(c string) bool {
				c = strings.TrimSpace(c)
				return c == name || c == strings.ToLower(strings.TrimSpace(cell))
			})
			how, ok = 2, axis >= 0
		}
		if !ok || how <= sure[axis] {
			continue
		}
		h.axes[axis], sure[axis] = i, how
		if rateUnit == "" && rateUnits[unit] != 0 {
			h.rateUnit = unit
		}
	}
	if h.time < 0 || slices.Contains(h.axes[:], -1) {
		if chosen != nil {
			return nil, &problem.Fault{Field: "columns", Value: in.text("columns"), Allowed: "names that stand in the heading: " + strings.Join(heading, ", ")}
		}
		return nil, nil
	}
	if h.rateUnit == "" {
		return nil, &problem.Fault{Field: "rate-unit", Allowed: "deg/s or rad/s: the heading does not say, and it is not guessed"}
	}
	h.perRate = rateUnits[h.rateUnit]
	h.rateUnit = map[bool]string{true: "deg/s", false: "rad/s"}[h.perRate == 1]
	return h, nil
}

// makeRoom readies the log for so many rows: growing by doubling costs a tenth of reading them.
func (l *gyroLog) makeRoom(rows int) {
	l.t = make([]float64, 0, rows)
	for i := range l.axes {
		l.axes[i] = make([]float64, 0, rows)
	}
}

// take takes one row; one that is not numbers, or none a gyro says, is skipped.
func (l *gyroLog) take(cells []string, h *gyroHeading) {
	at := func(i int) float64 {
		if i >= len(cells) {
			return math.NaN()
		}
		return decimalOf(cells[i])
	}
	t := at(h.time)
	var v [3]float64
	for i, column := range h.axes {
		v[i] = at(column) * h.perRate
	}
	if !(math.Abs(t) <= latestS && math.Abs(v[0]) <= fastestDegS && math.Abs(v[1]) <= fastestDegS && math.Abs(v[2]) <= fastestDegS) {
		l.skipped++
		return
	}
	l.t = append(l.t, t)
	for i := range l.axes {
		l.axes[i] = append(l.axes[i], v[i])
	}
}

// decimalOf reads a number with a point or a comma, NaN for none.
func decimalOf(text string) float64 {
	v, err := strconv.ParseFloat(text, 64)
	if err != nil { // of millions hardly one is written otherwise
		v, err = strconv.ParseFloat(strings.Replace(strings.TrimSpace(text), ",", ".", 1), 64)
	}
	if err != nil {
		return math.NaN()
	}
	return v
}

// inferTime brings the time to seconds; a unit that is not said is told from the steps, where
// one only makes a rate that gyros have.
func (l *gyroLog) inferTime() error {
	steps := newLights(len(l.t))
	for i := 1; i < len(l.t); i++ {
		if d := l.t[i] - l.t[i-1]; d > 0 {
			steps.add(d)
		}
	}
	if len(steps.all) == 0 {
		return &problem.Fault{Field: "file", Value: "times that do not go on", Allowed: "rows in the order of their times"}
	}
	median := steps.percentile(0.5)
	if l.timeUnit == "" {
		var fitting []string
		for _, unit := range namedUnits {
			if hz := 1 / (median * timeUnits[unit]); hz >= slowestHz && hz <= fastestHz {
				fitting = append(fitting, unit)
			}
		}
		if len(fitting) != 1 {
			return &problem.Fault{Field: "time-unit", Allowed: fmt.Sprintf("s, ms, us or ns: the heading does not say, and steps of %v do not tell", median)}
		}
		l.timeUnit, l.isUnitInferred = fitting[0], true
	}
	for i := range l.t {
		l.t[i] *= timeUnits[l.timeUnit]
	}
	return nil
}
