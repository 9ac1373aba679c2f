package paper

import (
	"fmt"
	"math"

	"mallow/core/plan"
	"mallow/core/scene"
)

// look is how a class is printed: black on white.
type look struct {
	width float64 // of its lines, millimetres
	fill  float64 // grey of its areas, 0 for none to 1 for black
	dash  bool
}

// looks are the classes that are printed.
var looks = map[scene.Class]look{
	scene.FrostLine: {0.25, 0, true}, scene.Fill: {0.25, 0.06, false}, scene.Pin: {0.3, 0.3, false}, scene.Below: {0.25, 0, true},
	scene.Inside: {0.2, 0.18, false}, scene.Core: {0.2, 0.4, false}, scene.Hand: {0.15, 0, true}, scene.GroundLine: {0.6, 0, false},
	scene.Finished: {0.3, 0, true}, scene.Swept: {0.2, 0, true}, scene.Struck: {0.35, 0.1, true}, scene.RunBack: {0.2, 0, true},
	scene.Corridor: {0.1, 0.1, false}, scene.Bay: {0.25, 0, false}, scene.Far: {0.2, 0, false}, scene.Rail: {0.18, 0, false}, scene.Piece: {0.18, 0, false}, scene.Joint: {0.3, 0, false}, scene.Board: {0.2, 0, false}, scene.Infill: {0.25, 0.1, false},
	scene.Leaf: {0.35, 0, false}, scene.Strut: {0.35, 0, false}, scene.Tie: {0.2, 0, false}, scene.Post: {0.3, 0.12, false}, scene.Hole: {0.2, 0.1, false},
	scene.Line: {0.6, 0, false}, scene.Current: {0.6, 0, false}, scene.Odd: {0.35, 0, true}, scene.Stays: {0.35, 0, false}, scene.OldPost: {0.3, 0, true},
	scene.InTheWay: {0.35, 0.25, true}, scene.Service: {0.4, 0, false}, scene.Flag: {0.2, 0.4, false}, scene.Hits: {0.5, 0, false},
	scene.Straight: {0.15, 0, true}, scene.Sight: {0.3, 0, true}, scene.String: {0.5, 0, false}, scene.LowString: {0.4, 0, true}, scene.Prop: {0.4, 0, false}, scene.Stake: {0.6, 0, false},
	scene.Diagonal: {0.2, 0, true}, scene.Miss: {0.4, 0, true}, scene.Fold: {0.2, 0, true},
	scene.Hinge: {0.3, 0, false}, scene.HingeUp: {0.6, 0, false}, scene.HingeDown: {0.6, 0, false}, scene.Block: {0.25, 0.1, false}, scene.Latch: {0.2, 1, false},
	scene.Stick: {0.35, 0, false}, scene.Cut: {0.25, 0.15, false}, scene.RailHole: {0.25, 0.3, false}, scene.Reference: {0.6, 1, false},
	scene.Kerb: {0.5, 0, true}, scene.Wall: {0.5, 0, false}, scene.Wanted: {0.3, 0, true}, scene.Ring: {0.3, 0, false}, scene.Held: {0.5, 0, false},
	scene.Jamb: {0.35, 0, false}, scene.Corner: {0.3, 0, false}, scene.Tied: {0.2, 1, false}, scene.BatterBoard: {0.45, 0, false}, scene.Cross: {0.5, 0, false},
	scene.Gap: {0.4, 0, false}, scene.Broken: {0.3, 0, false}, scene.Measure: {0.35, 0, false}, scene.Was: {0.2, 0, true}, scene.Moves: {0.4, 0, false},
}

// greys are what the fill of a hole is printed as, by its material.
var greys = map[scene.Material]float64{scene.Concrete: 0.18, scene.Boulders: 0.26, scene.Stones: 0.12, scene.Gravel: 0.05}

// Sizes of the words in drawings: what is 13.5 pixels high on a screen is 7
// points on paper, and all else in proportion.
const pixel = 7 * point / scene.Normal

// Figure is a drawing, as large as it fits.
type Figure struct {
	Plan    plan.Plan
	View    scene.View
	Height  float64 // most, millimetres
	Stretch float64 // heights may be stretched so much; 0 or 1: true to scale
	Outward bool    // for the customer: the fence on its ground, and what is named
}

func (f Figure) lay(l *layout) {
	l.need(f.Height + 2)
	l.outward = f.Outward
	l.y += l.draw(f.Plan, f.View, l.left, l.y, l.room, f.Height, f.Stretch) + 1.5
	l.outward = false
}

// inward are the classes that a customer's drawing leaves out: what is under
// the ground, in the way, or only for who builds it.
var inward = map[scene.Class]bool{
	scene.FrostLine: true, scene.Frost: true, scene.Soil: true, scene.Fill: true, scene.Pin: true, scene.Below: true, scene.Inside: true, scene.Core: true, scene.Hand: true, scene.Hole: true,
	scene.InTheWay: true, scene.Service: true, scene.Flag: true, scene.Hits: true, scene.Odd: true, scene.OldPost: true, scene.Corner: true, scene.Measure: true,
}

// draw puts a drawing into a box, as large as it fits, and returns the height
// that it takes.
func (l *layout) draw(p plan.Plan, v scene.View, left, top, wide, tall, stretch float64) float64 {
	const note = 4.0 // under a stretched drawing
	v.Frame = scene.Frame{Width: wide / pixel, Height: (tall - note) / pixel, Stretch: stretch}
	d, err := scene.Of(p, v, l.letters)
	if err != nil || len(d.Layers) == 0 {
		return 0 // nothing of it is measured yet
	}
	at := func(x, y float64) [2]float64 { return [2]float64{left + x*pixel, top + y*pixel} }
	for _, layer := range d.Layers {
		k, ok := looks[layer.Class]
		if !ok || l.outward && inward[layer.Class] {
			continue // ground and faces stay white
		}
		if layer.Class == scene.Fill {
			k.fill = greys[layer.Material]
		}
		if layer.Area && k.fill == 0 && (layer.Class == scene.Post || layer.Class == scene.Infill) {
			k.fill = 0.12
		}
		for _, s := range layer.Shapes {
			line := Line{Closed: layer.Area, Fill: k.fill, Width: k.width, Dash: k.dash}
			for i := 0; i < len(s.Points); i += 2 {
				line.Points = append(line.Points, at(d.X.Zero+s.Points[i]*d.X.Scale, d.Y.Zero-s.Points[i+1]*d.Y.Scale))
			}
			l.page().Lines = append(l.page().Lines, line)
		}
	}
	for _, m := range d.Marks {
		if l.outward && inward[m.Class] {
			continue
		}
		x, y := d.X.Zero+m.At.X*d.X.Scale, d.Y.Zero-m.At.Y*d.Y.Scale
		k := looks[m.Class]
		for _, s := range scene.Sign(m) {
			line := Line{Closed: s.Closed, Fill: k.fill, Width: max(0.2, k.width)}
			for i := 0; i < len(s.Points); i += 2 {
				line.Points = append(line.Points, at(x+s.Points[i], y-s.Points[i+1]))
			}
			l.page().Lines = append(l.page().Lines, line)
		}
	}
	posts := map[string]bool{}
	if l.outward {
		for i := range p.Runs {
			for k := range p.Runs[i].Posts {
				posts[p.Runs[i].Posts[k].ID] = true
			}
		}
	}
	for i := range d.Labels {
		if l.outward && (d.Labels[i].Class != scene.Name && d.Labels[i].Class != scene.Line || posts[d.Labels[i].Of]) {
			continue
		}
		l.label(&d, &d.Labels[i], p, at)
	}
	height := d.Height * pixel
	if d.Y.Scale > d.X.Scale*1.05 {
		l.word(left, top+height+3, fmt.Sprintf("heights × %.1f", d.Y.Scale/d.X.Scale), 7, false)
		height += note
	}
	return height
}

// letters is how wide words are, set at the size of one.
func (l *layout) letters(words string, strong bool) float64 {
	return l.measure(words, 10, strong) / (10 * point)
}

// label writes a label of a drawing, with the lines that belong to it.
func (l *layout) label(d *scene.Drawing, p *scene.Placed, of plan.Plan, at func(x, y float64) [2]float64) {
	rule := func(points ...[2]float64) {
		l.page().Lines = append(l.page().Lines, Line{Points: points, Width: 0.2})
	}
	if p.To != nil {
		for _, s := range p.Rules(d) {
			rule(at(s[0], s[1]), at(s[2], s[3]))
		}
	}
	if len(p.Lead) > 0 {
		var points [][2]float64
		for i := 0; i < len(p.Lead); i += 2 {
			points = append(points, at(p.Lead[i], p.Lead[i+1]))
		}
		rule(points...)
	}
	l.page().Lines = append(l.page().Lines, Line{Points: strip(p, at), Closed: true, White: true}) // it reads over anything
	for i, line := range p.Lines {
		size := scene.Normal
		if p.Strong && i == 0 {
			size = scene.Strong
		}
		points := size * pixel / point
		words := line.Print(of.Units)
		w := l.measure(words, points, p.Strong && i == 0)
		off := map[string]float64{"middle": w / 2, "end": w}[p.Anchor]
		spot := at(p.X, p.Y+float64(i)*scene.Normal*1.22)
		l.turned(spot[0], spot[1], off, words, points, p.Strong && i == 0, p.Turn)
	}
}

// strip is the strip of paper that a label stands on.
func strip(p *scene.Placed, at func(x, y float64) [2]float64) [][2]float64 {
	const in = 1.5
	x, y, w, h := p.Box[0]+p.Box[2]/2, p.Box[1]+p.Box[3]/2, p.Box[2]/2-in, p.Box[3]/2-in
	sin, cos := math.Sincos(p.Turn * math.Pi / 180)
	out := make([][2]float64, 0, 4)
	for _, c := range [4][2]float64{{-w, -h}, {w, -h}, {w, h}, {-w, h}} {
		out = append(out, at(x+c[0]*cos-c[1]*sin, y+c[0]*sin+c[1]*cos))
	}
	return out
}
