package cutting

import (
	"cmp"
	"math"
	"slices"
)

// cut is bars that were found, and how good they are known to be.
type cut struct {
	bars   []pattern
	bound  float64
	proved bool
}

func (s *solver) solve() cut {
	want, have := make([]int, len(s.kinds)), make([]int, len(s.bars))
	for k := range s.kinds {
		want[k] = s.kinds[k].count
	}
	for b := range s.bars {
		have[b] = s.bars[b].have
	}
	relaxed := s.relax(want, have)
	if bars, ok := s.whole(want, have); ok {
		return cut{bars, relaxed.bound, true}
	}
	best := cut{bound: relaxed.bound}
	for _, round := range []float64{1, 0.5, 0.25} {
		bars := s.better(s.dive(want, have, relaxed, round))
		if best.bars == nil || s.cheaper(bars, best.bars) {
			best.bars = bars
		}
		if !relaxed.lacking && s.atBound(best) {
			best.proved = true
			break
		}
	}
	return best
}

// atBound tells whether no whole cost lies between the bound and the cost.
func (s *solver) atBound(c cut) bool {
	step := int64(0)
	for _, b := range s.bars {
		step = gcd(step, b.cost)
	}
	return float64(s.cost(c.bars)-max(1, step)) < c.bound-1e-6*(1+c.bound)
}

func gcd(a, b int64) int64 {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

func (s *solver) cost(bars []pattern) int64 {
	sum := int64(0)
	for _, p := range bars {
		sum += s.bars[p.bar].cost
	}
	return sum
}

func (s *solver) pieceCount(bars []pattern) int {
	n := 0
	for _, p := range bars {
		for _, c := range p.cuts {
			n += c.Count
		}
	}
	return n
}

// cheaper compares by pieces that are cut, cost, and bars.
func (s *solver) cheaper(a, b []pattern) bool {
	return cmp.Or(cmp.Compare(s.pieceCount(b), s.pieceCount(a)), cmp.Compare(s.cost(a), s.cost(b)), cmp.Compare(len(a), len(b))) < 0
}

// dive takes whole bars from the relaxation, and solves what is left again,
// until it can be searched. A pattern that is cut in part is taken when its part
// is at least a share; when there is none, the largest part is.
func (s *solver) dive(want, have []int, r relaxed, share float64) []pattern {
	want, have = slices.Clone(want), slices.Clone(have)
	var out []pattern
	take := func(p pattern) bool {
		if s.bars[p.bar].have >= 0 && have[p.bar] == 0 {
			return false
		}
		fit := pattern{p.bar, nil}
		for _, c := range p.cuts {
			if n := min(c.Count, want[c.Piece]); n > 0 {
				fit.cuts = append(fit.cuts, Cut{c.Piece, n})
			}
		}
		if fit.cuts == nil {
			return false
		}
		s.top(&fit, want)
		for _, c := range fit.cuts {
			want[c.Piece] -= c.Count
		}
		if s.bars[p.bar].have >= 0 {
			have[p.bar]--
		}
		out = append(out, fit)
		return true
	}
	for slices.ContainsFunc(want, func(n int) bool { return n > 0 }) {
		if bars, ok := s.whole(want, have); ok {
			return append(out, bars...)
		}
		took := false
		order := make([]int, len(r.patterns))
		for i := range order {
			order[i] = i
		}
		part := func(i int) float64 { return r.times[i] - math.Floor(r.times[i]+few) }
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(part(b), part(a)) })
		for _, i := range order {
			for range int(math.Floor(r.times[i] + few)) {
				took = take(r.patterns[i]) || took
			}
		}
		for n, i := range order {
			if p := part(i); p > few && (p >= share || !took && n == 0) {
				took = take(r.patterns[i]) || took
			}
		}
		if !took {
			for _, i := range order {
				if took = take(r.patterns[i]); took {
					break
				}
			}
		}
		if !took {
			return out // what is left comes from no bar that there is
		}
		r = s.relax(want, have)
	}
	return out
}

// top fills what room is left on a bar with the longest that goes in.
func (s *solver) top(p *pattern, want []int) {
	room := s.bars[p.bar].room
	for _, c := range p.cuts {
		room -= c.Count * s.kinds[c.Piece].long
	}
	for k := range s.kinds {
		i := slices.IndexFunc(p.cuts, func(c Cut) bool { return c.Piece == k })
		left := want[k]
		if i >= 0 {
			left -= p.cuts[i].Count
		}
		n := min(left, room/s.kinds[k].long)
		if n <= 0 {
			continue
		}
		room -= n * s.kinds[k].long
		if i >= 0 {
			p.cuts[i].Count += n
		} else {
			p.cuts = append(p.cuts, Cut{k, n})
		}
	}
	slices.SortFunc(p.cuts, func(a, b Cut) int { return cmp.Compare(a.Piece, b.Piece) })
}

// better takes the bars that waste most, and searches what they give again,
// as long as that gets cheaper.
func (s *solver) better(bars []pattern) []pattern {
	for {
		slices.SortStableFunc(bars, func(a, b pattern) int { return cmp.Compare(s.left(b), s.left(a)) })
		found := false
		for n := min(12, len(bars)); n >= 2 && !found; n-- {
			want, have := make([]int, len(s.kinds)), make([]int, len(s.bars))
			for _, p := range bars[:n] {
				for _, c := range p.cuts {
					want[c.Piece] += c.Count
				}
			}
			for b := range s.bars {
				have[b] = s.bars[b].have
			}
			for _, p := range bars[n:] {
				if s.bars[p.bar].have >= 0 {
					have[p.bar]--
				}
			}
			again, ok := s.whole(want, have)
			if !ok {
				continue
			}
			if !s.cheaper(again, bars[:n]) {
				break
			}
			bars, found = append(again, bars[n:]...), true
		}
		if !found {
			return bars
		}
	}
}

// left is what a bar leaves, in units.
func (s *solver) left(p pattern) int {
	room := s.bars[p.bar].room
	for _, c := range p.cuts {
		room -= c.Count * s.kinds[c.Piece].long
	}
	return room
}
