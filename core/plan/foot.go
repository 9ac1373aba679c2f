package plan

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// reuse is an old post that stays: nothing is dug, poured or cut for it.
func (m *maker) reuse(p *Post) {
	p.Gravel = 0
	why := m.few.Put("stays", func() reason.Why {
		return reason.Why{Figure: "Old post that stays",
			Sentence: reason.Say("An old post stands here and stays: no hole, no concrete, no new post."),
			Steps: []reason.Step{{Rule: "Reused posts", Governs: true, Source: practice,
				Says: reason.Say("Shake it and probe it at the ground line first: soft wood or a loose footing is a post to replace. Match its height.")}}}
	})
	p.Why.HoleWidth, p.Why.HoleDepth, p.Why.Concrete, p.Why.Stock = why, why, why, why
}

func (m *maker) whyDriven(p *Post, s sized) reason.Ref {
	type key struct {
		rules *job.Rules
		kind  job.PostKind
		foot  length.Length
	}
	return m.few.Put(key{s.rules, p.Kind, p.Foot}, func() reason.Why {
		h := s.rules.Hole
		w := reason.Why{Figure: "Driven post", Sentence: reason.Say("Driven ", p.Foot, " into undisturbed soil: no hole."),
			Steps: []reason.Step{{Rule: "Driven posts", Governs: true, Source: practice,
				Says:     reason.Say("Only into soil that nobody has dug: an old hole or fill does not hold a driven post."),
				Settings: []reason.Setting{m.rule(s.rules, "hole/driven", "Driven posts", reason.ChoiceSetting, string(job.NoneDriven), string(job.LineDriven), string(job.AllDriven))}}},
			Caution: "Locate services first: a driven post goes through a pipe without a warning."}
		if h.Collar > 0 {
			w.Sentence = reason.Say("Driven ", p.Foot, " into undisturbed soil, with a collar of concrete ", h.Collar, " wide and deep round its head.")
			w.Steps = append(w.Steps, reason.Step{Rule: "Collar", Source: practice, Says: reason.Say(p.ConcreteVolume, " of concrete each."),
				Settings: []reason.Setting{m.rule(s.rules, "hole/collar", "Collar", reason.LengthSetting)}})
		}
		return w
	})
}

// oldHole returns how wide a hole must be that takes out an old footing which
// is dug out and poured anew: wide enough to hold all of it.
func (m *maker) oldHole(at, hole length.Length) (length.Length, string) {
	wide, id := length.Length(0), ""
	for _, k := range m.run.KeepOuts {
		if k.Repour && isFooting(k) && at+hole/2 > k.From() && at-hole/2 < k.To() {
			// Only the part that the new hole disturbs the soil of: an old
			// footing is a spot; a whole stretch of them is dug as the hole is.
			if w := 2 * max(k.To()-at, at-k.From()); k.Width <= 2*hole && w > wide {
				wide, id = w, k.ID
			} else if id == "" {
				wide, id = hole*3/2, k.ID
			}
		}
	}
	return wide, id
}

func isFooting(k job.KeepOut) bool {
	return k.Kind == job.Footing || k.Kind == job.OldPost && !k.Stays
}

func (m *maker) whyRepour(wide length.Length, id string) reason.Ref {
	return m.few.Put([2]any{"repour", wide}, func() reason.Why {
		return reason.Why{Figure: "Hole width",
			Sentence: reason.Say("The old footing is dug out, and the hole is poured anew ", wide, " wide."),
			Steps: []reason.Step{{Rule: "Dug out and poured wider", Governs: true, Source: practice,
				Says: reason.Say("Soil beside a pulled footing is loose: the new concrete reaches past it into firm ground. A stretch of old footings counts half a hole more.")}},
			Caution: "Old concrete is heavy: lever it out, two people, and mind the back."}
	})
}
