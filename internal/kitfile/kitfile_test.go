package kitfile

import (
	"bytes"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/fit"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

func sample() []store.FilterFields {
	measured, corner, cast, none := stop.Stops(4.87), stop.Stops(0.1), stop.Stops(-0.2), stop.Stops(0)
	flare, lost, price, clear := 1.0, 12.5, 39.9, 18.25
	return []store.FilterFields{
		{Label: "ND32", Name: "the dark, \"good\" one", MeasuredStops: &measured, StdErrStops: 0.05, CornerStops: &corner, CastStops: &cast, Flare: &flare, SharpnessLost: &lost, WeightG: 1.4,
			NeedsBase: true, Closed: true, Cameras: []string{"Row walker", "Pond drone"}, Slot: "A3",
			Set: "thin rings", Price: &price, Condition: "worn", Body: fit.Body{Mount: fit.PushOn, SeatMm: []float64{20.02, 20.05}, ClearMm: &clear},
			History: []store.Happening{{At: time.Date(2031, 9, 2, 10, 0, 0, 0, time.UTC), What: "dropped", Note: "on stone, \"twice\"; =1+1"}}},
		{Label: "ND 2.0", Means: "ND2", Name: "=HYPERLINK(\"x\")", Cameras: []string{}, Slot: "-1+1"},
		{Label: "VND 1-5 stop", CastStops: &none, Cameras: []string{}, Ring: []assemble.RingMark{{Mark: "=min", Stops: 1.1}, {Mark: "max", Stops: 5.2}}},
		{Label: "mist 1/4", Name: "'quoted", Cameras: []string{"@home"}},
	}
}

func filtersOf(t *testing.T, rows []Row) []store.FilterFields {
	t.Helper()
	var all []store.FilterFields
	for _, r := range rows {
		if r.Fault != nil {
			t.Fatalf("line %d: %v", r.Line, r.Fault)
		}
		all = append(all, *r.Filter)
	}
	return all
}

// A number may have the unit of its column behind it, and no other.
func TestUnitsInCells(t *testing.T) {
	read, err := ReadCSV("label;measured stops;standard error;grams;sharpness lost;seat mm;outer mm\nND8;3,05 stops;0.05 stops;2.5g;6 %;20.02 to 20.05 mm;22 MM\nND16;4.1 Stops;;2 g;;19,9mm;")
	if err != nil {
		t.Fatal(err)
	}
	all := filtersOf(t, read.Rows)
	if f := all[0]; *f.MeasuredStops != 3.05 || f.StdErrStops != 0.05 || f.WeightG != 2.5 || *f.SharpnessLost != 6 || !slices.Equal(f.Body.SeatMm, []float64{20.02, 20.05}) || *f.Body.OuterMm != 22 {
		t.Errorf("%+v", f)
	}
	if f := all[1]; *f.MeasuredStops != 4.1 || f.WeightG != 2 || !slices.Equal(f.Body.SeatMm, []float64{19.9, 19.9}) {
		t.Errorf("%+v", f)
	}
	for _, cell := range []string{"2.5 mm", "2.5 kg", "g", "2.5 g g", "--2 g"} {
		read, err := ReadCSV("label;grams\nND8;" + cell + "\n")
		if err != nil || read.Rows[0].Fault == nil || read.Rows[0].Fault.Value != cell {
			t.Errorf("%s: %+v, %v", cell, read.Rows, err)
		}
	}
}

func TestCSVRoundTripsAndRunsNoFormula(t *testing.T) {
	var file bytes.Buffer
	if err := WriteCSV(&file, sample()); err != nil {
		t.Fatal(err)
	}
	for _, cell := range strings.FieldsFunc(file.String(), func(r rune) bool { return r == ',' || r == '\n' }) {
		if c := strings.TrimPrefix(cell, `"`); c != "" && strings.ContainsRune("=@+", rune(c[0])) {
			t.Errorf("a spreadsheet would run %q", cell)
		}
	}
	read, err := ReadCSV(file.String())
	if err != nil {
		t.Fatal(err)
	}
	if got := filtersOf(t, read.Rows); !reflect.DeepEqual(got, sample()) {
		t.Errorf("came back as %+v", got)
	}
}

func TestJSONRoundTrips(t *testing.T) {
	cameras := []store.KitCamera{{CameraFields: store.CameraFields{Name: "Row walker", Aperture: 2, ISOBase: 100, ISOCeiling: 800, Steps: []string{"1/50"}, Rates: []string{"25"}, Mounted: []string{},
		Recipe: store.Recipe{WhiteBalance: "5600 K"}, Sources: map[string]store.Source{"aperture": store.Printed}},
		Rigs: []store.RigSheet{store.BareRig(), {Name: "in the cage", Housing: "cage", Way: "upside-down", Measures: fit.RigFields{Mount: fit.Snap}}}}}
	var file bytes.Buffer
	if err := WriteJSON(&file, Kit{Cameras: cameras, Filters: sample()}); err != nil {
		t.Fatal(err)
	}
	back, rows, err := ReadJSON(file.String())
	if err != nil || !reflect.DeepEqual(back, cameras) || !reflect.DeepEqual(filtersOf(t, rows), sample()) {
		t.Errorf("came back as %+v, %+v, %v", back, rows, err)
	}
	for _, bad := range []string{`{}`, `[]`, `{"format":"other","filters":[]}`, `{"format":"pinhole-kit-1","filters":[{"label":""}]}`} {
		if _, _, err := ReadJSON(bad); err == nil {
			t.Errorf("%s was read", bad)
		}
	}
}

func TestAMessyTableNamesItsBadRowsAndKeepsTheRest(t *testing.T) {
	read, err := ReadCSV("\uFEFFslot, Label ,grams\nA1,ND8,\"1,4\"\nA2,ND16,heavy\n\nA3,,2\nA4,4 stop,-5\nA5,UV\nA6,ND4,1,extra\n")
	if err != nil {
		t.Fatal(err)
	}
	rows := read.Rows
	want := []struct {
		line  int
		field string
	}{{2, ""}, {3, "grams"}, {5, "label"}, {6, "weightG"}, {7, ""}, {8, "column 4"}}
	if len(rows) != len(want) {
		t.Fatalf("%d rows: %+v", len(rows), rows)
	}
	for i, w := range want {
		field := ""
		if rows[i].Fault != nil {
			field = rows[i].Fault.Field
		}
		if rows[i].Line != w.line || field != w.field {
			t.Errorf("row %d: line %d, fault of %q, want line %d and %q", i, rows[i].Line, field, w.line, w.field)
		}
	}
	if f := rows[0].Filter; f.WeightG != 1.4 || f.Slot != "A1" {
		t.Errorf("the first row is %+v", f)
	}
}

// A table comes as the spreadsheet of its owner writes it.
func TestATableOfAnotherSpreadsheetReadsAlike(t *testing.T) {
	want := filtersOf(t, mustRead(t, "label,grams,standard error,cameras\nND8,\"1,4\",0.05,Pond drone; Row walker\nND16,2,,\n").Rows)
	if f := want[0]; f.WeightG != 1.4 || f.StdErrStops != 0.05 || len(f.Cameras) != 2 {
		t.Fatalf("%+v", f)
	}
	for _, file := range []string{
		"label;grams;standard error;cameras\nND8;1,4;0,05;\"Pond drone; Row walker\"\nND16;2;;\n",
		"\uFEFFlabel\tgrams\tstandard error\tcameras\r\nND8\t1,4\t0,05\tPond drone; Row walker\r\n\t\t\t\r\nND16\t2\t\t\r\n",
		"colour;label;grams;standard error;cameras;Bought\nred;ND8;1,4;0,05;\"Pond drone; Row walker\";2029\nblue;ND16;2\n",
	} {
		if got := filtersOf(t, mustRead(t, file).Rows); !reflect.DeepEqual(got, want) {
			t.Errorf("%q: %+v, want %+v", file, got, want)
		}
	}
	if got := mustRead(t, "label\tcolour\t\tBought\nND8\tred\tx\ty\n").LeftOut; !reflect.DeepEqual(got, []string{"colour", "Bought"}) {
		t.Errorf("left out are %q", got)
	}
}

func mustRead(t *testing.T, file string) Table {
	t.Helper()
	read, err := ReadCSV(file)
	if err != nil {
		t.Fatal(err)
	}
	return read
}

func TestLabelsAloneAreATable(t *testing.T) {
	for _, file := range []string{"ND8\nND16\n4 stop\n", "ND8\tND16\t4 stop", "ND8;ND16\n;4 stop"} {
		if got := filtersOf(t, mustRead(t, file).Rows); len(got) != 3 {
			t.Errorf("%q: %+v", file, got)
		}
	}
}

func TestFilesThatAreNoTableAreRefused(t *testing.T) {
	for _, file := range []string{"label\n\"ND8\n", "label\n" + strings.Repeat("ND8\n", maxRows+1), strings.Repeat("ND8\t", maxRows+1)} {
		if read, err := ReadCSV(file); err == nil {
			t.Errorf("%.20q was read as %d rows", file, len(read.Rows))
		}
	}
}

func FuzzReadCSV(f *testing.F) {
	var file bytes.Buffer
	if err := WriteCSV(&file, sample()); err != nil {
		f.Fatal(err)
	}
	f.Add(file.String())
	f.Add("ND8\n'=1\n")
	f.Fuzz(func(t *testing.T, text string) {
		read, err := ReadCSV(text)
		if err != nil {
			return
		}
		var good []store.FilterFields
		for _, r := range read.Rows {
			if r.Filter != nil {
				good = append(good, *r.Filter)
			}
		}
		var out bytes.Buffer
		if err := WriteCSV(&out, good); err != nil {
			t.Fatal(err)
		}
		again, err := ReadCSV(out.String())
		if err != nil || len(again.Rows) != len(good) {
			t.Fatalf("%q reads as %+v, written %q reads as %+v, %v", text, good, out.String(), again, err)
		}
	})
}
