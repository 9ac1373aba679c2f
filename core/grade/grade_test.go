package grade_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/survey"
)

func run(look job.Look, give job.Give, total length.Length, ground ...job.GroundPoint) job.Run {
	return job.Run{
		Length: &total, Ground: ground, Post: job.Post{Width: 100}, Spacing: job.Spacing{Most: 2000},
		Fence: job.Fence{Height: 1800, GapLeast: 50, GapMost: 75},
		Grade: job.Grade{Look: look, Give: give},
	}
}

func solve(r job.Run) (spacing.Layout, survey.Profile, grade.Line) {
	layout, ground := spacing.Lay(r, spacing.Site{Mark: 1, Hole: func(job.PostKind) length.Length { return 300 }}), survey.NewProfile(r.Ground, *r.Length)
	return layout, ground, grade.Solve(grade.NewCourse(r, layout, ground, length.Units{System: length.Metric}))
}

// A 10 m run rising 500 mm, in five bays of 2 m: worked by hand.
func TestLooksOnAnEvenSlope(t *testing.T) {
	slope := []job.GroundPoint{{At: 0, Height: 0}, {At: 10000, Height: 500}}
	for _, c := range []struct {
		look             job.Look
		give             job.Give
		first, last, top length.Length // bottom of the first and last bay, top of the first post
		fill, cut        length.Length // the worst
	}{
		{job.Stepped, job.Fill, 150, 550, 1950, 75, 0},
		{job.Stepped, job.Cut, 75, 475, 1875, 0, 75},
		{job.Stepped, job.Both, 112.5, 512.5, 1912.5, 37.5, 37.5},
		{job.Level, job.Fill, 550, 550, 2350, 475, 0},
		{job.Raked, job.Fill, 50, 450, 1850, 0, 0},
	} {
		_, _, line := solve(run(c.look, c.give, 10000, slope...))
		cut, fill := line.Worst()
		got := [5]length.Length{line.Bays[0].BottomStart, line.Bays[4].BottomStart, line.Tops[0]}
		if fill != nil {
			got[3] = fill.Depth
		}
		if cut != nil {
			got[4] = cut.Depth
		}
		for i, want := range [5]length.Length{c.first, c.last, c.top, c.fill, c.cut} {
			if !length.Same(got[i], want) {
				t.Errorf("%s, %s: value %d is %v, want %v", c.look, c.give, i, got[i], want)
			}
		}
	}
}

func TestGateIsFlatAcross(t *testing.T) {
	for _, look := range []job.Look{job.Level, job.Stepped, job.Raked} {
		r := run(look, job.Fill, 10000, job.GroundPoint{At: 0, Height: 0}, job.GroundPoint{At: 4000, Height: 300}, job.GroundPoint{At: 10000, Height: 250})
		r.Gates = []job.Gate{{At: 3500, Opening: 1200, Gap: 100}}
		layout, _, line := solve(r)
		for i, b := range layout.Bays {
			if b.Gate == spacing.NoGate {
				continue
			}
			got := line.Bays[i]
			if got.TopStart != got.TopEnd || got.BottomStart != got.BottomEnd {
				t.Errorf("%s: the gate leans: %+v", look, got)
			}
			// The highest ground under the leaf is at 4 m: 300 mm.
			if !length.Same(got.BottomStart, 400) || !length.Same(got.Least.Gap, 100) || !length.Same(got.Least.At, 4000) {
				t.Errorf("%s: leaf at %v with %+v", look, got.BottomStart, got.Least)
			}
		}
	}
}

// Over random ground, sampled finely and not at break points only: the gap
// stays in the corridor, or leaves it by no more than the cut or fill that is
// reported; and the fence holds the limit that the job says it holds.
func TestCorridorBySampling(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 6))
	for range 1200 {
		total := length.Length(4000 + rng.Float64()*30000)
		var ground []job.GroundPoint
		for at := length.Length(0); at < total; at += length.Length(300 + rng.Float64()*4000) {
			ground = append(ground, job.GroundPoint{At: at, Height: length.Length(rng.NormFloat64() * 150)})
		}
		r := run([]job.Look{job.Level, job.Stepped, job.Raked}[rng.IntN(3)], []job.Give{job.Fill, job.Cut, job.Both}[rng.IntN(3)], total, ground...)
		r.Fence.GapMost = r.Fence.GapLeast + length.Length(rng.Float64()*200)
		if rng.IntN(2) == 0 {
			r.Gates = []job.Gate{{At: total / 2, Opening: 1000, Gap: 100}}
		}
		layout, profile, line := solve(r)
		for i, b := range layout.Bays {
			if b.Gate == spacing.NoGate {
				sampled(t, r, layout.Posts[b.First].Station, layout.Posts[b.First+1].Station, profile, line.Bays[i])
			}
		}
	}
}

func sampled(t *testing.T, r job.Run, from, to length.Length, ground survey.Profile, b grade.Bay) {
	t.Helper()
	least, most := length.Length(math.Inf(1)), length.Length(math.Inf(-1))
	const n = 400
	for k := range n + 1 {
		f := length.Length(k) / n
		gap := b.BottomStart + f*(b.BottomEnd-b.BottomStart) - ground.Height(from+f*(to-from))
		least, most = min(least, gap), max(most, gap)
	}
	const slack = 12 // a sample may miss the very point: the steepest ground here does not move more
	if least < b.Least.Gap-1e-6 || most > b.Most.Gap+1e-6 || least > b.Least.Gap+slack || most < b.Most.Gap-slack {
		t.Fatalf("reported gaps %v to %v, sampled %v to %v", b.Least.Gap, b.Most.Gap, least, most)
	}
	cut, fill := length.Length(0), length.Length(0)
	if b.Cut != nil {
		cut = b.Cut.Depth
	}
	if b.Fill != nil {
		fill = b.Fill.Depth
	}
	if least+cut < r.Fence.GapLeast-0.11 || most-fill > r.Fence.GapMost+0.11 { // a tenth of a millimetre is not called earth
		t.Fatalf("gaps %v to %v leave the corridor by more than cut %v and fill %v", least, most, cut, fill)
	}
	if r.Grade.Give == job.Fill && cut > 0 || r.Grade.Give == job.Cut && fill > 0 {
		t.Fatalf("%s, %s: cut %v and fill %v", r.Grade.Look, r.Grade.Give, cut, fill)
	}
}

// Where stepping fits at all, it moves no earth: found by trying every height
// of the panel.
func TestSteppedFitsWheneverAnyHeightWould(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 8))
	for range 500 {
		r := run(job.Stepped, job.Both, 2000, job.GroundPoint{At: 0, Height: 0},
			job.GroundPoint{At: 900, Height: length.Length(rng.IntN(60) - 30)}, job.GroundPoint{At: 2000, Height: length.Length(rng.IntN(60) - 30)})
		_, profile, line := solve(r)
		low, high := profile.Span(0, 2000)
		any := false
		for y := length.Length(-200); y < 200; y += 0.5 {
			any = any || y-high >= 50 && y-low <= 75
		}
		cut, fill := line.Worst()
		if fits := cut == nil && fill == nil; fits != any {
			t.Fatalf("ground %v to %v: fits %v, some height fits %v", low, high, fits, any)
		}
	}
}

// hill is a long course over waves of ground.
func hill(posts int, g job.Grade) grade.Course {
	total := length.Length(posts * 2000)
	var ground []job.GroundPoint
	for at := length.Length(0); at <= total; at += 5000 {
		ground = append(ground, job.GroundPoint{At: at, Height: length.Length(400*math.Sin(float64(at)/9000) + 30*math.Sin(float64(at)/1700))})
	}
	r := run(g.Look, job.Fill, total, ground...)
	r.Grade = g
	r.Grade.Give = job.Fill
	layout, profile := spacing.Lay(r, spacing.Site{Mark: 1, Hole: func(job.PostKind) length.Length { return 300 }}), survey.NewProfile(r.Ground, total)
	return grade.NewCourse(r, layout, profile, length.Units{System: length.Metric})
}

func BenchmarkSolve(b *testing.B) {
	for _, posts := range []int{40, 10000} {
		for _, g := range []job.Grade{
			{Look: job.Level}, {Look: job.Raked}, {Look: job.Rolling}, {Look: job.Rolling, Dips: 60},
			{Look: job.Stepped}, {Look: job.Stepped, Steps: job.EvenSteps}, {Look: job.Stepped, Steps: job.Gradual}, {Look: job.Stepped, Steps: job.RoundStep}, {Look: job.Stepped, Steps: job.RoundStep, StepEase: 1},
		} {
			name := fmt.Sprintf("%d posts/%s %s", posts, g.Look, g.Steps)
			if g.Dips > 0 {
				name += "dips let out"
			}
			if g.StepEase > 0 {
				name += " eased"
			}
			b.Run(name, func(b *testing.B) {
				c := hill(posts, g)
				b.ReportAllocs()
				for b.Loop() {
					grade.Solve(c)
				}
			})
		}
	}
}
