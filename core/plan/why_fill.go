package plan

import (
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

func (m *maker) whyConcrete(p *Post) reason.Ref {
	type key struct {
		of   string
		card int
	}
	return m.few.Put(key{"concrete", p.Card}, func() reason.Why {
		d, c := &m.ditches[p.Card], &m.out.Cards[p.Card]
		r := d.sized.rules
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
		if d.bag.Yield > 0 && c.Method != job.RockPacked {
			w.Steps = append(w.Steps, m.bagStep(r, d.bag))
		}
		return w
	})
}

// roundPost says what the concrete in a hole is the difference of.
func (m *maker) roundPost(d *ditch) reason.Text {
	hole, post := d.shape.Volume(d.sized.dug().Bottom-d.fill.ConcreteHeight, d.sized.dug().Bottom), length.Volume(0)
	if d.sized.driven {
		hole = d.fill.Dug
	}
	for _, l := range d.fill.Layers {
		if l.Kind == footing.ConcreteLayer || l.Kind == footing.RocksLayer {
			post += l.Volume
		}
	}
	post = hole - post
	t := reason.Say(d.fill.ConcreteHeight, " of concrete in a ", d.shape.At(d.sized.dug().Bottom/2), " hole: ", hole, " less the post, ", post)
	for _, l := range d.fill.Layers {
		switch l.Kind {
		case footing.InsideLayer:
			t = append(t, reason.Say(", and ", l.Concrete, " inside it")...)
		case footing.CrownLayer:
			t = append(t, reason.Say(", and ", l.Concrete, " of crown")...)
		case footing.RocksLayer:
			t = append(t, reason.Say(", less ", l.Stone, " of rocks")...)
		case footing.GravelLayer:
			if l.To < d.sized.dug().Bottom-length.Tolerance {
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

// methodChoices are the ways to set a post in a hole.
var methodChoices = []string{string(job.Braced), string(job.FastDry), string(job.DryPacked), string(job.Stabbed), string(job.RockPacked), string(job.Slurry), string(job.Layered)}

// fillSteps are the choices behind what goes into a hole.
func (m *maker) fillSteps(d *ditch, c *Card) []reason.Step {
	r := d.sized.rules
	set := r.Setting
	steps := []reason.Step{{Rule: "Way of setting", Governs: true, Source: practice, Says: reason.Say(methodCosts[set.Method]),
		Settings: []reason.Setting{m.rule(r, "setting/method", "Set", reason.ChoiceSetting, methodChoices...)}}}
	add := func(rule string, source reason.Source, says reason.Text, settings ...reason.Setting) {
		steps = append(steps, reason.Step{Rule: rule, Source: source, Says: says, Settings: settings})
	}
	if d.sized.driven {
		steps = steps[:0]
	} else if c.Method != job.RockPacked {
		add("Hole less post", geometry, reason.Say("From the bottom, ", c.Bottom, " down, ", d.fill.ConcreteHeight, " high: so that bags are not bought for the room that the post takes."))
		if set.Top == job.CrownTop {
			add("Crown", practice, reason.Say("Crowned ", set.Crown, " high at the post, sloped to the hole's edge: water runs off; frost can get under a crown wider than its hole."),
				m.topSetting(r), m.rule(r, "setting/crown", "Crown", reason.LengthSetting))
		} else {
			add("Soil cover", practice, reason.Say("Stopped ", m.asEntered(r, "setting/cover", set.Cover), " short and mounded with soil, sloped away from the post: grass grows up to it; the mound settles and is topped up."),
				m.topSetting(r), m.rule(r, "setting/cover", "Soil cover", reason.LengthSetting))
		}
		add("Rubble", practice, reason.Say("Clean rubble in the mix, as a share: ", set.Rubble), m.rule(r, "setting/rubble", "Rubble, as a share", reason.RatioSetting))
	}
	if set.Method == job.Slurry {
		add("Rocks first", reason.Source{Kind: reason.Practice, Name: "room between rocks, two fifths"}, reason.Say("Rocks to ", set.RocksTo, " below ground, bonded with a runny batch that fills ", 100*m.cat.Supply.Voids, " % of the layer."),
			m.rule(r, "setting/rocksTo", "Rocks up to", reason.LengthSetting))
	}
	if d.sized.q.Post.Hollow {
		add("Inside the post", practice, reason.Say(insides[set.Inside]),
			m.rule(r, "setting/inside", "Hollow posts", reason.ChoiceSetting, string(job.OpenInside), string(job.ClosedInside), string(job.CoreInside)))
	}
	if !d.sized.driven {
		add("Gravel", practice, reason.Say(c.Depth-c.Bottom, " under the bottom takes ", layerOf(c.Layers, footing.GravelLayer), " tamped."), m.rule(r, "setting/gravel", "Gravel", reason.LengthSetting))
	}
	return steps
}

func (m *maker) topSetting(r *job.Rules) reason.Setting {
	return m.rule(r, "setting/top", "Top of the concrete", reason.ChoiceSetting, string(job.CoverTop), string(job.CrownTop))
}

var insides = map[job.Inside]string{
	job.OpenInside:   "Open at the foot: it fills as it is set, and stands the stiffer for it.",
	job.ClosedInside: "Closed at the foot: nothing goes in, so that nothing freezes in it and bursts it.",
	job.CoreInside:   "A steel core takes the pull; concrete round it to the ground only.",
}

// methodCosts say what each way of setting gives and costs.
var methodCosts = map[job.Method]string{
	job.Braced:     "Braced, then filled with mixed concrete: sure and strong; two braces and a day or two for each post. Bare timber in concrete rots sooner, some say never.",
	job.FastDry:    "Fast-setting mix poured dry and watered: minutes, no mixing; dearer, and only as good as the water reaches.",
	job.DryPacked:  "Mix tamped dry in layers: usable at once, can be bumped up or down; slow, and dumped loose it is weak.",
	job.Stabbed:    "Holes filled from a truck, posts pushed in: many in an hour, no bracing; the mix waits for nobody.",
	job.RockPacked: "Stone wedged and tamped in graded layers: no waiting, drains, can be dug out again; settles and is topped up.",
	job.Slurry:     "Rocks first, runny mix over them, then the normal mix: saves mix in deep holes; rocks to find and carry.",
	job.Layered:    "Mix low to lock the foot, gravel to drain, the rest on top: light screens beside paving.",
}

func (m *maker) bagStep(r *job.Rules, bag materials.Bag) reason.Step {
	ids := []string{}
	for _, b := range m.cat.Bags {
		ids = append(ids, b.ID)
	}
	return reason.Step{Rule: "Yield of a bag", Source: bag.Source,
		Says:     reason.Say("A ", bag.Name, " makes ", bag.Yield, "."),
		Settings: []reason.Setting{m.rule(r, "setting/bag", "Bag", reason.ChoiceSetting, ids...)}}
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
