package grade_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// Ground that no fence climbs, bays of a hand's width and of half a field,
// heights held in the sky and under the earth: whatever comes, every figure is
// a number, and the fence is as high as it should be.
func TestNothingBreaksOnImpossibleGround(t *testing.T) {
	rng := rand.New(rand.NewPCG(81, 82))
	for k := range 150 {
		n := 1 + rng.IntN(14)
		tall := math.Pow(10, rng.Float64()*6)
		c := grade.Course{Fence: job.Fence{Height: 1800, GapLeast: length.Length(rng.IntN(200)), GapMost: 200}, Increment: 50}
		var ground []job.GroundPoint
		at := length.Length(0)
		for i := range n + 1 {
			p := grade.Post{Station: at, Knot: rng.IntN(6) == 0, Corner: i > 0 && i < n && rng.IntN(8) == 0}
			if rng.IntN(8) == 0 {
				gap := length.Length(rng.NormFloat64() * 1500)
				p.Gap = &gap
			}
			c.Posts = append(c.Posts, p)
			ground = append(ground, job.GroundPoint{At: at, Height: length.Length(rng.NormFloat64() * tall)})
			at += length.Length(100 + math.Pow(10, rng.Float64()*4))
			if i < n {
				c.Bays = append(c.Bays, grade.Stretch{Look: job.Looks[rng.IntN(4)], Gate: rng.IntN(5) == 0, LeafGap: 100})
			}
		}
		c.Ground = survey.NewProfile(ground, c.Posts[n].Station)
		rack, most := length.Length(rng.IntN(300)), length.Length(1+rng.IntN(300))
		for _, g := range ways() {
			if g.Across = job.FlatAcross; rng.IntN(2) == 0 {
				g.Across = job.GoesOn
			}
			g.StepMost, g.HoldLevel = &most, rng.IntN(4)
			if rng.IntN(2) == 0 {
				g.Rack = &rack
			}
			c.Grade = g
			for _, line := range []grade.Line{grade.Solve(c), grade.SolveRing(c)} {
				for i, b := range line.Bays {
					for _, v := range []length.Length{b.TopStart, b.TopEnd, b.BottomStart, b.BottomEnd, b.Least.Gap, b.Most.Gap} {
						if math.IsNaN(float64(v)) || math.IsInf(float64(v), 0) || v.Abs() > 1e9 {
							t.Fatalf("case %d, %s %s: bay %d is %+v", k, g.Look, g.Steps, i, b)
						}
					}
					if !c.Bays[i].Gate && (b.TopStart-b.BottomStart-1800).Abs() > 1e-6 {
						t.Fatalf("case %d: bay %d is %v high", k, i, b.TopStart-b.BottomStart)
					}
				}
			}
		}
	}
}
