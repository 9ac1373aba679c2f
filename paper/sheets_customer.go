package paper

import (
	"cmp"
	"slices"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/scene"
	"mallow/core/words"
)

// customer is what the customer gets: which fence will stand where, its gates,
// what is in the offer and what is not, when, and what it rests on. Nothing of
// posts' cuts, hours, loads or findings.
func (w writer) customer(string) []Sheet {
	s := Sheet{Alone: true, Outward: true}
	if who := w.job.Site.Customer; who != "" {
		s.Blocks = append(s.Blocks, Para{Words: w.words("paper.for-customer", words.V{"who": who}), Bold: true})
	}
	if at := w.job.Site.Address; at != "" {
		s.Blocks = append(s.Blocks, Para{Words: w.words("paper.at-address", words.V{"address": at})})
	}
	s.Blocks = append(append(append(s.Blocks, w.fences()), w.curbsSold()...), w.gatesSold())
	s.Blocks = append(s.Blocks, w.seen()...)
	o := w.job.Offer
	in, out := entered(o.Also), entered(o.Not)
	for _, item := range o.Scopes() {
		switch item.Scope {
		case job.Included:
			in = append(in, item.Name())
		case job.NotIncluded:
			out = append(out, item.Name())
		}
	}
	in = append([]string{words.Plain("paper.posts-and-fence")}, in...)
	if len(out) == 0 {
		out = []string{words.Plain("paper.nothing-else")}
	}
	s.Blocks = append(s.Blocks,
		Columns{{Heading(words.Plain("paper.included")), List{Items: in}}, {Heading(words.Plain("paper.not-included")), List{Items: out}}},
		Heading(words.Plain("paper.when")), Para{Words: w.days(o)},
		Heading(words.Plain("paper.good-to-know")), Halved{List{Items: w.rests()}})
	return []Sheet{s}
}

// mostSeen is how many runs are drawn from the side.
const mostSeen = 3

// seen is the fence as it will stand: on the map, and its longest runs from the
// side.
func (w writer) seen() []Block {
	var runs []int
	for i := range w.plan.Runs {
		if len(w.plan.Runs[i].Posts) > 0 {
			runs = append(runs, i)
		}
	}
	if len(runs) == 0 {
		return nil
	}
	slices.SortStableFunc(runs, func(a, b int) int { return cmp.Compare(w.plan.Runs[b].Length, w.plan.Runs[a].Length) })
	runs = runs[:min(mostSeen, len(runs))]
	slices.Sort(runs)
	out := []Block{Figure{Plan: w.plan, View: scene.View{Of: scene.OfMap, Run: w.plan.Runs[0].ID, Stress: scene.OnPaper}, Height: 56, Outward: true}}
	for _, i := range runs {
		r := &w.plan.Runs[i]
		out = append(out, Para{Words: w.words("paper.from-the-side", words.V{"run": w.name(i)}), Bold: true},
			Figure{Plan: w.plan, View: scene.View{Of: scene.OfElevation, Run: r.ID, Stress: scene.OnPaper, From: &r.Posts[0].Station, To: &r.Posts[len(r.Posts)-1].Station}, Height: 21, Stretch: 2, Outward: true})
	}
	return out
}

// fences is which fence stands where.
func (w writer) fences() Table {
	t := Table{Head: []string{words.Plain("report.head-run"), words.Plain("paper.fence"), words.Plain("paper.length"), words.Plain("paper.height"), words.In(w.units.System, "paper.finish"), words.Plain("paper.on-the-slope")}, Bold: 0}
	finish := false
	for i := range w.plan.Runs {
		run := w.run(i)
		fence := words.Plain("paper.own-fence")
		if kind := w.plan.Runs[i].Type; kind != "" {
			fence = kind
		}
		if run.Finish != "" {
			finish = true
		}
		length := words.Plain("paper.not-measured")
		if w.plan.Runs[i].Length > 0 {
			length = w.units.Tape(w.plan.Runs[i].Length)
		}
		t.Rows = append(t.Rows, []string{w.name(i), fence, length, w.units.Short(run.Fence.Height), run.Finish, words.Plain("paper.slope-" + string(run.Grade.Look))})
	}
	if !finish {
		for i := range t.Rows {
			t.Rows[i] = append(t.Rows[i][:4], t.Rows[i][5:]...)
		}
		t.Head = append(t.Head[:4], t.Head[5:]...)
	}
	return t
}

// curbsSold are the mowing curbs, where there are any.
func (w writer) curbsSold() []Block {
	var out []Block
	for i := range w.plan.Runs {
		if c := w.plan.Runs[i].Curb; c != nil {
			out = append(out, Para{Words: w.words("paper.curb-sold", words.V{"run": w.name(i), "width": c.Width, "depth": c.Depth, "length": c.Length})})
		}
	}
	return out
}

// gatesSold are the gates as a customer thinks of them.
func (w writer) gatesSold() Block {
	t := Table{Head: []string{words.Plain("paper.gate"), words.Plain("report.head-run"), words.Plain("paper.clear-opening"), words.Plain("paper.height"), words.Plain("paper.opens")}, Bold: 0}
	for i, r := range w.plan.Runs {
		for _, g := range r.Gates {
			t.Rows = append(t.Rows, []string{gateName(g), w.name(i), w.units.Short(g.Clear), w.units.Short(g.Leaf), w.opens(g)})
		}
	}
	if len(t.Rows) == 0 {
		return Para{Words: words.Plain("paper.no-gates")}
	}
	return t
}

func (w writer) opens(g plan.Gate) string {
	if g.Kind == job.SlideGate {
		return words.Plain("paper.slides")
	}
	return words.Plain("paper.swings-" + string(g.Swing))
}

// rests is what the customer should know that the offer rests on.
func (w writer) rests() []string {
	var out []string
	for i, r := range w.plan.Runs {
		switch {
		case w.run(i).Assumed:
			out = append(out, w.words("paper.length-guessed", words.V{"run": w.name(i)}))
		case len(r.Posts) > 0 && !r.Measured:
			out = append(out, w.words("paper.ground-not-measured", words.V{"run": w.name(i)}))
		}
	}
	for _, c := range w.plan.Before.Checks {
		if !c.Done && (c.ID == "boundary" || c.ID == "permit" || c.ID == "neighbour" || c.ID == "private") {
			out = append(out, words.In(w.units.System, "paper.open-"+c.ID))
		}
	}
	return append(out, words.In(w.units.System, "paper.level-lengths"), words.Plain("paper.services-first"))
}
