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
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/spacing"
)

const inch = length.Inch

// stakes checks what a crew relies on, whatever the system: the bays add up to
// the run, gates are exact, no bay is longer than its piece or the most, no
// hole runs into anything, and nothing of that is broken without a word.
func stakes(t *testing.T, what string, j job.Job, p plan.Plan) {
	t.Helper()
	runs := map[string]job.Run{}
	for _, l := range j.Lines {
		for _, r := range l.Runs {
			runs[r.ID] = r
		}
	}
	for _, run := range p.Runs {
		given := runs[run.ID]
		if len(run.Posts) == 0 {
			continue // not measured yet
		}
		told := func(rules ...string) bool {
			return slices.ContainsFunc(p.Findings, func(f finding.Finding) bool {
				return f.Place.Run == run.ID && slices.Contains(rules, f.Rule)
			})
		}
		sum := length.Length(0)
		for i, b := range run.Bays {
			sum += b.CentreToCentre
			a, z := run.Posts[i], run.Posts[i+1]
			if b.CentreToCentre <= 0 {
				t.Fatalf("%s: %s is %v", what, b.Label, b.CentreToCentre)
			}
			if b.Gate != "" || b.Held != "" {
				continue
			}
			if a.Landed || z.Landed { // what stands is what it is, and is said
				if most := given.Spacing.Most; b.CentreToCentre > 2*most && !told("landed") {
					t.Fatalf("%s: %s is %v and nothing is said", what, b.Label, b.CentreToCentre)
				}
				continue
			}
			most := given.Spacing.Most
			if _, ok := given.Spacing.ByPiece(); ok {
				most = given.Spacing.Regular(given.Post.Width, given.Post.Width)
			}
			lead := given.PostOf(job.CornerPost).Width + given.Spacing.Thickness
			if b.CentreToCentre > most+lead+length.Tolerance || a.Kind == job.LinePost && z.Kind == job.LinePost && b.CentreToCentre > most+length.Tolerance {
				t.Fatalf("%s: %s is %v, over %v", what, b.Label, b.CentreToCentre, most)
			}
			full := given.Spacing.Piece
			if b.Piece > full+length.Tolerance {
				t.Fatalf("%s: the piece in %s is %v, longer than a full one, %v", what, b.Label, b.Piece, full)
			}
			// Rails that lie on a slope make level bays shorter, and a third of them with it.
			least := min(given.Spacing.Shortest(most), most)
			if given.Spacing.Way == job.OverlapRails || given.Spacing.Way == job.StockRails {
				least *= 0.98
			}
			if b.Odd && b.CentreToCentre < least-length.Tolerance && !told("sliver", "blocked", "short-bay", "holes-meet") && !aloneInStretch(run, i) {
				t.Fatalf("%s: %s is a sliver of %v and nothing is said", what, b.Label, b.CentreToCentre)
			}
		}
		if !length.Same(sum, run.Length) {
			t.Fatalf("%s: bays add up to %v of %v", what, sum, run.Length)
		}
		for _, g := range run.Gates {
			a, z := find1(run, g.First), find1(run, g.Second)
			if clear := z.Station - a.Station - given.PostOf(job.GatePost).Width; !length.Same(clear, g.Opening) {
				t.Fatalf("%s: gate %s opens %v, not %v", what, g.ID, clear, g.Opening)
			}
		}
		for k, o := range given.KeepOuts {
			for _, post := range run.Posts {
				if post.Stays != "" || o.Repour || post.Shared != "" {
					continue
				}
				half := max(post.HoleWidth, given.PostOf(post.Kind).Width) / 2
				if post.Station+half > o.From()+length.Tolerance && post.Station-half < o.To()-length.Tolerance && !told("in-the-way", "blocked") {
					t.Fatalf("%s: the hole of %s at %v, %v wide, runs into keep-out %d at %v to %v and nothing is said", what, post.Label, post.Station, 2*half, k, o.From(), o.To())
				}
			}
		}
		marks(t, what, run)
	}
}

// aloneInStretch tells whether bay i is all of its stretch.
func aloneInStretch(run plan.Run, i int) bool {
	at := run.Posts[i].Station
	for _, s := range run.Segments {
		if at >= s.From-length.Tolerance && at < s.To-length.Tolerance && s.Bays == 1 {
			return true
		}
	}
	return false
}

func find1(run plan.Run, id string) plan.Post {
	return run.Posts[slices.IndexFunc(run.Posts, func(p plan.Post) bool { return p.Label == id })]
}

// marks checks the set-out: running distances that end at the run's length,
// never past the tape from the pin they are read from.
func marks(t *testing.T, what string, run plan.Run) {
	t.Helper()
	out := run.SetOut
	if len(out.Marks) != len(run.Posts) {
		t.Fatalf("%s: %d marks for %d posts", what, len(out.Marks), len(run.Posts))
	}
	for i, m := range out.Marks {
		p := run.Posts[i]
		from, along := length.Length(0), length.Length(0)
		if m.Pin > 0 {
			from, along = out.Pins[m.Pin-1].At, out.Pins[m.Pin-1].Slope
		}
		if m.Post != p.Label || !length.Same(m.Level, p.Station) || !length.Same(m.Level+m.Back, run.Length) ||
			!length.Same(from+m.Past, m.Level) || !length.Same(along+m.PastSlope, m.Slope) || m.PastSlope > out.Tape+length.Tolerance || m.Slope < m.Level-length.Tolerance {
			t.Fatalf("%s: mark %+v of post %+v, pins %+v", what, m, p, out.Pins)
		}
	}
}

// Every system of the catalogue, on the demo site of its unit system: with its
// gates, on its slopes and laid level, gives a layout that a crew could stake.
func TestEverySystemOnTheDemoSites(t *testing.T) {
	cat := shipped(t)
	if len(cat.Systems) < 13 {
		t.Fatalf("only %d systems", len(cat.Systems))
	}
	for n, s := range cat.Systems {
		site := 0
		if s.System.System == length.Metric {
			site = 1
		}
		for k, ground := range []string{"sloping", "level"} {
			if testing.Short() && n%4 != 2*k { // all of them in full
				continue
			}
			what := s.ID + ", " + ground
			j := demoJob(t, site)
			line := &j.Lines[0]
			for i := range line.Runs {
				line.Runs[i] = s.Outfit(line.Runs[i])
				if ground == "level" {
					line.Runs[i].Ground, line.Books = nil, nil
				}
			}
			if s.Gate { // a bare gate is all there is
				run := line.Runs[0]
				run.Corner, run.KeepOuts = nil, nil
				run.Gates = run.Gates[:1]
				long := run.Gates[0].Opening + run.PostOf(job.GatePost).Width
				run.Gates[0].At, run.Length = long/2, &long
				line.Runs, line.Closed, line.Books, line.Balance = []job.Run{run}, false, nil, false
				if ground == "sloping" {
					line.Runs[0].Ground = []job.GroundPoint{{At: 0, Height: 0}, {At: long, Height: 150}}
				} else {
					line.Runs[0].Ground = nil
				}
			}
			if errs := document.Check(j); len(errs) > 0 {
				t.Fatalf("%s: %v", what, errs)
			}
			p := plan.Make(j, cat)
			stakes(t, what, j, p)
			posts := 0
			for _, run := range p.Runs {
				posts += len(run.Posts)
				if run.Way != s.Spacing.Way && s.Spacing.Way != "" {
					t.Errorf("%s: %s is spaced by %s", what, run.ID, run.Way)
				}
				for _, post := range run.Posts {
					if driven := (job.Rules{}).Over(job.Said{Hole: s.Hole}).Hole.DrivenAt(post.Kind); post.Shared == "" && driven != post.Driven {
						t.Errorf("%s: %s driven %v", what, post.Label, post.Driven)
					}
				}
			}
			if s.Gate && posts != 2 || posts < 2 {
				t.Errorf("%s: %d posts", what, posts)
			}
			for _, f := range p.Findings {
				if f.Severity != finding.Cannot {
					continue
				}
				// On level ground every system stands as it is; on the slope
				// what does not fit is said with a way out.
				if ground == "level" && f.Rule != "stock" || len(f.Remedies) == 0 {
					t.Errorf("%s: %s: %s", what, f.Rule, f.Says.Print(j.Units))
				}
			}
			remediesApply(t, 0, j, p)
		}
	}
}

// What each way makes of its material, by hand.
func TestWaysByHand(t *testing.T) {
	cat := shipped(t)
	for _, c := range []struct {
		system string
		want   length.Length
		why    string
	}{
		{"panel-between", 96 * inch, "92 1/2 in panel and a 3 1/2 in post (common practice: 96 in c-c for 8 ft lumber)"},
		{"panel-on-face", 96 * inch, "the panel itself"},
		{"boards-on-rails-m", 1800, "a 3.6 m rail spans two 1.8 m bays (common practice)"},
		{"horizontal-boards", 72 * inch, "the board itself"},
		{"split-rail", 120 * inch, "an 11 ft rail less 12 in of overlap"},
		{"metal-panel", 74*inch + 5*inch/16, "6 ft panel, 2 in post, two joints of 5/32 in (common practice: 3 to 5 mm)"},
		{"slotted-concrete-m", 1895, "1830 panel + 95 post - two slots of 25 + two plays of 10"},
		{"vinyl-picket", 96 * inch, "94 in rail + 5 in post - two routs of 1 1/2 in"},
		{"vinyl-privacy", 72 * inch, "70 in rail + 5 in post - two routs of 1 1/2 in"},
	} {
		s, ok := cat.System(c.system, nil)
		if !ok {
			t.Fatalf("no system %s", c.system)
		}
		if got := s.Spacing.Regular(s.Post.Width, s.Post.Width); !length.Same(got, c.want) {
			t.Errorf("%s: bay %v, want %v: %s", c.system, got, c.want, c.why)
		}
	}
	// Rails in routed posts: inside to inside and 3 in (common practice).
	for _, id := range []string{"vinyl-picket", "vinyl-privacy"} {
		s, _ := cat.System(id, nil)
		inside := s.Spacing.Regular(s.Post.Width, s.Post.Width) - s.Post.Width
		if !length.Same(s.Spacing.Piece, inside+3*inch) {
			t.Errorf("%s: rail %v for %v inside", id, s.Spacing.Piece, inside)
		}
	}
}

// outfitted is a job of one level run with a system of the catalogue.
func outfitted(t *testing.T, system string, long length.Length) job.Job {
	cat := shipped(t)
	s, ok := cat.System(system, nil)
	if !ok {
		t.Fatalf("no system %s", system)
	}
	j := document.New("One", s.System, cat)
	run := &j.Lines[0].Runs[0]
	*run = s.Outfit(*run)
	run.Length = &long
	return j
}

// The sliver rule: a remainder under a third of a panel is shared over two
// bays; a larger one is one cut panel, at the end that the user picks.
func TestRemainderOfPanels(t *testing.T) {
	cat := shipped(t)
	for _, c := range []struct {
		rest length.Length
		odd  job.Remainder
		want []length.Length // bays, in inches
	}{
		{0, job.RemainderLast, []length.Length{96, 96, 96}},
		{40, job.RemainderLast, []length.Length{96, 96, 96, 40}},
		{40, job.RemainderFirst, []length.Length{40, 96, 96, 96}},
		{10, job.RemainderLast, []length.Length{96, 96, 53, 53}},
		{40, job.RemainderShared, []length.Length{96, 96, 68, 68}},
		{40, job.RemainderInAll, []length.Length{82, 82, 82, 82}},
	} {
		j := outfitted(t, "panel-between", (3*96+c.rest)*inch)
		j.Lines[0].Runs[0].Spacing.Remainder = c.odd
		p := plan.Make(j, cat)
		got := []length.Length{}
		for _, b := range p.Runs[0].Bays {
			got = append(got, b.CentreToCentre/inch)
			if want := b.CentreToCentre < 96*inch-1; b.PieceCut != want {
				t.Errorf("%v over, %s: the panel in %s is cut: %v", c.rest, c.odd, b.Label, b.PieceCut)
			}
		}
		if !slices.EqualFunc(got, c.want, func(a, b length.Length) bool { return math.Abs(float64(a-b)) <= 1.0/16+1e-9 }) {
			t.Errorf("%v in over, %s: bays %v, want %v", c.rest, c.odd, got, c.want)
		}
	}
}

// Panels on faces at a corner: the panel begins half a post from the corner's
// middle, so a full one takes that much more bay; overlapping, the run that
// starts there a panel's thickness more.
func TestPanelsOnFacesAtACorner(t *testing.T) {
	cat := shipped(t)
	for turning, want := range map[job.Turning][2]length.Length{
		job.Meeting:     {96*inch + 44.45, 96*inch + 44.45},
		job.Overlapping: {96*inch + 44.45, 96*inch + 44.45 + 1.5*inch},
	} {
		j := outfitted(t, "panel-on-face", 3*96*inch+44.45)
		a := &j.Lines[0].Runs[0]
		a.Spacing.Turning = turning
		b := *a
		long := 3*96*inch + 44.45 + want[1] - want[0]
		b.ID, b.Length, b.Corner = "R2", &long, &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
		j.Lines[0].Runs = append(j.Lines[0].Runs, b)
		p := plan.Make(j, cat)
		last, first := p.Runs[0].Bays[2], p.Runs[1].Bays[0]
		if len(p.Runs[0].Bays) != 3 || len(p.Runs[1].Bays) != 3 || !length.Same(last.CentreToCentre, want[0]) || !length.Same(first.CentreToCentre, want[1]) {
			t.Errorf("%s: bays at the corner %v and %v, want %v", turning, last.CentreToCentre, first.CentreToCentre, want)
		}
		for _, bay := range []plan.Bay{last, first} {
			if got := bay.Lead + bay.Trail; bay.PieceCut || bay.Odd || !length.Same(bay.Piece, 96*inch) || !length.Same(bay.Piece+got, bay.CentreToCentre) {
				t.Errorf("%s: the panel at the corner is %v, cut %v", turning, bay.Piece, bay.PieceCut)
			}
		}
	}
}

// Common practice: 11.347 m with one bay held at 3.6 m leaves five equal bays
// of 61 in.
func TestHeldBayLeavesFiveOf61(t *testing.T) {
	j := document.New("Held", length.Metric, shipped(t))
	run := &j.Lines[0].Runs[0]
	run.Length, run.Spacing.Most = ptr(length.Length(11347)), 1800
	run.HeldBays = []job.HeldBay{{ID: "H1", Name: "Removable", At: 0, Width: 3600}}
	p := plan.Make(j, shipped(t)).Runs[0]
	if len(p.Bays) != 6 || p.Bays[0].Held != "H1" || p.Bays[0].CentreToCentre != 3600 {
		t.Fatalf("%d bays, the first %+v", len(p.Bays), p.Bays[0])
	}
	for _, b := range p.Bays[1:] {
		if math.Round(b.CentreToCentre.Inches()) != 61 || b.Odd {
			t.Errorf("%s is %v in", b.Label, b.CentreToCentre.Inches())
		}
	}
}

// A post that landed off its mark stays, and where the crew says so the rest is
// shared out again on both sides of it: 3 in over 7 bays are 7/16 in each, which is let go; 4 in are
// more than the half inch that is, and make one post more.
func TestLandedPostRespacesTheRest(t *testing.T) {
	for short, bays := range map[length.Length]int{3 * inch: 7, 4 * inch: 8} {
		j := document.New("Landed", length.Imperial, shipped(t))
		run := &j.Lines[0].Runs[0]
		run.Length = ptr(80 * length.Foot)
		run.FixedPosts = []job.FixedPost{{ID: "F1", At: 24*length.Foot - short, Landed: true, Respace: true}}
		p := plan.Make(j, shipped(t)).Runs[0]
		if len(p.Posts) != 4+bays || p.Posts[3].Held != "F1" || !p.Posts[3].Landed {
			t.Fatalf("%d posts, the fourth %+v", len(p.Posts), p.Posts[3])
		}
		for i, b := range p.Bays {
			want := (24*length.Foot - short) / 3
			if i >= 3 {
				want = (56*length.Foot + short) / length.Length(bays)
			}
			if !length.Same(b.CentreToCentre, want) {
				t.Errorf("%s is %v in, want %v", b.Label, b.CentreToCentre.Inches(), want.Inches())
			}
		}
	}
}

// Old holes at even distances: new ones fall midway between them when the
// alternative that asks for it is taken.
func TestMidwayBetweenOldHoles(t *testing.T) {
	cat := shipped(t)
	j := document.New("Old line", length.Metric, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(length.Length(18000))
	for i := range 7 {
		run.KeepOuts = append(run.KeepOuts, job.KeepOut{ID: fmt.Sprint("K", i), Kind: job.Footing, At: length.Length(1200 + i*2400), Width: 300})
	}
	before := nearestOld(plan.Make(j, cat), run.KeepOuts)
	all, ok := plan.Alternatives(j, cat, run.ID)
	i := slices.IndexFunc(all, func(a plan.Alternative) bool { return a.ID == "midway" })
	if !ok || i < 0 {
		t.Fatalf("no midway layout among %v", names(all))
	}
	after := nearestOld(plan.Make(applied(t, j, all[i].Edits), cat), run.KeepOuts)
	if all[i].Cost.Posts != 0 || after < before+10 {
		t.Errorf("nearest old footing %v away, before %v, at %d more posts", after, before, all[i].Cost.Posts)
	}
}

func names(all []plan.Alternative) (out []string) {
	for _, a := range all {
		out = append(out, a.ID)
	}
	return out
}

func nearestOld(p plan.Plan, old []job.KeepOut) length.Length {
	nearest := length.Length(1e9)
	for _, post := range p.Runs[0].Posts {
		for _, k := range old {
			if post.Kind == job.LinePost {
				nearest = min(nearest, (post.Station - k.At).Abs())
			}
		}
	}
	return nearest
}

func applied(t *testing.T, j job.Job, edits []job.Edit) job.Job {
	t.Helper()
	doc, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	changed, err := document.Apply(doc, edits)
	if err != nil {
		t.Fatal(err)
	}
	return decode(t, string(changed))
}

// randomSpacing makes a run of any way with things in the way, held posts and
// bays, an old post and a gate, wherever they are allowed.
func randomSpacing(t *testing.T, rng *rand.Rand) job.Job {
	cat := shipped(t)
	s := cat.Systems[rng.IntN(len(cat.Systems))]
	j := document.New("Random", s.System.System, cat)
	run := &j.Lines[0].Runs[0]
	*run = s.Outfit(*run)
	run.Length = ptr(length.Length(9000 + rng.Float64()*30000))
	run.Spacing.Remainder = []job.Remainder{"", job.RemainderLast, job.RemainderFirst, job.RemainderAway, job.RemainderShared, job.RemainderInAll}[rng.IntN(6)]
	run.Spacing.HandDig = rng.IntN(3) > 0
	somewhere := func() length.Length { return j.Units.Round(*run.Length * length.Length(rng.Float64())) }
	for n := range rng.IntN(6) {
		k := job.KeepOut{ID: fmt.Sprint("K", n), At: somewhere(), Kind: []job.Obstacle{job.Service, job.Root, job.Footing, job.OldPost, job.NoDig, job.Drain}[rng.IntN(6)]}
		switch k.Kind {
		case job.Service:
			k.Service, k.Hand = "water", 450
		case job.OldPost:
			k.Stays, k.Width = rng.IntN(2) == 0, 100
		default:
			k.Width = length.Length(100 + rng.Float64()*float64(200+rng.IntN(3)*1500))
		}
		run.KeepOuts = append(run.KeepOuts, k)
	}
	sound := func(change func(*job.Run)) {
		trial := *run
		change(&trial)
		if len(document.CheckRun("", trial, j.Units)) == 0 {
			*run = trial
		}
	}
	if rng.IntN(2) == 0 {
		sound(func(r *job.Run) { r.Gates = []job.Gate{{ID: "G1", At: somewhere(), Opening: 1000, Gap: 100}} })
	}
	for n := range rng.IntN(3) {
		sound(func(r *job.Run) {
			r.FixedPosts = append(slices.Clone(r.FixedPosts), job.FixedPost{ID: fmt.Sprint("F", n), At: somewhere(), Landed: rng.IntN(2) == 0})
		})
	}
	if rng.IntN(4) == 0 {
		sound(func(r *job.Run) {
			r.HeldBays = []job.HeldBay{{ID: "H1", At: somewhere(), Width: length.Length(600 + rng.IntN(2000))}}
		})
	}
	if errs := document.Check(j); len(errs) > 0 {
		t.Fatal(errs)
	}
	return j.WithFacts()
}

// On any run: nothing is broken without a word; every remedy can be taken and
// costs what it says; and the run seen from its other end has the same posts.
func TestPropertiesOfSpacing(t *testing.T) {
	t.Parallel()
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(7, 77))
	blocked, weighed := 0, 0
	for n := range sized(140, 40) {
		j := randomSpacing(t, rng)
		p := plan.Make(j, cat)
		stakes(t, fmt.Sprint("job ", n), j, p)
		for _, f := range p.Findings {
			if f.Rule == "blocked" || f.Rule == "in-the-way" {
				blocked++
			}
			for _, r := range f.Remedies {
				if r.Cost == nil {
					continue
				}
				weighed++
				after := plan.Make(applied(t, j, r.Edits), cat)
				a, b := p.Totals, after.Totals
				if b.Posts-a.Posts != r.Cost.Posts || b.CutPieces-a.CutPieces != r.Cost.CutPieces || math.Abs(float64(b.ConcreteToBuy-a.ConcreteToBuy-r.Cost.Concrete)) > 1e-9 || b.Bags-a.Bags != r.Cost.Bags {
					t.Fatalf("job %d: %s: %s costs %+v; taken, %d posts, %d cut, %v m³, %d bags more", n, f.Rule, r.Says.Print(j.Units), *r.Cost,
						b.Posts-a.Posts, b.CutPieces-a.CutPieces, b.ConcreteToBuy-a.ConcreteToBuy, b.Bags-a.Bags)
				}
			}
		}
		if n%4 == 0 {
			alternativesHold(t, n, j, p)
		}
		mirroredSpacing(t, n, j, p)
		otherUnits(t, n, j, p)
	}
	if blocked < sized(20, 5) || weighed < sized(40, 10) {
		t.Errorf("only %d clashes and %d costs were met", blocked, weighed)
	}
}

// Printed in the other system it is the same fence: the same posts and odd
// bays, no post off by more than the marks of the two tapes differ.
func otherUnits(t *testing.T, n int, j job.Job, p plan.Plan) {
	t.Helper()
	j.Units = length.Usual(map[length.System]length.System{length.Imperial: length.Metric, length.Metric: length.Imperial}[j.Units.System])
	q := plan.Make(j, shipped(t))
	a, b := p.Runs[0], q.Runs[0]
	given := func(p plan.Plan) (out []string) {
		out = append(out, plan.GivenUp(p)...)
		slices.Sort(out)
		return out
	}
	if x, y := given(p), given(q); !slices.Equal(x, y) {
		t.Fatalf("job %d: %v are given up, mirrored %v", n, x, y)
	}
	if len(a.Posts) != len(b.Posts) || p.Totals.CutPieces != q.Totals.CutPieces {
		t.Fatalf("job %d: %d posts, in the other units %d", n, len(a.Posts), len(b.Posts))
	}
	for i := range a.Segments {
		if a.Segments[i].Odd != b.Segments[i].Odd {
			t.Fatalf("job %d: segment %d has %d odd bays, in the other units %d", n, i, a.Segments[i].Odd, b.Segments[i].Odd)
		}
	}
	for i := range a.Posts {
		if off := (a.Posts[i].Station - b.Posts[i].Station).Abs(); off > inch/8 {
			t.Fatalf("job %d: %s is %v elsewhere in the other units", n, a.Posts[i].Label, off)
		}
	}
}

// Every alternative is sound, unlike the others, and takes what it says.
func alternativesHold(t *testing.T, n int, j job.Job, p plan.Plan) {
	t.Helper()
	all, ok := plan.Alternatives(j, shipped(t), j.Lines[0].Runs[0].ID)
	if !ok || all[0].ID != "now" || len(all) > 4 || all[0].Posts != p.Totals.Posts || all[0].Bags != p.Totals.Bags {
		t.Fatalf("job %d: alternatives %v", n, names(all))
	}
	for _, a := range all[1:] {
		q := plan.Make(applied(t, j, a.Edits), shipped(t))
		if q.Totals.Posts != a.Posts || q.Totals.Bags != a.Bags || q.Totals.CutPieces != a.Cut || a.Clashes > all[0].Clashes || len(a.Drawing.Posts) != len(q.Runs[0].Posts) {
			t.Fatalf("job %d: %s says %d posts, %d bags, %d cut; taken, %d, %d and %d", n, a.ID, a.Posts, a.Bags, a.Cut, q.Totals.Posts, q.Totals.Bags, q.Totals.CutPieces)
		}
	}
}

// The two ends of a run are alike: what is given up where not everything can
// be met as well. But a post that landed takes the place of the post that was
// meant for it, and a remainder that is shared over two bays lies at one end.
func mirroredSpacing(t *testing.T, n int, j job.Job, p plan.Plan) {
	t.Helper()
	soft := slices.ContainsFunc(j.Lines[0].Runs[0].FixedPosts, func(f job.FixedPost) bool { return f.Landed && !f.Respace })
	if odd := j.Lines[0].Runs[0].Spacing.Remainder; soft && (odd == job.RemainderShared || odd == job.RemainderAway) {
		return
	}
	m := j
	m.Lines = []job.Line{j.Lines[0]}
	run := j.Lines[0].Runs[0]
	end := *run.Length
	run.KeepOuts, run.FixedPosts, run.HeldBays, run.Gates = slices.Clone(run.KeepOuts), slices.Clone(run.FixedPosts), slices.Clone(run.HeldBays), slices.Clone(run.Gates)
	for i := range run.KeepOuts {
		run.KeepOuts[i].At = end - run.KeepOuts[i].At
	}
	for i := range run.FixedPosts {
		run.FixedPosts[i].At = end - run.FixedPosts[i].At
	}
	for i := range run.HeldBays {
		run.HeldBays[i].At = end - run.HeldBays[i].At - run.HeldBays[i].Width
	}
	for i := range run.Gates {
		run.Gates[i].At = end - run.Gates[i].At
	}
	switch run.Spacing.Remainder {
	case job.RemainderFirst:
		run.Spacing.Remainder = job.RemainderLast
	case "", job.RemainderLast:
		run.Spacing.Remainder = job.RemainderFirst
	}
	m.Lines[0].Runs = []job.Run{run}
	q := plan.Make(m, shipped(t))
	a, b := p.Runs[0], q.Runs[0]
	given := func(p plan.Plan) (out []string) {
		out = append(out, plan.GivenUp(p)...)
		slices.Sort(out)
		return out
	}
	if x, y := given(p), given(q); !slices.Equal(x, y) {
		t.Fatalf("job %d: %v are given up, mirrored %v", n, x, y)
	}
	if len(a.Posts) != len(b.Posts) || p.Totals.CutPieces != q.Totals.CutPieces && a.Way != job.StockRails {
		t.Fatalf("job %d: %d posts and %d cut pieces, mirrored %d and %d", n, len(a.Posts), p.Totals.CutPieces, len(b.Posts), q.Totals.CutPieces)
	}
}

// A driven post has no hole; its collar is a disc of concrete less the post.
func TestDrivenPosts(t *testing.T) {
	cat := shipped(t)
	p := plan.Make(outfitted(t, "split-rail-steel", 60*length.Foot), cat)
	post := p.Runs[0].Posts[2]
	// 10 in across and deep, less a tube of 2 3/8 in that nothing goes into:
	// 785.4 in³ less 44.3 in³.
	want := (math.Pi*25 - math.Pi*2.375*2.375/4) * 10 * math.Pow(0.0254, 3)
	if !post.Driven || post.HoleWidth != 254 || post.HoleDepth != 254 || post.Gravel != 0 || math.Abs(float64(post.ConcreteVolume)-want) > 1e-7 || post.Stock == nil {
		t.Errorf("%+v, want %v m³", post, want)
	}
	mesh := plan.Make(outfitted(t, "light-mesh", 60*length.Foot), cat)
	for _, post := range mesh.Runs[0].Posts {
		if line := post.Kind == job.LinePost; line != (post.HoleDepth == 0) || line != (post.ConcreteVolume == 0) {
			t.Errorf("%s post: hole %v deep, %v m³", post.Kind, post.HoleDepth, post.ConcreteVolume)
		}
	}
	if n := len(mesh.Totals.Holes); n != 1 || mesh.Totals.Holes[0].Count != 2 {
		t.Errorf("holes %+v", mesh.Totals.Holes)
	}
}

// A clash with what is in the ground, from the words to the way out: a stretch
// of old footings too wide for any bay.
func TestBlockedSaysByHowMuchAndWhatFreesIt(t *testing.T) {
	cat := shipped(t)
	j := document.New("Footings", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(60 * length.Foot)
	// 10 ft of old footings: with 4 in of firm soil and half of a 12 in hole
	// either side (10.75 in rounded up to the auger), 11 ft 8 in.
	soil := 4 * inch
	run.Spacing.Soil = &soil
	run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Footing, Name: "old wall footing", At: 30 * length.Foot, Width: 10 * length.Foot}}
	p := plan.Make(j, cat)
	f := find(p, "blocked")
	if f == nil || f.Severity != finding.Cannot {
		t.Fatal("nothing is said")
	}
	if s := f.Says.Print(j.Units); !strings.Contains(s, "old wall footing") || !strings.Contains(s, `8' 0"`) {
		t.Errorf("it says: %s", s)
	}
	freed := map[string]bool{}
	for _, r := range f.Remedies {
		q := plan.Make(applied(t, j, r.Edits), cat)
		if find(q, "blocked") != nil && len(r.Edits) > 0 && !strings.Contains(r.Says.Print(j.Units), "firm soil") {
			t.Errorf("%s does not free it", r.Says.Print(j.Units))
		}
		freed[r.Edits[0].Path] = true
		if r.Cost == nil {
			t.Errorf("%s does not say what it costs", r.Says.Print(j.Units))
		}
	}
	if !freed["/lines/L1/runs/R1/spacing/most"] || !freed["/lines/L1/runs/R1/keepOuts/K1/repour"] {
		t.Errorf("ways out: %v", freed)
	}
	// By how much: the longest bay must reach over it.
	for _, r := range f.Remedies {
		if r.Edits[0].Path == "/lines/L1/runs/R1/spacing/most" {
			want := 10*length.Foot + 2*soil + p.Runs[0].Posts[1].HoleWidth
			if got := r.Edits[0].Value.(length.Length); got < want || got > want+inch/16 {
				t.Errorf("a bay of %v, want %v", got, want)
			}
		}
	}
}

// A gas pipe beside footings too wide to span: the footings are given up, the
// pipe never is.
func TestServicesAreGivenUpLast(t *testing.T) {
	cat := shipped(t)
	j := document.New("Gas", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(60 * length.Foot)
	for at := 20 * length.Foot; at <= 36*length.Foot; at += length.Foot / 2 {
		run.KeepOuts = []job.KeepOut{
			{ID: "K1", Kind: job.Service, Service: "gas", At: at, Hand: 457.2},
			{ID: "K2", Kind: job.Footing, Name: "old wall footing", At: 30 * length.Foot, Width: 10 * length.Foot},
		}
		p := plan.Make(j, cat)
		f := find(p, "blocked")
		if f == nil || strings.Contains(f.Says.Print(j.Units), "gas") || !strings.Contains(f.Says.Print(j.Units), "old wall footing") {
			t.Fatalf("pipe at %v: %+v", at, f)
		}
		for _, post := range p.Runs[0].Posts {
			if (post.Station - at).Abs() < post.HoleWidth/2-length.Tolerance {
				t.Fatalf("the hole of %s at %v runs into the gas pipe at %v", post.Label, post.Station, at)
			}
		}
	}
}

// The solver's answer on a run is what the run is planned with.
func TestLayoutIsTheSolvers(t *testing.T) {
	j := document.New("Pipe", length.Metric, shipped(t))
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(length.Length(11000)) // five bays of 2.2 m
	run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Service, Service: "gas", At: 4350, Width: 50}}
	p := plan.Make(j, shipped(t))
	// The hole is 300 wide, the pipe 50: the post that belongs at 4400 goes to 4525.
	want := spacing.Solve(spacing.Stretch{To: 11000, Most: 2400, Least: 800, Mark: j.Units.SmallestMark,
		Closed: []spacing.Closed{{From: 4175, To: 4525}}})
	for i, post := range p.Runs[0].Posts {
		if !length.Same(post.Station, want.Posts[i]) {
			t.Errorf("post %d at %v, the solver says %v", i, post.Station, want.Posts[i])
		}
	}
	if got := p.Runs[0].Posts[2].Station; got != 4525 {
		t.Errorf("the post beside the pipe stands at %v, by hand 4525", got)
	}
	if f := find(p, "shifted"); f == nil || !strings.Contains(f.Says.Print(j.Units), "125 mm") {
		t.Errorf("the shift is not said: %+v", f)
	}
}

func BenchmarkAlternatives(b *testing.B) {
	cat := shipped(b)
	j := demoJob(b, 0)
	for b.Loop() {
		if _, ok := plan.Alternatives(j, cat, "R3"); !ok {
			b.Fatal("no alternatives")
		}
	}
}

// A raked panel is as long as it is. On a slope of 7 in 24, whose hypotenuse
// is 25, panels of 2.5 m span 2.4 m level: ten fill 24 m. Stepped, they stand
// level, and nine fill 22.5 m of it.
func TestRakedPanelsLieAlongTheSlope(t *testing.T) {
	cat := shipped(t)
	j := outfitted(t, "panel-on-face-m", 24000)
	run := &j.Lines[0].Runs[0]
	run.Ground = []job.GroundPoint{{At: 0, Height: 0}, {At: 24000, Height: 7000}}
	run.Spacing.Piece, run.Grade.Rack = 2500, nil
	for look, want := range map[job.Look][2]int{job.Raked: {10, 0}, job.Stepped: {10, 1}} {
		run.Grade.Look = look
		p := plan.Make(j, cat)
		if r := p.Runs[0]; len(r.Bays) != want[0] || p.Totals.CutPieces != want[1] {
			t.Errorf("%s: %d bays, %d cut, want %v", look, len(r.Bays), p.Totals.CutPieces, want)
		}
		first := p.Runs[0].Bays[0].CentreToCentre
		if level := map[job.Look]length.Length{job.Raked: 2400, job.Stepped: 2500}[look]; !length.Same(first, level) {
			t.Errorf("%s: the first bay is %v level, want %v", look, first, level)
		}
		if m := p.Runs[0].SetOut.Marks[1]; look == job.Raked && !length.Same(m.Slope, 2500) {
			t.Errorf("the slope tape reads %v at the second post, want 2500", m.Slope)
		}
	}
	// Rails on stock lengths break where a full one ends along the slope.
	j = outfitted(t, "boards-on-rails-m", 24000)
	run = &j.Lines[0].Runs[0]
	run.Ground = []job.GroundPoint{{At: 0, Height: 0}, {At: 24000, Height: 7000}}
	run.Spacing.Piece = 5000
	for _, row := range plan.Make(j, cat).Runs[0].Rails {
		for i, piece := range row.Pieces {
			if inner := i > 0 && i < len(row.Pieces)-1; inner && !length.Same(piece.Length, 5000) {
				t.Errorf("row %d, piece %d is %v", row.Row, i, piece.Length)
			}
		}
	}
}

// A run spaced closer than its system needs: the layout with the fewest posts
// is among those worth having, and an all-even one where posts make way.
func TestAlternativesWorthHaving(t *testing.T) {
	cat := shipped(t)
	j := outfitted(t, "chain-link", 100*length.Foot)
	run := &j.Lines[0].Runs[0]
	run.Spacing.Most, run.Spacing.HandDig = 6*length.Foot, true
	run.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Service, Service: "water", At: 47 * length.Foot, Hand: 450}}
	all, _ := plan.Alternatives(j, cat, run.ID)
	by := map[string]plan.Alternative{}
	for _, a := range all {
		by[a.ID] = a
	}
	// 100 ft in bays of 10 ft: 11 posts instead of 18.
	if a, ok := by["fewest"]; !ok || a.Posts != 11 || all[0].Posts != 18 || a.Cost.Posts != -7 {
		t.Errorf("now %d posts; layouts %v: %+v", all[0].Posts, names(all), a.Cost)
	}
	run.Spacing.Most, run.Length = 10*length.Foot, ptr(96*length.Foot)
	run.KeepOuts[0].At = 48 * length.Foot // under the sixth post, which has 4.8 in to give
	all, _ = plan.Alternatives(j, cat, run.ID)
	i := slices.IndexFunc(all, func(a plan.Alternative) bool { return a.ID == "even" })
	if all[0].Odd == 0 || i < 0 || all[i].Odd != 0 || all[i].Cost.Posts < 1 {
		t.Errorf("now %d odd bays; layouts %v", all[0].Odd, names(all))
	}
	if _, ok := plan.Alternatives(j, cat, "R9"); ok {
		t.Error("layouts of a run that is not there")
	}
}

// Beside a gate the cut panel is out of sight: at the end of each stretch that
// is farther from it.
func TestNoCutPieceBesideTheGate(t *testing.T) {
	j := outfitted(t, "metal-panel", 60*length.Foot)
	run := &j.Lines[0].Runs[0]
	run.Gates = []job.Gate{{ID: "G1", At: 27 * length.Foot, Opening: 4 * length.Foot, Gap: 100}}
	for odd, beside := range map[job.Remainder]bool{job.RemainderLast: true, job.RemainderAway: false} {
		run.Spacing.Remainder = odd
		p := plan.Make(j, shipped(t)).Runs[0]
		gate := slices.IndexFunc(p.Bays, func(b plan.Bay) bool { return b.Gate != "" })
		if got := p.Bays[gate-1].PieceCut || p.Bays[gate+1].PieceCut; got != beside {
			t.Errorf("%s: a cut panel beside the gate: %v", odd, got)
		}
		if first, last := p.Bays[0].PieceCut, p.Bays[len(p.Bays)-1].PieceCut; odd == job.RemainderAway && !(first && last) {
			t.Errorf("away: the cut panels are not at the far ends: %v %v", first, last)
		}
	}
}

// Terminals stouter than line posts: the opening, the hole and the first bay
// go by the terminal's width, the rest by the line post's.
func TestTerminalsOfTheirOwnSize(t *testing.T) {
	j := outfitted(t, "chain-link", 40*length.Foot)
	run := &j.Lines[0].Runs[0]
	run.Gates = []job.Gate{{ID: "G1", At: 15 * length.Foot, Opening: 4 * length.Foot, Gap: 100}}
	p := plan.Make(j, shipped(t)).Runs[0]
	gate := p.Gates[0]
	a, z := find1(p, gate.First), find1(p, gate.Second)
	if got := z.Station - a.Station; !length.Same(got, 48*inch+2.375*inch) {
		t.Errorf("gate posts %v apart", got)
	}
	// 4 x 1 7/8 in = 7 1/2: the 8 in auger; 4 x 2 3/8 = 9 1/2: the 10 in one (ASTM F567, from memory).
	if line, end := p.Posts[1].HoleWidth, p.Posts[0].HoleWidth; !length.Same(line, 8*inch) || !length.Same(end, 10*inch) {
		t.Errorf("holes %v and %v", line, end)
	}
	if c := p.Bays[0]; !length.Same(c.CentreToCentre-c.Clear, (2.375+1.875)/2*inch) {
		t.Errorf("clear %v of %v", c.Clear, c.CentreToCentre)
	}
}

// A system's limits and cautions hold though the run's values were changed.
func TestSystemHoldsItsLimits(t *testing.T) {
	cat := shipped(t)
	j := outfitted(t, "pool-panel", 40*length.Foot)
	run := &j.Lines[0].Runs[0]
	if p := plan.Make(j, cat); find(p, "rack-over-system") != nil || find(p, "gap-over-system") != nil {
		t.Error("a run as the system sets it is found fault with")
	}
	rack := 20 * inch
	run.Grade.Rack, run.Fence.GapMost = &rack, 6*inch
	p := plan.Make(j, cat)
	for _, rule := range []string{"rack-over-system", "gap-over-system"} {
		f := find(p, rule)
		if f == nil {
			t.Fatalf("%s is not said", rule)
		}
		if find(plan.Make(applied(t, j, f.Remedies[0].Edits), cat), rule) != nil {
			t.Errorf("%s: its way out does not help", rule)
		}
	}
	said := ""
	for _, r := range p.Runs[0].Reminders {
		said += r.Says.Print(j.Units) + "\n"
	}
	for _, want := range []string{"A pool barrier saves lives", "Not packed in rock or gravel"} {
		if !strings.Contains(said, want) {
			t.Errorf("%q is not among the reminders:\n%s", want, said)
		}
	}
	// A user's own copy wins over the catalogue, and an unknown one is said.
	own, _ := cat.System("pool-panel", nil)
	own.ID, own.Cautions = "own-1", []string{"Ours."}
	j.Systems, run.System = []job.System{own}, "own-1"
	if p := plan.Make(j, cat); !slices.ContainsFunc(p.Runs[0].Reminders, func(c plan.Caution) bool { return c.Says.Print(j.Units) == "Ours." }) {
		t.Error("the job's own system is not found")
	}
	run.System = "gone"
	if f := find(plan.Make(j, cat), "system-unknown"); f == nil {
		t.Error("an unknown system is not said")
	}
}

func BenchmarkPlan10000Posts500InTheWay(b *testing.B) {
	cat := shipped(b)
	j := document.New("Long", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(9999 * 2400 * length.Millimetre)
	rng := rand.New(rand.NewPCG(1, 1))
	for i := range 500 {
		run.KeepOuts = append(run.KeepOuts, job.KeepOut{ID: fmt.Sprint("K", i), Kind: job.Service, Service: "water",
			At: *run.Length * length.Length(rng.Float64()), Width: length.Length(rng.Float64() * 300), Hand: 450})
	}
	b.ReportAllocs()
	for b.Loop() {
		plan.Make(j, cat)
	}
}

// Lines with corners, closed and open, on random ground, each run of another
// system: nothing is broken without a word, and corner posts are one post.
func TestPropertiesOfSpacingOnLines(t *testing.T) {
	cat := shipped(t)
	rng := rand.New(rand.NewPCG(17, 71))
	corners := 0
	for n := range sized(16, 6) {
		j := randomLines(t, rng)
		for l := range j.Lines {
			for r := range j.Lines[l].Runs {
				s := cat.Systems[rng.IntN(len(cat.Systems))]
				run := s.Outfit(j.Lines[l].Runs[r])
				run.Spacing.Remainder = []job.Remainder{job.RemainderLast, job.RemainderAway, job.RemainderShared}[rng.IntN(3)]
				run.Spacing.Turning = []job.Turning{job.Meeting, job.Overlapping}[rng.IntN(2)]
				if len(document.CheckRun("", run, j.Units)) == 0 {
					j.Lines[l].Runs[r] = run
				}
			}
		}
		if errs := document.Check(j); len(errs) > 0 {
			t.Fatal(errs)
		}
		p := plan.Make(j, cat)
		stakes(t, fmt.Sprint("lines ", n), j, p)
		posts := 0
		for i, run := range p.Runs {
			posts += run.Totals.Posts
			for _, post := range run.Posts {
				if post.Shared == "" {
					continue
				}
				corners++
				before := p.Runs[slices.IndexFunc(p.Runs, func(r plan.Run) bool { return r.ID == post.Shared })]
				last := before.Posts[len(before.Posts)-1]
				if last.HoleDepth != post.HoleDepth || last.Top != post.Top || last.ConcreteVolume != post.ConcreteVolume {
					t.Fatalf("lines %d: run %d's corner post is %+v, and %+v where it ends", n, i, post, last)
				}
			}
		}
		if posts != p.Totals.Posts {
			t.Fatalf("lines %d: %d posts on the runs, %d in all", n, posts, p.Totals.Posts)
		}
		remediesApply(t, n, j, p)
	}
	if corners < sized(20, 6) {
		t.Errorf("only %d corners", corners)
	}
}
