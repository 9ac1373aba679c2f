package space

import (
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/words"
)

// explaining words why posts stand where they stand.
type explaining struct{ *Spacing }

// explain says why a figure of the run's spacing is what it is.
func (m *Spacing) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case f.Of == "post" && f.What == "station":
		if i := m.PostAt(f.ID); i >= 0 {
			return explaining{m}.whyStation(i), true
		}
	case f.Of == "bay" && f.What == "spacing":
		if i := m.BayAt(f.ID); i >= 0 {
			return explaining{m}.whySegment(m.Layout.Segments[m.Layout.Bays[i].Segment]), true
		}
	case f.Of == "segment":
		if i, err := strconv.Atoi(f.ID); err == nil && i >= 0 && i < len(m.Layout.Segments) {
			return explaining{m}.whySegment(m.Layout.Segments[i]), true
		}
	}
	return reason.Why{}, false
}

// whyStays explains an old post that stays.
func WhyStays() reason.Why {
	return reason.Why{Figure: words.Plain("space.old-post-that-stays"),
		Sentence: words.Say("space.an-old-post-stands-here"),
		Steps: []reason.Step{{Rule: words.Plain("space.reused-posts"), Governs: true, Source: stage.Practice,
			Says: words.Say("space.shake-it-and-probe-it")}}}
}

// sizedSays is how a gate's inside measure came about.
func (m *Spacing) SizedSays(g job.Gate) reason.Text {
	switch {
	case g.Leaf != nil && g.Kind == job.SlideGate:
		return words.Say("space.leaf-overlap-inside", words.V{"leaf": *g.Leaf, "overlap": g.Overlap, "inside": g.Inside()})
	case g.Leaf != nil && g.LeafCount() == 2:
		widths := g.LeafWidths()
		return words.Say("space.leaves-two-hinge-gaps-of", words.V{"first": widths[0], "second": widths[1], "hinge": g.Hardware.Hinge, "meeting": g.Hardware.Meeting, "inside": g.Inside()})
	case g.Leaf != nil:
		return words.Say("space.leaf-hinge-gap-latch-gap", words.V{"leaf": *g.Leaf, "hinge": g.Hardware.Hinge, "latch": g.Hardware.Latch, "inside": g.Inside()})
	case g.Clear != nil && g.Kind != job.SlideGate:
		return words.Say("space.clear-way-what-open-leaves", words.V{"clear": *g.Clear, "taken": g.Inside() - *g.Clear, "inside": g.Inside()})
	}
	return words.Say("space.between-the-posts-faces-as", words.V{"inside": g.Inside()})
}

// sizeSetting is the measure that a gate is sized by.
func (m *Spacing) SizeSetting(gate int) reason.Setting {
	g, path := m.Spec.Gates[gate], m.GatePath(gate)
	switch {
	case g.Leaf != nil:
		return reason.Setting{Path: path + "/leaf", Name: words.Plain("space.leaf"), Kind: reason.LengthSetting, Value: *g.Leaf}
	case g.Clear != nil:
		return reason.Setting{Path: path + "/clear", Name: words.Plain("space.clear-way"), Kind: reason.LengthSetting, Value: *g.Clear}
	}
	return reason.Setting{Path: path + "/opening", Name: words.Plain("space.inside-measure"), Kind: reason.LengthSetting, Value: g.Opening}
}

// whyStation tells why a post stands where it stands.
func (m explaining) whyStation(i int) reason.Why {
	at := m.Layout.Posts[i]
	switch at.Kind {
	case job.GatePost:
		if at.Gate == spacing.NoGate { // a gate of the next run hangs on it
			return m.whyEnd()
		}
		g := m.Spec.Gates[at.Gate]
		return reason.Why{
			Figure:   words.Plain("space.where-the-gate-posts-stand"),
			Sentence: words.Say("space.middle-of-the-opening-at", words.V{"at": g.At, "inside": g.Inside() / 2, "width": m.Spec.PostOf(job.GatePost).Width / 2}),
			Steps: []reason.Step{{
				Rule: words.Plain("space.gate-posts-are-fixed"), Governs: true, Source: stage.Geometry,
				Says: m.SizedSays(g),
				Settings: []reason.Setting{
					{Path: m.GatePath(at.Gate) + "/at", Name: words.Plain("space.middle-of-the-opening"), Kind: reason.LengthSetting, Value: g.At},
					m.SizeSetting(at.Gate),
				},
			}},
		}

	case job.EndPost, job.CornerPost:
		return m.whyEnd()
	}
	switch {
	case at.Held != spacing.Nothing:
		f := m.Spec.FixedPosts[at.Held]
		says := words.Plain("space.held-here-by-you-the")
		if f.Landed {
			says = words.Plain("space.set-already-and-this-is")
			if f.Respace {
				says = words.Plain("space.set-already-and-this-is-2")
			}
		}
		return reason.Why{Figure: words.Plain("space.held-post"), Sentence: words.Say("space.at", words.V{"at": f.At, "says": says}), Steps: []reason.Step{
			{Rule: words.Plain("space.held-by-hand"), Governs: true, Source: stage.Yours, Says: reason.Say(says),
				Settings: []reason.Setting{{Path: job.At(m.Path, "fixedPosts", f.ID, "at"), Name: words.Plain("space.station"), Kind: reason.LengthSetting, Value: f.At}}}}}

	case at.Stays != spacing.Nothing:
		return WhyStays()
	}
	return m.whySegment(m.Layout.Segments[at.Segment])
}

// whyEnd tells where a run's first and last posts stand.
func (m explaining) whyEnd() reason.Why {
	w := reason.Why{
		Figure:   words.Plain("space.where-the-end-posts-stand"),
		Sentence: words.Say("space.the-run-was-measured-centre", words.V{"length": *m.Spec.Length}),
		Steps: []reason.Step{{Rule: words.Plain("space.as-measured"), Governs: true, Source: stage.Yours,
			Says:     words.Say("space.set-these-first-everything-else"),
			Settings: []reason.Setting{{Path: m.Path + "/length", Name: words.Plain("space.run-length"), Kind: reason.LengthSetting, Value: *m.Given.Length}}}},
	}
	if m.Ground.Correction > length.Tolerance {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("space.slope-tape-reduced-to-level"), Source: stage.Geometry,
			Says: words.Say("space.along-the-ground-piece-by", words.V{"taped": *m.Given.Length, "level": *m.Spec.Length, "correction": m.Ground.Correction})})
	}
	return w

}

func (m explaining) whySegment(s spacing.Segment) reason.Why {
	if s.Gate != spacing.NoGate {
		return m.whyOpening(s)
	}
	if s.Held != spacing.Nothing {
		b := m.Spec.HeldBays[s.Held]
		return reason.Why{Figure: words.Plain("space.held-bay"), Sentence: words.Say("space.held-at-centre-to-centre", words.V{"width": b.Width, "at": b.At}),
			Steps: []reason.Step{{Rule: words.Plain("space.held-by-hand"), Governs: true, Source: stage.Yours, Says: words.Say("space.the-rest-of-the-run")}}}

	}
	return m.whyFence(s)
}

// whyOpening tells how far a gate's two posts stand apart.
func (m explaining) whyOpening(s spacing.Segment) reason.Why {
	g := m.Spec.Gates[s.Gate]
	return reason.Why{
		Figure:   words.Plain("space.gate-posts"),
		Sentence: words.Say("space.inside-one-post-centre-to", words.V{"inside": g.Inside(), "width": m.Spec.PostOf(job.GatePost).Width, "to": s.To - s.From}),
		Steps: []reason.Step{{
			Rule: words.Plain("space.the-opening-is-exact"), Governs: true, Source: stage.Practice,
			Says: words.Say("space.the-fences-spacing-gives-way"),
		}},
	}

}

// whyFence tells how the bays of a stretch of fence were found.
func (m explaining) whyFence(s spacing.Segment) reason.Why {
	span, sp := s.To-s.From, m.Spec.Spacing
	w := reason.Why{Figure: words.Plain("space.spacing"), Steps: []reason.Step{m.wayStep(s)}}
	most := sp.Most
	if _, ok := sp.ByPiece(); ok {
		most = sp.Regular(m.Spec.Post.Width, m.Spec.Post.Width)
	}
	switch {
	case s.Odd == 0 && s.Bays > 1:
		w.Sentence = words.Say("space.in-equal-bays-of-the", words.V{"span": span, "bays": s.Bays, "regular": s.Regular, "most": most})
	case s.Odd == 0 || s.Bays == 1:
		w.Sentence = words.Say("space.in-one-bay", words.V{"span": span})
	default:
		w.Sentence = words.Say("space.in-bays-of-and-at", words.V{"span": span, "bays": s.Bays, "regularBays": s.Bays - s.Odd, "regular": s.Regular, "odd": s.Odd, "uneven": s.Uneven})
	}
	w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("space.fewest-posts-then-fewest-odd"), Source: stage.Geometry,
		Says: words.Say("space.of-all-ways-with-every", words.V{"shortest": min(sp.Shortest(most), most), "most": most})})
	if _, piece := m.Spec.Spacing.ByPiece(); piece && m.Spec.Leans() {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("space.raked-pieces-lie-along-the"), Source: stage.Geometry,
			Says: words.Say("space.a-piece-is-as-long", words.V{"to": s.To - s.From, "along": m.Profile.Along(s.To) - m.Profile.Along(s.From)})})
	}
	if ways := m.inWayOf(s); ways > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("space.what-is-in-the-way"), Source: stage.Yours,
			Says: words.Say("space.in-the-way-here-the", words.V{"ways": ways, "opened": m.Opened(job.LinePost) / 2})})
	}
	if s.Block != nil {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("space.could-not-be-met"), Source: stage.Geometry,
			Says: words.Say("space.between-and-not-everything-can", words.V{"from": s.Block.From, "to": s.Block.To})})
	}
	return w
}

func (m explaining) inWayOf(s spacing.Segment) int {
	n := 0
	for _, k := range m.Spec.KeepOuts {
		if k.To() >= s.From && k.From() <= s.To {
			n++
		}
	}
	return n
}

// wayStep is the run's way of spacing with its own figures.
func (m explaining) wayStep(s spacing.Segment) reason.Step {
	sp, u := m.Spec.Spacing, m.Usual.Spacing
	ways := make([]string, len(job.Ways))
	for i, w := range job.Ways {
		ways[i] = string(w)
	}
	way := sp.Way
	if way == "" {
		way = job.EqualBays
	}
	step := reason.Step{Governs: true, Source: stage.Practice, Settings: []reason.Setting{m.Choice("/spacing/way", words.Plain("space.way"), string(way), string(job.EqualBays), ways...)}}
	add := func(path, name string, value, usual length.Length) {
		step.Settings = append(step.Settings, m.Measured("/spacing/"+path, name, value, usual))
	}
	post := m.Spec.Post.Width
	regular := sp.Regular(post, post)
	switch way {
	case job.EqualBays:
		step.Rule = words.Plain("space.equal-bays")
		step.Says = words.Say("space.rounded-up-to-whole-bays", words.V{"stretch": s.To - s.From, "most": sp.Most, "bays": float64((s.To - s.From) / sp.Most)})
		add("most", words.Plain("space.most-spacing"), sp.Most, u.Most)
	case job.PanelsBetween:
		step.Rule = words.Plain("space.panels-between-posts")
		step.Says = words.Say("space.panel-post-two-joints-of", words.V{"piece": sp.Piece, "post": post, "play": sp.Play})
		if sp.Slot > 0 {
			step.Says = append(step.Says, words.Say("space.two-slots-of", words.V{"slot": sp.Slot})...)
		}
		step.Says = append(step.Says, words.Say("space.centre-to-centre", words.V{"regular": regular})...)
		add("piece", words.Plain("space.panel"), sp.Piece, 0)
		add("play", words.Plain("space.play-at-each-joint"), sp.Play, 0)
	case job.PanelsOnFaces:
		step.Rule = words.Plain("space.panels-on-the-posts-faces")
		step.Says = words.Say("space.panel-centre-to-centre-at", words.V{"piece": sp.Piece, "width": m.Spec.PostOf(job.CornerPost).Width / 2})
		if sp.Turning == job.Overlapping {
			step.Says = append(step.Says, words.Say("space.the-run-that-starts-there", words.V{"thickness": sp.Thickness})...)
		} else {
			step.Says = append(step.Says, words.Say("space.so-that-the-two-panels")...)
		}
		add("piece", words.Plain("space.panel"), sp.Piece, 0)
	case job.FixedModule:
		step.Rule = words.Plain("space.fixed-module")
		step.Says = words.Say("space.the-board-is-the-bay", words.V{"piece": sp.Piece})
		add("piece", words.Plain("space.board"), sp.Piece, 0)
	case job.StockRails:
		step.Rule = words.Plain("space.rails-on-stock-lengths")
		step.Says = words.Say("space.a-rail-of-spans-bays", words.V{"piece": sp.Piece, "spans": sp.Spans(), "regular": regular})
		add("piece", words.Plain("space.rail"), sp.Piece, 0)
	case job.OverlapRails:
		step.Rule = words.Plain("space.overlapping-rails")
		step.Says = words.Say("space.rail-overlap-centre-to-centre", words.V{"piece": sp.Piece, "overlap": sp.Overlap, "regular": regular, "trim": sp.Overlap / 2})
		add("piece", words.Plain("space.rail"), sp.Piece, 0)
		add("overlap", words.Plain("space.overlap"), sp.Overlap, 0)
	}
	return step
}
