package table

import (
	"reflect"
	"strings"
	"testing"
)

func TestSeparatorIsToldFromTheFirstLine(t *testing.T) {
	for head, want := range map[string]rune{
		"label,slot\nND8;x;y,A1":       ',',
		"label;slot\nVND 2,5;A1":       ';',
		"\r\n\nlabel\tslot, or drawer": '\t',
		"\"a;b;c\",d":                  ',',
		"t;1,5":                        ';',
		"ND8":                          ',',
		"":                             ',',
	} {
		if got := Separator([]byte(head)); got != want {
			t.Errorf("%q: %q, want %q", head, got, want)
		}
	}
}

// The same cells come back whatever stands between them.
func TestEveryWritingReadsAlike(t *testing.T) {
	want := [][]string{{"label", "slot"}, {"ND8", ""}, {"a, b; c", "A2"}}
	for _, separator := range []string{",", ";", "\t"} {
		for _, mark := range []string{"", "\uFEFF"} {
			text := mark + strings.Join([]string{
				"label" + separator + "slot", "ND8" + separator, `"a, b; c"` + separator + "A2", ""}, "\r\n")
			got, err := NewReader(strings.NewReader(text)).ReadAll()
			if err != nil || !reflect.DeepEqual(got, want) {
				t.Errorf("with %q: %q, %v", separator, got, err)
			}
		}
	}
}

func TestAnEmptyFirstCellBeforeATabIsACell(t *testing.T) {
	got, err := NewReader(strings.NewReader("a\tb\n\tB1\n")).ReadAll()
	if want := [][]string{{"a", "b"}, {"", "B1"}}; err != nil || !reflect.DeepEqual(got, want) {
		t.Errorf("%q, %v", got, err)
	}
}
