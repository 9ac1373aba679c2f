package bill

import (
	"strings"

	"mallow/core/reason"
	"mallow/core/words"
)

// Rows are the lines of a bill: one for each way to buy each item.
func Rows(items []Item) []Row {
	var out []Row
	for i := range items {
		item := &items[i]
		for k, b := range item.Bought {
			r := Row{Item: item, What: item.What, By: b.By, Count: b.Count, Many: b.Many, Of: b.Of, Or: k > 0}
			if k > 0 {
				r.What = words.Plain("bill.or-by-" + dashed(b.By))
			}
			if k == 0 && item.Unit == Pieces {
				r.Of = item.Name
				if item.Cut > 0 {
					r.Of = append(append(reason.Text{}, r.Of...), words.Say("bill.of-them-cut", words.V{"cut": item.Cut})...)
				}
			}
			out = append(out, r)
		}
	}
	return out
}

// dashed is a name as part of a message's name.
func dashed(s string) string { return strings.ReplaceAll(s, " ", "-") }
