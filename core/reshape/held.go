package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// bare takes away what stands on one run only, from a run that is built like
// another.
func bare(r *job.Run) {
	r.Length, r.Corner = nil, nil
	r.Ground, r.Gates, r.KeepOuts = []job.GroundPoint{}, []job.Gate{}, nil
	r.FixedPosts, r.HeldBays, r.Overrides = nil, nil, nil
	r.Grade.Parts, r.Grade.StartGap, r.Grade.EndGap = nil, nil, nil
}

// splitGrade shares out the looks and the heights held at the ends.
func splitGrade(run job.Run, at length.Length) (a, b job.Grade) {
	a, b = run.Grade, run.Grade
	a.Parts, b.Parts, a.EndGap, b.StartGap = nil, nil, nil, nil
	for _, f := range run.FixedPosts {
		if length.Same(f.At, at) { // the corner post there from now on
			a.EndGap, b.StartGap = f.Gap, f.Gap
		}
	}
	for _, p := range run.Grade.Parts {
		if before := p; before.From < at-length.Tolerance {
			before.To = min(before.To, at)
			a.Parts = append(a.Parts, before)
		}
		if after := p; after.To > at+length.Tolerance {
			after.From, after.To = max(0, after.From-at), after.To-at
			b.Parts = append(b.Parts, after)
		}
	}
	return a, b
}

// joinGrade carries the second run's looks on, level on from the first. Where
// its own look is another one, it becomes a part.
func joinGrade(joined *job.Run, second job.Run, level, end length.Length) {
	g := joined.Grade
	g.EndGap = second.Grade.EndGap
	g.Parts = nil
	for _, p := range joined.Grade.Parts { // nothing of the first reaches into the second
		if p.To = min(p.To, level); p.To > p.From {
			g.Parts = append(g.Parts, p)
		}
	}
	if second.Grade.Look != g.Look {
		g.Parts = g.WithPart(job.LookPart{From: level, To: end, Look: second.Grade.Look})
	}
	for _, p := range second.Grade.Parts {
		p.From, p.To = p.From+level, min(p.To+level, end)
		g.Parts = g.WithPart(p)
	}
	joined.Grade = g
}

// reverseGrade looks at the top line from the other end.
func reverseGrade(run *job.Run, level length.Length) {
	g := &run.Grade
	g.StartGap, g.EndGap = g.EndGap, g.StartGap
	g.Parts = slices.Clone(g.Parts)
	for i, p := range g.Parts {
		g.Parts[i].From, g.Parts[i].To = max(0, level-p.To), max(0, level-p.From)
	}
	slices.Reverse(g.Parts)
}

// shortenGrade drops what of the looks lies past a run's new end.
func shortenGrade(run *job.Run, level length.Length) {
	kept := []job.LookPart{}
	for _, p := range run.Grade.Parts {
		if p.To = min(p.To, level); p.To > p.From+length.Tolerance {
			kept = append(kept, p)
		}
	}
	if len(kept) == 0 {
		kept = nil
	}
	run.Grade.Parts = kept
}

// splitHeld shares out what is held. A post held where the run is split is
// the corner post there from now on.
func splitHeld(run job.Run, at length.Length, u length.Units) (a, b job.Run, err error) {
	a.FixedPosts, a.HeldBays, b.FixedPosts, b.HeldBays = nil, nil, nil, nil
	for _, f := range run.FixedPosts {
		switch {
		case length.Same(f.At, at):
		case f.At < at:
			a.FixedPosts = append(a.FixedPosts, f)
		default:
			f.At -= at
			b.FixedPosts = append(b.FixedPosts, f)
		}
	}
	for _, h := range run.HeldBays {
		switch {
		case h.At+h.Width <= at+length.Tolerance:
			a.HeldBays = append(a.HeldBays, h)
		case h.At >= at-length.Tolerance:
			h.At = max(0, h.At-at)
			b.HeldBays = append(b.HeldBays, h)
		default:
			return a, b, refuse(words.Plain("reshape.is-in-the-held-bay", words.V{"at": u.Tape(at), "name": named(h.Name, h.ID), "from": u.Tape(h.At), "to": u.Tape(h.At + h.Width)}))
		}
	}
	return a, b, nil
}

// joinHeld appends what is held on the second run, level on from the first.
func joinHeld(joined *job.Run, second job.Run, level length.Length) {
	for _, f := range second.FixedPosts {
		f.At += level
		f.ID = free("F", f.ID, joined.FixedPosts, func(f job.FixedPost) string { return f.ID })
		joined.FixedPosts = append(joined.FixedPosts, f)
	}
	for _, h := range second.HeldBays {
		h.At += level
		h.ID = free("H", h.ID, joined.HeldBays, func(h job.HeldBay) string { return h.ID })
		joined.HeldBays = append(joined.HeldBays, h)
	}
}

// reverseHeld looks at what is held from the other end, and at where the
// remainder of a stretch goes.
func reverseHeld(run *job.Run, level length.Length) {
	for i := range run.FixedPosts {
		run.FixedPosts[i].At = level - run.FixedPosts[i].At
	}
	slices.Reverse(run.FixedPosts)
	for i := range run.HeldBays {
		run.HeldBays[i].At = level - run.HeldBays[i].At - run.HeldBays[i].Width
	}
	slices.Reverse(run.HeldBays)
	if _, ok := run.Spacing.ByPiece(); ok {
		switch run.Spacing.Remainder {
		case job.RemainderFirst:
			run.Spacing.Remainder = job.RemainderLast
		case "", job.RemainderLast:
			run.Spacing.Remainder = job.RemainderFirst
		}
	}
}

// pastHeld refuses a run that ends before what is held on it.
func pastHeld(run job.Run, level length.Length, u length.Units) error {
	for _, f := range run.FixedPosts {
		if f.At > level+length.Tolerance {
			return refuse(words.Plain("reshape.a-post-is-held-at", words.V{"at": u.Tape(f.At), "level": u.Tape(level)}))
		}
	}
	for _, h := range run.HeldBays {
		if h.At+h.Width > level+length.Tolerance {
			return refuse(words.Plain("reshape.the-held-bay-reaches-to", words.V{"name": named(h.Name, h.ID), "at": u.Tape(h.At + h.Width), "level": u.Tape(level)}))
		}
	}
	return nil
}
