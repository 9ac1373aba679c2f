package scene

import (
	"math"

	"mallow/core/reason"
)

// Placed is a label in its place, in pixels of the frame.
type Placed struct {
	Class  Class         `json:"class" jsonschema:"required"`
	Of     string        `json:"of,omitempty"`
	Lines  []reason.Text `json:"lines" jsonschema:"required" jsonschema_description:"What it says; a second line is set smaller."`
	Strong bool          `json:"strong,omitempty"`
	At     Point         `json:"at" jsonschema:"required" jsonschema_description:"What it stands by, millimetres: it goes along when the drawing is moved."`
	To     *Point        `json:"to,omitempty" jsonschema_description:"The other end of what it measures."`
	Rule   *float64      `json:"rule,omitempty" jsonschema_description:"Where the line of the measure lies, pixels: down the frame, or across it for an upright one; left out: on the drawing."`
	Fixed  string        `json:"fixed,omitempty" jsonschema:"enum=x,enum=y" jsonschema_description:"Which way it does not go along."`
	X      float64       `json:"x" jsonschema:"required" jsonschema_description:"Of its anchor."`
	Y      float64       `json:"y" jsonschema:"required" jsonschema_description:"Of the first line's foot."`
	Anchor string        `json:"anchor" jsonschema:"required,enum=start,enum=middle,enum=end"`
	Turn   float64       `json:"turn,omitempty" jsonschema_description:"Degrees rightward, about its anchor."`
	Lead   []float64     `json:"lead,omitempty" jsonschema_description:"Line to its place, x and y by turns."`
	Box    [4]float64    `json:"-"` // left, top, width, height, before it is turned about its middle
}

// Rules are the line of what a label measures, with its two ends: each from
// one place of the frame to another, pixels.
func (p *Placed) Rules(d *Drawing) [][4]float64 {
	if p.To == nil {
		return nil
	}
	x1, y1 := d.X.Zero+p.At.X*d.X.Scale, d.Y.Zero-p.At.Y*d.Y.Scale
	x2, y2 := d.X.Zero+p.To.X*d.X.Scale, d.Y.Zero-p.To.Y*d.Y.Scale
	const end = 5
	if p.At.X == p.To.X {
		x := x1
		if p.Rule != nil {
			x = *p.Rule
		}
		return [][4]float64{{x, y1, x, y2}, {x - end, y1, x + end, y1}, {x - end, y2, x + end, y2}}
	}
	y := y1
	switch {
	case p.Rule != nil:
		y = *p.Rule
	case p.Y > y1: // under what it measures
		y = y1 + end + 3
	}
	return [][4]float64{{x1, y, x2, y}, {x1, y - end, x1, y + end}, {x2, y - end, x2, y + end}}
}

// Short rounds the drawing's places to what is seen of them: more would only
// make it longer to send.
func (d *Drawing) Short() {
	step := 10.0 // of a millimetre
	switch scale := max(d.X.Scale, d.Y.Scale); {
	case scale > 0.5:
		step = 100
	case scale < 0.05: // a millimetre is a twentieth of a pixel
		step = 1
	}
	short := func(v *float64) {
		if *v = math.Round(*v*step) / step; *v == 0 {
			*v = 0 // never -0
		}
	}
	for i := range d.Layers {
		for k := range d.Layers[i].Shapes {
			for n := range d.Layers[i].Shapes[k].Points {
				short(&d.Layers[i].Shapes[k].Points[n])
			}
		}
	}
	for i := range d.Marks {
		short(&d.Marks[i].At.X)
		short(&d.Marks[i].At.Y)
	}
	for i := range d.Labels {
		l := &d.Labels[i]
		short(&l.At.X)
		short(&l.At.Y)
		if l.To != nil {
			to := *l.To
			short(&to.X)
			short(&to.Y)
			l.To = &to
		}
	}
}
