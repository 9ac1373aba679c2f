package plan_test

import (
	"math"
	"slices"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/reshape"
	"mallow/core/stage/curbing"
)

// curbed is a fence with a mowing curb along all of it.
func curbed(t testing.TB, c job.Curb, sides ...length.Length) job.Job {
	t.Helper()
	j := fenceOf(t, length.Imperial, "boards-on-rails", 6*ft, sides...)
	for r := range j.Lines[0].Runs {
		run := &j.Lines[0].Runs[r]
		run.Curb = ptr(c)
		run.Setting.Cover = ptr(length.Length(0))
	}
	if e := document.Check(j); len(e) > 0 {
		t.Fatal(e)
	}
	return j
}

func curbOf(t testing.TB, r *plan.Result, run int) *curbing.CurbPlan {
	t.Helper()
	c := r.Runs[run].Load.Curb
	if c == nil {
		t.Fatal("no curb")
	}
	return c
}

// A curb 12 in by 4 in by 80 ft is 80 × 1 × 1/3 = 26.67 ft³, just under a yard (by
// hand). Posts 3 1/2 in square, nine whole and two halves, take 10 of 0.0851 ft² × 1/3
// ft; their holes' concrete, which goes up to the ground, is counted with the holes:
// in a 12 in hole a ring of 0.7003 ft², less what of the post is more than the ring.
func TestCurbByHand(t *testing.T) {
	j := curbed(t, job.Curb{Past: ptr(length.Length(0))}, 80*ft)
	r := computed(t, j, nil)
	c := curbOf(t, r, 0)
	strip := 80.0 / 3
	post := 3.5 * 3.5 / 144
	hole := r.Runs[0].Load.Posts[0].HoleWidth.Inches()
	ring := math.Pi/4*hole*hole/144 - post
	if n := len(r.Runs[0].Load.Posts); n != 11 || math.Abs(hole-12) > 1e-9 || math.Abs(r.Runs[0].Load.Posts[0].Width.Inches()-3.5) > 1e-9 {
		t.Fatalf("%d posts in holes of %g in: the figures by hand are for others", n, hole)
	}
	const ft3 = 0.028316846592
	want := strip - 10*(post+ring)/3
	if got := float64(c.Concrete) / ft3; math.Abs(got-want) > 1e-6 {
		t.Errorf("the curb takes %.4f ft³, by hand %.4f", got, want)
	}
	if got := float64(c.InHoles) / ft3; math.Abs(got-10*ring/3) > 1e-6 {
		t.Errorf("%.4f ft³ of it are in the holes, by hand %.4f", got, 10*ring/3)
	}
	if all := float64(c.Concrete+c.InHoles)/ft3 + 10*post/3; math.Abs(all-26.6667) > 1e-3 {
		t.Errorf("curb, holes and posts in its section are %.4f ft³, not 26.67", all)
	}
	// 160 ft of boards and two ends of a foot; stakes every 3 ft: 27 spaces on each side.
	if !length.Same(c.Forms, 162*ft) || c.Stakes != 2*28 {
		t.Errorf("forms %v, stakes %d", c.Forms, c.Stakes)
	}
	// 4 in × 24 are 8 ft: a joint at every post but the ends, none between.
	joints := 0
	for _, m := range c.Marks {
		if m.Joint {
			joints++
		}
	}
	if joints != 9 || len(c.Marks) != 11 {
		t.Errorf("%d joints among %d marks", joints, len(c.Marks))
	}
	// The job's totals have it, and its bill.
	run := r.Runs[0].Load
	holes := length.Volume(0)
	for _, p := range run.Posts {
		holes += p.ConcreteVolume
	}
	if got := run.Totals.Concrete; math.Abs(float64(got-holes-c.Concrete)) > 1e-9 {
		t.Errorf("the run takes %v, its holes %v and the curb %v", got, holes, c.Concrete)
	}
	boards := 0.0
	for _, i := range r.Bill().Items {
		if i.ID == "form-boards" {
			boards = i.Bought[0].Count
		}
	}
	if boards != 11 || c.Boards != 11 { // 162 ft from boards of 16 ft
		t.Errorf("%g form boards", boards)
	}
}

// An end post stands in the curb: it goes on by half its width, as is usual.
func TestCurbGoesPastItsEnds(t *testing.T) {
	c := curbOf(t, computed(t, curbed(t, job.Curb{}, 80*ft), nil), 0)
	if !length.Same(c.Length, 81*ft) || !length.Same(c.Parts[0].From, -6*length.Inch) {
		t.Errorf("%v from %v", c.Length, c.Parts[0].From)
	}
}

// Corners count once: round a square of 40 ft the middles are 160 ft, and beside the
// posts by 4 in to the right, outside it, four times 8 in more.
func TestCurbCornersOnce(t *testing.T) {
	for _, c := range []struct {
		off  length.Length
		want length.Length
	}{{0, 160 * ft}, {-4 * length.Inch, 160*ft + 32*length.Inch}, {4 * length.Inch, 160*ft - 32*length.Inch}} {
		j := curbed(t, job.Curb{Off: c.off}, 40*ft, 40*ft, 40*ft, 40*ft)
		j.Lines[0].Closed = true
		r := computed(t, j, nil)
		sum, forms := length.Length(0), length.Length(0)
		for i := range r.Runs {
			o := curbOf(t, r, i)
			sum, forms = sum+o.Length, forms+o.Forms
		}
		if (sum-c.want).Abs() > length.Millimetre || (forms-2*c.want).Abs() > 2*length.Millimetre {
			t.Errorf("off %v: %v long, %v of forms; wanted %v", c.off, sum, forms, c.want)
		}
	}
	// Where the next run has none, it ends past the corner post.
	j := curbed(t, job.Curb{}, 40*ft, 40*ft)
	j.Lines[0].Runs[1].Curb = nil
	if c := curbOf(t, computed(t, j, nil), 0); !length.Same(c.Length, 41*ft) || c.Parts[0].End {
		t.Errorf("%v long, round the corner %v", c.Length, c.Parts[0].End)
	}
}

// What a neighbor gets or loses changes the curb: nothing is kept that is no longer so.
func TestCurbFollowsItsNeighbor(t *testing.T) {
	j := curbed(t, job.Curb{}, 40*ft, 40*ft)
	both := computed(t, j, nil)
	alone := curbed(t, job.Curb{}, 40*ft, 40*ft)
	alone.Lines[0].Runs[1].Curb = nil
	again := computed(t, alone, both)
	if a, b := curbOf(t, again, 0).Length, curbOf(t, computed(t, alone, nil), 0).Length; a != b || a == curbOf(t, both, 0).Length {
		t.Errorf("%v after a change, %v afresh, %v before", a, b, curbOf(t, both, 0).Length)
	}
}

// It stops at a gate, or goes through; and no joint is further from the next than it
// may be.
func TestCurbAtGatesAndJoints(t *testing.T) {
	gate := job.Gate{ID: "G1", At: 30 * ft, Opening: 4 * ft}
	for gates, parts := range map[job.CurbAtGates]int{job.CurbThrough: 1, job.CurbStops: 2} {
		j := curbed(t, job.Curb{Gates: gates, Joints: 5 * ft}, 80*ft)
		j.Lines[0].Runs[0].Gates = []job.Gate{gate}
		c := curbOf(t, computed(t, j, nil), 0)
		if len(c.Parts) != parts {
			t.Errorf("%s: %d parts", gates, len(c.Parts))
		}
		sum, pours := length.Length(0), length.Volume(0)
		for _, p := range c.Pours {
			sum, pours = sum+p.Length, pours+p.Volume
		}
		if (sum-c.Length).Abs() > 1e-6 || math.Abs(float64(pours-c.Concrete)) > 1e-9 {
			t.Errorf("%s: poured in %v and %v, in all %v and %v", gates, sum, pours, c.Length, c.Concrete)
		}
		for i := 1; i < len(c.Marks); i++ {
			inside := slices.ContainsFunc(c.Parts, func(p curbing.CurbPart) bool { return p.From < c.Marks[i-1].At && c.Marks[i].At < p.To })
			if d := c.Marks[i].At - c.Marks[i-1].At; inside && d > 5*ft+length.Tolerance {
				t.Errorf("%s: %v without a joint", gates, d)
			}
		}
	}
}

// Walked the other way the curb is the same, and lies on the other hand.
func TestCurbReversed(t *testing.T) {
	j := curbed(t, job.Curb{Off: 3 * length.Inch}, 50*ft, 30*ft)
	line, err := reshape.Reverse(j, 0)
	if err != nil {
		t.Fatal(err)
	}
	back := j
	back.Lines = []job.Line{line}
	a, b := computed(t, j, nil), computed(t, back, nil)
	if line.Runs[0].Curb.Off != -3*length.Inch || j.Lines[0].Runs[0].Curb.Off != 3*length.Inch {
		t.Errorf("reversed it lies %v to the left", line.Runs[0].Curb.Off)
	}
	if math.Abs(float64(a.Totals.CurbConcrete-b.Totals.CurbConcrete)) > 1e-9 || (a.Totals.CurbLength-b.Totals.CurbLength).Abs() > 1e-6 {
		t.Errorf("%v and %v, reversed %v and %v", a.Totals.CurbLength, a.Totals.CurbConcrete, b.Totals.CurbLength, b.Totals.CurbConcrete)
	}
}

// Posts and curb are more than one truck's time: it comes in two, and nothing of the
// second begins before it comes. All of the curb is placed.
func TestCurbOverTwoTrucks(t *testing.T) {
	j := curbed(t, job.Curb{}, 80*ft)
	j.Setting.Method = ptr(job.Stabbed)
	j.Pour = job.Pour{Date: "2027-05-03"}
	j.Weather = job.Weather{Offset: ptr(-5.0), Days: skies(8, 16, 20, 14)}
	d := dayOf(t, j)
	if d.By != job.ByTruck || len(d.Loads) != 2 || len(d.Left) != 0 {
		t.Fatalf("by %s, %d loads, left %v", d.By, len(d.Loads), d.Left)
	}
	if len(d.Curb) != 10 || len(d.Posts) != 11 {
		t.Fatalf("%d bays of curb, %d posts", len(d.Curb), len(d.Posts))
	}
	lastPost := ""
	for _, p := range d.Posts {
		lastPost = max(lastPost, p.Done)
	}
	volume := length.Volume(0)
	for _, p := range d.Posts {
		volume += p.Volume
	}
	for _, c := range d.Curb {
		volume += c.Volume
		if c.At < lastPost || c.Finish <= c.Done {
			t.Errorf("%s is placed at %s, the last post is in at %s; finished at %s", c.Bay, c.At, lastPost, c.Finish)
		}
		if c.At < d.Loads[c.Load-1].Comes {
			t.Errorf("%s is placed before its load comes", c.Bay)
		}
	}
	loads := length.Volume(0)
	for _, l := range d.Loads {
		loads += l.Volume
	}
	if math.Abs(float64(loads-volume)) > 1e-9 {
		t.Errorf("loads bring %v, posts and curb take %v", loads, volume)
	}
	// 81 ft at 6 minutes of one person a meter, three of them (by hand): 49.4 minutes.
	took := clock(t, d.Curb[9].Done).Sub(clock(t, d.Curb[0].At)).Minutes()
	if gap := clock(t, d.Loads[1].Comes).Sub(clock(t, d.Loads[0].Done)).Minutes(); math.Abs(took-49.4) > 1 && math.Abs(took-gap-49.4) > 1 {
		t.Errorf("the curb takes %.1f minutes", took)
	}
}

// The forms' marks make a table; the schedule has the forms before the pour and strips
// them after.
func TestCurbTable(t *testing.T) {
	j := curbed(t, job.Curb{}, 80*ft)
	p, err := plan.Worded(nil, j, shipped(t))
	if err != nil {
		t.Fatal(err)
	}
	table, ok := report.All(p, "curb")
	if !ok || len(table.Rows) != 11 || table.Name != "Mowing curb" {
		t.Errorf("%v %q with %d rows", ok, table.Name, len(table.Rows))
	}
	j.Days.Start, j.Site.Before.Services = "2027-05-03", true
	if p, err = plan.Worded(nil, j, shipped(t)); err != nil {
		t.Fatal(err)
	}
	at := map[string]string{}
	for _, k := range p.Schedule.Tasks {
		at[k.ID] = k.Begin
	}
	if at["forms"] == "" || at["forms"] >= at["pour"] || at["strip"] <= at["pour"] {
		t.Errorf("forms %q, pour %q, strip %q", at["forms"], at["pour"], at["strip"])
	}
}

// Posts of two runs, the corner post once: strips, less what is counted in the holes and
// the posts' sections, are the concrete; the trench is the strips less the holes; and
// what is dug for it counts in the totals.
func TestCurbPostsOnce(t *testing.T) {
	j := curbed(t, job.Curb{}, 40*ft, 40*ft)
	r := computed(t, j, nil)
	strips, concrete, dug, posts := 0.0, 0.0, 0.0, 0
	for i := range r.Runs {
		c, run := curbOf(t, r, i), r.Runs[i].Load
		strips += c.Length.Metres() * 0.3048 * 0.1016
		concrete += float64(c.Concrete + c.InHoles)
		dug += float64(c.Dug)
		holes, spoil := length.Volume(0), length.Volume(0)
		for _, p := range run.Posts {
			if p.Shared == "" {
				posts++
				holes += run.Designs[p.Card].Fill.Dug
				spoil += run.Cards[p.Card].Spoil
			}
		}
		if got := run.Totals.Dug - holes; math.Abs(float64(got-c.Dug)) > 1e-9 {
			t.Errorf("%v is dug beside the holes, %v for the curb", got, c.Dug)
		}
		if got := run.Totals.Spoil - spoil; math.Abs(float64(got-c.Dug*length.Volume(1+run.Soil.Bulking))) > 1e-9 {
			t.Errorf("%v is hauled beside the holes' soil", got)
		}
		if run.Totals.CurbLength != c.Length {
			t.Errorf("the totals have %v of curb", run.Totals.CurbLength)
		}
	}
	if posts != 11 {
		t.Fatalf("%d posts", posts)
	}
	if want := strips - 11*0.0889*0.0889*0.1016; math.Abs(concrete-want) > 1e-9 {
		t.Errorf("concrete of curb and holes in it %.5f m³, by hand %.5f", concrete, want)
	}
	if want := strips - 11*math.Pi*0.1524*0.1524*0.1016; math.Abs(dug-want) > 1e-9 {
		t.Errorf("trench %.5f m³, by hand %.5f", dug, want)
	}
}

// What stands beside a post, by hand: half of 12 in, less 2 in aside, less half a post;
// the least gap is that of the bay that is lowest. The ways out do what they say.
func TestCurbFindingsAndWaysOut(t *testing.T) {
	j := curbed(t, job.Curb{Off: 2 * length.Inch}, 80*ft)
	if c := curbOf(t, computed(t, j, nil), 0); !length.Same(c.Beside, 2.25*length.Inch) {
		t.Errorf("%v beside a post", c.Beside)
	}
	for _, c := range []struct {
		rule string
		curb job.Curb
	}{
		{"curb-beside", job.Curb{Width: 6 * length.Inch}},
		{"curb-beside", job.Curb{Width: 8 * length.Inch, Off: -2 * length.Inch}},
		{"curb-rail", job.Curb{Above: 45}},
	} {
		j := curbed(t, c.curb, 80*ft)
		j.Lines[0].Runs[0].Ground = []job.GroundPoint{{ID: "a", At: 0}, {ID: "b", At: 40 * ft, Height: 120}, {ID: "c", At: 80 * ft, Height: 60}}
		r := computed(t, j, nil)
		curb, least := curbOf(t, r, 0), length.Length(math.Inf(1))
		for i := range r.Runs[0].Load.Bays {
			least = min(least, r.Runs[0].Load.Bays[i].GapLeast.Gap-curb.Above)
		}
		if curb.Least != least {
			t.Errorf("least gap %v, of all bays %v", curb.Least, least)
		}
		found := false
		if err := r.Advise(nil, nil, func(a plan.Advised) error {
			for _, f := range r.Figures().Findings {
				if f.ID != a.ID || f.Rule != c.rule {
					continue
				}
				found = true
				for _, way := range a.Remedies {
					then := computed(t, wayTaken(t, j, way), nil)
					if slices.ContainsFunc(then.Figures().Findings, func(o finding.Finding) bool { return o.Rule == c.rule }) {
						t.Errorf("%s is still found after: %s", c.rule, way.Says.Print(j.Units))
					}
				}
			}
			return nil
		}); err != nil {
			t.Fatal(err)
		}
		if !found {
			t.Errorf("%s is not found, or nothing helps", c.rule)
		}
	}
}

// A joint every 24 times the depth at most: 3 1/2 in are 7 ft, one between posts 8 ft
// apart. Posts that are braced come by truck where there is a curb.
func TestCurbUsualJointsAndTruck(t *testing.T) {
	j := curbed(t, job.Curb{Depth: 3.5 * length.Inch}, 80*ft)
	if c := curbOf(t, computed(t, j, nil), 0); len(c.Marks) != 11+10 {
		t.Errorf("%d marks", len(c.Marks))
	}
	j.Setting.Method = ptr(job.Braced)
	if d := dayOf(t, j); d.By != job.ByTruck {
		t.Errorf("by %s", d.By)
	}
	j.Lines[0].Runs[0].Curb = nil
	if d := dayOf(t, j); d.By != job.ByBags {
		t.Errorf("without a curb by %s", d.By)
	}
}

// A curb that stands over the ground by its whole depth is refused, with what is allowed.
func TestCurbStandsInTheGround(t *testing.T) {
	j := fenceOf(t, length.Imperial, "boards-on-rails", 6*ft, 80*ft)
	j.Lines[0].Runs[0].Curb = &job.Curb{Above: 4 * length.Inch}
	e := document.Check(j)
	if len(e) != 1 || e[0].Field != "/lines/L1/runs/R1/curb/above" || e[0].Allowed != `less than its depth, 4"` {
		t.Errorf("%v", e)
	}
	j.Lines[0].Runs[0].Curb.Above = 3.9 * length.Inch
	if e := document.Check(j); len(e) != 0 {
		t.Errorf("%v", e)
	}
}

// The crew's own minutes go before the usual ones: at twice as many, posts and curb take
// twice as long; each kind of work that there is says which it takes.
func TestOwnPourRates(t *testing.T) {
	j := curbed(t, job.Curb{}, 80*ft)
	j.Setting.Method = ptr(job.Stabbed)
	j.Pour = job.Pour{By: job.ByTruck}
	was := dayOf(t, j)
	if len(was.Rates) != 2 || was.Rates[0].Method != job.Stabbed || was.Rates[0].Own || was.Rates[1].Name != "Mowing curb" {
		t.Fatalf("%+v", was.Rates)
	}
	j.Pour.Rates = []job.PourRate{{Method: job.Stabbed, Place: 2 * was.Rates[0].Usual}}
	j.Pour.Curb = ptr(2 * was.Rates[1].Usual)
	now := dayOf(t, j)
	if math.Abs(now.PerHour-was.PerHour/2) > 1e-9 || math.Abs(now.Minutes-2*was.Minutes) > 1e-9 {
		t.Errorf("%v an hour and %v minutes, usual %v and %v", now.PerHour, now.Minutes, was.PerHour, was.Minutes)
	}
	for i, r := range now.Rates {
		if !r.Own || r.Minutes != 2*r.Usual || r.Usual != was.Rates[i].Usual {
			t.Errorf("%+v", r)
		}
	}
}
