package qp_test

import (
	"math"
	"math/bits"
	"math/rand/v2"
	"testing"

	"mallow/core/qp"
)

// dense is the same program written out in full, for the other method.
type dense struct {
	q    [][]float64
	c    []float64
	a    [][]float64
	most []float64
}

// both builds a program in both ways.
type both struct {
	n int
	p *qp.Program
	d dense
}

func newBoth(n, band int) *both {
	b := &both{n: n, p: qp.New(n, band), d: dense{q: make([][]float64, n), c: make([]float64, n)}}
	for i := range b.d.q {
		b.d.q[i] = make([]float64, n)
	}
	return b
}

func (b *both) square(weight, want float64, terms ...qp.Term) {
	b.p.Square(weight, want, terms...)
	for _, s := range terms {
		b.d.c[s.At] -= 2 * weight * want * s.By
		for _, t := range terms {
			b.d.q[s.At][t.At] += 2 * weight * s.By * t.By
		}
	}
}

func (b *both) limit(least bool, at float64, terms ...qp.Term) {
	row, sign := make([]float64, b.n), 1.0
	if least {
		b.p.AtLeast(at, terms...)
		sign = -1
	} else {
		b.p.AtMost(at, terms...)
	}
	for _, t := range terms {
		row[t.At] += sign * t.By
	}
	b.d.a, b.d.most = append(b.d.a, row), append(b.d.most, sign*at)
}

// gauss solves a dense system with pivoting; false when it is singular.
func gauss(m [][]float64, v []float64) bool {
	n := len(v)
	for i := range n {
		best := i
		for r := i; r < n; r++ {
			if math.Abs(m[r][i]) > math.Abs(m[best][i]) {
				best = r
			}
		}
		if math.Abs(m[best][i]) < 1e-10 {
			return false
		}
		m[i], m[best], v[i], v[best] = m[best], m[i], v[best], v[i]
		for r := range n {
			if r == i {
				continue
			}
			f := m[r][i] / m[i][i]
			for k := i; k < n; k++ {
				m[r][k] -= f * m[i][k]
			}
			v[r] -= f * v[i]
		}
	}
	for i := range n {
		v[i] /= m[i][i]
	}
	return true
}

// exhaustive tries every set of limits as the ones that bind, and returns the
// place where all limits hold and no binding one would rather let go.
func (d dense) exhaustive() []float64 {
	n, m := len(d.c), len(d.a)
	for set := range 1 << m {
		k := bits.OnesCount(uint(set))
		if k > n {
			continue
		}
		var rows []int
		for i := range m {
			if set>>i&1 == 1 {
				rows = append(rows, i)
			}
		}
		kkt, v := make([][]float64, n+k), make([]float64, n+k)
		for i := range n {
			kkt[i] = append(append([]float64{}, d.q[i]...), make([]float64, k)...)
			for j, r := range rows {
				kkt[i][n+j] = d.a[r][i]
			}
			v[i] = -d.c[i]
		}
		for j, r := range rows {
			kkt[n+j] = append(append([]float64{}, d.a[r]...), make([]float64, k)...)
			v[n+j] = d.most[r]
		}
		if !gauss(kkt, v) {
			continue
		}
		good := true
		for j := range k {
			good = good && v[n+j] >= -1e-9
		}
		for r, row := range d.a {
			sum := 0.0
			for i := range n {
				sum += row[i] * v[i]
			}
			good = good && sum <= d.most[r]+1e-9
		}
		if good {
			return v[:n]
		}
	}
	return nil
}

// Every program of up to five variables and eight limits has the answer that
// trying every set of binding limits finds.
func TestEqualsExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	impossible := 0
	for k := range 3000 {
		n := 1 + rng.IntN(5)
		b := newBoth(n, 2)
		for i := range n {
			b.square(0.1+rng.Float64(), rng.NormFloat64()*50, qp.Term{At: i, By: 1})
		}
		for i := 1; i+1 < n; i++ {
			b.square(rng.Float64()*100, 0, qp.Term{At: i - 1, By: 1}, qp.Term{At: i, By: -2}, qp.Term{At: i + 1, By: 1})
		}
		for range rng.IntN(9) {
			i := rng.IntN(n)
			terms := []qp.Term{{At: i, By: 1 - rng.Float64()}}
			if i+1 < n {
				terms = append(terms, qp.Term{At: i + 1, By: rng.Float64()})
			}
			b.limit(rng.IntN(2) == 0, rng.NormFloat64()*30, terms...)
		}
		want := b.d.exhaustive()
		got, ok := b.p.Solve()
		if want == nil {
			impossible++
			// Limits that all but contradict each other meet far away, where
			// the other method's own rounding spoils its check.
			if ok && (!b.d.holds(got) || far(got) < 1000) {
				t.Fatalf("case %d: solved, though no place keeps the limits: %v", k, got)
			}
			continue
		}
		if !ok {
			t.Fatalf("case %d: not solved; exhaustive search finds %v", k, want)
		}
		for i := range got {
			if math.Abs(got[i]-want[i]) > 1e-4+1e-6*far(want) {
				t.Fatalf("case %d: %v, exhaustive search finds %v", k, got, want)
			}
		}
	}
	if impossible < 100 || impossible > 1500 {
		t.Errorf("%d of the cases were impossible: the test is lopsided", impossible)
	}
}

func (d dense) holds(x []float64) bool {
	for r, row := range d.a {
		sum := 0.0
		for i := range x {
			sum += row[i] * x[i]
		}
		if sum > d.most[r]+1e-3 {
			return false
		}
	}
	return true
}

func far(x []float64) float64 {
	most := 0.0
	for _, v := range x {
		most = math.Max(most, math.Abs(v))
	}
	return most
}

// A chain of heights held between limits that wander, as a fence's are.
func BenchmarkChain10000(b *testing.B) {
	const n = 10000
	b.ReportAllocs()
	for b.Loop() {
		p := qp.New(n, 2)
		for i := range n {
			ground := 300 * math.Sin(float64(i)/7)
			p.Square(1e-3, ground, qp.Term{At: i, By: 1})
			p.AtLeast(ground, qp.Term{At: i, By: 1})
			p.AtMost(ground+100, qp.Term{At: i, By: 1})
			if i > 1 {
				p.Square(1, 0, qp.Term{At: i - 2, By: 1}, qp.Term{At: i - 1, By: -2}, qp.Term{At: i, By: 1})
			}
		}
		if _, ok := p.Solve(); !ok {
			b.Fatal("not solved")
		}
	}
}
