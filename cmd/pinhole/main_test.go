package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/adrg/xdg"

	"pinhole/core/problem"
)

func TestCalc(t *testing.T) {
	var out, errOut bytes.Buffer
	ask := func(request string, args ...string) error {
		out.Reset()
		errOut.Reset()
		root := rootCommand()
		root.SetIn(strings.NewReader(request))
		root.SetOut(&out)
		root.SetErr(&errOut)
		root.SetArgs(append([]string{"calc"}, args...))
		return root.Execute()
	}
	if err := ask("", "label", "--example"); err != nil || out.String() != `{"label":"ND16"}`+"\n" {
		t.Errorf("the example of label: %v, %s", err, out.String())
	}
	if err := ask(`{"label":"ND16"}`, "label"); err != nil || !strings.Contains(out.String(), `"stops":4`) || errOut.Len() > 0 {
		t.Errorf("label: %v, %s, %s", err, out.String(), errOut.String())
	}
	tests := map[string][2]string{
		"unknown name": {"guess", `{}`},
		"bad field":    {"label", `{"label":"dark"}`},
		"no JSON":      {"label", `ND16`},
		"no end":       {"label", strings.Repeat("x", 3<<20)},
	}
	for name, test := range tests {
		err := ask(test[1], test[0])
		var doc problem.Document
		if !errors.Is(err, errReported) || out.Len() > 0 || json.Unmarshal(errOut.Bytes(), &doc) != nil || doc.Status < 400 {
			t.Errorf("%s: %v, printed %q, reported %q", name, err, out.String(), errOut.String())
		}
	}
}

func TestCommands(t *testing.T) {
	for _, args := range [][]string{{"version"}, {"calc", "--help"}, {"openapi"}} {
		root := rootCommand()
		var out bytes.Buffer
		root.SetOut(&out)
		root.SetArgs(args)
		if err := root.Execute(); err != nil || out.Len() == 0 {
			t.Errorf("pinhole %v: %v, %d bytes", args, err, out.Len())
		}
	}
	var help bytes.Buffer
	root := rootCommand()
	root.SetOut(&help)
	root.SetArgs([]string{"calc", "--help"})
	if err := root.Execute(); err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"\nlabel: ", "{label}", "\nwindow: ", "twilight:{civil:{dawn, dusk}", "glassStops?"} {
		if !strings.Contains(help.String(), want) {
			t.Errorf("the help of calc does not hold %q", want)
		}
	}
	root = rootCommand()
	root.SetArgs([]string{"serve", "--demo", "--data", "x.db"})
	if err := root.Execute(); err == nil {
		t.Error("the demo was served from a named data file")
	}
}

func TestDemoHasADataFileOfItsOwn(t *testing.T) {
	t.Setenv("XDG_DATA_HOME", t.TempDir())
	xdg.Reload()
	t.Cleanup(xdg.Reload)
	own, err1 := serveOptions{}.dataFile()
	demo, err2 := serveOptions{demo: true}.dataFile()
	named, err3 := serveOptions{data: "here.db"}.dataFile()
	if errors.Join(err1, err2, err3) != nil || own == demo || named != "here.db" {
		t.Errorf("data files %q, %q, %q: %v", own, demo, named, errors.Join(err1, err2, err3))
	}
}

// What was saved is there after a clean shutdown and a new start.
func TestServeStopsCleanlyAndStartsAgain(t *testing.T) {
	o := serveOptions{listen: "127.0.0.1:0", data: filepath.Join(t.TempDir(), "a b", "x.db")}
	session := func(method, path, body string) string {
		ctx, interrupt := context.WithCancel(t.Context())
		defer interrupt()
		address, done := make(chan string, 1), make(chan error, 1)
		go func() {
			done <- serve(ctx, o, slog.New(slog.DiscardHandler), func(_ string, a ...any) {
				address <- a[2].(interface{ String() string }).String()
			})
		}()
		r, err := http.NewRequestWithContext(t.Context(), method, "http://"+<-address+path, strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/json")
		response, err := http.DefaultClient.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		text, err := io.ReadAll(response.Body)
		if closed := response.Body.Close(); err != nil || closed != nil {
			t.Fatal(err, closed)
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
		return string(text)
	}
	session("POST", "/api/shoots", `{"name":"kept"}`)
	if text := session("GET", "/api/shoots", ""); !strings.Contains(text, `"name":"kept"`) {
		t.Errorf("after a new start: %s", text)
	}
}
