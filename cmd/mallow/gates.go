package main

import (
	"strings"

	"mallow/core/plan"
	"mallow/core/words"
)

// printGates prints a run's gates: the three post distances, what is ordered,
// how each leaf clears the ground, and how it is hung.
func printGates(t *table, p plan.Plan, r plan.Run) {
	u := p.Units
	for _, g := range r.Gates {
		name := g.Name
		if name == "" {
			name = g.ID
		}
		t.row("\n%s, between %s and %s", name, g.First, g.Second)
		t.row("  Inside\t%s\t%s\t%s\toutside\t%s\tclear\t%s\tdiagonals\t%s", u.Short(g.Opening), strings.ToLower(words.In(u.System, "report.head-centres")), u.Short(g.Centre), u.Short(g.Outside), u.Short(g.Clear), u.Short(g.Checks[2].Length))
		for _, l := range g.Leaves {
			for _, s := range l.Sides {
				t.row("  Leaf on %s, swung %s\tleast gap %s at %.0f°\twanted %s\tpull on the hinges %s", l.Post, s.Side, u.Short(s.Gap), s.Angle, u.Short(s.Wanted), u.Force(l.Pull))
			}
		}
		for _, list := range []struct {
			name  string
			steps []plan.GateStep
		}{{"To order", g.Order}, {"Hang it", g.Steps}, {"After a week", g.After}} {
			t.row("  %s", list.name)
			for i, s := range list.steps {
				t.row("    %d. %s", i+1, s.Says.Print(u))
			}
		}
	}
}
