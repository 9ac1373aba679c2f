package footing_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/footing"
)

// The published formula for a post in soil (IBC 1807.3, from memory) solved
// for the depth by bisection outside this project: the push at that depth is
// the push that it was solved for.
func TestPostInSoil(t *testing.T) {
	for _, c := range []struct {
		push, height, width, bearing, depth float64
		held                                bool
	}{
		{200, 3, 1, 150, 4.1015, false}, {200, 3, 1, 300, 3.1009, false}, {500, 3, 1, 200, 5.3228, false}, {500, 3, 1.5, 200, 4.4956, false},
		{300, 3, 1, 100, 5.7481, false}, {300, 3, 2, 100, 4.3046, false}, {500, 3, 1, 200, 3.1707, true},
	} {
		p := footing.LateralLoad{Bearing: c.bearing, Width: c.width, Depth: c.depth, Height: c.height, Restrained: c.held}
		if got := footing.Limit(p); math.Abs(got-c.push) > 2e-4*c.push {
			t.Errorf("%+v: %.3f lb, want %v", c, got, c.push)
		}
	}
}

// The formula as it is printed, d from P, bisected for P: another way to what
// Limit finds in closed form. Past 12 ft bearing grows no more.
func TestLimitAgainstBisection(t *testing.T) {
	rng := rand.New(rand.NewPCG(61, 1))
	for range 2000 {
		p := footing.LateralLoad{Bearing: 50 + 400*rng.Float64(), Width: 0.3 + 2*rng.Float64(), Depth: 0.5 + 15*rng.Float64(), Height: 8 * rng.Float64()}
		needs := func(push float64) float64 {
			s1 := p.Bearing * min(p.Depth, 12) / 3
			a := 2.34 * push / (s1 * p.Width)
			return 0.5 * a * (1 + math.Sqrt(1+4.36*p.Height/a))
		}
		low, high := 1e-9, 1e7
		for range 200 {
			if mid := (low + high) / 2; needs(mid) < p.Depth {
				low = mid
			} else {
				high = mid
			}
		}
		if got := footing.Limit(p); math.Abs(got-low) > 1e-6*low {
			t.Fatalf("%+v: %.6f lb, bisected %.6f", p, got, low)
		}
	}
}

// A moment that acts besides counts as the same push higher up; deeper, wider
// and firmer never bear less; twice the width saves a quarter of the depth.
func TestLimitProperties(t *testing.T) {
	rng := rand.New(rand.NewPCG(62, 1))
	for range 2000 {
		p := footing.LateralLoad{Bearing: 50 + 400*rng.Float64(), Width: 0.3 + 2*rng.Float64(), Depth: 0.5 + 15*rng.Float64(), Height: 8 * rng.Float64(), Restrained: rng.IntN(3) == 0}
		at := footing.Limit(p)
		for _, more := range []func(*footing.LateralLoad){
			func(q *footing.LateralLoad) { q.Depth += rng.Float64() }, func(q *footing.LateralLoad) { q.Width += rng.Float64() }, func(q *footing.LateralLoad) { q.Bearing += 10 },
		} {
			q := p
			more(&q)
			if footing.Limit(q) < at-1e-9 {
				t.Fatalf("%+v bears %v, %+v only %v", p, at, q, footing.Limit(q))
			}
		}
		q := p
		q.Moment = at * 0.3
		if with := footing.Limit(q); !p.Restrained {
			higher := p
			higher.Height += q.Moment / with
			if alike := footing.Limit(higher); math.Abs(alike-with) > 1e-6*with {
				t.Fatalf("a moment of %v: %v lb, the same push higher up %v", q.Moment, with, alike)
			}
		}
	}
}

// Held by a pin at its foot: the pressure summed in thin slices turns it about
// the foot as the push does, and the pin holds what is left over.
func TestPinnedBySlices(t *testing.T) {
	p := footing.LateralLoad{Bearing: 150, Width: 1, Depth: 1.83, Height: 3.5}
	moment, soil := 0.0, 0.0
	const n = 20000
	for i := range n {
		z := (float64(i) + 0.5) * p.Depth / n
		force := p.Bearing * z * p.Width * p.Depth / n
		soil, moment = soil+force, moment+force*(p.Depth-z)
	}
	want := moment / (p.Depth + p.Height)
	if got := footing.Pinned(p, 1e9); math.Abs(got-want) > 1e-6*want {
		t.Errorf("%.4f lb, by slices %.4f", got, want)
	}
	// A pin that can hold only half of what is left over lets half of the push.
	if got := footing.Pinned(p, (soil-want)/2); math.Abs(got-want/2) > 1e-6*want {
		t.Errorf("with half the pin %.4f lb, want %.4f", got, want/2)
	}
}

// ASCE 7 (from memory): q at 115 mph, exposure C, is 24.46 psf.
func TestWindPressure(t *testing.T) {
	w := footing.Wind{Exposure: "C", Solidity: 1}
	if q := w.Pressure(115); math.Abs(q-24.46) > 0.005 {
		t.Errorf("q = %.3f psf", q)
	}
	// A gust pushes with q G Cf A, so that the gust which it comes from is found again.
	force := w.Pressure(90) * 0.85 * w.Force() * 48
	if got := w.Gust(force, 48); math.Abs(got-90) > 1e-9 {
		t.Errorf("%.3f mph, want 90", got)
	}
	last := 0.0
	for s := 0.02; s <= 1; s += 0.02 { // the more solid, the more wind it takes
		f := footing.Wind{Exposure: "B", Solidity: s}.Force()
		if f < last-0.06 {
			t.Errorf("%.2f solid: %.3f, less than %.3f at less", s, f, last)
		}
		last = f
	}
	if w.Force() != 1.3 || (footing.Wind{Exposure: "D", Solidity: 0}).Force() != 0 {
		t.Error("a wall without gaps is 1.3, and nothing is pushed on nothing")
	}
}
