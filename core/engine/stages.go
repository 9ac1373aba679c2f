// Package engine is the list of the stages of the work in their order: what
// computes a job, what checks it, what explains it. It hands each stage the
// trials that it may ask for, and keeps what did not change since the last
// time.
package engine

import (
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/load"
	"mallow/core/stage/setout"
)

// computeList is what computes a line, from top to bottom, each over all of its
// runs: a run needs of its neighbours what the step before has found.
var computeList = []struct {
	name string
	step func(*computing, *Line)
}{
	{"space: where each run's posts stand, by the run alone", (*computing).space},
	{"space: corner posts, which belong to the line", (*computing).corners},
	{"slope: top lines, of runs with the same fence as one, and posts again where pieces lean", (*computing).grade},
	{"slope: posts and panels on the lines that were found", (*computing).stand},
	{"dig: every run's own holes", (*computing).dig},
	{"dig: corner posts given to the runs that start there; what holes meet and bear", (*computing).share},
	{"gates: openings, leaves and their swings, on the map", (*computing).gates},
	{"build: what stands above ground, part by part", (*computing).build},
	{"setout: strings, marks and tops on site", (*computing).setout},
	{"curbing, load: the curb beside the posts, and what it all takes", (*computing).load},
	{"what stands on the finished run", (*computing).later},
}

// checkList is what looks at a finished run, in the order of its findings.
var checkList = []func(*Run, *stage.Checking){
	func(r *Run, c *stage.Checking) { r.Marking.Check(c) },
	func(r *Run, c *stage.Checking) { r.Line.Check(c) },
	func(r *Run, c *stage.Checking) { r.Slope.Check(c) },
	func(r *Run, c *stage.Checking) { r.Gates.Check(c) },
	func(r *Run, c *stage.Checking) { r.Holes.Check(c) },
	func(r *Run, c *stage.Checking) { r.Build.Check(c) },
	func(r *Run, c *stage.Checking) { r.Load.Curb.Check(r.Build, c) },
}

// laterList are the stages that stand on the finished run, in their order. A
// stage that is added is a folder with these doors, and a line here.
var laterList = []Stage{}

// Stage is a stage that stands on the finished run, by its doors.
type Stage struct {
	// Name is its part's name in the plan document, and in figures' addresses.
	Name string
	// Compute finds its part of a run that has a length. The part is not changed
	// any more.
	Compute func(Finished) any
	// Check says what is to be said of the part, with the ways out as edits.
	Check func(part any, c *stage.Checking)
	// Explain says why one of the part's figures is what it is.
	Explain func(part any, f stage.Figure) (reason.Why, bool)
}

// Finished is a run as the stages up to its load leave it.
type Finished struct {
	*load.Load
	Marking *setout.Marking
	// Parts are those of the stages before.
	Parts map[string]any
}

// later computes the stages that stand on the finished run.
func (c *computing) later(l *Line) {
	for r, run := range l.Runs {
		if was := c.before(l, r); was != nil && was.Load == run.Load && was.Marking == run.Marking {
			run.Parts = was.Parts
			continue
		}
		if !run.Laid.Laid() {
			continue
		}
		for _, s := range laterList {
			c.look()
			part := s.Compute(Finished{Load: run.Load, Marking: run.Marking, Parts: run.Parts})
			if run.Parts == nil {
				run.Parts = map[string]any{}
			}
			run.Parts[s.Name] = part
		}
	}
}
