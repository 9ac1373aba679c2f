package plan

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

func (m *maker) whySegment(s spacing.Segment) reason.Ref {
	if s.Gate != spacing.NoGate {
		return m.whyOpening(s)
	}
	if s.Held != spacing.Nothing {
		b := m.run.HeldBays[s.Held]
		return m.few.Put([2]any{"held bay", s.Held}, func() reason.Why {
			return reason.Why{Figure: "Held bay", Sentence: reason.Say("Held at ", b.Width, " centre to centre, from ", reason.Tape(b.At), "."),
				Steps: []reason.Step{{Rule: "Held by hand", Governs: true, Source: yours, Says: reason.Say("The rest of the run is spaced around it.")}}}
		})
	}
	type key struct {
		of            string
		span, regular length.Length
		bays, odd     int
		block         bool
	}
	return m.few.Put(key{"segment", s.To - s.From, s.Regular, s.Bays, s.Odd, s.Block != nil}, func() reason.Why { return m.whyFence(s) })
}

// whyOpening tells how far a gate's two posts stand apart.
func (m *maker) whyOpening(s spacing.Segment) reason.Ref {
	return m.few.Put([2]any{"opening", s.Gate}, func() reason.Why {
		g := m.run.Gates[s.Gate]
		return reason.Why{
			Figure:   "Gate posts",
			Sentence: reason.Say(g.Inside(), " inside + one post, ", m.run.PostOf(job.GatePost).Width, " = ", s.To-s.From, " centre to centre."),
			Steps: []reason.Step{{
				Rule: "The opening is exact", Governs: true, Source: practice,
				Says: reason.Say("The fence's spacing gives way to the gate, never the other way round."),
			}},
		}
	})
}

// whyFence tells how the bays of a stretch of fence were found.
func (m *maker) whyFence(s spacing.Segment) reason.Why {
	span, sp := s.To-s.From, m.run.Spacing
	w := reason.Why{Figure: "Spacing", Steps: []reason.Step{m.wayStep(s)}}
	most := sp.Most
	if _, ok := sp.ByPiece(); ok {
		most = sp.Regular(m.run.Post.Width, m.run.Post.Width)
	}
	switch {
	case s.Odd == 0 && s.Bays > 1:
		w.Sentence = reason.Say(span, " in ", s.Bays, " equal bays of ", s.Regular, ": the fewest with none over ", most, ".")
	case s.Odd == 0 || s.Bays == 1:
		w.Sentence = reason.Say(span, " in one bay.")
	default:
		w.Sentence = reason.Say(span, " in ", s.Bays, " bays: ", s.Bays-s.Odd, " of ", s.Regular, " and ", s.Odd, plural(s.Odd, " odd one", " odd ones"), ", at most ", s.Uneven, " off.")
	}
	w.Steps = append(w.Steps, reason.Step{Rule: "Fewest posts, then fewest odd bays", Source: geometry,
		Says: reason.Say("Of all ways with every bay from ", min(sp.Shortest(most), most), " to ", most, " and every hole clear of what is in the way: the fewest posts, then the fewest odd bays, then the most even, then the nearest to the plain layout.")})
	if _, piece := m.run.Spacing.ByPiece(); piece && m.run.Leans() {
		w.Steps = append(w.Steps, reason.Step{Rule: "Raked pieces lie along the slope", Source: geometry,
			Says: reason.Say("A piece is as long as it is: on the slope it spans less level distance, while the posts stay plumb and as far from it as on the flat. This stretch is ", s.To-s.From, " level, ",
				m.profile.Along(s.To)-m.profile.Along(s.From), " along the ground.")})
	}
	if ways := m.inWayOf(s); ways > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "What is in the way", Source: yours,
			Says: reason.Say(ways, plural(ways, " thing is", " things are"), " in the way here. The hole must miss it, not only the post: half a hole, ", m.opened(job.LinePost)/2, ", either side.")})
	}
	if s.Block != nil {
		w.Steps = append(w.Steps, reason.Step{Rule: "Could not be met", Source: geometry,
			Says: reason.Say("Between ", reason.Tape(s.Block.From), " and ", reason.Tape(s.Block.To), " not everything can be met: see the finding.")})
	}
	return w
}

func (m *maker) inWayOf(s spacing.Segment) int {
	n := 0
	for _, k := range m.run.KeepOuts {
		if k.To() >= s.From && k.From() <= s.To {
			n++
		}
	}
	return n
}

// wayStep is the run's way of spacing with its own figures.
func (m *maker) wayStep(s spacing.Segment) reason.Step {
	sp, u := m.run.Spacing, m.usual.Spacing
	ways := make([]string, len(job.Ways))
	for i, w := range job.Ways {
		ways[i] = string(w)
	}
	way := sp.Way
	if way == "" {
		way = job.EqualBays
	}
	step := reason.Step{Governs: true, Source: practice, Settings: []reason.Setting{m.choice("/spacing/way", "Way", string(way), string(job.EqualBays), ways...)}}
	add := func(path, name string, value, usual length.Length) {
		step.Settings = append(step.Settings, m.measured("/spacing/"+path, name, value, usual))
	}
	post := m.run.Post.Width
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
		step.Says = reason.Say("Panel ", sp.Piece, " = centre to centre. At a corner the first panel begins half a post, ", m.run.PostOf(job.CornerPost).Width/2, ", from the corner post's middle")
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
