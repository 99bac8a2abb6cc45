package calc_test

import (
	"go/ast"
	"go/doc"
	"go/parser"
	"go/token"
	"os"
	"strconv"
	"strings"
	"testing"
)

// docs/model.md quotes the request and the output of every example, word for word.
func TestTheRulesQuoteTheirExamples(t *testing.T) {
	text, err := os.ReadFile("../../docs/model.md")
	if err != nil {
		t.Fatal(err)
	}
	file, err := parser.ParseFile(token.NewFileSet(), "example_test.go", nil, parser.ParseComments)
	if err != nil {
		t.Fatal(err)
	}
	examples := doc.Examples(file)
	if len(examples) < 20 {
		t.Fatalf("found %d examples", len(examples))
	}
	for _, e := range examples {
		var name, request string
		ast.Inspect(e.Code, func(n ast.Node) bool {
			call, ok := n.(*ast.CallExpr)
			if !ok || len(call.Args) < 2 {
				return true
			}
			name, request = literal(call.Args[0]), literal(call.Args[1])
			return false
		})
		block := "echo '" + request + "' | ./bin/pinhole calc " + name + "\n" + strings.TrimSpace(e.Output) + "\n"
		if !strings.Contains(string(text), block) {
			t.Errorf("docs/model.md does not quote the example %s:\n%s", e.Name, block)
		}
	}
}

func literal(e ast.Expr) string {
	if l, ok := e.(*ast.BasicLit); ok {
		if s, err := strconv.Unquote(l.Value); err == nil {
			return s
		}
	}
	return ""
}
