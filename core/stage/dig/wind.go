package dig

import (
	"math"

	"mallow/core/footing"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
)

const (
	strongest    = 150             // metres per second, more than any wind: a footing that nothing pushes
	poundForce   = 4.4482216152605 // newtons
	footPound    = poundForce * 0.3048
	milesAnHour  = 0.44704 // metres per second
	DeeperMetric = 150 * length.Millimetre
	DeeperInches = 6 * length.Inch
)

// wind works out the gust for every post, once the bays are known.
func (m *Holes) Wind() {
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Stays != "" || p.Shared != "" {
			continue
		}
		w := m.postWind(i, &m.Designs[p.Card])
		p.Wind = &w
	}
}

// stood is how a post stands in the wind.
type stood struct {
	wind    footing.Wind
	face    float64 // of the fence that it holds, ft²
	lateral footing.LateralLoad
	pin     float64 // shear of the pin under it, lb; 0 for none
	leaf    *LeafPull
	half    float64 // of the leaf's face, ft²
}

// stand describes a post with its footing as it is dug.
func (m *Holes) Stand(i int, d *Design) stood {
	p := &m.Posts[i]
	high := length.Length(0)
	st := stood{wind: footing.Wind{Exposure: string(m.Job.Site.Exposed()), Solidity: m.Solid()}}
	for b := max(0, i-1); b <= i && b < len(m.Bays); b++ {
		if m.Bays[b].Gate == "" {
			h := m.HighAt(b)
			st.face += footing.Feet(m.Bays[b].CentreToCentre) / 2 * footing.Feet(h)
			high = max(high, h)
		}
	}
	if high == 0 { // gates on both sides
		high = m.Spec.HeightAt(p.Station)
	}
	low := max(0, p.AboveGrade+d.Sized.Held()-m.Spec.PostOf(p.Kind).Above-high)
	bearing := m.Soil.Bearing
	if m.Job.Site.Movement {
		bearing *= 2
	}
	st.lateral = footing.LateralLoad{Bearing: bearing, Height: footing.Feet(low + footing.Middle*high), Restrained: d.Sized.Rules.Setting.Restrained}
	st.leaf, st.half = m.leafOn(i)
	if pinnable(&d.Sized) && d.Sized.Rules.Hole.Pin > 0 {
		st.pin = m.pinShear(d.Sized.Rules.Hole.Pin)
	}
	return st
}

// pinShear is the shear that a steel pin is counted with, in pounds.
func (m *Holes) pinShear(pin length.Length) float64 {
	return math.Pi / 4 * float64(pin*pin) * m.Cat.Supply.PinStrength / poundForce
}

// leafOn is the leaf that hangs on a post, and half its face in square feet.
func (m *Holes) leafOn(i int) (*LeafPull, float64) {
	for b := max(0, i-1); b <= i && b < len(m.Bays); b++ {
		bay := &m.Bays[b]
		if bay.Gate == "" || m.Layout.Bays[b].Gate < 0 {
			continue
		}
		g := m.Spec.Gates[m.Layout.Bays[b].Gate]
		height := bay.TopStart - bay.BottomStart
		on := job.FirstPost
		if b < i {
			on = job.SecondPost
		}
		for _, l := range m.Hang(g, bay) {
			if l.Post == on {
				leaf := &LeafPull{Width: l.Width, Mass: l.Mass, Estimated: l.Estimated, Moment: gate.Moment(l.Mass, l.Width)}
				return leaf, footing.Feet(leaf.Width) / 2 * footing.Feet(height)
			}
		}
		// The other post only takes the latch: half the leaf pushes it.
		return nil, footing.Feet(g.Inside()) / 2 * footing.Feet(height)
	}
	return nil, 0
}

// gust is the gust that a footing of a width and depth bears: the lesser of
// leaf closed and leaf open.
func (st stood) gust(width, depth length.Length) (least, closed, open float64) {
	q := st.lateral
	q.Width, q.Depth = footing.Feet(width), footing.Feet(depth)
	limit := func(moment float64) float64 {
		q.Moment = moment
		if st.pin > 0 {
			return max(footing.Limit(q), footing.Pinned(q, st.pin))
		}
		return footing.Limit(q)
	}
	bears := func(push, face float64) float64 {
		return min(strongest, milesAnHour*st.wind.Gust(push, max(0, face)))
	}
	closed = bears(limit(0), st.face+st.half)
	least, open = closed, closed
	if st.leaf != nil && st.face > 0 {
		open = bears(limit(st.leaf.Moment/footPound), st.face)
	} else if st.leaf != nil && limit(st.leaf.Moment/footPound) <= 0 {
		open = 0 // nothing but the leaf, and that is over the limit
	}
	return min(least, open), closed, open
}

// share is the share of the limit of a footing, of a width and depth, that the
// weight of the leaf takes alone: the published formula with a push at no
// height, whose moment about the ground is the limit times depth over 1.09.
func (st stood) Share(width, depth length.Length) float64 {
	q := st.lateral
	q.Width, q.Depth, q.Height = footing.Feet(width), footing.Feet(depth), 0
	if bare := footing.Limit(q) * q.Depth / 1.09; bare > 0 && !q.Restrained {
		return st.leaf.Moment / footPound / bare
	}
	return 0
}

// meanWidth is the width with which a footing pushes the soil, from the ground
// that holds it down to the bottom of its concrete, as its card has it.
func MeanWidth(d *Design, width, bottom length.Length) length.Length {
	if d.Sized.Driven {
		return d.Sized.q.Post.Across()
	}
	shape := footing.ShapeOf(width, bottom, bottom+d.Sized.Depth.Gravel, d.Sized.Rules.Hole)
	return shape.Bears(d.Sized.Held(), bottom)
}

// bears is the gust of a footing of a width whose concrete ends at a depth
// below the ground that is dug.
func (st stood) bears(d *Design, width, bottom length.Length) (least, closed, open float64) {
	return st.gust(MeanWidth(d, width, bottom), bottom-d.Sized.Held())
}

func (m *Holes) postWind(i int, d *Design) PostWind {
	p, st := &m.Posts[i], m.Stand(i, d)
	g, closed, open := st.bears(d, p.HoleWidth, p.Bottom)
	w := PostWind{Gust: g, Leaf: st.leaf}
	if st.leaf != nil {
		st.leaf.Closed, st.leaf.Open = closed, open
		st.leaf.Share = st.Share(MeanWidth(d, p.HoleWidth, p.Bottom), p.Bottom-d.Sized.Held())
	}
	if !d.Sized.Driven {
		wide := m.nextWider(d.Sized.Rules.Hole, p.HoleWidth)
		w.Wider = &WindTry{Size: wide}
		w.Wider.Gust, _, _ = st.bears(d, wide, p.Bottom)
	}
	if d.Sized.Depth.Stopped {
		return w // no deeper there
	}
	step := DeeperInches
	if m.Job.Units.System == length.Metric {
		step = DeeperMetric
	}
	deep := p.Bottom + step
	w.Deeper = &WindTry{Size: deep + p.Gravel}
	w.Deeper.Gust, _, _ = st.bears(d, p.HoleWidth, deep)
	return w
}

// nextWider is the next auger up, or else 3 in or 75 mm more.
func (m *Holes) nextWider(h job.Hole, width length.Length) length.Length {
	if next, ok := footing.Stock(width+1, h.Augers); ok && h.Shape != job.SquareHole {
		return next
	}
	if m.Job.Units.System == length.Metric {
		return width + 75
	}
	return width + 3*length.Inch
}
