package paper

import (
	"mallow/core/plan"
	"mallow/core/scene"
)

// gates are the cards of a run's gates, each on a sheet of its own.
func (w writer) gates(i int) []Sheet {
	var out []Sheet
	r := w.plan.Runs[i]
	for _, g := range r.Gates {
		s := Sheet{ID: "gate/" + r.ID + "/" + g.ID, Title: "Gate card", Run: gateName(g) + ", " + w.name(i)}
		s.Blocks = append(s.Blocks, Grid{Plan: w.plan, Across: 2, Height: 76, Cells: []Cell{
			{Title: "Opening", View: scene.View{Of: scene.OfFront, Run: r.ID, Gate: g.ID}},
			{Title: "Hanging", View: scene.View{Of: scene.OfFront, Run: r.ID, Gate: g.ID, Hang: true}},
		}})
		t := Table{Head: []string{"Measure", "Length", "How"}, Bold: 1, Tick: true}
		for _, c := range g.Checks {
			t.Rows = append(t.Rows, []string{c.Name, w.units.Short(c.Length), w.say(c.Says)})
		}
		clear := "Past the open leaves."
		if len(g.Leaves) == 0 {
			clear = "Between the posts' faces."
		}
		t.Rows = append(t.Rows, []string{"Clear way", w.units.Short(g.Clear), clear}, []string{"Gap under", w.units.Short(g.Bottom - g.Highest), "Closed, over the highest ground across the opening."})
		s.Blocks = append(s.Blocks, t)
		if len(g.Leaves) > 0 {
			m := Table{Head: []string{"Mark", "Post", "Above ground", "From the reference mark", "On the leaf"}, Bold: 2, Tick: true}
			for _, l := range g.Leaves {
				for _, h := range l.Hinges {
					m.Rows = append(m.Rows, w.hangRow(h))
				}
			}
			if g.Latch != nil {
				m.Rows = append(m.Rows, w.hangRow(*g.Latch))
			}
			s.Blocks = append(s.Blocks, m)
		}
		for _, list := range []struct {
			name     string
			steps    []plan.GateStep
			numbered bool
		}{{"To order", g.Order, false}, {"Hang it", g.Steps, true}, {"After a week", g.After, false}} {
			var items []string
			for _, step := range list.steps {
				items = append(items, w.say(step.Says))
			}
			s.Blocks = append(s.Blocks, Heading(list.name), List{Items: items, Numbered: list.numbered, Tick: !list.numbered})
		}
		out = append(out, w.warned(s, "Cautions", "gates"))
	}
	return out
}

func (w writer) hangRow(h plan.HangMark) []string {
	from := w.units.Short(h.FromMark.Abs()) + " down"
	if h.FromMark < 0 {
		from = w.units.Short(h.FromMark.Abs()) + " up"
	}
	name := h.Name
	if h.Pin != "" {
		name += ", pin " + h.Pin
	}
	return []string{name, h.Post, w.units.Short(h.Above), from, w.units.Short(h.OnLeaf) + " up"}
}
