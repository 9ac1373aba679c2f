package plan

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// waits is how long a post is left before a leaf hangs on it, by how it was
// set (common practice): in the warm, and in the cold.
var waits = map[job.Method]string{
	job.Braced:     "a day above 60 °F (15 °C), two below",
	job.FastDry:    "the hours that its bag says, four at least",
	job.DryPacked:  "a day: the mix is still drawing water",
	job.Stabbed:    "two days",
	job.RockPacked: "not at all: but it settles, and is tamped again after the first rain",
	job.Drive:      "not at all",
	job.Slurry:     "two days",
	job.Layered:    "two days",
}

// wait says how long the hinge post is left alone, and what makes it longer.
func (w *gateMaker) wait() reason.Text {
	heavy := length.Mass(0)
	how := ""
	for _, l := range w.out.Leaves {
		heavy = max(heavy, l.Mass)
		if p := w.post(l.End); p.Card >= 0 {
			how = waits[w.m.out.Cards[p.Card].Method]
		}
	}
	if how == "" {
		return reason.Say("The posts stand already: rock them by hand before anything hangs on them.")
	}
	says := reason.Say("Leave the posts alone before a leaf hangs on them: ", how, ".")
	if heavy >= w.m.cat.Passage.Heavy {
		says = append(says, reason.Say(" With a leaf of ", w.m.job.Units.Weight(heavy), " a week: concrete has most of its strength then.")...)
	}
	return says
}

// steps is how the gate is hung, in order.
func (w *gateMaker) steps() {
	add := func(parts ...any) { w.out.Steps = append(w.out.Steps, GateStep{reason.Say(parts...)}) }
	add("Set ", w.posts[0].ID, " and ", w.posts[1].ID, " with a spreader of ", w.out.Opening, " between them, one low and one high, and tape both diagonals: ", w.out.Checks[2].Length, ".")
	w.out.Steps = append(w.out.Steps, GateStep{w.wait()})
	if w.gate.Kind == job.SlideGate {
		add("Set track or rollers level to their maker's sheet, then the guides, and run the leaf back and forth by hand over ", w.out.RunBack.Past, ".")
		add("A stop at either end: a leaf that leaves its guides falls.")
		return
	}
	for _, l := range w.out.Leaves {
		w.hangSteps(&l, add)
	}
	if len(w.out.Leaves) == 2 {
		add("Bring the tips level with each other, ", w.gate.Hardware.Meeting, " apart; then the drop bolt, and its stop let into the ground under it.")
	}
	if t := w.out.Latch; t != nil && len(w.out.Leaves) == 1 {
		add("Latch at ", t.Above, " above ground on ", t.Post, markSays(t.FromMark), ", and a stop, so that the latch does not take the blow.")
	} else if t != nil {
		add("Latch at ", t.Above, " above the ground at ", t.Post, ", on the leaf that opens first.")
	}
	for _, l := range w.out.Leaves {
		for _, s := range l.Sides {
			where := reason.Say("closed")
			if s.Angle >= 0.5 {
				where = reason.Say("at ", math.Round(s.Angle), "° and ", s.Out, " from its pins")
			}
			add("Swing ", leafName(w.out, l), " ", string(s.Side), " by hand, all of ", math.Round(w.out.Open), "°: the least gap is ", s.Gap, ", ", where, ". Hold it there at ", s.Hold.Off, " off the line, ", s.Hold.Along, " along from the middle of ", l.Post, ".")
		}
	}
}

// hangSteps are the steps of one leaf.
func (w *gateMaker) hangSteps(l *GateLeaf, add func(...any)) {
	if len(l.Hinges) == 0 {
		return
	}
	parts := []any{"On ", l.Post, " mark "}
	for i, h := range l.Hinges {
		if i > 0 {
			parts = append(parts, ", ")
		}
		parts = append(parts, lower(h.Name), " ", h.Above, " above ground", markSays(h.FromMark))
	}
	add(append(parts, ".")...)
	add("Block ", leafName(w.out, *l), " up: ", l.Blocks[0].Height, " under its hinge end, ", l.Blocks[1].Height, " under its tip, with ", w.gate.Hardware.Hinge, " to the post. Two people: it falls if one lets go.")
	add("Bottom hinge first, its pin up; then the top one, its pin down. Opposed pins keep the leaf from being lifted off.")
}

// markSays says where a mark lies from the reference mark.
func markSays(from length.Length) reason.Text {
	if from < 0 {
		return reason.Say(" (", -from, " above the reference mark)")
	}
	return reason.Say(" (", from, " below the reference mark)")
}

func leafName(g *Gate, l GateLeaf) string {
	if len(g.Leaves) == 1 {
		return "the leaf"
	}
	return "the leaf on " + l.Post
}

// after is what is looked at when the gate has hung for a week.
func (w *gateMaker) after() {
	add := func(parts ...any) { w.out.After = append(w.out.After, GateStep{reason.Say(parts...)}) }
	if w.gate.Kind == job.SlideGate {
		add("Does it still run by hand, and stop where it should? Clear stones off its way.")
		add("Are both posts plumb, and the guides tight?")
		return
	}
	add("Tape the gap at the tip again, closed: write the drop down under Adjust, and take it out there.")
	add("Are both posts plumb? Tape inside at top and bottom: ", w.out.Opening, ".")
	add("Nuts and screws of the hinges: timber shrinks and they come loose.")
	add("Does the latch meet its catch without lifting the leaf?")
	add("Open it all the way: does it stay where it is left? If it swings by itself, the hinge post leans that way.")
	add("Look at the ground round ", w.posts[0].ID, " and ", w.posts[1].ID, ": a gap beside the concrete says that the post moves.")
}
