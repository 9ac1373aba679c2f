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
	w := &breaking{at: make([]length.Length, len(bays)+1), stock: stock, above: rails / 2, below: rails - rails/2}
	for i, b := range bays {
		w.at[i+1] = w.at[i] + b
	}
	w.steps = make([]map[state]step, len(w.at))
	w.steps[0] = map[state]step{{0, 0}: {cost: cost{pieces: rails}}}
	order := []state{{0, 0}}
	for i := 1; i < len(w.at); i++ {
		order = w.post(i, order)
	}
	patterns, weak := w.back()
	last := state{len(bays), len(bays)}
	out := Joints{Rails: make([]Rail, rails), Pieces: w.steps[last.a][last].cost.pieces, Weak: weak}
	for r := range out.Rails {
		out.Rails[r].Joints = patterns[r%2]
	}
	return out
}

// breaking is the search for the best way to break rails, post by post.
type breaking struct {
	at           []length.Length // of the posts
	stock        length.Length
	above, below int // how many rows follow each pattern
	steps        []map[state]step
}

func (w *breaking) reaches(from, to int) bool {
	return w.at[to]-w.at[from] <= w.stock+length.Tolerance || to == from+1
}

// post finds the best way to each state at a post from those at the post
// before, and returns the states in the order they came up, so that of equal
// ways the same one is always taken; a map has no order.
func (w *breaking) post(i int, before []state) []state {
	w.steps[i] = map[state]step{}
	var order []state
	offer := func(s, from state, c cost) {
		old, ok := w.steps[i][s]
		if !ok {
			order = append(order, s)
		}
		if !ok || c.less(old.cost) {
			w.steps[i][s] = step{from, c}
		}
	}
	for _, from := range before {
		c := w.steps[i-1][from].cost
		if !w.reaches(from.a, i) || w.above > 0 && !w.reaches(from.b, i) {
			continue
		}
		if i == len(w.at)-1 { // every piece ends here
			offer(state{i, i}, from, c)
			continue
		}
		offer(from, from, c)
		offer(state{i, from.b}, from, weakIf(cost{c.weak, c.pieces + w.below}, w.above == 0))
		if w.above > 0 {
			offer(state{from.a, i}, from, cost{c.weak, c.pieces + w.above})
			offer(state{i, i}, from, weakIf(cost{c.weak, c.pieces + w.above + w.below}, true))
		}
	}
	return order
}

// back goes the best way from the last post to the first: the joints of both
// patterns, and the inner posts that carry one in every rail.
func (w *breaking) back() (patterns [2][]int, weak []int) {
	last := len(w.at) - 1
	weak = []int{}
	for i, s := last, (state{last, last}); i >= 0; i, s = i-1, w.steps[i][s].from {
		if s.a == i {
			patterns[0] = append(patterns[0], i)
		}
		if s.b == i {
			patterns[1] = append(patterns[1], i)
		}
		if s.a == i && (s.b == i || w.above == 0) && i > 0 && i < last {
			weak = append(weak, i)
		}
	}
	slices.Reverse(patterns[0])
	slices.Reverse(patterns[1])
	slices.Reverse(weak)
	return patterns, weak
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
