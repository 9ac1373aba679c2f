package main

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// Many files at once, each by its ending; one to standard output; a document
// comes back byte for byte; and what cannot be is one line that says why.
func TestExportAndImport(t *testing.T) {
	dir := t.TempDir()
	in := func(name string) string { return filepath.Join(dir, name) }
	_, diag, err := call("", "export", lane, "--to", in("a.pdf"), "--to", in("a.XLSX"), "--to", in("a.dxf"), "--to", in("a.svg"), "--to", in("a.gpx"), "--to", in("a.geojson"), "--to", in("a.json"))
	if err != nil || strings.Count(diag, "wrote") != 7 {
		t.Fatalf("%v\n%s", err, diag)
	}
	for name, begins := range map[string]string{"a.pdf": "%PDF-", "a.XLSX": "PK", "a.dxf": "  0\nSECTION", "a.svg": "<?xml", "a.gpx": "<?xml", "a.geojson": "{"} {
		if raw, err := os.ReadFile(in(name)); err != nil || !strings.HasPrefix(string(raw), begins) {
			t.Errorf("%s: %.20q, %v", name, raw, err)
		}
	}
	was, _ := os.ReadFile(lane)
	if is, _ := os.ReadFile(in("a.json")); string(is) != string(was) {
		t.Error("the document came out changed")
	}
	out, _, err := call("", "export", lane, "--to", "-", "--format", "csv", "--table", "gates", "--run", "R2")
	if err != nil || strings.Count(out, "\n") != 3 || !strings.HasPrefix(out, "gate,name,gate_kind") {
		t.Errorf("%v: %s", err, out)
	}
	doc, _, err := call("x,y\n0,0\n10,0\n10,8\n", "import", "-", "--system", "metric", "--name", "Walked")
	if err != nil || !strings.Contains(doc, `"name": "Walked"`) || strings.Count(doc, `"length"`) != 2 {
		t.Errorf("%v: %.300s", err, doc)
	}
	if again, _, err := call(doc, "import", "-"); err != nil || again != doc {
		t.Errorf("a document read again is another: %v", err)
	}
	for _, c := range []struct {
		says string
		args []string
	}{
		{"--to is missing", []string{"export", lane}}, {"is no format", []string{"export", lane, "--to", in("a.doc")}}, {"a5", []string{"export", lane, "--to", in("b.pdf"), "--paper", "a5"}},
		{"is no sheet", []string{"export", lane, "--to", in("b.pdf"), "--sheet", "poem"}}, {"no such file", []string{"export", "none.json", "--to", in("b.pdf")}}, {"is no view", []string{"export", lane, "--to", in("b.svg"), "--view", "under"}},
		{"imperial or metric", []string{"import", in("a.gpx"), "--system", "cubits"}}, {"allowed", []string{"import", "-"}},
	} {
		_, _, err := call(`{"mallow":1,"name":7}`, c.args...)
		var usage usageError
		if !errors.As(err, &usage) || !strings.Contains(err.Error(), c.says) || strings.Contains(err.Error(), "\n") {
			t.Errorf("%v: %v", c.args, err)
		}
	}
}
