package pourday

import (
	"mallow/core/length"
	"mallow/core/words"
)

// curbOf is what the mowing curb of a bay is called.
func curbOf(bay string, sys length.System) string {
	return words.In(sys, "pour.curb-of", words.V{"bay": bay})
}

// curbName is what the curb is called among the rates.
func curbName(sys length.System) string { return words.In(sys, "load.curb") }

// Says is what is set from a load, the first and the last of it by name.
func (l DayLoad) Says(u length.Units) string {
	var first, last string
	if n := len(l.Posts); n > 0 {
		first, last = l.Posts[0], l.Posts[n-1]
	}
	if n := len(l.Curb); n > 0 {
		if last = curbOf(l.Curb[n-1], u.System); first == "" {
			first = curbOf(l.Curb[0], u.System)
		}
	}
	if first == last {
		return first
	}
	return words.In(u.System, "pour.load-from-to", words.V{"first": first, "last": last})
}

// Rows are the posts and the bays of curb, in the order in which they are set.
func (d *Day) Rows(u length.Units) []DayPost {
	out := make([]DayPost, 0, len(d.Posts)+len(d.Curb))
	run, k := "", 0
	curbs := func() {
		for ; k < len(d.Curb) && d.Curb[k].Run == run; k++ {
			c := &d.Curb[k]
			out = append(out, DayPost{Run: c.Run, Post: curbOf(c.Bay, u.System), Load: c.Load, At: c.At, Done: c.Done, Volume: c.Volume, Bags: c.Bags, Water: c.Water, Finish: c.Finish, IsCurb: true})
		}
	}
	for _, p := range d.Posts {
		if p.Run != run {
			curbs()
			run = p.Run
		}
		out = append(out, p)
	}
	curbs()
	return out
}
