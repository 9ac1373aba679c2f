package plan

import (
	"fmt"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

func (m *maker) whyStation(p Post, at spacing.Post) reason.Ref {
	switch p.Kind {
	case job.GatePost:
		if at.Gate == spacing.NoGate { // a gate of the next run hangs on it
			return m.whyEnd(p)
		}
		return m.few.Put([2]any{"gate post", at.Gate}, func() reason.Why {
			g := m.run.Gates[at.Gate]
			return reason.Why{
				Figure: "Where the gate posts stand",
				Sentence: reason.Say("Middle of the opening at ", reason.Tape(g.At), ", half of what is inside, ", g.Inside()/2,
					", and half a post, ", m.run.PostOf(job.GatePost).Width/2, ", either side."),
				Steps: []reason.Step{{
					Rule: "Gate posts are fixed", Governs: true, Source: geometry,
					Says: m.sizedSays(g),
					Settings: []reason.Setting{
						{Path: m.gatePath(at.Gate) + "/at", Name: "Middle of the opening", Kind: reason.LengthSetting, Value: g.At},
						m.sizeSetting(at.Gate),
					},
				}},
			}
		})
	case job.EndPost, job.CornerPost:
		return m.whyEnd(p)
	}
	switch {
	case at.Held != spacing.Nothing:
		return m.few.Put([2]any{"held post", at.Held}, func() reason.Why {
			f := m.run.FixedPosts[at.Held]
			says := "Held here by you; the other posts are spaced on both sides of it."
			if f.Landed {
				says = "Set already, and this is where it landed: it is the post that was meant to stand here, and only the bays beside it change."
				if f.Respace {
					says = "Set already, and this is where it landed; the posts that are still to come are spaced from it."
				}
			}
			return reason.Why{Figure: "Held post", Sentence: reason.Say("At ", reason.Tape(f.At), ". ", says), Steps: []reason.Step{
				{Rule: "Held by hand", Governs: true, Source: yours, Says: reason.Say(says),
					Settings: []reason.Setting{{Path: fmt.Sprintf("%s/fixedPosts/%d/at", m.path, at.Held), Name: "Station", Kind: reason.LengthSetting, Value: f.At}}}}}
		})
	case at.Stays != spacing.Nothing:
		return p.Why.HoleWidth
	}
	return m.out.Segments[at.Segment].Why
}

// whyEnd tells where a run's first and last posts stand.
func (m *maker) whyEnd(p Post) reason.Ref {
	return m.few.Put([2]any{"end post", p.Kind}, func() reason.Why {
		w := reason.Why{
			Figure:   "Where the end posts stand",
			Sentence: reason.Say("The run was measured ", reason.Tape(*m.run.Length), " centre to centre of its end posts."),
			Steps: []reason.Step{{Rule: "As measured", Governs: true, Source: yours,
				Says:     reason.Say("Set these first; everything else is taped between them."),
				Settings: []reason.Setting{{Path: m.path + "/length", Name: "Run length", Kind: reason.LengthSetting, Value: *m.given.Length}}}},
		}
		if m.ground.Correction > length.Tolerance {
			w.Steps = append(w.Steps, reason.Step{Rule: "Slope tape reduced to level", Source: geometry,
				Says: reason.Say(reason.Tape(*m.given.Length), " along the ground, piece by piece the long side over its rise: ",
					reason.Tape(*m.run.Length), " level, ", m.ground.Correction, " less.")})
		}
		return w
	})
}

// whyTop explains a post's top by the look of the bay after it.
func (m *maker) whyTop(p Post, look job.Look) reason.Ref {
	type key struct {
		of          string
		look        job.Look
		gate, knots bool
		above       length.Length
	}
	return m.few.Put(key{"top", look, p.Kind == job.GatePost, p.Grade, m.run.PostOf(p.Kind).Above}, func() reason.Why {
		f := m.run.Fence
		sentence := looks[look]
		switch {
		case p.Kind == job.GatePost && m.run.Grade.Across != job.GoesOn:
			sentence += " The tops are flat across the opening."
		case p.Grade:
			sentence += " Here it breaks: this is a grade post."
		}
		w := reason.Why{Figure: "Post top", Sentence: reason.Say(sentence), Steps: []reason.Step{m.lookStep(look)}}
		if look == job.Stepped {
			w.Steps = append(w.Steps, m.stepStep())
		}
		w.Steps = append(w.Steps,
			reason.Step{Rule: "Least gap", Source: practice,
				Says:     reason.Say("Fence at least ", f.GapLeast, " over the ground."),
				Settings: []reason.Setting{m.measured("/fence/gapLeast", "Least gap", f.GapLeast, m.usual.Fence.GapLeast)}},
			reason.Step{Rule: "Fence height", Source: yours, Says: reason.Say(f.Height, " from its bottom to its top."),
				Settings: []reason.Setting{m.measured("/fence/height", "Fence height", f.Height, m.usual.Fence.Height)}})
		if above := m.run.PostOf(p.Kind).Above; above != 0 {
			says := reason.Say("The post stands ", above, " above the fence's top.")
			if above < 0 {
				says = reason.Say("The post's top stands ", -above, " below the fence's top.")
			}
			w.Steps = append(w.Steps, reason.Step{Rule: "Post above the fence", Source: yours, Says: says,
				Settings: []reason.Setting{m.measured("/post/above", "Post above the fence", m.run.Post.Above, m.usual.Post.Above)}})
		}
		return w
	})
}

func (m *maker) whyGap(b Bay, gate int) reason.Ref {
	if gate != spacing.NoGate {
		return m.few.Put([2]any{"leaf", gate}, func() reason.Why {
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
	return m.gapWhys.Put([2]grade.Gap{b.GapLeast, b.GapMost}, func() reason.Why {
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
	})
}

// gapSteps are the rules of the corridor; long runs share them.
func (m *maker) gapSteps(cut, fill bool) []reason.Step {
	return m.steps([3]any{"gap", cut, fill}, func() []reason.Step {
		f := m.run.Fence
		return []reason.Step{
			{Rule: "Least gap", Governs: cut, Source: practice, Says: reason.Say("At least ", f.GapLeast),
				Settings: []reason.Setting{m.measured("/fence/gapLeast", "Least gap", f.GapLeast, m.usual.Fence.GapLeast)}},
			{Rule: "Most gap", Governs: fill, Source: practice, Says: reason.Say("At most ", f.GapMost),
				Settings: []reason.Setting{m.measured("/fence/gapMost", "Most gap", f.GapMost, m.usual.Fence.GapMost)}},
			{Rule: "What gives", Source: practice, Says: reason.Say(gives[m.run.Grade.Give]),
				Settings: []reason.Setting{m.choice("/grade/give", "What gives", string(m.run.Grade.Give), string(m.usual.Grade.Give), "fill", "cut", "both")}},
		}
	})
}

var gives = map[job.Give]string{
	job.Fill: "Hold the least gap and fill under the low ground: soil is brought.",
	job.Cut:  "Hold the most gap and cut the high ground: digging, and mind the roots.",
	job.Both: "Half cut, half fill: the cut fills the low ground beside it.",
}
