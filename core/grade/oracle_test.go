package grade_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// site is a small course over random ground, with what the other methods need
// of it in plain numbers.
type site struct {
	c        grade.Course
	at       []float64    // stations of the posts
	ground   [][2]float64 // break points
	low, top float64      // least and most gap
}

func randomSite(rng *rand.Rand, bays int, look job.Look, rough float64) site {
	s := site{low: 50, top: 50 + float64(rng.IntN(60))}
	at := 0.0
	for range bays + 1 {
		s.at = append(s.at, at)
		at += 1500 + math.Floor(rng.Float64()*1000)
	}
	end := s.at[bays]
	var points []job.GroundPoint
	slope := rng.NormFloat64() * 0.05
	for x := 0.0; x <= end; x += 200 + rng.Float64()*2500 {
		h := math.Round(slope*x + rng.NormFloat64()*rough)
		s.ground = append(s.ground, [2]float64{x, h})
		points = append(points, job.GroundPoint{At: length.Length(x), Height: length.Length(h)})
	}
	s.c = grade.Course{
		Fence: job.Fence{Height: 1800, GapLeast: length.Length(s.low), GapMost: length.Length(s.top)},
		Grade: job.Grade{Look: look, Give: job.Fill}, Increment: 50, Ground: survey.NewProfile(points, length.Length(end)),
	}
	for i, x := range s.at {
		s.c.Posts = append(s.c.Posts, grade.Post{Station: length.Length(x)})
		if i > 0 {
			s.c.Bays = append(s.c.Bays, grade.Stretch{Look: look})
		}
	}
	return s
}

// h is the ground's height, found the slow way.
func (s site) h(x float64) float64 {
	for i := 1; i < len(s.ground); i++ {
		if p, q := s.ground[i-1], s.ground[i]; x <= q[0] {
			return p[1] + (q[1]-p[1])*(x-p[0])/(q[0]-p[0])
		}
	}
	return s.ground[len(s.ground)-1][1]
}

// places are both ends of a stretch and the break points between.
func (s site) places(a, b float64) []float64 {
	out := []float64{a, b}
	for _, g := range s.ground {
		if g[0] > a && g[0] < b {
			out = append(out, g[0])
		}
	}
	return out
}

// excess is by how much a straight bottom is under the least gap, and over
// the most.
func (s site) excess(a, ya, b, yb float64) (under, over float64) {
	for _, x := range s.places(a, b) {
		gap := ya + (yb-ya)*(x-a)/(b-a) - s.h(x)
		under, over = max(under, s.low-gap), max(over, gap-s.top)
	}
	return under, over
}

// Weights of the stated order: earth, then racking, then the shape.
const (
	earthWeight = 1e6
	rackWeight  = 1e3
	// What a bay with a tenth of a millimetre of earth all along costs: less
	// than that nobody digs, and none is weighed.
	slack = earthWeight * 0.01
)

// hard is without end where a line passes what its choice never lets go.
func (s site) hard(under, over float64) float64 {
	if s.c.Grade.Give == job.Fill && under > 1e-6 || s.c.Grade.Give == job.Cut && over > 1e-6 {
		return math.Inf(1)
	}
	return 0
}

// squared is the integral of the square of the positive part of a straight
// line from a to b over a length, in closed form.
func squared(a, b, long float64) float64 {
	switch {
	case a <= 0 && b <= 0:
		return 0
	case a >= 0 && b >= 0:
		return long * (a*a + a*b + b*b) / 3
	}
	most, least := max(a, b), min(a, b)
	return long * most * most * most / (most - least) / 3
}

// cost is the stated objective of a raked line, worked out from its words.
func (s site) cost(y []float64) float64 {
	straight := min(0.97, s.c.Grade.Stiff())
	w := math.Pow(straight/(1-straight), 4)
	sum, regular := 0.0, (s.at[len(s.at)-1]-s.at[0])/float64(len(s.at)-1)
	for i := range y {
		near := y[i] - s.h(s.at[i]) - s.low
		sum += near * near / (1 + w)
		if i+1 == len(y) {
			continue
		}
		places := s.places(s.at[i], s.at[i+1])
		slices.Sort(places)
		var before float64
		for k, x := range places {
			gap := y[i] + (y[i+1]-y[i])*(x-s.at[i])/(s.at[i+1]-s.at[i]) - s.h(x)
			sum += s.hard(s.low-gap, gap-s.top)
			if k > 0 {
				long := x - places[k-1]
				sum += earthWeight / regular * (squared(s.low-before, s.low-gap, long) + squared(before-s.top, gap-s.top, long))
			}
			before = gap
		}
		if r := s.c.Grade.Rack; r != nil {
			past := max(0, math.Abs(y[i+1]-y[i])-float64(*r))
			sum += rackWeight * past * past
		}
		if i > 0 {
			bend := regular * ((y[i+1]-y[i])/(s.at[i+1]-s.at[i]) - (y[i]-y[i-1])/(s.at[i]-s.at[i-1]))
			sum += bend * bend * w / (1 + w)
		}
	}
	return sum
}

func bottoms(l grade.Line) []float64 {
	y := []float64{float64(l.Bays[0].BottomStart)}
	for _, b := range l.Bays {
		y = append(y, float64(b.BottomEnd))
	}
	return y
}

// The raked line over two bays costs no more than any line whose heights are
// tried millimetre by millimetre.
func TestRakedEqualsExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(21, 22))
	for k := range 30 {
		s := randomSite(rng, 2, job.Raked, 40)
		s.c.Grade.Give = []job.Give{job.Fill, job.Cut, job.Both}[rng.IntN(3)]
		straight := rng.Float64()
		s.c.Grade.Straight = &straight
		if rng.IntN(2) == 0 {
			rack := length.Length(rng.IntN(150))
			s.c.Grade.Rack = &rack
		}
		y := bottoms(grade.Solve(s.c))
		nudged := append([]float64(nil), y...)
		for i := range nudged { // off the bounds by less than the solver's last digit
			switch s.c.Grade.Give {
			case job.Fill:
				nudged[i] += 1e-4
			case job.Cut:
				nudged[i] -= 1e-4
			}
		}
		got := s.cost(nudged)
		try := make([]float64, 3)
		for a := -60.0; a <= 60; a += 2 {
			for b := -60.0; b <= 60; b += 2 {
				for c := -60.0; c <= 60; c += 2 {
					try[0], try[1], try[2] = math.Round(y[0])+a, math.Round(y[1])+b, math.Round(y[2])+c
					if cost := s.cost(try); cost < got*(1-3e-2)-slack*3 {
						t.Fatalf("case %d: %v costs %v, %v only %v (%+v)", k, y, got, try, cost, s.c.Grade)
					}
				}
			}
		}
	}
}

// The objective is convex: a line that no small step in any direction makes
// better is the best there is. Tried on longer lines, in random directions.
func TestRakedCannotBeImproved(t *testing.T) {
	rng := rand.New(rand.NewPCG(23, 24))
	for k := range 120 {
		s := randomSite(rng, 3+rng.IntN(12), job.Raked, 5+rng.Float64()*60)
		straight := rng.Float64()
		s.c.Grade.Straight, s.c.Grade.Give = &straight, job.Both // no hard edge for a step to fall over
		y := bottoms(grade.Solve(s.c))
		got := s.cost(y)
		try := make([]float64, len(y))
		for range 800 {
			step := math.Pow(10, -2*rng.Float64())
			whole := rng.NormFloat64() * step * float64(rng.IntN(2))
			one := rng.IntN(len(y))
			for i := range y {
				try[i] = y[i] + whole
				if i == one || rng.IntN(4) == 0 {
					try[i] += rng.NormFloat64() * step
				}
			}
			if cost := s.cost(try); cost < got*(1-3e-2)-slack*float64(len(y)) {
				t.Fatalf("case %d: %v costs %v, %v only %v", k, y, got, try, cost)
			}
		}
	}
}

// fewest is the least number of breaks of a line whose heights at the posts
// are whole millimetres: every post, height and straight piece is tried. by
// widens the corridor.
func (s site) fewest(by float64) int {
	wide := s
	wide.low, wide.top = s.low-by, s.top+by
	n := len(s.at) - 1
	heights := func(i int) []float64 {
		var out []float64
		for y := math.Ceil(s.h(s.at[i]) + wide.low); y <= s.h(s.at[i])+wide.top; y += 1 {
			out = append(out, y)
		}
		return out
	}
	const never = 1 << 20
	best := make([][]int, n+1)
	for i := range best {
		best[i] = make([]int, len(heights(i)))
		for k := range best[i] {
			if best[i][k] = never; i == 0 {
				best[i][k] = 0
			}
		}
	}
	for a := range n {
		for ka, ya := range heights(a) {
			if best[a][ka] == never {
				continue
			}
			for b := a + 1; b <= n; b++ {
				more := 1
				if b == n {
					more = 0
				}
				for kb, yb := range heights(b) {
					if best[a][ka]+more >= best[b][kb] {
						continue
					}
					if under, over := wide.excess(s.at[a], ya, s.at[b], yb); under <= 0 && over <= 0 {
						best[b][kb] = best[a][ka] + more
					}
				}
			}
		}
	}
	least := never
	for _, c := range best[n] {
		least = min(least, c)
	}
	return least
}

// The rolling line has no more grade posts than any line has, found by trying
// every height in whole millimetres: in a corridor a millimetre narrower that
// search can only find more, in a wider one only fewer, and mostly both agree.
func TestRollingHasTheFewestGradePosts(t *testing.T) {
	rng := rand.New(rand.NewPCG(25, 26))
	agreed, broken := 0, 0
	for k := range 200 {
		s := randomSite(rng, 3+rng.IntN(5), job.Rolling, 12)
		line := grade.Solve(s.c)
		if cut, fill := line.Worst(); cut != nil || fill != nil {
			continue // it needs earth: another question
		}
		got := 0
		for _, knot := range line.Knots {
			if knot {
				got++
			}
		}
		most, least := s.fewest(-1), s.fewest(1)
		if got > most || got < least {
			t.Fatalf("case %d: %d grade posts; trying everything finds %d to %d", k, got, least, most)
		}
		if most == least {
			agreed++
			if got > 0 {
				broken++
			}
		}
	}
	if agreed < 60 || broken < 25 {
		t.Errorf("only %d cases were settled, %d with grade posts", agreed, broken)
	}
}

// panels of a stepped course: the height that each needs, filling.
func (s site) lows() []float64 {
	var out []float64
	for i := 1; i < len(s.at); i++ {
		most := math.Inf(-1)
		for _, x := range s.places(s.at[i-1], s.at[i]) {
			most = max(most, s.h(x))
		}
		out = append(out, most+s.low)
	}
	return out
}

// The tight string lies as low over the panels as any string through two of
// their corners, or any level one.
func TestEvenStepsEqualExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(27, 28))
	for k := range 400 {
		s := randomSite(rng, 1+rng.IntN(8), job.Stepped, 60)
		s.c.Grade.Steps = job.EvenSteps
		lows := s.lows()
		// A panel hangs from the string at its lower post.
		sum := func(x, y, m float64) float64 {
			total := 0.0
			for i, low := range lows {
				z := min(y+m*(s.at[i]-x), y+m*(s.at[i+1]-x))
				if z < low-1e-6 {
					return math.Inf(1)
				}
				total += z - low
			}
			return total
		}
		least := math.Inf(1)
		for i := range lows {
			for _, xi := range []float64{s.at[i], s.at[i+1]} {
				least = min(least, sum(xi, lows[i], 0))
				for j := range lows {
					for _, xj := range []float64{s.at[j], s.at[j+1]} {
						if xi != xj {
							least = min(least, sum(xi, lows[i], (lows[j]-lows[i])/(xj-xi)))
						}
					}
				}
			}
		}
		got := 0.0
		for i, b := range grade.Solve(s.c).Bays {
			if float64(b.BottomStart) < lows[i]-1e-6 {
				t.Fatalf("case %d: panel %d hangs under its least gap", k, i)
			}
			got += float64(b.BottomStart) - lows[i]
		}
		if got > least+1e-6 {
			t.Fatalf("case %d: gaps sum to %v, a string with %v is to be had", k, got, least)
		}
	}
}

// Equal bays on an even slope drop equally: five bays of 2 m that rise 500 mm
// step 100 mm each, by hand.
func TestTightStringByHand(t *testing.T) {
	r := run(job.Stepped, job.Fill, 10000, job.GroundPoint{At: 0, Height: 0}, job.GroundPoint{At: 10000, Height: 500})
	r.Grade.Steps = job.EvenSteps
	_, _, line := solve(r)
	for i, b := range line.Bays {
		if want := length.Length(150 + 100*i); !length.Same(b.BottomStart, want) || !length.Same(b.BottomEnd, want) {
			t.Errorf("panel %d hangs at %v, want %v", i, b.BottomStart, want)
		}
	}
	// Lifted 60 mm at its upper end only, the string turns about the lower: a
	// panel hangs from it at its lower post, 0, 2, 4, 6 and 8 m up.
	up, down := length.Length(50+160), length.Length(150)
	r.Grade.StartGap, r.Grade.EndGap = &down, &up
	_, _, line = solve(r)
	for i, b := range line.Bays {
		if want := length.Length(150 + 112*i); !length.Same(b.BottomStart, want) {
			t.Errorf("lifted: panel %d hangs at %v, want %v", i, b.BottomStart, want)
		}
	}
}

// Round steps are as near to their panels' best as any choice of increments
// that keeps the limits, found by trying all.
func TestRoundStepsEqualExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(29, 30))
	let := 0
	for k := range 300 {
		s := randomSite(rng, 2+rng.IntN(4), job.Stepped, 50)
		s.c.Grade.Steps, s.c.Grade.StepEase, s.c.Grade.HoldLevel = job.RoundStep, rng.IntN(3), rng.IntN(3)
		if rng.IntN(2) == 0 {
			most := length.Length(50 * (2 + rng.IntN(3)))
			s.c.Grade.StepMost = &most
		}
		lows := s.lows()
		n := len(lows)
		order := make([]int, n)
		for i := range order {
			if order[i] = i; lows[0] < lows[n-1] {
				order[i] = n - 1 - i
			}
		}
		level := min(n, s.c.Grade.HoldLevel)
		base := lows[order[0]]
		for i := range level {
			base = max(base, lows[order[i]])
		}
		least := math.Inf(1)
		ks := make([]int, n)
		var try func(i int, cost float64)
		try = func(i int, cost float64) {
			if cost >= least {
				return
			}
			if i == n {
				least = cost
				return
			}
			low := lows[order[i]]
			first := int(math.Ceil((low - base) / 50))
			for kk := first; kk < first+12; kk++ {
				if ks[i] = kk; i < max(1, level) {
					if ks[i] = 0; kk > first {
						break
					}
				}
				if i > 0 {
					d := ks[i] - ks[i-1]
					before := 0
					if i > 1 {
						before = ks[i-1] - ks[i-2]
					}
					if m := s.c.Grade.StepMost; m != nil && math.Abs(float64(d*50)) > float64(*m) {
						continue
					}
					if e := s.c.Grade.StepEase; e > 0 && (d-before > e || before-d > e) {
						continue
					}
				}
				try(i+1, cost+base+float64(ks[i])*50-low)
			}
		}
		try(0, 0)
		if math.IsInf(least, 1) {
			let++
			continue // no choice keeps the limits: they are let go and reported
		}
		got := 0.0
		for i, b := range grade.Solve(s.c).Bays {
			got += float64(b.BottomStart) - lows[i]
		}
		if math.Abs(got-least) > 1e-6 {
			t.Fatalf("case %d: gaps sum to %v, trying all finds %v (%+v)", k, got, least, s.c.Grade)
		}
	}
	if let > 100 {
		t.Errorf("%d cases kept no limits", let)
	}
}

// gradual's stated objective.
func gradualCost(z, best []float64, t, most float64) float64 {
	w := math.Pow(min(t, 0.97)/(1-min(t, 0.97)), 4)
	sum := 0.0
	for i := range z {
		if z[i] < best[i]-1e-6 || i > 0 && math.Abs(z[i]-z[i-1]) > most+1e-6 {
			return math.Inf(1)
		}
		sum += (z[i] - best[i]) * (z[i] - best[i]) / (1 + w)
		if i > 1 {
			d := z[i] - 2*z[i-1] + z[i-2]
			sum += d * d * w / (1 + w)
		}
	}
	return sum
}

// Gradual drops, on three panels millimetre by millimetre.
func TestGradualStepsEqualExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(31, 32))
	for k := range 60 {
		s := randomSite(rng, 3, job.Stepped, 60)
		straight := rng.Float64()
		s.c.Fence.GapMost = 2000 // room enough: only the least gap binds
		s.c.Grade.Steps, s.c.Grade.Straight = job.Gradual, &straight
		best := s.lows()
		most := math.Inf(1)
		if rng.IntN(2) == 0 {
			most = max(math.Abs(best[1]-best[0]), math.Abs(best[2]-best[1]))
			m := length.Length(most * (0.6 + rng.Float64()))
			most = float64(m)
			s.c.Grade.StepMost = &m
		}
		var z []float64
		for _, b := range grade.Solve(s.c).Bays {
			z = append(z, float64(b.BottomStart)+1e-5)
		}
		got := gradualCost(z, best, straight, most)
		try := make([]float64, 3)
		for a := 0.0; a < 150; a += 3 {
			for b := 0.0; b < 150; b += 3 {
				for c := 0.0; c < 150; c += 3 {
					try[0], try[1], try[2] = best[0]+a, best[1]+b, best[2]+c
					if cost := gradualCost(try, best, straight, most); cost < got-1e-2 {
						t.Fatalf("case %d: %v costs %v, %v only %v", k, z, got, try, cost)
					}
				}
			}
		}
	}
}
