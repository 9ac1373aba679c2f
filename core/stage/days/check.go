package days

import (
	"slices"
	"time"

	"mallow/core/agenda"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
	"mallow/core/words"
)

// What the days find, by their code.
const (
	codeLeft    = "days-left"
	codeMoved   = "days-moved"
	codeOffer   = "days-offer"
	codeWet     = "days-wet"
	codeUsual   = "days-usual-waits"
	codePourDay = "days-pour"
	codeFound   = "days-pour-found"
	codeUnknown = "days-unknown-task"
)

// Findings are what the days find: what each means, how bad it can be, and from what on
// it is said.
var Findings = []finding.Kind{
	{Rule: codeLeft, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Cannot}, Means: "Some tasks have no place in the days that were looked at."},
	{Rule: codeMoved, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Check}, Means: "A task that was moved makes the work end later.", Threshold: "a day"},
	{Rule: codeOffer, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Check}, Means: "The work ends after the day that the customer was told."},
	{Rule: codeWet, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Note}, Means: "It rains on a day on site.", Threshold: "wetDay"},
	{Rule: codeUsual, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Note}, Means: "What hardens is waited for as crews usually do: the weather is not known."},
	{Rule: codeFound, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Note}, Means: "The pour has no day of its own: the schedule has it on the best one that the weather allows."},
	{Rule: codeUnknown, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Check}, Means: "A task that was moved, or has a rate, is not one of this job's."},
	{Rule: codePourDay, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Cannot}, Means: "The day of the pour is before what must be done by then, or a day off."},
}

// wetDay is the rain on a day that crews stay away for, millimetres (common practice).
const wetDay = 5.0

func (w *planner) find(code string, severity finding.Severity, says reason.Text, ways ...finding.Remedy) {
	w.out.Finds = append(w.out.Finds, finding.Finding{ID: code, Rule: code, Severity: severity, Stage: finding.Days, Says: says, Remedies: ways})
}

// check says what is to be looked at.
func (w *planner) check(a agenda.Answer) {
	o := w.out
	w.strangers()
	if len(o.Left) > 0 {
		w.unplaced(a)
		return
	}
	w.found()
	if len(w.days.Moves) > 0 {
		j := w.Job
		j.Days.Moves = nil
		if then := w.ends(j); then.Finish != "" && then.Finish < o.Finish {
			w.find(codeMoved, finding.Check, words.Say("days.moved-later", words.V{"finish": o.Finish, "without": then.Finish}),
				finding.Remedy{Says: words.Say("days.move-back"), Edits: []job.Edit{job.Set("/days/moves", nil)}})
		}
	}
	if end := w.Job.Offer.End; end != "" && o.Finish > end {
		w.find(codeOffer, finding.Check, words.Say("days.after-offer", words.V{"finish": o.Finish, "end": end}))
	}
	if len(w.usual) > 0 && w.poured {
		w.find(codeUsual, finding.Note, words.Say("days.usual-waits"))
	}
	for _, d := range o.Days {
		if d.Rain != nil && *d.Rain >= wetDay {
			rest := append(slices.Clone(w.days.Rest), d.Date)
			w.find(codeWet, finding.Note, words.Say("days.wet", words.V{"date": d.Date}), w.helps(
				tried{words.Say("days.rest-on", words.V{"date": d.Date}), []job.Edit{job.Set("/days/rest", rest)}, func(j *job.Job) { j.Days.Rest = rest }})...)
			break
		}
	}
}

// found says on which day the pour falls, and why it waits until then.
func (w *planner) found() {
	if w.on == "" {
		return
	}
	says := words.Say("days.pour-found", words.V{"date": w.on})
	if k := len(w.unfit) - 1; k >= 0 {
		for k > 0 && w.unfit[k].date > w.on {
			k--
		}
		if u := w.unfit[k]; u.date < w.on {
			says = append(append(says, words.Say("days.pour-not-on", words.V{"date": u.date})...), u.why...)
		}
	}
	w.find(codeFound, finding.Note, says, finding.Remedy{Says: words.Say("days.pour-set", words.V{"date": w.on}), Edits: []job.Edit{job.Set("/pour/date", w.on)}})
}

// strangers says which tasks are named that this job has not.
func (w *planner) strangers() {
	for _, m := range w.days.Moves {
		if w.place(m.Task) < 0 {
			moves := slices.DeleteFunc(slices.Clone(w.days.Moves), func(o job.TaskMove) bool { return o.Task == m.Task })
			w.find(codeUnknown, finding.Check, words.Say("days.no-such-task", words.V{"task": m.Task}),
				finding.Remedy{Says: words.Say("days.drop-move"), Edits: []job.Edit{job.Set("/days/moves", moves)}})
		}
	}
}

// unplaced says which task has no place, and what frees it.
func (w *planner) unplaced(a agenda.Answer) {
	for k := range w.tasks {
		if a.Parts[k] != nil {
			continue
		}
		t := w.tasks[k]
		switch {
		case t.ID == "pour" && w.Job.Pour.Date != "" && !t.Moved:
			w.find(codePourDay, finding.Cannot, words.Say("days.pour-too-soon", words.V{"date": w.Job.Pour.Date}), w.helps(
				tried{words.Say("days.pour-when-ready"), []job.Edit{job.Set("/pour/date", nil)}, func(j *job.Job) { j.Pour.Date = "" }})...)
		case t.Moved:
			moves := slices.DeleteFunc(slices.Clone(w.days.Moves), func(m job.TaskMove) bool { return m.Task == t.ID })
			w.find(codeLeft, finding.Cannot, words.Say("days.no-place-there", words.V{"task": t.Name}), w.helps(
				tried{words.Say("days.move-back"), []job.Edit{job.Set("/days/moves", moves)}, func(j *job.Job) { j.Days.Moves = moves }})...)
		default:
			w.find(codeLeft, finding.Cannot, words.Say("days.no-place", words.V{"task": t.Name, "days": mostDays}))
		}
		return // the others follow from it
	}
}

type tried struct {
	says   reason.Text
	edits  []job.Edit
	change func(*job.Job)
}

// then is the schedule of a job that is changed.
func (w *planner) then(j job.Job) *Schedule {
	g := w.Given
	g.Job = j
	return compute(g, true)
}

// ends is when the work ends in a job that is changed; its days are not weighed.
func (w *planner) ends(j job.Job) *Schedule {
	g := w.Given
	g.Job, g.soonest = j, true
	return compute(g, true)
}

// helps are the ways out by which every task has a place.
func (w *planner) helps(all ...tried) (out []finding.Remedy) {
	for _, t := range all {
		j := w.Job
		t.change(&j)
		if len(w.ends(j).Left) == 0 {
			out = append(out, finding.Remedy{Says: t.says, Edits: t.edits})
		}
	}
	return out
}

// sooner tries what may end earlier: another hand or two, a machine, Saturdays, a mix
// that sets fast. Only what ends on an earlier day is told.
func (w *planner) sooner() {
	o := w.out
	if o.Finish == "" {
		return
	}
	n := w.days.People
	all := []tried{
		{words.Say("days.hands", words.V{"people": n + 1}), []job.Edit{job.Set("/days/people", n+1)}, func(j *job.Job) { j.Days.People = n + 1 }},
		{words.Say("days.hands", words.V{"people": n + 2}), []job.Edit{job.Set("/days/people", n+2)}, func(j *job.Job) { j.Days.People = n + 2 }},
	}
	if w.days.ByHand {
		all = append(all, tried{words.Say("days.machine"), []job.Edit{job.Set("/days/byHand", nil)}, func(j *job.Job) { j.Days.ByHand = false }})
	}
	if !w.days.Saturdays {
		all = append(all, tried{words.Say("days.saturdays"), []job.Edit{job.Set("/days/saturdays", true)}, func(j *job.Job) { j.Days.Saturdays = true }})
	}
	if w.Job.Pour.Date != "" {
		all = append(all, tried{words.Say("days.pour-when-ready"), []job.Edit{job.Set("/pour/date", nil)}, func(j *job.Job) { j.Pour.Date = "" }})
	}
	was := w.personHours(o)
	for _, t := range all {
		j := w.Job
		t.change(&j)
		then := w.ends(j)
		if then.Finish == "" || then.Finish >= o.Finish {
			continue
		}
		then = w.then(j)
		o.Sooner = append(o.Sooner, Sooner{finding.Remedy{Says: t.says, Edits: t.edits}, then.Finish, between(then.Finish, o.Finish), w.personHours(then) - was})
	}
	if w.Fast == nil || !w.poured || len(w.pour.Posts) > mostFast {
		return
	}
	edits, g := w.Fast()
	if len(edits) == 0 {
		return
	}
	g.soonest = true
	if Figures(g).Finish >= o.Finish {
		return
	}
	g.soonest = false
	if then := Figures(g); then.Finish != "" && then.Finish < o.Finish {
		o.Sooner = append(o.Sooner, Sooner{finding.Remedy{Says: words.Say("days.fast-mix"), Edits: edits}, then.Finish, between(then.Finish, o.Finish), w.personHours(then) - was})
	}
}

// mostFast is the longest fence, in posts, that is planned again in mix that sets fast.
const mostFast = 300

// between is how many days a date is before another.
func between(early, late string) int {
	a, _ := time.Parse(time.DateOnly, early)
	b, _ := time.Parse(time.DateOnly, late)
	return int(b.Sub(a).Hours() / 24)
}

// personHours are the hours of all hands, on site and on the way.
func (w *planner) personHours(s *Schedule) float64 {
	return float64(s.People) * (s.Hours + float64(s.Trips)*2**w.days.Travel/60)
}
