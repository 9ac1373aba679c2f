package scene

import (
	"sort"

	rules "mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// edges are the stations of a closed leaf's edges, the one by its hinges first.
func edges(l *leaf) (near, far float64) {
	if l.Ahead {
		return float64(l.Pin + l.Heel), float64(l.Pin + l.Reach)
	}
	return float64(l.Pin - l.Heel), float64(l.Pin - l.Reach)
}

// faces are the stations of a gate posts' faces toward the opening.
func faces(g *gate) (first, second float64) {
	return float64(g.At - g.Opening/2), float64(g.At + g.Opening/2)
}

func material(r *plan.Run) Material {
	if r.Hollow {
		return Metal
	}
	return Timber
}

// front draws a gate from the front: its posts and leaves, and either the
// measures of the opening or what is needed to hang it.
func front(r *plan.Run, g *gate, v View) Scene {
	var s Scene
	ground := profile(r.Ground, r.Length)
	height := func(at float64) float64 {
		return float64(ground.Height(max(0, min(r.Length, length.Length(at)))))
	}
	var b bay
	for i := range r.Bays {
		if r.Bays[i].Label == g.Bay {
			b = r.Bays[i]
		}
	}
	wide := float64(g.Outside)
	low, high := float64(g.Bottom), max(float64(b.TopStart), float64(b.TopEnd))
	var stands []*post
	for i := range r.Posts {
		if p := &r.Posts[i]; p.Label == g.First || p.Label == g.Second {
			stands = append(stands, p)
			low, high = min(low, float64(p.Ground)), max(high, float64(p.Top))
		}
	}
	from, to := float64(g.At)-wide*0.62, float64(g.At)+wide*0.62
	line := []float64{from, height(from)}
	for _, q := range r.Ground {
		if x := float64(q.At); x > from && x < to {
			line = append(line, x, float64(q.Height))
			low = min(low, float64(q.Height))
		}
	}
	line = append(line, to, height(to))
	deep := low - wide*0.06
	s.Box = &Box{Point{from, deep}, Point{to, high + wide*0.03}}
	s.area(Ground, Earthen, g.ID, append(append([]float64{}, line...), to, deep, from, deep)...)
	s.area(Soil, Earthen, g.ID, append(append([]float64{}, line...), to, deep, from, deep)...)
	s.line(GroundLine, g.ID, line...)
	s.crown(g, height)
	leaves(&s, g, &b, 0, g.ID, r.Hollow)
	for i, p := range stands {
		half, x := float64(g.Post)/2, float64(p.Station)
		s.box(Layer{Class: Post, Material: material(r)}, p.ID, x-half, deep, x+half, float64(p.Top))
		role := "latch"
		switch {
		case g.Kind == job.SlideGate:
			role = "guide"
		case p.Hung:
			role = "hinges"
		}
		s.say(Label{Class: Name, Of: p.ID, At: Point{x, float64(p.Top)}, Put: Over, Off: 4, Strong: true, Must: true, Rank: i, Words: p.Label, Keys: []string{role}})
	}
	s.hardware(g, v)
	if v.Hang {
		s.hanging(g)
	} else {
		s.opening(g, &b)
	}
	return s
}

// crown is the ground that the closed leaf knows of, a crown of the drive
// among it.
func (s *Scene) crown(g *gate, height func(float64) float64) {
	type place struct{ at, h float64 }
	var all []place
	for i := range g.Leaves {
		l := &g.Leaves[i]
		if len(l.Sides) == 0 || len(l.Sides[0].Ground) == 0 {
			continue
		}
		for k, out := range l.Sides[0].Outs {
			at := float64(l.Pin + out)
			if !l.Ahead {
				at = float64(l.Pin - out)
			}
			all = append(all, place{at, float64(l.Sides[0].Ground[0].Heights[k])})
		}
	}
	if len(all) == 0 {
		return
	}
	sort.Slice(all, func(i, k int) bool { return all[i].at < all[k].at })
	var over, band []float64
	for _, p := range all {
		over = append(over, p.at, p.h)
	}
	band = append(band, over...)
	for i := len(all) - 1; i >= 0; i-- {
		band = append(band, all[i].at, height(all[i].at))
	}
	s.area(Ground, Earthen, g.ID, band...)
	s.line(GroundLine, g.ID, over...)
}

// hardware draws hinges and latch, and the blocks that a leaf is hung on.
func (s *Scene) hardware(g *gate, v View) {
	for i := range g.Leaves {
		l := &g.Leaves[i]
		near, _ := edges(l)
		turn := 0.0
		if !l.Ahead {
			turn = 180
		}
		for _, h := range l.Hinges {
			y := float64(g.Bottom + h.OnLeaf)
			s.mark(Hinge, h.Name, near, y, turn)
			pin := HingeUp
			if h.Pin == "down" {
				pin = HingeDown
			}
			s.mark(pin, h.Name, float64(l.Pin), y, 0)
		}
		if !v.Hang {
			continue
		}
		half := float64(l.Width) * 0.02
		for _, b := range l.Blocks {
			x := float64(b.At)
			s.box(Layer{Class: Block, Material: Timber, Least: 8}, b.Name, x-half, float64(g.Bottom-b.Height), x+half, float64(g.Bottom))
			s.say(Label{Class: Block, Of: b.Name, At: Point{x, float64(g.Bottom - b.Height)}, Put: Under, Off: 4, Rank: 3, Keys: []string{"block"}, Size: size(b.Height)})
		}
	}
	if g.Latch == nil {
		return
	}
	at := float64(g.At)
	switch len(g.Leaves) {
	case 1:
		_, at = edges(&g.Leaves[0])
	case 2:
		_, a := edges(&g.Leaves[0])
		_, b := edges(&g.Leaves[1])
		at = (a + b) / 2
	}
	s.mark(Latch, g.ID, at, float64(g.Bottom+g.Latch.OnLeaf), 0)
}

// opening says the measures of a gate's opening.
func (s *Scene) opening(g *gate, b *bay) {
	first, second := faces(g)
	bottom := float64(g.Bottom)
	across := func(a, b, y float64, row int, key string, of length.Length, strong bool) {
		l := Label{Class: Measure, Of: g.ID, At: Point{a, y}, To: &Point{b, y}, Put: RowUnder, Row: row, Rank: 1, Strong: strong, Must: true, Keys: []string{key}, Size: size(of)}
		s.say(l)
	}
	post := float64(g.Post)
	across(first, second, bottom, 0, "inside", g.Opening, true)
	across(first-post/2, second+post/2, bottom, 1, "centre-to-centre", g.Centre, false)
	across(first-post, second+post, bottom, 2, "outside", g.Outside, false)
	high := g.Leaf
	for i := range g.Leaves {
		l := &g.Leaves[i]
		near, far := edges(l)
		y := bottom + float64(l.Height)*0.52
		s.say(Label{Class: Measure, Of: l.Post, At: Point{min(near, far), y}, To: &Point{max(near, far), y}, Put: On, Rank: 2, Keys: []string{"leaf"}, Size: size(l.Width)})
		if i == 0 {
			high = l.Height
		}
	}
	s.say(Label{Class: Measure, Of: g.ID, At: Point{first, bottom}, To: &Point{first, bottom + float64(high)}, Put: Left, Must: true, Keys: []string{"leaf-height"}, Size: size(high)})
	s.say(Label{Class: Measure, Of: g.ID, At: Point{second, float64(g.Highest)}, To: &Point{second, bottom}, Put: Right, Must: true, Keys: []string{"gap"}, Size: size(g.Bottom - g.Highest)})
	// Both diagonals run between the same two heights.
	top := float64(b.TopStart)
	s.line(Diagonal, g.ID, first, bottom, second, top)
	s.line(Diagonal, g.ID, second, bottom, first, top)
	s.say(Label{Class: Diagonal, Of: g.ID, At: Point{float64(g.At), bottom + float64(g.Leaf)*0.16}, Rank: 3, Keys: []string{"diagonals"}, Size: size(rules.Diagonal(g.Opening, b.TopStart-g.Bottom))})
}

// hanging says how high hinges and latch sit above the ground.
func (s *Scene) hanging(g *gate) {
	for i := range g.Leaves {
		l := &g.Leaves[i]
		put := Left
		if l.End == job.SecondPost {
			put = Right
		}
		for _, h := range l.Hinges {
			s.say(Label{Class: Hinge, Of: h.Name, At: Point{float64(l.Pin), float64(g.Bottom + h.OnLeaf)}, Put: put, Strong: true, Must: true, Size: size(h.Above)})
		}
	}
	if g.Latch != nil && len(g.Leaves) == 1 {
		put := Right
		if g.Leaves[0].End == job.SecondPost {
			put = Left
		}
		_, far := edges(&g.Leaves[0])
		s.say(Label{Class: Latch, Of: g.ID, At: Point{far, float64(g.Bottom + g.Latch.OnLeaf)}, Put: put, Strong: true, Must: true, Keys: []string{"latch-height"}, Size: size(g.Latch.Above)})
	}
	s.say(Label{Class: Name, Of: g.ID, At: Point{float64(g.At), float64(g.Bottom)}, Put: RowUnder, Rank: 5, Keys: []string{"above-ground"}})
}
