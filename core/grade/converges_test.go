package grade

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

func anyRaked(r *rand.Rand) Course {
	n := 2 + r.IntN(40)
	c := Course{}
	c.Fence = job.Fence{Height: 1800, GapLeast: length.Length(r.IntN(3)) * 25}
	c.Fence.GapMost = c.Fence.GapLeast + length.Length(r.IntN(120))
	give := []job.Give{job.Fill, job.Cut, job.Both}[r.IntN(3)]
	s := []float64{0, 0.25, 0.5, 0.75, 1}[r.IntN(5)]
	c.Grade = job.Grade{Look: job.Raked, Give: give, Straight: &s}
	if r.IntN(3) == 0 {
		k := length.Length(r.IntN(500))
		c.Grade.Rack = &k
	}
	at := length.Length(0)
	for i := range n + 1 {
		c.Posts = append(c.Posts, Post{Station: at})
		if i < n {
			c.Bays = append(c.Bays, Stretch{Look: job.Raked})
		}
		at += length.Length(800 + r.IntN(2000))
	}
	end := c.Posts[n].Station
	var g []job.GroundPoint
	h := length.Length(0)
	steep := []float64{0.02, 0.1, 0.3, 0.6}[r.IntN(4)]
	for x := length.Length(0); x < end; {
		g = append(g, job.GroundPoint{At: x, Height: h})
		d := length.Length(100 + r.IntN(8000))
		x += d
		h += d * length.Length(steep*(2*r.Float64()-1))
	}
	c.Ground = survey.NewProfile(g, end)
	return c
}

func TestScan(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 7))
	bad := 0
	start := time.Now()
	const N = 20000
	for k := range N {
		c := anyRaked(r)
		w := newSolving(c)
		f := w.flowOf(span{job.Raked, 0, len(c.Bays) - 1}, c.Grade.Stiff())
		if _, ok := f.p.Solve(); !ok {
			bad++
			if bad < 5 {
				fmt.Println("bad", k, len(c.Bays), c.Grade.Give, *c.Grade.Straight)
			}
		}
	}
	fmt.Println(bad, "of", N, time.Since(start))
}
