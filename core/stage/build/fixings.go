package build

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
)

func byRoll(b *Build, p *Part) {
	if len(p.Stock) == 0 {
		return
	}
	for range p.each() {
		for _, s := range b.Stretches {
			p.Rolled = append(p.Rolled, b.long(s)+p.More)
		}
	}
	p.Count, p.Joints = parts.Rolls(p.Rolled, slices.Max(p.Stock), p.Lap)
}

func spaced(b *Build, p *Part) {
	if p.Long == job.ByHeight {
		for i := range b.Posts {
			bay := min(i, len(b.Bays)-1)
			if b.Bays[bay].Gate != "" && i > 0 {
				bay = i - 1
			}
			if post := &b.Posts[i]; p.counts(post.Kind) && post.Shared == "" && b.Bays[bay].Gate == "" {
				p.Count += p.each() * parts.Spaced(b.high(bay, post.Station), p.Spacing, p.In)
			}
		}
		return
	}
	times := b.each(p.Of)
	for _, s := range b.Stretches {
		if p.Long == job.ByStretch {
			p.Count += p.each() * parts.Spaced(b.long(s), p.Spacing, p.In)
			continue
		}
		for i := s.First; i <= s.Last; i++ {
			p.Count += p.each() * times[i] * parts.Spaced(b.over(p, i, i), p.Spacing, p.In)
		}
	}
}

// perCrossing is where pieces meet those that they are fixed to.
func perCrossing(b *Build, p *Part) {
	posts := slices.Contains(p.Over, job.OverPosts)
	meets := make([]int, len(b.Bays)+1) // in all bays before one
	over := b.each(slices.DeleteFunc(slices.Clone(p.Over), func(id string) bool { return id == job.OverPosts }))
	if len(p.Over) == 1 && posts {
		clear(over)
	}
	for i, n := range over {
		meets[i+1] = meets[i] + n
	}
	for _, id := range p.Of {
		of := b.Of(id)
		if of == nil {
			continue
		}
		for _, q := range of.Pieces {
			if q.Bay < 0 {
				continue
			}
			n := meets[q.To+1] - meets[q.Bay]
			if posts {
				n += q.To - q.Bay + 2
			}
			p.Count += p.each() * q.Count * n
		}
	}
}

func perJoint(b *Build, p *Part) {
	for _, id := range p.Of {
		if of := b.Of(id); of != nil {
			p.Count += p.each() * of.Joints
		}
	}
}

func perPiece(b *Build, p *Part) {
	for _, id := range p.Of {
		if of := b.Of(id); of != nil {
			p.Count += p.each() * of.Count
		}
	}
}

// square is an area in square metres.
func square(a, c length.Length) float64 { return float64(a/length.Metre) * float64(c/length.Metre) }

// cutEnds is how many ends of a part's pieces are cut: one of each that is no whole
// length as it is sold, and the tongues that are trimmed.
func (b *Build) cutEnds(of *Part) int {
	n := 0
	for _, q := range of.Pieces {
		whole := q.Long == 0 || len(of.Stock) == 0 || slices.ContainsFunc(of.Stock, func(s length.Length) bool { return (s - q.Long).Abs() < b.mark()/2 })
		if !whole || q.Cut {
			n += q.Count
		}
		if q.Bay >= 0 && q.Bay == q.To && of.Long == job.AsPlanned {
			n += b.Bays[q.Bay].Trims * q.Count
		}
	}
	return n
}

func perCutEnd(b *Build, p *Part) {
	for _, id := range p.Of {
		if of := b.Of(id); of != nil {
			n := b.cutEnds(of)
			p.CutEnds += n
			p.Area += float64(n) * square(of.Width, max(of.Thick, length.Millimetre))
		}
	}
	p.coat()
}

// postFeet are what the feet of posts are called among what is coated.
const postFeet = "feet"

func byArea(b *Build, p *Part) {
	for _, id := range p.Of {
		switch of := b.Of(id); {
		case id == job.OverPosts || id == postFeet:
			for i := range b.Posts {
				post := &b.Posts[i]
				if post.Shared != "" || post.Stays != "" || !p.counts(post.Kind) {
					continue
				}
				round, end := 4*post.Width, square(post.Width, post.Width)
				if post.Round {
					round, end = post.Width*math.Pi, end*math.Pi/4
				}
				tall := post.AboveGrade
				if id == postFeet { // and their end grain, which drinks most
					tall = post.Foot
					p.Area += end
				}
				p.Area += square(round, tall)
			}
		case of != nil:
			for _, q := range of.Pieces {
				wide := of.Width
				if q.Wide > 0 {
					wide = q.Wide
				}
				p.Area += float64(q.Count) * square(2*(wide+of.Thick), q.Long)
			}
		}
	}
	p.coat()
}

func (p *Part) coat() {
	if p.Cover > 0 {
		p.Litres = 1000 * float64(parts.Paint(p.Area, max(1, p.Coats), length.Volume(0.001/p.Cover)))
	}
}
