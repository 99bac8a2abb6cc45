package request

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"
	"time"

	"pinhole/core/problem"
)

type inner struct {
	Depth float64 `json:"depth" exclusiveMinimum:"0" maximum:"10" doc:"metres"`
}

type shared struct {
	Kind string `json:"kind,omitempty" enum:"a,b"`
}

type sample struct {
	shared
	Name  string             `json:"name" minLength:"1" maxLength:"5"`
	Count int                `json:"count,omitempty" minimum:"1" maximum:"3"`
	Maybe *float64           `json:"maybe,omitempty" minimum:"-1" maximum:"1"`
	Inner *inner             `json:"inner,omitempty"`
	List  []inner            `json:"list,omitempty" minItems:"1" maxItems:"2"`
	Words []string           `json:"words,omitempty" enum:"x,y" maxItems:"3"`
	Map   map[string]float64 `json:"map,omitempty" minimum:"0"`
	Yes   *bool              `json:"yes,omitempty"`
	At    *time.Time         `json:"at,omitempty"`
}

func TestDecode(t *testing.T) {
	got, err := Decode[sample]([]byte(`{"kind":"b","name":"é12","count":3,"maybe":0,"inner":{"depth":1e1},"list":[{"depth":0.5}],
		"words":["y"],"map":{"k":1},"yes":false,"at":"2031-09-20T07:30:00-01:00","Name":null}`))
	// "Name" is not a field; its null says nothing, and is refused like any other.
	if err == nil {
		t.Fatal("a field by another case was accepted")
	}
	got, err = Decode[sample]([]byte(`{"kind":"b","name":"é12","count":3,"maybe":null,"inner":{"depth":1e1},"at":"2031-09-20T07:30:00-01:00"}`))
	if err != nil || got.Kind != "b" || got.Name != "é12" || got.Count != 3 || got.Maybe != nil || got.Inner.Depth != 10 || got.At.Hour() != 7 {
		t.Errorf("Decode = %+v, %v", got, err)
	}
}

func TestDecodeNamesEveryFault(t *testing.T) {
	tests := []struct {
		body, field, allowed string
	}{
		{`{}`, "name", "a text"},
		{`{"name":""}`, "name", "not blank"},
		{`{"name":"123456"}`, "name", "at most 5 characters, not 6"},
		{`{"name":7}`, "name", "a text"},
		{`{"name":"x","kind":"c"}`, "kind", "one of a, b"},
		{`{"name":"x","count":0}`, "count", "a whole number from 1 to 3"},
		{`{"name":"x","count":1.5}`, "count", "a whole number"},
		{`{"name":"x","count":"2"}`, "count", "a whole number"},
		{`{"name":"x","maybe":1.01}`, "maybe", "a number from -1 to 1"},
		{`{"name":"x","maybe":1e999}`, "maybe", "a number from -1 to 1"},
		{`{"name":"x","inner":{"depth":0}}`, "inner.depth", "a number above 0 and up to 10 (metres)"},
		{`{"name":"x","inner":{}}`, "inner.depth", "(metres)"},
		{`{"name":"x","inner":[]}`, "inner", "an object with the fields depth"},
		{`{"name":"x","list":{}}`, "list", "a list"},
		{`{"name":"x","list":[]}`, "list", "at least 1"},
		{`{"name":"x","list":[{"depth":1},{"depth":1},{"depth":1}]}`, "list", "at most 2"},
		{`{"name":"x","list":[{"depth":1},{"depth":11}]}`, "list[1].depth", "up to 10"},
		{`{"name":"x","words":["z"]}`, "words[0]", "one of x, y"},
		{`{"name":"x","map":{"k":-1}}`, "map.k", "from 0"},
		{`{"name":"x","map":[]}`, "map", "an object"},
		{`{"name":"x","yes":1}`, "yes", "true or false"},
		{`{"name":"x","at":"2031-09-20"}`, "at", "with its zone"},
		{`{"name":"x","colour":1}`, "colour", "no such field"},
		{`[]`, "the request", "an object"},
	}
	for _, test := range tests {
		_, err := Decode[sample]([]byte(test.body))
		var doc *problem.Document
		if !errors.As(err, &doc) || doc.Status != 422 || len(doc.Errors) != 1 || doc.Errors[0].Field != test.field || !strings.Contains(doc.Errors[0].Allowed, test.allowed) {
			t.Errorf("Decode(%s) gives %v, want one fault of %s that says %q", test.body, err, test.field, test.allowed)
		}
	}
}

func TestDecodeRefusesWhatIsNotOneValue(t *testing.T) {
	for body, status := range map[string]int{"": 400, "{": 400, `{"name":"x"} {}`: 400, "\x00": 400, `"` + strings.Repeat("a", MaxBytes) + `"`: 413} {
		_, err := Decode[sample]([]byte(body))
		var doc *problem.Document
		if !errors.As(err, &doc) || doc.Status != status {
			t.Errorf("Decode of %d bytes %.10q gives %v, want status %d", len(body), body, err, status)
		}
	}
}

func TestFaultsAreBounded(t *testing.T) {
	_, err := Decode[sample]([]byte(`{"words":["a","b","c"],"map":{"k":-1,"z":-1},"q":1}`))
	var doc *problem.Document
	if !errors.As(err, &doc) || len(doc.Errors) != 7 {
		t.Fatalf("faults: %v", err)
	}
	if !strings.HasSuffix(doc.Detail, "(and 6 more)") {
		t.Errorf("the detail does not count them: %s", doc.Detail)
	}
}

func FuzzDecode(f *testing.F) {
	for _, body := range []string{`{"name":"x"}`, `{"name":"x","list":[{"depth":1}]}`, `[]`, `{"name":null}`, `{"at":"2031-09-20T07:30:00Z"}`, `1e999`} {
		f.Add([]byte(body))
	}
	f.Fuzz(func(t *testing.T, body []byte) {
		_, err := Decode[sample](body)
		var doc *problem.Document
		if err != nil && !errors.As(err, &doc) {
			t.Fatalf("Decode(%q) gives %T", body, err)
		}
	})
}

// Of a field that is given twice the last is checked and all are merged: it is refused
// wherever it stands.
func TestRepeatedFieldsAreRefused(t *testing.T) {
	long := strings.Repeat("x", 400_000)
	for body, field := range map[string]string{
		`{"name":"` + long + `","name":"x"}`:                      "name",
		`{"name":"x","inner":{"depth":1},"inner":{"depth":2}}`:    "inner",
		`{"name":"x","inner":{"depth":1,"depth":2}}`:              "inner.depth",
		`{"name":"x","list":[{"depth":1},{"depth":1,"depth":2}]}`: "list[1].depth",
		`{"name":"x","map":{"k":1,"k":2}}`:                        "map.k",
		`{"name":"x","name":"x"}`:                                 "name",
	} {
		_, err := Decode[sample]([]byte(body))
		var doc *problem.Document
		if !errors.As(err, &doc) || len(doc.Errors) != 1 || doc.Errors[0].Field != field || doc.Errors[0].Allowed != "each field once" {
			t.Errorf("%.60s gives %v", body, err)
		}
	}
}

// A wrong value is said back, and never all of it.
func TestWhatIsSaidBackIsShort(t *testing.T) {
	_, err := Decode[sample]([]byte(`{"name":"` + strings.Repeat("é", 100_000) + `","list":{"a":"` + strings.Repeat("b", 100_000) + `"},"` + strings.Repeat("f", 100_000) + `":1}`))
	text, cause := json.Marshal(err)
	if cause != nil || len(text) > 2000 || !strings.Contains(string(text), `"field":"name"`) {
		t.Errorf("%d bytes, %v: %.300s", len(text), cause, text)
	}
}

// What is said back is written as a person wrote it.
func TestWhatIsSaidBackIsAsItWasWritten(t *testing.T) {
	_, err := Decode[sample]([]byte(`{"name":"a > b & c"}`))
	if err == nil || !strings.Contains(err.Error(), `"a > b & c"`) {
		t.Errorf("got %v", err)
	}
}

func TestTextsAndInstantsThatNoFileCouldHold(t *testing.T) {
	for body, allowed := range map[string]string{
		`{"name":"a\u0000"}`:                            "control characters",
		`{"name":"a\rb"}`:                               "control characters",
		`{"name":"a\u001b"}`:                            "control characters",
		`{"name":"a\u2028"}`:                            "control characters",
		`{"name":"x","at":"9999-12-31T23:59:59-01:00"}`: "from 1900 to 2200",
		`{"name":"x","at":"0000-01-01T00:00:00+01:00"}`: "from 1900 to 2200",
	} {
		_, err := Decode[sample]([]byte(body))
		var doc *problem.Document
		if !errors.As(err, &doc) || !strings.Contains(doc.Detail, allowed) {
			t.Errorf("%s gives %v", body, err)
		}
	}
	if _, err := Decode[sample]([]byte(`{"name":"a\r\nb\t"}`)); err != nil {
		t.Errorf("two lines: %v", err)
	}
}
