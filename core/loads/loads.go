// Package loads breaks a pour into loads of concrete, so that every post is in before
// its load stiffens. It finds the fewest loads; of those the least that is paid for
// short ones; of those the earliest end.
package loads

import (
	"math"
	"slices"
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
	rows := [][][]state{make([][]state, n+1)} // by loads, then by posts that are set
	rows[0][0] = []state{{from: -1}}
	known := make([]coming, n)
	furthest := 0
	for len(rows) <= n {
		last, next, any := rows[len(rows)-1], make([][]state, n+1), false
		for post, states := range last[:n] {
			if len(states) > 0 && known[post] == nil {
				known[post] = q.coming(post)
			}
			for k, s := range states {
				for _, l := range q.from(known[post], s.end) {
					charge := s.charge
					if q.Charge != nil {
						charge += q.Charge(l.Volume)
					}
					any, furthest = true, max(furthest, l.Last+1)
					next[l.Last+1] = keep(next[l.Last+1], state{charge: charge, end: l.End, from: k, post: post, load: l})
				}
			}
		}
		if !any {
			return back(rows, furthest, furthest)
		}
		rows = append(rows, next)
		if len(next[n]) > 0 {
			return back(rows, n, -1)
		}
	}
	return back(rows, furthest, furthest)
}

// coming are the loads that may come next after so many posts: for each slot, of each
// number of posts, the one that ends earliest of those that come then or later. They are
// found once, from the last slot back to the first.
type coming [][]Load

func (q Question) coming(first int) coming {
	out := make(coming, len(q.Slots)+1)
	for k := len(q.Slots) - 1; k >= 0; k-- {
		at := q.Slots[k]
		works := q.Works(at)
		later := out[k+1]
		now := later
		volume, minutes := 0.0, 0.0
		for i := first; i < len(q.Volumes); i++ {
			volume, minutes = volume+q.Volumes[i], minutes+q.Minutes[i]
			if volume > q.Most+tolerance || minutes > works+tolerance {
				break
			}
			n := i - first
			if n < len(later) && later[n].End < at+minutes+tolerance {
				continue
			}
			if len(now) > 0 && len(later) > 0 && &now[0] == &later[0] {
				now = slices.Clone(later) // the slots after this one keep theirs
			}
			l := Load{first, i, volume, at, at + minutes, at + works}
			if n < len(now) {
				now[n] = l
			} else {
				now = append(now, l)
			}
		}
		out[k] = now
	}
	return out
}

// from are the loads that may come at a time or later.
func (q Question) from(c coming, after float64) []Load {
	return c[sort.Search(len(q.Slots), func(k int) bool { return q.Slots[k] >= after-tolerance })]
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
func back(rows [][][]state, posts, stuck int) Answer {
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
