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
	t := Totals{Posts: len(m.out.Posts), Kinds: []KindCount{}, Stock: []Stock{}, Holes: []Holes{}}
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
		t.addHole(p.HoleWidth, p.HoleDepth)
		if p.Stock == nil {
			t.StockShort++
			continue
		}
		t.addStock(*p.Stock)
	}
	slices.SortFunc(t.Stock, func(a, b Stock) int { return cmp.Compare(a.Length, b.Length) })
	slices.SortFunc(t.Holes, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
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

func (t *Totals) addHole(width, depth length.Length) {
	for i := range t.Holes {
		if length.Same(t.Holes[i].Width, width) && length.Same(t.Holes[i].Depth, depth) {
			t.Holes[i].Count++
			return
		}
	}
	t.Holes = append(t.Holes, Holes{width, depth, 1})
}

func (t *Totals) addStock(l length.Length) {
	for i := range t.Stock {
		if length.Same(t.Stock[i].Length, l) {
			t.Stock[i].Count++
			return
		}
	}
	t.Stock = append(t.Stock, Stock{l, 1})
}
