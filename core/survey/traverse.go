package survey

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// Place is a place on the map: x to the right (east), y up (north).
type Place struct {
	X length.Length `json:"x" jsonschema:"required"`
	Y length.Length `json:"y" jsonschema:"required"`
}

// To is the distance to another place.
func (p Place) To(q Place) length.Length {
	return length.Length(math.Hypot(float64(q.X-p.X), float64(q.Y-p.Y)))
}

// ahead is the place at a distance in a direction, radians counter-clockwise
// from the x axis.
func (p Place) ahead(direction float64, by length.Length) Place {
	sin, cos := math.Sincos(direction)
	return Place{p.X + by*length.Length(cos), p.Y + by*length.Length(sin)}
}

// Towards is the place a part of the way to another.
func (p Place) Towards(q Place, part float64) Place {
	t := length.Length(part)
	return Place{p.X + (q.X-p.X)*t, p.Y + (q.Y-p.Y)*t}
}

// direction is where another place lies, radians.
func (p Place) direction(q Place) float64 {
	return math.Atan2(float64(q.Y-p.Y), float64(q.X-p.X))
}

// Turn is how a line bends at a corner: degrees off the straight-on line,
// counter-clockwise (left) positive.
type Turn struct {
	Degrees  float64
	Measured bool
	Found    bool   // not measured, but follows from the line's closing
	Wrong    *Wrong // a triangle that cannot be; taken as straight on
}

// Wrong is an impossible triangle: with these legs the diagonal must lie
// between Least and Most.
type Wrong struct{ Back, Forth, Diagonal, Least, Most length.Length }

// Traverse is a line laid out on the map.
type Traverse struct {
	Turns   []Turn  // at each run's start
	Raw     []Place // each run's start, and the last one's end
	Places  []Place // the same, with the misclosure spread if that was asked
	Missing int     // turns that are still to be measured
	Checked *Checked
	Closing *Closing
}

// Checked is the one corner of a closed line that was not measured, held
// against the others: what the lengths make of it, and what the measured turns
// leave for it of a whole turn.
type Checked struct {
	Run         int // that starts at it
	Found, Left float64
}

// Closing is how well a closed line closes.
type Closing struct {
	Perimeter length.Length
	X, Y      length.Length // from the start to where the measures end
	Miss      length.Length
	AngleSum  *float64 // degrees by which the corners' angles miss closing, when all were measured
	Balanced  []Place  // by the compass rule, whether it was asked for or not
}

// Ratio is how many times the misclosure goes into the perimeter; infinite
// when nothing is missed.
func (c Closing) Ratio() float64 {
	if c.Miss <= length.Tolerance {
		return math.Inf(1)
	}
	return float64(c.Perimeter / c.Miss)
}

// Lay lays a line out on the map from its runs' level lengths.
func Lay(l job.Line, runs []length.Length) Traverse {
	t := Traverse{Turns: make([]Turn, len(runs))}
	n := len(runs)
	hole := -1 // the one turn that closing can find
	for i, run := range l.Runs {
		before := (i + n - 1) % n
		switch {
		case run.Corner != nil && (i > 0 || l.Closed):
			t.Turns[i] = turn(*run.Corner, runs[before], runs[i])
		case i > 0:
			t.Missing++
			hole = i
		}
	}
	t.Raw = lay(l, t.Turns, runs)
	if slices.Min(runs) <= 0 { // a run without a length: nothing can close yet
		t.Places = t.Raw
		return t
	}
	if l.Closed && t.Missing == 1 {
		t.find(l, hole, runs)
	}
	if l.Closed && n > 2 {
		t.check()
	}
	t.Places = t.Raw
	if l.Closed && t.Missing == 0 {
		t.close(runs)
		if l.Balance {
			t.Places = t.Closing.Balanced
		}
	}
	return t
}

// heading is the direction of the line's first run.
func heading(l job.Line) float64 {
	if l.Bearing == nil {
		return 0
	}
	return (90 - *l.Bearing) * math.Pi / 180
}

func lay(l job.Line, turns []Turn, runs []length.Length) []Place {
	at := Place{l.X, l.Y}
	direction := heading(l)
	out := []Place{at}
	for i, run := range runs {
		if i > 0 {
			direction += turns[i].Degrees * math.Pi / 180
		}
		at = at.ahead(direction, run)
		out = append(out, at)
	}
	return out
}

// find turns the part of the line beyond an unmeasured corner so that its end
// comes as near to the start as it can.
func (t *Traverse) find(l job.Line, hole int, runs []length.Length) {
	hinge := t.Raw[hole]
	end := t.Raw[len(runs)]
	swing := hinge.direction(t.Raw[0]) - hinge.direction(end)
	t.Turns[hole] = Turn{Degrees: normal(t.Turns[hole].Degrees + swing*180/math.Pi), Found: true}
	t.Missing = 0
	t.Raw = lay(l, t.Turns, runs)
}

// check looks for a single corner without a measure.
func (t *Traverse) check() {
	sum, hole := 0.0, -1
	for i, turn := range t.Turns {
		switch {
		case turn.Measured:
			sum += turn.Degrees
		case hole >= 0 || turn.Wrong != nil:
			return
		default:
			hole = i
		}
	}
	if hole < 0 || t.Missing > 0 {
		return
	}
	found := t.Turns[hole].Degrees
	if n := len(t.Turns); hole == 0 { // from the last corner straight to the first
		found = normal((t.Raw[0].direction(t.Raw[1]) - t.Raw[n-1].direction(t.Raw[0])) * 180 / math.Pi)
	}
	t.Checked = &Checked{Run: hole, Found: found, Left: normal(math.Copysign(360, sum+found) - sum)}
}

// normal brings an angle to more than -180 up to 180 degrees.
func normal(degrees float64) float64 {
	d := math.Mod(degrees, 360)
	switch {
	case d > 180:
		return d - 360
	case d <= -180:
		return d + 360
	}
	return d
}

// close finds the misclosure and spreads it by the compass (Bowditch) rule:
// every corner moves back by the part of the misclosure that its distance
// along the line is of the whole.
func (t *Traverse) close(runs []length.Length) {
	n := len(runs)
	c := &Closing{}
	for _, r := range runs {
		c.Perimeter += r
	}
	start, end := t.Raw[0], t.Raw[n]
	c.X, c.Y, c.Miss = end.X-start.X, end.Y-start.Y, start.To(end)
	c.Balanced = make([]Place, n+1)
	along := length.Length(0)
	for i, p := range t.Raw {
		part := along / c.Perimeter
		c.Balanced[i] = Place{p.X - c.X*part, p.Y - c.Y*part}
		if i < n {
			along += runs[i]
		}
	}
	c.Balanced[n] = start
	if sum, all := angleSum(t.Turns); all {
		c.AngleSum = &sum
	}
	t.Closing = c
}

// angleSum is what the turns round a closed line miss of a whole turn.
func angleSum(turns []Turn) (float64, bool) {
	sum := 0.0
	for _, turn := range turns {
		if !turn.Measured {
			return 0, false
		}
		sum += turn.Degrees
	}
	return sum - math.Copysign(360, sum), true
}

// turn works a corner out of its measures.
func turn(c job.Corner, before, after length.Length) Turn {
	side := c.Side.Sign()
	switch c.By {
	case job.ByInterior:
		return Turn{Degrees: side * (180 - c.Angle), Measured: true}
	case job.ByOffset:
		return Turn{Degrees: side * math.Atan2(float64(c.Off), float64(c.Along)) * 180 / math.Pi, Measured: true}
	case job.ByDiagonal:
		back, forth := before, after
		if c.Back != nil {
			back = *c.Back
		}
		if c.Forth != nil {
			forth = *c.Forth
		}
		angle, err := Angle(back, forth, c.Diagonal)
		if err != nil {
			return Turn{Wrong: &Wrong{back, forth, c.Diagonal, (back - forth).Abs(), back + forth}}
		}
		return Turn{Degrees: side * (180 - angle), Measured: true}
	}
	return Turn{Degrees: side * c.Angle, Measured: true}
}

// Angle is the angle between two legs, in degrees, whose ends are a diagonal
// apart: the law of cosines. It fails when no triangle has these sides.
func Angle(a, b, diagonal length.Length) (float64, error) {
	if a <= 0 || b <= 0 || diagonal < (a-b).Abs()-length.Tolerance || diagonal > a+b+length.Tolerance {
		return 0, fmt.Errorf("no triangle has sides of %g, %g and %g", a, b, diagonal)
	}
	cos := float64((a*a + b*b - diagonal*diagonal) / (2 * a * b))
	return math.Acos(max(-1, min(1, cos))) * 180 / math.Pi, nil
}

// Diagonal is the straight distance between the ends of two legs that meet at
// an angle, in degrees.
func Diagonal(a, b length.Length, degrees float64) length.Length {
	rad := degrees * math.Pi / 180
	// In this form two equal legs at a small angle do not cancel out.
	half := math.Sin(rad / 2)
	return length.Length(math.Sqrt(float64((a-b)*(a-b)) + 4*float64(a*b)*half*half))
}
