package words

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// source is a file of the core that is no test.
type source struct {
	path string
	*ast.File
}

var set = token.NewFileSet()

// core parses every file of the core, and of the sheets that it is printed on.
func core(t *testing.T) []source {
	var all []source
	for _, root := range []string{"..", "../../paper"} {
		err := filepath.WalkDir(root, func(path string, _ fs.DirEntry, err error) error {
			if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || strings.HasPrefix(path, "../words") {
				return err
			}
			f, err := parser.ParseFile(set, path, nil, parser.SkipObjectResolution)
			all = append(all, source{filepath.ToSlash(path), f})
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	return all
}

func text(n ast.Node) (string, bool) {
	l, ok := n.(*ast.BasicLit)
	if !ok || l.Kind != token.STRING {
		return "", false
	}
	s, err := strconv.Unquote(l.Value)
	return s, err == nil
}

// names are the values that a message names, those inside its forms too.
func names(m message, into map[string]bool) map[string]bool {
	for _, p := range m {
		if p.name != "" {
			into[p.name] = true
		}
		for _, form := range p.forms {
			names(form, into)
		}
	}
	return into
}

// Every message is used, every sentence that is asked for is there, and every
// value that it names is given, with none beside.
func TestMessagesAndTheirUsers(t *testing.T) {
	c, err := read(english, plurals["en"])
	if err != nil {
		t.Fatal(err)
	}
	used := map[string]bool{}
	calls := 0
	for _, f := range core(t) {
		for _, d := range f.Decls {
			calls += checkCalls(t, c, d)
		}
		ast.Inspect(f.File, func(n ast.Node) bool {
			if s, ok := text(n); ok {
				used[s] = true
				if strings.HasSuffix(s, "-") { // the name of a family: dig.rule-frost
					for id := range c.messages {
						used[id] = used[id] || strings.HasPrefix(id, s)
					}
				}
			}
			return true
		})
	}
	for id := range c.messages {
		if !used[id] {
			t.Errorf("nobody says %s", id)
		}
	}
	if calls < 900 {
		t.Errorf("only %d sentences were looked at: the test does not see them", calls)
	}
}

// checkCalls checks the calls of Say and Plain in a declaration.
func checkCalls(t *testing.T, c catalogue, d ast.Decl) int {
	given := map[string][]ast.Expr{} // what is put into the declaration's variables
	ast.Inspect(d, func(n ast.Node) bool {
		if a, ok := n.(*ast.AssignStmt); ok {
			for i, l := range a.Lhs {
				if id, ok := l.(*ast.Ident); ok && i < len(a.Rhs) {
					given[id.Name] = append(given[id.Name], a.Rhs[i])
				}
			}
		}
		return true
	})
	resolved := func(e ast.Expr) []ast.Expr {
		if id, ok := e.(*ast.Ident); ok {
			return given[id.Name]
		}
		return []ast.Expr{e}
	}
	calls := 0
	ast.Inspect(d, func(n ast.Node) bool {
		call, ok := n.(*ast.CallExpr)
		if !ok {
			return true
		}
		f, ok := call.Fun.(*ast.SelectorExpr)
		if !ok || (fmt.Sprint(f.X) != "words" || f.Sel.Name != "Say" && f.Sel.Name != "Plain" && f.Sel.Name != "In") && f.Sel.Name != "words" {
			return true
		}
		calls++
		args := call.Args
		if f.Sel.Name == "In" {
			args = args[1:] // first stands the system
		}
		var values []string
		if len(args) > 1 {
			for _, v := range resolved(args[1]) {
				for _, el := range v.(*ast.CompositeLit).Elts {
					name, _ := text(el.(*ast.KeyValueExpr).Key)
					values = append(values, name)
				}
			}
			slices.Sort(values)
		}
		for _, e := range resolved(args[0]) {
			for _, id := range family(c, e) {
				e, ok := c.messages[id]
				if !ok {
					t.Errorf("%s: there is no message %s", set.Position(call.Pos()), id)
					continue
				}
				if f.Sel.Name == "Plain" && slices.ContainsFunc(e.message, func(p part) bool { return p.british != "" }) {
					t.Errorf("%s: %s is spelled in two ways: say which system with In", set.Position(call.Pos()), id)
				}
				if want := slices.Sorted(maps.Keys(names(e.message, map[string]bool{}))); !slices.Equal(want, values) {
					// One call may serve several messages, of which each takes its own.
					if len(resolved(args[0])) > 1 && subset(want, values) {
						continue
					}
					t.Errorf("%s: %s names %v and is given %v", set.Position(call.Pos()), id, want, values)
				}
			}
		}
		return true
	})
	return calls
}

func subset(a, b []string) bool {
	return !slices.ContainsFunc(a, func(s string) bool { return !slices.Contains(b, s) })
}

// family is the messages that an expression can name: one, or all that begin
// as it does.
func family(c catalogue, e ast.Expr) []string {
	if id, ok := text(e); ok {
		return []string{id}
	}
	var out []string
	if b, ok := e.(*ast.BinaryExpr); ok {
		start, _ := text(b.X)
		for id := range c.messages {
			if start != "" && strings.HasPrefix(id, start) {
				out = append(out, id)
			}
		}
	}
	return out
}

// notWords are texts with a blank that nobody reads: names in the document or
// in the plan, and keys.
var notWords = regexp.MustCompile(`^(/|(stepped|raked) \w+$|as is$|wider %d$|(method|concrete|mind|inside|driven) $|(line|terminal) posts$|bays of boards$|gravel boards$|Run 1$)`)

// No sentence stands inside a calculation, nor anywhere else in the stages but
// in the catalogue.
func TestNoSentenceOutsideTheCatalogue(t *testing.T) {
	sentence := regexp.MustCompile(`[A-Za-z]{2}.* |^ ?[a-z]+ [a-z]|^[A-Z][a-z]+ `)
	looked := 0
	for _, f := range core(t) {
		room := strings.TrimPrefix(f.path, "../")
		if !strings.HasPrefix(room, "stage/") && !strings.HasPrefix(room, "engine/") && !strings.HasPrefix(room, "plan/") && !strings.HasPrefix(room, "reshape/") && !strings.HasPrefix(room, "job/") && !strings.HasPrefix(room, "document/") && !strings.HasPrefix(room, "choice/") && !strings.HasPrefix(room, "scene/") {
			continue
		}
		if strings.HasSuffix(room, "/findings.go") || strings.HasSuffix(room, "engine/stages.go") || room == "document/errors.go" {
			continue // what a finding means, what a stage does, how errors are listed: for those who build
		}
		named := map[ast.Node]bool{}
		ast.Inspect(f.File, func(n ast.Node) bool {
			switch x := n.(type) {
			case *ast.Field:
				return x.Tag == nil // a tag describes the document
			case *ast.GenDecl:
				return x.Tok != token.CONST // the document's own names
			case *ast.CaseClause:
				for _, e := range x.List {
					named[e] = true
				}
			case *ast.CompositeLit:
				of := x.Type
				if list, ok := of.(*ast.ArrayType); ok {
					of = list.Elt
				}
				if s, ok := of.(*ast.SelectorExpr); ok && s.Sel.Name == "Kind" {
					return false // what a finding means, for the documents
				}
			case *ast.CallExpr:
				if s, ok := x.Fun.(*ast.SelectorExpr); ok && (fmt.Sprint(s.X) == "errors" || s.Sel.Name == "Errorf") || fmt.Sprint(x.Fun) == "panic" {
					return false // for those who build
				}
			case *ast.BasicLit:
				s, ok := text(x)
				if looked++; ok && !named[n] && sentence.MatchString(s) && !notWords.MatchString(s) && !strings.HasPrefix(s, "json:") {
					t.Errorf("%s: %q stands outside the catalogue", set.Position(x.Pos()), s)
				}
			}
			return true
		})
	}
	if looked < 3000 {
		t.Errorf("only %d texts were looked at: the test does not see them", looked)
	}
}
