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
	"mallow/core/reshape"
)

const (
	in = length.Inch
	ft = length.Foot
)

// gateJob is one gate on a level run of 40 ft, with 6 in posts.
func gateJob(t testing.TB, gate string) job.Job {
	t.Helper()
	return decode(t, `{"mallow":1,"name":"Gate","units":{"system":"imperial","smallestMark":1.5875},"site":{"frostDepth":914.4,"soil":"sand"},
		"lines":[{"id":"L1","runs":[{"id":"R1","length":12192,"ground":[{"at":0,"height":0}],"spacing":{"most":2438.4},
		"fence":{"height":1828.8},"grade":{"look":"level"},"post":{"width":152.4,"trim":0,"cut":"first","stock":[2743.2,3048,3657.6]},"gates":[`+gate+`]}]}]}`)
}

func onlyGate(t testing.TB, j job.Job) plan.Gate {
	t.Helper()
	p := plan.Make(j, shipped(t))
	for _, r := range p.Runs {
		if len(r.Gates) > 0 {
			return r.Gates[0]
		}
	}
	t.Fatalf("no gate was planned: %+v", p.Findings)
	return plan.Gate{}
}

// Handbook of the trade (common practice): two leaves totalling 20 ft, gaps
// 8 1/2 in, 6 in posts: inside 248 1/2 in, centre 254 1/2, outside 260 1/2.
// And J bolts take 4 1/2 in of a single gate. The posts stand so on the run.
func TestThreePostDistances(t *testing.T) {
	j := gateJob(t, `{"id":"G1","at":6096,"opening":1000,"leaves":2,"leaf":3048,"gap":101.6}`)
	g := onlyGate(t, j)
	near(t, "inside, in", g.Opening.Inches(), 248.5, 1e-9)
	near(t, "centre, in", g.Centre.Inches(), 254.5, 1e-9)
	near(t, "outside, in", g.Outside.Inches(), 260.5, 1e-9)
	if g.SizedBy != "leaf" || len(g.Leaves) != 2 || !length.Same(g.Leaves[1].Width, 10*ft) {
		t.Errorf("%+v", g)
	}
	run := plan.Make(j, shipped(t)).Runs[0]
	first, second := find1(run, g.First), find1(run, g.Second)
	near(t, "posts apart, in", (second.Station - first.Station).Inches(), 254.5, 1e-9)
	near(t, "face to face, in", run.Bays[gateBay(run)].Clear.Inches(), 248.5, 1e-9)
	single := onlyGate(t, gateJob(t, `{"id":"G1","at":6096,"opening":1000,"leaf":914.4,"gap":101.6}`))
	near(t, "single inside, in", single.Opening.Inches(), 40.5, 1e-9)
}

func gateBay(run plan.Run) int {
	for i, b := range run.Bays {
		if b.Gate != "" {
			return i
		}
	}
	return -1
}

// Handbook of the trade (common practice): a 9 ft post, a leaf 6 ft at the
// hinge and a gap of 6 in leave 30 in in the ground. The other way round: 30 in
// asked for take a 9 ft post.
func TestPostLengthBothWaysRound(t *testing.T) {
	j := gateJob(t, `{"id":"G1","at":6096,"opening":1219.2,"gap":152.4}`)
	// Alone, so that nothing but the leaf sets the tops.
	run := &j.Lines[0].Runs[0]
	run.Length = ptr(run.Gates[0].Inside() + 152.4)
	run.Gates[0].At = *run.Length / 2
	run.Fence.Height = 6 * ft
	run.Fence.GapLeast, run.Fence.GapMost = 6*in, 6*in
	run.Hole = job.HoleRules{Depth: ptr(30 * in)}
	g := onlyGate(t, j)
	if !length.Same(g.Leaf, 6*ft) {
		t.Fatalf("leaf %v", g.Leaf)
	}
	found := 0
	for _, l := range g.Lengths {
		if length.Same(l.Length, 9*ft) {
			found++
			near(t, "in the ground, in", l.Foot.Inches(), 30, 1e-6)
			if !l.Enough || !l.Taken {
				t.Errorf("%+v", l)
			}
		}
	}
	if found != 2 {
		t.Errorf("9 ft posts: %d of 2 in %+v", found, g.Lengths)
	}
	// Taking a longer post sets it as deep as it reaches.
	for _, l := range g.Lengths {
		if length.Same(l.Length, 12*ft) {
			then := plan.Make(applied(t, j, l.Edits), shipped(t)).Runs[0]
			if p := find1(then, l.Post); !length.Same(p.Foot, l.Foot) || !length.Same(*p.Stock, 12*ft) {
				t.Errorf("set %v deep, want %v, of stock %v", p.Foot, l.Foot, *p.Stock)
			}
		}
	}
}

// clearBy turns the leaf as a rectangle and looks how far it stands in the way
// at the opening's middle line: another way to the clear width.
func clearBy(g job.Gate) float64 {
	inside := float64(g.Inside())
	left := inside
	for range g.LeafCount() {
		widest := 0.0
		a := g.OpensTo() * math.Pi / 180
		for i, w := range g.LeafWidths() {
			if i > 0 {
				break
			}
			for _, s := range []float64{float64(g.Hardware.Pin), float64(g.Hardware.Pin + w)} {
				for _, n := range []float64{-float64(g.Thick) / 2, float64(g.Thick) / 2} {
					widest = max(widest, float64(g.Hardware.Hinge-g.Hardware.Pin)+s*math.Cos(a)-n*math.Sin(a))
				}
			}
		}
		left -= widest
	}
	return left
}

// Any one of leaf, clear way and inside measure gives the other two, and each
// of them leads back to the same gate.
func TestAnyMeasureGivesTheOthers(t *testing.T) {
	rng := rand.New(rand.NewPCG(2, 8))
	usual := shipped(t).UsualGate(length.Imperial)
	for range 500 {
		g := usual
		g.Opening = length.Length(800 + 5000*rng.Float64())
		g.Leaves = 1 + rng.IntN(2)
		g.Open = 45 + 135*rng.Float64()
		g.Thick = length.Length(20 + 80*rng.Float64())
		set := shipped(t).Hardware
		g.Hardware = set[rng.IntN(len(set))].Takes
		near(t, "clear way by a turned rectangle", float64(g.ClearWay()), clearBy(g), 1e-6)
		inside, widths, clear := g.Inside(), g.LeafWidths(), g.ClearWay()
		byLeaf, byClear := g, g
		byLeaf.Opening, byLeaf.Leaf = 999, ptr(widths[0])
		byClear.Opening, byClear.Clear = 999, ptr(clear)
		for _, o := range []job.Gate{byLeaf, byClear} {
			near(t, "inside", float64(o.Inside()), float64(inside), 1e-6)
			near(t, "clear", float64(o.ClearWay()), float64(clear), 1e-6)
			near(t, "leaf", float64(o.LeafWidths()[0]), float64(widths[0]), 1e-6)
		}
		if g.Leaves == 2 {
			uneven := byLeaf
			uneven.Second = ptr(widths[0] / 2)
			near(t, "unequal leaves", float64(uneven.Inside()), float64(widths[0])*1.5+float64(g.Gaps()), 1e-6)
			if back := uneven.Reversed(9000).Reversed(9000); !length.Same(back.Inside(), uneven.Inside()) || !length.Same(*back.Leaf, *uneven.Leaf) || !length.Same(*back.Second, *uneven.Second) {
				t.Errorf("turned round twice: %+v", back)
			}
			if turned := uneven.Reversed(9000).LeafWidths(); !length.Same(turned[0], widths[0]/2) {
				t.Errorf("turned round, the first leaf is %v", turned[0])
			}
		}
	}
}

// risingDrive is the gate of the trade's rule: a 10 ft leaf over ground that
// rises 8 in inside.
const risingDrive = `{"id":"G1","name":"Drive","at":6096,"opening":3162.3,"leaves":1,"gap":101.6,"use":"vehicle","weight":60,
	"hardware":{"kind":"","hinge":76.2,"latch":38.1,"meeting":50.8,"pin":0,"pitch":2.3,"travel":38},"in":[{"off":3048,"first":203.2}]}`

// A drive that rises 8 in over a 10 ft leaf (common practice): a gap of 4 in
// strikes, one of 9 in is what is offered. Every way out does what it says.
func TestRisingDriveStrikesAndIsCleared(t *testing.T) {
	j := gateJob(t, risingDrive)
	p := plan.Make(j, shipped(t))
	f := find(p, "leaf-strikes")
	if f == nil || f.Severity != finding.Cannot || f.Stage != finding.Gates {
		t.Fatalf("%+v", p.Findings)
	}
	side := p.Runs[0].Gates[0].Leaves[0].Sides[0]
	near(t, "left under it, in", side.Gap.Inches(), -4, 0.01)
	if side.Clears {
		t.Error("it is said to clear")
	}
	near(t, "touches at, degrees", *side.Touch, 30, 0.1)
	near(t, "short from, degrees: sin is (4-1)/8", *side.Short, math.Asin(3.0/8)*180/math.Pi, 0.1)
	said := map[string]bool{}
	for _, r := range f.Remedies {
		text := r.Says.Print(j.Units)
		then := plan.Make(applied(t, j, r.Edits), shipped(t))
		if again := find(then, "leaf-strikes"); again != nil {
			t.Errorf("%s: still %s", text, again.Says.Print(j.Units))
		}
		g := then.Runs[0].Gates[0]
		for _, l := range g.Leaves {
			for _, s := range l.Sides {
				if !s.Clears || s.Gap < s.Wanted-0.11 {
					t.Errorf("%s: %v left", text, s.Gap)
				}
			}
		}
		switch {
		case strings.HasPrefix(text, "Swing it out"):
			said["out"] = g.Swing == job.SwingOut
		case strings.HasPrefix(text, "Two leaves"):
			said["two"] = len(g.Leaves) == 2 && length.Same(g.Opening, 3162.3)
		case strings.HasPrefix(text, "A gap of"):
			near(t, "gap offered, in", (g.Bottom - g.Highest).Inches(), 9, 1.0/16)
			said["gap"] = true
		case strings.HasPrefix(text, "Rising hinges"):
			// At each angle θ the tip needs (8 sin θ − 3) in, of a lift that
			// grows evenly to its whole at 90°.
			most := 0.0
			for a := 1.0; a <= 90; a += 0.01 {
				most = max(most, (8*math.Sin(a*math.Pi/180)-3)*90/a)
			}
			near(t, "lift, in, up to the next sixteenth", g.Leaves[0].Lift.Inches(), most+1.0/32, 1.0/32)
			said["rising"] = true
		case strings.HasPrefix(text, "Cut the ground"):
			s := g.Leaves[0].Sides[0]
			near(t, "cut, in", s.Cut.Inches(), 5, 0.01)
			said["cut"] = s.Earth > 0 && s.IsCut && then.Runs[0].Totals.Cut >= s.Earth
		}
	}
	for _, way := range []string{"out", "two", "gap", "rising", "cut"} {
		if !said[way] {
			t.Errorf("way out %q is not offered, or does not do what it says", way)
		}
	}
	// Snow asks for as much more.
	j.Lines[0].Runs[0].Gates[0].Gap, j.Lines[0].Runs[0].Gates[0].Snow = 9*in+1.6, 3*in
	if s := onlyGate(t, j).Leaves[0].Sides[0]; !length.Same(s.Wanted, 4*in) || s.Short == nil || s.Touch != nil {
		t.Errorf("under 3 in of snow: %+v", s)
	}
}

// A crowned drive is highest under the middle of the closed gate: its gap is
// measured there.
func TestGapOverACrown(t *testing.T) {
	g := onlyGate(t, gateJob(t, `{"id":"G1","at":6096,"opening":3657.6,"gap":101.6,"crown":76.2,"leaves":2}`))
	near(t, "bottom over the edges, in", g.Bottom.Inches(), 7, 1e-6)
	for _, l := range g.Leaves {
		near(t, "least gap, in", l.Sides[0].Gap.Inches(), 4, 0.05)
	}
}

// every is a job in which each finding about gates comes up, by its rule.
var every = map[string]string{
	"leaf-strikes":    risingDrive,
	"gate-room":       `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"roomIn":800}`,
	"gate-into-road":  `{"id":"G1","at":6096,"opening":2000,"gap":101.6,"leaves":1,"use":"walk","swing":"out","road":1500}`,
	"set-back":        `{"id":"G1","at":6096,"opening":3657.6,"gap":101.6,"leaves":1,"swing":"out","out":[{"off":4000,"first":0}],"road":6000,"vehicle":{"length":5000}}`,
	"road-unmeasured": `{"id":"G1","at":6096,"opening":3657.6,"gap":101.6,"vehicle":{"length":5000}}`,
	"gate-narrow":     `{"id":"G1","at":6096,"opening":2743.2,"gap":101.6,"use":"vehicle"}`,
	"run-back":        `{"id":"G1","at":9000,"opening":3657.6,"gap":101.6,"kind":"slide"}`,
	"hinges":          `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"hingeIn":900}`,
	"latch-off-leaf":  `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"latch":2500}`,
	"hinge-post":      `{"id":"G1","at":6096,"opening":3657.6,"gap":101.6,"leaves":1,"weight":300,"hardware":{"kind":"weld-on","hinge":63.5,"latch":25.4,"meeting":38.1,"pin":31.75,"pitch":2.54,"travel":25.4}}`,
	"hardware-weak":   `{"id":"G1","at":6096,"opening":3657.6,"gap":101.6,"leaves":1,"weight":200}`,
	"tip-drop":        `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"sag":76.2}`,
	"pool-swing":      `{"id":"G1","at":6096,"opening":1219.2,"gap":50.8,"pool":true,"latch":1400}`,
	"pool-latch":      `{"id":"G1","at":6096,"opening":1219.2,"gap":50.8,"pool":true,"swing":"out"}`,
	"pool-gap":        `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"pool":true,"swing":"out","latch":1400}`,
	"animals-gap":     `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"animals":true}`,
}

// Each finding about gates comes up where it should, not on a plain gate, and
// each of its ways out makes it go away.
func TestGateFindingsAndTheirWaysOut(t *testing.T) {
	plain := plan.Make(gateJob(t, `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6}`), shipped(t))
	ways := 0
	for rule, doc := range every {
		j := gateJob(t, doc)
		f := find(plan.Make(j, shipped(t)), rule)
		if f == nil {
			t.Errorf("%s does not come up", rule)
			continue
		}
		if find(plain, rule) != nil {
			t.Errorf("%s comes up at a plain gate", rule)
		}
		for _, r := range f.Remedies {
			ways++
			if again := find(plan.Make(applied(t, j, r.Edits), shipped(t)), rule); again != nil {
				t.Errorf("%s: %s: %s", rule, r.Says.Print(j.Units), again.Says.Print(j.Units))
			}
		}
	}
	if ways < 19 {
		t.Errorf("only %d ways out were offered", ways)
	}
}

// Set-back by hand: 16 ft of vehicle, 10 of trailer, and a leaf that swings 12
// ft toward it; swung in it needs the swing no more.
func TestSetBackByHand(t *testing.T) {
	doc := `{"id":"G1","at":6096,"opening":3772,"gap":101.6,"leaves":1,"swing":"%s","open":90,"road":6000,"vehicle":{"length":4876.8,"trailer":3048},
		"hardware":{"hinge":76.2,"latch":38.1,"meeting":50.8,"pin":0}}`
	for swing, want := range map[string]length.Length{"out": 16*ft + 10*ft + 3772 - 114.3, "in": 26 * ft} {
		if g := onlyGate(t, gateJob(t, fmt.Sprintf(doc, swing))); g.SetBack == nil || !length.Same(g.SetBack.Needed, want) {
			t.Errorf("%s: %+v, want %v", swing, g.SetBack, want)
		}
	}
}

// Statics by hand: a leaf of 100 lb, 4 ft wide, 5 ft high with hinges 8 in in:
// 100 × 2 = 200 lb·ft; over 44 in that is 54.5 lb. Marks measured up from the
// ground and down from the reference mark meet.
func TestHangingByHand(t *testing.T) {
	j := gateJob(t, `{"id":"G1","at":6096,"opening":1333.5,"gap":101.6,"weight":45.359237,"sag":12.7}`)
	run := &j.Lines[0].Runs[0]
	run.Fence.Height, run.Fence.GapLeast, run.Fence.GapMost = 5*ft, 4*in, 4*in
	p := plan.Make(j, shipped(t))
	g := p.Runs[0].Gates[0]
	l := g.Leaves[0]
	near(t, "leaf, ft", float64(l.Width/ft), 4, 1e-9)
	near(t, "leaf high, ft", float64(l.Height/ft), 5, 1e-9)
	near(t, "moment, lb ft", l.Moment/1.3558179483314004, 200, 1e-6)
	near(t, "hinge pull, lb", l.Pull/4.4482216152605, 200*12/44.0, 1e-6)
	for k, want := range []float64{4 + 8, 4 + 60 - 8} {
		h := l.Hinges[k]
		near(t, h.Name+" above ground, in", h.Above.Inches(), want, 1e-6)
		near(t, h.Name+" to the reference mark", float64(h.Above+h.FromMark), float64(find1(p.Runs[0], l.Post).Mark), 1e-6)
	}
	if l.Hinges[0].Pin != "up" || l.Hinges[1].Pin != "down" {
		t.Errorf("pins are not opposed: %+v", l.Hinges)
	}
	// Half an inch at the tip is 1/2 × 44/48 in at the top hinge; 11 threads
	// to the inch make it 5.04 turns. Back again: x times width over spacing.
	near(t, "bolt in, in", l.Adjust.In.Inches(), 0.5*44/48, 1e-9)
	near(t, "turns", l.Adjust.Turns, 0.5*44/48*11, 0.01)
	near(t, "lifts again, in", (l.Adjust.In * l.Width / l.Spacing).Inches(), 0.5, 1e-9)
	if !l.Adjust.Enough {
		t.Error("the bolt has 1 1/2 in")
	}
	// Blocks on level ground are the gap; the diagonal by Pythagoras.
	for _, b := range l.Blocks {
		near(t, b.Name, b.Height.Inches(), 4, 1e-6)
	}
	near(t, "diagonal, in", g.Checks[2].Length.Inches(), math.Hypot(52.5, 60), 1e-6)
	near(t, "brace, in", l.Brace.Length.Inches(), math.Hypot(48, 60), 1e-6)
}

// A leaf hangs on the hinge post alone: what only hinge posts ask for is not
// asked of the latch post.
func TestHingePostsGoDeeper(t *testing.T) {
	for _, c := range []struct {
		gate  string
		extra [2]length.Length
	}{
		{`{"id":"G1","at":6096,"opening":1219.2,"gap":101.6}`, [2]length.Length{9 * in, 0}},
		{`{"id":"G1","at":6096,"opening":1219.2,"gap":101.6,"hinge":"second"}`, [2]length.Length{0, 9 * in}},
		{`{"id":"G1","at":6096,"opening":3657.6,"gap":101.6,"leaves":2}`, [2]length.Length{9 * in, 9 * in}},
		{`{"id":"G1","at":4000,"opening":2743.2,"gap":101.6,"kind":"slide"}`, [2]length.Length{0, 0}},
	} {
		j := gateJob(t, c.gate)
		before := plan.Make(j, shipped(t)).Runs[0]
		j.Lines[0].Runs[0].Hole.HingeExtraDepth = ptr(9 * in)
		j.Lines[0].Runs[0].Hole.HingeExtraWidth = ptr(6 * in)
		after := plan.Make(j, shipped(t)).Runs[0]
		k := gateBay(after)
		for end := range 2 {
			a, b := before.Posts[k+end], after.Posts[k+end]
			if !length.Same(b.Foot-a.Foot, c.extra[end]) || (b.HoleWidth > a.HoleWidth) != (c.extra[end] > 0) || b.Hung != (c.extra[end] > 0) {
				t.Errorf("%s: post %d: %v deeper, %v wide from %v, hung %v", c.gate, end, b.Foot-a.Foot, b.HoleWidth, a.HoleWidth, b.Hung)
			}
		}
	}
}

// A gate can be put wherever the run offers one, and the fence re-spaces on
// both sides of it.
func TestGatesAreAddedWhereTheyAreOffered(t *testing.T) {
	j := gateJob(t, `{"id":"G1","at":6096,"opening":1219.2,"gap":101.6}`)
	j.Lines[0].Runs[0].Gates = nil
	run := plan.Make(j, shipped(t)).Runs[0]
	seen := map[string]bool{}
	for _, n := range run.AddGate {
		if n.Refused != "" {
			if n.ID != "across" {
				t.Errorf("%s is refused: %s", n.ID, n.Refused)
			}
			continue
		}
		seen[n.ID] = true
		then := plan.Make(applied(t, j, n.Edits), shipped(t)).Runs[0]
		if len(then.Gates) != 1 || then.Gates[0].ID != n.Gate {
			t.Fatalf("%s: %+v", n.ID, then.Gates)
		}
		g, last := then.Gates[0], then.Posts[len(then.Posts)-1].Label
		if (n.ID == "start") != (g.First == "P1") || (n.ID == "end") != (g.Second == last) {
			t.Errorf("%s: between %s and %s of %s", n.ID, g.First, g.Second, last)
		}
		for _, b := range then.Bays {
			if b.Gate == "" && b.CentreToCentre > 2438.4+0.01 {
				t.Errorf("%s: a bay of %v", n.ID, b.CentreToCentre)
			}
		}
	}
	if len(seen) != 5 {
		t.Errorf("offered: %v", seen)
	}
	j.Lines[0].Runs[0].Length = ptr(length.Length(3600))
	for _, n := range plan.Make(j, shipped(t)).Runs[0].AddGate {
		if n.ID != "across" {
			continue
		}
		then := plan.Make(applied(t, j, n.Edits), shipped(t)).Runs[0]
		if len(then.Posts) != 2 || len(then.Bays) != 1 || then.Bays[0].Gate == "" {
			t.Errorf("a gate across the whole run: %d posts", len(then.Posts))
		}
	}
}

// atCorner is a gate beside a corner, whose leaf swings toward the next run.
const atCorner = `{"mallow":1,"name":"Corner","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"L1","inside":"left","runs":[
	{"id":"R1","name":"Front","length":6000,"gates":[{"id":"G1","name":"Side","at":%g,"opening":1500,"gap":100,"hinge":"%s"}]},
	{"id":"R2","name":"Flank","length":6000,"corner":{"by":"deflection","side":"left","angle":%g}}]}]}`

// Near a sharp corner a leaf that swings in strikes the next run: it is found,
// at the angle that a tape on the map shows, and its ways out help.
func TestLeafStrikesTheNextRun(t *testing.T) {
	j := decode(t, fmt.Sprintf(atCorner, 5100.0, "second", 135.0))
	p := plan.Make(j, shipped(t))
	f := find(p, "leaf-hits")
	if f == nil {
		t.Fatalf("%+v", p.Findings)
	}
	// The flank comes back at 45° from the corner, which lies c before the pin:
	// the tip, R out, meets it where (s − c)² + s² = R², at an angle from the
	// closed leaf whose tangent is s/(s − c).
	l := p.Runs[0].Gates[0].Leaves[0]
	c, r := 6000-float64(l.Pin), float64(l.Reach)
	s := (c + math.Sqrt(2*r*r-c*c)) / 2
	struck := l.Sides[0].Struck
	near(t, "strikes at, degrees", struck.Angle, math.Atan2(s, s-c)*180/math.Pi, 0.01)
	if !strings.Contains(struck.What, "Flank") {
		t.Errorf("strikes %s", struck.What)
	}
	if len(f.Remedies) < 2 {
		t.Errorf("ways out: %d", len(f.Remedies))
	}
	for _, r := range f.Remedies {
		if again := find(plan.Make(applied(t, j, r.Edits), shipped(t)), "leaf-hits"); again != nil {
			t.Errorf("%s: %s", r.Says.Print(j.Units), again.Says.Print(j.Units))
		}
	}
	if f := find(plan.Make(decode(t, fmt.Sprintf(atCorner, 5100.0, "second", 90.0)), shipped(t)), "leaf-hits"); f != nil {
		t.Errorf("at a right angle it opens square: %s", f.Says.Print(j.Units))
	}
	if f := find(plan.Make(decode(t, fmt.Sprintf(atCorner, 2000.0, "second", 135.0)), shipped(t)), "leaf-hits"); f != nil {
		t.Errorf("far from the corner: %s", f.Says.Print(j.Units))
	}
}

// A line walked the other way has the same gates: same leaves on the same
// posts, same swing over the same ground, same marks. In the other units too.
func TestGatesAreTheSameWalkedTheOtherWay(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 4))
	for n := range 60 {
		j := decode(t, randomGate(rng))
		p := plan.Make(j, shipped(t))
		line, err := reshape.Reverse(j, 0)
		if err != nil {
			t.Fatal(err)
		}
		turned := j
		turned.Lines = []job.Line{line}
		q := plan.Make(turned, shipped(t))
		if len(p.Runs[0].Gates) == 0 {
			continue
		}
		a, b := p.Runs[0].Gates[0], q.Runs[0].Gates[0]
		if fingerprint(a, false) != fingerprint(b, true) {
			t.Fatalf("case %d:\n%s\n%s", n, fingerprint(a, false), fingerprint(b, true))
		}
		for l := range a.Leaves {
			mirrored := b.Leaves[len(b.Leaves)-1-l]
			for s := range a.Leaves[l].Sides {
				for k, at := range a.Leaves[l].Sides[s].Outline {
					if o := mirrored.Sides[s].Outline[k]; (at.X-o.X).Abs() > 0.01 || (at.Y-o.Y).Abs() > 0.01 {
						t.Fatalf("case %d: the swing lies elsewhere on the map: %v, %v", n, at, o)
					}
				}
			}
		}
		if rules(p) != rules(q) {
			t.Errorf("case %d: found %s, the other way %s", n, rules(p), rules(q))
		}
		inMetric := j
		inMetric.Units = length.Usual(length.Metric)
		if g := plan.Make(inMetric, shipped(t)).Runs[0].Gates[0]; fingerprint(a, false) != fingerprint(g, false) {
			t.Errorf("case %d: in metric units\n%s\n%s", n, fingerprint(a, false), fingerprint(g, false))
		}
	}
}

func rules(p plan.Plan) string {
	n := map[string]int{}
	for _, f := range p.Findings {
		if f.Stage == finding.Gates {
			n[f.Rule]++
		}
	}
	out, _ := json.Marshal(n)
	return string(out)
}

// fingerprint is all that a gate comes to, its leaves from one end or the
// other.
func fingerprint(g plan.Gate, backwards bool) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%.2f %.2f %.2f %.2f %.2f;", g.Opening, g.Clear, g.Leaf, g.Bottom, g.Highest)
	for i := range g.Leaves {
		l := g.Leaves[i]
		if backwards {
			l = g.Leaves[len(g.Leaves)-1-i]
		}
		fmt.Fprintf(&b, " leaf %.2f %.2f %.2f %.3f %.3f", l.Width, l.Height, l.TipHeight, l.Mass, l.Pull)
		for _, h := range l.Hinges {
			fmt.Fprintf(&b, " %s %.2f %.2f", h.Name, h.Above, h.FromMark)
		}
		for _, s := range l.Sides {
			// The least gap can be found a hair apart, at another of two equal places.
			fmt.Fprintf(&b, " %s %.0f %.2f", s.Side, math.Round(float64(s.Gap)*5)/5*10, s.Hold.Off)
			for _, ground := range s.Ground {
				fmt.Fprintf(&b, " %.1f", ground.Gap)
			}
		}
	}
	return b.String()
}

// randomGate is a job with one gate on broken ground.
func randomGate(r *rand.Rand) string {
	var ground []string
	for at := 0.0; at < 12000; at += 700 + 1500*r.Float64() {
		ground = append(ground, fmt.Sprintf(`{"at":%.0f,"height":%.0f}`, at, 500*r.Float64()))
	}
	levels := func() string {
		var list []string
		off := 0.0
		for range r.IntN(4) {
			off += 100 + 1200*r.Float64()
			list = append(list, fmt.Sprintf(`{"off":%.0f,"first":%.0f,"second":%.0f}`, off, 300*(r.Float64()-0.5), 300*(r.Float64()-0.5)))
		}
		return "[" + strings.Join(list, ",") + "]"
	}
	opening := 900 + 3500*r.Float64()
	extra := ""
	if r.IntN(2) == 0 {
		extra = fmt.Sprintf(`,"second":%.0f`, opening/4)
	}
	return fmt.Sprintf(`{"mallow":1,"name":"Any","units":{"system":"imperial","smallestMark":1.5875},"site":{},"lines":[{"id":"L1","inside":"%s","bearing":%.0f,"runs":[
		{"id":"R1","length":12000,"ground":[%s],"fence":{"height":1500},"grade":{"look":"%s"},"gates":[
		{"id":"G1","at":%.0f,"opening":%.0f,"leaves":%d,"hinge":"%s","swing":"%s","open":%.0f,"gap":%.0f,"lift":%.0f,"crown":%.0f,"in":%s,"out":%s%s}]}]}]}`,
		[]string{"left", "right"}[r.IntN(2)], 360*r.Float64(), strings.Join(ground, ","), []string{"level", "stepped"}[r.IntN(2)],
		3000+6000*r.Float64(), opening, 1+r.IntN(2), []string{"first", "second"}[r.IntN(2)], []string{"in", "out", "both"}[r.IntN(3)],
		60+110*r.Float64(), 300*r.Float64(), 100*max(0, r.Float64()-0.5), 150*max(0, r.Float64()-0.5), levels(), levels(), extra)
}

// A hundred gates on one run, each over its own rising ground: what a plan
// costs while a gate is dragged, with every way out worked out.
func BenchmarkPlan100Gates(b *testing.B) {
	var gates []string
	for i := range 100 {
		gates = append(gates, fmt.Sprintf(`{"id":"G%d","at":%d,"opening":3600,"leaves":1,"gap":100,"crown":40,"in":[{"off":1500,"first":%d,"second":60},{"off":4000,"first":250}]}`, i, 4000+9000*i, 40+i%50))
	}
	j := decode(b, `{"mallow":1,"name":"Gates","units":{"system":"metric","smallestMark":1},"site":{"frostDepth":900},"lines":[{"id":"L1","runs":[{"id":"R1","length":905000,"gates":[`+strings.Join(gates, ",")+`]}]}]}`)
	cat := shipped(b)
	b.Run("computed", func(b *testing.B) {
		for b.Loop() {
			computed(b, j, nil)
		}
	})
	b.Run("one dragged", func(b *testing.B) {
		last := computed(b, j, nil)
		at := j.Lines[0].Runs[0].Gates[40].At
		for i := 0; b.Loop(); i++ {
			edited := j
			edited.Lines = slices.Clone(j.Lines)
			edited.Lines[0].Runs = slices.Clone(j.Lines[0].Runs)
			edited.Lines[0].Runs[0].Gates = slices.Clone(j.Lines[0].Runs[0].Gates)
			edited.Lines[0].Runs[0].Gates[40].At = at + length.Length(i%9)
			last = computed(b, edited, last)
		}
	})
	b.Run("whole", func(b *testing.B) {
		for b.Loop() {
			plan.Make(j, cat)
		}
	})
}

// Two gates beside each other, one leaf on either side of the post between:
// open at once they are in each other's way, unless one swings out.
func TestLeavesInEachOthersWay(t *testing.T) {
	two := `{"id":"G1","at":4000,"opening":2000,"gap":101.6,"use":"walk","hinge":"first"},{"id":"G2","at":7000,"opening":2000,"gap":101.6,"use":"walk","hinge":"%s","swing":"%s"}`
	for _, c := range []struct {
		hinge, swing string
		cross        bool
	}{{"second", "in", false}, {"first", "in", false}, {"second", "both", false}} {
		if f := find(plan.Make(gateJob(t, fmt.Sprintf(two, c.hinge, c.swing)), shipped(t)), "leaves-cross"); (f != nil) != c.cross {
			t.Errorf("%+v: %v", c, f)
		}
	}
	near := `{"id":"G1","at":4000,"opening":2000,"gap":101.6,"use":"walk","hinge":"second"},{"id":"G2","at":6152.4,"opening":2000,"gap":101.6,"use":"walk","hinge":"first","open":150,"swing":"%s"}`
	if find(plan.Make(gateJob(t, fmt.Sprintf(near, "in")), shipped(t)), "leaves-cross") == nil {
		t.Error("hung on one post, one opening past square: they cross")
	}
	if f := find(plan.Make(gateJob(t, fmt.Sprintf(near, "out")), shipped(t)), "leaves-cross"); f != nil {
		t.Error("one swings out")
	}
}

// What a leaf asks of the post it hangs on is asked of a corner post that the
// run before digs; leaves of a leaning top are as high as their own hinge end;
// unequal leaves weigh by their widths.
func TestLeavesOfEveryShape(t *testing.T) {
	j := decode(t, `{"mallow":1,"name":"Corner","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"L1","runs":[
		{"id":"R1","length":6000},
		{"id":"R2","length":6000,"ground":[{"at":0,"height":0},{"at":6000,"height":900}],"corner":{"by":"deflection","side":"left","angle":90},"grade":{"look":"raked","across":"along"},
		 "gates":[{"id":"G1","at":1550,"opening":3000,"leaves":2,"second":900,"gap":100,"weight":40}]}]}]}`)
	p := plan.Make(j, shipped(t))
	corner := p.Runs[0].Posts[len(p.Runs[0].Posts)-1]
	if !corner.Hung || corner.Kind != job.GatePost {
		t.Errorf("corner post %+v", corner)
	}
	g, bay := p.Runs[1].Gates[0], p.Runs[1].Bays[0]
	if bay.TopEnd-bay.TopStart < 100 {
		t.Fatalf("the top does not lean: %v to %v", bay.TopStart, bay.TopEnd)
	}
	for i, top := range []length.Length{bay.TopStart, bay.TopEnd} {
		if l := g.Leaves[i]; !length.Same(l.Height, top-g.Bottom) || l.Height == l.TipHeight {
			t.Errorf("leaf %d is %v high at its hinges, %v at its tip", i, l.Height, l.TipHeight)
		}
	}
	near(t, "the wider leaf, kg", float64(g.Leaves[0].Mass), 40, 1e-9)
	near(t, "the other, kg", float64(g.Leaves[1].Mass), 40*900/float64(g.Leaves[0].Width), 1e-9)
	// Open at 90° both tips stand square off their pins, which lie inside the
	// posts' middles, toward the other post.
	for _, l := range g.Leaves {
		hold := l.Sides[0].Hold
		near(t, "held off the line", float64(hold.Off), float64(l.Reach), 1e-6)
		near(t, "held along", float64(hold.Along), 50+82-38, 1e-6)
	}
	// A sliding leaf that has no room either way has no way out by turning.
	slide := gateJob(t, `{"id":"G1","at":6096,"opening":4600,"gap":101.6,"kind":"slide"}`)
	if f := find(plan.Make(slide, shipped(t)), "run-back"); f == nil || len(f.Remedies) != 0 {
		t.Errorf("%+v", f)
	}
}

// Inside a closed line is where its ground is, whichever way it was walked.
func TestInsideOfAClosedLine(t *testing.T) {
	for _, side := range []string{"left", "right"} {
		j := decode(t, fmt.Sprintf(`{"mallow":1,"name":"Yard","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"L1","closed":true,"runs":[
			{"id":"R1","length":8000,"corner":{"by":"deflection","side":"%[1]s","angle":90},"gates":[{"id":"G1","at":4000,"opening":1000,"gap":100}]},
			{"id":"R2","length":8000,"corner":{"by":"deflection","side":"%[1]s","angle":90}},
			{"id":"R3","length":8000,"corner":{"by":"deflection","side":"%[1]s","angle":90}},
			{"id":"R4","length":8000,"corner":{"by":"deflection","side":"%[1]s","angle":90}}]}]}`, side))
		p := plan.Make(j, shipped(t))
		cx, cy := length.Length(0), length.Length(0)
		for _, r := range p.Runs {
			cx, cy = cx+r.From.X/4, cy+r.From.Y/4
		}
		for _, at := range p.Runs[0].Gates[0].Leaves[0].Sides[0].Outline[1:] {
			if (at.X-cx).Abs() > 4000.5 || (at.Y-cy).Abs() > 4000.5 {
				t.Errorf("%s: the leaf swings in to %v, which is outside", side, at)
				break
			}
		}
	}
}

// Whatever is said of gates, a plan comes of it that can be written down, and
// every way out of every finding about them makes a job that can be read.
func TestAnyGateIsPlanned(t *testing.T) {
	rng := rand.New(rand.NewPCG(77, 6))
	ways := 0
	for n := range sized(120, 40) {
		j := decode(t, randomGate(rng))
		g := &j.Lines[0].Runs[0].Gates[0]
		g.Snow, g.Sag, g.HingeIn = length.Length(400*rng.Float64()), length.Length(60*rng.Float64()), length.Length(10+900*rng.Float64())
		g.Road, g.RoomIn = length.Length(9000*rng.Float64()), length.Length(4000*rng.Float64())
		g.Pool, g.Animals, g.Cut = rng.IntN(3) == 0, rng.IntN(3) == 0, rng.IntN(4) == 0
		g.Vehicle = &job.Vehicle{Length: 4000, Trailer: length.Length(3000 * rng.Float64()), Width: length.Length(2600 * rng.Float64())}
		g.Weight = ptr(length.Mass(600 * rng.Float64()))
		if rng.IntN(4) == 0 {
			g.Kind, g.Slides, g.Second = job.SlideGate, []job.End{job.FirstPost, job.SecondPost}[rng.IntN(2)], nil
		}
		if len(document.Check(j)) > 0 {
			continue
		}
		j = j.WithFacts()
		p := plan.Make(j, shipped(t))
		if _, err := json.Marshal(p); err != nil {
			t.Fatalf("case %d: %v", n, err)
		}
		for _, f := range p.Findings {
			if f.Stage != finding.Gates {
				continue
			}
			for _, r := range f.Remedies {
				ways++
				again := find(plan.Make(applied(t, j, r.Edits), shipped(t)), f.Rule)
				if again != nil && again.Severity == f.Severity && again.Place == f.Place && again.Says.Print(j.Units) == f.Says.Print(j.Units) {
					t.Errorf("case %d: %s changes nothing of: %s", n, r.Says.Print(j.Units), f.Says.Print(j.Units))
				}
			}
		}
	}
	if ways < 150 {
		t.Errorf("only %d ways out were tried", ways)
	}
}

// A leaf on an old post is hung where that post has its hinges: 300 and 1400 mm over
// the ground are 200 and 1300 over a leaf that has 100 mm under it. The other leaf of
// a pair is hung as high. Nothing is dug for the old post; a gate is moved so that
// its opening begins at the old post's face, 120 mm wide where new ones are 100.
func TestGateOnAnOldPost(t *testing.T) {
	cat := shipped(t)
	doc := func(leaves, low, at string) job.Job {
		j, _, err := document.Decode([]byte(`{"mallow":2,"name":"old","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L1","runs":[{"id":"R1","length":12000,"post":{"width":100},"fence":{"height":1800},
			"gates":[{"id":"G1","at":6000,"opening":1200,"gap":100,"leaves":`+leaves+`}],
			"keepOuts":[{"id":"K1","kind":"old post","at":`+at+`,"width":120,"stays":true,"lowHinge":`+low+`,"highHinge":1400}]}]}]}`), cat)
		if err != nil {
			t.Fatal(err)
		}
		return j
	}
	for _, leaves := range []string{"1", "2"} {
		p := plan.Make(doc(leaves, "300", "5340"), cat)
		g := p.Runs[0].Gates[0]
		for _, l := range g.Leaves {
			if n := len(l.Hinges); !l.Given || !length.Same(l.Hinges[0].OnLeaf, 200) || !length.Same(l.Hinges[n-1].OnLeaf, 1300) || !length.Same(l.Spacing, 1100) {
				t.Errorf("%s leaves: hinges %+v, %v apart", leaves, l.Hinges, l.Spacing)
			}
		}
		i := slices.IndexFunc(p.Runs[0].Posts, func(o plan.Post) bool { return o.Kind == job.GatePost })
		if post := p.Runs[0].Posts[i]; post.Stays != "K1" || post.ConcreteVolume != 0 || p.Totals.Reused != 1 {
			t.Errorf("%s is not the old post: %+v", post.Label, post)
		}
		if f := find(p, "old-post-off"); f != nil {
			t.Errorf("its face is where the opening begins, and yet: %s", f.Says.Print(p.Units))
		}
	}
	if g := plan.Make(doc("1", "50", "5340"), cat).Runs[0].Gates[0]; g.Leaves[0].Given || !length.Same(g.Leaves[0].Hinges[0].OnLeaf, 200) {
		t.Errorf("a hinge under the leaf is taken: %+v", g.Leaves[0].Hinges)
	}
	// The second post's face looks the other way: 6000 + 600 is where it begins.
	for at, off := range map[string]bool{"6660": false, "6640": true} {
		if f := find(plan.Make(doc("1", "300", at), cat), "old-post-off"); (f != nil) != off {
			t.Errorf("a second post at %s: %+v", at, f)
		}
	}
	f := find(plan.Make(doc("1", "300", "5370"), cat), "old-post-off")
	if f == nil || len(f.Remedies) != 1 || f.Remedies[0].Edits[0].Value != length.Length(6030) {
		t.Errorf("30 mm off, by hand the gate moves 30 mm on: %+v", f)
	}
}
