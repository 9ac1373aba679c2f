package plan

import (
	"cmp"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
)

// totals adds up the run: exact values first, whole bags last.
func (m *maker) totals() Totals {
	t := Totals{Posts: len(m.out.Posts), Kinds: []KindCount{}}
	for _, kind := range []job.PostKind{job.EndPost, job.GatePost, job.LinePost} {
		n := 0
		for i := range m.out.Posts {
			if m.out.Posts[i].Kind == kind {
				n++
			}
		}
		if n > 0 {
			t.Kinds = append(t.Kinds, KindCount{kind, n})
		}
	}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		t.Concrete += p.ConcreteVolume
		t.Gravel += p.GravelVolume
	}
	t.Holes = holesBySize(m.out.Posts)
	t.Stock, t.StockShort = stockByLength(m.out.Posts)
	t.ConcreteToBuy = t.Concrete * length.Volume(1+m.run.Setting.Waste)
	if m.bagKnown {
		t.Bag = m.bag.Name
		t.BagsExact = pour.Bags(t.ConcreteToBuy, m.bag.Yield)
		t.Bags = pour.WholeBags(t.BagsExact)
		t.BagsMass = m.bag.Mass * length.Mass(t.Bags)
	}
	t.GravelLoose = t.Gravel * length.Volume(1+m.cat.Gravel.Tamping)
	t.GravelMass = length.Mass(float64(t.GravelLoose) * m.cat.Gravel.Density)
	t.Why = TotalsWhy{Concrete: m.whyBags(t), Gravel: m.whyGravel(t)}
	return t
}

// holesBySize counts the holes of each size, the smallest first.
func holesBySize(posts []Post) []Holes {
	all := make([]Holes, len(posts))
	for i := range posts {
		all[i] = Holes{posts[i].HoleWidth, posts[i].HoleDepth, 1}
	}
	slices.SortFunc(all, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
	out := all[:0]
	for _, h := range all {
		if n := len(out); n > 0 && length.Same(out[n-1].Width, h.Width) && length.Same(out[n-1].Depth, h.Depth) {
			out[n-1].Count++
			continue
		}
		out = append(out, h)
	}
	return out
}

// stockByLength counts the posts of each stock length, the shortest first.
func stockByLength(posts []Post) (out []Stock, short int) {
	out = []Stock{}
	for i := range posts {
		if posts[i].Stock == nil {
			short++
			continue
		}
		l := *posts[i].Stock // one of a few lengths
		k := slices.IndexFunc(out, func(s Stock) bool { return length.Same(s.Length, l) })
		if k < 0 {
			out = append(out, Stock{l, 1})
			continue
		}
		out[k].Count++
	}
	slices.SortFunc(out, func(a, b Stock) int { return cmp.Compare(a.Length, b.Length) })
	return out, short
}
