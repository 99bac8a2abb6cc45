package main

import (
	"context"
	"crypto/tls"
	"crypto/x509"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"
)

// A telephone that trusts the authority opens the page, gives the passphrase and reads;
// the passphrase is kept as a hash, and the next start asks for the same.
func TestServeLan(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "a b")
	o := serveOptions{listen: "127.0.0.1:0", data: filepath.Join(folder, "x.db"), lan: true, lanListen: "127.0.0.1:0"}
	for start, given := range []string{"olive-grove-at-noon", ""} {
		t.Setenv(passphraseVariable, given)
		ctx, interrupt := context.WithCancel(t.Context())
		said, done := make(chan string, 20), make(chan error, 1)
		go func() {
			done <- serve(ctx, o, slog.New(slog.DiscardHandler), func(format string, a ...any) { said <- fmt.Sprintf(format, a...) })
		}()
		var text string
		for !strings.Contains(text, "open ") {
			select {
			case more := <-said:
				text += more
			case err := <-done:
				t.Fatalf("serve ends with %v after\n%s", err, text)
			}
		}
		address := regexp.MustCompile(`https://\S+/`).FindString(text)
		if address == "" || !strings.Contains(text, "█") || strings.Contains(text, "olive-grove") || start == 1 && !strings.Contains(text, "as before") {
			t.Errorf("start %d says\n%s", start, text)
		}
		if got := ask(t, phone(t, folder), address); !strings.Contains(got, `"items"`) {
			t.Errorf("the phone reads %s", got)
		}
		interrupt()
		select {
		case err := <-done:
			if err != nil {
				t.Fatalf("serve ends with %v", err)
			}
		case <-time.After(20 * time.Second):
			t.Fatal("serve does not end")
		}
	}
}

func TestAShortPassphraseIsRefused(t *testing.T) {
	t.Setenv(passphraseVariable, "olive")
	o := serveOptions{listen: "127.0.0.1:0", data: filepath.Join(t.TempDir(), "x.db"), lan: true, lanListen: "127.0.0.1:0"}
	err := serve(t.Context(), o, slog.New(slog.DiscardHandler), func(string, ...any) {})
	if err == nil || !strings.Contains(err.Error(), "10 characters at least, and this has 5") {
		t.Errorf("got %v", err)
	}
}

// phone is a client that trusts the authority of a folder.
func phone(t *testing.T, folder string) *http.Client {
	t.Helper()
	text, err := os.ReadFile(filepath.Join(folder, "lan-authority.pem"))
	if err != nil {
		t.Fatal(err)
	}
	roots := x509.NewCertPool()
	roots.AppendCertsFromPEM(text)
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	return &http.Client{Jar: jar, Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}, DisableKeepAlives: true, ForceAttemptHTTP2: true}}
}

// ask gives the passphrase and reads the shoots.
func ask(t *testing.T, client *http.Client, address string) string {
	t.Helper()
	var text []byte
	for _, r := range [][3]string{{"POST", "api/session", `{"passphrase":"olive-grove-at-noon"}`}, {"GET", "api/shoots", ""}} {
		request, err := http.NewRequestWithContext(t.Context(), r[0], address+r[1], strings.NewReader(r[2]))
		if err != nil {
			t.Fatal(err)
		}
		request.Header.Set("Content-Type", "application/json")
		response, err := client.Do(request)
		if err != nil {
			t.Fatal(err)
		}
		if response.ProtoMajor != 2 {
			t.Errorf("the phone is answered over %s", response.Proto)
		}
		text, err = io.ReadAll(response.Body)
		if closed := response.Body.Close(); err != nil || closed != nil {
			t.Fatal(err, closed)
		}
	}
	return string(text)
}
