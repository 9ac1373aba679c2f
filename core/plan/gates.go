package plan

import (
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/survey"
)

// Gate is one planned gate: its opening, its leaves, how they swing, and how
// they are hung.
type Gate struct {
	ID      string        `json:"id" jsonschema:"required"`
	Name    string        `json:"name" jsonschema:"required"`
	Path    string        `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of the gate in the job document."`
	At      length.Length `json:"at" jsonschema:"required"`
	Opening length.Length `json:"opening" jsonschema:"required" jsonschema_description:"Inside measure, between the faces of its posts."`
	First   string        `json:"first" jsonschema:"required" jsonschema_description:"Its first post."`
	Second  string        `json:"second" jsonschema:"required"`
	Bay     string        `json:"bay" jsonschema:"required"`
	Leaf    length.Length `json:"leaf" jsonschema:"required" jsonschema_description:"Height of the leaf: from its gap up to the fence's top line."`

	Kind    job.GateKind  `json:"kind" jsonschema:"required,enum=swing,enum=slide"`
	Use     job.GateUse   `json:"use" jsonschema:"required,enum=walk,enum=vehicle"`
	Swing   job.Swing     `json:"swing" jsonschema:"required,enum=in,enum=out,enum=both"`
	SizedBy string        `json:"sizedBy" jsonschema:"required,enum=leaf,enum=clear,enum=inside" jsonschema_description:"Measure that the others follow from."`
	Clear   length.Length `json:"clear" jsonschema:"required" jsonschema_description:"Clear way past the open leaves."`
	Centre  length.Length `json:"centre" jsonschema:"required" jsonschema_description:"Centre to centre of its posts."`
	Outside length.Length `json:"outside" jsonschema:"required" jsonschema_description:"Outside to outside of its posts."`
	Post    length.Length `json:"post" jsonschema:"required" jsonschema_description:"Width of its posts."`
	Bottom  length.Length `json:"bottom" jsonschema:"required" jsonschema_description:"Height of the closed leaf's bottom above the datum."`
	Highest length.Length `json:"highest" jsonschema:"required" jsonschema_description:"Highest ground across the opening, above the datum."`
	Meets   float64       `json:"meets" jsonschema:"required" jsonschema_description:"Angle at which a leaf meets its own post, degrees from closed; 180 where it never does."`
	Open    float64       `json:"open" jsonschema:"required" jsonschema_description:"How far its leaves open, degrees."`

	Checks  []GateCheck  `json:"checks" jsonschema:"required" jsonschema_description:"Measures that prove the two posts before anything is hung."`
	Leaves  []GateLeaf   `json:"leaves" jsonschema:"required" jsonschema_description:"The one on the first post first."`
	RunBack *RunBack     `json:"runBack,omitempty" jsonschema_description:"Where a sliding leaf runs to."`
	SetBack *SetBack     `json:"setBack,omitempty" jsonschema_description:"How far from the road the line must lie."`
	Lengths []PostLength `json:"lengths" jsonschema:"required" jsonschema_description:"Post lengths that can be had, and how deep each would stand."`
	Latch   *HangMark    `json:"latch,omitempty"`
	Steps   []GateStep   `json:"steps" jsonschema:"required" jsonschema_description:"How it is hung, in order."`
	After   []GateStep   `json:"after" jsonschema:"required" jsonschema_description:"What to look at after a week."`
	Order   []GateStep   `json:"order" jsonschema:"required" jsonschema_description:"What is ordered for it."`
	Why     GateWhy      `json:"why" jsonschema:"required"`

	index int // place in the planned run's gates
}

// GateWhy is where a gate's figures are explained.
type GateWhy struct {
	Inside reason.Ref `json:"inside" jsonschema:"required"`
	Clear  reason.Ref `json:"clear" jsonschema:"required"`
	Swing  reason.Ref `json:"swing" jsonschema:"required"`
	Pull   reason.Ref `json:"pull" jsonschema:"required"`
}

// GateCheck is a measure to tape.
type GateCheck struct {
	Name   string        `json:"name" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Says   reason.Text   `json:"says" jsonschema:"required"`
}

// GateStep is a step of the work, or a line of a list.
type GateStep struct {
	Says reason.Text `json:"says" jsonschema:"required"`
}

// RunBack is the stretch of fence that an open sliding leaf stands before.
type RunBack struct {
	Past length.Length `json:"past" jsonschema:"required" jsonschema_description:"How far it reaches past the post."`
	Room length.Length `json:"room" jsonschema:"required" jsonschema_description:"What there is to the run's end."`
	From length.Length `json:"from" jsonschema:"required" jsonschema_description:"Station at which it begins."`
	To   length.Length `json:"to" jsonschema:"required"`
	Post string        `json:"post" jsonschema:"required"`
	Gap  length.Length `json:"gap" jsonschema:"required" jsonschema_description:"Least gap under the leaf on its way."`
	At   length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station of it."`
}

// SetBack is what a vehicle needs to stand clear of the road.
type SetBack struct {
	Needed length.Length `json:"needed" jsonschema:"required"`
	Road   length.Length `json:"road" jsonschema:"required" jsonschema_description:"What there is; 0 where it was not measured."`
}

// sized is a gate's opening and leaves, before its posts are looked at.
func (m *maker) sized(index int, bay *Bay) Gate {
	g := m.run.Gates[index]
	post := m.run.PostOf(job.GatePost).Width
	inside := g.Inside()
	out := Gate{
		ID: g.ID, Name: g.Name, Path: m.gatePath(index), At: g.At, Opening: inside, First: bay.From, Second: bay.To, Bay: bay.ID,
		Leaf: bay.TopStart - bay.BottomStart, Kind: job.SwingGate, Use: g.For(), Swing: job.SwingIn, SizedBy: "inside",
		Clear: g.ClearWay(), Centre: inside + post, Outside: inside + 2*post, Post: post, Bottom: bay.BottomStart,
		Highest: gate.Across(m.profile, m.run, g), Open: g.OpensTo(), Meets: gate.MeetsPost(m.run.PostOf(job.GatePost), g.Hardware, g.Thick),
		Checks: []GateCheck{}, Leaves: []GateLeaf{}, Lengths: []PostLength{}, Steps: []GateStep{}, After: []GateStep{}, Order: []GateStep{},
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

// hung is a leaf with its mass.
type hungLeaf struct {
	gate.Leaf
	mass      length.Mass
	estimated bool
}

// hang describes a gate's leaves in its bay.
func (m *maker) hang(g job.Gate, bay *Bay) []hungLeaf {
	leaves := gate.Leaves(m.run, g, bay.BottomStart)
	out := make([]hungLeaf, len(leaves))
	wider := length.Length(0)
	for _, l := range leaves {
		wider = max(wider, l.Width)
	}
	for i, l := range leaves {
		height := bay.TopStart - bay.BottomStart
		if l.Post == job.SecondPost {
			height = bay.TopEnd - bay.BottomEnd
		}
		out[i] = hungLeaf{Leaf: l, mass: m.weigh1(g, l.Width, height), estimated: true}
		if g.Weight != nil {
			out[i].mass, out[i].estimated = *g.Weight*length.Mass(l.Width/wider), false
		}
	}
	return out
}

// weigh1 estimates a leaf's mass from how it is made.
func (m *maker) weigh1(g job.Gate, width, height length.Length) length.Mass {
	if made, ok := m.cat.Make(g.Make); ok {
		return gate.Weigh(width, height, made.Area, made.Metre)
	}
	return gate.Weigh(width, height, m.cat.Supply.Leaf, 0)
}

// made is how a gate's leaves are made; a strut braces what is not said.
func (m *maker) made(g job.Gate) materials.Make {
	if made, ok := m.cat.Make(g.Make); ok {
		return made
	}
	return materials.Make{Name: "Leaf", Area: m.cat.Supply.Leaf, Brace: materials.Strut}
}

// onMap is a place beside the run on the map: at a station, so far off to a
// side of the fence.
func (m *maker) onMap(at, off length.Length, side job.Swing) survey.Place {
	from, to := m.out.From, m.out.To
	if m.out.Length <= 0 {
		return from
	}
	ux, uy := (to.X-from.X)/m.out.Length, (to.Y-from.Y)/m.out.Length
	out := off * length.Length(m.hand(side))
	return survey.Place{X: from.X + ux*at - uy*out, Y: from.Y + uy*at + ux*out}
}

// hand is 1 where a side of the fence lies to the left of the line, and -1
// where it lies to the right.
func (m *maker) hand(side job.Swing) float64 {
	hand := m.inside
	if side == job.SwingOut {
		hand = hand.Other()
	}
	return hand.Sign()
}

// gatesMade plans what needs the gates' posts and holes.
func (m *maker) gatesMade() {
	for i := range m.out.Gates {
		out := &m.out.Gates[i]
		g := m.run.Gates[out.index]
		bay := m.bayOf(out)
		first := m.layout.Bays[bay].First
		w := &gateMaker{m: m, gate: g, out: out, bay: &m.out.Bays[bay], posts: [2]*Post{&m.out.Posts[first], &m.out.Posts[first+1]}}
		w.leaves()
		w.checks()
		w.runBack()
		w.setBack()
		w.lengths()
		w.latch()
		w.whys()
		w.order()
		w.steps()
		w.after()
	}
}

func (m *maker) bayOf(g *Gate) int {
	for i := range m.out.Bays {
		if m.out.Bays[i].ID == g.Bay {
			return i
		}
	}
	return 0
}

// gateMaker plans one gate.
type gateMaker struct {
	m     *maker
	gate  job.Gate
	out   *Gate
	bay   *Bay
	posts [2]*Post
}

// post is the post at one end of the gate.
func (w *gateMaker) post(end job.End) *Post {
	if end == job.SecondPost {
		return w.posts[1]
	}
	return w.posts[0]
}

// checks are the measures that prove the posts: inside at foot and head, and
// both diagonals between the same two heights.
func (w *gateMaker) checks() {
	low, high := w.out.Bottom, w.bay.TopStart
	w.out.Checks = []GateCheck{
		{"Inside at the bottom", w.out.Opening, reason.Say("Between the faces, at the height of the leaf's bottom.")},
		{"Inside at the top", w.out.Opening, reason.Say("Between the faces, at the leaf's top: the same, or a post leans.")},
	}
	diagonal := gate.Diagonal(w.out.Opening, high-low)
	for i, p := range w.posts {
		w.out.Checks = append(w.out.Checks, GateCheck{"Diagonal from the foot of " + p.ID, diagonal,
			reason.Say("Face to face, up to the leaf's top on ", w.posts[1-i].ID, ". Both alike, or the posts stand out of level or out of plumb.")})
	}
}

func (w *gateMaker) setBack() {
	v := w.gate.Vehicle
	if v == nil {
		return
	}
	w.out.SetBack = &SetBack{Needed: gate.SetBack(v.Length, v.Trailer, w.m.swingsOut(w.gate)), Road: w.gate.Road}
}

// swingsOut is how far a gate's leaves stand out from the line on the road's
// side, at most.
func (m *maker) swingsOut(g job.Gate) length.Length {
	most := length.Length(0)
	for _, side := range g.Swing.Sides() {
		if side == job.SwingOut {
			most = m.standsOff(g)
		}
	}
	return most
}

// standsOff is how far a swing gate's leaves stand off the line at most.
func (m *maker) standsOff(g job.Gate) length.Length {
	most := length.Length(0)
	for _, l := range gate.Leaves(m.run, g, 0) {
		_, off := l.At(min(90, l.Open), l.Reach())
		most = max(most, off)
	}
	return most
}

// runBack is where a sliding leaf runs to.
func (w *gateMaker) runBack() {
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
		r.To, r.Room = r.From+past, m.out.Length-r.From
	}
	// The leaf hangs level: what the ground rises along its way is lost.
	r.Gap = length.Length(1e9)
	m.profile.Each(max(0, r.From), min(m.out.Length, r.To), func(at, height length.Length) {
		if gap := w.out.Bottom - height; gap < r.Gap {
			r.Gap, r.At = gap, at
		}
	})
	w.out.RunBack = &r
}
