package load

import (
	"math"

	"fmt"
	"strconv"

	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/reason"
	"mallow/core/stage/dig"
	"mallow/core/words"
)

// Items is the bill of a run: what it takes, and where the pieces go. A corner
// post is in the bill of the run that ends there.
func (m *Load) Items() []bill.Item {
	b := &biller{run: m.Spec.ID, items: []bill.Item{}, at: map[string]int{}}
	b.posts(m)
	if m.Parts != nil {
		b.parts(m)
	} else { // a fence of no known type: what sets its bays is all that is known
		b.pieces(m)
	}
	b.boards(m)
	b.leaves(m)
	b.filled(m)
	b.curb(m)
	b.soil(m)
	bill.Sort(b.items)
	buy(b.items, m.Cat, m.Job)
	return b.items
}

// JobItems is the bill of a job from those of its runs, rounded up once.
func JobItems(runs [][]bill.Item, cat materials.Catalog, j job.Job) []bill.Item {
	sum := bill.Sum(runs...)
	buy(sum, cat, j)
	return sum
}

// biller writes the bill of one run.
type biller struct {
	run   string
	items []bill.Item
	at    map[string]int
}

// add adds to an item, which is made where there is none of its name yet.
func (b *biller) add(i bill.Item, exact float64) *bill.Item {
	k, known := b.at[i.ID]
	if !known {
		k = len(b.items)
		b.at[i.ID] = k
		i.Runs = []bill.Share{{Run: b.run}}
		b.items = append(b.items, i)
	}
	item := &b.items[k]
	item.MixWaste(i.Waste)
	item.Exact += exact
	item.Runs[0].Exact += exact
	return item
}

// piece adds pieces that go to one place.
func (b *biller) piece(i bill.Item, count int, at string, long length.Length, cut bool) {
	if count == 0 {
		return
	}
	item := b.add(i, float64(count))
	if cut {
		item.Cut += count
	}
	b.lot(item, count, at, long, cut)
}

func (b *biller) posts(m *Load) {
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Shared != "" || p.Stays != "" {
			continue
		}
		part := section{What: "line posts", Material: m.Material(), Width: p.Width, Round: p.Round, Hollow: p.Hollow}
		first := 1.0
		if p.Kind != job.LinePost {
			part.What, first = "terminal posts", 0
		}
		if p.Stock != nil {
			part.Length = snapped(*p.Stock)
		}
		b.piece(bill.Item{
			ID:   fmt.Sprintf("post/%s/%.1f-%v-%v-%s/%.0f", words.Key(part.What), float64(p.Width), p.Round, p.Hollow, part.Material, float64(part.Length)),
			Kind: bill.Post, Stage: finding.Dig, What: named(part.What), Name: part.says(), Unit: bill.Pieces, Length: part.Length,
			Order: bill.Order{First: first, Second: float64(p.Width), Third: float64(part.Length)},
		}, 1, p.Label, p.Needed, false)
	}
}

// named is what a part is called at the head of a line.
func named(what string) string { return words.Plain("bill.what-" + words.Key(what)) }

// pieceKinds are the kinds of what sets the bays.
var pieceKinds = map[string]bill.Kind{"panels": bill.Panel, "rails": bill.Rail, "bays of boards": bill.Board}

// pieces are what sets the bays: rails over several of them, or panels, rails
// and boards bay by bay.
func (b *biller) pieces(m *Load) {
	item := func(p section) bill.Item {
		return bill.Item{
			ID:   fmt.Sprintf("%s/%.1f×%.1f", words.Key(p.What), float64(p.Length), float64(p.Width)),
			Kind: pieceKinds[p.What], Stage: finding.Space, What: named(p.What), Name: p.says(), Unit: bill.Pieces, Length: p.Length,
			Order: bill.Order{Second: float64(p.Width), Third: float64(p.Length)},
		}
	}
	if m.Spec.Spacing.Way == job.StockRails {
		rails := item(section{What: "rails", Length: m.Spec.Spacing.Piece})
		for _, row := range m.RailRows {
			for _, p := range row.Pieces {
				b.piece(rails, 1, p.From, p.Length, p.Cut)
			}
		}
		return
	}
	part, each := bayPiece(m)
	if each == 0 {
		return
	}
	for i := range m.Bays {
		if bay := &m.Bays[i]; bay.Piece > 0 {
			b.piece(item(part), each, bay.Label, bay.Piece, bay.PieceCut)
		}
	}
}

// boards are gravel boards, and boards cut to the slope.
func (b *biller) boards(m *Load) {
	part := section{What: "gravel boards", Width: m.Spec.Grade.BoardHeight(m.Job.Units)}
	if _, piece := m.Spec.Spacing.ByPiece(); piece {
		part.Length = m.Spec.Spacing.Piece
	}
	gravel := bill.Item{ID: fmt.Sprintf("gravel-boards/%.1f×%.1f", float64(part.Length), float64(part.Width)), Kind: bill.Board, Stage: finding.Grade,
		What: named(part.What), Name: part.says(), Unit: bill.Pieces, Length: part.Length, Order: bill.Order{First: 1, Second: float64(part.Width), Third: float64(part.Length)}}
	sloped := bill.Item{ID: fmt.Sprintf("infill-boards/%.1f", float64(part.Width)), Kind: bill.Board, Stage: finding.Grade,
		What: words.Plain("bill.what-infill-boards"), Name: words.Say("bill.cut-to-the-slope", words.V{"height": part.Width}), Unit: bill.Pieces, Order: bill.Order{First: 2, Second: float64(part.Width)}}
	for i := range m.Bays {
		bay := &m.Bays[i]
		if bay.Gate == "" {
			b.piece(gravel, m.Spec.Fence.Boards, bay.Label, bay.Long, false)
		}
		switch {
		case bay.Infill == nil:
		case bay.Infill.Kind == job.GravelBoards:
			b.piece(gravel, bay.Infill.Boards, bay.Label, bay.Long, false)
		default:
			b.piece(sloped, bay.Infill.Boards, bay.Label, bay.Long, true)
		}
	}
}

// leaves are what is hung or runs.
func (b *biller) leaves(m *Load) {
	leaf := func(what string, g string, wide, high length.Length, made string) {
		name := words.Say("bill.leaf", words.V{"wide": wide, "high": high})
		if made != "" {
			name = append(name, words.Say("bill.leaf-made", words.V{"made": made})...)
		}
		b.piece(bill.Item{ID: fmt.Sprintf("%s/%.0f×%.0f/%s", what, float64(wide), float64(high), made), Kind: bill.Leaf, Stage: finding.Gates,
			What: words.Plain("bill.what-" + what), Name: name, Unit: bill.Pieces, Order: bill.Order{Second: float64(wide), Third: float64(high)}}, 1, g, 0, false)
	}
	for i := range m.Made {
		g := &m.Made[i]
		made := m.MadeOf(i)
		for _, l := range g.Leaves {
			leaf("gate-leaf", g.ID, l.Width, max(l.Height, l.TipHeight), made.Name)
		}
		if g.RunBack != nil {
			leaf("sliding-leaf", g.ID, g.RunBack.Past, g.Leaf, made.Name)
		}
	}
}

// filled is what goes into the holes, and how long they take to dig.
func (b *biller) filled(m *Load) {
	rate := m.Crew()
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Shared != "" || p.Stays != "" {
			continue
		}
		d := &m.Designs[p.Card]
		if d.Buy > 0 {
			b.add(concrete(d.Bag, d.Sized.Rules.Setting.Waste), float64(d.Buy))
		}
		b.bulk(bill.Gravel, "gravel", "gravel", finding.Pour, d.Fill.Gravel*length.Volume(1+m.Cat.Gravel.Tamping))
		b.bulk(bill.Stone, "stone", "", finding.Pour, d.Fill.Stone*length.Volume(1+m.Cat.Gravel.Tamping))
		b.bulk(bill.Spoil, "spoil", "spoil", finding.Dig, m.Cards[p.Card].Spoil)
		if p.HoleDepth > 0 {
			b.dig(p, d, m, rate)
		}
	}
}

// curb is the mowing curb: its concrete, its trench, and what it is formed with.
func (b *biller) curb(m *Load) {
	c := m.Curb
	if c == nil {
		return
	}
	b.add(concrete(c.Bag, c.Waste), float64(c.Buy))
	b.bulk(bill.Spoil, "spoil", "spoil", finding.Dig, c.Dug*length.Volume(1+m.Soil.Bulking))
	b.hours(trenchHours(m), trenchHours(m))
	form := func(id string, first float64, piece length.Length, name reason.Text) bill.Item {
		return bill.Item{ID: id, Kind: bill.Form, Stage: finding.Pour, What: words.Plain("bill.what-" + id), Name: name, Unit: bill.Pieces, Length: piece, Order: bill.Order{First: first}}
	}
	b.add(form("form-boards", 0, c.Board, words.Say("bill.form-boards", words.V{"depth": c.Depth, "length": c.Board})), float64(c.Forms/c.Board))
	b.add(form("form-stakes", 1, 0, words.Say("bill.form-stakes")), float64(c.Stakes))
}

// concrete is the item of concrete from one kind of bag, or of none.
func concrete(bag materials.Bag, waste float64) bill.Item {
	return bill.Item{ID: "concrete/" + bag.ID, Kind: bill.Concrete, Stage: finding.Pour, What: words.Plain("bill.what-concrete"),
		Name: reason.Text{}, Waste: waste, Unit: bill.CubicMetres, Why: "concrete"}
}

// bulk adds a volume.
func (b *biller) bulk(kind bill.Kind, id, why string, at finding.Stage, v length.Volume) {
	if v > 0 {
		b.add(bill.Item{ID: id, Kind: kind, Stage: at, What: words.Plain("bill.what-" + id), Name: words.Say("bill.note-" + id), Unit: bill.CubicMetres, Why: why}, float64(v))
	}
}

// soil is what is cut and filled along the fence and on the leaves' way.
func (b *biller) soil(m *Load) {
	b.bulk(bill.Soil, "soil-to-fill", "", finding.Grade, m.Totals.Fill)
	b.bulk(bill.Soil, "soil-to-cut", "", finding.Grade, m.Totals.Cut)
}

// dig adds the hours of one hole, by hand and with the auger.
func (b *biller) dig(p *dig.Post, d *dig.Design, m *Load, rate materials.CrewRate) {
	hand, auger, _ := holeHours(p, d, m.Soil, rate)
	b.hours(hand, auger)
}

// hours adds hours of digging, by hand and with the auger.
func (b *biller) hours(hand, auger float64) {
	hours := func(id string, first, h float64) {
		b.add(bill.Item{ID: id, Kind: bill.Labour, Stage: finding.Dig, What: words.Plain("bill.what-" + id), Name: words.Say("bill.note-" + id), Unit: bill.Hours, Why: "hours", Order: bill.Order{First: first}}, h)
	}
	hours("digging-by-hand", 0, hand)
	hours("digging-by-auger", 1, auger)
}

// buy rounds up what is bought whole, once for the bill, and says it.
func buy(items []bill.Item, cat materials.Catalog, j job.Job) {
	sys, saw := j.Units.System, SawOf(j)
	whole, last := length.Volume(0), -1
	for k, i := range items {
		if i.Kind == bill.Concrete {
			whole, last = whole+length.Volume(i.Exact), k
		}
	}
	for k := range items {
		i := &items[k]
		v := length.Volume(i.Exact)
		loose := func(mass length.Mass) bill.Buy {
			return bill.Buy{By: bill.Loose, Count: i.Exact, Many: reason.Say(reason.Bulk(v)), Of: words.Say("bill.loose", words.V{"mass": mass})}
		}
		switch i.Kind {
		case bill.Concrete:
			bag, known := cat.Bag(i.ID[len("concrete/"):])
			if known {
				n := pour.Whole(pour.Bags(v, bag.Yield))
				i.Bought = append(i.Bought, bill.Buy{By: bill.Bags, Count: float64(n), Many: words.Say("bill.bags", words.V{"count": n}), Of: append(words.Say("bill.of-a-bag", words.V{"bag": bag.Name, "mass": bag.Mass * length.Mass(n)}), wasted(i.Waste)...)})
			}
			if k == last { // all of it at once
				i.Bought = append(i.Bought, mixed(whole, cat, sys)...)
			}
		case bill.Gravel:
			i.Bought = append(i.Bought, loose(length.Mass(i.Exact*cat.Gravel.Density)))
			i.Bought = append(i.Bought, parcelled(bill.Bags, v, cat.Supply.GravelBags[sys]), parcelled(bill.BulkBags, v, cat.Supply.BulkBags[sys]))
		case bill.Stone:
			i.Bought = append(i.Bought, loose(length.Mass(i.Exact*cat.Gravel.Density)))
		case bill.Spoil, bill.Soil:
			i.Bought = append(i.Bought, bill.Buy{By: bill.Loose, Count: i.Exact, Many: reason.Say(reason.Bulk(v)), Of: i.Name})
		case bill.Form:
			n := pour.Whole(i.Exact)
			i.Bought = append(i.Bought, bill.Buy{By: bill.ByPiece, Count: float64(n), Many: words.Say("bill.forms", words.V{"count": n}), Of: i.Name})
		case bill.Labour:
			i.Bought = append(i.Bought, bill.Buy{By: bill.ByHours, Count: i.Exact, Many: words.Say("bill.hours", words.V{"hours": strconv.FormatFloat(i.Exact, 'f', 1, 64)}), Of: i.Name})
		default:
			bought(i, cat, sys, saw)
		}
		i.Group = words.Plain("bill.group-" + words.Key(i.Kind))
		for n := range i.Bought {
			b := &i.Bought[n]
			if b.What = i.What; n > 0 {
				b.What = words.Plain("bill.or-by-" + words.Key(b.By))
			}
		}
	}
}

// wasted says with how much waste concrete is bought.
func wasted(share float64) reason.Text {
	switch {
	case share > 0:
		return words.Say("bill.with-waste", words.V{"waste": share})
	case share < 0:
		return words.Say("bill.with-waste-as-given")
	}
	return nil
}

// parcelled is gravel in bags of one kind.
func parcelled(by string, v length.Volume, p materials.Parcel) bill.Buy {
	n := pour.Whole(float64(v / p.Volume))
	return bill.Buy{By: by, Count: float64(n), Many: words.Say("bill.parcels", words.V{"count": n, "name": p.Name})}
}

// mixed are the ways to have concrete that is not from bags.
func mixed(v length.Volume, cat materials.Catalog, sys length.System) []bill.Buy {
	order := cat.Supply.Truck.In(sys)
	truck := pour.Ordered(v, order)
	says := words.Say("bill.truck", words.V{"exact": v})
	if truck > 0 && truck < order.Short {
		says = words.Say("bill.short-load", words.V{"exact": v, "under": order.Short})
	}
	mix := pour.MixOnSite(v, cat.Supply.Mix, sys)
	return []bill.Buy{
		{By: bill.Truck, Count: float64(truck), Many: reason.Say(reason.Bulk(truck)), Of: says},
		{By: bill.Mix, Count: math.Ceil(mix.Bags - 1e-9), Many: words.Say("bill.cement", words.V{"bags": math.Ceil(mix.Bags - 1e-9), "bag": mix.Bag}), Of: words.Say("bill.mixed-with", words.V{"sand": mix.Sand, "stone": mix.Stone, "water": mix.Water})},
	}
}
