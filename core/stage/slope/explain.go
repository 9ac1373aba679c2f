package slope

import (
	"mallow/core/job"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
)

// explain says why a figure of the run on its slope is what it is.
func (m *Slope) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case f.Of == "post" && f.What == "top":
		if i := stage.PlaceOf(len(m.Posts), f.ID, func(i int) string { return m.Posts[i].ID }); i >= 0 {
			return m.whyTop(&m.Posts[i], m.courseLook(min(i, len(m.Layout.Bays)-1))), true
		}
	case f.Of == "bay" && (f.What == "gap" || f.What == "lean"):
		i := stage.PlaceOf(len(m.Bays), f.ID, func(i int) string { return m.Bays[i].ID })
		switch {
		case i < 0:
		case f.What == "lean":
			return m.whyLean(m.Bays[i].Look), true
		default:
			return m.whyGap(&m.Bays[i], m.Layout.Bays[i].Gate), true
		}
	}
	return m.Spacing.Explain(f)
}

// looks say what each look is, in a sentence.
var looks = map[job.Look]string{
	job.Level:   "Level: one height all along, set by the highest ground.",
	job.Stepped: "Stepped: each panel level; a post takes the higher of its two panels.",
	job.Raked:   "Raked: the top leans from post to post, as near to the ground or as straight as is asked.",
	job.Rolling: "Rolling: the top is straight over several bays and breaks at as few grade posts as the gaps allow; with so few, as smoothly as can be.",
}

var stepping = map[job.Steps]string{
	job.LeastGap:  "Each panel as near its own ground as it may be: the least gap, and drops that differ.",
	job.EvenSteps: "A tight string from the top post to the bottom post; each post's top touches it, and each panel hangs level from its lower post. Equal bays drop equally.",
	job.Gradual:   "Drops grow and shrink little by little: nearness to the ground is weighed against changes of the drop, each by its square.",
	job.RoundStep: "Drops are multiples of one increment, counted from the higher end; of all that keep the limits, the nearest to the ground.",
}

// straightness is the setting of the one control.
func (m *Slope) straightness() reason.Setting {
	g := m.Spec.Grade
	return reason.Setting{Path: m.Path + "/grade/straight", Name: "Straight: 0 hugs the ground, 1 is as straight as can be", Kind: reason.RatioSetting,
		Value: g.Stiff(), Usual: 0.5, Changed: g.Straight != nil && *g.Straight != 0.5}
}

// lookStep is the rule that governs a top.
func (m *Slope) lookStep(look job.Look) reason.Step {
	s := reason.Step{Rule: "Look", Governs: true, Source: stage.Practice, Says: reason.Say(looks[look]),
		Settings: []reason.Setting{m.Choice("/grade/look", "Look", string(m.Spec.Grade.Look), string(m.Usual.Grade.Look), string(job.Level), string(job.Stepped), string(job.Raked), string(job.Rolling))}}
	switch look {
	case job.Raked:
		s.Settings = append(s.Settings, m.straightness())
	case job.Rolling:
		s.Settings = append(s.Settings, m.Measured("/grade/dips", "Dips and humps taken out", m.Spec.Grade.Dips, 0))
	}
	return s
}

// stepStep is the rule of stepping.
func (m *Slope) stepStep() reason.Step {
	g := m.Spec.Grade
	s := reason.Step{Rule: "Steps", Source: stage.Practice, Says: reason.Say(stepping[m.stepping()]),
		Settings: []reason.Setting{m.Choice("/grade/steps", "Steps", string(m.stepping()), string(job.LeastGap), string(job.LeastGap), string(job.EvenSteps), string(job.Gradual), string(job.RoundStep))}}
	switch m.stepping() {
	case job.Gradual:
		s.Settings = append(s.Settings, m.straightness(), m.ByHand("/grade/stepMost", "Most drop at one post", g.StepMost))
	case job.RoundStep:
		s.Settings = append(s.Settings, m.Measured("/grade/stepBy", "Increment", g.Increment(m.Job.Units), job.Grade{}.Increment(m.Job.Units)), m.ByHand("/grade/stepMost", "Most drop at one post", g.StepMost))
	}
	return s
}

// whyLean tells how panels and rails lie on the slope; one explanation serves
// all bays of a look.
func (m *Slope) whyLean(look job.Look) reason.Why {
	w := reason.Why{Figure: "Rails and panels on the slope",
		Sentence: reason.Say("Level: a rail is as long as the clear opening between the faces."),
		Steps:    []reason.Step{m.lookStep(look)}}
	if !look.Leans() {
		return w
	}
	w.Sentence = reason.Say("A rail is the long side over the clear opening and its rise: clear × √(1 + slope²). Posts and pickets stay plumb, so that a racked panel keeps its height and only its rails grow longer.")
	w.Steps = append(w.Steps, reason.Step{Rule: "Long side over its rise", Source: stage.Geometry, Says: reason.Say("The rise from post to post over the distance of their centres is the slope of the whole bay.")},
		reason.Step{Rule: "Rack", Source: stage.Practice, Says: reason.Say("Past what a panel can lean, it is stepped."), Settings: []reason.Setting{m.ByHand("/grade/rack", "Panel racks at most", m.Spec.Grade.Rack)}})
	return w

}

// whyTop explains a post's top by the look of the bay after it.
func (m *Slope) whyTop(p *Post, look job.Look) reason.Why {
	f := m.Spec.Fence
	sentence := looks[look]
	switch {
	case p.Kind == job.GatePost && m.Spec.Grade.Across != job.GoesOn:
		sentence += " The tops are flat across the opening."
	case p.Grade:
		sentence += " Here it breaks: this is a grade post."
	}
	w := reason.Why{Figure: "Post top", Sentence: reason.Say(sentence), Steps: []reason.Step{m.lookStep(look)}}
	if look == job.Stepped {
		w.Steps = append(w.Steps, m.stepStep())
	}
	w.Steps = append(w.Steps,
		reason.Step{Rule: "Least gap", Source: stage.Practice,
			Says:     reason.Say("Fence at least ", f.GapLeast, " over the ground."),
			Settings: []reason.Setting{m.Measured("/fence/gapLeast", "Least gap", f.GapLeast, m.Usual.Fence.GapLeast)}},
		reason.Step{Rule: "Fence height", Source: stage.Yours, Says: reason.Say(f.Height, " from its bottom to its top."),
			Settings: []reason.Setting{m.Measured("/fence/height", "Fence height", f.Height, m.Usual.Fence.Height)}})
	if above := m.Spec.PostOf(p.Kind).Above; above != 0 {
		says := reason.Say("The post stands ", above, " above the fence's top.")
		if above < 0 {
			says = reason.Say("The post's top stands ", -above, " below the fence's top.")
		}
		w.Steps = append(w.Steps, reason.Step{Rule: "Post above the fence", Source: stage.Yours, Says: says,
			Settings: []reason.Setting{m.Measured("/post/above", "Post above the fence", m.Spec.Post.Above, m.Usual.Post.Above)}})
	}
	return w

}

// whyGap explains the gap under a bay of fence, or under a gate.
func (m *Slope) whyGap(b *Bay, gate int) reason.Why {
	if gate != spacing.NoGate {
		g := m.Spec.Gates[gate]
		usual := m.Cat.UsualGate(m.Job.Units.System).Gap
		set := m.Measured("", "Gap under the leaf", g.Gap, usual)
		set.Path = m.GatePath(gate) + "/gap"
		return reason.Why{
			Figure:   "Gap under the gate",
			Sentence: reason.Say(g.Gap, " over the highest ground across the opening, up to ", b.GapMost.Gap, " at ", reason.Tape(b.GapMost.At), "."),
			Steps: []reason.Step{{Rule: "Gap under the leaf", Governs: true, Source: stage.Practice,
				Says:     reason.Say("4 to 6 in (100 to 150 mm) is usual."),
				Settings: []reason.Setting{set}}},
			Caution: "Ground that rises inside the swing needs more: only the ground under the closed leaf is looked at here.",
		}

	}
	sentence := reason.Sentence(12).Words("Gap from ").Length(b.GapLeast.Gap).Words(" at ").Tape(b.GapLeast.At).
		Words(" to ").Length(b.GapMost.Gap).Words(" at ").Tape(b.GapMost.At)
	switch {
	case b.Cut != nil && b.Fill != nil:
		sentence = sentence.Words(": cut ").Length(b.Cut.Depth).Words(" at the one, fill ").Length(b.Fill.Depth).Words(" at the other.")
	case b.Cut != nil:
		sentence = sentence.Words(": cut ").Length(b.Cut.Depth).Words(" of ground there.")
	case b.Fill != nil:
		sentence = sentence.Words(": fill ").Length(b.Fill.Depth).Words(" of ground there.")
	default:
		sentence = sentence.Words(": inside the limits.")
	}
	return reason.Why{Figure: "Gap under the fence", Sentence: sentence, Steps: m.gapSteps(b.Cut != nil, b.Fill != nil)}

}

// gapSteps are the rules of the corridor; long runs share them.
func (m *Slope) gapSteps(cut, fill bool) []reason.Step {
	f := m.Spec.Fence
	return []reason.Step{
		{Rule: "Least gap", Governs: cut, Source: stage.Practice, Says: reason.Say("At least ", f.GapLeast),
			Settings: []reason.Setting{m.Measured("/fence/gapLeast", "Least gap", f.GapLeast, m.Usual.Fence.GapLeast)}},
		{Rule: "Most gap", Governs: fill, Source: stage.Practice, Says: reason.Say("At most ", f.GapMost),
			Settings: []reason.Setting{m.Measured("/fence/gapMost", "Most gap", f.GapMost, m.Usual.Fence.GapMost)}},
		{Rule: "What gives", Source: stage.Practice, Says: reason.Say(gives[m.Spec.Grade.Give]),
			Settings: []reason.Setting{m.Choice("/grade/give", "What gives", string(m.Spec.Grade.Give), string(m.Usual.Grade.Give), "fill", "cut", "both")}},
	}

}

var gives = map[job.Give]string{
	job.Fill: "Hold the least gap and fill under the low ground: soil is brought.",
	job.Cut:  "Hold the most gap and cut the high ground: digging, and mind the roots.",
	job.Both: "Half cut, half fill: the cut fills the low ground beside it.",
}
