package footing

import (
	"math"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
)

// Cut is the hole's width at a depth.
type Cut struct {
	Depth length.Length `json:"depth" jsonschema:"required"`
	Width length.Length `json:"width" jsonschema:"required"`
}

// Shape is a dug hole: square or round from above, and its width from the
// ground down, straight between the cuts.
type Shape struct {
	Square bool
	Cuts   []Cut // from the ground down
}

// ShapeOf is the hole of a width and depth with the bell and taper that the
// rules give it. The bell widens evenly over its height; a hole shallower
// than the bell is all bell.
func ShapeOf(width, depth length.Length, h job.Hole) Shape {
	s := Shape{Square: h.Shape == job.SquareHole}
	if depth <= 0 {
		return s
	}
	neck := depth
	if h.Bell > width {
		neck = max(0, depth-h.BellHeight)
	}
	s.Cuts = append(s.Cuts, Cut{0, width + h.Taper})
	if neck > 0 && neck < depth {
		s.Cuts = append(s.Cuts, Cut{neck, width})
	}
	if h.Bell > width {
		width = h.Bell
	}
	s.Cuts = append(s.Cuts, Cut{depth, width})
	return s
}

// At is the hole's width at a depth.
func (s Shape) At(depth length.Length) length.Length {
	n := len(s.Cuts)
	if n == 0 {
		return 0
	}
	i := sort.Search(n, func(i int) bool { return s.Cuts[i].Depth >= depth })
	switch {
	case i == n:
		return s.Cuts[n-1].Width
	case i == 0:
		return s.Cuts[0].Width
	}
	a, b := s.Cuts[i-1], s.Cuts[i]
	return a.Width + (b.Width-a.Width)*(depth-a.Depth)/(b.Depth-a.Depth)
}

func (s Shape) area(width length.Length) length.Area {
	if s.Square {
		return length.Square(width)
	}
	return length.Disc(width)
}

// Volume is the hole's volume between two depths. Each straight piece is a
// frustum, whose volume the prismoidal rule gives exactly.
func (s Shape) Volume(from, to length.Length) length.Volume {
	sum := length.Volume(0)
	for i := 1; i < len(s.Cuts); i++ {
		a, b := max(from, s.Cuts[i-1].Depth), min(to, s.Cuts[i].Depth)
		if b <= a {
			continue
		}
		top, foot := s.At(a), s.At(b)
		middle := (top + foot) / 2
		sum += ((s.area(top) + 4*s.area(middle) + s.area(foot)) / 6).Times(b - a)
	}
	return sum
}

// Cone is the volume of soil or concrete that stands round a post above
// ground: so high at the post's face, sloped evenly down to the hole's edge.
// Round a round post in a round hole and a square one in a square hole it is
// a cone or pyramid with the post cut out; in the mixed cases the slope runs
// to the hole's edge as the hole's own shape has it. The post is taken to stand
// in the hole's middle; off it, the slope is steeper on one side and flatter on
// the other, and the difference is let go.
func (s Shape) Cone(height length.Length, post job.Post) length.Volume {
	edge, half := float64(s.At(0).Metres())/2, post.Width.Metres()/2
	if height <= 0 || edge <= half {
		return 0
	}
	apex := height.Metres() * edge / (edge - half) // of the whole cone
	whole, away := math.Pi*edge*edge*apex/3, 0.0
	if s.Square {
		whole = 4 * edge * edge * apex / 3
	}
	// What the post takes out: its area at the apex's height less the slope
	// times the mean distance over the post's section.
	square := post.Shape != job.RoundPost
	switch {
	case square && s.Square: // distance to the nearer pair of sides
		away = 4*half*half*apex - apex/edge*8*half*half*half/3
	case square: // distance to the middle: 4/3 a³ (√2 + ln(1+√2)) over a square of side 2a
		away = 4*half*half*apex - apex/edge*4*half*half*half/3*(math.Sqrt2+math.Log(1+math.Sqrt2))
	case s.Square: // max of both coordinates over a disc
		away = math.Pi*half*half*apex - apex/edge*8*half*half*half/3*math.Sqrt2/2
	default:
		away = math.Pi*half*half*apex - apex/edge*2*math.Pi*half*half*half/3
	}
	return length.Volume(whole - away)
}

// Mean is the hole's mean width from the ground to a depth: what pushes
// against the soil, seen from the side.
func (s Shape) Mean(depth length.Length) length.Length {
	sum := length.Length(0)
	for i := 1; i < len(s.Cuts); i++ {
		a, b := s.Cuts[i-1].Depth, min(depth, s.Cuts[i].Depth)
		if b > a {
			sum += (s.At(a) + s.At(b)) / 2 * (b - a)
		}
	}
	if depth <= 0 {
		return 0
	}
	return sum / depth
}
