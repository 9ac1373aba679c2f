package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// splitOverrides shares out the single holes; one where the run is split is the
// corner post's, which is dug with the first part.
func splitOverrides(spots []job.HoleOverride, at length.Length) (a, b []job.HoleOverride) {
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

// joinOverrides appends the second run's single holes, level on from the first.
func joinOverrides(joined *job.Run, second job.Run, level length.Length) {
	for _, s := range second.Overrides {
		s.At += level
		s.ID = free("S", s.ID, joined.Overrides, func(s job.HoleOverride) string { return s.ID })
		joined.Overrides = append(joined.Overrides, s)
	}
}

// shortenOverrides drops the single holes past a run's new end.
func shortenOverrides(run *job.Run, level length.Length) {
	run.Overrides = slices.DeleteFunc(slices.Clone(run.Overrides), func(s job.HoleOverride) bool { return s.At > level+length.Tolerance })
	if len(run.Overrides) == 0 {
		run.Overrides = nil
	}
}

// reverseOverrides looks at the single holes from the other end, and at holes that
// lie off their posts: ahead is behind, and left is right.
func reverseOverrides(run *job.Run, level length.Length) {
	run.Hole = turned(run.Hole)
	run.Kinds = slices.Clone(run.Kinds)
	for i := range run.Kinds {
		run.Kinds[i].Hole = turned(run.Kinds[i].Hole)
	}
	for i := range run.Overrides {
		s := &run.Overrides[i]
		s.At, s.Hole = max(0, level-s.At), turned(s.Hole)
	}
	slices.Reverse(run.Overrides)
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
		runs[i].Overrides = slices.DeleteFunc(slices.Clone(runs[i].Overrides), func(s job.HoleOverride) bool {
			if s.At > length.Tolerance {
				return false
			}
			corner := job.Run{Overrides: []job.HoleOverride{s}}
			joinOverrides(before, corner, level((i+n-1)%n)-s.At)
			return true
		})
	}
}
