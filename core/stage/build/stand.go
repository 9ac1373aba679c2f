package build

import (
	"mallow/core/job"
	"mallow/core/length"
)

// Upright is a piece that stands along the fence: its two edges.
type Upright struct{ From, To length.Length }

// Uprights are where the pieces of a part stand along the fence, from the run's
// start; of one that stands at gaps, over them.
func (b *Build) Uprights(p *Part) []Upright {
	switch p.By {
	case job.Along:
		var out []Upright
		for _, f := range p.Fills {
			for k, at := range f.At(p.Width, p.Ends) {
				wide := p.Width
				if rip := ripped(f.Fill, k+1); rip > 0 {
					wide = rip
				}
				out = append(out, Upright{f.From + at, f.From + at + wide})
			}
		}
		return out
	case job.PerGap:
		var out []Upright
		for _, id := range p.Of {
			of := b.Of(id)
			if of == nil || of.By != job.Along {
				continue
			}
			for _, f := range of.Fills {
				all := b.Uprights(&Part{Part: of.Part, Fills: []Fill{f}})
				for k := 1; k < len(all); k++ {
					mid := (all[k-1].To + all[k].From) / 2
					out = append(out, Upright{mid - p.Width/2, mid + p.Width/2})
				}
			}
		}
		return out
	}
	return nil
}

// Row is a piece that lies across a bay: its lower and upper edge above the bottom
// of what it fills.
type Row struct{ From, To length.Length }

// RowsOf are the rows of a part in a bay, the lowest first.
func (b *Build) RowsOf(p *Part, bay int) []Row {
	var out []Row
	if p.By == job.ByRows {
		for _, f := range p.Fills {
			if f.First != bay {
				continue
			}
			for k, at := range f.At(p.Width, p.Ends) {
				wide := p.Width
				if rip := ripped(f.Fill, k+1); rip > 0 {
					wide = rip
				}
				out = append(out, Row{at, at + wide})
			}
		}
	}
	return out
}

// Foot is how high what fills a bay begins over its bottom: over its gravel boards.
func (b *Build) Foot(bay int) length.Length {
	return length.Length(b.Bays[bay].Boards) * b.Bays[bay].Board
}
