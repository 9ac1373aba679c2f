package spacing

import (
	"slices"

	"mallow/core/length"
)

// A post's shift is how far it stands from its regular place: i regular bays
// from the start. The first post's shift is 0, the last one's what the
// regular bays leave over; a bay is odd exactly where the shift changes, and
// departs from the regular one by that change. So the fewest odd bays is the
// fewest changes on the way from the first shift to the last, past the shifts
// that the closed pieces rule out. That is found from the end back: for each
// post, the shifts from which the end can be had with no more than k changes.

// bounds is what the search may do.
type bounds struct {
	fall, rise int64 // least and most change at a bay, fall <= 0 <= rise
	from, to   int64 // least and most shift
	more       int   // how many more odd bays are looked at than from a post's best place
}

// toGo is, for one post, how many odd bays are still needed from each shift:
// within[k] are the shifts with at most base+k. The sets are nested.
type toGo struct {
	base   int
	within []spans
}

// need returns how many odd bays are needed from a shift, or -1.
func (g *toGo) need(shift int64) int {
	for k, s := range g.within {
		if _, in := s.find(shift); in {
			return g.base + k
		}
	}
	return -1
}

// at returns the shifts from which k odd bays are enough.
func (g *toGo) at(k int) spans {
	if k < g.base || len(g.within) == 0 {
		return nil
	}
	return g.within[min(k-g.base, len(g.within)-1)]
}

// chain is a stretch with a number of bays.
type chain struct {
	n    int
	rest int64   // the last post's shift
	open []spans // per post: shifts that are open; nil: any
	toGo []*toGo // per post, once solved
	room room
}

// shift finds the best shifts for n bays, as Stretch says, or none.
func (p problem) shift(n int, regular length.Length) ([]int64, bool) {
	c := chain{n: n, open: make([]spans, n+1), rest: p.long - nearest(regular*length.Length(n))}
	whole := nearest(regular)
	b := bounds{
		fall: min(0, -down(regular-length.Length(p.least)*unit)), rise: max(0, down(length.Length(p.most)*unit-regular)),
		from: min(0, c.rest) - whole + 1, to: max(0, c.rest) + whole - 1, more: endurance,
	}
	if p.module == 0 && regular < p.longest() {
		b.more = patience
	}
	if p.shared && c.rest != 0 && n > 1 {
		half := (abs(c.rest)/2/p.mark + 1) * p.mark
		b.fall, b.rise = max(b.fall, -half), min(b.rise, half)
	}
	if n == 1 {
		if c.rest < b.fall && p.least > p.long { // one bay is what there is room for
			b.fall = c.rest
		}
	}
	c.look(p, regular, b)
	if c.plain() {
		return make([]int64, n+1), true
	}
	fewest := c.solve(b)
	if fewest < 0 {
		return nil, false
	}
	enough := func(b bounds) bool { return c.reaches(b, fewest) }
	way := c.walk(b)
	even, changed := tighten(b, p.mark, uneven(way), enough, func(b bounds, to int64) bounds {
		b.fall, b.rise = max(b.fall, -to), min(b.rise, to)
		return b
	})
	if changed {
		c.solve(even)
		way = c.walk(even)
	}
	near, changed := tighten(even, p.mark, off(way, c.rest), enough, func(b bounds, to int64) bounds {
		b.from, b.to = max(b.from, min(0, c.rest)-to), min(b.to, max(0, c.rest)+to)
		return b
	})
	if changed {
		c.solve(near)
		way = c.walk(near)
	}
	return way, true
}

// uneven is by how much the oddest bay of a way departs.
func uneven(way []int64) int64 {
	most := int64(0)
	for i := 1; i < len(way); i++ {
		most = max(most, abs(way[i]-way[i-1]))
	}
	return most
}

// off is how far a way's farthest post is off its regular place, beyond what
// the remainder brings.
func off(way []int64, rest int64) int64 {
	most := int64(0)
	for _, x := range way {
		most = max(most, x-max(0, rest), min(0, rest)-x)
	}
	return most
}

// tighten finds the smallest limit, in whole marks, that is still enough; most
// is, for a way is known that keeps to it. A smaller limit never makes more
// possible, so halving finds it; the known way is often the best already, so
// the limits just under it are tried first.
func tighten(b bounds, mark, most int64, enough func(bounds) bool, limit func(bounds, int64) bounds) (bounds, bool) {
	lo, hi := int64(-1), (most+mark-1)/mark // hi is enough, lo is not
	first := hi
	for step := int64(1); hi-step > lo; step *= 2 {
		if !enough(limit(b, (hi-step)*mark)) {
			lo = hi - step
			break
		}
		hi -= step
	}
	for hi-lo > 1 {
		mid := (lo + hi) / 2
		if enough(limit(b, mid*mark)) {
			hi = mid
		} else {
			lo = mid
		}
	}
	return limit(b, hi*mark), hi < first
}

// look notes which shifts are open to each post.
func (c *chain) look(p problem, regular length.Length, b bounds) {
	first := 0 // open stretch that may hold the next post
	for i := 1; i < c.n; i++ {
		at := regular * length.Length(i)
		base := at / unit
		lo, hi := up(at)+b.from, down(at)+b.to
		for first < len(p.open) && p.open[first].to < lo {
			first++
		}
		if first < len(p.open) && p.open[first].from <= lo && p.open[first].to >= hi {
			continue
		}
		open := spans{}
		for k := first; k < len(p.open) && p.open[k].from <= hi; k++ {
			// To units inwards: the regular place need not be a whole one.
			from := up((length.Length(p.open[k].from) - base) * unit)
			to := down((length.Length(p.open[k].to) - base) * unit)
			if from <= to {
				open = append(open, span{from, to})
			}
		}
		c.open[i] = open
	}
}

// plain tells whether every post can stand in its regular place.
func (c *chain) plain() bool {
	for _, open := range c.open {
		if _, in := open.find(0); open != nil && !in {
			return false
		}
	}
	return c.rest == 0
}

// solve works from the last post to the first, keeping for each what is still
// needed, and returns how few odd bays lead from start to end, or -1.
func (c *chain) solve(b bounds) int {
	c.toGo = make([]*toGo, c.n+1)
	g := &toGo{within: []spans{{{c.rest, c.rest}}}}
	c.toGo[c.n] = g
	settled := false
	for i := c.n - 1; i >= 0; i-- {
		if open := c.open[i]; open != nil {
			g, settled = g.before(b, open, &c.room), false
		} else if !settled { // once a free post changes nothing, no free post does
			next := g.before(b, nil, &c.room)
			settled = next.equal(g)
			g = next
		}
		if len(g.within) == 0 {
			return -1
		}
		c.toGo[i] = g
	}
	return g.need(0)
}

// ahead is, for one post, where it can stand on a best way: by[k] are its
// shifts once base+k odd bays lie behind it.
type ahead struct {
	base int
	by   []spans
}

// after is where the next post can stand on a best way of total odd bays,
// under bounds that are tighter than the ones g was found with.
func (a ahead) after(b bounds, total int, open spans, g *toGo, r *room, by []spans) ahead {
	out := ahead{base: a.base, by: by[:0]}
	for k := 0; k <= len(a.by); k++ {
		var s spans
		if k < len(a.by) {
			s = a.by[k]
		}
		if k > 0 {
			s = s.or(a.by[k-1].moved(b.fall, b.rise, span{b.from, b.to}, r), r)
		}
		if s = s.and(g.at(total-a.base-k), r); open != nil {
			s = s.and(open, r)
		}
		if len(s) == 0 && len(out.by) == 0 {
			out.base++
			continue
		}
		out.by = append(out.by, s)
	}
	for len(out.by) > 0 && len(out.by[len(out.by)-1]) == 0 {
		out.by = out.by[:len(out.by)-1]
	}
	return out
}

// reaches tells whether a way of total odd bays exists under tighter bounds.
func (c *chain) reaches(b bounds, total int) bool {
	a := ahead{by: []spans{{{0, 0}}}}
	settled := false
	r, spare := room{}, []spans(nil)
	for i := 1; i <= c.n; i++ {
		if c.open[i] == nil && settled && c.toGo[i] == c.toGo[i-1] {
			continue
		}
		next := a.after(b, total, c.open[i], c.toGo[i], &r, spare)
		if len(next.by) == 0 {
			return false
		}
		settled = c.open[i] == nil && next.equal(a)
		a, spare = next, a.by
	}
	return true
}

func (a ahead) equal(o ahead) bool {
	return a.base == o.base && slices.EqualFunc(a.by, o.by, spans.equal)
}

func (g *toGo) equal(o *toGo) bool {
	return g.base == o.base && slices.EqualFunc(g.within, o.within, spans.equal)
}

// patience is how many odd bays equal bays are worth: see Stretch.
const patience = 16

// endurance bounds the search where bays can give next to nothing, so that
// getting a little way takes very many odd ones.
const endurance = 64

// before is what is needed from the post before: to keep the shift, or to
// change it at the cost of one odd bay.
func (g *toGo) before(b bounds, open spans, r *room) *toGo {
	out := &toGo{base: g.base, within: make([]spans, 0, len(g.within)+1)}
	last := spans(nil)
	for k := 0; k <= len(g.within) && len(out.within) < b.more; k++ {
		s := g.at(g.base + k)
		if k > 0 {
			s = s.or(g.within[k-1].moved(-b.rise, -b.fall, span{b.from, b.to}, r), r)
		}
		if open != nil {
			s = s.and(open, r)
		}
		if len(s) == 0 && len(out.within) == 0 {
			out.base++
			continue
		}
		if k >= len(g.within) && s.equal(last) {
			break
		}
		out.within, last = append(out.within, s), s
	}
	return out
}

// walk follows the answers of solve from the first post to the last, keeping each post
// as near to its regular place as the fewest odd bays allow.
func (c *chain) walk(b bounds) []int64 {
	all, out := c.toGo, make([]int64, c.n+1)
	left := all[0].need(0)
	for i := 1; i <= c.n; i++ {
		at := out[i-1]
		keep := all[i].need(at) == left
		to, change := all[i].at(left-1).closest(at+b.fall, at+b.rise)
		if keep && (!change || abs(at) <= abs(to)) {
			out[i] = at
			continue
		}
		out[i], left = to, left-1
	}
	return out
}
