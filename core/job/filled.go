package job

import (
	"cmp"

	"mallow/core/length"
)

// Filled is the run with everything that it leaves out filled in as the rules
// take it, so that whoever shows a run knows no usual value of its own.
func (r Run) Filled(u length.Units) Run {
	s := &r.Spacing
	s.Way = cmp.Or(s.Way, EqualBays)
	s.Span = s.Spans()
	s.Turning = cmp.Or(s.Turning, Meeting)
	s.Ends = cmp.Or(s.Ends, MiddleOfPost)
	s.Remainder = cmp.Or(s.Remainder, RemainderLast)
	g := &r.Grade
	g.Look, g.Give, g.Steps = cmp.Or(g.Look, Stepped), cmp.Or(g.Give, Fill), cmp.Or(g.Steps, LeastGap)
	stiff := g.Stiff()
	g.Straight = &stiff
	g.StepBy, g.Board, g.Strip, g.EyeHeight = g.Increment(u), g.BoardHeight(u), g.StripWidth(u), g.Eye(u)
	g.Across, g.Infill, g.By = cmp.Or(g.Across, FlatAcross), cmp.Or(g.Infill, EarthInfill), cmp.Or(g.By, ByString)
	r.Fence.RailWidth = r.Fence.Rail(u)
	r.Post.Cut = cmp.Or(r.Post.Cut, CutAfter)
	return r
}

// Filled is the gate with what it leaves out filled in likewise.
func (g Gate) Filled() Gate {
	g.Slides = cmp.Or(g.Slides, SecondPost)
	return g
}

// Filled is the page with what it leaves out filled in likewise.
func (b Book) Filled() Book {
	b.Allow = cmp.Or(b.Allow, PerSetup)
	return b
}

// Filled is the site with what it leaves out filled in likewise.
func (s Site) Filled() Site {
	s.Exposure = s.Exposed()
	s.Before.Permit = cmp.Or(s.Before.Permit, PermitUnknown)
	return s
}
