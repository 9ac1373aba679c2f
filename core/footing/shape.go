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
// rules give it. The bell widens evenly over its height, down to the bottom of
// the concrete, where it is widest: the gravel below lies in a pit as wide as
// the hole. A hole shallower than the bell is all bell.
func ShapeOf(width, bottom, depth length.Length, h job.Hole) Shape {
	s := Shape{Square: h.Shape == job.SquareHole}
	if depth <= 0 {
		return s
	}
	s.Cuts = append(s.Cuts, Cut{0, width + h.Taper})
	if h.Bell > width && bottom > 0 {
		if neck := bottom - h.BellHeight; neck > 0 {
			s.Cuts = append(s.Cuts, Cut{neck, width})
		}
		if s.Cuts = append(s.Cuts, Cut{bottom, h.Bell}); depth-bottom <= length.Tolerance {
			return s
		}
		s.Cuts = append(s.Cuts, Cut{bottom, width})
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
	return s.within(i, depth)
}

// within is the width at a depth of the straight piece that ends at a cut.
func (s Shape) within(i int, depth length.Length) length.Length {
	a, b := s.Cuts[i-1], s.Cuts[i]
	return a.Width + (b.Width-a.Width)*(depth-a.Depth)/(b.Depth-a.Depth)
}

// Widest is the hole's greatest width.
func (s Shape) Widest() length.Length {
	most := length.Length(0)
	for _, c := range s.Cuts {
		most = max(most, c.Width)
	}
	return most
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
		top, foot := s.within(i, a), s.within(i, b)
		middle := (top + foot) / 2
		sum += ((s.area(top) + 4*s.area(middle) + s.area(foot)) / 6).Times(b - a)
	}
	return sum
}

// Level is the depth to which a volume, poured in from a depth upwards, fills
// the hole while nothing stands in it.
func (s Shape) Level(bottom length.Length, v length.Volume) length.Length {
	low, high := length.Length(0), bottom
	for range 60 {
		if mid := (low + high) / 2; s.Volume(mid, bottom) > v {
			low = mid
		} else {
			high = mid
		}
	}
	return high
}

// Cone is the volume of soil or concrete that stands round a post above the
// ground at a depth: so high at the post's face, sloped evenly down to the hole's edge.
// Round a round post in a round hole and a square one in a square hole it is
// a cone or pyramid with the post cut out; in the mixed cases the slope runs
// to the hole's edge as the hole's own shape has it. The post is taken to stand
// in the hole's middle; off it, the slope is steeper on one side and flatter on
// the other, and the difference is let go.
func (s Shape) Cone(height, at length.Length, post job.Post) length.Volume {
	edge, half := float64(s.At(at).Metres())/2, post.Width.Metres()/2
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

// Mean is the hole's mean width between two depths: what pushes against the
// soil, seen from the side.
func (s Shape) Mean(from, to length.Length) length.Length {
	sum := length.Length(0)
	for i := 1; i < len(s.Cuts); i++ {
		a, b := max(from, s.Cuts[i-1].Depth), min(to, s.Cuts[i].Depth)
		if b > a {
			sum += (s.within(i, a) + s.within(i, b)) / 2 * (b - a)
		}
	}
	if to <= from {
		return 0
	}
	return sum / (to - from)
}

// Bears is the width b with which a footing pushes the soil in the published
// formula: the diameter of a round one, and of a square one its diagonal (IBC
// 1807.3.2.1, from memory), each as its mean between two depths.
func (s Shape) Bears(from, to length.Length) length.Length {
	if s.Square {
		return s.Mean(from, to) * math.Sqrt2
	}
	return s.Mean(from, to)
}
