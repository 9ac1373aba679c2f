package main

import (
	"fmt"
	"strings"

	"mallow/core/finding"
	"mallow/core/plan"
)

// printSpacing prints how a run is set out: sticks, pins, and what is cut.
func printSpacing(t *table, p plan.Plan, r plan.Run) {
	u, out := p.Units, r.SetOut
	if out == nil {
		return
	}
	t.row("\nSet out, every mark from %s", r.Posts[0].Label)
	for _, s := range out.Sticks {
		t.row("  Spacer stick\t%s\tfor %d %s, the first %s", u.Short(s.Length), s.Bays, plural(s.Bays, "bay"), s.First)
	}
	for i, pin := range out.Pins {
		t.row("  Pin %d\t%s\t%s along the ground; the tape is pulled on from it", i+1, u.Tape(pin.At), u.Tape(pin.Slope))
	}
	for _, b := range r.Bays {
		if b.PieceCut {
			t.row("  Cut for %s\t%s", b.Label, u.Short(b.Piece))
		}
	}
	for _, row := range r.Rails {
		pieces := make([]string, len(row.Pieces))
		for i, piece := range row.Pieces {
			if pieces[i] = fmt.Sprintf("%s-%s %s", piece.From, piece.To, u.Short(piece.Length)); piece.Cut {
				pieces[i] += " cut"
			}
		}
		t.row("  Rail %d\t%s", row.Row, strings.Join(pieces, ", "))
	}
}

// costs prints what a way out changes in the load.
func costs(c *finding.Cost) string {
	if c == nil {
		return ""
	}
	var out []string
	for _, part := range []struct {
		n    int
		what string
	}{{c.Posts, "post"}, {c.CutPieces, "cut piece"}, {c.OddBays, "odd bay"}, {c.Bags, "bag"}} {
		if part.n != 0 {
			out = append(out, fmt.Sprintf("%+d %s", part.n, plural(max(part.n, -part.n), part.what)))
		}
	}
	if len(out) == 0 {
		return " (the load stays the same)"
	}
	return " (" + strings.Join(out, ", ") + ")"
}

func plural(n int, one string) string {
	if n == 1 {
		return one
	}
	return one + "s"
}
