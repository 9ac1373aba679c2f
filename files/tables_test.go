package files_test

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/xuri/excelize/v2"

	"mallow/core/document"
	"mallow/core/report"
	"mallow/demo/demotest"
	"mallow/exchange"
	"mallow/files"
	"mallow/paper"
)

// Every table has the same rows in the spreadsheet, in CSV, and in words; both
// files are read back by other readers than their writers.
func TestTablesAreTheSameEverywhere(t *testing.T) {
	for n := range 2 {
		j, p := demotest.Job(t, n)
		doc := demotest.Documents(t)[n]
		src := files.Of(document.Opened{Job: j, Doc: doc}, p, 0, time.Unix(0, 0))
		raw, err := src.Export(files.Want{Want: exchange.Want{What: "xlsx"}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		book, err := excelize.OpenReader(bytes.NewReader(raw.Data))
		if err != nil {
			t.Fatal(err)
		}
		for _, id := range report.Whole() {
			if id == "curb" { // the demo has none: TestCurbTable
				continue
			}
			all, ok := report.All(p, id)
			if !ok || len(all.Rows) == 0 {
				t.Fatalf("job %d has no table %s", n, id)
			}
			file, err := src.Export(files.Want{Want: exchange.Want{What: id}}, nil)
			if err != nil {
				t.Fatal(err)
			}
			rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(file.Data), "\ufeff"))).ReadAll()
			if err != nil {
				t.Fatal(err)
			}
			sheet, err := book.GetRows(all.Name, excelize.Options{RawCellValue: true})
			if err != nil {
				t.Fatal(err)
			}
			if len(rows)-1 != len(all.Rows) || len(sheet) < len(rows) || len(sheet) > len(rows)+1 {
				t.Fatalf("%s: %d rows, %d in CSV, %d in the spreadsheet", id, len(all.Rows), len(rows)-1, len(sheet)-1)
			}
			filled := 0
			for i, row := range rows[1:] {
				for k, cell := range row {
					there := ""
					if k < len(sheet[i+1]) {
						there = sheet[i+1][k]
					}
					if !sameCell(cell, there) {
						t.Fatalf("job %d, %s, row %d, %s: %q in CSV, %q in the spreadsheet", n, id, i+1, rows[0][k], cell, there)
					}
					if cell != "" {
						filled++
					}
				}
			}
			if filled < 2*len(all.Rows) {
				t.Errorf("%s says %d things in %d rows", id, filled, len(all.Rows))
			}
			for _, line := range all.Read().Lines() {
				if len(line) == 0 || strings.Contains(strings.Join(line, " "), "[") {
					t.Fatalf("%s reads %q", id, line)
				}
			}
		}
	}
}

// sameCell tells whether a cell of a spreadsheet is that of the CSV file.
func sameCell(a, b string) bool {
	if a == b {
		return true
	}
	if a == "true" || a == "false" {
		return b == map[string]string{"true": "1", "false": "0"}[a] || strings.EqualFold(a, b)
	}
	x, err := strconv.ParseFloat(a, 64)
	if err != nil {
		return false
	}
	y, err := strconv.ParseFloat(b, 64)
	return err == nil && fmt.Sprintf("%.7g", x) == fmt.Sprintf("%.7g", y)
}

// What is printed are the rows of the tables, each cell in its order, and the
// load says which gate a leaf is for.
func TestSheetsAreTheTables(t *testing.T) {
	for n := range 2 {
		j, p := demotest.Job(t, n)
		printed := func(sheet, run string) string {
			var b strings.Builder
			for _, page := range paper.Lay(p.Name, paper.Write(j, p, sheet, run), paper.Letter, paper.Stamp{Job: p.Name}).Pages {
				for _, w := range page.Words {
					b.WriteString(w.Text + "\n")
				}
			}
			return b.String()
		}
		holds := func(sheet, text string, lines [][]string) {
			t.Helper()
			from := 0
			for _, line := range lines {
				for _, cell := range line {
					if cell == "" || strings.Contains(cell, " ") && len(cell) > 9 { // broken over lines
						continue
					}
					k := strings.Index(text[from:], cell+"\n")
					if k < 0 {
						t.Fatalf("job %d: %q of %q is not on the sheet %s, or not in its place", n, cell, line, sheet)
					}
					from += k + len(cell)
				}
			}
		}
		for i := range p.Runs {
			r := &p.Runs[i]
			stakeout := printed("stakeout", r.ID)
			holds("stakeout", stakeout, report.Stake(p, r).Read().Lines())
			if holes := report.RailHoles(p, r).Read(); len(holes.Columns) > 1 {
				holds("stakeout", stakeout, holes.Only("post").Lines())
			}
			rails := report.Rails(p, r).Read()
			for _, column := range rails.Columns {
				for _, line := range rails.Only(column.ID).Lines() { // side by side: each cell is somewhere
					if !strings.Contains(stakeout, line[0]+"\n") && len(line[0]) < 10 {
						t.Errorf("job %d: %s of %s is not on the stake-out", n, line[0], r.Name)
					}
				}
			}
		}
		load := printed("load", "")
		for _, r := range p.Runs {
			for _, g := range r.Gates {
				for _, word := range strings.Fields(g.Name) {
					if !strings.Contains(load, word) {
						t.Errorf("job %d: the load does not say what %s is for", n, g.Name)
					}
				}
			}
		}
	}
}

// A table is of one run, of all of them, or there is none of that name.
func TestTablesOfRuns(t *testing.T) {
	src := demoSource(t)
	rows := func(w files.Want) int {
		f, err := src.Export(w, nil)
		if err != nil {
			t.Fatal(err)
		}
		return strings.Count(strings.TrimSpace(string(f.Data)), "\n")
	}
	sum := 0
	for _, r := range src.Plan.Runs {
		if n := rows(files.Want{Want: exchange.Want{What: "posts", Run: r.ID}}); n != len(r.Posts) {
			t.Errorf("%s: %d rows for %d posts", r.Name, n, len(r.Posts))
		}
		sum += len(r.Posts)
	}
	if n := rows(files.Want{Want: exchange.Want{What: "posts"}}); n != sum {
		t.Errorf("%d rows of all runs, %d posts", n, sum)
	}
	if _, err := src.Export(files.Want{Want: exchange.Want{What: "moods"}}, nil); err == nil {
		t.Error("there is no table of moods")
	}
}
