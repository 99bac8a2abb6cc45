package web

import (
	"bytes"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/alexedwards/argon2id"

	"pinhole/internal/store"
)

const passphrase = "olive-grove-at-noon"

// newShared is the demo as other devices see it.
func newShared(t *testing.T) *site {
	t.Helper()
	s := newSite(t)
	// As lan.Hash does, in a moment: how dear a comparison is says the hash.
	hash, err := argon2id.CreateHash(passphrase, &argon2id.Params{Memory: 64, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32})
	if err != nil {
		t.Fatal(err)
	}
	handler, err := New(Config{Service: s.service, Log: slog.New(slog.NewJSONHandler(&bytes.Buffer{}, nil)), Version: "test", Share: &Share{PassphraseHash: hash, Authority: []byte("the certificate")}})
	if err != nil {
		t.Fatal(err)
	}
	return &site{handler: handler, log: s.log, store: s.store, service: s.service}
}

func from(address string) func(*http.Request) {
	return func(r *http.Request) {
		r.RemoteAddr = address + ":5000"
		r.Header.Set("X-Forwarded-For", "10.9.9.9") // whatever it claims
	}
}

func (s *site) give(word, address string) *httptest.ResponseRecorder {
	return s.do("POST", "/api/session", `{"passphrase":"`+word+`"}`, from(address))
}

func TestOtherDevicesAreLetInByThePassphrase(t *testing.T) {
	s := newShared(t)
	for _, path := range []string{"/api/shoots", "/api/cameras", "/api/status", "/api/openapi.json", "/api/nothing"} {
		if w := s.do("GET", path, "", nil); problemOf(t, w).Status != http.StatusUnauthorized {
			t.Errorf("%s answers a stranger with %d", path, w.Code)
		}
	}
	if w := s.do("PUT", "/api/shoots/x/log/device-entry-1", `{}`, nil); w.Code != http.StatusUnauthorized {
		t.Errorf("a stranger writes: %d", w.Code)
	}
	for _, path := range []string{"/", "/card", "/ca.crt"} {
		if w := s.do("GET", path, "", nil); w.Code != http.StatusOK {
			t.Errorf("%s, which holds nothing, answers %d", path, w.Code)
		}
	}
	if p := problemOf(t, s.give("olive", "10.0.0.1")); p.Status != http.StatusUnprocessableEntity || p.Errors[0].Field != "passphrase" {
		t.Errorf("a wrong passphrase is answered %+v", p)
	}
	w := s.give(passphrase, "10.0.0.1")
	cookies := w.Result().Cookies()
	if w.Code != http.StatusOK || len(cookies) != 1 {
		t.Fatalf("the passphrase gives %d with %v", w.Code, cookies)
	}
	if c := cookies[0]; !c.HttpOnly || !c.Secure || c.SameSite != http.SameSiteStrictMode {
		t.Errorf("the cookie is %+v", c)
	}
	in := func(r *http.Request) { r.AddCookie(cookies[0]) }
	if w := s.do("GET", "/api/shoots", "", in); w.Code != http.StatusOK {
		t.Errorf("once in, the shoots are %d", w.Code)
	}
	foreign := func(r *http.Request) { in(r); r.Header.Set("Sec-Fetch-Site", "cross-site") }
	if w := s.do("PUT", "/api/shoots/x/log/device-entry-1", `{}`, foreign); w.Code != http.StatusForbidden {
		t.Errorf("a foreign page writes with the cookie: %d", w.Code)
	}
	if w := s.do("DELETE", "/api/session", "", in); w.Code != http.StatusOK {
		t.Errorf("leaving gives %d", w.Code)
	}
	if w := s.do("GET", "/api/shoots", "", in); w.Code != http.StatusUnauthorized {
		t.Errorf("after leaving, the shoots are %d", w.Code)
	}
}

// A telephone that was lost is shut out at the desk, and told to let go of what it keeps.
func TestADeviceIsRevoked(t *testing.T) {
	s := newShared(t)
	in := func(address string) func(*http.Request) {
		cookie := s.give(passphrase, address).Result().Cookies()[0]
		return func(r *http.Request) {
			from(address)(r)
			r.AddCookie(cookie)
		}
	}
	lost, mine := in("10.0.0.1"), in("10.0.0.2")
	if err := s.store.SetKeepDays(t.Context(), 3); err != nil {
		t.Fatal(err)
	}
	if w := s.do("GET", "/api/status", "", mine); !strings.Contains(w.Body.String(), `"keepDays":3`) {
		t.Errorf("a telephone is told %s", w.Body)
	}
	all, err := s.store.Devices(t.Context())
	if err != nil || len(all) != 2 {
		t.Fatalf("%d devices are in, %v", len(all), err)
	}
	if w := s.do("GET", "/api/devices", "", lost); w.Code != http.StatusForbidden {
		t.Errorf("a telephone lists the devices: %d", w.Code)
	}
	desk, err := New(Config{Service: s.service, Log: slog.New(slog.DiscardHandler), Version: "test"})
	if err != nil {
		t.Fatal(err)
	}
	at := &site{handler: desk, log: s.log, store: s.store, service: s.service}
	for _, d := range all {
		if d.Address == "10.0.0.1" {
			if left := get[listing[store.Device]](t, at, "DELETE", "/api/devices/"+d.ID, "").Items; len(left) != 1 || left[0].Address != "10.0.0.2" {
				t.Errorf("left in are %+v", left)
			}
		}
	}
	w := s.do("GET", "/api/shoots", "", lost)
	if w.Code != http.StatusUnauthorized || w.Header().Get("Clear-Site-Data") == "" || problemOf(t, w).Detail != shutOut {
		t.Errorf("the lost one is answered with %d, %v: %s", w.Code, w.Header(), w.Body)
	}
	if w := s.do("GET", "/api/shoots", "", mine); w.Code != http.StatusOK {
		t.Errorf("the other one is answered with %d", w.Code)
	}
	// What is kept lets nobody in who reads it.
	for _, d := range all {
		if w := s.do("GET", "/api/shoots", "", func(r *http.Request) { r.AddCookie(&http.Cookie{Name: "__Host-pinhole", Value: d.ID}) }); w.Code != http.StatusUnauthorized {
			t.Errorf("the id of a device is its key: %d", w.Code)
		}
	}
}

// Whoever tries from many addresses does not keep out a device that was in before.
func TestAKnownDeviceIsNotLockedOut(t *testing.T) {
	s := newShared(t)
	if w := s.give(passphrase, "10.0.0.9"); w.Code != http.StatusOK {
		t.Fatalf("the first time: %d", w.Code)
	}
	for n := range triesTogther + 2 {
		s.do("POST", "/api/session", `{"passphrase":"g"}`, from(fmt.Sprintf("10.0.1.%d", n)))
	}
	if w := s.give("g", "10.0.2.1"); w.Code != http.StatusTooManyRequests {
		t.Errorf("an unknown one goes on trying: %d", w.Code)
	}
	if w := s.give(passphrase, "10.0.0.9"); w.Code != http.StatusOK {
		t.Errorf("the known one is answered with %d", w.Code)
	}
}

func TestTriesAreThrottled(t *testing.T) {
	s := newShared(t)
	statuses := map[int]int{}
	for range triesAtOnce + 3 {
		statuses[s.give("guess", "10.0.0.1").Code]++
	}
	if statuses[http.StatusTooManyRequests] != 3 {
		t.Errorf("of %d tries came %v", triesAtOnce+3, statuses)
	}
	// The right one does not get through either while its device has to wait.
	if w := s.give(passphrase, "10.0.0.1"); w.Code != http.StatusTooManyRequests {
		t.Errorf("the right one, throttled, gives %d", w.Code)
	}
	if w := s.give(passphrase, "10.0.0.2"); w.Code != http.StatusOK {
		t.Errorf("another device is kept out: %d", w.Code)
	}
}

func TestANewPassphraseEndsEverySession(t *testing.T) {
	s := newShared(t)
	cookie := s.give(passphrase, "10.0.0.1").Result().Cookies()[0]
	if err := s.store.SetPassphraseHash(t.Context(), "another"); err != nil {
		t.Fatal(err)
	}
	if w := s.do("GET", "/api/shoots", "", func(r *http.Request) { r.AddCookie(cookie) }); w.Code != http.StatusUnauthorized {
		t.Errorf("the old session gives %d", w.Code)
	}
}

// On this machine nobody is asked.
func TestThisMachineIsLetIn(t *testing.T) {
	s := newSite(t)
	if got := s.do("GET", "/api/session", "", nil).Body.String(); !strings.Contains(got, `"needed":false,"open":true`) {
		t.Errorf("the session is %s", got)
	}
	if w := s.do("GET", "/ca.crt", "", nil); strings.Contains(w.Body.String(), "certificate") {
		t.Error("a certificate is given out that nobody needs")
	}
}
