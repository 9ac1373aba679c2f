package load

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/stage/build"
	"mallow/core/stage/curbing"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
)

// loadRun is a run with what it takes.
type Load struct {
	*build.Build
	Curb   *curbing.CurbPlan // none: no mowing curb
	Totals Totals
}

// newLoad adds the run up.
func Compute(m *build.Build, curb *curbing.CurbPlan) *Load {
	l := &Load{Build: m, Curb: curb}
	l.Totals = l.add()
	return l
}

// add adds up the run: exact values first, what is bought whole last. A
// corner post is counted in the run that ends there.
func (m *Load) add() Totals {
	t := Totals{BagKinds: []BagCount{}, Stock: []Stock{}, KindStock: []KindStock{}, Kinds: []KindCount{}, Holes: []Holes{}}
	soil := m.Earth()
	t.Cut, t.Fill, t.InfillBoards = soil.Cut, soil.Fill, soil.Boards
	t.swings(m.Made)
	t.breaks(m.Posts, m.Job.Units.SmallestMark)
	var own []*dig.Post
	for i := range m.Posts {
		p := &m.Posts[i]
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
	t.pieces(m)
	if m.BagKnown {
		t.bag(m.Bag, 0)
	}
	t.filled(m, own)
	t.curb(m)
	t.buy(m.Cat, m.Job.Units.System)
	t.Waste = m.waste()
	return t
}

// posts counts posts by kind and by stock length.
func (t *Totals) posts(posts []*dig.Post) {
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
	t.Stock, t.StockShort = StockByLength(posts)
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
func (t *Totals) filled(m *Load, posts []*dig.Post) {
	rate := m.Crew()
	for _, p := range posts {
		d := &m.Designs[p.Card]
		t.Concrete += d.Fill.Concrete
		t.ConcreteToBuy += d.Buy
		t.Gravel += d.Fill.Gravel
		t.Stone += d.Fill.Stone
		t.Dug += d.Fill.Dug
		t.SoilBack += d.Fill.Soil
		t.Spoil += m.Cards[p.Card].Spoil
		if d.Bag.Yield > 0 {
			t.bag(d.Bag, pour.Bags(d.Buy, d.Bag.Yield))
		}
		if p.HoleDepth > 0 { // a driven post may have none
			t.hole(p, d, m.Soil, rate)
		}
	}
	slices.SortFunc(t.Holes, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
}

// curb adds the mowing curb: its concrete, and the trench that is dug for it by hand.
func (t *Totals) curb(m *Load) {
	c := m.Curb
	if c == nil {
		return
	}
	t.Concrete, t.ConcreteToBuy = t.Concrete+c.Concrete, t.ConcreteToBuy+c.Buy
	t.CurbConcrete, t.CurbLength = c.Concrete, c.Length
	t.Dug += c.Dug
	t.Spoil += c.Dug * length.Volume(1+m.Soil.Bulking)
	if c.Bag.Yield > 0 {
		t.bag(c.Bag, pour.Bags(c.Buy, c.Bag.Yield))
	}
	hours := trenchHours(m)
	t.Hours.ByHand, t.Hours.ByAuger = t.Hours.ByHand+hours, t.Hours.ByAuger+hours
}

// trenchHours is how long one person digs for the curb; no auger can.
func trenchHours(m *Load) float64 { return pour.HandHours(m.Curb.Dug, m.Soil.Digging, m.Crew()) }

// hole counts one hole with its size's others.
func (t *Totals) hole(p *dig.Post, d *dig.Design, soil materials.Soil, rate materials.CrewRate) {
	one := Holes{Width: p.HoleWidth, Depth: p.HoleDepth, Square: d.Shape.Square, Count: 1}
	drilled := false
	if one.ByHand, one.ByAuger, drilled = holeHours(p, d, soil, rate); !drilled {
		t.Hours.Hand++
	}
	t.Hours.ByHand += one.ByHand
	t.Hours.ByAuger += one.ByAuger
	t.sameHoles(one)
}

// HoleMinutes is how long the crew takes for the hole of a post: by hand all of it digs,
// by machine two stand at the auger whoever else is there.
func (m *Load) HoleMinutes(i, people int, byHand bool) float64 {
	p := &m.Posts[i]
	if p.Card < 0 { // an old post that stays
		return 0
	}
	hand, auger, drilled := holeHours(p, &m.Designs[p.Card], m.Soil, m.Crew())
	if drilled && !byHand {
		return 60 * auger
	}
	return 60 * hand / float64(max(1, people))
}

// holeHours is how long one hole takes by hand, and with the auger where one may
// and can dig it.
func holeHours(p *dig.Post, d *dig.Design, soil materials.Soil, rate materials.CrewRate) (byHand, byAuger float64, drilled bool) {
	byHand = pour.HandHours(d.Fill.Dug, soil.Digging, rate)
	if drilled = d.Sized.Width.Auger && !d.Shape.Square && len(p.Hand) == 0 && !d.Sized.Driven; !drilled {
		return byHand, byHand, false
	}
	return byHand, pour.AugerHours(p.HoleDepth, soil.Digging, rate), true
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
func (m *Load) waste() float64 {
	share, first := 0.0, true
	for i := range m.Designs {
		if m.Designs[i].Fill.Concrete <= 0 {
			continue
		}
		w := m.Designs[i].Sized.Rules.Setting.Waste
		if !first && w != share {
			return -1
		}
		share, first = w, false
	}
	return share
}

// pieces counts the panels, rails and bays of boards, and of them those that
// are cut.
func (t *Totals) pieces(m *Load) {
	for _, row := range m.RailRows {
		for _, p := range row.Pieces {
			t.Pieces++
			if p.Cut {
				t.CutPieces++
			}
		}
	}
	_, each := bayPiece(m)
	for i := range m.Bays {
		if b := &m.Bays[i]; b.Piece > 0 {
			t.Pieces += each
			if b.PieceCut {
				t.CutPieces += each
			}
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
	t.CurbConcrete, t.CurbLength = t.CurbConcrete+o.CurbConcrete, t.CurbLength+o.CurbLength
	t.Gravel, t.Stone = t.Gravel+o.Gravel, t.Stone+o.Stone
	t.Dug, t.SoilBack, t.Spoil = t.Dug+o.Dug, t.SoilBack+o.SoilBack, t.Spoil+o.Spoil
	t.Hours.ByHand, t.Hours.ByAuger, t.Hours.Hand = t.Hours.ByHand+o.Hours.ByHand, t.Hours.ByAuger+o.Hours.ByAuger, t.Hours.Hand+o.Hours.Hand
	t.StockShort += o.StockShort
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
func JobTotals(runs []*Load, cat materials.Catalog) Totals {
	if len(runs) == 1 {
		return runs[0].Totals
	}
	t := Totals{BagKinds: []BagCount{}, Stock: []Stock{}, KindStock: []KindStock{}, Kinds: []KindCount{}, Holes: []Holes{}}
	for _, m := range runs {
		t.add(m.Totals)
	}
	slices.SortFunc(t.Holes, func(a, b Holes) int {
		return cmp.Or(cmp.Compare(a.Width, b.Width), cmp.Compare(a.Depth, b.Depth))
	})
	slices.SortFunc(t.Kinds, func(a, b KindCount) int {
		return cmp.Compare(slices.Index(kindOrder, a.Kind), slices.Index(kindOrder, b.Kind))
	})
	slices.SortFunc(t.Stock, func(a, b Stock) int { return cmp.Compare(a.Length, b.Length) })
	t.sortStock()
	t.buy(cat, runs[0].Job.Units.System)
	t.Waste = runs[0].Totals.Waste
	for _, m := range runs {
		if m.Totals.Waste != t.Waste && m.Totals.ConcreteToBuy > 0 {
			t.Waste = -1 // not the same everywhere
		}
	}
	return t
}

// stockByLength counts the posts of each stock length, the shortest first.
func StockByLength(posts []*dig.Post) (out []Stock, short int) {
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

// stockLength is the length of all posts together, as bought.
func (t *Totals) StockLength() length.Length {
	sum := length.Length(0)
	for _, s := range t.Stock {
		sum += s.Length * length.Length(s.Count)
	}
	return sum
}

// bayPiece is the piece of a bay, and how many of it one above the other.
func bayPiece(m *Load) (part section, each int) {
	s := m.Spec.Spacing
	what, ok := map[job.Way]string{job.PanelsBetween: "panels", job.PanelsOnFaces: "panels", job.OverlapRails: "rails", job.FixedModule: "bays of boards"}[s.Way]
	if !ok {
		return section{}, 0
	}
	each = 1
	if what == "rails" {
		each = max(1, len(m.Spec.RailHeights()))
	}
	part = section{What: what, Length: s.Piece}
	if what == "panels" {
		part.Width = m.Spec.Fence.Height - length.Length(m.Spec.Fence.Boards)*m.Spec.Grade.BoardHeight(m.Job.Units)
	}
	return part, each
}

// swings adds what is cut so that leaves clear the ground on their way.
func (t *Totals) swings(gates []gates.Gate) {
	for i := range gates {
		for _, l := range gates[i].Leaves {
			for _, s := range l.Sides {
				if s.IsCut {
					t.Cut += s.Earth
				}
			}
		}
	}
}

// breaks counts where the top changes slope or height.
func (t *Totals) breaks(posts []dig.Post, mark length.Length) {
	for i := range posts {
		if posts[i].Grade {
			t.GradePosts++
		}
		if posts[i].Step.Abs() >= mark/2 {
			t.Steps++
		}
	}
}
