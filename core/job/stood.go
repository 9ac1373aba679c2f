package job

import (
	"cmp"
	"slices"
	"sort"

	"mallow/core/length"
)

// Stood is a post of a gate or of a held bay that was measured where it stands:
// it is not where the job asks for it, and the opening or the bay is so much
// wider or narrower.
type Stood struct {
	By   string        // what it stands by: gates/G1/first, heldBays/H1/second
	Mark length.Length // where the job asks for it
	At   length.Length
}

// land holds posts where they landed: the post that it is, a held one, or a
// gate's, or a held bay's. The posts at a run's ends stand where they do. What
// cannot stand there beside what else is known, as one within another, is
// written down and holds nothing.
func (r *Run) land(order []string, landed map[string]Fact) {
	if len(landed) == 0 {
		return
	}
	laid, taken := map[string]Laid{}, map[string]bool{}
	for _, l := range r.Laid {
		laid[On("post", l.ID)] = l
	}
	for _, p := range r.FixedPosts {
		taken[p.ID] = true
	}
	own := len(r.FixedPosts) // only what is planned can be what a fact is about
	r.FixedPosts = slices.Clone(r.FixedPosts)
	along := r.places()
	for _, on := range order {
		f, ok := landed[on]
		by := laid[on].By
		if !ok || by == "start" || by == "end" || *f.At <= length.Tolerance || r.Length != nil && *f.At >= *r.Length-length.Tolerance {
			continue
		}
		if edge, is := r.edge(by); is {
			if r.stand(by, edge, *f.At) {
				along = r.places()
			}
			continue
		}
		is := slices.IndexFunc(r.FixedPosts[:own], func(p FixedPost) bool { return by != "" && by == HeldBy(p.ID) || length.Same(p.At, *f.At) })
		if is >= 0 {
			along = along.without(r.FixedPosts[is].At)
			if along.clear(*f.At, r.Post.Width) {
				r.FixedPosts[is].Mark = r.FixedPosts[is].At
				r.FixedPosts[is].At, r.FixedPosts[is].Landed = *f.At, true
			}
			along = along.with(r.FixedPosts[is].At)
			continue
		}
		if !along.clear(*f.At, r.Post.Width) {
			continue
		}
		mark := *f.At
		if l, known := laid[on]; known {
			mark = l.At
		}
		r.FixedPosts = append(r.FixedPosts, FixedPost{ID: factID(f, taken), At: *f.At, Landed: true, Fact: f.ID, Mark: mark})
		along = along.with(*f.At)
	}
	if len(r.FixedPosts) > own {
		sort.SliceStable(r.FixedPosts, func(a, b int) bool { return r.FixedPosts[a].At < r.FixedPosts[b].At })
	}
}

// edge is where the job asks for a gate's or a held bay's post.
func (r *Run) edge(by string) (at length.Length, is bool) {
	all := Names("/" + by)
	if len(all) != 3 {
		return 0, false
	}
	list, id, second := all[0], all[1], all[2] == "second"
	switch list {
	case "gates":
		for _, g := range r.Gates {
			if g.ID != id {
				continue
			}
			if g.asked != nil {
				g = *g.asked
			}
			first, last := r.GatePosts(g)
			if second {
				first = last
			}
			return first, true
		}
	case "heldBays":
		for _, b := range r.HeldBays {
			if b.ID != id {
				continue
			}
			if b.asked != nil {
				b = *b.asked
			}
			if second {
				return b.At + b.Width, true
			}
			return b.At, true
		}
	}
	return 0, false
}

// stand puts a post that gates or held bays share where it stands, and tells
// whether anything changed by that.
func (r *Run) stand(by string, mark, at length.Length) bool {
	if (at - mark).Abs() <= length.Millimetre {
		return false
	}
	next := *r
	next.Gates, next.HeldBays = slices.Clone(r.Gates), slices.Clone(r.HeldBays)
	wide := r.PostOf(GatePost).Width
	for i := range next.Gates {
		g := &next.Gates[i]
		asked := *g
		if g.asked != nil {
			asked = *g.asked
		}
		first, second := r.GatePosts(*g)
		switch a, b := r.GatePosts(asked); {
		case length.Same(a, mark):
			first = at
		case length.Same(b, mark):
			second = at
		default:
			continue
		}
		g.asked = &asked
		g.Leaves, g.Use = asked.LeafCount(), asked.For() // as the gate was asked for
		g.At, g.Opening, g.Leaf, g.Clear = (first+second)/2, second-first-wide, nil, nil
		if inside := g.Inside(); inside < leastOpening || inside > mostOpening || slices.ContainsFunc(g.LeafWidths(), func(w length.Length) bool { return w < leastLeaf }) {
			return false
		}
	}
	for i := range next.HeldBays {
		b := &next.HeldBays[i]
		asked := *b
		if b.asked != nil {
			asked = *b.asked
		}
		first, second := b.At, b.At+b.Width
		switch {
		case length.Same(asked.At, mark):
			first = at
		case length.Same(asked.At+asked.Width, mark):
			second = at
		default:
			continue
		}
		b.asked = &asked
		if b.At, b.Width = first, second-first; b.Width < leastHeld {
			return false
		}
	}
	if !next.places().apart(r.Post.Width) {
		return false
	}
	next.Stood = append(slices.Clip(r.Stood), Stood{By: by, Mark: mark, At: at})
	*r = next
	return true
}

// Least and most of what a document may ask for, of what stands otherwise.
const (
	leastOpening = 300 * length.Millimetre
	mostOpening  = 12 * length.Metre
	leastLeaf    = 150 * length.Millimetre
	leastHeld    = 100 * length.Millimetre
)

// AsAsked is the run with its gates and held bays as the job asks for them,
// whatever their posts made of them.
func (r Run) AsAsked() Run {
	stood := r.Stood
	r = r.asked()
	r.Stood = stood
	return r
}

func (r Run) asked() Run {
	r.Stood = nil
	if slices.ContainsFunc(r.Gates, func(g Gate) bool { return g.asked != nil }) {
		r.Gates = slices.Clone(r.Gates)
		for i := range r.Gates {
			if a := r.Gates[i].asked; a != nil {
				r.Gates[i] = *a
			}
		}
	}
	if slices.ContainsFunc(r.HeldBays, func(b HeldBay) bool { return b.asked != nil }) {
		r.HeldBays = slices.Clone(r.HeldBays)
		for i := range r.HeldBays {
			if a := r.HeldBays[i].asked; a != nil {
				r.HeldBays[i] = *a
			}
		}
	}
	return r
}

// Asked is the gate as the job asks for it, where its posts stand otherwise.
func (g Gate) Asked() Gate {
	if g.asked != nil {
		return *g.asked
	}
	return g
}

// places are where posts of a run must stand, in order: pairs for gates and
// held bays, alike ones for single posts.
type places [][2]length.Length

func (r *Run) places() places {
	out := places{{0, 0}}
	if r.Length != nil {
		out = append(out, [2]length.Length{*r.Length, *r.Length})
	}
	for _, g := range r.Gates {
		first, second := r.GatePosts(g)
		out = append(out, [2]length.Length{first, second})
	}
	for _, b := range r.HeldBays {
		out = append(out, [2]length.Length{b.At, b.At + b.Width})
	}
	for _, p := range r.FixedPosts {
		out = append(out, [2]length.Length{p.At, p.At})
	}
	slices.SortStableFunc(out, func(a, b [2]length.Length) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	return out
}

// clear tells whether a post can stand at a station beside all the others.
func (p places) clear(at, width length.Length) bool {
	i := sort.Search(len(p), func(i int) bool { return p[i][0] > at })
	return (i == 0 || at-p[i-1][1] >= width-length.Tolerance) && (i == len(p) || p[i][0]-at >= width-length.Tolerance)
}

// apart tells whether all can stand beside each other; they may share a post.
func (p places) apart(width length.Length) bool {
	for i := 1; i < len(p); i++ {
		a, b := p[i-1], p[i]
		gap := b[0] - a[1]
		share := gap.Abs() <= length.Tolerance && (a[0] < a[1] || b[0] < b[1])
		if !share && gap < width-length.Tolerance {
			return false
		}
	}
	return true
}

func (p places) with(at length.Length) places {
	i := sort.Search(len(p), func(i int) bool { return p[i][0] > at })
	return slices.Insert(p, i, [2]length.Length{at, at})
}

func (p places) without(at length.Length) places {
	i := slices.Index(p, [2]length.Length{at, at})
	if i < 0 {
		return p
	}
	return slices.Delete(p, i, i+1)
}
