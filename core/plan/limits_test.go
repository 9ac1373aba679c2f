package plan_test

import (
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// cautioned tells whether a plan's cautions hold some words.
func cautioned(p plan.Plan, words string) bool {
	for _, c := range p.Cautions {
		if strings.Contains(c.Says.Print(p.Units), words) {
			return true
		}
	}
	return false
}

// Fill of just under and just over 300 mm (a foot, common practice).
func TestDeepEarthIsCautionedFromAFoot(t *testing.T) {
	for dip, want := range map[length.Length]bool{299: false, 301: true} {
		j, r := metricRun(t, 4800)
		r.Grade.Look, r.Grade.Give, r.Fence.GapLeast, r.Fence.GapMost = job.Level, job.Fill, 50, 50
		r.Ground = []job.GroundPoint{{At: 0}, {At: 1200, Height: -dip}, {At: 2400}, {At: 4800}}
		if got := cautioned(plan.Make(j, shipped(t)), "a bank that high"); got != want {
			t.Errorf("%v mm filled: cautioned %v", dip, got)
		}
	}
}

// Two people hold 50 kg between them (25 each, common practice).
func TestHeavyLeafIsCautioned(t *testing.T) {
	for mass, want := range map[length.Mass]bool{49.5: false, 50.5: true} {
		j, r := metricRun(t, 12000)
		r.Gates = []job.Gate{{ID: "G1", At: 6000, Opening: 1200, Gap: 100, Hardware: shipped(t).UsualGate(length.Metric).Hardware, Thick: 50, Least: 25, HingeIn: 200, Latch: 1000, Weight: ptr(mass)}}
		if got := cautioned(plan.Make(j, shipped(t)), "more than two people should hold"); got != want {
			t.Errorf("a leaf of %v kg: cautioned %v", mass, got)
		}
	}
}

// A driven post 100 mm beside an old footing stands in loose soil.
func TestDrivenBesideAnOldFooting(t *testing.T) {
	for off, want := range map[length.Length]bool{99: true, 101: false} {
		j := outfitted(t, "light-mesh", 60*length.Foot)
		r := &j.Lines[0].Runs[0]
		r.FixedPosts = []job.FixedPost{{ID: "F1", At: 6000}}
		r.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Footing, At: 6000 + off + 200, Width: 400}}
		found := false
		for _, f := range plan.Make(j, shipped(t)).Findings {
			found = found || f.Rule == "driven-in-fill" && strings.Contains(f.Says.Print(j.Units), "would be driven")
		}
		if found != want {
			t.Errorf("%v mm beside it: %v", off, found)
		}
	}
}

// A post that is not cut stands as much deeper as its stock is longer, and from
// 300 mm (a foot) on that is spoken of.
func TestUncutPostsThatStandMuchDeeper(t *testing.T) {
	id := ""
	for _, s := range shipped(t).Systems {
		if !s.Can(job.CutPosts) && s.System.System == length.Metric && !s.Gate {
			id = s.System.ID
		}
	}
	j := outfitted(t, id, 12000)
	r := &j.Lines[0].Runs[0]
	r.Terminal, r.Post.Stock, r.Post.Trim, j.Site.FrostDepth = nil, []length.Length{6000}, 0, ptr(length.Length(600))
	free := j
	free.Lines = []job.Line{{ID: "L1", Runs: []job.Run{*r}}}
	free.Lines[0].Runs[0].System = ""
	asked := makeRun(t, free).Posts[1]
	needed := asked.AboveGrade + asked.Foot
	for longer, want := range map[length.Length]bool{299: false, 301: true} {
		r.Post.Stock = []length.Length{needed + longer}
		p := plan.Make(j, shipped(t))
		if q := p.Runs[0].Posts[1]; !length.Same(q.Foot, asked.Foot+longer) {
			t.Errorf("%s: the foot is %v deep, want %v", id, q.Foot, asked.Foot+longer)
		}
		if got := find(p, "uncut-deep") != nil; got != want {
			t.Errorf("%s, %v longer: said %v", id, longer, got)
		}
	}
}

// A landed post's bay is packed out by 38 mm (1 1/2 in, a packer's thickness) at
// most; past that packing is no way. The next post stays where it is either way.
func TestBayIsPackedOutByAPacker(t *testing.T) {
	j := asSaved(t, outfitted(t, "metal-panel", 60*length.Foot))
	ids, at := namesOf(t, j), stationsOf(t, j)
	for off, packed := range map[length.Length]bool{38.09: true, 38.12: false} {
		after := saw(j, seenAt(1, ids[4], job.Landed, at[ids[4]]+off), fact(2, ids[4], job.MarkSet))
		stays(t, j, after, ids[4], at[ids[4]]+off)
		if ways := wayIDs(waysAt(t, after, ids[4])); slices.Contains(ways, "pack") != packed || !slices.Contains(ways, "leave") {
			t.Errorf("landed %v mm on: the ways are %v", off, ways)
		}
	}
}

// A new hole keeps 100 mm (4 in, common practice) of firm soil from an old
// footing: half the footing, the soil and half the hole.
func TestFirmSoilBesideAnOldFooting(t *testing.T) {
	for off, want := range map[length.Length]bool{-5: true, 5: false} {
		j, r := metricRun(t, 9600)
		r.Spacing.Soil, r.Hole.Width = nil, ptr(length.Length(300))
		r.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Footing, At: 4800, Width: 200}}
		r.FixedPosts = []job.FixedPost{{ID: "F1", At: 4800 + 100 + 100 + 150 + off}}
		if f := find(plan.Make(j, shipped(t)), "loose-soil"); (f != nil) != want {
			t.Errorf("%v mm off: %+v", off, f)
		}
	}
}

// A pool barrier's gate: 2 in under the leaf and 54 in to the latch (model
// codes, from memory), just kept and just missed.
func TestPoolLimits(t *testing.T) {
	for _, c := range []struct {
		rule       string
		gap, latch length.Length
		want       bool
	}{
		{"pool-gap", 50.8, 1400, false}, {"pool-gap", 52, 1400, true},
		{"pool-latch", 50.8, 1371.6, false}, {"pool-latch", 50.8, 1370, true},
	} {
		j, r := metricRun(t, 12000)
		r.Gates = []job.Gate{{ID: "G1", At: 6000, Opening: 1200, Gap: c.gap, Hardware: shipped(t).UsualGate(length.Metric).Hardware, Thick: 50, Least: 25, HingeIn: 200, Latch: c.latch, Pool: true, Swing: job.SwingOut}}
		if got := find(plan.Make(j, shipped(t)), c.rule) != nil; got != c.want {
			t.Errorf("%s with a gap of %v and the latch at %v: %v", c.rule, c.gap, c.latch, got)
		}
	}
}

// Every fourth post between the ends wants a prop under the height string
// (common practice: 3 or 4), however little it sags.
func TestPropsGoByThePosts(t *testing.T) {
	for posts, want := range map[int]int{3: 0, 4: 1, 7: 1, 8: 2} {
		j, r := metricRun(t, length.Length(posts+1)*500)
		r.Spacing.Most, r.Spacing.Least = 500, ptr(length.Length(300))
		run := makeRun(t, j)
		if len(run.Posts) != posts+2 || run.String.PropsFor != want {
			t.Errorf("%d posts between the ends: %d props, want %d", len(run.Posts)-2, run.String.PropsFor, want)
		}
	}
}

// The wind from which to sight instead blows the middle 6 mm (1/4 in, common
// practice) out of line: checked with the drift itself.
func TestSightingStartsAtAQuarterInch(t *testing.T) {
	j, r := metricRun(t, 30000)
	j.Site.Wind = 8
	far := *makeRun(t, j).String.SightFrom
	r.Length = ptr(far - 2*makeRun(t, j).String.Beyond)
	if drift := makeRun(t, j).String.Drift; (drift - 6).Abs() > 0.01 {
		t.Errorf("over %v it drifts %v, want 6 mm", far, drift)
	}
}

// At a step a post shows what it does on its higher side.
func TestRevealAtAStepIsTheHigherSides(t *testing.T) {
	steps := 0
	j := bank(t, job.Stepped)
	h := &j.Lines[0].Runs[0].Hole
	h.Share, h.SkipFrost, h.SkipFloor, h.RoundDepthTo = ptr(job.Third), ptr(true), ptr(true), ptr(length.Length(0))
	for _, p := range makeRun(t, j).Posts {
		if p.Step != 0 {
			steps++
		}
		// The upper panel stands 150 over the post's ground, of which 75 are
		// filled loose, which holds nothing: 1800 and 150 count there; beside the
		// lower panel 1800 and 50. A third of the whole is half of what counts.
		if p.Kind == job.LinePost && !length.Same(p.Foot, 1950/2.0) {
			t.Errorf("%s shows %v and stands %v deep", p.Label, p.AboveGrade, p.Foot)
		}
		if !length.Same(p.AboveGrade, p.Top-p.Ground) {
			t.Errorf("%s shows %v, its top is %v over the ground", p.Label, p.AboveGrade, p.Top-p.Ground)
		}
	}
	if steps == 0 {
		t.Error("nothing steps")
	}
}

// The alignment string keeps an inch (25 mm) over the ground, its own sag of a
// millimetre or so counted.
func TestStringKeepsOffTheGround(t *testing.T) {
	for low, want := range map[length.Length]bool{25.5: true, 26.5: false} {
		j, r := metricRun(t, 4800)
		r.String.Low = low
		if got := find(plan.Make(j, shipped(t)), "string-touches") != nil; got != want {
			t.Errorf("tied at %v: touches %v", low, got)
		}
	}
}

// yard is a closed square of 10 m whose last side is longer, and whose last
// corner turns more.
func yard(t *testing.T, longer length.Length, turn float64) job.Job {
	j := document.New("Y", length.Metric, shipped(t))
	first := j.Lines[0].Runs[0]
	j.Lines[0].Closed, j.Lines[0].Runs = true, nil
	for i, id := range []string{"R1", "R2", "R3", "R4"} {
		r := first
		r.ID, r.Length = id, ptr(length.Length(10000))
		r.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 90}
		if i == 3 {
			*r.Length += longer
			r.Corner.Angle += turn
		}
		j.Lines[0].Runs = append(j.Lines[0].Runs, r)
	}
	return j
}

// Past 1 in 500 (common practice for a tape on rough ground) a misclosure is
// likelier a blunder; turns may miss half a degree for each root of a corner.
func TestClosingLimits(t *testing.T) {
	// 80 mm in 40.08 m is 1 in 501, 82 mm is 1 in 489.
	for longer, want := range map[length.Length]finding.Severity{80: finding.Note, 82: finding.Check} {
		f := find(plan.Make(yard(t, longer, 0), shipped(t)), "misclosure")
		if f == nil || f.Severity != want {
			t.Errorf("%v mm too long: %+v, want %s", longer, f, want)
		}
	}
	// Four corners: 0.5 times the root of 4 is a whole degree.
	for turn, want := range map[float64]bool{0.98: false, 1.02: true} {
		if got := find(plan.Make(yard(t, 0, turn), shipped(t)), "angle-sum") != nil; got != want {
			t.Errorf("%v° off: said %v", turn, got)
		}
	}
}

// A leaf lower than 300 mm (a foot) is no gate.
func TestLowestLeaf(t *testing.T) {
	for high, want := range map[length.Length]bool{299: true, 301: false} {
		j, r := metricRun(t, 12000)
		r.Fence.Height, r.Fence.GapLeast, r.Fence.GapMost = 900, 50, 75
		r.Gates = []job.Gate{{ID: "G1", At: 6000, Opening: 1200, Gap: 950 - high, Hardware: shipped(t).UsualGate(length.Metric).Hardware, Thick: 50, Least: 25, HingeIn: 100, Latch: 200}}
		run := makeRun(t, j)
		if !length.Same(run.Gates[0].Leaf, high) {
			t.Fatalf("the leaf is %v high", run.Gates[0].Leaf)
		}
		if got := find(plan.Make(j, shipped(t)), "leaf") != nil; got != want {
			t.Errorf("a leaf %v high: said %v", high, got)
		}
	}
}

// Hinges nearer than 100 mm to each other carry no leaf.
func TestLeastHingeSpacing(t *testing.T) {
	for high, want := range map[length.Length]int{499: 0, 501: 2} {
		j, r := metricRun(t, 12000)
		r.Fence.Height, r.Fence.GapLeast, r.Fence.GapMost = 900, 50, 75
		r.Gates = []job.Gate{{ID: "G1", At: 6000, Opening: 1200, Gap: 950 - high, Hardware: shipped(t).UsualGate(length.Metric).Hardware, Thick: 50, Least: 25, HingeIn: 200, Latch: 200}}
		if l := makeRun(t, j).Gates[0].Leaves[0]; len(l.Hinges) != want || l.Spacing != 0 && l.Spacing < 100 {
			t.Errorf("a leaf %v high: %d hinges %v apart, want %d", high, len(l.Hinges), l.Spacing, want)
		}
	}
}

// The laser stands over the highest ground by 150 mm at least and, where there
// is room, 50 mm under the lowest top and 900 mm up.
func TestLaserHeight(t *testing.T) {
	for _, c := range []struct{ rise, fence, want length.Length }{
		{300, 400, 450},   // 300 + 150, over the lowest top less 50, which is 400
		{200, 400, 400},   // 450 - 50
		{100, 1800, 1000}, // 100 + 900
	} {
		j, r := metricRun(t, 9600)
		r.Grade.Look, r.Grade.By = job.Raked, job.ByLaser
		r.Fence.Height, r.Fence.GapLeast, r.Fence.GapMost = c.fence, 50, 50
		r.Ground = []job.GroundPoint{{At: 0}, {At: 9600, Height: c.rise}}
		if got := makeRun(t, j).TopLine.Laser; !length.Same(got, c.want) {
			t.Errorf("%+v: the laser stands at %v", c, got)
		}
	}
}

// A gate is moved for a whole panel's sake by a quarter of a panel at most.
func TestGateMovesAQuarterOfAPanel(t *testing.T) {
	for part, want := range map[length.Length]bool{0.24: true, 0.26: false} {
		j := outfitted(t, "metal-panel", 80*length.Foot)
		r := &j.Lines[0].Runs[0]
		g := job.Gate{ID: "G1", Name: "Yard gate", At: 40 * length.Foot, Opening: 1200, Gap: 100, Hardware: shipped(t).UsualGate(length.Imperial).Hardware, Thick: 50, Least: 25, HingeIn: 200, Latch: 1000}
		first, _ := r.GatePosts(g)
		regular := r.Spacing.Regular(r.Post.Width, r.Post.Width)
		g.At += 5*regular - part*r.Spacing.Piece - first
		r.Gates = []job.Gate{g}
		_, second := r.GatePosts(g)
		// What the one side lacks, the other has over.
		r.Length, r.Spacing.Least = ptr(second+3*regular+part*r.Spacing.Piece), ptr(length.Length(100))
		moved := false
		for _, f := range plan.Make(j, shipped(t)).Findings {
			for _, way := range f.Remedies {
				for _, e := range way.Edits {
					moved = moved || f.Rule == "cut-piece" && strings.HasSuffix(e.Path, "/gates/G1/at")
				}
			}
		}
		if moved != want {
			t.Errorf("%v of a panel: moving the gate is offered %v", part, moved)
		}
	}
}
