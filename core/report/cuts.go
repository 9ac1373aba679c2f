package report

import (
	"strings"

	"mallow/core/bill"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/words"
)

// cutRow is one length that is cut from bars that are cut alike.
type cutRow struct {
	list *plan.CutList
	bar  *bill.Bar
	cut  *bill.Cut
	no   int
	last bool
}

func cutsOf(p plan.Plan, r *plan.Run) Table { return Cuts(p, plan.CutLists(r.Items)) }

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
	runs := map[string]string{}
	for i := range p.Runs {
		runs[p.Runs[i].ID] = runName(&p.Runs[i])
	}
	return filled("cuts", p.Units, []column[cutRow]{
		col("section", Words, func(r cutRow) any { return r.list.Name }),
		col("cut_no", Count, func(r cutRow) any { return r.no }),
		col("bars", Count, func(r cutRow) any { return r.bar.Count }, main),
		col("bar", Short, func(r cutRow) any { return r.bar.Length }, main),
		col("offcut", Flag, func(r cutRow) any { return r.bar.Offcut }, file),
		col("from_each", Count, func(r cutRow) any { return r.cut.Each }),
		col("piece", Short, func(r cutRow) any { return r.cut.Long }, main),
		col("ripped_to", Short, func(r cutRow) any { return some(r.cut.Wide, r.cut.Wide > 0) }),
		col("left", Short, func(r cutRow) any { return some(r.bar.Left, r.last) }),
		col("goes", Text, func(r cutRow) any { return Goes(r.cut.Goes, runs) }),
	}, rows, func(cutRow) Row { return Row{} })
}

// Goes says where pieces go: what they are, and their bays and rows, each run
// once.
func Goes(wants []bill.Want, runs map[string]string) string {
	var out []string
	part, run := "", ""
	for i := 0; i < len(wants); {
		w := wants[i]
		n := w.Count
		k := i + 1
		for k < len(wants) && wants[k].Part == w.Part && wants[k].Run == w.Run && wants[k].From == w.From && wants[k].To == w.To && wants[k].Gate == w.Gate {
			n += wants[k].Count
			k++
		}
		at := w.From
		switch {
		case w.Gate != "":
			at = w.Gate
		case w.To != "":
			at += "–" + w.To
		}
		if w.Row > 0 && k == i+1 {
			at = words.Plain("report.row-of", words.V{"at": at, "row": w.Row})
		}
		if n > 1 {
			at = words.Plain("report.so-many-at", words.V{"count": n, "at": at})
		}
		if w.Part != part || w.Run != run {
			part, run = w.Part, w.Run
			if len(runs) > 1 {
				at = words.Plain("report.piece-of", words.V{"part": part, "run": runs[run], "at": at})
			} else {
				at = words.Plain("report.piece-at", words.V{"part": part, "at": at})
			}
		}
		out = append(out, at)
		i = k
	}
	return strings.Join(out, ", ")
}

// Bought says which lengths are bought of a section, for how many pieces, with
// what waste, and how near that is to the least.
func Bought(c plan.CutList) reason.Text {
	pieces := 0
	for _, w := range c.Wants {
		pieces += w.Count
	}
	out := words.Say("report.bought-for", words.V{"count": pieces, "bought": c.Bought, "waste": c.Waste})
	switch {
	case c.Proved:
		out = append(out, words.Say("report.bought-least")...)
	default:
		out = append(out, words.Say("report.bought-bound", words.V{"bound": max(0, min(c.Bound, c.Bought))})...)
	}
	if c.Snug > 0 {
		out = append(out, words.Say("report.bought-snug", words.V{"snug": c.Snug})...)
	}
	if c.Kept > 0 {
		out = append(out, words.Say("report.bought-kept", words.V{"kept": c.Kept})...)
	}
	if n := count(c.Short); n > 0 {
		out = append(out, words.Say("report.bought-short", words.V{"count": n, "most": longest(c.Stock)})...)
	}
	return out
}

func count(wants []bill.Want) int {
	n := 0
	for _, w := range wants {
		n += w.Count
	}
	return n
}

func longest(all []length.Length) length.Length {
	most := length.Length(0)
	for _, l := range all {
		most = max(most, l)
	}
	return most
}
