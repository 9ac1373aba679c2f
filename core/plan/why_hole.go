package plan

import (
	"strings"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

func (m *maker) whyWidth(q footing.Question, w footing.Width) reason.Ref {
	type key struct {
		of   string
		gate bool
	}
	return m.few.Put(key{"width", q.Kind == job.GatePost}, func() reason.Why {
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

// depthKey is what a depth is explained from, within one run.
type depthKey struct {
	kind   job.PostKind
	reveal length.Length
}

func (m *maker) whyDepth(q footing.Question, d footing.Depth) reason.Ref {
	k := depthKey{q.Kind, q.Reveal}
	if q.Hole.Share == job.NoShare {
		k.reveal = 0 // the depth does not depend on it: one explanation serves all
	}
	return m.depthWhys.Put(k, func() reason.Why {
		w := reason.Why{
			Figure:  "Hole depth",
			Steps:   m.depthSteps(q, d),
			Asked:   make([]length.Length, len(d.Asks)),
			Caution: "Frost depth and footing depth are the local building office's to say; an engineer decides where wind or load matters.",
		}
		for i, a := range d.Asks {
			w.Asked[i] = a.Value
		}
		w.Sentence = depthSentence(q, d, w.Steps)
		return w
	})
}

// depthSteps are the rules of depth of one kind of post; those in force come
// first, in the order of the asks.
func (m *maker) depthSteps(q footing.Question, d footing.Depth) []reason.Step {
	governs := d.Governs
	if d.ByHand {
		governs = -1
	}
	return m.steps([3]any{"depth", q.Kind, governs}, func() []reason.Step {
		var steps []reason.Step
		for i, a := range d.Asks {
			steps = append(steps, m.depthStep(q, a))
			steps[i].Governs = i == governs
		}
		return append(steps, m.depthExtras(q, d)...)
	})
}

// depthSentence says in one sentence what governs and what comes on top:
// 36" frost + 6" = 42" governs over a third of the height above, 24".
func depthSentence(q footing.Question, d footing.Depth, steps []reason.Step) reason.Text {
	s := reason.Sentence(20)
	greatest := length.Length(0)
	switch {
	case d.ByHand:
		s = s.Words("Set by hand to ").Length(d.Foot).Words("; the rules ask for ").Length(d.Rounded)
	case d.Governs < 0:
		s = s.Words("No rule is in force")
	default:
		greatest = d.Asks[d.Governs].Value
		if d.Asks[d.Governs].Rule == footing.ShareRule {
			s = s.Words(shares[q.Hole.Share]).Length(q.Reveal).Words(" above) = ").Length(greatest)
		} else {
			s = append(s, steps[d.Governs].Says...)
		}
		s = s.Words(" governs")
		if next := runnerUp(d); next >= 0 {
			s = s.Words(" over ").Words(lower(string(d.Asks[next].Rule))).Words(", ").Length(d.Asks[next].Value)
		}
	}
	if !d.ByHand && d.Extra > 0 {
		s = s.Words("; ").Length(d.Extra).Words(" deeper for its kind of post")
	}
	if !d.ByHand && !length.Same(d.Rounded, greatest+d.Extra) {
		s = s.Words("; rounded up to ").Length(d.Rounded)
	}
	if d.Hole > d.Foot {
		s = s.Words(". With ").Length(d.Hole - d.Foot).Words(" of gravel under the post: dig ").Length(d.Hole)
	}
	return s.Words(".")
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

var shares = map[job.Share]string{
	job.Quarter: "A quarter of the whole post (a third of the ",
	job.Third:   "A third of the whole post (half of the ",
	job.Half:    "Half of the whole post (as much as the ",
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
		return reason.Step{Rule: string(a.Rule), Source: practice, Says: reason.Say(shares[h.Share], "height above)."),
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
	case job.EndPost, job.CornerPost:
		add("End and corner posts deeper", practice, reason.Say("An end or corner post goes ", h.EndExtraDepth, " deeper."),
			m.measured("/hole/endExtraDepth", "End and corner posts deeper by", h.EndExtraDepth, m.usual.Hole.EndExtraDepth))
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
