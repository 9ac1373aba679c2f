package scene

import "mallow/core/plan"

// Letters is how high a letter is in a drawing at full size, millimetres of
// the real thing.
const Letters = 200

// FullSize draws a view in millimetres, for drawing programs: its frame is as
// large as what is drawn, a pixel as large as makes its letters legible.
func FullSize(p plan.Plan, v View, t Type) (Drawing, error) {
	const pixel = Letters / Normal
	v.Frame = Frame{Width: 1000, Height: 1000}
	s, err := sceneOf(p, v)
	if err != nil {
		return Drawing{}, err
	}
	const around = 120 // pixels, for words
	axes := func(s *Scene) Frame {
		b := s.bounds()
		return Frame{
			Width: (b.High.X-b.Low.X)/pixel + 2*around, Height: (b.High.Y-b.Low.Y)/pixel + 2*around,
			X: &Axis{around - b.Low.X/pixel, 1 / pixel}, Y: &Axis{around + b.High.Y/pixel, 1 / pixel}, Top: around,
		}
	}
	f := axes(&s)
	if v.Of == OfMap { // what is drawn there depends on how large a pixel is
		v.Frame = Frame{Width: min(f.Width, mostWide), Height: min(f.Height, mostWide), X: f.X, Y: f.Y}
		if s, err = sceneOf(p, v); err != nil {
			return Drawing{}, err
		}
	}
	return Arrange(s, f, p.Units, t), nil
}

// Empty tells whether there is nothing to see in a drawing.
func (d *Drawing) Empty() bool {
	for _, l := range d.Layers {
		switch l.Class {
		case Ground, Soil, GroundLine, Frost, FrostLine:
		default:
			return false
		}
	}
	return true
}

// Real is a place of the frame in millimetres.
func (d *Drawing) Real(x, y float64) Point {
	return Point{(x - d.X.Zero) / d.X.Scale, (d.Y.Zero - y) / d.Y.Scale}
}
