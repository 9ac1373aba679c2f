package plan

import (
	"math"

	"mallow/core/footing"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// PostWind is the gust at which a footing reaches the published limit of a
// post in soil. It compares choices; it approves nothing.
type PostWind struct {
	Gust   float64    `json:"gust" jsonschema:"required" jsonschema_description:"Metres per second."`
	Wider  *WindTry   `json:"wider,omitempty" jsonschema_description:"With the next auger up."`
	Deeper *WindTry   `json:"deeper,omitempty" jsonschema_description:"With a hole one step deeper."`
	Leaf   *LeafPull  `json:"leaf,omitempty" jsonschema_description:"What a leaf that hangs on it does."`
	Why    reason.Ref `json:"why" jsonschema:"required"`
}

// WindTry is the same footing in another size.
type WindTry struct {
	Size length.Length `json:"size" jsonschema:"required" jsonschema_description:"The hole's width, or depth to dig."`
	Gust float64       `json:"gust" jsonschema:"required"`
}

// LeafPull is what a gate leaf's weight does to the post that it hangs on.
type LeafPull struct {
	Mass      length.Mass   `json:"mass" jsonschema:"required"`
	Estimated bool          `json:"estimated" jsonschema:"required"`
	Width     length.Length `json:"width" jsonschema:"required"`
	Moment    float64       `json:"moment" jsonschema:"required" jsonschema_description:"Newton metres: its weight times half its width."`
	Closed    float64       `json:"closed" jsonschema:"required" jsonschema_description:"Gust with the leaf closed, metres per second: half the leaf's face pushes the post; its weight pulls along the fence."`
	Open      float64       `json:"open" jsonschema:"required" jsonschema_description:"Gust with the leaf open across the fence: its weight leans the post the way that the wind does."`
	Share     float64       `json:"share" jsonschema:"required" jsonschema_description:"Share of the footing's limit that the leaf's weight takes alone."`
}

const (
	strongest    = 150             // metres per second, more than any wind: a footing that nothing pushes
	poundForce   = 4.4482216152605 // newtons
	footPound    = poundForce * 0.3048
	milesAnHour  = 0.44704 // metres per second
	deeperMetric = 150 * length.Millimetre
	deeperInches = 6 * length.Inch
)

// wind works out the gust for every post, once the bays are known.
func (m *maker) wind() {
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Stays != "" || p.Shared != "" {
			continue
		}
		w := m.postWind(i, &m.ditches[p.Card])
		p.Wind = &w
	}
}

// stood is how a post stands in the wind.
type stood struct {
	wind   footing.Wind
	face   float64 // of the fence that it holds, ft²
	pushed footing.Pushed
	pin    float64 // shear of the pin under it, lb; 0 for none
	leaf   *LeafPull
	half   float64 // of the leaf's face, ft²
}

// stand describes a post with its footing as it is dug.
func (m *maker) stand(i int, d *ditch) stood {
	p := &m.out.Posts[i]
	f := m.run.Fence
	st := stood{wind: footing.Wind{Exposure: string(m.job.Site.Exposed()), Solidity: m.out.Solid}}
	for b := max(0, i-1); b <= i && b < len(m.out.Bays); b++ {
		if m.out.Bays[b].Gate == "" {
			st.face += footing.Feet(m.out.Bays[b].CentreToCentre) / 2 * footing.Feet(f.Height)
		}
	}
	low := max(0, p.Reveal+d.sized.held()-m.run.PostOf(p.Kind).Above-f.Height)
	bearing := m.soil.Bearing
	if m.job.Site.Movement {
		bearing *= 2
	}
	st.pushed = footing.Pushed{Bearing: bearing, Height: footing.Feet(low + footing.Middle*f.Height), Restrained: d.sized.rules.Setting.Restrained}
	st.leaf, st.half = m.leafOn(i)
	if pinnable(&d.sized) && d.sized.rules.Hole.Pin > 0 {
		st.pin = m.pinShear(d.sized.rules.Hole.Pin)
	}
	return st
}

// solid is the share of the fence's face that is solid: the run's, or else its
// fence system's, or all of it.
func (m *maker) solid() float64 {
	if own := m.run.Fence.Solidity; own > 0 {
		return own
	}
	if sys, ok := m.cat.System(m.run.System, m.job.Systems); ok && sys.Fence.Solidity > 0 {
		return sys.Fence.Solidity
	}
	return 1
}

// pinShear is the shear that a steel pin is counted with, in pounds.
func (m *maker) pinShear(pin length.Length) float64 {
	return math.Pi / 4 * float64(pin*pin) * m.cat.Supply.PinStrength / poundForce
}

// leafOn is the leaf that hangs on a post, and half its face in square feet.
func (m *maker) leafOn(i int) (*LeafPull, float64) {
	for b := max(0, i-1); b <= i && b < len(m.out.Bays); b++ {
		bay := &m.out.Bays[b]
		if bay.Gate == "" || m.layout.Bays[b].Gate < 0 {
			continue
		}
		g := m.run.Gates[m.layout.Bays[b].Gate]
		height := bay.TopStart - bay.BottomStart
		on := job.FirstPost
		if b < i {
			on = job.SecondPost
		}
		for _, l := range m.hang(g, bay) {
			if l.Post == on {
				leaf := &LeafPull{Width: l.Width, Mass: l.mass, Estimated: l.estimated, Moment: gate.Moment(l.mass, l.Width)}
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
	q := st.pushed
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
func (st stood) share(width, depth length.Length) float64 {
	q := st.pushed
	q.Width, q.Depth, q.Height = footing.Feet(width), footing.Feet(depth), 0
	if bare := footing.Limit(q) * q.Depth / 1.09; bare > 0 && !q.Restrained {
		return st.leaf.Moment / footPound / bare
	}
	return 0
}

// girth is the width with which a footing pushes the soil, from the ground
// that holds it down to the bottom of its concrete, as its card has it.
func girth(d *ditch, width, bottom length.Length) length.Length {
	if d.sized.driven {
		return d.sized.q.Post.Across()
	}
	shape := footing.ShapeOf(width, bottom, bottom+d.sized.depth.Gravel, d.sized.rules.Hole)
	return shape.Bears(d.sized.held(), bottom)
}

// bears is the gust of a footing of a width whose concrete ends at a depth
// below the ground that is dug.
func (st stood) bears(d *ditch, width, bottom length.Length) (least, closed, open float64) {
	return st.gust(girth(d, width, bottom), bottom-d.sized.held())
}

func (m *maker) postWind(i int, d *ditch) PostWind {
	p, st := &m.out.Posts[i], m.stand(i, d)
	g, closed, open := st.bears(d, p.HoleWidth, p.Bottom)
	w := PostWind{Gust: g, Leaf: st.leaf}
	if st.leaf != nil {
		st.leaf.Closed, st.leaf.Open = closed, open
		st.leaf.Share = st.share(girth(d, p.HoleWidth, p.Bottom), p.Bottom-d.sized.held())
	}
	if !d.sized.driven {
		wide := m.nextWider(d.sized.rules.Hole, p.HoleWidth)
		w.Wider = &WindTry{Size: wide}
		w.Wider.Gust, _, _ = st.bears(d, wide, p.Bottom)
	}
	if d.sized.depth.Stopped {
		w.Why = m.whyWind(p, d, st, w)
		return w // no deeper there
	}
	step := deeperInches
	if m.job.Units.System == length.Metric {
		step = deeperMetric
	}
	deep := p.Bottom + step
	w.Deeper = &WindTry{Size: deep + p.Gravel}
	w.Deeper.Gust, _, _ = st.bears(d, p.HoleWidth, deep)
	w.Why = m.whyWind(p, d, st, w)
	return w
}

// nextWider is the next auger up, or else 3 in or 75 mm more.
func (m *maker) nextWider(h job.Hole, width length.Length) length.Length {
	if next, ok := footing.Stock(width+1, h.Augers); ok && h.Shape != job.SquareHole {
		return next
	}
	if m.job.Units.System == length.Metric {
		return width + 75
	}
	return width + 3*length.Inch
}

// windKey is what a gust is explained from.
type windKey struct {
	card         int
	face, push   float64
	leaf, moment float64
}

func (m *maker) whyWind(p *Post, d *ditch, st stood, w PostWind) reason.Ref {
	key := windKey{card: p.Card, face: st.face, push: st.pushed.Height, leaf: st.half}
	if st.leaf != nil {
		key.moment = st.leaf.Moment
	}
	return m.windWhys.Put(key, func() reason.Why {
		out := reason.Why{
			Figure:  "Gust at the footing's limit",
			Caution: "A figure to compare choices with, never an approval. Posts, rails and fixings may give way before the footing; an engineer decides where wind matters.",
			Steps:   m.windSteps(d, st),
		}
		s := reason.Sentence(12).Words("In ").Words(lower(m.soil.Name))
		if d.sized.driven {
			s = s.Words(", the post driven ").Length(p.Bottom)
		} else {
			s = s.Words(", a ").Length(p.HoleWidth).Words(" hole with its bottom at ").Length(p.Bottom)
		}
		s = append(s.Words(" reaches the published limit in a gust of "), reason.Say(reason.Speed(w.Gust))...)
		out.Sentence = s.Words(": the wind pushes ").Length(length.Length(st.pushed.Height) * length.Foot).Words(" above ground.")
		if st.leaf != nil { // one leaf more, and there are few
			out.Steps = append(append([]reason.Step(nil), out.Steps...), leafStep(st.leaf))
		}
		return out
	})
}

// windSteps are the rules behind the gusts of posts with the same rules.
func (m *maker) windSteps(d *ditch, st stood) []reason.Step {
	return m.steps([4]any{"wind", d.sized.rules, st.pushed.Restrained, st.pin > 0}, func() []reason.Step {
		kind := "Free at the ground"
		if st.pushed.Restrained {
			kind = "Held at the ground"
		}
		steps := []reason.Step{
			{Rule: "Post in soil", Source: reason.Source{Kind: reason.Memory, Name: "IBC 1807.3"}, Governs: true, Says: append(append(reason.Say(kind, "; bearing "), m.perDepth(st.pushed.Bearing)...), reason.Say(".")...),
				Settings: []reason.Setting{m.rule(d.sized.rules, "setting/restrained", "Held at the ground by paving", reason.SwitchSetting)}},
			{Rule: "Soil", Source: m.soil.Source, Says: m.soilSays()},
			{Rule: "Wind on the face", Source: reason.Source{Kind: reason.Memory, Name: "ASCE 7, free-standing wall"},
				Says: reason.Say("Exposure ", string(m.job.Site.Exposed()), "; ", math.Round(100*st.wind.Solidity), " % of the face is solid; half a bay on either side hangs on the post.")},
		}
		if st.pin > 0 {
			steps = append(steps, reason.Step{Rule: "Pin in the rock", Source: reason.Source{Kind: reason.Geometry, Name: "statics; the pin's shear is taken low"}, Says: reason.Say("The pin holds the foot, and the post turns about it.")})
		}
		return steps
	})
}

// perDepth says a bearing of so many psf for each foot of depth.
func (m *maker) perDepth(psf float64) reason.Text {
	if m.job.Units.System == length.Metric {
		return reason.Say(reason.Pressure(psf*length.PerSquareFoot/0.3048), " for each metre of depth")
	}
	return reason.Say(reason.Pressure(psf*length.PerSquareFoot), " for each foot of depth")
}

func leafStep(l *LeafPull) reason.Step {
	says := reason.Say("A leaf of ", l.Mass, ", ", l.Width, " wide, pulls with ", reason.Moment(l.Moment), ": ", math.Round(100*l.Share), " % of the limit alone. Closed ", reason.Speed(l.Closed), ", open ", reason.Speed(l.Open), ".")
	if l.Estimated {
		says = append(says, reason.Say(" Its weight is an estimate.")...)
	}
	return reason.Step{Rule: "Leaf", Source: reason.Source{Kind: reason.Geometry, Name: "weight times half the width"}, Says: says}
}

func (m *maker) soilSays() reason.Text {
	if m.soilKnown {
		return reason.Say(m.soil.Name, ". ", m.soil.Says)
	}
	return reason.Say("Not known: taken as ", lower(m.soil.Name), ", the weakest. Dig a test hole.")
}
