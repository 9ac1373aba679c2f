package plan

import (
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stringline"
)

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

var topWays = map[job.TopsBy]string{
	job.ByString: "A tight string over the tops: quick and seen at once; it sags, and needs a prop every 3 or 4 posts.",
	job.ByLaser:  "One level mark on every post by laser, and a measure from it: exact on any slope; a laser, and a sum for every post.",
	job.ByDrops:  "A level string from the highest top, and drops from it: no tools but a line level; it gets too high to reach on a steep run.",
	job.ByEye:    "Sighting from post to post: no string at all, and the eye flows over bumps that a tape steps over; it takes practice.",
}

func (m *maker) school() job.Steps {
	if s := m.run.Grade.Steps; s != "" {
		return s
	}
	return job.LeastGap
}

// straightness is the setting of the one control.
func (m *maker) straightness() reason.Setting {
	g := m.run.Grade
	return reason.Setting{Path: m.path + "/grade/straight", Name: "Straight: 0 hugs the ground, 1 is as straight as can be", Kind: reason.RatioSetting,
		Value: g.Stiff(), Usual: 0.5, Changed: g.Straight != nil && *g.Straight != 0.5}
}

// lookStep is the rule that governs a top.
func (m *maker) lookStep(look job.Look) reason.Step {
	s := reason.Step{Rule: "Look", Governs: true, Source: practice, Says: reason.Say(looks[look]),
		Settings: []reason.Setting{m.choice("/grade/look", "Look", string(m.run.Grade.Look), string(m.usual.Grade.Look), string(job.Level), string(job.Stepped), string(job.Raked), string(job.Rolling))}}
	switch look {
	case job.Raked:
		s.Settings = append(s.Settings, m.straightness())
	case job.Rolling:
		s.Settings = append(s.Settings, m.measured("/grade/dips", "Dips and humps taken out", m.run.Grade.Dips, 0))
	}
	return s
}

// stepStep is the rule of stepping.
func (m *maker) stepStep() reason.Step {
	g := m.run.Grade
	s := reason.Step{Rule: "Steps", Source: practice, Says: reason.Say(stepping[m.school()]),
		Settings: []reason.Setting{m.choice("/grade/steps", "Steps", string(m.school()), string(job.LeastGap), string(job.LeastGap), string(job.EvenSteps), string(job.Gradual), string(job.RoundStep))}}
	switch m.school() {
	case job.Gradual:
		s.Settings = append(s.Settings, m.straightness(), m.byHand("/grade/stepMost", "Most drop at one post", g.StepMost))
	case job.RoundStep:
		s.Settings = append(s.Settings, m.measured("/grade/stepBy", "Increment", g.Increment(m.job.Units), job.Grade{}.Increment(m.job.Units)), m.byHand("/grade/stepMost", "Most drop at one post", g.StepMost))
	}
	return s
}

// whyLean tells how panels and rails lie on the slope; one explanation serves
// all bays of a look.
func (m *maker) whyLean(look job.Look) reason.Ref {
	return m.few.Put([2]any{"lean", look}, func() reason.Why {
		w := reason.Why{Figure: "Rails and panels on the slope",
			Sentence: reason.Say("Level: a rail is as long as the clear opening between the faces."),
			Steps:    []reason.Step{m.lookStep(look)}}
		if !look.Leans() {
			return w
		}
		w.Sentence = reason.Say("A rail is the long side over the clear opening and its rise: clear × √(1 + slope²). Posts and pickets stay plumb, so that a racked panel keeps its height and only its rails grow longer.")
		w.Steps = append(w.Steps, reason.Step{Rule: "Long side over its rise", Source: geometry, Says: reason.Say("The rise from post to post over the distance of their centres is the slope of the whole bay.")},
			reason.Step{Rule: "Rack", Source: practice, Says: reason.Say("Past what a panel can lean, it is stepped."), Settings: []reason.Setting{m.byHand("/grade/rack", "Panel racks at most", m.run.Grade.Rack)}})
		return w
	})
}

func (m *maker) whyTopLine(t *TopLine, cord stringline.Cord, kind materials.String) reason.Ref {
	return m.few.Put("top line", func() reason.Why {
		w := reason.Why{Figure: "How the tops are set", Sentence: reason.Say(topWays[t.By]),
			Steps: []reason.Step{
				{Rule: "School", Governs: true, Source: practice, Says: reason.Say("All four give the same tops."),
					Settings: []reason.Setting{m.choice("/grade/by", "Set by", string(t.By), string(job.ByString), string(job.ByString), string(job.ByLaser), string(job.ByDrops), string(job.ByEye))}},
				{Rule: "Reference mark", Source: practice, Says: reason.Say("A mark ", t.Mark, " below the fence's top, the same on every post: the story stick is held to it. On tall fences it lies at eye height."),
					Settings: []reason.Setting{m.measured("/string/mark", "Mark below the tops", t.Mark, m.usual.String.Mark)}},
			}}
		if k := t.longest(); k >= 0 {
			p := t.Pieces[k]
			w.Steps = append(w.Steps, reason.Step{Rule: "Sag", Source: catenary,
				Says: reason.Say(kind.Name, " pulled to ", reason.Force(cord.Pull), " sags ", p.Sag, " over ", p.Length, ", the longest piece; props keep it within ", sagAllowed, ".")})
		}
		if l := t.Limit; l != nil {
			w.Steps = append(w.Steps, reason.Step{Rule: "The shortest post limits a level fence", Source: geometry,
				Says: reason.Say(l.Post, " needs the longest post: of a ", l.Stock, " one ", l.Spare, " is left. Higher than that the level top cannot go without longer stock.")})
		}
		return w
	})
}
