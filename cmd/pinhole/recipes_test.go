package main

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// TestPinholeHelper is pinhole itself, run by the next test.
func TestPinholeHelper(t *testing.T) {
	_, args, ok := strings.Cut(strings.Join(os.Args, "\x00"), "\x00--\x00")
	if !ok {
		t.Skip("only run by another test")
	}
	root := rootCommand()
	root.SetArgs(strings.Split(args, "\x00"))
	os.Exit(exitCode(root.Execute()))
}

// Each recipe of the guide runs as it is written, and answers what it says.
func TestRecipes(t *testing.T) {
	text, err := os.ReadFile("../../docs/recipes.md")
	if err != nil {
		t.Fatal(err)
	}
	recipes := regexp.MustCompile("(?m)^    (.+)\n\n→ `(.+)`$").FindAllStringSubmatch(string(text), -1)
	if len(recipes) != 10 {
		t.Fatalf("%d recipes are found", len(recipes))
	}
	folder := t.TempDir()
	script := "#!/bin/sh\nexec " + os.Args[0] + " -test.run='^TestPinholeHelper$' -- \"$@\"\n"
	if err := os.WriteFile(filepath.Join(folder, "pinhole"), []byte(script), 0o755); err != nil {
		t.Fatal(err)
	}
	for _, r := range recipes {
		cmd := exec.Command("sh", "-c", r[1])
		cmd.Env = append(os.Environ(), "PATH="+folder+":"+os.Getenv("PATH"))
		if out, err := cmd.CombinedOutput(); err != nil || !strings.Contains(string(out), r[2]) {
			t.Errorf("%s: %v, without %s:\n%.500s", r[1], err, r[2], out)
		}
	}
}
