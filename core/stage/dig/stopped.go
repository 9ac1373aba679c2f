package dig

import (
	"mallow/core/footing"
	"mallow/core/length"
)

// stopped looks at every hole that was stopped.
func (m *Holes) stopped(look func()) {
	for i := range m.Posts {
		look()
		if p := &m.Posts[i]; m.isStopped(p) {
			p.Stopped = m.stop(i)
		}
	}
}

// isStopped tells whether a post's own hole was stopped short of its depth.
func (m *Holes) isStopped(p *Post) bool {
	if p.spot < 0 || p.Shared != "" || p.Stays != "" {
		return false
	}
	d := &m.Designs[p.Card]
	return d.Sized.hit != nil && d.Sized.Depth.Stopped
}

// shallow is a hole that was stopped as it is without a way out: as wide as its
// kind, straight, no pin.
func (m *Holes) shallow(i int) (plain Design, st stood, width length.Length) {
	p := &m.Posts[i]
	plain, st = m.Designs[p.Card], m.Stand(i, &m.Designs[p.Card])
	plain.Sized.Rules = m.KindRules(p.Kind)
	st.pin = 0
	return plain, st, footing.FindWidth(m.Question(p.Kind, p.Hung, p.AboveGrade, plain.Sized.Rules)).Width
}

func (m *Holes) stop(i int) *Stopped {
	p := &m.Posts[i]
	plain, st, width := m.shallow(i)
	hit := plain.Sized.hit
	s := &Stopped{What: hit.What, Depth: hit.Depth, Wanted: plain.Sized.Depth.Rounded + plain.Sized.lowered, Settled: hit.Settled}
	s.AsIs, _, _ = st.bears(&plain, width, p.Bottom)
	s.Planned, _, _ = st.bears(&plain, width, s.Wanted)
	s.Same = m.sameWidth(&plain, st, width, p.Bottom, s.Planned)
	return s
}

// sameWidth looks by halving for the width at which a shallow hole bears what
// the deep one would have.
func (m *Holes) sameWidth(d *Design, st stood, width, bottom length.Length, gust float64) length.Length {
	low, high := width, width
	for range 12 {
		if g, _, _ := st.bears(d, high, bottom); g >= gust {
			break
		}
		high *= 2
	}
	for range 40 {
		mid := (low + high) / 2
		if g, _, _ := st.bears(d, mid, bottom); g < gust {
			low = mid
		} else {
			high = mid
		}
	}
	if high > widestHole {
		return 0
	}
	return high
}

// widestHole is wider than anyone digs for a fence post: 10 ft or 3 m.
const widestHole = 3 * length.Metre
