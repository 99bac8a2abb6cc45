package measure

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

// worked is a case whose truth is how its files were made.
type worked struct {
	Name   string
	Args   []string
	Expect any
}

// given returns what the arguments of the command line hand over.
func given(t *testing.T, args []string) (Operation, Input) {
	t.Helper()
	o, known := Named(args[0])
	if !known {
		t.Fatalf("no measurement %q", args[0])
	}
	in := Input{Files: map[string][]File{}, Texts: map[string][]string{}}
	for rest := args[1:]; len(rest) > 0; {
		name, value := "file", rest[0]
		if option, isOption := strings.CutPrefix(value, "--"); isOption {
			name, value = option, rest[1]
			rest = rest[1:]
		}
		rest = rest[1:]
		i := slices.IndexFunc(o.Options, func(p Option) bool { return p.Name == name })
		if i < 0 {
			t.Fatalf("%s has no %s", o.Name, name)
		}
		if !o.Options[i].IsFile {
			in.Texts[name] = append(in.Texts[name], value)
			continue
		}
		in.Files[name] = append(in.Files[name], sampleFile(t, value))
	}
	return o, in
}

func sampleFile(t testing.TB, name string) File {
	t.Helper()
	body, err := os.ReadFile(filepath.Join("testdata", name))
	if err != nil {
		t.Fatal(err)
	}
	return File{Name: name, Bytes: body}
}

func TestWorkedCases(t *testing.T) {
	body, err := os.ReadFile("testdata/cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []worked
	if err := json.Unmarshal(body, &all); err != nil || len(all) < 60 {
		t.Fatalf("%d cases, %v", len(all), err)
	}
	for _, c := range all {
		t.Run(c.Name, func(t *testing.T) {
			t.Parallel()
			o, in := given(t, c.Args)
			answer, err := o.Run(in)
			if want, isObject := c.Expect.(map[string]any); isObject && want["#refused"] == true {
				var doc *problem.Document
				if !errors.As(err, &doc) || len(doc.Errors) == 0 {
					t.Errorf("not refused as bad input: %v, %v", answer, err)
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
			if fault := differs(c.Expect, got, ""); fault != "" {
				t.Error(fault)
			}
		})
	}
}

// differs says where an answer is not what a case expects.
func differs(want, got any, at string) string {
	switch want := want.(type) {
	case map[string]any:
		return differsFrom(want, got, at)
	case float64:
		if v, ok := got.(float64); ok && math.Abs(v-want) <= max(1e-9, 1e-6*math.Abs(want)) {
			return ""
		}
	case []any:
		list, _ := got.([]any)
		if len(list) != len(want) {
			break
		}
		for i := range want {
			if fault := differs(want[i], list[i], fmt.Sprintf("%s[%d]", at, i)); fault != "" {
				return fault
			}
		}
		return ""
	default:
		if want == got {
			return ""
		}
	}
	return fmt.Sprintf("%s: want %v, got %v", at, want, got)
}

// differsFrom compares with an object, or by what its field with a # says.
func differsFrom(want map[string]any, got any, at string) string {
	number := func(key string) float64 { v, _ := want[key].(float64); return v }
	list, _ := got.([]any)
	v, isNumber := got.(float64)
	fault := fmt.Sprintf("%s: want %v, got %.200v", at, want, got)
	held := func(ok bool) string {
		if ok {
			return ""
		}
		return fault
	}
	switch {
	case want["#near"] != nil:
		return held(isNumber && math.Abs(v-number("#near")) <= number("tol"))
	case want["#between"] != nil:
		ends := want["#between"].([]any)
		return held(isNumber && v >= ends[0].(float64) && v <= ends[1].(float64))
	case want["#set"] != nil:
		return held(sameWords(want["#set"].([]any), list))
	case want["#refusals"] != nil:
		return held(refusedBy(want["#refusals"].([]any), list))
	case want["#hist"] != nil:
		return held(alikeHistograms(want["#hist"].([]any), list, number("tol")))
	case want["#rise"] != nil:
		for _, r := range want["#rise"].([]any) {
			r := r.([]any)
			from, to := list[int(r[0].(float64))], list[int(r[1].(float64))]
			if from == nil || to == nil || math.Abs(to.(float64)-from.(float64)-r[2].(float64)) > number("tol") {
				return fault
			}
		}
		return ""
	case want["#peaks"] != nil:
		for _, p := range want["#peaks"].([]any) {
			hz, degS := p.([]any)[0].(float64), p.([]any)[1].(float64)
			if !slices.ContainsFunc(list, func(got any) bool {
				g := got.(map[string]any)
				return math.Abs(g["hz"].(float64)-hz) <= number("tolHz") && math.Abs(g["degS"].(float64)-degS) <= number("tol")*degS
			}) {
				return fault
			}
		}
		return ""
	}
	if by, ok := want["#by"].(string); ok {
		rows := map[string]any{}
		for _, row := range list {
			rows[fmt.Sprint(row.(map[string]any)[by])] = row
		}
		got = rows
	}
	for key, expected := range want {
		if key == "#by" {
			continue
		}
		if key == "#len" {
			if float64(len(list)) != expected {
				return fault
			}
			continue
		}
		there, found := fieldOrItem(got, key)
		if !found && expected == nil {
			continue
		}
		if !found {
			return fmt.Sprintf("%s.%s is missing", at, key)
		}
		if fault := differs(expected, there, at+"."+key); fault != "" {
			return fault
		}
	}
	return ""
}

func fieldOrItem(got any, key string) (any, bool) {
	switch got := got.(type) {
	case map[string]any:
		v, ok := got[key]
		return v, ok
	case []any:
		if i, err := strconv.Atoi(key); err == nil && i < len(got) {
			return got[i], true
		}
	}
	return nil, false
}

func sameWords(want, got []any) bool {
	words := func(all []any) []string {
		var out []string
		for _, v := range all {
			out = append(out, fmt.Sprint(v))
		}
		slices.Sort(out)
		return out
	}
	return slices.Equal(words(want), words(got))
}

// refusedBy reports whether each of these was refused, with a text, and for no other reason.
func refusedBy(want, got []any) bool {
	codes, rows := map[string]bool{}, map[string]bool{}
	for _, w := range want {
		codes[w.([]any)[0].(string)] = true
	}
	for _, g := range got {
		g := g.(map[string]any)
		if g["text"] == "" || !codes[g["code"].(string)] {
			return false
		}
		rows[fmt.Sprint(g["code"], g["part"])] = true
	}
	for _, w := range want {
		if !rows[fmt.Sprint(w.([]any)[0], w.([]any)[1])] {
			return false
		}
	}
	return true
}

func alikeHistograms(want, got []any, tolerance float64) bool {
	if len(want) != len(got) {
		return false
	}
	off, all := 0.0, 0.0
	for i := range want {
		off += math.Abs(want[i].(float64)-got[i].(float64)) / 2
		all += want[i].(float64)
	}
	return off <= tolerance*max(1, all)
}
