package scene

import (
	"math"
	"slices"
	"sort"

	"mallow/core/length"
	"mallow/core/reason"
)

// Drawing is a scene in its frame, its labels placed.
type Drawing struct {
	Width  float64          `json:"width" jsonschema:"required"`
	Height float64          `json:"height" jsonschema:"required" jsonschema_description:"What the drawing takes of the frame's."`
	X      Axis             `json:"x" jsonschema:"required"`
	Y      Axis             `json:"y" jsonschema:"required" jsonschema_description:"Heights go up from its zero, pixels down."`
	Layers []Layer          `json:"layers" jsonschema:"required"`
	Marks  []Mark           `json:"marks" jsonschema:"required"`
	Signs  map[Class]string `json:"signs" jsonschema:"required" jsonschema_description:"What its marks look like, by their class: paths in pixels about their place."`
	Labels []Placed         `json:"labels" jsonschema:"required"`
	Left   int              `json:"left,omitempty" jsonschema_description:"Labels that there was no room for."`
}

// Room that is kept in the frame.
const (
	edge     = 2  // between a label and the frame
	apart    = 2  // between two labels
	rowHigh  = 27 // a row of measures
	lead     = 26 // from the drawing to a column
	overRows = 12 // from the drawing's top to the nearest row
	tries    = 24 // lines that a label is moved away before it is given up
	margin   = 10 // at the sides, for words at the drawing's edges
	overhead = 27 // kept free where labels stand over a drawing
)

// Arrange puts a scene into a frame, as large as it fits unless the frame says
// where it lies, and places its labels: those at the sides and in rows first,
// then each where it is free, the most important first. None crosses another
// or the frame; what has no room is left out and counted.
func Arrange(s Scene, f Frame, u length.Units, t Type) Drawing {
	a := arranger{s: &s, f: f, letters: t, d: Drawing{Width: f.Width, Height: f.Height, Layers: s.Layers, Marks: s.Marks, Signs: signsOf(s.Marks), Labels: []Placed{}}}
	if a.d.Layers == nil {
		a.d.Layers = []Layer{}
	}
	if a.d.Marks == nil {
		a.d.Marks = []Mark{}
	}
	for i := range s.Labels {
		a.labels = append(a.labels, a.measured(&s.Labels[i], u))
	}
	a.fit()
	a.columns()
	for _, l := range a.labels {
		if l.Put != Left && l.Put != Right {
			a.place(l)
		}
	}
	return a.d
}

// label is a label with its lines and their size.
type label struct {
	*Label
	lines      []reason.Text
	wide, tall float64
	x, y       float64 // its place, pixels
	x2, y2     float64 // the other end of what it measures
}

type arranger struct {
	s       *Scene
	f       Frame
	letters Type
	d       Drawing
	labels  []*label
	taken   []spot

	left, right float64 // of the drawing itself, pixels
	top, bottom float64
}

func (a *arranger) measured(l *Label, u length.Units) *label {
	out := &label{Label: l, lines: l.text(u)}
	for i, line := range out.lines {
		size := Normal
		if l.Strong && i == 0 {
			size = Strong
		}
		out.wide = max(out.wide, a.letters(line.Print(u), l.Strong && i == 0)*size)
		out.tall += size * leading
	}
	return out
}

// fit works out where millimetres lie in the frame.
func (a *arranger) fit() {
	f, box := a.f, a.s.bounds()
	a.left, a.right, a.top, a.bottom = 0, f.Width, f.Top, f.Height-f.Bottom
	rows := [2]int{}
	for _, l := range a.labels {
		switch l.Put {
		case Left:
			a.left = max(a.left, l.wide+lead)
		case Right:
			a.right = min(a.right, f.Width-l.wide-lead)
		case RowOver:
			rows[0] = max(rows[0], l.Row+1)
		case RowUnder:
			rows[1] = max(rows[1], l.Row+1)
		}
	}
	if f.X != nil && f.Y != nil {
		a.d.X, a.d.Y = *f.X, *f.Y
		return
	}
	if rows[0] > 0 {
		a.top += overRows + rowHigh*float64(rows[0])
	} else if slices.ContainsFunc(a.labels, func(l *label) bool { return l.Put == Over }) {
		a.top += overhead
	}
	a.bottom -= rowHigh * float64(rows[1])
	a.left, a.right = max(a.left, margin), min(a.right, f.Width-margin)
	if a.right-a.left < 40 { // the columns are wider than the frame: they lie over the drawing
		a.left, a.right = f.Width*0.3, f.Width*0.7
	}
	w, h := max(1e-3, box.High.X-box.Low.X), max(1e-3, box.High.Y-box.Low.Y)
	wide, tall := max(1, a.right-a.left), max(1, a.bottom-a.top)
	across, up := wide/w, tall/h
	stretch := max(1, f.Stretch)
	switch {
	case stretch >= free:
	case up > across*stretch:
		up = across * stretch
	default:
		across = min(across, up)
	}
	middle := (a.left + a.right) / 2
	a.d.X = Axis{middle - across*(box.Low.X+box.High.X)/2, across}
	a.d.Y = Axis{a.top + up*box.High.Y, up}
	spare := a.bottom - (a.top + up*h)
	a.bottom -= spare
	a.d.Height -= spare
}

// free is the stretch from which on heights have a scale of their own.
const free = 1000

func (a *arranger) px(p Point) (x, y float64) {
	return a.d.X.Zero + p.X*a.d.X.Scale, a.d.Y.Zero - p.Y*a.d.Y.Scale
}

// columns places the labels at the two sides, from the top down, moved apart
// where they would lie on each other.
func (a *arranger) columns() {
	for _, side := range []Put{Left, Right} {
		var list []*label
		for _, l := range a.labels {
			if l.Put != side {
				continue
			}
			l.x, l.y = a.px(l.At)
			if l.To != nil {
				x2, y2 := a.px(*l.To)
				l.x, l.y = (l.x+x2)/2, (l.y+y2)/2
			}
			list = append(list, l)
		}
		sort.SliceStable(list, func(i, k int) bool { return list[i].y < list[k].y })
		at := make([]float64, len(list)) // middles
		least := float64(edge)
		for i, l := range list {
			at[i] = max(l.y, least+l.tall/2)
			least = at[i] + l.tall/2 + apart
		}
		most := a.d.Height - edge
		for i := len(list) - 1; i >= 0; i-- {
			at[i] = min(at[i], most-list[i].tall/2)
			most = at[i] - list[i].tall/2 - apart
		}
		for i, l := range list {
			a.column(l, side, at[i])
		}
	}
}

func (a *arranger) column(l *label, side Put, middle float64) {
	p := l.placed()
	if side == Left {
		p.X, p.Anchor = a.left-lead+2, "end"
		p.Box = [4]float64{p.X - l.wide, middle - l.tall/2, l.wide, l.tall}
	} else {
		p.X, p.Anchor = a.right+lead-2, "start"
		p.Box = [4]float64{p.X, middle - l.tall/2, l.wide, l.tall}
	}
	if p.Box[0] < edge {
		p.Box[0], p.X = edge, edge+l.wide*b2f(side == Left)
	}
	if over := p.Box[0] + l.wide - (a.f.Width - edge); over > 0 {
		p.Box[0], p.X = p.Box[0]-over, p.X-over
	}
	if !a.free(spotOf(p.Box, 0)) { // the column is full
		a.d.Left++
		return
	}
	p.foot(l)
	out := a.left - lead + 6
	knee := a.left - 2
	if side == Right {
		out, knee = a.right+lead-6, a.right+2
	}
	if l.To != nil && l.At.X == l.To.X { // an upright measure, its line beside the drawing
		at := a.left - 8
		if side == Right {
			at = a.right + 8
		}
		p.Rule = &at
	} else {
		p.Lead = []float64{round(l.x), round(l.y), round(knee), round(l.y), round(out), round(middle)}
	}
	a.put(p, 0)
}

func b2f(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

// place puts a label where it is free, as near to its place as can be.
func (a *arranger) place(l *label) {
	l.x, l.y = a.px(l.At)
	l.x2, l.y2 = l.x, l.y
	if l.To != nil {
		l.x2, l.y2 = a.px(*l.To)
	}
	if !a.inSight(l) || l.Room > 0 && l.Put != Along && l.wide+4 > l.Room*a.d.X.Scale {
		return // it is not missed: what it is of is out of sight, or too small
	}
	if l.Put == Along {
		a.alongLine(l)
		return
	}
	for _, p := range a.candidates(l) {
		if !a.free(spotOf(p.Box, 0)) {
			continue
		}
		p.foot(l)
		if far := math.Hypot(p.Box[0]+p.Box[2]/2-l.x, p.Box[1]+p.Box[3]/2-l.y); l.Must && l.Put != RowOver && l.Put != RowUnder && l.To == nil && far > 3*l.tall+l.wide/2 {
			p.Lead = []float64{round(l.x), round(l.y), round(p.Box[0] + p.Box[2]/2), round(p.Box[1] + p.Box[3]*b2f(p.Box[1] < l.y))}
		}
		a.put(p, 0)
		return
	}
	a.d.Left++
}

// inSight tells whether what a label stands by is in the frame.
func (a *arranger) inSight(l *label) bool {
	if l.Put == Leftmost || l.Put == Rightend || l.Must && a.f.X == nil {
		return true
	}
	const near = 30
	return max(l.x, l.x2) > -near && min(l.x, l.x2) < a.f.Width+near && (l.Put == RowOver || l.Put == RowUnder || max(l.y, l.y2) > -near && min(l.y, l.y2) < a.f.Height+near)
}

// candidates are the places that a label may have, the best first.
func (a *arranger) candidates(l *label) []Placed {
	var out []Placed
	add := func(left, top float64) {
		p := l.placed()
		left = max(edge, min(left, a.f.Width-edge-l.wide))
		p.Box = [4]float64{left, top, l.wide, l.tall}
		p.X, p.Anchor = left+l.wide/2, "middle"
		out = append(out, p)
	}
	x, y := (l.x+l.x2)/2, (l.y+l.y2)/2
	centred := x - l.wide/2
	step := l.tall + apart
	switch l.Put {
	case RowOver, RowUnder:
		from, to := max(min(l.x, l.x2), 0), min(max(l.x, l.x2), a.f.Width)
		if l.To == nil {
			from, to = l.x, l.x
		}
		rule := a.top - overRows - rowHigh*float64(l.Row)
		if a.f.X != nil {
			rule = a.f.Top - 8 - 19*float64(l.Row)
		}
		if l.Put == RowUnder {
			rule = a.bottom + rowHigh*float64(l.Row+1) - 6
		}
		top := rule - 4 - l.tall
		if l.To == nil {
			top = rule - l.tall
		}
		if l.Room > 0 && l.wide+4 > to-from && l.To != nil {
			return nil
		}
		add((from+to)/2-l.wide/2, top)
		for i := range out {
			if out[i].Fixed = "y"; l.To != nil {
				out[i].Rule = &rule
			}
		}
		return out
	case Leftmost, Rightend:
		left := edge + 6 + l.Off
		if l.Put == Rightend {
			left = a.f.Width - edge - 6 - l.wide
		}
		for _, top := range []float64{y - 3 - l.tall, y + 3, y + 3 + step, y - 3 - l.tall - step} {
			add(left, top)
			out[len(out)-1].Fixed = "x"
		}
		return out
	case Over:
		for k := range 4 {
			top := y - l.Off - l.tall - float64(k)*step
			add(centred, top)
			add(x-4, top)
			add(x+4-l.wide, top)
		}
	case Under:
		for k := range 4 {
			top := y + l.Off + float64(k)*step
			add(centred, top)
			add(x-4, top)
			add(x+4-l.wide, top)
		}
	case Beside:
		add(x+l.Off, y-l.tall/2)
		add(x-l.Off-l.wide, y-l.tall/2)
		add(centred, y-l.Off-l.tall)
		add(centred, y+l.Off)
	default:
		top := y - l.tall/2
		if l.To != nil {
			top = y - 3 - l.tall
		}
		for _, k := range []float64{0, -1, 1, -2, 2, -3, 3} {
			add(centred, top+k*step/2)
		}
	}
	if l.Must {
		for k := 1; k <= tries; k++ {
			for _, side := range []float64{-1, 1} {
				dy := side * float64(k) * step / 2
				for _, dx := range []float64{0, -0.6, 0.6, -1.1, 1.1} {
					add(centred+dx*l.wide, y-l.tall/2+dy)
				}
			}
		}
	}
	return out
}

// alongLine places a label turned along a line: at its place, else a little
// on either way, on the one side and on the other. A name with a length that
// is too long goes without it.
func (a *arranger) alongLine(l *label) {
	turn := math.Mod(-l.Turn, 360) // the frame's y goes down
	upright := turn
	for upright > 90 {
		upright -= 180
	}
	for upright <= -90 {
		upright += 180
	}
	room := l.Room * a.d.X.Scale
	if room > 0 && l.wide > room {
		if l.Words == "" || l.Size == nil {
			return
		}
		whole := l.lines
		l.lines = []reason.Text{reason.Say(l.Words)}
		l.wide = a.letters(l.Words, l.Strong) * map[bool]float64{true: Strong, false: Normal}[l.Strong]
		if l.wide > room {
			l.lines = whole
			return
		}
	}
	sin, cos := math.Sincos(radians(turn))
	slack := max(0, min(room-l.wide, 400)) / 2
	for _, off := range []float64{l.Off, -l.Off, l.Off * 1.7, -l.Off * 1.7} {
		for _, shift := range []float64{0, 0.5, -0.5, 1, -1} {
			if slack == 0 && shift != 0 {
				continue
			}
			x, y := l.x+cos*shift*slack+sin*off, l.y+sin*shift*slack-cos*off
			p := l.placed()
			p.Box = [4]float64{x - l.wide/2, y - l.tall/2, l.wide, l.tall}
			at := spotOf(p.Box, upright)
			if !at.within(a.f.Width, a.d.Height) || !a.free(at) {
				continue
			}
			s, c := math.Sincos(radians(upright))
			down := l.tall * (0.5 - descent) // from its middle to the letters' foot
			p.X, p.Y, p.Anchor, p.Turn = x-s*down, y+c*down, "middle", upright
			a.put(p, upright)
			return
		}
	}
	a.d.Left++
}

func (l *label) placed() Placed {
	return Placed{Class: l.Class, Of: l.Of, Lines: l.lines, Strong: l.Strong, At: l.At, To: l.To}
}

// foot is where the first line's letters stand.
func (p *Placed) foot(l *label) {
	size := Normal
	if l.Strong {
		size = Strong
	}
	p.Y = p.Box[1] + size*(leading-descent)
}

func (a *arranger) put(p Placed, turn float64) {
	a.taken = append(a.taken, spotOf(p.Box, turn))
	p.X, p.Y, p.Turn = round(p.X), round(p.Y), round(p.Turn)
	if p.Rule != nil {
		r := round(*p.Rule)
		p.Rule = &r
	}
	a.d.Labels = append(a.d.Labels, p)
}

// free tells whether a spot lies in the frame and on no other label.
func (a *arranger) free(s spot) bool {
	if !s.within(a.f.Width, a.d.Height) {
		return false
	}
	for _, o := range a.taken {
		if s.hits(o) {
			return false
		}
	}
	return true
}
