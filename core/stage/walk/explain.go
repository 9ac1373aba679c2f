package walk

import (
	"math"
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/survey"
)

// explain says why a corner turns as it does, and how the line closes.
func (w *Walk) Explain(f stage.Figure) (reason.Why, bool) {
	switch f.Of {
	case "corner":
		i, err := strconv.Atoi(f.ID)
		if err == nil && i >= 0 && i < len(w.Out.Corners) && w.Out.Corners[i].Square != nil {
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
	why := reason.Why{Figure: "Misclosure", Sentence: reason.Say("The measures end ", out.Miss, " from where they began, round ", reason.Tape(out.Perimeter))}
	if out.Ratio != nil {
		why.Sentence = append(why.Sentence, reason.Say(": 1 in ", math.Round(*out.Ratio))...)
	}
	why.Sentence = append(why.Sentence, reason.Say(".")...)
	why.Steps = []reason.Step{
		{Rule: "Compass rule", Governs: w.Line.Balance, Source: bowditch,
			Says: reason.Say("Each corner is moved back by the part of the misclosure that its distance along the line is of the whole. Posts keep to the taped lengths; the map and the turns are spread.")},
		{Rule: "How good is good", Source: stage.Practice, Says: reason.Say("Careful taping on rough ground comes to about 1 in 500; worse than that, look for a slip before spreading it.")},
	}
	return why
}

var bowditch = reason.Source{Kind: reason.Published, Name: "compass (Bowditch) rule: corrections in proportion to the distance along the line"}

func (w *Walk) whyCorner(c *Corner, turn survey.Turn, by *job.Corner) reason.Why {
	why := reason.Why{Figure: "Corner"}
	side := string(c.Side)
	if side == "" {
		side = "neither way"
	}
	why.Sentence = reason.Say("Turns ", side, " by ", math.Abs(*c.Turn), "° off the straight-on line: ", *c.Interior, "° between the two runs.")
	step := reason.Step{Rule: "From closing", Governs: true, Source: stage.Geometry,
		Says: reason.Say("Not measured: it follows from the line coming back to its start.")}
	if turn.Measured && by != nil {
		step = cornerStep(*by, w.Line, c)
	}
	why.Steps = []reason.Step{step}
	if w.Line.Balance && w.traverse.Closing != nil {
		why.Steps = append(why.Steps, reason.Step{Rule: "Compass rule", Source: bowditch,
			Says: reason.Say("As measured ", math.Abs(turn.Degrees), "°; spreading the misclosure moves both runs a little.")})
	}
	return why
}

func cornerStep(by job.Corner, line job.Line, c *Corner) reason.Step {
	switch by.By {
	case job.ByInterior:
		return reason.Step{Rule: "Angle between the runs", Governs: true, Source: stage.Yours, Says: reason.Say("Measured ", by.Angle, "°, turning ", by.Side, ".")}
	case job.ByOffset:
		return reason.Step{Rule: "Offset", Governs: true, Source: stage.Geometry,
			Says: reason.Say(by.Along, " along the old line, then ", by.Off, " square off to the ", by.Side, ".")}
	case job.ByDiagonal:
		says := reason.Say("Diagonal of ", reason.Tape(by.Diagonal), " between ")
		leg := func(l *length.Length, whole string) reason.Text {
			if l == nil {
				return reason.Say(whole)
			}
			return reason.Say(*l)
		}
		says = append(says, leg(by.Back, "the whole run before")...)
		says = append(says, reason.Say(" and ")...)
		says = append(says, leg(by.Forth, "the whole run after")...)
		return reason.Step{Rule: "Measured diagonal", Governs: true, Source: stage.Geometry, Says: append(says, reason.Say("; three sides fix the triangle, turning ", by.Side, ".")...)}
	}
	return reason.Step{Rule: "Turned angle", Governs: true, Source: stage.Yours, Says: reason.Say("Measured ", by.Angle, "° off the straight-on line, to the ", by.Side, ".")}
}
