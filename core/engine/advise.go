package engine

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/stage"
	"mallow/core/stage/load"
)

// advice works out ways out of findings, within what may be spent on it.
type Advice struct {
	of    *Result
	watch *stage.Watch
	runs  map[string]*stage.Advising
}

func (r *Result) Advice(watch *stage.Watch) *Advice {
	return &Advice{of: r, watch: watch, runs: map[string]*stage.Advising{}}
}

// on is what a run is advised on with.
func (a *Advice) On(run string) *stage.Advising {
	if a.runs[run] == nil {
		a.runs[run] = &stage.Advising{Watch: a.watch, Known: map[any]any{}}
		if res := a.of.Run(run); res != nil {
			a.runs[run] = &stage.Advising{Run: res.Laid.Run, Posts: len(res.Line.Layout.Posts), Watch: a.watch, Trials: &trier{of: res.Load, look: a.watch.Look}, Known: map[any]any{}}
		}
	}
	return a.runs[run]
}

// ways are the ways out of a finding.
func (a *Advice) Ways(f stage.Found) []finding.Remedy {
	if f.Ways == nil {
		return nil
	}
	ways := f.Ways(a.On(f.Place.Run))
	return slices.DeleteFunc(ways, func(w finding.Remedy) bool { return !a.watch.Tell(w.Edits) })
}

// run is a run of the result, by its name; nil where there is none.
func (r *Result) Run(id string) *Run {
	for _, run := range r.Runs {
		if run.Laid.Given.ID == id {
			return run
		}
	}
	return nil
}

// inLine is a run as it would be within its whole line, so that the posts
// which it shares with its neighbours are what they would be too.
func (a *Advice) InLine(run job.Run) *load.Load {
	j := a.of.Job
	j.Lines = slices.Clone(j.Lines)
	for l := range j.Lines {
		r := slices.IndexFunc(j.Lines[l].Runs, func(o job.Run) bool { return o.ID == run.ID })
		if r < 0 {
			continue
		}
		j.Lines[l].Runs = slices.Clone(j.Lines[l].Runs)
		j.Lines[l].Runs[r] = run
		j.Lines = j.Lines[l : l+1]
		then := Compute(j, a.of.Catalog, a.of, a.watch.Look).Runs[r]
		return added(then.Holes, then.curbEnds)
	}
	return nil
}
