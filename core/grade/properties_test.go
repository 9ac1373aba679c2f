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

// ways are every look and method of stepping, with what may give.
func ways() []job.Grade {
	half := 0.5
	var out []job.Grade
	for _, give := range []job.Give{job.Fill, job.Cut, job.Both} {
		for _, look := range job.Looks {
			if look != job.Stepped {
				out = append(out, job.Grade{Look: look, Give: give, Straight: &half})
				continue
			}
			for _, steps := range []job.Steps{job.LeastGap, job.EvenSteps, job.Gradual, job.RoundStep} {
				out = append(out, job.Grade{Look: look, Give: give, Steps: steps, StepEase: 1, Straight: &half})
			}
		}
	}
	return out
}

// as gives a course another grade.
func as(c grade.Course, g job.Grade) grade.Course {
	c.Grade, c.Bays = g, slices.Clone(c.Bays)
	for i := range c.Bays {
		c.Bays[i].Look = g.Look
	}
	return c
}

// gated hangs a gate in a middle bay.
func gated(c grade.Course, rng *rand.Rand) grade.Course {
	c.Bays = slices.Clone(c.Bays)
	c.Bays[1+rng.IntN(len(c.Bays)-2)].Gate = true
	return c
}

func mirrored(c grade.Course) grade.Course {
	end := c.Posts[len(c.Posts)-1].Station
	m := c
	m.Posts, m.Bays = slices.Clone(c.Posts), slices.Clone(c.Bays)
	slices.Reverse(m.Posts)
	slices.Reverse(m.Bays)
	for i := range m.Posts {
		m.Posts[i].Station = end - m.Posts[i].Station
	}
	points := c.Ground.Points()
	slices.Reverse(points)
	for i := range points {
		points[i].At = end - points[i].At
	}
	m.Ground = survey.NewProfile(points, end)
	return m
}

// A fence looked at from the other side is the same fence.
func TestMirroredCourse(t *testing.T) {
	rng := rand.New(rand.NewPCG(51, 52))
	for k := range 60 {
		s := randomSite(rng, 4+rng.IntN(6), job.Raked, 5+rng.Float64()*40)
		for _, g := range ways() {
			c := as(s.c, g)
			if k%2 == 0 {
				c = gated(c, rng)
			}
			a, b := grade.Solve(c), grade.Solve(mirrored(c))
			for i := range a.Bays {
				p, q := a.Bays[i], b.Bays[len(b.Bays)-1-i]
				if (p.TopStart-q.TopEnd).Abs() > 0.01 || (p.TopEnd-q.TopStart).Abs() > 0.01 {
					t.Fatalf("case %d, %s %s %s: bay %d from %v to %v, mirrored %v to %v", k, g.Look, g.Steps, g.Give, i, p.TopStart, p.TopEnd, q.TopEnd, q.TopStart)
				}
			}
		}
	}
}

// earth is the sum of the squares of all depths.
func earth(l grade.Line) float64 {
	sum := 0.0
	for _, b := range l.Bays {
		for _, e := range []*grade.Earth{b.Cut, b.Fill} {
			if e != nil {
				sum += float64(e.Depth * e.Depth)
			}
		}
	}
	return sum
}

func knots(l grade.Line) int {
	n := 0
	for _, k := range l.Knots {
		if k {
			n++
		}
	}
	return n
}

// A wider corridor never takes more earth, a deeper dip let out never more
// grade posts.
func TestMoreAllowanceNeverCostsMore(t *testing.T) {
	rng := rand.New(rand.NewPCG(53, 54))
	for k := range 80 {
		s := randomSite(rng, 3+rng.IntN(9), job.Raked, 5+rng.Float64()*40)
		for _, give := range []job.Give{job.Fill, job.Cut, job.Both} {
			last, breaks := math.Inf(1), math.MaxInt
			for more := range 4 {
				c := as(s.c, job.Grade{Look: job.Raked, Give: give})
				c.Fence.GapMost += length.Length(15 * more)
				if e := earth(grade.Solve(c)); e > last+0.5 {
					t.Fatalf("case %d, %s: a corridor %d mm wider takes %v of earth, not %v", k, give, 15, e, last)
				} else {
					last = e
				}
				c = as(s.c, job.Grade{Look: job.Rolling, Give: give, Dips: length.Length(15 * more)})
				if n := knots(grade.Solve(c)); n > breaks {
					t.Fatalf("case %d, %s: %d grade posts with deeper dips let out, %d before", k, give, n, breaks)
				} else {
					breaks = n
				}
			}
		}
	}
}

// One height a sixteenth of an inch higher moves no top by more than a few
// sixteenths; a rolling line, whose grade posts may jump, stays in its
// corridor all the same.
func TestNothingJumpsForASixteenth(t *testing.T) {
	rng := rand.New(rand.NewPCG(55, 56))
	const sixteenth = length.Inch / 16
	for k := range 60 {
		s := randomSite(rng, 4+rng.IntN(8), job.Raked, 5+rng.Float64()*30)
		points := s.c.Ground.Points()
		points[rng.IntN(len(points))].Height += sixteenth
		for _, g := range ways() {
			if g.Steps == job.RoundStep {
				continue // its steps are as large as its increment
			}
			a, b := as(s.c, g), as(s.c, g)
			b.Ground = survey.NewProfile(points, s.c.Posts[len(s.c.Posts)-1].Station)
			let := 8 * sixteenth
			if g.Look == job.Rolling {
				let += s.c.Fence.GapMost - s.c.Fence.GapLeast
			}
			p, q := grade.Solve(a), grade.Solve(b)
			if g.Look == job.Rolling && earth(p) > 0 {
				continue
			}
			for i := range p.Bays {
				if d := (p.Bays[i].TopStart - q.Bays[i].TopStart).Abs(); d > let {
					t.Fatalf("case %d, %s %s %s: the top of bay %d jumps by %v mm", k, g.Look, g.Steps, g.Give, i, d)
				}
			}
		}
	}
}

// What the user holds is held, in every look that can.
func TestHeldHeightsAreHeld(t *testing.T) {
	rng := rand.New(rand.NewPCG(57, 58))
	for k := range 80 {
		s := randomSite(rng, 4+rng.IntN(5), job.Raked, 20)
		n := len(s.c.Posts)
		start, end, middle := length.Length(rng.IntN(400)-100), length.Length(rng.IntN(400)-100), length.Length(rng.IntN(300))
		for _, g := range ways() {
			c := as(s.c, g)
			c.Posts = slices.Clone(c.Posts)
			c.Posts[0].Gap = &start
			if g.Look != job.Level {
				c.Posts[n-1].Gap = &end
			}
			at := n / 2
			if g.Look.Leans() {
				c.Posts[at].Gap, c.Posts[at].Knot = &middle, true
			}
			l := grade.Solve(c)
			gap := func(post int, y length.Length) length.Length { return y - c.Ground.Height(c.Posts[post].Station) }
			if g.Look == job.Raked || g.Look == job.Rolling {
				for post, want := range map[int]length.Length{0: start, at: middle, n - 1: end} {
					y := l.Bays[min(post, n-2)].BottomStart
					if post == n-1 {
						y = l.Bays[n-2].BottomEnd
					}
					if got := gap(post, y); (got - want).Abs() > 0.02 {
						t.Fatalf("case %d, %s %s: gap of %v held at post %d, got %v", k, g.Look, g.Give, want, post, got)
					}
				}
			}
			if g.Look == job.Level || g.Steps == job.LeastGap || g.Steps == job.Gradual {
				if got := gap(0, l.Bays[0].BottomStart); (got - start).Abs() > 0.02 {
					t.Fatalf("case %d, %s %s: gap of %v held at the first post, got %v", k, g.Look, g.Steps, start, got)
				}
			}
		}
	}
}

// Gates hang flat: the tops of their posts are level with each other, and a
// leaning fence comes up to them; unless the line is asked to go on.
func TestGatesAreFlatUnlessAsked(t *testing.T) {
	rng := rand.New(rand.NewPCG(59, 60))
	leaning := 0
	for k := range 60 {
		s := randomSite(rng, 5+rng.IntN(4), job.Raked, 20)
		for _, g := range ways() {
			c := gated(as(s.c, g), rng)
			at := slices.IndexFunc(c.Bays, func(b grade.Stretch) bool { return b.Gate })
			l := grade.Solve(c)
			if b := l.Bays[at]; !length.Same(b.TopStart, b.TopEnd) {
				t.Fatalf("case %d, %s %s: the gate's top goes from %v to %v", k, g.Look, g.Steps, b.TopStart, b.TopEnd)
			}
			if g.Look.Leans() && (!length.Same(l.Bays[at-1].TopEnd, l.Bays[at].TopStart) || !length.Same(l.Bays[at+1].TopStart, l.Bays[at].TopEnd)) {
				t.Fatalf("case %d, %s: the fence does not meet the gate", k, g.Look)
			}
			c.Grade.Across = job.GoesOn
			if b := grade.Solve(c).Bays[at]; g.Look.Leans() && !length.Same(b.TopStart, b.TopEnd) {
				leaning++
			}
			if b := grade.Solve(c).Bays[at]; b.BottomStart != b.BottomEnd {
				t.Fatalf("case %d, %s: the leaf's bottom leans", k, g.Look)
			}
		}
	}
	if leaning < 50 {
		t.Errorf("only %d gates went along with the line", leaning)
	}
}

// A run may change its look: each part is what it says, and a leaning part
// takes up its level neighbour's height where its corridor allows.
func TestPartsFlowIntoEachOther(t *testing.T) {
	rng := rand.New(rand.NewPCG(61, 62))
	met := 0
	for range 100 {
		s := randomSite(rng, 8, job.Raked, 8)
		c := as(s.c, job.Grade{Look: job.Raked, Give: job.Fill})
		looks := []job.Look{job.Level, job.Stepped, job.Rolling, job.Raked}
		rng.Shuffle(4, func(i, j int) { looks[i], looks[j] = looks[j], looks[i] })
		for i := range c.Bays {
			c.Bays[i].Look = looks[i/2]
		}
		l := grade.Solve(c)
		for i, b := range l.Bays {
			if flat := length.Same(b.TopStart, b.TopEnd); !c.Bays[i].Look.Leans() && !flat {
				t.Fatalf("bay %d is %s and leans", i, c.Bays[i].Look)
			}
			if i == 0 || c.Bays[i].Look == c.Bays[i-1].Look || c.Bays[i].Look.Leans() == c.Bays[i-1].Look.Leans() {
				continue
			}
			gap := l.Bays[i-1].BottomEnd
			if c.Bays[i-1].Look.Leans() {
				gap = b.BottomStart
			}
			gap -= c.Ground.Height(c.Posts[i].Station)
			inside := gap >= c.Fence.GapLeast && gap <= c.Fence.GapMost
			if meet := (l.Bays[i-1].TopEnd - b.TopStart).Abs() < 0.01; inside && !meet {
				t.Fatalf("between %s and %s the tops miss each other, though the level one lies in the corridor: gap %v", c.Bays[i-1].Look, c.Bays[i].Look, gap)
			} else if inside {
				met++
			}
		}
	}
	if met < 20 {
		t.Errorf("leaning parts met level ones only %d times", met)
	}
}
