package plan

import (
	"fmt"
	"math"
	"strings"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

// HangMark is a mark on a gate post.
type HangMark struct {
	Name     string        `json:"name" jsonschema:"required"`
	Post     string        `json:"post" jsonschema:"required"`
	Above    length.Length `json:"above" jsonschema:"required" jsonschema_description:"Above the ground at the post."`
	FromMark length.Length `json:"fromMark" jsonschema:"required" jsonschema_description:"Below the post's reference mark; negative is above it."`
	OnLeaf   length.Length `json:"onLeaf" jsonschema:"required" jsonschema_description:"Above the leaf's bottom."`
	Pin      string        `json:"pin,omitempty" jsonschema:"enum=up,enum=down" jsonschema_description:"Way that a hinge's pin points."`
}

// Block is what a leaf stands on while it is hung.
type Block struct {
	Name   string        `json:"name" jsonschema:"required"`
	Height length.Length `json:"height" jsonschema:"required"`
	At     length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station."`
}

// LeafBrace is what keeps a leaf from sagging.
type LeafBrace struct {
	Kind   materials.Brace `json:"kind" jsonschema:"required,enum=strut,enum=tie,enum=unbraced"`
	Length length.Length   `json:"length" jsonschema:"required" jsonschema_description:"From corner to corner of the leaf."`
	Angle  float64         `json:"angle" jsonschema:"required" jsonschema_description:"Degrees from level."`
	Says   reason.Text     `json:"says" jsonschema:"required"`
}

// Adjusting is how a tip that has dropped is lifted again.
type Adjusting struct {
	Drop   length.Length `json:"drop" jsonschema:"required"`
	In     length.Length `json:"in" jsonschema:"required" jsonschema_description:"How far the top hinge's bolt is turned in, or the bottom hinge is packed out."`
	Turns  float64       `json:"turns" jsonschema:"required" jsonschema_description:"0 where the hinge has no thread."`
	Travel length.Length `json:"travel" jsonschema:"required" jsonschema_description:"What the bolt has."`
	Enough bool          `json:"enough" jsonschema:"required"`
	Says   reason.Text   `json:"says" jsonschema:"required"`
}

// PostLength is a post length that can be had, and how deep it would stand.
type PostLength struct {
	Post   string        `json:"post" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Foot   length.Length `json:"foot" jsonschema:"required" jsonschema_description:"How much of it stands in the ground: its length less reveal and trim."`
	Asked  length.Length `json:"asked" jsonschema:"required" jsonschema_description:"What the rules ask for."`
	Enough bool          `json:"enough" jsonschema:"required"`
	Taken  bool          `json:"taken" jsonschema:"required"`
	Edits  []job.Edit    `json:"edits" jsonschema:"required" jsonschema_description:"Set the run's gate posts as deep as this length reaches."`
}

// leastSpacing is the least distance between two hinges that is one.
const leastSpacing = 100 * length.Millimetre

// hinges marks where a leaf's hinges go on its post.
func (w *gateMaker) hinges(l *GateLeaf, post *Post) {
	l.Hinges, l.Blocks = []HangMark{}, []Block{}
	in := w.gate.HingeIn
	if l.Spacing = l.Height - 2*in; l.Spacing < leastSpacing {
		l.Spacing = 0
	} else {
		l.Pull = gate.HingeForce(l.Moment, l.Spacing)
		l.Hinges = append(l.Hinges, w.mark("Bottom hinge", post, in, "up"))
		if l.Height >= w.m.cat.Passage.Third-length.Tolerance {
			l.Hinges = append(l.Hinges, w.mark("Middle hinge", post, l.Height/2, "up"))
		}
		l.Hinges = append(l.Hinges, w.mark("Top hinge", post, l.Height-in, "down"))
	}
	ground := gate.Ground{Line: w.m.profile, From: w.posts[0].Station + w.out.Post/2, To: w.posts[1].Station - w.out.Post/2, Crown: w.gate.Crown}
	// Blocks stand a little in from the leaf's ends, where it can be held.
	leaf := gate.Leaf{Pin: l.Pin, Ahead: l.Ahead}
	for _, b := range []struct {
		name string
		out  length.Length
	}{{"Under the hinge end", l.Heel + l.Width/10}, {"Under the tip", l.Heel + 9*l.Width/10}} {
		at, _ := leaf.At(0, b.out)
		l.Blocks = append(l.Blocks, Block{b.name, w.out.Bottom - ground.Height(at, 0), at})
	}
}

// mark is a mark on a post at a height over the leaf's bottom.
func (w *gateMaker) mark(name string, post *Post, onLeaf length.Length, pin string) HangMark {
	above := w.out.Bottom + onLeaf - post.Ground
	return HangMark{Name: name, Post: post.ID, Above: above, FromMark: post.Mark - above, OnLeaf: onLeaf, Pin: pin}
}

// latch marks where the latch goes: on the other post of a single leaf, or
// between two leaves.
func (w *gateMaker) latch() {
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
	mark := w.mark("Latch", post, onLeaf, "")
	w.out.Latch = &mark
}

// brace says which way a leaf's brace runs, and why.
func (w *gateMaker) brace(l *GateLeaf) {
	made := w.m.made(w.gate)
	b := LeafBrace{Kind: made.Brace, Length: length.Length(math.Hypot(float64(l.Width), float64(l.Height))), Angle: math.Atan2(float64(l.Height), float64(l.Width)) * 180 / math.Pi}
	switch made.Brace {
	case materials.Strut:
		b.Says = reason.Say("From the bottom hinge up to the latch end's head: the leaf's weight presses a timber brace together. The other way it would hang on its nails.")
	case materials.Tie:
		b.Says = reason.Say("From the top hinge down to the latch end's foot: a wire or rod only pulls. The turnbuckle is tightened until the tip lifts.")
	default:
		b.Says = reason.Say("No brace: the welded frame is stiff in itself.")
	}
	l.Brace = &b
}

// adjust says how a dropped tip is lifted.
func (w *gateMaker) adjust(l *GateLeaf) {
	if w.gate.Sag <= 0 || l.Spacing <= 0 {
		return
	}
	hw := w.gate.Hardware
	a := Adjusting{Drop: w.gate.Sag, Travel: hw.Travel, Enough: true}
	a.In, a.Turns = gate.Adjust(w.gate.Sag, l.Width, l.Spacing, hw.Pitch)
	switch {
	case hw.Pitch <= 0:
		a.Says = reason.Say("This hinge has no thread: pack the bottom hinge out by ", a.In, ", or let the top one in by as much. First see that the post is plumb and the brace tight.")
	case a.In > hw.Travel+length.Tolerance:
		a.Enough = false
		a.Says = reason.Say("That asks for ", a.In, " of the top bolt, and it has ", hw.Travel, ". The post has leaned or the leaf has racked: plumb the post, or pull the leaf square with its brace, before the bolts are turned.")
	default:
		a.Says = reason.Say("Turn the top hinge's bolt in by ", a.In, ", ", math.Round(a.Turns*4)/4, plural(int(math.Round(a.Turns*4)/4), " turn", " turns"), ": the tip comes up ", a.Drop, ". Prop the tip while the nuts are loose.")
	}
	l.Adjust = &a
}

// lengths lists how deep each post length that can be had would stand.
func (w *gateMaker) lengths() {
	m := w.m
	for _, p := range w.posts {
		if p.Stays != "" || p.Card < 0 {
			continue
		}
		asked := p.Foot
		for _, stock := range m.run.Post.Stock {
			foot := stock - p.Needed + p.Foot
			if foot < leastFootShown {
				continue
			}
			w.out.Lengths = append(w.out.Lengths, PostLength{
				Post: p.ID, Length: stock, Foot: foot, Asked: asked, Enough: foot >= asked-length.Tolerance,
				Taken: p.Stock != nil && length.Same(*p.Stock, stock), Edits: m.kindEdits(job.GatePost, "hole/depth", foot),
			})
		}
	}
}

// leastFootShown is the shallowest foot that is worth a thought: 1 ft.
const leastFootShown = 300 * length.Millimetre

// kindEdits sets a rule for the run's posts of one kind.
func (m *maker) kindEdits(kind job.PostKind, field string, value any) []job.Edit {
	if said, ok := m.given.KindSaid(kind, m.path); ok {
		return []job.Edit{job.Set(said.Path+"/"+field, value)}
	}
	list, name, _ := strings.Cut(field, "/")
	return []job.Edit{m.set("/kinds/-", map[string]any{"kind": kind, list: map[string]any{name: value}})}
}

// hardware is the gate's set of hinges and latch, in words.
func (w *gateMaker) hardware() string {
	if h, ok := w.m.cat.HardwareOf(w.gate.Hardware.Kind); ok {
		return lower(h.Name)
	}
	return "hinges and latch of your own"
}

// order is what is ordered for the gate.
func (w *gateMaker) order() {
	add := func(parts ...any) { w.out.Order = append(w.out.Order, GateStep{reason.Say(parts...)}) }
	made := w.m.made(w.gate)
	if r := w.out.RunBack; r != nil {
		add("1 sliding leaf, ", r.Past, " × ", w.out.Leaf, ", with its track or rollers and guides, as its maker says.")
	}
	for _, l := range w.out.Leaves {
		parts := []any{"1 leaf, ", l.Width, " wide × ", l.Height, " high"}
		if (l.Height - l.TipHeight).Abs() > length.Millimetre {
			parts = append(parts, " at the hinges, ", l.TipHeight, " at the tip")
		}
		weight := fmt.Sprint(", about ", w.m.job.Units.Weight(l.Mass))
		if !l.Estimated {
			weight = ", " + w.m.job.Units.Weight(l.Mass)
		}
		parts = append(parts, ": "+lower(made.Name), weight, "; hangs on ", l.Post, ".")
		add(parts...)
	}
	if n := len(w.out.Leaves); n > 0 {
		hinges := 0
		for _, l := range w.out.Leaves {
			hinges += len(l.Hinges)
		}
		add(hinges, " hinges, ", w.hardware(), ", for a post of ", w.out.Post, ".")
		if n == 2 {
			add("1 latch for two leaves, a drop bolt for the leaf that stands, and a stop let into the ground.")
		} else {
			add("1 latch with its catch, and a stop.")
		}
		if w.gate.Lift > 0 {
			add("The hinges are rising ones, ", w.gate.Lift, " by the time the leaf is square open.")
		}
		add(n, plural(n, " hold-back", " hold-backs"), " for the open leaf, with a stake or a wall to be on.")
	}
	for i, p := range w.posts {
		if p.Stays != "" || i == 1 && p.Shared != "" {
			continue
		}
		role := "latch post"
		if p.Hung {
			role = "hinge post"
		}
		if w.gate.Kind == job.SlideGate {
			role = "guide post"
		}
		if p.Stock != nil {
			add(p.ID, ", ", role, ": ", w.out.Post, " × ", *p.Stock, ".")
		} else {
			add(p.ID, ", ", role, ": ", w.out.Post, " × at least ", p.Needed, ", longer than any stock.")
		}
		if p.Card >= 0 {
			if c := w.m.out.Cards[p.Card]; c.Core > 0 {
				add(p.ID, ": a steel core, ", c.Core, ", down to the foot.")
			} else if w.m.run.PostOf(p.Kind).Hollow && p.Hung && w.m.run.PostOf(p.Kind).Shape == job.SquarePost {
				add(p.ID, " is hollow: a steel core in it takes the hinges.")
			}
		}
	}
}
