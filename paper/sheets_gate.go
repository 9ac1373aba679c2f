package paper

import (
	"strings"

	"mallow/core/plan"
	"mallow/core/scene"
	"mallow/core/words"
)

// gates are the cards of the gates, each a sheet that is numbered through the
// job.
func (w writer) gates(run string) []Sheet {
	var out []Sheet
	number := 0
	for i, r := range w.plan.Runs {
		for _, g := range r.Gates {
			number++
			if run != "" && r.ID != run || len(r.Posts) == 0 {
				continue
			}
			out = append(out, Sheet{Of: gateName(g) + ", " + w.name(i), At: Place{Run: r.ID, Gate: g.ID, Number: number}, Blocks: w.gate(r, g)})
		}
	}
	if n := len(out); n > 0 { // once, under the last
		last := &out[n-1]
		after := map[string]bool{}
		var items []string
		for _, r := range w.plan.Runs {
			for _, g := range r.Gates {
				for _, step := range g.After {
					if said := w.say(step.Says); (run == "" || r.ID == run) && !after[wayOf([]string{said})] {
						after[wayOf([]string{said})] = true
						items = append(items, said)
					}
				}
			}
		}
		if len(items) > 0 {
			last.Blocks = append(last.Blocks, Heading(words.Plain("paper.after-a-week")), Halved{List{Items: items, Tick: true}})
		}
		out[n-1] = w.warned(*last, "gates")
	}
	return out
}

func (w writer) gate(r plan.Run, g plan.Gate) []Block {
	picture := Grid{Plan: w.plan, Across: 1, Height: 36, Cells: []Cell{{Title: words.Plain("paper.hanging"), View: scene.View{Of: scene.OfFront, Run: r.ID, Gate: g.ID, Hang: true}}}}
	if len(g.Leaves) == 0 {
		picture.Cells[0] = Cell{Title: words.Plain("paper.opening"), View: scene.View{Of: scene.OfFront, Run: r.ID, Gate: g.ID}}
	}
	t := Table{Head: []string{words.Plain("paper.measure"), words.Plain("paper.length")}, Bold: 1, Tick: true}
	for _, c := range g.Checks {
		t.Rows = append(t.Rows, []string{c.Name, w.units.Short(c.Length)})
	}
	t.Rows = append(t.Rows, []string{words.Plain("paper.clear-opening"), w.units.Short(g.Clear)}, []string{words.Plain("paper.gap-under-closed"), w.units.Short(g.Bottom - g.Highest)})
	var marks []Block
	if len(g.Leaves) > 0 {
		m := Table{Head: []string{words.Plain("paper.mark"), words.Plain("paper.post"), words.Plain("paper.above-ground"), words.Plain("paper.from-the-mark"), words.Plain("paper.on-the-leaf")}, Size: 9, Bold: 2, Tick: true}
		for _, l := range g.Leaves {
			for _, h := range l.Hinges {
				m.Rows = append(m.Rows, w.hangRow(h))
			}
		}
		if g.Latch != nil {
			m.Rows = append(m.Rows, w.hangRow(*g.Latch))
		}
		marks = append(marks, m)
	}
	list := func(title string, steps []plan.GateStep, numbered bool) []Block {
		if len(steps) == 0 {
			return nil
		}
		var items []string
		for _, step := range steps {
			items = append(items, w.say(step.Says))
		}
		return []Block{Heading(title), List{Items: items, Numbered: numbered, Tick: !numbered}}
	}
	out := []Block{Columns{{picture}, {t}}}
	var order []string
	for _, step := range g.Order {
		order = append(order, strings.TrimSuffix(w.say(step.Says), "."))
	}
	switch words := (Para{Words: w.words("paper.order-for-it", words.V{"list": strings.Join(order, "; ")})}); {
	case len(order) > 0 && len(marks) > 0:
		out = append(out, Uneven{Columns{marks, {words}}, []float64{1.15, 1}})
	case len(order) > 0:
		out = append(out, words)
	default:
		out = append(out, marks...)
	}
	return append(out, list(words.Plain("paper.hang-it"), g.Steps, true)...)
}

func (w writer) hangRow(h plan.HangMark) []string {
	from := w.say(words.Say("report.arrow-down", words.V{"rise": h.FromMark.Abs()}))
	if h.FromMark < 0 {
		from = w.say(words.Say("report.arrow-up", words.V{"rise": h.FromMark.Abs()}))
	}
	name := h.Name
	if h.Pin != "" {
		name = w.words("paper.with-pin", words.V{"name": name, "pin": h.Pin})
	}
	return []string{name, h.Post, w.units.Short(h.Above), from, w.say(words.Say("report.arrow-up", words.V{"rise": h.OnLeaf}))}
}
