package gates

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
)

// tell are the run's gates with what is said of them: how their posts are
// checked, how they are hung, what is ordered, what is looked at after a week.
func (m *Gates) Tell() []Gate {
	out := slices.Clone(m.Made)
	for i := range out {
		out[i].Leaves = slices.Clone(out[i].Leaves)
		w := m.maker(&out[i], m.bayOf(&out[i]))
		w.checks()
		for k := range out[i].Leaves {
			w.tellLeaf(&out[i].Leaves[k])
		}
		w.order()
		w.steps()
		w.after()
	}
	return out
}

// checks are the measures that prove the posts: inside at foot and head, and
// both diagonals between the same two heights.
func (w *planner) checks() {
	low, high := w.out.Bottom, w.bay.TopStart
	w.out.Checks = []GateCheck{
		{"Inside at the bottom", w.out.Opening, reason.Say("Between the faces, at the height of the leaf's bottom.")},
		{"Inside at the top", w.out.Opening, reason.Say("Between the faces, at the leaf's top: the same, or a post leans.")},
	}
	diagonal := gate.Diagonal(w.out.Opening, high-low)
	for i, p := range w.posts {
		w.out.Checks = append(w.out.Checks, GateCheck{"Diagonal from the foot of " + p.ID, diagonal,
			reason.Say("Face to face, up to the leaf's top on ", w.posts[1-i].ID, ". Both alike, or the posts stand out of level or out of plumb.")})
	}
}

// tellLeaf says which way a leaf's brace runs, and how its tip is lifted.
func (w *planner) tellLeaf(l *GateLeaf) {
	if l.Brace != nil {
		b := *l.Brace
		switch b.Kind {
		case materials.Strut:
			b.Says = reason.Say("From the bottom hinge up to the latch end's head: the leaf's weight presses a timber brace together. The other way it would hang on its nails.")
		case materials.Tie:
			b.Says = reason.Say("From the top hinge down to the latch end's foot: a wire or rod only pulls. The turnbuckle is tightened until the tip lifts.")
		default:
			b.Says = reason.Say("No brace: the welded frame is stiff in itself.")
		}
		l.Brace = &b
	}
	if l.Adjust != nil {
		a := *l.Adjust
		a.Says = adjustSays(a, w.gate.Hardware)
		l.Adjust = &a
	}
}

// adjustSays tells how a dropped tip is lifted.
func adjustSays(a Adjusting, hw job.Hardware) reason.Text {
	switch {
	case hw.Pitch <= 0:
		return reason.Say("This hinge has no thread: pack the bottom hinge out by ", a.In, ", or let the top one in by as much. First see that the post is plumb and the brace tight.")
	case !a.Enough:
		return reason.Say("That asks for ", a.In, " of the top bolt, and it has ", hw.Travel, ". The post has leaned or the leaf has racked: plumb the post, or pull the leaf square with its brace, before the bolts are turned.")
	}
	return reason.Say("Turn the top hinge's bolt in by ", a.In, ", ", math.Round(a.Turns*4)/4, stage.Plural(int(math.Round(a.Turns*4)/4), " turn", " turns"), ": the tip comes up ", a.Drop, ". Prop the tip while the nuts are loose.")
}

// gateCautions stand where leaves are hung, and where a gate is all that keeps
// a child from water.
func GateCautions(runs []*Gates) []stage.Caution {
	leaf, slide, drive, pool, animals := length.Mass(0), false, false, false, false
	for _, m := range runs {
		for i := range m.Made {
			g, own := &m.Made[i], m.Spec.Gates[m.Made[i].index]
			slide = slide || g.Kind == job.SlideGate
			drive = drive || g.Use == job.VehicleGate
			pool, animals = pool || own.Pool, animals || own.Animals
			for _, l := range g.Leaves {
				leaf = max(leaf, l.Mass)
			}
		}
	}
	var out []stage.Caution
	add := func(parts ...any) { out = append(out, stage.Caution{Stage: finding.Gates, Says: reason.Say(parts...)}) }
	switch {
	case leaf > 2*stage.AloneMost:
		add("A leaf falls from its hinges when it is hung, adjusted or lifted off: this is more than two people should hold. Blocks, a strap or a machine; nobody stands under it.")
	case leaf > 0:
		add("A leaf falls from its hinges when it is hung, adjusted or lifted off: two people, blocks under it, and fingers out of the hinge gap.")
	}
	if slide {
		add("A sliding leaf that passes its stop falls over, and has killed: end stops and guides stand before it is first run. A driven gate is for a licensed installer.")
	}
	if drive {
		add("At a drive there is traffic: cones and a lookout while you work in it, and the leaf tied back in wind.")
	}
	if pool {
		add("A gate in a pool barrier keeps children alive. What stands here is what codes usually ask; only the local code and its inspector count. Try it each time: it closes and latches by itself from any angle.")
	}
	if animals {
		add("Animals lean on gates and lift them: opposed pins, a latch that none noses open, and no gap for a head.")
	}
	return out
}

// hardware is the gate's set of hinges and latch, in words.
func (w *planner) hardware() string {
	if h, ok := w.m.Cat.HardwareOf(w.gate.Hardware.Kind); ok {
		return stage.Lower(h.Name)
	}
	return "hinges and latch of your own"
}

// order is what is ordered for the gate.
func (w *planner) order() {
	add := func(parts ...any) { w.out.Order = append(w.out.Order, GateStep{reason.Say(parts...)}) }
	made := w.m.LeafMake(w.gate)
	if r := w.out.RunBack; r != nil {
		add("1 sliding leaf, ", r.Past, " × ", w.out.Leaf, ", with its track or rollers and guides, as its maker says.")
	}
	for _, l := range w.out.Leaves {
		parts := []any{"1 leaf, ", l.Width, " wide × ", l.Height, " high"}
		if (l.Height - l.TipHeight).Abs() > length.Millimetre {
			parts = append(parts, " at the hinges, ", l.TipHeight, " at the tip")
		}
		weight := fmt.Sprint(", about ", w.m.Job.Units.Weight(l.Mass))
		if !l.Estimated {
			weight = ", " + w.m.Job.Units.Weight(l.Mass)
		}
		parts = append(parts, ": "+stage.Lower(made.Name), weight, "; hangs on ", l.Post, ".")
		add(parts...)
	}
	if n := len(w.out.Leaves); n > 0 {
		hinges := 0
		for _, l := range w.out.Leaves {
			hinges += len(l.Hinges)
		}
		add(hinges, " hinges, ", w.hardware(), ", for a post of ", w.out.Post, ".")
		if n == 2 {
			add("1 latch for two leaves, a drop bolt for the leaf that stands, and a stop let into the ground.")
		} else {
			add("1 latch with its catch, and a stop.")
		}
		if w.gate.Lift > 0 {
			add("The hinges are rising ones, ", w.gate.Lift, " by the time the leaf is square open.")
		}
		add(n, stage.Plural(n, " hold-back", " hold-backs"), " for the open leaf, with a stake or a wall to be on.")
	}
	for i, p := range w.posts {
		if p.Stays != "" || i == 1 && p.Shared != "" {
			continue
		}
		role := "latch post"
		if p.Hung {
			role = "hinge post"
		}
		if w.gate.Kind == job.SlideGate {
			role = "guide post"
		}
		if p.Stock != nil {
			add(p.ID, ", ", role, ": ", w.out.Post, " × ", *p.Stock, ".")
		} else {
			add(p.ID, ", ", role, ": ", w.out.Post, " × at least ", p.Needed, ", longer than any stock.")
		}
		if p.Card >= 0 {
			if c := w.m.Cards[p.Card]; c.Core > 0 {
				add(p.ID, ": a steel core, ", c.Core, ", down to the foot.")
			} else if w.m.Spec.PostOf(p.Kind).Hollow && p.Hung && w.m.Spec.PostOf(p.Kind).Shape == job.SquarePost {
				add(p.ID, " is hollow: a steel core in it takes the hinges.")
			}
		}
	}
}

// wait says how long the hinge post is left alone, and what makes it longer.
func (w *planner) wait() reason.Text {
	heavy := length.Mass(0)
	how := ""
	for _, l := range w.out.Leaves {
		heavy = max(heavy, l.Mass)
		if p := w.post(l.End); p.Card >= 0 {
			how = w.m.Cards[p.Card].Method.Told().Waits
		}
	}
	if how == "" {
		return reason.Say("The posts stand already: rock them by hand before anything hangs on them.")
	}
	says := reason.Say("Leave the posts alone before a leaf hangs on them: ", how, ".")
	if heavy >= w.m.Cat.Passage.Heavy {
		says = append(says, reason.Say(" With a leaf of ", w.m.Job.Units.Weight(heavy), " a week: concrete has most of its strength then.")...)
	}
	return says
}

// steps is how the gate is hung, in order.
func (w *planner) steps() {
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
func (w *planner) hangSteps(l *GateLeaf, add func(...any)) {
	if len(l.Hinges) == 0 {
		return
	}
	parts := []any{"On ", l.Post, " mark "}
	for i, h := range l.Hinges {
		if i > 0 {
			parts = append(parts, ", ")
		}
		parts = append(parts, stage.Lower(h.Name), " ", h.Above, " above ground", markSays(h.FromMark))
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
func (w *planner) after() {
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

func label(g Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}
