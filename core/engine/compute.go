package engine

import (
	"reflect"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/curbing"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/setout"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/stage/walk"
)

// result is a job as it is computed: figures and what they were found from, no
// sentence, no finding, no trial. It is not changed any more, so that many may
// read it at once, and the next result may take over what did not change.
type Result struct {
	Job     job.Job
	Catalog materials.Catalog
	Lines   []*Line
	Runs    []*Run // of all lines, one after the other
	Totals  load.Totals
}

// lineResult is one line as it is computed.
type Line struct {
	Walk   *walk.Walk
	joints []space.Joint
	Runs   []*Run
}

// runResult is one run after each of the stages. What a stage found is kept
// with what it was found from: while that is the same, so is the result.
type Run struct {
	Laid     *space.Spacing // by the run alone
	cornered *space.Spacing // with its corner posts as the line settles them
	after    *space.Spacing // the run that it was held against, and whether that carries the same fence
	flows    bool
	group    *solved
	Line     *slope.Line
	nextTop  *length.Length
	Slope    *slope.Slope
	next     *slope.Line
	dug      *dig.Holes
	before   *dig.Holes
	Holes    *dig.Holes
	Gates    *gates.Gates
	Marking  *setout.Marking
	Build    *build.Build
	curbEnds [2]curbing.End
	Load     *load.Load
	Parts    map[string]any // of the stages that stand on the finished run
	checked  *checked
}

// solved is a group of runs that was graded as one, and from what.
type solved struct {
	of    []*space.Spacing
	turns []bool
	ring  bool
	lines []*slope.Line
}

// computing is a job under way.
type computing struct {
	job   job.Job
	cat   materials.Catalog
	was   map[string]*Run // the last result's runs, by their names
	walks map[string]*walk.Walk
	look  func()
}

// compute finds a job's figures. What the last result has from the same, it
// takes over.
func Compute(j job.Job, cat materials.Catalog, was *Result, look func()) *Result {
	c := &computing{job: j, cat: cat, look: look, was: map[string]*Run{}, walks: map[string]*walk.Walk{}}
	c.job = common(j) // a run is found from itself, and what holds for the whole job
	if was != nil && sameJob(was.Job, j) {
		for _, l := range was.Lines {
			c.walks[l.Walk.Line.ID] = l.Walk
			for r, run := range l.Runs {
				c.was[l.Walk.Line.Runs[r].ID] = run
			}
		}
	}
	out := &Result{Job: j, Catalog: cat}
	for _, line := range j.Lines {
		res := c.line(line, job.At("/lines", line.ID))
		out.Lines = append(out.Lines, res)
		out.Runs = append(out.Runs, res.Runs...)
	}
	out.Totals = load.JobTotals(out.loads(), cat)
	return out
}

// sameJob tells whether what holds for all runs is the same in two jobs.
func sameJob(a, b job.Job) bool {
	a, b = common(a), common(b)
	a.Name, b.Name = "", ""
	return reflect.DeepEqual(a, b)
}

// common is what holds for every run of a job. What was seen on site is on the
// runs by now, and what is only written down is planned by nobody.
func common(j job.Job) job.Job {
	j.Lines, j.Observed, j.Notes, j.Tags = nil, nil, "", nil
	return j
}

func (r *Result) loads() []*load.Load {
	out := make([]*load.Load, len(r.Runs))
	for i, run := range r.Runs {
		out[i] = run.Load
	}
	return out
}

// line computes one line, step by step.
func (c *computing) line(line job.Line, path string) *Line {
	out := &Line{Walk: c.walk(line, path), Runs: make([]*Run, len(line.Runs))}
	for r := range out.Runs {
		out.Runs[r] = &Run{}
	}
	for _, s := range computeList {
		s.step(c, out)
	}
	return out
}

// walk reduces the line's measures, unless they are as they were.
func (c *computing) walk(line job.Line, path string) *walk.Walk {
	if was := c.walks[line.ID]; was != nil && was.Path == path && sameMeasures(was.Line, line) {
		same := *was
		same.Line = line
		return &same
	}
	return walk.Compute(c.job.Units, line, path)
}

// sameMeasures tells whether all is the same that a line's map and its ground
// follow from.
func sameMeasures(a, b job.Line) bool {
	if !slices.EqualFunc(a.Runs, b.Runs, func(r, o job.Run) bool {
		return r.ID == o.ID && r.Name == o.Name && r.Taped == o.Taped && sameLength(r.Length, o.Length) &&
			reflect.DeepEqual(r.Ground, o.Ground) && reflect.DeepEqual(r.Corner, o.Corner)
	}) {
		return false
	}
	a.Runs, b.Runs = nil, nil
	return reflect.DeepEqual(a, b)
}

func (c *computing) before(l *Line, r int) *Run { return c.was[l.Walk.Line.Runs[r].ID] }

// space finds where each run's posts stand.
func (c *computing) space(l *Line) {
	for r, run := range l.Walk.Line.Runs {
		c.look()
		path := job.At(l.Walk.Path, "runs", run.ID)
		at := l.Walk.Lies[r]
		if was := c.before(l, r); was != nil && was.Laid.Path == path && was.Laid.Lie.Same(at) && reflect.DeepEqual(was.Laid.Given, run) {
			l.Runs[r].Laid = was.Laid
			continue
		}
		l.Runs[r].Laid = space.Compute(stage.NewRun(c.job, run, c.cat, path, at))
	}
}

// corners settles the posts that two runs share.
func (c *computing) corners(l *Line) {
	laid := make([]*space.Spacing, len(l.Runs))
	for r := range laid {
		laid[r] = l.Runs[r].Laid
	}
	alike := func(r, after int) bool {
		a, b := c.before(l, r), c.before(l, after)
		if a != nil && b != nil && a.Laid == laid[r] && b.Laid == laid[after] && a.after == b.Laid {
			return a.flows // as it was
		}
		return space.Alike(laid[r].Spec, laid[after].Spec)
	}
	cornered, joints := space.Corners(l.Walk, laid, alike)
	for r, m := range cornered {
		if was := c.before(l, r); was != nil && was.Laid == laid[r] && was.cornered.SameCorners(m) {
			m = was.cornered
		}
		l.Runs[r].cornered = m
		if joints[r].Meets {
			l.Runs[r].after, l.Runs[r].flows = laid[(r+1)%len(laid)], joints[r].Flows
		}
	}
	l.joints = joints
}

// grade finds the top lines. Runs with the same fence are graded as one, so
// that how a straight fence was taped changes nothing, and tops meet at
// corners.
func (c *computing) grade(l *Line) {
	n := len(l.Runs)
	first := 0 // the run after which something else comes
	for first < n && l.joints[first].Flows {
		first++
	}
	ring := first == n
	if ring {
		first = n - 1
	}
	var members []int
	g := &solved{ring: ring}
	for k := range n {
		r := (first + 1 + k) % n
		if !l.Runs[r].Laid.Laid() {
			l.Runs[r].Line = slope.Unsolved(l.Runs[r].cornered)
			continue
		}
		members = append(members, r)
		g.turns = append(g.turns, len(g.of) > 0 && !l.joints[(r+n-1)%n].Plain)
		g.of = append(g.of, l.Runs[r].cornered)
		if k == n-1 || !l.joints[r].Flows {
			c.solve(l, g, members)
			g, members = &solved{ring: ring}, nil
		}
	}
}

// solve grades a group of runs, unless it is what it was.
func (c *computing) solve(l *Line, g *solved, members []int) {
	if was := c.before(l, members[0]); was != nil && was.group != nil && was.group.same(g) {
		g = was.group
	} else {
		for _, m := range g.of {
			g.lines = append(g.lines, slope.Unsolved(m))
		}
		(&slope.Group{Runs: g.lines, Turns: g.turns, Ring: g.ring}).Grade(c.look)
		for k, line := range g.lines {
			if was := c.before(l, members[k]); was != nil && was.cornered == g.of[k] && was.Line.SameAs(line) {
				g.lines[k] = was.Line
				continue
			}
			line.List()
		}
	}
	for k, r := range members {
		l.Runs[r].group, l.Runs[r].Line = g, g.lines[k]
	}
}

func (g *solved) same(o *solved) bool {
	return g.ring == o.ring && slices.Equal(g.of, o.of) && slices.Equal(g.turns, o.turns)
}

// stand stands posts and panels on the lines that were found.
func (c *computing) stand(l *Line) {
	for r, run := range l.Runs {
		if next := l.after(r); next != nil {
			run.next = next.Line
			run.nextTop = &next.Line.Top.Tops[0]
		}
		if was := c.before(l, r); was != nil && was.Line == run.Line && sameLength(was.nextTop, run.nextTop) {
			run.Slope = was.Slope
			continue
		}
		run.Slope = slope.Compute(run.Line, run.nextTop)
	}
}

// after is the run that starts at a run's last post, or nil.
func (l *Line) after(r int) *Run {
	if !l.joints[r].Meets {
		return nil
	}
	return l.Runs[(r+1)%len(l.Runs)]
}

// dig sizes every run's own holes.
func (c *computing) dig(l *Line) {
	for r, run := range l.Runs {
		if was := c.before(l, r); was != nil && was.Slope == run.Slope && was.next == run.next {
			run.dug = was.dug
			continue
		}
		run.dug = dig.Compute(run.Slope, run.next, c.look)
	}
}

// share gives each corner post to the run that starts at it, and finishes the
// holes.
func (c *computing) share(l *Line) {
	n := len(l.Runs)
	for r := range l.Runs {
		if l.joints[r].Meets {
			l.Runs[(r+1)%n].before = l.Runs[r].dug
		}
	}
	for r, run := range l.Runs {
		if was := c.before(l, r); was != nil && was.dug == run.dug && was.before == run.before {
			run.Holes = was.Holes
			continue
		}
		run.Holes = run.dug.Sharing(run.before)
		if run.Holes.Laid() {
			run.Holes.Finish(c.look)
		}
	}
}

// gates plans the gates.
func (c *computing) gates(l *Line) {
	for r, run := range l.Runs {
		var last *gates.Gates
		if was := c.before(l, r); was != nil {
			if last = was.Gates; was.Holes == run.Holes && last.MapPlace == l.Walk.Places[r] {
				run.Gates = last
				continue
			}
		}
		run.Gates = gates.Compute(run.Holes, l.Walk.Places[r], last)
	}
}

// setout plans how the runs are marked on site.
func (c *computing) setout(l *Line) {
	for r, run := range l.Runs {
		if was := c.before(l, r); was != nil && was.Build == run.Build && was.Marking.MapPlace == l.Walk.Places[r] {
			run.Marking = was.Marking
			continue
		}
		run.Marking = setout.Compute(run.Build, l.Walk.Places[r])
	}
}

// build counts what stands above ground.
func (c *computing) build(l *Line) {
	for r, run := range l.Runs {
		if was := c.before(l, r); was != nil && was.Gates == run.Gates {
			run.Build = was.Build
			continue
		}
		c.look()
		run.Build = build.Compute(run.Gates)
	}
}

// load adds the runs up.
func (c *computing) load(l *Line) {
	for r, run := range l.Runs {
		run.curbEnds = l.curbEnds(r)
		if was := c.before(l, r); was != nil && was.Build == run.Build && was.Marking == run.Marking && was.curbEnds == run.curbEnds {
			run.Load, run.checked = was.Load, was.checked
			continue
		}
		run.Load, run.checked = load.Compute(run.Build, curbing.Compute(run.Build, run.curbEnds)), &checked{}
	}
}

// curbEnds are the curbs that a run's own meets at its two ends.
func (l *Line) curbEnds(r int) (ends [2]curbing.End) {
	n := len(l.Runs)
	if l.Runs[r].Laid.Given.Curb == nil {
		return ends
	}
	meet := func(before, other int) curbing.End {
		o := l.Runs[other].Laid.Given.Curb
		if !l.joints[before].Meets || o == nil {
			return curbing.End{}
		}
		return curbing.End{Meets: true, Turn: l.Walk.TurnAt(before).Degrees, Off: o.Off}
	}
	return [2]curbing.End{meet((r+n-1)%n, (r+n-1)%n), meet(r, (r+1)%n)}
}

func sameLength(a, b *length.Length) bool { return a == b || a != nil && b != nil && *a == *b }
