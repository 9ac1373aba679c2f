package build

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
	"mallow/core/words"
)

// Mark is a mark that a part wants on every post: its upper and lower edge above
// the fence's bottom, the same where it is one height.
type Mark struct {
	Name     string
	Kind     string
	Over, At length.Length
}

// usualBay is the first bay of fence that is as high as the run's; the first of
// all, where every one has a height of its own.
func (b *Build) usualBay() int {
	for _, s := range b.Stretches {
		for i := s.First; i <= s.Last; i++ {
			if length.Same(b.HighAt(i), b.Spec.Fence.Height) {
				return i
			}
		}
	}
	return b.Stretches[0].First
}

// Marks are what the parts add to the story stick, from the top down: rows of
// boards, brackets and bands, the top of the gravel boards.
func (b *Build) Marks() []Mark {
	if len(b.Stretches) == 0 {
		return nil
	}
	bay := b.usualBay()
	foot := b.Foot(bay)
	var out []Mark
	for i := range b.Parts {
		p := &b.Parts[i]
		switch {
		case p.By == job.ByRows:
			rows := b.RowsOf(p, bay)
			for k := len(rows) - 1; k >= 0; k-- {
				out = append(out, Mark{words.Plain("build.mark-row", words.V{"part": p.Name, "row": k + 1}), "board", foot + rows[k].To, foot + rows[k].From})
			}
		case (p.By == job.PerBayEnd || p.By == job.ByBands) && p.In > 0:
			n := p.each()
			if p.By == job.ByBands {
				n = p.each() * parts.Bands(b.Spec.Fence.Height)
			}
			high := b.Spec.Fence.Height - foot
			if panel := b.Of("panel"); panel != nil && panel.Width > 0 {
				high = panel.Width
			}
			for k := n - 1; k >= 0; k-- {
				at := p.In
				if n > 1 {
					at += (high - 2*p.In) * length.Length(k) / length.Length(n-1)
				}
				out = append(out, Mark{p.Name, "bracket", foot + at, foot + at})
			}
		}
	}
	if foot > 0 {
		out = append(out, Mark{words.Plain("build.mark-gravel"), "bottom", foot, foot})
	}
	return out
}
