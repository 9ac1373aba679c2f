package files_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"errors"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/plan"
	"mallow/demo/demotest"
	"mallow/exchange"
	"mallow/files"
)

func demoSource(t *testing.T) files.Source {
	t.Helper()
	j, p := demotest.Job(t, 0)
	doc := demotest.Documents(t)[0]
	return files.Of(document.Opened{Job: j, Doc: doc}, p, 4, time.Unix(0, 0))
}

// Files are named by job, run, what they are and revision; names in any script
// survive, and none leads out of its folder.
func TestNamesOfFiles(t *testing.T) {
	src := demoSource(t)
	for name, want := range map[string]string{
		"Tansy Bank": "Tansy Bank - Lane - elevation - r4.dxf", "Bänkę 果樹園": "Bänkę 果樹園 - Lane - elevation - r4.dxf",
		"../../etc/passwd": "etc-passwd - Lane - elevation - r4.dxf", "a\x00b\nc\"d": "a-b c-d - Lane - elevation - r4.dxf", "...": "job - Lane - elevation - r4.dxf",
	} {
		src.Plan.Name = name
		f, err := src.Export(files.Want{Want: exchange.Want{What: "dxf", Run: "R1"}}, nil)
		if err != nil || f.Name != want {
			t.Errorf("%q: %q, want %q (%v)", name, f.Name, want, err)
		}
	}
}

// Everything that can be asked for comes, and what cannot is refused with what
// there is.
func TestEveryExport(t *testing.T) {
	src := demoSource(t)
	for _, what := range []string{"pdf", "xlsx", "dxf", "svg", "json", "csv", "gpx", "waypoints", "geojson", "posts", "bays", "load", "ground", "setout", "holes", "gates"} {
		f, err := src.Export(files.Want{Want: exchange.Want{What: what}, Sheet: map[bool]string{true: "load"}[what == "pdf"]}, nil)
		if err != nil || len(f.Data) < 100 || f.Type == "" || !strings.Contains(f.Name, "r4.") {
			t.Errorf("%s: %q, %d bytes, %v", what, f.Name, len(f.Data), err)
		}
	}
	for _, bad := range []files.Want{
		{Want: exchange.Want{What: "doc"}}, {Want: exchange.Want{What: "pdf"}, Sheet: "poem"}, {Want: exchange.Want{What: "dxf", View: "above"}},
		{Want: exchange.Want{What: "holes", Run: "R9"}}, {Want: exchange.Want{What: "csv", Line: 3}}, {Want: exchange.Want{What: "pdf", Run: "R9"}},
	} {
		var refused exchange.FileError
		if _, err := src.Export(bad, nil); !errors.As(err, &refused) {
			t.Errorf("%+v: %v", bad, err)
		}
	}
	empty := src
	empty.Job = document.New("Empty", "imperial", demotest.Catalog(t))
	empty.Plan = plan.Make(empty.Job, demotest.Catalog(t))
	for _, what := range []string{"dxf", "gpx", "waypoints", "setout", "posts"} {
		if _, err := empty.Export(files.Want{Want: exchange.Want{What: what}}, nil); err == nil {
			t.Errorf("%s of a job without a length was written", what)
		}
	}
	for _, what := range []string{"pdf", "xlsx", "json"} {
		if _, err := empty.Export(files.Want{Want: exchange.Want{What: what}}, nil); err != nil {
			t.Errorf("%s of a job without a length: %v", what, err)
		}
	}
}

// Names that a spreadsheet would take for formulas, emoji, quotes and line ends:
// every export is written, and no cell of any table begins a formula.
func TestHostileNames(t *testing.T) {
	for _, name := range []string{"=1+1", "+cmd", "-2+3", "@SUM(A1)", "\t=1", "\r=1", "\n=1", "🦊", `"quoted", and; more`, "</text><script>", "%s%n"} {
		src := demoSource(t)
		src.Plan.Name, src.Stamp.Job = name, name
		for r := range src.Plan.Runs {
			run := &src.Plan.Runs[r]
			run.ID, run.Name = name, name
			for g := range run.Gates {
				run.Gates[g].Name = name
			}
			for i := range run.Posts {
				run.Posts[i].Label = name
			}
		}
		for _, what := range []string{"pdf", "xlsx", "dxf", "svg", "csv", "gpx", "waypoints", "geojson", "posts", "bays", "load", "setout", "holes", "gates"} {
			f, err := src.Export(files.Want{Want: exchange.Want{What: what}, Sheet: map[bool]string{true: "load"}[what == "pdf"]}, nil)
			if err != nil {
				t.Errorf("%q as %s: %v", name, what, err)
				continue
			}
			if !strings.HasPrefix(f.Type, "text/csv") {
				continue
			}
			rows, err := csv.NewReader(bytes.NewReader(f.Data)).ReadAll()
			if err != nil {
				t.Errorf("%q as %s: %v", name, what, err)
			}
			for _, row := range rows {
				for _, cell := range row {
					if _, err := strconv.ParseFloat(cell, 64); err != nil && cell != "" && strings.ContainsRune("=+-@\t\r\n", rune(cell[0])) {
						t.Fatalf("%q as %s: a cell %q", name, what, cell)
					}
				}
			}
		}
	}
}

// Which cells are made safe, and that numbers stay numbers.
func TestGuardedCells(t *testing.T) {
	src := demoSource(t)
	src.Plan.Runs[0].Posts[1].Ground = -1234.5
	f, err := src.Export(files.Want{Want: exchange.Want{What: "posts"}}, nil)
	if err != nil || !regexp.MustCompile(`,-\d+(\.\d+)?,`).Match(f.Data) {
		t.Errorf("a negative height did not stay a number: %v", err)
	}
}

// A file that a window's own core writes is the one that is written here, and
// what needs larger libraries is refused there.
func TestCallsWriteTheSameFiles(t *testing.T) {
	src := demoSource(t)
	core := calls.Core{Catalog: demotest.Catalog(t), More: exchange.Calls()}
	stop := func() error { return nil }
	for _, w := range []exchange.Want{
		{What: "dxf", View: "map"}, {What: "dxf", Run: "R2"}, {What: "svg", View: "map"}, {What: "svg", Run: "R1"}, {What: "json"}, {What: "csv"},
		{What: "gpx"}, {What: "waypoints"}, {What: "geojson"}, {What: "posts"}, {What: "bays"}, {What: "load"}, {What: "ground"}, {What: "setout", Run: "R1"}, {What: "holes"}, {What: "gates"},
	} {
		want, err := src.Export(files.Want{Want: w}, nil)
		if err != nil {
			t.Fatal(err)
		}
		request, err := json.Marshal(exchange.ExportRequest{Doc: src.Doc, What: w.What, Run: w.Run, Line: w.Line, View: w.View, Revision: 4})
		if err != nil {
			t.Fatal(err)
		}
		var got exchange.Exported
		if err := core.Answer(stop, "export", request, func(out []byte) error { return json.Unmarshal(out, &got) }); err != nil {
			t.Fatalf("%+v: %v", w, err)
		}
		if w.What != "json" && got.Text != string(want.Data) || got.Name != want.Name || got.Type != want.Type {
			t.Errorf("%+v: the call wrote %q of %d bytes, the export %q of %d", w, got.Name, len(got.Text), want.Name, len(want.Data))
		}
	}
	for _, what := range []string{"pdf", "xlsx"} {
		request, err := json.Marshal(exchange.ExportRequest{Doc: src.Doc, What: what})
		if err != nil {
			t.Fatal(err)
		}
		err = core.Answer(stop, "export", request, func([]byte) error { return nil })
		if p, ok := calls.ProblemOf(err); !ok || p.Status != 422 {
			t.Errorf("%s: %v", what, err)
		}
	}
}
