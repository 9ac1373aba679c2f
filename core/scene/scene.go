// Package scene draws a plan: the fence from the side and from above, holes in
// section, gates from the front, from above and from the side, strings, the
// story stick, and the fence as an eye sees it along the line.
//
// A scene is lines, areas, marks and labels in millimetres of the real thing,
// up positive. It has no colours and no words: each thing in it has a class,
// the id of what it shows and a quantity. The screen, paper, SVG and DXF give
// classes their look, and all of them draw the same scene. Arrange puts a
// scene into a frame and its labels where none crosses another.
package scene

import (
	"math"
	"sort"

	"mallow/core/length"
)

// Class says what a thing in a scene is.
type Class string

// What there is in drawings. Classes lists them in the order in which they are
// drawn.
const (
	Ground      Class = "ground"
	Frost       Class = "frost"
	Soil        Class = "soil" // the ground's hatch, over the frost
	FrostLine   Class = "frost-line"
	Fill        Class = "fill" // what lies in a hole; its material tells what
	Inside      Class = "inside"
	Below       Class = "below" // a post under ground
	Core        Class = "core"
	Pin         Class = "pin"
	Hand        Class = "hand" // where digging is by hand
	GroundLine  Class = "ground-line"
	Finished    Class = "finished" // the ground as it will be
	Corridor    Class = "corridor"
	Earth       Class = "earth" // to cut or to fill
	Swept       Class = "swept"
	Struck      Class = "struck"  // swept ground that is not free
	Strikes     Class = "strikes" // ground that a leaf runs into
	RunBack     Class = "run-back"
	Bay         Class = "bay"
	Far         Class = "far" // bays that are drawn as one
	Rail        Class = "rail"
	Piece       Class = "piece" // of a part of the fence
	Joint       Class = "joint"
	Board       Class = "board" // joints of gravel boards
	Infill      Class = "infill"
	Leaf        Class = "leaf"
	Strut       Class = "strut"
	Tie         Class = "tie"
	Post        Class = "post"
	Hole        Class = "hole" // from above
	Line        Class = "line" // a run from above
	Current     Class = "current"
	Odd         Class = "odd"
	Stays       Class = "stays"
	OldPost     Class = "old-post"
	InTheWay    Class = "in-the-way"
	Service     Class = "service"
	Flag        Class = "flag" // over a service
	Hits        Class = "hits" // a hole that runs into something
	Top         Class = "top"  // the line of the tops
	Straight    Class = "straight"
	Sight       Class = "sight"
	String      Class = "string"
	LowString   Class = "low-string"
	Prop        Class = "prop"
	Stake       Class = "stake"
	Diagonal    Class = "diagonal"
	Miss        Class = "miss"
	Fold        Class = "fold"
	Hinge       Class = "hinge"
	HingeUp     Class = "pin-up"
	HingeDown   Class = "pin-down"
	Block       Class = "block"
	Latch       Class = "latch"
	Stick       Class = "stick"
	Cut         Class = "cut"
	RailHole    Class = "rail-hole"
	Reference   Class = "reference"
	Kerb        Class = "kerb"
	Wall        Class = "wall"
	Curve       Class = "curve"
	Wanted      Class = "wanted"
	Now         Class = "now"
	Ring        Class = "ring" // a grade post
	Held        Class = "held"
	Jamb        Class = "jamb"
	Corner      Class = "corner"
	Tied        Class = "tied" // where a string is tied
	BatterBoard Class = "batter-board"
	Cross       Class = "cross"
	Gap         Class = "gap"
	Was         Class = "was"   // as it should be, before it moved
	Moves       Class = "moves" // which way it is moved
	Broken      Class = "broken"
	Measure     Class = "measure"
	Name        Class = "name"
)

// order is the place of each class from the back to the front.
var order = func() map[Class]int {
	out := map[Class]int{}
	for i, c := range Classes {
		out[c] = i
	}
	return out
}()

// Classes are all of them, in the order in which they are drawn.
var Classes = []Class{
	Ground, Frost, Soil, FrostLine, Hand, Fill, Pin, Below, Inside, Core, GroundLine, Finished, Corridor, Earth,
	Wall, Kerb, Swept, Struck, RunBack, Was, Bay, Far, Rail, Joint, Board, Infill, Leaf, Strut, Tie, Line, Hole, Current, Odd, Post, Piece, Broken,
	Stays, OldPost, InTheWay, Service, Flag, Hits, Strikes, Stick, Cut, RailHole, Reference, Block, Hinge, HingeUp, HingeDown, Latch,
	Top, Straight, Sight, Prop, Stake, LowString, String, Diagonal, Miss, Fold, Curve, Wanted, Now,
	Ring, Held, Jamb, Corner, Tied, BatterBoard, Cross, Gap, Moves, Measure, Name,
}

// Material says what an area is made of: each has one pattern, the same in
// every drawing.
type Material string

// Materials.
const (
	Timber   Material = "timber"
	Metal    Material = "metal"
	Boards   Material = "boards"
	Mesh     Material = "mesh"
	Slats    Material = "slats"
	Pickets  Material = "pickets"
	Bars     Material = "bars"
	Concrete Material = "concrete"
	Gravel   Material = "gravel"
	Stones   Material = "stones"
	Boulders Material = "boulders"
	Earthen  Material = "earth"
	Open     Material = "open" // not filled yet
)

// Point is a place in a scene.
type Point struct {
	X float64 `json:"x" jsonschema:"required"`
	Y float64 `json:"y" jsonschema:"required"`
}

// Shape is one line or area: the id of what it shows, and its points, x and y
// by turns, millimetres.
type Shape struct {
	Of     string    `json:"of,omitempty"`
	Points []float64 `json:"points" jsonschema:"required" jsonschema_description:"x and y by turns, millimetres; up is positive."`
}

// Layer is shapes of one class.
type Layer struct {
	Class    Class    `json:"class" jsonschema:"required"`
	Material Material `json:"material,omitempty"`
	Hue      string   `json:"hue,omitempty" jsonschema_description:"Name of the colour of a service's marks."`
	Area     bool     `json:"area,omitempty" jsonschema_description:"Closed shapes; else lines."`
	Thick    float64  `json:"thick,omitempty" jsonschema_description:"Of its lines, millimetres of the real thing; left out where that is a matter of looks."`
	Least    float64  `json:"least,omitempty" jsonschema_description:"Least width that a shape is drawn with, pixels."`
	Shapes   []Shape  `json:"shapes" jsonschema:"required"`
}

// Mark is a sign at a place. It has a size on the sheet, none in the real thing.
type Mark struct {
	Class Class   `json:"class" jsonschema:"required"`
	Hue   string  `json:"hue,omitempty"`
	Of    string  `json:"of,omitempty"`
	At    Point   `json:"at" jsonschema:"required"`
	Turn  float64 `json:"turn,omitempty" jsonschema_description:"Degrees, leftward."`
}

// Put is where a label may stand.
type Put string

// Where labels may stand.
const (
	On       Put = ""          // over its place, or near it
	Over     Put = "over"      // its place under it
	Under    Put = "under"     //
	Beside   Put = "beside"    // to the right, or the left
	Along    Put = "along"     // turned along a line
	Left     Put = "left"      // in the column left of the drawing, with a line to its place
	Right    Put = "right"     //
	RowOver  Put = "row-over"  // in a row over the drawing
	RowUnder Put = "row-under" //
	Leftmost Put = "start"     // at the left edge of the frame
	Rightend Put = "end"       // at the right edge
)

// Label is something said at a place: a quantity, a name, or a word that the
// catalogue has for its key.
type Label struct {
	Class  Class
	Of     string
	At     Point
	To     *Point // the other end of a measure; At is its first end
	Put    Put
	Row    int     // of RowOver and RowUnder, the nearest to the drawing first
	Off    float64 // pixels that it keeps from its place, where the usual is too few
	Turn   float64 // of Along: degrees, leftward
	Room   float64 // it is left out where it is longer than this, millimetres
	Rank   int     // the lower, the sooner it gets a place
	Strong bool
	Must   bool // it is moved far, with a line to its place, rather than left out

	Keys  []string // what is said, in the catalogue under scene; several are a list
	Words string   // a name, as it stands
	Size  *length.Length
	Long  bool // the size in feet and inches
	Count float64
	Wide  *length.Volume // said on a second line
}

// Scene is a drawing of a plan.
type Scene struct {
	Layers []Layer
	Marks  []Mark
	Labels []Label
	Box    *Box // that it is drawn for; left out: what holds all of it
}

// Box is an upright box.
type Box struct{ Low, High Point }

// bounds are the corners of the box that holds all that is drawn.
func (s *Scene) bounds() Box {
	if s.Box != nil {
		return *s.Box
	}
	b := Box{Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}}
	put := func(x, y float64) {
		b.Low.X, b.Low.Y = min(b.Low.X, x), min(b.Low.Y, y)
		b.High.X, b.High.Y = max(b.High.X, x), max(b.High.Y, y)
	}
	for _, l := range s.Layers {
		for _, shape := range l.Shapes {
			for i := 0; i < len(shape.Points); i += 2 {
				put(shape.Points[i], shape.Points[i+1])
			}
		}
	}
	for _, m := range s.Marks {
		put(m.At.X, m.At.Y)
	}
	if b.Low.X > b.High.X {
		return Box{High: Point{1, 1}}
	}
	return b
}

// round keeps a tenth: of a pixel, or of a degree.
func round(v float64) float64 {
	r := math.Round(v*10) / 10
	if r == 0 {
		return 0 // never -0
	}
	return r
}

// layer finds the layer of a class, made if need be.
func (s *Scene) layer(l Layer) *Layer {
	for i := range s.Layers {
		if o := &s.Layers[i]; o.Class == l.Class && o.Material == l.Material && o.Hue == l.Hue && o.Area == l.Area && o.Thick == l.Thick && o.Least == l.Least {
			return o
		}
	}
	s.Layers = append(s.Layers, l)
	return &s.Layers[len(s.Layers)-1]
}

func (s *Scene) put(l Layer, of string, points []float64) {
	if len(points) < 4 {
		return
	}
	at := s.layer(l)
	at.Shapes = append(at.Shapes, Shape{of, points})
}

func (s *Scene) line(c Class, of string, points ...float64) { s.put(Layer{Class: c}, of, points) }

func (s *Scene) area(c Class, m Material, of string, points ...float64) {
	s.put(Layer{Class: c, Material: m, Area: true}, of, points)
}

// box puts an upright box.
func (s *Scene) box(l Layer, of string, x1, y1, x2, y2 float64) {
	l.Area = true
	s.put(l, of, []float64{x1, y1, x2, y1, x2, y2, x1, y2})
}

func (s *Scene) mark(c Class, of string, x, y, turn float64) {
	s.Marks = append(s.Marks, Mark{Class: c, Of: of, At: Point{x, y}, Turn: round(turn)})
}

func (s *Scene) say(l Label) { s.Labels = append(s.Labels, l) }

// sorted puts what is drawn into its order, from the back to the front.
func (s *Scene) sorted() {
	sort.SliceStable(s.Layers, func(i, k int) bool { return order[s.Layers[i].Class] < order[s.Layers[k].Class] })
	sort.SliceStable(s.Marks, func(i, k int) bool { return order[s.Marks[i].Class] < order[s.Marks[k].Class] })
	sort.SliceStable(s.Labels, func(i, k int) bool { return s.Labels[i].Rank < s.Labels[k].Rank })
}

func size(l length.Length) *length.Length { return &l }
