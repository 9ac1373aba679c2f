package job

import (
	"fmt"
	"sort"
	"strconv"

	"mallow/core/length"
)

// Check returns what the single fields' limits cannot say: which fields do not
// fit together. Decode has done it; a changed job is checked again with it.
func Check(j Job) Errors {
	var e Errors
	u := j.Units
	if !u.HasMark() {
		e = append(e, FieldError{"/units/smallestMark", plain(float64(u.SmallestMark)), allowedMarks(u.System)})
		return e
	}
	e = append(e, checkTicket(j.Site.Before.Ticket)...)
	e = append(e, checkSystems(j.Systems)...)
	e = append(e, checkHole("", j.Hole, j.Setting, Post{}, u)...)
	lines, runs := map[string]bool{}, map[string]bool{}
	for l, line := range j.Lines {
		at := fmt.Sprintf("/lines/%d", l)
		e = append(e, once(at+"/id", line.ID, "line", lines)...)
		for r, run := range line.Runs {
			at := fmt.Sprintf("%s/runs/%d", at, r)
			e = append(e, once(at+"/id", run.ID, "run", runs)...)
			e = append(e, checkRun(at, run, u)...)
		}
		e = append(e, checkLine(at, line, u)...)
	}
	return e
}

// once refuses a name that something else of the same kind has already.
func once(field, id, what string, seen map[string]bool) Errors {
	if seen[id] {
		return Errors{{field, strconv.Quote(id), "a name no other " + what + " has"}}
	}
	seen[id] = true
	return nil
}

func allowedMarks(s length.System) string {
	if s == length.Metric {
		return "1, 5 or 10 for a metric tape"
	}
	return "12.7, 6.35, 3.175, 1.5875 or 0.79375 (1/2 to 1/32 in) for an imperial tape"
}

func checkRun(at string, r Run, u length.Units) Errors {
	var e Errors
	refuse := func(field, given, allowed string) {
		e = append(e, FieldError{at + field, given, allowed})
	}
	if r.Fence.GapMost < r.Fence.GapLeast {
		refuse("/fence/gapMost", u.Short(r.Fence.GapMost), "at least the least gap, "+u.Short(r.Fence.GapLeast))
	}
	if r.Post.Hollow && (r.Post.Wall <= 0 || 2*r.Post.Wall >= r.Post.Width) {
		refuse("/post/wall", u.Short(r.Post.Wall), "for a hollow post, more than 0 and less than half its width, "+u.Short(r.Post.Width/2))
	}
	if t := r.Terminal; t != nil && t.Hollow && (t.Wall <= 0 || 2*t.Wall >= t.Width) {
		refuse("/terminal/wall", u.Short(t.Wall), "for a hollow post, more than 0 and less than half its width, "+u.Short(t.Width/2))
	}
	e = append(e, checkSpacing(at, r, u)...)
	for i, l := range r.Post.Stock {
		if l < 300 || l > 12000 {
			refuse("/post/stock/"+strconv.Itoa(i), u.Short(l), u.Short(300)+" to "+u.Short(12000))
		}
	}
	e = append(e, checkRules(at, r, u)...)
	e = append(e, checkGrade(at, r, u)...)
	if r.Length == nil {
		return e
	}
	field, bay := "/spacing/most", r.Spacing.Most
	if _, ok := r.Spacing.ByPiece(); ok {
		field, bay = "/spacing/piece", r.Spacing.Regular(r.Post.Width, r.Post.Width)
	}
	if most := *r.Length / mostPosts; bay < most {
		refuse(field, u.Short(bay), fmt.Sprintf("bays of at least %s on a run this long: a run may have %d", u.Short(most), mostPosts))
	}
	e = append(e, checkGround(at, r, u)...)
	e = append(e, checkKeepOuts(at, r, u)...)
	gates := checkGates(at, r, u)
	e = append(e, gates...)
	if len(gates) == 0 { // what is held is held clear of the gates
		e = append(e, checkHeld(at, r, u)...)
	}
	return e
}

func checkGround(at string, r Run, u length.Units) Errors {
	var e Errors
	for i, g := range r.Ground {
		field := fmt.Sprintf("%s/ground/%d/at", at, i)
		switch {
		case g.At > *r.Length+length.Tolerance:
			e = append(e, FieldError{field, u.Tape(g.At), "a station on the run, 0 to " + u.Tape(*r.Length)})
		case i > 0 && g.At <= r.Ground[i-1].At+length.Tolerance:
			e = append(e, FieldError{field, u.Tape(g.At), "past the ground point before it, " + u.Tape(r.Ground[i-1].At)})
		}
	}
	return e
}

// mostPosts bounds what one run may ask of the machine: 20,000 posts are some
// 48 km of fence.
const mostPosts = 20000

// GatePosts returns the stations of the centres of a gate's two posts.
func (r Run) GatePosts(g Gate) (first, second length.Length) {
	half := (g.Opening + r.PostOf(GatePost).Width) / 2
	return g.At - half, g.At + half
}

// CheckRun returns which of a run's fields do not fit together.
func CheckRun(at string, r Run, u length.Units) Errors { return checkRun(at, r, u) }

// CheckGates returns which gates do not fit on a run of this length.
func CheckGates(at string, r Run, u length.Units) Errors { return checkGates(at, r, u) }

func checkGates(at string, r Run, u length.Units) Errors {
	var e Errors
	order := make([]int, len(r.Gates))
	ids := map[string]bool{}
	for i, g := range r.Gates {
		order[i] = i
		field := fmt.Sprintf("%s/gates/%d", at, i)
		e = append(e, once(field+"/id", g.ID, "gate", ids)...)
		half := (g.Opening + r.PostOf(GatePost).Width) / 2
		first, second := r.GatePosts(g)
		switch {
		case 2*half > *r.Length+length.Tolerance:
			e = append(e, FieldError{field + "/opening", u.Short(g.Opening), "at most " + u.Short(*r.Length-r.PostOf(GatePost).Width) + ", what the run has room for"})
		case first < -length.Tolerance || second > *r.Length+length.Tolerance:
			e = append(e, FieldError{field + "/at", u.Tape(g.At),
				"the middle of the opening from " + u.Tape(half) + " to " + u.Tape(*r.Length-half) + ", so that both gate posts stand on the run"})
		}
	}
	if len(e) > 0 {
		return e
	}
	sort.SliceStable(order, func(a, b int) bool { return r.Gates[order[a]].At < r.Gates[order[b]].At })
	for k := 1; k < len(order); k++ {
		_, before := r.GatePosts(r.Gates[order[k-1]])
		first, _ := r.GatePosts(r.Gates[order[k]])
		if first < before-length.Tolerance {
			e = append(e, FieldError{fmt.Sprintf("%s/gates/%d/at", at, order[k]), u.Tape(r.Gates[order[k]].At),
				"at least " + u.Tape(r.Gates[order[k]].At+before-first) + ", clear of the gate before it"})
		}
	}
	return e
}
