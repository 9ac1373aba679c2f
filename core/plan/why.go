package plan

import (
	"strconv"
	"strings"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

var (
	practice = reason.Source{Kind: reason.Practice}
	geometry = reason.Source{Kind: reason.Geometry}
	yours    = reason.Source{Kind: reason.Yours}
)

// measured is a length setting of the run with its usual value.
func (m *maker) measured(path, name string, value, usual length.Length) reason.Setting {
	return reason.Setting{
		Path: m.path + path, Name: name, Kind: reason.LengthSetting,
		Value: value, Usual: usual, Changed: !length.Same(value, usual),
	}
}

// byHand is a length setting that is usually not set.
func (m *maker) byHand(path, name string, value *length.Length) reason.Setting {
	s := reason.Setting{Path: m.path + path, Name: name, Kind: reason.LengthSetting, Changed: value != nil}
	if value != nil {
		s.Value = *value
	}
	return s
}

func (m *maker) ratio(path, name string, value, usual float64) reason.Setting {
	return reason.Setting{
		Path: m.path + path, Name: name, Kind: reason.RatioSetting,
		Value: value, Usual: usual, Changed: value != usual,
	}
}

func (m *maker) choice(path, name, value, usual string, choices ...string) reason.Setting {
	return reason.Setting{
		Path: m.path + path, Name: name, Kind: reason.ChoiceSetting,
		Value: value, Usual: usual, Changed: value != usual, Choices: choices,
	}
}

func (m *maker) whySegment(s spacing.Segment) reason.Ref {
	type key struct {
		of   string
		span length.Length
		gate int
		bays int
	}
	return m.book.Put(key{"segment", s.To - s.From, s.Gate, s.Bays}, func() reason.Why {
		if s.Gate != spacing.NoGate {
			g := m.run.Gates[s.Gate]
			return reason.Why{
				Figure:   "Gate posts",
				Sentence: reason.Say(g.Opening, " clear + one post, ", m.run.Post.Width, " = ", s.Each(), " centre to centre."),
				Steps: []reason.Step{{
					Rule: "The opening is exact", Governs: true, Source: practice,
					Says: reason.Say("The fence's spacing gives way to the gate, never the other way round."),
				}},
			}
		}
		most := m.run.Spacing.Most
		return reason.Why{
			Figure: "Spacing",
			Sentence: reason.Say(s.To-s.From, " in ", s.Bays, plural(s.Bays, " bay of ", " equal bays of "), s.Each(),
				": the fewest with none over ", most, "."),
			Steps: []reason.Step{{
				Rule: "Equal bays", Governs: true, Source: practice,
				Says: reason.Say(s.To-s.From, " ÷ ", most, " = ", float64((s.To-s.From)/most), ", rounded up to ", s.Bays),
				Settings: []reason.Setting{
					m.measured("/spacing/most", "Most spacing", most, m.usual.Spacing.Most)},
			}},
		}
	})
}

func plural(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return many
}

func (m *maker) whyStation(p Post, at spacing.Post) reason.Ref {
	switch p.Kind {
	case job.GatePost:
		return m.book.Put([2]any{"gate post", at.Gate}, func() reason.Why {
			g := m.run.Gates[at.Gate]
			return reason.Why{
				Figure: "Where the gate posts stand",
				Sentence: reason.Say("Middle of the opening at ", reason.Tape(g.At), ", half the opening, ", g.Opening/2,
					", and half a post, ", m.run.Post.Width/2, ", either side."),
				Steps: []reason.Step{{
					Rule: "Gate posts are fixed", Governs: true, Source: geometry,
					Says: reason.Say("Clear opening ", g.Opening, " between the posts' faces."),
					Settings: []reason.Setting{
						{Path: m.gatePath(at.Gate) + "/at", Name: "Middle of the opening", Kind: reason.LengthSetting, Value: g.At},
						{Path: m.gatePath(at.Gate) + "/opening", Name: "Clear opening", Kind: reason.LengthSetting, Value: g.Opening},
					},
				}},
			}
		})
	case job.EndPost:
		return m.book.Put("end post", func() reason.Why {
			return reason.Why{
				Figure:   "Where the end posts stand",
				Sentence: reason.Say("The run was measured ", reason.Tape(*m.run.Length), " centre to centre of its end posts."),
				Steps: []reason.Step{{Rule: "As measured", Governs: true, Source: yours,
					Says:     reason.Say("Set these first; everything else is taped between them."),
					Settings: []reason.Setting{{Path: m.path + "/length", Name: "Run length", Kind: reason.LengthSetting, Value: *m.run.Length}}}},
			}
		})
	}
	return m.out.Segments[at.Segment].Why
}

func (m *maker) whyTop(p Post) reason.Ref {
	return m.book.Put([2]any{"top", p.Kind == job.GatePost}, func() reason.Why {
		f := m.run.Fence
		sentence := map[job.Look]string{
			job.Level:   "Level: one height over the whole run, set by its highest ground.",
			job.Stepped: "Stepped: each panel level over its own highest ground; a post takes the higher of its two panels.",
			job.Raked:   "Raked: the top runs with the ground from post to post.",
		}[m.run.Grade.Look]
		if p.Kind == job.GatePost {
			sentence += " The tops are flat across the opening."
		}
		w := reason.Why{Figure: "Post top", Sentence: reason.Say(sentence), Steps: []reason.Step{
			{Rule: "Least gap", Governs: true, Source: practice,
				Says:     reason.Say("Fence at least ", f.GapLeast, " over the ground."),
				Settings: []reason.Setting{m.measured("/fence/gapLeast", "Least gap", f.GapLeast, m.usual.Fence.GapLeast)}},
			{Rule: "Fence height", Source: yours, Says: reason.Say(f.Height, " from its bottom to its top."),
				Settings: []reason.Setting{m.measured("/fence/height", "Fence height", f.Height, m.usual.Fence.Height)}},
		}}
		if m.run.Post.Above > 0 {
			w.Steps = append(w.Steps, reason.Step{Rule: "Post above the fence", Source: yours,
				Says:     reason.Say("The post stands ", m.run.Post.Above, " above the fence's top."),
				Settings: []reason.Setting{m.measured("/post/above", "Post above the fence", m.run.Post.Above, m.usual.Post.Above)}})
		}
		return w
	})
}

func (m *maker) whyGap(b Bay, gate int) reason.Ref {
	if gate != spacing.NoGate {
		return m.book.Put([2]any{"leaf", gate}, func() reason.Why {
			g := m.run.Gates[gate]
			usual := m.cat.UsualGate(m.job.Units.System).Gap
			set := m.measured("", "Gap under the leaf", g.Gap, usual)
			set.Path = m.gatePath(gate) + "/gap"
			return reason.Why{
				Figure:   "Gap under the gate",
				Sentence: reason.Say(g.Gap, " over the highest ground across the opening, up to ", b.GapMost.Gap, " at ", reason.Tape(b.GapMost.At), "."),
				Steps: []reason.Step{{Rule: "Gap under the leaf", Governs: true, Source: practice,
					Says:     reason.Say("4 to 6 in (100 to 150 mm) is usual."),
					Settings: []reason.Setting{set}}},
				Caution: "Ground that rises inside the swing needs more: only the ground under the closed leaf is looked at here.",
			}
		})
	}
	type key struct {
		of             string
		least, most    length.Length
		leastAt, endAt length.Length
	}
	return m.book.Put(key{"gap", b.GapLeast.Gap, b.GapMost.Gap, b.GapLeast.At, b.GapMost.At}, func() reason.Why {
		f := m.run.Fence
		sentence := reason.Say("Gap from ", b.GapLeast.Gap, " at ", reason.Tape(b.GapLeast.At), " to ", b.GapMost.Gap, " at ", reason.Tape(b.GapMost.At))
		switch {
		case b.Cut != nil && b.Fill != nil:
			sentence = append(sentence, reason.Say(": cut ", b.Cut.Depth, " at the one, fill ", b.Fill.Depth, " at the other.")...)
		case b.Cut != nil:
			sentence = append(sentence, reason.Say(": cut ", b.Cut.Depth, " of ground there.")...)
		case b.Fill != nil:
			sentence = append(sentence, reason.Say(": fill ", b.Fill.Depth, " of ground there.")...)
		default:
			sentence = append(sentence, reason.Say(": inside the limits.")...)
		}
		return reason.Why{Figure: "Gap under the fence", Sentence: sentence, Steps: []reason.Step{
			{Rule: "Least gap", Governs: b.Cut != nil, Source: practice, Says: reason.Say("At least ", f.GapLeast),
				Settings: []reason.Setting{m.measured("/fence/gapLeast", "Least gap", f.GapLeast, m.usual.Fence.GapLeast)}},
			{Rule: "Most gap", Governs: b.Fill != nil, Source: practice, Says: reason.Say("At most ", f.GapMost),
				Settings: []reason.Setting{m.measured("/fence/gapMost", "Most gap", f.GapMost, m.usual.Fence.GapMost)}},
			{Rule: "What gives", Source: practice, Says: reason.Say(gives[m.run.Grade.Give]),
				Settings: []reason.Setting{m.choice("/grade/give", "What gives", string(m.run.Grade.Give), string(m.usual.Grade.Give), "fill", "cut", "both")}},
		}}
	})
}

var gives = map[job.Give]string{
	job.Fill: "Hold the least gap and fill under the low ground: soil is brought.",
	job.Cut:  "Hold the most gap and cut the high ground: digging, and mind the roots.",
	job.Both: "Half cut, half fill: the cut fills the low ground beside it.",
}

func (m *maker) gatePath(gate int) string {
	return m.path + "/gates/" + strconv.Itoa(gate)
}

func (m *maker) whyWidth(q footing.Question, w footing.Width) reason.Ref {
	type key struct {
		of   string
		gate bool
	}
	return m.book.Put(key{"width", q.Kind == job.GatePost}, func() reason.Why {
		h := q.Hole
		factor := reason.Step{Rule: string(footing.FactorRule), Source: practice, Governs: !w.ByHand && w.Governs == 0,
			Says:     reason.Say(h.WidthFactor, " × ", q.Post.Width, " = ", w.Asks[0].Value),
			Settings: []reason.Setting{m.ratio("/hole/widthFactor", "Times the post's width", h.WidthFactor, m.usual.Hole.WidthFactor)}}
		corners := reason.Step{Rule: string(footing.CornersRule), Source: geometry, Governs: !w.ByHand && w.Governs == 1,
			Says: reason.Say("The post is ", w.Asks[1].Value, " across.")}
		steps := []reason.Step{factor, corners}
		sentence := reason.Say(steps[w.Governs].Says)
		if w.Extra > 0 {
			sentence = append(sentence, reason.Say(", ", w.Extra, " more for a gate post")...)
			steps = append(steps, reason.Step{Rule: "Gate posts wider", Source: practice, Says: reason.Say(w.Extra, " wider, for the pull of the leaf."),
				Settings: []reason.Setting{m.measured("/hole/gateExtraWidth", "Gate posts wider by", h.GateExtraWidth, m.usual.Hole.GateExtraWidth)}})
		}
		switch {
		case w.ByHand:
			sentence = reason.Say("Set by hand to ", w.Width, "; the rules ask for ", w.Wanted, ".")
		case w.Auger:
			sentence = append(sentence, reason.Say(": the ", w.Width, " auger is the next one up.")...)
		default:
			sentence = append(sentence, reason.Say(": no auger is that wide, so ", w.Width, " by spade.")...)
		}
		steps = append(steps,
			reason.Step{Rule: "Augers to be had", Source: yours, Says: reason.Say("Rounded up to ", list(h.Augers))},
			reason.Step{Rule: string(footing.ByHand), Source: yours, Governs: w.ByHand, Says: reason.Say("Over all rules, when it is set."),
				Settings: []reason.Setting{m.byHand("/hole/width", "Width set by hand", h.Width)}})
		return reason.Why{Figure: "Hole width", Sentence: sentence, Steps: steps}
	})
}

func list(ls []length.Length) reason.Text {
	var t reason.Text
	for i, l := range ls {
		if i > 0 {
			t = append(t, reason.Say(", ")...)
		}
		t = append(t, reason.Say(l)...)
	}
	return t
}

func (m *maker) whyDepth(q footing.Question, d footing.Depth) reason.Ref {
	type key struct {
		of     string
		kind   job.PostKind
		reveal length.Length
	}
	k := key{"depth", q.Kind, q.Reveal}
	if q.Hole.Share == job.NoShare {
		k.reveal = 0 // the depth does not depend on it: one explanation serves all
	}
	return m.book.Put(k, func() reason.Why {
		w := reason.Why{
			Figure:  "Hole depth",
			Caution: "Frost depth and footing depth are the local building office's to say; an engineer decides where wind or load matters.",
		}
		for i, a := range d.Asks {
			step := m.depthStep(q, a)
			step.Governs = i == d.Governs && !d.ByHand
			w.Steps = append(w.Steps, step)
		}
		w.Sentence = m.depthSentence(d, w.Steps)
		w.Steps = append(w.Steps, m.depthExtras(q, d)...)
		return w
	})
}

// depthSentence says in one sentence what governs and what comes on top:
// 36" frost + 6" = 42" governs over a third of the height above, 24".
func (m *maker) depthSentence(d footing.Depth, steps []reason.Step) reason.Text {
	var s reason.Text
	switch {
	case d.ByHand:
		s = reason.Say("Set by hand to ", d.Foot, "; the rules ask for ", d.Rounded)
	case d.Governs < 0:
		s = reason.Say("No rule is in force")
	default:
		s = append(s, steps[d.Governs].Says...)
		s = append(s, reason.Say(" governs")...)
		if next := runnerUp(d); next >= 0 {
			s = append(s, reason.Say(" over ", lower(string(d.Asks[next].Rule)), ", ", d.Asks[next].Value)...)
		}
	}
	if !d.ByHand {
		if d.Extra > 0 {
			s = append(s, reason.Say("; ", d.Extra, " deeper for its kind of post")...)
		}
		greatest := length.Length(0)
		if d.Governs >= 0 {
			greatest = d.Asks[d.Governs].Value
		}
		if !length.Same(d.Rounded, greatest+d.Extra) {
			s = append(s, reason.Say("; rounded up to ", d.Rounded)...)
		}
	}
	if d.Hole > d.Foot {
		s = append(s, reason.Say(". With ", d.Hole-d.Foot, " of gravel under the post: dig ", d.Hole)...)
	}
	return append(s, reason.Say(".")...)
}

func lower(s string) string { return strings.ToLower(s[:1]) + s[1:] }

func runnerUp(d footing.Depth) int {
	best := -1
	for i, a := range d.Asks {
		if i != d.Governs && (best < 0 || a.Value > d.Asks[best].Value) {
			best = i
		}
	}
	return best
}

func (m *maker) depthStep(q footing.Question, a footing.Ask) reason.Step {
	h := q.Hole
	switch a.Rule {
	case footing.FrostRule:
		return reason.Step{Rule: string(a.Rule), Source: reason.Source{Kind: reason.Yours, Name: "frost depth from the local building office; the margin is common practice"},
			Says: reason.Say(*q.Frost, " frost + ", h.FrostMargin, " = ", a.Value),
			Settings: []reason.Setting{
				{Path: "/site/frostDepth", Name: "Frost depth", Kind: reason.LengthSetting, Value: *q.Frost},
				m.measured("/hole/frostMargin", "Below the frost by", h.FrostMargin, m.usual.Hole.FrostMargin)}}
	case footing.ShareRule:
		says := map[job.Share]string{
			job.Quarter: "A quarter of the whole post (a third of the ",
			job.Third:   "A third of the whole post (half of the ",
			job.Half:    "Half of the whole post (as much as the ",
		}[h.Share]
		return reason.Step{Rule: string(a.Rule), Source: practice,
			Says:     reason.Say(says, q.Reveal, " above) = ", a.Value),
			Settings: []reason.Setting{m.choice("/hole/share", "Share of the post in the ground", string(h.Share), string(m.usual.Hole.Share), "none", "quarter", "third", "half")}}
	}
	says := reason.Say("Never less than ", h.Floor)
	if h.FloorPerHeight > 0 {
		says = append(says, reason.Say(" + ", h.FloorPerHeight, " of the height over ", 4*length.Foot, " = ", a.Value)...)
	}
	return reason.Step{Rule: string(a.Rule), Source: practice, Says: says,
		Settings: []reason.Setting{
			m.measured("/hole/floor", "Never less than", h.Floor, m.usual.Hole.Floor),
			m.ratio("/hole/floorPerHeight", "Added per height over 4 ft", h.FloorPerHeight, m.usual.Hole.FloorPerHeight)}}
}

// depthExtras is what comes on top of the rules.
func (m *maker) depthExtras(q footing.Question, d footing.Depth) []reason.Step {
	h := q.Hole
	var steps []reason.Step
	add := func(rule string, source reason.Source, says reason.Text, set reason.Setting) {
		steps = append(steps, reason.Step{Rule: rule, Source: source, Says: says, Settings: []reason.Setting{set}})
	}
	if q.Frost == nil {
		add("Frost", yours, reason.Say("Not entered: ask the local building office."),
			reason.Setting{Path: "/site/frostDepth", Name: "Frost depth", Kind: reason.LengthSetting})
	}
	if h.Share == job.NoShare {
		add(string(footing.ShareRule), practice, reason.Say("Not in force."),
			m.choice("/hole/share", "Share of the post in the ground", string(h.Share), string(m.usual.Hole.Share), "none", "quarter", "third", "half"))
	}
	switch q.Kind {
	case job.GatePost:
		add("Gate posts deeper", practice, reason.Say("A gate post goes ", h.GateExtraDepth, " deeper."),
			m.measured("/hole/gateExtraDepth", "Gate posts deeper by", h.GateExtraDepth, m.usual.Hole.GateExtraDepth))
	case job.EndPost:
		add("End posts deeper", practice, reason.Say("An end post goes ", h.EndExtraDepth, " deeper."),
			m.measured("/hole/endExtraDepth", "End posts deeper by", h.EndExtraDepth, m.usual.Hole.EndExtraDepth))
	}
	add("Rounded up", practice, reason.Say("To a multiple of ", h.RoundDepthTo, ", so that one mark on the digger's handle serves."),
		m.measured("/hole/roundDepthTo", "Round depth up to", h.RoundDepthTo, m.usual.Hole.RoundDepthTo))
	add("Gravel under the post", practice, reason.Say(q.Gravel, " of tamped gravel below the foot, so that the end grain drains."),
		m.measured("/setting/gravel", "Gravel", q.Gravel, m.usual.Setting.Gravel))
	add(string(footing.ByHand), yours, reason.Say("Depth of the post's foot over all rules, when it is set."),
		m.byHand("/hole/depth", "Foot depth set by hand", h.Depth))
	steps[len(steps)-1].Governs = d.ByHand
	return steps
}

func (m *maker) whyConcrete(p *Post) reason.Ref {
	type key struct {
		of          string
		width, foot length.Length
	}
	return m.book.Put(key{"concrete", p.HoleWidth, p.Foot}, func() reason.Why {
		s, post := m.run.Setting, m.run.Post
		displaced := "the post"
		if post.Hollow {
			displaced = "the post's wall (it fills as it is set)"
		}
		hole := length.Disc(p.HoleWidth).Times(p.Concrete)
		w := reason.Why{
			Figure: "Concrete",
			Sentence: reason.Say(p.Concrete, " of concrete in a ", p.HoleWidth, " hole: ", hole, " less ", displaced, ", ",
				post.Section().Times(p.Concrete), " = ", p.ConcreteVolume),
			Steps: []reason.Step{
				{Rule: "Hole less post", Governs: true, Source: geometry,
					Says: reason.Say("From the gravel, ", p.Foot, " down, up to ", s.Cover, " below ground: ", p.Concrete, " high.")},
				{Rule: "Soil cover", Source: practice, Says: reason.Say("Stopped ", s.Cover, " short and mounded with soil, sloped away from the post."),
					Settings: []reason.Setting{m.measured("/setting/cover", "Soil cover", s.Cover, m.usual.Setting.Cover)}},
				{Rule: "Gravel", Source: practice, Says: reason.Say(s.Gravel, " under the foot takes ", p.GravelVolume, " tamped."),
					Settings: []reason.Setting{m.measured("/setting/gravel", "Gravel", s.Gravel, m.usual.Setting.Gravel)}},
			},
			Caution: "Wet concrete burns skin and eyes: gloves and goggles.",
		}
		if m.bagKnown {
			w.Sentence = append(w.Sentence, reason.Say(", or ", p.Bags, " of a ", m.bag.Name)...)
			w.Steps = append(w.Steps, m.bagStep())
		}
		w.Sentence = append(w.Sentence, reason.Say(".")...)
		return w
	})
}

func (m *maker) bagStep() reason.Step {
	ids := []string{}
	for _, b := range m.cat.Bags {
		ids = append(ids, b.ID)
	}
	return reason.Step{Rule: "Yield of a bag", Source: m.bag.Source,
		Says:     reason.Say("A ", m.bag.Name, " makes ", m.bag.Yield, "."),
		Settings: []reason.Setting{m.choice("/setting/bag", "Bag", m.run.Setting.Bag, m.usual.Setting.Bag, ids...)}}
}

func (m *maker) whyStock(p *Post) reason.Ref {
	type key struct {
		of           string
		reveal, foot length.Length
	}
	return m.book.Put(key{"stock", p.Reveal, p.Foot}, func() reason.Why {
		sentence := reason.Say(p.Reveal, " above + ", p.Foot, " below + ", m.run.Post.Trim, " to trim = ", p.Needed)
		if p.Stock != nil {
			sentence = append(sentence, reason.Say(": the ", *p.Stock, " post, less ", *p.CutOff, ".")...)
		} else {
			sentence = append(sentence, reason.Say(": longer than any post in stock.")...)
		}
		return reason.Why{Figure: "Post length", Sentence: sentence, Steps: []reason.Step{
			{Rule: "Next stock length up", Governs: true, Source: yours, Says: reason.Say("Sold in ", list(m.run.Post.Stock))},
			{Rule: "Trim", Source: practice, Says: reason.Say("Spare to cut to the line after setting."),
				Settings: []reason.Setting{m.measured("/post/trim", "Trim", m.run.Post.Trim, m.usual.Post.Trim)}},
		}}
	})
}

func (m *maker) whyBags(t Totals) reason.Ref {
	return m.book.Put("bags", func() reason.Why {
		s := m.run.Setting
		w := reason.Why{Figure: "Concrete for the run",
			Sentence: reason.Say(t.Posts, plural(t.Posts, " hole takes ", " holes take "), t.Concrete, " (", reason.Bulk(t.Concrete), ")")}
		if m.bagKnown {
			w.Sentence = append(w.Sentence, reason.Say(": ", t.BagsExact, " bags, so ", t.Bags, ".")...)
			w.Steps = append(w.Steps,
				reason.Step{Rule: "Rounded up once", Governs: true, Source: geometry,
					Says: reason.Say("The sum is of exact volumes; bags are rounded up for the run, not for each post.")},
				m.bagStep())
		}
		w.Steps = append(w.Steps, reason.Step{Rule: "Waste", Source: practice, Says: reason.Say("Bought beyond the sum, as a fraction: ", s.Waste),
			Settings: []reason.Setting{m.ratio("/setting/waste", "Waste", s.Waste, m.usual.Setting.Waste)}})
		return w
	})
}

func (m *maker) whyGravel(t Totals) reason.Ref {
	return m.book.Put("gravel", func() reason.Why {
		g := m.cat.Gravel
		return reason.Why{Figure: "Gravel for the run",
			Sentence: reason.Say(t.Gravel, " tamped in the holes + ", 100*g.Tamping, " % = ", reason.Bulk(t.GravelLoose), " loose."),
			Steps: []reason.Step{
				{Rule: "Tamping", Governs: true, Source: g.Source, Says: reason.Say("Gravel loses about a tenth when it is tamped.")},
				{Rule: "Gravel under the post", Source: practice, Says: reason.Say(m.run.Setting.Gravel, " in each hole."),
					Settings: []reason.Setting{m.measured("/setting/gravel", "Gravel", m.run.Setting.Gravel, m.usual.Setting.Gravel)}},
			}}
	})
}
