package build

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
	"mallow/core/stage/gates"
)

func perPost(b *Build, p *Part) {
	for i := range b.Posts {
		if post := &b.Posts[i]; post.Shared == "" && post.Stays == "" && p.counts(post.Kind) {
			p.Count += p.each()
		}
	}
}

func perCorner(b *Build, p *Part) {
	for i := range b.Posts {
		if post := &b.Posts[i]; post.Shared == "" && post.Kind == job.CornerPost {
			long := length.Length(0)
			if p.Long == job.ByHeight {
				long = b.high(max(0, i-1), post.Station) + p.More
			}
			p.add(Piece{Bay: max(0, i-1), To: max(0, i-1), Gate: -1, Count: p.each(), Long: long})
		}
	}
}

func perBay(b *Build, p *Part) {
	for i := range b.Bays {
		if b.Bays[i].Gate == "" {
			n := Piece{Bay: i, To: i, Gate: -1, Count: p.each(), Cut: p.Long == job.AsPlanned && b.Bays[i].PieceCut}
			if p.Long != "" {
				n.Long = b.over(p, i, i)
			}
			p.add(n)
		}
	}
}

func perBayEnd(b *Build, p *Part) {
	times := b.each(p.Of)
	for i := range b.Bays {
		if b.Bays[i].Gate != "" {
			continue
		}
		for _, post := range []int{i, i + 1} {
			if p.counts(b.Posts[post].Kind) {
				p.Count += p.each() * times[i]
			}
		}
	}
}

// each is how many pieces of some parts there are in every bay; 1 in each, of no
// parts.
func (b *Build) each(of []string) []int {
	out := make([]int, len(b.Bays))
	if len(of) == 0 {
		for i := range out {
			out[i] = 1
		}
	}
	for _, id := range of {
		part := b.Of(id)
		if part == nil {
			continue
		}
		for _, q := range part.Pieces {
			for i := max(0, q.Bay); i <= q.To; i++ {
				out[i] += q.Count
			}
		}
	}
	return out
}

func perStretch(b *Build, p *Part) {
	for _, s := range b.Stretches {
		p.add(Piece{Bay: s.First, To: s.Last, Gate: -1, Count: p.each()})
	}
}

func (b *Build) ends(p *Part, each func(bay int) int, long func(bay, post int) length.Length) {
	for _, s := range b.Stretches {
		for _, at := range [][2]int{{s.First, s.First}, {s.Last, s.Last + 1}} {
			if p.counts(b.Posts[at[1]].Kind) {
				p.add(Piece{Bay: at[0], To: at[0], Gate: -1, Count: each(at[0]), Long: long(at[0], at[1])})
			}
		}
	}
}

func perStretchEnd(b *Build, p *Part) {
	b.ends(p, func(int) int { return p.each() }, func(bay, post int) length.Length {
		if p.Long == job.ByHeight {
			return b.high(bay, b.Posts[post].Station) + p.More
		}
		return 0
	})
}

func byBands(b *Build, p *Part) {
	b.ends(p, func(bay int) int { return p.each() * parts.Bands(b.HighAt(bay)) }, func(int, int) length.Length { return 0 })
}

func perGate(b *Build, p *Part) {
	for g := range b.Made {
		if b.hangs(p, g) {
			p.add(Piece{Bay: -1, To: -1, Gate: g, Count: p.each()})
		}
	}
}

// hangs tells whether a part is of a gate: one with leaves, made so; and where it
// is for pairs of leaves, one that has two.
func (b *Build) hangs(p *Part, g int) bool {
	if p.Gates && !slices.ContainsFunc(b.MadeOf(g).Parts[b.Job.Units.System], func(o job.Part) bool { return o.ID == p.ID }) {
		return false
	}
	return len(b.Made[g].Leaves) > p.Span // a drop bolt has a span of one leaf: it is for two
}

func (b *Build) leaves(p *Part, each func(g int, l *gates.GateLeaf)) {
	for g := range b.Made {
		if !b.hangs(p, g) {
			continue
		}
		for l := range b.Made[g].Leaves {
			each(g, &b.Made[g].Leaves[l])
		}
	}
}

// leafLong is how long a piece of a leaf is.
func leafLong(p *Part, l *gates.GateLeaf) length.Length {
	high := max(l.Height, l.TipHeight)
	switch p.Long {
	case job.LeafWidth:
		return l.Width + p.More
	case job.LeafHeight:
		return high + p.More
	case job.ByBrace:
		if l.Brace != nil {
			return l.Brace.Length + p.More
		}
	}
	return 0
}

func perLeaf(b *Build, p *Part) {
	b.leaves(p, func(g int, l *gates.GateLeaf) {
		if p.Long == job.ByBrace && l.Brace == nil {
			return
		}
		p.add(Piece{Bay: -1, To: -1, Gate: g, Count: p.each(), Long: leafLong(p, l)})
	})
}

func perHinge(b *Build, p *Part) {
	b.leaves(p, func(g int, l *gates.GateLeaf) {
		p.add(Piece{Bay: -1, To: -1, Gate: g, Count: p.each() * len(l.Hinges)})
	})
}
