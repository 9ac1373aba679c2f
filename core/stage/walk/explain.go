package walk

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/survey"
	"mallow/core/words"
)

// explain says why a corner turns as it does, and how the line closes.
func (w *Walk) Explain(f stage.Figure) (reason.Why, bool) {
	switch f.Of {
	case "corner":
		i := slices.IndexFunc(w.Out.Corners, func(c Corner) bool { return c.After == f.ID })
		if i >= 0 && w.Out.Corners[i].Square != nil {
			return w.whyCorner(&w.Out.Corners[i], w.traverse.Turns[i], w.Line.Runs[i].Corner), true
		}
	case "closing":
		if w.Out.Closing != nil {
			return w.whyClosing(w.Out.Closing), true
		}
	}
	return reason.Why{}, false
}

func (w *Walk) whyClosing(out *Closing) reason.Why {
	why := reason.Why{Figure: words.Plain("walk.misclosure-figure"), Sentence: words.Say("walk.the-measures-end-from-where", words.V{"miss": out.Miss, "perimeter": out.Perimeter})}
	if out.Ratio != nil {
		why.Sentence = append(why.Sentence, words.Say("walk.1-in", words.V{"ratio": math.Round(*out.Ratio)})...)
	}
	why.Sentence = append(why.Sentence, words.Say("walk.full-stop")...)
	why.Steps = []reason.Step{
		{Rule: words.Plain("walk.compass-rule"), Governs: w.Line.Balance, Source: bowditch,
			Says: words.Say("walk.each-corner-is-moved-back")},
		{Rule: words.Plain("walk.how-good-is-good"), Source: stage.Practice, Says: words.Say("walk.careful-taping-on-rough-ground")},
	}
	return why
}

var bowditch = reason.Source{Kind: reason.Published, Name: words.Plain("walk.compass-bowditch-rule-corrections-in")}

func (w *Walk) whyCorner(c *Corner, turn survey.Turn, by *job.Corner) reason.Why {
	why := reason.Why{Figure: words.Plain("walk.corner")}
	side := string(c.Side)
	if side == "" {
		side = words.Plain("walk.neither-way")
	}
	why.Sentence = words.Say("walk.turns-by-off-the-straight", words.V{"side": side, "turn": math.Abs(*c.Turn), "interior": *c.Interior})
	step := reason.Step{Rule: words.Plain("walk.from-closing"), Governs: true, Source: stage.Geometry,
		Says: words.Say("walk.not-measured-it-follows-from")}
	if turn.Measured && by != nil {
		step = cornerStep(*by, w.Line, c)
	}
	why.Steps = []reason.Step{step}
	if w.Line.Balance && w.traverse.Closing != nil {
		why.Steps = append(why.Steps, reason.Step{Rule: words.Plain("walk.compass-rule"), Source: bowditch,
			Says: words.Say("walk.as-measured-spreading-the-misclosure", words.V{"degrees": math.Abs(turn.Degrees)})})
	}
	return why
}

func cornerStep(by job.Corner, line job.Line, c *Corner) reason.Step {
	switch by.By {
	case job.ByInterior:
		return reason.Step{Rule: words.Plain("walk.angle-between-the-runs"), Governs: true, Source: stage.Yours, Says: words.Say("walk.measured-turning", words.V{"angle": by.Angle, "side": by.Side})}
	case job.ByOffset:
		return reason.Step{Rule: words.Plain("walk.offset"), Governs: true, Source: stage.Geometry,
			Says: words.Say("walk.along-the-old-line-then", words.V{"along": by.Along, "off": by.Off, "side": by.Side})}
	case job.ByDiagonal:
		says := words.Say("walk.diagonal-of-between", words.V{"diagonal": by.Diagonal})
		leg := func(l *length.Length, whole string) reason.Text {
			if l == nil {
				return reason.Say(whole)
			}
			return reason.Say(*l)
		}
		says = append(says, leg(by.Back, words.Plain("walk.the-whole-run-before"))...)
		says = append(says, words.Say("walk.and")...)
		says = append(says, leg(by.Forth, words.Plain("walk.the-whole-run-after"))...)
		return reason.Step{Rule: words.Plain("walk.measured-diagonal"), Governs: true, Source: stage.Geometry, Says: append(says, words.Say("walk.three-sides-fix-the-triangle", words.V{"side": by.Side})...)}
	}
	return reason.Step{Rule: words.Plain("walk.turned-angle"), Governs: true, Source: stage.Yours, Says: words.Say("walk.measured-off-the-straight-on", words.V{"angle": by.Angle, "side": by.Side})}
}
