package setout

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stringline"
)

// stringWeight says what a string weighs, given in newtons on each metre.
func (m *Marking) stringWeight(newtons float64) reason.Text {
	if m.Job.Units.System == length.Metric {
		return reason.Say("It weighs ", length.Mass(newtons/9.80665*30), " on 30 m")
	}
	return reason.Say("It weighs ", length.Mass(newtons/9.80665*30.48), " on 100 ft")
}

var (
	catenary = reason.Source{Kind: reason.Published, Name: "first term of the catenary, wL²/8T"}
	drag     = reason.Source{Kind: reason.Published, Name: "drag of a thin round line across the wind, coefficient 1.2, air 1.225 kg/m³"}
)

var positionCosts = map[job.StringPosition]string{
	job.OnFace:   "The string lies on the faces: nothing to measure, but one post that leans on it moves it for all.",
	job.JustOff:  "Held just off, no post can push it; every post is set by the same small gap.",
	job.StandOff: "Far enough off to stay up through digging; every post is measured to it, and a long measure is easily not square.",
	job.BySight:  "No string: nothing sags or blows. It takes a practised eye and straight posts.",
}

// explain says why a figure of the run's strings and tops is what it is.
func (m *Marking) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case !m.Laid():
	case f.Of == "string" && f.What == "constant":
		return m.whyConstant(), true
	case f.Of == "string" && f.What == "sag":
		return m.whySag(), true
	case f.Of == "string" && f.What == "drift":
		return m.whyDrift(), true
	case f.Of == "tops":
		cord, kind, _ := m.cord()
		return m.whyTopLine(m.Tops, cord, kind), true
	}
	return reason.Why{}, false
}

func (m *Marking) whyConstant() reason.Why {
	s, out := m.Spec.String, m.Strings

	return reason.Why{Figure: "Offset of the string",
		Sentence: reason.Say("Hold ", out.ToFace, " from the string to the ", s.Face, " face of every post: ", out.ToCentre, " to its centre."),
		Steps: []reason.Step{
			{Rule: "School", Governs: true, Source: stage.Practice, Says: reason.Say(positionCosts[s.Position]),
				Settings: []reason.Setting{m.Choice("/string/school", "School", string(s.Position), string(m.Usual.String.Position), "face", "off", "stand-off", "sight"),
					m.ByHand("/string/off", "String off the faces", s.Off)}},
			{Rule: "Half a post", Source: stage.Geometry, Says: reason.Say(m.Spec.Post.Width, " ÷ 2 = ", m.Spec.Post.Width/2, " from face to centre.")},
		}}
}

func (m *Marking) whySag() reason.Why {
	s, out := m.Spec.String, m.Strings
	_, kind, _ := m.cord()
	set := m.Measured("/string/mark", "Height string below the tops", s.Mark, m.Usual.String.Mark)

	w := reason.Why{Figure: "Sag of the height string",
		Sentence: reason.Say(kind.Name, " pulled to ", reason.Force(s.Pull), " hangs ", out.Sag, " at the middle of ", m.Ground.Length),
		Steps: []reason.Step{
			{Rule: "Sag", Governs: true, Source: catenary, Says: append(m.stringWeight(kind.Weight), reason.Say("; half the span is a quarter of the sag.")...),
				Settings: []reason.Setting{{Path: m.Path + "/string/pull", Name: "Pull, newtons", Kind: reason.RatioSetting, Value: s.Pull, Usual: m.Usual.String.Pull, Changed: s.Pull != m.Usual.String.Pull}}},
			{Rule: "Props", Source: stage.Practice, Says: reason.Say("A height string is trusted over 3 or 4 posts; ", out.PropsFor, stage.Plural(out.PropsFor, " prop keeps", " props keep"), " it within ", sagAllowed, ".")},
			{Rule: "String", Source: kind.Source, Says: reason.Say(kind.Name), Settings: []reason.Setting{set}},
		}}
	if s.Props > 0 {
		w.Sentence = append(w.Sentence, reason.Say("; on ", s.Props, stage.Plural(s.Props, " prop ", " props "), out.SagPropped)...)
	}
	w.Sentence = append(w.Sentence, reason.Say(".")...)
	return w
}

func (m *Marking) whyDrift() reason.Why {
	out, wind := m.Strings, m.Job.Site.Wind

	w := reason.Why{Figure: "Drift of the string in the wind",
		Sentence: reason.Say("No wind entered: the string is taken to hang straight."),
		Steps:    []reason.Step{{Rule: "Drift", Governs: true, Source: drag, Says: reason.Say("A wind square across the string bows it as its weight makes it sag.")}}}
	if wind > 0 {
		w.Sentence = reason.Say("A wind of ", reason.Speed(wind), " square across pushes it ", out.Drift, " out at the middle of ", out.Span, "; over ", *out.SightFrom, " sight along the posts instead.")
	}
	return w
}

var topWays = map[job.TopsBy]string{
	job.ByString: "A tight string over the tops: quick and seen at once; it sags, and needs a prop every 3 or 4 posts.",
	job.ByLaser:  "One level mark on every post by laser, and a measure from it: exact on any slope; a laser, and a sum for every post.",
	job.ByDrops:  "A level string from the highest top, and drops from it: no tools but a line level; it gets too high to reach on a steep run.",
	job.ByEye:    "Sighting from post to post: no string at all, and the eye flows over bumps that a tape steps over; it takes practice.",
}

func (m *Marking) whyTopLine(t *TopLine, cord stringline.Cord, kind materials.String) reason.Why {
	w := reason.Why{Figure: "How the tops are set", Sentence: reason.Say(topWays[t.By]),
		Steps: []reason.Step{
			{Rule: "School", Governs: true, Source: stage.Practice, Says: reason.Say("All four give the same tops."),
				Settings: []reason.Setting{m.Choice("/grade/by", "Set by", string(t.By), string(job.ByString), string(job.ByString), string(job.ByLaser), string(job.ByDrops), string(job.ByEye))}},
			{Rule: "Reference mark", Source: stage.Practice, Says: reason.Say("A mark ", t.Mark, " below the fence's top, the same on every post: the story stick is held to it. On tall fences it lies at eye height."),
				Settings: []reason.Setting{m.Measured("/string/mark", "Mark below the tops", t.Mark, m.Usual.String.Mark)}},
		}}
	if k := t.longest(); k >= 0 {
		p := t.Pieces[k]
		w.Steps = append(w.Steps, reason.Step{Rule: "Sag", Source: catenary,
			Says: reason.Say(kind.Name, " pulled to ", reason.Force(cord.Pull), " sags ", p.Sag, " over ", p.Length, ", the longest piece; props keep it within ", sagAllowed, ".")})
	}
	if l := t.Limit; l != nil {
		w.Steps = append(w.Steps, reason.Step{Rule: "The shortest post limits a level fence", Source: stage.Geometry,
			Says: reason.Say(l.Post, " needs the longest post: of a ", l.Stock, " one ", l.Spare, " is left. Higher than that the level top cannot go without longer stock.")})
	}
	return w

}
