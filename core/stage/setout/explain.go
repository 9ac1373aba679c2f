package setout

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stringline"
	"mallow/core/words"
)

// explaining words why strings and tops are set as they are.
type explaining struct{ *Marking }

// stringWeight says what a string weighs, given in newtons on each metre.
func (m explaining) stringWeight(newtons float64) reason.Text {
	if m.Job.Units.System == length.Metric {
		return words.Say("setout.it-weighs-on-30-m", words.V{"newtons": length.Mass(newtons / 9.80665 * 30)})
	}
	return words.Say("setout.it-weighs-on-100-ft", words.V{"newtons": length.Mass(newtons / 9.80665 * 30.48)})
}

var (
	catenary = reason.Source{Kind: reason.Published, Name: words.Plain("setout.first-term-of-the-catenary")}
	drag     = reason.Source{Kind: reason.Published, Name: words.Plain("setout.drag-of-a-thin-round")}
)

var positionCosts = map[job.StringPosition]string{
	job.OnFace:   words.Plain("setout.the-string-lies-on-the"),
	job.JustOff:  words.Plain("setout.held-just-off-no-post"),
	job.StandOff: words.Plain("setout.far-enough-off-to-stay"),
	job.BySight:  words.Plain("setout.no-string-nothing-sags-or"),
}

// explain says why a figure of the run's strings and tops is what it is.
func (m *Marking) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case !m.Laid():
	case f.Of == "string" && f.What == "constant":
		return explaining{m}.whyConstant(), true
	case f.Of == "string" && f.What == "sag":
		return explaining{m}.whySag(), true
	case f.Of == "string" && f.What == "drift":
		return explaining{m}.whyDrift(), true
	case f.Of == "tops":
		cord, kind, _ := m.cord()
		return explaining{m}.whyTopLine(m.Tops, cord, kind), true
	}
	return reason.Why{}, false
}

func (m explaining) whyConstant() reason.Why {
	s, out := m.Spec.String, m.Strings

	return reason.Why{Figure: words.Plain("setout.offset-of-the-string"),
		Sentence: words.Say("setout.hold-from-the-string-to", words.V{"toFace": out.ToFace, "face": s.Face, "toCentre": out.ToCentre}),
		Steps: []reason.Step{
			{Rule: words.Plain("setout.school"), Governs: true, Source: stage.Practice, Says: reason.Say(positionCosts[s.Position]),
				Settings: []reason.Setting{m.Choice("/string/position", words.Plain("setout.school"), string(s.Position), string(m.Usual.String.Position), "face", "off", "stand-off", "sight"),
					m.ByHand("/string/off", words.Plain("setout.string-off-the-faces"), s.Off)}},
			{Rule: words.Plain("setout.half-a-post"), Source: stage.Geometry, Says: words.Say("setout.2-from-face-to-centre", words.V{"width": m.Spec.Post.Width, "half": m.Spec.Post.Width / 2})},
		}}
}

func (m explaining) whySag() reason.Why {
	s, out := m.Spec.String, m.Strings
	_, kind, _ := m.cord()
	set := m.Measured("/string/mark", words.Plain("setout.height-string-below-the-tops"), s.Mark, m.Usual.String.Mark)

	w := reason.Why{Figure: words.Plain("setout.sag-of-the-height-string"),
		Sentence: words.Say("setout.pulled-to-hangs-at-the", words.V{"name": kind.Name, "pull": reason.Force(s.Pull), "sag": out.Sag, "length": m.Ground.Length}),
		Steps: []reason.Step{
			{Rule: words.Plain("setout.sag-rule"), Governs: true, Source: catenary, Says: append(m.stringWeight(kind.Weight), words.Say("setout.half-the-span-is-a")...),
				Settings: []reason.Setting{{Path: m.Path + "/string/pull", Name: words.Plain("setout.pull-newtons"), Kind: reason.RatioSetting, Value: s.Pull, Usual: m.Usual.String.Pull, Changed: s.Pull != m.Usual.String.Pull}}},
			{Rule: words.Plain("setout.props"), Source: stage.Practice, Says: words.Say("setout.a-height-string-is-trusted", words.V{"propsFor": out.PropsFor, "sagAllowed": sagAllowed})},
			{Rule: words.Plain("setout.string"), Source: kind.Source, Says: reason.Say(kind.Name), Settings: []reason.Setting{set}},
		}}
	if s.Props > 0 {
		w.Sentence = append(w.Sentence, words.Say("setout.on", words.V{"props": s.Props, "sagPropped": out.SagPropped})...)
	}
	w.Sentence = append(w.Sentence, words.Say("setout.full-stop")...)
	return w
}

func (m explaining) whyDrift() reason.Why {
	out, wind := m.Strings, m.Job.Site.Wind

	w := reason.Why{Figure: words.Plain("setout.drift-of-the-string-in"),
		Sentence: words.Say("setout.no-wind-entered-the-string"),
		Steps:    []reason.Step{{Rule: words.Plain("setout.drift-rule"), Governs: true, Source: drag, Says: words.Say("setout.a-wind-square-across-the")}}}
	if wind > 0 {
		w.Sentence = words.Say("setout.a-wind-of-square-across", words.V{"wind": reason.Speed(wind), "drift": out.Drift, "span": out.Span, "sightFrom": *out.SightFrom})
	}
	return w
}

var topWays = map[job.TopsBy]string{
	job.ByString: words.Plain("setout.a-tight-string-over-the"),
	job.ByLaser:  words.Plain("setout.one-level-mark-on-every"),
	job.ByDrops:  words.Plain("setout.a-level-string-from-the"),
	job.ByEye:    words.Plain("setout.sighting-from-post-to-post"),
}

func (m explaining) whyTopLine(t *TopLine, cord stringline.Cord, kind materials.String) reason.Why {
	w := reason.Why{Figure: words.Plain("setout.how-the-tops-are-set"), Sentence: reason.Say(topWays[t.By]),
		Steps: []reason.Step{
			{Rule: words.Plain("setout.school"), Governs: true, Source: stage.Practice, Says: words.Say("setout.all-four-give-the-same"),
				Settings: []reason.Setting{m.Choice("/grade/by", words.Plain("setout.set-by"), string(t.By), string(job.ByString), string(job.ByString), string(job.ByLaser), string(job.ByDrops), string(job.ByEye))}},
			{Rule: words.Plain("setout.reference-mark"), Source: stage.Practice, Says: words.Say("setout.a-mark-below-the-fences", words.V{"mark": t.Mark}),
				Settings: []reason.Setting{m.Measured("/string/mark", words.Plain("setout.mark-below-the-tops"), t.Mark, m.Usual.String.Mark)}},
		}}
	if k := t.longest(); k >= 0 {
		p := t.Pieces[k]
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("setout.sag-rule"), Source: catenary,
			Says: words.Say("setout.pulled-to-sags-over-the", words.V{"name": kind.Name, "pull": reason.Force(cord.Pull), "sag": p.Sag, "length": p.Length, "sagAllowed": sagAllowed})})
	}
	if l := t.Limit; l != nil {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("setout.the-shortest-post-limits-a"), Source: stage.Geometry,
			Says: words.Say("setout.needs-the-longest-post-of", words.V{"post": l.Post, "stock": l.Stock, "spare": l.Spare})})
	}
	return w

}
