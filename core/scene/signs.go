package scene

import (
	"math"
	"strconv"
	"strings"
)

// Stroke is one line of a sign, or an area when it is closed, in pixels about
// its place; up is positive.
type Stroke struct {
	Points []float64
	Closed bool
}

func stroke(points ...float64) Stroke { return Stroke{Points: points} }
func shape(points ...float64) Stroke  { return Stroke{Points: points, Closed: true} }

func ring(radius float64) Stroke {
	const sides = 16
	points := make([]float64, 0, 2*sides)
	for i := range sides {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / sides)
		points = append(points, radius*cos, radius*sin)
	}
	return shape(points...)
}

// signs are what marks look like. One that lies along a line has it along x.
var signs = map[Class][]Stroke{
	Joint:       {stroke(0, -6, 0, 6)},
	Post:        {shape(-2.6, -2.6, 2.6, -2.6, 2.6, 2.6, -2.6, 2.6)},
	Hits:        {shape(-3.4, -3.4, 3.4, -3.4, 3.4, 3.4, -3.4, 3.4)},
	Jamb:        {stroke(0, -6, 0, 6)},
	Service:     {stroke(0, -15, 0, 15)},
	Flag:        {shape(0, 0, 0, 9, 13, 15, 13, 26, 0, 20)},
	Corner:      {shape(-5, -5, 5, -5, 5, 5, -5, 5)},
	Tied:        {ring(3.2)},
	BatterBoard: {stroke(0, -9, 0, 9), stroke(0, 7, 5, 7), stroke(0, -7, 5, -7)},
	Ring:        {ring(5.5)},
	Held:        {stroke(-8, 15, 8, 15), stroke(0, 15, 0, -6)},
	Prop:        {stroke(-6, 0, 6, 0)},
	OldPost:     {shape(-4, 40, 4, 40, 4, -24, -4, -24)},
	Hinge:       {stroke(-14, 0, 22, 0)},
	HingeUp:     {stroke(0, 0, 0, 9)},
	HingeDown:   {stroke(0, 0, 0, -9)},
	Latch:       {shape(-7, 4, 7, 4, 7, -4, -7, -4)},
	Cross:       {stroke(-6, -6, 6, 6), stroke(6, -6, -6, 6)},
	Broken:      {stroke(-26, -4, 26, 4)},
	Reference:   {shape(0, 0, -12, 8, -12, -8)},
	Now:         {ring(4.5)},
	Moves:       {stroke(-8, 5, 0, 0, -8, -5)},
}

// Sign is what a mark looks like where it stands: its strokes in pixels about
// its place, turned as it lies.
func Sign(m Mark) []Stroke {
	known := signs[m.Class]
	if m.Turn == 0 {
		return known
	}
	sin, cos := math.Sincos(radians(m.Turn))
	out := make([]Stroke, len(known))
	for i, s := range known {
		out[i] = Stroke{Points: make([]float64, len(s.Points)), Closed: s.Closed}
		for k := 0; k < len(s.Points); k += 2 {
			x, y := s.Points[k], s.Points[k+1]
			out[i].Points[k], out[i].Points[k+1] = x*cos-y*sin, x*sin+y*cos
		}
	}
	return out
}

// signsOf are the signs of a drawing's marks, each once, as SVG paths.
func signsOf(marks []Mark) map[Class]string {
	out := map[Class]string{}
	for _, m := range marks {
		if _, ok := out[m.Class]; ok {
			continue
		}
		var b strings.Builder
		for _, s := range signs[m.Class] {
			for i := 0; i < len(s.Points); i += 2 {
				b.WriteByte("ML"[min(i, 1)])
				b.WriteString(strconv.FormatFloat(round(s.Points[i]), 'f', -1, 64))
				b.WriteByte(' ')
				b.WriteString(strconv.FormatFloat(round(-s.Points[i+1]), 'f', -1, 64))
			}
			if s.Closed {
				b.WriteByte('z')
			}
		}
		out[m.Class] = b.String()
	}
	return out
}
