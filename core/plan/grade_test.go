package plan_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// bank is ten bays of 2 m that rise 1 m, evenly: five in a hundred.
func bank(t testing.TB, look job.Look) job.Job {
	j := document.New("Bank", length.Metric, shipped(t))
	r := &j.Lines[0].Runs[0]
	r.Length, r.Spacing.Most = ptr(length.Length(20000)), 2050
	r.Ground = []job.GroundPoint{{At: 0, Height: 0}, {At: 20000, Height: 1000}}
	r.Fence = job.Fence{Height: 1800, GapLeast: 50, GapMost: 75}
	r.Post = job.Post{Shape: job.SquarePost, Width: 100, Trim: 25, Stock: []length.Length{2400, 2700, 3000, 3600}}
	r.Grade = job.Grade{Look: look, Give: job.Fill}
	return j
}

func makeRun(t testing.TB, j job.Job) plan.Run { return plan.Make(j, shipped(t)).Runs[0] }

// Worked by hand: a 100 mm post on a slope of 5 in 100 shows 2.5 mm more at
// its lower face; a rail between posts 1,900 apart, over a rise of 95, is
// √(1900² + 95²) long, at atan 0.05.
func TestSlopeByHand(t *testing.T) {
	run := makeRun(t, bank(t, job.Raked))
	p, b := run.Posts[5], run.Bays[5]
	near(t, "reveal", float64(p.AboveGrade), 1850, 0.01)
	near(t, "lower face", float64(p.AboveBefore), 1852.5, 0.01)
	near(t, "upper face", float64(p.AboveAfter), 1847.5, 0.01)
	near(t, "lean", float64(b.Lean), 100, 0.01)
	near(t, "angle", b.Angle, 2.8624, 1e-4)
	near(t, "rail", float64(b.Long), 1902.3735, 0.001)
	near(t, "on the ground", float64(b.OnGround), 2002.4984, 0.001)
	if p.Step != 0 || p.Overlap != 1800 {
		t.Errorf("a raked post steps %v and overlaps %v", p.Step, p.Overlap)
	}
	run = makeRun(t, bank(t, job.Stepped))
	p = run.Posts[5]
	near(t, "step", float64(p.Step), 100, 1e-6)
	near(t, "overlap", float64(p.Overlap), 1700, 1e-6)
	// Level over a slope: half a post in from either end.
	near(t, "gap at the lower face", float64(run.Bays[5].FaceStart), 147.5, 1e-6)
	near(t, "gap at the upper face", float64(run.Bays[5].FaceEnd), 52.5, 1e-6)
}

// Each panel, 50 over its upper end, stands 150 over its lower: 75 too much.
// From the lower end the excess runs out after 3/4 of the bay: a triangle of
// 75 × 1,500 / 2. Ten of them over a strip of 300 are 0.16875 m³.
func TestSoilByHand(t *testing.T) {
	j := bank(t, job.Stepped)
	run := makeRun(t, j)
	near(t, "fill", float64(run.Totals.Fill), 0.16875, 1e-9)
	if run.Totals.Cut != 0 || run.Totals.Steps != 9 {
		t.Errorf("cut %v, %d steps", run.Totals.Cut, run.Totals.Steps)
	}
	// Level, 50 over the top of the bank: from 1,050 over its foot, less 75
	// allowed, to nothing where the gap is 75, at 19.5 m.
	run = makeRun(t, bank(t, job.Level))
	near(t, "fill under a level fence", float64(run.Totals.Fill), 0.975*19.5/2*0.3, 1e-9)
	if l := run.TopLine.Limit; l == nil || l.Post != "P1" {
		t.Fatalf("the post that limits a level fence is %+v", run.TopLine.Limit)
	}
	near(t, "spare", float64(run.TopLine.Limit.Spare), float64(3600-run.Posts[0].Needed), 1e-6)
}

// The triangle under a panel, between faces 1,900 apart: 95 high less nothing
// at the upper face. Boards are cut from it; a gravel board of 150 closes the
// low end and is let in at the high one.
func TestInfillByHand(t *testing.T) {
	j := bank(t, job.Stepped)
	j.Lines[0].Runs[0].Grade.Infill = job.CutBoards
	run := makeRun(t, j)
	f := run.Bays[4].Infill
	if f == nil {
		t.Fatal("nothing closes the triangle")
	}
	near(t, "at the lower face", float64(f.Start), 97.5, 1e-6)
	near(t, "at the upper face", float64(f.End), 2.5, 1e-6)
	near(t, "long", float64(f.Long), 1900, 1e-6)
	if f.Boards != 1 || run.Totals.InfillBoards != 10 || run.Totals.Fill != 0 {
		t.Errorf("%d boards, %d in all, %v to fill", f.Boards, run.Totals.InfillBoards, run.Totals.Fill)
	}
	j.Lines[0].Runs[0].Grade.Infill = job.GravelBoards
	f = makeRun(t, j).Bays[4].Infill
	near(t, "let into the high ground", float64(f.Let), 150-52.5, 1e-6)
	if f.Boards != 1 {
		t.Errorf("%d gravel boards", f.Boards)
	}
	for _, find := range plan.Make(j, shipped(t)).Findings {
		if find.Rule == "corridor" {
			t.Error("boards close it, and earth is still asked for")
		}
	}
}

// Cut first, a post is bought without its trim and cut to its own length.
func TestCutFirst(t *testing.T) {
	j := bank(t, job.Raked)
	after := makeRun(t, j).Posts[3]
	j.Lines[0].Runs[0].Post.Cut = job.CutFirst
	first := makeRun(t, j).Posts[3]
	if !first.CutFirst || after.CutFirst || !length.Same(first.Needed, first.AboveGrade+first.Foot) || !length.Same(after.Needed, first.Needed+25) {
		t.Errorf("first %v, after %v", first.Needed, after.Needed)
	}
}

// Every way of setting the tops leads to the same tops; and a string's sag is
// wL²/8T. All over random jobs.
func TestAllWaysSetTheSameTops(t *testing.T) {
	rng := rand.New(rand.NewPCG(71, 72))
	cat := shipped(t)
	for n := range 150 {
		j := random(t, rng)
		run := plan.Make(j, cat).Runs[0]
		top := run.TopLine
		at := map[string]int{}
		for i, p := range run.Posts {
			at[p.Label] = i
		}
		high := run.Posts[at[top.High]].Top
		over := 0
		for _, p := range run.Posts {
			if top.Laser < p.Ground+100 {
				t.Fatalf("job %d: the laser's plane runs into the ground at %s", n, p.Label)
			}
			if p.Top < top.Laser {
				over++
			}
		}
		said := false
		for _, step := range top.Steps {
			said = said || strings.Contains(step.Print(j.Units), "passes over the tops")
		}
		if top.By == job.ByLaser && said != (over > 0) {
			t.Fatalf("job %d: the plane passes over %d tops, said: %v", n, over, said)
		}
		kind, _ := cat.String(j.Lines[0].Runs[0].String.Kind)
		for i, p := range run.Posts {
			w := top.Posts[i]
			if !length.Same(top.Laser+w.Laser, p.Top) || !length.Same(high-w.Drop, p.Top) || w.Drop < -length.Tolerance {
				t.Fatalf("job %d: %s stands %v; by laser %v, by drop %v", n, p.Label, p.Top, top.Laser+w.Laser, high-w.Drop)
			}
			top := length.Length(math.Inf(-1)) // the higher panel's
			if i > 0 {
				top = run.Bays[i-1].TopEnd
			}
			if i < len(run.Bays) {
				top = max(top, run.Bays[i].TopStart)
			}
			if !length.Same(p.Ground+p.Mark+j.Lines[0].Runs[0].String.Mark, top) {
				t.Fatalf("job %d: %s's mark is %v up, its panel's top at %v", n, p.Label, p.Mark, top-p.Ground)
			}
		}
		for k, piece := range top.Pieces {
			a, b := at[piece.From], at[piece.To]
			if k > 0 && top.Pieces[k-1].To != piece.From {
				t.Fatalf("job %d: the strings do not meet at %s", n, piece.From)
			}
			from, to := run.Posts[a], run.Posts[b]
			span := (to.Station - from.Station).Metres()
			near(t, "sag", piece.Sag.Metres(), kind.Weight*span*span/8/j.Lines[0].Runs[0].String.Pull, 1e-9)
			for i := a + 1; i < b; i++ {
				p, w := run.Posts[i], top.Posts[i]
				straight := from.Top + (to.Top-from.Top)*(p.Station-from.Station)/(to.Station-from.Station)
				if !length.Same(straight+w.Sight, p.Top) || w.String < w.Sight-length.Tolerance {
					t.Fatalf("job %d: %s is %v off the line of sight, %v off a string that hangs under it", n, p.Label, w.Sight, w.String)
				}
				// Rolling: between grade posts the tops lie on the line.
				if g := j.Lines[0].Runs[0].Grade; g.Look == job.Rolling && len(g.Parts) == 0 && w.Sight.Abs() > 0.3 {
					t.Fatalf("job %d: %s of a rolling top lies %v off the line between grade posts", n, p.Label, w.Sight)
				}
			}
			for _, prop := range piece.Props {
				if prop.At <= from.Station || prop.At >= to.Station {
					t.Fatalf("job %d: a prop at %v is not under its string", n, prop.At)
				}
			}
		}
		if len(top.Steps) < 3 || len(top.Stick) < 4 {
			t.Fatalf("job %d: %d steps, %d marks", n, len(top.Steps), len(top.Stick))
		}
	}
}

// The story stick of a 1,800 fence with rails whose middles are 200, 900 and
// 1,600 up, 90 high, measured from a mark 300 below the top.
func TestStoryStickByHand(t *testing.T) {
	j := bank(t, job.Raked)
	r := &j.Lines[0].Runs[0]
	r.Fence.Rails, r.Fence.RailWidth, r.String.Mark, r.Post.Above = []length.Length{200, 900, 1600}, 90, 300, 50
	if rails := makeRun(t, j).TopLine.Rails; len(rails) != 3 || rails[1] != 900 {
		t.Errorf("rails at %v", rails)
	}
	var got []string
	for _, m := range makeRun(t, j).TopLine.Stick {
		got = append(got, fmt.Sprintf("%s %v %v", m.Name, m.Up, m.To))
	}
	want := []string{"Post cut 350 350", "Fence top 300 300", "Top rail 145 55", "Reference mark 0 0", "Middle rail -555 -645", "Bottom rail -1255 -1345",
		"Fence bottom -1500 -1500", "Ground, least and most gap -1550 -1575"}
	if strings.Join(got, "; ") != strings.Join(want, "; ") {
		t.Errorf("got  %v\nwant %v", got, want)
	}
}

// Rails that go into posts: on a step both sides differ by it, and a hole in
// the ground is refused with a way out.
func TestRailHoles(t *testing.T) {
	j := bank(t, job.Stepped)
	r := &j.Lines[0].Runs[0]
	r.Spacing = job.Spacing{Way: job.OverlapRails, Most: 2000, Piece: 2300, Overlap: 300, Rails: 3}
	run := makeRun(t, j)
	h := run.Posts[4].Holes
	if len(h) != 3 || h[0].Before == nil || h[0].After == nil {
		t.Fatalf("holes %+v", h)
	}
	near(t, "step between the sides", float64(*h[0].After-*h[0].Before), float64(run.Posts[4].Step), 1e-6)
	if run.Posts[0].Holes[0].Before != nil {
		t.Error("a rail comes in before the first post")
	}
	r.Fence.Rails, r.Fence.GapLeast, r.Fence.GapMost = []length.Length{20, 900, 1700}, 0, 200
	found := false
	for _, f := range plan.Make(j, shipped(t)).Findings {
		if f.Rule == "rail-in-ground" {
			found = len(f.Remedies) == 1
		}
	}
	if !found {
		t.Error("a rail hole in the ground is not refused with a way out")
	}
}

// A metal post's grade mark must stay above ground, at both faces.
func TestGradeMark(t *testing.T) {
	for mark, want := range map[length.Length]bool{1840: false, 1848: true, 1900: true} {
		j := bank(t, job.Raked)
		j.Lines[0].Runs[0].Post.Mark = &mark
		found := false
		for _, f := range plan.Make(j, shipped(t)).Findings {
			found = found || f.Rule == "grade-mark"
		}
		if found != want { // the upper face shows 1,847.5
			t.Errorf("a mark %v under the top: refused %v", mark, found)
		}
	}
}

// One hump on a bank: the run's worst bays can be stepped alone, a post can be
// put on the hump, and each way does what its button says.
func TestHumpHasWaysOut(t *testing.T) {
	j := bank(t, job.Raked)
	r := &j.Lines[0].Runs[0]
	r.Ground = []job.GroundPoint{{At: 0}, {At: 8900, Height: 20}, {At: 9100, Height: 170}, {At: 9300, Height: 25}, {At: 20000, Height: 40}}
	cat := shipped(t)
	said := ""
	for _, f := range plan.Make(j, cat).Findings {
		if f.Rule != "corridor" {
			continue
		}
		for _, way := range f.Remedies {
			said += way.Says.Print(j.Units) + "\n"
		}
	}
	for _, want := range []string{"A post at 9.1", "Let the gap grow"} {
		if !strings.Contains(said, want) {
			t.Errorf("no way out says %q:\n%s", want, said)
		}
	}
	rack := length.Length(60)
	j = bank(t, job.Raked)
	r = &j.Lines[0].Runs[0]
	r.Grade.Rack = &rack
	r.Ground = []job.GroundPoint{{At: 0}, {At: 8000, Height: 200}, {At: 12000, Height: 700}, {At: 20000, Height: 850}}
	for _, f := range plan.Make(j, cat).Findings {
		if f.Rule != "rack" {
			continue
		}
		if says := f.Remedies[0].Says.Print(j.Units); says != "Step only B4 to B6" {
			t.Errorf("the first way out of the rack is %q", says)
		}
		r.Grade.Parts = f.Remedies[0].Edits[0].Value.([]job.LookPart)
		run := makeRun(t, j)
		for i, b := range run.Bays {
			if stepped := i >= 3 && i <= 5; (b.Look == job.Stepped) != stepped || b.Lean.Abs() > rack+1 {
				t.Errorf("%s is %s and leans %v", b.Label, b.Look, b.Lean)
			}
		}
		return
	}
	t.Error("panels that lean more than they can are not reported")
}

// Looks side by side: each is what taking it gives.
func TestLooksAreWhatTheySay(t *testing.T) {
	rng := rand.New(rand.NewPCG(73, 74))
	cat := shipped(t)
	for n := range sized(30, 10) {
		j := random(t, rng)
		looks, ok := plan.Looks(j, cat, "R1")
		if !ok || len(looks) < 8 {
			t.Fatalf("job %d: %d looks", n, len(looks))
		}
		now := 0
		for _, l := range looks {
			if l.Now {
				now++
			}
			if l.ID == "now" {
				continue
			}
			for _, e := range l.Edits { // as a tap would
				g := &j.Lines[0].Runs[0].Grade
				switch e.Path[strings.LastIndex(e.Path, "/")+1:] {
				case "look":
					g.Look = e.Value.(job.Look)
				case "parts":
					g.Parts = nil
				case "steps":
					g.Steps = e.Value.(job.Steps)
				case "straight":
					g.Straight = ptr(e.Value.(float64))
				}
			}
			run := plan.Make(j, cat).Runs[0]
			if math.Abs(float64(run.Totals.Fill-l.Fill)) > 1e-9 || math.Abs(float64(run.Totals.Cut-l.Cut)) > 1e-9 || run.Totals.Bags != l.Bags || run.Totals.Posts != l.Posts || run.Totals.StockShort != l.StockShort {
				t.Fatalf("job %d, %s: fill %v, cut %v, %d bags, %d posts; taken %v, %v, %d, %d", n, l.ID, l.Fill, l.Cut, l.Bags, l.Posts, run.Totals.Fill, run.Totals.Cut, run.Totals.Bags, run.Totals.Posts)
			}
		}
		if now < 1 {
			t.Fatalf("job %d: no look is the one that is planned", n)
		}
	}
}

// A straight fence that is taped in two runs has one top line, looks by parts
// and all.
func TestOneTopOverAStraightJoint(t *testing.T) {
	rng := rand.New(rand.NewPCG(75, 76))
	cat := shipped(t)
	for n := range 60 {
		j := bank(t, job.Looks[rng.IntN(4)])
		whole := &j.Lines[0].Runs[0]
		whole.Ground = nil
		for at := length.Length(0); at <= 20000; at += 2000 {
			whole.Ground = append(whole.Ground, job.GroundPoint{At: at, Height: length.Length(rng.NormFloat64() * 60)})
		}
		whole.Grade.Steps = []job.Steps{job.LeastGap, job.EvenSteps, job.Gradual, job.RoundStep}[rng.IntN(4)]
		one := makeRun(t, j)
		first := *whole
		second := first
		first.Length, second.Length = ptr(length.Length(8000)), ptr(length.Length(12000))
		second.ID, second.Corner = "R2", &job.Corner{By: job.ByDeflection, Side: job.Left}
		first.Ground, second.Ground = whole.Ground[:5], nil
		for _, g := range whole.Ground[4:] {
			second.Ground = append(second.Ground, job.GroundPoint{At: g.At - 8000, Height: g.Height})
		}
		j.Lines[0].Runs = []job.Run{first, second}
		p := plan.Make(j, cat)
		tops := append([]plan.Post{}, p.Runs[0].Posts...)
		tops = append(tops, p.Runs[1].Posts[1:]...)
		for i := range tops {
			if (tops[i].Top - one.Posts[i].Top).Abs() > 0.01 {
				t.Fatalf("case %d, %s %s: post %d at %v, taped as one %v", n, whole.Grade.Look, whole.Grade.Steps, i, tops[i].Top, one.Posts[i].Top)
			}
		}
	}
}

// Round a yard with one fence, leaning tops meet at every corner, the last run
// and the first among them, without leaving the corridor for it.
func TestTopsMeetAtCorners(t *testing.T) {
	rng := rand.New(rand.NewPCG(77, 78))
	cat := shipped(t)
	for n := range 60 {
		j := bank(t, []job.Look{job.Raked, job.Rolling}[n%2])
		like := j.Lines[0].Runs[0]
		like.Fence.GapMost = 110
		j.Lines[0].Runs, j.Lines[0].Closed = nil, true
		corners := []length.Length{0, length.Length(rng.NormFloat64() * 150), length.Length(rng.NormFloat64() * 150), length.Length(rng.NormFloat64() * 150), 0}
		for r := range 4 {
			run := like
			run.ID, run.Length = fmt.Sprintf("R%d", r+1), ptr(length.Length(12000))
			if r > 0 {
				run.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
			}
			run.Ground = []job.GroundPoint{{At: 0, Height: corners[r]}, {At: 5000, Height: (corners[r]+corners[r+1])/2 + length.Length(rng.NormFloat64()*10)}, {At: 12000, Height: corners[r+1]}}
			j.Lines[0].Runs = append(j.Lines[0].Runs, run)
		}
		p := plan.Make(j, cat)
		earth := p.Totals.Cut + p.Totals.Fill
		for r := range p.Runs {
			a, b := p.Runs[r], p.Runs[(r+1)%4]
			if d := (a.Bays[len(a.Bays)-1].TopEnd - b.Bays[0].TopStart).Abs(); d > 0.02 {
				t.Errorf("yard %d, %s: the tops miss each other by %v after %s", n, like.Grade.Look, d, a.ID)
			}
		}
		// By itself no run would take less.
		alone := length.Volume(0)
		for r := range j.Lines[0].Runs {
			one := j
			one.Lines = []job.Line{{ID: "L1", Runs: []job.Run{j.Lines[0].Runs[r]}}}
			t1 := plan.Make(one, cat).Totals
			alone += t1.Cut + t1.Fill
		}
		if earth > alone+1e-3 {
			t.Errorf("yard %d: meeting takes %v of soil, %v apart", n, earth, alone)
		}
	}
}

// Cautions stand where tops are cut and ground is moved, and only there.
func TestGradeCautions(t *testing.T) {
	said := func(j job.Job) string {
		out := ""
		for _, c := range plan.Make(j, shipped(t)).Cautions {
			if c.Stage == "grade" {
				out += c.Says.Print(j.Units) + "\n"
			}
		}
		return out
	}
	j := bank(t, job.Raked)
	if s := said(j); !strings.Contains(s, "saw") || strings.Contains(s, "laser") || strings.Contains(s, "bank") {
		t.Errorf("a raked fence of timber: %s", s)
	}
	r := &j.Lines[0].Runs[0]
	r.Post.Hollow, r.Post.Wall = true, 3
	if s := said(j); s != "" {
		t.Errorf("hollow posts, nothing to move: %s", s)
	}
	r.Grade.Look, r.Grade.By = job.Level, job.ByLaser
	if s := said(j); !strings.Contains(s, "beam") || !strings.Contains(s, "up to 975 mm") {
		t.Errorf("level by laser over a bank: %s", s)
	}
	r.Grade.Look, r.Grade.Infill = job.Stepped, job.GravelBoards
	if s := said(j); !strings.Contains(s, "55 kg") || strings.Contains(s, "bank") {
		t.Errorf("gravel boards: %s", s)
	}
}

// A corner post carries two fences: each run's marks and holes on it are its
// own.
func TestCornerPostIsMarkedForBothRuns(t *testing.T) {
	j := bank(t, job.Raked)
	first := j.Lines[0].Runs[0]
	first.Fence.Height = 2000
	second := first
	second.ID, second.Fence.Height, second.Corner = "R2", 1200, &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
	second.Ground = []job.GroundPoint{{At: 0, Height: 1000}, {At: 20000, Height: 1000}}
	second.Spacing = job.Spacing{Way: job.OverlapRails, Most: 2000, Piece: 2300, Overlap: 300, Rails: 2}
	j.Lines[0].Runs = []job.Run{first, second}
	p := plan.Make(j, shipped(t))
	high, low := p.Runs[0].Posts[len(p.Runs[0].Posts)-1], p.Runs[1].Posts[0]
	if low.Shared != "R1" || low.Top != high.Top || len(high.Holes) != 0 || len(low.Holes) != 2 || low.Holes[0].Before != nil {
		t.Fatalf("shared %q, holes %v and %v", low.Shared, high.Holes, low.Holes)
	}
	// The lower fence's string is tied to it at the lower fence's top.
	for _, w := range p.Runs[1].TopLine.Posts[1:] {
		if w.Sight.Abs() > 0.05 {
			t.Errorf("%s lies %v off a level fence's line", w.Post, w.Sight)
		}
	}
	near(t, "the higher fence's mark over the lower one's", float64(high.Mark-low.Mark), 800, 0.02)
}
