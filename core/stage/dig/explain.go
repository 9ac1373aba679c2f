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
)

// explain says why a figure of a run's holes is what it is.
func (m *Holes) Explain(f stage.Figure) (reason.Why, bool) {
	if f.Of != "post" {
		return m.Slope.Explain(f)
	}
	i := stage.PlaceOf(len(m.Posts), f.ID, func(i int) string { return m.Posts[i].ID })
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
		return m.whyGust(p, d, m.Stand(i, d)), true
	default:
		return m.Slope.Explain(f)
	}
	switch f.What {
	case "stock":
		return m.whyStock(p), true
	case "holeDepth":
		return m.whyHoleDepth(i), true
	}
	if p.Driven {
		return m.whyDriven(p), true
	}
	if f.What == "concrete" {
		return m.whyConcrete(p), true
	}
	return m.whyHoleWidth(i), true
}

// whyHoleWidth explains how wide a hole is from the trace of how it was sized.
func (m *Holes) whyHoleWidth(i int) reason.Why {
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
func (m *Holes) whyHoleDepth(i int) reason.Why {
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
func (m *Holes) whyDriven(p *Post) reason.Why {
	s := &m.Designs[p.Card].Sized
	h := s.Rules.Hole
	w := reason.Why{Figure: "Driven post", Sentence: reason.Say("Driven ", p.Foot, " into undisturbed soil: no hole."),
		Steps: []reason.Step{{Rule: "Driven posts", Governs: true, Source: stage.Practice,
			Says:     reason.Say("Only into soil that nobody has dug: an old hole or fill does not hold a driven post."),
			Settings: []reason.Setting{m.Rule(s.Rules, "hole/driven", "Driven posts", reason.ChoiceSetting, string(job.NoneDriven), string(job.LineDriven), string(job.AllDriven))}}},
		Caution: "Locate services first: a driven post goes through a pipe without a warning."}
	if h.Collar > 0 {
		w.Sentence = reason.Say("Driven ", p.Foot, " into undisturbed soil, with a collar of concrete ", h.Collar, " wide and deep round its head.")
		w.Steps = append(w.Steps, reason.Step{Rule: "Collar", Source: stage.Practice, Says: reason.Say(p.ConcreteVolume, " of concrete each."),
			Settings: []reason.Setting{m.Rule(s.Rules, "hole/collar", "Collar", reason.LengthSetting)}})
	}
	return w

}

// whyRepour explains a hole that takes an old footing out.
func (m *Holes) whyRepour(wide length.Length) reason.Why {
	return reason.Why{Figure: "Hole width",
		Sentence: reason.Say("The old footing is dug out, and the hole is poured again ", wide, " wide."),
		Steps: []reason.Step{{Rule: "Dug out and poured wider", Governs: true, Source: stage.Practice,
			Says: reason.Say("Soil beside a pulled footing is loose: the new concrete reaches past it into firm ground. A stretch of old footings counts half a hole more.")}},
		Caution: "Old concrete is heavy: lever it out, two people, and mind the back."}

}

// loweredSays goes on from how deep a hole is under the finished ground to how
// deep it is dug.
func loweredSays(lowered, hole length.Length) reason.Text {
	if lowered > 0 {
		return reason.Say(" All that from the ground as it will be: it is cut by ", lowered, " here, so dig ", hole, " from the ground as it is.")
	}
	return reason.Say(" All that from the ground as it will be: it is filled by ", -lowered, " here, so dig ", hole, " from the ground as it is.")
}

func (m *Holes) whyConcrete(p *Post) reason.Why {
	d, c := &m.Designs[p.Card], &m.Cards[p.Card]
	r := d.Sized.Rules
	w := reason.Why{Figure: "Concrete", Caution: "Wet concrete burns skin and eyes: gloves and goggles."}
	if c.Method == job.RockPacked {
		w.Figure, w.Caution = "Filling", ""
		w.Sentence = reason.Say("No concrete: ", c.Stone, " of stone packed in, in graded layers.")
	} else {
		w.Sentence = reason.Say(m.roundPost(d), " = ", c.Concrete)
		if c.Bag != "" {
			w.Sentence = append(w.Sentence, reason.Say(", or ", c.Bags, " of a ", c.Bag)...)
		}
		w.Sentence = append(w.Sentence, reason.Say(".")...)
	}
	w.Steps = m.fillSteps(d, c)
	if d.Bag.Yield > 0 && c.Method != job.RockPacked {
		w.Steps = append(w.Steps, m.BagStep(r, d.Bag))
	}
	return w

}

// roundPost says what the concrete in a hole is the difference of.
func (m *Holes) roundPost(d *Design) reason.Text {
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
	t := reason.Say(d.Fill.ConcreteHeight, " of concrete in a ", d.Shape.At(d.Sized.dug().Bottom/2), " hole: ", hole, " less the post, ", post)
	for _, l := range d.Fill.Layers {
		switch l.Kind {
		case footing.InsideLayer:
			t = append(t, reason.Say(", and ", l.Concrete, " inside it")...)
		case footing.CrownLayer:
			t = append(t, reason.Say(", and ", l.Concrete, " of crown")...)
		case footing.RocksLayer:
			t = append(t, reason.Say(", less ", l.Stone, " of rocks")...)
		case footing.GravelLayer:
			if l.To < d.Sized.dug().Bottom-length.Tolerance {
				t = append(t, reason.Say(" and a drain of gravel")...)
			}
		case footing.ConcreteLayer:
			if l.Stone > 0 {
				t = append(t, reason.Say(", less ", l.Stone, " of rubble")...)
			}
		}
	}
	return t
}

// names are choices as a setting takes them.
func names[T ~string](all []T) []string {
	out := make([]string, len(all))
	for i, one := range all {
		out[i] = string(one)
	}
	return out
}

// fillSteps are the choices behind what goes into a hole.
func (m *Holes) fillSteps(d *Design, c *Card) []reason.Step {
	r := d.Sized.Rules
	set := r.Setting
	steps := []reason.Step{{Rule: "Way of setting", Governs: true, Source: stage.Practice, Says: reason.Say(set.Method.Told().Costs),
		Settings: []reason.Setting{m.Rule(r, "setting/method", "Set", reason.ChoiceSetting, names(job.HoleMethods)...)}}}
	add := func(rule string, source reason.Source, says reason.Text, settings ...reason.Setting) {
		steps = append(steps, reason.Step{Rule: rule, Source: source, Says: says, Settings: settings})
	}
	if d.Sized.Driven {
		steps = steps[:0]
	} else if c.Method != job.RockPacked {
		add("Hole less post", stage.Geometry, reason.Say("From the bottom, ", c.Bottom, " down, ", d.Fill.ConcreteHeight, " high: so that bags are not bought for the room that the post takes."))
		if set.Top == job.CrownTop {
			add("Crown", stage.Practice, reason.Say("Crowned ", set.Crown, " high at the post, sloped to the hole's edge: water runs off; frost can get under a crown wider than its hole."),
				m.topSetting(r), m.Rule(r, "setting/crown", "Crown", reason.LengthSetting))
		} else {
			add("Soil cover", stage.Practice, reason.Say("Stopped ", m.AsEntered(r, "setting/cover", set.Cover), " short and mounded with soil, sloped away from the post: grass grows up to it; the mound settles and is topped up."),
				m.topSetting(r), m.Rule(r, "setting/cover", "Soil cover", reason.LengthSetting))
		}
		add("Rubble", stage.Practice, reason.Say("Clean rubble in the mix, as a share: ", set.Rubble), m.Rule(r, "setting/rubble", "Rubble, as a share", reason.RatioSetting))
	}
	if set.Method == job.Slurry {
		add("Rocks first", reason.Source{Kind: reason.Practice, Name: "room between rocks, two fifths"}, reason.Say("Rocks to ", set.RocksTo, " below ground, bonded with a runny batch that fills ", 100*m.Cat.Supply.Voids, " % of the layer."),
			m.Rule(r, "setting/rocksTo", "Rocks up to", reason.LengthSetting))
	}
	if d.Sized.q.Post.Hollow {
		add("Inside the post", stage.Practice, reason.Say(insides[set.Inside]),
			m.Rule(r, "setting/inside", "Hollow posts", reason.ChoiceSetting, string(job.OpenInside), string(job.ClosedInside), string(job.CoreInside)))
	}
	if !d.Sized.Driven {
		add("Gravel", stage.Practice, reason.Say(c.Depth-c.Bottom, " under the bottom takes ", layerOf(c.Layers, footing.GravelLayer), " tamped."), m.Rule(r, "setting/gravel", "Gravel", reason.LengthSetting))
	}
	return steps
}

func (m *Holes) topSetting(r *job.Rules) reason.Setting {
	return m.Rule(r, "setting/top", "Top of the concrete", reason.ChoiceSetting, string(job.CoverTop), string(job.CrownTop))
}

var insides = map[job.Inside]string{
	job.OpenInside:   "Open at the foot: it fills as it is set, and stands the stiffer for it.",
	job.ClosedInside: "Closed at the foot: nothing goes in, so that nothing freezes in it and bursts it.",
	job.CoreInside:   "A steel core takes the pull; concrete round it to the ground only.",
}

func (m *Holes) whyStock(p *Post) reason.Why {
	s := reason.Sentence(13).Length(p.AboveGrade).Words(" above + ").Length(p.Foot).Words(" below")
	if !p.CutFirst {
		s = s.Words(" + ").Length(m.Spec.Post.Trim).Words(" to trim")
	}
	s = s.Words(" = ").Length(p.Needed)
	if p.Stock != nil {
		s = s.Words(": the ").Length(*p.Stock).Words(" post, less ").Length(*p.CutOff).Words(".")
	} else {
		s = s.Words(": longer than any post in stock.")
	}
	return reason.Why{Figure: "Post length", Sentence: s, Steps: m.stockSteps()}

}

func (m *Holes) stockSteps() []reason.Step {
	return []reason.Step{
		{Rule: "Next stock length up", Governs: true, Source: stage.Yours, Says: reason.Say("Sold in ", stage.List(m.Spec.Post.Stock))},
		{Rule: "Trim", Source: stage.Practice, Says: reason.Say("Spare to cut to the line after setting."),
			Settings: []reason.Setting{m.Measured("/post/trim", "Trim", m.Spec.Post.Trim, m.Usual.Post.Trim)}},
		{Rule: "When tops are cut", Source: stage.Practice, Says: reason.Say(cuttings[m.cutting()]),
			Settings: []reason.Setting{m.Choice("/post/cut", "Tops are cut", string(m.cutting()), string(job.CutAfter), string(job.CutAfter), string(job.CutFirst))}},
	}

}

// cutting is when the run's tops are cut.
func (m *Holes) cutting() job.Cutting {
	if m.Spec.Post.Cut == job.CutFirst {
		return job.CutFirst
	}
	return job.CutAfter
}

var cuttings = map[job.Cutting]string{
	job.CutAfter: "Left long and cut in place: holes need not be exact, and tops come out true; the trim is waste, and every top is a cut overhead.",
	job.CutFirst: "Cut to length on trestles, then set to the string: no trim and no saw overhead; every foot must stand exactly at its depth.",
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
		sentence = append(sentence, reason.Say(", ", w.Extra, " more for its kind of post")...)
	}
	steps = append(steps, m.widthExtras(s)...)
	switch {
	case w.ByHand:
		sentence = reason.Say("Set by hand to ", w.Width, "; the rules ask for ", w.Wanted, ".")
	case w.Auger && !h.AnyWidth && h.Shape != job.SquareHole && w.Width < w.Wanted-length.Tolerance:
		sentence = append(sentence, reason.Say(": the ", w.Width, " auger is ", w.Wanted-w.Width, " narrower, and will do.")...)
	case w.Auger && !h.AnyWidth && h.Shape != job.SquareHole:
		sentence = append(sentence, reason.Say(": the ", w.Width, " auger is the next one up.")...)
	case h.Shape == job.SquareHole:
		sentence = append(sentence, reason.Say(": ", w.Width, " square, by spade.")...)
	case h.AnyWidth:
		sentence = append(sentence, reason.Say(": ", w.Width, ", not rounded to an auger.")...)
	default:
		sentence = append(sentence, reason.Say(": no auger is that wide, so ", w.Width, " by spade.")...)
	}
	byHand := reason.Step{Rule: string(footing.ByHand), Source: stage.Yours, Governs: w.ByHand, Says: reason.Say("Over all rules, when it is set."),
		Settings: []reason.Setting{m.Rule(s.Rules, "hole/width", "Width set by hand", reason.LengthSetting)}}
	return reason.Why{Figure: "Hole width", Sentence: sentence, Steps: append(steps, byHand)}

}

func (m reasons) widthStep(s *Size, a footing.Ask) reason.Step {
	h, r := s.q.Hole, s.Rules
	step := reason.Step{Rule: string(a.Rule), Source: stage.Practice}
	switch a.Rule {
	case footing.FactorRule:
		step.Says = reason.Say(h.Factor(s.q.Post.Width), " × ", s.q.Post.Width, " = ", a.Value)
		step.Settings = []reason.Setting{m.Rule(r, "hole/widthFactor", "Times the post's width", reason.RatioSetting),
			m.Rule(r, "hole/wideFactor", "Times a post over 4 in (100 mm); 0: the same", reason.RatioSetting)}
	case footing.CommonRule:
		step.Says = reason.Say(a.Value, " is what crews dig for such a post")
		step.Settings = []reason.Setting{m.Rule(r, "hole/commonWidth", "What crews dig; 0: the multiple of the post", reason.LengthSetting),
			m.Rule(r, "hole/widthFactor", "Times the post's width, when that is 0", reason.RatioSetting)}
	case footing.SpadeRule:
		step.Says = reason.Say("A spade needs ", a.Value, " to work in.")
		step.Settings = []reason.Setting{m.Rule(r, "hole/spade", "Least side of a square hole", reason.LengthSetting)}
	default:
		step.Source = stage.Geometry
		step.Says = reason.Say("The post is ", a.Value, " across.")
		if h.SkipFactor {
			step.Settings = []reason.Setting{m.Rule(r, "hole/skipFactor", "Leave the multiple of the post's width out", reason.SwitchSetting)}
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
		add("Gate posts wider", stage.Practice, reason.Say(h.GateExtraWidth, " wider, for the pull of the leaf."), m.Rule(r, "hole/gateExtraWidth", "Gate posts wider by", reason.LengthSetting))
		if s.q.Hung {
			add("Hinge posts wider", stage.Practice, reason.Say(h.HingeExtraWidth, " wider still where the leaf hangs."), m.Rule(r, "hole/hingeExtraWidth", "Hinge posts wider still by", reason.LengthSetting))
		}
	case job.EndPost, job.CornerPost:
		add("End and corner posts wider", stage.Practice, reason.Say(h.EndExtraWidth, " wider, for the pull of the fence."), m.Rule(r, "hole/endExtraWidth", "End and corner posts wider by", reason.LengthSetting))
	}
	if off := max(h.Along.Abs(), h.Across.Abs()); off > 0 {
		add("Hole beside the post's middle", stage.Geometry, reason.Say("Off by ", off, ", it still has to hold the post."),
			m.Rule(r, "hole/along", "Off along the run", reason.LengthSetting), m.Rule(r, "hole/across", "Off across it", reason.LengthSetting))
	}
	add("Shape of the hole", stage.Practice, reason.Say("Round by auger or digger; square by spade."), m.Rule(r, "hole/shape", "Shape", reason.ChoiceSetting, string(job.RoundHole), string(job.SquareHole)))
	add("Augers to be had", stage.Yours, reason.Say("Rounded up to ", stage.List(h.Augers)), m.Rule(r, "hole/anyWidth", "Do not round up to an auger", reason.SwitchSetting))
	return out
}

func (m reasons) whyDepth(s *Size) reason.Why {
	w := reason.Why{
		Figure:  "Hole depth",
		Steps:   m.depthSteps(s),
		Asked:   make([]length.Length, len(s.Depth.Asks)),
		Caution: "Frost depth and footing depth are the local building office's to say; an engineer decides where wind or load matters.",
	}
	for i, a := range s.Depth.Asks {
		w.Asked[i] = a.Value
	}
	w.Sentence = depthSentence(s.q, s.Depth, w.Steps)
	if s.longer > length.Tolerance {
		w.Sentence = append(w.Sentence, reason.Say(" Its post is not cut to height, so it stands ", s.longer, " deeper than that: as deep as its stock length reaches.")...)
	}
	if s.lowered.Abs() > slope.LowersAnything {
		w.Sentence = append(w.Sentence, loweredSays(s.lowered, s.dug().Hole)...)
	}
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
	s := reason.Sentence(20)
	greatest := length.Length(0)
	switch {
	case d.ByHand:
		s = s.Words("Set by hand to ").Length(d.Foot).Words("; the rules ask for ").Length(d.Rounded)
	case d.Governs < 0:
		s = s.Words("No rule is in force")
	default:
		greatest = d.Asks[d.Governs].Value
		if d.Asks[d.Governs].Rule == footing.ShareRule {
			s = s.Words(shares[q.Hole.Share]).Length(q.AboveGrade).Words(" above) = ").Length(greatest)
		} else {
			s = append(s, steps[d.Governs].Says...)
		}
		s = s.Words(" governs")
		if next := runnerUp(d); next >= 0 {
			s = s.Words(" over ").Words(stage.Lower(string(d.Asks[next].Rule))).Words(", ").Length(d.Asks[next].Value)
		}
	}
	if !d.ByHand && d.Extra > 0 {
		s = s.Words("; ").Length(d.Extra).Words(" deeper for its kind of post")
	}
	if !d.ByHand && !length.Same(d.Rounded, greatest+d.Extra) {
		s = s.Words("; rounded up to ").Length(d.Rounded)
	}
	switch {
	case d.Stopped:
		s = s.Words(". Stopped at ").Length(d.Hole).Words(", short of it")
	case d.Gravel > 0:
		s = s.Words(". With ").Length(d.Gravel).Words(" of gravel under the post: dig ").Length(d.Hole)
	}
	return s.Words(".")
}

func runnerUp(d footing.Depth) int {
	best := -1
	for i, a := range d.Asks {
		if i != d.Governs && (best < 0 || a.Value > d.Asks[best].Value) {
			best = i
		}
	}
	return best
}

var shares = map[job.Share]string{
	job.Quarter: "A quarter of the whole post (a third of the ",
	job.Third:   "A third of the whole post (half of the ",
	job.Half:    "Half of the whole post (as much as the ",
}

func (m reasons) shareSetting(r *job.Rules) reason.Setting {
	return m.Rule(r, "hole/share", "Share of the post in the ground", reason.ChoiceSetting, "none", "quarter", "third", "half")
}

func (m reasons) depthStep(s *Size, a footing.Ask) reason.Step {
	h, r := s.q.Hole, s.Rules
	switch a.Rule {
	case footing.FrostRule:
		return m.frostStep(s, a)
	case footing.ShareRule:
		return reason.Step{Rule: string(a.Rule), Source: stage.Practice, Says: reason.Say(shares[h.Share], "height above)."), Settings: []reason.Setting{m.shareSetting(r)}}
	}
	says := reason.Say("Never less than ", m.AsEntered(r, "hole/floor", h.Floor))
	if h.FloorPerHeight > 0 {
		says = append(says, reason.Say(m.perHeight(r), " = ", a.Value)...)
	}
	return reason.Step{Rule: string(a.Rule), Source: stage.Practice, Says: says,
		Settings: []reason.Setting{
			m.Rule(r, "hole/floor", "Never less than", reason.LengthSetting),
			m.Rule(r, "hole/floorPerHeight", "Added per height over 4 ft", reason.RatioSetting),
			m.Rule(r, "hole/skipFloor", "Leave the floor out", reason.SwitchSetting)}}
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
		return reason.Say(" + ", reason.As{Length: per * length.Metre, System: sys}, " for each metre of height over ", reason.As{Length: 4 * length.Foot, System: sys})
	}
	return reason.Say(" + ", reason.As{Length: per * length.Foot, System: sys}, " for each foot of height over ", reason.As{Length: 4 * length.Foot, System: sys})
}

func (m reasons) frostStep(s *Size, a footing.Ask) reason.Step {
	h := s.q.Hole
	step := reason.Step{Rule: string(a.Rule), Source: reason.Source{Kind: reason.Yours, Name: "frost depth from the local building office; the margin is common practice"},
		Says: reason.Say(*s.q.Frost, " frost + ", h.FrostMargin, " = ", a.Value)}
	frost := reason.Setting{Path: "/site/frostDepth", Name: "Frost depth", Kind: reason.LengthSetting, From: "the site"}
	if _, estimated := m.Frost(); estimated {
		step.Says = reason.Say(*s.q.Frost, " frost (an estimate) + ", h.FrostMargin, " = ", a.Value)
		step.Source = reason.Source{Kind: reason.Memory, Name: "estimated by the modified Berggren formula, TM 5-852-6; the local office's figure goes before it"}
		frost.Name = "Frost depth, by the local office"
	} else {
		frost.Value = *s.q.Frost
	}
	step.Settings = []reason.Setting{frost, m.Rule(s.Rules, "hole/frostMargin", "Below the frost by", reason.LengthSetting), m.Rule(s.Rules, "hole/skipFrost", "Leave frost out", reason.SwitchSetting)}
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
		add("Frost", stage.Yours, reason.Say("Left out."), m.Rule(r, "hole/skipFrost", "Leave frost out", reason.SwitchSetting))
	case q.Frost == nil:
		add("Frost", stage.Yours, reason.Say("Not entered: ask the local building office."),
			reason.Setting{Path: "/site/frostDepth", Name: "Frost depth", Kind: reason.LengthSetting})
	}
	if h.Share == job.NoShare {
		add(string(footing.ShareRule), stage.Practice, reason.Say("Not in force."), m.shareSetting(r))
	}
	if h.SkipFloor {
		add(string(footing.FloorRule), stage.Practice, reason.Say("Left out."), m.Rule(r, "hole/skipFloor", "Leave the floor out", reason.SwitchSetting))
	}
	switch q.Kind {
	case job.GatePost:
		add("Gate posts deeper", stage.Practice, reason.Say("A gate post goes ", h.GateExtraDepth, " deeper."), m.Rule(r, "hole/gateExtraDepth", "Gate posts deeper by", reason.LengthSetting))
		if q.Hung {
			add("Hinge posts deeper", stage.Practice, reason.Say("The post that the leaf hangs on goes ", h.HingeExtraDepth, " deeper still."), m.Rule(r, "hole/hingeExtraDepth", "Hinge posts deeper still by", reason.LengthSetting))
		}
	case job.EndPost, job.CornerPost:
		add("End and corner posts deeper", stage.Practice, reason.Say("An end or corner post goes ", h.EndExtraDepth, " deeper."), m.Rule(r, "hole/endExtraDepth", "End and corner posts deeper by", reason.LengthSetting))
	}
	add("Rounded up", stage.Practice, reason.Say("To a multiple of ", h.RoundDepthTo, ", so that one mark on the digger's handle serves."), m.Rule(r, "hole/roundDepthTo", "Round depth up to", reason.LengthSetting))
	if !s.Driven {
		add("Gravel under the post", stage.Practice, reason.Say(q.Gravel, " of tamped gravel below the bottom, so that the end grain drains. It lies under what frost must not reach."),
			m.Rule(r, "setting/gravel", "Gravel", reason.LengthSetting))
		add("Foot of the post", stage.Practice, reason.Say(standSays(q.Stand)), m.Rule(r, "setting/stand", "Foot above the concrete's bottom by", reason.LengthSetting))
	}
	if s.Depth.Stopped {
		add("Stopped", stage.Yours, reason.Say("Rock or water stopped the hole at ", s.Depth.Hole, ": no gravel is laid, and the concrete stands on it."))
	}
	add(string(footing.ByHand), stage.Yours, reason.Say("Depth of the post's foot over all rules, when it is set."), m.Rule(r, "hole/depth", "Foot depth set by hand", reason.LengthSetting))
	steps[len(steps)-1].Governs = s.Depth.ByHand
	return steps
}

func standSays(stand length.Length) reason.Text {
	switch {
	case stand > 0:
		return reason.Say("It stands ", stand, " above the concrete's bottom: covered from below, but its end grain cannot drain.")
	case stand < 0:
		return reason.Say("It reaches ", -stand, " into the gravel, so that the end grain drains.")
	}
	return reason.Say("It stands on the gravel, level with the concrete's bottom.")
}

func (m *Holes) whyGust(p *Post, d *Design, st stood) reason.Why {
	out := reason.Why{
		Figure:  "Gust at the footing's limit",
		Caution: "A figure to compare choices with, never an approval. Posts, rails and fixings may give way before the footing; an engineer decides where wind matters.",
		Steps:   m.windSteps(d, st),
	}
	s := reason.Sentence(12).Words("In ").Words(stage.Lower(m.Soil.Name))
	if d.Sized.Driven {
		s = s.Words(", the post driven ").Length(p.Bottom)
	} else {
		s = s.Words(", a ").Length(p.HoleWidth).Words(" hole with its bottom at ").Length(p.Bottom)
	}
	s = append(s.Words(" reaches the published limit in a gust of "), reason.Say(reason.Speed(p.Wind.Gust))...)
	out.Sentence = s.Words(": the wind pushes ").Length(length.Length(st.lateral.Height) * length.Foot).Words(" above ground.")
	if p.Wind.Leaf != nil {
		out.Steps = append(out.Steps, leafStep(p.Wind.Leaf))
	}
	return out

}

// windSteps are the rules behind the gusts of posts with the same rules.
func (m *Holes) windSteps(d *Design, st stood) []reason.Step {
	kind := "Free at the ground"
	if st.lateral.Restrained {
		kind = "Held at the ground"
	}
	steps := []reason.Step{
		{Rule: "Post in soil", Source: reason.Source{Kind: reason.Memory, Name: "IBC 1807.3"}, Governs: true, Says: append(append(reason.Say(kind, "; bearing "), m.perDepth(st.lateral.Bearing)...), reason.Say(".")...),
			Settings: []reason.Setting{m.Rule(d.Sized.Rules, "setting/restrained", "Held at the ground by paving", reason.SwitchSetting)}},
		{Rule: "Soil", Source: m.Soil.Source, Says: m.SoilSays()},
		{Rule: "Wind on the face", Source: reason.Source{Kind: reason.Memory, Name: "ASCE 7, free-standing wall"},
			Says: reason.Say("Exposure ", string(m.Job.Site.Exposed()), "; ", math.Round(100*st.wind.Solidity), " % of the face is solid; half a bay on either side hangs on the post.")},
	}
	if st.pin > 0 {
		steps = append(steps, reason.Step{Rule: "Pin in the rock", Source: reason.Source{Kind: reason.Geometry, Name: "statics; the pin's shear is taken low"}, Says: reason.Say("The pin holds the foot, and the post turns about it.")})
	}
	return steps

}

// perDepth says a bearing of so many psf for each foot of depth.
func (m *Holes) perDepth(psf float64) reason.Text {
	if m.Job.Units.System == length.Metric {
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
