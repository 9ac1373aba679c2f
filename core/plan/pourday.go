package plan

import (
	"mallow/core/stage/load"
	"mallow/core/stage/pourday"
)

// PourDay plans the day on which the job's concrete is poured.
func (r *Result) PourDay() *pourday.Day {
	return pourday.Compute(r.Job, r.Catalog, r.loads())
}

// loads are what each run takes, in the order of the lines.
func (r *Result) loads() []*load.Load {
	out := make([]*load.Load, len(r.Runs))
	for i, run := range r.Runs {
		out[i] = run.Load
	}
	return out
}
