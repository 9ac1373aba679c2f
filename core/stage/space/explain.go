package space

import (
	"fmt"
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
)

// explain says why a figure of the run's spacing is what it is.
func (m *Spacing) Explain(f stage.Figure) (reason.Why, bool) {
	switch {
	case f.Of == "post" && f.What == "station":
		if i := stage.PlaceOf(len(m.Posts), f.ID, func(i int) string { return m.Posts[i].ID }); i >= 0 {
			return m.whyStation(i), true
		}
	case f.Of == "bay" && f.What == "spacing":
		if i := stage.PlaceOf(len(m.Bays), f.ID, func(i int) string { return m.Bays[i].ID }); i >= 0 {
			return m.whySegment(m.Layout.Segments[m.Layout.Bays[i].Segment]), true
		}
	case f.Of == "segment":
		if i, err := strconv.Atoi(f.ID); err == nil && i >= 0 && i < len(m.Layout.Segments) {
			return m.whySegment(m.Layout.Segments[i]), true
		}
	}
	return reason.Why{}, false
}

// whyStays explains an old post that stays.
func WhyStays() reason.Why {
	return reason.Why{Figure: "Old post that stays",
		Sentence: reason.Say("An old post stands here and stays: no hole, no concrete, no new post."),
		Steps: []reason.Step{{Rule: "Reused posts", Governs: true, Source: stage.Practice,
			Says: reason.Say("Shake it and probe it at the ground line first: soft wood or a loose footing is a post to replace. Match its height.")}}}
}

// sizedSays is how a gate's inside measure came about.
func (m *Spacing) SizedSays(g job.Gate) reason.Text {
	switch {
	case g.Leaf != nil && g.Kind == job.SlideGate:
		return reason.Say("Leaf ", *g.Leaf, " − overlap ", g.Overlap, " = ", g.Inside(), " inside.")
	case g.Leaf != nil && g.LeafCount() == 2:
		widths := g.LeafWidths()
		return reason.Say("Leaves ", widths[0], " + ", widths[1], ", two hinge gaps of ", g.Hardware.Hinge, " and ", g.Hardware.Meeting, " between them = ", g.Inside(), " inside.")
	case g.Leaf != nil:
		return reason.Say("Leaf ", *g.Leaf, " + hinge gap ", g.Hardware.Hinge, " + latch gap ", g.Hardware.Latch, " = ", g.Inside(), " inside.")
	case g.Clear != nil && g.Kind != job.SlideGate:
		return reason.Say("Clear way ", *g.Clear, " + what open leaves and their hinges take, ", g.Inside()-*g.Clear, " = ", g.Inside(), " inside.")
	}
	return reason.Say(g.Inside(), " between the posts' faces, as entered.")
}

// sizeSetting is the measure that a gate is sized by.
func (m *Spacing) SizeSetting(gate int) reason.Setting {
	g, path := m.Spec.Gates[gate], m.GatePath(gate)
	switch {
	case g.Leaf != nil:
		return reason.Setting{Path: path + "/leaf", Name: "Leaf", Kind: reason.LengthSetting, Value: *g.Leaf}
	case g.Clear != nil:
		return reason.Setting{Path: path + "/clear", Name: "Clear way", Kind: reason.LengthSetting, Value: *g.Clear}
	}
	return reason.Setting{Path: path + "/opening", Name: "Inside measure", Kind: reason.LengthSetting, Value: g.Opening}
}

// whyStation tells why a post stands where it stands.
func (m *Spacing) whyStation(i int) reason.Why {
	at := m.Layout.Posts[i]
	switch at.Kind {
	case job.GatePost:
		if at.Gate == spacing.NoGate { // a gate of the next run hangs on it
			return m.whyEnd()
		}
		g := m.Spec.Gates[at.Gate]
		return reason.Why{
			Figure: "Where the gate posts stand",
			Sentence: reason.Say("Middle of the opening at ", reason.Tape(g.At), ", half of what is inside, ", g.Inside()/2,
				", and half a post, ", m.Spec.PostOf(job.GatePost).Width/2, ", either side."),
			Steps: []reason.Step{{
				Rule: "Gate posts are fixed", Governs: true, Source: stage.Geometry,
				Says: m.SizedSays(g),
				Settings: []reason.Setting{
					{Path: m.GatePath(at.Gate) + "/at", Name: "Middle of the opening", Kind: reason.LengthSetting, Value: g.At},
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
		says := "Held here by you; the other posts are spaced on both sides of it."
		if f.Landed {
			says = "Set already, and this is where it landed: it is the post that was meant to stand here, and only the bays beside it change."
			if f.Respace {
				says = "Set already, and this is where it landed; the posts that are still to come are spaced from it."
			}
		}
		return reason.Why{Figure: "Held post", Sentence: reason.Say("At ", reason.Tape(f.At), ". ", says), Steps: []reason.Step{
			{Rule: "Held by hand", Governs: true, Source: stage.Yours, Says: reason.Say(says),
				Settings: []reason.Setting{{Path: fmt.Sprintf("%s/fixedPosts/%d/at", m.Path, at.Held), Name: "Station", Kind: reason.LengthSetting, Value: f.At}}}}}

	case at.Stays != spacing.Nothing:
		return WhyStays()
	}
	return m.whySegment(m.Layout.Segments[at.Segment])
}

// whyEnd tells where a run's first and last posts stand.
func (m *Spacing) whyEnd() reason.Why {
	w := reason.Why{
		Figure:   "Where the end posts stand",
		Sentence: reason.Say("The run was measured ", reason.Tape(*m.Spec.Length), " centre to centre of its end posts."),
		Steps: []reason.Step{{Rule: "As measured", Governs: true, Source: stage.Yours,
			Says:     reason.Say("Set these first; everything else is taped between them."),
			Settings: []reason.Setting{{Path: m.Path + "/length", Name: "Run length", Kind: reason.LengthSetting, Value: *m.Given.Length}}}},
	}
	if m.Ground.Correction > length.Tolerance {
		w.Steps = append(w.Steps, reason.Step{Rule: "Slope tape reduced to level", Source: stage.Geometry,
			Says: reason.Say(reason.Tape(*m.Given.Length), " along the ground, piece by piece the long side over its rise: ",
				reason.Tape(*m.Spec.Length), " level, ", m.Ground.Correction, " less.")})
	}
	return w

}

func (m *Spacing) whySegment(s spacing.Segment) reason.Why {
	if s.Gate != spacing.NoGate {
		return m.whyOpening(s)
	}
	if s.Held != spacing.Nothing {
		b := m.Spec.HeldBays[s.Held]
		return reason.Why{Figure: "Held bay", Sentence: reason.Say("Held at ", b.Width, " centre to centre, from ", reason.Tape(b.At), "."),
			Steps: []reason.Step{{Rule: "Held by hand", Governs: true, Source: stage.Yours, Says: reason.Say("The rest of the run is spaced around it.")}}}

	}
	return m.whyFence(s)
}

// whyOpening tells how far a gate's two posts stand apart.
func (m *Spacing) whyOpening(s spacing.Segment) reason.Why {
	g := m.Spec.Gates[s.Gate]
	return reason.Why{
		Figure:   "Gate posts",
		Sentence: reason.Say(g.Inside(), " inside + one post, ", m.Spec.PostOf(job.GatePost).Width, " = ", s.To-s.From, " centre to centre."),
		Steps: []reason.Step{{
			Rule: "The opening is exact", Governs: true, Source: stage.Practice,
			Says: reason.Say("The fence's spacing gives way to the gate, never the other way round."),
		}},
	}

}

// whyFence tells how the bays of a stretch of fence were found.
func (m *Spacing) whyFence(s spacing.Segment) reason.Why {
	span, sp := s.To-s.From, m.Spec.Spacing
	w := reason.Why{Figure: "Spacing", Steps: []reason.Step{m.wayStep(s)}}
	most := sp.Most
	if _, ok := sp.ByPiece(); ok {
		most = sp.Regular(m.Spec.Post.Width, m.Spec.Post.Width)
	}
	switch {
	case s.Odd == 0 && s.Bays > 1:
		w.Sentence = reason.Say(span, " in ", s.Bays, " equal bays of ", s.Regular, ": the fewest with none over ", most, ".")
	case s.Odd == 0 || s.Bays == 1:
		w.Sentence = reason.Say(span, " in one bay.")
	default:
		w.Sentence = reason.Say(span, " in ", s.Bays, " bays: ", s.Bays-s.Odd, " of ", s.Regular, " and ", s.Odd, stage.Plural(s.Odd, " odd one", " odd ones"), ", at most ", s.Uneven, " off.")
	}
	w.Steps = append(w.Steps, reason.Step{Rule: "Fewest posts, then fewest odd bays", Source: stage.Geometry,
		Says: reason.Say("Of all ways with every bay from ", min(sp.Shortest(most), most), " to ", most, " and every hole clear of what is in the way: the fewest posts, then the fewest odd bays, then the most even, then the nearest to the plain layout.")})
	if _, piece := m.Spec.Spacing.ByPiece(); piece && m.Spec.Leans() {
		w.Steps = append(w.Steps, reason.Step{Rule: "Raked pieces lie along the slope", Source: stage.Geometry,
			Says: reason.Say("A piece is as long as it is: on the slope it spans less level distance, while the posts stay plumb and as far from it as on the flat. This stretch is ", s.To-s.From, " level, ",
				m.Profile.Along(s.To)-m.Profile.Along(s.From), " along the ground.")})
	}
	if ways := m.inWayOf(s); ways > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "What is in the way", Source: stage.Yours,
			Says: reason.Say(ways, stage.Plural(ways, " thing is", " things are"), " in the way here. The hole must miss it, not only the post: half a hole, ", m.Opened(job.LinePost)/2, ", either side.")})
	}
	if s.Block != nil {
		w.Steps = append(w.Steps, reason.Step{Rule: "Could not be met", Source: stage.Geometry,
			Says: reason.Say("Between ", reason.Tape(s.Block.From), " and ", reason.Tape(s.Block.To), " not everything can be met: see the finding.")})
	}
	return w
}

func (m *Spacing) inWayOf(s spacing.Segment) int {
	n := 0
	for _, k := range m.Spec.KeepOuts {
		if k.To() >= s.From && k.From() <= s.To {
			n++
		}
	}
	return n
}

// wayStep is the run's way of spacing with its own figures.
func (m *Spacing) wayStep(s spacing.Segment) reason.Step {
	sp, u := m.Spec.Spacing, m.Usual.Spacing
	ways := make([]string, len(job.Ways))
	for i, w := range job.Ways {
		ways[i] = string(w)
	}
	way := sp.Way
	if way == "" {
		way = job.EqualBays
	}
	step := reason.Step{Governs: true, Source: stage.Practice, Settings: []reason.Setting{m.Choice("/spacing/way", "Way", string(way), string(job.EqualBays), ways...)}}
	add := func(path, name string, value, usual length.Length) {
		step.Settings = append(step.Settings, m.Measured("/spacing/"+path, name, value, usual))
	}
	post := m.Spec.Post.Width
	regular := sp.Regular(post, post)
	switch way {
	case job.EqualBays:
		step.Rule = "Equal bays"
		step.Says = reason.Say(s.To-s.From, " ÷ ", sp.Most, " = ", float64((s.To-s.From)/sp.Most), ", rounded up to whole bays.")
		add("most", "Most spacing", sp.Most, u.Most)
	case job.PanelsBetween:
		step.Rule = "Panels between posts"
		step.Says = reason.Say("Panel ", sp.Piece, " + post ", post, " + two joints of ", sp.Play)
		if sp.Slot > 0 {
			step.Says = append(step.Says, reason.Say(" − two slots of ", sp.Slot)...)
		}
		step.Says = append(step.Says, reason.Say(" = ", regular, " centre to centre.")...)
		add("piece", "Panel", sp.Piece, 0)
		add("play", "Play at each joint", sp.Play, 0)
	case job.PanelsOnFaces:
		step.Rule = "Panels on the posts' faces"
		step.Says = reason.Say("Panel ", sp.Piece, " = centre to centre. At a corner the first panel begins half a post, ", m.Spec.PostOf(job.CornerPost).Width/2, ", from the corner post's middle")
		if sp.Turning == job.Overlapping {
			step.Says = append(step.Says, reason.Say("; the run that starts there a panel's thickness, ", sp.Thickness, ", more, where they overlap.")...)
		} else {
			step.Says = append(step.Says, reason.Say(", so that the two panels meet.")...)
		}
		add("piece", "Panel", sp.Piece, 0)
	case job.FixedModule:
		step.Rule = "Fixed module"
		step.Says = reason.Say("The board, ", sp.Piece, ", is the bay: tape every hole before its post goes in.")
		add("piece", "Board", sp.Piece, 0)
	case job.StockRails:
		step.Rule = "Rails on stock lengths"
		step.Says = reason.Say("A rail of ", sp.Piece, " spans ", sp.Spans(), " bays of ", regular, ", and breaks on posts only.")
		add("piece", "Rail", sp.Piece, 0)
	case job.OverlapRails:
		step.Rule = "Overlapping rails"
		step.Says = reason.Say("Rail ", sp.Piece, " − overlap ", sp.Overlap, " = ", regular, " centre to centre. Ends, corners and gates are morticed half as deep: trim ", sp.Overlap/2, " off a tongue there.")
		add("piece", "Rail", sp.Piece, 0)
		add("overlap", "Overlap", sp.Overlap, 0)
	}
	return step
}
