package exchange_test

import (
	"bytes"
	"encoding/csv"
	"math"
	"strconv"
	"strings"
	"testing"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/demo/demotest"
	"mallow/exchange"
)

// Every hole is a row; volumes add up to the run's totals, in litres or cubic
// feet; an old post that stays has no hole, and a corner post says with which
// run it is dug.
func TestHolesCSV(t *testing.T) {
	cat := demotest.Catalog(t)
	for n, unit := range []string{"ft3", "L"} {
		j, _ := demotest.Job(t, n)
		run := &j.Lines[0].Runs[1]
		run.KeepOuts = append(run.KeepOuts, job.KeepOut{ID: "old", Kind: job.OldPost, At: plan.Make(j, cat).Runs[1].Posts[2].Station, Width: 100, Stays: true})
		p := plan.Make(j, cat)
		file, err := exchange.TableCSV(report.Holes(p, &p.Runs[1]))
		if err != nil {
			t.Fatal(err)
		}
		rows, err := csv.NewReader(bytes.NewReader(file.Data)).ReadAll()
		if err != nil || len(rows) != len(p.Runs[1].Posts)+1 {
			t.Fatalf("%d rows, %v", len(rows), err)
		}
		column := map[string]int{}
		for i, name := range rows[0] {
			column[name] = i
		}
		concrete, stone, stays, shared := 0.0, 0.0, 0, 0
		for i, row := range rows[1:] {
			switch {
			case row[column["set"]] == "stays":
				stays++
				continue
			case row[column["dug_with_run"]] != "":
				shared++
				continue
			}
			v := func(name string) float64 {
				f, err := strconv.ParseFloat(row[column[name]], 64)
				if err != nil {
					t.Fatalf("row %d, %s: %v", i, name, err)
				}
				return f
			}
			concrete, stone = concrete+v("concrete_volume_"+unit), stone+v("stone_volume_"+unit)
			if !strings.Contains(row[column["layers_from_the_bottom"]], "gravel") {
				t.Errorf("row %d has the layers %q", i, row[column["layers_from_the_bottom"]])
			}
		}
		per := map[string]float64{"ft3": 0.028316846592, "L": 0.001}[unit]
		total := p.Runs[1].Totals
		if math.Abs(concrete*per-float64(total.Concrete)) > 1e-5 || math.Abs(stone*per-float64(total.Stone)) > 1e-5 || stays != 1 || shared != 1 {
			t.Errorf("job %d: concrete %v and stone %v %s of %v and %v m³; %d stay, %d are dug elsewhere", n, concrete, stone, unit, total.Concrete, total.Stone, stays, shared)
		}
	}
}
