// Package drawing draws a plan in lines: the fence from the side and from
// above, holes in section, gates from the front. A picture is in millimetres of
// the real thing, so that paper, screens and drawing programs each take it at
// their own scale.
package drawing

import "math"

// Point is a place in a picture, millimetres; up is positive.
type Point struct{ X, Y float64 }

// Layer says what a line is of; drawing programs switch layers on and off.
type Layer string

// Layers.
const (
	Ground   Layer = "GROUND"
	Frost    Layer = "FROST"
	Posts    Layer = "POSTS"
	Footings Layer = "FOOTINGS"
	Fence    Layer = "FENCE"
	Gates    Layer = "GATES"
	Swings   Layer = "SWINGS"
	Strings  Layer = "STRINGS"
	InTheWay Layer = "IN-THE-WAY"
	Measures Layer = "MEASURES"
	Names    Layer = "NAMES"
)

// Layers are all of them, in the order in which they are drawn.
var Layers = []Layer{Ground, Frost, Footings, Posts, Fence, Gates, Swings, Strings, InTheWay, Measures, Names}

// Path is a line, or an area when it is closed.
type Path struct {
	Layer  Layer
	Points []Point
	Closed bool
	Fill   float64 // grey from 0 for none to 1 for black
	Width  float64 // of the line on paper, millimetres; 0 for no line
	Dash   bool
}

// Anchor is where a text stands from its place.
type Anchor int

// Anchors.
const (
	Start Anchor = iota
	Middle
	End
)

// Text is words in a picture. Its size is that on paper.
type Text struct {
	Layer  Layer
	At     Point
	Words  string
	Size   float64 // points
	Bold   bool
	Anchor Anchor
	Up     float64 // millimetres on paper over its place
}

// Picture is lines and words.
type Picture struct {
	Paths []Path
	Texts []Text
}

func (p *Picture) line(l Layer, width float64, points ...Point) {
	p.Paths = append(p.Paths, Path{Layer: l, Points: points, Width: width})
}

func (p *Picture) dashed(l Layer, width float64, points ...Point) {
	p.Paths = append(p.Paths, Path{Layer: l, Points: points, Width: width, Dash: true})
}

func (p *Picture) area(l Layer, width, fill float64, points ...Point) {
	p.Paths = append(p.Paths, Path{Layer: l, Points: points, Closed: true, Fill: fill, Width: width})
}

func (p *Picture) box(l Layer, width, fill, x1, y1, x2, y2 float64) {
	p.area(l, width, fill, Point{x1, y1}, Point{x2, y1}, Point{x2, y2}, Point{x1, y2})
}

func (p *Picture) words(l Layer, x, y, size float64, a Anchor, words string) {
	p.Texts = append(p.Texts, Text{Layer: l, At: Point{x, y}, Words: words, Size: size, Anchor: a})
}

func (p *Picture) bold(l Layer, x, y, size float64, a Anchor, words string) {
	p.Texts = append(p.Texts, Text{Layer: l, At: Point{x, y}, Words: words, Size: size, Anchor: a, Bold: true})
}

// Bounds are the corners of the box that holds all lines and the places of all
// words; false for an empty picture.
func (p Picture) Bounds() (low, high Point, ok bool) {
	low, high = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	put := func(q Point) {
		low.X, low.Y = math.Min(low.X, q.X), math.Min(low.Y, q.Y)
		high.X, high.Y = math.Max(high.X, q.X), math.Max(high.Y, q.Y)
	}
	for _, path := range p.Paths {
		for _, q := range path.Points {
			put(q)
		}
	}
	for _, t := range p.Texts {
		put(t.At)
	}
	return low, high, len(p.Paths)+len(p.Texts) > 0
}
