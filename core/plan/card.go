package plan

import (
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

// Card is everything to dig and fill one hole, cut through its middle. Posts
// with the same hole share one. Depths are below ground.
type Card struct {
	Width         length.Length  `json:"width" jsonschema:"required"`
	Depth         length.Length  `json:"depth" jsonschema:"required" jsonschema_description:"To dig."`
	Bottom        length.Length  `json:"bottom" jsonschema:"required" jsonschema_description:"Of the concrete, or of what the post is packed in: what is held against the frost depth."`
	Foot          length.Length  `json:"foot" jsonschema:"required" jsonschema_description:"Of the post."`
	Lowered       length.Length  `json:"lowered,omitempty" jsonschema_description:"By how much the ground is cut here afterwards; negative: filled. The other depths are below the ground as it is today."`
	UnderFinished length.Length  `json:"underFinished" jsonschema:"required" jsonschema_description:"The bottom below the ground as it will be."`
	Frost         *length.Length `json:"frost,omitempty" jsonschema_description:"Frost depth below today's ground: it follows the ground as it will be. Left out when it is not known or not counted."`
	Heaves        bool           `json:"heaves" jsonschema:"required" jsonschema_description:"The bottom lies above the frost depth."`
	Square        bool           `json:"square" jsonschema:"required" jsonschema_description:"Square from above, dug by spade."`
	Auger         bool           `json:"auger" jsonschema:"required" jsonschema_description:"The crew has an auger of its width."`
	Cuts          []footing.Cut  `json:"cuts" jsonschema:"required" jsonschema_description:"The hole's width from the ground down, straight in between."`
	Along         length.Length  `json:"along,omitempty" jsonschema_description:"Middle of the hole off that of the post, along the run."`
	Across        length.Length  `json:"across,omitempty" jsonschema_description:"The same across it, to the left."`
	Least         length.Length  `json:"least" jsonschema:"required" jsonschema_description:"Least room between post and hole."`

	Post   length.Length `json:"post" jsonschema:"required" jsonschema_description:"Width of the post."`
	Round  bool          `json:"round" jsonschema:"required" jsonschema_description:"A round post."`
	Hollow bool          `json:"hollow" jsonschema:"required"`
	Wall   length.Length `json:"wall" jsonschema:"required"`
	Holds  length.Length `json:"holds" jsonschema:"required" jsonschema_description:"Least width of a hole that the post goes into."`
	Core   length.Length `json:"core,omitempty" jsonschema_description:"Side of the steel core in a hollow post."`
	Pin    length.Length `json:"pin,omitempty" jsonschema_description:"Diameter of the pin in the rock under the foot."`
	Pinned length.Length `json:"pinned,omitempty" jsonschema_description:"How far the pin goes into the rock."`

	Method job.Method      `json:"method" jsonschema:"required,enum=braced,enum=fast,enum=dry packed,enum=stabbed,enum=rock,enum=driven,enum=slurry,enum=layered"`
	Layers []footing.Layer `json:"layers" jsonschema:"required" jsonschema_description:"From the bottom up."`

	Dug      length.Volume  `json:"dug" jsonschema:"required"`
	Gravel   length.Volume  `json:"gravel" jsonschema:"required"`
	Stone    length.Volume  `json:"stone" jsonschema:"required"`
	Concrete length.Volume  `json:"concrete" jsonschema:"required"`
	Soil     length.Volume  `json:"soil" jsonschema:"required" jsonschema_description:"Put back."`
	Spoil    length.Volume  `json:"spoil" jsonschema:"required" jsonschema_description:"To carry away, loosened."`
	Bag      string         `json:"bag" jsonschema:"required" jsonschema_description:"Name of the bag; empty when it is not in the catalogue."`
	Bags     float64        `json:"bags" jsonschema:"required"`
	FillTo   *length.Length `json:"fillTo,omitempty" jsonschema_description:"Stabbed posts: depth below ground up to which the hole is filled before the post goes in; the post then brings the mix to its level."`
	Steps    []reason.Text  `json:"steps" jsonschema:"required" jsonschema_description:"What to do, in order."`
}

// cardKey is what a card is written from.
type cardKey struct {
	rules                     *job.Rules
	kind                      job.PostKind
	hung                      bool
	width, bottom, foot, hole length.Length
	lowered                   length.Length
	widened                   bool
}

// ditch is a card with what it was worked out from.
type ditch struct {
	sized sized
	shape footing.Shape
	fill  footing.Filling
	bag   materials.Bag
	buy   length.Volume // concrete with waste
}

// card finds or writes the card of a post's hole, and returns its place.
func (m *maker) card(p *Post, s *sized, shape footing.Shape, fill footing.Filling) int {
	key := cardKey{s.rules, p.Kind, p.Hung, p.HoleWidth, s.depth.Bottom, s.depth.Foot, s.depth.Hole, s.lowered, s.widened}
	if i, ok := m.cards[key]; ok {
		return i
	}
	h, set, post := s.rules.Hole, s.rules.Setting, s.q.Post
	bag, known := m.cat.Bag(set.Bag)
	c := Card{
		Width: p.HoleWidth, Depth: p.HoleDepth, Bottom: p.Bottom, Foot: p.Foot, Square: shape.Square, Auger: s.width.Auger, Cuts: shape.Cuts,
		Along: h.Along, Across: h.Across, Least: (p.HoleWidth-post.Width)/2 - max(h.Along.Abs(), h.Across.Abs()),
		Post: post.Width, Round: post.Shape == job.RoundPost, Hollow: post.Hollow, Wall: post.Wall, Holds: post.Across(),
		Method: set.Method, Layers: fill.Layers,
		Dug: fill.Dug, Gravel: fill.Gravel, Stone: fill.Stone, Concrete: fill.Concrete, Soil: fill.Soil,
		Spoil: max(0, fill.Dug-fill.Soil) * length.Volume(1+m.soil.Bulking), Bags: p.Bags,
	}
	c.Lowered, c.UnderFinished, c.Heaves = s.lowered, p.UnderFinished, p.Heaves
	if s.q.Frost != nil && !h.SkipFrost {
		frost := *s.q.Frost + s.lowered
		c.Frost = &frost
	}
	if known {
		c.Bag = bag.Name
	}
	if shape.Square {
		c.Holds = post.Width
	}
	if post.Hollow && set.Inside == job.CoreInside && !s.driven {
		c.Core = set.Core
	}
	if s.driven {
		c.Method = job.Drive
	}
	if pinnable(s) && h.Pin > 0 {
		c.Pin, c.Pinned = h.Pin, h.PinDeep
	}
	if c.Layers == nil {
		c.Layers = []footing.Layer{}
	}
	if c.Cuts == nil {
		c.Cuts = []footing.Cut{}
	}
	if c.Method == job.Stabbed && c.Concrete > 0 {
		mix := c.Concrete
		for _, l := range c.Layers {
			if l.Kind == footing.InsideLayer && c.Core > 0 { // poured round the core afterwards
				mix -= l.Concrete
			}
		}
		level := shape.Level(c.Bottom, mix)
		c.FillTo = &level
	}
	c.Steps = m.cardSteps(c, s)
	if m.cards == nil {
		m.cards = map[cardKey]int{}
	}
	m.cards[key] = len(m.out.Cards)
	m.out.Cards = append(m.out.Cards, c)
	m.ditches = append(m.ditches, ditch{*s, shape, fill, bag, fill.Concrete * length.Volume(1+set.Waste)})
	return len(m.out.Cards) - 1
}

// pinnable tells whether a hole stands on rock that a pin can be drilled into.
func pinnable(s *sized) bool { return s.hit != nil && s.hit.What == job.HitRock && s.depth.Stopped }

// cardSteps says how one hole is dug and filled, in order.
func (m *maker) cardSteps(c Card, s *sized) []reason.Text {
	var out []reason.Text
	add := func(parts ...any) { out = append(out, reason.Say(parts...)) }
	if c.Method == job.Drive {
		add("Drive the post ", c.Foot, " into undisturbed soil; check it for plumb on two faces as it goes.")
		if c.Depth > 0 {
			add("Open a collar ", c.Width, " wide and deep round its head.")
			m.pourSteps(add, c, s)
		}
		return out
	}
	m.digSteps(add, c, s)
	if c.Gravel > 0 && c.Depth > c.Bottom {
		add("Gravel ", c.Depth-c.Bottom, " deep, ", layerOf(c.Layers, footing.GravelLayer), " tamped. Trim the depth with it, never with loose soil.")
	}
	if c.Pin > 0 {
		add("Drill the rock and grout in a ", c.Pin, " steel pin, ", c.Pinned, " deep, standing up into the concrete.")
	}
	switch stand := c.Bottom - c.Foot; {
	case stand > length.Tolerance:
		add("The post's foot stands ", stand, " above the bottom of the concrete, ", c.Foot, " below ground.")
	case stand < -length.Tolerance:
		add("Work the post's foot ", -stand, " into the gravel, to ", c.Foot, " below ground.")
	}
	m.pourSteps(add, c, s)
	if c.Spoil > 0 {
		add("Carry away ", c.Spoil, " of loose soil.")
	}
	return out
}

func (m *maker) digSteps(add func(...any), c Card, s *sized) {
	if s.widened {
		add("Lever the old footing out first; the new hole reaches past the soil that it left loose.")
	}
	switch {
	case c.Square:
		add("Dig ", c.Width, " square by spade, ", c.Depth, " deep.")
	case c.Auger:
		add("Drill with the ", c.Width, " auger, ", c.Depth, " deep. Mark the depth on it.")
	default:
		add("Dig ", c.Width, " wide by digger or spade, ", c.Depth, " deep. Mark the depth on the handle.")
	}
	switch {
	case s.lowered > lowersAnything:
		add("The ground here is cut by ", s.lowered, " afterwards: measured from the finished ground the concrete's bottom is ", c.UnderFinished, " down.")
	case s.lowered < -lowersAnything:
		add("The ground here is filled by ", -s.lowered, " afterwards: measured from the finished ground the concrete's bottom is ", c.UnderFinished, " down.")
	}
	if s.hit != nil && s.depth.Stopped {
		add("The hole stops on ", struckNames[s.hit.What], " at ", s.hit.Depth, "; the rules ask for ", s.depth.Rounded+s.lowered, ".")
		if s.hit.What == job.HitWater {
			add("Bail it out and fill at once, from the bottom up, so that the mix is not washed out.")
		}
	}
	if h := s.rules.Hole; h.Bell > c.Width {
		add("Bell it out to ", h.Bell, " at the bottom of the concrete, ", c.Bottom, " down, over ", min(h.BellHeight, c.Bottom), "; not in the gravel.")
	}
	if s.rules.Hole.Taper > 0 {
		add("A hand tool leaves it ", s.rules.Hole.Taper, " wider at the top: that much more goes in.")
	}
	if c.Along != 0 || c.Across != 0 {
		add("The hole's middle lies ", offText(c), " off the post's: at least ", c.Least, " of room at the near side.")
	}
}

func offText(c Card) reason.Text {
	var t reason.Text
	if c.Along != 0 {
		way := " on"
		if c.Along < 0 {
			way = " back"
		}
		t = append(t, reason.Say(c.Along.Abs(), way, " along the run")...)
	}
	if c.Across != 0 {
		if t != nil {
			t = append(t, reason.Say(" and ")...)
		}
		way := " to the left"
		if c.Across < 0 {
			way = " to the right"
		}
		t = append(t, reason.Say(c.Across.Abs(), way)...)
	}
	return t
}

func layerOf(layers []footing.Layer, kind footing.LayerKind) length.Volume {
	for _, l := range layers {
		if l.Kind == kind {
			return l.Volume
		}
	}
	return 0
}

// mixed says a volume of concrete, with its bags where they are known.
func mixed(c Card, v length.Volume) reason.Text {
	t := reason.Say(v)
	if c.Bag != "" && c.Concrete > 0 {
		t = append(t, reason.Say(" (", c.Bags*float64(v/c.Concrete), " × ", c.Bag, ")")...)
	}
	return t
}

// upTo says how high a layer reaches.
func upTo(depth length.Length) reason.Text {
	switch {
	case depth > length.Tolerance:
		return reason.Say("up to ", depth, " below ground")
	case depth < -length.Tolerance:
		return reason.Say("up to ", -depth, " above ground")
	}
	return reason.Say("up to the ground")
}

// pourSteps say how the hole is filled by the way its post is set.
func (m *maker) pourSteps(add func(...any), c Card, s *sized) {
	set := s.rules.Setting
	if c.FillTo != nil {
		add("Fill the hole up to ", max(0, *c.FillTo), " below ground and no higher: the post pushes the mix up to where it belongs. Then push the post down into it and set it plumb before the mix stiffens.")
	} else {
		add(methodStarts[c.Method])
	}
	for _, l := range c.Layers {
		height := l.To - l.From
		switch l.Kind {
		case footing.RocksLayer:
			add("Rocks up to ", l.From, " below ground, ", l.Stone, " of them, bonded with runny mix: ", mixed(c, l.Concrete), ".")
		case footing.LargeStone, footing.MiddleStone, footing.SmallStone:
			add(packed[l.Kind], height, ", ", l.Volume, ", wedged and tamped, no voids.")
		case footing.ConcreteLayer:
			if l.Stone > 0 {
				add("Concrete ", height, " high, ", upTo(l.From), ": ", mixed(c, l.Concrete), " with ", l.Stone, " of clean rubble pressed in, none against the post.")
				continue
			}
			add("Concrete ", height, " high, ", upTo(l.From), ": ", mixed(c, l.Concrete), ".")
		case footing.GravelLayer:
			if l.To < c.Bottom-length.Tolerance { // a drain between two layers of mix
				add("Gravel ", height, " high, up to ", l.From, " below ground, ", l.Volume, ": it drains.")
			}
		case footing.InsideLayer:
			where := upTo(l.From)
			if c.Core > 0 {
				add("Steel core ", c.Core, " in the post; fill round it ", where, ": ", mixed(c, l.Concrete), ".")
				continue
			}
			add("The post fills ", where, ": ", mixed(c, l.Concrete), ".")
		case footing.CrownLayer:
			add("Crown it ", set.Crown, " high at the post, sloped to the hole's edge: ", mixed(c, l.Concrete), ".")
		case footing.SoilLayer:
			add("Soil over it, ", height, ", ", l.Volume, ".")
		case footing.MoundLayer:
			add("Mound the soil ", set.Mound, " high at the post, sloped away from it.")
		}
	}
}

var packed = map[footing.LayerKind]string{
	footing.LargeStone: "Large stone low, ", footing.MiddleStone: "Middle stone, ", footing.SmallStone: "Small stone on top, ",
}

// methodStarts say what each way of setting begins with.
var methodStarts = map[job.Method]string{
	job.Braced:     "Stand the post, brace two neighbouring faces, check both for plumb.",
	job.FastDry:    "Stand the post plumb. Water first or after, as the bag says; pour the mix dry and prod it.",
	job.DryPacked:  "Stand the post plumb. The mix goes in dry, in layers of a hand's width, each tamped hard all round.",
	job.Stabbed:    "Fill the hole first, then push the post down into it and set it plumb before the mix stiffens.",
	job.RockPacked: "Stand the post plumb and wedge its foot.",
	job.Drive:      "Wet the soil round the head, then pour.",
	job.Slurry:     "Stand the post plumb and brace it.",
	job.Layered:    "Stand the sleeved post plumb.",
}

var struckNames = map[job.Struck]string{job.HitRock: "rock", job.HitWater: "water", job.HitRoot: "a root"}
