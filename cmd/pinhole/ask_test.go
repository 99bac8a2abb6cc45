package main

import (
	"bytes"
	"encoding/json"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"pinhole/core/calc"
	"pinhole/internal/demo"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// pinhole runs a command as at the command line.
func pinhole(t *testing.T, args ...string) (out string, err error) {
	t.Helper()
	var text bytes.Buffer
	root := rootCommand()
	root.SetArgs(args)
	root.SetOut(&text)
	root.SetErr(&text)
	err = root.ExecuteContext(t.Context())
	return text.String(), err
}

func TestAsk(t *testing.T) {
	out, err := pinhole(t, "ask", "f2.8 1/1600 iso100 > 30 · snowy")
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"ND32, 1/60, ISO 100: 0.3 under\n", "needs 4.7 stops · holds\n", "or ND16: +0.7 stops", "read as: f2.8 1/1600 iso100 > 30 fps\n", "assumed: f2.8 iso100-1600 · 180°\n", `not read: "snowy", perhaps snow`} {
		if !strings.Contains(out, want) {
			t.Errorf("%q is not in\n%s", want, out)
		}
	}
	out, err = pinhole(t, "ask", "--json", "--explain", "EV 14 > 25 · 8 16")
	var a calc.AskAnswer
	if err != nil || json.Unmarshal([]byte(out), &a) != nil || len(a.Explain) < 5 || a.Shot != nil || a.EV100 == nil || len(a.Filters) == 0 {
		t.Errorf("as JSON it answers %v, %s", err, out)
	}
	if _, err := pinhole(t, "ask"); exitCode(err) != exitInput {
		t.Errorf("without a line it ends with %v", err)
	}
}

// A data file lends its cameras, filters and last shots; it may be in use.
func TestAskOfADataFile(t *testing.T) {
	data := filepath.Join(t.TempDir(), "x.db")
	if _, err := pinhole(t, "ask", "--data", data, "EV 14"); exitCode(err) != exitFault {
		t.Errorf("of a file that is not there it ends with %v", err)
	}
	s, err := store.Open(t.Context(), data, time.Now)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := demo.Seed(t.Context(), &service.Service{Store: s, Now: time.Now}); err != nil {
		t.Fatal(err)
	}
	out, err := pinhole(t, "ask", "--data", data, "pond drone (camera drone) EV 15 > 25")
	if err != nil || !strings.Contains(out, "read as: Pond drone (camera drone) · EV 15 > 25 fps\n") || !strings.Contains(out, "ND") {
		t.Errorf("%v\n%s", err, out)
	}
}
