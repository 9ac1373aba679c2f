package main

import "mallow/core/plan"

// printTopLine prints how a run's tops are brought to height, and the story
// stick that carries every mark.
func printTopLine(t *table, p plan.Plan, r plan.Run) {
	u, top := p.Units, r.TopLine
	if top == nil {
		return
	}
	t.row("\nTops, set by %s", top.By)
	for i, s := range top.Steps {
		t.row("  %d. %s", i+1, s.Print(u))
	}
	t.row("\nStory stick, from the reference mark %s below the top", u.Short(top.Mark))
	for _, m := range top.Stick {
		if m.Up == m.To {
			t.row("  %s\t%s", m.Name, u.Short(m.Up))
		} else {
			t.row("  %s\t%s\tto %s", m.Name, u.Short(m.Up), u.Short(m.To))
		}
	}
}
