package scene

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/setout"
	"mallow/core/survey"
)

// Sizes on the map, in pixels: there they are a matter of being seen.
const (
	crowded   = 7   // between posts, under which they are not drawn
	leastRing = 3.5 // half a hole, under which it is not drawn
	offLine   = 11  // a string from the posts' middles
	pastEnd   = 16  // a string's tie past the run's end
	labelled  = 40  // a diagonal, under which it is not drawn
	ringSides = 24
	around    = 36 // kept free round the lines
)

// way is a run from above: where it lies and which way it goes.
type way struct {
	*plan.Run
	ux, uy float64
}

func wayOf(r *plan.Run) way {
	w := way{Run: r}
	if r.Length > 0 {
		w.ux, w.uy = float64(r.To.X-r.From.X)/float64(r.Length), float64(r.To.Y-r.From.Y)/float64(r.Length)
	}
	return w
}

func (w way) on(at length.Length) (x, y float64) {
	return float64(w.From.X) + w.ux*float64(at), float64(w.From.Y) + w.uy*float64(at)
}

// beside is a place off the line, to its left.
func (w way) beside(at length.Length, off float64) (x, y float64) {
	x, y = w.on(at)
	return x - w.uy*off, y + w.ux*off
}

// turn is the line's direction, degrees leftward of the map's right.
func (w way) turn() float64 { return math.Atan2(w.uy, w.ux) * 180 / math.Pi }

// site draws the lines from above: runs, posts, gates with what their leaves
// sweep over, what is in the way, and with the strings their ties and
// diagonals.
func site(p plan.Plan, current int, v View) Scene {
	var s Scene
	box := ground(p)
	per := v.per(max((box.High.X-box.Low.X)/max(1, v.Frame.Width-180), (box.High.Y-box.Low.Y)/max(1, v.Frame.Height-120), 0.5))
	s.Box = &Box{Point{box.Low.X - around*per, box.Low.Y - around*per}, Point{box.High.X + around*per, box.High.Y + around*per}}
	for i := range p.Runs {
		w := wayOf(&p.Runs[i])
		if w.Length > 0 {
			s.fence(w, i == current && v.Stress != OnPaper && v.Stress != AsBuilt, per)
			s.named(p, w, i == current, v, per)
		}
	}
	for i := range p.Lines {
		l := &p.Lines[i]
		for k := range l.Corners {
			c := &l.Corners[k]
			x, y := float64(c.Place.X), float64(c.Place.Y)
			s.mark(Corner, c.Post, x, y, 0)
			if c.Interior != nil && c.Turn != nil {
				s.say(Label{Class: Corner, Of: c.Post, At: Point{x, y}, Put: Beside, Off: 12, Rank: 6, Keys: []string{"degrees"}, Count: hundredth(*c.Interior)})
			}
		}
		if l.Closing != nil && !l.Closing.Spread && len(l.Closing.Legs) > 0 && len(l.Corners) > 0 && float64(l.Closing.Miss) > 2*per {
			a, b := l.Corners[0].Place, l.Closing.Legs[len(l.Closing.Legs)-1].EndBefore
			s.line(Miss, l.ID, float64(a.X), float64(a.Y), float64(b.X), float64(b.Y))
		}
	}
	if v.Stress == AsBuilt {
		s.asBuilt(p)
	}
	if v.Stress == Strings {
		for i := range p.Runs {
			if r := &p.Runs[i]; r.String != nil && r.Line == p.Runs[current].Line {
				s.strung(wayOf(r), per)
			}
		}
		for i := range p.Lines {
			if p.Lines[i].ID == p.Runs[current].Line {
				for k := range p.Lines[i].Corners {
					if c := &p.Lines[i].Corners[k]; c.Square != nil && c.Before != "" && c.After != "" {
						s.diagonal(c.Square.A, c.Square.B, c.Square.Diagonal, c.Post, per)
					}
				}
			}
		}
	}
	return s
}

// ground is the box that the lines and their strings lie in.
func ground(p plan.Plan) Box {
	b := Box{Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}}
	put := func(q survey.Place) {
		b.Low.X, b.Low.Y = min(b.Low.X, float64(q.X)), min(b.Low.Y, float64(q.Y))
		b.High.X, b.High.Y = max(b.High.X, float64(q.X)), max(b.High.Y, float64(q.Y))
	}
	for i := range p.Lines {
		for k := range p.Lines[i].Corners {
			put(p.Lines[i].Corners[k].Place)
		}
	}
	for i := range p.Runs {
		if t := p.Runs[i].String; t != nil {
			put(t.From)
			put(t.To)
		}
	}
	if b.Low.X > b.High.X {
		return Box{High: Point{1000, 1000}}
	}
	return b
}

// fence draws one run.
func (s *Scene) fence(w way, current bool, per float64) {
	class := Line
	if current {
		class = Current
	}
	stretch := func(from, to length.Length) {
		if to > from {
			x1, y1 := w.on(from)
			x2, y2 := w.on(to)
			s.line(class, w.ID, x1, y1, x2, y2)
		}
	}
	last := length.Length(0)
	for i := range w.Gates {
		g := &w.Gates[i]
		stretch(last, g.At-g.Opening/2)
		last = g.At + g.Opening/2
		for _, end := range []length.Length{g.At - g.Opening/2, last} {
			x, y := w.on(end)
			s.mark(Jamb, g.ID, x, y, w.turn())
		}
		for k := range g.Leaves {
			for _, side := range g.Leaves[k].Sides {
				outline := make([]float64, 0, 2*len(side.Outline))
				for _, q := range side.Outline {
					outline = append(outline, float64(q.X), float64(q.Y))
				}
				class := Swept
				if side.Struck != nil || !side.Clears {
					class = Struck
				}
				s.area(class, "", g.ID, outline...)
			}
		}
	}
	stretch(last, w.Length)
	for i := range w.InTheWay {
		o := &w.InTheWay[i]
		if float64(o.To-o.From) > 3*per {
			x1, y1 := w.on(o.From)
			x2, y2 := w.on(o.To)
			s.put(Layer{Class: InTheWay, Hue: o.Colour}, o.ID, []float64{x1, y1, x2, y2})
			continue
		}
		x, y := w.on((o.From + o.To) / 2)
		s.Marks = append(s.Marks, Mark{Class: Service, Hue: o.Colour, Of: o.ID, At: Point{x, y}, Turn: round(w.turn())})
	}
	for i := range w.Bays {
		if b := &w.Bays[i]; (b.Odd || b.PieceCut) && b.Gate == "" && float64(b.CentreToCentre) > per {
			x1, y1 := w.on(w.Posts[i].Station)
			x2, y2 := w.on(w.Posts[i+1].Station)
			s.line(Odd, b.ID, x1, y1, x2, y2)
		}
	}
	if c := w.Curb; c != nil && c.Width.Metres()*1000 > per {
		for _, k := range c.Parts {
			x1, y1 := w.on(k.Begin)
			x2, y2 := w.on(k.Stop)
			sin, cos := math.Sincos(math.Atan2(y2-y1, x2-x1))
			l, r := float64(c.Off+c.Width/2), float64(c.Off-c.Width/2)
			s.area(Infill, Concrete, "", x1-l*sin, y1+l*cos, x2-l*sin, y2+l*cos, x2-r*sin, y2+r*cos, x1-r*sin, y1+r*cos)
		}
	}
	if float64(w.Length) < crowded*per*float64(len(w.Posts)) {
		return
	}
	for i := range w.Posts {
		p := &w.Posts[i]
		x, y := w.on(p.Station)
		if half := float64(p.HoleWidth) / 2; half > leastRing*per {
			ring := make([]float64, 0, 2*ringSides)
			for k := range ringSides {
				sin, cos := math.Sincos(2 * math.Pi * float64(k) / ringSides)
				ring = append(ring, x+half*cos, y+half*sin)
			}
			s.area(Hole, Concrete, p.ID, ring...)
		}
		class := Post
		if len(p.InWay) > 0 {
			class = Hits
		}
		s.mark(class, p.ID, x, y, w.turn())
	}
}

// named names a run along it, on its outer side.
func (s *Scene) named(p plan.Plan, w way, current bool, v View, per float64) {
	name := w.Name
	if name == "" {
		name = w.ID
	}
	clear, out := 17.0, outward(p, w.Line)
	if v.Stress == Strings {
		clear = 34
	}
	x, y := w.on(w.Length / 2)
	l := Label{Class: Name, Of: w.ID, At: Point{x, y}, Put: Along, Off: clear * out, Turn: w.turn(), Rank: 2, Words: name, Size: size(w.Length), Long: true, Room: float64(w.Length) + 30*per}
	if current || v.Stress == OnPaper {
		l.Rank, l.Strong = 1, true
	}
	s.say(l)
	for i := range w.InTheWay {
		o := &w.InTheWay[i]
		if v.Stress == OnPaper {
			x, y := w.beside((o.From+o.To)/2, -out*14*per)
			s.say(Label{Class: InTheWay, Of: o.ID, At: Point{x, y}, Put: Beside, Off: 4, Rank: 5, Must: true, Words: o.Name})
		}
	}
}

// outward is which hand of a line lies outward: 1 the left.
func outward(p plan.Plan, line string) float64 {
	for i := range p.Lines {
		if p.Lines[i].ID != line {
			continue
		}
		area, c := 0.0, p.Lines[i].Corners // twice, signed
		for k := range c {
			a, b := c[k].Place, c[(k+1)%len(c)].Place
			area += float64(a.X)*float64(b.Y) - float64(b.X)*float64(a.Y)
		}
		if area > 0 {
			return -1
		}
	}
	return 1
}

// strung draws a run's string from above, tie to tie. It lies so near the
// posts that its offset is drawn wider than it is; the measure that is said is
// the true one.
func (s *Scene) strung(w way, per float64) {
	t := w.String
	hand := -1.0
	if t.Face == job.Left {
		hand = 1
	}
	off := hand * max(float64(t.ToCentre), offLine*per)
	if t.Position == job.BySight {
		off = 0
	}
	past := length.Length(max(float64(t.Beyond), pastEnd*per))
	x1, y1 := w.beside(-past, off)
	x2, y2 := w.beside(w.Length+past, off)
	if t.Position == job.BySight {
		s.line(Sight, w.ID, x1, y1, x2, y2)
		return
	}
	s.line(String, w.ID, x1, y1, x2, y2)
	tie := Tied
	if t.Ends == job.Boards {
		tie = BatterBoard
	}
	s.mark(tie, w.ID, x1, y1, w.turn()+180)
	s.mark(tie, w.ID, x2, y2, w.turn())
	s.hold(w, t, x1+(x2-x1)*0.76, y1+(y2-y1)*0.76)
}

func (s *Scene) hold(w way, t *setout.RunString, x, y float64) {
	l := Label{Class: String, Of: w.ID, At: Point{x, y}, Put: Along, Turn: w.turn(), Rank: 3, Keys: []string{"on-the-faces"}, Room: float64(w.Length)}
	if t.ToFace > 0 {
		l.Keys, l.Size = []string{"hold"}, size(t.ToFace)
	}
	s.say(l)
}

// diagonal draws what a corner is squared by.
func (s *Scene) diagonal(a, b survey.Place, long length.Length, of string, per float64) {
	x1, y1, x2, y2 := float64(a.X), float64(a.Y), float64(b.X), float64(b.Y)
	d := math.Hypot(x2-x1, y2-y1)
	if d < labelled*per {
		return
	}
	s.line(Diagonal, of, x1, y1, x2, y2)
	s.mark(Tied, of, x1, y1, 0)
	s.mark(Tied, of, x2, y2, 0)
	s.say(Label{Class: Diagonal, Of: of, At: Point{x1 + (x2-x1)*0.26, y1 + (y2-y1)*0.26}, Put: Along, Turn: math.Atan2(y2-y1, x2-x1) * 180 / math.Pi, Rank: 4, Size: size(long), Long: true})
}
