package plan

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/reason"
)

// totals adds up the run: exact values first, what is bought whole last. A
// corner post is counted in the run that ends there.
func (m *maker) totals() Totals {
	t := Totals{BagKinds: []BagCount{}, Stock: []Stock{}, KindStock: []KindStock{}, Kinds: []KindCount{}, Holes: []Holes{}, Parts: []LoadPart{}}
	t.soil(m.out.Bays, m.run.Grade.StripWidth(m.job.Units))
	t.swings(m.out.Gates)
	t.breaks(m.out.Posts, m.job.Units.SmallestMark)
	var own []*Post
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		switch {
		case p.Shared != "":
			t.Elsewhere++
		case p.Stays != "":
			t.Reused++
		default:
			own = append(own, p)
		}
	}
	t.posts(own)
	t.parts(m, own)
	t.pieces()
	if m.bagKnown {
		t.bag(m.bag, 0)
	}
	t.filled(m, own)
	t.buy(m.cat, m.job.Units.System)
	t.Waste = m.waste()
	t.Why = TotalsWhy{Concrete: m.whyBags(t), Gravel: m.whyGravel(t), Hours: m.whyHours(t), Spoil: m.whySpoil(t)}
	return t
}

// posts counts posts by kind and by stock length.
func (t *Totals) posts(posts []*Post) {
	t.Posts = len(posts)
	kinds, both := map[job.PostKind]int{}, map[KindStock]int{}
	for _, p := range posts {
		kinds[p.Kind]++
		key := KindStock{Kind: p.Kind}
		if p.Stock != nil {
			key.Length = snapped(*p.Stock)
		}
		both[key]++
	}
	for _, kind := range kindOrder {
		if n := kinds[kind]; n > 0 {
			t.Kinds = append(t.Kinds, KindCount{kind, n})
		}
	}
	for key, n := range both {
		key.Count = n
		t.KindStock = append(t.KindStock, key)
	}
	t.sortStock()
	t.Stock, t.StockShort = stockByLength(posts)
}

// snapped is a stock length without float noise, so that it is one key.
func snapped(l length.Length) length.Length { return length.Length(math.Round(float64(l)*1e3) / 1e3) }

// kindOrder is the order in which kinds of post are listed.
var kindOrder = []job.PostKind{job.EndPost, job.CornerPost, job.GatePost, job.LinePost}

func (t *Totals) sortStock() {
	slices.SortFunc(t.KindStock, func(a, b KindStock) int {
		return cmp.Or(cmp.Compare(slices.Index(kindOrder, a.Kind), slices.Index(kindOrder, b.Kind)), cmp.Compare(a.Length, b.Length))
	})
}

// filled adds up what goes into the run's holes, and how long they take.
func (t *Totals) filled(m *maker, posts []*Post) {
	rate := m.crew()
	for _, p := range posts {
		d := &m.ditches[p.Card]
		t.Concrete += d.fill.Concrete
		t.ConcreteToBuy += d.buy
		t.Gravel += d.fill.Gravel
		t.Stone += d.fill.Stone
		t.Dug += d.fill.Dug
		t.SoilBack += d.fill.Soil
		t.Spoil += m.out.Cards[p.Card].Spoil
		if d.bag.Yield > 0 {
			t.bag(d.bag, pour.Bags(d.buy, d.bag.Yield))
		}
		if p.HoleDepth > 0 { // a driven post may have none
			t.hole(p, d, m.soil, rate)
		}
	}
	slices.SortFunc(t.Holes, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
}

// hole counts one hole with its size's others.
func (t *Totals) hole(p *Post, d *ditch, soil materials.Soil, rate materials.CrewRate) {
	one := Holes{Width: p.HoleWidth, Depth: p.HoleDepth, Square: d.shape.Square, Count: 1, ByHand: pour.HandHours(d.fill.Dug, soil.Digging, rate)}
	one.ByAuger = one.ByHand
	if d.sized.width.Auger && !d.shape.Square && len(p.Hand) == 0 && !d.sized.driven {
		one.ByAuger = pour.AugerHours(p.HoleDepth, soil.Digging, rate)
	} else {
		t.Hours.Hand++
	}
	t.Hours.ByHand += one.ByHand
	t.Hours.ByAuger += one.ByAuger
	t.sameHoles(one)
}

// alikeDeep is by how much two holes may differ that are dug as one size.
const alikeDeep = length.Millimetre

func (t *Totals) sameHoles(one Holes) {
	for i := range t.Holes {
		if h := &t.Holes[i]; length.Same(h.Width, one.Width) && (h.Depth-one.Depth).Abs() < alikeDeep && h.Square == one.Square {
			h.Count, h.ByHand, h.ByAuger = h.Count+one.Count, h.ByHand+one.ByHand, h.ByAuger+one.ByAuger
			return
		}
	}
	t.Holes = append(t.Holes, one)
}

// bag adds bags of a kind, exactly.
func (t *Totals) bag(b materials.Bag, exact float64) {
	for i := range t.BagKinds {
		if t.BagKinds[i].id == b.ID {
			t.BagKinds[i].Exact += exact
			return
		}
	}
	t.BagKinds = append(t.BagKinds, BagCount{Bag: b.Name, Exact: exact, id: b.ID})
}

// buy rounds up what is bought whole, once.
func (t *Totals) buy(cat materials.Catalog, sys length.System) {
	t.Bags = 0
	used := slices.ContainsFunc(t.BagKinds, func(b BagCount) bool { return b.Exact > 0 })
	kept := []BagCount{}
	for _, b := range t.BagKinds {
		if used && b.Exact == 0 || !used && len(kept) > 0 {
			continue
		}
		bag, _ := cat.Bag(b.id)
		b.Count = pour.Whole(b.Exact)
		b.Mass = bag.Mass * length.Mass(b.Count)
		t.Bags += b.Count
		kept = append(kept, b)
	}
	t.BagKinds = kept
	order := cat.Supply.Truck.In(sys)
	t.Truck = TruckLoad{Order: pour.Ordered(t.ConcreteToBuy, order), Under: order.Short}
	t.Truck.Short = t.Truck.Order > 0 && t.Truck.Order < order.Short
	t.Mix = pour.MixOnSite(t.ConcreteToBuy, cat.Supply.Mix, sys)
	loose := length.Volume(1 + cat.Gravel.Tamping)
	t.GravelLoose, t.StoneLoose = t.Gravel*loose, t.Stone*loose
	t.GravelMass = length.Mass(float64(t.GravelLoose) * cat.Gravel.Density)
	t.StoneMass = length.Mass(float64(t.StoneLoose) * cat.Gravel.Density)
	t.GravelBags, t.GravelBulk = parcels(t.GravelLoose, cat.Supply.GravelBags[sys]), parcels(t.GravelLoose, cat.Supply.BulkBags[sys])
}

func parcels(v length.Volume, p materials.Parcel) Parcels {
	exact := float64(v / p.Volume)
	return Parcels{p.Name, exact, pour.Whole(exact)}
}

// waste is how much more concrete is bought than the holes take, where all of
// the run's posts are given the same; −1 where they are not.
func (m *maker) waste() float64 {
	share, first := 0.0, true
	for i := range m.ditches {
		if m.ditches[i].fill.Concrete <= 0 {
			continue
		}
		w := m.ditches[i].sized.rules.Setting.Waste
		if !first && w != share {
			return -1
		}
		share, first = w, false
	}
	return share
}

// crew is how fast holes are dug here: the crew's own rates, or usual ones.
func (m *maker) crew() materials.CrewRate {
	rate := m.cat.Supply.Crew
	own := m.job.Site.Crew
	if own == nil {
		return rate
	}
	if own.Hand > 0 {
		rate.Hand = own.Hand
	}
	if own.Auger != nil {
		rate.Auger = *own.Auger
	}
	if own.Setup != nil {
		rate.Setup = *own.Setup
	}
	return rate
}

// pieces counts the panels, rails and bays of boards among the parts.
func (t *Totals) pieces() {
	for _, p := range t.Parts {
		switch p.What {
		case "panels", "rails", "bays of boards":
			t.Pieces, t.CutPieces = t.Pieces+p.Count, t.CutPieces+p.Cut
		}
	}
}

// add takes another run's totals in, exactly.
func (t *Totals) add(o Totals) {
	t.Posts, t.Elsewhere, t.Reused = t.Posts+o.Posts, t.Elsewhere+o.Elsewhere, t.Reused+o.Reused
	t.Pieces, t.CutPieces = t.Pieces+o.Pieces, t.CutPieces+o.CutPieces
	t.Cut, t.Fill, t.InfillBoards = t.Cut+o.Cut, t.Fill+o.Fill, t.InfillBoards+o.InfillBoards
	t.GradePosts, t.Steps = t.GradePosts+o.GradePosts, t.Steps+o.Steps
	t.Concrete, t.ConcreteToBuy = t.Concrete+o.Concrete, t.ConcreteToBuy+o.ConcreteToBuy
	t.Gravel, t.Stone = t.Gravel+o.Gravel, t.Stone+o.Stone
	t.Dug, t.SoilBack, t.Spoil = t.Dug+o.Dug, t.SoilBack+o.SoilBack, t.Spoil+o.Spoil
	t.Hours.ByHand, t.Hours.ByAuger, t.Hours.Hand = t.Hours.ByHand+o.Hours.ByHand, t.Hours.ByAuger+o.Hours.ByAuger, t.Hours.Hand+o.Hours.Hand
	t.StockShort += o.StockShort
	for _, p := range o.Parts {
		t.part(p)
	}
	t.sortParts()
	for _, h := range o.Holes {
		t.sameHoles(h)
	}
	merge(&t.Kinds, o.Kinds, func(k KindCount) any { return k.Kind }, func(k *KindCount, n KindCount) { k.Count += n.Count })
	merge(&t.Stock, o.Stock, func(s Stock) any { return snapped(s.Length) }, func(s *Stock, n Stock) { s.Count += n.Count })
	merge(&t.KindStock, o.KindStock, func(s KindStock) any { s.Count = 0; return s }, func(s *KindStock, n KindStock) { s.Count += n.Count })
	merge(&t.BagKinds, o.BagKinds, func(b BagCount) any { return b.id }, func(b *BagCount, n BagCount) { b.Exact += n.Exact })
}

// merge adds what has the same key, and appends the rest.
func merge[T any](into *[]T, more []T, key func(T) any, add func(*T, T)) {
	for _, n := range more {
		k := slices.IndexFunc(*into, func(have T) bool { return key(have) == key(n) })
		if k < 0 {
			*into = append(*into, n)
			continue
		}
		add(&(*into)[k], n)
	}
}

// jobTotals adds up all runs. What is bought whole is rounded up once for the
// job, not once for each run.
func jobTotals(runs []*maker, book *reason.Book, cat materials.Catalog) Totals {
	if len(runs) == 1 {
		return runs[0].out.Totals
	}
	t := Totals{BagKinds: []BagCount{}, Stock: []Stock{}, KindStock: []KindStock{}, Kinds: []KindCount{}, Holes: []Holes{}, Parts: []LoadPart{}}
	for _, m := range runs {
		t.add(m.out.Totals)
	}
	slices.SortFunc(t.Holes, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
	slices.SortFunc(t.Kinds, func(a, b KindCount) int {
		return cmp.Compare(slices.Index(kindOrder, a.Kind), slices.Index(kindOrder, b.Kind))
	})
	slices.SortFunc(t.Stock, func(a, b Stock) int { return cmp.Compare(a.Length, b.Length) })
	t.sortStock()
	t.buy(cat, runs[0].job.Units.System)
	t.Waste = runs[0].out.Totals.Waste
	for _, m := range runs {
		if m.out.Totals.Waste != t.Waste && m.out.Totals.ConcreteToBuy > 0 {
			t.Waste = -1 // not the same everywhere
		}
	}
	few := reason.NewIndex[any](book)
	t.Why = TotalsWhy{
		Concrete: few.Put("concrete", func() reason.Why { return whyJobConcrete(runs, t) }),
		Gravel:   few.Put("gravel", func() reason.Why { return whyJobGravel(runs, t) }),
		Hours:    few.Put("hours", func() reason.Why { return whyJobHours(runs, t) }),
		Spoil:    few.Put("spoil", func() reason.Why { return whyJobSpoil(runs, t) }),
	}
	return t
}

// stockByLength counts the posts of each stock length, the shortest first.
func stockByLength(posts []*Post) (out []Stock, short int) {
	out = []Stock{}
	for _, p := range posts {
		if p.Stays != "" {
			continue
		}
		if p.Stock == nil {
			short++
			continue
		}
		l := *p.Stock // one of a few lengths
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
