package scene

import (
	"math"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/gates"
)

// standing is where a point of a leaf stands, so far from its pins: its
// station, and how far off the line to the inside.
func standing(l *leaf, angle float64, out length.Length) (at, off float64) {
	sin, cos := math.Sincos(math.Abs(angle) * math.Pi / 180)
	ahead := 1.0
	if !l.Ahead {
		ahead = -1
	}
	at, off = float64(l.Pin)+ahead*float64(out)*cos, float64(out)*sin
	if angle < 0 {
		off = -off
	}
	return at, off
}

// sweep is in how many steps swept ground is drawn.
const sweep = 24

// above draws a gate from above, with what its leaves sweep over. The inside
// of the fence is up.
func above(r *plan.Run, g *gate, v View) Scene {
	var s Scene
	reach := 600.0
	for i := range g.Leaves {
		reach = max(reach, float64(g.Leaves[i].Reach))
	}
	inward, outward, aside := reach*1.12, reach*1.12, reach*0.18
	if g.Swing == job.SwingOut {
		inward = reach * 0.3
	}
	if g.Swing == job.SwingIn {
		outward = reach * 0.34
	}
	if g.Open > 90 {
		aside = reach * 1.05
	}
	half := float64(g.Outside)/2 + aside
	from, to := float64(g.At)-half, float64(g.At)+half
	s.Box = &Box{Point{from, -outward}, Point{to, inward}}
	if v.Room != nil && *v.Room > 0 {
		y := float64(*v.Room)
		s.Box.High.Y = max(inward, min(y, inward*1.3))
		if y <= s.Box.High.Y {
			s.line(Wall, g.ID, from, y, to, y)
			s.say(Label{Class: Wall, Of: g.ID, At: Point{to, y}, Put: Rightend, Rank: 2, Keys: []string{"room"}, Size: v.Room})
		}
	}
	if v.Road != nil && *v.Road > 0 && float64(*v.Road) <= outward {
		y := -float64(*v.Road)
		s.line(Kerb, g.ID, from, y, to, y)
		s.say(Label{Class: Kerb, Of: g.ID, At: Point{to, y}, Put: Rightend, Rank: 2, Keys: []string{"kerb"}, Size: v.Road})
	}
	for i := range g.Leaves {
		l := &g.Leaves[i]
		for k := range l.Sides {
			s.swept(g, l, &l.Sides[k])
		}
	}
	first, second := faces(g)
	post := float64(g.Post)
	s.line(Line, g.ID, from, 0, first-post, 0)
	s.line(Line, g.ID, second+post, 0, to, 0)
	s.box(Layer{Class: Post, Material: material(r)}, g.First, first-post, -post/2, first, post/2)
	s.box(Layer{Class: Post, Material: material(r)}, g.Second, second, -post/2, second+post, post/2)
	s.say(Label{Class: Name, Of: g.First, At: Point{first - post/2, -post / 2}, Put: Under, Off: 4, Rank: 0, Strong: true, Must: true, Words: g.First})
	s.say(Label{Class: Name, Of: g.Second, At: Point{second + post/2, -post / 2}, Put: Under, Off: 4, Rank: 0, Strong: true, Must: true, Words: g.Second})
	if b := g.RunBack; b != nil {
		y := 60.0
		if g.Swing == job.SwingOut {
			y = -180
		}
		s.box(Layer{Class: RunBack}, g.ID, float64(b.From), y, float64(b.To), y+120)
		s.say(Label{Class: RunBack, Of: g.ID, At: Point{float64(b.From+b.To) / 2, y + 60}, Put: Over, Off: 8, Rank: 1, Keys: []string{"run-back"}, Size: size(b.Past)})
	}
	for i := range g.Leaves {
		l := &g.Leaves[i]
		x1, y1 := standing(l, v.Angle, l.Heel)
		x2, y2 := standing(l, v.Angle, l.Reach)
		s.put(Layer{Class: Current, Thick: float64(l.Thick), Least: 6}, l.Post, []float64{x1, y1, x2, y2})
		s.mark(HingeUp, l.Post, float64(l.Pin), 0, 0)
	}
	s.say(Label{Class: Name, At: Point{from, s.Box.High.Y}, Put: Leftmost, Rank: 1, Keys: []string{"the-inside"}})
	s.say(Label{Class: Name, At: Point{from, s.Box.Low.Y}, Put: Leftmost, Rank: 1, Keys: []string{"the-outside"}})
	return s
}

// swept draws the ground that a leaf sweeps over to one side.
func (s *Scene) swept(g *gate, l *leaf, side *gates.LeafSide) {
	sign := 1.0
	if side.Side == job.SwingOut {
		sign = -1
	}
	outline := []float64{float64(l.Pin), 0}
	for i := range sweep + 1 {
		at, off := standing(l, sign*g.Open*float64(i)/sweep, l.Reach)
		outline = append(outline, at, off)
	}
	bad := !side.Clears || side.Struck != nil
	class := Swept
	if bad {
		class = Struck
	}
	s.area(class, "", l.Post, outline...)
	if bad && !side.IsCut {
		at, off := standing(l, sign*side.Angle, side.Out)
		s.mark(Cross, l.Post, at, off, 0)
	}
}

// sideOf is the side that an angle swings to.
func sideOf(l *leaf, angle float64) *gates.LeafSide {
	want := job.SwingIn
	if angle < 0 {
		want = job.SwingOut
	}
	for i := range l.Sides {
		if l.Sides[i].Side == want {
			return &l.Sides[i]
		}
	}
	if len(l.Sides) > 0 {
		return &l.Sides[0]
	}
	return nil
}

// under is the ground under a leaf at an angle, between those of the plan.
func under(s *gates.LeafSide, angle float64) gates.LeafGround {
	last := len(s.Angles) - 1
	a := min(max(math.Abs(angle), 0), s.Angles[last])
	k := min(max(1, sort.SearchFloat64s(s.Angles, a)), last)
	low, high := &s.Ground[k-1], &s.Ground[k]
	t := (a - s.Angles[k-1]) / max(1e-9, s.Angles[k]-s.Angles[k-1])
	mix := func(p, q length.Length) length.Length { return p + (q-p)*length.Length(t) }
	out := gates.LeafGround{Bottom: mix(low.Bottom, high.Bottom), Gap: mix(low.Gap, high.Gap), Out: mix(low.Out, high.Out)}
	for i := range low.Heights {
		out.Heights = append(out.Heights, mix(low.Heights[i], high.Heights[i]))
	}
	return out
}

// side draws a leaf from the side, over the ground that it stands above at an
// angle. The box holds all heights of the swing, so that the picture stays
// still while the leaf moves.
func side(l *leaf, angle float64) Scene {
	var s Scene
	sd := sideOf(l, angle)
	if sd == nil || len(sd.Ground) < 2 {
		return s
	}
	low, high := math.Inf(1), math.Inf(-1)
	for i := range sd.Ground {
		g := &sd.Ground[i]
		low, high = min(low, float64(g.Bottom)), max(high, float64(g.Bottom))
		for _, h := range g.Heights {
			low, high = min(low, float64(h)), max(high, float64(h))
		}
	}
	tall := max(high-low, 100)
	deep, over := low-tall*0.2, high+tall*0.55
	s.Box = &Box{Point{0, deep}, Point{float64(l.Reach), over}}
	now := under(sd, angle)
	bottom, heel, reach := float64(now.Bottom), float64(l.Heel), float64(l.Reach)
	s.box(Layer{Class: Leaf}, l.Post, heel, bottom, reach, over)
	var surface, above []float64
	for i, h := range now.Heights {
		x := float64(sd.Outs[i])
		surface = append(surface, x, float64(h))
		above = append(above, x, max(float64(h), bottom))
	}
	end := float64(sd.Outs[len(sd.Outs)-1])
	s.area(Ground, Earthen, l.Post, append(append([]float64{}, surface...), end, deep, 0, deep)...)
	s.area(Soil, Earthen, l.Post, append(append([]float64{}, surface...), end, deep, 0, deep)...)
	s.line(GroundLine, l.Post, surface...)
	strikes := now.Gap < -0.05
	if strikes {
		s.area(Strikes, Earthen, l.Post, append(above, end, bottom, 0, bottom)...)
	}
	s.line(Current, l.Post, heel, bottom, reach, bottom)
	s.line(Jamb, l.Post, 0, deep, 0, over)
	x, y := float64(now.Out), float64(now.Bottom-now.Gap)
	s.line(Gap, l.Post, x, bottom, x, y)
	label := Label{Class: Gap, Of: l.Post, At: Point{x, max(bottom, y)}, Put: Over, Off: 6, Strong: true, Must: true, Keys: []string{"gap"}, Size: size(now.Gap)}
	if strikes {
		label.Class, label.Keys, label.Size = Strikes, []string{"strikes"}, size(-now.Gap)
	}
	s.say(label)
	s.say(Label{Class: Name, Of: l.Post, At: Point{0, over}, Put: Leftmost, Off: 10, Rank: 1, Strong: true, Must: true, Keys: []string{"open"}, Count: math.Abs(math.Round(angle))})
	return s
}

// swing draws the least gap under a leaf over its whole swing: degrees along,
// ten millimetres each, and the gap up.
func swing(g *gate, l *leaf, angle float64) Scene {
	var s Scene
	sd := sideOf(l, angle)
	if sd == nil || len(sd.Ground) < 2 {
		return s
	}
	const degree = 10
	low, high := 0.0, max(float64(sd.Wanted), 10)
	var curve []float64
	for i := range sd.Ground {
		gap := float64(sd.Ground[i].Gap)
		low, high = min(low, gap), max(high, gap)
		curve = append(curve, sd.Angles[i]*degree, gap)
	}
	end := g.Open * degree
	s.Box = &Box{Point{0, low - (high-low)*0.1}, Point{end, high + (high-low)*0.1}}
	s.line(GroundLine, l.Post, 0, 0, end, 0)
	s.line(Wanted, l.Post, 0, float64(sd.Wanted), end, float64(sd.Wanted))
	s.line(Curve, l.Post, curve...)
	now := under(sd, angle)
	at := math.Abs(angle) * degree
	s.line(Now, l.Post, at, s.Box.Low.Y, at, s.Box.High.Y)
	s.mark(Now, l.Post, at, float64(now.Gap), 0)
	s.say(Label{Class: Wanted, Of: l.Post, At: Point{end, float64(sd.Wanted)}, Put: Right, Must: true, Size: size(sd.Wanted)})
	s.say(Label{Class: Name, At: Point{0, s.Box.Low.Y}, Put: RowUnder, Rank: 1, Keys: []string{"closed"}})
	s.say(Label{Class: Name, At: Point{end, s.Box.Low.Y}, Put: RowUnder, Rank: 1, Keys: []string{"degrees"}, Count: math.Round(g.Open)})
	s.say(Label{Class: Name, At: Point{end / 2, s.Box.Low.Y}, Put: RowUnder, Rank: 2, Keys: []string{"gap-on-the-way"}})
	return s
}

// sunk is how much of its width a dropped tip is drawn down by: much too far,
// so that it is seen.
const sunk = 0.076

// dropped draws a leaf whose tip has dropped, and what the top bolt does.
func dropped(l *leaf) Scene {
	var s Scene
	w, h := float64(l.Width), float64(l.Height)
	drop := w * sunk
	lean := drop * h / w
	inset := (h - float64(l.Spacing)) / 2
	s.box(Layer{Class: Post, Material: Timber}, l.Post, -w*0.13, -drop*1.4, -w*0.05, h+w*0.05)
	s.line(Was, l.Post, 0, 0, w, 0, w, h, 0, h, 0, 0)
	s.area(Leaf, Timber, l.Post, lean, h, lean+w, h-drop, w, -drop, 0, 0)
	for _, up := range []float64{inset, h - inset} {
		s.line(Hinge, l.Post, -w*0.05, up, lean*up/h, up)
	}
	top := h - inset
	s.line(Moves, l.Post, lean+w*0.11, top, w*0.02, top)
	s.mark(Moves, l.Post, w*0.02, top, 180)
	s.say(Label{Class: Moves, Of: l.Post, At: Point{lean + w*0.11, top}, Put: Beside, Off: 6, Strong: true, Must: true, Keys: []string{"in"}, Size: size(l.Adjust.In)})
	s.line(Moves, l.Post, w+lean+w*0.05, -drop, w+lean+w*0.05, 0)
	s.mark(Moves, l.Post, w+lean+w*0.05, 0, 90)
	s.say(Label{Class: Moves, Of: l.Post, At: Point{w + lean + w*0.05, -drop / 2}, Put: Beside, Off: 6, Strong: true, Must: true, Keys: []string{"up"}, Size: size(l.Adjust.Drop)})
	return s
}
