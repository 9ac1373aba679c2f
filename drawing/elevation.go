package drawing

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/survey"
)

// Elevation draws a run from the side, between two stations: the ground in
// section, holes and frost below it, posts, bays and gates above it, with a
// mark for every post.
func Elevation(p plan.Plan, run int, from, to length.Length) Picture {
	var pic Picture
	r := p.Runs[run]
	if len(r.Posts) == 0 {
		return pic
	}
	within := func(at length.Length) bool { return at >= from-1 && at <= to+1 }
	height := heights(r)
	low := float64(height(from))
	// The ground, a little beyond the posts at either end.
	margin := length.Length(600)
	line := []Point{{float64(from - margin), float64(height(from))}}
	for _, g := range r.Ground {
		if g.At > from && g.At < to {
			line = append(line, Point{float64(g.At), float64(g.Height)})
			low = min(low, float64(g.Height))
		}
	}
	line = append(line, Point{float64(to), float64(height(to))}, Point{float64(to + margin), float64(height(to))})
	line[0].Y = float64(height(from))
	line = append(line[:1], append([]Point{{float64(from), float64(height(from))}}, line[1:]...)...)
	for i := range r.Posts {
		if q := &r.Posts[i]; within(q.Station) {
			hole(&pic, r, q)
		}
	}
	if r.Frost != nil {
		// Frost goes down from the ground as it will be.
		var under []Point
		if len(r.Finished) > 0 {
			for _, g := range r.Finished {
				if within(g.At) {
					under = append(under, Point{float64(g.At), float64(g.Height - *r.Frost)})
				}
			}
		} else {
			for _, q := range line {
				under = append(under, Point{q.X, q.Y - float64(*r.Frost)})
			}
		}
		pic.dashed(Frost, 0.25, under...)
		// Between the first two posts of the stretch, clear of their holes.
		for i := 1; i < len(r.Posts); i++ {
			if a, b := r.Posts[i-1].Station, r.Posts[i].Station; within(a) && within(b) {
				mid := (a + b) / 2
				pic.Texts = append(pic.Texts, Text{Layer: Frost, At: Point{float64(mid), float64(height(mid) - *r.Frost)}, Words: "frost " + p.Units.Short(*r.Frost), Size: 6.5, Anchor: Middle, Up: 0.7})
				break
			}
		}
	}
	for i := range r.Bays {
		if from, to := r.Posts[i].Station, r.Posts[i+1].Station; within(from) && within(to) {
			bay(&pic, p, r, i)
		}
	}
	for i := range r.Posts {
		if q := &r.Posts[i]; within(q.Station) {
			half := float64(q.Width) / 2
			pic.box(Posts, 0.3, 0.12, float64(q.Station)-half, float64(q.Ground), float64(q.Station)+half, float64(q.Top))
			pic.Texts = append(pic.Texts, Text{Layer: Names, At: Point{float64(q.Station), float64(q.Top)}, Words: q.Label, Size: 7.5, Bold: true, Anchor: Middle, Up: 1.2})
		}
	}
	pic.line(Ground, 0.6, line...)
	if len(r.Finished) > 0 {
		var after []Point
		for _, g := range r.Finished {
			if within(g.At) {
				after = append(after, Point{float64(g.At), float64(g.Height)})
			}
		}
		pic.dashed(Ground, 0.3, after...)
	}
	for _, o := range r.InTheWay {
		if at := (o.From + o.To) / 2; within(at) {
			x, y := float64(at), float64(height(at))
			pic.dashed(InTheWay, 0.35, Point{x, y + 250}, Point{x, y - 1200})
			pic.words(InTheWay, x, y-1250, 6.5, Middle, o.Name)
		}
	}
	return pic
}

// hole draws a post's hole, its layers and the post in it.
func hole(pic *Picture, r plan.Run, p *plan.Post) {
	if p.Card < 0 {
		return
	}
	c := r.Cards[p.Card]
	x, ground := float64(p.Station+c.Along), float64(p.Ground)
	if p.HoleDepth > 0 {
		var left, right []Point
		for _, cut := range c.Cuts {
			left = append(left, Point{x - float64(cut.Width)/2, ground - float64(cut.Depth)})
			right = append([]Point{{x + float64(cut.Width)/2, ground - float64(cut.Depth)}}, right...)
		}
		pic.area(Footings, 0.3, 0.06, append(left, right...)...)
		if c.Gravel > 0 {
			half := float64(c.Cuts[len(c.Cuts)-1].Width) / 2
			pic.line(Footings, 0.2, Point{x - half, ground - float64(c.Bottom)}, Point{x + half, ground - float64(c.Bottom)})
		}
	}
	half := float64(p.Width) / 2
	at := float64(p.Station)
	pic.dashed(Posts, 0.25, Point{at - half, ground}, Point{at - half, ground - float64(p.Foot)}, Point{at + half, ground - float64(p.Foot)}, Point{at + half, ground})
}

// bay draws the fence or the leaves between two posts.
func bay(pic *Picture, p plan.Plan, r plan.Run, i int) {
	b := r.Bays[i]
	x1, x2 := float64(r.Posts[i].Station), float64(r.Posts[i+1].Station)
	corners := []Point{{x1, float64(b.BottomStart)}, {x2, float64(b.BottomEnd)}, {x2, float64(b.TopEnd)}, {x1, float64(b.TopStart)}}
	if b.Gate == "" {
		pic.area(Fence, 0.25, 0, corners...)
		for k := 1; k <= b.Boards; k++ { // gravel boards at its foot
			up := float64(k) * float64(b.Board)
			pic.line(Fence, 0.2, Point{x1, float64(b.BottomStart) + up}, Point{x2, float64(b.BottomEnd) + up})
		}
		if f := b.Infill; f != nil && f.Kind == job.GravelBoards {
			for k := 1; k <= f.Boards; k++ {
				top := float64(b.BottomStart) - float64(k-1)*float64(f.Board)
				pic.box(Fence, 0.25, 0.1, x1, top-float64(f.Board), x2, top)
			}
		} else if f != nil {
			first := x1 + float64(b.CentreToCentre-f.Long)/2
			under := []Point{{x1, float64(b.BottomStart)}}
			for _, m := range f.Marks {
				under = append(under, Point{first + float64(m.At), float64(b.BottomStart - m.Under)})
			}
			pic.area(Fence, 0.25, 0.1, append(under, Point{x2, float64(b.BottomStart)})...)
		}
		if r.TopLine != nil {
			for _, rail := range r.TopLine.Rails {
				part := float64(rail) / max(1, float64(b.TopStart-b.BottomStart))
				pic.line(Fence, 0.15, mix(corners[0], corners[3], part), mix(corners[1], corners[2], part))
			}
		}
		return
	}
	for _, g := range r.Gates {
		if g.Bay == b.Label {
			leaves(pic, g, float64(b.TopStart), float64(b.TopEnd))
			pic.Texts = append(pic.Texts, Text{Layer: Names, At: Point{float64(g.At), max(float64(b.TopStart), float64(b.TopEnd))}, Words: named(g), Size: 7, Anchor: Middle, Up: 5})
		}
	}
}

func named(g plan.Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}

// leaves draws a gate's leaves as they hang closed, with their braces.
func leaves(pic *Picture, g plan.Gate, start, end float64) {
	bottom := float64(g.Bottom)
	if len(g.Leaves) == 0 {
		half := float64(g.Opening) / 2
		pic.area(Gates, 0.35, 0, Point{float64(g.At) - half, bottom}, Point{float64(g.At) + half, bottom}, Point{float64(g.At) + half, end}, Point{float64(g.At) - half, start})
	}
	for _, l := range g.Leaves {
		sign := 1.0
		if !l.Ahead {
			sign = -1
		}
		near, far := float64(l.Pin)+sign*float64(l.Heel), float64(l.Pin)+sign*float64(l.Reach)
		hinge, tip := bottom+float64(l.Height), bottom+float64(l.TipHeight)
		pic.area(Gates, 0.35, 0, Point{near, bottom}, Point{far, bottom}, Point{far, tip}, Point{near, hinge})
		if l.Brace == nil {
			continue
		}
		switch l.Brace.Kind {
		case "strut":
			pic.line(Gates, 0.35, Point{near, bottom}, Point{far, tip})
		case "tie":
			pic.line(Gates, 0.2, Point{near, hinge}, Point{far, bottom})
		}
	}
}

func mix(a, b Point, part float64) Point {
	return Point{a.X + (b.X-a.X)*part, a.Y + (b.Y-a.Y)*part}
}

// heights is the ground along a run, level beyond its ends.
func heights(r plan.Run) func(at length.Length) length.Length {
	points := make([]job.GroundPoint, len(r.Ground))
	for i, g := range r.Ground {
		points[i] = job.GroundPoint{At: g.At, Height: g.Height}
	}
	profile := survey.NewProfile(points, r.Length)
	return func(at length.Length) length.Length { return profile.Height(max(0, min(r.Length, at))) }
}

// GateFront draws a gate from the front, with its measures and the marks of
// its hinges.
func GateFront(p plan.Plan, run int, g plan.Gate) Picture {
	var pic Picture
	r := p.Runs[run]
	height := heights(r)
	reach := g.Outside * 0.7
	line := []Point{{float64(g.At - reach), float64(height(g.At - reach))}}
	for _, q := range r.Ground {
		if q.At > g.At-reach && q.At < g.At+reach {
			line = append(line, Point{float64(q.At), float64(q.Height)})
		}
	}
	line = append(line, Point{float64(g.At + reach), float64(height(g.At + reach))})
	var start, end float64
	for _, b := range r.Bays {
		if b.Label == g.Bay {
			start, end = float64(b.TopStart), float64(b.TopEnd)
		}
	}
	leaves(&pic, g, start, end)
	low := line[0].Y
	for _, q := range line {
		low = min(low, q.Y)
	}
	for i := range r.Posts {
		q := &r.Posts[i]
		if q.Label != g.First && q.Label != g.Second {
			continue
		}
		half := float64(g.Post) / 2
		pic.box(Posts, 0.4, 0.12, float64(q.Station)-half, float64(q.Ground), float64(q.Station)+half, float64(q.Top))
		role := "latch"
		if q.Hung {
			role = "hinges"
		}
		if g.Kind == job.SlideGate {
			role = "guide"
		}
		pic.Texts = append(pic.Texts, Text{Layer: Names, At: Point{float64(q.Station), float64(q.Top)}, Words: q.Label + " " + role, Size: 8, Bold: true, Anchor: Middle, Up: 1.2})
	}
	pic.line(Ground, 0.6, line...)
	for _, l := range g.Leaves {
		out, anchor := -1.0, End
		if l.End == job.SecondPost {
			out, anchor = 1, Start
		}
		for _, h := range l.Hinges {
			y := float64(g.Bottom + h.OnLeaf)
			x := float64(l.Pin) + out*float64(g.Post)*1.6
			pic.line(Measures, 0.2, Point{x, y}, Point{float64(l.Pin), y})
			pic.bold(Measures, x+out*30, y, 8, anchor, p.Units.Short(h.Above))
		}
	}
	drop := max(float64(g.Outside)*0.09, float64(g.Leaf)*0.085)
	for k, m := range []struct {
		words string
		half  float64
		value length.Length
	}{{"inside ", float64(g.Opening) / 2, g.Opening}, {"centre to centre ", float64(g.Centre) / 2, g.Centre}, {"outside ", float64(g.Outside) / 2, g.Outside}} {
		y := low - drop*(float64(k)+1)
		x1, x2 := float64(g.At)-m.half, float64(g.At)+m.half
		tick := drop * 0.2
		pic.line(Measures, 0.2, Point{x1, y}, Point{x2, y})
		pic.line(Measures, 0.2, Point{x1, y - tick}, Point{x1, y + tick})
		pic.line(Measures, 0.2, Point{x2, y - tick}, Point{x2, y + tick})
		pic.Texts = append(pic.Texts, Text{Layer: Measures, At: Point{float64(g.At), y}, Words: m.words + p.Units.Short(m.value), Size: 8, Bold: k == 0, Anchor: Middle, Up: 0.8})
	}
	return pic
}
