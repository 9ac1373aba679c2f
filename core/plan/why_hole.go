package plan

import (
	"strings"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

func (m *maker) whyWidth(s sized) reason.Ref {
	type key struct {
		of    string
		rules *job.Rules
		kind  job.PostKind
		hung  bool
	}
	return m.few.Put(key{"width", s.rules, s.q.Kind, s.q.Hung}, func() reason.Why {
		w, h := s.width, s.q.Hole
		var steps []reason.Step
		for i, a := range w.Asks {
			step := m.widthStep(s, a)
			step.Governs = !w.ByHand && i == w.Governs
			steps = append(steps, step)
		}
		sentence := reason.Say(steps[w.Governs].Says)
		if w.Extra > 0 {
			sentence = append(sentence, reason.Say(", ", w.Extra, " more for its kind of post")...)
		}
		steps = append(steps, m.widthExtras(s)...)
		switch {
		case w.ByHand:
			sentence = reason.Say("Set by hand to ", w.Width, "; the rules ask for ", w.Wanted, ".")
		case w.Auger && !h.AnyWidth && h.Shape != job.SquareHole && w.Width < w.Wanted-length.Tolerance:
			sentence = append(sentence, reason.Say(": the ", w.Width, " auger is ", w.Wanted-w.Width, " narrower, and will do.")...)
		case w.Auger && !h.AnyWidth && h.Shape != job.SquareHole:
			sentence = append(sentence, reason.Say(": the ", w.Width, " auger is the next one up.")...)
		case h.Shape == job.SquareHole:
			sentence = append(sentence, reason.Say(": ", w.Width, " square, by spade.")...)
		case h.AnyWidth:
			sentence = append(sentence, reason.Say(": ", w.Width, ", not rounded to an auger.")...)
		default:
			sentence = append(sentence, reason.Say(": no auger is that wide, so ", w.Width, " by spade.")...)
		}
		byHand := reason.Step{Rule: string(footing.ByHand), Source: yours, Governs: w.ByHand, Says: reason.Say("Over all rules, when it is set."),
			Settings: []reason.Setting{m.rule(s.rules, "hole/width", "Width set by hand", reason.LengthSetting)}}
		return reason.Why{Figure: "Hole width", Sentence: sentence, Steps: append(steps, byHand)}
	})
}

func (m *maker) widthStep(s sized, a footing.Ask) reason.Step {
	h, r := s.q.Hole, s.rules
	step := reason.Step{Rule: string(a.Rule), Source: practice}
	switch a.Rule {
	case footing.FactorRule:
		step.Says = reason.Say(h.Factor(s.q.Post.Width), " × ", s.q.Post.Width, " = ", a.Value)
		step.Settings = []reason.Setting{m.rule(r, "hole/widthFactor", "Times the post's width", reason.RatioSetting),
			m.rule(r, "hole/wideFactor", "Times a post over 4 in (100 mm); 0: the same", reason.RatioSetting)}
	case footing.CommonRule:
		step.Says = reason.Say(a.Value, " is what crews dig for such a post")
		step.Settings = []reason.Setting{m.rule(r, "hole/commonWidth", "What crews dig; 0: the multiple of the post", reason.LengthSetting),
			m.rule(r, "hole/widthFactor", "Times the post's width, when that is 0", reason.RatioSetting)}
	case footing.SpadeRule:
		step.Says = reason.Say("A spade needs ", a.Value, " to work in.")
		step.Settings = []reason.Setting{m.rule(r, "hole/spade", "Least side of a square hole", reason.LengthSetting)}
	default:
		step.Source = geometry
		step.Says = reason.Say("The post is ", a.Value, " across.")
		if h.SkipFactor {
			step.Settings = []reason.Setting{m.rule(r, "hole/skipFactor", "Leave the multiple of the post's width out", reason.SwitchSetting)}
		}
	}
	return step
}

// widthExtras is what comes on top of the rules of width.
func (m *maker) widthExtras(s sized) []reason.Step {
	h, r := s.q.Hole, s.rules
	var out []reason.Step
	add := func(rule string, source reason.Source, says reason.Text, set ...reason.Setting) {
		out = append(out, reason.Step{Rule: rule, Source: source, Says: says, Settings: set})
	}
	switch s.q.Kind {
	case job.GatePost:
		add("Gate posts wider", practice, reason.Say(h.GateExtraWidth, " wider, for the pull of the leaf."), m.rule(r, "hole/gateExtraWidth", "Gate posts wider by", reason.LengthSetting))
		if s.q.Hung {
			add("Hinge posts wider", practice, reason.Say(h.HingeExtraWidth, " wider still where the leaf hangs."), m.rule(r, "hole/hingeExtraWidth", "Hinge posts wider still by", reason.LengthSetting))
		}
	case job.EndPost, job.CornerPost:
		add("End and corner posts wider", practice, reason.Say(h.EndExtraWidth, " wider, for the pull of the fence."), m.rule(r, "hole/endExtraWidth", "End and corner posts wider by", reason.LengthSetting))
	}
	if off := max(h.Along.Abs(), h.Across.Abs()); off > 0 {
		add("Hole beside the post's middle", geometry, reason.Say("Off by ", off, ", it still has to hold the post."),
			m.rule(r, "hole/along", "Off along the run", reason.LengthSetting), m.rule(r, "hole/across", "Off across it", reason.LengthSetting))
	}
	add("Shape of the hole", practice, reason.Say("Round by auger or digger; square by spade."), m.rule(r, "hole/shape", "Shape", reason.ChoiceSetting, string(job.RoundHole), string(job.SquareHole)))
	add("Augers to be had", yours, reason.Say("Rounded up to ", list(h.Augers)), m.rule(r, "hole/anyWidth", "Do not round up to an auger", reason.SwitchSetting))
	return out
}

// depthKey is what a depth is explained from, within one run.
type depthKey struct {
	rules   *job.Rules
	kind    job.PostKind
	hung    bool
	reveal  length.Length
	lowered length.Length
	longer  length.Length
	driven  bool
}

func (m *maker) whyDepth(s sized) reason.Ref {
	k := depthKey{s.rules, s.q.Kind, s.q.Hung, s.q.Reveal, s.lowered, s.longer, s.driven}
	if s.q.Hole.Share == job.NoShare {
		k.reveal = 0 // the depth does not depend on it: one explanation serves all
	}
	return m.depthWhys.Put(k, func() reason.Why {
		w := reason.Why{
			Figure:  "Hole depth",
			Steps:   m.depthSteps(s),
			Asked:   make([]length.Length, len(s.depth.Asks)),
			Caution: "Frost depth and footing depth are the local building office's to say; an engineer decides where wind or load matters.",
		}
		for i, a := range s.depth.Asks {
			w.Asked[i] = a.Value
		}
		w.Sentence = depthSentence(s.q, s.depth, w.Steps)
		if s.longer > length.Tolerance {
			w.Sentence = append(w.Sentence, reason.Say(" Its post is not cut to height, so it stands ", s.longer, " deeper than that: as deep as its stock length reaches.")...)
		}
		if s.lowered.Abs() > lowersAnything {
			w.Sentence = append(w.Sentence, loweredSays(s.lowered, s.dug().Hole)...)
		}
		return w
	})
}

// depthSteps are the rules of depth of one kind of post; those in force come
// first, in the order of the asks.
func (m *maker) depthSteps(s sized) []reason.Step {
	governs := s.depth.Governs
	if s.depth.ByHand {
		governs = -1
	}
	return m.steps([6]any{"depth", s.rules, s.q.Kind, governs, s.depth.ByHand, s.depth.Stopped}, func() []reason.Step {
		var steps []reason.Step
		for i, a := range s.depth.Asks {
			steps = append(steps, m.depthStep(s, a))
			steps[i].Governs = i == governs
		}
		return append(steps, m.depthExtras(s)...)
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
	switch {
	case d.Stopped:
		s = s.Words(". Stopped at ").Length(d.Hole).Words(", short of it")
	case d.Gravel > 0:
		s = s.Words(". With ").Length(d.Gravel).Words(" of gravel under the post: dig ").Length(d.Hole)
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

func (m *maker) shareSetting(r *job.Rules) reason.Setting {
	return m.rule(r, "hole/share", "Share of the post in the ground", reason.ChoiceSetting, "none", "quarter", "third", "half")
}

func (m *maker) depthStep(s sized, a footing.Ask) reason.Step {
	h, r := s.q.Hole, s.rules
	switch a.Rule {
	case footing.FrostRule:
		return m.frostStep(s, a)
	case footing.ShareRule:
		return reason.Step{Rule: string(a.Rule), Source: practice, Says: reason.Say(shares[h.Share], "height above)."), Settings: []reason.Setting{m.shareSetting(r)}}
	}
	says := reason.Say("Never less than ", m.asEntered(r, "hole/floor", h.Floor))
	if h.FloorPerHeight > 0 {
		says = append(says, reason.Say(m.perHeight(r), " = ", a.Value)...)
	}
	return reason.Step{Rule: string(a.Rule), Source: practice, Says: says,
		Settings: []reason.Setting{
			m.rule(r, "hole/floor", "Never less than", reason.LengthSetting),
			m.rule(r, "hole/floorPerHeight", "Added per height over 4 ft", reason.RatioSetting),
			m.rule(r, "hole/skipFloor", "Leave the floor out", reason.SwitchSetting)}}
}

// perHeight says what is added to the floor in the units in which the rule
// was entered: 3 in for each foot, or 250 mm for each metre.
func (m *maker) perHeight(r *job.Rules) reason.Text {
	sys, ok := r.Entered["hole/floorPerHeight"]
	if !ok {
		sys = m.job.Units.System
	}
	per := length.Length(r.Hole.FloorPerHeight)
	if sys == length.Metric {
		return reason.Say(" + ", reason.As{Length: per * length.Metre, System: sys}, " for each metre of height over ", reason.As{Length: 4 * length.Foot, System: sys})
	}
	return reason.Say(" + ", reason.As{Length: per * length.Foot, System: sys}, " for each foot of height over ", reason.As{Length: 4 * length.Foot, System: sys})
}

func (m *maker) frostStep(s sized, a footing.Ask) reason.Step {
	h := s.q.Hole
	step := reason.Step{Rule: string(a.Rule), Source: reason.Source{Kind: reason.Yours, Name: "frost depth from the local building office; the margin is common practice"},
		Says: reason.Say(*s.q.Frost, " frost + ", h.FrostMargin, " = ", a.Value)}
	frost := reason.Setting{Path: "/site/frostDepth", Name: "Frost depth", Kind: reason.LengthSetting, From: "the site"}
	if _, estimated := m.frost(); estimated {
		step.Says = reason.Say(*s.q.Frost, " frost (an estimate) + ", h.FrostMargin, " = ", a.Value)
		step.Source = reason.Source{Kind: reason.Memory, Name: "estimated by the modified Berggren formula, TM 5-852-6; the local office's figure goes before it"}
		frost.Name = "Frost depth, by the local office"
	} else {
		frost.Value = *s.q.Frost
	}
	step.Settings = []reason.Setting{frost, m.rule(s.rules, "hole/frostMargin", "Below the frost by", reason.LengthSetting), m.rule(s.rules, "hole/skipFrost", "Leave frost out", reason.SwitchSetting)}
	return step
}

// depthExtras is what comes on top of the rules.
func (m *maker) depthExtras(s sized) []reason.Step {
	h, r, q := s.q.Hole, s.rules, s.q
	var steps []reason.Step
	add := func(rule string, source reason.Source, says reason.Text, set ...reason.Setting) {
		steps = append(steps, reason.Step{Rule: rule, Source: source, Says: says, Settings: set})
	}
	switch {
	case h.SkipFrost:
		add("Frost", yours, reason.Say("Left out."), m.rule(r, "hole/skipFrost", "Leave frost out", reason.SwitchSetting))
	case q.Frost == nil:
		add("Frost", yours, reason.Say("Not entered: ask the local building office."),
			reason.Setting{Path: "/site/frostDepth", Name: "Frost depth", Kind: reason.LengthSetting})
	}
	if h.Share == job.NoShare {
		add(string(footing.ShareRule), practice, reason.Say("Not in force."), m.shareSetting(r))
	}
	if h.SkipFloor {
		add(string(footing.FloorRule), practice, reason.Say("Left out."), m.rule(r, "hole/skipFloor", "Leave the floor out", reason.SwitchSetting))
	}
	switch q.Kind {
	case job.GatePost:
		add("Gate posts deeper", practice, reason.Say("A gate post goes ", h.GateExtraDepth, " deeper."), m.rule(r, "hole/gateExtraDepth", "Gate posts deeper by", reason.LengthSetting))
		if q.Hung {
			add("Hinge posts deeper", practice, reason.Say("The post that the leaf hangs on goes ", h.HingeExtraDepth, " deeper still."), m.rule(r, "hole/hingeExtraDepth", "Hinge posts deeper still by", reason.LengthSetting))
		}
	case job.EndPost, job.CornerPost:
		add("End and corner posts deeper", practice, reason.Say("An end or corner post goes ", h.EndExtraDepth, " deeper."), m.rule(r, "hole/endExtraDepth", "End and corner posts deeper by", reason.LengthSetting))
	}
	add("Rounded up", practice, reason.Say("To a multiple of ", h.RoundDepthTo, ", so that one mark on the digger's handle serves."), m.rule(r, "hole/roundDepthTo", "Round depth up to", reason.LengthSetting))
	if !s.driven {
		add("Gravel under the post", practice, reason.Say(q.Gravel, " of tamped gravel below the bottom, so that the end grain drains. It lies under what frost must not reach."),
			m.rule(r, "setting/gravel", "Gravel", reason.LengthSetting))
		add("Foot of the post", practice, reason.Say(standSays(q.Stand)), m.rule(r, "setting/stand", "Foot above the concrete's bottom by", reason.LengthSetting))
	}
	if s.depth.Stopped {
		add("Stopped", yours, reason.Say("Rock or water stopped the hole at ", s.depth.Hole, ": no gravel is laid, and the concrete stands on it."))
	}
	add(string(footing.ByHand), yours, reason.Say("Depth of the post's foot over all rules, when it is set."), m.rule(r, "hole/depth", "Foot depth set by hand", reason.LengthSetting))
	steps[len(steps)-1].Governs = s.depth.ByHand
	return steps
}

func standSays(stand length.Length) reason.Text {
	switch {
	case stand > 0:
		return reason.Say("It stands ", stand, " above the concrete's bottom: covered from below, but its end grain cannot drain.")
	case stand < 0:
		return reason.Say("It reaches ", -stand, " into the gravel, so that the end grain drains.")
	}
	return reason.Say("It stands on the gravel, level with the concrete's bottom.")
}
