package report

import (
	"mallow/core/bill"
	"mallow/core/plan"
)

// cutRow is one length that is cut from bars that are cut alike.
type cutRow struct {
	list *plan.CutList
	bar  *bill.Bar
	cut  *bill.Cut
	no   int
	last bool
}

func cutsOf(p plan.Plan, r *plan.Run) Table { return Cuts(p, p.CutLists(r.Items)) }

// Cuts is what is cut from what: the bars of each section that are cut alike,
// and a row for each length that comes from them.
func Cuts(p plan.Plan, lists []plan.CutList) Table {
	var rows []cutRow
	for i := range lists {
		for b := range lists[i].Bars {
			bar := &lists[i].Bars[b]
			for c := range bar.Cuts {
				rows = append(rows, cutRow{&lists[i], bar, &bar.Cuts[c], b + 1, c == len(bar.Cuts)-1})
			}
		}
	}
	return filled("cuts", p.Units, []column[cutRow]{
		col("section", Words, func(r cutRow) any { return r.list.Name }),
		col("cut_no", Count, func(r cutRow) any { return r.no }),
		col("bars", Count, func(r cutRow) any { return r.bar.Count }),
		col("bar", Short, func(r cutRow) any { return r.bar.Length }),
		col("offcut", Flag, func(r cutRow) any { return r.bar.Offcut }, file),
		col("from_each", Count, func(r cutRow) any { return r.cut.Each }),
		col("piece", Short, func(r cutRow) any { return r.cut.Long }, main),
		col("ripped_to", Short, func(r cutRow) any { return some(r.cut.Wide, r.cut.Wide > 0) }),
		col("left", Short, func(r cutRow) any { return some(r.bar.Left, r.last) }),
		col("goes", Text, func(r cutRow) any { return r.cut.Where }),
	}, rows, func(cutRow) Row { return Row{} })
}
