package stringline

import (
	"errors"
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// Square is a corner that is squared, or set to any other angle, by a diagonal.
type Square struct {
	LegA, LegB length.Length // along the run before and along the run after
	Angle      float64       // degrees wanted between the runs
	Diagonal   length.Length // exact
}

// ThreeFourFive is a right triangle of whole units.
type ThreeFourFive struct {
	Times int           `json:"times" jsonschema:"required" jsonschema_description:"How many units the 1 of 3-4-5 stands for."`
	LegA  length.Length `json:"legA" jsonschema:"required" jsonschema_description:"Along the run before."`
	LegB  length.Length `json:"legB" jsonschema:"required" jsonschema_description:"Along the run after."`
	Long  length.Length `json:"long" jsonschema:"required"`
}

// Largest345 is the largest 3-4-5 triangle in whole units that fits on two
// legs, either way round; the bigger the triangle, the smaller the error. The
// longer of its sides lies along the longer leg when both ways fit.
func Largest345(a, b, unit length.Length) (ThreeFourFive, bool) {
	fit := func(x, y length.Length) int {
		return int(math.Floor(float64(min(x/(3*unit), y/(4*unit))) + 1e-9))
	}
	three, four := fit(a, b), fit(b, a) // 3 along a, or 3 along b
	n := max(three, four)
	if n < 1 {
		return ThreeFourFive{}, false
	}
	u := unit * length.Length(n)
	if three > four || three == four && b >= a {
		return ThreeFourFive{n, 3 * u, 4 * u, 5 * u}, true
	}
	return ThreeFourFive{n, 4 * u, 3 * u, 5 * u}, true
}

// Check is what a taped diagonal says of a corner.
type Check struct {
	Diagonal length.Length `json:"diagonal" jsonschema:"required" jsonschema_description:"What the diagonal should be, exactly."`
	Angle    float64       `json:"angle" jsonschema:"required" jsonschema_description:"The angle that stands there, degrees."`
	Error    float64       `json:"error" jsonschema:"required" jsonschema_description:"Its difference from the wanted one, degrees; positive is too open."`
	FarEnd   length.Length `json:"farEnd" jsonschema:"required" jsonschema_description:"How far the far end of the run is out, square to it."`
	AtLeg    length.Length `json:"atLeg" jsonschema:"required" jsonschema_description:"How far the string is to be moved at the end of the taped leg."`
	Move     Move          `json:"move" jsonschema:"required,enum=none,enum=in,enum=out" jsonschema_description:"In: toward the other run; out: away from it."`
	Within   bool          `json:"within" jsonschema:"required" jsonschema_description:"The diagonal is right to the tape's mark."`
}

// Move is which way a string has to go.
type Move string

// Ways for a string to go.
const (
	Stay Move = "none"
	In   Move = "in"
	Out  Move = "out"
)

// ErrTriangle says that no triangle has the sides given.
var ErrTriangle = errors.New("no triangle has these sides")

// Judge turns a taped diagonal into the angle that stands there, how far the
// far end of the second run is out at its length, and which way its string
// has to move.
func (s Square) Judge(taped, far, mark length.Length) (Check, error) {
	angle, err := survey.Angle(s.LegA, s.LegB, taped)
	if err != nil {
		return Check{}, ErrTriangle
	}
	c := Check{Diagonal: survey.Diagonal(s.LegA, s.LegB, s.Angle), Angle: angle, Error: angle - s.Angle, Move: Stay}
	// The string swings round the corner: its ends move along chords.
	chord := 2 * math.Sin(math.Abs(c.Error)*math.Pi/360)
	c.FarEnd, c.AtLeg = far*length.Length(chord), s.LegB*length.Length(chord)
	c.Within = (taped - c.Diagonal).Abs() <= mark/2+length.Tolerance
	switch {
	case c.Within:
	case c.Error > 0:
		c.Move = In
	default:
		c.Move = Out
	}
	return c, nil
}

// Unit is what 3-4-5 triangles are counted in: feet, or half metres.
func Unit(s length.System) length.Length {
	if s == length.Metric {
		return length.Metre / 2
	}
	return length.Foot
}

// Constant is the one measure from the string to the near face of every post,
// and to its centre.
func Constant(s job.String, post job.Post) (face, centre length.Length) {
	face = s.Offset()
	return face, face + post.Width/2
}
