package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// The nearest level that says something wins, whichever of them speak, and the
// reason names who said it: all 32 ways for the floor of one gate post.
func TestNearestRuleWins(t *testing.T) {
	cat := shipped(t)
	for says := range 32 {
		j := demoJob(t, 0)
		j.Hole.Floor = nil
		run := &j.Lines[0].Runs[0]
		run.Hole.Share, run.Hole.SkipFrost = ptr(job.NoShare), ptr(true)
		run.Kinds = []job.KindRules{{Kind: job.GatePost}}
		at := plan.Make(j, cat).Runs[0].Posts[7]
		run.Overrides = []job.HoleOverride{{ID: "S1", At: at.Station}}
		want, by := length.Length(609.6), "usual"
		for level, say := range []func(length.Length){
			func(l length.Length) { j.Hole.Floor = &l; by = "the whole job" },
			func(l length.Length) { run.Hole.Floor = &l; by = "this run" },
			func(l length.Length) { run.Kinds[0].Hole.Floor = &l; by = "gate posts" },
			func(l length.Length) { run.Overrides[0].Hole.Floor = &l; by = "this post" },
		} {
			if says&(1<<level) != 0 {
				want = length.Length(700 + 100*level)
				say(want)
			}
		}
		if says&16 != 0 {
			run.Overrides[0].Hole.GateExtraDepth = ptr(length.Length(0))
		}
		p := plan.Make(j, cat)
		post := p.Runs[0].Posts[7]
		extra := length.Length(152.4)
		if says&16 != 0 {
			extra = 0
		}
		if foot := length.Inch * length.Length(math.Ceil(float64((want+extra)/length.Inch)-1e-9)); post.Kind != job.GatePost || !length.Same(post.Foot, foot) {
			t.Errorf("%05b: %s, a %s post, stands %v deep, want %v", says, post.Label, post.Kind, post.Foot, foot)
		}
		from := ""
		for _, rule := range p.Reasons[post.Why.HoleDepth].Rules {
			for _, s := range p.Rules[rule].Settings {
				if strings.HasSuffix(s.Path, "hole/floor") {
					from = s.From
				}
			}
		}
		if from != by {
			t.Errorf("%05b: said by %q, want %q", says, from, by)
		}
		if line := p.Runs[0].Posts[3]; says&3 == 0 && line.Foot > 620 {
			t.Errorf("%05b: a line post took the gate posts' floor: %v", says, line.Foot)
		}
	}
}

// What is by hand on a run can be taken back for one kind of post.
func TestByHandIsTakenBack(t *testing.T) {
	j := demoJob(t, 0)
	run := &j.Lines[0].Runs[0]
	run.Hole.Depth = ptr(length.Length(1500))
	run.Kinds = []job.KindRules{{Kind: job.GatePost, Hole: job.HoleRules{Depth: ptr(length.Length(0))}}}
	for _, p := range plan.Make(j, shipped(t)).Runs[0].Posts {
		if want := map[bool]length.Length{false: 1500, true: 48 * length.Inch}[p.Kind == job.GatePost]; !length.Same(p.Foot, want) {
			t.Errorf("%s, a %s post, stands %v deep, want %v", p.Label, p.Kind, p.Foot, want)
		}
	}
}

// A rule that was entered in feet is said in feet on a metric job (24 in and 3
// in for each foot over 4 ft, chain link by published practice).
func TestRulesAreSaidAsEntered(t *testing.T) {
	j := document.New("Link", length.Metric, shipped(t))
	run := &j.Lines[0].Runs[0]
	for _, s := range shipped(t).Systems {
		if s.ID == "chain-link-m" {
			*run = s.Outfit(*run)
		}
	}
	run.Length, run.Fence.Height = ptr(length.Length(12000)), 1828.8
	p := plan.Make(j, shipped(t))
	post := p.Runs[0].Posts[1]
	near(t, "foot, mm", float64(post.Foot), 775, 1e-9) // 30 in, 762 mm, to the next 25
	why := p.Reasons[post.Why.HoleDepth]
	if got := p.Rules[why.Rules[0]].Says.Print(p.Units); got != `Never less than 24" (610 mm) + 3" for each foot of height over 4' = 762 mm` && !strings.HasPrefix(got, `Never less than 24" (610 mm) + 3" for each foot of height over 48"`) {
		t.Errorf("said as %s", got)
	}
}

// A 12 in hole that meets rock at 22 in instead of reaching 42: what each way
// gives is what planning the fence with it gives, in the same measure.
func TestRockAndItsWaysOut(t *testing.T) {
	cat := shipped(t)
	j := demoJob(t, 0)
	run := &j.Lines[0].Runs[0]
	full := plan.Make(j, cat).Runs[0].Posts[4]
	run.Overrides = []job.HoleOverride{{ID: "S1", At: full.Station, Hit: &job.Hit{What: job.HitRock, Depth: 22 * length.Inch}}}
	j = j.WithFacts()
	doc, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	p := plan.Make(j, cat)
	post := p.Runs[0].Posts[4]
	s := post.Stopped
	if s == nil || find(p, "stopped") == nil {
		t.Fatalf("not stopped: %+v", post)
	}
	near(t, "hole, in", post.HoleDepth.Inches(), 22, 1e-9)
	near(t, "gravel, in", post.Gravel.Inches(), 0, 1e-9)
	near(t, "planned gust", s.Planned, full.Wind.Gust, 1e-9)
	near(t, "as it is", s.Ways[0].Gust, post.Wind.Gust, 1e-9)
	ids := []string{}
	for _, w := range s.Ways {
		ids = append(ids, w.ID)
		if w.Gust < s.Ways[0].Gust-1e-9 {
			t.Errorf("%s bears %v, less than leaving it", w.ID, w.Gust)
		}
		edited, err := document.Apply(doc, w.Edits)
		if err != nil {
			t.Fatal(err)
		}
		after, _, err := document.Decode(edited, cat)
		if err != nil {
			t.Fatalf("%s: %v", w.ID, err)
		}
		q := plan.Make(after, cat)
		if find(q, "stopped") != nil {
			t.Errorf("%s taken, it is still asked what to do", w.ID)
		}
		took := q.Runs[0].Posts[4]
		if w.ID == "moved" {
			for _, m := range q.Runs[0].Posts {
				if m.Stopped != nil || m.Kind == job.LinePost && !length.Same(m.Foot, full.Foot) {
					t.Errorf("moved: %s stands %v deep", m.Label, m.Foot)
				}
				if off := (m.Station - full.Station).Abs(); off < m.HoleWidth {
					t.Errorf("moved: %s is %v from the rock", m.Label, off)
				}
			}
			if w.Cost == nil || q.Totals.Posts-p.Totals.Posts != w.Cost.Posts {
				t.Errorf("moved: %d posts, cost %+v", q.Totals.Posts-p.Totals.Posts, w.Cost)
			}
			continue
		}
		near(t, w.ID+": gust once taken", took.Wind.Gust, w.Gust, 1e-9)
		near(t, w.ID+": more concrete", float64(took.ConcreteVolume-post.ConcreteVolume), float64(w.Concrete), 1e-9)
	}
	if got := strings.Join(ids, " "); got != "as is wider 1 wider 2 belled pinned moved" {
		t.Errorf("ways: %s", got)
	}
	// No deeper but so wide, it bears the same.
	run = &j.Lines[0].Runs[0] // with its facts
	run.Overrides[0].Hole.Width = ptr(s.Same)
	if same := plan.Make(j, cat).Runs[0].Posts[4].Wind.Gust; math.Abs(same-s.Planned) > 1e-6 {
		t.Errorf("%v wide bears %v, wanted %v", s.Same, same, s.Planned)
	}
	if s.Same < 2*full.HoleWidth {
		t.Errorf("%v wide for half the depth: wider is not deeper", s.Same)
	}
	// In water nothing is belled or pinned.
	run.Overrides[0].Hit.What, run.Overrides[0].Hole.Width = job.HitWater, nil
	for _, w := range plan.Make(j, cat).Runs[0].Posts[4].Stopped.Ways {
		if w.ID == "belled" || w.ID == "pinned" || w.ID == "as is" && w.Frost {
			t.Errorf("in water: %s, below the frost depth %v", w.ID, w.Frost)
		}
	}
}

// A hole that its post has moved clear of is nobody's, and is said to be.
func TestLeftHole(t *testing.T) {
	j := demoJob(t, 0)
	run := &j.Lines[0].Runs[0]
	at := plan.Make(j, shipped(t)).Runs[0].Posts[4].Station
	run.Overrides = []job.HoleOverride{{ID: "S1", At: at + 20*length.Inch, Hit: &job.Hit{What: job.HitRock, Depth: 500}}}
	p := plan.Make(j, shipped(t))
	if f := find(p, "spot-left"); f == nil || p.Runs[0].Posts[4].Stopped != nil {
		t.Errorf("%+v", f)
	}
}

// Pairs that must not go together are refused with the reason, and every way
// out that is offered mends it.
func TestForbiddenPairs(t *testing.T) {
	cat := shipped(t)
	for _, c := range []struct {
		system, rule string
		spoil        func(*job.Run)
	}{
		{"vinyl-privacy", "never-filled", func(r *job.Run) { r.Setting.Inside = ptr(job.OpenInside) }},
		{"vinyl-privacy", "never-filled", func(r *job.Run) {
			r.Setting.Inside, r.Setting.Core = ptr(job.CoreInside), ptr(3*length.Inch)
		}},
		{"vinyl-picket", "never-filled", func(r *job.Run) { r.Kinds[0].Setting.FillTo = ptr(length.Length(300)) }},
		{"horizontal-boards", "forbidden-setting", func(r *job.Run) { r.Setting.Method = ptr(job.Stabbed) }},
		{"chain-link", "must-be-concrete", func(r *job.Run) {
			r.Kinds = []job.KindRules{{Kind: job.EndPost, Setting: job.SettingRules{Method: ptr(job.RockPacked)}}}
		}},
		{"chain-link", "forbidden-setting", func(r *job.Run) { r.Setting.Method = ptr(job.RockPacked) }},
		{"light-mesh", "must-be-concrete", func(r *job.Run) { r.Hole.Driven = ptr(job.AllDriven) }},
		{"cedar-screen", "forbidden-setting", func(r *job.Run) { r.Hole.Driven = ptr(job.LineDriven) }},
		{"light-mesh", "driven-in-fill", func(r *job.Run) {
			r.FixedPosts = []job.FixedPost{{ID: "F1", At: 20 * length.Foot}}
			r.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Footing, At: 20*length.Foot + 100, Width: 300}}
		}},
	} {
		j := outfitted(t, c.system, 60*length.Foot)
		j.Lines[0].Runs[0].Gates = []job.Gate{{ID: "G1", At: 40 * length.Foot, Opening: 1000, Gap: 100}}
		if f := find(plan.Make(j, cat), c.rule); f != nil {
			t.Errorf("%s as it comes: %s", c.system, f.Says.Print(j.Units))
		}
		c.spoil(&j.Lines[0].Runs[0])
		doc, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		f := find(plan.Make(j, cat), c.rule)
		if f == nil || f.Severity != finding.Cannot || len(f.Remedies) == 0 {
			t.Errorf("%s: %s is not refused: %+v", c.system, c.rule, f)
			continue
		}
		for _, way := range f.Remedies {
			edited, err := document.Apply(doc, way.Edits)
			if err != nil {
				t.Fatal(err)
			}
			after, _, err := document.Decode(edited, cat)
			if err != nil {
				t.Errorf("%s: %s: %v", c.rule, way.Says.Print(j.Units), err)
				continue
			}
			if g := find(plan.Make(after, cat), c.rule); g != nil && g.Place == f.Place {
				t.Errorf("%s: %s leaves: %s", c.rule, way.Says.Print(j.Units), g.Says.Print(j.Units))
			}
		}
	}
}

// The local office's figure goes before an estimate, which is marked as one;
// the estimate follows the soil along the run.
func TestFrostEstimate(t *testing.T) {
	cat := shipped(t)
	j := demoJob(t, 0)
	j.Site.Frost = &job.Frost{Index: 1000 / 1.8, Moisture: ptr(15.0), Density: ptr(110 * 16.01846337396), Conductivity: ptr(1.730734666)}
	if p := plan.Make(j, cat); p.Runs[0].FrostEstimated || !length.Same(*p.Runs[0].Frost, 914.4) {
		t.Errorf("the office's 36 in became %v", *p.Runs[0].Frost)
	}
	j.Site.FrostDepth = nil
	p := plan.Make(j, cat)
	near(t, "estimate, ft (TM 5-852-6, worked outside this project)", float64(*p.Runs[0].Frost/length.Foot), 3.768, 0.0005)
	if f := find(p, "frost-estimate"); !p.Runs[0].FrostEstimated || f == nil || f.Field != "/site/frostDepth" {
		t.Errorf("the estimate is not marked: %+v", f)
	}
	if says := p.Rules[p.Reasons[p.Runs[0].Posts[1].Why.HoleDepth].Rules[0]].Says.Print(p.Units); !strings.Contains(says, "an estimate") {
		t.Errorf("the reason says %s", says)
	}
	j.Site.Frost = &job.Frost{Index: 800}
	j.Lines[0].Runs[1].Soil = "clay"
	if p = plan.Make(j, cat); *p.Runs[1].Frost >= *p.Runs[0].Frost {
		t.Errorf("wet clay freezes %v, drier sand %v: water holds the frost up", *p.Runs[1].Frost, *p.Runs[0].Frost)
	}
}

// The totals of the compost run by hand: eight 8 x 48 in holes for 1 7/8 in
// pipe, one 10 x 48 and two 12 x 54 for 2 3/8 in, with 6 in of gravel, 2 in of
// soil under a mound of 1 in, filled inside up to the concrete.
func TestTotalsByHand(t *testing.T) {
	p := plan.Make(demoJob(t, 0), shipped(t))
	total := p.Runs[2].Totals
	disc := func(inches float64) float64 { return math.Pi / 4 * inches * inches / 144 }
	pipe := func(d, wall float64) float64 { return disc(d) - disc(d-2*wall) } // only steel is not concrete
	line, end := pipe(1.875, 0.12), pipe(2.375, 0.13)
	var concrete, gravel, dug float64
	for _, h := range []struct{ n, width, depth, steel float64 }{{8, 8, 48, line}, {1, 10, 48, end}, {2, 12, 54, end}} {
		concrete += h.n * (disc(h.width) - h.steel) * (h.depth - 8) / 12
		gravel += h.n * disc(h.width) * 0.5
		dug += h.n * disc(h.width) * h.depth / 12
	}
	near(t, "gravel, ft³", total.Gravel.CubicFeet(), gravel, 1e-6)
	near(t, "dug, ft³", total.Dug.CubicFeet(), dug, 1e-6)
	near(t, "concrete, ft³", total.Concrete.CubicFeet(), concrete, 1e-6)
	near(t, "gravel loose is a tenth more", float64(total.GravelLoose/total.Gravel), 1.1, 1e-9)
	near(t, "spoil", float64(total.Spoil), float64(total.Dug-total.SoilBack)*1.12, 1e-9)
}

// anyHoles makes every rule for holes random, at random levels.
func anyHoles(t testing.TB, rng *rand.Rand) (made job.Job) {
	j := random(t, rng)
	run := &j.Lines[0].Runs[0]
	said := func() (h job.HoleRules, s job.SettingRules) {
		maybe := func() bool { return rng.IntN(3) == 0 }
		l := func(most int) *length.Length { return ptr(length.Length(rng.IntN(most))) }
		if maybe() {
			h.Shape = ptr([]job.HoleShape{job.RoundHole, job.SquareHole}[rng.IntN(2)])
		}
		if maybe() {
			h.Bell, h.BellHeight, h.Taper = l(700), l(900), l(120)
		}
		if maybe() {
			h.EndExtraDepth, h.EndExtraWidth, h.SkipFactor, h.AnyWidth = l(300), l(100), ptr(maybe()), ptr(maybe())
		}
		if maybe() {
			s.Method = ptr([]job.Method{job.Braced, job.FastDry, job.DryPacked, job.Stabbed, job.RockPacked, job.Slurry, job.Layered}[rng.IntN(7)])
		}
		if maybe() {
			s.Top, s.Crown, s.Mound, s.Rubble = ptr([]job.Top{job.CoverTop, job.CrownTop}[rng.IntN(2)]), l(80), l(80), ptr(rng.Float64()*0.4)
		}
		if maybe() {
			s.Stand, s.RocksTo, s.Gravel = ptr(length.Length(rng.IntN(400)-200)), l(900), l(300)
		}
		if run.Post.Hollow && maybe() {
			s.Inside, s.Core, s.FillTo = ptr([]job.Inside{job.OpenInside, job.ClosedInside, job.CoreInside}[rng.IntN(3)]), l(60), ptr(length.Length(rng.IntN(900)-500))
		}
		return h, s
	}
	j.Hole, j.Setting = job.HoleRules{}, job.SettingRules{}
	h, s := said()
	run.Hole.Shape, run.Hole.Bell, run.Hole.BellHeight, run.Hole.Taper = h.Shape, h.Bell, h.BellHeight, h.Taper
	run.Setting.Method, run.Setting.Top, run.Setting.Crown, run.Setting.Stand, run.Setting.Inside, run.Setting.Core, run.Setting.FillTo = s.Method, s.Top, s.Crown, s.Stand, s.Inside, s.Core, s.FillTo
	for _, kind := range []job.PostKind{job.EndPost, job.GatePost, job.LinePost} {
		if rng.IntN(2) == 0 {
			k := job.KindRules{Kind: kind}
			k.Hole, k.Setting = said()
			run.Kinds = append(run.Kinds, k)
		}
	}
	posts := plan.Make(j, shipped(t)).Runs[0].Posts
	for i := range rng.IntN(3) {
		at := posts[rng.IntN(len(posts))].Station + length.Length(rng.IntN(100)-50)
		spot := job.HoleOverride{ID: fmt.Sprint("S", i), At: min(max(0, at), *run.Length)}
		spot.Hole, spot.Setting = said()
		spot.Hole.Along, spot.Hole.Across = ptr(length.Length(rng.IntN(200)-100)), ptr(length.Length(rng.IntN(200)-100))
		if rng.IntN(2) == 0 {
			spot.Hit = &job.Hit{What: []job.Struck{job.HitRock, job.HitWater}[rng.IntN(2)], Depth: length.Length(100 + rng.IntN(900))}
		}
		run.Overrides = append(run.Overrides, spot)
	}
	defer func() { made = made.WithFacts() }()
	if rng.IntN(6) == 0 {
		run.Hole.Driven, run.Hole.Collar = ptr([]job.Driven{job.LineDriven, job.AllDriven}[rng.IntN(2)]), ptr(length.Length(rng.IntN(400)))
	}
	if errs := document.Check(j); len(errs) > 0 {
		t.Fatal(errs)
	}
	return j
}

// What must hold of any hole, however it is dug, set and filled: nothing is
// negative, the layers are the hole, the totals are the sum over the posts,
// more frost never makes a hole shallower, and the way out that is offered
// bears what it says.
func TestPropertiesOfAnyHole(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(66, 1))
	cat := shipped(t)
	stopped, cards := 0, 0
	for n := range sized(500, 45) {
		j := anyHoles(t, rng)
		p := plan.Make(j, cat)
		if _, err := json.Marshal(p); err != nil {
			t.Fatalf("job %d: %v", n, err)
		}
		run := p.Runs[0]
		var concrete, stone, gravel, dug, spoil length.Volume
		hours := 0
		for _, post := range run.Posts {
			c := run.Cards[post.Card]
			concrete, stone, gravel = concrete+post.ConcreteVolume, stone+post.StoneVolume, gravel+post.GravelVolume
			dug, spoil = dug+c.Dug, spoil+c.Spoil
			if post.HoleDepth > 0 {
				hours++
			}
			if post.Wind == nil || post.Wind.Gust < 0 || math.IsNaN(post.Wind.Gust) || (post.Wind.Deeper == nil) != (post.Stopped != nil) || post.Wind.Deeper != nil && post.Wind.Deeper.Gust < post.Wind.Gust-1e-9 || post.Wind.Wider != nil && post.Wind.Wider.Gust < post.Wind.Gust-1e-9 {
				t.Fatalf("job %d: %s bears %+v", n, post.Label, post.Wind)
			}
			if s := post.Stopped; s != nil {
				stopped++
				if post.HoleDepth > s.Depth+length.Tolerance || post.Bottom > s.Wanted+length.Tolerance || s.Ways[0].Gust > s.Planned+1e-9 {
					t.Fatalf("job %d: %s stopped at %v, is %v deep: %+v", n, post.Label, s.Depth, post.HoleDepth, s)
				}
			}
		}
		for _, c := range run.Cards {
			cards++
			cardHolds(t, n, c)
		}
		total := run.Totals
		for what, pair := range map[string][2]length.Volume{"concrete": {concrete, total.Concrete}, "stone": {stone, total.Stone}, "gravel": {gravel, total.Gravel}, "dug": {dug, total.Dug}, "spoil": {spoil, total.Spoil}} {
			if math.Abs(float64(pair[0]-pair[1])) > 1e-9 || pair[1] < 0 {
				t.Fatalf("job %d: %s of the posts %v, of the run %v", n, what, pair[0], pair[1])
			}
		}
		holes := 0
		for _, h := range total.Holes {
			holes += h.Count
		}
		if holes != hours || total.Hours.ByHand < 0 || total.Hours.Hand > holes {
			t.Fatalf("job %d: %d holes of %d, %+v", n, holes, hours, total.Hours)
		}
		if n%4 == 0 {
			frostNeverShallower(t, j)
		}
	}
	if stopped < sized(60, 12) || cards < sized(900, 200) {
		t.Errorf("only %d holes were stopped, of %d kinds", stopped, cards)
	}
}

// cardHolds checks one card: its layers, with the post, are the hole, one on
// the other without a gap, and every volume in it is said in its steps.
func cardHolds(t *testing.T, n int, c plan.Card) {
	t.Helper()
	said := []float64{}
	for _, s := range c.Steps {
		for _, part := range s {
			said = append(said, part.Value)
		}
	}
	tell := func(what string, v float64) {
		if v > 1e-9 && !slices.ContainsFunc(said, func(x float64) bool { return math.Abs(x-v) < 1e-9 }) {
			t.Fatalf("job %d: %s, %v, is not in the steps of %+v", n, what, v, c)
		}
	}
	var inHole length.Volume
	top := c.Depth
	for _, l := range c.Layers {
		if l.Volume < 0 || l.Concrete < 0 || l.Concrete > l.Volume+1e-12 || l.Stone < 0 {
			t.Fatalf("job %d: %+v", n, l)
		}
		switch l.Kind {
		case footing.InsideLayer:
			tell("concrete inside the post", float64(l.Concrete))
			continue
		case footing.MoundLayer, footing.CrownLayer:
		case footing.RocksLayer:
			tell("slurry", float64(l.Concrete))
			tell("rocks", float64(l.Stone))
			inHole += l.Volume
		case footing.ConcreteLayer:
			tell("concrete", float64(l.Concrete))
			inHole += l.Volume
		default:
			tell(string(l.Kind), float64(l.Volume))
			inHole += l.Volume
		}
		if l.From >= 0 {
			if !length.Same(l.To, top) {
				t.Fatalf("job %d: %s ends at %v, the layer under it begins at %v", n, l.Kind, l.To, top)
			}
			top = l.From
		}
	}
	area := length.Square(c.Post)
	if c.Round {
		area = length.Disc(c.Post)
	}
	if c.Method == job.Drive {
		return
	}
	// A bell or an off-centre hole may not hold the post; then nothing is negative, and no more can be said.
	// What lies over ground that is cut is not put back.
	if c.Lowered > 0 {
		over := footing.Shape{Square: c.Square, Cuts: c.Cuts}.Volume(0, min(c.Lowered, c.Depth))
		inHole += over - area.Times(min(c.Lowered, c.Foot))
	}
	if room := c.Dug - inHole - area.Times(c.Foot); math.Abs(float64(room)) > 1e-9 {
		t.Fatalf("job %d: layers %v and the post %v are not the hole, %v", n, inHole, area.Times(c.Foot), c.Dug)
	}
	tell("dig", float64(c.Depth))
	tell("width", float64(c.Width))
	tell("spoil", float64(c.Spoil))
}

// Every hole of every fence system and of the demo jobs can be dug and filled
// from its card alone.
func TestCardsOfEverySystem(t *testing.T) {
	cat := shipped(t)
	for _, s := range cat.Systems {
		j := outfitted(t, s.ID, 30*length.Foot)
		for _, c := range plan.Make(j, cat).Runs[0].Cards {
			cardHolds(t, 0, c)
		}
	}
	for n := range 2 {
		for _, run := range plan.Make(demoJob(t, n), cat).Runs {
			for _, c := range run.Cards {
				cardHolds(t, n, c)
			}
		}
	}
}

// A run of 40 posts of which every fourth hole is stopped by rock, with all
// ways out of each.
func BenchmarkStoppedHoles(b *testing.B) {
	cat := shipped(b)
	j := document.New("Rock", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(39 * 96 * length.Inch)
	for i := 4; i < 40; i += 4 {
		run.Overrides = append(run.Overrides, job.HoleOverride{ID: fmt.Sprint("S", i), At: length.Length(i) * 96 * length.Inch, Hit: &job.Hit{What: job.HitRock, Depth: 500}})
	}
	j = j.WithFacts()
	for b.Loop() {
		plan.Make(j, cat)
	}
}

// A hole that lies off its post misses what the post stands over, and a way
// out says so: an end post whose 12 in hole just meets a drain.
func TestShiftedHoleMissesThePipe(t *testing.T) {
	cat := shipped(t)
	j := document.New("Drain", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(40 * length.Foot)
	run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Drain, At: 5 * length.Inch, Width: length.Inch}}
	doc, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	p := plan.Make(j, cat)
	f := find(p, "in-the-way")
	if f == nil || f.Place.Post != "P1" {
		t.Fatalf("%+v", f)
	}
	k := slices.IndexFunc(f.Remedies, func(r finding.Remedy) bool { return strings.HasPrefix(r.Says.Print(j.Units), "Shift only its hole") })
	if k < 0 {
		t.Fatalf("no way out shifts the hole: %+v", f.Remedies)
	}
	edited, err := document.Apply(doc, f.Remedies[k].Edits)
	if err != nil {
		t.Fatal(err)
	}
	after, _, err := document.Decode(edited, cat)
	if err != nil {
		t.Fatal(err)
	}
	q := plan.Make(after, cat)
	first := q.Runs[0].Posts[0]
	card := q.Runs[0].Cards[first.Card]
	if find(q, "in-the-way") != nil || first.Station != 0 || card.Along >= 0 || card.Along+card.Width/2 > 4.5*length.Inch+length.Tolerance || card.Least < 50-length.Tolerance {
		t.Errorf("the hole lies %v off, %v wide, with %v beside the post", card.Along, card.Width, card.Least)
	}
	// Twice as far there is not enough concrete left, and it is not offered.
	run.KeepOuts[0].At, run.KeepOuts[0].Width = 0, length.Inch
	if f := find(plan.Make(j, cat), "in-the-way"); f != nil && slices.ContainsFunc(f.Remedies, func(r finding.Remedy) bool { return strings.HasPrefix(r.Says.Print(j.Units), "Shift") }) {
		t.Error("a hole is shifted off its post")
	}
}

// Taken one after another, the ways out of a hole start from the hole, not
// from one another.
func TestWaysOutDoNotPileUp(t *testing.T) {
	cat := shipped(t)
	j := demoJob(t, 0)
	run := &j.Lines[0].Runs[0]
	at := plan.Make(j, cat).Runs[0].Posts[4].Station
	run.Overrides = []job.HoleOverride{{ID: "S1", At: at, Hit: &job.Hit{What: job.HitRock, Depth: 500}}}
	j = j.WithFacts()
	said := func(j job.Job) (out []string) {
		for _, w := range plan.Make(j, cat).Runs[0].Posts[4].Stopped.Ways {
			out = append(out, fmt.Sprintf("%s %s %.6f %.9f", w.ID, w.Name.Print(j.Units), w.Gust, float64(w.Concrete)))
		}
		return out
	}
	before := said(j)
	for _, w := range plan.Make(j, cat).Runs[0].Posts[4].Stopped.Ways[:5] {
		doc, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		edited, err := document.Apply(doc, w.Edits)
		if err != nil {
			t.Fatal(err)
		}
		after, _, err := document.Decode(edited, cat)
		if err != nil {
			t.Fatal(err)
		}
		if got := said(after); !slices.Equal(got, before) {
			t.Errorf("with %s taken:\n%s\nbefore:\n%s", w.ID, strings.Join(got, "\n"), strings.Join(before, "\n"))
		}
	}
}

// The gust by hand: a 12 in hole with its bottom at 42 in, 150 psf for each
// foot, 8 ft of solid fence 6 ft high over a 2 in gap, exposure C. Half an inch
// of movement doubles the bearing, which is the gust times √2.
func TestGustByHand(t *testing.T) {
	j := decode(t, `{"mallow":1,"name":"Gust","units":{"system":"imperial","smallestMark":1.5875},"site":{"frostDepth":914.4,"soil":"sand","exposure":"C"},
		"lines":[{"id":"L1","runs":[{"id":"R1","length":9753.6,"ground":[{"at":0,"height":0}],"spacing":{"most":2438.4},"hole":{"share":"none"}}]}]}`)
	// A = d²/(d + 1.09 h) with d 3.5 ft and h 2/12 + 0.55·6 ft; P = A S₁ b/2.34.
	const d, h = 3.5, 2.0/12 + 0.55*6
	push := d * d / (d + 1.09*h) * 150 * d / 3 * 1 / 2.34
	want := math.Sqrt(push/(0.00256*0.85*0.85*0.85*1.3*48)) * 0.44704
	post := plan.Make(j, shipped(t)).Runs[0].Posts[2]
	near(t, "gust, m/s", post.Wind.Gust, want, 1e-9)
	end := plan.Make(j, shipped(t)).Runs[0].Posts[0]
	near(t, "an end post holds half as much fence", end.Wind.Gust, want*math.Sqrt2, 1e-9)
	j.Site.Movement = true
	near(t, "with movement", plan.Make(j, shipped(t)).Runs[0].Posts[2].Wind.Gust, want*math.Sqrt2, 1e-9)
}

// A leaf hangs on the post with the hinges, two leaves on both: its weight
// times half its width.
func TestLeavesPullTheirPosts(t *testing.T) {
	j := demoJob(t, 0)
	gate := &j.Lines[0].Runs[0].Gates[0]
	for _, c := range []struct {
		leaves        int
		hinge         job.End
		first, second bool
	}{{1, "", true, false}, {1, job.FirstPost, true, false}, {1, job.SecondPost, false, true}, {2, "", true, true}} {
		gate.Leaves, gate.Hinge, gate.Weight = c.leaves, c.hinge, ptr(30*length.Kilogram)
		posts := plan.Make(j, shipped(t)).Runs[0].Posts
		width := 1.2192 - 0.1143 // less 4 1/2 in for hinge and latch
		if c.leaves == 2 {
			width = (1.2192 - 0.2159) / 2 // less 8 1/2 in for a pair
		}
		if a, b := posts[6].Wind.Leaf, posts[7].Wind.Leaf; (a != nil) != c.first || (b != nil) != c.second {
			t.Errorf("%d leaves on the %q post: %v and %v", c.leaves, c.hinge, a, b)
			continue
		} else {
			if a == nil {
				a = b
			}
			near(t, "moment, N m", a.Moment, 30*9.80665*width/2, 1e-6)
		}
	}
}

// A hole so far off its post that the post is not in it is refused, and can be
// centred; one that leaves little concrete is noted.
func TestHoleBesideItsPost(t *testing.T) {
	j := demoJob(t, 0)
	run := &j.Lines[0].Runs[0]
	run.Hole.Width, run.Hole.Across = ptr(12*length.Inch), ptr(5*length.Inch)
	f := find(plan.Make(j, shipped(t)), "post-off-hole")
	if f == nil || f.Severity != finding.Cannot || len(f.Remedies) != 1 {
		t.Fatalf("%+v", f)
	}
	run.Hole.Across = ptr(3 * length.Inch) // 12 in less 3 1/2 in, halved, less 3 in: 1 1/4 in
	if p := plan.Make(j, shipped(t)); find(p, "post-off-hole") != nil || find(p, "thin-cover") == nil || !length.Same(p.Runs[0].Cards[0].Least, 1.25*length.Inch) {
		t.Errorf("3 in off: %v left", p.Runs[0].Cards[0].Least)
	}
}

// Holes near a mark are dug by hand, whatever the auger could: their hours
// count so in both sums.
func TestHandDugHours(t *testing.T) {
	j := demoJob(t, 0)
	without := plan.Make(j, shipped(t)).Runs[0].Totals
	at := plan.Make(j, shipped(t)).Runs[0].Posts[3].Station
	j.Lines[0].Runs[0].KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Service, Service: "gas", At: at + 300, Hand: 600}}
	j.Lines[0].Runs[0].Spacing.HandDig = true
	with := plan.Make(j, shipped(t)).Runs[0]
	hand := 0
	for _, p := range with.Posts {
		if len(p.Hand) > 0 {
			hand++
		}
	}
	if hand == 0 || with.Totals.Hours.Hand != hand || without.Hours.Hand != 0 || with.Totals.Hours.ByAuger <= without.Hours.ByAuger {
		t.Errorf("%d holes by hand: %+v, without the pipe %+v", hand, with.Totals.Hours, without.Hours)
	}
}
