package plan_test

import (
	"maps"
	"math"
	"slices"
	"strings"
	"testing"

	"mallow/core/begin"
	"mallow/core/bill"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/build"
	"mallow/core/stage/load"
)

// fenceOf is a job of sides of one fence type, each at a right angle to the one
// before.
func fenceOf(t testing.TB, sys length.System, fence string, height length.Length, sides ...length.Length) job.Job {
	t.Helper()
	frost := 600 * length.Millimetre
	j, err := begin.Job(begin.Answers{System: sys, Fence: fence, Length: &sides[0], Height: &height, Frost: &frost}, shipped(t))
	if err != nil {
		t.Fatal(err)
	}
	first := j.Lines[0].Runs[0]
	for i, long := range sides[1:] {
		r := first
		r.ID, r.Name, r.Length, r.Ground = "S"+string(rune('2'+i)), "", ptr(long), nil
		r.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
		j.Lines[0].Runs = append(j.Lines[0].Runs, r)
	}
	if e := document.Check(j); len(e) > 0 {
		t.Fatal(e)
	}
	return j
}

// partsIn adds up a part over all runs.
func partsIn(r *plan.Result, id string) (n int, all []*build.Part) {
	for _, run := range r.Runs {
		if p := run.Build.Of(id); p != nil {
			n += p.Count
			all = append(all, p)
		}
	}
	return n, all
}

// counts holds the count of every part that is named.
func counts(t *testing.T, j job.Job, want map[string]int) *plan.Result {
	t.Helper()
	r := computed(t, j, nil)
	for id, n := range want {
		if got, _ := partsIn(r, id); got != n {
			t.Errorf("%s: %d, by hand %d", id, got, n)
		}
	}
	return r
}

// lengthsOf is what is bought of the lengths that pieces of a part are cut from.
func lengthsOf(t *testing.T, r *plan.Result, part string) map[float64]int {
	t.Helper()
	for _, i := range r.Bill().Items {
		if i.Cuts == nil || i.Cuts.Joined {
			continue
		}
		for _, w := range i.Cuts.Wants {
			if w.Part == part {
				out := map[float64]int{}
				for _, b := range i.Cuts.Lengths() {
					out[math.Round(float64(b.Length))] = b.Count
				}
				return out
			}
		}
	}
	t.Fatalf("nothing is cut for %q", part)
	return nil
}

// All of these were counted by hand, with paper and pencil, from common practice.

// 120 ft on 10 ft centers are 12 bays; three rows are 36 rails. Tongues are
// trimmed at the two end posts: three each.
func TestSplitRailByHand(t *testing.T) {
	j := fenceOf(t, length.Imperial, "split-rail", 4*ft, 120*ft)
	r := counts(t, j, map[string]int{"rail": 36})
	if _, p := partsIn(r, "trimmed"); len(p) != 1 || p[0].CutEnds != 6 {
		t.Errorf("trimmed: %+v, by hand 6 ends", p)
	}
}

// 11.35 m with one bay held at 3.6 m leaves five bays of 1.55 m. Rails of 3.6 m:
// one over the wide bay, then two bays, two bays and one, in each of three rows.
// Slats of 120 mm from outside to outside, 11.45 m: 82 of them leave 1,610 mm for
// 81 gaps, 19 mm and 71 of them 20.
func TestSlatsByHand(t *testing.T) {
	j := fenceOf(t, length.Metric, "boards-on-rails-m", 1800, 11350)
	j.Units.SmallestMark = 1
	j.Lines[0].Runs[0].HeldBays = []job.HeldBay{{ID: "H1", At: 0, Width: 3600}}
	r := counts(t, j, map[string]int{"rail": 12, "board": 82, "board-fixing": 82 * 3 * 2})
	_, p := partsIn(r, "board")
	if f := p[0].Fills[0]; f.Gap != 19 || f.Wider != 71 || f.Ripped != 0 {
		t.Errorf("gaps %v, %d wider, %d ripped; by hand 19, 71, 0", f.Gap, f.Wider, f.Ripped)
	}
}

// Three sides of 40, 30 and 40 ft, a 4 ft gate in the middle of the second: four
// stretches, eight ends. At each a bar, a cup, a brace band and three bands.
func TestChainLinkByHand(t *testing.T) {
	j := fenceOf(t, length.Imperial, "chain-link", 4*ft, 40*ft, 30*ft, 40*ft)
	j.Lines[0].Runs[1].Gates = []job.Gate{{ID: "G1", At: 15 * ft, Opening: 4 * ft, Gap: 100, Make: "mesh"}}
	r := counts(t, j, map[string]int{
		"tension-bar": 8, "tension-band": 24, "brace-band": 8, "rail-end": 8, "bolt": 32,
		"dome-cap": 6, "loop-cap": 3 + 2 + 3, "hinge": 2, "latch": 1, "stop": 1, "drop-bolt": 0,
		// 48 in of fabric less 4 in at each end, no more than 12 in apart: five on
		// each of eight line posts
		"post-tie": 5 * 8,
	})
	// The stretches come to 40, 12 + 12 and 40 ft, less posts: 102 ft in rolls of 50
	// and in lengths of 21 that lose 3 in at each joint.
	_, fabric := partsIn(r, "fabric")
	sum := 0.0
	for _, p := range fabric {
		sum += p.Taken()
	}
	half := 2.375 / 2 // of a terminal, inches
	byHand := (2*(480-2*half) + 360 - 48 - 2*2*half - 2*half) * 0.0254
	near(t, "fabric in metres", sum, byHand, 0.001)
	for _, i := range r.Bill().Items {
		switch i.What {
		case "Fabric":
			if i.Bought[0].Count != 3 {
				t.Errorf("%g rolls of fabric, by hand 3", i.Bought[0].Count)
			}
		case "Tension band":
			if i.Exact != 24 {
				t.Errorf("the bill has %g bands", i.Exact)
			}
		}
	}
}

// 196 ft on 6 ft centers are 32 bays and one of 4 ft; 8 ft take 16 boards of
// 5 1/2 in, which leave 8 in for 15 gaps: 1/2 in, and eight of them 9/16. Top rails
// over two bays are 16, and one short one.
func TestHorizontalBoardsByHand(t *testing.T) {
	j := fenceOf(t, length.Imperial, "horizontal-boards", 8*ft, 196*ft)
	r := counts(t, j, map[string]int{
		"board": 33 * 16, "upright": 33, "bottom-rail": 33, "top-rail": 17, "corner-nailer": 0,
		"board-fixing": 33 * 16 * (2 + 1) * 2,
	})
	_, p := partsIn(r, "board")
	if f := p[0].Fills[0]; f.Pieces != 16 || !length.Same(f.Gap, inch/2) || f.Wider != 8 {
		t.Errorf("rows %+v; by hand 16, 1/2 in, 8 wider", f)
	}
	if got := lengthsOf(t, r, "Top rail"); got[3658] != 17 || len(got) != 1 {
		t.Errorf("top rails from %v, by hand 17 of 12 ft", got)
	}
	// 512 boards of 6 ft; 16 of 4 ft are three from a twelve, and the last from a six.
	bought := 0.0
	for long, n := range lengthsOf(t, r, "Board") {
		bought += math.Round(long/304.8) * float64(n)
	}
	if bought != 512*6+5*12+6 {
		t.Errorf("%g ft of boards, by hand %d", bought, 512*6+5*12+6)
	}
}

// Ten panels of 1830 mm with 3 mm of play between posts of 100, on a gravel
// board, under a topper of 300: panels of 1350 mm.
func TestPanelsByHand(t *testing.T) {
	j := fenceOf(t, length.Metric, "panel-between-m", 1800, 10*1936)
	run := &j.Lines[0].Runs[0]
	run.Fence.Boards = 1
	sys, _ := shipped(t).System("panel-between-m", nil)
	for _, p := range sys.Parts {
		if p.ID == "topper" {
			p.Off = false
			run.Parts = []job.Part{p}
		}
	}
	r := counts(t, j, map[string]int{
		"panel": 10, "topper": 10, "gravel-board": 10, "bracket": 40, "board-bracket": 40, "bracket-screw": 480, "cap": 11, "cap-screw": 22,
	})
	if _, p := partsIn(r, "panel"); p[0].Width != 1350 {
		t.Errorf("panels %v high, by hand 1350", p[0].Width)
	}
	for _, i := range r.Bill().Items {
		if i.Kind == bill.Fixing && i.Exact == 480 && i.Bought[0].Count != 3 {
			t.Errorf("%g boxes of 200 for 480 screws", i.Bought[0].Count)
		}
	}
}

// Five panels of 1830 mm in slots, down a bank of a metre: each bay level by
// itself, a panel and a gravel board in each.
func TestSlottedDownABankByHand(t *testing.T) {
	j := fenceOf(t, length.Metric, "slotted-concrete-m", 1800, 5*1895)
	j.Lines[0].Runs[0].Ground = []job.GroundPoint{{At: 0}, {At: 5 * 1895, Height: -1000}}
	r := counts(t, j, map[string]int{"panel": 5, "packer": 10, "gravel-board": 5})
	for _, b := range r.Runs[0].Build.Bays {
		if b.Lean != 0 {
			t.Errorf("%s leans %v", b.Label, b.Lean)
		}
	}
}

// Five bays of 96 in: 91 in clear between 5 in posts. Rails of 94 in; 16 pickets of
// 3 in leave 43 in for 17 gaps: 2 1/2 in, and eight of them 2 9/16.
func TestRoutedPicketByHand(t *testing.T) {
	j := fenceOf(t, length.Imperial, "vinyl-picket", 4*ft, 40*ft)
	r := counts(t, j, map[string]int{"rail": 10, "picket": 80, "cap": 6, "core": 0, "picket-screw": 160})
	_, p := partsIn(r, "rail")
	for _, q := range p[0].Pieces {
		near(t, "rail in inches", q.Long.Inches(), 94, 1e-6)
	}
	_, p = partsIn(r, "picket")
	if f := p[0].Fills[0]; f.Pieces != 16 || !length.Same(f.Gap, 5*inch/2) || f.Wider != 8 {
		t.Errorf("pickets %+v; by hand 16, 2 1/2 in, 8 wider", f)
	}
}

// An L of two sides of 12 ft, bays of 6: 18 slats of 3 1/2 in in 6 ft, 17 gaps. A
// strip at each end of each gap of each bay.
func TestPatioScreenByHand(t *testing.T) {
	j := fenceOf(t, length.Imperial, "cedar-screen", 6*ft, 12*ft, 12*ft)
	counts(t, j, map[string]int{"slat": 18 * 4, "spacer": 17 * 2 * 4, "corner-trim": 1, "slat-fixing": 18 * 4 * 2 * 2})
}

// Every type of the catalogue builds on every run of the demo jobs, sloped, with
// gates and corners: pieces side by side fill what they stand in to the mark, their
// gaps are alike to a mark, what is cut from a length fits on it with its kerf, all
// pieces are cut, and another length to buy never costs more.
func TestEveryTypeBuildsOnEveryDemoRun(t *testing.T) {
	cat := shipped(t)
	for n := range 2 {
		given := demoJob(t, n)
		for _, s := range cat.Systems {
			if s.System.System != given.Units.System {
				continue
			}
			j := clone(t, given)
			j.Offcuts = []job.Offcut{{ID: "O1", Width: 88.9, Thick: 38.1, Length: 1500, Count: 3}, {ID: "O2", Width: 75, Thick: 38, Length: 1300, Count: 2}}
			for l := range j.Lines {
				for r := range j.Lines[l].Runs {
					run := s.Outfit(j.Lines[l].Runs[r])
					run.HeldBays, run.FixedPosts, run.Laid = nil, nil, nil
					j.Lines[l].Runs[r] = run
				}
			}
			r := computed(t, j, nil)
			for _, run := range r.Runs {
				b := run.Build
				if len(b.Parts) == 0 && !s.Gate {
					t.Fatalf("%s has no parts on %s", s.ID, b.Name())
				}
				for i := range b.Parts {
					p := &b.Parts[i]
					fills(t, s.ID, b, p)
					if _, ok := r.Explain(plan.Figure{Run: b.Spec.ID, Of: "part", ID: p.ID}); !ok {
						t.Errorf("%s: %s has no reasons", s.ID, p.ID)
					}
				}
				if built, ok := r.Built(b.Spec.ID, true); !ok || len(built.Steps) == 0 || built.Type == "" {
					t.Errorf("%s: not told on %s", s.ID, b.Name())
				}
			}
			for _, i := range r.Bill().Items {
				if i.Cuts != nil && !i.Cuts.Joined {
					sawn(t, s.ID+" "+i.ID, i.Cuts, 25.4/8, j)
				}
			}
		}
	}
}

// fills holds that pieces and gaps come to what they fill.
func fills(t *testing.T, what string, b *build.Build, p *build.Part) {
	t.Helper()
	mark := b.Job.Units.SmallestMark
	for _, f := range p.Fills {
		sum := f.Gap*length.Length(f.Gaps) + mark*length.Length(f.Wider) + p.Width*length.Length(f.Pieces-f.Ripped) + f.Rip*length.Length(f.Ripped)
		if (sum - (f.To - f.From)).Abs() > mark*3/2 {
			t.Errorf("%s, %s: %v of pieces and gaps fill %v: %+v", what, p.ID, sum, f.To-f.From, f)
		}
		if f.Wider > f.Gaps || f.Gap < -length.Tolerance {
			t.Errorf("%s, %s: %+v", what, p.ID, f)
		}
	}
	for _, q := range p.Pieces {
		if q.Long < 0 || q.Count <= 0 || q.Bay >= len(b.Bays) || q.To >= len(b.Bays) || q.To < q.Bay {
			t.Errorf("%s, %s: a piece %+v", what, p.ID, q)
		}
	}
}

// sawn holds that a cut list is one.
func sawn(t *testing.T, what string, c *bill.Cuts, kerf length.Length, j job.Job) {
	t.Helper()
	if j.Units.System == length.Metric {
		kerf = 3
	}
	wanted, cut := 0, 0
	for _, w := range c.Wants {
		wanted += w.Count
	}
	for _, w := range c.Short {
		wanted -= w.Count
	}
	for _, bar := range c.Bars {
		sum := -kerf
		for _, k := range bar.Cuts {
			sum += (k.Long + kerf) * length.Length(k.Each)
			for _, g := range k.Goes {
				cut += g.Count
				if g.Long-k.Long > kerf+length.Millimetre/8 || k.Long-g.Long > j.Units.SmallestMark {
					t.Errorf("%s: %v is cut for %v", what, k.Long, g.Long)
				}
			}
		}
		if sum > bar.Length+length.Tolerance {
			t.Errorf("%s: %v is cut from %v", what, sum, bar.Length)
		}
	}
	if wanted != cut {
		t.Errorf("%s: %d pieces are wanted, %d cut", what, wanted, cut)
	}
	if c.Bought < c.Bound-length.Millimetre || c.Waste < 0 || c.Waste > 1 {
		t.Errorf("%s: %v are bought, the bound is %v, waste %g", what, c.Bought, c.Bound, c.Waste)
	}
	more := *c
	more.Stock = append(append([]length.Length{}, c.Stock...), 5100)
	more.Snug = 0
	more.Solve(load.SawOf(j))
	if len(more.Short) == len(c.Short) && more.Proved && more.Bought > c.Bought+length.Millimetre {
		t.Errorf("%s: with another length %v are bought, without it %v", what, more.Bought, c.Bought)
	}
}

// The slats' wide bay must come out again: its three rails are its own as they were,
// on brackets at both ends; with it in the middle of a stretch rails that would run
// over its posts are parted there.
func TestABayThatComesOut(t *testing.T) {
	j := fenceOf(t, length.Metric, "boards-on-rails-m", 1800, 9*1800)
	j.Lines[0].Runs[0].HeldBays = []job.HeldBay{{ID: "H1", At: 3 * 1800, Width: 1800, Removable: true}}
	r := counts(t, j, map[string]int{"lift-out": 6})
	_, p := partsIn(r, "rail")
	b := r.Runs[0].Build
	out := -1
	for i := range b.Bays {
		if b.Bays[i].Held == "H1" {
			out = i
		}
	}
	sum := length.Length(0)
	for _, q := range p[0].Pieces {
		if q.Bay < out && q.To >= out || q.Bay <= out && q.To > out {
			t.Errorf("a rail from bay %d to %d runs over bay %d, which comes out", q.Bay, q.To, out)
		}
		sum += q.Long
	}
	near(t, "rails in metres", float64(sum/length.Metre), 3*9*1.8, 1e-6)
}

// Boards over two bays are staggered: no post carries a joint in two rows that follow
// each other. By hand, on four bays of 6 ft: joints at post 3, then at posts 2 and 4.
func TestRowsAreStaggered(t *testing.T) {
	j := fenceOf(t, length.Imperial, "horizontal-boards", 6*ft, 24*ft)
	sys, _ := shipped(t).System("horizontal-boards", nil)
	for _, p := range sys.Parts {
		if p.ID == "board" {
			p.Span = 2
			j.Lines[0].Runs[0].Parts = []job.Part{p}
		}
	}
	_, p := partsIn(computed(t, j, nil), "board")
	joints := map[int][]int{}
	for _, q := range p[0].Pieces {
		if q.Bay > 0 {
			joints[q.Row] = append(joints[q.Row], q.Bay+1)
		}
	}
	for row := 1; row < 12; row++ {
		want := []int{3}
		if row%2 == 0 {
			want = []int{2, 4}
		}
		if !slices.Equal(joints[row], want) {
			t.Errorf("row %d has joints at posts %v, by hand %v", row, joints[row], want)
		}
	}
}

// No sliver: 91 in between the posts take 16 boards of 5 1/2 in and leave 3 in; with
// 88 in and a sixteenth it would be a sixteenth, so the first and the last are ripped
// alike, to 2 25/32, down to the mark 2 3/4.
func TestNoSliver(t *testing.T) {
	for _, c := range []struct {
		clear  length.Length
		ripped int
		rip    length.Length
	}{{91 * inch, 1, 3 * inch}, {88*inch + inch/16, 2, 2*inch + 3*inch/4}} {
		j := fenceOf(t, length.Imperial, "boards-on-rails", 6*ft, c.clear+inch*7/2)
		run := &j.Lines[0].Runs[0]
		run.Spacing = job.Spacing{Most: 120 * inch}
		sys, _ := shipped(t).System("boards-on-rails", nil)
		for _, p := range sys.Parts {
			if p.ID == "board" {
				p.Rip, p.PerBay, p.Gap = true, true, nil
				run.Parts = []job.Part{p}
			}
		}
		_, p := partsIn(computed(t, j, nil), "board")
		if f := p[0].Fills[0]; f.Ripped != c.ripped || !length.Same(f.Rip, c.rip) {
			t.Errorf("%v: %+v; by hand %d ripped to %v", c.clear.Inches(), f, c.ripped, c.rip.Inches())
		}
	}
}

// The ways to count that no fence above shows by itself, each on a straight run of
// 24 m in ten bays of 2.4 m, eleven posts of 90 mm, by hand.
func TestOtherWaysToCountByHand(t *testing.T) {
	own := []job.Part{
		{ID: "strainer", Name: "Strainer", Kind: job.HardwarePart, By: job.PerStretch, Each: 2},
		{ID: "rail", Name: "Rail", Kind: job.RailPart, By: job.ByRails, Each: 2, Long: job.OnCentres, Span: 2, Width: 90, Thick: 40, Stock: []length.Length{4800}},
		{ID: "plate", Name: "Plate", Kind: job.HardwarePart, By: job.PerJoint, Of: []string{"rail"}, Each: 2},
		{ID: "cap", Name: "Cap", Kind: job.HardwarePart, By: job.PerPost, At: []job.PostKind{job.LinePost}},
		{ID: "stay", Name: "Stay", Kind: job.HardwarePart, By: job.PerBay, Each: 3},
		{ID: "wire", Name: "Wire", Kind: job.MeshPart, By: job.ByRoll, Each: 3, Long: job.ByStretch, Stock: []length.Length{25000}},
		{ID: "ring", Name: "Ring", Kind: job.FixingPart, By: job.Spaced, Long: job.ByStretch, Spacing: 600},
		{ID: "coat", Name: "Coat", Kind: job.FinishPart, By: job.ByArea, Of: []string{"rail"}, Coats: 2, Cover: 10},
		{ID: "ends", Name: "Ends", Kind: job.FinishPart, By: job.PerCutEnd, Of: []string{"rail"}, Coats: 2, Cover: 6},
		{ID: "step", Name: "Step", Kind: job.HardwarePart, By: job.PerPiece, Of: []string{"stay"}, Each: 2},
		{ID: "gone", Name: "Gone", Kind: job.HardwarePart, By: job.PerBay, Off: true},
	}
	j := fenceOf(t, length.Metric, "", 1800, 24000)
	run := &j.Lines[0].Runs[0]
	run.Post.Width, run.Spacing, run.Ground, run.Parts = 90, job.Spacing{Most: 2400}, nil, own
	r := counts(t, j, map[string]int{
		"strainer": 2,
		// Two bays a rail: five in the first row; the second begins with one bay, then
		// four over two, and ends with one.
		"rail":  5 + 6,
		"plate": 2 * (4 + 5),
		"cap":   9, "stay": 30, "step": 60, "gone": 0,
		// Three wires of 23.91 m each, from rolls of 25: what is left of one goes on.
		"wire": 3,
		// 23.91 m in steps of 600 at most: 40 steps, 41 rings.
		"ring": 41,
	})
	near := func(id string, got, want float64) {
		if math.Abs(got-want) > 0.001*want {
			t.Errorf("%s: %.4f, by hand %.4f", id, got, want)
		}
	}
	_, p := partsIn(r, "coat")
	near("coat, m²", p[0].Area, 2*(0.09+0.04)*48) // 48 m of rail, 260 mm round
	near("coat, litres", p[0].Litres, 12.48*2/10)
	_, p = partsIn(r, "wire")
	near("wire, m", p[0].Taken(), 3*23.91)
	// Only the two single bays are cut: all others are whole lengths.
	_, p = partsIn(r, "ends")
	if p[0].CutEnds != 2 {
		t.Errorf("%d cut ends, by hand 2", p[0].CutEnds)
	}
}

// The order of a list of parts counts for nothing: fixings stand before what they fix, and
// rings of rings, and a circle of two that go with each other ends. Ten bays of two rails
// with a bracket at each end of each and three screws a bracket; pickets crossed by rails.
func TestFixingsAreCountedWhereverTheyStand(t *testing.T) {
	list := []job.Part{
		{ID: "screw", Name: "Screw", Kind: job.FixingPart, By: job.PerPiece, Of: []string{"stay"}, Each: 3},
		{ID: "nail", Name: "Nail", Kind: job.FixingPart, By: job.PerCrossing, Of: []string{"rail"}, Over: []string{"picket"}, Each: 2},
		{ID: "bracket", Name: "Bracket", Kind: job.HardwarePart, By: job.PerBayEnd, Of: []string{"rail"}},
		{ID: "stay", Name: "Stay", Kind: job.HardwarePart, By: job.PerBay, Each: 2},
		{ID: "egg", Name: "Egg", Kind: job.FixingPart, By: job.PerPiece, Of: []string{"hen"}},
		{ID: "hen", Name: "Hen", Kind: job.FixingPart, By: job.PerPiece, Of: []string{"egg", "stay"}},
		{ID: "rail", Name: "Rail", Kind: job.RailPart, By: job.ByRails, Each: 2, Long: job.OnCentres, Width: 90, Thick: 40, Stock: []length.Length{2400}},
		{ID: "picket", Name: "Picket", Kind: job.BoardPart, By: job.PerBay, Each: 18, Long: job.ByHeight, Width: 90, Thick: 20, Stock: []length.Length{1800}},
	}
	want := map[string]int{"rail": 20, "picket": 180, "bracket": 40, "stay": 20, "screw": 60, "nail": 2 * 2 * 180, "hen": 20}
	for range 2 {
		j := fenceOf(t, length.Metric, "", 1800, 24000)
		run := &j.Lines[0].Runs[0]
		run.Post.Width, run.Spacing, run.Ground, run.Parts = 90, job.Spacing{Most: 2400}, nil, list
		r := counts(t, j, want)
		_, p := partsIn(r, "rail")
		if first := r.Runs[0].Build.Parts[0].ID; first != list[0].ID || len(p) != 1 {
			t.Errorf("the list begins with %s", first)
		}
		slices.Reverse(list)
	}
}

// Two bays of 2000 in a row, and lengths of 4000: six rows are six whole lengths, and
// nothing is cut. Over three bays joints are staggered.
func TestOneLengthOverAllIsNotStaggered(t *testing.T) {
	part := job.Part{ID: "board", Name: "Board", Kind: job.BoardPart, By: job.ByRails, Each: 6, Span: 2, Long: job.OnCentres, Width: 100, Thick: 25, Stock: []length.Length{4000}}
	for bays, want := range map[int]map[float64]int{2: {4000: 6}, 3: {4000: 6, 2000: 6}} {
		j := fenceOf(t, length.Metric, "", 1800, length.Length(bays)*2000)
		run := &j.Lines[0].Runs[0]
		run.Post.Width, run.Spacing, run.Ground, run.Parts = 90, job.Spacing{Most: 2000}, nil, []job.Part{part}
		_, p := partsIn(computed(t, j, nil), "board")
		got := map[float64]int{}
		for _, q := range p[0].Pieces {
			got[float64(q.Long)] += q.Count
		}
		if !maps.Equal(got, want) {
			t.Errorf("%d bays: %v, by hand %v", bays, got, want)
		}
	}
}

// Rows that are 20 shorter than their bay fill the same height: a fence of 1800 over a gap
// of 50 has 1800 for slats of 90 with 10 in between, eighteen and gaps of 10 but a little.
func TestShorterRowsFillTheSameHeight(t *testing.T) {
	var fills []float64
	for _, more := range []length.Length{0, -20} {
		j := fenceOf(t, length.Metric, "", 1800, 6000)
		run := &j.Lines[0].Runs[0]
		run.Post.Width, run.Spacing, run.Ground = 90, job.Spacing{Most: 2000}, nil
		run.Parts = []job.Part{{ID: "slat", Name: "Slat", Kind: job.BoardPart, By: job.ByRows, Long: job.OnCentres, More: more, Width: 90, Thick: 20, Gap: &job.PartGap{Want: 10, Least: 5, Most: 20}, Stock: []length.Length{4000}}}
		r := computed(t, j, nil)
		_, p := partsIn(r, "slat")
		f := p[0].Fills[0]
		fills = append(fills, float64(f.Pieces), float64(f.Gap), float64(f.Over))
		for _, q := range p[0].Pieces {
			if q.Long != 2000+more {
				t.Errorf("%v more: a slat of %v", more, q.Long)
			}
		}
	}
	if !slices.Equal(fills[:3], fills[3:]) || fills[0] != 18 {
		t.Errorf("the rows fill %v, and 20 shorter %v", fills[:3], fills[3:])
	}
}

// Feet of eleven posts of 90 mm, each 600 to 650 deep, with their end grain: by hand 4 x
// 0.09 m round and 0.0081 m2 under each.
func TestEndGrainOfFeetIsCoated(t *testing.T) {
	j := fenceOf(t, length.Metric, "", 1800, 24000)
	run := &j.Lines[0].Runs[0]
	run.Post.Width, run.Spacing, run.Ground = 90, job.Spacing{Most: 2400}, nil
	run.Parts = []job.Part{{ID: "feet", Name: "Feet", Kind: job.FinishPart, By: job.ByArea, Of: []string{"feet"}, Coats: 1, Cover: 6}}
	r := computed(t, j, nil)
	_, p := partsIn(r, "feet")
	want := 0.0
	for i := range r.Runs[0].Load.Posts {
		want += 0.36*float64(r.Runs[0].Load.Posts[i].Foot)/1000 + 0.0081
	}
	if math.Abs(p[0].Area-want) > 1e-9 {
		t.Errorf("%.4f m2, by hand %.4f", p[0].Area, want)
	}
}

// Dog-eared boards are called so where they are cut, and nothing else changes.
func TestTopsAreSaid(t *testing.T) {
	j := fenceOf(t, length.Metric, "boards-on-rails-m", 1800, 9000)
	was := computed(t, j, nil).Bill().Items
	sys, _ := shipped(t).System("boards-on-rails-m", nil)
	for _, p := range sys.Parts {
		if p.ID == "board" {
			p.Top = job.DogEar
			j.Lines[0].Runs[0].Parts = []job.Part{p}
		}
	}
	said := false
	for k, i := range computed(t, j, nil).Bill().Items {
		if i.ID != was[k].ID || i.Exact != was[k].Exact {
			t.Errorf("%s: %g, flat %g", i.ID, i.Exact, was[k].Exact)
		}
		if i.Cuts != nil {
			for _, w := range i.Cuts.Wants {
				said = said || w.Part == "Board, dog-eared"
			}
		}
	}
	if !said {
		t.Error("no board is called dog-eared")
	}
}

// A stretch of its own height steps its top on level ground. Of eight bays of 6 ft
// the first five are 8 ft high, 16 boards each, and the last three 6 ft, which take
// 12 boards of 5 1/2 in with 6 in left for 11 gaps; top rails over two bays end at
// the step: three before it, two after.
func TestAStretchLowerThanTheRun(t *testing.T) {
	j := fenceOf(t, length.Imperial, "horizontal-boards", 8*ft, 48*ft)
	run := &j.Lines[0].Runs[0]
	run.Grade.Parts = []job.LookPart{{ID: "a1", From: 30 * ft, To: 48 * ft, Look: run.Grade.Look, Height: ptr(6 * ft)}}
	r := counts(t, j, map[string]int{"board": 5*16 + 3*12, "top-rail": 3 + 2, "bottom-rail": 8, "upright": 8})
	// Where boards go is said once for each bay.
	for _, l := range plan.Make(j, shipped(t)).CutLists(r.Bill().Items) {
		for _, b := range l.Bars {
			for _, c := range b.Cuts {
				if strings.HasPrefix(c.Where, "Board: ") && c.Where != "Board: B1 rows 1–16, B2 rows 1–16, B3 rows 1–16, B4 rows 1–16, B5 rows 1–16, B6 rows 1–12, B7 rows 1–12, B8 rows 1–12" {
					t.Errorf("boards go to %s", c.Where)
				}
			}
		}
	}
	posts := r.Runs[0].Load.Posts
	for i, p := range posts {
		want := 8 * ft
		if i > 5 { // the post at the step is the taller one
			want = 6 * ft
		}
		if got := p.Top - p.Ground - run.Fence.GapLeast - run.PostOf(p.Kind).Above; !length.Same(got, want) {
			t.Errorf("%s has %v of fence, by hand %v", p.Label, got, want)
		}
	}
	if got := posts[5].Step; !length.Same(got, -2*ft) {
		t.Errorf("the top steps by %v, by hand -2 ft", got)
	}
	// The lower part stands in harder wind: less face, and nearer to the ground.
	if low, high := r.Runs[0].Load.Posts[7].Wind, r.Runs[0].Load.Posts[3].Wind; low == nil || high == nil || low.Gust < high.Gust*1.1 {
		t.Errorf("wind on the lower part %+v, on the higher %+v", low, high)
	}
}

// Rails at 8, 24 and 40 in of a 48 in fence: where it is 32 in the top one keeps
// its 8 in from the top, at 24, and the middle one has no place. A band goes on
// for every foot of the height that is there, less one.
func TestRailsAndBandsOfALowerStretch(t *testing.T) {
	run := job.Run{Fence: job.Fence{Height: 48 * inch, Rails: []length.Length{8 * inch, 24 * inch, 40 * inch}}}
	for high, want := range map[length.Length][]length.Length{
		48 * inch: {8 * inch, 24 * inch, 40 * inch}, 32 * inch: {8 * inch, 24 * inch}, 16 * inch: {8 * inch}, 60 * inch: {8 * inch, 24 * inch, 52 * inch}, 12 * inch: {4 * inch},
	} {
		if got := run.RailHeightsAt(high); !slices.EqualFunc(got, want, length.Same) {
			t.Errorf("%v high: rails at %v, by hand %v", high, got, want)
		}
	}
	j := fenceOf(t, length.Imperial, "split-rail", 4*ft, 40*ft)
	j.Lines[0].Runs[0].Fence.Rails = run.Fence.Rails
	given := computed(t, j, nil)
	n, _ := partsIn(given, "rail")
	j.Lines[0].Runs[0].Grade.Parts = []job.LookPart{{ID: "a1", From: 20 * ft, To: 40 * ft, Look: job.Rolling, Height: ptr(32 * inch)}}
	if got, _ := partsIn(computed(t, j, nil), "rail"); got*6 != n*5 {
		t.Errorf("half of it with two rails for three: %d of %d", got, n)
	}
	link := fenceOf(t, length.Imperial, "chain-link", 4*ft, 40*ft)
	link.Lines[0].Runs[0].Grade.Parts = []job.LookPart{{ID: "a1", From: 20 * ft, To: 40 * ft, Look: link.Lines[0].Runs[0].Grade.Look, Height: ptr(6 * ft)}}
	counts(t, link, map[string]int{"tension-band": 3 + 5})
}
