package drawing

import (
	"math"

	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/survey"
)

// Map draws the lines from above: runs with their names, posts, gates with what
// their leaves sweep over, and what is in the way.
func Map(p plan.Plan) Picture {
	var pic Picture
	for i := range p.Runs {
		mapRun(&pic, p, i, true)
	}
	for _, l := range p.Lines {
		for _, c := range l.Corners {
			pic.circle(Posts, 0.3, at(c.Place), 200)
		}
	}
	return pic
}

// StringMap draws one run from above with its alignment string, tie to tie.
func StringMap(p plan.Plan, run int) Picture {
	var pic Picture
	for i := range p.Runs {
		mapRun(&pic, p, i, i == run)
	}
	s := p.Runs[run].String
	if s == nil {
		return pic
	}
	from, to := at(s.From), at(s.To)
	pic.dashed(Strings, 0.5, from, to)
	pic.circle(Strings, 0.4, from, 150)
	pic.circle(Strings, 0.4, to, 150)
	return pic
}

func at(s survey.Place) Point { return Point{float64(s.X), float64(s.Y)} }

func (p *Picture) circle(l Layer, width float64, c Point, radius float64) {
	const sides = 24
	points := make([]Point, sides)
	for i := range points {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / sides)
		points[i] = Point{c.X + radius*cos, c.Y + radius*sin}
	}
	p.area(l, width, 0, points...)
}

func mapRun(pic *Picture, p plan.Plan, run int, posts bool) {
	r := p.Runs[run]
	if r.Length <= 0 {
		return
	}
	on := func(station length.Length) Point { return at(r.From.Towards(r.To, float64(station/r.Length))) }
	ux, uy := float64(r.To.X-r.From.X)/float64(r.Length), float64(r.To.Y-r.From.Y)/float64(r.Length)
	last := length.Length(0)
	for _, g := range r.Gates {
		pic.line(Fence, 0.6, on(last), on(g.At-g.Opening/2))
		last = g.At + g.Opening/2
		for _, l := range g.Leaves {
			for _, s := range l.Sides {
				outline := make([]Point, len(s.Outline))
				for i, q := range s.Outline {
					outline[i] = at(q)
				}
				pic.Paths = append(pic.Paths, Path{Layer: Swings, Points: outline, Closed: true, Width: 0.2, Dash: true})
			}
		}
	}
	pic.line(Fence, 0.6, on(last), on(r.Length))
	if posts {
		for i := range r.Posts {
			c, half := on(r.Posts[i].Station), 60.0
			pic.box(Posts, 0.2, 0.5, c.X-half, c.Y-half, c.X+half, c.Y+half)
		}
	}
	for _, o := range r.InTheWay {
		c := on((o.From + o.To) / 2)
		pic.dashed(InTheWay, 0.3, Point{c.X - uy*900, c.Y + ux*900}, Point{c.X + uy*900, c.Y - ux*900})
		pic.words(InTheWay, c.X+uy*1000, c.Y-ux*1000, 6.5, Start, o.Name)
	}
	mid := on(r.Length / 2)
	name := r.Name
	if name == "" {
		name = r.ID
	}
	// Beside a steep line, over a flat one.
	label := Text{Layer: Names, At: mid, Words: name + ", " + p.Units.Tape(r.Length), Size: 8, Bold: true, Anchor: Middle, Up: 2}
	if math.Abs(uy) > math.Abs(ux)*0.7 {
		label.Anchor, label.At.X, label.Up = Start, mid.X+float64(r.Length)*0.03, 0
	}
	pic.Texts = append(pic.Texts, label)
}

// Hole draws a hole in section, its layers named with their heights, and its
// depths.
func Hole(p plan.Plan, run int, card plan.Card) Picture {
	var pic Picture
	wide := 0.0
	for _, c := range card.Cuts {
		wide = max(wide, float64(c.Width))
	}
	wide = max(wide, float64(card.Post)*2)
	pic.line(Ground, 0.6, Point{-wide * 1.1, 0}, Point{wide * 1.1, 0})
	widthAt := func(depth float64) float64 {
		for i := 1; i < len(card.Cuts); i++ {
			a, b := card.Cuts[i-1], card.Cuts[i]
			if depth <= float64(b.Depth) && b.Depth > a.Depth {
				part := (depth - float64(a.Depth)) / max(1e-9, float64(b.Depth-a.Depth))
				return float64(a.Width) + max(0, part)*float64(b.Width-a.Width)
			}
		}
		return wide / 2
	}
	off := float64(card.Along)
	room, next := float64(card.Depth+card.Foot)*0.03, math.Inf(-1) // words keep clear of each other, from the bottom up
	fills := map[string]float64{"concrete": 0.18, "crown": 0.18, "rocks in slurry": 0.18, "gravel": 0.04, "soil": 0, "mound": 0}
	for _, l := range card.Layers {
		fill, ok := fills[string(l.Kind)]
		if !ok && l.Kind != "large stone" && l.Kind != "middle stone" && l.Kind != "small stone" {
			continue
		}
		from, to := float64(l.From), float64(l.To)
		if from < 0 {
			edge, post := widthAt(0)/2, float64(card.Post)/2
			pic.area(Footings, 0.25, fill, Point{-post, -from}, Point{post, -from}, Point{off + edge, 0}, Point{off - edge, 0})
		} else {
			a, b := widthAt(from+1e-6)/2, widthAt(to)/2 // a bell ends where the gravel begins
			pic.area(Footings, 0.25, fill, Point{off - a, -from}, Point{off + a, -from}, Point{off + b, -to}, Point{off - b, -to})
		}
		y := max(-(from+max(0, to))/2, next)
		next = y + room
		pic.words(Measures, off+wide*0.62, y, 6.5, Start, string(l.Kind)+" "+p.Units.Short(l.To-l.From))
	}
	half := float64(card.Post) / 2
	pic.box(Posts, 0.35, 0, -half, -float64(card.Foot), half, wide*0.5)
	for _, d := range []struct {
		words string
		depth length.Length
	}{{"dig ", card.Depth}, {"foot ", card.Foot}} {
		if d.depth <= 0 || d.words == "foot " && length.Same(card.Foot, card.Depth) {
			continue
		}
		y := -float64(d.depth)
		pic.line(Measures, 0.15, Point{-wide * 0.75, y}, Point{-wide * 0.5, y})
		pic.bold(Measures, -wide*0.78, y, 7, End, d.words+p.Units.Short(d.depth))
	}
	if f := card.Frost; f != nil {
		pic.dashed(Frost, 0.2, Point{-wide * 1.1, -float64(*f)}, Point{wide * 1.1, -float64(*f)})
		pic.words(Frost, -wide*1.1, -float64(*f), 6, Start, "frost")
	}
	return pic
}

// Stick draws the story stick: a mark for everything on a post, up and down
// from the reference mark.
func Stick(p plan.Plan, t plan.TopLine) Picture {
	var pic Picture
	low, high := 0.0, 0.0
	for _, m := range t.Stick {
		low, high = min(low, float64(m.Up), float64(m.To)), max(high, float64(m.Up), float64(m.To))
	}
	wide := (high - low) * 0.03
	pic.box(Posts, 0.35, 0, -wide, low, wide, high)
	last := math.Inf(1)
	room := (high - low) * 0.034
	for _, m := range t.Stick {
		y := float64(m.Up)
		pic.line(Measures, 0.35, Point{-wide, y}, Point{wide * 2, y})
		if m.Up != m.To {
			pic.box(Measures, 0.25, 0.15, -wide, float64(m.To), wide, y)
		}
		words := min(y, last-room) // words keep clear of each other
		last = words
		pic.words(Measures, wide*3, words, 8, Start, m.Name+" "+p.Units.Short(m.Up))
	}
	return pic
}
