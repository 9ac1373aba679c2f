package plan

import (
	"slices"
	"strconv"
	"strings"

	"mallow/core/bill"
	"mallow/core/reason"
	"mallow/core/words"
)

// CutList is one section and material: what is bought, and what is cut from it.
type CutList struct {
	ID   string      `json:"id" jsonschema:"required" jsonschema_description:"Of the item in the bill."`
	What string      `json:"what" jsonschema:"required"`
	Name reason.Text `json:"name" jsonschema:"required"`
	Says reason.Text `json:"says" jsonschema:"required" jsonschema_description:"How much is bought, and how near that is to the least."`
	bill.Cuts
}

// CutLists are the cut lists of a bill of the plan.
func (p Plan) CutLists(items []bill.Item) []CutList {
	names := map[string]string{}
	for i := range p.Runs {
		names[p.Runs[i].ID] = p.Runs[i].Name
	}
	return cutLists(items, names)
}

// cutLists are the cut lists of a bill, with the runs' names.
func cutLists(items []bill.Item, names map[string]string) []CutList {
	out := []CutList{}
	for _, i := range items {
		if i.Cuts == nil || i.Cuts.Joined {
			continue
		}
		l := CutList{i.ID, i.What, i.Name, bought(i.Cuts), *i.Cuts}
		for b := range l.Bars {
			for c := range l.Bars[b].Cuts {
				cut := &l.Bars[b].Cuts[c]
				cut.Where = goes(cut.Goes, names)
			}
		}
		out = append(out, l)
	}
	return out
}

// place is where pieces of a part go: bays, or a gate, and in which rows.
type place struct {
	part, run, from, to, gate string
}

// goes says where pieces go: what they are, and their bays and rows, each run and
// each bay once.
func goes(wants []bill.Want, runs map[string]string) string {
	type going struct {
		place
		count int
		rows  []int
	}
	var all []going
	known := map[place]int{}
	for _, w := range wants {
		at := place{w.Part, w.Run, w.From, w.To, w.Gate}
		k, ok := known[at]
		if !ok {
			k = len(all)
			known[at] = k
			all = append(all, going{place: at})
		}
		all[k].count += w.Count
		if w.Row > 0 {
			all[k].rows = append(all[k].rows, w.Row)
		}
	}
	slices.SortStableFunc(all, func(a, b going) int { // of one part and run, one after the other
		first := func(g going) int {
			return slices.IndexFunc(wants, func(w bill.Want) bool { return w.Part == g.part && w.Run == g.run })
		}
		return first(a) - first(b)
	})
	var out []string
	part, run := "", ""
	for _, g := range all {
		at := g.from
		switch {
		case g.gate != "":
			at = g.gate
		case g.to != "":
			at += "–" + g.to
		}
		switch n := len(g.rows); {
		case n == 1:
			at = words.Plain("plan.row-of", words.V{"at": at, "row": g.rows[0]})
		case n > 1:
			at = words.Plain("plan.rows-of", words.V{"at": at, "rows": spans(g.rows)})
		}
		if g.count > max(1, len(g.rows)) {
			at = words.Plain("plan.so-many-at", words.V{"count": g.count, "at": at})
		}
		if g.part != part || g.run != run {
			part, run = g.part, g.run
			if len(runs) > 1 {
				at = words.Plain("plan.piece-of", words.V{"part": part, "run": runs[run], "at": at})
			} else {
				at = words.Plain("plan.piece-at", words.V{"part": part, "at": at})
			}
		}
		out = append(out, at)
	}
	return strings.Join(out, ", ")
}

// spans are numbers, those that follow each other as from and to.
func spans(numbers []int) string {
	numbers = slices.Clone(numbers)
	slices.Sort(numbers)
	numbers = slices.Compact(numbers)
	var out []string
	for i := 0; i < len(numbers); {
		k := i
		for k+1 < len(numbers) && numbers[k+1] == numbers[k]+1 {
			k++
		}
		s := strconv.Itoa(numbers[i])
		if k > i {
			s += "–" + strconv.Itoa(numbers[k])
		}
		out = append(out, s)
		i = k + 1
	}
	return strings.Join(out, ", ")
}

// bought says which lengths are bought of a section, for how many pieces, with
// what waste, and how near that is to the least.
func bought(c *bill.Cuts) reason.Text {
	pieces := 0
	for _, w := range c.Wants {
		pieces += w.Count
	}
	out := words.Say("plan.bought-for", words.V{"count": pieces, "bought": c.Bought, "waste": c.Waste})
	switch {
	case c.Proved:
		out = append(out, words.Say("plan.bought-least")...)
	default:
		out = append(out, words.Say("plan.bought-bound", words.V{"bound": max(0, min(c.Bound, c.Bought))})...)
	}
	if c.Snug > 0 {
		out = append(out, words.Say("plan.bought-snug", words.V{"snug": c.Snug})...)
	}
	if c.Kept > 0 {
		out = append(out, words.Say("plan.bought-kept", words.V{"kept": c.Kept})...)
	}
	if n := wanted(c.Short); n > 0 {
		out = append(out, words.Say("plan.bought-short", words.V{"count": n, "most": slices.Max(c.Stock)})...)
	}
	return out
}

func wanted(wants []bill.Want) int {
	n := 0
	for _, w := range wants {
		n += w.Count
	}
	return n
}
