package dig

import (
	"slices"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
)

// digRun is a run with its holes and what goes into them.
type Holes struct {
	*slope.Slope
	next  *slope.Line // the run that starts at its last post, or nil
	Posts []Post
	Cards []Card

	Designs []Design // what each card was worked out from
	cardAt  map[cardKey]int
	widest  length.Length // of the holes and posts

	// Posts that something is to be said of, or -1.
	noAuger, tooShallow, dry int
}

// newDig sizes the holes of a run. The corner post at its end carries the next
// run too, where there is one.
func Compute(m *slope.Slope, next *slope.Line, look func()) *Holes {
	d := &Holes{Slope: m, next: next, Posts: make([]Post, len(m.Posts)), Cards: []Card{}, cardAt: map[cardKey]int{}, noAuger: -1, tooShallow: -1, dry: -1}
	for i := range d.Posts {
		look()
		p := &d.Posts[i]
		*p = Post{Post: m.Posts[i], Finished: m.Posts[i].Ground, Card: -1, spot: -1}
		if p.Stays == "" { // nothing is dug, poured or cut for an old post
			d.dig(p, i)
			d.cut(p)
		}
	}
	return d
}

// sharing is the run with its first post as the run before has planned it,
// where one ends there: a corner post is dug once.
func (m *Holes) Sharing(before *Holes) *Holes {
	out := *m
	out.Posts = slices.Clone(m.Posts)
	if before == nil {
		return &out
	}
	post := before.Posts[len(before.Posts)-1]
	own := m.Posts[0]
	post.Label, post.Gate, post.Station, post.Slope, post.Shared = own.Label, own.Gate, own.Station, own.Slope, before.Spec.ID
	// What is marked on it for this run's panels is this run's.
	post.Mark, post.Holes, post.Step, post.Overlap = own.Mark, own.Holes, own.Step, own.Overlap
	if post.Card >= 0 {
		out.Cards = append(slices.Clip(m.Cards), before.Cards[post.Card])
		out.Designs = append(slices.Clip(m.Designs), before.Designs[post.Card])
		post.Card = len(out.Cards) - 1
	}
	post.Spot, post.spot = "", -1
	out.Posts[0] = post
	return &out
}

// finish looks at what the holes run into, what they bear, and what was struck
// in them, once both corner posts are known.
func (m *Holes) Finish(look func()) {
	m.Obstacles()
	m.Wind()
	m.stopped(look)
}

// lengthen sets a post that cannot be cut to height as much deeper as the next
// stock length is longer. By is how much that is.
func (m *Holes) lengthen(p *Post, s *Size) {
	if m.Can(job.CutPosts) || s.Depth.Stopped || s.Depth.ByHand {
		return
	}
	foot := s.dug().Foot
	stock, ok := footing.Stock(p.AboveGrade+foot, m.Spec.Post.Stock)
	if !ok {
		return
	}
	s.longer += stock - p.AboveGrade - foot
	s.Depth.Foot += stock - p.AboveGrade - foot
	s.Depth.Bottom += stock - p.AboveGrade - foot
	s.Depth.Hole += stock - p.AboveGrade - foot
}

// cardKey is what a card is written from.
type cardKey struct {
	rules                     *job.Rules
	kind                      job.PostKind
	hung                      bool
	width, bottom, foot, hole length.Length
	lowered, loose, placed    length.Length
	widened                   bool
}

// holeDesign is a card with what it was worked out from.
type Design struct {
	Sized Size
	Shape footing.Shape
	Fill  footing.Filling
	Bag   materials.Bag
	Buy   length.Volume // concrete with waste
}

// card finds or writes the card of a post's hole, and returns its place.
func (m *Holes) card(p *Post, s *Size, shape footing.Shape, fill footing.Filling) int {
	key := cardKey{s.Rules, p.Kind, p.Hung, p.HoleWidth, s.Depth.Bottom, s.Depth.Foot, s.Depth.Hole, s.lowered, s.loose, s.placed, s.widened}
	if i, ok := m.cardAt[key]; ok {
		return i
	}
	h, set, post := s.Rules.Hole, s.Rules.Setting, s.q.Post
	bag, known := m.Cat.Bag(set.Bag)
	c := Card{
		Width: p.HoleWidth, Depth: p.HoleDepth, Bottom: p.Bottom, Foot: p.Foot, Square: shape.Square, Auger: s.Width.Auger, Cuts: shape.Cuts,
		Along: h.Along, Across: h.Across, Least: (p.HoleWidth-post.Width)/2 - max(h.Along.Abs(), h.Across.Abs()),
		Post: post.Width, Round: post.Shape == job.RoundPost, Hollow: post.Hollow, Wall: post.Wall, Holds: post.Across(),
		Method: set.Method, Layers: fill.Layers,
		Dug: fill.Dug, Gravel: fill.Gravel, Stone: fill.Stone, Concrete: fill.Concrete, Soil: fill.Soil,
		Spoil: max(0, fill.Dug-fill.Soil) * length.Volume(1+m.Soil.Bulking), Bags: p.Bags,
	}
	c.Lowered, c.UnderFinished, c.Heaves = s.lowered-s.loose, p.UnderFinished, p.Heaves
	c.Placed, c.PlacedWide = s.placed, s.placedWide
	if s.q.Frost != nil && !h.SkipFrost {
		frost := *s.q.Frost + s.lowered
		c.Frost = &frost
	}
	if known {
		c.Bag = bag.Name
	}
	if shape.Square {
		c.Holds = post.Width
	}
	if post.Hollow && set.Inside == job.CoreInside && !s.Driven {
		c.Core = set.Core
	}
	if s.Driven {
		c.Method = job.Drive
	}
	if pinnable(s) && h.Pin > 0 {
		c.Pin, c.Pinned = h.Pin, h.PinDeep
	}
	if c.Layers == nil {
		c.Layers = []footing.Layer{}
	}
	if c.Cuts == nil {
		c.Cuts = []footing.Cut{}
	}
	if c.Method == job.Stabbed && c.Concrete > 0 {
		mix := c.Concrete
		for _, l := range c.Layers {
			if l.Kind == footing.InsideLayer && c.Core > 0 { // poured round the core afterwards
				mix -= l.Concrete
			}
		}
		level := shape.Level(c.Bottom, mix)
		c.FillTo = &level
	}
	m.cardAt[key] = len(m.Cards)
	m.Cards = append(m.Cards, c)
	m.Designs = append(m.Designs, Design{*s, shape, fill, bag, fill.Concrete * length.Volume(1+set.Waste)})
	return len(m.Cards) - 1
}

// pinnable tells whether a hole stands on rock that a pin can be drilled into.
func pinnable(s *Size) bool { return s.hit != nil && s.hit.What == job.HitRock && s.Depth.Stopped }

// sized is a hole's size with the rules that it follows.
type Size struct {
	Rules   *job.Rules
	q       footing.Question
	Width   footing.Width
	Depth   footing.Depth
	hit     *job.Hit
	Driven  bool
	widened bool          // an old footing is dug out with it
	longer  length.Length // how much deeper it stands since its post cannot be cut
	lowered length.Length // by how much the ground is cut here
	loose   length.Length // by how much it is filled afterwards, which holds nothing
	placed  length.Length // by how much fill that counts has raised it before it is dug
	// How wide that fill must be, where there is some: it is too narrow to count
	// where it is loose all the same.
	placedWide length.Length
}

// dug is the depth as it is dug, from today's ground.
func (s *Size) dug() footing.Depth {
	d := s.Depth
	d.Bottom, d.Foot, d.Hole = max(0, d.Bottom+s.lowered), max(0, d.Foot+s.lowered), max(0, d.Hole+s.lowered)
	d.Foot = min(d.Foot, d.Hole) // where rock stops a hole above the ground as it will be
	return d
}

// held is the depth, below today's ground, of the ground that holds the
// footing: what is cut does not.
func (s *Size) Held() length.Length { return s.lowered }

// heaves tells whether frost reaches under the concrete, whose bottom is at a
// depth below today's ground. It is the one place where a depth is held
// against the frost.
func (s *Size) heaves(bottom length.Length) bool {
	return s.q.Frost != nil && !s.Rules.Hole.SkipFrost && bottom-s.lowered < *s.q.Frost-length.Tolerance
}

// overrideOf finds the single hole's rules that are for a post. What was hit in a
// hole that the post has moved clear of is no longer its own.
func (m *Holes) overrideOf(i int, kind job.PostKind) int {
	if len(m.Given.Overrides) == 0 {
		return -1
	}
	posts := m.Layout.Posts
	at, reach := posts[i].Station, [2]length.Length{}
	if i > 0 {
		reach[0] = at - posts[i-1].Station
	}
	if i < len(posts)-1 {
		reach[1] = posts[i+1].Station - at
	}
	spot := m.Given.OverrideAt(at, reach[0], reach[1])
	if spot < 0 || m.Given.Overrides[spot].Hit == nil {
		return spot
	}
	r := m.OverrideRules(kind, spot)
	hole := footing.FindWidth(m.Question(kind, m.Hung(i), 0, r)).Width
	if (m.Given.Overrides[spot].At - at - r.Hole.Along).Abs() > hole/2+length.Tolerance {
		return -1
	}
	return spot
}

// oldHole returns how wide a hole must be that takes out an old footing which
// is dug out and poured again: wide enough to hold all of it.
func (m *Holes) oldHole(at, hole length.Length) (length.Length, string) {
	wide, id := length.Length(0), ""
	for _, k := range m.Spec.KeepOuts {
		if k.Repour && space.IsFooting(k) && at+hole/2 > k.From() && at-hole/2 < k.To() {
			// Only the part that the new hole disturbs the soil of: an old
			// footing is a spot; a whole stretch of them is dug as the hole is.
			if w := 2 * max(k.To()-at, at-k.From()); k.Width <= 2*hole && w > wide {
				wide, id = w, k.ID
			} else if id == "" {
				wide, id = hole*3/2, k.ID
			}
		}
	}
	return wide, id
}

// trace is how a hole came to its size: what was asked of it by its own run
// and, at a corner, by the next one, and which of them it follows.
type trace struct {
	Size
	own      Size
	other    *Size // what the next run asks of a corner post
	widthBy  *Size // the one of both that the width follows; nil for an old footing
	depthBy  *Size
	repoured string // old footing that is dug out with it
}

// size finds how wide and deep a post's hole is.
func (m *Holes) size(p *Post, i int) trace {
	s := Size{Rules: m.KindRules(p.Kind)}
	if p.spot = m.overrideOf(i, p.Kind); p.spot >= 0 {
		s.Rules, s.hit = m.OverrideRules(p.Kind, p.spot), m.Given.Overrides[p.spot].Hit
		p.Spot = m.Given.Overrides[p.spot].ID
	}
	p.Hung = m.Hung(i)
	p.Ground, p.AboveGrade = m.Slope.Posts[i].Ground, m.Slope.Posts[i].AboveGrade // today's
	firm, finished := m.Standings(i, p.Top, m.next)
	p.Finished = p.Ground - finished.Down
	if finished.Down >= -slope.LowersAnything || m.Spec.Grade.Placed <= 0 {
		return m.sizeIn(p, i, s, firm, finished)
	}
	// Placed fill counts where it reaches as far to either side as the hole goes
	// down: then neither frost nor the post's push finds its edge first (common
	// practice; the 45 degrees of a footing's bearing).
	p.Ground, p.AboveGrade = p.Finished, p.Top-p.Finished // it is dug, set and measured from there
	s.placed = -finished.Down
	on := slope.Standing{Shows: finished.Shows}
	t := m.sizeIn(p, i, s, on, on)
	if s.placedWide = 2 * t.Depth.Bottom; t.Driven {
		s.placedWide = 2 * t.Depth.Foot
	}
	if m.Spec.Grade.Placed < s.placedWide-length.Tolerance {
		p.Ground, p.AboveGrade, s.placed = m.Slope.Posts[i].Ground, m.Slope.Posts[i].AboveGrade, 0
		return m.sizeIn(p, i, s, firm, finished)
	}
	return m.sizeIn(p, i, s, on, on)
}

// sizeIn finds the size in the ground that a post is counted to stand in.
func (m *Holes) sizeIn(p *Post, i int, s Size, in, finished slope.Standing) trace {
	s.lowered, s.loose = in.Down, max(0, in.Down-finished.Down)
	s.q = m.Question(p.Kind, p.Hung, in.Shows, s.Rules)
	if s.hit != nil {
		stops := s.hit.Depth - s.lowered
		s.q.Hit = &stops
	}
	if s.Driven = s.Rules.Hole.DrivenAt(p.Kind); s.Driven {
		s.q.Gravel, s.q.Stand = 0, 0
		s.Depth = footing.FindDepth(s.q)
		return trace{Size: s, own: s}
	}
	if p.spot < 0 {
		s.Width = m.Width(p.Kind, p.Hung)
	} else {
		s.Width = footing.FindWidth(s.q)
	}
	s.Depth = footing.FindDepth(s.q)
	m.lengthen(p, &s)
	t := trace{Size: s, own: s}
	t.widthBy, t.depthBy = &t.own, &t.own
	if i == len(m.Posts)-1 && m.next != nil {
		m.reconcile(&t)
		m.lengthen(p, &t.Size)
	}
	if old, id := m.oldHole(p.Station, t.Width.Width); old > t.Width.Width {
		t.Width.Width, t.repoured, t.widened, t.widthBy = old, id, true, nil
	}
	return t
}

// dig sizes a post's hole and its filling.
func (m *Holes) dig(p *Post, i int) {
	t := m.size(p, i)
	s := &t.Size
	d := s.dug()
	if s.Driven {
		m.drive(p, s, d)
		return
	}
	p.Repoured = t.repoured
	shape := footing.ShapeOf(s.Width.Width, d.Bottom, d.Hole, s.Rules.Hole)
	fill := footing.Fill(shape, d, s.q.Post, s.Rules.Setting, m.Cat.Supply.Voids, s.lowered)
	p.HoleWidth, p.HoleDepth, p.Bottom, p.Foot, p.Gravel = s.Width.Width, d.Hole, d.Bottom, d.Foot, d.Gravel
	p.UnderFinished, p.Heaves = s.Depth.Bottom+s.loose, s.heaves(d.Bottom)
	m.noteHole(i, s, fill)
	m.fill(p, s, shape, fill)
}

// fill puts a hole's filling on its post and its card.
func (m *Holes) fill(p *Post, s *Size, shape footing.Shape, fill footing.Filling) {
	p.Concrete, p.ConcreteVolume, p.GravelVolume, p.StoneVolume = fill.ConcreteHeight, fill.Concrete, fill.Gravel, fill.Stone
	if bag, ok := m.Cat.Bag(s.Rules.Setting.Bag); ok {
		p.Bags = pour.Bags(fill.Concrete, bag.Yield)
	}
	p.Card = m.card(p, s, shape, fill)
}

// drive sizes a driven post: how deep its foot goes, and its collar.
func (m *Holes) drive(p *Post, s *Size, d footing.Depth) {
	p.Driven, p.Foot, p.Bottom, p.Gravel = true, d.Foot, d.Foot, 0
	p.UnderFinished, p.Heaves = s.Depth.Foot+s.loose, s.heaves(d.Foot)
	h := s.Rules.Hole
	shape, fill := footing.Shape{}, footing.Filling{}
	if h.Collar > 0 { // as deep as it is wide, unless something is in the way
		deep := min(h.Collar, p.Foot)
		p.HoleWidth, p.HoleDepth = h.Collar, deep
		shape = footing.ShapeOf(h.Collar, deep, deep, job.Hole{})
		fill = footing.Collar(shape, deep, s.q.Post)
	}
	m.fill(p, s, shape, fill)
}

// noteHole keeps the first post that needs a spade, that was set shallower by
// hand than the rules ask, and that no concrete is left for.
func (m *Holes) noteHole(i int, s *Size, f footing.Filling) {
	w, d := s.Width, s.Depth
	round := s.Rules.Hole.Shape != job.SquareHole && !s.Rules.Hole.AnyWidth
	if m.noAuger < 0 && !w.Auger && round {
		m.noAuger = i
	}
	if m.tooShallow < 0 && d.ByHand && d.Foot < d.Rounded-s.q.Stand-length.Tolerance {
		m.tooShallow = i
	}
	if m.dry < 0 && f.ConcreteHeight <= 0 && s.Rules.Setting.Method != job.RockPacked {
		m.dry = i
	}
}

// reconcile sizes a corner post's hole for both runs that it carries: the
// deeper and the wider of what each asks for.
func (m *Holes) reconcile(t *trace) {
	o, s := m.next, &t.Size
	other := Size{Rules: o.KindRules(s.q.Kind), hit: s.hit}
	other.q = o.Question(s.q.Kind, s.q.Hung, s.q.AboveGrade, other.Rules)
	other.q.Gravel, other.q.Stand, other.q.Hit = s.q.Gravel, s.q.Stand, s.q.Hit
	if other.Rules.Hole.DrivenAt(s.q.Kind) {
		return // what the next run's terminals need is not asked of a hole
	}
	other.Width, other.Depth = footing.FindWidth(other.q), footing.FindDepth(other.q)
	t.other = &other
	// By hand is by hand on this run; the next run's own hand counts there.
	if other.Width.Width > s.Width.Width+length.Tolerance && !s.Width.ByHand {
		s.Width, t.widthBy = other.Width, t.other
	}
	if other.Depth.Foot > s.Depth.Foot+length.Tolerance && !s.Depth.ByHand {
		s.Depth, t.depthBy = other.Depth, t.other
	}
}

// cut takes the post from the stock lengths.
func (m *Holes) cut(p *Post) {
	p.Needed = p.AboveGrade + p.Foot
	if p.CutFirst = m.Spec.Post.Cut == job.CutFirst; !p.CutFirst && m.Can(job.CutPosts) {
		p.Needed += m.Spec.Post.Trim
	}
	if stock, ok := footing.Stock(p.Needed, m.Spec.Post.Stock); ok {
		off := stock - p.AboveGrade - p.Foot
		p.Stock, p.CutOff = &stock, &off
	}
}
