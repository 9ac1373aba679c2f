// Package qp solves convex quadratic programs whose variables hang together
// only with near neighbours, as the heights of a fence's posts do:
//
//	least ½ xᵀQx + cᵀx  with  Ax ≤ b
//
// with some limits that may be passed at a cost, where Q is positive definite and every square and every limit touches
// variables that lie within a band of each other. The work is then
// proportional to the number of variables.
//
// The method is Mehrotra's predictor and corrector (S. Mehrotra, On the
// implementation of a primal-dual interior point method, SIAM J. Optim. 2,
// 1992; here for a quadratic objective as in Nocedal and Wright, Numerical
// Optimization, 2nd ed., section 16.6), with a banded Cholesky factor.
package qp

import (
	"math"
	"slices"
)

// Term is one variable with its factor.
type Term struct {
	At int
	By float64
}

// mostTerms is how many variables one square or limit may touch.
const mostTerms = 4

// Program is a quadratic program that is built square by square and limit by
// limit.
type Program struct {
	n, band int
	q       []float64 // Q's lower band, row by row: Q[i][i-d] at i*(band+1)+d
	c       []float64
	rows    []row
	fixed   []bool
	value   []float64 // of fixed variables
	loose   float64
}

// row is one limit: the sum of its terms is at most most, or more by what its
// price times give comes to.
type row struct {
	at   [mostTerms]int32
	by   [mostTerms]float64
	n    int
	most float64
	give float64
}

// New returns an empty program of n variables, of which those touched
// together are at most band apart.
func New(n, band int) *Program {
	return &Program{n: n, band: band, q: make([]float64, n*(band+1)), c: make([]float64, n), fixed: make([]bool, n), value: make([]float64, n)}
}

// Fix gives a variable a value for good, before any square or limit touches
// it. Limits on fixed variables alone are not looked at.
func (p *Program) Fix(at int, value float64) {
	p.fixed[at], p.value[at] = true, value
	p.q[at*(p.band+1)], p.c[at] = 1, -value
}

// Loosely lets the answer be as many times less exact, for trials of which
// only the better one is looked at closely.
func (p *Program) Loosely(times float64) { p.loose = times }

// Fixed tells whether a variable has its value for good.
func (p *Program) Fixed(at int) bool { return p.fixed[at] }

// Square adds weight × (sum of the terms − want)² to the objective.
func (p *Program) Square(weight, want float64, terms ...Term) {
	for _, t := range terms {
		if p.fixed[t.At] {
			want -= t.By * p.value[t.At]
		}
	}
	for i, a := range terms {
		if p.fixed[a.At] {
			continue
		}
		p.c[a.At] -= 2 * weight * want * a.By
		for _, b := range terms[:i+1] {
			if p.fixed[b.At] {
				continue
			}
			r, s := a, b
			if r.At < s.At {
				r, s = s, r
			}
			p.q[r.At*(p.band+1)+r.At-s.At] += 2 * weight * a.By * b.By
		}
	}
}

// Expect makes room for so many limits.
func (p *Program) Expect(limits int) { p.rows = slices.Grow(p.rows, limits) }

// AtMost adds the limit that the sum of the terms is at most most.
func (p *Program) AtMost(most float64, terms ...Term) {
	p.limit(1, most, 0, terms)
}

// NearlyAtMost adds a limit that may be passed, at a cost in the objective of
// weight × (what it is passed by)².
func (p *Program) NearlyAtMost(most, weight float64, terms ...Term) {
	p.limit(1, most, 1/(2*weight), terms)
}

// NearlyAtLeast is the same for a least sum.
func (p *Program) NearlyAtLeast(least, weight float64, terms ...Term) {
	p.limit(-1, -least, 1/(2*weight), terms)
}

// limit adds the limit that sign times the sum of the terms is at most most.
func (p *Program) limit(sign, most, give float64, terms []Term) {
	r := row{most: most, give: give}
	for _, t := range terms {
		if p.fixed[t.At] {
			r.most -= sign * t.By * p.value[t.At]
			continue
		}
		r.at[r.n], r.by[r.n] = int32(t.At), sign*t.By
		r.n++
	}
	if r.n > 0 {
		p.rows = append(p.rows, r)
	}
}

// AtLeast adds the limit that the sum of the terms is at least least.
func (p *Program) AtLeast(least float64, terms ...Term) {
	p.limit(-1, -least, 0, terms)
}

func (r *row) dot(x []float64) float64 {
	switch r.n { // most touch two or three
	case 2:
		return r.by[0]*x[r.at[0]] + r.by[1]*x[r.at[1]]
	case 3:
		return r.by[0]*x[r.at[0]] + r.by[1]*x[r.at[1]] + r.by[2]*x[r.at[2]]
	}
	sum := 0.0
	for i := range r.n {
		sum += r.by[i] * x[r.at[i]]
	}
	return sum
}

// add puts by times the row into a vector: one row of Aᵀ times a number.
func (r *row) add(x []float64, by float64) {
	switch r.n {
	case 2:
		x[r.at[0]] += r.by[0] * by
		x[r.at[1]] += r.by[1] * by
		return
	case 3:
		x[r.at[0]] += r.by[0] * by
		x[r.at[1]] += r.by[1] * by
		x[r.at[2]] += r.by[2] * by
		return
	}
	for i := range r.n {
		x[r.at[i]] += r.by[i] * by
	}
}

const (
	mostRounds = 80
	// The objective's weights are about 1 and its lengths millimetres: these
	// are far below any tape mark.
	smallResidual = 1e-7
	smallGap      = 1e-11
	shortStep     = 0.1
	spentGap      = 1e-16 // nothing more can come of it
	// nearly serves on site: within hundredths of a millimetre of every limit.
	nearly = 1e-2
)

// attempt is one way to go about a solution.
type attempt struct {
	scale  float64 // of the room and the prices that it begins with
	steady bool    // every step goes for the middle: slower, and hardly ever misled
	rounds int
}

// attempts are tried in turn until one comes to an end. The first is the quick
// one; where its predictions keep misleading it, the others begin farther
// inside and step with more care.
var attempts = []attempt{{1, false, mostRounds}, {1e3, false, 2 * mostRounds}, {1, true, 5 * mostRounds}, {1e4, true, 5 * mostRounds}, {1e-2, true, 5 * mostRounds}}

// Solve returns the variables that make the objective least. ok is false when
// no attempt came to an end: the limits contradict each other, or are so near
// to it that no digits are left.
func (p *Program) Solve() (x []float64, ok bool) {
	for _, a := range attempts {
		if x, ok = p.attempt(a); ok || x == nil {
			return x, ok
		}
	}
	return x, false
}

func (p *Program) attempt(a attempt) (x []float64, ok bool) {
	s := newSolver(p)
	if !s.start(a.scale) {
		return nil, false
	}
	if len(p.rows) == 0 {
		return s.x, true
	}
	// Past the last digits steps may lead away again: the best place is kept.
	best, x := math.Inf(1), make([]float64, p.n)
	for range a.rounds {
		s.residuals()
		if m := max(s.off, s.dual, s.gap); m < best {
			best = m
			copy(x, s.x)
		}
		if s.off < smallResidual && s.dual < smallResidual && s.gap < smallGap*max(1, p.loose) || s.gap < spentGap {
			break
		}
		if !s.step(a.steady) {
			break
		}
	}
	return x, best < nearly
}

// solver holds one solution under way: the variables, each limit's room s and
// its price z.
type solver struct {
	p              *Program
	x, dx, rhs     []float64
	s, z, ds, dz   []float64
	rp, rc         []float64
	rd, diagonal   []float64
	factor         []float64
	gap, off, dual float64
}

func newSolver(p *Program) *solver {
	n, m := p.n, len(p.rows)
	v := make([]float64, 5*n+6*m+len(p.q))
	take := func(k int) []float64 {
		out := v[:k:k]
		v = v[k:]
		return out
	}
	return &solver{p: p, x: take(n), dx: take(n), rhs: take(n), rd: take(n), diagonal: take(n),
		s: take(m), z: take(m), ds: take(m), dz: take(m), rp: take(m), rc: take(m), factor: take(len(p.q))}
}

// start begins at the best place without limits, with as much room everywhere
// as that place breaks the limits by, and with prices as high as the steepest
// part of the objective could ask: prices that come down together stay
// balanced, while those that had to grow would not.
func (w *solver) start(scale float64) bool {
	copy(w.factor, w.p.q)
	if !w.cholesky() {
		return false
	}
	for i := range w.x {
		w.x[i] = -w.p.c[i]
	}
	w.solve(w.x)
	worst := 1.0
	for i := range w.p.rows {
		r := &w.p.rows[i]
		w.s[i] = r.most - r.dot(w.x)
		worst = max(worst, -w.s[i])
	}
	steepest := 1.0
	for i := range w.p.n {
		steepest = max(steepest, w.p.q[i*(w.p.band+1)])
	}
	for i := range w.s {
		w.s[i], w.z[i] = scale*max(w.s[i], worst), scale*worst*steepest
	}
	return true
}

// residuals finds how far the limits and the objective's slope are off.
func (w *solver) residuals() {
	p := w.p
	copy(w.rd, p.c)
	b := p.band + 1
	for i := range p.n {
		w.rd[i] += p.q[i*b] * w.x[i]
		for d := 1; d < b && d <= i; d++ {
			q := p.q[i*b+d]
			w.rd[i] += q * w.x[i-d]
			w.rd[i-d] += q * w.x[i]
		}
	}
	w.gap, w.off, w.dual = 0, 0, 0
	for i := range p.rows {
		r := &p.rows[i]
		w.rp[i] = r.dot(w.x) + w.s[i] - r.most - r.give*w.z[i]
		r.add(w.rd, w.z[i])
		w.gap += w.s[i] * w.z[i]
		w.off = max(w.off, math.Abs(w.rp[i]))
	}
	w.gap /= float64(len(p.rows))
	// Slopes are sums of prices: their error is measured against those.
	dearest := 1.0
	for i := range w.z {
		dearest = max(dearest, w.z[i])
	}
	for i := range w.rd {
		w.dual = max(w.dual, math.Abs(w.rd[i])/(dearest+math.Abs(p.q[i*b])))
	}
}

// step takes one step: towards the solution as if prices could fall at once,
// then again with what that prediction overlooks put right.
func (w *solver) step(steady bool) bool {
	p := w.p
	copy(w.factor, p.q)
	b := p.band + 1
	for i := range p.rows {
		r := &p.rows[i]
		d := w.z[i] / (w.s[i] + r.give*w.z[i])
		for j := range r.n {
			by, at := d*r.by[j], int(r.at[j])
			w.factor[at*b] += by * r.by[j]
			for k := range j {
				if other := int(r.at[k]); other < at {
					w.factor[at*b+at-other] += by * r.by[k]
				} else {
					w.factor[other*b+other-at] += by * r.by[k]
				}
			}
		}
	}
	if !w.cholesky() {
		return false
	}
	for i := range w.rc {
		w.rc[i] = 0
	}
	reach := 0.0
	if !steady {
		reach = min(1, w.direction(0))
		ahead := 0.0
		for i := range w.s {
			ahead += (w.s[i] + reach*w.ds[i]) * (w.z[i] + reach*w.dz[i])
			w.rc[i] = w.ds[i] * w.dz[i]
		}
		ahead /= float64(len(w.s))
		reach = w.central(min(1, 0.995*w.direction(math.Pow(ahead/w.gap, 3)*w.gap)))
	}
	if reach < shortStep {
		// The prediction misled: step towards the middle of what is allowed.
		for i := range w.rc {
			w.rc[i] = 0
		}
		towards := 0.8
		if steady {
			towards = 0.3
		}
		reach = w.central(min(1, 0.9*w.direction(towards*w.gap)))
	}
	for i := range w.x {
		w.x[i] += reach * w.dx[i]
	}
	for i := range w.s {
		w.s[i] += reach * w.ds[i]
		w.z[i] += reach * w.dz[i]
	}
	return true
}

// direction solves Newton's equations for the residuals at hand, with every
// limit's room times price brought to centre, less what rc holds. It returns
// how far the step may go before some room or price is used up.
func (w *solver) direction(centre float64) (reach float64) {
	for i := range w.dx {
		w.dx[i] = -w.rd[i]
	}
	for i := range w.p.rows {
		s, z := w.s[i], w.z[i]
		w.rc[i] += s*z - centre
		r := &w.p.rows[i]
		r.add(w.dx, (w.rc[i]-z*w.rp[i])/(s+r.give*z))
	}
	w.solve(w.dx)
	reach = math.Inf(1)
	for i := range w.p.rows {
		s, z := w.s[i], w.z[i]
		r := &w.p.rows[i]
		free := -w.rp[i] - r.dot(w.dx)
		dz := (-w.rc[i] - z*free) / (s + r.give*z)
		ds := free + r.give*dz
		w.ds[i], w.dz[i] = ds, dz
		if ds < 0 && reach*ds < -s {
			reach = -s / ds
		}
		if dz < 0 && reach*dz < -z {
			reach = -z / dz
		}
	}
	return reach
}

// central shortens a step until no limit's room and price have come down much
// further than the others': a step that uses one of them up early spoils all
// that follow.
func (w *solver) central(reach float64) float64 {
	const lag = 1e-3
	for range 40 {
		least, sum := math.Inf(1), 0.0
		for i := range w.s {
			v := (w.s[i] + reach*w.ds[i]) * (w.z[i] + reach*w.dz[i])
			if v < least {
				least = v
			}
			sum += v
		}
		if least*float64(len(w.s)) >= lag*sum {
			break
		}
		reach *= 0.8
	}
	return reach
}

// Near the end, limits that bind are so stiff that what is left of a pivot may
// be lost in rounding. Such a variable is settled by the others: it is kept
// where it is by a pivot that is huge (Y. Zhang, Solving large-scale linear
// programs by interior-point methods under the MATLAB environment, 1998).
const (
	lost  = 1e-18
	stuck = 1e128
)

// cholesky turns the banded matrix in factor into its lower triangle L with
// LLᵀ = that matrix.
func (w *solver) cholesky() bool {
	b := w.p.band + 1
	f := w.factor
	for i := range w.p.n {
		w.diagonal[i] = f[i*b]
	}
	for i := range w.p.n {
		for d := min(i, w.p.band); d >= 0; d-- {
			j := i - d
			sum := f[i*b+d]
			for e := d + 1; e < b && e <= i && e-d <= w.p.band; e++ {
				sum -= f[i*b+e] * f[j*b+e-d]
			}
			if d > 0 {
				f[i*b+d] = sum / f[j*b]
				continue
			}
			if !(sum > lost*w.diagonal[i]) {
				if w.diagonal[i] <= 0 || math.IsNaN(sum) {
					return false
				}
				sum = stuck
			}
			f[i*b] = math.Sqrt(sum)
		}
	}
	return true
}

// solve overwrites v with the solution of LLᵀ x = v.
func (w *solver) solve(v []float64) {
	b, n := w.p.band+1, w.p.n
	f := w.factor
	for i := range n {
		sum := v[i]
		for d := 1; d < b && d <= i; d++ {
			sum -= f[i*b+d] * v[i-d]
		}
		v[i] = sum / f[i*b]
	}
	for i := n - 1; i >= 0; i-- {
		sum := v[i]
		for d := 1; d < b && i+d < n; d++ {
			sum -= f[(i+d)*b+d] * v[i+d]
		}
		v[i] = sum / f[i*b]
	}
}
