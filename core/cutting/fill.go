package cutting

import (
	"cmp"
	"math"
	"slices"
)

// How long a bar is filled by trying: to find a good filling, and to find the
// best one before it is looked for in a table of all the bar's marks.
const (
	fewSteps  = 400
	mostSteps = 20000
)

// fill finds the pieces worth most together that go into a room: a bounded
// knapsack. What is found at once and worth more than enough will do; else no
// pieces are worth more together than atMost.
func (s *solver) fill(room int, worth []float64, most []int, enough float64) (cuts []Cut, value, atMost float64) {
	var kinds []int
	for k := range s.kinds {
		if worth[k] > few && most[k] > 0 && s.kinds[k].long <= room {
			kinds = append(kinds, k)
		}
	}
	slices.SortStableFunc(kinds, func(a, b int) int {
		return cmp.Compare(worth[b]/float64(s.kinds[b].long), worth[a]/float64(s.kinds[a].long))
	})
	f := filler{s: s, kinds: kinds, worth: worth, most: most, now: make([]int, len(kinds)), best: make([]int, len(kinds)), last: fewSteps}
	whole := f.try(0, room, 0)
	if !whole && f.value <= enough {
		f.steps, f.last = 0, mostSteps
		if whole = f.try(0, room, 0); !whole {
			cuts, value = s.table(room, kinds, worth, most, false)
			if atMost = value; s.cell > 1 {
				_, atMost = s.table(room, kinds, worth, most, true)
			}
			return cuts, value, atMost
		}
	}
	if !whole {
		return cutsOf(kinds, f.best), f.value, math.Inf(1)
	}
	return cutsOf(kinds, f.best), f.value, f.value
}

func cutsOf(kinds, counts []int) []Cut {
	var out []Cut
	for i, n := range counts {
		if n > 0 {
			out = append(out, Cut{kinds[i], n})
		}
	}
	slices.SortFunc(out, func(a, b Cut) int { return cmp.Compare(a.Piece, b.Piece) })
	return out
}

// filler fills one bar by trying, the best for its length first, and gives up
// what cannot get better than the best so far.
type filler struct {
	s     *solver
	kinds []int
	worth []float64
	most  []int
	now   []int
	best  []int
	value float64
	steps int
	last  int
}

func (f *filler) try(i, room int, value float64) bool {
	if f.steps++; f.steps > f.last {
		return false
	}
	if value > f.value+few {
		f.value = value
		copy(f.best, f.now)
		clear(f.best[i:])
	}
	if i == len(f.kinds) {
		return true
	}
	k := f.kinds[i]
	long := f.s.kinds[k].long
	each := f.worth[k]
	rest := 0.0
	if i+1 < len(f.kinds) {
		next := f.kinds[i+1]
		rest = f.worth[next] / float64(f.s.kinds[next].long)
	}
	for n := min(f.most[k], room/long); n >= 0; n-- {
		left := room - n*long
		if value+float64(n)*each+float64(left)*rest <= f.value+few {
			break // fewer are worth no more: what follows is worth less for its length
		}
		f.now[i] = n
		if !f.try(i+1, left, value+float64(n)*each) {
			return false
		}
	}
	f.now[i] = 0
	return true
}

// table is fill by a table over all rooms: as many steps as there are marks
// times kinds, whatever their worth. Where lengths are finer than marks, pieces
// count as no shorter and the room as no longer than they are; as a bound, the
// other way round.
func (s *solver) table(room int, kinds []int, worth []float64, most []int, bound bool) ([]Cut, float64) {
	cells := func(n int, up bool) int {
		if up {
			return (n + s.cell - 1) / s.cell
		}
		return n / s.cell
	}
	room = cells(room, bound)
	longs := make([]int, len(kinds))
	for i, k := range kinds {
		longs[i] = max(1, cells(s.kinds[k].long, !bound))
	}
	type lot struct{ i, n int }
	var lots []lot // a count as ones, twos, fours
	for i, k := range kinds {
		for n, left := 1, min(most[k], room/longs[i]); left > 0; n *= 2 {
			n = min(n, left)
			lots = append(lots, lot{i, n})
			left -= n
		}
	}
	value := make([]float64, room+1)
	taken := make([][]bool, len(lots))
	for l, lot := range lots {
		taken[l] = make([]bool, room+1)
		k := kinds[lot.i]
		long, each := lot.n*longs[lot.i], float64(lot.n)*worth[k]
		for r := room; r >= long; r-- {
			if v := value[r-long] + each; v > value[r]+few {
				value[r], taken[l][r] = v, true
			}
		}
	}
	counts := make([]int, len(kinds))
	for l, r := len(lots)-1, room; l >= 0; l-- {
		if taken[l][r] {
			counts[lots[l].i] += lots[l].n
			r -= lots[l].n * longs[lots[l].i]
		}
	}
	return cutsOf(kinds, counts), value[room]
}
