package setout

import (
	"cmp"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// stick lists every mark that is the same on all posts.
func (m *Marking) stick() []StickMark {
	f, mark := m.Spec.Fence, m.Spec.String.Mark
	out := []StickMark{}
	add := func(name, kind string, up, to length.Length) { out = append(out, StickMark{name, kind, up, to}) }
	cut, both := words.Plain("setout.post-cut"), words.Plain("setout.post-cut-fence-top")
	if !m.Can(job.CutPosts) {
		cut, both = words.Plain("setout.post-top"), words.Plain("setout.post-top-fence-top")
	}
	line, terminal := m.Spec.PostOf(job.LinePost).Above, m.Spec.PostOf(job.EndPost).Above
	if !length.Same(line, terminal) {
		add(words.Plain("setout.terminal-post-top"), "cut", mark+terminal, mark+terminal)
		cut = words.Plain("setout.line-post-top")
	}
	if line != 0 {
		if line > 0 {
			add(cut, "cut", mark+line, mark+line)
		}
		add(words.Plain("setout.fence-top"), "top", mark, mark)
		if line < 0 {
			add(cut, "cut", mark+line, mark+line)
		}
	} else {
		add(both, "cut", mark, mark)
	}
	rails := m.Spec.RailHeights()
	kind, what := m.railKind()
	wide := f.Rail(m.Job.Units)
	placed := mark <= 0
	for i := len(rails) - 1; i >= 0; i-- {
		middle := mark - f.Height + rails[i]
		if !placed && middle+wide/2 < 0 {
			add(words.Plain("setout.reference-mark"), "mark", 0, 0)
			placed = true
		}
		name := what
		switch {
		case len(rails) == 1:
		case i == len(rails)-1:
			name = words.Plain("setout.top-rail", words.V{"rail": what})
		case i == 0:
			name = words.Plain("setout.bottom-rail", words.V{"rail": what})
		default:
			name = words.Plain("setout.middle-rail", words.V{"rail": what})
		}
		add(name, kind, middle+wide/2, middle-wide/2)
	}
	if !placed {
		add(words.Plain("setout.reference-mark"), "mark", 0, 0)
	}
	for _, p := range m.parts.Marks() {
		add(p.Name, p.Kind, mark-f.Height+p.Over, mark-f.Height+p.At)
	}
	add(words.Plain("setout.fence-bottom"), "bottom", mark-f.Height, mark-f.Height)
	add(words.Plain("setout.ground-least-and-most-gap"), "ground", mark-f.Height-f.GapLeast, mark-f.Height-f.GapMost)
	slices.SortStableFunc(out, func(a, b StickMark) int { return cmp.Compare(b.Up, a.Up) })
	return out
}

// railKind is how rails are held by the posts.
func (m *Marking) railKind() (kind, name string) {
	switch {
	case m.Spec.Spacing.Way == job.OverlapRails && m.Can(job.MorticePosts):
		return "hole", words.Plain("setout.rail-hole")
	case m.Spec.Spacing.Way == job.PanelsBetween && m.Spec.Spacing.Slot > 0:
		return "hole", "rout"
	case m.Spec.Post.Hollow || m.Spec.Spacing.Way == job.PanelsBetween:
		return "bracket", "bracket"
	}
	return "rail", "rail"
}
