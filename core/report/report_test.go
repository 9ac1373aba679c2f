package report_test

import (
	"math"
	"strings"
	"testing"

	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/report"
	"mallow/demo/demotest"
)

// Every cell holds what its column says that it does, every column has a name
// and a place of its own, and nothing that is said has a hole in it.
func TestColumnsAreTyped(t *testing.T) {
	for n := range 2 {
		_, p := demotest.Job(t, n)
		for _, id := range report.Whole() {
			if id == "curb" { // the demo has none: TestCurbTable
				continue
			}
			all, ok := report.All(p, id)
			if !ok || len(all.Rows) == 0 {
				t.Fatalf("job %d has no table %s", n, id)
			}
			names, ids := map[string]bool{}, map[string]bool{}
			for k, c := range all.Columns {
				if c.Name == "" || strings.HasPrefix(c.Name, "[") || names[c.Name] || ids[c.ID] {
					t.Errorf("%s: the column %s is called %q, as another one or nothing", id, c.ID, c.Name)
				}
				names[c.Name], ids[c.ID] = true, true
				for i, row := range all.Rows {
					if !holds(c.Kind, row.Cells[k]) {
						t.Fatalf("%s, row %d: %s is %s and holds %T", id, i, c.ID, c.Kind, row.Cells[k])
					}
					if said := all.Said(c.Kind, row.Cells[k]); strings.ContainsAny(said, "{}[]") {
						t.Errorf("%s, row %d: %s says %q", id, i, c.ID, said)
					}
				}
			}
			read, filed := all.Read(), all.Filed()
			if len(read.Rows) != len(all.Rows) || len(filed.Rows) != len(all.Rows) || len(read.Columns) >= len(all.Columns) || len(filed.Columns) > len(all.Columns) {
				t.Errorf("%s: %d columns are read and %d filed of %d", id, len(read.Columns), len(filed.Columns), len(all.Columns))
			}
			main := 0
			for k, c := range read.Columns {
				said := false
				for i := range read.Rows {
					said = said || read.Lines()[i][k] != ""
				}
				if !said {
					t.Errorf("%s: %s is read and says nothing", id, c.ID)
				}
				if c.Main {
					main++
				}
			}
			if main != 1 {
				t.Errorf("%s is read for %d columns", id, main)
			}
		}
	}
}

func holds(k report.Kind, cell any) bool {
	ok := cell == nil
	switch k {
	case report.Text:
		_, is := cell.(string)
		return ok || is
	case report.Words:
		_, is := cell.(reason.Text)
		return is
	case report.Count:
		_, is := cell.(int)
		return ok || is
	case report.Flag:
		_, is := cell.(bool)
		return ok || is
	case report.Tape, report.Short, report.Rise, report.Soil:
		_, is := cell.(length.Length)
		return ok || is
	case report.Small:
		_, is := cell.(length.Volume)
		return ok || is
	case report.Mass:
		_, is := cell.(length.Mass)
		return ok || is
	}
	_, is := cell.(float64)
	return ok || is
}

// Values in files are in the unit that the head names. The factors are the
// exact ones of the international foot and pound, from memory.
func TestUnitsOfFiles(t *testing.T) {
	one := func(system length.System, kind report.Kind, cell any) (string, float64) {
		table := report.Table{Units: length.Usual(system), Columns: []report.Column{{ID: "x", Name: "X", Kind: kind}}, Rows: []report.Row{{Cells: []any{cell}}}}
		return table.Names()[0], table.Values()[0][0].(float64)
	}
	for _, c := range []struct {
		system length.System
		kind   report.Kind
		cell   any
		name   string
		want   float64
	}{
		{length.Imperial, report.Tape, length.Length(3048), "x_ft", 10},
		{length.Metric, report.Short, length.Length(3048), "x_m", 3.048},
		{length.Imperial, report.Small, length.Volume(0.028316846592), "x_ft3", 1},
		{length.Metric, report.Small, length.Volume(0.028316846592), "x_L", 28.316846592},
		{length.Imperial, report.Mass, length.Mass(0.45359237), "x_lb", 1},
		{length.Imperial, report.Moment, 1.3558179483, "x_lbft", 1},
		{length.Metric, report.Moment, 1.5, "x_Nm", 1.5},
		{length.Imperial, report.Force, 4.4482216152605, "x_lb", 1},
		{length.Imperial, report.Wind, 44.704, "x_mph", 100},
		{length.Metric, report.Wind, 10.0, "x_km_h", 36},
		{length.Metric, report.Degrees, 12.5, "x_degrees", 12.5},
	} {
		if name, got := one(c.system, c.kind, c.cell); name != c.name || math.Abs(got-c.want) > 1e-8*c.want {
			t.Errorf("%s %v of %s: %s = %v, want %s = %v", c.kind, c.cell, c.system, name, got, c.name, c.want)
		}
	}
}

// A rise that no tape shows is level, and is said by nobody.
func TestRise(t *testing.T) {
	table := report.Table{Units: length.Usual(length.Imperial)}
	for l, want := range map[length.Length]string{25.4: `up 1"`, -50.8: `down 2"`, 0.7: "", -0.7: "", 0: ""} {
		if got := table.Said(report.Rise, l); got != want {
			t.Errorf("%v mm reads %q, want %q", float64(l), got, want)
		}
	}
}

// What is in the table is in the plan: running distances end at the run's
// length, the far-end check adds up to it, bays make it up, volumes are the
// totals, and every hole is in one run's table only.
func TestTablesAddUp(t *testing.T) {
	cut := 0
	for n := range 2 {
		_, p := demotest.Job(t, n)
		for i := range p.Runs {
			r := &p.Runs[i]
			marks, bays, holes := report.SetOut(p, r), report.Bays(p, r), report.Holes(p, r)
			at := func(t report.Table, row int, column string) float64 {
				switch v := t.Rows[row].Cells[t.Column(column)].(type) {
				case length.Length:
					return float64(v)
				case length.Volume:
					return float64(v)
				}
				return 0
			}
			sum := 0.0
			for k := range marks.Rows {
				sum += at(marks, k, "bay")
				if d := at(marks, k, "level") + at(marks, k, "from_far_end") - float64(r.Length); math.Abs(d) > 1e-6 {
					t.Errorf("%s, row %d: level and back miss the run by %v", r.Name, k, d)
				}
				if d := at(marks, k, "level") - sum; math.Abs(d) > 1e-6 {
					t.Errorf("%s, row %d: the bays before it miss it by %v", r.Name, k, d)
				}
			}
			// A post is what stands above the ground, what stands in it, and what is cut off.
			tops := report.Posts(p, r)
			for k := range tops.Rows {
				if off := at(tops, k, "cut_off"); off > 0 {
					if d := at(tops, k, "stock") - at(tops, k, "top_above_ground") - at(tops, k, "in_ground") - off; math.Abs(d) > 1e-6 {
						t.Errorf("%s, row %d: its post is cut %v wrong", r.Name, k, d)
					}
					cut++
				}
			}
			// A rail lies between the faces, as much longer as it leans.
			for k := range bays.Rows {
				if rail, clear, centres := at(bays, k, "rail"), at(bays, k, "between_faces"), at(bays, k, "centres"); rail > 0 {
					if d := rail - math.Hypot(clear, clear*at(bays, k, "lean")/centres); math.Abs(d) > 0.5 {
						t.Errorf("%s, row %d: its rail is %v off", r.Name, k, d)
					}
				}
			}
			long, concrete, spoil := 0.0, 0.0, 0.0
			for k := range bays.Rows {
				long += at(bays, k, "centres")
			}
			for k := range holes.Rows {
				concrete, spoil = concrete+at(holes, k, "concrete_volume"), spoil+at(holes, k, "spoil_loose")
			}
			if math.Abs(long-float64(r.Length)) > 1e-6 || math.Abs(concrete-float64(r.Totals.Concrete)) > 1e-9 || math.Abs(spoil-float64(r.Totals.Spoil)) > 1e-9 {
				t.Errorf("%s: bays of %v on %v; concrete %v of %v; spoil %v of %v", r.Name, long, r.Length, concrete, r.Totals.Concrete, spoil, r.Totals.Spoil)
			}
		}
	}
	if cut < 40 {
		t.Errorf("%d posts are cut: too few to tell", cut)
	}
}
