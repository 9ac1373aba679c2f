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
)

// Findings are what the days find: what each means, how bad it can be, and from what on
// it is said.
var Findings = []finding.Kind{
	{Rule: codeLeft, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Cannot}, Means: "Some tasks have no place in the days that were looked at."},
	{Rule: codeMoved, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Check}, Means: "A task that was moved makes the work end later.", Threshold: "a day"},
	{Rule: codeOffer, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Check}, Means: "The work ends after the day that the customer was told."},
	{Rule: codeWet, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Note}, Means: "It rains on a day on site.", Threshold: "wetDay"},
	{Rule: codeUsual, Costs: finding.Time, Stage: finding.Days, Severities: []finding.Severity{finding.Note}, Means: "What hardens is waited for as crews usually do: the weather is not known."},
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
	if len(o.Left) > 0 {
		w.unplaced(a)
		return
	}
	if len(w.days.Moves) > 0 {
		j := w.Job
		j.Days.Moves = nil
		if then := w.then(j); then.Finish != "" && then.Finish < o.Finish {
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
			w.find(codeWet, finding.Note, words.Say("days.wet", words.V{"date": d.Date}))
			break
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

// helps are the ways out by which every task has a place.
func (w *planner) helps(all ...tried) (out []finding.Remedy) {
	for _, t := range all {
		j := w.Job
		t.change(&j)
		if len(w.then(j).Left) == 0 {
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
		then := w.then(j)
		if then.Finish == "" || then.Finish >= o.Finish {
			continue
		}
		a, _ := time.Parse(time.DateOnly, then.Finish)
		b, _ := time.Parse(time.DateOnly, o.Finish)
		o.Sooner = append(o.Sooner, Sooner{finding.Remedy{Says: t.says, Edits: t.edits}, then.Finish, int(b.Sub(a).Hours() / 24), w.personHours(then) - was})
	}
}

// personHours are the hours of all hands, on site and on the way.
func (w *planner) personHours(s *Schedule) float64 {
	return float64(s.People) * (s.Hours + float64(s.Trips)*2**w.days.Travel/60)
}
