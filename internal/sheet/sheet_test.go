package sheet

import (
	"bytes"
	"encoding/csv"
	"slices"
	"strings"
	"testing"
)

func TestNoCellIsRun(t *testing.T) {
	for text, isRun := range map[string]bool{
		"ND8": false, "": false, "a=1": false, "8 - 2": false,
		"=1+1": true, "+1": true, "-1": true, "@x": true, "\t=1": true, "\rx": true, "  =1": true, "\u00a0=1": true, "\ufeff=1": true, "\u200b=1": true,
		"＝1": true, "＋1": true, "－1": true, "＠x": true, "\n=1": true,
	} {
		cell := Guarded(text)
		if strings.HasPrefix(cell, "'") != isRun {
			t.Errorf("%q is written as %q", text, cell)
		}
		if back := Unguarded(cell); back != text {
			t.Errorf("%q comes back as %q", text, back)
		}
	}
}

func FuzzTablesRoundTrip(f *testing.F) {
	f.Add("ND8", "a;b\t\"c\"\r\nd")
	f.Add("'=1", " ＝1")
	f.Fuzz(func(t *testing.T, a, b string) {
		for _, text := range []string{a, b} {
			if Unguarded(Guarded(text)) != text {
				t.Errorf("%q comes back as %q", text, Unguarded(Guarded(text)))
			}
		}
		if a == "" || strings.Contains(a+b, "\r") { // the reader takes \r\n within a cell for \n
			return
		}
		var out bytes.Buffer
		if err := Write(&out, [][]string{{a, b}}); err != nil {
			t.Fatal(err)
		}
		rows, err := csv.NewReader(&out).ReadAll()
		if err != nil || len(rows) != 1 || !slices.Equal(rows[0], []string{a, b}) {
			t.Errorf("%q, %q are read as %q, %v", a, b, rows, err)
		}
	})
}
