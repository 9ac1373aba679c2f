// Package curb works out the plan of a mowing curb: where its middle line ends at a
// corner, how much of a hole lies under it, and how its joints divide it.
package curb

import (
	"math"

	"mallow/core/length"
)

// sharpest is the turn, in degrees, past which the two sides of a corner are no longer
// mitered: the point would be longer than the curb is wide.
const sharpest = 130

// nearlyOn is a turn that bends nothing.
const nearlyOn = 0.01

// Miter is how far past a corner the middle of a curb goes that comes to it, and how
// far past it, back along its own run, the middle of the one starts that leaves it. Turn
// is in degrees off the straight-on line, left positive; off and next are how far to the
// left of their lines the two middles lie. Mitered there, both curbs together cover the
// corner once: what the inner side has twice is as large as what the outer side lacks.
func Miter(turn float64, off, next length.Length) (end, start length.Length, ok bool) {
	if math.Abs(turn) < nearlyOn {
		return 0, 0, true
	}
	if math.Abs(turn) > sharpest {
		return 0, 0, false
	}
	sin, cos := math.Sincos(turn * math.Pi / 180)
	at := (float64(off)*cos - float64(next)) / sin
	return length.Length(at), -length.Length(at*cos + float64(off)*sin), true
}

// Reach is how far a strip goes to each side of a hole's middle: along it before and
// after, and across it to its two edges, measured the same way.
type Reach struct{ Before, After, Low, High length.Length }

// Under is how much of a hole's section lies in a strip.
func Under(hole length.Length, square bool, in Reach) length.Area {
	half := hole.Metres() / 2
	x0, x1, y0, y1 := -in.Before.Metres(), in.After.Metres(), in.Low.Metres(), in.High.Metres()
	if square {
		return length.Area(max(0, min(x1, half)-max(x0, -half)) * max(0, min(y1, half)-max(y0, -half)))
	}
	return length.Area(max(0, corner(half, x1, y1)-corner(half, x0, y1)-corner(half, x1, y0)+corner(half, x0, y0)))
}

// corner is how much of a circle about zero lies left of a and below b: of each column
// what is below b, where the circle's edge is s above and below the middle.
func corner(r, a, b float64) float64 {
	a, b = max(-r, min(r, a)), max(-r, min(r, b))
	c := math.Sqrt(r*r - b*b)                 // the edge is at b there
	under := func(from, to float64) float64 { // of s, with sign
		area := func(x float64) float64 { return (x*math.Sqrt(max(0, r*r-x*x)) + r*r*math.Asin(x/r)) / 2 }
		if from, to = max(-r, from), min(a, to); to <= from {
			return 0
		}
		return area(to) - area(from)
	}
	sum := under(-c, c) + b*max(0, min(a, c)+c)
	if b > 0 {
		sum += 2 * (under(-r, -c) + under(c, r))
	}
	return sum
}

// Parts is into how many equal parts a stretch is divided by joints.
func Parts(stretch, most length.Length) int {
	return max(1, int(math.Ceil(float64((stretch-length.Tolerance)/most))))
}
