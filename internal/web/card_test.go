package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"pinhole/core/card"
	"slices"
	"strings"
	"testing"

	"pinhole/internal/service"
	"pinhole/internal/store"
)

func harvest(t *testing.T, s *site) string {
	t.Helper()
	return get[struct{ Items []store.Shoot }](t, s, "GET", "/api/shoots", "").Items[0].ID
}

// What a device is given once is what it asks the computation ever after.
func TestACardIsAnsweredFromWhatADeviceWasGiven(t *testing.T) {
	s := newSite(t)
	kit := get[service.Card](t, s, "GET", "/api/shoots/"+harvest(t, s)+"/card", "")
	asked, err := json.Marshal(kit.Request)
	if err != nil {
		t.Fatal(err)
	}
	card := get[card.CardAnswer](t, s, "POST", "/api/calc/card", string(asked))
	turns := 0
	for _, c := range card.Cameras {
		for _, turn := range c.Turns {
			turns++
			if turn.Set.Shutter == "" || len(turn.Checks) < 5 || len(turn.Drills) < 3 || len(turn.Filters) > 0 && turn.Standing == nil {
				t.Errorf("%s on %s is not all there: %+v", turn.Name, c.Name, turn)
			}
		}
	}
	if len(card.Cameras) != 5 || turns != 10 || !strings.Contains(card.Text, "Pond from above") {
		t.Errorf("%d cameras, %d turns\n%s", len(card.Cameras), turns, card.Text)
	}
}

func TestTheFieldLogThroughItsDoor(t *testing.T) {
	s := newSite(t)
	log := "/api/shoots/" + harvest(t, s) + "/log/"
	tick := `{"kind":"tick","at":"2031-09-20T09:12:00-01:00","turn":"a/1/b","step":"pull"}`
	for range 2 {
		if e := get[store.FieldEntry](t, s, "PUT", log+"device-entry-1", tick); e.Clash != nil {
			t.Errorf("sent again it clashes with %+v", e.Clash)
		}
	}
	if e := get[store.FieldEntry](t, s, "PUT", log+"device-entry-2", tick); e.Clash == nil {
		t.Error("a second tick of the step is no clash")
	}
	if card := get[service.Card](t, s, "GET", strings.TrimSuffix(log, "/log/")+"/card", ""); len(card.Log) != 2 || len(card.Request.Marks) != 2 {
		t.Errorf("the card has %d entries, %d marks", len(card.Log), len(card.Request.Marks))
	}
	for _, c := range []struct{ path, body, field string }{
		{"device-entry-3", `{"kind":"override","at":"2031-09-20T09:12:00-01:00","turn":"a","step":"hold"}`, "words"},
		{"device-entry-3", `{"kind":"tick","at":"2031-09-20T09:12:00-01:00"}`, "step"},
		{"device-entry-3", `{"kind":"pin","at":"2031-09-20T09:12:00-01:00"}`, "anchor"},
		{"device-entry-3", `{"kind":"reading","at":"2031-09-20T09:12:00-01:00"}`, "reading"},
		{"device-entry-3", `{"kind":"note","at":"2031-09-20T09:12:00-01:00"}`, "words"},
		{"device-entry-3", `{"kind":"spell","at":"2031-09-20T09:12:00-01:00"}`, "kind"},
		{"short", tick, "entry"},
	} {
		p := problemOf(t, s.do("PUT", log+c.path, c.body, nil))
		if p.Status != http.StatusUnprocessableEntity || len(p.Errors) == 0 || p.Errors[0].Field != c.field {
			t.Errorf("%s is refused with %d %+v, want the field %s", c.body, p.Status, p.Errors, c.field)
		}
	}
	foreign := func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }
	if p := problemOf(t, s.do("PUT", log+"device-entry-9", tick, foreign)); p.Status != http.StatusForbidden {
		t.Errorf("a foreign page logs: %d", p.Status)
	}
	if p := problemOf(t, s.do("PUT", "/api/shoots/nowhere/log/device-entry-9", tick, nil)); p.Status != http.StatusNotFound {
		t.Errorf("a shoot that is not there takes entries: %d", p.Status)
	}
}

// A log of many entries is not refused: the card takes its end along, the rest is read in
// parts, and the service removes what is old.
func TestALongFieldLogThroughItsDoors(t *testing.T) {
	s := newSite(t)
	shoot := "/api/shoots/" + harvest(t, s)
	const entries = 520
	for i := range entries {
		get[store.FieldEntry](t, s, "PUT", fmt.Sprintf("%s/log/device-entry-%04d", shoot, i), `{"kind":"note","at":"2031-09-20T09:12:00-01:00","words":"a note"}`)
	}
	card := get[service.Card](t, s, "GET", shoot+"/card", "")
	type logPart struct {
		Items []store.FieldEntry
		Next  string
	}
	earlier := get[logPart](t, s, "GET", shoot+"/log?limit=15&after="+card.Earlier, "")
	rest := get[logPart](t, s, "GET", shoot+"/log?limit=15&after="+earlier.Next, "")
	if len(card.Log)+len(earlier.Items)+len(rest.Items) != entries || earlier.Items[0].ID != "device-entry-0019" || rest.Items[4].ID != "device-entry-0000" || rest.Next != "" {
		t.Errorf("%d in the card, then %+v and %+v", len(card.Log), earlier, rest)
	}
	if size := get[store.FieldLogSize](t, s, "DELETE", "/api/field-log?before=2032-01-01T00:00:00Z", ""); size.Entries != 0 || size.Oldest != nil {
		t.Errorf("after all was removed the log has %+v", size)
	}
	for path, field := range map[string]string{
		"/api/field-log": "before", "/api/field-log?before=yesterday": "before",
	} {
		if doc := problemOf(t, s.do("DELETE", path, "", nil)); doc.Status != 422 || len(doc.Errors) != 1 || doc.Errors[0].Field != field {
			t.Errorf("%s: %+v", path, doc)
		}
	}
}

// Every list comes in parts, which make the whole of it.
func TestListsComeInParts(t *testing.T) {
	s := newSite(t)
	for _, list := range []string{"cameras", "filters", "rigs", "trials", "shoots", "shots", "light-readings"} {
		type part struct {
			Items []store.Meta
			Next  string
		}
		whole := get[part](t, s, "GET", "/api/"+list, "")
		var ids []string
		for p := get[part](t, s, "GET", "/api/"+list+"?limit=2", ""); ; p = get[part](t, s, "GET", "/api/"+list+"?limit=2&after="+p.Next, "") {
			for _, m := range p.Items {
				ids = append(ids, m.ID)
			}
			if p.Next == "" {
				break
			}
		}
		if len(ids) != len(whole.Items) || !slices.EqualFunc(ids, whole.Items, func(id string, m store.Meta) bool { return id == m.ID }) {
			t.Errorf("%s in parts: %v", list, ids)
		}
		if doc := problemOf(t, s.do("GET", "/api/"+list+"?limit=0", "", nil)); doc.Status != 422 || doc.Errors[0].Field != "limit" {
			t.Errorf("%s with no limit: %+v", list, doc)
		}
		if doc := problemOf(t, s.do("GET", "/api/"+list+"?after=nobody", "", nil)); doc.Status != 404 {
			t.Errorf("%s after nobody: %+v", list, doc)
		}
	}
}
