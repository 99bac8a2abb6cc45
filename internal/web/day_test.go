package web

import (
	"io"
	"net/http"
	"strings"
	"testing"

	"pinhole/internal/files"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// zeros is an upload that never ends; it counts what is read of it.
type zeros struct{ read int }

func (z *zeros) Read(p []byte) (int, error) {
	z.read += len(p)
	return len(p), nil
}

func octets(r *http.Request) { r.Header.Set("Content-Type", "application/octet-stream") }

// A huge file is refused before it is read, and one whose size is not said once it is
// too large: what is kept in memory is bounded either way.
func TestHugeUploadsAreRefused(t *testing.T) {
	s := newSite(t)
	for _, path := range []string{"/api/import/track", "/api/import/still"} {
		endless := &zeros{}
		w := s.do("POST", path, "", func(r *http.Request) {
			octets(r)
			r.Body, r.ContentLength = io.NopCloser(endless), 500<<20
		})
		if problemOf(t, w).Status != http.StatusRequestEntityTooLarge || endless.read != 0 {
			t.Errorf("%s answers 500 MB with %d after %d bytes", path, w.Code, endless.read)
		}
		w = s.do("POST", path, "", func(r *http.Request) {
			octets(r)
			r.Body, r.ContentLength = io.NopCloser(endless), -1
		})
		if problemOf(t, w).Status != http.StatusRequestEntityTooLarge || endless.read > 2*mostUpload {
			t.Errorf("%s answers an endless file with %d after %d bytes", path, w.Code, endless.read)
		}
		if w := s.do("POST", path, `{}`, nil); problemOf(t, w).Status != http.StatusUnsupportedMediaType {
			t.Errorf("%s takes JSON: %d", path, w.Code)
		}
	}
}

func TestADayThroughItsDoors(t *testing.T) {
	s := newSite(t)
	shoots := get[struct{ Items []store.Shoot }](t, s, "GET", "/api/shoots", "")
	id := shoots.Items[0].ID
	day := get[service.Day](t, s, "GET", "/api/shoots/"+id+"/day", "")
	if day.Zone != "Etc/GMT+1" || len(day.Request.Shots) != 7 {
		t.Fatalf("%s, %d shots", day.Zone, len(day.Request.Shots))
	}
	year := get[service.YearOf](t, s, "GET", "/api/shoots/"+id+"/year", "")
	if len(year.Answer.Weeks) != 53 || len(year.Hours) < 3 || len(year.Answer.Calls) == 0 {
		t.Errorf("the year has %d weeks at %v: %+v", len(year.Answer.Weeks), year.Hours, year.Answer.Calls)
	}
	track := s.do("POST", "/api/import/track", `<gpx><trk><trkseg><trkpt lat="38.4" lon="-20.5"/></trkseg></trk></gpx>`, octets)
	if track.Code != http.StatusOK || !strings.Contains(track.Body.String(), `"points":1`) {
		t.Errorf("a track gives %d: %s", track.Code, track.Body)
	}
	plan := get[files.Plan](t, s, "GET", "/api/shoots/"+id+"/plan?format=json", "")
	if len(plan.Shots) != 7 || len(plan.Swaps) != 2 {
		t.Errorf("the plan has %d shots and %d swaps", len(plan.Shots), len(plan.Swaps))
	}
	calendar := s.do("GET", "/api/shoots/"+id+"/plan", "", nil)
	if !strings.HasPrefix(calendar.Body.String(), "BEGIN:VCALENDAR\r\n") || strings.Count(calendar.Body.String(), "BEGIN:VALARM") != 9 {
		t.Errorf("the calendar is %.200s", calendar.Body)
	}
	zone := get[ZoneAnswer](t, s, "POST", "/api/zone", `{"latDeg":0,"lonDeg":-140}`)
	if zone.Zone != "Etc/GMT+9" {
		t.Errorf("in the middle of the ocean it is %s", zone.Zone)
	}
	// A shoot whose last day comes before its first is not stored.
	w := s.do("PUT", "/api/shoots/"+id+"?version=1", `{"name":"x","day":{"firstDay":"2031-09-21","lastDay":"2031-09-20"}}`, nil)
	if doc := problemOf(t, w); len(doc.Errors) == 0 || doc.Errors[0].Field != "day.lastDay" {
		t.Errorf("%+v", doc)
	}
}
