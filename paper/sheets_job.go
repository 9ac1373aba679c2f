package paper

import (
	"fmt"
	"slices"
	"strings"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/drawing"
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
	s.Blocks = append(s.Blocks, Figure{Picture: drawing.Map(w.plan), Height: 105})
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
	s.Blocks = append(s.Blocks, Heading("The whole job"), w.loadTable(w.plan.Totals, w.plan.Runs))
	if len(w.plan.Runs) > 1 {
		for i, r := range w.plan.Runs {
			s.Blocks = append(s.Blocks, Heading(w.name(i)), w.loadTable(r.Totals, []plan.Run{r}))
		}
	}
	s.Blocks = append(s.Blocks, Para{Words: "Bags of each run are rounded up for the run; those of the job once for the job. Corner posts are counted in the run that ends there."})
	return s
}

func (w writer) loadTable(t plan.Totals, runs []plan.Run) Table {
	out := Table{Head: []string{"What", "How many", "Of what"}, Tick: true, Bold: 1}
	add := func(what, many, of string) { out.Rows = append(out.Rows, []string{what, many, of}) }
	for _, p := range t.Parts {
		of := p.Says.Print(w.units)
		if p.Cut > 0 {
			of += fmt.Sprintf(", %d of them cut", p.Cut)
		}
		add(strings.ToUpper(p.What[:1])+p.What[1:], fmt.Sprint(p.Count), of)
	}
	if boards := t.InfillBoards; boards > 0 && !slices.ContainsFunc(t.Parts, func(p plan.LoadPart) bool { return p.What == "gravel boards" }) {
		add("Infill boards", fmt.Sprint(boards), "cut to the slope, under panels")
	}
	for _, r := range runs {
		for _, g := range r.Gates {
			for _, l := range g.Leaves {
				add("Gate leaf", "1", w.units.Short(l.Width)+" × "+w.units.Short(l.Height)+", "+gateName(g))
			}
			if g.RunBack != nil {
				add("Sliding leaf", "1", w.units.Short(g.RunBack.Past)+" × "+w.units.Short(g.Leaf)+", "+gateName(g))
			}
		}
	}
	for _, b := range t.BagKinds {
		add("Concrete", fmt.Sprintf("%d bags", b.Count), b.Bag+", "+w.units.Weight(b.Mass)+t.WithWaste())
	}
	if t.ConcreteToBuy > 0 {
		add("or by truck", w.units.Bulk(t.Truck.Order), w.units.Bulk(t.ConcreteToBuy)+" in the holes"+t.WithWaste())
	}
	if t.GravelLoose > 0 {
		add("Gravel", w.units.Bulk(t.GravelLoose), fmt.Sprintf("%s, or %d × %s", w.units.Weight(t.GravelMass), t.GravelBags.Count, t.GravelBags.Name))
	}
	if t.StoneLoose > 0 {
		add("Stone and rocks", w.units.Bulk(t.StoneLoose), w.units.Weight(t.StoneMass))
	}
	add("Soil to carry away", w.units.Bulk(t.Spoil), "loose")
	return out
}
