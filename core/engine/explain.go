package engine

import (
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/load"
)

// Explain says why a figure is what it is. It is false when there is no such
// figure.
func (r *Result) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case f.Of == "corner" || f.Of == "closing":
		for _, l := range r.Lines {
			if l.Walk.Line.ID == f.Line {
				return l.Walk.Explain(f)
			}
		}
		return reason.Why{}, false
	case f.Run == "":
		return load.ExplainJob(r.loads(), r.Totals, f)
	}
	run := r.Run(f.Run)
	if run == nil || !run.Laid.Laid() && f.Of != "totals" {
		return reason.Why{}, false
	}
	switch f.Of {
	case "string", "tops":
		return run.Marking.Explain(f)
	case "post":
		if first := run.Holes.Posts[0]; first.Label == f.ID && first.Shared != "" {
			switch f.What {
			case "holeWidth", "holeDepth", "concrete", "stock":
				// It is dug in the run before, as that one's last post.
				before := run.before
				return before.WhyPost(len(before.Posts)-1, f)
			}
		}
	}
	for _, s := range laterList {
		if f.Of == s.Name {
			return s.Explain(run.Parts[s.Name], f)
		}
	}
	return run.Load.Explain(f)
}
