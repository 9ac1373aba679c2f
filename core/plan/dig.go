package plan

import (
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
	"mallow/core/spacing"
)

// frost is the depth that the ground freezes to: the local office's figure, or
// else an estimate; nil while neither is known.
func (m *maker) frost() (depth *length.Length, estimated bool) {
	if m.job.Site.FrostDepth != nil {
		return m.job.Site.FrostDepth, false
	}
	if m.job.Site.Frost == nil {
		return nil, false
	}
	x := footing.FrostDepth(m.freeze())
	return &x, true
}

// freeze is what the frost depth is estimated from: what was entered, and of
// the rest what is usual for the soil.
func (m *maker) freeze() footing.Freeze {
	f, soil := m.job.Site.Frost, m.soil
	given := func(v *float64, usual float64) float64 {
		if v != nil {
			return *v
		}
		return usual
	}
	return footing.Freeze{
		Index: f.Index * footing.FahrenheitDays, Surface: given(f.Surface, usualSurface), Lambda: given(f.Lambda, 1),
		Conductivity: given(f.Conductivity, soil.Conductivity) * footing.BtuPerFoot,
		Moisture:     given(f.Moisture, soil.Moisture), Density: given(f.Density, soil.Density) * footing.PoundsPerFoot3,
	}
}

// usualSurface is the surface freezing index over that of the air: bare or
// mown ground (TM 5-852-6, from memory).
const usualSurface = 0.7

// question is everything that the size of a post's hole depends on.
func (m *maker) question(kind job.PostKind, hung bool, reveal length.Length, r *job.Rules) footing.Question {
	frost, _ := m.frost()
	return footing.Question{
		Kind: kind, Hung: hung, Reveal: reveal, Frost: frost, Height: m.run.Fence.Height,
		Post: m.run.PostOf(kind), Hole: r.Hole, Gravel: r.Setting.Gravel, Stand: r.Setting.Stand,
	}
}

// sized is a hole's size with the rules that it follows.
type sized struct {
	rules   *job.Rules
	q       footing.Question
	width   footing.Width
	depth   footing.Depth
	hit     *job.Hit
	driven  bool
	widened bool          // an old footing is dug out with it
	longer  length.Length // how much deeper it stands since its post cannot be cut
	lowered length.Length // by how much the ground is cut here; negative: filled
}

// dug is the depth as it is dug, from today's ground.
func (s *sized) dug() footing.Depth {
	d := s.depth
	d.Bottom, d.Foot, d.Hole = max(0, d.Bottom+s.lowered), max(0, d.Foot+s.lowered), max(0, d.Hole+s.lowered)
	d.Foot = min(d.Foot, d.Hole) // where rock stops a hole above the ground as it will be
	return d
}

// held is the depth, below today's ground, of the ground that holds the
// footing: what is cut does not, and neither does fresh fill.
func (s *sized) held() length.Length { return max(0, s.lowered) }

// heaves tells whether frost reaches under the concrete, whose bottom is at a
// depth below today's ground. It is the one place where a depth is held
// against the frost.
func (s *sized) heaves(bottom length.Length) bool {
	return s.q.Frost != nil && !s.rules.Hole.SkipFrost && bottom-s.lowered < *s.q.Frost-length.Tolerance
}

// spotOf finds the single hole's rules that are for a post. What was hit in a
// hole that the post has moved clear of is no longer its own.
func (m *maker) spotOf(i int, kind job.PostKind) int {
	if len(m.given.Spots) == 0 {
		return -1
	}
	posts := m.layout.Posts
	at, reach := posts[i].Station, [2]length.Length{}
	if i > 0 {
		reach[0] = at - posts[i-1].Station
	}
	if i < len(posts)-1 {
		reach[1] = posts[i+1].Station - at
	}
	spot := m.given.SpotAt(at, reach[0], reach[1])
	if spot < 0 || m.given.Spots[spot].Hit == nil {
		return spot
	}
	r := m.spotRules(kind, spot)
	hole := footing.FindWidth(m.question(kind, m.hung(i), 0, r)).Width
	if (m.given.Spots[spot].At - at - r.Hole.Along).Abs() > hole/2+length.Tolerance {
		return -1
	}
	return spot
}

// dig sizes a post's hole and its filling.
func (m *maker) dig(p *Post, i int) {
	s := sized{rules: m.kindRules(p.Kind)}
	if p.spot = m.spotOf(i, p.Kind); p.spot >= 0 {
		s.rules, s.hit = m.spotRules(p.Kind, p.spot), m.given.Spots[p.spot].Hit
		p.Spot = m.given.Spots[p.spot].ID
	}
	p.Hung = m.hung(i)
	lowered, shows := m.lowered(i, p.Top)
	s.lowered, p.Finished = lowered, p.Ground-lowered
	s.q = m.question(p.Kind, p.Hung, shows, s.rules)
	if s.hit != nil {
		stops := s.hit.Depth - s.lowered
		s.q.Hit = &stops
	}
	if s.driven = s.rules.Hole.DrivenAt(p.Kind); s.driven {
		m.drive(p, s)
		return
	}
	if p.spot < 0 {
		s.width = m.width(p.Kind, p.Hung)
	} else {
		s.width = footing.FindWidth(s.q)
	}
	s.depth = footing.FindDepth(s.q)
	m.lengthen(p, &s)
	p.Why.HoleWidth, p.Why.HoleDepth = m.whyWidth(s), m.whyDepth(s)
	if i == len(m.out.Posts)-1 && m.end != nil {
		m.marry(&s, &p.Why)
		m.lengthen(p, &s)
	}
	if old, id := m.oldHole(p.Station, s.width.Width); old > s.width.Width {
		s.width.Width, p.Repoured, s.widened = old, id, true
		p.Why.HoleWidth = m.whyRepour(old, id)
	}
	d := s.dug()
	shape := footing.ShapeOf(s.width.Width, d.Bottom, d.Hole, s.rules.Hole)
	fill := footing.Fill(shape, d, s.q.Post, s.rules.Setting, m.cat.Supply.Voids, s.lowered)
	p.HoleWidth, p.HoleDepth, p.Bottom, p.Foot, p.Gravel = s.width.Width, d.Hole, d.Bottom, d.Foot, d.Gravel
	p.UnderFinished, p.Heaves = s.depth.Bottom, s.heaves(d.Bottom)
	m.noteHole(i, s, fill)
	m.fill(p, s, shape, fill)
}

// fill puts a hole's filling on its post and its card.
func (m *maker) fill(p *Post, s sized, shape footing.Shape, fill footing.Filling) {
	p.Concrete, p.ConcreteVolume, p.GravelVolume, p.StoneVolume = fill.ConcreteHeight, fill.Concrete, fill.Gravel, fill.Stone
	if bag, ok := m.cat.Bag(s.rules.Setting.Bag); ok {
		p.Bags = pour.Bags(fill.Concrete, bag.Yield)
	}
	p.Card = m.card(p, &s, shape, fill)
	p.Why.Concrete = m.whyConcrete(p)
}

// drive sizes a driven post: how deep its foot goes, and its collar.
func (m *maker) drive(p *Post, s sized) {
	s.q.Gravel, s.q.Stand = 0, 0
	s.depth = footing.FindDepth(s.q)
	d := s.dug()
	p.Driven, p.Foot, p.Bottom, p.Gravel = true, d.Foot, d.Foot, 0
	p.UnderFinished, p.Heaves = s.depth.Foot, s.heaves(d.Foot)
	h := s.rules.Hole
	shape, fill := footing.Shape{}, footing.Filling{}
	if h.Collar > 0 { // as deep as it is wide, unless something is in the way
		deep := min(h.Collar, p.Foot)
		p.HoleWidth, p.HoleDepth = h.Collar, deep
		shape = footing.ShapeOf(h.Collar, deep, deep, job.Hole{})
		fill = footing.Collar(shape, deep, s.q.Post)
	}
	p.Why.HoleDepth = m.whyDepth(s)
	m.fill(p, s, shape, fill)
	why := m.whyDriven(p, s)
	p.Why.HoleWidth, p.Why.Concrete = why, why
}

// width finds a hole's width, which all posts of a kind share, but that a leaf
// may ask for more.
func (m *maker) width(kind job.PostKind, hung bool) footing.Width {
	key := holeKind{kind, hung}
	w, ok := m.widths[key]
	if !ok {
		w = footing.FindWidth(m.question(kind, hung, 0, m.kindRules(kind)))
		m.widths[key] = w
	}
	return w
}

// holeKind tells holes apart whose rules are the same but for what they carry.
type holeKind struct {
	kind job.PostKind
	hung bool
}

// hung tells whether a leaf hangs on a post.
func (m *maker) hung(post int) bool {
	for side, bay := range [...]int{post - 1, post} {
		if bay < 0 || bay >= len(m.layout.Bays) || m.layout.Bays[bay].Gate == spacing.NoGate {
			continue
		}
		first, second := m.run.Gates[m.layout.Bays[bay].Gate].Hung()
		if side == 0 && second || side == 1 && first {
			return true
		}
	}
	if last := len(m.layout.Posts) - 1; post == last && m.end != nil && m.end.next.laid() {
		return m.end.next.hung(0)
	}
	return false
}

// opened is how wide the ground is opened for a post of a kind: its hole, or
// the post and its collar where it is driven.
func (m *maker) opened(kind job.PostKind) length.Length {
	h := m.kindRules(kind).Hole
	if h.DrivenAt(kind) {
		return max(m.run.PostOf(kind).Across(), h.Collar)
	}
	return max(m.width(kind, kind == job.GatePost).Width+h.Taper, h.Bell) + 2*h.Along.Abs()
}

// noteHole keeps the first post that needs a spade, that was set shallower by
// hand than the rules ask, and that no concrete is left for.
func (m *maker) noteHole(i int, s sized, f footing.Filling) {
	w, d := s.width, s.depth
	round := s.rules.Hole.Shape != job.SquareHole && !s.rules.Hole.AnyWidth
	if m.noAuger < 0 && !w.Auger && round {
		m.noAuger = i
	}
	if m.shallow < 0 && d.ByHand && d.Foot < d.Rounded-s.q.Stand-length.Tolerance {
		m.shallow = i
	}
	if m.dry < 0 && f.ConcreteHeight <= 0 && s.rules.Setting.Method != job.RockPacked {
		m.dry = i
	}
}

// marry sizes a corner post's hole for both runs that it carries: the deeper
// and the wider of what each asks for.
func (m *maker) marry(s *sized, why *PostWhy) {
	o := m.end.next
	other := sized{rules: o.kindRules(s.q.Kind), hit: s.hit}
	other.q = o.question(s.q.Kind, s.q.Hung, s.q.Reveal, other.rules)
	other.q.Gravel, other.q.Stand, other.q.Hit = s.q.Gravel, s.q.Stand, s.q.Hit
	if other.rules.Hole.DrivenAt(s.q.Kind) {
		return // what the next run's terminals need is not asked of a hole
	}
	other.width, other.depth = footing.FindWidth(other.q), footing.FindDepth(other.q)
	// By hand is by hand on this run; the next run's own hand counts there.
	if other.width.Width > s.width.Width+length.Tolerance && !s.width.ByHand {
		s.width, why.HoleWidth = other.width, o.whyWidth(other)
	}
	if other.depth.Foot > s.depth.Foot+length.Tolerance && !s.depth.ByHand {
		s.depth, why.HoleDepth = other.depth, o.whyDepth(other)
	}
}
