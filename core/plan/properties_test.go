package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/demo"
)

// random makes a sound job with usual rules on random measures.
func random(t testing.TB, rng *rand.Rand) job.Job {
	j := document.New("Random", length.Imperial, shipped(t))
	r := &j.Lines[0].Runs[0]
	total := length.Length(3000 + rng.Float64()*60000)
	r.Length = &total
	for at := length.Length(0); at < total; at += length.Length(500 + rng.Float64()*6000) {
		r.Ground = append(r.Ground, job.GroundPoint{At: at, Height: length.Length(rng.NormFloat64() * 250)})
	}
	if rng.IntN(2) == 0 {
		r.Gates = []job.Gate{{ID: "G1", At: total * length.Length(0.3+0.4*rng.Float64()), Opening: 900, Gap: 100}}
	}
	r.Grade = randomGrade(rng, total)
	r.Grade.Give = []job.Give{job.Fill, job.Cut, job.Both}[rng.IntN(3)]
	r.Hole.Share = ptr([]job.Share{job.NoShare, job.Quarter, job.Third, job.Half}[rng.IntN(4)])
	r.Hole.RoundDepthTo = ptr(length.Length(rng.IntN(3)) * 25)
	r.Post.Hollow, r.Post.Wall = rng.IntN(2) == 0, 4
	r.Setting.Cover = ptr(length.Length(rng.IntN(500)))
	if rng.IntN(4) > 0 {
		frost := length.Length(rng.Float64() * 1500)
		j.Site.FrostDepth = &frost
	}
	if errs := document.Check(j); len(errs) > 0 {
		t.Fatal(errs)
	}
	named(&j)
	return j
}

// randomGrade is any look with any of its choices.
func randomGrade(rng *rand.Rand, total length.Length) job.Grade {
	straight := rng.Float64()
	g := job.Grade{
		Look: job.Looks[rng.IntN(4)], Steps: []job.Steps{"", job.LeastGap, job.EvenSteps, job.Gradual, job.RoundStep}[rng.IntN(5)],
		Straight: &straight, StepBy: 50, StepEase: rng.IntN(3), Dips: length.Length(rng.IntN(2) * 40),
		Across: []job.Across{"", job.FlatAcross, job.GoesOn}[rng.IntN(3)], Infill: []job.Infill{"", job.EarthInfill, job.GravelBoards, job.CutBoards}[rng.IntN(4)],
		By: []job.TopsBy{"", job.ByString, job.ByLaser, job.ByDrops, job.ByEye}[rng.IntN(5)],
	}
	if rng.IntN(3) == 0 {
		from := total * length.Length(rng.Float64()/2)
		g.Parts = g.WithPart(job.LookPart{From: from, To: from + total/3, Look: job.Looks[rng.IntN(4)]})
	}
	return g
}

// What must hold on any job.
func TestPropertiesOfAnyPlan(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(11, 12))
	cat := shipped(t)
	for n := range sized(600, 100) {
		j := random(t, rng)
		p := plan.Make(j, cat)
		run := p.Runs[0]
		bays, concrete, bags := length.Length(0), length.Volume(0), 0.0
		for _, b := range run.Bays {
			bays += b.CentreToCentre
			if b.Gate == "" && b.CentreToCentre > j.Lines[0].Runs[0].Spacing.Most+length.Tolerance {
				t.Fatalf("job %d: bay %s over the most", n, b.Label)
			}
		}
		for _, post := range run.Posts {
			concrete += post.ConcreteVolume
			bags += post.Bags
			if post.ConcreteVolume < 0 || post.AboveGrade < 0 || post.HoleDepth < post.Foot || post.HoleWidth < j.Lines[0].Runs[0].Post.Across() {
				t.Fatalf("job %d: %+v", n, post)
			}
			if post.Stock != nil && (*post.Stock < post.Needed-length.Tolerance || *post.CutOff < -length.Tolerance) {
				t.Fatalf("job %d: %s needs %v, cut from %v", n, post.Label, post.Needed, *post.Stock)
			}
		}
		if !length.Same(bays, run.Length) {
			t.Fatalf("job %d: bays add up to %v of %v", n, bays, run.Length)
		}
		if math.Abs(float64(concrete-run.Totals.Concrete)) > 1e-9 || math.Abs(bags-float64(run.Totals.Concrete/(0.45*length.CubicFoot))) > 1e-6 ||
			run.Totals.Bags < int(1.05*bags-1e-6) || run.Totals.Bags > int(1.05*bags)+1 { // with 5 % waste
			t.Fatalf("job %d: posts take %v in %.3f bags, totals say %v in %d", n, concrete, bags, run.Totals.Concrete, run.Totals.Bags)
		}
		refsHold(t, p)
		if n%3 == 0 { // the others take as long as the plan itself
			frostNeverShallower(t, j)
			unitsDoNotMatter(t, j, p)
		}
	}
}

// refsHold checks that every figure's explanation is there and is its own.
func refsHold(t *testing.T, p plan.Plan) {
	t.Helper()
	figure := func(ref reason.Ref, want ...string) {
		i := int(ref)
		for _, w := range want {
			if i >= 0 && i < len(p.Reasons) && p.Reasons[i].Figure == w {
				return
			}
		}
		t.Fatalf("explanation %d is not of %v", i, want)
	}
	for _, post := range p.Runs[0].Posts {
		figure(post.Why.HoleDepth, "Hole depth")
		figure(post.Why.HoleWidth, "Hole width")
		figure(post.Why.Concrete, "Concrete")
		figure(post.Why.Stock, "Post length")
		figure(post.Why.Top, "Post top")
		figure(post.Why.Station, "Spacing", "Where the gate posts stand", "Where the end posts stand")
	}
	for _, b := range p.Runs[0].Bays {
		figure(b.Why.Gap, "Gap under the fence", "Gap under the gate")
		figure(b.Why.Spacing, "Spacing", "Gate posts")
		figure(b.Why.Lean, "Rails and panels on the slope")
	}
	figure(*p.Runs[0].TopLine.Why, "How the tops are set")
	for _, w := range p.Reasons {
		if w.Sentence.Print(p.Units) == "" || len(w.Steps) == 0 || len(w.Rules) != len(w.Steps) {
			t.Fatalf("%s is not explained", w.Figure)
		}
		for i, rule := range w.Rules {
			if got, want := p.Rules[rule], w.Steps[i]; got.Rule != want.Rule || got.Governs != want.Governs || len(got.Settings) != len(want.Settings) {
				t.Fatalf("%s: rule %d is %v, want %v", w.Figure, i, p.Rules[rule], w.Steps[i])
			}
		}
	}
}

func frostNeverShallower(t *testing.T, j job.Job) {
	t.Helper()
	cat := shipped(t)
	before := plan.Make(j, cat)
	deeper := length.Length(900)
	if j.Site.FrostDepth != nil {
		deeper += *j.Site.FrostDepth
	}
	j.Site.FrostDepth = &deeper
	for i, post := range plan.Make(j, cat).Runs[0].Posts {
		if post.HoleDepth < before.Runs[0].Posts[i].HoleDepth {
			t.Fatalf("%s is %v deep with more frost, %v with less", post.Label, post.HoleDepth, before.Runs[0].Posts[i].HoleDepth)
		}
	}
}

// The same measures printed in metres give the same fence.
func unitsDoNotMatter(t *testing.T, j job.Job, p plan.Plan) {
	t.Helper()
	j.Units = length.Usual(length.Metric)
	q := plan.Make(j, shipped(t))
	for i := range p.Runs[0].Posts { // one step deeper is 6 in or 150 mm
		p.Runs[0].Posts[i].Wind.Deeper, q.Runs[0].Posts[i].Wind.Deeper = nil, nil
	}
	a, errA := json.Marshal(p.Runs[0].Posts)
	b, errB := json.Marshal(q.Runs[0].Posts)
	if errA != nil || errB != nil || string(a) != string(b) || p.Totals.Bags != q.Totals.Bags {
		t.Fatalf("in feet\n%s\nin metres\n%s", a, b)
	}
}

// The run seen from the other side is the same fence turned round.
func TestMirroredRun(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(13, 14))
	cat := shipped(t)
	for range sized(250, 50) {
		j := random(t, rng)
		m := j
		run := j.Lines[0].Runs[0]
		// Unmeasured ground beyond the last point is level on either side.
		run.Ground = append(run.Ground, job.GroundPoint{At: *run.Length, Height: 33})
		j.Lines = []job.Line{{ID: "L1", Runs: []job.Run{run}}}
		other := run
		other.Ground, other.Gates, other.Grade.Parts = nil, nil, nil
		for _, part := range run.Grade.Parts {
			part.From, part.To = *run.Length-part.To, *run.Length-part.From
			other.Grade.Parts = append([]job.LookPart{part}, other.Grade.Parts...)
		}
		for i := len(run.Ground) - 1; i >= 0; i-- {
			other.Ground = append(other.Ground, job.GroundPoint{At: *run.Length - run.Ground[i].At, Height: run.Ground[i].Height})
		}
		for _, g := range run.Gates {
			g.At = *run.Length - g.At
			other.Gates = append(other.Gates, g)
		}
		m.Lines = []job.Line{{ID: "L1", Runs: []job.Run{other}}}
		p, q := plan.Make(j, cat).Runs[0], plan.Make(m, cat).Runs[0]
		for i, post := range p.Posts {
			back := q.Posts[len(q.Posts)-1-i]
			// A hundredth of a millimetre is the solver's own.
			if (post.Top-back.Top).Abs() > 0.01 || !length.Same(post.HoleDepth, back.HoleDepth) || !length.Same(post.HoleWidth, back.HoleWidth) {
				t.Logf("%+v %+v", run.Grade, other.Grade.Parts)
				for i := range p.Bays {
					b, c := p.Bays[i], q.Bays[len(q.Bays)-1-i]
					t.Log(b.Label, b.Look, c.Look, b.BottomStart, b.BottomEnd, c.BottomEnd, c.BottomStart)
				}
				t.Fatalf("%s %s: %+v\nmirrored %+v", run.Grade.Look, run.Grade.Give, post, back)
			}
		}
		if p.Totals.Bags != q.Totals.Bags {
			t.Fatalf("%d bags, mirrored %d", p.Totals.Bags, q.Totals.Bags)
		}
	}
}

// Splitting a run in two at a line post that stays changes no total but the
// post that both parts now have: without gates and shares, every post of the
// whole run is a post of a part.
func TestSplitAtAPostChangesNoTotal(t *testing.T) {
	cat := shipped(t)
	j := document.New("Whole", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	total := 12 * 96 * length.Inch
	run.Length, run.Hole.Share = &total, ptr(job.NoShare)
	whole := plan.Make(j, cat).Totals
	part := func(bays int) plan.Totals {
		l := length.Length(bays) * 96 * length.Inch
		run.Length = &l
		return plan.Make(j, cat).Totals
	}
	a, b := part(5), part(7)
	one := whole.Concrete / length.Volume(whole.Posts)
	if a.Posts+b.Posts != whole.Posts+1 || math.Abs(float64(a.Concrete+b.Concrete-whole.Concrete-one)) > 1e-12 {
		t.Errorf("whole %d posts %v, parts %d and %d posts %v", whole.Posts, whole.Concrete, a.Posts, b.Posts, a.Concrete+b.Concrete)
	}
}

// Every remedy of every finding can be taken: the document stays sound, and
// what it was for is gone or smaller.
func TestRemediesHelp(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(15, 16))
	cat := shipped(t)
	seen := map[string]int{}
	for range sized(160, 24) {
		j := random(t, rng)
		run := &j.Lines[0].Runs[0]
		spoil(rng, run)
		raw, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		j, _, err = document.Decode(raw, cat)
		if err != nil {
			continue // spoilt beyond a document
		}
		for _, f := range plan.Make(j, cat).Findings {
			for _, way := range f.Remedies {
				edited, err := document.Apply(raw, way.Edits)
				if err != nil {
					t.Fatal(err)
				}
				after, _, err := document.Decode(edited, cat)
				if err != nil {
					t.Fatalf("%s: %s leaves %v", f.Rule, way.Says.Print(j.Units), err)
				}
				if worse := same(plan.Make(after, cat).Findings, f); worse {
					t.Fatalf("%s: %s changes nothing: %s", f.Rule, way.Says.Print(j.Units), f.Says.Print(j.Units))
				}
				seen[f.Rule]++
			}
		}
	}
	for _, rule := range []string{"corridor", "rack", "short-bay", "holes-meet", "stock", "shallow", "no-auger", "no-concrete", "bag-unknown"} {
		if seen[rule] == 0 {
			t.Errorf("no remedy of %s was tried", rule)
		}
	}
}

func spoil(rng *rand.Rand, run *job.Run) {
	rack, shallow := length.Length(20), length.Length(250)
	switch rng.IntN(6) {
	case 0:
		run.Grade.Rack, run.Grade.Look = &rack, job.Raked
	case 1:
		run.Hole.Depth = &shallow
	case 2:
		run.Hole.Augers = []length.Length{150}
	case 3:
		run.Setting.Bag = ptr("a sack")
	case 4:
		run.Post.Stock = []length.Length{1800}
	case 5:
		run.Gates = []job.Gate{{ID: "G1", Opening: 900, Gap: 100, At: 495 + length.Length(rng.IntN(700))}}
	}
}

func same(list []finding.Finding, f finding.Finding) bool {
	for _, g := range list {
		if fmt.Sprint(g.Rule, g.Place, g.Says) == fmt.Sprint(f.Rule, f.Place, f.Says) {
			return true
		}
	}
	return false
}

// An empty job says what to measure first, and is no error.
func TestEmptyJobAsksForThreeThings(t *testing.T) {
	cat := shipped(t)
	p := plan.Make(document.New("Empty", length.Metric, cat), cat)
	want := []string{"length-missing", "ground-missing", "frost-missing"}
	if len(p.Findings) != len(want) || len(p.Runs[0].Posts) != 0 || p.Totals.Bags != 0 {
		t.Fatalf("got %+v", p.Findings)
	}
	for i, f := range p.Findings {
		if f.Rule != want[i] || f.Severity != finding.Missing || f.Field == "" {
			t.Errorf("finding %d is %+v, want %s", i, f, want[i])
		}
	}
}

// The sentence of the handbook: what governs, and over what.
func TestDepthSaysWhatGoverns(t *testing.T) {
	j := decode(t, `{"mallow":1,"name":"x","units":{"system":"imperial","smallestMark":1.5875},"site":{"frostDepth":914.4},
		"lines":[{"id":"L1","runs":[{"id":"R1","length":9144,"ground":[{"at":0,"height":0}],"fence":{"gapLeast":0,"height":1800}}]}]}`)
	p := plan.Make(j, shipped(t))
	got := p.Reasons[p.Runs[0].Posts[0].Why.HoleDepth].Sentence.Print(p.Units)
	want := `36" frost + 6" = 42" governs over minimum depth, 24". With 6" of gravel under the post: dig 48".`
	if got != want {
		t.Errorf("got  %s\nwant %s", got, want)
	}
}

func benchmark(b *testing.B, bays int) {
	cat, j := shipped(b), longRun(b, bays)
	b.ReportAllocs()
	for b.Loop() {
		plan.Make(j, cat)
	}
}

// longRun is one run of so many bays over waves of ground.
func longRun(t testing.TB, bays int) job.Job {
	j := document.New("Long", length.Imperial, shipped(t))
	run := &j.Lines[0].Runs[0]
	total := length.Length(bays) * 96 * length.Inch
	frost := 36 * length.Inch
	run.Length, j.Site.FrostDepth = &total, &frost
	for at := length.Length(0); at <= total; at += 5 * length.Metre {
		run.Ground = append(run.Ground, job.GroundPoint{At: at, Height: length.Length(600 * math.Sin(float64(at)/9000))})
	}
	return j
}

func BenchmarkPlan40Posts(b *testing.B)    { benchmark(b, 39) }
func BenchmarkPlan10000Posts(b *testing.B) { benchmark(b, 9999) }

func BenchmarkDecode(b *testing.B) {
	cat := shipped(b)
	raw, err := json.Marshal(random(b, rand.New(rand.NewPCG(1, 1))))
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		if _, _, err := document.Decode(raw, cat); err != nil {
			b.Fatal(err)
		}
	}
}

// A document that has been read is planned without a panic, and its plan can
// be written down: no infinity, no number that is none.
func FuzzPlan(f *testing.F) {
	docs, err := demo.Jobs()
	if err != nil {
		f.Fatal(err)
	}
	for _, d := range docs {
		f.Add(d)
	}
	cat := shipped(f)
	rng := rand.New(rand.NewPCG(67, 1))
	for range 8 {
		raw, err := json.Marshal(anyHoles(f, rng))
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		j, _, err := document.Decode(raw, cat)
		if err != nil {
			return
		}
		posts := 0.0
		for _, l := range j.Lines {
			for _, r := range l.Runs {
				if r.Length != nil {
					posts += float64(*r.Length / r.Spacing.Most)
				}
			}
		}
		if posts > 5000 {
			return // slow, not wrong
		}
		if _, err := json.Marshal(plan.Make(j, cat)); err != nil {
			t.Fatal(err)
		}
	})
}
