package plan

import (
	"slices"

	"mallow/core/bill"
	"mallow/core/engine"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/days"
	"mallow/core/stage/pourday"
)

// Schedule lays the job's work out in days.
func (r *Result) Schedule() *days.Schedule { return r.schedule(r.Figures(), r.Bill().Items) }

// Elsewhere is the job's days with days on which its crew is on another job, as figures.
func (r *Result) Elsewhere(taken []string) *days.Schedule {
	g := r.given(r.Figures(), r.Bill().Items)
	g.Job.Days.Taken = taken
	return days.Figures(g)
}

func (r *Result) schedule(p Plan, items []bill.Item) *days.Schedule {
	g := r.given(p, items)
	g.Fast = func() ([]job.Edit, days.Given) { return r.fast() }
	return days.Compute(g)
}

// fast is the same job with every run's posts in mix that sets fast.
func (r *Result) fast() ([]job.Edit, days.Given) {
	j, edits := r.Job, []job.Edit{}
	fast := job.FastDry
	j.Lines = slices.Clone(j.Lines)
	for l := range j.Lines {
		j.Lines[l].Runs = slices.Clone(j.Lines[l].Runs)
		for k := range j.Lines[l].Runs {
			run := &j.Lines[l].Runs[k]
			run.Setting.Method = &fast
			edits = append(edits, job.Set(job.At(job.At("/lines", j.Lines[l].ID), "runs", run.ID)+"/setting/method", fast))
		}
	}
	then := &Result{engine.Compute(j, r.Catalog, nil, func() {})}
	if now, was := then.Findings(), r.Findings(); worse(now, was) {
		return nil, days.Given{} // what cannot be done is no way out
	}
	return edits, then.given(then.Figures(), then.Bill().Items)
}

// worse tells whether something cannot be done now that could be.
func worse(now, was []stage.Found) bool {
	count := func(all []stage.Found) (n int) {
		for _, f := range all {
			if f.Severity == finding.Cannot {
				n++
			}
		}
		return n
	}
	return count(now) > count(was)
}

func (r *Result) given(p Plan, items []bill.Item) days.Given {
	cautions := r.Cautions()
	runs := r.loads()
	g := days.Given{Job: r.Job, Cat: r.Catalog, Items: items,
		Pour: func(j job.Job) *pourday.Day { return pourday.Figures(j, r.Catalog, runs) },
		Cautions: func(stage finding.Stage) (out []reason.Text) {
			for _, c := range cautions {
				if c.Stage == stage {
					out = append(out, c.Says)
				}
			}
			return out
		}}
	names := r.names()
	for i := range p.Runs {
		for k := range p.Runs[i].Posts {
			if o := &p.Runs[i].Posts[k]; o.Shared == "" && o.Stays == "" {
				name := o.Label
				if len(p.Runs) > 1 {
					name = names[p.Runs[i].ID] + " " + name
				}
				g.Posts = append(g.Posts, name)
			}
		}
	}
	return g
}
