package web

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"image/jpeg"
	"image/png"
	"io"
	"log/slog"
	"mime"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"pinhole/core/problem"
	"pinhole/internal/demo"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// site is the whole application on the demo, in process.
type site struct {
	handler http.Handler
	log     *bytes.Buffer
	store   *store.Store
	service *service.Service
}

// seeded is the data file of the demo, made once.
var seeded []byte

// now is the clock of the tests.
func now() time.Time { return time.Date(2031, 9, 20, 8, 0, 0, 0, time.UTC) }

func seed(t testing.TB) []byte {
	t.Helper()
	if seeded == nil {
		path := filepath.Join(t.TempDir(), "seeded.db")
		s, err := store.Open(t.Context(), path, now)
		if err != nil {
			t.Fatal(err)
		}
		if err := errors.Join(demo.Seed(t.Context(), &service.Service{Store: s, Now: now}), s.Close()); err != nil {
			t.Fatal(err)
		}
		if seeded, err = os.ReadFile(path); err != nil {
			t.Fatal(err)
		}
	}
	return seeded
}

func newSite(t testing.TB) *site {
	t.Helper()
	path := filepath.Join(t.TempDir(), "web.db")
	if err := os.WriteFile(path, seed(t), 0o600); err != nil {
		t.Fatal(err)
	}
	s, err := store.Open(t.Context(), path, now)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() }) // one test closes it itself
	svc := &service.Service{Store: s, Now: now}
	var log bytes.Buffer
	handler, err := New(Config{Service: svc, Log: slog.New(slog.NewJSONHandler(&log, nil)), Version: "test", Demo: true})
	if err != nil {
		t.Fatal(err)
	}
	return &site{handler, &log, s, svc}
}

func (s *site) do(method, path, body string, change func(*http.Request)) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://127.0.0.1:8321"+path, strings.NewReader(body))
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	if change != nil {
		change(r)
	}
	w := httptest.NewRecorder()
	s.handler.ServeHTTP(w, r)
	return w
}

// get decodes the answer to a request that must succeed.
func get[T any](t *testing.T, s *site, method, path, body string) T {
	t.Helper()
	w := s.do(method, path, body, nil)
	var v T
	if w.Code/100 != 2 {
		t.Fatalf("%s %s gives %d: %s", method, path, w.Code, w.Body)
	}
	if err := json.Unmarshal(w.Body.Bytes(), &v); err != nil {
		t.Fatalf("%s %s: %v", method, path, err)
	}
	return v
}

func problemOf(t *testing.T, w *httptest.ResponseRecorder) problem.Document {
	t.Helper()
	var doc problem.Document
	if got := w.Header().Get("Content-Type"); got != problem.MediaType {
		t.Errorf("status %d has content type %q: %s", w.Code, got, w.Body)
	}
	if err := json.Unmarshal(w.Body.Bytes(), &doc); err != nil || doc.Status != w.Code || doc.Title == "" || doc.Detail == "" {
		t.Errorf("status %d answers %s, %v", w.Code, w.Body, err)
	}
	return doc
}

func TestEveryFailureIsAProblemDocument(t *testing.T) {
	s := newSite(t)
	tests := []struct {
		name, method, path, body string
		change                   func(*http.Request)
		status                   int
		field                    string
	}{
		{"unknown path", "GET", "/api/nothing", "", nil, 404, ""},
		{"unknown computation", "POST", "/api/calc/guess", "{}", nil, 404, ""},
		{"wrong method", "DELETE", "/api/status", "", nil, 405, ""},
		{"writing to the page", "POST", "/shoot", "{}", nil, 405, ""},
		{"missing asset", "GET", "/assets/none.js", "", nil, 404, ""},
		{"no JSON", "POST", "/api/calc/label", "ND16", nil, 400, ""},
		{"empty body", "POST", "/api/calc/label", "", nil, 400, ""},
		{"a wrong field", "POST", "/api/calc/label", `{"label":"dark"}`, nil, 422, "label"},
		{"a form", "POST", "/api/calc/label", `{"label":"ND16"}`, func(r *http.Request) { r.Header.Set("Content-Type", "text/plain") }, 415, ""},
		{"too large", "POST", "/api/calc/label", `{"label":"` + strings.Repeat("x", 2<<20) + `"}`, nil, 413, ""},
		{"too large, unannounced", "POST", "/api/calc/label", `{"label":"` + strings.Repeat("x", 2<<20) + `"}`, func(r *http.Request) {
			r.ContentLength = -1
			r.Body = io.NopCloser(r.Body)
		}, 413, ""},
		{"no such shot", "GET", "/api/shots/nobody", "", nil, 404, ""},
		{"no version", "PUT", "/api/shoots/x", `{"name":"x"}`, nil, 422, "version"},
		{"a version that is none", "DELETE", "/api/shoots/x?version=new", "", nil, 422, "version"},
		{"a camera of faults", "POST", "/api/cameras", `{"name":"c","aperture":2,"isoBase":100,"isoCeiling":50,"steps":[],"rates":[],"mounted":[]}`, nil, 422, "isoCeiling"},
		{"a filter of no label", "POST", "/api/filters", `{"label":"dark","cameras":[]}`, nil, 422, "label"},
		{"a field too many", "POST", "/api/shoots", `{"name":"x","colour":"red"}`, nil, 422, "colour"},
		{"a foreign page writes", "POST", "/api/calc/label", `{"label":"ND16"}`, func(r *http.Request) { r.Header.Set("Origin", "http://elsewhere.test") }, 403, ""},
		{"a foreign page writes, newer browser", "POST", "/api/calc/label", `{"label":"ND16"}`, func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }, 403, ""},
		{"a foreign name", "GET", "/api/status", "", func(r *http.Request) { r.Host = "pinhole.test:8321" }, 421, ""},
		{"a foreign name for the page", "GET", "/", "", func(r *http.Request) { r.Host = "pinhole.test" }, 421, ""},
	}
	for _, test := range tests {
		w := s.do(test.method, test.path, test.body, test.change)
		doc := problemOf(t, w)
		if w.Code != test.status {
			t.Errorf("%s: status %d, want %d: %s", test.name, w.Code, test.status, w.Body)
		}
		if test.field != "" && (len(doc.Errors) != 1 || doc.Errors[0].Field != test.field) {
			t.Errorf("%s: faults %+v, want one of %s", test.name, doc.Errors, test.field)
		}
	}
}

func TestWhatGoesWrongInsideStaysInTheLog(t *testing.T) {
	s := newSite(t)
	if err := s.store.Close(); err != nil {
		t.Fatal(err)
	}
	w := s.do("GET", "/api/shots", "", nil)
	if doc := problemOf(t, w); w.Code != 500 || strings.Contains(w.Body.String(), "sql") || doc.Detail != internalDetail {
		t.Errorf("a closed data file is answered %d: %s", w.Code, w.Body)
	}
	if !strings.Contains(s.log.String(), "database is closed") {
		t.Errorf("the log does not say why:\n%s", s.log)
	}
}

func TestOwnOriginAndNamesAreServed(t *testing.T) {
	s := newSite(t)
	for _, host := range []string{"127.0.0.1:8321", "localhost:8321", "LOCALHOST", "[::1]:8321", "[::1]"} {
		w := s.do("POST", "/api/calc/label", `{"label":"ND16"}`, func(r *http.Request) {
			r.Host = host
			r.Header.Set("Origin", "http://"+host)
		})
		if w.Code != 200 {
			t.Errorf("host %s is answered %d: %s", host, w.Code, w.Body)
		}
	}
}

func TestHeadersOfEveryAnswer(t *testing.T) {
	s := newSite(t)
	for _, path := range []string{"/", "/api/status", "/api/nothing", "/shot/1"} {
		h := s.do("GET", path, "", nil).Header()
		csp := h.Get("Content-Security-Policy")
		if !strings.Contains(csp, "script-src 'self' 'wasm-unsafe-eval';") || !strings.Contains(csp, "default-src 'none'") {
			t.Errorf("%s has content security policy %q", path, csp)
		}
		if h.Get("X-Content-Type-Options") != "nosniff" || h.Get("Referrer-Policy") != "no-referrer" || h.Get("X-Frame-Options") != "DENY" {
			t.Errorf("%s lacks headers: %v", path, h)
		}
	}
}

// Nothing of ours is kept by what stands between, and no page of another site asks.
func TestAnswersAreForTheirAskerAlone(t *testing.T) {
	s := newSite(t)
	if got := s.do("GET", "/api/shoots", "", nil).Header().Get("Cache-Control"); got != "no-store" {
		t.Errorf("the shoots may be kept: %q", got)
	}
	for site, want := range map[string]int{"": 200, "none": 200, "same-origin": 200, "same-site": 403, "cross-site": 403} {
		if w := s.do("GET", "/api/shoots", "", func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", site) }); w.Code != want {
			t.Errorf("asked from %q: %d, want %d", site, w.Code, want)
		}
	}
	if w := s.do("GET", "/shoot", "", func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }); w.Code == 403 {
		t.Error("a link to a place is refused")
	}
	for _, path := range []string{"/api/shoots/", "/api/status/"} {
		if w := s.do("GET", path, "", func(r *http.Request) { r.Host = "elsewhere.test" }); w.Code != http.StatusMisdirectedRequest {
			t.Errorf("%s of another host is answered with %d", path, w.Code)
		}
	}
	if !strings.Contains(s.log.String(), `"from":"192.0.2.1"`) {
		t.Errorf("the log does not say who asked: %.200s", s.log)
	}
}

func TestHealthAndReadinessCanFail(t *testing.T) {
	s := newSite(t)
	if !get[Health](t, s, "GET", "/api/health", "").OK || !get[Health](t, s, "GET", "/api/ready", "").OK {
		t.Error("all is well, and not said so")
	}
	if err := os.Remove(s.store.Path()); err != nil {
		t.Fatal(err)
	}
	if w := s.do("GET", "/api/ready", "", nil); problemOf(t, w).Status != http.StatusServiceUnavailable {
		t.Errorf("with its file gone it is ready: %s", w.Body)
	}
	if err := s.store.Close(); err != nil {
		t.Fatal(err)
	}
	if w := s.do("GET", "/api/health", "", nil); problemOf(t, w).Status != http.StatusServiceUnavailable {
		t.Errorf("with its file closed it is healthy: %s", w.Body)
	}
}

// Files wait for each other, two at a time.
func TestImportsTakeTurns(t *testing.T) {
	s := newSite(t)
	reading, let := make(chan struct{}, 3), make(chan struct{})
	body := func() io.Reader { return &slowReader{reading, let, strings.NewReader("<gpx/>")} }
	done := make(chan int, 3)
	for range 3 {
		go func() {
			r := httptest.NewRequest("POST", "http://127.0.0.1:8321/api/import/track", body())
			octets(r)
			w := httptest.NewRecorder()
			s.handler.ServeHTTP(w, r)
			done <- w.Code
		}()
	}
	<-reading
	<-reading
	select {
	case <-reading:
		t.Error("three are read at a time")
	case <-time.After(200 * time.Millisecond):
	}
	close(let)
	for range 3 {
		if code := <-done; code != http.StatusUnprocessableEntity {
			t.Errorf("a track without a point is answered with %d", code)
		}
	}
}

// slowReader says that it is read, and waits.
type slowReader struct {
	reading chan struct{}
	let     chan struct{}
	io.Reader
}

func (r *slowReader) Read(p []byte) (int, error) {
	select {
	case r.reading <- struct{}{}:
	default:
	}
	<-r.let
	return r.Reader.Read(p)
}

func TestPageAnswersItsOwnAddresses(t *testing.T) {
	s := newSite(t)
	page, err := frontEnd()
	if err != nil {
		t.Fatal(err)
	}
	// The placeholder is there before and after the front end is built.
	w := s.do("GET", "/placeholder.txt", "", nil)
	if w.Code != 200 || w.Header().Get("Cache-Control") != "no-cache" || !strings.Contains(w.Body.String(), "front end") {
		t.Errorf("placeholder gives %d %v", w.Code, w.Header())
	}
	for path, want := range map[string]int{"/": 200, "/shoot": 200, "/shot/1": 200, "/kit/fit": 200, "/card": 200, "/measure/case": 200, "/log": 200, "/practice": 200, "/shooting": 404, "/nothing/here": 404, "/.env": 404} {
		if w := s.do("GET", path, "", nil); exists(page, "index.html") && w.Code != want {
			t.Errorf("%s gives %d, want %d", path, w.Code, want)
		}
	}
	if w = s.do("HEAD", "/placeholder.txt", "", nil); w.Code != 200 || w.Body.Len() != 0 {
		t.Errorf("HEAD gives %d and %d bytes", w.Code, w.Body.Len())
	}
}

type shotList struct {
	Items []store.Shot `json:"items"`
}

func TestShotLivesThroughItsDoors(t *testing.T) {
	s := newSite(t)
	shots := get[shotList](t, s, "GET", "/api/shots", "").Items
	shot := shots[0]
	body := func(name string) string {
		fields := shot.ShotFields
		fields.Name = name
		text, err := json.Marshal(fields)
		if err != nil {
			t.Fatal(err)
		}
		return string(text)
	}
	made := get[store.Shot](t, s, "POST", "/api/shots", body("another"))
	if made.ID == shot.ID || made.Version != 1 || made.Answer.Given.Chosen.Stops != shot.Answer.Given.Chosen.Stops {
		t.Errorf("made %+v", made.Meta)
	}
	path := "/api/shots/" + made.ID
	changed := get[store.Shot](t, s, "PUT", path+"?version=1", body("mine"))
	if changed.Version != 2 || changed.Name != "mine" {
		t.Errorf("changed to %+v %q", changed.Meta, changed.Name)
	}

	late := s.do("PUT", path+"?version=1", body("late"), nil)
	doc := problemOf(t, late)
	current, _ := doc.Current.(map[string]any)
	if late.Code != 409 || current["name"] != "mine" || current["version"] != 2.0 {
		t.Errorf("the later change is told %d, %v", late.Code, doc.Current)
	}
	// An unreadable change stores nothing.
	if w := s.do("PUT", path+"?version=2", strings.Replace(body("bad"), `"25"`, `"fast"`, 1), nil); w.Code != 422 || problemOf(t, w).Errors[0].Field != "look.fps" {
		t.Errorf("an unreadable look is answered %d: %s", w.Code, w.Body)
	}
	if now := get[store.Shot](t, s, "GET", path, ""); now.Name != "mine" || now.Version != 2 {
		t.Errorf("stored is %q version %d", now.Name, now.Version)
	}

	gone := get[store.Shot](t, s, "DELETE", path+"?version=2", "")
	if n := len(get[shotList](t, s, "GET", "/api/shots", "").Items); n != len(shots) || gone.DeletedAt == nil {
		t.Errorf("after deleting there are %d shots, want %d", n, len(shots))
	}
	back := get[store.Shot](t, s, "POST", path+"/restore?version=3", "")
	if back.DeletedAt != nil || back.Name != "mine" {
		t.Errorf("brought back as %+v", back.Meta)
	}
	readings := get[struct{ Items []store.Reading }](t, s, "GET", path+"/readings", "").Items
	if len(readings) != 1 || readings[0].Source != "real" {
		t.Errorf("its readings are %+v", readings)
	}
	if w := s.do("POST", "/api/shots", strings.Replace(body("x"), shot.ShootID, "no shoot", 1), nil); w.Code != 422 {
		t.Errorf("a shot of no shoot is answered %d: %s", w.Code, w.Body)
	}
}

// What was sent, and whose answer was lost on the way, is sent again and stored once.
func TestCreatingTwiceByOneKeyStoresOnce(t *testing.T) {
	s := newSite(t)
	type things struct{ Items []store.Meta }
	count := func(path string) int { return len(get[things](t, s, "GET", path, "").Items) }
	shots := get[shotList](t, s, "GET", "/api/shots", "").Items
	aShot := shots[0]
	body := fmt.Sprintf(`{"shootId":%q,"cameraId":%q,"name":"sent twice","look":{"fps":"25","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 12"}},"choices":{}}`, aShot.ShootID, aShot.CameraID)
	for path, body := range map[string]string{
		"/api/shoots":  `{"name":"sent twice"}`,
		"/api/cameras": `{"name":"sent twice","aperture":2,"isoBase":100,"isoCeiling":800,"rates":["25"],"steps":[],"mounted":[]}`,
		"/api/shots":   body,
	} {
		before := count(path)
		key := uuid.NewString()
		keyed := func(r *http.Request) { r.Header.Set("Idempotency-Key", key) }
		first, second := s.do("POST", path, body, keyed), s.do("POST", path, body, keyed)
		var a, b store.Meta
		if err := errors.Join(json.Unmarshal(first.Body.Bytes(), &a), json.Unmarshal(second.Body.Bytes(), &b)); err != nil || a.ID != key || b.ID != key {
			t.Errorf("%s: %s, %s, %v", path, first.Body, second.Body, err)
		}
		if n := count(path); n != before+1 {
			t.Errorf("%s: %d were stored", path, n-before)
		}
		if path == "/api/cameras" {
			if rigs, err := s.store.RigsOf(t.Context(), key); err != nil || len(rigs) != 1 {
				t.Errorf("the camera has %d rigs, %v", len(rigs), err)
			}
		}
		if path == "/api/shots" {
			if readings, err := s.store.ReadingsOf(t.Context(), key); err != nil || len(readings) != 1 {
				t.Errorf("the shot has %d readings, %v", len(readings), err)
			}
		}
	}
	if w := s.do("POST", "/api/shoots", `{"name":"x"}`, func(r *http.Request) { r.Header.Set("Idempotency-Key", "../x") }); problemOf(t, w).Status != http.StatusUnprocessableEntity {
		t.Errorf("any text passes for a key: %s", w.Body)
	}
}

func TestGearThroughItsDoors(t *testing.T) {
	s := newSite(t)
	camera := get[store.Camera](t, s, "POST", "/api/cameras", `{"name":"c","aperture":2.8,"isoBase":100,"isoCeiling":800,"steps":["1/50"],"rates":["25"],"mounted":[]}`)
	filter := get[service.ShownFilter](t, s, "POST", "/api/filters", `{"label":"ND8/PL","cameras":["`+camera.ID+`"]}`)
	if filter.Counts == nil || filter.Counts.Stops != 4.5 || filter.Title != "ND8/PL" {
		t.Errorf("the filter is shown as %+v", filter)
	}
	b := get[service.Bench](t, s, "GET", "/api/cameras/"+camera.ID+"/bench", "")
	if len(b.Kit) != 1 || b.Kit[0].ID != filter.ID || b.Optics.Aperture != 2.8 {
		t.Errorf("the bench is %+v", b)
	}
}

// framesOf returns the pictures of an answer in parts, each as its file.
func framesOf(t *testing.T, w *httptest.ResponseRecorder) (frames [][]byte) {
	t.Helper()
	_, params, err := mime.ParseMediaType(w.Header().Get("Content-Type"))
	if err != nil {
		t.Fatal(err)
	}
	parts := multipart.NewReader(w.Body, params["boundary"])
	for {
		part, err := parts.NextPart()
		if errors.Is(err, io.EOF) {
			return frames
		}
		if err != nil {
			t.Fatal(err)
		}
		file, err := io.ReadAll(part)
		if err != nil {
			t.Fatal(err)
		}
		if frame, err := jpeg.Decode(bytes.NewReader(file)); err != nil || frame.Bounds().Dx() != 320 {
			t.Errorf("frame %d: %v", len(frames), err)
		}
		frames = append(frames, file)
	}
}

// A shot is drawn, and what cannot be drawn is a problem document like any other.
func TestDrawingsComeAsPictures(t *testing.T) {
	s := newSite(t)
	shots := get[struct{ Items []store.Shot }](t, s, "GET", "/api/shots", "")
	request, err := json.Marshal(shots.Items[1].Answer.Request)
	if err != nil {
		t.Fatal(err)
	}
	loop := framesOf(t, s.do("POST", "/api/render/loop", `{"shot":`+string(request)+`,"show":"taken","small":true}`, nil))
	still := framesOf(t, s.do("POST", "/api/render/loop", `{"shot":`+string(request)+`,"show":"taken","small":true,"still":true}`, nil))
	if len(loop) != 16 || len(still) != 1 || !bytes.Equal(loop[0], still[0]) {
		t.Errorf("a loop of %d frames, and a still one of %d, which is its first: %v", len(loop), len(still), bytes.Equal(loop[0], still[0]))
	}
	camera := `"camera":{"aperture":2,"isoBase":100,"isoCeiling":800},"fps":"25"`
	w := s.do("POST", "/api/sim/camera/frame", `{`+camera+`,"ev100":12}`, nil)
	if _, err := png.Decode(w.Body); err != nil || w.Header().Get("Content-Type") != "image/png" {
		t.Errorf("the test frame is %d, %s, %v", w.Code, w.Header().Get("Content-Type"), err)
	}
	for path, body := range map[string]string{
		"/api/render/loop":      `{"shot":` + string(request) + `,"show":"everything"}`,
		"/api/sim/camera/frame": `{` + camera + `,"ev100":99}`,
		"/api/sim/camera":       `{` + camera + `}`,
	} {
		w := s.do("POST", path, body, nil)
		if doc := problemOf(t, w); w.Code != http.StatusUnprocessableEntity || len(doc.Errors) == 0 {
			t.Errorf("%s answers %d, %+v", path, w.Code, doc)
		}
	}
}

func TestOpenAPIDescribesEveryDoor(t *testing.T) {
	text, err := OpenAPI("test")
	if err != nil {
		t.Fatal(err)
	}
	served := newSite(t).do("GET", "/api/openapi.json", "", nil)
	if served.Code != 200 || !json.Valid(served.Body.Bytes()) {
		t.Errorf("the server's own document is answered %d", served.Code)
	}
	var doc struct {
		Paths      map[string]map[string]any
		Components struct {
			Schemas map[string]struct{ Properties map[string]map[string]any }
		}
	}
	if err := json.Unmarshal(text, &doc); err != nil {
		t.Fatal(err)
	}
	for _, path := range []string{"/api/calc/solve", "/api/calc/shot", "/api/shots/{id}", "/api/cameras/{id}/bench", "/api/filters/{id}/restore"} {
		if doc.Paths[path] == nil {
			t.Errorf("%s is not described", path)
		}
	}
	aperture := doc.Components.Schemas["Camera"].Properties["aperture"]
	if aperture["minimum"] != 0.5 || aperture["maximum"] != 64.0 || aperture["description"] == "" {
		t.Errorf("an aperture is described as %v", aperture)
	}
}
