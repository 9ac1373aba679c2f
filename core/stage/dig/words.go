package dig

import (
	"math"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/slope"
	"mallow/core/words"
)

// telling says what to do at a run's holes.
type telling struct{ *Holes }

// tell says what to do at every kind of hole, in order.
func (m *Holes) Tell() [][]reason.Text {
	out := make([][]reason.Text, len(m.Cards))
	for i := range m.Cards {
		out[i] = telling{m}.cardSteps(m.Cards[i], &m.Designs[i].Sized)
	}
	return out
}

// cardSteps says how one hole is dug and filled, in order.
func (m telling) cardSteps(c Card, s *Size) []reason.Text {
	var out []reason.Text
	add := func(t reason.Text) { out = append(out, t) }
	if c.Method == job.Drive {
		add(words.Say("dig.drive-the-post-into-undisturbed", words.V{"foot": c.Foot}))
		if c.Depth > 0 {
			add(words.Say("dig.open-a-collar-wide-and", words.V{"width": c.Width}))
			m.pourSteps(add, c, s)
		}
		return out
	}
	m.digSteps(add, c, s)
	if c.Gravel > 0 && c.Depth > c.Bottom {
		add(words.Say("dig.gravel-deep-tamped-trim-the", words.V{"depth": c.Depth - c.Bottom, "layerOf": layerOf(c.Layers, footing.GravelLayer)}))
	}
	if c.Pin > 0 {
		add(words.Say("dig.drill-the-rock-and-grout", words.V{"pin": c.Pin, "pinned": c.Pinned}))
	}
	switch stand := c.Bottom - c.Foot; {
	case stand > length.Tolerance:
		add(words.Say("dig.the-posts-foot-stands-above", words.V{"stand": stand, "foot": c.Foot}))
	case stand < -length.Tolerance:
		add(words.Say("dig.work-the-posts-foot-into", words.V{"stand": -stand, "foot": c.Foot}))
	}
	m.pourSteps(add, c, s)
	if c.Spoil > 0 {
		add(words.Say("dig.carry-away-of-loose-soil", words.V{"spoil": c.Spoil}))
	}
	return out
}

func (m telling) digSteps(add func(reason.Text), c Card, s *Size) {
	if s.widened {
		add(words.Say("dig.lever-the-old-footing-out"))
	}
	switch {
	case c.Square:
		add(words.Say("dig.dig-square-by-spade-deep", words.V{"width": c.Width, "depth": c.Depth}))
	case c.Auger:
		add(words.Say("dig.drill-with-the-auger-deep", words.V{"width": c.Width, "depth": c.Depth}))
	default:
		add(words.Say("dig.dig-wide-by-digger-or", words.V{"width": c.Width, "depth": c.Depth}))
	}
	switch {
	case s.lowered > slope.LowersAnything:
		add(words.Say("dig.the-ground-here-is-cut", words.V{"lowered": s.lowered, "underFinished": c.UnderFinished}))
	case s.placed > 0:
		add(words.Say("dig.the-fill-here-is-placed-first", words.V{"placed": s.placed, "wide": s.placedWide}))
	case s.loose > slope.LowersAnything:
		add(words.Say("dig.the-ground-here-is-filled", words.V{"loose": s.loose}))
	}
	if s.hit != nil && s.Depth.Stopped {
		add(words.Say("dig.the-hole-stops-on-at", words.V{"struck": stage.StruckNames[s.hit.What], "depth": s.hit.Depth, "rounded": s.Depth.Rounded + s.lowered}))
		if s.hit.What == job.HitWater {
			add(words.Say("dig.bail-it-out-and-fill"))
		}
	}
	if h := s.Rules.Hole; h.Bell > c.Width {
		add(words.Say("dig.bell-it-out-to-at", words.V{"bell": h.Bell, "bottom": c.Bottom, "bellHeight": min(h.BellHeight, c.Bottom)}))
	}
	if s.Rules.Hole.Taper > 0 {
		add(words.Say("dig.a-hand-tool-leaves-it", words.V{"taper": s.Rules.Hole.Taper}))
	}
	if c.Along != 0 || c.Across != 0 {
		add(words.Say("dig.the-holes-middle-lies-off", words.V{"offText": offText(c), "least": c.Least}))
	}
}

func offText(c Card) reason.Text {
	var t reason.Text
	if c.Along != 0 {
		t = append(t, words.Say("dig.along-the-run", words.V{"along": c.Along.Abs(), "way": stage.Heading(c.Along)})...)
	}
	if c.Across != 0 {
		if t != nil {
			t = append(t, words.Say("dig.and")...)
		}
		t = append(t, words.Say("dig.off-to-a-side", words.V{"across": c.Across.Abs(), "left": c.Across > 0})...)
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
		t = append(t, words.Say("dig.in-bags", words.V{"bags": tenths(c.Bags * float64(v/c.Concrete)), "bag": c.Bag})...)
	}
	return t
}

// tenths is how closely a bag is poured: nobody measures a hundredth of one.
func tenths(bags float64) float64 { return math.Round(bags*10) / 10 }

// upTo says how high a layer reaches.
func upTo(depth length.Length) reason.Text {
	switch {
	case depth > length.Tolerance:
		return words.Say("dig.up-to-below-ground", words.V{"depth": depth})
	case depth < -length.Tolerance:
		return words.Say("dig.up-to-above-ground", words.V{"depth": -depth})
	}
	return words.Say("dig.up-to-the-ground-2")
}

// pourSteps say how the hole is filled by the way its post is set.
func (m telling) pourSteps(add func(reason.Text), c Card, s *Size) {
	set := s.Rules.Setting
	if c.FillTo != nil {
		add(words.Say("dig.fill-the-hole-up-to", words.V{"value": max(0, *c.FillTo)}))
	} else {
		add(words.Say("dig.start-at-the-hole", words.V{"starts": c.Method.Told().Starts}))
	}
	for _, l := range c.Layers {
		height := l.To - l.From
		switch l.Kind {
		case footing.RocksLayer:
			add(words.Say("dig.rocks-up-to-below-ground", words.V{"from": l.From, "stone": l.Stone, "mixed": mixed(c, l.Concrete)}))
		case footing.LargeStone, footing.MiddleStone, footing.SmallStone:
			add(words.Say("dig.wedged-and-tamped-no-voids", words.V{"packed": packed[l.Kind], "height": height, "volume": l.Volume}))
		case footing.ConcreteLayer:
			if l.Stone > 0 {
				add(words.Say("dig.concrete-high-with-of-clean", words.V{"height": height, "upTo": upTo(l.From), "mixed": mixed(c, l.Concrete), "stone": l.Stone}))
				continue
			}
			add(words.Say("dig.concrete-high", words.V{"height": height, "upTo": upTo(l.From), "mixed": mixed(c, l.Concrete)}))
		case footing.GravelLayer:
			if l.To < c.Bottom-length.Tolerance { // a drain between two layers of mix
				add(words.Say("dig.gravel-high-up-to-below", words.V{"height": height, "from": l.From, "volume": l.Volume}))
			}
		case footing.InsideLayer:
			where := upTo(l.From)
			if c.Core > 0 {
				add(words.Say("dig.steel-core-in-the-post", words.V{"core": c.Core, "where": where, "mixed": mixed(c, l.Concrete)}))
				continue
			}
			add(words.Say("dig.the-post-fills", words.V{"where": where, "mixed": mixed(c, l.Concrete)}))
		case footing.CrownLayer:
			add(words.Say("dig.crown-it-high-at-the", words.V{"crown": set.Crown, "mixed": mixed(c, l.Concrete)}))
		case footing.SoilLayer:
			add(words.Say("dig.soil-over-it", words.V{"height": height, "volume": l.Volume}))
		case footing.MoundLayer:
			add(words.Say("dig.mound-the-soil-high-at", words.V{"mound": set.Mound}))
		}
	}
}

var packed = map[footing.LayerKind]string{
	footing.LargeStone: words.Plain("dig.large-stone-low"), footing.MiddleStone: words.Plain("dig.middle-stone"), footing.SmallStone: words.Plain("dig.small-stone-on-top"),
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
	add := func(when finding.Stage, says reason.Text) {
		out = append(out, stage.Caution{Stage: when, Says: says})
	}
	if belled {
		add(finding.Dig, words.Say("dig.a-bell-is-cut-from"))
	}
	if pinned {
		add(finding.Dig, words.Say("dig.drilling-rock-throws-chips-and"))
	}
	if stone {
		add(finding.Pour, words.Say("dig.stone-over-25-kg-55"))
	}
	if wind {
		add(finding.Dig, words.Say("dig.gust-figures-compare-footings-by"))
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
		l := m.Level(job.PostLevel, p.Label, job.At(m.Path, "overrides", m.Spec.Overrides[p.spot].ID), true, m.OverrideRules(p.Kind, p.spot))
		l.Post, l.Refused = p.Label, m.Refused(p.Kind)
		out = append(out, l)
	}
	return out
}
