package main

import (
	"encoding/json"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"runtime"
	"runtime/debug"
	"time"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
)

// genes are what a searched document is made of. Each is a share of what a job
// may have.
type genes struct {
	Posts, Runs, Lines               float64
	Gates, Heights, Overrides, InWay float64
	Held, Parts, Rough, Clustered    float64
	Way, Look, Steps, Give           int
	Infill, Method, System           int
	Metric, Closed, Frost, Wide      bool
	Taped                            bool
	Seed                             uint64
}

// randomGenes leans to the extremes, where the worst is.
func randomGenes(r *rand.Rand) genes {
	share := func() float64 {
		switch r.IntN(4) {
		case 0:
			return 0
		case 1:
			return 1
		}
		return math.Pow(r.Float64(), 2)
	}
	return genes{
		Posts: max(0.02, share()), Runs: share(), Lines: share(), Gates: share(), Heights: share(), Overrides: share(), InWay: share(),
		Held: share(), Parts: share(), Rough: share(), Clustered: share(),
		Way: r.IntN(len(job.Ways)), Look: r.IntN(len(job.Looks)), Steps: r.IntN(5), Give: r.IntN(3), Infill: r.IntN(3), Method: r.IntN(7), System: r.IntN(40),
		Metric: r.IntN(2) == 0, Closed: r.IntN(2) == 0, Frost: r.IntN(2) == 0, Wide: r.IntN(2) == 0, Taped: r.IntN(4) == 0, Seed: r.Uint64(),
	}
}

// bred changes a few of the genes to another's.
func bred(r *rand.Rand, g genes) genes {
	other := randomGenes(r)
	var a, b map[string]any
	for into, of := range map[*map[string]any]genes{&a: g, &b: other} {
		raw, err := json.Marshal(of)
		if err == nil {
			err = json.Unmarshal(raw, into)
		}
		if err != nil {
			return other
		}
	}
	for name := range a {
		if r.IntN(7) == 0 {
			a[name] = b[name]
		}
	}
	raw, err := json.Marshal(a)
	if err != nil || json.Unmarshal(raw, &g) != nil {
		return other
	}
	return g
}

func part(share float64, most int) int { return int(math.Round(share * float64(most))) }

// document is the job that genes make, within the limits of a job.
func (g genes) document(cat materials.Catalog) job.Job {
	r := rand.New(rand.NewPCG(g.Seed, 7))
	sys := length.Imperial
	if g.Metric {
		sys = length.Metric
	}
	j := document.New("Worst", sys, cat)
	runs := max(1, part(g.Runs*g.Runs, document.MostRuns))
	lines := max(1, min(50, part(g.Lines, runs)))
	like := j.Lines[0].Runs[0]
	if systems := systemsOf(cat, sys); len(systems) > 0 {
		like = systems[g.System%len(systems)].Outfit(like)
	}
	like.Spacing.Way = job.Ways[g.Way]
	if _, ok := like.Spacing.ByPiece(); ok && like.Spacing.Piece == 0 {
		like.Spacing.Piece = 1800
	}
	like.Grade.Look, like.Grade.Give = job.Looks[g.Look], []job.Give{job.Fill, job.Cut, job.Both}[g.Give]
	like.Grade.Steps = []job.Steps{"", job.LeastGap, job.EvenSteps, job.Gradual, job.RoundStep}[g.Steps]
	like.Grade.StepBy = 50
	like.Grade.Infill = []job.Infill{job.EarthInfill, job.GravelBoards, job.CutBoards}[g.Infill]
	if g.Taped {
		like.Taped = job.TapedSlope
	}
	if g.Frost {
		frost := length.Length(900)
		j.Site.FrostDepth = &frost
	}
	bay := like.Spacing.Most
	if _, ok := like.Spacing.ByPiece(); ok {
		bay = like.Spacing.Regular(like.Post.Width, like.Post.Width)
	}
	most := document.MostPosts
	if like.Grade.Look.Leans() || g.Parts > 0 {
		most = document.MostLeaning
	}
	posts := part(g.Posts, most)*9/10 - 2*runs
	long := max(3*bay, bay*length.Length(float64(posts)/float64(runs)))
	share := func(of float64, most int) int { return part(of, most) / runs }
	each := struct{ heights, gates, spots, inWay, held, parts int }{share(g.Heights, document.MostHeights), share(g.Gates, document.MostGates), share(g.Overrides, document.MostOverrides),
		share(g.InWay, document.MostInWay), share(g.Held, document.MostHeld), min(200, part(g.Parts, document.MostParts)/runs)}
	j.Lines = nil
	for l := range lines {
		line := job.Line{ID: fmt.Sprintf("L%d", l+1), Name: "", Closed: g.Closed && runs/lines > 2}
		for n := range runs / lines {
			line.Runs = append(line.Runs, g.run(r, like, long, each.heights, each.gates, each.spots, each.inWay, each.held, each.parts, fmt.Sprintf("R%d.%d", l+1, n+1)))
		}
		j.Lines = append(j.Lines, line)
	}
	return j
}

func systemsOf(cat materials.Catalog, sys length.System) (out []materials.System) {
	for _, s := range cat.Systems {
		if s.System.System == sys {
			out = append(out, s)
		}
	}
	return out
}

func (g genes) run(r *rand.Rand, like job.Run, long length.Length, heights, gates, spots, inWay, held, parts int, id string) job.Run {
	run := like
	run.ID, run.Name, run.Length = id, "", &long
	run.Ground, run.Gates, run.Overrides, run.KeepOuts, run.FixedPosts = nil, nil, nil, nil, nil
	// Clustered: all of it in a tenth of the run.
	within := func() length.Length {
		if g.Clustered > 0.5 {
			return long * length.Length(0.45+0.1*r.Float64())
		}
		return long * length.Length(r.Float64())
	}
	for k := range heights {
		at := long * length.Length(k) / length.Length(heights)
		run.Ground = append(run.Ground, job.GroundPoint{At: at, Height: length.Length(1000*g.Rough*r.NormFloat64()) + at*length.Length(0.3*(g.Rough-0.5))})
	}
	for k := range gates {
		run.Gates = append(run.Gates, job.Gate{ID: fmt.Sprintf("G%d", k+1), At: long * (length.Length(k) + 0.5) / length.Length(gates), Opening: 1000, Gap: 50})
	}
	kinds := []job.Obstacle{job.Service, job.Root, job.Rock, job.Drain, job.Footing, job.OldPost, job.NoDig}
	for k := range inWay {
		o := job.KeepOut{ID: fmt.Sprintf("K%d", k+1), Kind: kinds[r.IntN(len(kinds))], At: within(), Width: length.Length(r.IntN(600))}
		if g.Wide {
			o.Width *= 4
		}
		o.Repour, o.Stays = r.IntN(2) == 0, o.Kind == job.OldPost && r.IntN(2) == 0
		run.KeepOuts = append(run.KeepOuts, o)
	}
	struck := []job.Struck{job.HitRock, job.HitWater}
	for k := range spots {
		run.Overrides = append(run.Overrides, job.HoleOverride{ID: fmt.Sprintf("S%d", k+1), At: long * (length.Length(k) + 0.3) / length.Length(spots),
			Hit: &job.Hit{What: struck[r.IntN(2)], Depth: length.Length(200 + r.IntN(300))}})
	}
	for k := range held {
		run.FixedPosts = append(run.FixedPosts, job.FixedPost{ID: fmt.Sprintf("F%d", k+1), At: long * (length.Length(k) + 0.2 + 0.3*length.Length(r.Float64())) / length.Length(held), Landed: r.IntN(2) == 0})
	}
	run.Grade.Parts = nil
	for k := range parts {
		at := long * length.Length(k) / length.Length(parts)
		run.Grade.Parts = append(run.Grade.Parts, job.LookPart{From: at, To: at + long/length.Length(parts), Look: job.Looks[r.IntN(4)]})
	}
	return run
}

// mostDocument is the largest document that the server takes.
const mostDocument = 4 << 20

// tried is what a document cost.
type tried struct {
	genes genes
	took  time.Duration
	heap  uint64 // bytes given out while it was planned, at one time
	doc   []byte
	posts int
	ok    bool

	panicked string
}

// cost plans the document of some genes, if a job may be so.
func (g genes) cost(cat materials.Catalog, most time.Duration) (t tried) {
	t.genes = g
	raw, err := json.Marshal(g.document(cat).WithFacts())
	if err != nil {
		return t
	}
	j, _, err := document.Decode(raw, cat)
	if err != nil {
		return t
	}
	if t.doc = raw; len(raw) > mostDocument {
		return t
	}
	t.ok = true
	runtime.GC()
	var before, peak runtime.MemStats
	runtime.ReadMemStats(&before)
	began := time.Now()
	done := make(chan struct{})
	watched := make(chan struct{})
	go func() {
		defer close(watched)
		tick := time.NewTicker(20 * time.Millisecond)
		defer tick.Stop()
		for {
			select {
			case <-done:
				return
			case <-tick.C:
				runtime.ReadMemStats(&peak)
				t.heap = max(t.heap, peak.HeapAlloc-min(peak.HeapAlloc, before.HeapAlloc))
			}
		}
	}()
	late := began.Add(most)
	p, err := t.plan(func() error {
		if time.Now().After(late) {
			return errLate
		}
		return nil
	}, j, cat)
	t.took = time.Since(began)
	close(done)
	<-watched
	if err == nil {
		t.posts = p.Totals.Posts
	}
	return t
}

// plan plans a document; a panic is remembered with its stack.
func (t *tried) plan(stop func() error, j job.Job, cat materials.Catalog) (plan.Plan, error) {
	defer func() {
		if r := recover(); r != nil {
			t.panicked = fmt.Sprintf("%v\n%s", r, debug.Stack())
		}
	}()
	return plan.MakeUntil(stop, j, cat)
}

var errLate = fmt.Errorf("later than the search waits")

// searchWorst looks for the document that plans the longest, among those that
// a job may be: at random first, then by changing the worst ones.
func searchWorst(out io.Writer, length time.Duration, seed uint64) (worst tried, err error) {
	cat, err := catalog.Load()
	if err != nil {
		return worst, err
	}
	r := rand.New(rand.NewPCG(seed, 16))
	var best []tried
	most := uint64(0)
	n, refused := 0, 0
	for end := time.Now().Add(length); time.Now().Before(end); n++ {
		g := randomGenes(r)
		if len(best) > 3 && r.IntN(4) > 0 {
			g = bred(r, best[r.IntN(len(best))].genes)
		}
		t := g.cost(cat, 60*time.Second)
		if !t.ok {
			refused++
			continue
		}
		if t.panicked != "" {
			return t, fmt.Errorf("a document of %d bytes panics: %s", len(t.doc), t.panicked)
		}
		most = max(most, t.heap)
		i := 0
		for i < len(best) && best[i].took >= t.took {
			i++
		}
		if i < 8 {
			best = append(best[:i], append([]tried{t}, best[i:]...)...)
			best = best[:min(len(best), 8)]
			if i == 0 {
				fmt.Fprintf(out, "%6.2f s, %4d MB, %5d posts, %4d kB: %+v\n", t.took.Seconds(), t.heap>>20, t.posts, len(t.doc)>>10, t.genes)
			}
		}
	}
	if len(best) > 0 {
		worst = best[0]
	}
	fmt.Fprintf(out, "%d documents, %d refused; the worst plans in %.2f s, the most memory was %d MB\n", n, refused, worst.took.Seconds(), most>>20)
	worst.heap = max(worst.heap, most)
	return worst, nil
}
