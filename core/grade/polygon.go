package grade

import "math"

// ray is a straight line by its height where it begins and its slope.
type ray struct{ height, slope float64 }

// polygon is a convex set of rays: all that begin at one place and keep some
// bounds. Its corners are in order.
type polygon []ray

// steepest is the steepest line of a fence that is looked at: three in one.
const steepest = 3.0

// rays is every line that begins within an interval.
func rays(low, high float64) polygon {
	return polygon{{low, -steepest}, {high, -steepest}, {high, steepest}, {low, steepest}}
}

// clip keeps the rays with a × height + b × slope at most c. into is room
// that may be written over.
func (p polygon) clip(a, b, c float64, into polygon) polygon {
	inside := true
	for _, r := range p {
		if a*r.height+b*r.slope > c {
			inside = false
			break
		}
	}
	if inside {
		return p
	}
	out := into[:0]
	for i, r := range p {
		s := p[(i+1)%len(p)]
		u, v := a*r.height+b*r.slope-c, a*s.height+b*s.slope-c
		if u <= 0 {
			out = append(out, r)
		}
		if u < 0 && v > 0 || u > 0 && v < 0 {
			t := u / (u - v)
			out = append(out, ray{r.height + t*(s.height-r.height), r.slope + t*(s.slope-r.slope)})
		}
	}
	return out
}

// heightsAt is the interval that the rays reach at a distance.
func (p polygon) heightsAt(distance float64) interval {
	out := interval{math.Inf(1), math.Inf(-1)}
	for _, r := range p {
		y := r.height + r.slope*distance
		out.low, out.high = math.Min(out.low, y), math.Max(out.high, y)
	}
	return out
}

// interval is heights from low to high.
type interval struct{ low, high float64 }

// insert adds an interval to a list of them that lie apart, in order.
func insert(all []interval, v interval) []interval {
	const near = 1e-9
	out := make([]interval, 0, len(all)+1)
	for _, o := range all {
		switch {
		case o.high < v.low-near:
			out = append(out, o)
		case o.low > v.high+near:
			out = append(out, v)
			v = o
		default:
			v = interval{math.Min(v.low, o.low), math.Max(v.high, o.high)}
		}
	}
	return append(out, v)
}
