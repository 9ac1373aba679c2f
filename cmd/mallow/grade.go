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
	t.row("\nPost\tFaces, before\tafter\tMark\tStep\tLaser\tLevel string\tTight string\tBy eye")
	for i, post := range r.Posts {
		w := top.Posts[i]
		t.row("%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s", post.Label, u.Short(post.AboveBefore), u.Short(post.AboveAfter), u.Short(post.Mark), u.Short(post.Step),
			u.Short(w.Laser), u.Short(w.Drop), u.Short(w.String), u.Short(w.Sight))
	}
	t.row("\nBay\tLook\tLeans\tAngle\tRail\tOn the ground\tBoards under it")
	for _, b := range r.Bays {
		boards := "-"
		if b.Infill != nil {
			boards = u.Short(b.Infill.Start) + " to " + u.Short(b.Infill.End) + " in " + u.Short(b.Infill.Board)
		}
		t.row("%s\t%s\t%s\t%.1f°\t%s\t%s\t%s", b.Label, b.Look, u.Short(b.Lean), b.Angle, u.Short(b.Long), u.Short(b.OnGround), boards)
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
