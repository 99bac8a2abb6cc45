package web

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
)

// BenchmarkSolveOverHTTP asks one server for what glass a kit of twenty has, and beside it another that
// sends the same bytes back without knowing what they mean.
func BenchmarkSolveOverHTTP(b *testing.B) {
	var kit []string
	for i := range 20 {
		kit = append(kit, fmt.Sprintf(`{"id":"f%d","stops":%g,"kind":"nd"}`, i, 0.5+float64(i)/2))
	}
	body := []byte(`{"camera":{"aperture":2.8,"isoBase":100,"isoCeiling":1600},"fps":50,"angleDeg":180,
		"light":{"ev100":13.94,"spreadStops":0.2},"maxLayers":2,"most":12,"kit":[` + strings.Join(kit, ",") + `]}`)
	s := newSite(b)
	var answer []byte
	for _, server := range []struct {
		name    string
		handler http.Handler
	}{
		{"solve", s.handler},
		{"baseline echo", http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			_, _ = io.Copy(io.Discard, r.Body)
			w.Header().Set("Content-Type", "application/json")
			_, _ = w.Write(answer)
		})},
	} {
		b.Run(server.name, func(b *testing.B) {
			at := httptest.NewServer(server.handler)
			defer at.Close()
			for b.Loop() {
				r, err := http.Post(at.URL+"/api/calc/solve", "application/json", bytes.NewReader(body))
				if err != nil {
					b.Fatal(err)
				}
				if answer, err = io.ReadAll(r.Body); err != nil || r.StatusCode != http.StatusOK {
					b.Fatalf("%d %s: %v", r.StatusCode, answer, err)
				}
				_ = r.Body.Close()
			}
			b.ReportMetric(float64(len(answer)), "B/answer")
		})
	}
}
