package grade

import (
	"math"
	"slices"

	"mallow/core/qp"
)

// nearWeight settles what breaks leave open, a line without any for one: it
// lies low.
const nearWeight = 1e-4

// smooth finds the heights with which a line through the given posts breaks
// least, and the sum of the squares of its breaks.
func (r *roll) smooth(knots []int) (heights []float64, cost float64, ok bool) {
	return r.smoothPart(knots, nil, nil)
}

// hold keeps the line between two posts inside its limits, and its slope inside
// what panels can lean.
func (r *roll) hold(p *qp.Program, a, b, prev, next int, lows, highs []bound) {
	for _, l := range lows {
		p.AtLeast(l.height, qp.Term{At: prev, By: 1 - l.part}, qp.Term{At: next, By: l.part})
	}
	for _, h := range highs {
		p.AtMost(h.height, qp.Term{At: prev, By: 1 - h.part}, qp.Term{At: next, By: h.part})
	}
	if rise := r.rise(a, b); !math.IsInf(rise, 1) {
		p.AtMost(rise, qp.Term{At: prev, By: 1}, qp.Term{At: next, By: -1})
		p.AtLeast(-rise, qp.Term{At: prev, By: 1}, qp.Term{At: next, By: -1})
	}
}

// joined counts the break at an end post where the line comes from a place
// that stays; inner is the next post inside.
func (r *roll) joined(p *qp.Program, o *outside, end, inner, endNode, innerNode int) {
	if o == nil {
		return
	}
	in, out := r.regular/math.Abs(r.at[inner]-r.at[end]), r.regular/o.distance
	p.Square(1, -out*o.height, qp.Term{At: innerNode, By: in}, qp.Term{At: endNode, By: -in - out})
}

// smoothPart does so with the slope before the first post, and after the last,
// given where the line goes on there.
func (r *roll) smoothPart(knots []int, before, after *outside) (heights []float64, cost float64, ok bool) {
	if !r.possible(knots) {
		return nil, 0, false
	}
	// A flat gate's two posts share one height.
	node := make([]int, len(knots))
	for k := 1; k < len(knots); k++ {
		if node[k] = node[k-1] + 1; r.flat[knots[k-1]] {
			node[k]--
		}
	}
	p := qp.New(node[len(knots)-1]+1, 2)
	p.Loosely(r.loose)
	for k, at := range knots {
		if f := r.fixed[at]; f != nil {
			p.Fix(node[k], *f)
		}
	}
	var lows, highs []bound
	for k, at := range knots {
		p.Square(nearWeight, r.near[at], qp.Term{At: node[k], By: 1})
		if k > 0 && !r.flat[knots[k-1]] {
			lows, highs = r.limits(knots[k-1], at, lows[:0], highs[:0])
			r.hold(p, knots[k-1], at, node[k-1], node[k], lows, highs)
		}
		if t := r.breakAt(knots, k); t != nil {
			for i := range t {
				t[i].At = node[t[i].At]
			}
			p.Square(1, 0, t...)
		}
	}
	r.joined(p, before, knots[0], knots[1], node[0], node[1])
	last := len(knots) - 1
	r.joined(p, after, knots[last], knots[last-1], node[last], node[last-1])
	x, ok := p.Solve()
	if !ok {
		return nil, 0, false
	}
	heights = make([]float64, len(knots))
	for k := range knots {
		heights[k] = x[node[k]]
	}
	for k := range knots {
		cost += r.broken(knots, heights, k)
	}
	return heights, cost, true
}

// possible tells whether any line breaks at no other posts than these.
func (r *roll) possible(knots []int) bool {
	v := interval{-1e7, 1e7}
	if f := r.fixed[knots[0]]; f != nil {
		v = interval{*f, *f}
	}
	for k := 1; k < len(knots); k++ {
		a, b := knots[k-1], knots[k]
		reached := r.flat[a] && b == a+1
		r.walk(a, rays(v.low, v.high), func(to int, lines polygon) bool {
			if to == b {
				reached, v = true, lines.heightsAt(r.at[b]-r.at[a])
			}
			return to < b
		})
		if !reached {
			return false
		}
		if f := r.fixed[b]; f != nil {
			v = interval{*f, *f}
		}
	}
	return true
}

// outside is a post beyond the part that is looked at, whose height stays.
type outside struct{ distance, height float64 }

// breakAt is the break at a post as terms of the heights; nil where none is
// counted: at ends, gates and corners.
func (r *roll) breakAt(knots []int, k int) []qp.Term {
	if k == 0 || k == len(knots)-1 || r.flat[knots[k-1]] || r.flat[knots[k]] || r.corner[knots[k]] {
		return nil
	}
	before, after := r.regular/(r.at[knots[k]]-r.at[knots[k-1]]), r.regular/(r.at[knots[k+1]]-r.at[knots[k]])
	return []qp.Term{{At: k - 1, By: before}, {At: k, By: -before - after}, {At: k + 1, By: after}}
}

func (r *roll) broken(knots []int, heights []float64, k int) float64 {
	sum := 0.0
	for _, t := range r.breakAt(knots, k) {
		sum += t.By * heights[t.At]
	}
	return sum * sum
}

// limits bounds a straight piece between two posts, by parts of its length.
func (r *roll) limits(a, b int, lows, highs []bound) (low, high []bound) {
	long := r.at[b] - r.at[a]
	for bay := a; bay < b; bay++ {
		from, wide := (r.at[bay]-r.at[a])/long, (r.at[bay+1]-r.at[bay])/long
		for _, l := range r.low[bay] {
			lows = hull(lows, 0, bound{from + l.part*wide, l.height}, 1)
		}
		for _, h := range r.high[bay] {
			highs = hull(highs, 0, bound{from + h.part*wide, h.height}, -1)
		}
	}
	return lows, highs
}

// rise is how far a straight piece may rise or fall by its panels' rack.
func (r *roll) rise(a, b int) float64 {
	least := steepest
	for bay := a; bay < b; bay++ {
		least = math.Min(least, r.steep[bay])
	}
	if least >= steepest {
		return math.Inf(1)
	}
	return least * (r.at[b] - r.at[a])
}

// anyWay goes back from the end by any heights that are reached with the
// fewest grade posts.
func (r *roll) anyWay(fewest int) (knots []int, ok bool) {
	knots, _, ok = r.anyLine(fewest)
	return knots, ok
}

// anyLine is anyWay with the heights at the posts.
func (r *roll) anyLine(fewest int) (knots []int, heights []float64, ok bool) {
	p, count := len(r.steep), fewest
	v := r.reach[p][0].heights[0]
	y := (v.low + v.high) / 2
	knots, heights = []int{p}, []float64{y}
	for p > 0 {
		q, c, z, found := r.back(p, count, y)
		if !found {
			return nil, nil, false
		}
		p, count, y = q, c, z
		knots, heights = append(knots, p), append(heights, y)
	}
	slices.Reverse(knots)
	slices.Reverse(heights)
	return knots, heights, true
}

// back finds a post, and a height there, from which a straight piece reaches
// the given height with the given count.
func (r *roll) back(p, count int, y float64) (post, before int, height float64, ok bool) {
	const close = 1e-6
	before = count - r.cost(p)
	for q := p - 1; q >= 0 && q >= p-mostBays; q-- {
		if q < p-1 && r.stop[q+1] {
			break
		}
		for _, l := range r.reach[q] {
			if l.count != before {
				continue
			}
			for _, v := range l.heights {
				if r.flat[q] {
					if y >= v.low-close && y <= v.high+close {
						return q, before, y, true
					}
					continue
				}
				found := false
				r.walk(q, rays(v.low, v.high), func(to int, lines polygon) bool {
					if to < p {
						return true
					}
					d := r.at[p] - r.at[q]
					if lines = slices.Clone(lines).clip(1, d, y+close, nil); len(lines) > 0 {
						if lines = lines.clip(-1, -d, close-y, nil); len(lines) > 0 {
							found = true
							height = 0
							for _, ray := range lines {
								height += ray.height / float64(len(lines))
							}
						}
					}
					return false
				})
				if found {
					return q, before, height, true
				}
			}
		}
		if r.flat[q] {
			break
		}
	}
	return 0, 0, 0, false
}

const (
	// around is how many posts either side of one that moves are let follow.
	around = 3
	// mostMove is how far, in posts, one is moved at once.
	mostMove = 2
	// mostMoved is up to how many grade posts a line may have for them to be
	// moved at all: beyond, they stand where the search first found them, and
	// only their heights are the smoothest.
	mostMoved = 40
	// mostMoves ends what would go on for too long.
	mostMoves = 4
	// looseTrials is how much less exact trials are solved.
	looseTrials = 1e5
)

// improve moves grade posts one at a time, as long as some move makes the
// line smoother: what is found is smoother than any line that differs by one
// post's move.
func (r *roll) improve(knots []int) (_ []int, heights []float64, ok bool) {
	heights, _, ok = r.smooth(knots)
	if !ok {
		return nil, nil, false
	}
	count := 0
	for _, k := range knots {
		count += r.cost(k)
	}
	if count > mostMoved {
		return knots, heights, true
	}
	r.loose = looseTrials
	defer func() { r.loose = 1 }()
	stale := make([]bool, len(knots)) // worth looking at again
	for k := range stale {
		stale[k] = true
	}
	for range mostMoves {
		moved := false
		for k := 1; k+1 < len(knots); k++ {
			if r.free[knots[k]] || !stale[k] {
				continue
			}
			if stale[k] = false; r.move(knots, heights, k) {
				moved = true
				for j := max(0, k-2); j <= min(len(knots)-1, k+2); j++ {
					stale[j] = true
				}
			}
		}
		if !moved {
			break
		}
	}
	r.loose = 1
	heights, _, ok = r.smooth(knots)
	return knots, heights, ok
}

// move tries a grade post elsewhere between its neighbours, with the heights
// around it free and those farther off staying.
func (r *roll) move(knots []int, heights []float64, k int) bool {
	from, to := max(0, k-around), min(len(knots)-1, k+around)
	var before, after *outside
	if from > 0 && !r.flat[knots[from-1]] && !r.flat[knots[from]] {
		before = &outside{r.at[knots[from]] - r.at[knots[from-1]], heights[from-1]}
	}
	if to < len(knots)-1 && !r.flat[knots[to]] && !r.flat[knots[to-1]] {
		after = &outside{r.at[knots[to+1]] - r.at[knots[to]], heights[to+1]}
	}
	part := slices.Clone(knots[from : to+1])
	// The ends stay where they are, so that the rest of the line does.
	pinnedEnds := func(trial []int) ([]float64, float64, bool) {
		keep := [2]*float64{r.fixed[trial[0]], r.fixed[trial[len(trial)-1]]}
		a, b := heights[from], heights[to]
		if from > 0 {
			r.fixed[trial[0]] = &a
		}
		if to < len(knots)-1 {
			r.fixed[trial[len(trial)-1]] = &b
		}
		y, cost, ok := r.smoothPart(trial, before, after)
		r.fixed[trial[0]], r.fixed[trial[len(trial)-1]] = keep[0], keep[1]
		if ok {
			cost += outer(r, trial, y, before, after)
		}
		return y, cost, ok
	}
	best, least, ok := pinnedEnds(part)
	if !ok {
		return false
	}
	at := part[k-from]
	chosen := at
	for _, by := range []int{-1, 1, -mostMove, mostMove} {
		p := at + by
		if p <= part[k-from-1] || p >= part[k-from+1] {
			continue
		}
		part[k-from] = p
		if y, cost, ok := pinnedEnds(part); ok && cost < least*(1-1e-6)-1e-6 {
			best, least, chosen = y, cost, p
		}
	}
	copy(heights[from:to+1], best)
	knots[k] = chosen
	return chosen != at
}

// outer is what the breaks at a part's own ends cost.
func outer(r *roll, knots []int, y []float64, before, after *outside) float64 {
	sum := 0.0
	n := len(knots)
	if before != nil {
		b := r.regular*(y[1]-y[0])/(r.at[knots[1]]-r.at[knots[0]]) - r.regular*(y[0]-before.height)/before.distance
		sum += b * b
	}
	if after != nil {
		b := r.regular*(after.height-y[n-1])/after.distance - r.regular*(y[n-1]-y[n-2])/(r.at[knots[n-1]]-r.at[knots[n-2]])
		sum += b * b
	}
	return sum
}
