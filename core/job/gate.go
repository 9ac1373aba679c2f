package job

import (
	"math"

	"mallow/core/length"
)

// Gate is an opening that is exact: the fence's bays give way to it. It is
// sized by its leaves, by the clear way through it, or by the measure between
// its posts; the other two follow from its hardware.
type Gate struct {
	ID      string         `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Name    string         `json:"name,omitempty" jsonschema:"maxLength=120"`
	At      length.Length  `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station of the middle between the two gate posts."`
	Opening length.Length  `json:"opening" jsonschema:"required,minimum=300,maximum=12000" jsonschema_description:"Inside measure, between the faces of the two gate posts. It counts where neither leaf nor clear is given."`
	Leaf    *length.Length `json:"leaf,omitempty" jsonschema:"minimum=150,maximum=11000" jsonschema_description:"Width of the leaf, or of the one on the first post: the inside measure follows from it."`
	Second  *length.Length `json:"second,omitempty" jsonschema:"minimum=150,maximum=11000" jsonschema_description:"Two unequal leaves: width of the one on the second post. With leaf left out, the first takes the rest."`
	Clear   *length.Length `json:"clear,omitempty" jsonschema:"minimum=200,maximum=11000" jsonschema_description:"Clear way past the open leaves: the inside measure follows from it. Not together with leaf."`

	Kind    GateKind      `json:"kind,omitempty" jsonschema:"enum=swing,enum=slide" jsonschema_description:"Usual: swing."`
	Use     GateUse       `json:"use,omitempty" jsonschema:"enum=walk,enum=vehicle" jsonschema_description:"Who goes through. Left out: vehicles from 8 ft or 2.4 m of inside measure."`
	Leaves  int           `json:"leaves,omitempty" jsonschema:"minimum=0,maximum=2" jsonschema_description:"Leaves: 1 or 2. Usual: 1, or 2 over 10 ft or 3 m of opening."`
	Hinge   End           `json:"hinge,omitempty" jsonschema:"enum=first,enum=second" jsonschema_description:"Post that a single leaf hangs on. Usual: first."`
	Swing   Swing         `json:"swing,omitempty" jsonschema:"enum=in,enum=out,enum=both" jsonschema_description:"Way that it swings: in to the ground that the line fences in, out, or both. A sliding leaf runs on that side of the fence. Usual: in."`
	Open    float64       `json:"open,omitempty" jsonschema:"minimum=30,maximum=180" jsonschema_description:"How far a leaf opens before its stop, degrees from closed. Usual: 90."`
	Slides  End           `json:"slides,omitempty" jsonschema:"enum=first,enum=second" jsonschema_description:"Slide: the post past which the leaf runs back. Usual: second."`
	Overlap length.Length `json:"overlap" jsonschema:"minimum=0,maximum=6000" jsonschema_description:"Slide: by how much the leaf is longer than the opening. Usual: 12 in or 300 mm."`

	Hardware Hardware      `json:"hardware" jsonschema_description:"Hinges and latch. Left out: bolts with hooks through the post."`
	Make     string        `json:"make,omitempty" jsonschema:"maxLength=40" jsonschema_description:"How the leaf is made, by its name in the catalogue; its weight and its brace follow from it."`
	Thick    length.Length `json:"thick,omitempty" jsonschema:"minimum=5,maximum=300" jsonschema_description:"Thickness of a leaf. Usual: 2 in or 50 mm."`
	Weight   *length.Mass  `json:"weight,omitempty" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"Mass of the leaf, or of the wider one, kilograms. Left out: estimated from how it is made and its size."`
	HingeIn  length.Length `json:"hingeIn,omitempty" jsonschema:"minimum=10,maximum=1500" jsonschema_description:"Hinges from the leaf's top and bottom. Usual: 8 in or 200 mm."`
	Latch    length.Length `json:"latch,omitempty" jsonschema:"minimum=100,maximum=3000" jsonschema_description:"Latch above the ground at the post that it is on. Usual: 40 in or 1000 mm."`
	Lift     length.Length `json:"lift,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Rising hinges: how much they lift the leaf until it is square open."`

	Gap     length.Length `json:"gap" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"Gap under the closed leaf, over the highest ground across the opening. Usual: 4 in or 100 mm."`
	Least   length.Length `json:"least" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Least gap that must be left under the leaf anywhere on its way. Usual: 1 in or 25 mm."`
	Snow    length.Length `json:"snow,omitempty" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"Packed snow that the leaf must still swing over."`
	Crown   length.Length `json:"crown,omitempty" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"How much higher a drive's middle is than its edges at the posts."`
	In      []GroundLevel `json:"in,omitempty" jsonschema:"maxItems=40" jsonschema_description:"Ground on the inner side, in order of distance from the line. Left out: as on the line."`
	Out     []GroundLevel `json:"out,omitempty" jsonschema:"maxItems=40" jsonschema_description:"The same on the outer side."`
	Cut     bool          `json:"cut,omitempty" jsonschema_description:"The ground in the leaf's way is cut so far that the leaf clears it."`
	RoomIn  length.Length `json:"roomIn,omitempty" jsonschema:"minimum=0,maximum=100000" jsonschema_description:"Free ground from the line in, to a wall or whatever stands there. 0: open."`
	Road    length.Length `json:"road,omitempty" jsonschema:"minimum=0,maximum=100000" jsonschema_description:"From the line out to the kerb or the edge of the road. 0: no road near."`
	Vehicle *Vehicle      `json:"vehicle,omitempty" jsonschema_description:"Longest vehicle that goes through: it must stand clear of the road while the gate is opened."`

	Pool    bool `json:"pool,omitempty" jsonschema_description:"The gate is in a barrier round water. The local code decides."`
	Animals bool `json:"animals,omitempty" jsonschema_description:"Animals are kept behind it."`

	Sag  length.Length `json:"-"` // drop at the leaf's tip, as a fact has it
	Seen []Fact        `json:"-"` // what was seen of it

	asked *Gate // as the job asks for it, where its posts stand otherwise
}

// GateKind is how a gate opens.
type GateKind string

// Kinds of gate.
const (
	SwingGate GateKind = "swing"
	SlideGate GateKind = "slide"
)

// GateUse is who goes through a gate.
type GateUse string

// Uses of a gate.
const (
	WalkGate    GateUse = "walk"
	VehicleGate GateUse = "vehicle"
)

// Swing is the way that a leaf swings.
type Swing string

// Ways to swing. In is toward the ground that the line fences in.
const (
	SwingIn   Swing = "in"
	SwingOut  Swing = "out"
	SwingBoth Swing = "both"
)

// Sides are the sides of the fence that a leaf sweeps over.
func (s Swing) Sides() []Swing {
	switch s {
	case SwingBoth:
		return []Swing{SwingIn, SwingOut}
	case SwingOut:
		return []Swing{SwingOut}
	}
	return []Swing{SwingIn}
}

// Other is the other way; both ways have none.
func (s Swing) Other() Swing {
	if s == SwingOut {
		return SwingIn
	}
	return SwingOut
}

// Hardware is what a leaf hangs on and latches to, as far as it takes room.
type Hardware struct {
	Kind    string        `json:"kind,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Its name in the catalogue; left out for the user's own."`
	Hinge   length.Length `json:"hinge" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Gap between the hinge post's face and the leaf."`
	Latch   length.Length `json:"latch" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Gap between the leaf and the latch post's face."`
	Meeting length.Length `json:"meeting" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Gap between two leaves."`
	Pin     length.Length `json:"pin" jsonschema:"minimum=0,maximum=600" jsonschema_description:"From the hinge's pin to the leaf's edge."`
	Pitch   length.Length `json:"pitch" jsonschema:"minimum=0,maximum=10" jsonschema_description:"Travel of the hinge bolt for each turn; 0: it cannot be adjusted."`
	Travel  length.Length `json:"travel" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Travel that the hinge bolt has to either side."`
}

// GroundLevel is how the ground lies beside a gate, so far off the line.
type GroundLevel struct {
	ID     string         `json:"id,omitempty" jsonschema:"minLength=1,maxLength=40" jsonschema_description:"Unlike that of any other on its side of the gate. Left out: given when the job is saved."`
	Off    length.Length  `json:"off" jsonschema:"required,minimum=1,maximum=30000" jsonschema_description:"Square off the line."`
	First  length.Length  `json:"first" jsonschema:"required,minimum=-5000,maximum=5000" jsonschema_description:"Height over the ground on the line, straight out from the first post; falling is negative."`
	Second *length.Length `json:"second,omitempty" jsonschema:"minimum=-5000,maximum=5000" jsonschema_description:"The same straight out from the second post. Left out: as at the first."`
}

// Ends are its heights straight out from the two posts.
func (l GroundLevel) Ends() (first, second length.Length) {
	if l.Second != nil {
		return l.First, *l.Second
	}
	return l.First, l.First
}

// Vehicle is what goes through a gate.
type Vehicle struct {
	Length  length.Length `json:"length" jsonschema:"required,minimum=1000,maximum=30000"`
	Trailer length.Length `json:"trailer,omitempty" jsonschema:"minimum=0,maximum=30000"`
	Width   length.Length `json:"width,omitempty" jsonschema:"minimum=0,maximum=8000" jsonschema_description:"Of the widest that goes through, a mower or a load among them. 0: not asked."`
}

// End is one of two posts.
type End string

// The two posts of a gate.
const (
	FirstPost  End = "first"
	SecondPost End = "second"
)

// Other is the other post. The empty one is the first.
func (e End) Other() End {
	if e == SecondPost {
		return FirstPost
	}
	return SecondPost
}

const (
	// twoLeaves is the opening from which a gate usually has two leaves.
	twoLeaves = 3 * length.Metre
	// vehicles is the inside measure from which a gate is for vehicles.
	vehicles = 2400 * length.Millimetre
	// square is how far a leaf opens unless it is said.
	square = 90
)

// LeafCount is how many leaves close the gate.
func (g Gate) LeafCount() int {
	switch {
	case g.Kind == SlideGate:
		return 1
	case g.Leaves > 0:
		return g.Leaves
	case g.Second != nil:
		return 2
	case g.Leaf != nil:
		return 1
	case g.Clear != nil && *g.Clear > twoLeaves, g.Clear == nil && g.Opening > twoLeaves:
		return 2
	}
	return 1
}

// OpensTo is how far its leaves open, degrees.
func (g Gate) OpensTo() float64 {
	if g.Open == 0 {
		return square
	}
	return g.Open
}

// Gaps are what hinges and latch take between the posts.
func (g Gate) Gaps() length.Length {
	switch {
	case g.Kind == SlideGate:
		return 0
	case g.LeafCount() == 2:
		return 2*g.Hardware.Hinge + g.Hardware.Meeting
	}
	return g.Hardware.Hinge + g.Hardware.Latch
}

// heel is what a leaf's hinge end takes of the way when it stands open: the
// corner of the leaf that stands out farthest.
func (g Gate) heel() length.Length {
	sin, cos := math.Sincos(g.OpensTo() * math.Pi / 180)
	return g.Hardware.Hinge - g.Hardware.Pin + g.Hardware.Pin*length.Length(cos) + g.Thick/2*length.Length(sin)
}

// tip is the part of its width that a leaf still stands in the way with.
func (g Gate) tip() length.Length {
	return length.Length(max(0, math.Cos(g.OpensTo()*math.Pi/180)))
}

// Inside is the measure between the two posts' faces.
func (g Gate) Inside() length.Length {
	switch n := length.Length(g.LeafCount()); {
	case g.Leaf != nil && g.Kind == SlideGate:
		return *g.Leaf - g.Overlap
	case g.Leaf != nil && n == 2:
		second := *g.Leaf
		if g.Second != nil {
			second = *g.Second
		}
		return *g.Leaf + second + g.Gaps()
	case g.Leaf != nil:
		return *g.Leaf + g.Gaps()
	case g.Clear != nil && g.Kind == SlideGate:
		return *g.Clear
	case g.Clear != nil:
		// clear = inside - heels - tip (inside - gaps)
		return (*g.Clear + n*max(0, g.heel()) - g.Gaps()*g.tip()) / (1 - g.tip())
	}
	return g.Opening
}

// LeafWidths are the widths of its leaves, the one on the first post first.
func (g Gate) LeafWidths() []length.Length {
	if g.Kind == SlideGate {
		return []length.Length{g.Inside() + g.Overlap}
	}
	all := g.Inside() - g.Gaps()
	switch {
	case g.LeafCount() == 1:
		return []length.Length{all}
	case g.Second != nil:
		return []length.Length{all - *g.Second, *g.Second}
	}
	return []length.Length{all / 2, all / 2}
}

// ClearWay is what is free between the posts when the leaves stand open.
func (g Gate) ClearWay() length.Length {
	if g.Kind == SlideGate {
		return g.Inside()
	}
	n := length.Length(g.LeafCount())
	return g.Inside() - n*max(0, g.heel()) - g.tip()*(g.Inside()-g.Gaps())
}

// For is who goes through.
func (g Gate) For() GateUse {
	switch {
	case g.Use != "":
		return g.Use
	case g.Inside() >= vehicles:
		return VehicleGate
	}
	return WalkGate
}

// Hung tells whether a leaf hangs on its first and its second post.
func (g Gate) Hung() (first, second bool) {
	switch {
	case g.Kind == SlideGate:
		return false, false
	case g.LeafCount() == 2:
		return true, true
	}
	return g.Hinge != SecondPost, g.Hinge == SecondPost
}

// GatePosts returns the stations of the centres of a gate's two posts.
func (r Run) GatePosts(g Gate) (first, second length.Length) {
	half := (g.Inside() + r.PostOf(GatePost).Width) / 2
	return g.At - half, g.At + half
}

// Reversed is the gate as it is when its line is walked the other way, on a
// run of that length.
func (g Gate) Reversed(run length.Length) Gate {
	g.At = run - g.At
	widths := g.LeafWidths()
	switch {
	case g.Kind == SlideGate:
		if g.Slides == "" {
			g.Slides = SecondPost
		}
		g.Slides = g.Slides.Other()
	case len(widths) == 1:
		g.Hinge = g.Hinge.Other()
	case g.Second != nil:
		first, second := widths[0], widths[1]
		if g.Second = &first; g.Leaf != nil {
			g.Leaf = &second
		}
	}
	g.In, g.Out = reversedLevels(g.In), reversedLevels(g.Out)
	return g
}

func reversedLevels(list []GroundLevel) []GroundLevel {
	out := make([]GroundLevel, len(list))
	for i, l := range list {
		first, second := l.Ends()
		if out[i] = l; l.Second != nil {
			out[i].First, out[i].Second = second, &first
		}
	}
	if len(out) == 0 {
		return nil
	}
	return out
}
