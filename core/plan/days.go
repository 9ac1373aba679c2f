package plan

import (
	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
	"mallow/core/stage/days"
	"mallow/core/stage/pourday"
)

// Schedule lays the job's work out in days.
func (r *Result) Schedule() *days.Schedule { return r.schedule(r.Figures(), r.Bill().Items) }

func (r *Result) schedule(p Plan, items []bill.Item) *days.Schedule {
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
	return days.Compute(g)
}
