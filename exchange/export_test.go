package exchange_test

import (
	"bytes"
	"encoding/csv"
	"errors"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/demo"
	"mallow/exchange"
	"mallow/paper"
)

// demoPlanned is one of the demo jobs with its plan.
func demoPlanned(t *testing.T, n int) (job.Job, plan.Plan, []byte) {
	t.Helper()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(docs[n], mustCatalog(t))
	if err != nil {
		t.Fatal(err)
	}
	return j, plan.Make(j, mustCatalog(t)), docs[n]
}

func demoSource(t *testing.T) exchange.Source {
	t.Helper()
	j, p, doc := demoPlanned(t, 0)
	return exchange.Source{Job: j, Plan: p, Doc: doc, Stamp: paper.Stamp{Job: p.Name, Revision: 4, Date: time.Unix(0, 0)}}
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
		f, err := src.Export(exchange.Want{What: "dxf", Run: "R1"}, nil)
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
		f, err := src.Export(exchange.Want{What: what, Sheet: map[bool]string{true: "load"}[what == "pdf"]}, nil)
		if err != nil || len(f.Data) < 100 || f.Type == "" || !strings.Contains(f.Name, "r4.") {
			t.Errorf("%s: %q, %d bytes, %v", what, f.Name, len(f.Data), err)
		}
	}
	for _, bad := range []exchange.Want{{What: "doc"}, {What: "pdf", Sheet: "poem"}, {What: "dxf", View: "above"}, {What: "holes", Run: "R9"}, {What: "csv", Line: 3}, {What: "pdf", Run: "R9"}} {
		var refused exchange.FileError
		if _, err := src.Export(bad, nil); !errors.As(err, &refused) {
			t.Errorf("%+v: %v", bad, err)
		}
	}
	empty := src
	empty.Job = document.New("Empty", "imperial", mustCatalog(t))
	empty.Plan = plan.Make(empty.Job, mustCatalog(t))
	for _, what := range []string{"dxf", "gpx", "waypoints", "setout", "posts"} {
		if _, err := empty.Export(exchange.Want{What: what}, nil); err == nil {
			t.Errorf("%s of a job without a length was written", what)
		}
	}
	for _, what := range []string{"pdf", "xlsx", "json"} {
		if _, err := empty.Export(exchange.Want{What: what}, nil); err != nil {
			t.Errorf("%s of a job without a length: %v", what, err)
		}
	}
}

func mustCatalog(t *testing.T) materials.Catalog {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return cat
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
			f, err := src.Export(exchange.Want{What: what, Sheet: map[bool]string{true: "load"}[what == "pdf"]}, nil)
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
	f, err := src.Export(exchange.Want{What: "posts"}, nil)
	if err != nil || !regexp.MustCompile(`,-\d+(\.\d+)?,`).Match(f.Data) {
		t.Errorf("a negative height did not stay a number: %v", err)
	}
}
