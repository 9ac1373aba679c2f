// Package board holds the jobs of each crew against each other, so that one crew is not
// in two places on a day.
package board

import (
	"cmp"
	"slices"

	"mallow/core/stage/days"
)

// Job is a job whose days have a start.
type Job struct {
	ID, Name, Crew string
	Revision       int
	Start          string
	Taken          []string // days that it keeps clear of as it stands
	// Plan is its days, kept clear of days on which its crew is on another job.
	Plan func(taken []string) (*days.Schedule, error)
}

// CrewDays is the days of one crew.
type CrewDays struct {
	Name string    `json:"name" jsonschema:"required" jsonschema_description:"Empty: of the jobs that name none, which are taken as one crew's."`
	Jobs []OnBoard `json:"jobs" jsonschema:"required" jsonschema_description:"The one that starts first goes first; the others keep clear of it."`
}

// OnBoard is a job on the board.
type OnBoard struct {
	ID       string      `json:"id" jsonschema:"required"`
	Name     string      `json:"name" jsonschema:"required"`
	Revision int         `json:"revision" jsonschema:"required"`
	Days     []OnJob     `json:"days" jsonschema:"required" jsonschema_description:"As the job stands."`
	Finish   string      `json:"finish,omitempty" jsonschema_description:"Left out: some tasks have no place."`
	Clash    []BoardHit  `json:"clash" jsonschema:"required" jsonschema_description:"Days on which its crew is on a job that goes first too."`
	Clear    *BoardClear `json:"clear,omitempty" jsonschema_description:"Its days kept clear of the others; left out where they are."`

	schedule *days.Schedule
}

// OnJob is a crew's day on a job.
type OnJob struct {
	Date  string   `json:"date" jsonschema:"required"`
	From  string   `json:"from" jsonschema:"required"`
	To    string   `json:"to" jsonschema:"required"`
	Tasks []string `json:"tasks" jsonschema:"required"`
}

// BoardHit is a day on which a crew would be in two places.
type BoardHit struct {
	Date  string `json:"date" jsonschema:"required"`
	Other string `json:"other" jsonschema:"required" jsonschema_description:"Name of the job that goes first."`
}

// BoardClear is a job's days kept clear of those before it.
type BoardClear struct {
	Taken  []string `json:"taken" jsonschema:"required" jsonschema_description:"Days to keep clear of: the job's /days/taken."`
	Days   []OnJob  `json:"days" jsonschema:"required"`
	Finish string   `json:"finish,omitempty" jsonschema_description:"Left out: some tasks have no place then."`
}

// Schedule is the days of a job as they stand.
func (o *OnBoard) Schedule() *days.Schedule { return o.schedule }

// Lay holds jobs against each other. Those of a crew are taken by their start: each
// keeps clear of the days on which those before it are worked on, as the board has them.
func Lay(jobs []Job, each func(done int)) ([]CrewDays, error) {
	jobs = slices.Clone(jobs)
	slices.SortStableFunc(jobs, func(a, b Job) int {
		return cmp.Or(cmp.Compare(a.Crew, b.Crew), cmp.Compare(a.Start, b.Start), cmp.Compare(a.ID, b.ID))
	})
	var out []CrewDays
	busy := map[string]string{} // day, and the job that is worked on
	for n, j := range jobs {
		if len(out) == 0 || out[len(out)-1].Name != j.Crew {
			out, busy = append(out, CrewDays{Name: j.Crew, Jobs: []OnBoard{}}), map[string]string{}
		}
		o, err := one(j, busy)
		if err != nil {
			return nil, err
		}
		worked := o.Days
		if o.Clear != nil {
			worked = o.Clear.Days
		}
		for _, d := range worked {
			if busy[d.Date] == "" {
				busy[d.Date] = o.Name
			}
		}
		crew := &out[len(out)-1]
		crew.Jobs = append(crew.Jobs, o)
		each(n + 1)
	}
	return out, nil
}

// one holds a job against the days that are taken.
func one(j Job, busy map[string]string) (OnBoard, error) {
	s, err := j.Plan(j.Taken)
	if err != nil {
		return OnBoard{}, err
	}
	o := OnBoard{ID: j.ID, Name: j.Name, Revision: j.Revision, Days: worked(s), Finish: s.Finish, Clash: []BoardHit{}, schedule: s}
	for _, d := range o.Days {
		if other := busy[d.Date]; other != "" {
			o.Clash = append(o.Clash, BoardHit{d.Date, other})
		}
	}
	var taken []string
	for date := range busy {
		if date >= j.Start {
			taken = append(taken, date)
		}
	}
	slices.Sort(taken)
	stale := slices.ContainsFunc(j.Taken, func(date string) bool { return busy[date] == "" })
	if len(o.Clash) == 0 && !stale {
		return o, nil
	}
	then, err := j.Plan(taken)
	if err != nil {
		return OnBoard{}, err
	}
	c := &BoardClear{Taken: taken, Days: worked(then), Finish: then.Finish}
	// What lies past the last day is nothing to keep clear of.
	if then.Finish != "" {
		c.Taken = slices.DeleteFunc(taken, func(date string) bool { return date > then.Finish })
	}
	if len(o.Clash) > 0 || c.Finish != "" && c.Finish < o.Finish {
		o.Clear = c
	}
	return o, nil
}

func worked(s *days.Schedule) []OnJob {
	out := []OnJob{}
	for i := range s.Days {
		d := &s.Days[i]
		o := OnJob{Date: d.Date, From: d.From, To: d.To, Tasks: []string{}}
		for _, p := range d.Parts {
			if !slices.Contains(o.Tasks, p.Name) {
				o.Tasks = append(o.Tasks, p.Name)
			}
		}
		out = append(out, o)
	}
	return out
}
