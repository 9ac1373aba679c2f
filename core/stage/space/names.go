package space

import (
	"slices"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/naming"
	"mallow/core/spacing"
	"mallow/core/stage"
)

// names finds what each post is called: its id, by which it stays the post
// that it was, and its label, by its place in order along the run.
func (m *Spacing) names() {
	kept := m.Given.Laid
	known, now := make([]naming.Known, len(kept)), make([]naming.Known, len(m.Layout.Posts))
	for i, p := range kept {
		known[i] = naming.Known{At: p.At, By: p.By}
	}
	for i, p := range m.Layout.Posts {
		now[i] = naming.Known{At: p.Station, By: m.standsBy(i)}
	}
	next := m.Given.Named
	for _, p := range kept {
		if n, err := strconv.Atoi(strings.TrimPrefix(p.ID, m.Given.ID+".")); err == nil {
			next = max(next, n)
		}
	}
	m.ids, m.labels = make([]string, len(now)), make([]string, len(now))
	first := 0
	if !slices.ContainsFunc(kept, func(p job.Laid) bool { return p.By == "start" || p.At < length.Millimetre }) {
		first = 1 // it is another run's last post, or new: none of the others
	}
	match := append(slices.Repeat([]int{-1}, first), naming.Match(known, now[first:])...)
	for i, k := range match {
		if k >= 0 {
			m.ids[i], m.labels[i] = kept[k].ID, kept[k].Label
			continue
		}
		next++
		m.ids[i] = m.Given.ID + "." + strconv.Itoa(next)
	}
	m.labels = naming.Labels(m.labels)
}

// standsBy is what a post stands by, however the others are spaced; nothing
// for a line post.
func (m *Spacing) standsBy(i int) string {
	post, posts := m.Layout.Posts[i], len(m.Layout.Posts)
	by := func(list, id string, end ...string) string {
		return strings.TrimPrefix(job.At("", append([]string{list, id}, end...)...), "/")
	}
	switch {
	case i == 0:
		return "start"
	case i == posts-1:
		return "end"
	case post.Gate != spacing.NoGate:
		end := "second"
		if m.Layout.Bays[i].Gate == post.Gate {
			end = "first"
		}
		return by("gates", m.Spec.Gates[post.Gate].ID, end)
	case post.Held != spacing.Nothing:
		return job.HeldBy(m.Spec.FixedPosts[post.Held].ID)
	case post.Stays != spacing.Nothing:
		return by("keepOuts", m.Spec.KeepOuts[post.Stays].ID)
	case m.Layout.Bays[i].Held != spacing.Nothing:
		return by("heldBays", m.Spec.HeldBays[m.Layout.Bays[i].Held].ID, "first")
	case m.Layout.Bays[i-1].Held != spacing.Nothing:
		return by("heldBays", m.Spec.HeldBays[m.Layout.Bays[i-1].Held].ID, "second")
	}
	return ""
}

// PostLabel is what a post is called.
func (m *Spacing) PostLabel(i int) string { return m.labels[i] }

// BayLabel is what a bay is called: as the post that it begins at.
func (m *Spacing) BayLabel(i int) string {
	return "B" + strings.TrimPrefix(m.labels[m.Layout.Bays[i].First], "P")
}

// PostAt is the place of a post by its id or its label; −1 where there is none.
func (m *Spacing) PostAt(name string) int {
	if i := stage.PlaceOf(len(m.Posts), name, func(i int) string { return m.Posts[i].Label }); i >= 0 {
		return i
	}
	return stage.PlaceOf(len(m.Posts), name, func(i int) string { return m.Posts[i].ID })
}

// BayAt is the place of a bay likewise.
func (m *Spacing) BayAt(name string) int {
	if i := stage.PlaceOf(len(m.Bays), name, func(i int) string { return m.Bays[i].Label }); i >= 0 {
		return i
	}
	return stage.PlaceOf(len(m.Bays), name, func(i int) string { return m.Bays[i].ID })
}

// Kept are the run's posts as the next layout needs them to keep their names:
// those of this one but for the first where it is another run's last, and those
// of before that something is written about. A post that is marked on the
// ground keeps its label for good.
func (m *Spacing) Kept(before job.Run, shared bool, told func(id string) bool, marked func(id string) bool) (laid []job.Laid, named int) {
	was := map[string]job.Laid{}
	for _, p := range before.Laid {
		was[p.ID] = p
	}
	here := map[string]bool{}
	for i, p := range m.Layout.Posts {
		if i == 0 && shared {
			continue
		}
		old := was[m.ids[i]]
		mark := p.Station - p.Off // where it would stand if what was measured were struck out
		l := job.Laid{ID: m.ids[i], At: length.Length(float64(int64(mark + length.Millimetre/2))), By: m.standsBy(i), Label: old.Label}
		if l.Label == "" && marked(l.ID) {
			l.Label = m.labels[i]
		}
		here[l.ID] = true
		laid = append(laid, l)
	}
	for _, p := range before.Laid {
		if !here[p.ID] && told(p.ID) {
			laid = append(laid, p)
		}
	}
	named = before.Named
	for _, p := range laid {
		if n, err := strconv.Atoi(strings.TrimPrefix(p.ID, before.ID+".")); err == nil {
			named = max(named, n)
		}
	}
	return laid, named
}
