// Package kitfile reads and writes a kit as files: filters as CSV, filters and
// cameras as JSON. What is written reads back the same.
//
// A cell that a spreadsheet would run as a formula is written behind an
// apostrophe, which reading takes away again.
package kitfile

import (
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/problem"
	"pinhole/core/request"
	"pinhole/core/stop"
	"pinhole/core/table"
	"pinhole/internal/sheet"
	"pinhole/internal/store"
)

// Kit is what a file holds. Filters name their cameras by name, not by id.
type Kit struct {
	Format  string               `json:"format" enum:"pinhole-kit-1"`
	Cameras []store.KitCamera    `json:"cameras,omitempty" maxItems:"100"`
	Filters []store.FilterFields `json:"filters" maxItems:"500"`
}

// FormatName marks a JSON kit.
const FormatName = "pinhole-kit-1"

// maxRows is the most filters a file may hold.
const maxRows = 500

// Row is one filter of a file, or what is wrong with it.
type Row struct {
	// Line is where it starts in the file, from 1; in JSON its place in the list.
	Line   int                 `json:"line"`
	Filter *store.FilterFields `json:"filter,omitempty"`
	Fault  *problem.Fault      `json:"fault,omitempty"`
}

// column is one column of the CSV: how a filter is written to it and read from it.
type column struct {
	name  string
	write func(*store.FilterFields) string
	read  func(*store.FilterFields, string) error
}

func text(name string, of func(*store.FilterFields) *string) column {
	return column{name,
		func(f *store.FilterFields) string { return sheet.Guarded(*of(f)) },
		func(f *store.FilterFields, cell string) error { *of(f) = sheet.Unguarded(cell); return nil },
	}
}

func amount(name string, of func(*store.FilterFields) *float64) column {
	return column{name,
		func(f *store.FilterFields) string { return decimal(*of(f)) },
		func(f *store.FilterFields, cell string) (err error) {
			if cell != "" {
				*of(f), err = number(name, cell)
			}
			return err
		},
	}
}

func flag(name string, of func(*store.FilterFields) *bool) column {
	return column{name,
		func(f *store.FilterFields) string {
			if *of(f) {
				return "yes"
			}
			return ""
		},
		func(f *store.FilterFields, cell string) error {
			switch strings.ToLower(cell) {
			case "yes", "true", "1":
				*of(f) = true
			case "", "no", "false", "0":
			default:
				return errFlag
			}
			return nil
		},
	}
}

var errFlag = errors.New("write yes or no")

// units are what their owner may write behind the numbers of a column, by the last word of its name.
var units = map[string][]string{
	"stops": {"stops", "stop"}, "error": {"stops", "stop"}, "grams": {"grams", "g"}, "mm": {"mm"}, "lost": {"%"},
}

// number reads what a cell of a column says, with its unit or without.
func number(column, cell string) (float64, error) {
	bare := strings.ToLower(strings.TrimSpace(cell))
	for _, unit := range units[column[strings.LastIndex(column, " ")+1:]] {
		if cut, isCut := strings.CutSuffix(bare, unit); isCut {
			bare = cut
			break
		}
	}
	return stop.ParseSigned(bare)
}

func decimal(v float64) string {
	if v == 0 {
		return ""
	}
	return strconv.FormatFloat(v, 'f', -1, 64)
}

// maybe is a number that an empty cell leaves not known.
func maybe[T ~float64](name string, of func(*store.FilterFields) **T) column {
	return column{name,
		func(f *store.FilterFields) string {
			if *of(f) == nil {
				return ""
			}
			return strconv.FormatFloat(float64(**of(f)), 'f', -1, 64)
		},
		func(f *store.FilterFields, cell string) error {
			if cell == "" {
				return nil
			}
			v, err := number(name, cell)
			known := T(v)
			*of(f) = &known
			return err
		},
	}
}

// list is a list of several things each, which a cell holds as JSON.
func list[T any](name string, of func(*store.FilterFields) *[]T) column {
	return column{name,
		func(f *store.FilterFields) string {
			if len(*of(f)) == 0 {
				return ""
			}
			text, _ := json.Marshal(*of(f)) // plain fields, which always encode
			return string(text)
		},
		func(f *store.FilterFields, cell string) error {
			if cell == "" {
				return nil
			}
			if err := json.Unmarshal([]byte(cell), of(f)); err != nil {
				return errList
			}
			return nil
		},
	}
}

var errList = errors.New("a JSON list, as it was exported")

// span is two numbers, the least and the most: 20.02 to 20.05, or one for both.
func span(name string, of func(*store.FilterFields) *[]float64) column {
	return column{name,
		func(f *store.FilterFields) string {
			if len(*of(f)) != 2 {
				return ""
			}
			return strconv.FormatFloat((*of(f))[0], 'f', -1, 64) + " to " + strconv.FormatFloat((*of(f))[1], 'f', -1, 64)
		},
		func(f *store.FilterFields, cell string) error {
			if cell == "" {
				return nil
			}
			from, to, isSpan := strings.Cut(cell, " to ")
			if !isSpan {
				to = from
			}
			for _, text := range []string{from, to} {
				v, err := number(name, text)
				if err != nil {
					return err
				}
				*of(f) = append(*of(f), v)
			}
			return nil
		},
	}
}

var columns = []column{
	text("label", func(f *store.FilterFields) *string { return &f.Label }),
	text("means", func(f *store.FilterFields) *string { return &f.Means }),
	text("name", func(f *store.FilterFields) *string { return &f.Name }),
	maybe("measured stops", func(f *store.FilterFields) **stop.Stops { return &f.MeasuredStops }),
	amount("standard error", func(f *store.FilterFields) *float64 { return (*float64)(&f.StdErrStops) }),
	maybe("corner stops", func(f *store.FilterFields) **stop.Stops { return &f.CornerStops }),
	maybe("cast stops", func(f *store.FilterFields) **stop.Stops { return &f.CastStops }),
	maybe("flare", func(f *store.FilterFields) **float64 { return &f.Flare }),
	maybe("sharpness lost", func(f *store.FilterFields) **float64 { return &f.SharpnessLost }),
	amount("grams", func(f *store.FilterFields) *float64 { return &f.WeightG }),
	flag("needs base", func(f *store.FilterFields) *bool { return &f.NeedsBase }),
	flag("closed", func(f *store.FilterFields) *bool { return &f.Closed }),
	{
		"cameras",
		func(f *store.FilterFields) string { return sheet.Guarded(strings.Join(f.Cameras, "; ")) },
		func(f *store.FilterFields, cell string) error {
			for _, name := range strings.Split(sheet.Unguarded(cell), ";") {
				if name = strings.TrimSpace(name); name != "" {
					f.Cameras = append(f.Cameras, name)
				}
			}
			return nil
		},
	},
	text("slot", func(f *store.FilterFields) *string { return &f.Slot }),
	text("set", func(f *store.FilterFields) *string { return &f.Set }),
	maybe("price", func(f *store.FilterFields) **float64 { return &f.Price }),
	text("condition", func(f *store.FilterFields) *string { return &f.Condition }),
	text("mount", func(f *store.FilterFields) *string { return (*string)(&f.Body.Mount) }),
	span("seat mm", func(f *store.FilterFields) *[]float64 { return &f.Body.SeatMm }),
	maybe("outer mm", func(f *store.FilterFields) **float64 { return &f.Body.OuterMm }),
	maybe("clear mm", func(f *store.FilterFields) **float64 { return &f.Body.ClearMm }),
	maybe("thickness mm", func(f *store.FilterFields) **float64 { return &f.Body.ThicknessMm }),
	list("ring", func(f *store.FilterFields) *[]assemble.RingMark { return &f.Ring }),
	list("history", func(f *store.FilterFields) *[]store.Happening { return &f.History }),
}

// WriteCSV writes filters as CSV with a heading.
func WriteCSV(w io.Writer, filters []store.FilterFields) error {
	heading := make([]string, len(columns))
	for i, c := range columns {
		heading[i] = c.name
	}
	rows := [][]string{heading}
	for i := range filters {
		row := make([]string, len(columns))
		for j, c := range columns {
			row[j] = c.write(&filters[i])
		}
		rows = append(rows, row)
	}
	if err := sheet.Write(w, rows); err != nil {
		return fmt.Errorf("write the kit: %w", err)
	}
	return nil
}

// Table is what a table holds.
type Table struct {
	Rows []Row
	// LeftOut are its columns that say nothing of a filter.
	LeftOut []string
}

// ReadCSV reads filters: a row for each, good or bad. The cells are parted by commas, semicolons
// or tabs, decimals have a point or a comma. Columns come in any order and may be missing, but
// for the label; those of another name are left out. A table without a heading holds labels, in
// rows or in columns. The error is a *problem.Fault of a file that is not such a table.
func ReadCSV(file string) (Table, error) {
	in := table.NewReader(strings.NewReader(file))
	var read Table
	var order []column
	isHeaded := false
	for first := true; ; first = false {
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			return read, nil
		}
		var parse *csv.ParseError
		if errors.As(err, &parse) {
			return Table{}, &problem.Fault{Field: "text", Value: fmt.Sprintf("line %d", parse.Line), Allowed: "a table of cells between commas, semicolons or tabs: " + parse.Err.Error()}
		}
		line, _ := in.FieldPos(0)
		if first {
			if order, read.LeftOut, isHeaded = headingOf(cells); isHeaded {
				continue
			}
		}
		for _, row := range rowsOf(line, order, cells, isHeaded) {
			if len(read.Rows) == maxRows {
				return Table{}, &problem.Fault{Field: "text", Value: fmt.Sprintf("line %d", line), Allowed: fmt.Sprintf("at most %d filters", maxRows)}
			}
			read.Rows = append(read.Rows, row)
		}
	}
}

// rowsOf returns the filter of a row under a heading; without one, a filter for each label.
func rowsOf(line int, order []column, cells []string, isHeaded bool) []Row {
	if isHeaded {
		if isBlank(cells) {
			return nil
		}
		return []Row{readRow(line, order, cells)}
	}
	var rows []Row
	for _, cell := range cells {
		if strings.TrimSpace(cell) != "" {
			rows = append(rows, readRow(line, columns[:1], []string{cell}))
		}
	}
	return rows
}

func isBlank(cells []string) bool {
	return !slices.ContainsFunc(cells, func(c string) bool { return strings.TrimSpace(c) != "" })
}

// headingOf returns the columns that a heading names, nothing for one that is left out; not
// headed is a row without a label among its cells.
func headingOf(cells []string) (order []column, leftOut []string, isHeaded bool) {
	if !slices.ContainsFunc(cells, func(c string) bool { return strings.EqualFold(strings.TrimSpace(c), "label") }) {
		return nil, nil, false
	}
	for _, cell := range cells {
		name := strings.TrimSpace(cell)
		i := slices.IndexFunc(columns, func(c column) bool { return strings.EqualFold(c.name, name) })
		if i < 0 {
			order = append(order, ignored)
			if name != "" {
				leftOut = append(leftOut, name)
			}
			continue
		}
		order = append(order, columns[i])
	}
	return order, leftOut, true
}

// ignored is a column that says nothing of a filter.
var ignored = column{read: func(*store.FilterFields, string) error { return nil }}

func readRow(line int, order []column, cells []string) Row {
	f := store.FilterFields{Cameras: []string{}}
	for i, cell := range cells {
		cell = strings.TrimSpace(cell)
		if i >= len(order) {
			if cell == "" {
				continue
			}
			return Row{Line: line, Fault: &problem.Fault{Field: fmt.Sprintf("column %d", i+1), Value: cell, Allowed: "nothing: there is no heading for it"}}
		}
		if err := order[i].read(&f, cell); err != nil {
			var parse *stop.ParseError
			allowed := err.Error()
			if errors.As(err, &parse) {
				allowed = parse.Err.Error()
			}
			return Row{Line: line, Fault: &problem.Fault{Field: order[i].name, Value: cell, Allowed: allowed}}
		}
	}
	return checked(line, f)
}

// checked returns the row of a filter whose fields are within their ranges.
func checked(line int, f store.FilterFields) Row {
	body, err := json.Marshal(f)
	if err == nil {
		_, err = request.Decode[store.FilterFields](body)
	}
	var doc *problem.Document
	if errors.As(err, &doc) && len(doc.Errors) > 0 {
		return Row{Line: line, Fault: &doc.Errors[0]}
	}
	return Row{Line: line, Filter: &f}
}

// WriteJSON writes a kit as JSON.
func WriteJSON(w io.Writer, k Kit) error {
	k.Format = FormatName
	out := json.NewEncoder(w)
	out.SetIndent("", "  ")
	if err := out.Encode(k); err != nil {
		return fmt.Errorf("write the kit: %w", err)
	}
	return nil
}

// ReadJSON reads a kit. The error is a *problem.Document of a file that is none.
func ReadJSON(file string) (cameras []store.KitCamera, rows []Row, err error) {
	k, err := request.Decode[Kit]([]byte(file))
	if err != nil {
		return nil, nil, err
	}
	for i, f := range k.Filters {
		rows = append(rows, Row{Line: i + 1, Filter: &f})
	}
	return k.Cameras, rows, nil
}
