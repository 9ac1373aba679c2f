package plan

import (
	"math"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// GateLeaf is one leaf of a swing gate.
type GateLeaf struct {
	Post      string        `json:"post" jsonschema:"required" jsonschema_description:"That it hangs on."`
	End       job.End       `json:"end" jsonschema:"required,enum=first,enum=second" jsonschema_description:"Which of the gate's posts that is."`
	Width     length.Length `json:"width" jsonschema:"required"`
	Height    length.Length `json:"height" jsonschema:"required" jsonschema_description:"At its hinges."`
	TipHeight length.Length `json:"tipHeight" jsonschema:"required" jsonschema_description:"At its other edge."`
	Thick     length.Length `json:"thick" jsonschema:"required"`
	Pin       length.Length `json:"pin" jsonschema:"required" jsonschema_description:"Station of its hinges' pins."`
	Heel      length.Length `json:"heel" jsonschema:"required" jsonschema_description:"From the pins to its near edge."`
	Reach     length.Length `json:"reach" jsonschema:"required" jsonschema_description:"From the pins to its far edge."`
	Ahead     bool          `json:"ahead" jsonschema:"required" jsonschema_description:"Closed, it lies toward the run's end."`
	Lift      length.Length `json:"lift" jsonschema:"required"`

	Mass      length.Mass   `json:"mass" jsonschema:"required"`
	Estimated bool          `json:"estimated" jsonschema:"required"`
	Moment    float64       `json:"moment" jsonschema:"required" jsonschema_description:"Newton metres that it pulls its post over with."`
	Spacing   length.Length `json:"spacing" jsonschema:"required" jsonschema_description:"Between its outer hinges."`
	Pull      float64       `json:"pull" jsonschema:"required" jsonschema_description:"Newtons: what the top hinge is pulled out with and the bottom one pushed in; 0 where the hinges do not fit."`

	Hinges []HangMark `json:"hinges" jsonschema:"required" jsonschema_description:"The lowest first."`
	Blocks []Block    `json:"blocks" jsonschema:"required" jsonschema_description:"What it is propped on while it is hung: under its hinge end, then under its tip."`
	Brace  *LeafBrace `json:"brace,omitempty"`
	Adjust *Adjusting `json:"adjust,omitempty" jsonschema_description:"How a measured drop at its tip is taken out."`
	Sides  []LeafSide `json:"sides" jsonschema:"required" jsonschema_description:"The sides that it swings to."`
}

// LeafSide is a leaf's swing to one side of the fence.
type LeafSide struct {
	Side   job.Swing     `json:"side" jsonschema:"required,enum=in,enum=out"`
	Gap    length.Length `json:"gap" jsonschema:"required" jsonschema_description:"Least gap under the leaf on its way; negative where it strikes."`
	Angle  float64       `json:"angle" jsonschema:"required" jsonschema_description:"Where that is: degrees from closed."`
	Out    length.Length `json:"out" jsonschema:"required" jsonschema_description:"Where that is: from the pins."`
	Wanted length.Length `json:"wanted" jsonschema:"required" jsonschema_description:"Least gap that must be left, snow among it."`
	Clears bool          `json:"clears" jsonschema:"required" jsonschema_description:"No less than that is left anywhere on its way."`
	Short  *float64      `json:"short,omitempty" jsonschema_description:"Angle from which on less than that is left; left out where it never is."`
	Touch  *float64      `json:"touch,omitempty" jsonschema_description:"Angle at which it touches the ground."`
	Cut    length.Length `json:"cut" jsonschema:"required" jsonschema_description:"Ground to cut so that it clears, where it is deepest; 0 for none."`
	Earth  length.Volume `json:"earth" jsonschema:"required" jsonschema_description:"Volume of that."`
	IsCut  bool          `json:"isCut" jsonschema:"required" jsonschema_description:"The job says that it is cut: the other figures are with the ground cut."`
	Struck *Struck       `json:"struck,omitempty" jsonschema_description:"What stands in its way."`
	Hold   HoldBack      `json:"hold" jsonschema:"required" jsonschema_description:"Where the open leaf is held."`

	Angles  []float64       `json:"angles" jsonschema:"required" jsonschema_description:"Of the profiles."`
	Outs    []length.Length `json:"outs" jsonschema:"required" jsonschema_description:"Distances from the pins at which the ground is given."`
	Ground  []LeafGround    `json:"ground" jsonschema:"required" jsonschema_description:"Under the leaf at each of the angles."`
	Outline []survey.Place  `json:"outline" jsonschema:"required" jsonschema_description:"The swept ground on the map."`
}

// LeafGround is the ground under a leaf held at one angle.
type LeafGround struct {
	Bottom  length.Length   `json:"bottom" jsonschema:"required" jsonschema_description:"Height of the leaf's bottom above the datum."`
	Heights []length.Length `json:"heights" jsonschema:"required" jsonschema_description:"Of the ground, at the distances of the profile."`
	Gap     length.Length   `json:"gap" jsonschema:"required" jsonschema_description:"Least gap there."`
	Out     length.Length   `json:"out" jsonschema:"required" jsonschema_description:"Where that is."`
}

// Struck is what a leaf strikes.
type Struck struct {
	What  string  `json:"what" jsonschema:"required"`
	Angle float64 `json:"angle" jsonschema:"required"`
}

// HoldBack is where the open leaf's tip stands.
type HoldBack struct {
	Off   length.Length `json:"off" jsonschema:"required" jsonschema_description:"Square off the line."`
	Along length.Length `json:"along" jsonschema:"required" jsonschema_description:"From the hinge post's middle along the run, toward the gate's other post; negative is away from it."`
}

// How finely a swing is drawn.
const (
	drawnEvery = 5.0 // degrees
	drawnOuts  = 12
)

// wanted is the least gap that must be left under a leaf.
func wanted(g job.Gate) length.Length { return g.Least + g.Snow }

// leaves plans the leaves of a swing gate.
func (w *gateMaker) leaves() {
	for _, h := range w.m.hang(w.gate, w.bay) {
		post := w.post(h.Post)
		l := GateLeaf{
			Post: post.ID, End: h.Post, Width: h.Width, Thick: w.gate.Thick, Pin: h.Pin, Heel: h.Heel, Reach: h.Reach(), Ahead: h.Ahead, Lift: h.Lift,
			Height: w.bay.TopStart - w.bay.BottomStart, TipHeight: w.bay.TopEnd - w.bay.BottomEnd,
			Mass: h.mass, Estimated: h.estimated, Moment: gate.Moment(h.mass, h.Width), Sides: []LeafSide{},
		}
		if h.Post == job.SecondPost {
			l.Height, l.TipHeight = l.TipHeight, l.Height
		}
		w.hinges(&l, post)
		w.brace(&l)
		w.adjust(&l)
		for _, side := range w.gate.Swing.Sides() {
			l.Sides = append(l.Sides, w.swing(h.Leaf, side, post))
		}
		w.out.Leaves = append(w.out.Leaves, l)
	}
}

// swing looks at a leaf's way to one side.
func (w *gateMaker) swing(l gate.Leaf, side job.Swing, post *Post) LeafSide {
	m, want := w.m, wanted(w.gate)
	ground := gate.OnSide(m.profile, m.run, w.gate, side)
	c := gate.Sweep(l, ground)
	s := LeafSide{Side: side, Gap: c.Gap, Angle: c.Angle, Out: c.Out, Wanted: want, IsCut: w.gate.Cut,
		Angles: []float64{}, Outs: []length.Length{}, Ground: []LeafGround{}, Outline: []survey.Place{}}
	s.Clears = c.Gap >= want-length.Tolerance
	if !s.Clears {
		s.Cut, s.Earth = want-c.Gap, gate.Earth(l, ground, want)
		if w.gate.Cut {
			s.Gap, s.Clears = want, true
		} else {
			if a, ok := gate.Touch(l, ground, want); ok {
				s.Short = &a
			}
			if a, ok := gate.Touch(l, ground, 0); ok && c.Gap < -length.Tolerance {
				s.Touch = &a
			}
		}
	}
	w.draw(&s, l, ground)
	at, off := l.At(l.Open, l.Reach())
	s.Hold = HoldBack{Off: off, Along: at - post.Station}
	if !l.Ahead {
		s.Hold.Along = -s.Hold.Along
	}
	return s
}

// draw gives the ground under the leaf at each angle, and the swept ground on
// the map.
func (w *gateMaker) draw(s *LeafSide, l gate.Leaf, ground gate.Ground) {
	want := wanted(w.gate)
	for k := range drawnOuts + 1 {
		s.Outs = append(s.Outs, hundredth(l.Reach()*length.Length(k)/drawnOuts))
	}
	s.Outline = append(s.Outline, w.m.onMap(l.Pin, 0, s.Side))
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
		at, off := l.At(angle, l.Reach())
		s.Outline = append(s.Outline, w.m.onMap(at, off, s.Side))
	}
}

// hundredth keeps drawn heights short in a document.
func hundredth(l length.Length) length.Length {
	return length.Length(math.Round(float64(l)*100) / 100)
}

// worst is the least gap under a gate's leaves on the sides that they swing
// to, with the gate's own posts and gap.
func (m *maker) worst(g job.Gate) (least gate.Clearance) {
	least.Gap = length.Length(math.Inf(1))
	bottom := gate.Across(m.profile, m.run, g) + g.Gap
	for _, l := range gate.Leaves(m.run, g, bottom) {
		for _, side := range g.Swing.Sides() {
			if c := gate.Sweep(l, gate.OnSide(m.profile, m.run, g, side)); c.Gap < least.Gap {
				least = c
			}
		}
	}
	return least
}
