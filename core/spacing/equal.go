// Package spacing finds where the posts of a run stand.
package spacing

import (
	"math"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
)

// NoGate stands in Post.Gate and Bay.Gate where there is none.
const NoGate = -1

// Post is where a post stands.
type Post struct {
	Station length.Length
	Kind    job.PostKind
	Gate    int // index of the run's gate that it carries, or NoGate
	Segment int // segment that it ends or stands in
}

// Bay is the space between two neighbouring posts: the first and the one
// after it.
type Bay struct {
	First   int // index of its first post; the second follows
	Gate    int // index of the run's gate in it, or NoGate
	Segment int
}

// Segment is the stretch between two fixed posts; its bays are all equal.
type Segment struct {
	From, To length.Length
	Gate     int
	Bays     int
}

// Each is the length of each of the segment's bays, centre to centre.
func (s Segment) Each() length.Length { return (s.To - s.From) / length.Length(s.Bays) }

// Layout is every post and bay of a run, in order.
type Layout struct {
	Posts    []Post
	Bays     []Bay
	Segments []Segment
}

// Count returns how few equal bays, none over most, fill a stretch. A stretch
// within Tolerance of a whole number of bays takes that number.
func Count(stretch, most length.Length) int {
	return max(1, int(math.Ceil(float64((stretch-length.Tolerance)/most))))
}

// Equal lays out a run with equal bays in each segment. Gate posts are fixed
// by the gates' clear openings; where one falls on an end post or on the post
// of the next gate, one post serves both. The run has been checked: its
// length is known, and its gates stand on it and do not overlap.
func Equal(run job.Run) Layout {
	var l Layout
	end := *run.Length
	expect := Count(end, run.Spacing.Most) + 2*len(run.Gates) + 2
	l.Posts, l.Bays = make([]Post, 0, expect), make([]Bay, 0, expect)
	l.Posts = append(l.Posts, Post{Station: 0, Kind: job.EndPost, Gate: NoGate})
	for _, g := range inOrder(run.Gates) {
		first, second := run.GatePosts(run.Gates[g])
		if first > length.Tolerance && first-l.last().Station > length.Tolerance {
			l.fill(first, NoGate, run.Spacing.Most)
		}
		l.last().Kind, l.last().Gate = job.GatePost, g
		l.fill(second, g, 0)
		l.last().Kind, l.last().Gate = job.GatePost, g
	}
	if end-l.last().Station > length.Tolerance {
		l.fill(end, NoGate, run.Spacing.Most)
		l.last().Kind = job.EndPost
	}
	return l
}

func (l *Layout) last() *Post { return &l.Posts[len(l.Posts)-1] }

// fill adds a segment from the last post to a station: one bay for a gate,
// equal bays of at most most for fence.
func (l *Layout) fill(to length.Length, gate int, most length.Length) {
	s := Segment{From: l.last().Station, To: to, Gate: gate, Bays: 1}
	if gate == NoGate {
		s.Bays = Count(to-s.From, most)
	}
	n := len(l.Segments)
	l.Segments = append(l.Segments, s)
	for i := 1; i <= s.Bays; i++ {
		l.Bays = append(l.Bays, Bay{First: len(l.Posts) - 1, Gate: gate, Segment: n})
		// From the segment's start each time: bays that are added up drift.
		at := s.From + (to-s.From)*length.Length(i)/length.Length(s.Bays)
		if i == s.Bays {
			at = to
		}
		l.Posts = append(l.Posts, Post{Station: at, Kind: job.LinePost, Gate: NoGate, Segment: n})
	}
}

func inOrder(gates []job.Gate) []int {
	order := make([]int, len(gates))
	for i := range order {
		order[i] = i
	}
	sort.SliceStable(order, func(a, b int) bool { return gates[order[a]].At < gates[order[b]].At })
	return order
}
