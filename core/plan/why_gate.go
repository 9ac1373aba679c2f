package plan

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// sizedSays is how a gate's inside measure came about.
func (m *maker) sizedSays(g job.Gate) reason.Text {
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
func (m *maker) sizeSetting(gate int) reason.Setting {
	g, path := m.run.Gates[gate], m.gatePath(gate)
	switch {
	case g.Leaf != nil:
		return reason.Setting{Path: path + "/leaf", Name: "Leaf", Kind: reason.LengthSetting, Value: *g.Leaf}
	case g.Clear != nil:
		return reason.Setting{Path: path + "/clear", Name: "Clear way", Kind: reason.LengthSetting, Value: *g.Clear}
	}
	return reason.Setting{Path: path + "/opening", Name: "Inside measure", Kind: reason.LengthSetting, Value: g.Opening}
}

// gateSetting is a measure of a gate with its usual value.
func (m *maker) gateSetting(gate int, field, name string, value, usual length.Length) reason.Setting {
	return reason.Setting{Path: m.gatePath(gate) + "/" + field, Name: name, Kind: reason.LengthSetting, Value: value, Usual: usual, Changed: !length.Same(value, usual)}
}

// whys explains a gate's figures.
func (w *gateMaker) whys() {
	m, g, i := w.m, w.gate, w.out.index
	usual := m.cat.UsualGate(m.job.Units.System)
	hw, was := g.Hardware, usual.Hardware
	gaps := []reason.Setting{
		m.gateSetting(i, "hardware/hinge", "Hinge gap", hw.Hinge, was.Hinge), m.gateSetting(i, "hardware/latch", "Latch gap", hw.Latch, was.Latch),
		m.gateSetting(i, "hardware/meeting", "Between two leaves", hw.Meeting, was.Meeting), m.gateSetting(i, "hardware/pin", "Pin to leaf", hw.Pin, was.Pin)}
	inside := reason.Step{Rule: "Sized by the " + w.out.SizedBy, Governs: true, Source: yours, Says: m.sizedSays(g), Settings: []reason.Setting{m.sizeSetting(i)}}
	gapStep := reason.Step{Rule: "Room for hinges and latch", Source: practice, Says: reason.Say("Hardware takes ", g.Gaps(), " in all: ", w.hardware(), "."), Settings: gaps}
	w.out.Why.Inside = m.few.Put([2]any{"gate inside", i}, func() reason.Why {
		return reason.Why{Figure: "Inside measure", Sentence: m.sizedSays(g), Steps: []reason.Step{inside, gapStep,
			{Rule: "Three distances", Source: geometry, Says: reason.Say("Centre to centre one post more, ", w.out.Centre, "; outside two more, ", w.out.Outside, ".")}}}
	})
	w.out.Why.Clear = m.few.Put([2]any{"gate clear", i}, func() reason.Why {
		return reason.Why{Figure: "Clear way", Sentence: reason.Say(w.out.Opening, " inside less what the open ", plural(len(w.out.Leaves), "leaf takes, ", "leaves take, "), w.out.Opening-w.out.Clear, " = ", w.out.Clear, "."),
			Steps: []reason.Step{{Rule: "Open leaves stand in the way", Governs: true, Source: geometry, Says: reason.Say("At ", math.Round(w.out.Open), "° the corner of a leaf ", g.Thick, " thick stands out from its pin."),
				Settings: []reason.Setting{m.gateSetting(i, "thick", "Thickness of a leaf", g.Thick, usual.Thick)}}, gapStep}}
	})
	w.out.Why.Swing = m.few.Put([2]any{"gate swing", i}, func() reason.Why { return w.whySwing(usual) })
	w.out.Why.Pull = m.few.Put([2]any{"gate pull", i}, func() reason.Why { return w.whyPull(usual) })
}

func (w *gateMaker) whySwing(usual job.Gate) reason.Why {
	m, g, i := w.m, w.gate, w.out.index
	out := reason.Why{Figure: "Gap on the way", Caution: "Between what was measured the ground is taken as straight. Walk the leaf's way with a stick as long as the gap before the posts are set."}
	out.Sentence = reason.Say("Closed, the leaf hangs ", g.Gap, " over the highest ground across the opening")
	for _, l := range w.out.Leaves {
		for _, s := range l.Sides {
			out.Sentence = append(out.Sentence, reason.Say("; swung ", string(s.Side), ", ", s.Gap, " at the least, ", math.Round(s.Angle), "° open, ", s.Out, " from the pins of ", l.Post)...)
		}
	}
	out.Sentence = append(out.Sentence, reason.Say(".")...)
	out.Steps = []reason.Step{
		{Rule: "Gap under the closed leaf", Source: practice, Says: reason.Say("4 to 6 in (100 to 150 mm) is usual, over a crown or the highest ground."),
			Settings: []reason.Setting{m.gateSetting(i, "gap", "Gap under the leaf", g.Gap, usual.Gap), m.gateSetting(i, "crown", "Crown of the drive", g.Crown, 0)}},
		{Rule: "Over the whole swing", Governs: true, Source: geometry, Says: reason.Say("Every place that the leaf passes is looked at, on the side that it swings to, ", w.out.Open, "° round its pins.")},
		{Rule: "Least gap on the way", Source: practice, Says: reason.Say("At least ", g.Least, " is left, so that ground rising 8 in over a 10 ft leaf asks for a gap of 9 in."),
			Settings: []reason.Setting{m.gateSetting(i, "least", "Least gap on the way", g.Least, usual.Least)}},
		{Rule: "Packed snow", Source: yours, Says: reason.Say(g.Snow, " more where it lies."), Settings: []reason.Setting{m.gateSetting(i, "snow", "Packed snow", g.Snow, 0)}},
	}
	return out
}

func (w *gateMaker) whyPull(usual job.Gate) reason.Why {
	m, g, i := w.m, w.gate, w.out.index
	out := reason.Why{Figure: "Pull on the hinges", Sentence: reason.Say("No leaf hangs."), Caution: "Statics of a leaf hanging still. Children swing on gates and wind slams them: an engineer decides where that can hurt someone."}
	for k, l := range w.out.Leaves {
		if k == 0 {
			out.Sentence = reason.Text{}
		}
		out.Sentence = append(out.Sentence, reason.Say(l.Mass, " × half of ", l.Width, " = ", reason.Moment(l.Moment), "; over ", l.Spacing, " between the hinges of ", l.Post, " they pull and push with ", reason.Force(l.Pull), ". ")...)
	}
	made := m.made(g)
	out.Steps = []reason.Step{
		{Rule: "Weight of the leaf", Source: made.Source, Says: reason.Say(made.Name, ".")},
		{Rule: "Hinges apart", Governs: true, Source: geometry, Says: reason.Say("The farther apart the hinges are, the less they pull."),
			Settings: []reason.Setting{m.gateSetting(i, "hingeIn", "Hinges in from top and bottom", g.HingeIn, usual.HingeIn)}},
	}
	if made.ID == "" {
		out.Steps[0].Source = practice
	}
	if g.Weight != nil {
		out.Steps[0] = reason.Step{Rule: "Weight of the leaf", Source: yours, Says: reason.Say("As entered.")}
	}
	return out
}
