package report

import (
	"slices"

	"mallow/core/plan"
	"mallow/core/words"
)

// of are the tables that there are of a run, by their ids, in their order.
var of = []struct {
	id    string
	table func(plan.Plan, *plan.Run) Table
}{
	{"setout", SetOut}, {"posts", Posts}, {"bays", Bays}, {"holes", Holes}, {"gates", Gates}, {"load", loadOf}, {"cuts", cutsOf}, {"pour", pourOf}, {"curb", Curb},
}

// IDs are the ids of the tables.
func IDs() []string {
	var out []string
	for _, t := range of {
		out = append(out, t.id)
	}
	return out
}

// Whole are the tables of a job: those of its runs, and those that are of none of them.
func Whole() []string { return append(IDs(), "days", "record", "asbuilt") }

// Of is a table of one run.
func Of(p plan.Plan, id string, run int) (Table, bool) {
	for _, t := range of {
		if t.id == id {
			return t.table(p, &p.Runs[run]), true
		}
	}
	return Table{}, false
}

// All is a table of all runs, with the run in the first column; the load, of
// the whole job too.
func All(p plan.Plan, id string) (Table, bool) {
	var out Table
	switch id {
	case "days":
		return Days(p, p.Schedule), true
	case "record":
		return Record(p, p.Log), true
	case "asbuilt":
		return AsBuilt(p, p.Log), true
	}
	for i := range p.Runs {
		t, ok := Of(p, id, i)
		if !ok {
			return t, false
		}
		out = out.After(t.under(runName(&p.Runs[i])))
	}
	if len(p.Runs) > 1 {
		switch id {
		case "load":
			out = out.After(Load(p, p.Items).under(words.Plain("report.whole-job")))
		case "cuts":
			out = out.After(Cuts(p, p.CutLists(p.Items)).under(words.Plain("report.whole-job")))
		}
	}
	return out, slices.Contains(IDs(), id)
}

// under is a table with the name of what it is of in a first column.
func (t Table) under(name string) Table {
	t.Columns = append([]Column{{ID: "run", Name: words.Plain("report.head-run"), Kind: Text}}, t.Columns...)
	rows := make([]Row, len(t.Rows))
	for i, r := range t.Rows {
		r.Cells = append([]any{name}, r.Cells...)
		rows[i] = r
	}
	t.Rows = rows
	return t
}

func runName(r *plan.Run) string {
	if r.Name != "" {
		return r.Name
	}
	return r.ID
}
