package gates

import (
	"math"
	"slices"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/dig"
	"mallow/core/stage/slope"
	"mallow/core/survey"
)

// gatesRun is a run with its gates.
type Gates struct {
	*dig.Holes
	stage.MapPlace
	Made []Gate

	swept, was map[sweptKey]sweptSide // now, and the last time
}

// Compute plans the run's gates, where it lies on the map. What the last
// result has from the same leaf over the same ground, it takes over.
func Compute(m *dig.Holes, at stage.MapPlace, was *Gates) *Gates {
	g := &Gates{Holes: m, MapPlace: at, Made: []Gate{}, swept: map[sweptKey]sweptSide{}}
	if was != nil && was.Holes != nil && was.Profile.Same(m.Profile) {
		g.was = was.swept
	}
	defer func() { g.was = nil }() // nothing holds on to all that ever was
	for i, b := range m.Layout.Bays {
		if b.Gate == spacing.NoGate {
			continue
		}
		g.Made = append(g.Made, g.sized(b.Gate, &m.Bays[i]))
		w := g.maker(&g.Made[len(g.Made)-1], i)
		w.leaves()
		w.runBack()
		w.setBack()
		w.lengths()
		w.latch()
	}
	return g
}

// maker plans one gate, in its bay.
func (m *Gates) maker(g *Gate, bay int) *planner {
	first := m.Layout.Bays[bay].First
	return &planner{m: m, gate: m.Spec.Gates[g.index], out: g, bay: &m.Bays[bay], posts: [2]*dig.Post{&m.Posts[first], &m.Posts[first+1]}}
}

// leastSpacing is the least distance between two hinges that is one.
const leastSpacing = 100 * length.Millimetre

// given is where an old post that stays has its hinges, above the leaf's bottom.
// The other leaf of a pair is hung as high, so that the two look alike. It is
// false where no post has any, or where they are not on the leaf.
func (w *planner) given(l *GateLeaf) (low, high length.Length, ok bool) {
	on := []*dig.Post{w.post(l.End)}
	if w.gate.LeafCount() == 2 {
		on = append(on, w.posts[:]...)
	}
	for _, p := range on {
		if low, high, ok = w.onOld(p); ok && low >= 0 && high <= l.Height {
			return low, high, true
		}
	}
	return 0, 0, false
}

// onOld is where a post has its hinges already, above the leaf's bottom.
func (w *planner) onOld(p *dig.Post) (low, high length.Length, ok bool) {
	k := slices.IndexFunc(w.m.Spec.KeepOuts, func(k job.KeepOut) bool { return p.Stays != "" && k.ID == p.Stays })
	if k < 0 || w.m.Spec.KeepOuts[k].Low == nil || w.m.Spec.KeepOuts[k].High == nil {
		return 0, 0, false
	}
	old := w.m.Spec.KeepOuts[k]
	return p.Ground + *old.Low - w.out.Bottom, p.Ground + *old.High - w.out.Bottom, true
}

// hinges marks where a leaf's hinges go on its post.
func (w *planner) hinges(l *GateLeaf, post *dig.Post) {
	l.Hinges, l.Blocks = []HangMark{}, []Block{}
	low, high := w.gate.HingeIn, l.Height-w.gate.HingeIn
	if a, z, ok := w.given(l); ok {
		low, high, l.Given = a, z, true
	}
	if l.Spacing = high - low; l.Spacing < leastSpacing {
		l.Spacing = 0
	} else {
		l.Pull = gate.HingeForce(l.Moment, l.Spacing)
		l.Hinges = append(l.Hinges, w.mark(bottomHinge, post, low, "up"))
		if l.Height >= w.m.Cat.Passage.Third-length.Tolerance {
			l.Hinges = append(l.Hinges, w.mark(middleHinge, post, (low+high)/2, "up"))
		}
		l.Hinges = append(l.Hinges, w.mark(topHinge, post, high, "down"))
	}
	ground := gate.Ground{Line: w.m.Profile, From: w.posts[0].Station + w.out.Post/2, To: w.posts[1].Station - w.out.Post/2, Crown: w.gate.Crown}
	// Blocks stand a little in from the leaf's ends, where it can be held.
	leaf := gate.Leaf{Pin: l.Pin, Ahead: l.Ahead}
	for _, b := range []struct {
		name string
		out  length.Length
	}{{underHinges, l.Heel + l.Width/10}, {underTip, l.Heel + 9*l.Width/10}} {
		at, _ := leaf.At(0, b.out)
		l.Blocks = append(l.Blocks, Block{b.name, w.out.Bottom - ground.Height(at, 0), at})
	}
}

// mark is a mark on a post at a height over the leaf's bottom.
func (w *planner) mark(name string, post *dig.Post, onLeaf length.Length, pin string) HangMark {
	above := w.out.Bottom + onLeaf - post.Ground
	return HangMark{Name: name, Post: post.Label, Above: above, FromMark: post.Mark - above, OnLeaf: onLeaf, Pin: pin}
}

// latch marks where the latch goes: on the other post of a single leaf, or
// between two leaves.
func (w *planner) latch() {
	post := w.posts[1]
	switch {
	case w.gate.Kind == job.SlideGate && w.gate.Slides != job.FirstPost:
		post = w.posts[0]
	case w.gate.Kind == job.SlideGate:
	case len(w.out.Leaves) == 1 && w.out.Leaves[0].End == job.SecondPost:
		post = w.posts[0]
	case len(w.out.Leaves) == 2:
		post = w.posts[0] // on the leaves, measured from the first post's ground
	}
	onLeaf := post.Ground + w.gate.Latch - w.out.Bottom
	mark := w.mark(latchMark, post, onLeaf, "")
	w.out.Latch = &mark
}

// lengths lists how deep each post length that can be had would stand.
func (w *planner) lengths() {
	m := w.m
	for _, p := range w.posts {
		if p.Stays != "" || p.Card < 0 {
			continue
		}
		asked := p.Foot
		for _, stock := range m.Spec.Post.Stock {
			foot := stock - p.Needed + p.Foot
			if foot < leastFootShown {
				continue
			}
			w.out.Lengths = append(w.out.Lengths, PostLength{
				Post: p.Label, Length: stock, Foot: foot, Asked: asked, Enough: foot >= asked-length.Tolerance,
				Taken: p.Stock != nil && length.Same(*p.Stock, stock), Edits: m.KindEdits(job.GatePost, "hole/depth", foot),
			})
		}
	}
}

// leastFootShown is the shallowest foot that is worth a thought: 1 ft.
const leastFootShown = 300 * length.Millimetre

// How finely a swing is drawn.
const (
	drawnEvery = 5.0 // degrees
	drawnOuts  = 12
)

// wanted is the least gap that must be left under a leaf.
func wanted(g job.Gate) length.Length { return g.Least + g.Snow }

// leaves plans the leaves of a swing gate.
func (w *planner) leaves() {
	for _, h := range w.m.Hang(w.gate, w.bay) {
		post := w.post(h.Post)
		l := GateLeaf{
			Post: post.Label, End: h.Post, Width: h.Width, Thick: w.gate.Thick, Pin: h.Pin, Heel: h.Heel, Reach: h.Reach(), Ahead: h.Ahead, Lift: h.Lift,
			Height: w.bay.TopStart - w.bay.BottomStart, TipHeight: w.bay.TopEnd - w.bay.BottomEnd,
			Mass: h.Mass, Estimated: h.Estimated, Moment: gate.Moment(h.Mass, h.Width), Sides: []LeafSide{},
		}
		if h.Post == job.SecondPost {
			l.Height, l.TipHeight = l.TipHeight, l.Height
		}
		w.hinges(&l, post)
		made := w.m.LeafMake(w.gate)
		l.Brace = &LeafBrace{Kind: made.Brace, Length: length.Length(math.Hypot(float64(l.Width), float64(l.Height))), Angle: math.Atan2(float64(l.Height), float64(l.Width)) * 180 / math.Pi}
		l.Adjust = w.adjust(&l)
		for _, side := range w.gate.Swing.Sides() {
			l.Sides = append(l.Sides, w.swing(h.Leaf, side, post))
		}
		w.out.Leaves = append(w.out.Leaves, l)
	}
}

// swing looks at a leaf's way to one side.
func (w *planner) swing(l gate.Leaf, side job.Swing, post *dig.Post) LeafSide {
	m, want := w.m, wanted(w.gate)
	ground := gate.OnSide(m.Profile, m.Spec, w.gate, side)
	key := sweptKey{l, side, ground.From, ground.To, ground.Crown, want, w.gate.Cut}
	s, ok := m.sweptBefore(key, ground.Side)
	if !ok {
		s = w.sweep(l, side, ground)
	}
	m.swept[key] = sweptSide{ground.Side, s}
	w.place(&s, l)
	at, off := l.At(l.Open, l.Reach())
	s.Hold = HoldBack{Off: off, Along: at - post.Station}
	if !l.Ahead {
		s.Hold.Along = -s.Hold.Along
	}
	return s
}

// sweep finds a leaf's way over the ground on one side.
func (w *planner) sweep(l gate.Leaf, side job.Swing, ground gate.Ground) LeafSide {
	want := wanted(w.gate)
	c := gate.Sweep(l, ground)
	s := LeafSide{Side: side, Gap: c.Gap, Angle: c.Angle, Out: c.Out, Wanted: want, IsCut: w.gate.Cut,
		Angles: []float64{}, Outs: []length.Length{}, Ground: []LeafGround{}}
	s.Clears = c.Gap >= want-length.Tolerance
	if !s.Clears {
		s.Cut, s.Earth = want-c.Gap, gate.Earth(l, ground, want)
		if w.gate.Cut {
			s.Gap, s.Clears = want, true
		} else {
			if a, ok := gate.Touch(l, ground, want); ok {
				s.Short = &a
			}
			if c.Gap < -length.Tolerance {
				if a, ok := gate.Touch(l, ground, 0); ok {
					s.Touch = &a
				}
			}
		}
	}
	w.profiles(&s, l, ground)
	return s
}

// place gives the swept ground on the map.
func (w *planner) place(s *LeafSide, l gate.Leaf) {
	s.Outline = make([]survey.Place, 0, len(s.Angles)+1)
	s.Outline = append(s.Outline, w.m.onMap(l.Pin, 0, s.Side))
	for _, angle := range s.Angles {
		at, off := l.At(angle, l.Reach())
		s.Outline = append(s.Outline, w.m.onMap(at, off, s.Side))
	}
}

// profiles gives the ground under the leaf at each angle.
func (w *planner) profiles(s *LeafSide, l gate.Leaf, ground gate.Ground) {
	want := wanted(w.gate)
	for k := range drawnOuts + 1 {
		s.Outs = append(s.Outs, hundredth(l.Reach()*length.Length(k)/drawnOuts))
	}
	steps := int(math.Ceil(l.Open / drawnEvery))
	for i := range steps + 1 {
		angle := min(l.Open, drawnEvery*float64(i))
		under := gate.Under(l, ground, angle)
		g := LeafGround{Bottom: hundredth(l.Height(angle)), Gap: hundredth(under.Gap), Out: hundredth(under.Out), Heights: make([]length.Length, len(s.Outs))}
		for k, out := range s.Outs {
			at, off := l.At(angle, out)
			h := ground.Height(at, off)
			if w.gate.Cut {
				h = min(h, l.Height(angle)-want)
			}
			g.Heights[k] = hundredth(h)
		}
		if w.gate.Cut {
			g.Gap = max(g.Gap, want)
		}
		s.Angles, s.Ground = append(s.Angles, angle), append(s.Ground, g)
	}
}

// hundredth keeps drawn heights short in a document.
func hundredth(l length.Length) length.Length {
	return length.Length(math.Round(float64(l)*100) / 100)
}

// worst is the least gap under a gate's leaves on the sides that they swing
// to, with the gate's own posts and gap.
func (m *Gates) worst(g job.Gate) (least gate.Clearance) {
	least.Gap = length.Length(math.Inf(1))
	bottom := gate.Across(m.Profile, m.Spec, g) + g.Gap
	for _, l := range gate.Leaves(m.Spec, g, bottom) {
		for _, side := range g.Swing.Sides() {
			if c := gate.Sweep(l, gate.OnSide(m.Profile, m.Spec, g, side)); c.Gap < least.Gap {
				least = c
			}
		}
	}
	return least
}

// sized is a gate's opening and leaves, before its posts are looked at.
func (m *Gates) sized(index int, bay *slope.Bay) Gate {
	g := m.Spec.Gates[index]
	post := m.Spec.PostOf(job.GatePost).Width
	inside := g.Inside()
	out := Gate{
		ID: g.ID, Name: g.Name, Path: m.GatePath(index), At: g.At, Opening: inside, First: bay.From, Second: bay.To, Bay: bay.Label,
		Leaf: bay.TopStart - bay.BottomStart, Kind: job.SwingGate, Use: g.For(), Swing: job.SwingIn, SizedBy: "inside",
		Clear: g.ClearWay(), Centre: inside + post, Outside: inside + 2*post, Post: post, Bottom: bay.BottomStart,
		Highest: gate.Across(m.Profile, m.Spec, g), Open: g.OpensTo(), Meets: gate.MeetsPost(m.Spec.PostOf(job.GatePost), g.Hardware, g.Thick),
		Leaves: []GateLeaf{}, Lengths: []PostLength{},
		index: index,
	}
	if g.Kind == job.SlideGate {
		out.Kind = job.SlideGate
	}
	if g.Swing != "" {
		out.Swing = g.Swing
	}
	switch {
	case g.Leaf != nil:
		out.SizedBy = "leaf"
	case g.Clear != nil:
		out.SizedBy = "clear"
	}
	return out
}

// onMap is a place beside the run on the map: at a station, so far off to a
// side of the fence.
func (m *Gates) onMap(at, off length.Length, side job.Swing) survey.Place {
	from, to := m.From, m.To
	if m.Ground.Length <= 0 {
		return from
	}
	ux, uy := (to.X-from.X)/m.Ground.Length, (to.Y-from.Y)/m.Ground.Length
	out := off * length.Length(m.hand(side))
	return survey.Place{X: from.X + ux*at - uy*out, Y: from.Y + uy*at + ux*out}
}

// hand is 1 where a side of the fence lies to the left of the line, and -1
// where it lies to the right.
func (m *Gates) hand(side job.Swing) float64 {
	hand := m.Inside
	if side == job.SwingOut {
		hand = hand.Other()
	}
	return hand.Sign()
}

func (m *Gates) bayOf(g *Gate) int {
	for i := range m.Bays {
		if m.Bays[i].Label == g.Bay {
			return i
		}
	}
	return 0
}

// gateMaker plans one gate.
type planner struct {
	m     *Gates
	gate  job.Gate
	out   *Gate
	bay   *slope.Bay
	posts [2]*dig.Post
}

// post is the post at one end of the gate.
func (w *planner) post(end job.End) *dig.Post {
	if end == job.SecondPost {
		return w.posts[1]
	}
	return w.posts[0]
}

func (w *planner) setBack() {
	v := w.gate.Vehicle
	if v == nil {
		return
	}
	w.out.SetBack = &SetBack{Needed: gate.SetBack(v.Length, v.Trailer, w.m.swingsOut(w.gate)), Road: w.gate.Road}
}

// swingsOut is how far a gate's leaves stand out from the line on the road's
// side, at most.
func (m *Gates) swingsOut(g job.Gate) length.Length {
	most := length.Length(0)
	for _, side := range g.Swing.Sides() {
		if side == job.SwingOut {
			most = m.standsOff(g)
		}
	}
	return most
}

// standsOff is how far a swing gate's leaves stand off the line at most.
func (m *Gates) standsOff(g job.Gate) length.Length {
	most := length.Length(0)
	for _, l := range gate.Leaves(m.Spec, g, 0) {
		_, off := l.At(min(90, l.Open), l.Reach())
		most = max(most, off)
	}
	return most
}

// runBack is where a sliding leaf runs to.
func (w *planner) runBack() {
	if w.gate.Kind != job.SlideGate {
		return
	}
	m := w.m
	past := w.gate.LeafWidths()[0]
	r := RunBack{Past: past, Post: w.out.Second}
	half := w.out.Post / 2
	if w.gate.Slides == job.FirstPost {
		r.Post, r.To = w.out.First, w.posts[0].Station+half
		r.From, r.Room = r.To-past, r.To
	} else {
		r.From = w.posts[1].Station - half
		r.To, r.Room = r.From+past, m.Ground.Length-r.From
	}
	// The leaf hangs level: what the ground rises along its way is lost.
	r.Gap = length.Length(1e9)
	m.Profile.Each(max(0, r.From), min(m.Ground.Length, r.To), func(at, height length.Length) {
		if gap := w.out.Bottom - height; gap < r.Gap {
			r.Gap, r.At = gap, at
		}
	})
	w.out.RunBack = &r
}

// adjust works out how a dropped tip is lifted.
func (w *planner) adjust(l *GateLeaf) *Adjusting {
	if w.gate.Sag <= 0 || l.Spacing <= 0 {
		return nil
	}
	hw := w.gate.Hardware
	a := Adjusting{Drop: w.gate.Sag, Travel: hw.Travel}
	a.In, a.Turns = gate.Adjust(w.gate.Sag, l.Width, l.Spacing, hw.Pitch)
	a.Enough = hw.Pitch <= 0 || a.In <= hw.Travel+length.Tolerance
	return &a
}

// MadeOf is how the leaves of one of the gates are made.
func (m *Gates) MadeOf(i int) materials.Make { return m.LeafMake(m.Spec.Gates[m.Made[i].index]) }
