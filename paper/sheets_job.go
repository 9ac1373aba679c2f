package paper

import (
	"slices"
	"strings"
	"time"

	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/words"
)

// loadAndChecks is the crew's first sheet: what goes on the truck, what must be
// settled before anything is dug, and what is still open in the plan.
func (w writer) loadAndChecks(string) []Sheet {
	s := Sheet{}
	s.Blocks = append(s.Blocks, w.load()...)
	var checks, open []string
	for _, c := range w.plan.Before.Checks {
		item := w.words("paper.check", words.V{"name": c.Name, "says": w.say(c.Says)})
		if c.Done {
			item = w.words("paper.check-done", words.V{"name": c.Name, "says": w.say(c.Says)})
		}
		checks = append(checks, item)
	}
	s.Blocks = append(s.Blocks, Heading(words.Plain("paper.before-digging")), Halved{List{Items: checks, Tick: true}})
	for _, f := range w.plan.Findings {
		if f.Severity == "cannot" || f.Severity == "missing" || f.Severity == "check" {
			open = append(open, w.say(f.Says))
		}
	}
	if len(open) > 0 {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.still-open")), Halved{List{Items: slices.Compact(open), Tick: true}})
	}
	return []Sheet{w.warned(s, "walk", "space", "grade")}
}

// warned ends a sheet with the cautions of some stages: each stands once in a
// set, on the sheet of the work that it is about.
func (w writer) warned(s Sheet, stages ...string) Sheet {
	if !s.known() {
		return s
	}
	var items []string
	for _, stage := range stages {
		for _, c := range w.plan.Cautions {
			if string(c.Stage) == stage {
				items = append(items, w.say(c.Says))
			}
		}
	}
	if len(items) > 0 {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.cautions")), Halved{List{Items: items}})
	}
	return s
}

// mostBeside is how many runs have a column of their own in the load.
const mostBeside = 4

// load is what the truck must carry: for the job, and beside it each run's part
// of it; with more runs than have room, one table each.
func (w writer) load() []Block {
	rows := func(items []bill.Item) []bill.Row {
		return bill.Rows(slices.DeleteFunc(slices.Clone(items), func(i bill.Item) bool { return i.Kind == bill.Labour || i.Kind.Small() }))
	}
	gates := report.GatesOf(w.plan)
	beside := len(w.plan.Runs) > 1 && len(w.plan.Runs) <= mostBeside
	table := func(items []bill.Item) Table {
		t := Table{Head: []string{words.Plain("report.head-what"), words.Plain("report.head-how_many")}, Tick: true, Bold: 1}
		var of []map[string]string
		if beside {
			for i := range w.plan.Runs {
				t.Head = append(t.Head, w.name(i))
				its := map[string]string{}
				for _, r := range rows(w.plan.Runs[i].Items) {
					its[r.Item.ID+"/"+r.By] = w.say(r.Many)
				}
				of = append(of, its)
			}
		}
		t.Head = append(t.Head, words.Plain("report.head-of_what"))
		for _, r := range rows(items) {
			what := w.say(r.Of)
			if r.Or { // under the usual way to buy it
				last := t.Rows[len(t.Rows)-1]
				last[len(last)-1] = w.words("paper.or-bought", words.V{"what": last[len(last)-1], "or": r.Buy.What, "many": w.say(r.Many), "of": what})
				continue
			}
			row := []string{r.Buy.What, w.say(r.Many)}
			for _, its := range of {
				row = append(row, its[r.Item.ID+"/"+r.By])
			}
			if names := gates(r); names != "" {
				what = w.words("paper.for-gate", words.V{"what": what, "gate": names})
			}
			t.Rows = append(t.Rows, append(row, what))
		}
		return t
	}
	out := []Block{table(w.plan.Items)}
	out = append(out, w.small(w.plan.Items)...)
	if len(w.plan.Runs) > mostBeside {
		for i, r := range w.plan.Runs {
			out = append(append(out, Heading(w.name(i)), table(r.Items)), w.small(r.Items)...)
		}
	}
	if len(w.plan.Runs) > 1 {
		out = append(out, Para{Words: words.Plain("paper.how-the-load-is-counted")})
	}
	return out
}

// small are the hardware, fixings and finish of a load, in columns side by side.
func (w writer) small(items []bill.Item) []Block {
	t := Table{Head: []string{words.Plain("paper.small-parts"), words.Plain("report.head-how_many")}, Tick: true, Bold: 1}
	for _, r := range bill.Rows(items) {
		if r.Item.Kind.Small() && !r.Or {
			t.Rows = append(t.Rows, []string{r.Buy.What, w.say(r.Many)})
		}
	}
	if len(t.Rows) == 0 {
		return nil
	}
	return []Block{Beside{t}}
}

// yard is the load for whoever fetches it: no cautions, no findings, and what
// is ordered for the gates.
func (w writer) yard(string) []Sheet {
	s := Sheet{Alone: true, Outward: true}
	if at := w.job.Site.Address; at != "" {
		s.Blocks = append(s.Blocks, Para{Words: w.words("paper.deliver-to", words.V{"address": at}), Bold: true})
	}
	s.Blocks = append(s.Blocks, w.load()...)
	var order []string
	for i, r := range w.plan.Runs {
		for _, g := range r.Gates {
			for _, step := range g.Order {
				order = append(order, w.words("paper.check", words.V{"name": gateName(g) + ", " + w.name(i), "says": w.say(step.Says)}))
			}
		}
	}
	if len(order) > 0 {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.for-the-gates")), Halved{List{Items: order, Tick: true}})
	}
	return []Sheet{s}
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

// day is a date as it is read; as it was entered where it is none.
func day(date string) string {
	d, err := time.Parse(time.DateOnly, date)
	if err != nil {
		return date
	}
	return d.Format("2 January 2006")
}

// days is when the work is done, as far as that was said.
func (w writer) days(o job.Offer) string {
	switch {
	case o.Start != "" && o.End != "":
		return w.words("paper.from-to", words.V{"start": day(o.Start), "end": day(o.End)})
	case o.Start != "":
		return w.words("paper.from-day", words.V{"start": day(o.Start)})
	case o.End != "":
		return w.words("paper.by-day", words.V{"end": day(o.End)})
	}
	return words.Plain("paper.day-not-set")
}

// entered are the lines of a text that somebody typed.
func entered(text string) []string {
	var out []string
	for line := range strings.SplitSeq(text, "\n") {
		if line = strings.TrimSpace(line); line != "" {
			out = append(out, line)
		}
	}
	return out
}
