package paper

import (
	"bytes"
	"strings"
	"testing"
	"time"
)

// How it looks and reads is tested on the printed file, by another reader; here,
// that it is one page for as many as fit, and the next for one more.
func TestLabelsFillPages(t *testing.T) {
	size := LabelSize{24, 14}
	const perPage = 7 * 18 // (210 − 24)/24 by (297 − 34)/14
	for n, want := range map[int]int{0: 1, 1: 1, perPage: 1, perPage + 1: 2} {
		var file bytes.Buffer
		labels := make([]Label, n)
		for i := range labels {
			labels[i] = Label{"A1", "ND16 Grüße, déjà", "ND16 · 4.0 stops", strings.Repeat("a very long list of cameras ", 20)}
		}
		if err := WriteLabels(&file, labels, size, time.Unix(0, 0)); err != nil {
			t.Fatal(err)
		}
		if got := strings.Count(file.String(), "/Type /Page\n"); got != want || !strings.HasPrefix(file.String(), "%PDF") {
			t.Errorf("%d labels take %d pages, want %d", n, got, want)
		}
	}
}
