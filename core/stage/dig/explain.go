package dig

import (
	"math"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/words"
)

// explaining words why a figure of a run's holes is what it is.
type explaining struct{ *Holes }

// explain says why a figure of a run's holes is what it is.
func (m *Holes) Explain(f stage.Figure) (reason.Why, bool) {
	if f.Of != "post" {
		return m.Slope.Explain(f)
	}
	i := m.PostAt(f.ID)
	if i < 0 {
		return reason.Why{}, false
	}
	return m.WhyPost(i, f)
}

func (m *Holes) WhyPost(i int, f stage.Figure) (reason.Why, bool) {
	p := &m.Posts[i]
	switch f.What {
	case "holeWidth", "holeDepth", "concrete", "stock":
		if p.Stays != "" {
			return space.WhyStays(), true
		}
	case "gust":
		if p.Wind == nil {
			return reason.Why{}, false
		}
		d := &m.Designs[p.Card]
		return explaining{m}.whyGust(p, d, m.Stand(i, d)), true
	default:
		return m.Slope.Explain(f)
	}
	switch f.What {
	case "stock":
		return explaining{m}.whyStock(p), true
	case "holeDepth":
		return explaining{m}.whyHoleDepth(i), true
	}
	if p.Driven {
		return explaining{m}.whyDriven(p), true
	}
	if f.What == "concrete" {
		return explaining{m}.whyConcrete(p), true
	}
	return explaining{m}.whyHoleWidth(i), true
}

// whyHoleWidth explains how wide a hole is from the trace of how it was sized.
func (m explaining) whyHoleWidth(i int) reason.Why {
	p := m.Posts[i]
	t := m.size(&p, i)
	switch t.widthBy {
	case nil:
		return m.whyRepour(t.Width.Width)
	case t.other:
		return reasons{m.next.Run}.whyWidth(t.other)
	}
	return reasons{m.Run}.whyWidth(&t.own)
}

// whyHoleDepth explains how deep a hole is, likewise.
func (m explaining) whyHoleDepth(i int) reason.Why {
	p := m.Posts[i]
	t := m.size(&p, i)
	if t.depthBy != nil && t.depthBy == t.other {
		return reasons{m.next.Run}.whyDepth(t.other)
	}
	return reasons{m.Run}.whyDepth(&t.own)
}

// holeReasons words what the rules of a run ask of a hole.
type reasons struct{ *stage.Run }

// whyDriven explains a driven post.
func (m explaining) whyDriven(p *Post) reason.Why {
	s := &m.Designs[p.Card].Sized
	h := s.Rules.Hole
	w := reason.Why{Figure: words.Plain("dig.driven-post"), Sentence: words.Say("dig.driven-into-undisturbed-soil-no", words.V{"foot": p.Foot}),
		Steps: []reason.Step{{Rule: words.Plain("dig.driven-posts"), Governs: true, Source: stage.Practice,
			Says:     words.Say("dig.only-into-soil-that-nobody"),
			Settings: []reason.Setting{m.Rule(s.Rules, "hole/driven")}}},
		Caution: words.Plain("dig.locate-services-first-a-driven")}
	if h.Collar > 0 {
		w.Sentence = words.Say("dig.driven-into-undisturbed-soil-with", words.V{"foot": p.Foot, "collar": h.Collar})
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("dig.collar"), Source: stage.Practice, Says: words.Say("dig.of-concrete-each", words.V{"concreteVolume": p.ConcreteVolume}),
			Settings: []reason.Setting{m.Rule(s.Rules, "hole/collar")}})
	}
	return w

}

// whyRepour explains a hole that takes an old footing out.
func (m explaining) whyRepour(wide length.Length) reason.Why {
	return reason.Why{Figure: words.Plain("dig.hole-width"),
		Sentence: words.Say("dig.the-old-footing-is-dug", words.V{"wide": wide}),
		Steps: []reason.Step{{Rule: words.Plain("dig.dug-out-and-poured-wider"), Governs: true, Source: stage.Practice,
			Says: words.Say("dig.soil-beside-a-pulled-footing")}},
		Caution: words.Plain("dig.old-concrete-is-heavy-lever")}

}

// loweredSays goes on from how deep a hole is under the finished ground to how
// deep it is dug.
func loweredSays(s *Size) reason.Text {
	switch {
	case s.lowered > slope.LowersAnything:
		return words.Say("dig.all-that-from-the-ground", words.V{"lowered": s.lowered, "hole": s.dug().Hole})
	case s.placed > 0:
		return words.Say("dig.from-the-top-of-placed-fill", words.V{"placed": s.placed, "wide": s.placedWide, "hole": s.dug().Hole})
	case s.loose > slope.LowersAnything && s.placedWide > 0:
		return words.Say("dig.placed-fill-too-narrow", words.V{"loose": s.loose, "wide": s.placedWide})
	case s.loose > slope.LowersAnything:
		return words.Say("dig.loose-fill-holds-nothing", words.V{"loose": s.loose})
	}
	return nil
}

func (m explaining) whyConcrete(p *Post) reason.Why {
	d, c := &m.Designs[p.Card], &m.Cards[p.Card]
	r := d.Sized.Rules
	w := reason.Why{Figure: words.Plain("dig.concrete"), Caution: words.Plain("dig.wet-concrete-burns-skin-and")}
	if c.Method == job.RockPacked {
		w.Figure, w.Caution = words.Plain("dig.filling"), ""
		w.Sentence = words.Say("dig.no-concrete-of-stone-packed", words.V{"stone": c.Stone})
	} else {
		w.Sentence = words.Say("dig.volume-comes-to", words.V{"volume": m.roundPost(d), "concrete": c.Concrete})
		if c.Bag != "" {
			w.Sentence = append(w.Sentence, words.Say("dig.or-of-a", words.V{"bags": c.Bags, "bag": c.Bag})...)
		}
		w.Sentence = append(w.Sentence, words.Say("dig.full-stop")...)
	}
	w.Steps = m.fillSteps(d, c)
	if d.Bag.Yield > 0 && c.Method != job.RockPacked {
		w.Steps = append(w.Steps, m.BagStep(r, d.Bag))
	}
	return w

}

// roundPost says what the concrete in a hole is the difference of.
func (m explaining) roundPost(d *Design) reason.Text {
	hole, post := d.Shape.Volume(d.Sized.dug().Bottom-d.Fill.ConcreteHeight, d.Sized.dug().Bottom), length.Volume(0)
	if d.Sized.Driven {
		hole = d.Fill.Dug
	}
	for _, l := range d.Fill.Layers {
		if l.Kind == footing.ConcreteLayer || l.Kind == footing.RocksLayer {
			post += l.Volume
		}
	}
	post = hole - post
	t := words.Say("dig.of-concrete-in-a-hole", words.V{"concreteHeight": d.Fill.ConcreteHeight, "at": d.Shape.At(d.Sized.dug().Bottom / 2), "hole": hole, "post": post})
	for _, l := range d.Fill.Layers {
		switch l.Kind {
		case footing.InsideLayer:
			t = append(t, words.Say("dig.and-inside-it", words.V{"concrete": l.Concrete})...)
		case footing.CrownLayer:
			t = append(t, words.Say("dig.and-of-crown", words.V{"concrete": l.Concrete})...)
		case footing.RocksLayer:
			t = append(t, words.Say("dig.less-of-rocks", words.V{"stone": l.Stone})...)
		case footing.GravelLayer:
			if l.To < d.Sized.dug().Bottom-length.Tolerance {
				t = append(t, words.Say("dig.and-a-drain-of-gravel")...)
			}
		case footing.ConcreteLayer:
			if l.Stone > 0 {
				t = append(t, words.Say("dig.less-of-rubble", words.V{"stone": l.Stone})...)
			}
		}
	}
	return t
}

// fillSteps are the choices behind what goes into a hole.
func (m explaining) fillSteps(d *Design, c *Card) []reason.Step {
	r := d.Sized.Rules
	set := r.Setting
	steps := []reason.Step{{Rule: words.Plain("dig.way-of-setting"), Governs: true, Source: stage.Practice, Says: reason.Say(set.Method.Told().Costs),
		Settings: []reason.Setting{m.Rule(r, "setting/method")}}}
	add := func(rule string, source reason.Source, says reason.Text, settings ...reason.Setting) {
		steps = append(steps, reason.Step{Rule: rule, Source: source, Says: says, Settings: settings})
	}
	if d.Sized.Driven {
		steps = steps[:0]
	} else if c.Method != job.RockPacked {
		add(words.Plain("dig.hole-less-post"), stage.Geometry, words.Say("dig.from-the-bottom-down-high", words.V{"bottom": c.Bottom, "concreteHeight": d.Fill.ConcreteHeight}))
		if set.Top == job.CrownTop {
			add(words.Plain("dig.crown"), stage.Practice, words.Say("dig.crowned-high-at-the-post", words.V{"crown": set.Crown}),
				m.topSetting(r), m.Rule(r, "setting/crown"))
		} else {
			add(words.Plain("dig.soil-cover"), stage.Practice, words.Say("dig.stopped-short-and-mounded-with", words.V{"cover": m.AsEntered(r, "setting/cover", set.Cover)}),
				m.topSetting(r), m.Rule(r, "setting/cover"))
		}
		add(words.Plain("dig.rubble"), stage.Practice, words.Say("dig.clean-rubble-in-the-mix", words.V{"rubble": set.Rubble}), m.Rule(r, "setting/rubble"))
	}
	if set.Method == job.Slurry {
		add(words.Plain("dig.rocks-first"), reason.Source{Kind: reason.Practice, Name: words.Plain("dig.room-between-rocks-two-fifths")}, words.Say("dig.rocks-to-below-ground-bonded", words.V{"rocksTo": set.RocksTo, "voids": 100 * m.Cat.Supply.Voids}),
			m.Rule(r, "setting/rocksTo"))
	}
	if d.Sized.q.Post.Hollow {
		add(words.Plain("dig.inside-the-post"), stage.Practice, reason.Say(insides[set.Inside]),
			m.Rule(r, "setting/inside"))
	}
	if !d.Sized.Driven {
		add(words.Plain("dig.gravel"), stage.Practice, words.Say("dig.under-the-bottom-takes-tamped", words.V{"depth": c.Depth - c.Bottom, "layerOf": layerOf(c.Layers, footing.GravelLayer)}), m.Rule(r, "setting/gravel"))
	}
	return steps
}

func (m explaining) topSetting(r *job.Rules) reason.Setting {
	return m.Rule(r, "setting/top")
}

var insides = map[job.Inside]string{
	job.OpenInside:   words.Plain("dig.open-at-the-foot-it"),
	job.ClosedInside: words.Plain("dig.closed-at-the-foot-nothing"),
	job.CoreInside:   words.Plain("dig.a-steel-core-takes-the"),
}

func (m explaining) whyStock(p *Post) reason.Why {
	s := words.Say("dig.above-and-below", words.V{"above": p.AboveGrade, "foot": p.Foot})
	if !p.CutFirst {
		s = append(s, words.Say("dig.and-to-trim", words.V{"trim": m.Spec.Post.Trim})...)
	}
	if p.Stock != nil {
		s = append(s, words.Say("dig.comes-to-a-post", words.V{"needed": p.Needed, "stock": *p.Stock, "cutOff": *p.CutOff})...)
	} else {
		s = append(s, words.Say("dig.comes-to-no-post", words.V{"needed": p.Needed})...)
	}
	return reason.Why{Figure: words.Plain("dig.post-length"), Sentence: s, Steps: m.stockSteps()}

}

func (m explaining) stockSteps() []reason.Step {
	return []reason.Step{
		{Rule: words.Plain("dig.next-stock-length-up"), Governs: true, Source: stage.Yours, Says: words.Say("dig.sold-in", words.V{"list": stage.List(m.Spec.Post.Stock)})},
		{Rule: words.Plain("dig.trim"), Source: stage.Practice, Says: words.Say("dig.spare-to-cut-to-the"),
			Settings: []reason.Setting{m.Measured("/post/trim", words.Plain("dig.trim"), m.Spec.Post.Trim, m.Usual.Post.Trim)}},
		{Rule: words.Plain("dig.when-tops-are-cut"), Source: stage.Practice, Says: reason.Say(cuttings[m.cutting()]),
			Settings: []reason.Setting{m.Choice("/post/cut", words.Plain("dig.tops-are-cut"), string(m.cutting()), string(job.CutAfter), string(job.CutAfter), string(job.CutFirst))}},
	}

}

// cutting is when the run's tops are cut.
func (m explaining) cutting() job.Cutting {
	if m.Spec.Post.Cut == job.CutFirst {
		return job.CutFirst
	}
	return job.CutAfter
}

var cuttings = map[job.Cutting]string{
	job.CutAfter: words.Plain("dig.left-long-and-cut-in"),
	job.CutFirst: words.Plain("dig.cut-to-length-on-trestles"),
}

func (m reasons) whyWidth(s *Size) reason.Why {
	w, h := s.Width, s.q.Hole
	var steps []reason.Step
	for i, a := range w.Asks {
		step := m.widthStep(s, a)
		step.Governs = !w.ByHand && i == w.Governs
		steps = append(steps, step)
	}
	sentence := reason.Say(steps[w.Governs].Says)
	if w.Extra > 0 {
		sentence = append(sentence, words.Say("dig.more-for-its-kind-of", words.V{"extra": w.Extra})...)
	}
	steps = append(steps, m.widthExtras(s)...)
	switch {
	case w.ByHand:
		sentence = words.Say("dig.set-by-hand-to-the", words.V{"width": w.Width, "wanted": w.Wanted})
	case w.Auger && !h.AnyWidth && h.Shape != job.SquareHole && w.Width < w.Wanted-length.Tolerance:
		sentence = append(sentence, words.Say("dig.the-auger-is-narrower-and", words.V{"width": w.Width, "wanted": w.Wanted - w.Width})...)
	case w.Auger && !h.AnyWidth && h.Shape != job.SquareHole:
		sentence = append(sentence, words.Say("dig.the-auger-is-the-next", words.V{"width": w.Width})...)
	case h.Shape == job.SquareHole:
		sentence = append(sentence, words.Say("dig.square-by-spade", words.V{"width": w.Width})...)
	case h.AnyWidth:
		sentence = append(sentence, words.Say("dig.not-rounded-to-an-auger", words.V{"width": w.Width})...)
	default:
		sentence = append(sentence, words.Say("dig.no-auger-is-that-wide", words.V{"width": w.Width})...)
	}
	byHand := reason.Step{Rule: ruleName(footing.ByHand), Source: stage.Yours, Governs: w.ByHand, Says: words.Say("dig.over-all-rules-when-it"),
		Settings: []reason.Setting{m.Rule(s.Rules, "hole/width")}}
	return reason.Why{Figure: words.Plain("dig.hole-width"), Sentence: sentence, Steps: append(steps, byHand)}

}

func (m reasons) widthStep(s *Size, a footing.Ask) reason.Step {
	h, r := s.q.Hole, s.Rules
	step := reason.Step{Rule: ruleName(a.Rule), Source: stage.Practice}
	switch a.Rule {
	case footing.FactorRule:
		step.Says = words.Say("dig.factor-of-width", words.V{"factor": h.Factor(s.q.Post.Width), "width": s.q.Post.Width, "value": a.Value})
		step.Settings = []reason.Setting{m.Rule(r, "hole/widthFactor"),
			m.Rule(r, "hole/wideFactor")}
	case footing.CommonRule:
		step.Says = words.Say("dig.is-what-crews-dig-for", words.V{"value": a.Value})
		step.Settings = []reason.Setting{m.Rule(r, "hole/commonWidth"),
			m.Rule(r, "hole/widthFactor")}
	case footing.SpadeRule:
		step.Says = words.Say("dig.a-spade-needs-to-work", words.V{"value": a.Value})
		step.Settings = []reason.Setting{m.Rule(r, "hole/spade")}
	default:
		step.Source = stage.Geometry
		step.Says = words.Say("dig.the-post-is-across", words.V{"value": a.Value})
		if h.SkipFactor {
			step.Settings = []reason.Setting{m.Rule(r, "hole/skipFactor")}
		}
	}
	return step
}

// widthExtras is what comes on top of the rules of width.
func (m reasons) widthExtras(s *Size) []reason.Step {
	h, r := s.q.Hole, s.Rules
	var out []reason.Step
	add := func(rule string, source reason.Source, says reason.Text, set ...reason.Setting) {
		out = append(out, reason.Step{Rule: rule, Source: source, Says: says, Settings: set})
	}
	switch s.q.Kind {
	case job.GatePost:
		add(words.Plain("dig.gate-posts-wider"), stage.Practice, words.Say("dig.wider-for-the-pull-of", words.V{"gateExtraWidth": h.GateExtraWidth}), m.Rule(r, "hole/gateExtraWidth"))
		if s.q.Hung {
			add(words.Plain("dig.hinge-posts-wider"), stage.Practice, words.Say("dig.wider-still-where-the-leaf", words.V{"hingeExtraWidth": h.HingeExtraWidth}), m.Rule(r, "hole/hingeExtraWidth"))
		}
	case job.EndPost, job.CornerPost:
		add(words.Plain("dig.end-and-corner-posts-wider"), stage.Practice, words.Say("dig.wider-for-the-pull-of-2", words.V{"endExtraWidth": h.EndExtraWidth}), m.Rule(r, "hole/endExtraWidth"))
	}
	if off := max(h.Along.Abs(), h.Across.Abs()); off > 0 {
		add(words.Plain("dig.hole-beside-the-posts-middle"), stage.Geometry, words.Say("dig.off-by-it-still-has", words.V{"off": off}),
			m.Rule(r, "hole/along"), m.Rule(r, "hole/across"))
	}
	add(words.Plain("dig.shape-of-the-hole"), stage.Practice, words.Say("dig.round-by-auger-or-digger"), m.Rule(r, "hole/shape"))
	add(words.Plain("dig.augers-to-be-had"), stage.Yours, words.Say("dig.rounded-up-to", words.V{"list": stage.List(h.Augers)}), m.Rule(r, "hole/anyWidth"))
	return out
}

func (m reasons) whyDepth(s *Size) reason.Why {
	w := reason.Why{
		Figure:  words.Plain("dig.hole-depth"),
		Steps:   m.depthSteps(s),
		Asked:   make([]length.Length, len(s.Depth.Asks)),
		Caution: words.Plain("dig.frost-depth-and-footing-depth"),
	}
	for i, a := range s.Depth.Asks {
		w.Asked[i] = a.Value
	}
	w.Sentence = depthSentence(s.q, s.Depth, w.Steps)
	if s.longer > length.Tolerance {
		w.Sentence = append(w.Sentence, words.Say("dig.its-post-is-not-cut", words.V{"longer": s.longer})...)
	}
	w.Sentence = append(w.Sentence, loweredSays(s)...)
	return w

}

// depthSteps are the rules of depth of one kind of post; those in force come
// first, in the order of the asks.
func (m reasons) depthSteps(s *Size) []reason.Step {
	governs := s.Depth.Governs
	if s.Depth.ByHand {
		governs = -1
	}
	var steps []reason.Step
	for i, a := range s.Depth.Asks {
		steps = append(steps, m.depthStep(s, a))
		steps[i].Governs = i == governs
	}
	return append(steps, m.depthExtras(s)...)

}

// depthSentence says in one sentence what governs and what comes on top:
// 36" frost + 6" = 42" governs over a third of the height above, 24".
func depthSentence(q footing.Question, d footing.Depth, steps []reason.Step) reason.Text {
	var s reason.Text
	greatest := length.Length(0)
	switch {
	case d.ByHand:
		s = words.Say("dig.depth-by-hand", words.V{"foot": d.Foot, "rounded": d.Rounded})
	case d.Governs < 0:
		s = words.Say("dig.no-rule-is-in-force")
	default:
		greatest = d.Asks[d.Governs].Value
		if d.Asks[d.Governs].Rule == footing.ShareRule {
			s = words.Say("dig.share-of-height-above", words.V{"share": string(q.Hole.Share), "above": q.AboveGrade, "greatest": greatest})
		} else {
			s = append(s, steps[d.Governs].Says...)
		}
		s = append(s, words.Say("dig.governs")...)
		if next := runnerUp(d); next >= 0 {
			s = append(s, words.Say("dig.governs-over", words.V{"rule": stage.Lower(ruleName(d.Asks[next].Rule)), "value": d.Asks[next].Value})...)
		}
	}
	if !d.ByHand && d.Extra > 0 {
		s = append(s, words.Say("dig.deeper-for-its-kind", words.V{"extra": d.Extra})...)
	}
	if !d.ByHand && !length.Same(d.Rounded, greatest+d.Extra) {
		s = append(s, words.Say("dig.and-rounded-up-to", words.V{"rounded": d.Rounded})...)
	}
	switch {
	case d.Stopped:
		s = append(s, words.Say("dig.depth-stopped-short", words.V{"hole": d.Hole})...)
	case d.Gravel > 0:
		s = append(s, words.Say("dig.depth-with-gravel", words.V{"gravel": d.Gravel, "hole": d.Hole})...)
	}
	return append(s, words.Say("dig.full-stop")...)
}

// ruleName is what a rule of holes is called.
func ruleName(r footing.Rule) string { return words.Plain("dig.rule-" + string(r)) }

func runnerUp(d footing.Depth) int {
	best := -1
	for i, a := range d.Asks {
		if i != d.Governs && (best < 0 || a.Value > d.Asks[best].Value) {
			best = i
		}
	}
	return best
}

func (m reasons) shareSetting(r *job.Rules) reason.Setting {
	return m.Rule(r, "hole/share")
}

func (m reasons) depthStep(s *Size, a footing.Ask) reason.Step {
	h, r := s.q.Hole, s.Rules
	switch a.Rule {
	case footing.FrostRule:
		return m.frostStep(s, a)
	case footing.ShareRule:
		return reason.Step{Rule: ruleName(a.Rule), Source: stage.Practice, Says: words.Say("dig.height-above", words.V{"share": string(h.Share)}), Settings: []reason.Setting{m.shareSetting(r)}}
	}
	says := words.Say("dig.never-less-than", words.V{"least": m.AsEntered(r, "hole/floor", h.Floor)})
	if h.FloorPerHeight > 0 {
		says = append(says, words.Say("dig.per-height-comes-to", words.V{"perHeight": m.perHeight(r), "value": a.Value})...)
	}
	return reason.Step{Rule: ruleName(a.Rule), Source: stage.Practice, Says: says,
		Settings: []reason.Setting{
			m.Rule(r, "hole/floor"),
			m.Rule(r, "hole/floorPerHeight"),
			m.Rule(r, "hole/skipFloor")}}
}

// perHeight says what is added to the floor in the units in which the rule
// was entered: 3 in for each foot, or 250 mm for each metre.
func (m reasons) perHeight(r *job.Rules) reason.Text {
	sys, ok := r.Entered["hole/floorPerHeight"]
	if !ok {
		sys = m.Job.Units.System
	}
	per := length.Length(r.Hole.FloorPerHeight)
	if sys == length.Metric {
		return words.Say("dig.for-each-metre-of-height", words.V{"rise": reason.As{Length: per * length.Metre, System: sys}, "over": reason.As{Length: 4 * length.Foot, System: sys}})
	}
	return words.Say("dig.for-each-foot-of-height", words.V{"rise": reason.As{Length: per * length.Foot, System: sys}, "over": reason.As{Length: 4 * length.Foot, System: sys}})
}

func (m reasons) frostStep(s *Size, a footing.Ask) reason.Step {
	h := s.q.Hole
	step := reason.Step{Rule: ruleName(a.Rule), Source: reason.Source{Kind: reason.Yours, Name: words.Plain("dig.frost-depth-from-the-local")},
		Says: words.Say("dig.frost-and-margin", words.V{"frost": *s.q.Frost, "frostMargin": h.FrostMargin, "value": a.Value})}
	frost := reason.Setting{Path: "/site/frostDepth", Name: words.Plain("dig.frost-depth"), Kind: reason.LengthSetting, From: words.Plain("dig.the-site")}
	if _, estimated := m.Frost(); estimated {
		step.Says = words.Say("dig.frost-an-estimate", words.V{"frost": *s.q.Frost, "frostMargin": h.FrostMargin, "value": a.Value})
		step.Source = reason.Source{Kind: reason.Memory, Name: words.Plain("dig.estimated-by-the-modified-berggren")}
		frost.Name = words.Plain("dig.frost-depth-by-the-local")
	} else {
		frost.Value = *s.q.Frost
	}
	step.Settings = []reason.Setting{frost, m.Rule(s.Rules, "hole/frostMargin"), m.Rule(s.Rules, "hole/skipFrost")}
	return step
}

// depthExtras is what comes on top of the rules.
func (m reasons) depthExtras(s *Size) []reason.Step {
	h, r, q := s.q.Hole, s.Rules, s.q
	var steps []reason.Step
	add := func(rule string, source reason.Source, says reason.Text, set ...reason.Setting) {
		steps = append(steps, reason.Step{Rule: rule, Source: source, Says: says, Settings: set})
	}
	switch {
	case h.SkipFrost:
		add(words.Plain("dig.rule-frost"), stage.Yours, words.Say("dig.left-out"), m.Rule(r, "hole/skipFrost"))
	case q.Frost == nil:
		add(words.Plain("dig.rule-frost"), stage.Yours, words.Say("dig.not-entered-ask-the-local"),
			reason.Setting{Path: "/site/frostDepth", Name: words.Plain("dig.frost-depth"), Kind: reason.LengthSetting})
	}
	if h.Share == job.NoShare {
		add(ruleName(footing.ShareRule), stage.Practice, words.Say("dig.not-in-force"), m.shareSetting(r))
	}
	if h.SkipFloor {
		add(ruleName(footing.FloorRule), stage.Practice, words.Say("dig.left-out"), m.Rule(r, "hole/skipFloor"))
	}
	switch q.Kind {
	case job.GatePost:
		add(words.Plain("dig.gate-posts-deeper"), stage.Practice, words.Say("dig.a-gate-post-goes-deeper", words.V{"gateExtraDepth": h.GateExtraDepth}), m.Rule(r, "hole/gateExtraDepth"))
		if q.Hung {
			add(words.Plain("dig.hinge-posts-deeper"), stage.Practice, words.Say("dig.the-post-that-the-leaf", words.V{"hingeExtraDepth": h.HingeExtraDepth}), m.Rule(r, "hole/hingeExtraDepth"))
		}
	case job.EndPost, job.CornerPost:
		add(words.Plain("dig.end-and-corner-posts-deeper"), stage.Practice, words.Say("dig.an-end-or-corner-post", words.V{"endExtraDepth": h.EndExtraDepth}), m.Rule(r, "hole/endExtraDepth"))
	}
	add(words.Plain("dig.rounded-up"), stage.Practice, words.Say("dig.to-a-multiple-of-so", words.V{"roundDepthTo": h.RoundDepthTo}), m.Rule(r, "hole/roundDepthTo"))
	if !s.Driven {
		add(words.Plain("dig.gravel-under-the-post"), stage.Practice, words.Say("dig.of-tamped-gravel-below-the", words.V{"gravel": q.Gravel}),
			m.Rule(r, "setting/gravel"))
		add(words.Plain("dig.foot-of-the-post"), stage.Practice, reason.Say(standSays(q.Stand)), m.Rule(r, "setting/stand"))
	}
	if s.Depth.Stopped {
		add(words.Plain("dig.stopped-rule"), stage.Yours, words.Say("dig.rock-or-water-stopped-the", words.V{"hole": s.Depth.Hole}))
	}
	add(ruleName(footing.ByHand), stage.Yours, words.Say("dig.depth-of-the-posts-foot"), m.Rule(r, "hole/depth"))
	steps[len(steps)-1].Governs = s.Depth.ByHand
	return steps
}

func standSays(stand length.Length) reason.Text {
	switch {
	case stand > 0:
		return words.Say("dig.it-stands-above-the-concretes", words.V{"stand": stand})
	case stand < 0:
		return words.Say("dig.it-reaches-into-the-gravel", words.V{"stand": -stand})
	}
	return words.Say("dig.it-stands-on-the-gravel")
}

func (m explaining) whyGust(p *Post, d *Design, st stood) reason.Why {
	out := reason.Why{
		Figure:  words.Plain("dig.gust-at-the-footings-limit"),
		Caution: words.Plain("dig.a-figure-to-compare-choices"),
		Steps:   m.windSteps(d, st),
	}
	id := "dig.gust-of-a-hole"
	if d.Sized.Driven {
		id = "dig.gust-of-a-driven-post"
	}
	out.Sentence = words.Say(id, words.V{"soil": stage.Lower(m.Soil.Name), "width": p.HoleWidth, "bottom": p.Bottom, "gust": reason.Speed(p.Wind.Gust), "at": length.Length(st.lateral.Height) * length.Foot})
	if p.Wind.Leaf != nil {
		out.Steps = append(out.Steps, leafStep(p.Wind.Leaf))
	}
	return out

}

// windSteps are the rules behind the gusts of posts with the same rules.
func (m explaining) windSteps(d *Design, st stood) []reason.Step {
	kind := words.Plain("dig.free-at-the-ground")
	if st.lateral.Restrained {
		kind = words.Plain("dig.held-at-the-ground")
	}
	steps := []reason.Step{
		{Rule: words.Plain("dig.post-in-soil"), Source: reason.Source{Kind: reason.Memory, Name: words.Plain("dig.source-ibc-1807-3")}, Governs: true, Says: append(append(words.Say("dig.bearing", words.V{"kind": kind}), m.perDepth(st.lateral.Bearing)...), words.Say("dig.full-stop")...),
			Settings: []reason.Setting{m.Rule(d.Sized.Rules, "setting/restrained")}},
		{Rule: words.Plain("dig.soil"), Source: m.Soil.Source, Says: m.SoilSays()},
		{Rule: words.Plain("dig.wind-on-the-face"), Source: reason.Source{Kind: reason.Memory, Name: words.Plain("dig.asce-7-free-standing-wall")},
			Says: words.Say("dig.exposure-of-the-face-is", words.V{"exposed": string(m.Job.Site.Exposed()), "solidity": math.Round(100 * st.wind.Solidity)})},
	}
	if st.pin > 0 {
		steps = append(steps, reason.Step{Rule: words.Plain("dig.pin-in-the-rock"), Source: reason.Source{Kind: reason.Geometry, Name: words.Plain("dig.statics-the-pins-shear-is")}, Says: words.Say("dig.the-pin-holds-the-foot")})
	}
	return steps

}

// perDepth says a bearing of so many psf for each foot of depth.
func (m explaining) perDepth(psf float64) reason.Text {
	if m.Job.Units.System == length.Metric {
		return words.Say("dig.for-each-metre-of-depth", words.V{"psf": reason.Pressure(psf * length.PerSquareFoot / 0.3048)})
	}
	return words.Say("dig.for-each-foot-of-depth", words.V{"psf": reason.Pressure(psf * length.PerSquareFoot)})
}

func leafStep(l *LeafPull) reason.Step {
	says := words.Say("dig.a-leaf-of-wide-pulls", words.V{"mass": l.Mass, "width": l.Width, "moment": reason.Moment(l.Moment), "share": math.Round(100 * l.Share), "closed": reason.Speed(l.Closed), "open": reason.Speed(l.Open)})
	if l.Estimated {
		says = append(says, words.Say("dig.its-weight-is-an-estimate")...)
	}
	return reason.Step{Rule: words.Plain("dig.leaf"), Source: reason.Source{Kind: reason.Geometry, Name: words.Plain("dig.weight-times-half-the-width")}, Says: says}
}
