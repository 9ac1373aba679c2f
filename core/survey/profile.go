// Package survey turns what was measured on site into a ground profile.
package survey

import (
	"math"
	"slices"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
)

// Profile is the ground along a run: heights at stations, straight between.
type Profile struct {
	at, height []length.Length
	along      []length.Length // distance along the ground from the first point
}

// NewProfile builds the profile of a run from its ground points, which are in
// order of station. Before the first and after the last point the ground is
// taken as level; without any points all of it is.
func NewProfile(points []job.GroundPoint, run length.Length) Profile {
	p := Profile{}
	add := func(at, height length.Length) {
		n := len(p.at)
		if n > 0 && at-p.at[n-1] <= length.Tolerance {
			return
		}
		along := length.Length(0)
		if n > 0 {
			along = p.along[n-1] + length.Length(math.Hypot(float64(at-p.at[n-1]), float64(height-p.height[n-1])))
		}
		p.at, p.height, p.along = append(p.at, at), append(p.height, height), append(p.along, along)
	}
	if len(points) == 0 {
		points = []job.GroundPoint{{At: 0, Height: 0}}
	}
	if points[0].At > length.Tolerance {
		add(0, points[0].Height)
	}
	for _, g := range points {
		add(g.At, g.Height)
	}
	add(run, points[len(points)-1].Height)
	return p
}

// Points returns the profile's break points from one end to the other.
func (p Profile) Points() []job.GroundPoint {
	out := make([]job.GroundPoint, len(p.at))
	for i := range p.at {
		out[i] = job.GroundPoint{At: p.at[i], Height: p.height[i]}
	}
	return out
}

// Same tells whether two profiles are the same ground.
func (p Profile) Same(q Profile) bool {
	return slices.Equal(p.at, q.at) && slices.Equal(p.height, q.height)
}

// piece returns the index of the piece that holds station s.
func (p Profile) piece(s length.Length) int {
	i := sort.Search(len(p.at), func(i int) bool { return p.at[i] > s }) - 1
	return max(0, min(i, len(p.at)-2))
}

// Height returns the height of the ground at a station.
func (p Profile) Height(s length.Length) length.Length {
	return p.heightOn(p.piece(s), s)
}

// heightOn returns the height at a station that lies on the given piece.
func (p Profile) heightOn(i int, s length.Length) length.Length {
	if len(p.at) == 1 {
		return p.height[0]
	}
	t := (s - p.at[i]) / (p.at[i+1] - p.at[i])
	return p.height[i] + t*(p.height[i+1]-p.height[i])
}

// Along returns the slope tape at a station: the distance from the run's
// start measured along the ground.
func (p Profile) Along(s length.Length) length.Length {
	if len(p.at) == 1 {
		return s
	}
	i := p.piece(s)
	t := (s - p.at[i]) / (p.at[i+1] - p.at[i])
	return p.along[i] + t*(p.along[i+1]-p.along[i])
}

// Level is the station that a slope tape reaches: the inverse of Along.
func (p Profile) Level(along length.Length) length.Length {
	if len(p.at) == 1 {
		return along
	}
	i := sort.Search(len(p.along), func(i int) bool { return p.along[i] > along }) - 1
	i = max(0, min(i, len(p.at)-2))
	t := (along - p.along[i]) / (p.along[i+1] - p.along[i])
	return p.at[i] + t*(p.at[i+1]-p.at[i])
}

// Each visits both ends of a stretch and every break point inside it, in
// order. On straight pieces the ground is extreme only there.
func (p Profile) Each(from, to length.Length, visit func(at, height length.Length)) {
	i := p.piece(from)
	visit(from, p.heightOn(i, from))
	for i++; i < len(p.at) && p.at[i] < to; i++ {
		if p.at[i] > from {
			visit(p.at[i], p.height[i])
		}
	}
	visit(to, p.heightOn(max(0, min(i-1, len(p.at)-2)), to))
}

// Span returns the lowest and the highest ground of a stretch.
func (p Profile) Span(from, to length.Length) (low, high length.Length) {
	low, high = length.Length(math.Inf(1)), length.Length(math.Inf(-1))
	p.Each(from, to, func(_, h length.Length) {
		low, high = min(low, h), max(high, h)
	})
	return low, high
}
