package gate

import "math"

// Swept is the ground that a leaf sweeps over, seen from above, in metres: a
// sector round its pin.
type Swept struct {
	X, Y  float64 // of the pin
	From  float64 // direction of the closed leaf, radians
	Left  bool    // it turns to the left, counter-clockwise
	Reach float64
	Half  float64 // half the leaf's thickness
	Open  float64 // how far it turns, degrees
}

// polar is a place as the leaf sees it: how far from its pin, and at which
// angle of its swing, in degrees from −180 to 180.
func (s Swept) polar(x, y float64) (out, angle float64) {
	dx, dy := x-s.X, y-s.Y
	turn := math.Atan2(dy, dx) - s.From
	if !s.Left {
		turn = -turn
	}
	return math.Hypot(dx, dy), math.Remainder(turn, 2*math.Pi) * 180 / math.Pi
}

// Point is the place under the leaf, so far out, at an angle of its swing.
func (s Swept) Point(angle, out float64) (x, y float64) {
	turn := angle * math.Pi / 180
	if !s.Left {
		turn = -turn
	}
	sin, cos := math.Sincos(s.From + turn)
	return s.X + out*cos, s.Y + out*sin
}

// Round tells at which angle the leaf strikes a round thing, such as a post.
func (s Swept) Round(x, y, radius float64) (angle float64, struck bool) {
	out, at := s.polar(x, y)
	radius += s.Half
	if out-radius >= s.Reach || out <= radius {
		return 0, false // out of reach, or on the pin itself
	}
	half := math.Asin(radius / out)
	if past := s.Reach * s.Reach; out*out-radius*radius > past {
		// Only the tip's way meets it.
		half = math.Acos(min(1, (out*out+past-radius*radius)/(2*out*s.Reach)))
	}
	first, last := at-half*180/math.Pi, at+half*180/math.Pi
	if last < 0 && first+360 <= s.Open {
		first, last = first+360, last+360
	}
	if last < 0 || first >= s.Open {
		return 0, false
	}
	return max(0, first), true
}

// Wall tells at which angle the leaf strikes a straight thing, such as a bay
// of fence.
func (s Swept) Wall(x1, y1, x2, y2 float64) (angle float64, struck bool) {
	// The part of it within reach: where it enters and leaves the circle.
	dx, dy, fx, fy := x2-x1, y2-y1, x1-s.X, y1-s.Y
	a, b, c := dx*dx+dy*dy, 2*(fx*dx+fy*dy), fx*fx+fy*fy-s.Reach*s.Reach
	root := b*b - 4*a*c
	if a == 0 || root <= 0 {
		return 0, false
	}
	root = math.Sqrt(root)
	from, to := max(0, (-b-root)/(2*a)), min(1, (-b+root)/(2*a))
	if from >= to {
		return 0, false
	}
	_, p := s.polar(x1+from*dx, y1+from*dy)
	_, q := s.polar(x1+to*dx, y1+to*dy)
	// Seen from the pin a straight thing turns one way only, by less than
	// half a turn.
	turn := math.Remainder(q-p, 360)
	first, last := min(p, p+turn), max(p, p+turn)
	for _, round := range []float64{0, 360} {
		if f, l := first+round, last+round; l > 0 && f < s.Open {
			return max(0, f), true
		}
	}
	return 0, false
}

// Meets tells whether two leaves can be in each other's way.
func (s Swept) Meets(o Swept) bool {
	return s.covers(o) || o.covers(s)
}

// covers tells whether some part of another's swept ground lies in this one:
// it looks along its edges.
func (s Swept) covers(o Swept) bool {
	const steps = 24
	in := func(x, y float64) bool {
		out, angle := s.polar(x, y)
		if angle < 0 {
			angle += 360
		}
		return out < s.Reach && angle < s.Open
	}
	for i := range steps + 1 {
		part := float64(i) / steps
		for _, p := range [][2]float64{{part * o.Open, o.Reach}, {0, part * o.Reach}, {o.Open, part * o.Reach}} {
			if in(o.Point(p[0], p[1])) {
				return true
			}
		}
	}
	return false
}
