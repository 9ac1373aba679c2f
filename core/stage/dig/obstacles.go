package dig

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage/space"
)

// obstacles finds the holes that meet what is in the way. It is
// the hole that must miss a pipe, not the post's centre.
func (m *Holes) Obstacles() {
	for i := range m.Posts {
		at, wide := m.dugAt(&m.Posts[i])
		m.widest = max(m.widest, wide+2*(at-m.Posts[i].Station).Abs())
	}
	for k, o := range m.InTheWay {
		k := m.Spec.KeepOuts[k]
		first, last := m.Near(o.HandFrom, o.HandTo, m.widest)
		for p := first; p < last; p++ {
			post := &m.Posts[p]
			if post.Stays != "" || k.Repour && space.IsFooting(k) {
				continue
			}
			at, hole := m.dugAt(post)
			switch {
			case space.Hits(o, at, hole):
				post.InWay = append(post.InWay, o.ID)
			case k.Hand > 0 && at+hole/2 > o.HandFrom && at-hole/2 < o.HandTo:
				post.Hand = append(post.Hand, o.ID)
			}
		}
	}
}

// dugAt is where the ground is opened for a post along the run, and how wide
// at the widest: its hole may lie off its middle, and be tapered or belled.
func (m *Holes) dugAt(p *Post) (middle, width length.Length) {
	middle, width = p.Station, m.Spec.PostOf(p.Kind).Width
	if p.Card < 0 {
		return middle, max(width, p.HoleWidth)
	}
	c := &m.Cards[p.Card]
	for _, cut := range c.Cuts {
		width = max(width, cut.Width)
	}
	return middle + c.Along, width
}

// serious are the obstacles that are never dug into.
var serious = map[job.Obstacle]bool{job.Service: true, job.Drain: true, job.NoDig: true}

// trouble counts what a layout does not meet: holes that run into something
// and stretches that had to give up a demand.
func (m *Holes) Trouble() int {
	n := 0
	for i := range m.Posts {
		n += len(m.Posts[i].InWay)
	}
	for _, s := range m.Layout.Segments {
		if s.Block != nil {
			n += 1 + len(s.Block.Of)
		}
	}
	return n
}
