// Package terms holds what the product says against its list of terms.
package terms

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// term is what a thing is called, and what it is not called any more.
type term struct {
	Use string   `json:"use"`
	Not []string `json:"not"`
	// Words that nothing on a screen says; patterns.
	Words []string `json:"words"`
	words []*regexp.Regexp
}

const root = "../.."

func terms(t *testing.T) []term {
	t.Helper()
	text, err := os.ReadFile(filepath.Join(root, "docs", "terms.json"))
	if err != nil {
		t.Fatal(err)
	}
	var all []term
	if err := json.Unmarshal(text, &all); err != nil || len(all) < 20 {
		t.Fatalf("%d terms, %v", len(all), err)
	}
	for i := range all {
		for _, word := range all[i].Words {
			if !strings.Contains(word, "(?") { // what looks around itself is held by the tests of the interface
				all[i].words = append(all[i].words, regexp.MustCompile(`(?i)\b`+word+`\b`))
			}
		}
	}
	return all
}

// sources returns the files with an ending under the folders, tests and what is generated apart.
func sources(t *testing.T, ending string, folders ...string) []string {
	t.Helper()
	var files []string
	for _, folder := range folders {
		err := filepath.WalkDir(filepath.Join(root, folder), func(path string, d fs.DirEntry, err error) error {
			if err != nil {
				return err
			}
			name := d.Name()
			if d.IsDir() && (name == "dist" || name == "testdata" || name == "node_modules") {
				return fs.SkipDir
			}
			if strings.HasSuffix(name, ending) && !strings.HasSuffix(name, "_test.go") && !strings.Contains(name, ".gen.") {
				files = append(files, path)
			}
			return nil
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	return files
}

// hold faults a text that calls something what it is not called.
func hold(t *testing.T, all []term, where, text string) {
	t.Helper()
	if strings.Contains(where, "core/line/") {
		return // the line reads what people type, whatever that is
	}
	lower := strings.ToLower(text)
	for _, term := range all {
		for _, not := range term.Not {
			if at := strings.Index(lower, not); at == 0 || at > 0 && !isLetter(lower[at-1]) {
				t.Errorf("%s says %q in %q: use %s", where, not, strings.TrimSpace(text), term.Use)
			}
		}
	}
}

// holdWords faults a word that no screen says in a text of the core's, which screens show.
func holdWords(t *testing.T, all []term, where, text string) {
	t.Helper()
	if !strings.Contains(where, "core/") || strings.Contains(where, "core/line/") {
		return
	}
	for _, term := range all {
		for _, word := range term.words {
			if word.MatchString(text) {
				t.Errorf("%s says %q in %q: use %s", where, word, text, term.Use)
			}
		}
	}
}

// isLetter reports whether a word goes on with a byte, as "was printed" does before "as printed".
func isLetter(b byte) bool { return b >= 'a' && b <= 'z' }

// What the server and the core say: every string of more than a word that is no tag, no import
// and no description of the API.
func TestGoSaysTheTerms(t *testing.T) {
	all := terms(t)
	said := 0
	for _, path := range sources(t, ".go", "core", "internal", "cmd") {
		set := token.NewFileSet()
		file, err := parser.ParseFile(set, path, nil, 0)
		if err != nil {
			t.Fatal(err)
		}
		ast.Inspect(file, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.ImportSpec:
				return false
			case *ast.Field:
				n.Tag = nil
			case *ast.BasicLit:
				if n.Kind == token.STRING && strings.Contains(n.Value, " ") {
					said++
					where := set.Position(n.Pos()).String()
					hold(t, all, where, n.Value)
					holdWords(t, all, where, n.Value)
				}
			}
			return true
		})
	}
	if said < 500 {
		t.Errorf("only %d texts were looked at", said)
	}
}

var (
	lineComment  = regexp.MustCompile(`(?m)^\s*(//|\*|/\*).*$`)
	blockComment = regexp.MustCompile(`(?s)/\*.*?\*/`)
)

// What the screens say: their sources without comments.
func TestScreensSayTheTerms(t *testing.T) {
	all := terms(t)
	files := append(sources(t, ".tsx", "ui/src"), sources(t, ".ts", "ui/src")...)
	if len(files) < 100 {
		t.Fatalf("%d files", len(files))
	}
	for _, path := range files {
		text, err := os.ReadFile(path)
		if err != nil {
			t.Fatal(err)
		}
		bare := lineComment.ReplaceAllString(blockComment.ReplaceAllString(string(text), ""), "")
		for i, line := range strings.Split(bare, "\n") {
			if !strings.Contains(line, "testid") && !strings.Contains(line, "import ") {
				hold(t, all, fmt.Sprintf("%s:%d", path, i+1), line)
			}
		}
	}
}

var (
	fenced = regexp.MustCompile("(?s)```.*?```")
	inline = regexp.MustCompile("`[^`\n]*`")
)

// What the documents say, their examples and names of code apart.
func TestDocumentsSayTheTerms(t *testing.T) {
	all := terms(t)
	files := append(sources(t, ".md", "docs"), filepath.Join(root, "README.md"))
	if len(files) < 4 {
		t.Fatalf("%d documents", len(files))
	}
	for _, path := range files {
		text, err := os.ReadFile(path)
		if err != nil {
			t.Fatal(err)
		}
		prose := inline.ReplaceAllString(fenced.ReplaceAllString(string(text), ""), "")
		for _, paragraph := range strings.Split(prose, "\n\n") {
			hold(t, all, path, strings.ReplaceAll(paragraph, "\n", " "))
		}
	}
}
