package plan

import (
	"slices"
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

// goes says where pieces go: what they are, and their bays and rows, each run
// once.
func goes(wants []bill.Want, runs map[string]string) string {
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
			at = words.Plain("plan.row-of", words.V{"at": at, "row": w.Row})
		}
		if n > 1 {
			at = words.Plain("plan.so-many-at", words.V{"count": n, "at": at})
		}
		if w.Part != part || w.Run != run {
			part, run = w.Part, w.Run
			if len(runs) > 1 {
				at = words.Plain("plan.piece-of", words.V{"part": part, "run": runs[run], "at": at})
			} else {
				at = words.Plain("plan.piece-at", words.V{"part": part, "at": at})
			}
		}
		out = append(out, at)
		i = k
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
