package web

import (
	"compress/gzip"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/gin-gonic/gin"
)

// A packed asset is the same to who takes it packed and to who does not, and is packed once.
func TestPackedAssets(t *testing.T) {
	const script = "console.log('a page, a page, a page')"
	page := fstest.MapFS{"assets/a.js.gz": {Data: packed(t, script)}, "assets/b.woff2": {Data: []byte("font")}}
	router := gin.New()
	router.NoRoute(servePage(page))
	get := func(path, accepted string) *httptest.ResponseRecorder {
		r := httptest.NewRequest(http.MethodGet, path, nil)
		r.Header.Set("Accept-Encoding", accepted)
		w := httptest.NewRecorder()
		router.ServeHTTP(w, r)
		return w
	}
	for accepted, isPacked := range map[string]bool{"gzip, deflate, br": true, "": false, "br;q=1, gzip;q=0": false, "gzip;q=0.5": true} {
		w := get("/assets/a.js", accepted)
		body := w.Body.Bytes()
		if got := w.Header().Get("Content-Encoding") == "gzip"; got != isPacked {
			t.Errorf("to who takes %q it is packed: %v", accepted, got)
		} else if isPacked {
			plain, err := unpacked(body)
			if err != nil {
				t.Fatal(err)
			}
			body = plain
		}
		if w.Code != http.StatusOK || string(body) != script || !strings.Contains(w.Header().Get("Content-Type"), "javascript") {
			t.Errorf("to who takes %q: %d, %s, %.60q", accepted, w.Code, w.Header().Get("Content-Type"), body)
		}
	}
	if w := get("/assets/b.woff2", "gzip"); w.Body.String() != "font" || w.Header().Get("Content-Encoding") != "" {
		t.Errorf("what is not packed: %q", w.Body)
	}
	if w := get("/assets/c.js", "gzip"); w.Code != http.StatusNotFound {
		t.Errorf("what is not there: %d", w.Code)
	}
}

func packed(t *testing.T, text string) []byte {
	t.Helper()
	var out strings.Builder
	w := gzip.NewWriter(&out)
	if _, err := w.Write([]byte(text)); err != nil {
		t.Fatal(err)
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return []byte(out.String())
}
