package paper

import (
	"fmt"
	"slices"

	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/scene"
)

// cover is the check-list: what must be settled, what cannot be built as
// planned, and the cautions that apply to this job.
func (w writer) cover() Sheet {
	s := Sheet{ID: "cover", Title: "Check-list"}
	s.Blocks = append(s.Blocks, Heading("Before anything is dug"))
	var checks []string
	for _, c := range w.plan.Before.Checks {
		done := ""
		if c.Done {
			done = " (done)"
		}
		checks = append(checks, c.Name+done+": "+w.say(c.Says))
	}
	s.Blocks = append(s.Blocks, List{Items: checks, Tick: true})
	var open []string
	for _, f := range w.plan.Findings {
		if f.Severity == "cannot" || f.Severity == "missing" || f.Severity == "check" {
			open = append(open, w.say(f.Says))
		}
	}
	if len(open) > 0 {
		s.Blocks = append(s.Blocks, Heading("Still open in the plan"), List{Items: slices.Compact(open), Tick: true})
	}
	return w.warned(s, "Cautions for this job", "walk", "string", "space", "grade", "gates", "dig", "pour")
}

// warned ends a sheet with the cautions of some stages.
func (w writer) warned(s Sheet, title string, stages ...string) Sheet {
	var items []string
	for _, stage := range stages {
		for _, c := range w.plan.Cautions {
			if string(c.Stage) == stage {
				items = append(items, w.say(c.Says))
			}
		}
	}
	if len(items) > 0 {
		s.Blocks = append(s.Blocks, Heading(title), List{Items: items})
	}
	return s
}

// summary is what the customer gets: what will stand where, and what it was
// reckoned from. Nothing of hours, loads or money.
func (w writer) summary() Sheet {
	s := Sheet{ID: "summary", Title: "Job summary"}
	s.Blocks = append(s.Blocks, Figure{Plan: w.plan, View: scene.View{Of: scene.OfMap, Run: w.plan.Runs[0].ID, Stress: scene.OnPaper}, Height: 105})
	t := Table{Head: []string{"Run", "Length", "Height", "Posts", "Follows the ground", "Gates"}, Bold: 0}
	looks := map[job.Look]string{job.Level: "level", job.Stepped: "in level steps", job.Raked: "leaning with it", job.Rolling: "in long straight lines"}
	for i, r := range w.plan.Runs {
		run := w.run(i)
		gates := ""
		for k, g := range r.Gates {
			if k > 0 {
				gates += "; "
			}
			gates += gateName(g) + ", " + w.units.Short(g.Clear) + " clear"
		}
		t.Rows = append(t.Rows, []string{w.name(i), w.units.Tape(r.Length), w.units.Short(run.Fence.Height), fmt.Sprint(r.Totals.Posts), looks[run.Grade.Look], gates})
	}
	s.Blocks = append(s.Blocks, t, Heading("What it rests on"))
	rests := []string{}
	for _, r := range w.plan.Runs {
		if r.Frost != nil {
			words := "Frost depth " + w.units.Short(*r.Frost) + ", by the local building office."
			if r.FrostEstimated {
				words = "Frost depth " + w.units.Short(*r.Frost) + ", an estimate: the local office's figure goes before it."
			}
			rests = append(rests, words)
			break
		}
	}
	for i, r := range w.plan.Runs {
		if !r.Measured {
			rests = append(rests, "The ground along "+w.name(i)+" was not measured: it is taken as level.")
		}
	}
	for _, c := range w.plan.Before.Checks {
		if !c.Done {
			rests = append(rests, c.Name+": not settled yet.")
		}
	}
	rests = append(rests, "Lengths are level, centre to centre of the end posts.")
	s.Blocks = append(s.Blocks, List{Items: rests})
	return w.warned(s, "Cautions", "walk", "gates")
}

// run is the run of the job that was planned in a place of the plan's list.
func (w writer) run(i int) job.Run {
	for _, l := range w.job.Lines {
		for _, r := range l.Runs {
			if r.ID == w.plan.Runs[i].ID {
				return r
			}
		}
	}
	return job.Run{}
}

func gateName(g plan.Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}

// load is what the truck must carry, for the job and each run, with room to
// tick.
func (w writer) load() Sheet {
	s := Sheet{ID: "load", Title: "Load list"}
	s.Blocks = append(s.Blocks, Heading("The whole job"), w.loadTable(w.plan.Items))
	if len(w.plan.Runs) > 1 {
		for i, r := range w.plan.Runs {
			s.Blocks = append(s.Blocks, Heading(w.name(i)), w.loadTable(r.Items))
		}
	}
	s.Blocks = append(s.Blocks, Para{Words: "Bags of each run are rounded up for the run; those of the job once for the job. Corner posts are counted in the run that ends there."})
	return s
}

func (w writer) loadTable(items []bill.Item) Table {
	things := slices.DeleteFunc(slices.Clone(items), func(i bill.Item) bool { return i.Kind == bill.Labour }) // nothing to load
	return tabled(report.Load(w.plan, things).Read(), true)
}
