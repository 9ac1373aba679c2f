package grade

import (
	"math"
	"math/bits"
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// wavy is a rolling course over waves and noise.
func wavy(rng *rand.Rand, bays int, noise float64) Course {
	c := Course{Fence: job.Fence{Height: 1800, GapLeast: 50, GapMost: 50 + length.Length(20+rng.IntN(80))}, Grade: job.Grade{Look: job.Rolling, Give: job.Fill}}
	at, wave, tall := 0.0, 6000+rng.Float64()*9000, 50+rng.Float64()*200
	var ground []job.GroundPoint
	for i := range bays + 1 {
		c.Posts = append(c.Posts, Post{Station: length.Length(at)})
		if i > 0 {
			c.Bays = append(c.Bays, Stretch{Look: job.Rolling})
		}
		ground = append(ground, job.GroundPoint{At: length.Length(at), Height: length.Length(tall*math.Sin(at/wave) + rng.NormFloat64()*noise)})
		at += 1800 + rng.Float64()*600
	}
	c.Ground = survey.NewProfile(ground, c.Posts[bays].Station)
	return c
}

func rollOf(c Course) *roll {
	w := newSolving(c)
	f := w.flowOf(w.spans[0], mostStiff)
	r := newRoll(f, f.solve(mostStiff), 0)
	r.explore()
	return r
}

// Of all sets of posts of the fewest size, tried one by one, none gives a
// smoother line; and moving posts one at a time, as is done on long lines,
// ends no smoother either.
func TestRollingIsTheSmoothestOfTheFewest(t *testing.T) {
	rng := rand.New(rand.NewPCG(41, 42))
	several, same, moved := 0, 0, 0
	for k := range 150 {
		c := wavy(rng, 4+rng.IntN(7), 6)
		r := rollOf(c)
		knots, heights, ok := r.best()
		if !ok {
			t.Fatalf("case %d: no line found", k)
		}
		n, size := len(c.Bays), len(knots)-2
		got := 0.0
		for i := range knots {
			got += r.broken(knots, heights, i)
		}
		least, count := math.Inf(1), 0
		for set := range 1 << (n - 1) {
			if bits.OnesCount(uint(set)) > size {
				continue
			}
			try := []int{0}
			for p := 1; p < n; p++ {
				if set>>(p-1)&1 == 1 {
					try = append(try, p)
				}
			}
			_, cost, ok := r.smooth(append(try, n))
			if ok && len(try)-1 < size {
				t.Fatalf("case %d: %d grade posts, %v has fewer", k, size, try)
			}
			if ok {
				count++
				least = min(least, cost)
			}
		}
		if got > least*(1+1e-4)+1e-3 {
			t.Fatalf("case %d: breaks of %v cost %v, %v is to be had", k, knots, got, least)
		}
		if count > 1 {
			several++
		}
		first, ok := r.anyWay(r.reach[n][0].count)
		if !ok {
			t.Fatalf("case %d: no way back", k)
		}
		_, before, _ := r.smooth(first)
		own, _, ok := r.improve(slices.Clone(first))
		if !ok {
			t.Fatalf("case %d: moving posts lost the line", k)
		}
		_, after, _ := r.smooth(own)
		if after > before*(1+1e-6)+1e-3 || after < least*(1-1e-4)-1e-3 {
			t.Fatalf("case %d: moving posts went from %v to %v; the least is %v", k, before, after, least)
		}
		if after < before-1e-3 {
			moved++
		}
		if after <= least*(1+1e-4)+1e-3 {
			same++
		}
	}
	if several < 25 || moved < 20 || same < 100 {
		t.Errorf("%d cases had a choice, moving posts helped in %d and found the least in %d", several, moved, same)
	}
}
