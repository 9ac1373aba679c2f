package spacing

import (
	"slices"

	"mallow/core/length"
)

// Rail is one row of rails over a stretch: the posts at which a piece begins
// or ends, counted from the stretch's first.
type Rail struct {
	Joints []int // 0 and the last post among them
}

// Joints is how the rails of a stretch are broken.
type Joints struct {
	Rails  []Rail
	Pieces int   // of all rails
	Weak   []int // inner posts that carry a joint in every rail
}

// cost compares ways to break rails: fewest weak posts, then fewest pieces.
type cost struct{ weak, pieces int }

func (c cost) less(o cost) bool { return c.weak < o.weak || c.weak == o.weak && c.pieces < o.pieces }

// Stagger breaks rails of stock lengths on posts. A piece spans as many bays
// as it reaches; of two patterns, laid in turn one above the other, no inner
// post carries a joint in both where that can be had, and of those ways the
// one with the fewest pieces is taken. With a single rail nothing can be
// staggered: every joint is the post's only one.
//
// It looks at the posts one by one and keeps, for every pair of places where
// the two patterns' pieces now under way began, the best way to get there.
func Stagger(bays []length.Length, stock length.Length, rails int) Joints {
	if len(bays) == 0 || rails < 1 {
		return Joints{}
	}
	at := make([]length.Length, len(bays)+1)
	for i, b := range bays {
		at[i+1] = at[i] + b
	}
	above, below := rails/2, rails-rails/2 // how many rows follow each pattern
	steps := make([]map[state]step, len(at))
	steps[0] = map[state]step{{0, 0}: {cost: cost{pieces: rails}}}
	reaches := func(from, to int) bool { return at[to]-at[from] <= stock+length.Tolerance || to == from+1 }
	// States in the order they came up, so that of equal ways the same one is
	// always taken; a map has no order.
	order := []state{{0, 0}}
	for i := 1; i < len(at); i++ {
		steps[i] = map[state]step{}
		var next []state
		end := i == len(at)-1
		offer := func(s state, from state, c cost) {
			old, ok := steps[i][s]
			if !ok {
				next = append(next, s)
			}
			if !ok || c.less(old.cost) {
				steps[i][s] = step{from, c}
			}
		}
		for _, from := range order {
			s := steps[i-1][from]
			if !reaches(from.a, i) || above > 0 && !reaches(from.b, i) {
				continue
			}
			if end {
				offer(state{i, i}, from, s.cost)
				continue
			}
			c := s.cost
			offer(from, from, c)
			offer(state{i, from.b}, from, weakIf(cost{c.weak, c.pieces + below}, above == 0))
			if above > 0 {
				offer(state{from.a, i}, from, cost{c.weak, c.pieces + above})
				offer(state{i, i}, from, weakIf(cost{c.weak, c.pieces + above + below}, true))
			}
		}
		order = next
	}
	last := state{len(at) - 1, len(at) - 1}
	out := Joints{Rails: make([]Rail, rails), Pieces: steps[last.a][last].cost.pieces, Weak: []int{}}
	patterns := [2][]int{}
	for i, s := len(at)-1, last; ; i, s = i-1, steps[i][s].from {
		if s.a == i {
			patterns[0] = append(patterns[0], i)
		}
		if s.b == i {
			patterns[1] = append(patterns[1], i)
		}
		if s.a == i && (s.b == i || above == 0) && i > 0 && i < len(at)-1 {
			out.Weak = append(out.Weak, i)
		}
		if i == 0 {
			break
		}
	}
	for _, p := range patterns {
		slices.Reverse(p)
	}
	slices.Reverse(out.Weak)
	for r := range out.Rails {
		out.Rails[r].Joints = patterns[r%2]
	}
	return out
}

// state is where the pieces now under way began, in each pattern.
type state struct{ a, b int }

// step is the best way to a state.
type step struct {
	from state
	cost cost
}

func weakIf(c cost, weak bool) cost {
	if weak {
		c.weak++
	}
	return c
}
