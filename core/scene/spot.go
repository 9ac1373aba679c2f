package scene

import "math"

// spot is a box that may be turned about its middle.
type spot struct {
	x, y       float64 // its middle
	w, h       float64 // half of it
	sin, cos   float64
	reach, far float64 // half of the upright box round it
}

func spotOf(box [4]float64, turn float64) spot {
	sin, cos := math.Sincos(radians(turn))
	s := spot{box[0] + box[2]/2, box[1] + box[3]/2, box[2] / 2, box[3] / 2, sin, cos, 0, 0}
	s.reach = math.Abs(s.w*cos) + math.Abs(s.h*sin)
	s.far = math.Abs(s.w*sin) + math.Abs(s.h*cos)
	return s
}

func (s spot) within(width, height float64) bool {
	const off = edge - 0.01
	return s.x-s.reach >= off && s.x+s.reach <= width-off && s.y-s.far >= off && s.y+s.far <= height-off
}

// hits tells whether two spots cross: by the axes of either (the separating
// axis theorem for two boxes).
func (s spot) hits(o spot) bool {
	dx, dy := o.x-s.x, o.y-s.y
	if math.Abs(dx) >= s.reach+o.reach || math.Abs(dy) >= s.far+o.far {
		return false
	}
	for _, axis := range [4][2]float64{{s.cos, s.sin}, {-s.sin, s.cos}, {o.cos, o.sin}, {-o.sin, o.cos}} {
		if math.Abs(dx*axis[0]+dy*axis[1]) >= s.span(axis)+o.span(axis) {
			return false
		}
	}
	return true
}

// span is half of how long the spot is along an axis.
func (s spot) span(axis [2]float64) float64 {
	return s.w*math.Abs(s.cos*axis[0]+s.sin*axis[1]) + s.h*math.Abs(-s.sin*axis[0]+s.cos*axis[1])
}
