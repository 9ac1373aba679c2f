package footing_test

import (
	"math"
	"testing"

	"mallow/catalog"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
)

// plainFill is concrete from the foot up to a cover, on gravel.
func plainFill(width, foot, gravel, cover length.Length, post job.Post) footing.Filling {
	d := footing.Depth{Bottom: foot, Foot: foot, Hole: foot + gravel, Gravel: gravel}
	return footing.Fill(footing.ShapeOf(width, d.Bottom, d.Hole, job.Hole{}), d, post, job.Setting{Cover: cover, Inside: job.OpenInside}, 0.4, 0)
}

// Round holes without a post, in ft³ (exact, by geometry, to the printed
// places).
func TestHoleVolumes(t *testing.T) {
	for _, c := range []struct{ width, depth, want float64 }{
		{10, 24, 1.0908}, {12, 24, 1.5708}, {12, 30, 1.9635}, {12, 36, 2.3562}, {12, 42, 2.7489},
		{12, 48, 3.1416}, {18, 30, 4.4179}, {18, 48, 7.0686},
	} {
		f := plainFill(length.Length(c.width)*in, length.Length(c.depth)*in, 0, 0, job.Post{})
		if math.Abs(f.Concrete.CubicFeet()-c.want) > 0.00005 || f.Concrete != f.Dug {
			t.Errorf("%v x %v in: got %.4f ft³, want %v", c.width, c.depth, f.Concrete.CubicFeet(), c.want)
		}
	}
}

// Ten 12 x 42 in holes to the yard, so 30 posts are three yards (common
// practice: 1.018 of a yard is called one).
func TestTenHolesToTheYard(t *testing.T) {
	f := plainFill(12*in, 42*in, 0, 0, job.Post{})
	if yards := 30 * f.Concrete.CubicYards(); math.Round(yards) != 3 || math.Abs(f.Concrete.CubicYards()-0.1018) > 0.00005 {
		t.Errorf("30 holes take %.3f yd³", yards)
	}
}

// At least four 60 lb bags to a 12 x 30 in hole (common practice): the
// computed 4.36 less the post. Two 20 kg bags to a 1.8 m fence's post in a 250
// x 600 mm hole (common practice, generous to the mix: only part filled).
func TestBagsToAHole(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		bag         string
		fill        footing.Filling
		least, most float64
	}{
		{"60lb", plainFill(12*in, 30*in, 0, 0, job.Post{}), 4.358, 4.368},
		{"60lb", plainFill(12*in, 30*in, 0, 0, job.Post{Shape: job.SquarePost, Width: 3.5 * in}), 3.8, 4},
		{"20kg", plainFill(250, 600, 0, 75, job.Post{Shape: job.SquarePost, Width: 100}), 1.8, 2.3},
	} {
		bag, _ := cat.Bag(c.bag)
		if got := pour.Bags(c.fill.Concrete, bag.Yield); got < c.least || got > c.most {
			t.Errorf("%s: %.3f bags", c.bag, got)
		}
	}
}

// solid tells whether a point at a depth is inside the hole, by another
// description of its shape: straight sides from the top's width to the shaft's
// and from there to the bell's.
type solid struct {
	square           bool
	top, width, bell float64
	neck, depth      float64 // depth is the concrete's bottom, where a bell is widest
}

func (s solid) half(z float64) float64 {
	switch {
	case z > s.depth: // the gravel's pit
		return s.width / 2
	case z <= s.neck && s.neck > 0:
		return (s.top + (s.width-s.top)*z/s.neck) / 2
	case s.neck <= 0:
		return (s.top + (s.bell-s.top)*z/s.depth) / 2
	}
	return (s.width + (s.bell-s.width)*(z-s.neck)/(s.depth-s.neck)) / 2
}

func within(square bool, half, x, y float64) bool {
	if square {
		return max(math.Abs(x), math.Abs(y)) < half
	}
	return math.Hypot(x, y) < half
}

// away is how far a point is from the middle as the hole's shape counts it.
func away(square bool, x, y float64) float64 {
	if square {
		return max(math.Abs(x), math.Abs(y))
	}
	return math.Hypot(x, y)
}

// Every layer of every kind of hole against counting small columns: bells,
// tapers, square holes, crowns and mounds, solid and hollow posts, cores,
// rocks, rubble, and posts that stand off the bottom. The sum of all layers,
// the post and the room above the soil is the hole.
func TestLayersByCounting(t *testing.T) {
	post := job.Post{Shape: job.SquarePost, Width: 100}
	round := job.Post{Shape: job.RoundPost, Width: 60}
	tube := job.Post{Shape: job.SquarePost, Width: 120, Hollow: true, Wall: 6}
	pipe := job.Post{Shape: job.RoundPost, Width: 90, Hollow: true, Wall: 4}
	up := length.Length(150)
	for _, c := range []struct {
		what  string
		hole  job.Hole
		set   job.Setting
		post  job.Post
		depth footing.Depth
	}{
		{"straight", job.Hole{}, job.Setting{Cover: 50, Mound: 30}, post, footing.Depth{Bottom: 700, Foot: 700, Hole: 800}},
		{"belled and tapered", job.Hole{Bell: 450, BellHeight: 250, Taper: 60}, job.Setting{Cover: 50, Mound: 30}, round, footing.Depth{Bottom: 700, Foot: 700, Hole: 800}},
		{"all bell", job.Hole{Bell: 500, BellHeight: 900}, job.Setting{Top: job.CrownTop, Crown: 25}, round, footing.Depth{Bottom: 500, Foot: 500, Hole: 550}},
		{"square hole, crowned", job.Hole{Shape: job.SquareHole}, job.Setting{Top: job.CrownTop, Crown: 40}, post, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
		{"square hole, round post", job.Hole{Shape: job.SquareHole}, job.Setting{Top: job.CrownTop, Crown: 40}, round, footing.Depth{Bottom: 600, Foot: 600, Hole: 600}},
		{"round hole, square post, crowned", job.Hole{}, job.Setting{Top: job.CrownTop, Crown: 40, Rubble: 0.2}, post, footing.Depth{Bottom: 600, Foot: 600, Hole: 600}},
		{"open tube", job.Hole{}, job.Setting{Cover: 75, Inside: job.OpenInside}, tube, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
		{"open pipe, filled higher", job.Hole{}, job.Setting{Cover: 75, Inside: job.OpenInside, FillTo: &up}, pipe, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
		{"closed tube", job.Hole{}, job.Setting{Cover: 75, Inside: job.ClosedInside}, tube, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
		{"core in a tube", job.Hole{}, job.Setting{Cover: 75, Inside: job.CoreInside, Core: 60}, tube, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
		{"foot in the concrete", job.Hole{}, job.Setting{Cover: 50}, post, footing.Depth{Bottom: 700, Foot: 600, Hole: 800}},
		{"foot in the gravel", job.Hole{}, job.Setting{Cover: 50}, post, footing.Depth{Bottom: 700, Foot: 760, Hole: 800}},
		{"rocks first", job.Hole{}, job.Setting{Method: job.Slurry, Cover: 50, RocksTo: 400, Rubble: 0.1}, post, footing.Depth{Bottom: 1200, Foot: 1200, Hole: 1300}},
		{"layered", job.Hole{}, job.Setting{Method: job.Layered, Cover: 50}, post, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
		{"packed in stone", job.Hole{Taper: 50}, job.Setting{Method: job.RockPacked, Mound: 60}, round, footing.Depth{Bottom: 600, Foot: 600, Hole: 700}},
	} {
		const width = 320
		shape := footing.ShapeOf(width, c.depth.Bottom, c.depth.Hole, c.hole)
		f := footing.Fill(shape, c.depth, c.post, c.set, 0.4, 0)
		s := solid{square: c.hole.Shape == job.SquareHole, top: width + float64(c.hole.Taper), width: width, bell: max(width, float64(c.hole.Bell)),
			depth: float64(c.depth.Hole), neck: float64(c.depth.Hole)}
		if c.hole.Bell > 0 {
			s.depth = float64(c.depth.Bottom)
			s.neck = max(0, s.depth-float64(c.hole.BellHeight))
		}
		sum := 0.0
		for _, l := range f.Layers {
			want := s.counted(c.post, c.set, l, float64(c.depth.Foot))
			if math.Abs(float64(l.Volume)-want) > 2e-3*want+1e-7 {
				t.Errorf("%s: %s from %v to %v: %.6f m³, counted %.6f", c.what, l.Kind, l.From, l.To, l.Volume, want)
			}
			if l.From >= 0 && l.Kind != footing.InsideLayer {
				sum += float64(l.Volume)
			}
		}
		inHole := float64(c.post.Section().Times(c.depth.Foot))
		if dug := float64(f.Dug); math.Abs(sum+inHole-dug) > 1e-9 {
			t.Errorf("%s: layers %.6f and post %.6f m³ are not the hole, %.6f", c.what, sum, inHole, dug)
		}
		checkSums(t, c.what, f, c.set)
	}
}

// checkSums adds the parts up again from the layers.
func checkSums(t *testing.T, what string, f footing.Filling, set job.Setting) {
	t.Helper()
	var concrete, stone length.Volume
	for _, l := range f.Layers {
		concrete, stone = concrete+l.Concrete, stone+l.Stone
		share := map[footing.LayerKind]float64{footing.RocksLayer: 0.4, footing.ConcreteLayer: 1 - set.Rubble, footing.CrownLayer: 1, footing.InsideLayer: 1}[l.Kind]
		if math.Abs(float64(l.Concrete)-share*float64(l.Volume)) > 1e-12 {
			t.Errorf("%s: %s has %v of concrete in %v", what, l.Kind, l.Concrete, l.Volume)
		}
	}
	if math.Abs(float64(concrete-f.Concrete)) > 1e-12 || math.Abs(float64(stone-f.Stone)) > 1e-12 || f.Concrete < 0 {
		t.Errorf("%s: concrete %v, stone %v; the layers come to %v and %v", what, f.Concrete, f.Stone, concrete, stone)
	}
}

// counted is a layer's volume by small columns.
func (s solid) counted(post job.Post, set job.Setting, l footing.Layer, foot float64) float64 {
	step := 2.0
	if l.Kind == footing.InsideLayer {
		step = 0.5
	}
	slices := math.Ceil(float64(l.To-l.From) / 2.5)
	slice := float64(l.To-l.From) / slices
	square := post.Shape != job.RoundPost
	outer, inner := float64(post.Width)/2, float64(post.Width)/2-float64(post.Wall)
	sum := 0.0
	reach := max(s.top, s.bell)/2 + step
	for x := -reach + step/2; x < reach; x += step {
		for y := -reach + step/2; y < reach; y += step {
			inPost := within(square, outer, x, y)
			switch {
			case l.Kind == footing.InsideLayer:
				core := set.Inside == job.CoreInside && within(true, float64(set.Core)/2, x, y)
				if within(square, inner, x, y) && !core {
					sum += float64(l.To - l.From)
				}
			case l.From < 0: // sloped from the post's face to the hole's edge
				edge := s.half(0)
				if d := away(s.square, x, y); !inPost && d < edge {
					sum += float64(-l.From) * (edge - d) / (edge - outer)
				}
			default:
				for k := range int(slices) {
					z := float64(l.From) + (float64(k)+0.5)*slice
					if within(s.square, s.half(z), x, y) && (!inPost || z > foot) {
						sum += slice
					}
				}
			}
		}
	}
	return sum * step * step * 1e-9
}

// The bell's frustum, by the printed formula π h/12 (D² + D d + d²) (published:
// any mensuration table), in a hole of 12 in belled to 18 over its lowest foot.
func TestBellIsAFrustum(t *testing.T) {
	s := footing.ShapeOf(12*in, 48*in, 48*in, job.Hole{Bell: 18 * in, BellHeight: 12 * in})
	want := math.Pi*1*1/4*3 + math.Pi*1/12*(1.5*1.5+1.5*1+1)
	if got := s.Volume(0, 48*in).CubicFeet(); math.Abs(got-want) > 1e-9 {
		t.Errorf("got %.6f ft³, want %.6f", got, want)
	}
	if got, want := float64(s.Mean(0, 48*in)/in), (36*12+12*15.0)/48; math.Abs(got-want) > 1e-9 {
		t.Errorf("mean width %.4f in, want %.4f", got, want)
	}
}

func TestCoverDeeperThanTheFootLeavesNoConcrete(t *testing.T) {
	f := plainFill(300, 100, 0, 150, job.Post{Shape: job.SquarePost, Width: 100})
	if f.Concrete != 0 || f.ConcreteHeight != 0 {
		t.Errorf("got %+v", f)
	}
}

// One hole from its rules to its layers, and its gust.
func BenchmarkHole(b *testing.B) {
	frost := 36 * in
	q := footing.Question{Kind: job.GatePost, AboveGrade: 1900, Frost: &frost, Height: 1800, Post: job.Post{Shape: job.SquarePost, Width: 89},
		Hole:   job.Hole{WidthFactor: 3, Augers: []length.Length{250, 300, 350}, FrostMargin: 150, Share: job.Quarter, Floor: 600, RoundDepthTo: 25, Bell: 450, BellHeight: 300},
		Gravel: 150}
	w := footing.Wind{Exposure: "C", Solidity: 1}
	for b.Loop() {
		width, depth := footing.FindWidth(q), footing.FindDepth(q)
		shape := footing.ShapeOf(width.Width, depth.Bottom, depth.Hole, q.Hole)
		footing.Fill(shape, depth, q.Post, job.Setting{Cover: 50, Mound: 25}, 0.4, 0)
		w.Gust(footing.Limit(footing.LateralLoad{Bearing: 150, Width: 1, Depth: 3.5, Height: 3.3}), 48)
	}
}
