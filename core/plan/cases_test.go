package plan_test

import (
	"fmt"
	"math"
	"os"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// caseJob reads one of the jobs whose figures were once wrong. Their right
// values were worked out outside the project from the printed formulas.
func caseJob(t testing.TB, name string) job.Job {
	t.Helper()
	doc, err := os.ReadFile("testdata/cases/" + name + ".json")
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(doc, shipped(t))
	if err != nil {
		t.Fatal(err)
	}
	return j
}

// A panel of 2,400 that leans 30 or 45 in 100 reaches over 2,400 × cos of
// level ground and 3 mm of play at either end; its posts stay plumb.
func TestRakedPanelsBetweenPlumbPosts(t *testing.T) {
	for name, clear := range map[string]float64{"raked-panels-30-percent": 2400*math.Cos(math.Atan(0.3)) + 6, "raked-panels-45-percent": 2400*math.Cos(math.Atan(0.45)) + 6} {
		run := makeRun(t, caseJob(t, name))
		whole := 0
		for _, b := range run.Bays {
			if !b.Odd {
				whole++
				near(t, name+" "+b.Label, float64(b.Clear), clear, 0.1)
			}
		}
		if whole < 7 {
			t.Errorf("%s: only %d bays take a whole panel", name, whole)
		}
	}
}

// A board of 2,400 reaches from post to post along the slope.
func TestRakedModuleIsMeasuredAlongTheSlope(t *testing.T) {
	run := makeRun(t, caseJob(t, "raked-module-30-percent"))
	for _, b := range run.Bays {
		if along := float64(b.CentreToCentre) * math.Hypot(1, 0.3); along > 2400.1 {
			t.Errorf("%s is %.1f along the slope", b.Label, along)
		}
	}
	near(t, "first bay", float64(run.Bays[0].CentreToCentre)*math.Hypot(1, 0.3), 2400, 0.1)
}

// On any ground every whole panel of a leaning run fits its bay as the panel
// leans, and equal bays are nowhere longer along the slope than the most: or
// the plan says so.
func TestLeaningPiecesFit(t *testing.T) {
	rng := newRand(5, 11)
	cat := shipped(t)
	looked, said := 0, 0
	for n := range sized(400, 60) {
		j := document.New("Lean", length.Metric, cat)
		r := &j.Lines[0].Runs[0]
		total := length.Length(6000 + rng.Float64()*30000)
		r.Length = &total
		h := 0.0
		for at := length.Length(0); at < total; at += length.Length(1500 + rng.Float64()*6000) {
			r.Ground = append(r.Ground, job.GroundPoint{At: at, Height: length.Length(h)})
			h += (rng.Float64() - 0.3) * 1800
		}
		r.Fence.GapMost = r.Fence.GapLeast + length.Length(20+rng.IntN(300))
		r.Grade.Look = []job.Look{job.Raked, job.Rolling}[rng.IntN(2)]
		switch rng.IntN(3) {
		case 0:
			r.Spacing.Most = 1800
		case 1:
			r.Spacing = job.Spacing{Way: job.PanelsBetween, Most: 2000, Piece: 1800, Play: 4}
		case 2:
			r.Spacing = job.Spacing{Way: job.FixedModule, Most: 1800, Piece: 1800}
		}
		p := plan.Make(j, cat)
		run := p.Runs[0]
		misfit := find(p, "lean-misfit") != nil
		for _, b := range run.Bays {
			sec := math.Hypot(1, float64(b.Lean/b.CentreToCentre))
			long := float64(b.CentreToCentre) * sec
			if r.Spacing.Way == job.PanelsBetween {
				long = (float64(b.Clear) - 8) * sec
			}
			looked++
			if over := long - 1800; over > 9 && !misfit || over > 0.6 && !misfit && r.Spacing.Way != job.PanelsBetween {
				t.Fatalf("job %d, %s %s: %s is %.2f too long", n, r.Spacing.Way, r.Grade.Look, b.Label, over)
			}
		}
		if misfit {
			said++
		}
	}
	if looked < 500 || said > looked/50 {
		t.Errorf("%d bays looked at, %d jobs do not settle", looked, said)
	}
}

// Frost of 500 and 150 below it count from the ground as it will be where it is cut,
// and from today's where it is filled loose: footings stand on undisturbed soil or
// engineered fill, below the frost line (model residential code, foundations chapter,
// from memory), and loose fill along a fence is neither. Filled, placed and compacted
// first, wide enough, it counts from the top of the fill.
func TestDepthCountsFromTheFinishedGround(t *testing.T) {
	j := caseJob(t, "cut-ground-depth")
	run := makeRun(t, j)
	cut := 0
	for _, p := range run.Posts {
		near(t, p.Label+" under the finished ground", float64(p.Bottom-(p.Ground-p.Finished)), 650, 0.1)
		near(t, p.Label+" said", float64(p.UnderFinished), 650, 0.1)
		if p.Ground-p.Finished > 50 {
			cut++
		}
		if c := run.Cards[p.Card]; math.Abs(float64(c.Depth-p.HoleDepth)) > 1e-9 || c.Heaves || p.Heaves {
			t.Errorf("%s: card %v deep, post %v, heaves %v", p.Label, c.Depth, p.HoleDepth, p.Heaves)
		}
	}
	if cut < 5 {
		t.Errorf("the ground is cut at %d posts only", cut)
	}
	j.Lines[0].Runs[0].Grade = job.Grade{Look: job.Raked, Give: job.Fill}
	j.Lines[0].Runs[0].Fence = job.Fence{Height: 1800, GapLeast: 50, GapMost: 60}
	loose := makeRun(t, j)
	filled, stepless := 0, 0
	for _, p := range loose.Posts {
		near(t, p.Label+" in today's ground", float64(p.Bottom), 650, 0.1)
		near(t, p.Label+" said, under the fill", float64(p.UnderFinished), 650+float64(p.Finished-p.Ground), 0.1)
		if p.Finished > p.Ground+1 {
			filled++
			near(t, p.Label+"'s fill on its card", float64(-loose.Cards[p.Card].Lowered), float64(p.Finished-p.Ground), 0.1)
		}
	}
	if filled == 0 {
		t.Error("nothing is filled")
	}
	// Twice 650 wide, it counts, and a millimetre less does not.
	for wide, counts := range map[length.Length]bool{1300: true, 1299: false} {
		j.Lines[0].Runs[0].Grade.Placed = wide
		run := makeRun(t, j)
		for i, p := range run.Posts {
			c := run.Cards[p.Card]
			near(t, p.Label+" below the ground that is dug", float64(p.Bottom), 650, 0.1)
			was := loose.Posts[i]
			if was.Finished <= was.Ground+1 {
				continue
			}
			stepless++
			if (c.Placed > 0) != counts || c.PlacedWide != 1300 {
				t.Errorf("%s, %v wide: placed %v, asks for %v", p.Label, wide, c.Placed, c.PlacedWide)
			}
			if counts && (!length.Same(p.Ground, was.Finished) || !length.Same(p.AboveGrade+p.Ground, was.AboveGrade+was.Ground) || p.Needed > was.Needed+length.Tolerance) {
				t.Errorf("%s stands in %v and shows %v, of %v; before %v, %v, %v", p.Label, p.Ground, p.AboveGrade, p.Needed, was.Ground, was.AboveGrade, was.Needed)
			}
		}
	}
	if stepless == 0 {
		t.Error("nothing is filled")
	}
}

// Filled by up to a meter, a level fence of 1800 over ground that falls 1 in 10 has
// every hole at frost and 150, in today's ground; of those that show more than 2550 a
// quarter of the post rules: a third of what shows (by hand, of 2650 it is 883, up to 900;
// falling 1500, of 2750, 3050 and 3350 it is 917, 1017 and 1117).
func TestLooseFillHoldsNoFooting(t *testing.T) {
	for fall, want := range map[int][]length.Length{1000: {850, 850, 850, 850, 900, 950}, 1500: {850, 850, 850, 925, 1025, 1125}} {
		j := decode(t, fmt.Sprintf(`{"mallow":2,"name":"Fill","units":{"system":"metric","smallestMark":1},"site":{"frostDepth":700},
			"lines":[{"id":"L1","runs":[{"id":"R1","length":10000,"ground":[{"at":0,"height":0},{"at":10000,"height":%d}],"grade":{"look":"level"}}]}]}`, -fall))
		for i, p := range makeRun(t, j).Posts {
			if !length.Same(p.Bottom, want[i]) {
				t.Errorf("falling %v: %s is %v deep, want %v", fall, p.Label, p.Bottom, want[i])
			}
		}
	}
}

// The six humps leave room for a leaning fence all along; the least earth of
// the other job is found along the line, not at its posts.
func TestLeastEarthAlongTheLine(t *testing.T) {
	run := makeRun(t, caseJob(t, "raked-six-humps"))
	for _, b := range run.Bays {
		if b.Cut != nil || b.Fill != nil {
			t.Errorf("%s: cut %+v, fill %+v where a leaning fence fits", b.Label, b.Cut, b.Fill)
		}
	}
	j := caseJob(t, "raked-least-earth")
	run = makeRun(t, j)
	y := []float64{float64(run.Bays[0].BottomStart)}
	for _, b := range run.Bays {
		y = append(y, float64(b.BottomEnd))
	}
	// The integral of the square of the depth, by looking every 5 mm; under
	// the least gap nothing may be.
	cost := func(y []float64) float64 {
		sum := 0.0
		for i, b := range run.Bays {
			from, to := float64(run.Posts[i].Station), float64(run.Posts[i].Station+b.CentreToCentre)
			for x := from; x <= to; x += 5 {
				gap := y[i] + (y[i+1]-y[i])*(x-from)/(to-from) - heightAt(j.Lines[0].Runs[0].Ground, x)
				if gap < 50-0.01 {
					return math.Inf(1)
				}
				sum += 5 * max(0, gap-75) * max(0, gap-75)
			}
		}
		return sum
	}
	got := cost(y)
	if math.IsInf(got, 1) {
		t.Fatal("the least gap is not kept")
	}
	best, at := got, append([]float64(nil), y...)
	rng := newRand(8, 8)
	for step := 20.0; step > 0.02; step *= 0.9 {
		for range sized(400, 100) {
			try := append([]float64(nil), at...)
			for i := range try {
				if rng.IntN(3) == 0 {
					try[i] += rng.NormFloat64() * step
				}
			}
			if c := cost(try); c < best {
				best, at = c, try
			}
		}
	}
	if got > best*1.03 {
		t.Errorf("the earth squared is %.0f, a line found by trying has %.0f", got, best)
	}
}

func heightAt(ground []job.GroundPoint, x float64) float64 {
	for i := 1; i < len(ground); i++ {
		if a, b := ground[i-1], ground[i]; x <= float64(b.At) {
			return float64(a.Height) + float64(b.Height-a.Height)*(x-float64(a.At))/float64(b.At-a.At)
		}
	}
	return float64(ground[len(ground)-1].Height)
}

// Rising 1 in 10, the ground across an opening of 1,200 about the middle of
// the run is highest at the upper post's face: 600 + 60, not at its middle.
func TestHighestGroundIsFaceToFace(t *testing.T) {
	run := makeRun(t, caseJob(t, "gate-on-slope"))
	near(t, "highest", float64(run.Gates[0].Highest), 660, 0.1)
	near(t, "leaf's bottom", float64(run.Gates[0].Bottom), 740, 0.1)
}

// Gusts at the published limit, IBC 1807.3 (from memory): b of a square
// footing is its diagonal (1807.3.2.1, from memory); of a tapered or belled
// one the mean width of its concrete.
//
// The belled case was worked out as 7.92 with the bell widest in the gravel,
// as the card then had it. The bell now ends above the gravel, so that the
// concrete is wider: by the same formula 7.92 × √(349.846/316.062) = 8.334,
// the ratio of the two mean widths by hand.
func TestGustsOfEveryFooting(t *testing.T) {
	for name, gust := range map[string]float64{"square-footing": 9.25, "taper-over-gravel": 8.50, "bell-over-gravel": 7.92 * math.Sqrt(349.846/316.062)} {
		run := makeRun(t, caseJob(t, name))
		p := run.Posts[2]
		near(t, name, p.Wind.Gust, gust, 0.005*gust)
	}
	c := makeRun(t, caseJob(t, "bell-over-gravel")).Cards[0]
	for i, cut := range c.Cuts {
		if cut.Width > 305 && cut.Depth > c.Bottom+length.Tolerance {
			t.Errorf("cut %d: %v wide at %v, in the gravel under %v", i, cut.Width, cut.Depth, c.Bottom)
		}
	}
}

// A corner that was left unmeasured closes the line; the three turns that were
// measured ask for a right angle there, and the lengths for something else.
func TestUnmeasuredCornerIsHeldAgainstTheTurns(t *testing.T) {
	cat := shipped(t)
	yard := func(third length.Length, turn float64) plan.Plan {
		j := document.New("Yard", length.Metric, cat)
		var runs []job.Run
		for i, long := range []length.Length{10000, 8000, third, 8000} {
			r := j.Lines[0].Runs[0]
			r.ID, r.Length = string(rune('A'+i)), ptr(long)
			if i > 0 {
				r.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
			}
			if i == 2 {
				r.Corner.Angle = turn
			}
			runs = append(runs, r)
		}
		j.Lines[0].Closed, j.Lines[0].Runs = true, runs
		return plan.Make(j, cat)
	}
	if f := find(yard(10000, 90), "corner-unmeasured"); f != nil {
		t.Errorf("a square yard: %s", f.Says.Print(length.Usual(length.Metric)))
	}
	for name, p := range map[string]plan.Plan{"a turn too far": yard(10000, 94), "a side too long": yard(10400, 90)} {
		if f := find(p, "corner-unmeasured"); f == nil || f.Severity != finding.Check {
			t.Errorf("%s: %+v", name, f)
		}
	}
}
