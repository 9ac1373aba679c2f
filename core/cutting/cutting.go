// Package cutting finds the bars to buy for pieces of given lengths, and what is
// cut from each: the one-dimensional cutting stock problem with bars of several
// lengths and prices, a saw that takes its kerf, and offcuts at hand, of which
// there are so many and no more.
//
// The linear relaxation is solved by column generation (P. C. Gilmore and
// R. E. Gomory, A linear programming approach to the cutting-stock problem, Oper.
// Res. 9, 1961, and part II, 11, 1963): it is the bound that a plan stands next
// to. Small problems are searched whole; of larger ones whole bars are taken from
// the relaxation and the rest is solved again, until what is left can be
// searched. No answer depends on the order of anything but the pieces.
package cutting

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/length"
)

// Stock is bars of one length that can be had.
type Stock struct {
	Length length.Length
	Cost   int64 // of a bar, in any small unit of money; all zero: what counts is the length
	Have   int   // how many there are: kept offcuts; 0: as many as are wanted
}

// Piece is pieces of one length that are wanted.
type Piece struct {
	Length length.Length
	Count  int
}

// Saw is how bars are cut.
type Saw struct {
	Kerf length.Length // what a cut takes
	Trim length.Length // what is cut off a bar first, so that its end is square
	Mark length.Length // what the tape can tell; pieces are cut as long as they are all the same
}

// Cut is how many pieces of a kind come from a bar.
type Cut struct{ Piece, Count int }

// Bar is bars of one stock that are cut alike.
type Bar struct {
	Stock int
	Count int
	Cuts  []Cut // the longest first
	Left  length.Length
}

// Plan is bars to take, and how good that is.
type Plan struct {
	Bars    []Bar // by stock, the fullest first
	Cost    int64
	Bound   float64 // no plan costs less than this
	Proved  bool    // no plan costs less than this one
	TooLong []int   // kinds of pieces that no bar gives
	Short   []Cut   // pieces for which the bars at hand do not last
}

// searched is how many states the search of what is left may see.
const searched = 40000

// Solve finds the bars. Pieces of no length and of no count are nothing.
func Solve(stocks []Stock, pieces []Piece, saw Saw) Plan {
	p := problem(stocks, pieces, saw)
	return p.plan(p.solve())
}

// kind is pieces of one length in units, kerf and all.
type kind struct {
	long  int
	count int
	from  []int // the pieces that were asked for
}

// bar is one stock in units.
type bar struct {
	room int // for pieces with a kerf each: the last cut may fall beside the end
	cost int64
	have int // −1: as many as are wanted
	of   int
}

type solver struct {
	stocks  []Stock
	pieces  []Piece
	saw     Saw
	unit    length.Length // in which lengths are counted
	cell    int           // units to a mark, as tables count
	kinds   []kind        // the longest first
	bars    []bar         // the shortest first
	tooLong []int
}

// finest is the unit of lengths that no coarser one tells: a 320th of a millimetre,
// of which whole numbers make every mark of either tape down to 1/64 in.
const finest = length.Millimetre / 320

// finer are units to be tried before it, as parts of a mark.
var finer = []int{1, 2, 4, 8, 10}

// unitOf is the coarsest unit that tells every length of a problem.
func unitOf(stocks []Stock, pieces []Piece, saw Saw) (unit length.Length, cell int) {
	for _, n := range finer {
		unit := saw.Mark / length.Length(n)
		whole := func(l length.Length) bool {
			at := float64(l / unit)
			return math.Abs(at-math.Round(at)) < 1e-6
		}
		if whole(saw.Kerf) && whole(saw.Trim) && !slices.ContainsFunc(stocks, func(s Stock) bool { return !whole(s.Length) }) && !slices.ContainsFunc(pieces, func(p Piece) bool { return !whole(p.Length) }) {
			return unit, n
		}
	}
	return finest, max(1, int(math.Round(float64(saw.Mark/finest))))
}

// inUnits is a length in units: a piece is no shorter and a bar no longer than
// it is.
func inUnits(l, unit length.Length, up bool) int {
	at := float64(l / unit)
	if up {
		return int(math.Ceil(at - 1e-6))
	}
	return int(math.Floor(at + 1e-6))
}

func problem(stocks []Stock, pieces []Piece, saw Saw) *solver {
	if saw.Mark <= 0 {
		saw.Mark = 1
	}
	s := &solver{stocks: stocks, pieces: pieces, saw: saw}
	s.unit, s.cell = unitOf(stocks, pieces, saw)
	kerf := inUnits(max(0, saw.Kerf), s.unit, true)
	priced := slices.ContainsFunc(stocks, func(b Stock) bool { return b.Cost > 0 })
	longest := 0
	for i, b := range stocks {
		room := inUnits(b.Length-max(0, saw.Trim), s.unit, false)
		if room <= 0 || b.Have < 0 {
			continue
		}
		cost, have := b.Cost, -1
		if b.Have > 0 {
			have = b.Have
		}
		if !priced && have < 0 {
			cost = int64(inUnits(b.Length, s.unit, true))
		}
		s.bars = append(s.bars, bar{room + kerf, cost, have, i})
		longest = max(longest, room+kerf)
	}
	slices.SortStableFunc(s.bars, func(a, b bar) int { return cmp.Compare(a.room, b.room) })
	at := map[int]int{}
	for i, p := range pieces {
		if p.Count <= 0 || p.Length <= 0 {
			continue
		}
		long := inUnits(p.Length, s.unit, true) + kerf
		if long > longest {
			s.tooLong = append(s.tooLong, i)
			continue
		}
		k, ok := at[long]
		if !ok {
			k = len(s.kinds)
			at[long] = k
			s.kinds = append(s.kinds, kind{long: long})
		}
		s.kinds[k].count += p.Count
		s.kinds[k].from = append(s.kinds[k].from, i)
	}
	slices.SortFunc(s.kinds, func(a, b kind) int { return cmp.Compare(b.long, a.long) })
	return s
}

// plan is bars in the pieces and lengths that were asked for.
func (s *solver) plan(c cut) Plan {
	out := Plan{Cost: s.cost(c.bars), Bound: c.bound, Proved: c.proved, TooLong: s.tooLong}
	slices.SortStableFunc(c.bars, func(a, b pattern) int {
		return cmp.Or(cmp.Compare(a.bar, b.bar), compareCuts(a.cuts, b.cuts))
	})
	// Kinds of one length are given out one after the other, in the order in which they were asked for.
	next, given := make([]int, len(s.kinds)), make([]int, len(s.pieces))
	for _, p := range c.bars {
		b := Bar{Stock: s.bars[p.bar].of, Count: 1}
		used := length.Length(0)
		for _, cut := range p.cuts {
			k := &s.kinds[cut.Piece]
			for n := cut.Count; n > 0; {
				of := k.from[next[cut.Piece]]
				take := min(n, s.pieces[of].Count-given[of])
				given[of] += take
				n -= take
				if take > 0 {
					b.Cuts = append(b.Cuts, Cut{of, take})
					used += length.Length(float64(take)) * s.pieces[of].Length
				}
				if given[of] == s.pieces[of].Count && next[cut.Piece] < len(k.from)-1 {
					next[cut.Piece]++
				}
			}
		}
		b.Left = s.over(b, used)
		if last := len(out.Bars) - 1; last >= 0 && out.Bars[last].Stock == b.Stock && slices.Equal(out.Bars[last].Cuts, b.Cuts) {
			out.Bars[last].Count++
			continue
		}
		out.Bars = append(out.Bars, b)
	}
	for i, p := range s.pieces {
		if p.Count > given[i] && p.Length > 0 && !slices.Contains(s.tooLong, i) {
			out.Short = append(out.Short, Cut{i, p.Count - given[i]})
		}
	}
	return out
}

// over is what is left of a bar: the saw's last cut may fall off its end.
func (s *solver) over(b Bar, used length.Length) length.Length {
	cuts := 0
	for _, c := range b.Cuts {
		cuts += c.Count
	}
	room := s.stocks[b.Stock].Length - max(0, s.saw.Trim) - used - length.Length(float64(cuts))*max(0, s.saw.Kerf)
	return max(0, room)
}

func compareCuts(a, b []Cut) int {
	return slices.CompareFunc(a, b, func(x, y Cut) int {
		return cmp.Or(cmp.Compare(x.Piece, y.Piece), cmp.Compare(y.Count, x.Count))
	})
}
