// Notices writes the licences of everything that is shipped with the application: of the Go modules
// that it is built of, and of the packages of the front end that the lockfile does not mark as for
// development. It is run by the build, with both at hand.
package main

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"slices"
	"strings"
)

func main() {
	out := bufio.NewWriter(os.Stdout)
	if err := errors.Join(write(out), out.Flush()); err != nil {
		fmt.Fprintln(os.Stderr, "notices:", err)
		os.Exit(1)
	}
}

// component is something that is shipped.
type component struct {
	name, version, folder string
	licence               string // by name, where the package says it
}

func write(out io.Writer) error {
	modules, err := goModules()
	if err != nil {
		return err
	}
	packages, err := npmPackages("package-lock.json")
	if err != nil {
		return err
	}
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return fmt.Errorf("find Go: %w", err)
	}
	fmt.Fprintf(out, "Pinhole is built with the work of others. These are their licences.\n")
	for _, c := range append(append([]component{{"Go", runtime.Version(), strings.TrimSpace(string(root)), "BSD-3-Clause"}}, modules...), packages...) {
		text, err := c.text()
		if err != nil {
			return err
		}
		fmt.Fprintf(out, "\n%s\n%s %s\n\n%s\n", strings.Repeat("=", 72), c.name, c.version, strings.TrimSpace(text))
	}
	return nil
}

// goModules returns the modules that the program is built of.
func goModules() ([]component, error) {
	const format = "{{with .Module}}{{if not .Main}}{{.Path}}\t{{.Version}}\t{{.Dir}}{{end}}{{end}}"
	listed, err := exec.Command("go", "list", "-deps", "-f", format, "./cmd/pinhole").Output() // the program of the page is a part of it
	if err != nil {
		return nil, fmt.Errorf("list the Go modules: %w", err)
	}
	lines := slices.Compact(slices.Sorted(strings.SplitSeq(strings.TrimSpace(string(listed)), "\n")))
	var all []component
	for _, line := range lines {
		if parts := strings.Split(line, "\t"); len(parts) == 3 {
			all = append(all, component{name: parts[0], version: parts[1], folder: parts[2]})
		}
	}
	return all, nil
}

// npmPackages returns the packages of a lockfile that are not for development alone.
func npmPackages(lockfile string) ([]component, error) {
	text, err := os.ReadFile(lockfile)
	if err != nil {
		return nil, fmt.Errorf("read the lockfile: %w", err)
	}
	var lock struct {
		Packages map[string]struct {
			Version  string `json:"version"`
			Licence  string `json:"license"`
			Dev      bool   `json:"dev"`
			DevOr    bool   `json:"devOptional"`
			Optional bool   `json:"optional"`
			Link     bool   `json:"link"`
		} `json:"packages"`
	}
	if err := json.Unmarshal(text, &lock); err != nil {
		return nil, fmt.Errorf("read the lockfile: %w", err)
	}
	var all []component
	for _, folder := range slices.Sorted(maps.Keys(lock.Packages)) {
		p := lock.Packages[folder]
		at := strings.LastIndex(folder, "node_modules/")
		if at < 0 || p.Dev || p.DevOr || p.Optional || p.Link {
			continue
		}
		all = append(all, component{folder[at+len("node_modules/"):], p.Version, folder, p.Licence})
	}
	return all, nil
}

var licenceFile = regexp.MustCompile(`(?i)^(licen[cs]e|copying|notice|ofl)([.-].*)?$`)

// text returns what the component says of its licence: its files, else its name alone.
func (c component) text() (string, error) {
	entries, err := os.ReadDir(c.folder)
	if err != nil {
		return "", fmt.Errorf("look for the licence of %s: %w", c.name, err)
	}
	var texts []string
	for _, e := range entries {
		if e.IsDir() || !licenceFile.MatchString(e.Name()) {
			continue
		}
		text, err := os.ReadFile(filepath.Join(c.folder, e.Name()))
		if err != nil {
			return "", fmt.Errorf("read the licence of %s: %w", c.name, err)
		}
		texts = append(texts, string(text))
	}
	switch {
	case len(texts) > 0:
		return strings.Join(texts, "\n\n"), nil
	case c.licence != "":
		return "Licence: " + c.licence, nil
	}
	return "", fmt.Errorf("%s %s says nothing of its licence in %s", c.name, c.version, c.folder)
}
