package plan

import (
	"fmt"
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stringline"
	"mallow/core/survey"
)

func (w *liner) corners() {
	n := len(w.runs)
	last := n
	if w.line.Closed {
		last = n - 1
	}
	for i := 0; i <= last; i++ {
		c := Corner{Place: w.traverse.Places[i]}
		before, after := i-1, i
		if w.line.Closed {
			before = (i + n - 1) % n
		}
		if before >= 0 {
			c.Before = w.runs[before].run.ID
			c.Post = lastPost(w.runs[before])
		}
		if after < n {
			c.After = w.runs[after].run.ID
			c.Path = fmt.Sprintf("%s/runs/%d/corner", w.path, after)
			if c.Post == "" && len(w.runs[after].out.Posts) > 0 {
				c.Post = w.runs[after].out.Posts[0].ID
			}
		}
		if before >= 0 && after < n {
			w.turn(&c, i, w.runs[before], w.runs[after])
		}
		w.out.Corners = append(w.out.Corners, c)
	}
}

func lastPost(m *maker) string {
	if n := len(m.out.Posts); n > 0 {
		return m.out.Posts[n-1].ID
	}
	return ""
}

// turn fills in how the line bends at a corner, and how to set that by tape.
func (w *liner) turn(c *Corner, i int, before, after *maker) {
	turn := w.traverse.Turns[i]
	c.Measured = turn.Measured
	if !turn.Measured && !turn.Found && (i > 0 || w.traverse.Missing > 0) {
		return
	}
	if !before.laid() || !after.laid() {
		return
	}
	// As drawn: the spreading of a misclosure turns corners a little.
	degrees := normalTurn(before.out.Bearing, after.out.Bearing)
	open := i == 0 && w.traverse.Closing == nil // the last run does not come back yet
	if open {
		degrees = turn.Degrees
	}
	interior := 180 - math.Abs(degrees)
	c.Turn, c.Interior = &degrees, &interior
	switch {
	case degrees >= 0.005:
		c.Side = job.Left
	case degrees <= -0.005:
		c.Side = job.Right
	}
	if open {
		return
	}
	c.Square = w.square(interior, before.out.Length, after.out.Length)
	c.Square.A = before.out.To.Towards(before.out.From, float64(c.Square.LegA/before.out.Length))
	c.Square.B = after.out.From.Towards(after.out.To, float64(c.Square.LegB/after.out.Length))
	ref := w.few.Put([2]any{"corner", i}, func() reason.Why { return w.whyCorner(c, turn, after.given.Corner) })
	c.Why = &ref
}

// tapeReach is the longest side that is taped at a corner by two people: 30 m,
// 100 ft. The diagonal is a side too.
const tapeReach = 100 * length.Foot

// square picks legs that fit on both runs, in whole units, the longest a tape
// reaches, and gives their diagonal.
func (w *liner) square(interior float64, before, after length.Length) *Squaring {
	unit := stringline.Unit(w.job.Units.System)
	// Two legs this long have a diagonal that the tape just reaches.
	reach := min(tapeReach, tapeReach/length.Length(2*math.Sin(interior*math.Pi/360)))
	leg := func(run length.Length) length.Length {
		l := min(run, reach)
		if l < unit {
			return l
		}
		return unit * length.Length(math.Floor(float64((l+length.Tolerance)/unit)))
	}
	s := &Squaring{LegA: leg(before), LegB: leg(after), Whole: survey.Diagonal(before, after, interior)}
	sin, cos := math.Sincos(interior * math.Pi / 180)
	s.Along, s.Off = -s.LegB*length.Length(cos), s.LegB*length.Length(sin)
	s.Diagonal = survey.Diagonal(s.LegA, s.LegB, interior)
	right := survey.Diagonal(s.LegA, s.LegB, 90)
	if s.Right = (right - s.Diagonal).Abs() <= w.job.Units.SmallestMark/2; s.Right {
		s.Diagonal = right
		if three, ok := stringline.Largest345(min(before, tapeReach), min(after, tapeReach), unit); ok {
			s.Three = &three
		}
	}
	return s
}

func (w *liner) whyCorner(c *Corner, turn survey.Turn, by *job.Corner) reason.Why {
	why := reason.Why{Figure: "Corner"}
	side := string(c.Side)
	if side == "" {
		side = "neither way"
	}
	why.Sentence = reason.Say("Turns ", side, " by ", math.Abs(*c.Turn), "° off the straight-on line: ", *c.Interior, "° between the two runs.")
	step := reason.Step{Rule: "From closing", Governs: true, Source: geometry,
		Says: reason.Say("Not measured: it follows from the line coming back to its start.")}
	if turn.Measured && by != nil {
		step = cornerStep(*by, w.line, c)
	}
	why.Steps = []reason.Step{step}
	if w.line.Balance && w.traverse.Closing != nil {
		why.Steps = append(why.Steps, reason.Step{Rule: "Compass rule", Source: bowditch,
			Says: reason.Say("As measured ", math.Abs(turn.Degrees), "°; spreading the misclosure moves both runs a little.")})
	}
	return why
}

func cornerStep(by job.Corner, line job.Line, c *Corner) reason.Step {
	switch by.By {
	case job.ByInterior:
		return reason.Step{Rule: "Angle between the runs", Governs: true, Source: yours, Says: reason.Say("Measured ", by.Angle, "°, turning ", by.Side, ".")}
	case job.ByOffset:
		return reason.Step{Rule: "Offset", Governs: true, Source: geometry,
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
		return reason.Step{Rule: "Measured diagonal", Governs: true, Source: geometry, Says: append(says, reason.Say("; three sides fix the triangle, turning ", by.Side, ".")...)}
	}
	return reason.Step{Rule: "Turned angle", Governs: true, Source: yours, Says: reason.Say("Measured ", by.Angle, "° off the straight-on line, to the ", by.Side, ".")}
}
