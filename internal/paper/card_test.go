package paper

import (
	"bytes"
	"fmt"
	"strings"
	"testing"
	"time"
)

func shootOf(takes, drills int) Card {
	c := Card{Title: "Harvest", Place: "the terrace", Rows: []CardRow{{Day: "Saturday 20 September 2031"}}}
	for i := range takes {
		c.Rows = append(c.Rows, CardRow{At: "07:20", What: fmt.Sprintf("ND%d (A3)", i), Set: "1/50  ISO 191 to 239", Note: strings.Repeat("what it is · ", 6)})
	}
	for i := range drills {
		c.Drills = append(c.Drills, CardDrill{fmt.Sprintf("Filter lost %d", i), []string{strings.Repeat("do this ", 12), strings.Repeat("then that ", 12)}})
	}
	return c
}

// A common shoot is one page on either paper; what is far too much goes on.
func TestACardIsOnePage(t *testing.T) {
	for name, size := range map[string]CardSize{"A5": A5, "pocket": Pocket} {
		for _, c := range []struct{ takes, drills, pages int }{{0, 0, 1}, {1, 1, 1}, {9, 4, 1}, {12, 3, 1}, {40, 0, 2}} {
			var file bytes.Buffer
			if err := WriteCard(&file, shootOf(c.takes, c.drills), size, time.Unix(0, 0)); err != nil {
				t.Fatal(err)
			}
			if got := strings.Count(file.String(), "/Type /Page\n"); got != c.pages && !(c.pages == 2 && got >= 2) {
				t.Errorf("%s: %d takes and %d drills are %d pages, want %d", name, c.takes, c.drills, got, c.pages)
			}
		}
	}
}
