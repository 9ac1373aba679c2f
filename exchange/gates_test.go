package exchange_test

import (
	"bytes"
	"encoding/csv"
	"math"
	"strconv"
	"testing"

	"mallow/core/plan"
	"mallow/core/report"
	"mallow/demo/demotest"
	"mallow/exchange"
)

// Every leaf is a row, with the plan's own figures in the units of its header.
func TestGatesCSV(t *testing.T) {
	for n, c := range []struct {
		unit, mass string
		per, kilo  float64
	}{{"_ft", "leaf_lb", 304.8, 0.45359237}, {"_m", "leaf_kg", 1000, 1}} {
		_, p := demotest.Job(t, n)
		for r := range p.Runs {
			leaves := []plan.GateLeaf{}
			for _, g := range p.Runs[r].Gates {
				leaves = append(leaves, g.Leaves...)
			}
			file, err := exchange.TableCSV(report.Gates(p, &p.Runs[r]))
			if len(leaves) == 0 {
				if err == nil {
					t.Error("a run without gates wrote a table")
				}
				continue
			}
			rows, _ := csv.NewReader(bytes.NewReader(file.Data)).ReadAll()
			if len(rows) != len(leaves)+1 {
				t.Fatalf("%d rows for %d leaves", len(rows), len(leaves))
			}
			for i, l := range leaves {
				for name, want := range map[string]float64{
					"leaf_width" + c.unit: float64(l.Width) / c.per, "leaf_height" + c.unit: float64(l.Height) / c.per,
					c.mass: float64(l.Mass) / c.kilo, "least_gap" + c.unit: float64(l.Sides[0].Gap) / c.per,
					"bottom_hinge" + c.unit: float64(l.Hinges[0].Above) / c.per, "centre_to_centre" + c.unit: float64(p.Runs[r].Gates[0].Centre) / c.per,
				} {
					k := -1
					for x, title := range rows[0] {
						if title == name {
							k = x
						}
					}
					if k < 0 {
						t.Fatalf("no column %s in %v", name, rows[0])
					}
					if got, err := strconv.ParseFloat(rows[i+1][k], 64); err != nil || math.Abs(got-want) > 0.006 {
						t.Errorf("%s: %s, want %.4f", name, rows[i+1][k], want)
					}
				}
			}
		}
	}
}
