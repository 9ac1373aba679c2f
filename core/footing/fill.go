package footing

import (
	"mallow/core/job"
	"mallow/core/length"
)

// LayerKind is what a layer of the filling is.
type LayerKind string

// Layers, named as a crew would.
const (
	GravelLayer   LayerKind = "gravel"
	ConcreteLayer LayerKind = "concrete"
	RocksLayer    LayerKind = "rocks in slurry"
	LargeStone    LayerKind = "large stone"
	MiddleStone   LayerKind = "middle stone"
	SmallStone    LayerKind = "small stone"
	SoilLayer     LayerKind = "soil"
	MoundLayer    LayerKind = "mound" // of soil, above ground
	CrownLayer    LayerKind = "crown" // of concrete, above ground
	InsideLayer   LayerKind = "inside the post"
)

// Layer is what lies in the hole between two depths, round the post; above
// ground depths are negative.
type Layer struct {
	Kind     LayerKind     `json:"kind" jsonschema:"required,enum=gravel,enum=concrete,enum=rocks in slurry,enum=large stone,enum=middle stone,enum=small stone,enum=soil,enum=mound,enum=crown,enum=inside the post"`
	From     length.Length `json:"from" jsonschema:"required" jsonschema_description:"Depth of its top; negative is above ground."`
	To       length.Length `json:"to" jsonschema:"required" jsonschema_description:"Depth of its bottom."`
	Volume   length.Volume `json:"volume" jsonschema:"required" jsonschema_description:"In place, without the post."`
	Concrete length.Volume `json:"concrete" jsonschema:"required" jsonschema_description:"Concrete in it."`
	Stone    length.Volume `json:"stone" jsonschema:"required" jsonschema_description:"Rocks, stone or rubble in it."`
}

// Filling is what one hole takes, exactly, from the bottom up.
type Filling struct {
	Layers         []Layer
	Dug            length.Volume // the hole
	Gravel         length.Volume // as tamped
	Stone          length.Volume // rocks, stone and rubble, in place
	Concrete       length.Volume
	Soil           length.Volume // put back, with the mound
	ConcreteHeight length.Length // round the post
}

// filler lays layers into a hole.
type filler struct {
	shape  Shape
	foot   length.Length
	ground length.Length // depth of the finished ground
	post   job.Post
	out    Filling
}

// Fill works out a hole's filling by the way its post is set. Hole less post,
// so that bags are not bought for the room that the timber takes. Voids is the
// share of a layer of rocks that is room for slurry. Depths are below the
// ground that is dug; lowered is by how much it is cut afterwards, negative
// where it is filled: the concrete ends under the finished ground.
func Fill(shape Shape, d Depth, post job.Post, s job.Setting, voids float64, lowered length.Length) Filling {
	f := filler{shape: shape, foot: d.Foot, ground: min(max(0, lowered), max(0, d.Bottom)), post: post}
	f.out.Dug = shape.Volume(0, d.Hole)
	f.add(GravelLayer, d.Bottom, d.Hole, 0, 0)
	if s.Method == job.RockPacked {
		f.packed(d.Bottom)
		f.cone(MoundLayer, s.Mound)
		return f.out
	}
	top := min(max(0, s.Cover+lowered), d.Bottom)
	if s.Top == job.CrownTop {
		top = min(f.ground, d.Bottom)
	}
	f.out.ConcreteHeight = d.Bottom - top
	f.concrete(top, d.Bottom, s, voids)
	f.inside(top, d.Bottom, s)
	if s.Top == job.CrownTop {
		f.cone(CrownLayer, s.Crown)
	} else {
		f.add(SoilLayer, min(f.ground, top), top, 0, 0)
		if top > f.ground {
			f.cone(MoundLayer, s.Mound)
		}
	}
	return f.out
}

// Collar is the concrete round the head of a driven post.
func Collar(shape Shape, depth length.Length, post job.Post) Filling {
	f := filler{shape: shape, foot: depth, post: post}
	f.out.Dug = shape.Volume(0, depth)
	f.out.ConcreteHeight = depth
	f.add(ConcreteLayer, 0, depth, 1, 0)
	return f.out
}

// concrete lays the mix by the way the post is set.
func (f *filler) concrete(top, bottom length.Length, s job.Setting, voids float64) {
	mix := 1 - s.Rubble
	switch {
	case s.Method == job.Slurry && s.RocksTo > top && s.RocksTo < bottom:
		f.add(RocksLayer, s.RocksTo, bottom, voids, 1-voids)
		f.add(ConcreteLayer, top, s.RocksTo, mix, s.Rubble)
	case s.Method == job.Layered: // the foot locked, a drain, the rest on top
		third := (bottom - top) / 3
		f.add(ConcreteLayer, bottom-third, bottom, mix, s.Rubble)
		f.add(GravelLayer, top+third, bottom-third, 0, 0)
		f.add(ConcreteLayer, top, top+third, mix, s.Rubble)
	default:
		f.add(ConcreteLayer, top, bottom, mix, s.Rubble)
	}
}

// packed lays graded stone: the largest low, smaller above.
func (f *filler) packed(bottom length.Length) {
	top := min(f.ground, bottom)
	third := (bottom - top) / 3
	f.add(LargeStone, bottom-third, bottom, 0, 1)
	f.add(MiddleStone, top+third, bottom-third, 0, 1)
	f.add(SmallStone, top, top+third, 0, 1)
}

// inside fills a hollow post to its level.
func (f *filler) inside(top, bottom length.Length, s job.Setting) {
	if !f.post.Hollow || s.Inside == job.ClosedInside {
		return
	}
	level, area := top, f.post.Hollowed()
	if s.Inside == job.CoreInside {
		level, area = f.ground, max(0, area-length.Square(s.Core))
	}
	if s.FillTo != nil {
		level = f.ground - *s.FillTo
	}
	from := min(f.foot, bottom)
	if level >= from {
		return
	}
	v := area.Times(from - level)
	f.put(Layer{Kind: InsideLayer, From: level, To: from, Volume: v, Concrete: v})
}

// add lays a layer of which so much is concrete and so much stone; the rest
// is gravel or soil.
func (f *filler) add(kind LayerKind, from, to length.Length, concrete, stone float64) {
	if to-from <= length.Tolerance {
		return
	}
	v := f.shape.Volume(from, to)
	if post := min(to, f.foot) - from; post > 0 {
		v -= f.post.Section().Times(post)
	}
	v = max(0, v)
	f.put(Layer{kind, from, to, v, v * length.Volume(concrete), v * length.Volume(stone)})
}

func (f *filler) cone(kind LayerKind, height length.Length) {
	v := f.shape.Cone(height, f.ground, f.post)
	if v <= 0 {
		return
	}
	l := Layer{Kind: kind, From: f.ground - height, To: f.ground, Volume: v}
	if kind == CrownLayer {
		l.Concrete = v
	}
	f.put(l)
}

func (f *filler) put(l Layer) {
	f.out.Layers = append(f.out.Layers, l)
	f.out.Concrete += l.Concrete
	f.out.Stone += l.Stone
	switch l.Kind {
	case GravelLayer:
		f.out.Gravel += l.Volume
	case SoilLayer, MoundLayer:
		f.out.Soil += l.Volume
	}
}
