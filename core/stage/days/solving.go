package days

import (
	"slices"
	"time"

	"mallow/core/agenda"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage/pourday"
)

// unfit is a day that is not fit for the pour.
type unfit struct {
	date string
	why  reason.Text
}

// mostAhead is how many days from the start on are looked at for a pour that has none.
const mostAhead = 45

// solve finds the agenda. A pour that has no day of its own is tried on every day that is
// fit for it, each with what hardens as that day's weather has it; and after them all.
func (w *planner) solve() agenda.Answer {
	free := w.poured && w.Job.Pour.Date == "" && !w.sky.Empty() && !slices.ContainsFunc(w.days.Moves, func(m job.TaskMove) bool { return m.Task == "pour" })
	if !free {
		w.links()
		return agenda.Plan(w.q)
	}
	var known []int
	var best agenda.Answer
	var at string
	for day := 0; day < min(mostAhead, len(w.q.Days)); day++ {
		date := w.start.AddDate(0, 0, day).Format(time.DateOnly)
		noon, err := w.sky.Clock(date, 12*60)
		if _, ok := w.sky.At(noon); err != nil || !ok {
			continue
		}
		known = append(known, day)
		if w.q.Days[day].To <= w.q.Days[day].From {
			continue
		}
		pour := w.pourOn(date)
		if why, ok := pour.Unfit(); ok {
			w.unfit = append(w.unfit, unfit{date, why})
			continue
		}
		if a := w.with(date, pour, best.Finish); len(a.Left) == 0 && (at == "" || a.Better(best)) {
			best, at = a, date
		}
	}
	// On a day of which the weather is not known.
	w.relink("", w.Pour(w.Job))
	if k := w.place("pour"); k >= 0 {
		w.q.Tasks[k].Off = known
	}
	w.q.Until = best.Finish
	if a := agenda.Plan(w.q); at == "" || len(a.Left) == 0 && a.Better(best) {
		return a
	}
	return w.with(at, w.pourOn(at), 0)
}

// pourOn is the pour on a day.
func (w *planner) pourOn(date string) *pourday.Day {
	if d := w.pours[date]; d != nil {
		return d
	}
	j := w.Job
	j.Pour.Date = date
	d := w.Pour(j)
	w.pours[date] = d
	return d
}

// with is the agenda with the pour on a day; what ends later than a time is of no
// interest.
func (w *planner) with(date string, pour *pourday.Day, until float64) agenda.Answer {
	w.relink(date, pour)
	w.q.Until = until
	return agenda.Plan(w.q)
}

func (w *planner) relink(date string, pour *pourday.Day) {
	w.on, w.pour, w.q.Tasks, w.usual = date, pour, nil, map[string]bool{}
	w.links()
}

// place is where a task is, or -1.
func (w *planner) place(id string) int {
	return slices.IndexFunc(w.specs, func(t materials.WorkTask) bool { return t.ID == id })
}
