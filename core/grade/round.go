package grade

import (
	"math"

	"mallow/core/job"
)

// roundUp is how many increments above the lowest it may lie a panel is
// tried.
const roundUp = 14

// round lets panels drop by multiples of the increment, counted from the
// panel at the higher end, where the posts are set first. Of all choices that
// keep the limits, it takes the one whose panels lie nearest to their best
// heights on the whole: found by going from panel to panel with every height
// and every last drop that could still be part of it.
func (w *solving) round(first int, panels []panel, z []float64) {
	n := len(panels)
	order := make([]int, n) // panels from the higher end
	for i := range order {
		order[i] = i
		if panels[0].best < panels[n-1].best {
			order[i] = n - 1 - i
		}
	}
	base := w.base(first, panels, order)
	for _, limited := range []bool{true, false} { // limits that nothing keeps are let go, and reported
		if r := newRounding(w, panels, order, base, limited); r.run() {
			for i, k := range r.best() {
				z[order[i]] = base + float64(k)*r.by
			}
			return
		}
	}
}

// base is the height of the panel at the higher end: as the user holds it,
// else its best, else the best of the panels that are held level with it.
func (w *solving) base(first int, panels []panel, order []int) float64 {
	post := first
	if order[0] != 0 {
		post = first + len(panels)
	}
	if h, ok := w.held(post); ok {
		return float64(h)
	}
	base := panels[order[0]].best
	for i := range min(w.Grade.HoldLevel, len(order)) {
		if b := panels[order[i]].best; w.Grade.Give == job.Cut {
			base = min(base, b)
		} else {
			base = max(base, b)
		}
	}
	return base
}

// rounding is the search: for every panel, every height k and the drop d that
// led to it, the least cost so far, and the way there. Where a drop may differ
// from the one before by anything, the drop need not be kept.
type rounding struct {
	by, base   float64
	give       job.Give
	panels     []panel
	order      []int
	drop, ease int // limits in increments; ease 0: none
	level      int
	low        []int    // least k tried at each panel
	from       [][]int8 // by cell, the cell's own part that it was reached from
	cost, next []float64
}

// heights is how many are tried at each panel.
const heights = 2*roundUp + 1

// mostDrop keeps a drop in increments within a byte.
const mostDrop = 60

func newRounding(w *solving, panels []panel, order []int, base float64, limited bool) *rounding {
	r := &rounding{by: float64(w.Increment), base: base, give: w.Grade.Give, panels: panels, order: order, level: min(w.Grade.HoldLevel, len(order)), low: make([]int, len(order))}
	spread := 0
	for i, p := range order {
		if i > 0 {
			r.low[i] = r.lowest(panels[p])
			spread = max(spread, r.low[i]-r.low[i-1], r.low[i-1]-r.low[i])
		}
	}
	// A drop larger than the ground's own by all the heights that are tried
	// never helps.
	r.drop = spread + roundUp
	if limited {
		if most := w.Grade.StepMost; most != nil {
			r.drop = min(r.drop, int(float64(*most)/r.by+1e-6))
		}
		if r.ease = w.Grade.StepEase; r.ease > 0 {
			r.drop = min(r.drop, spread+overSpread(r.ease), mostDrop)
		}
	}
	return r
}

// overSpread is by how much a drop can be larger than any of the ground's. On
// the way to such a drop the panels sink towards their ground by the excess at
// every post, and no more than all the heights that are tried.
func overSpread(ease int) int {
	over, sunk := 0, 0
	for sunk < heights {
		over += ease
		sunk += over
	}
	return over
}

// lowest is the least height, in increments over the base, that a panel is
// tried at.
func (r *rounding) lowest(p panel) int {
	if f := p.floor(r.give); !math.IsInf(f, 0) {
		return int(math.Ceil((f-r.base)/r.by - 1e-6))
	}
	return int(math.Ceil((p.best-r.base)/r.by-1e-6)) - roundUp
}

// costOf is how far a panel at a height is from its best; infinite where it
// may not be. Panels held level are where they are held.
func (r *rounding) costOf(i, k int) float64 {
	p, z := r.panels[r.order[i]], r.base+float64(k)*r.by
	switch {
	case i < max(r.level, 1):
		if k != 0 {
			return math.Inf(1)
		}
	case z < p.floor(r.give)-1e-3 || z > p.ceiling(r.give)+1e-3:
		return math.Inf(1)
	}
	return math.Abs(z - p.best)
}

// width is how many cells each height has.
func (r *rounding) width() int {
	if r.ease == 0 {
		return 1
	}
	return 2*r.drop + 1
}

func (r *rounding) run() bool {
	n, size := len(r.order), heights*r.width()
	r.cost, r.next = make([]float64, size), make([]float64, size)
	back := make([]int8, n*size)
	r.from = make([][]int8, n)
	clear := func(v []float64) {
		for i := range v {
			v[i] = math.Inf(1)
		}
	}
	clear(r.cost)
	// Before the first panel the fence was level.
	r.cost[(0-r.low[0])*r.width()+r.width()/2] = r.costOf(0, 0)
	for i := range n {
		r.from[i] = back[i*size : (i+1)*size]
		if i == 0 {
			continue
		}
		clear(r.next)
		for h := range heights {
			own := r.costOf(i, r.low[i]+h)
			if math.IsInf(own, 1) {
				continue
			}
			if r.ease == 0 {
				r.free(i, h, own)
			} else {
				r.eased(i, h, own)
			}
		}
		r.cost, r.next = r.next, r.cost
	}
	for _, c := range r.cost {
		if !math.IsInf(c, 1) {
			return true
		}
	}
	return false
}

// free reaches a height from any height within the greatest drop.
func (r *rounding) free(i, h int, own float64) {
	for h0 := range heights {
		d := r.low[i] + h - r.low[i-1] - h0
		if d <= r.drop && d >= -r.drop && r.cost[h0]+own < r.next[h] {
			r.next[h], r.from[i][h] = r.cost[h0]+own, int8(h0)
		}
	}
}

// eased reaches a height by every drop, from drops that are near it.
func (r *rounding) eased(i, h int, own float64) {
	w := r.width()
	for d := -r.drop; d <= r.drop; d++ {
		h0 := r.low[i] + h - d - r.low[i-1]
		if h0 < 0 || h0 >= heights {
			continue
		}
		best, from := math.Inf(1), 0
		for e := max(-r.drop, d-r.ease); e <= min(r.drop, d+r.ease); e++ {
			if c := r.cost[h0*w+e+r.drop]; c < best {
				best, from = c, e
			}
		}
		if at := h*w + d + r.drop; best+own < r.next[at] {
			r.next[at], r.from[i][at] = best+own, int8(from)
		}
	}
}

// best follows the way back from where the least cost ends.
func (r *rounding) best() []int {
	w, end := r.width(), 0
	for at, c := range r.cost {
		if c < r.cost[end]-1e-9 {
			end = at
		}
	}
	out := make([]int, len(r.order))
	for i := len(out) - 1; i >= 0; i-- {
		h := end / w
		out[i] = r.low[i] + h
		if i == 0 {
			break
		}
		if r.ease == 0 {
			end = int(r.from[i][end])
			continue
		}
		d := end%w - r.drop
		end = (out[i]-d-r.low[i-1])*w + int(r.from[i][end]) + r.drop
	}
	return out
}
