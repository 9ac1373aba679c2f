package build

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
)

// rails is how many rails stand one above the other in a bay. Where the fence is
// lower for a stretch, it is no more than its height has room for.
func (b *Build) rails(p *Part, bay int) int {
	high := b.HighAt(bay)
	if n := b.railsBy(p, high); length.Same(high, b.Spec.Fence.Height) || p.Each > 0 || b.Spec.Spacing.Rails == 0 && len(b.Spec.Fence.Rails) == 0 {
		return n
	}
	return len(b.Spec.RailHeightsAt(high))
}

// railsBy is how many rails a height takes.
func (b *Build) railsBy(p *Part, high length.Length) int {
	if p.Each > 0 {
		return p.Each
	}
	if n := b.Spec.Spacing.Rails; n > 0 {
		return n
	}
	if n := len(b.Spec.Fence.Rails); n > 0 {
		return n
	}
	for _, r := range p.Rows {
		if high <= r.To+length.Tolerance {
			return r.Rows
		}
	}
	if n := len(p.Rows); n > 0 {
		return p.Rows[n-1].Rows
	}
	return 1
}

func byRails(b *Build, p *Part) {
	if p.Long == job.AsPlanned && b.Spec.Spacing.Way == job.StockRails {
		b.plannedRails(p)
		return
	}
	most := 0
	for i := range b.Bays {
		most = max(most, b.rails(p, i))
	}
	for r := 1; r <= most; r++ {
		b.row(p, r, 0, b.within(func(i int) bool { return b.rails(p, i) >= r }))
	}
}

// within is the parts of the stretches whose bays are such.
func (b *Build) within(such func(bay int) bool) []Stretch {
	var out []Stretch
	for _, s := range b.Stretches {
		open := false
		for i := s.First; i <= s.Last; i++ {
			switch was := open; {
			case !such(i):
				open = false
			case was:
				out[len(out)-1].Last = i
			default:
				out, open = append(out, Stretch{i, i}), true
			}
		}
	}
	return out
}

// comesOut tells whether a bay must come out again.
func (b *Build) comesOut(bay int) bool {
	held := b.Bays[bay].Held
	return held != "" && slices.ContainsFunc(b.Spec.HeldBays, func(h job.HeldBay) bool { return h.ID == held && h.Removable })
}

// liftOut are the brackets that hold what must come out again: one at each end of
// each rail or panel.
func (b *Build) liftOut() {
	p := Part{Part: job.Part{ID: "lift-out", Name: liftOutName, Kind: job.HardwarePart, By: job.PerBayEnd, Says: liftOutSays}}
	for i := range b.Bays {
		if !b.comesOut(i) {
			continue
		}
		n := 0
		for k := range b.Parts {
			if q := &b.Parts[k]; !q.Gates && (q.By == job.ByRails || q.Kind == job.PanelPart) {
				n += b.each([]string{q.ID})[i]
			}
		}
		p.Count += 2 * max(1, n)
	}
	if p.Count > 0 {
		b.Parts = append(b.Parts, p)
	}
}

// plannedRails are rails that the spacing broke on posts.
func (b *Build) plannedRails(p *Part) {
	at := make(map[string]int, len(b.Posts))
	for i := range b.Posts {
		at[b.Posts[i].Label] = i
	}
	for _, row := range b.RailRows {
		for _, rail := range row.Pieces {
			first, last := at[rail.From], at[rail.To]-1
			for from, i := first, first; i <= last; i++ {
				if i < last && !b.comesOut(i) && !b.comesOut(i+1) {
					continue
				}
				long, cut := rail.Length+p.More, rail.Cut
				if from > first || i < last { // parted at a bay that comes out
					long, cut = p.More, true
					for k := from; k <= i; k++ {
						long += b.leaning(k)
					}
				}
				p.add(Piece{Bay: from, To: i, Gate: -1, Row: row.Row, Count: 1, Long: long, Cut: cut})
				from = i + 1
			}
		}
	}
	p.Joints = b.joints(p)
}

// row lays pieces along one row of every stretch: over as many bays as they may
// reach, broken on posts and where the top steps, every other row one bay on.
func (b *Build) row(p *Part, row int, wide length.Length, along []Stretch) {
	most := length.Length(math.Inf(1))
	if n := len(p.Stock); n > 0 {
		most = slices.Max(p.Stock) + p.Give + length.Tolerance
	}
	span := max(1, p.Span)
	for _, s := range along {
		for i, first := s.First, true; i <= s.Last; first = false {
			reach := span
			if first && span > 1 && row%2 == 0 && !b.whole(p, s, most) {
				reach = span - 1
			}
			last := i
			for last < s.Last && last-i+1 < reach && b.level(last) && b.over(p, i, last+1) <= most {
				last++
			}
			p.add(Piece{Bay: i, To: last, Gate: -1, Row: row, Count: 1, Long: b.over(p, i, last), Wide: wide})
			i = last + 1
		}
	}
	p.Joints = b.joints(p)
}

// whole tells whether one piece reaches over all of a stretch: then no joints are
// to be staggered.
func (b *Build) whole(p *Part, s Stretch, most length.Length) bool {
	if s.Last-s.First+1 > max(1, p.Span) || b.over(p, s.First, s.Last) > most {
		return false
	}
	for i := s.First; i < s.Last; i++ {
		if !b.level(i) {
			return false
		}
	}
	return true
}

// level tells whether the fence goes on from a bay to the next without a step.
func (b *Build) level(bay int) bool {
	if b.comesOut(bay) || b.comesOut(bay+1) {
		return false
	}
	return (b.Bays[bay].TopEnd-b.Bays[bay+1].TopStart).Abs() < b.mark() && b.Posts[bay+1].Kind == job.LinePost
}

// joints is where a piece goes on from another of its row.
func (b *Build) joints(p *Part) int {
	n := 0
	for k := 1; k < len(p.Pieces); k++ {
		if a, z := &p.Pieces[k-1], &p.Pieces[k]; a.Row == z.Row && a.To+1 == z.Bay && b.Posts[z.Bay].Kind == job.LinePost {
			n++
		}
	}
	return n
}

// byRows sets boards over the height of every bay.
func byRows(b *Build, p *Part) {
	type fit struct {
		f  parts.Fill
		ok bool
	}
	known := map[length.Length]fit{}
	most := 0
	fits := make([]fit, len(b.Bays))
	for _, s := range b.Stretches {
		for i := s.First; i <= s.Last; i++ {
			high := b.high(i, b.middle(i)) // what is more or less is the rows' length
			k, ok := known[high]
			if !ok {
				k.f, k.ok = b.fill(p, high)
				known[high] = k
			}
			fits[i] = k
			if !k.ok {
				p.Unfit = append(p.Unfit, i)
				continue
			}
			most = max(most, k.f.Pieces)
			p.Fills = append(p.Fills, Fill{k.f, i, i, 0, high})
		}
	}
	for r := 1; r <= most; r++ {
		for _, s := range b.Stretches { // the bays that have this row, ripped alike
			for i := s.First; i <= s.Last; i++ {
				if !fits[i].ok || fits[i].f.Pieces < r {
					continue
				}
				wide, last := ripped(fits[i].f, r), i
				for last < s.Last && fits[last+1].ok && fits[last+1].f.Pieces >= r && ripped(fits[last+1].f, r) == wide {
					last++
				}
				b.row(p, r, wide, []Stretch{{i, last}})
				i = last
			}
		}
	}
}

// ripped is what a piece of a fill is ripped to; 0 where it is whole.
func ripped(f parts.Fill, piece int) length.Length {
	if f.Ripped > 0 && piece == f.Pieces || f.Ripped == 2 && piece == 1 {
		return f.Rip
	}
	return 0
}
