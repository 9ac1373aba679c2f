package walk

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stringline"
	"mallow/core/survey"
)

// walkLine is one fence line as it was walked: its runs on the map, their
// ground, and the corners between them.
type Walk struct {
	units    length.Units
	Line     job.Line
	Path     string
	survey   survey.Survey
	traverse survey.Traverse
	Places   []stage.MapPlace // of each run
	Lies     []stage.Lie
	Out      Line
}

// newWalk reduces what was measured along a line.
func Compute(units length.Units, line job.Line, path string) *Walk {
	w := &Walk{units: units, Line: line, Path: path}
	w.Out = Line{ID: line.ID, Name: line.Name, Path: path, Closed: line.Closed, Runs: len(line.Runs), Corners: []Corner{}, Books: []BookCheck{}}
	w.survey = survey.Reduce(line, path)
	levels := make([]length.Length, len(line.Runs))
	for r := range levels {
		levels[r] = w.survey.Runs[r].Length
	}
	w.traverse = survey.Lay(line, levels)
	w.Out.Inside = w.inside()
	w.Places, w.Lies = make([]stage.MapPlace, len(levels)), make([]stage.Lie, len(levels))
	start := length.Length(0)
	for r := range levels {
		from, to := w.traverse.Places[r], w.traverse.Places[r+1]
		w.Places[r] = stage.MapPlace{From: from, To: to, Start: start, Bearing: bearing(from, to)}
		w.Lies[r] = stage.Lie{Ground: w.survey.Runs[r], Inside: w.Out.Inside, Turned: [2]spacing.Corner{w.corner(r), w.corner(r + 1)}}
		start += levels[r]
	}
	w.Out.Length = start
	w.corners()
	w.closing()
	w.books()
	return w
}

// laid tells whether a run has a length.
func (w *Walk) laid(r int) bool { return w.Line.Runs[r].Length != nil }

// turnAt is the turn from a run to the one after it.
func (w *Walk) TurnAt(r int) survey.Turn {
	after := (r + 1) % len(w.Line.Runs)
	turn := w.traverse.Turns[after]
	if after == 0 && !turn.Measured {
		turn.Degrees = normalTurn(w.Places[r].Bearing, w.Places[0].Bearing)
	}
	return turn
}

func (w *Walk) closing() {
	c := w.traverse.Closing
	if c == nil {
		return
	}
	out := &Closing{Perimeter: c.Perimeter, X: c.X, Y: c.Y, Miss: c.Miss, AngleSum: c.AngleSum, Spread: w.Line.Balance}
	if r := c.Ratio(); !math.IsInf(r, 1) {
		out.Ratio = &r
	}
	for r, run := range w.Line.Runs {
		a, b := w.traverse.Raw[r], w.traverse.Raw[r+1]
		p, q := c.Balanced[r], c.Balanced[r+1]
		out.Legs = append(out.Legs, Balance{
			Run: run.ID, Taped: a.To(b), Balanced: p.To(q), Bearing: bearing(a, b), BalancedBearing: bearing(p, q), EndBefore: b, EndAfter: q,
		})
	}
	w.Out.Closing = out
}

func (w *Walk) books() {
	k := 0
	for _, b := range w.Line.Books {
		if b.Kind != job.Rod {
			continue
		}
		l := w.survey.Rods[k]
		k++
		setups := l.Setups
		if setups == nil {
			setups = []length.Length{}
		}
		w.Out.Books = append(w.Out.Books, BookCheck{Book: b.ID, Heights: l.Heights, Setups: setups, SumBack: l.SumBack, SumFore: l.SumFore,
			Closed: l.Closed, Error: l.Error, Allowance: l.Allow, Circuit: l.Circuit})
	}
	if w.survey.Loop != nil {
		w.Out.Loop = &HeightLoop{w.survey.Loop.Error, w.survey.Loop.Allowance}
	}
}

func (w *Walk) corners() {
	n := len(w.Line.Runs)
	last := n
	if w.Line.Closed {
		last = n - 1
	}
	for i := 0; i <= last; i++ {
		c := Corner{Place: w.traverse.Places[i]}
		before, after := i-1, i
		if w.Line.Closed {
			before = (i + n - 1) % n
		}
		if before >= 0 {
			c.Before = w.Line.Runs[before].ID
		}
		if after < n {
			c.After = w.Line.Runs[after].ID
			c.Path = job.At(w.Path, "runs", c.After, "corner")
		}
		if before >= 0 && after < n {
			w.turn(&c, i, before, after)
		}
		w.Out.Corners = append(w.Out.Corners, c)
	}
}

// turn fills in how the line bends at a corner, and how to set that by tape.
func (w *Walk) turn(c *Corner, i, before, after int) {
	turn := w.traverse.Turns[i]
	c.Measured = turn.Measured
	if !turn.Measured && !turn.Found && (i > 0 || w.traverse.Missing > 0) {
		return
	}
	if !w.laid(before) || !w.laid(after) {
		return
	}
	// As drawn: the spreading of a misclosure turns corners a little.
	degrees := normalTurn(w.Places[before].Bearing, w.Places[after].Bearing)
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
	first, second := w.survey.Runs[before].Length, w.survey.Runs[after].Length
	c.Square = w.square(interior, first, second)
	c.Square.A = w.Places[before].To.Towards(w.Places[before].From, float64(c.Square.LegA/first))
	c.Square.B = w.Places[after].From.Towards(w.Places[after].To, float64(c.Square.LegB/second))
}

// tapeReach is the longest side that is taped at a corner by two people: 30 m,
// 100 ft. The diagonal is a side too.
const TapeReach = 100 * length.Foot

// square picks legs that fit on both runs, in whole units, the longest a tape
// reaches, and gives their diagonal.
func (w *Walk) square(interior float64, before, after length.Length) *Squaring {
	unit := stringline.Unit(w.units.System)
	// Two legs this long have a diagonal that the tape just reaches.
	reach := min(TapeReach, TapeReach/length.Length(2*math.Sin(interior*math.Pi/360)))
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
	if s.Right = (right - s.Diagonal).Abs() <= w.units.SmallestMark/2; s.Right {
		s.Diagonal = right
		if three, ok := stringline.Largest345(min(before, TapeReach), min(after, TapeReach), unit); ok {
			s.Three = &three
		}
	}
	return s
}

// inside is the hand on which the ground lies that the line fences in.
func (w *Walk) inside() job.Side {
	if w.Line.Inside != "" {
		return w.Line.Inside
	}
	var area float64 // twice, positive when the line goes round to the left
	for i, a := range w.traverse.Places {
		b := w.traverse.Places[(i+1)%len(w.traverse.Places)]
		area += float64(a.X*b.Y - b.X*a.Y)
	}
	if w.Line.Closed && area < 0 {
		return job.Right
	}
	return job.Left
}

// bends tells whether the line turns at the start of a run, or at the end of
// the last one.
func (w *Walk) bends(r int) bool {
	n := len(w.Line.Runs)
	if !w.Line.Closed && (r == 0 || r == n) {
		return false
	}
	if turn := w.traverse.Turns[r%n]; turn.Measured || turn.Found {
		return math.Abs(turn.Degrees) >= Straight
	}
	return w.Line.Closed // what is not measured yet is no straight line by chance
}

// corner is how the line turns at the start of a run, or at the end of the
// last one.
func (w *Walk) corner(r int) spacing.Corner {
	c := spacing.Corner{Turns: w.bends(r)}
	if turn := w.traverse.Turns[r%len(w.Line.Runs)]; c.Turns && (turn.Measured || turn.Found) {
		if c.To = job.Left; turn.Degrees < 0 {
			c.To = job.Right
		}
	} else if c.Turns && w.Line.Closed { // the first corner: round to the inner hand
		c.To = w.Out.Inside
	}
	return c
}

// straight is the turn, in degrees, under which two runs are one straight
// fence: the post between them is no corner post.
const Straight = 1.0

// bearing is the direction from one place to another, degrees clockwise from
// the map's up.
func bearing(from, to survey.Place) float64 {
	d := math.Atan2(float64(to.X-from.X), float64(to.Y-from.Y)) * 180 / math.Pi
	if d < 0 {
		d += 360
	}
	return d
}

// normalTurn is the turn from one bearing to another, left positive.
func normalTurn(before, after float64) float64 {
	d := math.Mod(before-after+540, 360) - 180
	if d == -180 {
		return 180
	}
	return d
}
