package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"strings"
	"testing"

	"pinhole/internal/store"
)

// What a person does at the service: take a copy away, spoil something, and put it back.
func TestBackupsThroughTheirDoors(t *testing.T) {
	s := newSite(t)
	w := s.do("GET", "/api/backups/file", "", nil)
	taken := w.Body.Bytes()
	if w.Code != 200 || !strings.HasPrefix(string(taken), "SQLite format 3\x00") || w.Header().Get("Content-Disposition") != `attachment; filename="pinhole-2031-09-20.db"` {
		t.Fatalf("a backup is answered with %d, %v", w.Code, w.Header())
	}
	made := get[Backups](t, s, "POST", "/api/backups", "")
	if len(made.Copies) != 1 || made.Copies[0].Bytes < 10_000 || made.Bytes == 0 || !made.IsDaily {
		t.Fatalf("a copy is listed as %+v", made)
	}
	spoil := func() {
		t.Helper()
		get[store.Shoot](t, s, "POST", "/api/shoots", `{"name":"a mistake"}`)
	}
	shoots := func() int {
		t.Helper()
		return len(get[struct{ Items []store.Shoot }](t, s, "GET", "/api/shoots", "").Items)
	}
	before := shoots()
	spoil()
	back := get[Restored](t, s, "POST", "/api/backups/"+made.Copies[0].Name+"/restore", "")
	if n := shoots(); n != before {
		t.Errorf("after restoring a copy there are %d shoots, want %d", n, before)
	}
	if _, err := os.Stat(back.Aside); err != nil {
		t.Errorf("what was there is not kept: %v", err)
	}
	spoil()
	w = s.do("POST", "/api/import/backup", string(taken), octets)
	if n := shoots(); w.Code != 200 || n != before {
		t.Errorf("after restoring a file (%d, %s) there are %d shoots, want %d", w.Code, w.Body, n, before)
	}
	for name, file := range map[string]string{"half of it": string(taken[:len(taken)/2]), "a song": strings.Repeat("la ", 3000)} {
		if w := s.do("POST", "/api/import/backup", file, octets); problemOf(t, w).Status != http.StatusUnprocessableEntity {
			t.Errorf("%s is restored: %s", name, w.Body)
		}
	}
	if n := shoots(); n != before {
		t.Errorf("a bad backup left %d shoots", n)
	}
	if off := get[Backups](t, s, "POST", "/api/backups/daily", `{"isDaily":false}`); off.IsDaily {
		t.Error("daily copies stay on")
	}
	if left := get[Backups](t, s, "DELETE", "/api/backups/"+made.Copies[0].Name, ""); len(left.Copies) != 0 {
		t.Errorf("a removed copy is listed: %+v", left)
	}
	if w := s.do("DELETE", "/api/backups/none.db", "", nil); problemOf(t, w).Status != http.StatusNotFound {
		t.Errorf("a copy that never was: %s", w.Body)
	}
}

// An archive goes out at the desk, is looked at, and comes in.
func TestAnArchiveThroughItsDoors(t *testing.T) {
	s := newSite(t)
	w := s.do("GET", "/api/archive", "", nil)
	if w.Code != 200 || !strings.HasPrefix(w.Body.String(), "PK") || w.Header().Get("Content-Disposition") != `attachment; filename="pinhole-2031-09-20.zip"` {
		t.Fatalf("an archive is answered with %d, %v", w.Code, w.Header())
	}
	file := w.Body.String()
	shoot := get[struct{ Items []store.Shoot }](t, s, "GET", "/api/shoots", "").Items[0]
	get[store.Shoot](t, s, "DELETE", fmt.Sprintf("/api/shoots/%s?version=%d", shoot.ID, shoot.Version), "")
	bring := func(query string) store.Merged {
		t.Helper()
		var m store.Merged
		w := s.do("POST", "/api/import/archive"+query, file, octets)
		if err := json.Unmarshal(w.Body.Bytes(), &m); err != nil || w.Code != 200 {
			t.Fatalf("%s: %d, %s, %v", query, w.Code, w.Body, err)
		}
		return m
	}
	if m := bring("?look=true"); m.IsStored || m.Kept != 1 || m.New != 0 {
		t.Errorf("looked at, it brings %+v", m)
	}
	if m := bring(""); !m.IsStored || m.Kept != 1 {
		t.Errorf("it brings %+v", m)
	}
	if w := s.do("POST", "/api/import/archive", "la la la", octets); problemOf(t, w).Status != http.StatusUnprocessableEntity {
		t.Errorf("a song is brought in: %s", w.Body)
	}
}

// A telephone makes and restores none: it would replace everything.
func TestBackupsAreOfTheDesk(t *testing.T) {
	s := newShared(t)
	cookie := s.give(passphrase, "192.168.1.9").Result().Cookies()
	as := func(r *http.Request) {
		from("192.168.1.9")(r)
		for _, c := range cookie {
			r.AddCookie(c)
		}
	}
	var status Status
	if err := json.Unmarshal(s.do("GET", "/api/status", "", as).Body.Bytes(), &status); err != nil || status.AtDesk {
		t.Errorf("the telephone is told %+v, %v", status, err)
	}
	for _, asked := range []string{
		"GET /api/backups", "POST /api/backups", "DELETE /api/backups/x.db", "POST /api/backups/x.db/restore", "GET /api/archive",
		"POST /api/import/backup", "POST /api/import/archive", "GET /api/bin", "DELETE /api/bin", "DELETE /api/field-log?before=2031-01-01T00:00:00Z", "GET /api/devices", "DELETE /api/devices/x", "POST /api/devices/keep",
	} {
		method, path, _ := strings.Cut(asked, " ")
		if w := s.do(method, path, "", as); w.Code != http.StatusForbidden {
			t.Errorf("%s is answered with %d: %s", asked, w.Code, w.Body)
		}
	}
	if w := s.do("GET", "/api/backups/file", "", as); w.Code != http.StatusForbidden {
		t.Errorf("the data is given away: %d", w.Code)
	}
}

// A disk that is full, and a data file that is gone, are told apart from faults inside.
func TestFaultsOfTheDataFileAreSaid(t *testing.T) {
	s := newSite(t)
	if err := os.Remove(s.store.Path()); err != nil {
		t.Fatal(err)
	}
	w := s.do("POST", "/api/shoots", `{"name":"lost"}`, nil)
	if doc := problemOf(t, w); doc.Status != http.StatusServiceUnavailable || !strings.Contains(doc.Detail, "no longer where it was opened") {
		t.Errorf("got %+v", doc)
	}
}
