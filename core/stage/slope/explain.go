package slope

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/words"
)

// explaining words why tops and gaps are what they are.
type explaining struct{ *Slope }

// explain says why a figure of the run on its slope is what it is.
func (m *Slope) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case f.Of == "post" && f.What == "top":
		if i := m.PostAt(f.ID); i >= 0 {
			return explaining{m}.whyTop(i), true
		}
	case f.Of == "bay" && (f.What == "gap" || f.What == "lean"):
		i := m.BayAt(f.ID)
		switch {
		case i < 0:
		case f.What == "lean":
			return explaining{m}.whyLean(m.Bays[i].Look), true
		default:
			return explaining{m}.whyGap(&m.Bays[i], m.Layout.Bays[i].Gate), true
		}
	}
	return m.Spacing.Explain(f)
}

// looks say what each look is, in a sentence.
var looks = map[job.Look]string{
	job.Level:   words.Plain("slope.level-one-height-all-along"),
	job.Stepped: words.Plain("slope.stepped-each-panel-level-a"),
	job.Raked:   words.Plain("slope.raked-the-top-leans-from"),
	job.Rolling: words.Plain("slope.rolling-the-top-is-straight"),
}

var stepping = map[job.Steps]string{
	job.LeastGap:  words.Plain("slope.each-panel-as-near-its"),
	job.EvenSteps: words.Plain("slope.a-tight-string-from-the-2"),
	job.Gradual:   words.Plain("slope.drops-grow-and-shrink-little"),
	job.RoundStep: words.Plain("slope.drops-are-multiples-of-one"),
}

// straightness is the setting of the one control.
func (m explaining) straightness() reason.Setting {
	g := m.Spec.Grade
	return reason.Setting{Path: m.Path + "/grade/straight", Name: words.Plain("slope.straight-0-hugs-the-ground"), Kind: reason.RatioSetting,
		Value: g.Stiff(), Usual: 0.5, Changed: g.Straight != nil && *g.Straight != 0.5}
}

// lookStep is the rule that governs a top.
func (m explaining) lookStep(look job.Look) reason.Step {
	s := reason.Step{Rule: words.Plain("slope.look"), Governs: true, Source: stage.Practice, Says: reason.Say(looks[look]),
		Settings: []reason.Setting{m.Choice("/grade/look", words.Plain("slope.look"), string(m.Spec.Grade.Look), string(m.Usual.Grade.Look), string(job.Level), string(job.Stepped), string(job.Raked), string(job.Rolling))}}
	switch look {
	case job.Raked:
		s.Settings = append(s.Settings, m.straightness())
	case job.Rolling:
		s.Settings = append(s.Settings, m.Measured("/grade/dips", words.Plain("slope.dips-and-humps-taken-out"), m.Spec.Grade.Dips, 0))
	}
	return s
}

// stepStep is the rule of stepping.
func (m explaining) stepStep() reason.Step {
	g := m.Spec.Grade
	s := reason.Step{Rule: words.Plain("slope.steps"), Source: stage.Practice, Says: reason.Say(stepping[m.stepping()]),
		Settings: []reason.Setting{m.Choice("/grade/steps", words.Plain("slope.steps"), string(m.stepping()), string(job.LeastGap), string(job.LeastGap), string(job.EvenSteps), string(job.Gradual), string(job.RoundStep))}}
	switch m.stepping() {
	case job.Gradual:
		s.Settings = append(s.Settings, m.straightness(), m.ByHand("/grade/stepMost", words.Plain("slope.most-drop-at-one-post"), g.StepMost))
	case job.RoundStep:
		s.Settings = append(s.Settings, m.Measured("/grade/stepBy", words.Plain("slope.increment"), g.Increment(m.Job.Units), job.Grade{}.Increment(m.Job.Units)), m.ByHand("/grade/stepMost", words.Plain("slope.most-drop-at-one-post"), g.StepMost))
	}
	return s
}

// whyLean tells how panels and rails lie on the slope; one explanation serves
// all bays of a look.
func (m explaining) whyLean(look job.Look) reason.Why {
	w := reason.Why{Figure: words.Plain("slope.rails-and-panels-on-the"),
		Sentence: words.Say("slope.level-a-rail-is-as"),
		Steps:    []reason.Step{m.lookStep(look)}}
	if !look.Leans() {
		return w
	}
	w.Sentence = words.Say("slope.a-rail-is-the-long")
	w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("slope.long-side-over-its-rise"), Source: stage.Geometry, Says: words.Say("slope.the-rise-from-post-to")},
		reason.Step{Rule: words.Plain("slope.rack-setting"), Source: stage.Practice, Says: words.Say("slope.past-what-a-panel-can"), Settings: []reason.Setting{m.ByHand("/grade/rack", words.Plain("slope.panel-racks-at-most"), m.Spec.Grade.Rack)}})
	return w

}

// highStep is the height of the fence at a post: that of the higher bay beside it.
func (m explaining) highStep(i int) reason.Step {
	high, at := length.Length(0), m.Posts[i].Station
	for bay := max(0, i-1); bay <= i && bay < len(m.Layout.Bays); bay++ {
		if h := m.HighAt(bay); h > high {
			high, at = h, (m.Posts[bay].Station+m.Posts[bay+1].Station)/2
		}
	}
	s := reason.Step{Rule: words.Plain("slope.fence-height"), Source: stage.Yours, Says: words.Say("slope.from-its-bottom-to-its", words.V{"height": high})}
	path := "/fence/height"
	for _, p := range m.Spec.Grade.Parts {
		if p.Height != nil && at >= p.From && at <= p.To {
			path = "/grade/parts/" + p.ID + "/height"
			s.Says = words.Say("slope.this-stretch-from-its-bottom", words.V{"height": high, "run": m.Spec.Fence.Height})
		}
	}
	s.Settings = []reason.Setting{m.Measured(path, words.Plain("slope.fence-height"), high, m.Usual.Fence.Height)}
	return s
}

// whyTop explains a post's top by the look of the bay after it.
func (m explaining) whyTop(i int) reason.Why {
	p, look := &m.Posts[i], m.courseLook(min(i, len(m.Layout.Bays)-1))
	f := m.Spec.Fence
	sentence := looks[look]
	switch {
	case p.Kind == job.GatePost && m.Spec.Grade.Across != job.GoesOn:
		sentence += words.Plain("slope.the-tops-are-flat-across")
	case p.Grade:
		sentence += words.Plain("slope.here-it-breaks-this-is")
	}
	w := reason.Why{Figure: words.Plain("slope.post-top"), Sentence: reason.Say(sentence), Steps: []reason.Step{m.lookStep(look)}}
	if look == job.Stepped {
		w.Steps = append(w.Steps, m.stepStep())
	}
	w.Steps = append(w.Steps,
		reason.Step{Rule: words.Plain("slope.least-gap"), Source: stage.Practice,
			Says:     words.Say("slope.fence-at-least-over-the", words.V{"gapLeast": f.GapLeast}),
			Settings: []reason.Setting{m.Measured("/fence/gapLeast", words.Plain("slope.least-gap"), f.GapLeast, m.Usual.Fence.GapLeast)}},
		m.highStep(i))
	if above := m.Spec.PostOf(p.Kind).Above; above != 0 {
		says := words.Say("slope.the-post-stands-above-the", words.V{"above": above})
		if above < 0 {
			says = words.Say("slope.the-posts-top-stands-below", words.V{"above": -above})
		}
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("slope.post-above-the-fence"), Source: stage.Yours, Says: says,
			Settings: []reason.Setting{m.Measured("/post/above", words.Plain("slope.post-above-the-fence"), m.Spec.Post.Above, m.Usual.Post.Above)}})
	}
	return w

}

// whyGap explains the gap under a bay of fence, or under a gate.
func (m explaining) whyGap(b *Bay, gate int) reason.Why {
	if gate != spacing.NoGate {
		g := m.Spec.Gates[gate]
		usual := m.Cat.UsualGate(m.Job.Units.System).Gap
		set := m.Measured("", words.Plain("slope.gap-under-the-leaf"), g.Gap, usual)
		set.Path = m.GatePath(gate) + "/gap"
		return reason.Why{
			Figure:   words.Plain("slope.gap-under-the-gate"),
			Sentence: words.Say("slope.over-the-highest-ground-across", words.V{"gap": g.Gap, "most": b.GapMost.Gap, "at": b.GapMost.At}),
			Steps: []reason.Step{{Rule: words.Plain("slope.gap-under-the-leaf"), Governs: true, Source: stage.Practice,
				Says:     words.Say("slope.4-to-6-in-100"),
				Settings: []reason.Setting{set}}},
			Caution: words.Plain("slope.ground-that-rises-inside-the"),
		}

	}
	sentence := words.Say("slope.gap-from-to", words.V{"least": b.GapLeast.Gap, "leastAt": b.GapLeast.At, "most": b.GapMost.Gap, "mostAt": b.GapMost.At})
	switch {
	case b.Cut != nil && b.Fill != nil:
		sentence = append(sentence, words.Say("slope.cut-and-fill-there", words.V{"cut": m.Job.Units.Dug(b.Cut.Depth), "fill": m.Job.Units.Dug(b.Fill.Depth)})...)
	case b.Cut != nil:
		sentence = append(sentence, words.Say("slope.cut-there", words.V{"cut": m.Job.Units.Dug(b.Cut.Depth)})...)
	case b.Fill != nil:
		sentence = append(sentence, words.Say("slope.fill-there", words.V{"fill": m.Job.Units.Dug(b.Fill.Depth)})...)
	default:
		sentence = append(sentence, words.Say("slope.inside-the-limits")...)
	}
	return reason.Why{Figure: words.Plain("slope.gap-under-the-fence"), Sentence: sentence, Steps: m.gapSteps(b.Cut != nil, b.Fill != nil)}

}

// gapSteps are the rules of the corridor; long runs share them.
func (m explaining) gapSteps(cut, fill bool) []reason.Step {
	f := m.Spec.Fence
	return []reason.Step{
		{Rule: words.Plain("slope.least-gap"), Governs: cut, Source: stage.Practice, Says: words.Say("slope.at-least", words.V{"gapLeast": f.GapLeast}),
			Settings: []reason.Setting{m.Measured("/fence/gapLeast", words.Plain("slope.least-gap"), f.GapLeast, m.Usual.Fence.GapLeast)}},
		{Rule: words.Plain("slope.most-gap"), Governs: fill, Source: stage.Practice, Says: words.Say("slope.at-most", words.V{"gapMost": f.GapMost}),
			Settings: []reason.Setting{m.Measured("/fence/gapMost", words.Plain("slope.most-gap"), f.GapMost, m.Usual.Fence.GapMost)}},
		{Rule: words.Plain("slope.what-gives"), Source: stage.Practice, Says: reason.Say(gives[m.Spec.Grade.Give]),
			Settings: []reason.Setting{m.Choice("/grade/give", words.Plain("slope.what-gives"), string(m.Spec.Grade.Give), string(m.Usual.Grade.Give), "fill", "cut", "both")}},
	}

}

var gives = map[job.Give]string{
	job.Fill: words.Plain("slope.hold-the-least-gap-and"),
	job.Cut:  words.Plain("slope.hold-the-most-gap-and"),
	job.Both: words.Plain("slope.half-cut-half-fill-the"),
}
