package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// bare takes away what stands on one run only, from a run that is built like
// another.
func bare(r *job.Run) {
	r.Length, r.Corner = nil, nil
	r.Ground, r.Gates, r.KeepOuts = []job.GroundPoint{}, []job.Gate{}, nil
	r.FixedPosts, r.HeldBays = nil, nil
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
			return a, b, refuse("%s is in the held bay %s, %s to %s. Split at one of its posts, or beside it.", u.Tape(at), named(h.Name, h.ID), u.Tape(h.At), u.Tape(h.At+h.Width))
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
		switch run.Spacing.Odd {
		case job.OddFirst:
			run.Spacing.Odd = job.OddLast
		case "", job.OddLast:
			run.Spacing.Odd = job.OddFirst
		}
	}
}

// pastHeld refuses a run that ends before what is held on it.
func pastHeld(run job.Run, level length.Length, u length.Units) error {
	for _, f := range run.FixedPosts {
		if f.At > level+length.Tolerance {
			return refuse("A post is held at %s, past a run of %s. Move it or let it go first.", u.Tape(f.At), u.Tape(level))
		}
	}
	for _, h := range run.HeldBays {
		if h.At+h.Width > level+length.Tolerance {
			return refuse("The held bay %s reaches to %s, past a run of %s. Move it or let it go first.", named(h.Name, h.ID), u.Tape(h.At+h.Width), u.Tape(level))
		}
	}
	return nil
}
