package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// splitSpots shares out the single holes; one where the run is split is the
// corner post's, which is dug with the first part.
func splitSpots(spots []job.Spot, at length.Length) (a, b []job.Spot) {
	for _, s := range spots {
		if s.At <= at+length.Tolerance {
			a = append(a, s)
			continue
		}
		s.At -= at
		b = append(b, s)
	}
	return a, b
}

// joinSpots appends the second run's single holes, level on from the first.
func joinSpots(joined *job.Run, second job.Run, level length.Length) {
	for _, s := range second.Spots {
		s.At += level
		s.ID = free("S", s.ID, joined.Spots, func(s job.Spot) string { return s.ID })
		joined.Spots = append(joined.Spots, s)
	}
}

// shortenSpots drops the single holes past a run's new end.
func shortenSpots(run *job.Run, level length.Length) {
	run.Spots = slices.DeleteFunc(slices.Clone(run.Spots), func(s job.Spot) bool { return s.At > level+length.Tolerance })
	if len(run.Spots) == 0 {
		run.Spots = nil
	}
}

// reverseSpots looks at the single holes from the other end, and at holes that
// lie off their posts: ahead is behind, and left is right.
func reverseSpots(run *job.Run, level length.Length) {
	run.Hole = turned(run.Hole)
	run.Kinds = slices.Clone(run.Kinds)
	for i := range run.Kinds {
		run.Kinds[i].Hole = turned(run.Kinds[i].Hole)
	}
	for i := range run.Spots {
		s := &run.Spots[i]
		s.At, s.Hole = max(0, level-s.At), turned(s.Hole)
	}
	slices.Reverse(run.Spots)
}

func turned(h job.HoleRules) job.HoleRules {
	if h.Along != nil {
		h.Along = ptr(-*h.Along)
	}
	if h.Across != nil {
		h.Across = ptr(-*h.Across)
	}
	return h
}

// handOver gives the single hole of a corner post, which is dug with the run
// that ends there, from the run that starts at it to that one.
func handOver(runs []job.Run, closed bool, level func(run int) length.Length) {
	n := len(runs)
	for i := range runs {
		if i == 0 && !closed || n == 1 {
			continue
		}
		before := &runs[(i+n-1)%n]
		runs[i].Spots = slices.DeleteFunc(slices.Clone(runs[i].Spots), func(s job.Spot) bool {
			if s.At > length.Tolerance {
				return false
			}
			corner := job.Run{Spots: []job.Spot{s}}
			joinSpots(before, corner, level((i+n-1)%n)-s.At)
			return true
		})
	}
}
