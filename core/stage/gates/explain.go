package gates

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
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
	return reason.Step{Rule: words.Plain("gates.room-for-hinges-and-latch"), Source: stage.Practice, Says: words.Say("gates.hardware-takes-in-all", words.V{"gaps": w.gate.Gaps(), "hardware": teller{w}.hardware()}), Settings: []reason.Setting{
		m.gateSetting(i, "hardware/hinge", words.Plain("gates.hinge-gap"), hw.Hinge, was.Hinge), m.gateSetting(i, "hardware/latch", words.Plain("gates.latch-gap"), hw.Latch, was.Latch),
		m.gateSetting(i, "hardware/meeting", words.Plain("gates.between-two-leaves"), hw.Meeting, was.Meeting), m.gateSetting(i, "hardware/pin", words.Plain("gates.pin-to-leaf"), hw.Pin, was.Pin)}}
}

func (w *planner) whyInside(usual job.Gate) reason.Why {
	says := w.m.SizedSays(w.gate)
	return reason.Why{Figure: words.Plain("gates.inside-measure"), Sentence: says, Steps: []reason.Step{
		{Rule: words.Plain("gates.sized-by-the", words.V{"measure": w.out.SizedBy}), Governs: true, Source: stage.Yours, Says: says, Settings: []reason.Setting{w.m.SizeSetting(w.out.index)}},
		w.gapStep(usual),
		{Rule: words.Plain("gates.three-distances"), Source: stage.Geometry, Says: words.Say("gates.centre-to-centre-one-post", words.V{"centre": w.out.Centre, "outside": w.out.Outside})}}}
}

func (w *planner) whyClear(usual job.Gate) reason.Why {
	g := w.gate
	return reason.Why{Figure: words.Plain("gates.clear-way"), Sentence: words.Say("gates.inside-less-what-the-open", words.V{"opening": w.out.Opening, "count": len(w.out.Leaves), "taken": w.out.Opening - w.out.Clear, "clear": w.out.Clear}),
		Steps: []reason.Step{{Rule: words.Plain("gates.open-leaves-stand-in-the"), Governs: true, Source: stage.Geometry, Says: words.Say("gates.at-the-corner-of-a", words.V{"open": math.Round(w.out.Open), "thick": g.Thick}),
			Settings: []reason.Setting{w.m.gateSetting(w.out.index, "thick", words.Plain("gates.thickness-of-a-leaf"), g.Thick, usual.Thick)}}, w.gapStep(usual)}}
}

func (w *planner) whySwing(usual job.Gate) reason.Why {
	m, g, i := w.m, w.gate, w.out.index
	out := reason.Why{Figure: words.Plain("gates.gap-on-the-way"), Caution: words.Plain("gates.between-what-was-measured-the")}
	out.Sentence = words.Say("gates.closed-the-leaf-hangs-over", words.V{"gap": g.Gap})
	for _, l := range w.out.Leaves {
		for _, s := range l.Sides {
			out.Sentence = append(out.Sentence, words.Say("gates.swung-at-the-least-open", words.V{"side": string(s.Side), "gap": s.Gap, "angle": math.Round(s.Angle), "out": s.Out, "post": l.Post})...)
		}
	}
	out.Sentence = append(out.Sentence, words.Say("gates.full-stop")...)
	out.Steps = []reason.Step{
		{Rule: words.Plain("gates.gap-under-the-closed-leaf"), Source: stage.Practice, Says: words.Say("gates.4-to-6-in-100"),
			Settings: []reason.Setting{m.gateSetting(i, "gap", words.Plain("gates.gap-under-the-leaf"), g.Gap, usual.Gap), m.gateSetting(i, "crown", words.Plain("gates.crown-of-the-drive"), g.Crown, 0)}},
		{Rule: words.Plain("gates.over-the-whole-swing"), Governs: true, Source: stage.Geometry, Says: words.Say("gates.every-place-that-the-leaf", words.V{"open": w.out.Open})},
		{Rule: words.Plain("gates.least-gap-on-the-way"), Source: stage.Practice, Says: words.Say("gates.at-least-is-left-so", words.V{"least": g.Least}),
			Settings: []reason.Setting{m.gateSetting(i, "least", words.Plain("gates.least-gap-on-the-way"), g.Least, usual.Least)}},
		{Rule: words.Plain("gates.packed-snow"), Source: stage.Yours, Says: words.Say("gates.more-where-it-lies", words.V{"snow": g.Snow}), Settings: []reason.Setting{m.gateSetting(i, "snow", words.Plain("gates.packed-snow"), g.Snow, 0)}},
	}
	return out
}

func (w *planner) whyPull(usual job.Gate) reason.Why {
	m, g, i := w.m, w.gate, w.out.index
	out := reason.Why{Figure: words.Plain("gates.pull-on-the-hinges"), Sentence: words.Say("gates.no-leaf-hangs"), Caution: words.Plain("gates.statics-of-a-leaf-hanging")}
	for k, l := range w.out.Leaves {
		if k == 0 {
			out.Sentence = reason.Text{}
		}
		out.Sentence = append(out.Sentence, words.Say("gates.half-of-over-between-the", words.V{"mass": l.Mass, "width": l.Width, "moment": reason.Moment(l.Moment), "spacing": l.Spacing, "post": l.Post, "pull": reason.Force(l.Pull)})...)
	}
	made := m.LeafMake(g)
	out.Steps = []reason.Step{
		{Rule: words.Plain("gates.weight-of-the-leaf"), Source: made.Source, Says: words.Say("gates.name-alone", words.V{"name": made.Name})},
		{Rule: words.Plain("gates.hinges-apart"), Governs: true, Source: stage.Geometry, Says: words.Say("gates.the-farther-apart-the-hinges"),
			Settings: []reason.Setting{m.gateSetting(i, "hingeIn", words.Plain("gates.hinges-in-from-top-and"), g.HingeIn, usual.HingeIn)}},
	}
	if made.ID == "" {
		out.Steps[0].Source = stage.Practice
	}
	if g.Weight != nil {
		out.Steps[0] = reason.Step{Rule: words.Plain("gates.weight-of-the-leaf"), Source: stage.Yours, Says: words.Say("gates.as-entered")}
	}
	return out
}
