package dig

import (
	"fmt"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/slope"
)

// tell says what to do at every kind of hole, in order.
func (m *Holes) Tell() [][]reason.Text {
	out := make([][]reason.Text, len(m.Cards))
	for i := range m.Cards {
		out[i] = m.cardSteps(m.Cards[i], &m.Designs[i].Sized)
	}
	return out
}

// cardSteps says how one hole is dug and filled, in order.
func (m *Holes) cardSteps(c Card, s *Size) []reason.Text {
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

func (m *Holes) digSteps(add func(...any), c Card, s *Size) {
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
	case s.lowered > slope.LowersAnything:
		add("The ground here is cut by ", s.lowered, " afterwards: measured from the finished ground the concrete's bottom is ", c.UnderFinished, " down.")
	case s.lowered < -slope.LowersAnything:
		add("The ground here is filled by ", -s.lowered, " afterwards: measured from the finished ground the concrete's bottom is ", c.UnderFinished, " down.")
	}
	if s.hit != nil && s.Depth.Stopped {
		add("The hole stops on ", stage.StruckNames[s.hit.What], " at ", s.hit.Depth, "; the rules ask for ", s.Depth.Rounded+s.lowered, ".")
		if s.hit.What == job.HitWater {
			add("Bail it out and fill at once, from the bottom up, so that the mix is not washed out.")
		}
	}
	if h := s.Rules.Hole; h.Bell > c.Width {
		add("Bell it out to ", h.Bell, " at the bottom of the concrete, ", c.Bottom, " down, over ", min(h.BellHeight, c.Bottom), "; not in the gravel.")
	}
	if s.Rules.Hole.Taper > 0 {
		add("A hand tool leaves it ", s.Rules.Hole.Taper, " wider at the top: that much more goes in.")
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
func (m *Holes) pourSteps(add func(...any), c Card, s *Size) {
	set := s.Rules.Setting
	if c.FillTo != nil {
		add("Fill the hole up to ", max(0, *c.FillTo), " below ground and no higher: the post pushes the mix up to where it belongs. Then push the post down into it and set it plumb before the mix stiffens.")
	} else {
		add(c.Method.Told().Starts)
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

// holeCautions stand where holes are belled, drilled, packed with stone and
// weighed against the wind.
func HoleCautions(runs []*Holes) []stage.Caution {
	belled, pinned, stone, wind := false, false, false, false
	for _, m := range runs {
		for i := range m.Cards {
			c := &m.Cards[i]
			stone = stone || c.Stone > 0
			pinned = pinned || c.Pin > 0
			belled = belled || m.Designs[i].Sized.Rules.Hole.Bell > c.Width
			wind = true
		}
	}
	var out []stage.Caution
	add := func(when finding.Stage, says string) {
		out = append(out, stage.Caution{Stage: when, Says: reason.Say(says)})
	}
	if belled {
		add(finding.Dig, "A bell is cut from above with a bar; nobody goes head first into a hole, and loose sides are not undercut.")
	}
	if pinned {
		add(finding.Dig, "Drilling rock throws chips and a dust that harms lungs: goggles, mask, water on the drill.")
	}
	if stone {
		add(finding.Pour, "Stone over 25 kg (55 lb) is carried by two, and set down, not dropped beside a foot or a post.")
	}
	if wind {
		add(finding.Dig, "Gust figures compare footings by a published formula. They approve nothing: where wind can throw a fence on someone, an engineer decides.")
	}
	return out
}

// levels are the rules at every level of the run, for whoever changes them.
func (m *Holes) Levels() []stage.RuleLevel {
	out := m.Run.Levels()
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.spot < 0 || p.Shared != "" {
			continue
		}
		l := m.Level(job.PostLevel, p.ID, fmt.Sprintf("%s/spots/%d", m.Path, p.spot), true, m.SpotRules(p.Kind, p.spot))
		l.Post, l.Refused = p.ID, m.Refused(p.Kind)
		out = append(out, l)
	}
	return out
}
