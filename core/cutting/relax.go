package cutting

import "math"

// pattern is a way to cut one bar: how many of each kind, those that are none
// left out.
type pattern struct {
	bar  int
	cuts []Cut // Piece is a kind's place
}

// few is a number that stands for nothing beside costs and counts.
const few = 1e-9

// relaxed is the linear relaxation: how often each pattern is cut when bars may
// be cut in part.
type relaxed struct {
	patterns []pattern
	times    []float64
	bound    float64
	lacking  bool // some pieces are only to be had from bars at hand, which do not last
}

// relax solves the relaxation for some demand and some bars at hand.
func (s *solver) relax(want, have []int) relaxed {
	m := &master{s: s, want: want, have: have}
	m.start()
	for range 50 * (len(m.rows) + 10) {
		m.price()
		col, ok := m.entering()
		if !ok || m.near() || !m.pivot(col) {
			break
		}
	}
	return m.result()
}

// near tells whether the relaxation is so close to what bounds it that nothing
// a bar costs lies between. Only large problems stop there: the bound that is
// told is the lower one.
func (m *master) near() bool {
	if len(m.rows) < largeRows || m.floor == 0 {
		return false
	}
	now, least := 0.0, math.Inf(1)
	for i, c := range m.basis {
		now += m.at[i] * m.cost(c)
	}
	for _, b := range m.s.bars {
		if b.have < 0 {
			least = min(least, float64(b.cost))
		}
	}
	return now-m.floor < nearShare*least
}

// What a large problem is, in rows, and how near its relaxation must come to
// its bound, in the cheapest bars.
const (
	largeRows = 60
	nearShare = 0.05
)

// master is the linear program of the relaxation in the revised simplex method:
// its basis, the basis's inverse, and what the basis comes to. A row is a kind
// of which enough is cut, or a bar of which not too many are taken.
type master struct {
	s          *solver
	want, have []int
	kinds      []int // of the rows: the kinds that are wanted
	limits     []int // and then the bars that are limited
	rows       []float64
	basis      []column
	inverse    [][]float64
	at         []float64 // of the basis: how often
	dual       []float64
	since      int
	pool       []column // found once, and worth a look again
	floor      float64  // no relaxation costs less
	rough      bool     // the last pricing may have missed a better filling
	rowOf      []int    // of a kind
	rowOfBar   []int    // of a bar; −1: there are as many as are wanted
}

// column is a pattern, the surplus or slack of a row, or a piece that no bar
// gives.
type column struct {
	pattern
	slack   int // 1 + the row; 0: a pattern
	missing bool
}

func (m *master) cost(c column) float64 {
	switch {
	case c.missing:
		return m.s.dear()
	case c.slack > 0:
		return 0
	}
	return float64(m.s.bars[c.bar].cost)
}

// dear is what a piece costs that is not cut: more than any bar could.
func (s *solver) dear() float64 {
	most := int64(1)
	for _, b := range s.bars {
		most = max(most, b.cost)
	}
	return float64(most) * 1e3
}

// each walks over a column's entries.
func (m *master) each(c column, do func(row int, by float64)) {
	switch {
	case c.slack > len(m.kinds):
		do(c.slack-1, 1)
	case c.slack > 0:
		do(c.slack-1, -1)
	default:
		for _, cut := range c.cuts {
			do(m.rowOf[cut.Piece], float64(cut.Count))
		}
		if !c.missing {
			if r := m.rowOfBar[c.bar]; r >= 0 {
				do(r, 1)
			}
		}
	}
}

// start is a basis of one kind a bar, on the bar that gives it cheapest.
func (m *master) start() {
	m.rowOf, m.rowOfBar = make([]int, len(m.want)), make([]int, len(m.have))
	for k, n := range m.want {
		if n > 0 {
			m.rowOf[k] = len(m.kinds)
			m.kinds = append(m.kinds, k)
			m.rows = append(m.rows, float64(n))
		}
	}
	for b, n := range m.have {
		m.rowOfBar[b] = -1
		if m.s.bars[b].have >= 0 {
			m.rowOfBar[b] = len(m.kinds) + len(m.limits)
			m.limits = append(m.limits, b)
			m.rows = append(m.rows, float64(n))
		}
	}
	for r, k := range m.kinds {
		best, least := column{pattern: pattern{cuts: []Cut{{k, 1}}}, missing: true}, math.Inf(1)
		for b, bar := range m.s.bars {
			fit := min(bar.room/m.s.kinds[k].long, m.want[k])
			if bar.have >= 0 || fit < 1 {
				continue
			}
			if each := float64(bar.cost) / float64(fit); each < least {
				best, least = column{pattern: pattern{b, []Cut{{k, fit}}}}, each
			}
		}
		m.basis = append(m.basis, best)
		m.at = append(m.at, m.rows[r]/float64(best.cuts[0].Count))
	}
	for i := range m.limits {
		m.basis = append(m.basis, column{slack: len(m.kinds) + i + 1})
		m.at = append(m.at, m.rows[len(m.kinds)+i])
	}
	n := len(m.rows)
	m.inverse = make([][]float64, n)
	for i := range m.inverse {
		m.inverse[i] = make([]float64, n)
		m.inverse[i][i] = 1
		if i < len(m.kinds) {
			m.inverse[i][i] = 1 / float64(m.basis[i].cuts[0].Count)
		}
	}
	m.dual = make([]float64, n)
}

// price works out what a piece of each kind is worth, and what a limited bar.
func (m *master) price() {
	clear(m.dual)
	for i, c := range m.basis {
		if cost := m.cost(c); cost != 0 {
			for r, v := range m.inverse[i] {
				m.dual[r] += cost * v
			}
		}
	}
}

// entering is the column that gains most; none when nothing gains.
func (m *master) entering() (column, bool) {
	var best column
	least := -1e-7 * (1 + m.s.dear()/1e3)
	found := false
	take := func(c column, gain float64) {
		if gain < least {
			best, least, found = c, gain, true
		}
	}
	for r := range m.rows {
		if r < len(m.kinds) {
			take(column{slack: r + 1}, m.dual[r])
		} else {
			take(column{slack: r + 1}, -m.dual[r])
		}
	}
	for _, c := range m.pool {
		gain := m.cost(c)
		m.each(c, func(row int, by float64) { gain -= by * m.dual[row] })
		take(c, gain)
	}
	if found {
		return best, true
	}
	worth := make([]float64, len(m.s.kinds))
	for r, k := range m.kinds {
		worth[k] = m.dual[r]
	}
	over, all, rough := 1.0, true, false // by how much the most a bar gives is over what it costs
	for b, bar := range m.s.bars {
		if m.have[b] == 0 {
			continue
		}
		cost := float64(bar.cost)
		if r := m.rowOfBar[b]; r >= 0 {
			cost -= m.dual[r]
		}
		cuts, value, atMost := m.s.fill(bar.room, worth, m.want, cost-least)
		if all = all && !math.IsInf(atMost, 1) && bar.have < 0 && cost > 0; all {
			over = max(over, atMost/cost)
		}
		rough = rough || atMost > value+few
		if len(cuts) > 0 {
			c := column{pattern: pattern{b, cuts}}
			if cost-value < -few*m.s.dear() {
				m.pool = append(m.pool, c)
			}
			take(c, cost-value)
		}
	}
	m.rough = rough && !found
	if all {
		// Worth divided by that is worth no more than any bar costs: a bound (A. A. Farley, Oper. Res. 38, 1990).
		sum := 0.0
		for r := range m.kinds {
			sum += m.dual[r] * m.rows[r]
		}
		m.floor = max(m.floor, sum/over)
	}
	return best, found
}

// pivot takes a column into the basis for the one that it drives out.
func (m *master) pivot(c column) bool {
	n := len(m.rows)
	in := make([]float64, n)
	m.each(c, func(row int, by float64) {
		for i := range n {
			in[i] += by * m.inverse[i][row]
		}
	})
	out, least := -1, math.Inf(1)
	for i, v := range in {
		if v > few {
			if t := max(0, m.at[i]) / v; t < least-few || t < least+few && out >= 0 && v > in[out] {
				out, least = i, t
			}
		}
	}
	if out < 0 {
		return false
	}
	row := m.inverse[out]
	for r := range row {
		row[r] /= in[out]
	}
	for i := range n {
		if f := in[i]; i != out && f != 0 {
			for r := range row {
				m.inverse[i][r] -= f * row[r]
			}
			m.at[i] -= f * least
		}
	}
	m.at[out], m.basis[out] = least, c
	if m.since++; m.since >= 200 {
		m.afresh()
	}
	return true
}

// afresh works the inverse out again from the basis: small errors add up.
func (m *master) afresh() {
	n := len(m.rows)
	a := make([][]float64, n)
	for r := range a {
		a[r] = make([]float64, 2*n)
		a[r][n+r] = 1
	}
	for i, c := range m.basis {
		m.each(c, func(row int, by float64) { a[row][i] += by })
	}
	for i := range n {
		p := i
		for r := i + 1; r < n; r++ {
			if math.Abs(a[r][i]) > math.Abs(a[p][i]) {
				p = r
			}
		}
		if math.Abs(a[p][i]) < few {
			return // kept as it was: it still tells a way
		}
		a[i], a[p] = a[p], a[i]
		by := a[i][i]
		for k := i; k < 2*n; k++ {
			a[i][k] /= by
		}
		for r := range n {
			if f := a[r][i]; r != i && f != 0 {
				for k := i; k < 2*n; k++ {
					a[r][k] -= f * a[i][k]
				}
			}
		}
	}
	for i := range n {
		copy(m.inverse[i], a[i][n:])
		m.at[i] = 0
		for r, v := range m.inverse[i] {
			m.at[i] += v * m.rows[r]
		}
	}
	m.since = 0
}

func (m *master) result() relaxed {
	var out relaxed
	for i, c := range m.basis {
		if m.at[i] < few {
			continue
		}
		if c.missing {
			out.lacking = true
			continue
		}
		if c.slack > 0 {
			continue
		}
		out.patterns, out.times = append(out.patterns, c.pattern), append(out.times, m.at[i])
		out.bound += m.at[i] * float64(m.s.bars[c.bar].cost)
	}
	if m.rough || m.near() { // a better filling may have been missed
		out.bound = min(out.bound, m.floor)
	}
	return out
}
