package document

import (
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// Check returns what the single fields' limits cannot say: which fields do not
// fit together. Decode has done it; a changed job is checked again with it.
func Check(j job.Job) Errors { return check(j, 0) }

// check leaves out the facts that were checked before, the first ones.
func check(j job.Job, known int) Errors {
	var e Errors
	u := j.Units
	if !u.HasMark() {
		e = append(e, FieldError{"/units/smallestMark", plain(float64(u.SmallestMark)), allowedMarks(u.System)})
		return e
	}
	if w := j.Site.Wind; w != 0 && w < leastWind {
		e = append(e, FieldError{"/site/wind", words.Plain("document.m-s", words.V{"wind": plain(w)}), words.Plain("document.m-s-to-60-m", words.V{"leastWind": plain(leastWind)})})
	}
	e = append(e, checkTicket(j.Site.Before.Ticket)...)
	e = append(e, checkOffer(j.Offer)...)
	e = append(e, checkPour(j.Pour)...)
	e = append(e, checkWeather(j.Weather)...)
	e = append(e, checkDays(j.Days)...)
	e = append(e, checkSystems(j.Systems)...)
	e = append(e, checkHole("", j.Hole, j.Setting, job.Post{}, u)...)
	lines, runs := map[string]bool{}, map[string]bool{}
	for _, line := range j.Lines {
		at := job.At("/lines", line.ID)
		e = append(e, once(at+"/id", line.ID, "line", lines)...)
		for _, run := range line.Runs {
			at := job.At(at, "runs", run.ID)
			e = append(e, once(at+"/id", run.ID, "run", runs)...)
			e = append(e, checkRun(at, run, u)...)
		}
		e = append(e, checkLine(at, line, u)...)
	}
	e = append(e, checkObserved(j, known)...)
	return append(e, checkCost(j)...)
}

// leastWind is the lightest wind that can be told from none, metres per second.
const leastWind = 0.1

// once refuses a name that something else of the same kind has already.
func once(field, id, what string, seen map[string]bool) Errors {
	if seen[id] {
		return Errors{{field, strconv.Quote(id), words.Plain("document.a-name-no-other-has", words.V{"what": what})}}
	}
	seen[id] = true
	return nil
}

func allowedMarks(s length.System) string {
	if s == length.Metric {
		return words.Plain("document.marks-of-a-metric-tape")
	}
	return words.Plain("document.marks-of-an-imperial-tape")
}

func checkRun(at string, r job.Run, u length.Units) Errors {
	var e Errors
	refuse := func(field, given, allowed string) {
		e = append(e, FieldError{at + field, given, allowed})
	}
	if r.Fence.GapMost < r.Fence.GapLeast {
		refuse("/fence/gapMost", u.Short(r.Fence.GapMost), words.Plain("document.at-least-the-least-gap", words.V{"gapLeast": u.Short(r.Fence.GapLeast)}))
	}
	if r.Post.Hollow && (r.Post.Wall <= 0 || 2*r.Post.Wall >= r.Post.Width) {
		refuse("/post/wall", u.Short(r.Post.Wall), words.Plain("document.for-a-hollow-post-more", words.V{"width": u.Short(r.Post.Width / 2)}))
	}
	for _, own := range []struct {
		field string
		t     *job.Terminal
	}{{"/terminal/wall", r.Terminal}, {"/gatePost/wall", r.GatePost}} {
		field, t := own.field, own.t
		if t != nil && t.Hollow && (t.Wall <= 0 || 2*t.Wall >= t.Width) {
			refuse(field, u.Short(t.Wall), words.Plain("document.for-a-hollow-post-more", words.V{"width": u.Short(t.Width / 2)}))
		}
	}
	e = append(e, checkSpacing(at, r, u)...)
	for _, l := range r.Post.Stock {
		if l < 300 || l > 12000 {
			refuse("/post/stock", u.Short(l), words.Plain("document.from-to", words.V{"least": u.Short(300), "most": u.Short(12000)}))
		}
	}
	e = append(e, checkParts(at, r.Parts, u)...)
	e = append(e, checkRules(at, r, u)...)
	e = append(e, checkGrade(at, r, u)...)
	if c := r.Curb; c != nil && c.Above >= c.Filled(u).Depth {
		refuse("/curb/above", u.Short(c.Above), words.Plain("document.less-than-its-depth", words.V{"depth": u.Short(c.Filled(u).Depth)}))
	}
	if r.Length == nil {
		return e
	}
	field, bay := "/spacing/most", r.Spacing.Most
	if _, ok := r.Spacing.ByPiece(); ok {
		field, bay = "/spacing/piece", r.Spacing.Regular(r.Post.Width, r.Post.Width)
	}
	if most := *r.Length / mostPosts; bay < most {
		refuse(field, u.Short(bay), words.Plain("document.bays-of-at-least-on", words.V{"most": u.Short(most), "mostPosts": mostPosts}))
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

func checkGround(at string, r job.Run, u length.Units) Errors {
	var e Errors
	for i, g := range r.Ground {
		field := job.At(at, "ground", g.ID, "at")
		switch {
		case g.At > *r.Length+length.Tolerance:
			e = append(e, FieldError{field, u.Tape(g.At), words.Plain("document.a-station-on-the-run", words.V{"length": u.Tape(*r.Length)})})
		case i > 0 && g.At <= r.Ground[i-1].At+length.Tolerance:
			e = append(e, FieldError{field, u.Tape(g.At), words.Plain("document.past-the-ground-point-before", words.V{"at": u.Tape(r.Ground[i-1].At)})})
		}
	}
	return e
}

// mostPosts bounds what one run may ask of the machine; cost.go says what a
// whole job may.
const mostPosts = MostPosts

// CheckRun returns which of a run's fields do not fit together.
func CheckRun(at string, r job.Run, u length.Units) Errors { return checkRun(at, r, u) }
