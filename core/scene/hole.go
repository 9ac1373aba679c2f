package scene

import (
	"math"
	"slices"
	"sort"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/dig"
	"mallow/core/words"
)

// widthAt is a hole's width at a depth.
func widthAt(c *dig.Card, depth float64) float64 {
	return float64(footing.Shape{Cuts: c.Cuts}.At(length.Length(depth)))
}

// justUnder is how far under its top a layer's width is taken: a bell ends
// where the gravel begins.
const justUnder = 1e-6

// section is the outline of a layer of a hole between two depths under the
// ground, about its middle.
func section(c *dig.Card, from, to, x, ground float64) []float64 {
	depths := []float64{from}
	for _, k := range c.Cuts {
		if d := float64(k.Depth); d > from && d < to {
			depths = append(depths, d)
		}
	}
	depths = append(depths, to)
	out := make([]float64, 0, 4*len(depths))
	half := func(i int) float64 {
		if i == 0 {
			return widthAt(c, depths[i]+justUnder) / 2
		}
		return widthAt(c, depths[i]) / 2
	}
	for i, d := range depths {
		out = append(out, x+half(i), ground-d)
	}
	for i := len(depths) - 1; i >= 0; i-- {
		out = append(out, x-half(i), ground-depths[i])
	}
	return out
}

// hole draws a cut through the middle of one hole, with every layer. The cut
// runs along the run, or across it where the hole is only off across.
func hole(r *plan.Run, c *dig.Card, v View) Scene {
	var s Scene
	crossways := c.Along == 0 && c.Across != 0
	off := float64(c.Along)
	if crossways {
		off = -float64(c.Across)
	}
	above, deep := 220.0, max(float64(c.Depth), float64(c.Foot+c.Pinned))
	for _, l := range c.Layers {
		above = max(above, 90-float64(l.From))
	}
	for _, d := range []*length.Length{c.Frost, v.Wanted} {
		if d != nil {
			deep = max(deep, float64(*d))
		}
	}
	deep += 110
	wide := float64(c.Post)
	for _, k := range c.Cuts {
		wide = max(wide, float64(k.Width))
	}
	wide = wide/2 + max(math.Abs(off), wide*0.25) + 40
	s.Box = &Box{Point{-wide, -deep}, Point{wide, above}}
	s.box(Layer{Class: Ground, Material: Earthen}, "", -wide, -deep, wide, 0)
	s.box(Layer{Class: Soil, Material: Earthen}, "", -wide, -deep, wide, 0)
	s.line(GroundLine, "", -wide, 0, wide, 0)
	if c.Frost != nil {
		frost := -float64(*c.Frost)
		s.box(Layer{Class: Frost}, "", -wide, frost, wide, 0)
		s.line(FrostLine, "", -wide, frost, wide, frost)
	}
	if v.Wanted != nil {
		half := float64(c.Width)/2 + 40
		s.line(Wanted, "", off-half, -float64(*v.Wanted), off+half, -float64(*v.Wanted))
	}
	half := float64(c.Post) / 2
	for _, l := range c.Layers {
		m, ok := filled[l.Kind]
		switch {
		case !ok:
		case l.From < 0: // sloped from the post's face to the hole's edge
			edge := widthAt(c, 0) / 2
			s.area(Fill, m, string(l.Kind), -half, -float64(l.From), half, -float64(l.From), off+edge, 0, off-edge, 0)
		default:
			s.area(Fill, m, string(l.Kind), section(c, float64(l.From), float64(l.To), off, 0)...)
		}
	}
	s.pinned(c)
	s.stands(c, half, above)
	if v.Bare {
		return s
	}
	s.depths(c, v, off, r.FrostEstimated)
	s.layers(c, off)
	bottom := widthAt(c, float64(c.Depth))
	if c.Depth > 0 {
		key := []string(nil)
		if c.Square {
			key = []string{"square"}
		}
		s.say(Label{Class: Measure, At: Point{off - bottom/2, -float64(c.Depth)}, To: &Point{off + bottom/2, -float64(c.Depth)}, Put: Under, Off: 8, Strong: true, Must: true, Keys: key, Size: size(length.Length(bottom))})
	}
	if crossways {
		s.say(Label{Class: Name, At: Point{half, above}, Put: Beside, Off: 14, Rank: 9, Keys: []string{"seen-along"}})
	}
	return s
}

// pinned draws the pin in the rock under a post's foot.
func (s *Scene) pinned(c *dig.Card) {
	if c.Pin <= 0 {
		return
	}
	up := float64(min(c.Bottom/2, c.Pinned))
	half := float64(c.Pin) / 2
	s.box(Layer{Class: Pin, Material: Metal, Least: 3}, "", -half, -float64(c.Bottom)-float64(c.Pinned), half, -float64(c.Bottom)+up)
}

// stands draws the post in its hole, broken off above, and what is in it.
func (s *Scene) stands(c *dig.Card, half, above float64) {
	foot := -float64(c.Foot)
	m := Timber
	if c.Hollow {
		m = Metal
	}
	s.mark(Broken, "", 0, above, 0)
	if !c.Hollow {
		s.box(Layer{Class: Post, Material: m}, "", -half, foot, half, above)
		return
	}
	wall := max(float64(c.Wall), half*0.04)
	s.box(Layer{Class: Below}, "", -half, foot, half, above)
	for _, l := range c.Layers {
		if l.Kind == footing.InsideLayer {
			s.box(Layer{Class: Inside, Material: Concrete}, "", wall-half, -float64(l.To), half-wall, -float64(l.From))
		}
	}
	if c.Core > 0 {
		s.box(Layer{Class: Core, Material: Metal}, "", -float64(c.Core)/2, foot, float64(c.Core)/2, above)
	}
	s.box(Layer{Class: Post, Material: m}, "", -half, foot, wall-half, above)
	s.box(Layer{Class: Post, Material: m}, "", half-wall, foot, half, above)
}

// depths says on the left how deep it all is; depths that are one are said as one.
func (s *Scene) depths(c *dig.Card, v View, off float64, estimated bool) {
	var list []Label
	put := func(d length.Length, key string, class Class) {
		i := slices.IndexFunc(list, func(l Label) bool { return math.Abs(float64(*l.Size-d)) < 0.05 && l.Class == class })
		if i >= 0 {
			list[i].Keys = append(list[i].Keys, key)
			return
		}
		list = append(list, Label{Class: class, At: Point{off - widthAt(c, float64(d))/2, -float64(d)}, Put: Left, Strong: true, Must: true, Keys: []string{key}, Size: size(d)})
	}
	if c.Depth > 0 {
		put(c.Depth, "dig", Measure)
	}
	put(c.Foot, "foot", Measure)
	if c.Method != job.Drive {
		key := "packing"
		if c.Concrete > 0 {
			key = "concrete"
		}
		put(c.Bottom, key, Measure)
	}
	if c.Frost != nil {
		key := "frost-depth"
		if estimated {
			key = "frost-estimated"
		}
		put(*c.Frost, key, FrostLine)
	}
	if v.Wanted != nil {
		put(*v.Wanted, "rules-ask", Wanted)
	}
	sort.SliceStable(list, func(i, k int) bool { return *list[i].Size < *list[k].Size })
	s.Labels = append(s.Labels, list...)
}

// layers names each layer on the right, with its height and what it takes.
func (s *Scene) layers(c *dig.Card, off float64) {
	for _, l := range c.Layers {
		high := l.To - l.From
		if l.From < 0 && l.To <= 0 {
			high = -l.From
		}
		middle := (float64(l.From) + max(0, float64(l.To))) / 2
		s.say(Label{Class: Fill, Of: string(l.Kind), At: Point{off + widthAt(c, max(0, middle))/2, -middle}, Put: Right, Must: true, Strong: true, Keys: []string{"layer-" + words.Key(l.Kind)}, Size: size(high), Wide: &l.Volume})
	}
}
