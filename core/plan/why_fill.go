package plan

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

func (m *maker) whyConcrete(p *Post) reason.Ref {
	type key struct {
		of          string
		width, foot length.Length
	}
	return m.few.Put(key{"concrete", p.HoleWidth, p.Foot}, func() reason.Why {
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
	return m.stockWhys.Put([2]length.Length{p.Reveal, p.Foot}, func() reason.Why {
		s := reason.Sentence(13).Length(p.Reveal).Words(" above + ").Length(p.Foot).Words(" below")
		if !p.CutFirst {
			s = s.Words(" + ").Length(m.run.Post.Trim).Words(" to trim")
		}
		s = s.Words(" = ").Length(p.Needed)
		if p.Stock != nil {
			s = s.Words(": the ").Length(*p.Stock).Words(" post, less ").Length(*p.CutOff).Words(".")
		} else {
			s = s.Words(": longer than any post in stock.")
		}
		return reason.Why{Figure: "Post length", Sentence: s, Steps: m.stockSteps()}
	})
}

func (m *maker) stockSteps() []reason.Step {
	return m.steps("stock", func() []reason.Step {
		return []reason.Step{
			{Rule: "Next stock length up", Governs: true, Source: yours, Says: reason.Say("Sold in ", list(m.run.Post.Stock))},
			{Rule: "Trim", Source: practice, Says: reason.Say("Spare to cut to the line after setting."),
				Settings: []reason.Setting{m.measured("/post/trim", "Trim", m.run.Post.Trim, m.usual.Post.Trim)}},
			{Rule: "When tops are cut", Source: practice, Says: reason.Say(cuttings[m.cutting()]),
				Settings: []reason.Setting{m.choice("/post/cut", "Tops are cut", string(m.cutting()), string(job.CutAfter), string(job.CutAfter), string(job.CutFirst))}},
		}
	})
}

// cutting is when the run's tops are cut.
func (m *maker) cutting() job.Cutting {
	if m.run.Post.Cut == job.CutFirst {
		return job.CutFirst
	}
	return job.CutAfter
}

var cuttings = map[job.Cutting]string{
	job.CutAfter: "Left long and cut in place: holes need not be exact, and tops come out true; the trim is waste, and every top is a cut overhead.",
	job.CutFirst: "Cut to length on trestles, then set to the string: no trim and no saw overhead; every foot must stand exactly at its depth.",
}

func (m *maker) whyBags(t Totals) reason.Ref {
	return m.few.Put("bags", func() reason.Why {
		s := m.run.Setting
		w := reason.Why{Figure: "Concrete for the run",
			Sentence: reason.Say(t.Posts, plural(t.Posts, " hole takes ", " holes take "), t.Concrete, " (", reason.Bulk(t.Concrete), ")")}
		if m.bagKnown {
			w.Sentence = append(w.Sentence, reason.Say(": ", t.BagKinds[0].Exact, " bags, so ", t.Bags, ".")...)
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
	return m.few.Put("gravel", func() reason.Why {
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
