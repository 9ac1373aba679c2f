package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/demo"
)

func ptr[T any](v T) *T { return &v }

func demoJob(t testing.TB, n int) job.Job {
	t.Helper()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(docs[n], shipped(t))
	if err != nil {
		t.Fatal(err)
	}
	return j
}

// randomLines is a job of several lines in any state of being measured.
func randomLines(t testing.TB, rng *rand.Rand) job.Job {
	t.Helper()
	cat := shipped(t)
	j := document.New("Random", length.Imperial, cat)
	if rng.IntN(2) == 0 {
		j = document.New("Random", length.Metric, cat)
	}
	like, n := j.Lines[0].Runs[0], 0
	j.Lines = nil
	for l := range 1 + rng.IntN(3) {
		line := job.Line{ID: fmt.Sprintf("L%d", l+1)}
		runs := 1 + rng.IntN(6)
		for r := range runs {
			n++
			run := like
			run.ID = fmt.Sprintf("R%d", n)
			if rng.IntN(8) > 0 {
				run.Length = ptr(length.Length(2000 + rng.Float64()*30000))
			}
			if rng.IntN(4) == 0 {
				run.Taped = job.TapedSlope
			}
			if rng.IntN(5) > 0 && (r > 0 || rng.IntN(2) == 0) {
				side := []job.Side{job.Left, job.Right}[rng.IntN(2)]
				switch rng.IntN(5) {
				case 0:
					run.Corner = &job.Corner{By: job.ByInterior, Side: side, Angle: rng.Float64() * 180}
				case 1:
					run.Corner = &job.Corner{By: job.ByOffset, Side: side, Along: length.Length(rng.NormFloat64() * 2000), Off: length.Length(rng.Float64() * 2000)}
				case 2:
					run.Corner = &job.Corner{By: job.ByDiagonal, Side: side, Back: ptr(length.Length(3000)), Forth: ptr(length.Length(4000)), Diagonal: length.Length(1000 + rng.Float64()*6000)}
				case 3: // straight on: one fence in two runs
					run.Corner = &job.Corner{By: job.ByDeflection, Side: side}
				default:
					run.Corner = &job.Corner{By: job.ByDeflection, Side: side, Angle: rng.Float64() * 180}
				}
			}
			if rng.IntN(3) == 0 {
				run.Post.Width, run.Fence.Height = run.Post.Width*1.5, run.Fence.Height*0.7
			}
			run.Grade.Look = job.Looks[rng.IntN(4)]
			run.String.Position = []job.StringPosition{job.OnFace, job.JustOff, job.StandOff, job.BySight}[rng.IntN(4)]
			run.String.Props = rng.IntN(4)
			if run.Length != nil {
				if rng.IntN(3) == 0 && *run.Length > 5000 {
					run.Gates = []job.Gate{{ID: "G1", At: *run.Length * length.Length(0.3+0.3*rng.Float64()), Opening: 1000, Gap: 100}}
				}
				if rng.IntN(3) == 0 {
					run.KeepOuts = []job.KeepOut{
						{ID: "K1", Kind: job.Service, Service: "water", At: *run.Length * length.Length(rng.Float64()), Hand: 450},
						{ID: "K2", Kind: job.OldPost, Stays: rng.IntN(2) == 0, At: 0, Width: 100},
					}
				}
			}
			book := job.Book{ID: "B" + run.ID, Kind: []job.BookKind{job.Drops, job.Rises}[rng.IntN(2)], Run: run.ID}
			for i := range rng.IntN(5) {
				at := length.Length(i) * 400
				if rng.IntN(2) == 0 {
					run.Ground = append(run.Ground, job.GroundPoint{At: at, Height: length.Length(rng.NormFloat64() * 200)})
				} else {
					book.Rows = append(book.Rows, job.Reading{At: at, Drop: length.Length(rng.NormFloat64() * 300), Rise: length.Length(rng.NormFloat64() * 100)})
				}
			}
			line.Books = append(line.Books, book)
			line.Runs = append(line.Runs, run)
		}
		line.Closed = runs >= 3 && rng.IntN(2) == 0
		line.Balance = rng.IntN(2) == 0
		j.Lines = append(j.Lines, line)
	}
	j.Site.Wind = 0.1 + rng.Float64()*10
	if errs := document.Check(j); len(errs) > 0 {
		t.Fatal(errs)
	}
	named(&j)
	return j
}

// named gives the heights of a job that was made here the ids that a document
// would give them.
func named(j *job.Job) {
	for l := range j.Lines {
		for r := range j.Lines[l].Runs {
			ground := j.Lines[l].Runs[r].Ground
			for i := range ground {
				ground[i].ID = fmt.Sprint("h", i+1)
			}
		}
		for _, b := range j.Lines[l].Books {
			for i := range b.Rows {
				b.Rows[i].ID = fmt.Sprint("w", i+1)
			}
		}
	}
}

// What must hold of lines of many runs, however much of them is measured.
func TestPropertiesOfLines(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(31, 5))
	cat := shipped(t)
	for n := range sized(200, 50) {
		j := randomLines(t, rng)
		p := plan.Make(j, cat)
		if _, err := json.Marshal(p); err != nil {
			t.Fatalf("job %d: %v", n, err)
		}
		posts, concrete := 0, length.Volume(0)
		for r, run := range p.Runs {
			bays := length.Length(0)
			for _, b := range run.Bays {
				bays += b.CentreToCentre
			}
			if len(run.Posts) > 0 && !length.Same(bays, run.Length) {
				t.Fatalf("job %d: bays of %s add up to %v of %v", n, run.ID, bays, run.Length)
			}
			for i := range run.Posts {
				post := run.Posts[i]
				if post.Shared == "" {
					if post.Stays == "" { // an old post that stays is nothing to buy
						posts++
					}
					concrete += post.ConcreteVolume
					continue
				}
				sharedIsTheSame(t, n, p, r, i)
			}
			if s := run.String; s != nil && (len(s.Posts) != len(run.Posts) || len(s.Order) != len(run.Posts) || s.Posts[0].Sag > length.Tolerance || s.SagPropped > s.Sag+length.Tolerance) {
				t.Fatalf("job %d: string of %s: %+v", n, run.ID, s)
			}
		}
		if p.Totals.Posts != posts || math.Abs(float64(p.Totals.Concrete-concrete)) > 1e-9 {
			t.Fatalf("job %d: %d posts and %v concrete, totals say %d and %v", n, posts, concrete, p.Totals.Posts, p.Totals.Concrete)
		}
		for l, line := range p.Lines {
			placed(t, n, j.Lines[l], line, p.Runs[line.First:line.First+line.Runs])
		}
		for _, w := range p.Reasons {
			if w.Sentence.Print(p.Units) == "" || len(w.Rules) == 0 {
				t.Fatalf("job %d: %s is not explained", n, w.Figure)
			}
		}
		if n%12 == 0 { // each way out is a plan of its own
			remediesApply(t, n, j, p)
		}
	}
}

// sharedIsTheSame checks a post that is counted elsewhere against the one
// that is counted.
func sharedIsTheSame(t *testing.T, n int, p plan.Plan, r, i int) {
	t.Helper()
	run, post := p.Runs[r], p.Runs[r].Posts[i]
	for _, other := range p.Runs {
		if other.ID != post.Shared {
			continue
		}
		owner := other.Posts[len(other.Posts)-1]
		if i != 0 || owner.Shared != "" || owner.Top != post.Top || owner.HoleDepth != post.HoleDepth || owner.HoleWidth != post.HoleWidth || owner.Kind != post.Kind {
			t.Fatalf("job %d: the corner of %s and %s is two posts: %+v, %+v", n, other.ID, run.ID, owner, post)
		}
		return
	}
	t.Fatalf("job %d: %s is shared with %q", n, post.Label, post.Shared)
}

// placed checks that runs are as long on the map as they are level, unless a
// misclosure was spread, and hang together.
func placed(t *testing.T, n int, given job.Line, line plan.Line, runs []plan.Run) {
	t.Helper()
	for r, run := range runs {
		if r > 0 && runs[r-1].To != run.From {
			t.Fatalf("job %d: %s does not start where %s ends", n, run.ID, runs[r-1].ID)
		}
		spread := given.Balance && line.Closing != nil
		if off := (run.From.To(run.To) - run.Length).Abs(); off > 0.01 && !spread {
			t.Fatalf("job %d: %s is %v on the map, %v level", n, run.ID, run.From.To(run.To), run.Length)
		}
	}
	if line.Closing != nil && given.Balance && runs[len(runs)-1].To.To(runs[0].From) > 0.01 {
		t.Fatalf("job %d: spread, the line does not close", n)
	}
}

// remediesApply takes every way out that is offered: each makes a document
// that can be read, and what it was offered for is gone or less.
func remediesApply(t *testing.T, n int, j job.Job, p plan.Plan) {
	t.Helper()
	doc, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range p.Findings {
		for _, way := range f.Remedies {
			changed, err := document.Apply(doc, way.Edits)
			if err != nil {
				t.Fatalf("job %d: %s: %v", n, f.Rule, err)
			}
			after, _, err := document.Decode(changed, shipped(t))
			if err != nil {
				t.Fatalf("job %d: the way out of %s, %q, makes: %v", n, f.Rule, way.Says.Print(p.Units), err)
			}
			gone := map[string]bool{"sag": true, "drift": true, "string-touches": true, "misclosure": true}
			if f.Rule == "misclosure" && f.Severity == finding.Check {
				continue // spreading does not make a blunder good
			}
			if gone[f.Rule] && says(plan.Make(after, shipped(t)), f.Rule, f.Place) {
				t.Fatalf("job %d: %q does not help against %s", n, way.Says.Print(p.Units), f.Says.Print(p.Units))
			}
		}
	}
}

func says(p plan.Plan, rule string, place finding.Place) bool {
	for _, f := range p.Findings {
		if f.Rule == rule && f.Place == place {
			return true
		}
	}
	return false
}

func find(p plan.Plan, rule string) *finding.Finding {
	for i := range p.Findings {
		if p.Findings[i].Rule == rule {
			return &p.Findings[i]
		}
	}
	return nil
}

// The orchard, by hand: 19, 11 and 12 posts on three runs (the last one has a
// bay more, to miss the old footings), of which two corner posts belong to two
// runs each.
func TestCornerPostsAreCountedOnce(t *testing.T) {
	p := plan.Make(demoJob(t, 0), shipped(t))
	if n := []int{len(p.Runs[0].Posts), len(p.Runs[1].Posts), len(p.Runs[2].Posts), p.Totals.Posts, p.Totals.Elsewhere}; fmt.Sprint(n) != "[19 11 12 40 2]" {
		t.Errorf("posts %v", n)
	}
	// The corner between a six-foot and a four-foot fence carries the higher one.
	a, b := p.Runs[0].Posts[18], p.Runs[1].Posts[0]
	if a.Kind != job.CornerPost || b.Shared != "R1" || a.Top != b.Top || a.AboveGrade < 1828 {
		t.Errorf("corner: %v and %v, %v over the ground", a.Top, b.Top, a.AboveGrade)
	}
	if p.Runs[0].Totals.Posts != 19 || p.Runs[1].Totals.Posts != 10 || p.Runs[1].Totals.Elsewhere != 1 {
		t.Errorf("runs count %d and %d", p.Runs[0].Totals.Posts, p.Runs[1].Totals.Posts)
	}
	// 124 bags of one kind and 29 of the other: rounded up once for each kind.
	if len(p.Totals.BagKinds) != 2 || p.Totals.Bags != 153 {
		t.Errorf("%d bags in %v", p.Totals.Bags, p.Totals.BagKinds)
	}
	yard := plan.Make(demoJob(t, 1), shipped(t))
	if yard.Totals.Elsewhere != 4 || yard.Runs[0].Posts[0].Shared != "R4" {
		t.Errorf("round the yard %d corners, the first shared with %q", yard.Totals.Elsewhere, yard.Runs[0].Posts[0].Shared)
	}
}

// It is the hole that must miss a pipe, not the post's centre.
func TestHolesMissWhatIsInTheWay(t *testing.T) {
	cat := shipped(t)
	j := document.New("A", length.Metric, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(length.Length(9600)) // posts every 2.4 m, 300 mm holes
	run.FixedPosts, run.Spacing.HandDig = []job.FixedPost{{ID: "F1", At: 2400}}, true
	at := func(station, width, hand length.Length, kind job.Obstacle) plan.Plan {
		run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: kind, Service: "gas", At: station, Width: width, Hand: hand}}
		return plan.Make(j, cat)
	}
	for _, c := range []struct {
		station, width, hand length.Length
		hit, hand3           bool
	}{
		// A gas pipe is 50.8 across unless it was measured: 25.4 either side.
		{2400, 0, 450, true, false},  // under the post
		{2574, 0, 450, true, false},  // its side under the hole's edge
		{2577, 0, 450, false, true},  // just past it: by hand
		{3024, 0, 450, false, true},  // 449 from its side to the edge
		{3027, 0, 450, false, false}, // 451
		{2549, 1, 450, true, false},  // measured as a thin one
		{2552, 1, 450, false, true},
		{2760, 400, 0, false, false}, // a wide one that ends at 2560
		{2740, 400, 0, true, false},  // and at 2540
	} {
		p := at(c.station, c.width, c.hand, job.Service)
		post := p.Runs[0].Posts[1]
		if hit, hand := len(post.InWay) > 0, len(post.Hand) > 0; hit != c.hit || hand != c.hand3 {
			t.Errorf("at %v, %v wide, %v by hand: hit %v, by hand %v", c.station, c.width, c.hand, hit, hand)
		}
		if f := find(p, "in-the-way"); (f != nil) != c.hit || f != nil && f.Severity != finding.Cannot {
			t.Errorf("at %v: %+v", c.station, f)
		}
	}
	if f := find(at(2400, 300, 0, job.Rock), "in-the-way"); f == nil || f.Severity != finding.Check {
		t.Errorf("rock is to be looked at, not forbidden: %+v", f)
	}
	// Where nothing is held, the posts make way by themselves.
	run.FixedPosts = nil
	for _, c := range []length.Length{2400, 2549, 4700, 7300} {
		p := at(c, 0, 450, job.Service)
		if find(p, "in-the-way") != nil || find(p, "blocked") != nil {
			t.Errorf("a pipe at %v is hit", c)
		}
		for _, post := range p.Runs[0].Posts {
			if d := (post.Station - c).Abs(); d < 150+25.4-length.Tolerance {
				t.Errorf("the hole at %v comes within %v of the pipe at %v", post.Station, d, c)
			}
		}
	}
	// Usually a hole keeps out of the width that is dug by hand besides.
	run.Spacing.HandDig = false
	for _, c := range []length.Length{2400, 4700} {
		for _, post := range at(c, 0, 450, job.Service).Runs[0].Posts {
			if d := (post.Station - c).Abs(); d < 150+25.4+450-length.Tolerance {
				t.Errorf("the hole at %v comes within %v of the pipe at %v, in its tolerance zone", post.Station, d, c)
			}
		}
	}
	run.Spacing.HandDig = true
	run.FixedPosts = []job.FixedPost{{ID: "F1", At: 2400}}
	// A post that stays, where one is planned, is that post.
	run.FixedPosts = nil
	run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.OldPost, Stays: true, At: 2300, Width: 100}}
	if p := plan.Make(j, cat); p.Runs[0].Posts[1].Stays != "K1" || p.Runs[0].Posts[1].Station != 2300 || p.Totals.Reused != 1 || p.Totals.Posts != len(p.Runs[0].Posts)-1 {
		t.Errorf("an old post that stays is not built onto: %+v", p.Runs[0].Posts[1])
	}
	run.FixedPosts = []job.FixedPost{{ID: "F1", At: 2400}}
	// The way out that is offered works.
	p := at(2500, 0, 450, job.Service)
	doc, _ := json.Marshal(j)
	changed, err := document.Apply(doc, find(p, "in-the-way").Remedies[0].Edits)
	if err != nil {
		t.Fatal(err)
	}
	after, _, err := document.Decode(changed, cat)
	if err != nil || find(plan.Make(after, cat), "in-the-way") != nil {
		t.Errorf("the way out does not help: %v", err)
	}
}

// Nothing is cleared until everything is settled, and each is said.
func TestClearedOnlyWhenAllIsSettled(t *testing.T) {
	j := demoJob(t, 1)
	cat := shipped(t)
	if !plan.Make(j, cat).Before.Ready {
		t.Fatal("the yard is not cleared")
	}
	for name, undo := range map[string]func(*job.Before){
		"services": func(b *job.Before) { b.Services = false }, "private": func(b *job.Before) { b.Private = false },
		"boundary": func(b *job.Before) { b.Boundary = false }, "permit": func(b *job.Before) { b.Permit = job.PermitApplied },
		"code": func(b *job.Before) { b.Code = false }, "neighbour": func(b *job.Before) { b.Neighbour = false },
	} {
		k := j
		undo(&k.Site.Before)
		c := plan.Make(k, cat).Before
		open := []string{}
		for _, check := range c.Checks {
			if !check.Done {
				open = append(open, check.ID)
			}
		}
		if c.Ready || strings.Join(open, " ") != name {
			t.Errorf("%s undone: ready %v, open %v", name, c.Ready, open)
		}
	}
	// The code as it was read bounds the fence, with a way out.
	j.Site.Before.MaxHeight = ptr(length.Length(1000))
	if f := find(plan.Make(j, cat), "too-high"); f == nil || f.Severity != finding.Cannot || len(f.Remedies) != 1 {
		t.Errorf("a fence over the limit: %+v", f)
	}
}

// Strings, by hand: on the faces, held off 6 mm, or stood off a foot, from a
// 100 mm post; and a wind that is said with the length it allows.
func TestStringsOfARun(t *testing.T) {
	cat := shipped(t)
	j := document.New("A", length.Metric, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(30 * length.Metre)
	for _, c := range []struct {
		position job.StringPosition
		face     length.Length
	}{{job.OnFace, 0}, {job.JustOff, 6}, {job.StandOff, 300}} {
		run.String.Position = c.position
		s := plan.Make(j, cat).Runs[0].String
		if !length.Same(s.ToFace, c.face) || !length.Same(s.ToCentre, c.face+50) || s.Sight {
			t.Errorf("%s: %v to the face, %v to the centre", c.position, s.ToFace, s.ToCentre)
		}
	}
	// 30 m at 50 N with 0.0098 N/m hangs 22.05 mm (handbook value); a prop quarters it.
	run.String.Pull = 50
	if k, ok := cat.String(run.String.Kind); !ok || k.Weight != 0.0098 {
		t.Fatalf("the usual string weighs %v", k.Weight)
	}
	s := plan.Make(j, cat).Runs[0].String
	if math.Abs(float64(s.Sag)-22.05) > 0.01 {
		t.Errorf("sags %v", s.Sag)
	}
	run.String.Props = 1
	if s = plan.Make(j, cat).Runs[0].String; math.Abs(float64(s.SagPropped)-22.05/4) > 0.01 {
		t.Errorf("on a prop %v", s.SagPropped)
	}
	// At every post the mark, the sag and the string agree on a level run.
	for i, h := range s.Posts {
		if want := s.HighStart - plan.Make(j, cat).Runs[0].Posts[i].Ground - h.Sag; !length.Same(h.High, want) || !length.Same(h.Mark, h.Sag) {
			t.Errorf("%s: string at %v, mark %v over it, sag %v", h.Post, h.High, h.Mark, h.Sag)
		}
	}
	if s.SightFrom != nil {
		t.Error("without wind no length is said")
	}
	j.Site.Wind = 5
	s = plan.Make(j, cat).Runs[0].String
	if s.SightFrom == nil || s.Drift < s.DriftAllowed || find(plan.Make(j, cat), "drift") == nil {
		t.Errorf("a wind of 5 m/s: %v out, sight from %v", s.Drift, s.SightFrom)
	}
	run.String.Position = job.BySight
	s = plan.Make(j, cat).Runs[0].String
	last := len(s.Posts) - 1
	if s.Posts[1].Sag != 0 || find(plan.Make(j, cat), "sag") != nil {
		t.Error("a line of sight sags")
	}
	if !s.Sight || s.Order[0] != "P1" || s.Order[1] != s.Posts[last].Post || s.Target != s.Order[1] || find(plan.Make(j, cat), "drift") != nil {
		t.Errorf("by eye: %v to %s", s.Order, s.Target)
	}
}

// The walk's findings are said in words, with their measures.
func TestWhatTheWalkSays(t *testing.T) {
	cat := shipped(t)
	j := demoJob(t, 1)
	u := j.Units
	if f := find(plan.Make(j, cat), "misclosure"); f == nil || f.Says.Print(u) != "The line misses closing by 16 mm, 1 in 4946." || f.Severity != finding.Note {
		t.Errorf("misclosure: %+v", f)
	}
	j.Lines[0].Runs[1].Length = ptr(*j.Lines[0].Runs[1].Length + 500) // half a metre misread
	if f := find(plan.Make(j, cat), "misclosure"); f == nil || f.Severity != finding.Check || !strings.Contains(f.Says.Print(u), "look for a mistake first") {
		t.Errorf("half a metre misread: %+v", f)
	}
	j.Lines[0].Balance = true // and is not hidden by being spread
	if f := find(plan.Make(j, cat), "misclosure"); f == nil || f.Severity != finding.Check || len(f.Remedies) > 0 || !strings.Contains(f.Says.Print(u), "It is spread anyway") {
		t.Errorf("a slip that was spread: %+v", f)
	}
	j = demoJob(t, 1)
	j.Lines[0].Runs[3].Corner.Side = job.Right
	if f := find(plan.Make(j, cat), "angle-sum"); f == nil || !strings.Contains(f.Says.Print(u), "left or right") {
		t.Errorf("a corner turned the wrong way: %+v", f)
	}
	j = demoJob(t, 1)
	j.Lines[0].Runs[1].Corner = nil
	p := plan.Make(j, cat)
	if c := p.Lines[0].Corners[1]; c.Measured || c.Turn == nil || math.Abs(*c.Turn-84.66) > 0.1 || find(p, "corner-missing") != nil {
		t.Errorf("one corner follows from closing: %+v", c)
	}
	j.Lines[0].Runs[2].Corner = nil
	if p = plan.Make(j, cat); find(p, "corner-missing") == nil || p.Lines[0].Closing != nil {
		t.Error("two corners cannot be found")
	}
	// A blunder in a book is named with its neighbours, and what was likely meant.
	j = demoJob(t, 1)
	j.Lines[0].Books[1].Rows[2].Drop += 300
	f := find(plan.Make(j, cat), "slip")
	if f == nil || f.Field != "/lines/L1/books/B2/rows/w3/drop" || len(f.Remedies) < 2 {
		t.Fatalf("slip: %+v", f)
	}
}

// Straight on with the same fence, two runs are one: posts at the joint are
// line posts, and the top goes through.
func TestStraightJointIsNoTerminal(t *testing.T) {
	cat := shipped(t)
	j := document.New("A", length.Metric, cat)
	run := j.Lines[0].Runs[0]
	run.Length, run.Hole.EndExtraDepth = ptr(length.Length(9600)), ptr(length.Length(300))
	next := run
	next.ID, next.Corner = "R2", &job.Corner{By: job.ByDeflection, Side: job.Left}
	j.Lines[0].Runs = []job.Run{run, next}
	p := plan.Make(j, cat)
	joint := p.Runs[0].Posts[4]
	if joint.Kind != job.LinePost || joint.HoleDepth != p.Runs[0].Posts[2].HoleDepth {
		t.Errorf("the joint is a %s post, %v deep", joint.Kind, joint.HoleDepth)
	}
	next.Fence.Height = 1200
	j.Lines[0].Runs[1] = next
	if p = plan.Make(j, cat); p.Runs[0].Posts[4].Kind != job.EndPost {
		t.Errorf("between two fences stands a %s post", p.Runs[0].Posts[4].Kind)
	}
	next.Fence, next.Corner.Angle = run.Fence, 30
	j.Lines[0].Runs[1] = next
	if p = plan.Make(j, cat); p.Runs[0].Posts[4].Kind != job.CornerPost {
		t.Errorf("at a corner stands a %s post", p.Runs[0].Posts[4].Kind)
	}
}

// A line of 500 runs with a reading every 2 m.
func BenchmarkPlan500Runs(b *testing.B) {
	cat, j := shipped(b), longLine(b)
	for b.Loop() {
		if p := plan.Make(j, cat); len(p.Runs) != 500 {
			b.Fatal(len(p.Runs))
		}
	}
}

// longLine is a line of 500 runs with a corner between any two.
func longLine(t testing.TB) job.Job {
	j := document.New("Long", length.Metric, shipped(t))
	like := j.Lines[0].Runs[0]
	l := job.Line{ID: "L1"}
	for r := range 500 {
		run := like
		run.ID, run.Length = fmt.Sprintf("R%d", r+1), ptr(20*length.Metre)
		run.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 3}
		book := job.Book{ID: "B" + run.ID, Kind: job.Drops, Run: run.ID}
		for i := range 11 {
			book.Rows = append(book.Rows, job.Reading{At: length.Length(i) * 2000, Drop: 400 + length.Length((r+i)%7)*10})
		}
		l.Runs, l.Books = append(l.Runs, run), append(l.Books, book)
	}
	j.Lines = []job.Line{l}
	return j
}

// The three ways to set a corner agree: the diagonal of the two legs, and the
// end of the second leg by offset, against the places on the map.
func TestCornersCanBeSetByTape(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(41, 5))
	cat := shipped(t)
	corners := 0
	for range sized(120, 40) {
		p := plan.Make(randomLines(t, rng), cat)
		for _, line := range p.Lines {
			for i, c := range line.Corners {
				s := c.Square
				if s == nil || line.Closing != nil && (line.Closing.Spread || i == 0) {
					continue // the map is not quite what is taped, or its last run does not reach the first corner
				}
				corners++
				if (s.A.To(s.B)-s.Diagonal).Abs() > p.Units.SmallestMark || (c.Place.To(s.A)-s.LegA).Abs() > 0.01 || (c.Place.To(s.B)-s.LegB).Abs() > 0.01 {
					t.Fatalf("legs %v and %v, diagonal %v; on the map %v, %v, %v", s.LegA, s.LegB, s.Diagonal, c.Place.To(s.A), c.Place.To(s.B), s.A.To(s.B))
				}
				if s.LegA > 30480+1e-6 || s.LegB > 30480+1e-6 || s.Diagonal > 30480+1 {
					t.Fatalf("a tape of 100 ft does not reach %v, %v, %v", s.LegA, s.LegB, s.Diagonal)
				}
				// By offset: along from A through the corner, then square off to B.
				ux, uy := (c.Place.X-s.A.X)/s.LegA, (c.Place.Y-s.A.Y)/s.LegA
				foot := c.Place
				foot.X, foot.Y = foot.X+ux*s.Along, foot.Y+uy*s.Along
				if (foot.To(s.B)-s.Off).Abs() > 0.01 || math.Abs(float64((s.B.X-foot.X)*ux+(s.B.Y-foot.Y)*uy)) > 0.01 {
					t.Fatalf("offset %v, %v does not lead from %v to %v", s.Along, s.Off, c.Place, s.B)
				}
			}
		}
	}
	if corners < sized(300, 90) {
		t.Errorf("only %d corners", corners)
	}
}
