package gates

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
)

// gateSetting is a measure of a gate with its usual value.
func (m *Gates) gateSetting(gate int, field, name string, value, usual length.Length) reason.Setting {
	return reason.Setting{Path: m.GatePath(gate) + "/" + field, Name: name, Kind: reason.LengthSetting, Value: value, Usual: usual, Changed: !length.Same(value, usual)}
}

// explain says why a figure of the run's gates is what it is.
func (m *Gates) Explain(f stage.Figure) (reason.Why, bool) {
	if f.Of != "gate" {
		return m.Holes.Explain(f)
	}
	k := slices.IndexFunc(m.Made, func(g Gate) bool { return g.ID == f.ID })
	if k < 0 {
		return reason.Why{}, false
	}
	w := m.maker(&m.Made[k], m.bayOf(&m.Made[k]))
	usual := m.Cat.UsualGate(m.Job.Units.System)
	switch f.What {
	case "inside":
		return w.whyInside(usual), true
	case "clear":
		return w.whyClear(usual), true
	case "swing":
		return w.whySwing(usual), true
	case "pull":
		return w.whyPull(usual), true
	}
	return reason.Why{}, false
}

// gapStep is the rule of the room that hinges and latch take.
func (w *planner) gapStep(usual job.Gate) reason.Step {
	m, i, hw, was := w.m, w.out.index, w.gate.Hardware, usual.Hardware
	return reason.Step{Rule: "Room for hinges and latch", Source: stage.Practice, Says: reason.Say("Hardware takes ", w.gate.Gaps(), " in all: ", w.hardware(), "."), Settings: []reason.Setting{
		m.gateSetting(i, "hardware/hinge", "Hinge gap", hw.Hinge, was.Hinge), m.gateSetting(i, "hardware/latch", "Latch gap", hw.Latch, was.Latch),
		m.gateSetting(i, "hardware/meeting", "Between two leaves", hw.Meeting, was.Meeting), m.gateSetting(i, "hardware/pin", "Pin to leaf", hw.Pin, was.Pin)}}
}

func (w *planner) whyInside(usual job.Gate) reason.Why {
	says := w.m.SizedSays(w.gate)
	return reason.Why{Figure: "Inside measure", Sentence: says, Steps: []reason.Step{
		{Rule: "Sized by the " + w.out.SizedBy, Governs: true, Source: stage.Yours, Says: says, Settings: []reason.Setting{w.m.SizeSetting(w.out.index)}},
		w.gapStep(usual),
		{Rule: "Three distances", Source: stage.Geometry, Says: reason.Say("Centre to centre one post more, ", w.out.Centre, "; outside two more, ", w.out.Outside, ".")}}}
}

func (w *planner) whyClear(usual job.Gate) reason.Why {
	g := w.gate
	return reason.Why{Figure: "Clear way", Sentence: reason.Say(w.out.Opening, " inside less what the open ", stage.Plural(len(w.out.Leaves), "leaf takes, ", "leaves take, "), w.out.Opening-w.out.Clear, " = ", w.out.Clear, "."),
		Steps: []reason.Step{{Rule: "Open leaves stand in the way", Governs: true, Source: stage.Geometry, Says: reason.Say("At ", math.Round(w.out.Open), "° the corner of a leaf ", g.Thick, " thick stands out from its pin."),
			Settings: []reason.Setting{w.m.gateSetting(w.out.index, "thick", "Thickness of a leaf", g.Thick, usual.Thick)}}, w.gapStep(usual)}}
}

func (w *planner) whySwing(usual job.Gate) reason.Why {
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
		{Rule: "Gap under the closed leaf", Source: stage.Practice, Says: reason.Say("4 to 6 in (100 to 150 mm) is usual, over a crown or the highest ground."),
			Settings: []reason.Setting{m.gateSetting(i, "gap", "Gap under the leaf", g.Gap, usual.Gap), m.gateSetting(i, "crown", "Crown of the drive", g.Crown, 0)}},
		{Rule: "Over the whole swing", Governs: true, Source: stage.Geometry, Says: reason.Say("Every place that the leaf passes is looked at, on the side that it swings to, ", w.out.Open, "° round its pins.")},
		{Rule: "Least gap on the way", Source: stage.Practice, Says: reason.Say("At least ", g.Least, " is left, so that ground rising 8 in over a 10 ft leaf asks for a gap of 9 in."),
			Settings: []reason.Setting{m.gateSetting(i, "least", "Least gap on the way", g.Least, usual.Least)}},
		{Rule: "Packed snow", Source: stage.Yours, Says: reason.Say(g.Snow, " more where it lies."), Settings: []reason.Setting{m.gateSetting(i, "snow", "Packed snow", g.Snow, 0)}},
	}
	return out
}

func (w *planner) whyPull(usual job.Gate) reason.Why {
	m, g, i := w.m, w.gate, w.out.index
	out := reason.Why{Figure: "Pull on the hinges", Sentence: reason.Say("No leaf hangs."), Caution: "Statics of a leaf hanging still. Children swing on gates and wind slams them: an engineer decides where that can hurt someone."}
	for k, l := range w.out.Leaves {
		if k == 0 {
			out.Sentence = reason.Text{}
		}
		out.Sentence = append(out.Sentence, reason.Say(l.Mass, " × half of ", l.Width, " = ", reason.Moment(l.Moment), "; over ", l.Spacing, " between the hinges of ", l.Post, " they pull and push with ", reason.Force(l.Pull), ". ")...)
	}
	made := m.LeafMake(g)
	out.Steps = []reason.Step{
		{Rule: "Weight of the leaf", Source: made.Source, Says: reason.Say(made.Name, ".")},
		{Rule: "Hinges apart", Governs: true, Source: stage.Geometry, Says: reason.Say("The farther apart the hinges are, the less they pull."),
			Settings: []reason.Setting{m.gateSetting(i, "hingeIn", "Hinges in from top and bottom", g.HingeIn, usual.HingeIn)}},
	}
	if made.ID == "" {
		out.Steps[0].Source = stage.Practice
	}
	if g.Weight != nil {
		out.Steps[0] = reason.Step{Rule: "Weight of the leaf", Source: stage.Yours, Says: reason.Say("As entered.")}
	}
	return out
}
