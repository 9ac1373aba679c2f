package plan

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

var bowditch = reason.Source{Kind: reason.Published, Name: "compass (Bowditch) rule: corrections in proportion to the distance along the line"}

func (w *liner) closing() {
	c := w.traverse.Closing
	if c == nil {
		return
	}
	out := &Closing{Perimeter: c.Perimeter, X: c.X, Y: c.Y, Miss: c.Miss, AngleSum: c.AngleSum, Spread: w.line.Balance}
	if r := c.Ratio(); !math.IsInf(r, 1) {
		out.Ratio = &r
	}
	for r, m := range w.runs {
		a, b := w.traverse.Raw[r], w.traverse.Raw[r+1]
		p, q := c.Balanced[r], c.Balanced[r+1]
		out.Legs = append(out.Legs, Balance{
			Run: m.run.ID, Taped: a.To(b), Balanced: p.To(q), Bearing: bearing(a, b), BalancedBearing: bearing(p, q), EndBefore: b, EndAfter: q,
		})
	}
	out.Why = w.few.Put("closing", func() reason.Why {
		why := reason.Why{Figure: "Misclosure", Sentence: reason.Say("The measures end ", c.Miss, " from where they began, round ", reason.Tape(c.Perimeter))}
		if out.Ratio != nil {
			why.Sentence = append(why.Sentence, reason.Say(": 1 in ", math.Round(*out.Ratio))...)
		}
		why.Sentence = append(why.Sentence, reason.Say(".")...)
		why.Steps = []reason.Step{
			{Rule: "Compass rule", Governs: w.line.Balance, Source: bowditch,
				Says: reason.Say("Each corner is moved back by the part of the misclosure that its distance along the line is of the whole. Posts keep to the taped lengths; the map and the turns are spread.")},
			{Rule: "How good is good", Source: practice, Says: reason.Say("Careful taping on rough ground comes to about 1 in 500; worse than that, look for a slip before spreading it.")},
		}
		return why
	})
	w.out.Closing = out
}

func (w *liner) books() {
	k := 0
	for _, b := range w.line.Books {
		if b.Kind != job.Rod {
			continue
		}
		l := w.survey.Rods[k]
		k++
		setups := l.Setups
		if setups == nil {
			setups = []length.Length{}
		}
		w.out.Books = append(w.out.Books, BookCheck{Book: b.ID, Heights: l.Heights, Setups: setups, SumBack: l.SumBack, SumFore: l.SumFore,
			Closed: l.Closed, Error: l.Error, Allowance: l.Allow, Circuit: l.Circuit})
	}
	if w.survey.Loop != nil {
		w.out.Loop = &HeightLoop{w.survey.Loop.Error, w.survey.Loop.Allowance}
	}
}
