package web

import (
	"bytes"
	"encoding/json"
	"mime/multipart"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"pinhole/core/measure"
)

const samples = "../../core/measure/testdata"

// form writes a form of texts and of sample files, and returns it with its content type.
func form(t *testing.T, texts, files map[string]string) (body, contentType string) {
	t.Helper()
	var out bytes.Buffer
	w := multipart.NewWriter(&out)
	for name, text := range texts {
		if err := w.WriteField(name, text); err != nil {
			t.Fatal(err)
		}
	}
	for name, file := range files {
		content, err := os.ReadFile(filepath.Join(samples, file))
		if err != nil {
			t.Fatal(err)
		}
		part, err := w.CreateFormFile(name, file)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := part.Write(content); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return out.String(), w.FormDataContentType()
}

// The HTTP door answers as the measurement does, its parts named as the options are.
func TestFilesAreMeasured(t *testing.T) {
	s := newSite(t)
	body, media := form(t, map[string]string{"withoutExposure": "1/4000 iso100", "withExposure": "1/500 iso100"}, map[string]string{"without": "nd0a0.png", "with": "nd0b0.png"})
	w := s.do("POST", "/api/measure/filter", body, func(r *http.Request) { r.Header.Set("Content-Type", media) })
	var got measure.FilterAnswer
	if err := json.Unmarshal(w.Body.Bytes(), &got); err != nil || w.Code != http.StatusOK || got.Stops == nil || (*got.Stops-2.7788).Abs() > 0.03 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	for name, c := range map[string]struct {
		path, field  string
		texts, files map[string]string
	}{
		"no file":       {"frame", "file", map[string]string{"on": "2"}, nil},
		"no picture":    {"frame", "file", nil, map[string]string{"file": "words.png"}},
		"no such part":  {"frame", "colour", map[string]string{"colour": "red"}, map[string]string{"file": "grey.png"}},
		"a wrong text":  {"telemetry", "target", map[string]string{"target": "soon"}, map[string]string{"file": "log-locked.srt"}},
		"a file for on": {"frame", "on", nil, map[string]string{"file": "grey.png", "on": "grey.png"}},
	} {
		body, media := form(t, c.texts, c.files)
		w := s.do("POST", "/api/measure/"+c.path, body, func(r *http.Request) { r.Header.Set("Content-Type", media) })
		p := problemOf(t, w)
		if p.Status != http.StatusUnprocessableEntity || len(p.Errors) == 0 || p.Errors[0].Field != c.field {
			t.Errorf("%s: %+v", name, p)
		}
	}
	if w := s.do("POST", "/api/measure/frame", "{}", nil); problemOf(t, w).Status != http.StatusUnsupportedMediaType {
		t.Errorf("JSON is taken: %s", w.Body)
	}
}
