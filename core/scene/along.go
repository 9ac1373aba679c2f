package scene

import (
	"math"
	"sort"

	"mallow/core/length"
	"mallow/core/plan"
)

// nearest is how near to the eye something may be and still be drawn,
// millimetres.
const nearest = 300

// pane is how far before the eye the pane of glass stands that the picture is
// drawn on: its millimetres are the scene's.
const pane = 1000

// eye looks along a run from one of its ends, some steps back and a little
// beside the line.
type eye struct {
	height, back, aside float64
	side                float64 // 1: the line lies to the left; -1: to the right
}

// sees is where a place is seen on the pane: so far along the line, so high,
// so far behind the line's near face. False where it is behind the eye.
func (e eye) sees(distance, height, behind float64) (x, y float64, ok bool) {
	d := distance + e.back
	if d < nearest {
		return 0, 0, false
	}
	return -e.side * (e.aside + behind) / d * pane, (height - e.height) / d * pane, true
}

// along draws the fence as an eye sees it that looks along it, tops and faces
// in true perspective: a flow that looks wrong is seen wrong here.
func along(r *plan.Run, v View) Scene {
	var s Scene
	if len(r.Posts) == 0 || r.TopLine == nil {
		return s
	}
	at := func(station length.Length) float64 { return float64(station) }
	ground := profile(r.Ground, r.Length)
	e := eye{height: float64(ground.Height(0) + r.TopLine.Eye), back: float64(v.Back), aside: max(1, float64(v.Aside)), side: 1}
	if v.FromEnd {
		at = func(station length.Length) float64 { return float64(r.Length - station) }
		e.height, e.side = float64(ground.Height(r.Length)+r.TopLine.Eye), -1
	}
	type place struct{ along, height, behind float64 }
	face := func(c Class, m Material, of string, places ...place) {
		var points []float64
		for _, p := range places {
			x, y, ok := e.sees(p.along, p.height, p.behind)
			if !ok {
				return
			}
			points = append(points, x, y)
		}
		// What is farther is drawn first: every face is a layer of its own.
		s.Layers = append(s.Layers, Layer{Class: c, Material: m, Area: true, Shapes: []Shape{{of, points}}})
	}
	surface := func(c Class, area bool) {
		var points []float64
		for _, g := range r.Ground {
			if x, y, ok := e.sees(at(g.At), float64(g.Height), 0); ok {
				points = append(points, x, y)
			}
		}
		if len(points) < 4 {
			return
		}
		l := Layer{Class: c, Area: area}
		if area {
			l.Material = Earthen
			points = append(points, points[len(points)-2], -pane, points[0], -pane)
		}
		l.Shapes = []Shape{{r.ID, points}}
		s.Layers = append(s.Layers, l)
	}
	surface(Ground, true)
	type thing struct {
		far  float64
		draw func()
	}
	var things []thing
	material := material(r)
	for i := range r.Bays {
		b, p, q := &r.Bays[i], &r.Posts[i], &r.Posts[i+1]
		things = append(things, thing{(at(p.Station) + at(q.Station)) / 2, func() {
			c, m := Bay, material
			if b.Gate != "" {
				c = Leaf
			}
			a, z := at(p.Station), at(q.Station)
			face(c, m, b.ID, place{a, float64(b.BottomStart), 0}, place{a, float64(b.TopStart), 0}, place{z, float64(b.TopEnd), 0}, place{z, float64(b.BottomEnd), 0})
			x1, y1, ok1 := e.sees(a, float64(b.TopStart), 0)
			x2, y2, ok2 := e.sees(z, float64(b.TopEnd), 0)
			if ok1 && ok2 {
				s.Layers = append(s.Layers, Layer{Class: Top, Shapes: []Shape{{b.ID, []float64{x1, y1, x2, y2}}}})
			}
		}})
	}
	for i := range r.Posts {
		p := &r.Posts[i]
		things = append(things, thing{at(p.Station), func() {
			// The face towards the eye, and the one along the line.
			half, wide := p.Width/2, float64(p.Width)
			near := at(p.Station) - float64(half)
			low, top := float64(p.Ground), float64(p.Top)
			face(Post, material, p.ID, place{near, low, 0}, place{near, top, 0}, place{near, top, wide}, place{near, low, wide})
			face(Post, material, p.ID, place{at(p.Station - half), low, 0}, place{at(p.Station - half), top, 0}, place{at(p.Station + half), top, 0}, place{at(p.Station + half), low, 0})
		}})
	}
	sort.SliceStable(things, func(i, k int) bool { return things[i].far > things[k].far })
	for _, t := range things {
		t.draw()
	}
	surface(GroundLine, false)
	for i := range r.Posts {
		if p := &r.Posts[i]; p.Grade {
			if x, y, ok := e.sees(at(p.Station), float64(p.Top), 0); ok {
				s.Marks = append(s.Marks, Mark{Class: Ring, Of: p.ID, At: Point{x, y}})
			}
		}
	}
	s.Box = closer(r, e, at, max(1, v.Closer))
	return s
}

// closer is what of the picture is shown: all of it at first, and then less,
// about a place further on.
func closer(r *plan.Run, e eye, at func(length.Length) float64, times float64) *Box {
	all := Box{Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}}
	for i := range r.Posts {
		for _, h := range []length.Length{r.Posts[i].Top, r.Posts[i].Ground} {
			if x, y, ok := e.sees(at(r.Posts[i].Station), float64(h), 0); ok {
				all.Low.X, all.Low.Y = min(all.Low.X, x), min(all.Low.Y, y)
				all.High.X, all.High.Y = max(all.High.X, x), max(all.High.Y, y)
			}
		}
	}
	k := int(float64(len(r.Posts)) * 0.45)
	if at(r.Posts[0].Station) > at(r.Posts[len(r.Posts)-1].Station) {
		k = len(r.Posts) - 1 - k
	}
	x, y, ok := e.sees(at(r.Posts[k].Station), float64(r.Posts[k].Top), 0)
	middle := Point{(all.Low.X + all.High.X) / 2, (all.Low.Y + all.High.Y) / 2}
	if !ok {
		x, y = middle.X, middle.Y
	}
	part := 1 - 1/times
	centre := Point{middle.X + (x-middle.X)*part, middle.Y + (y-middle.Y)*part}
	const room = 0.53 // half of it, and a little
	wide, tall := (all.High.X-all.Low.X)/times*room, (all.High.Y-all.Low.Y)/times*room
	return &Box{Point{centre.X - wide, centre.Y - tall}, Point{centre.X + wide, centre.Y + tall}}
}
