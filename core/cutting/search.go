package cutting

import (
	"math"
	"slices"
)

// search finds the least cost of what is left by looking at every way, if there
// are not too many.
type search struct {
	s    *solver
	base []int // of a state's number: a kind's, then a bar's at hand
	most int
	seen map[int]answer
	want []int
	have []int
}

// answer is the least for a state: cost, then pieces nobody cuts, bars, and the
// bar that is cut first.
type answer struct {
	cost    int64
	missing int
	bars    int
	first   pattern
}

func (a answer) less(b answer) bool {
	if a.missing != b.missing {
		return a.missing < b.missing
	}
	if a.cost != b.cost {
		return a.cost < b.cost
	}
	return a.bars < b.bars
}

// states is how many states a search may see at most.
func (s *solver) states(want, have []int) int {
	n := 1
	for _, w := range want {
		if n *= w + 1; n > searched {
			return n
		}
	}
	for b, h := range have {
		if s.bars[b].have >= 0 {
			if n *= h + 1; n > searched {
				return n
			}
		}
	}
	return n
}

// whole searches everything; nothing where that is too much.
func (s *solver) whole(want, have []int) ([]pattern, bool) {
	if s.states(want, have) > searched {
		return nil, false
	}
	f := search{s: s, seen: map[int]answer{}, want: slices.Clone(want), have: slices.Clone(have)}
	steps := 1
	for _, w := range want {
		f.base = append(f.base, steps)
		steps *= w + 1
	}
	for b, h := range have {
		f.base = append(f.base, steps)
		if s.bars[b].have >= 0 {
			steps *= h + 1
		}
	}
	f.most = searchSteps
	f.least(f.number())
	if f.most <= 0 {
		return nil, false
	}
	var out []pattern
	for {
		a := f.seen[f.number()]
		if a.first.cuts == nil {
			return out, true
		}
		if a.first.bar >= 0 {
			out = append(out, a.first)
		}
		f.take(a.first, -1)
	}
}

// searchSteps is how many bars a search may try.
const searchSteps = 2_000_000

func (f *search) number() int {
	n := 0
	for k, w := range f.want {
		n += w * f.base[k]
	}
	for b, h := range f.have {
		if f.s.bars[b].have >= 0 {
			n += h * f.base[len(f.want)+b]
		}
	}
	return n
}

func (f *search) take(p pattern, by int) {
	for _, c := range p.cuts {
		f.want[c.Piece] += by * c.Count
	}
	if p.bar >= 0 && f.s.bars[p.bar].have >= 0 {
		f.have[p.bar] += by
	}
}

// least is the answer for what is wanted now.
func (f *search) least(state int) answer {
	if a, ok := f.seen[state]; ok {
		return a
	}
	first := slices.IndexFunc(f.want, func(w int) bool { return w > 0 })
	if first < 0 {
		f.seen[state] = answer{}
		return answer{}
	}
	best := answer{cost: math.MaxInt64, missing: math.MaxInt}
	// The longest piece that is wanted comes from some bar, or from none.
	for b := range f.s.bars {
		bar := &f.s.bars[b]
		if bar.room < f.s.kinds[first].long || bar.have >= 0 && f.have[b] == 0 {
			continue
		}
		f.fill(b, first, bar.room, nil, &best)
		if f.most <= 0 {
			return best
		}
	}
	if best.missing > 0 {
		none := pattern{bar: -1, cuts: []Cut{{first, 1}}}
		f.take(none, -1)
		a := f.least(f.number())
		f.take(none, 1)
		a.missing++
		a.first = none
		if a.less(best) {
			best = a
		}
	}
	f.seen[state] = best
	return best
}

// fill tries all ways to fill a bar so that no piece more goes in.
func (f *search) fill(b, k, room int, cuts []Cut, best *answer) {
	if f.most--; f.most <= 0 {
		return
	}
	for k < len(f.want) && (f.want[k] == 0 || f.s.kinds[k].long > room) {
		k++
	}
	if k == len(f.want) {
		// A kind that was taken fewer times than it could be is left out: one more still fits.
		for _, c := range cuts {
			if f.want[c.Piece] > c.Count && f.s.kinds[c.Piece].long <= room {
				return
			}
		}
		for i := range f.want {
			if f.want[i] > 0 && f.s.kinds[i].long <= room && !slices.ContainsFunc(cuts, func(c Cut) bool { return c.Piece == i }) {
				return
			}
		}
		p := pattern{b, slices.Clone(cuts)}
		f.take(p, -1)
		a := f.least(f.number())
		f.take(p, 1)
		a.cost += f.s.bars[b].cost
		a.bars++
		a.first = p
		if a.less(*best) {
			*best = a
		}
		return
	}
	most := min(f.want[k], room/f.s.kinds[k].long)
	least := 0
	if len(cuts) == 0 {
		least = 1 // the longest is in it
	}
	for n := most; n >= least; n-- {
		next := cuts
		if n > 0 {
			next = append(cuts[:len(cuts):len(cuts)], Cut{k, n})
		}
		f.fill(b, k+1, room-n*f.s.kinds[k].long, next, best)
	}
}
