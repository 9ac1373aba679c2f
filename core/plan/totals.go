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

// Totals is what a run or a job takes. Everything is a sum of exact values;
// only what is bought whole is rounded, once.
type Totals struct {
	Posts      int         `json:"posts" jsonschema:"required" jsonschema_description:"To be set. A corner post is counted in the run that ends there."`
	Reused     int         `json:"reused" jsonschema:"required" jsonschema_description:"Old posts that stay and are built onto."`
	Pieces     int         `json:"pieces" jsonschema:"required" jsonschema_description:"Panels, boards or rails that set the bays, whole and cut; of rails on stock lengths every row, of others one."`
	CutPieces  int         `json:"cutPieces" jsonschema:"required" jsonschema_description:"Of these, cut from a full one."`
	Elsewhere  int         `json:"elsewhere" jsonschema:"required" jsonschema_description:"Posts of the run that are counted in another run."`
	Kinds      []KindCount `json:"kinds" jsonschema:"required"`
	Stock      []Stock     `json:"stock" jsonschema:"required"`
	KindStock  []KindStock `json:"kindStock" jsonschema:"required" jsonschema_description:"Posts by kind and stock length."`
	StockShort int         `json:"stockShort" jsonschema:"required" jsonschema_description:"Posts for which no stock length is long enough."`
	Holes      []Holes     `json:"holes" jsonschema:"required"`
	Hours      Hours       `json:"hours" jsonschema:"required"`

	Concrete      length.Volume `json:"concrete" jsonschema:"required" jsonschema_description:"In the holes."`
	ConcreteToBuy length.Volume `json:"concreteToBuy" jsonschema:"required" jsonschema_description:"With waste."`
	BagKinds      []BagCount    `json:"bagKinds" jsonschema:"required" jsonschema_description:"One for each kind of bag; empty when the bag is not in the catalogue."`
	Bags          int           `json:"bags" jsonschema:"required" jsonschema_description:"Of all kinds."`
	Truck         TruckLoad     `json:"truck" jsonschema:"required" jsonschema_description:"The same concrete from a truck."`
	Mix           pour.SiteMix  `json:"mix" jsonschema:"required" jsonschema_description:"The same concrete mixed on site."`

	Gravel      length.Volume `json:"gravel" jsonschema:"required" jsonschema_description:"Tamped, in the holes."`
	GravelLoose length.Volume `json:"gravelLoose" jsonschema:"required" jsonschema_description:"Loose, as bought."`
	GravelMass  length.Mass   `json:"gravelMass" jsonschema:"required"`
	GravelBags  Parcels       `json:"gravelBags" jsonschema:"required"`
	GravelBulk  Parcels       `json:"gravelBulk" jsonschema:"required"`
	Stone       length.Volume `json:"stone" jsonschema:"required" jsonschema_description:"Rocks, packing stone and rubble, in the holes."`
	StoneLoose  length.Volume `json:"stoneLoose" jsonschema:"required" jsonschema_description:"The same, loose, as bought."`
	StoneMass   length.Mass   `json:"stoneMass" jsonschema:"required"`

	Dug      length.Volume `json:"dug" jsonschema:"required" jsonschema_description:"The holes, as the soil lies."`
	SoilBack length.Volume `json:"soilBack" jsonschema:"required" jsonschema_description:"Of it put back over the concrete."`
	Spoil    length.Volume `json:"spoil" jsonschema:"required" jsonschema_description:"To carry away, loosened."`

	Cut          length.Volume `json:"cut" jsonschema:"required" jsonschema_description:"Soil to cut along the fence, as it lies."`
	Fill         length.Volume `json:"fill" jsonschema:"required" jsonschema_description:"Soil to fill along the fence, tamped."`
	InfillBoards int           `json:"infillBoards" jsonschema:"required" jsonschema_description:"Boards that close triangles under level panels."`
	GradePosts   int           `json:"gradePosts" jsonschema:"required" jsonschema_description:"Posts at which a leaning top changes slope, where that is counted."`
	Steps        int           `json:"steps" jsonschema:"required" jsonschema_description:"Posts at which the top steps."`

	Why TotalsWhy `json:"why" jsonschema:"required"`
}

// TotalsWhy is where the totals are explained.
type TotalsWhy struct {
	Concrete reason.Ref `json:"concrete" jsonschema:"required"`
	Gravel   reason.Ref `json:"gravel" jsonschema:"required"`
	Hours    reason.Ref `json:"hours" jsonschema:"required"`
	Spoil    reason.Ref `json:"spoil" jsonschema:"required"`
}

// KindCount counts posts of one kind.
type KindCount struct {
	Kind  job.PostKind `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Count int          `json:"count" jsonschema:"required"`
}

// BagCount counts bags of one kind, rounded up once for the whole.
type BagCount struct {
	Bag   string      `json:"bag" jsonschema:"required" jsonschema_description:"Its name."`
	Exact float64     `json:"exact" jsonschema:"required"`
	Count int         `json:"count" jsonschema:"required"`
	Mass  length.Mass `json:"mass" jsonschema:"required"`

	id string
}

// TruckLoad is concrete ordered from a truck, in whole steps.
type TruckLoad struct {
	Order length.Volume `json:"order" jsonschema:"required"`
	Short bool          `json:"short" jsonschema:"required" jsonschema_description:"So little that a charge for a short load is usual."`
	Under length.Volume `json:"under" jsonschema:"required" jsonschema_description:"Load under which that is so."`
}

// Parcels is gravel in bags of one kind, rounded up once.
type Parcels struct {
	Name  string  `json:"name" jsonschema:"required"`
	Exact float64 `json:"exact" jsonschema:"required"`
	Count int     `json:"count" jsonschema:"required"`
}

// Stock counts posts of one stock length.
type Stock struct {
	Length length.Length `json:"length" jsonschema:"required"`
	Count  int           `json:"count" jsonschema:"required"`
}

// KindStock counts posts of one kind and stock length.
type KindStock struct {
	Kind   job.PostKind  `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Length length.Length `json:"length,omitempty" jsonschema_description:"Left out: longer than any stock."`
	Count  int           `json:"count" jsonschema:"required"`
}

// Holes counts holes of one size.
type Holes struct {
	Width   length.Length `json:"width" jsonschema:"required"`
	Depth   length.Length `json:"depth" jsonschema:"required"`
	Square  bool          `json:"square" jsonschema:"required"`
	Count   int           `json:"count" jsonschema:"required"`
	ByHand  float64       `json:"byHand" jsonschema:"required" jsonschema_description:"Hours of one person to dig them all by hand."`
	ByAuger float64       `json:"byAuger" jsonschema:"required" jsonschema_description:"Hours by auger, and by hand what an auger must not or cannot dig."`
}

// Hours is how long the digging takes.
type Hours struct {
	ByHand  float64 `json:"byHand" jsonschema:"required" jsonschema_description:"Hours of one person, all by hand."`
	ByAuger float64 `json:"byAuger" jsonschema:"required" jsonschema_description:"Hours by auger, with what has to be dug by hand."`
	Hand    int     `json:"hand" jsonschema:"required" jsonschema_description:"Holes that no auger may or can dig."`
}

// totals adds up the run: exact values first, what is bought whole last. A
// corner post is counted in the run that ends there.
func (m *maker) totals() Totals {
	t := Totals{BagKinds: []BagCount{}, Stock: []Stock{}, KindStock: []KindStock{}, Kinds: []KindCount{}, Holes: []Holes{}}
	t.pieces(m.out.Bays, m.out.Rails)
	t.soil(m.out.Bays, m.run.Grade.StripWidth(m.job.Units))
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
	if m.bagKnown {
		t.bag(m.bag, 0)
	}
	t.filled(m, own)
	t.buy(m.cat, m.job.Units.System)
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

func (t *Totals) sameHoles(one Holes) {
	for i := range t.Holes {
		if h := &t.Holes[i]; length.Same(h.Width, one.Width) && length.Same(h.Depth, one.Depth) && h.Square == one.Square {
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

// pieces counts the panels, boards or rails that set the bays.
func (t *Totals) pieces(bays []Bay, rails []RailRow) {
	for _, row := range rails {
		for _, p := range row.Pieces {
			t.Pieces++
			if p.Cut {
				t.CutPieces++
			}
		}
	}
	for i := range bays {
		if bays[i].Piece > 0 {
			t.Pieces++
			if bays[i].PieceCut {
				t.CutPieces++
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
func jobTotals(runs []*maker, book *reason.Book, cat materials.Catalog) Totals {
	if len(runs) == 1 {
		return runs[0].out.Totals
	}
	t := Totals{BagKinds: []BagCount{}, Stock: []Stock{}, KindStock: []KindStock{}, Kinds: []KindCount{}, Holes: []Holes{}}
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
	few := reason.NewIndex[any](book)
	t.Why = TotalsWhy{
		Concrete: few.Put("concrete", func() reason.Why { return whyJobConcrete(runs, t) }),
		Gravel:   few.Put("gravel", func() reason.Why { return whyJobGravel(runs, t) }),
		Hours:    few.Put("hours", func() reason.Why { return whyJobHours(runs, t) }),
		Spoil:    few.Put("spoil", func() reason.Why { return whyJobSpoil(runs, t) }),
	}
	return t
}

func whyJobConcrete(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Concrete for the job",
		Sentence: reason.Say(t.Posts, " holes on ", len(runs), " runs take ", t.ConcreteToBuy, " (", reason.Bulk(t.ConcreteToBuy), ").")}
	w.Steps = append(w.Steps, otherConcrete(t, runs[0].cat)...)
	w.Steps = append(w.Steps, reason.Step{Rule: "Rounded up once", Governs: true, Source: geometry,
		Says: reason.Say("The runs' exact volumes are added; bags of a kind are rounded up once for the job.")})
	if t.Elsewhere > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "Corner posts once", Source: practice,
			Says: reason.Say(t.Elsewhere, plural(t.Elsewhere, " corner post belongs", " corner posts belong"), " to two runs and is dug once: counted in the run that ends there.")})
	}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours,
			Says: reason.Say(m.out.Totals.Posts, plural(m.out.Totals.Posts, " hole", " holes"), ", ", m.out.Totals.ConcreteToBuy)})
	}
	return w
}

func whyJobGravel(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Gravel for the job", Sentence: reason.Say(t.Gravel, " tamped in the holes = ", reason.Bulk(t.GravelLoose), " loose.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours, Says: reason.Say(m.out.Totals.Gravel, " tamped")})
	}
	return w
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

func whyJobHours(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Hours to dig, whole job", Sentence: reason.Say(t.Dug, " of soil: ", t.Hours.ByHand, " h by hand for one person, ", t.Hours.ByAuger, " h with the auger.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours, Says: reason.Say(m.out.Totals.Hours.ByHand, " h by hand, ", m.out.Totals.Hours.ByAuger, " h with the auger")})
	}
	return w
}

func whyJobSpoil(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Soil to carry away, whole job", Sentence: reason.Say(t.Dug, " dug, less ", t.SoilBack, " put back, loosened = ", reason.Bulk(t.Spoil), ".")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: m.soil.Source, Says: reason.Say(reason.Bulk(m.out.Totals.Spoil), " of ", lower(m.soil.Name))})
	}
	return w
}
