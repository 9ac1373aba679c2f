// Package loads breaks a pour into loads of concrete, so that every post is in before
// its load stiffens. It finds the fewest loads; of those the least that is paid for
// short ones; of those the earliest end.
package loads

import (
	"math"
	"sort"
)

// Question is a pour. Times are in minutes from any one beginning.
type Question struct {
	Volumes []float64 // of each post, in the order in which they are set
	Minutes []float64 // that each takes the crew
	Most    float64   // that a truck carries
	Slots   []float64 // when a load may come, in order
	Charge  func(volume float64) float64
	// Works is for how long a load that comes then can be worked, until the crew stops
	// for lunch or the day at the latest; 0 where none may come.
	Works func(at float64) float64
}

// Load is one load: the posts from First to Last, when it comes, when the last post is
// in, and until when it could have been worked.
type Load struct {
	First, Last     int
	Volume          float64
	At, End, Worked float64
}

// Answer is the loads. Of what could not be placed, Stuck is the first post; -1 where
// all are.
type Answer struct {
	Loads  []Load
	Charge float64
	Stuck  int
}

// state is a way to have set the first posts.
type state struct {
	charge, end float64
	from        int // the state before it, in the row of one load less
	post        int // posts that were set then
	load        Load
}

const tolerance = 1e-9

// Plan finds the loads. It goes through every way to break the posts, keeping of those
// with as many loads and posts only such as are not both dearer and later than
// another: waiting is always allowed, so that an earlier end is never worse.
func Plan(q Question) Answer {
	n := len(q.Volumes)
	if n == 0 {
		return Answer{Stuck: -1}
	}
	rows := []map[int][]state{{0: {{from: -1}}}}
	furthest := 0
	for len(rows) <= n {
		last, next := rows[len(rows)-1], map[int][]state{}
		for post, states := range last {
			for k, s := range states {
				for _, l := range q.from(post, s.end) {
					charge := s.charge
					if q.Charge != nil {
						charge += q.Charge(l.Volume)
					}
					next[l.Last+1] = keep(next[l.Last+1], state{charge: charge, end: l.End, from: k, post: post, load: l})
				}
			}
		}
		if len(next) == 0 {
			return back(rows, furthest, furthest)
		}
		rows = append(rows, next)
		for post := range next {
			furthest = max(furthest, post)
		}
		if len(next[n]) > 0 {
			return back(rows, n, -1)
		}
	}
	return back(rows, furthest, furthest)
}

// from are the loads that may come next: of each number of posts the one that ends
// earliest.
func (q Question) from(first int, after float64) []Load {
	out := make(map[int]Load)
	for _, at := range q.Slots {
		if at < after-tolerance {
			continue
		}
		works := q.Works(at)
		volume, minutes := 0.0, 0.0
		for i := first; i < len(q.Volumes); i++ {
			volume, minutes = volume+q.Volumes[i], minutes+q.Minutes[i]
			if volume > q.Most+tolerance || minutes > works+tolerance {
				break
			}
			if l, ok := out[i]; !ok || at+minutes < l.End-tolerance {
				out[i] = Load{first, i, volume, at, at + minutes, at + works}
			}
		}
	}
	all := make([]Load, 0, len(out))
	for _, l := range out {
		all = append(all, l)
	}
	sort.Slice(all, func(a, b int) bool { return all[a].Last < all[b].Last })
	return all
}

// keep adds a state, unless another is as cheap and as early; and drops those that it
// is both cheaper and earlier than.
func keep(all []state, s state) []state {
	out := all[:0:0]
	for _, o := range all {
		if o.charge <= s.charge+tolerance && o.end <= s.end+tolerance {
			return all
		}
		if s.charge > o.charge+tolerance || s.end > o.end+tolerance {
			out = append(out, o)
		}
	}
	return append(out, s)
}

// back reads the loads of the best state in which so many posts are set.
func back(rows []map[int][]state, posts, stuck int) Answer {
	out := Answer{Stuck: stuck}
	row := 0
	for k := range rows { // the fewest loads
		if len(rows[k][posts]) > 0 {
			row = k
			break
		}
	}
	best, charge, end := -1, math.Inf(1), math.Inf(1)
	for k, s := range rows[row][posts] {
		if s.charge < charge-tolerance || s.charge < charge+tolerance && s.end < end {
			best, charge, end = k, s.charge, s.end
		}
	}
	if best < 0 {
		return out
	}
	out.Charge = charge
	for ; row > 0; row-- {
		s := rows[row][posts][best]
		out.Loads = append(out.Loads, s.load)
		posts, best = s.post, s.from
	}
	for a, b := 0, len(out.Loads)-1; a < b; a, b = a+1, b-1 {
		out.Loads[a], out.Loads[b] = out.Loads[b], out.Loads[a]
	}
	return out
}
