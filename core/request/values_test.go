package request

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"pinhole/core/glass"
)

// source is what the code of a package says of its text types.
type source struct {
	constants map[string][]string // names of typed constants, by type
	listed    map[string][]string // names that a method Values returns, by type
}

// A constant that its type's Values leaves out would be refused on the wire, and would be
// missing from the OpenAPI document.
func TestTypesListAllTheirValues(t *testing.T) {
	types := 0
	for _, root := range []string{"..", "../../internal"} {
		dirs, err := filepath.Glob(filepath.Join(root, "*"))
		if err != nil {
			t.Fatal(err)
		}
		for _, dir := range dirs {
			s := read(t, dir)
			for name, listed := range s.listed {
				if len(listed) == 0 { // it is computed from a table
					continue
				}
				types++
				for _, c := range s.constants[name] {
					if !slices.Contains(listed, c) {
						t.Errorf("%s: %s is missing from %s.Values()", dir, c, name)
					}
				}
			}
		}
	}
	if types < 25 {
		t.Errorf("%d types list their values; the reading of the sources is broken", types)
	}
}

// read parses a package, its tests apart.
func read(t *testing.T, dir string) source {
	s := source{map[string][]string{}, map[string][]string{}}
	if info, err := os.Stat(dir); err != nil || !info.IsDir() {
		return s
	}
	paths, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		t.Fatal(err)
	}
	for _, path := range paths {
		if strings.HasSuffix(path, "_test.go") {
			continue
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range file.Decls {
			switch d := d.(type) {
			case *ast.GenDecl:
				s.addConstants(d)
			case *ast.FuncDecl:
				s.addListed(d)
			}
		}
	}
	return s
}

func (s *source) addConstants(d *ast.GenDecl) {
	if d.Tok != token.CONST {
		return
	}
	for _, spec := range d.Specs {
		v := spec.(*ast.ValueSpec)
		typ, isTyped := v.Type.(*ast.Ident)
		if !isTyped {
			continue
		}
		for i, name := range v.Names {
			value, isLiteral := v.Values[i].(*ast.BasicLit)
			if isLiteral && value.Kind == token.STRING && value.Value != `""` {
				s.constants[typ.Name] = append(s.constants[typ.Name], name.Name)
			}
		}
	}
}

func (s *source) addListed(d *ast.FuncDecl) {
	if d.Name.Name != "Values" || d.Recv == nil {
		return
	}
	name := d.Recv.List[0].Type.(*ast.Ident).Name
	s.listed[name] = nil
	result, isReturn := d.Body.List[0].(*ast.ReturnStmt)
	if !isReturn {
		return
	}
	for _, e := range result.Results[0].(*ast.CompositeLit).Elts {
		s.listed[name] = append(s.listed[name], e.(*ast.Ident).Name)
	}
}

func TestATextIsHeldAgainstItsType(t *testing.T) {
	type order struct {
		Kind  glass.Kind   `json:"kind"`
		Allow []glass.Kind `json:"allow,omitempty"`
		Bad   glass.State  `json:"bad,omitempty" enum:"tight,breaks"`
	}
	for text, want := range map[string]string{
		`{"kind":"nd","allow":["mist"],"bad":"tight"}`: "",
		`{"kind":"fog"}`:                     "kind",
		`{"kind":"nd","allow":["nd","fog"]}`: "allow[1]",
		`{"kind":"nd","bad":"holds"}`:        "bad",
	} {
		_, err := Decode[order]([]byte(text))
		switch {
		case want == "" && err != nil:
			t.Errorf("%s: %v", text, err)
		case want != "" && (err == nil || !strings.Contains(err.Error(), want+" is ")):
			t.Errorf("%s: %v, want a fault of %s", text, err, want)
		}
	}
}
