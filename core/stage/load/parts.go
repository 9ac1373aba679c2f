package load

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/parts"
	"mallow/core/reason"
	"mallow/core/stage/build"
	"mallow/core/words"
)

// parts are what stands above ground, by the recipe of the run's fence type.
func (b *biller) parts(m *Load) {
	for i := range m.Parts {
		p := &m.Parts[i]
		switch {
		case p.Given:
		case p.Kind == job.FinishPart:
			b.add(partItem(p, i, bill.CubicMetres, 0), p.Taken())
		case p.By == job.ByRoll:
			item := b.add(partItem(p, i, bill.Metres, 0), p.Taken())
			b.rolled(item, p)
		case len(p.Stock) > 0 && len(p.Pieces) > 0:
			b.bars(m, p)
		default:
			b.counted(m, p, i)
		}
	}
}

// partItem is a part that is bought by itself.
func partItem(p *build.Part, place int, unit bill.Unit, piece length.Length) bill.Item {
	first := float64(place)
	if p.Gates {
		first += 1000
	}
	return bill.Item{
		ID:   fmt.Sprintf("part/%s/%s/%s/%s/%d", p.Kind, p.Name, p.Material, p.Finish, p.Box),
		Kind: bill.Kind(p.Kind), Stage: finding.Build, What: p.Name, Name: partName(p, piece), Unit: unit, Box: p.Box,
		Order: bill.Order{First: first},
	}
}

// partName is a part's section, material and finish.
func partName(p *build.Part, piece length.Length) reason.Text {
	t := reason.Text{} // a name is a list, also where there is nothing to say
	add := func(more reason.Text) {
		if len(t) > 0 {
			t = append(t, words.Say("stage.comma")...)
		}
		t = append(t, more...)
	}
	switch {
	case p.Width > 0 && p.Thick > 0:
		add(words.Say("bill.section", words.V{"thick": p.Thick, "wide": p.Width}))
	case p.Round:
		add(words.Say("bill.round", words.V{"wide": p.Width}))
	case p.Width > 0:
		add(words.Say("bill.wide", words.V{"wide": p.Width}))
	}
	if p.Long == job.AsPlanned && len(p.Stock) == 0 && piece > 0 {
		add(words.Say("bill.long", words.V{"long": piece}))
	}
	if p.Material != "" {
		add(reason.Say(p.Material))
	}
	if p.Finish != "" {
		add(reason.Say(p.Finish))
	}
	return t
}

// rolled is what is laid from rolls, or from lengths that are joined.
func (b *biller) rolled(i *bill.Item, p *build.Part) {
	if i.Cuts == nil {
		i.Cuts = &bill.Cuts{Width: p.Width, Thick: p.Thick, Stock: p.Stock, Joined: true, Lap: p.Lap}
		i.Length = slices.Max(p.Stock)
	}
	for _, l := range p.Rolled {
		i.Cuts.Wants = append(i.Cuts.Wants, bill.Want{Part: p.Name, Run: b.run, Long: l, Count: 1})
	}
}

// bars are pieces that are cut from lengths: all of one section and material are
// one item, whatever they become.
func (b *biller) bars(m *Load, p *build.Part) {
	item := partItem(p, 0, bill.Pieces, 0)
	item.ID = fmt.Sprintf("lengths/%s/%.1f×%.1f/%s/%s", p.Kind, float64(p.Width), float64(p.Thick), p.Material, p.Finish)
	item.What, item.Order = words.Plain("bill.what-cut-"+words.Key(p.Kind)), bill.Order{First: -1, Second: -float64(p.Width), Third: -float64(p.Thick)}
	if p.Gates { // after what the fence is made of
		item.Order.First = 900
	}
	in := b.add(item, float64(p.Count))
	if in.Cuts == nil {
		in.Cuts = &bill.Cuts{Width: p.Width, Thick: p.Thick}
	}
	for _, l := range p.Stock {
		if !slices.ContainsFunc(in.Cuts.Stock, func(s length.Length) bool { return length.Same(s, l) }) {
			in.Cuts.Stock = append(in.Cuts.Stock, l)
		}
	}
	for _, q := range p.Pieces {
		w := bill.Want{Part: wanted(p), Run: b.run, Row: q.Row, Long: q.Long, Give: p.Give, Wide: q.Wide, Count: q.Count}
		switch {
		case q.Gate >= 0 && q.Bay < 0:
			w.Gate = m.Made[q.Gate].ID
		default:
			if w.From = m.Bays[q.Bay].Label; q.To != q.Bay {
				w.To = m.Bays[q.To].Label
			}
		}
		in.Cuts.Wants = append(in.Cuts.Wants, w) // where they go, the cut list says
	}
}

// wanted is what pieces are called on a cut list: with their tops, where they are cut
// to a shape.
func wanted(p *build.Part) string {
	switch p.Top {
	case job.DogEar:
		return words.Plain("bill.dog-eared", words.V{"part": p.Name})
	case job.SlopedTop:
		return words.Plain("bill.sloped-tops", words.V{"part": p.Name})
	}
	return p.Name
}

// counted are parts that are bought by the piece.
func (b *biller) counted(m *Load, p *build.Part, place int) {
	one, piece := partItem(p, place, bill.Pieces, m.Spec.Spacing.Piece), length.Length(0)
	if p.Long == job.AsPlanned {
		piece = m.Spec.Spacing.Piece
		one.ID += fmt.Sprintf("/%.0f", float64(piece))
	}
	one.Length = piece
	item := b.add(one, float64(p.Count))
	for _, q := range p.Pieces {
		switch {
		case q.Gate >= 0 && q.Bay < 0:
			b.lot(item, q.Count, m.Made[q.Gate].ID, q.Long, q.Cut)
		case q.Bay >= 0 && p.By == job.PerBay:
			b.lot(item, q.Count, m.Bays[q.Bay].Label, q.Long, q.Cut)
		}
		if q.Cut {
			item.Cut += q.Count
		}
	}
}

// lot is pieces that go to one place.
func (b *biller) lot(item *bill.Item, count int, at string, long length.Length, cut bool) {
	if count == 0 {
		return
	}
	for k := range item.Goes {
		if g := &item.Goes[k]; g.Cut == cut && length.Same(g.Length, long) {
			g.At = append(g.At, at)
			return
		}
	}
	item.Goes = append(item.Goes, bill.Lot{Run: b.run, At: []string{at}, Length: long, Cut: cut})
}

// SawOf is how a job's lengths are cut.
func SawOf(j job.Job) bill.Sawn {
	s := bill.Sawn{Kerf: length.Inch / 8, Trim: j.Saw.Trim, Keep: 2 * length.Foot, Mark: j.Units.SmallestMark, Offcuts: j.Offcuts}
	if j.Units.System == length.Metric {
		s.Kerf, s.Keep = 3, 600
	}
	if j.Saw.Kerf != nil {
		s.Kerf = *j.Saw.Kerf
	}
	if j.Saw.Keep != nil {
		s.Keep = *j.Saw.Keep
	}
	return s
}

// bought is how a part is bought, of its exact sum.
func bought(i *bill.Item, cat materials.Catalog, sys length.System, saw bill.Sawn) {
	of := i.Name
	switch {
	case i.Cuts != nil && i.Cuts.Joined:
		roll := slices.Max(i.Cuts.Stock)
		long := make([]length.Length, len(i.Cuts.Wants))
		for k, w := range i.Cuts.Wants {
			long[k] = w.Long
		}
		n, joints := parts.Rolls(long, roll, i.Cuts.Lap)
		i.Bought = append(i.Bought, bill.Buy{By: bill.Rolls, Count: float64(n), Many: words.Say("bill.rolls", words.V{"count": n, "long": roll}),
			Of: words.Say("bill.rolled", words.V{"name": of, "gap": gap(of), "length": length.Length(i.Exact) * length.Metre, "joints": joints})})
	case i.Cuts != nil:
		i.Cuts.Solve(saw)
		n := 0
		var many reason.Text
		for k, b := range i.Cuts.Lengths() {
			n += b.Count
			if k > 0 {
				many = append(many, words.Say("stage.comma")...)
			}
			many = append(many, words.Say("bill.lengths", words.V{"count": b.Count, "long": b.Length})...)
		}
		if n == 0 {
			many = words.Say("bill.none-bought")
		}
		of = append(append(reason.Text{}, of...), words.Say("bill.for-pieces", words.V{"count": int(math.Round(i.Exact)), "waste": i.Cuts.Waste})...)
		if len(i.Cuts.Short) > 0 {
			short := 0
			for _, w := range i.Cuts.Short {
				short += w.Count
			}
			of = append(of, words.Say("bill.too-long", words.V{"count": short})...)
		}
		i.Bought = append(i.Bought, bill.Buy{By: bill.Lengths, Count: float64(n), Many: many, Of: of})
	case i.Kind == bill.Finish:
		litres := i.Exact * 1000
		many, exact := words.Say("bill.litres", words.V{"count": up(litres)}), words.Say("bill.litres-needed", words.V{"exact": tenth(litres)})
		count := up(litres)
		if quarts := litres / litresOfAQuart; sys == length.Imperial && quarts <= 4 {
			count = up(quarts)
			many, exact = words.Say("bill.quarts", words.V{"count": count}), words.Say("bill.quarts-needed", words.V{"exact": tenth(quarts)})
		} else if sys == length.Imperial {
			count = up(quarts / 4)
			many, exact = words.Say("bill.gallons", words.V{"count": count}), words.Say("bill.gallons-needed", words.V{"exact": tenth(quarts / 4)})
		}
		i.Bought = append(i.Bought, bill.Buy{By: bill.Tins, Count: float64(count), Many: many, Of: exact})
	case i.Box > 0:
		n := int(math.Ceil(i.Exact/float64(i.Box) - 1e-9))
		i.Bought = append(i.Bought, bill.Buy{By: bill.Boxes, Count: float64(n), Many: words.Say("bill.boxes", words.V{"count": n, "box": i.Box}),
			Of: words.Say("bill.boxed", words.V{"name": of, "gap": gap(of), "count": int(math.Round(i.Exact))})})
	default:
		if i.Cut > 0 {
			of = append(append(reason.Text{}, of...), words.Say("bill.of-them-cut", words.V{"cut": i.Cut})...)
		}
		i.Bought = append(i.Bought, bill.Buy{By: bill.ByPiece, Count: i.Exact, Many: reason.Say(i.Exact), Of: of})
	}
}

// litresOfAQuart is a US liquid quart: a quarter of 231 in³ (NIST Handbook 44).
const litresOfAQuart = 231 * 0.016387064 / 4

func up(v float64) int { return int(math.Ceil(v - 1e-9)) }

func tenth(v float64) string { return strconv.FormatFloat(v, 'f', 1, 64) }

// gap stands between a name, where there is one, and what follows it.
func gap(name reason.Text) string {
	if len(name) == 0 {
		return ""
	}
	return ", "
}
