package files

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"runtime"
	"strings"
	"testing"
	"time"

	"pinhole/core/problem"
)

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
