package grade

import (
	"math/rand/v2"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// anyRaked is a course of raked bays over random ground, with any choice.
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

// TestRakedAlwaysEnds grades random raked courses: none ends without an answer,
// and none asks for earth where the polygon method, which knows nothing of the
// quadratic program, finds a line that keeps to the corridor.
func TestRakedAlwaysEnds(t *testing.T) {
	n := 100000
	if testing.Short() {
		n = 1200
	}
	r := rand.New(rand.NewPCG(1, 7))
	fitting, earth := 0, 0
	for k := range n {
		c := anyRaked(r)
		line := Solve(c)
		if line.Lost {
			t.Fatalf("case %d: no end", k)
		}
		w := newSolving(c)
		_, fits := w.flowOf(span{job.Raked, 0, len(c.Bays) - 1}, c.Grade.Stiff()).fits()
		cut, fill := line.Worst()
		if cut != nil || fill != nil {
			earth++
		}
		if !fits {
			continue
		}
		fitting++
		if cut != nil || fill != nil {
			t.Fatalf("case %d: a line fits, but cut %+v, fill %+v are asked for", k, cut, fill)
		}
	}
	if fitting < n/20 || earth < n/4 {
		t.Errorf("%d of %d fit, %d move earth: the test says little", fitting, n, earth)
	}
}

// TestFallsBackOnThePolygons: what is found without the solver keeps to the
// corridor.
func TestFallsBackOnThePolygons(t *testing.T) {
	c := anyRaked(rand.New(rand.NewPCG(3, 3)))
	c.Fence.GapMost = c.Fence.GapLeast + 400
	c.Ground = survey.NewProfile(nil, c.Posts[len(c.Posts)-1].Station)
	w := newSolving(c)
	y, ok := w.flowOf(span{job.Raked, 0, len(c.Bays) - 1}, 0.5).fits()
	if !ok {
		t.Fatal("nothing fits on level ground")
	}
	for i, h := range y {
		if h < float64(c.Fence.GapLeast)-1e-6 || h > float64(c.Fence.GapMost)+1e-6 {
			t.Errorf("post %d at %v, outside %v to %v", i, h, c.Fence.GapLeast, c.Fence.GapMost)
		}
	}
}
