package spacing

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"sort"

	"mallow/core/length"
)

// Closed is a piece of a stretch where no post can stand: what is in the way,
// widened by half a hole either side. A post may stand on its very edge.
type Closed struct {
	From, To length.Length
	Of       int  // what it comes from, as the caller counts
	Yields   bool // where not everything can be met, it is given up before one that does not
}

// Stretch is what is asked of the posts between two fixed ones.
//
// The regular bay is Module, or, when that is 0, the stretch divided by the
// number of its bays; where what is in the way rules those out, the longest
// bay. A bay of any other length is odd. Of all layouts in
// which every bay is between Least and Most and no post stands in a closed
// piece, Solve finds the best, comparing in this order:
//
//  1. the fewest posts;
//  2. the fewest odd bays;
//  3. the most even: the bay that departs most from the regular one departs
//     by as few whole tape marks as can be;
//  4. the closest to the plain layout: the post that is farthest from its
//     regular place, beyond what the remainder brings, is off it by as few
//     whole marks as can be; and then, post by post from the start, each as
//     near to its regular place as it can be.
//
// No post moves a whole bay or more from its regular place: past that it would
// be another post's. Equal bays are given up, too, for the longest ones where a
// post could only stand so that the way to the end takes patience odd bays more
// than from the best place for it; in a stretch of up to patience bays that
// cannot be. Of the longest bays and of modules endurance is asked, as far
// again; and no more than endurance posts are tried beyond the fewest that
// could do.
type Stretch struct {
	From, To       length.Length
	Least, Most    length.Length // of a bay, centre to centre
	Module         length.Length // the regular bay; 0: all bays equal
	RemainderFirst bool          // the remainder of a module goes to the start, not the end
	Shared         bool          // it is shared over two bays even where one could take it
	Mark           length.Length // the tape's smallest mark
	Closed         []Closed
}

// Answer is the best layout of a stretch.
type Answer struct {
	Posts   []length.Length // stations, the two fixed posts among them
	Regular length.Length   // the regular bay
	Odd     int             // bays of another length
	Uneven  length.Length   // by how much the oddest bay departs
	Shift   length.Length   // how far the farthest post is off its regular place
	Block   *Block          // set where no layout honours every demand
}

// Block says what cannot be met. The answer beside it leaves out the demands
// that are named here.
type Block struct {
	From, To length.Length // the place where the posts get stuck
	Over     length.Length // how much longer the longest bay would have to be; 0 where none would do
	Of       []int         // the closed pieces that were left out, as the caller counts
	Short    bool          // a bay under the least was needed
}

// problem is a stretch in units, from 0.
type problem struct {
	long, least, most, module int64
	mark                      int64
	shared                    bool
	open                      spans // where posts may stand, 0 and long among them
}

// Solve finds the best layout of a stretch.
func Solve(s Stretch) Answer {
	if s.RemainderFirst {
		a := Solve(s.mirrored())
		n := len(a.Posts)
		out := make([]length.Length, n)
		for i, p := range a.Posts {
			out[n-1-i] = s.From + s.To - p
		}
		out[0], out[n-1] = s.From, s.To
		a.Posts = out
		if a.Block != nil {
			a.Block.From, a.Block.To = s.From+s.To-a.Block.To, s.From+s.To-a.Block.From
		}
		return a
	}
	closed := within(s.Closed, s.From, s.To)
	if a, ok := s.solve(closed); ok {
		return a
	}
	return s.relax(closed)
}

func (s Stretch) mirrored() Stretch {
	m := s
	m.RemainderFirst = false
	m.Closed = make([]Closed, len(s.Closed))
	for i, c := range s.Closed {
		m.Closed[i] = Closed{From: s.From + s.To - c.To, To: s.From + s.To - c.From, Of: c.Of, Yields: c.Yields}
	}
	return m
}

// within keeps the closed pieces inside the stretch, in order of their start.
func within(all []Closed, from, to length.Length) []Closed {
	out := make([]Closed, 0, len(all))
	for _, c := range all {
		if c.To > from && c.From < to && c.To > c.From {
			out = append(out, c)
		}
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].From < out[b].From })
	return out
}

func (s Stretch) problem(closed []Closed) problem {
	p := problem{
		long: nearest(s.To - s.From), least: up(s.Least), most: down(s.Most),
		module: nearest(s.Module), mark: max(1, nearest(s.Mark)), shared: s.Shared,
	}
	// A post may stand on the edge: the closed pieces are open at their ends.
	at := int64(0)
	for _, c := range closed {
		from, to := down(c.From-s.From), up(c.To-s.From)
		if from >= at {
			p.open = append(p.open, span{at, min(from, p.long)})
		}
		at = max(at, to)
	}
	if at <= p.long {
		p.open = append(p.open, span{at, p.long})
	}
	// The two fixed posts stand where they stand.
	ends := spans{{0, 0}, {p.long, p.long}}
	r := &room{}
	p.open = ends[:1:1].or(p.open, r).or(ends[1:], r)
	return p
}

// longest is the longest bay.
func (p problem) longest() length.Length { return length.Length(p.most) * unit }

// bays is how many bays are tried at most: with more, each would have to be
// shorter than the least.
func (p problem) bays() int {
	if p.least <= 0 {
		return int(p.long/max(1, p.mark)) + 1
	}
	return int(max(1, p.long/p.least))
}

// solve looks for the layout with the fewest posts, and of those the best.
func (s Stretch) solve(closed []Closed) (Answer, bool) {
	p := s.problem(closed)
	fewest, most := p.farthest(), p.bays()
	for n := fewest; n <= most; n++ {
		if n == fewest+2 { // it is worth looking whether any number will do
			if !p.possible() {
				return Answer{}, false
			}
			first, _ := p.reach()
			n = max(n, first)
			most = min(most, n+endurance)
		}
		if a, ok := s.with(p, n); ok {
			return a, true
		}
	}
	return Answer{}, false
}

// with solves for a given number of bays.
func (s Stretch) with(p problem, n int) (Answer, bool) {
	regular := s.Module
	if regular == 0 {
		regular = (s.To - s.From) / length.Length(n)
	}
	shifts, ok := p.shift(n, regular)
	if !ok && s.Module == 0 {
		regular = s.Most
		shifts, ok = p.shift(n, regular)
	}
	if !ok {
		return Answer{}, false
	}
	a := Answer{Regular: regular, Posts: make([]length.Length, n+1)}
	for i := range a.Posts {
		// From the start each time: bays that are added up drift.
		a.Posts[i] = s.From + regular*length.Length(i) + length.Length(shifts[i])*unit
		a.Shift = max(a.Shift, length.Length(abs(shifts[i]))*unit)
		if i > 0 && shifts[i] != shifts[i-1] {
			a.Odd++
			a.Uneven = max(a.Uneven, length.Length(abs(shifts[i]-shifts[i-1]))*unit)
		}
	}
	a.Posts[0], a.Posts[n] = s.From, s.To
	return a, true
}

// relax gives up demands until a layout is found, and says which: first the
// least bay, then closed pieces: as few as can be of those that cannot be dug
// out, of those as few as can be of the others, of those the narrowest. What is
// given up does not depend on the end that is looked from.
func (s Stretch) relax(closed []Closed) Answer {
	short := s
	short.Least = s.Least / 4
	if a, ok := short.solve(closed); ok {
		a.Block = &Block{From: s.From, To: s.To, Short: true}
		return a
	}
	block := &Block{Over: s.over(closed)}
	drop := s.giveUp(closed)
	block.From, block.To = s.around(closed, drop)
	var left []Closed
	for i, c := range closed {
		if drop[i] {
			block.Of = append(block.Of, c.Of)
			continue
		}
		left = append(left, c)
	}
	slices.Sort(block.Of)
	for _, try := range []Stretch{s, short} {
		if a, ok := try.solve(left); ok {
			block.Short = try.Least != s.Least
			a.Block = block
			return a
		}
	}
	return Answer{Regular: s.To - s.From, Posts: []length.Length{s.From, s.To}, Block: block}
}

// around is where no hole fits because of what is given up: from the last
// open place before it to the first after it.
func (s Stretch) around(closed []Closed, drop map[int]bool) (from, to length.Length) {
	from, to = s.To, s.From
	for i := range drop {
		from, to = min(from, closed[i].From), max(to, closed[i].To)
	}
	// What lies against it closes as well.
	for grown := true; grown; {
		grown = false
		for _, c := range closed {
			if c.From < to && c.To > from && (c.From < from || c.To > to) {
				from, to, grown = min(from, c.From), max(to, c.To), true
			}
		}
	}
	return max(from, s.From), min(to, s.To)
}

const (
	// weighMost is up to how many closed pieces every choice of them is tried.
	weighMost = 12
	// triesMost bounds how many choices are tried where there are more.
	triesMost = 4000
)

// possible tells whether a layout exists without some of the closed pieces,
// with bays down to a quarter of the least.
func (s Stretch) possible(closed []Closed, drop map[int]bool) bool {
	short := s
	short.Least = s.Least / 4
	var left []Closed
	for i, c := range closed {
		if !drop[i] {
			left = append(left, c)
		}
	}
	return short.problem(left).possible()
}

// giveUp picks the closed pieces to do without. Where there are few every
// choice is weighed; else it goes from both ends, one stuck place after the
// other, takes the better answer, and puts back whatever it can.
func (s Stretch) giveUp(closed []Closed) map[int]bool {
	if len(closed) <= weighMost {
		best := map[int]bool(nil)
		for set := 1; set < 1<<len(closed); set++ {
			drop := map[int]bool{}
			for i := range closed {
				if set&(1<<i) != 0 {
					drop[i] = true
				}
			}
			if (best == nil || s.dearer(closed, best, drop)) && s.possible(closed, drop) {
				best = drop
			}
		}
		if best != nil {
			return best
		}
		all := map[int]bool{}
		for i := range closed {
			all[i] = true
		}
		return all
	}
	forth := s.spare(closed, s.greedy(closed))
	turned := s.mirrored()
	turned.Closed = nil
	// From the other end they come in another order: each says where it was.
	other := make([]Closed, len(closed))
	for i, c := range closed {
		other[i] = Closed{From: s.From + s.To - c.To, To: s.From + s.To - c.From, Of: i, Yields: c.Yields}
	}
	sort.SliceStable(other, func(a, b int) bool { return other[a].From < other[b].From })
	back := map[int]bool{}
	for i := range turned.greedy(other) {
		back[other[i].Of] = true
	}
	if back = s.spare(closed, back); s.dearer(closed, forth, back) {
		return back
	}
	return forth
}

// dearer tells whether giving up a costs more than giving up b.
func (s Stretch) dearer(closed []Closed, a, b map[int]bool) bool {
	type cost struct {
		hard, soft int
		wide       int64
		of         []int
	}
	weigh := func(drop map[int]bool) (c cost) {
		for i := range drop {
			if closed[i].Yields {
				c.soft++
			} else {
				c.hard++
			}
			c.wide += nearest(closed[i].To - closed[i].From)
			c.of = append(c.of, closed[i].Of)
		}
		slices.Sort(c.of)
		return c
	}
	x, y := weigh(a), weigh(b)
	return cmp.Or(cmp.Compare(x.hard, y.hard), cmp.Compare(x.soft, y.soft), cmp.Compare(x.wide, y.wide), slices.Compare(x.of, y.of)) > 0
}

// greedy gives up what stands in the way of the posts where they are stuck,
// seen from the start, until the end can be had.
func (s Stretch) greedy(closed []Closed) map[int]bool {
	drop := map[int]bool{}
	for !s.possible(closed, drop) {
		var left []Closed
		var places []int
		for i, c := range closed {
			if !drop[i] {
				left, places = append(left, c), append(places, i)
			}
		}
		if len(left) == 0 {
			return drop
		}
		p := s.problem(left)
		at, _ := p.stuck()
		from, to := s.From+length.Length(at)*unit, s.From+length.Length(at+p.most)*unit
		found := false
		for _, yields := range []bool{true, false} {
			for k, c := range left {
				if !found && c.Yields == yields && c.From < to && c.To > from {
					drop[places[k]], found = true, true
				}
			}
		}
		if !found { // nothing near: the stretch itself asks for too much
			for _, i := range places {
				drop[i] = true
			}
		}
	}
	return drop
}

// spare puts back what need not be given up, first of all what cannot be dug
// out.
func (s Stretch) spare(closed []Closed, drop map[int]bool) map[int]bool {
	order := slices.Collect(maps.Keys(drop))
	slices.SortFunc(order, func(a, b int) int { // the same order from either end
		x, y := closed[a], closed[b]
		return cmp.Or(compareBool(x.Yields, y.Yields), -cmp.Compare(nearest(x.To-x.From), nearest(y.To-y.From)), cmp.Compare(x.Of, y.Of))
	})
	for _, i := range order[:min(len(order), triesMost)] {
		if delete(drop, i); !s.possible(closed, drop) {
			drop[i] = true
		}
	}
	return drop
}

func compareBool(a, b bool) int {
	switch {
	case a == b:
		return 0
	case b:
		return -1
	}
	return 1
}

// over is by how much the longest bay would have to grow for a layout to
// exist, in whole marks; 0 where twice the bay would not do.
func (s Stretch) over(closed []Closed) length.Length {
	try := func(marks int) bool {
		w := s
		w.Most += length.Length(marks) * s.Mark
		return w.problem(closed).possible()
	}
	most := int(math.Ceil(float64(s.Most / s.Mark)))
	if !try(most) {
		return 0
	}
	return length.Length(sort.Search(most, try)) * s.Mark
}
