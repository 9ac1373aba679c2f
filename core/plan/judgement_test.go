package plan_test

import (
	"math"
	"strings"
	"testing"

	"mallow/core/bill"
	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// A new flat job of 60 ft opens with nothing to warn of, in either system.
func TestNewFlatJobWarnsOfNothing(t *testing.T) {
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		j := document.New("Flat", sys, shipped(t))
		j.Lines[0].Runs[0].Length = ptr(60 * length.Foot)
		for _, f := range plan.Make(j, shipped(t)).Findings {
			if f.Severity != finding.Missing {
				t.Errorf("%s: %s, %s: %s", sys, f.Severity, f.Rule, f.Says.Print(j.Units))
			}
		}
	}
}

// Each finding has its threshold: nothing, or a milder word, just under it, and
// the finding just over it.
func TestThresholds(t *testing.T) {
	cat := shipped(t)
	flat := func(long length.Length) job.Job {
		j := document.New("T", length.Metric, cat)
		j.Lines[0].Runs[0].Length = &long
		return j
	}
	worst := func(p plan.Plan, rule string) finding.Severity {
		out := finding.Severity("")
		for _, f := range p.Findings {
			if f.Rule == rule && (out == "" || f.Severity == finding.Check || f.Severity == finding.Cannot) {
				out = f.Severity
			}
		}
		return out
	}
	// Sag of mason's line, 0.0098 N/m at 50 N: wL²/8T is 10 mm over 20.2 m and 20 mm over 28.6 m.
	for _, c := range []struct {
		rule        string
		under, over job.Job
		less, more  finding.Severity
	}{
		{"sag", flat(20100), flat(20300), "", finding.Note},
		{"sag", flat(28500), flat(28650), finding.Note, finding.Check},
		{"two-heights", twoHeights(t, 9.9), twoHeights(t, 10.1), finding.Note, finding.Check},
		{"slip", bump(t, 1, 400), bump(t, 4, 400), finding.Note, finding.Check},
		{"slip", bump(t, 4, 99), bump(t, 4, 101), "", finding.Check},
		{"thin-cover", beside(t, 49), beside(t, 51), "", finding.Note},
		{"step", stepping(t, 100.2), stepping(t, 99.7), "", finding.Check},
		{"rack", racking(t, 100.1), racking(t, 99.7), "", finding.Cannot},
		{"landed", landed(t, 0.4), landed(t, 0.6), "", finding.Note},
		{"short-bay", shortBay(t, 801), shortBay(t, 799), "", finding.Check},
		{"near-bay", flatBays(t, 4*2400+100, 2400), flatBays(t, 4*2400+101, 2400), finding.Note, ""},
	} {
		if less, more := worst(plan.Make(c.under, cat), c.rule), worst(plan.Make(c.over, cat), c.rule); less != c.less || more != c.more {
			t.Errorf("%s: just under it %q, want %q; just over it %q, want %q", c.rule, less, c.less, more, c.more)
		}
	}
}

func metricRun(t *testing.T, long length.Length) (job.Job, *job.Run) {
	j := document.New("T", length.Metric, shipped(t))
	r := &j.Lines[0].Runs[0]
	r.Length = &long
	return j, r
}

// twoHeights has one place with two heights so far apart.
func twoHeights(t *testing.T, apart length.Length) job.Job {
	j, r := metricRun(t, 12000)
	r.Ground = []job.GroundPoint{{At: 0}, {At: 6000, Height: 100}, {At: 12000}}
	j.Lines[0].Books = []job.Book{{ID: "B1", Kind: job.Rises, Run: "R1", Rows: []job.Reading{{At: 0}, {At: 6000, Rise: 100 + apart}, {At: 12000, Rise: -100 - apart}}}}
	return j
}

// bump is one height that stands out so far among so many others.
func bump(t *testing.T, others int, high length.Length) job.Job {
	j, r := metricRun(t, 20000)
	n := others + 2
	for i := range n + 1 {
		r.Ground = append(r.Ground, job.GroundPoint{At: length.Length(i) * 20000 / length.Length(n)})
	}
	if others == 1 {
		r.Ground = []job.GroundPoint{{At: 0}, {At: 10000, Height: high}, {At: 20000}}
		return j
	}
	r.Ground[n/2].Height = high
	return j
}

// beside is a hole so far off its post's middle that so much is left at the
// near side less one.
func beside(t *testing.T, off length.Length) job.Job {
	j, r := metricRun(t, 9600)
	r.Hole.Along, r.Hole.Width = &off, ptr(length.Length(300))
	return j
}

// stepping is a bank of 5 in 100 in bays of 2 m, whose steps of 100 are
// allowed so much.
func stepping(t *testing.T, most length.Length) job.Job {
	j := bank(t, job.Stepped)
	j.Lines[0].Runs[0].Grade.StepMost = &most
	return j
}

// racking is the same bank raked, with so much rack.
func racking(t *testing.T, rack length.Length) job.Job {
	j := bank(t, job.Raked)
	j.Lines[0].Runs[0].Grade.Rack = &rack
	j.Lines[0].Runs[0].Ground = []job.GroundPoint{{At: 0}, {At: 20000, Height: 1000}}
	j.Lines[0].Runs[0].Fence.GapMost = 50
	return j
}

// landed has its third post so far off its mark.
func landed(t *testing.T, off length.Length) job.Job {
	j, r := metricRun(t, 9200)
	r.FixedPosts = []job.FixedPost{{ID: "F1", At: 4600 + off, Landed: true}}
	return j.WithFacts()
}

// shortBay leaves so much fence beside a gate.
func shortBay(t *testing.T, span length.Length) job.Job {
	j, r := metricRun(t, 12000)
	r.Gates = []job.Gate{{ID: "G1", At: span + 650, Opening: 1200, Gap: 100, Hardware: shipped(t).UsualGate(length.Metric).Hardware, Thick: 50, Least: 25, HingeIn: 200, Latch: 1000}}
	return j
}

func flatBays(t *testing.T, long, most length.Length) job.Job {
	j, r := metricRun(t, long)
	r.Spacing.Most = most
	return j
}

// A post that landed an inch off its mark is that post: it keeps its name, no
// post is added, and only the bays beside it change; the plan lists them with
// what to do.
func TestLandedPostIsThatPost(t *testing.T) {
	cat := shipped(t)
	j := outfitted(t, "metal-panel", 60*length.Foot)
	before := plan.Make(j, cat).Runs[0]
	r := &j.Lines[0].Runs[0]
	at := before.Posts[4].Station
	r.FixedPosts = []job.FixedPost{{ID: "F1", At: at + length.Inch, Landed: true}}
	j = j.WithFacts()
	p := plan.Make(j, cat)
	run := p.Runs[0]
	if len(run.Posts) != len(before.Posts) || run.Posts[4].Label != "P5" || run.Posts[4].Held != "F1" || !run.Posts[4].Landed || run.Posts[4].Station != at+length.Inch {
		t.Fatalf("%d posts, were %d; %+v", len(run.Posts), len(before.Posts), run.Posts[4])
	}
	for i, b := range run.Bays {
		want := before.Bays[i].CentreToCentre
		switch i {
		case 3:
			want += length.Inch
		case 4:
			want -= length.Inch
		}
		if !length.Same(b.CentreToCentre, want) {
			t.Errorf("%s is %v, want %v", b.Label, b.CentreToCentre.Inches(), want.Inches())
		}
	}
	f := find(p, "landed")
	if f == nil || f.Severity != finding.Check {
		t.Fatalf("%+v", f)
	}
	says := f.Says.Print(j.Units)
	for _, want := range []string{"P5 was set 1\" on of its mark", "B4 is", "pack it out by 1\"", "B5 is", "cut its piece to"} {
		if !strings.Contains(says, want) {
			t.Errorf("it does not say %q: %s", want, says)
		}
	}
	// Taken, the rest is spaced again from where it stands.
	if len(f.Remedies) == 0 {
		t.Fatal("the rest cannot be spaced again")
	}
	again := plan.Make(applied(t, j, f.Remedies[0].Edits), cat)
	if find(again, "landed") != nil || again.Runs[0].Posts[4].Held == "F1" && len(again.Runs[0].Segments) < 2 {
		t.Error("spaced again it still says so")
	}
	// Equal bays under the most give way without a word of work.
	k := document.New("E", length.Imperial, cat)
	k.Lines[0].Runs[0].Length = ptr(45 * length.Foot) // six bays of 90 in
	k.Lines[0].Runs[0].FixedPosts = []job.FixedPost{{ID: "F1", At: 181 * inch, Landed: true}}
	q := plan.Make(k, cat)
	if f := find(q, "landed"); f == nil || f.Severity != finding.Note || len(q.Runs[0].Posts) != 7 {
		t.Errorf("%d posts: %+v", len(q.Runs[0].Posts), f)
	}
}

// What crews dig for each kind of fence, and the multiple of the post one tap
// away.
func TestWhatCrewsDig(t *testing.T) {
	cat := shipped(t)
	for system, want := range map[string][2]float64{ // line posts, terminals; common practice
		"vinyl-picket": {12, 12}, "vinyl-privacy": {12, 12}, "metal-panel": {8, 8}, "chain-link": {8, 10}, "split-rail": {10, 10}, "light-mesh": {0, 12},
	} {
		j := outfitted(t, system, 60*length.Foot)
		run := plan.Make(j, cat).Runs[0]
		line, end := run.Posts[2], run.Posts[0]
		if math.Abs(line.HoleWidth.Inches()-want[0]) > 1e-6 || math.Abs(end.HoleWidth.Inches()-want[1]) > 1e-6 {
			t.Errorf("%s: holes %v and %v in wide, want %v", system, line.HoleWidth.Inches(), end.HoleWidth.Inches(), want)
		}
		if system == "light-mesh" && math.Abs(end.Bottom.Inches()-24) > 1e-6 {
			t.Errorf("mesh terminals %v in deep, want 24", end.Bottom.Inches())
		}
		if system == "split-rail" { // the rule is one tap away
			edited := applied(t, j, []job.Edit{job.Set("/lines/L1/runs/R1/hole/commonWidth", 0)})
			if w := plan.Make(edited, cat).Runs[0].Posts[2].HoleWidth.Inches(); math.Abs(w-16) > 1e-6 { // 3 × 5 in = 15 in
				t.Errorf("by the rule a hole is %v in wide, want 16", w)
			}
		}
	}
	j := outfitted(t, "drive-gate", 12*length.Foot)
	j.Lines[0].Runs[0].Gates = []job.Gate{{ID: "G1", At: 6 * length.Foot, Opening: 12*length.Foot - 5.5*inch, Gap: 100}}
	if w := plan.Make(j, cat).Runs[0].Posts[0].HoleWidth.Inches(); w < 14 || w > 18 {
		t.Errorf("a 6x6 gate post's hole is %v in wide, want 14 to 18 (common practice)", w)
	}
	// 18 1/2 in asks for an 18 in auger, not a 24.
	k := document.New("A", length.Imperial, cat)
	k.Lines[0].Runs[0].Length, k.Lines[0].Runs[0].Post.Width = ptr(40*length.Foot), 18.5/3*inch
	if w := plan.Make(k, cat).Runs[0].Posts[2].HoleWidth.Inches(); math.Abs(w-18) > 1e-6 {
		t.Errorf("18 1/2 in took a %v in auger", w)
	}
}

// Materials that cannot are never offered what they cannot do: not in the
// looks, the ways out, the steps or the stick.
func TestMaterialsThatCannot(t *testing.T) {
	cat := shipped(t)
	// Rigid panels are neither raked nor rolled.
	j := outfitted(t, "panel-between", 80*length.Foot)
	r := &j.Lines[0].Runs[0]
	r.Ground = []job.GroundPoint{{At: 0}, {At: 10000, Height: 900}, {At: 80 * length.Foot, Height: 1200}}
	looks, _ := plan.Looks(j, cat, r.ID)
	for _, l := range looks {
		if strings.HasPrefix(l.ID, "raked") || l.ID == "rolling" {
			t.Errorf("rigid panels are shown %s", l.ID)
		}
	}
	p := plan.Make(j, cat)
	for _, f := range p.Findings {
		for _, way := range f.Remedies {
			for _, e := range way.Edits {
				if e.Value == job.Raked || e.Value == job.Rolling {
					t.Errorf("%s offers rigid panels %v", f.Rule, e.Value)
				}
			}
		}
	}
	if p.Runs[0].LooksRefused[job.Raked] == "" || p.Runs[0].LooksRefused[job.Stepped] != "" {
		t.Errorf("refused: %v", p.Runs[0].LooksRefused)
	}
	// Concrete posts are not cut: nothing is cut off, and what is over goes down.
	k := document.New("C", length.Metric, cat)
	s, _ := cat.System("slotted-concrete-m", nil)
	k.Lines[0].Runs[0] = s.Outfit(k.Lines[0].Runs[0])
	k.Lines[0].Runs[0].Length = ptr(length.Length(15000))
	q := plan.Make(k, cat).Runs[0]
	for _, post := range q.Posts {
		if post.Stock == nil || post.CutOff.Abs() > length.Tolerance || !length.Same(*post.Stock, post.AboveGrade+post.Foot) {
			t.Errorf("%s: stock %v, shows %v, stands %v deep", post.Label, post.Stock, post.AboveGrade, post.Foot)
		}
	}
	for _, m := range q.TopLine.Stick {
		if strings.Contains(m.Name, "cut") {
			t.Errorf("the stick of concrete posts has a mark %q", m.Name)
		}
	}
	// Gravel boards that belong to it are counted on level ground: one a bay.
	boards := 0
	for _, item := range q.Items {
		if item.Kind == bill.Board {
			boards += int(item.Exact)
		}
	}
	if boards != len(q.Bays) || q.Bays[0].Boards != 1 {
		t.Errorf("%d gravel boards in %d bays", boards, len(q.Bays))
	}
	// Steel stakes have no mortices; timber split rail posts do.
	for system, holes := range map[string]bool{"split-rail": true, "split-rail-steel": false} {
		run := plan.Make(outfitted(t, system, 60*length.Foot), cat).Runs[0]
		if got := len(run.Posts[2].Holes) > 0; got != holes {
			t.Errorf("%s: rails go into the posts: %v", system, got)
		}
	}
	// Chain link: terminals 2 in above the fabric, line posts 2 in below it (common practice).
	run := plan.Make(outfitted(t, "chain-link", 60*length.Foot), cat).Runs[0]
	if d := (run.Posts[0].Top - run.Bays[0].TopStart).Inches(); math.Abs(d-2) > 1e-6 {
		t.Errorf("a terminal stands %v in over the fabric", d)
	}
	if d := (run.Posts[2].Top - run.Bays[2].TopStart).Inches(); math.Abs(d+2) > 1e-6 {
		t.Errorf("a line post stands %v in over the fabric", d)
	}
	// Metal gate posts take clamps, not bolts through timber.
	for _, way := range run.AddGate {
		if way.ID != "walk" {
			continue
		}
		g := plan.Make(applied(t, outfitted(t, "chain-link", 60*length.Foot), way.Edits), cat)
		if f := find(g, "hardware-post"); f != nil {
			t.Errorf("a gate that is put in: %s", f.Says.Print(j.Units))
		}
	}
	bolted := outfitted(t, "chain-link", 60*length.Foot)
	bolted.Lines[0].Runs[0].Gates = []job.Gate{cat.UsualGate(length.Imperial)}
	bolted.Lines[0].Runs[0].Gates[0].ID, bolted.Lines[0].Runs[0].Gates[0].At = "G1", 20*length.Foot
	if f := find(plan.Make(bolted, cat), "hardware-post"); f == nil || len(f.Remedies) == 0 {
		t.Errorf("hook bolts on pipe: %+v", f)
	} else if again := find(plan.Make(applied(t, bolted, f.Remedies[0].Edits), cat), "hardware-post"); again != nil {
		t.Error("the hardware that is offered does not go on it either")
	}
	// Stabbing vinyl is a choice with its caution; racking comes before stepping.
	v := outfitted(t, "vinyl-privacy", 60*length.Foot)
	v.Lines[0].Runs[0].Setting.Method = ptr(job.Stabbed)
	vp := plan.Make(v, cat)
	if f := find(vp, "mind-setting"); f == nil || f.Severity != finding.Note || find(vp, "forbidden-setting") != nil || vp.Runs[0].Bays[0].Look != job.Raked {
		t.Errorf("stabbed vinyl: %+v, look %s", f, vp.Runs[0].Bays[0].Look)
	}
}

// A hole for a stabbed post is filled so far that the post brings the mix to
// its level: by hand, a disc of concrete less the post's prism.
func TestStabbedHolesAreFilledLess(t *testing.T) {
	j := document.New("S", length.Metric, shipped(t))
	r := &j.Lines[0].Runs[0]
	r.Length, r.Setting.Method, r.Setting.Cover, r.Setting.Gravel, r.Setting.Mound = ptr(length.Length(9600)), ptr(job.Stabbed), ptr(length.Length(50)), ptr(length.Length(0)), ptr(length.Length(0))
	c := plan.Make(j, shipped(t)).Runs[0].Cards[1]
	// 300 wide: π/4 × 300² = 70,685.8; the post takes 10,000 of it.
	high := (70685.835 - 10000) * float64(c.Bottom-50) / 70685.835
	if c.FillTo == nil || math.Abs(float64(c.Bottom-*c.FillTo)-high) > 0.01 {
		t.Fatalf("filled to %v of %v, by hand %v high", c.FillTo, c.Bottom, high)
	}
	said := ""
	for _, s := range c.Steps {
		said += s.Print(j.Units) + "\n"
	}
	if !strings.Contains(said, "Fill the hole up to") {
		t.Errorf("the steps do not say how far to fill:\n%s", said)
	}
}

// Panels on the outer face of a corner reach round its post: the bay beside it
// is a post's width shorter than on the inner face. At free ends a panel may
// cover the whole post.
func TestPanelsOnOuterFaces(t *testing.T) {
	cat := shipped(t)
	yard := func(face job.Side, ends job.FreeEnd) plan.Plan {
		j := document.New("F", length.Metric, cat)
		s, _ := cat.System("panel-on-face-m", nil)
		first := s.Outfit(j.Lines[0].Runs[0])
		first.Length, first.Spacing.Face, first.Spacing.Ends = ptr(length.Length(9000)), face, ends
		second := first
		second.ID, second.Corner = "R2", &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
		j.Lines[0].Runs = []job.Run{first, second}
		return plan.Make(j, cat)
	}
	inner, outer := yard(job.Left, ""), yard(job.Right, "") // the line turns to the left
	a, b := inner.Runs[1].Bays[0], outer.Runs[1].Bays[0]
	near(t, "shorter by", float64(a.CentreToCentre-b.CentreToCentre), 100, 1e-6)
	near(t, "panel inside", float64(a.Piece), 1800, 1e-6)
	near(t, "panel outside", float64(b.Piece), 1800, 1e-6)
	near(t, "whole end post", float64(yard(job.Left, job.WholePost).Runs[0].Bays[0].CentreToCentre), 1750, 1e-6)
	near(t, "middle of it", float64(inner.Runs[0].Bays[0].CentreToCentre), 1800, 1e-6)
	if find(inner, "which-face") != nil {
		t.Error("it asks which face although that is said")
	}
	f := find(yard("", ""), "which-face")
	if f == nil || f.Severity != finding.Note || len(f.Remedies) != 2 {
		t.Errorf("which face is not asked: %+v", f)
	}
}

// Posts, also old ones and gate posts, have their own section in the plan.
func TestPostsHaveTheirOwnSection(t *testing.T) {
	cat := shipped(t)
	j := outfitted(t, "chain-link", 60*length.Foot)
	r := &j.Lines[0].Runs[0]
	r.GatePost = &job.Terminal{Shape: job.SquarePost, Width: 4 * length.Inch, Hollow: true, Wall: 3}
	r.Gates = []job.Gate{{ID: "G1", At: 40 * length.Foot, Opening: 1200, Gap: 100}}
	r.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.OldPost, Stays: true, At: 10 * length.Foot, Width: 150}}
	for _, p := range plan.Make(j, cat).Runs[0].Posts {
		want, round := r.Post.Width, true
		switch {
		case p.Stays != "":
			want = 150
		case p.Kind == job.GatePost:
			want, round = 4*length.Inch, false
		case p.Kind != job.LinePost:
			want = r.Terminal.Width
		}
		if !length.Same(p.Width, want) || p.Round != round {
			t.Errorf("%s, %s: %v wide, round %v; want %v", p.Label, p.Kind, p.Width, p.Round, want)
		}
	}
}

// Hinges that do not let a leaf lie back say at which angle it meets the post.
func TestLeafMeetsItsPost(t *testing.T) {
	open := func(degrees string) plan.Plan {
		return plan.Make(gateJob(t, `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"open":`+degrees+`}`), shipped(t))
	}
	p := open("180")
	f := find(p, "leaf-meets-post")
	if f == nil || len(f.Remedies) != 1 {
		t.Fatalf("%+v", f)
	}
	if g := p.Runs[0].Gates[0]; !strings.Contains(f.Says.Print(p.Units), "°") || g.Meets < 90 || g.Meets > 179 {
		t.Errorf("meets at %v: %s", g.Meets, f.Says.Print(p.Units))
	}
	if find(open("95"), "leaf-meets-post") != nil {
		t.Error("a leaf that stops before its post is said to meet it")
	}
}

// A three-rail fence of thirteen bays loads 39 rails.
func TestRailsAreCounted(t *testing.T) {
	j := outfitted(t, "split-rail", 130*length.Foot)
	run := plan.Make(j, shipped(t)).Runs[0]
	if len(run.Bays) != 13 {
		t.Fatalf("%d bays", len(run.Bays))
	}
	for _, i := range run.Items {
		if i.Kind == bill.Rail && i.Exact == 39 && length.Same(i.Length, 11*length.Foot) {
			return
		}
	}
	t.Errorf("no 39 rails: %+v", run.Items)
}

// Explanations print masses, forces and moments in the job's own units.
func TestExplanationsInTheJobsUnits(t *testing.T) {
	cat := shipped(t)
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		j := document.New("U", sys, cat)
		g := cat.UsualGate(sys)
		g.ID, g.At, g.Weight = "G1", 6000, ptr(length.Mass(60))
		j.Lines[0].Runs[0].Length, j.Lines[0].Runs[0].Gates = ptr(length.Length(12000)), []job.Gate{g}
		p := plan.Make(j, cat)
		said := ""
		for _, w := range p.Reasons {
			said += w.Sentence.Print(j.Units) + "\n"
			for _, k := range w.Rules {
				said += p.Rules[k].Says.Print(j.Units) + "\n"
			}
		}
		own, foreign := []string{" lb", " lbf", " lbf ft", " psf for each foot", " mph"}, []string{" kg", " N m", " kPa", " km/h", " m/s", " N "}
		if sys == length.Metric {
			own, foreign = []string{" kg", " N m", " kPa for each metre", " km/h", " N "}, []string{" lb", " psf", " mph", " ft²"}
		}
		for _, u := range own {
			if !strings.Contains(said, u) {
				t.Errorf("%s: nothing is said in %q", sys, u)
			}
		}
		for _, u := range foreign {
			if i := strings.Index(said, u); i >= 0 {
				t.Errorf("%s: %q is said: …%s…", sys, u, said[max(0, i-60):min(len(said), i+40)])
			}
		}
	}
}
