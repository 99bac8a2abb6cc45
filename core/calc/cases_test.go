package calc

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"pinhole/core/problem"
)

// worked is one case: a request and what the answer must hold.
type worked struct {
	Calc    string          `json:"calc"`
	Request json.RawMessage `json:"request"`
	Expect  any             `json:"expect"`
}

func workedCases(t testing.TB) []worked {
	t.Helper()
	files, err := filepath.Glob("testdata/cases/*.json")
	if err != nil || len(files) == 0 {
		t.Fatalf("no worked cases: %v", err)
	}
	var all []worked
	for _, file := range files {
		text, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		var cases []worked
		if err := json.Unmarshal(text, &cases); err != nil {
			t.Fatalf("%s: %v", file, err)
		}
		all = append(all, cases...)
	}
	return all
}

func TestWorkedCases(t *testing.T) {
	for i, c := range workedCases(t) {
		t.Run(fmt.Sprint(c.Calc, " ", i), func(t *testing.T) {
			op, known := Named(c.Calc)
			if !known {
				t.Fatalf("no computation %q", c.Calc)
			}
			answer, err := op.Run(c.Request)
			if expect, _ := c.Expect.(map[string]any); expect["#refused"] == true {
				var refusal *problem.Document
				if !errors.As(err, &refusal) {
					t.Fatalf("%s is not refused: %v", c.Request, err)
				}
				return
			}
			if err != nil {
				t.Fatal(err)
			}
			text, err := json.Marshal(answer)
			if err != nil {
				t.Fatal(err)
			}
			var got any
			if err := json.Unmarshal(text, &got); err != nil {
				t.Fatal(err)
			}
			if d := differs(c.Expect, got, ""); d != "" {
				t.Errorf("%s\nrequest %s\nanswer %s", d, c.Request, text)
			}
		})
	}
}

// The agreement that worked cases ask for, unless they say otherwise.
const (
	relative = 1e-6
	absolute = 1e-9
)

// differs returns where got is not as expected, "" where it is. In an expected
// object "#near" with "tol" is a number within a tolerance (of an azimuth, either
// way round), "#len" counts a list, "#set" ignores order, "#by" finds rows of a
// list by a field, and digits index a list.
func differs(want, got any, at string) string {
	switch want := want.(type) {
	case map[string]any:
		return differsObject(want, got, at)
	case []any:
		list, _ := got.([]any)
		if len(list) != len(want) {
			return fmt.Sprintf("%s: want %v, got %v", at, want, got)
		}
		for i := range want {
			if d := differs(want[i], list[i], fmt.Sprintf("%s.%d", at, i)); d != "" {
				return d
			}
		}
	case float64:
		v, ok := got.(float64)
		if !ok || math.Abs(v-want) > max(absolute, relative*math.Abs(want)) {
			return fmt.Sprintf("%s: want %v, got %v", at, want, got)
		}
	default:
		if want != got {
			return fmt.Sprintf("%s: want %v, got %v", at, want, got)
		}
	}
	return ""
}

func differsObject(want map[string]any, got any, at string) string {
	if near, ok := want["#near"].(float64); ok {
		v, ok := got.(float64)
		off := math.Abs(v - near)
		if strings.HasSuffix(at, "azimuthDeg") {
			off = min(off, math.Abs(off-360))
		}
		if !ok || off > want["tol"].(float64) {
			return fmt.Sprintf("%s: want %v, got %v", at, near, got)
		}
		return ""
	}
	if set, ok := want["#set"].([]any); ok {
		if fmt.Sprint(sorted(set)) != fmt.Sprint(sorted(got)) {
			return fmt.Sprintf("%s: want %v in any order, got %v", at, set, got)
		}
		return ""
	}
	rows, _ := got.([]any)
	if by, ok := want["#by"].(string); ok {
		got = rowsBy(by, got)
	}
	for name, part := range want {
		if name == "#by" {
			continue
		}
		list, isList := got.([]any)
		var value any
		switch i, err := strconv.Atoi(name); {
		case name == "#len":
			if n := int(part.(float64)); len(rows) != n {
				return fmt.Sprintf("%s: want %d items, got %d", at, n, len(rows))
			}
			continue
		case isList && err == nil && i < len(list):
			value = list[i]
		default:
			object, _ := got.(map[string]any)
			value = object[name]
		}
		if d := differs(part, value, at+"."+name); d != "" {
			return d
		}
	}
	return ""
}

// rowsBy returns the rows of a list as an object, by the text in one field.
func rowsBy(field string, list any) map[string]any {
	rows := map[string]any{}
	items, _ := list.([]any)
	for _, item := range items {
		if row, ok := item.(map[string]any); ok {
			rows[fmt.Sprint(row[field])] = row
		}
	}
	return rows
}

func sorted(list any) []string {
	var texts []string
	items, _ := list.([]any)
	for _, item := range items {
		texts = append(texts, fmt.Sprint(item))
	}
	slices.Sort(texts)
	return texts
}

// The comparison itself must be able to fail.
func TestDiffersFindsDifferences(t *testing.T) {
	parse := func(text string) any {
		var v any
		if err := json.Unmarshal([]byte(text), &v); err != nil {
			t.Fatal(err)
		}
		return v
	}
	for _, pair := range [][2]string{
		{`{"a":1}`, `{"a":1.001}`}, {`{"a":1}`, `{}`}, {`{"a":{"#near":1,"tol":0.1}}`, `{"a":1.2}`}, {`{"a":{"#len":2}}`, `{"a":[1]}`},
		{`{"a":{"#set":["x"]}}`, `{"a":["y"]}`}, {`{"a":{"1":{"b":"x"}}}`, `{"a":[{},{"b":"y"}]}`}, {`{"a":true}`, `{"a":false}`}, {`{"a":[1,2]}`, `{"a":[1,3]}`},
		{`{"a":{"#by":"k","x":{"v":1}}}`, `{"a":[{"k":"x","v":2}]}`}, {`{"azimuthDeg":{"#near":359,"tol":1}}`, `{"azimuthDeg":2}`},
	} {
		if differs(parse(pair[0]), parse(pair[1]), "") == "" {
			t.Errorf("%s and %s are called alike", pair[0], pair[1])
		}
	}
}
