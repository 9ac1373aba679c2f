package build

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
	"mallow/core/stage/gates"
)

// fill sets pieces side by side over a length, by the part's gap.
func (b *Build) fill(p *Part, clear length.Length) (parts.Fill, bool) {
	gap := parts.Gap{}
	if p.Gap != nil {
		gap = parts.Gap{Want: p.Gap.Want, Least: p.Gap.Least, Most: p.Gap.Most}
	}
	if !p.Rip {
		if f, ok := parts.Along(clear, p.Width, gap, b.mark(), p.Ends); ok {
			return f, true
		}
	}
	if p.Ends {
		return parts.Fill{}, false
	}
	sliver := b.mark() * length.Length(math.Ceil(float64(p.Width/3/b.mark())))
	f, ok := parts.Rip(clear, p.Width, gap.Want, sliver, b.mark())
	return f, ok && p.Rip
}

// along sets pieces side by side along the fence, or along a gate's leaf.
func along(b *Build, p *Part) {
	if p.Long == job.LeafHeight {
		b.leaves(p, func(g int, l *gates.GateLeaf) {
			f, ok := b.fill(p, l.Width)
			if !ok {
				p.Unfit = append(p.Unfit, -1)
				return
			}
			p.add(Piece{Bay: -1, To: -1, Gate: g, Count: f.Pieces - f.Ripped, Long: leafLong(p, l)})
			if f.Ripped > 0 {
				p.add(Piece{Bay: -1, To: -1, Gate: g, Count: f.Ripped, Long: leafLong(p, l), Wide: f.Rip})
			}
		})
		return
	}
	for _, s := range b.Stretches {
		if !p.PerBay {
			first, last := &b.Posts[s.First], &b.Posts[s.Last+1]
			b.side(p, s, first.Station-first.Width/2, last.Station+last.Width/2)
			continue
		}
		for i := s.First; i <= s.Last; i++ {
			first, last := &b.Posts[i], &b.Posts[i+1]
			b.side(p, Stretch{i, i}, first.Station+first.Width/2, last.Station-last.Width/2)
		}
	}
}

// side sets pieces from one station to another.
func (b *Build) side(p *Part, s Stretch, from, to length.Length) {
	f, ok := b.fill(p, to-from)
	if !ok {
		p.Unfit = append(p.Unfit, s.First)
		return
	}
	p.Fills = append(p.Fills, Fill{f, s.First, s.Last, from, to})
	bay := s.First
	for k, at := range f.At(p.Width, p.Ends) {
		wide, own := ripped(f, k+1), p.Width
		if wide > 0 {
			own = wide
		}
		b.upright(p, &bay, s, from+at+own/2, wide, max(1, p.Layers))
	}
}

// upright is a piece that stands at a station.
func (b *Build) upright(p *Part, bay *int, s Stretch, at, wide length.Length, count int) {
	for *bay < s.Last && at > b.Posts[*bay+1].Station {
		*bay++
	}
	long := b.high(*bay, at) + p.More
	p.add(Piece{Bay: *bay, To: *bay, Gate: -1, Count: count, Long: b.mark() * length.Length(math.Ceil(float64(long/b.mark())-1e-6)), Wide: wide})
}

// perGap stands at the gaps of other pieces: boards behind the gaps of boards, or
// spacers between rows.
func perGap(b *Build, p *Part) {
	for _, id := range p.Of {
		of := b.Of(id)
		if of == nil {
			continue
		}
		for _, f := range of.Fills {
			if of.By == job.ByRows {
				p.add(Piece{Bay: f.First, To: f.First, Gate: -1, Count: f.Gaps * p.each(), Long: p.More})
				continue
			}
			bay, at := f.First, f.At(of.Width, of.Ends)
			for k := range max(0, len(at)-1) {
				wide := of.Width
				if rip := ripped(f.Fill, k+1); rip > 0 {
					wide = rip
				}
				b.upright(p, &bay, Stretch{f.First, f.Last}, f.From+(at[k]+wide+at[k+1])/2, 0, p.each())
			}
		}
	}
}
