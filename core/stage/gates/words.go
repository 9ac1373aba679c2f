package gates

import (
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// What marks and blocks are called.
var (
	bottomHinge = words.Plain("gates.bottom-hinge")
	middleHinge = words.Plain("gates.middle-hinge")
	topHinge    = words.Plain("gates.top-hinge")
	latchMark   = words.Plain("gates.latch")
	underHinges = words.Plain("gates.under-the-hinge-end")
	underTip    = words.Plain("gates.under-the-tip")
)

// teller says how a gate is ordered, hung and looked at.
type teller struct{ *planner }

// tell are the run's gates with what is said of them: how their posts are
// checked, how they are hung, what is ordered, what is looked at after a week.
func (m *Gates) Tell() []Gate {
	out := slices.Clone(m.Made)
	for i := range out {
		out[i].Leaves = slices.Clone(out[i].Leaves)
		w := teller{m.maker(&out[i], m.bayOf(&out[i]))}
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
func (w teller) checks() {
	low, high := w.out.Bottom, w.bay.TopStart
	w.out.Checks = []GateCheck{
		{words.Plain("gates.inside-at-the-bottom"), w.out.Opening, words.Say("gates.between-the-faces-at-the")},
		{words.Plain("gates.inside-at-the-top"), w.out.Opening, words.Say("gates.between-the-faces-at-the-2")},
	}
	diagonal := gate.Diagonal(w.out.Opening, high-low)
	for i, p := range w.posts {
		w.out.Checks = append(w.out.Checks, GateCheck{words.Plain("gates.diagonal-from-the-foot", words.V{"post": p.Label}), diagonal,
			words.Say("gates.face-to-face-up-to", words.V{"post": w.posts[1-i].Label})})
	}
}

// tellLeaf says which way a leaf's brace runs, and how its tip is lifted.
func (w teller) tellLeaf(l *GateLeaf) {
	if l.Brace != nil {
		b := *l.Brace
		switch b.Kind {
		case materials.Strut:
			b.Says = words.Say("gates.from-the-bottom-hinge-up")
		case materials.Tie:
			b.Says = words.Say("gates.from-the-top-hinge-down")
		default:
			b.Says = words.Say("gates.no-brace-the-welded-frame")
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
		return words.Say("gates.this-hinge-has-no-thread", words.V{"in": a.In})
	case !a.Enough:
		return words.Say("gates.that-asks-for-of-the", words.V{"in": a.In, "travel": hw.Travel})
	}
	return words.Say("gates.turn-the-top-hinges-bolt", words.V{"in": a.In, "turns": math.Round(a.Turns*4) / 4, "whole": int(math.Round(a.Turns*4) / 4), "drop": a.Drop})
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
	add := func(t reason.Text) { out = append(out, stage.Caution{Stage: finding.Gates, Says: t}) }
	switch {
	case leaf > 2*stage.AloneMost:
		add(words.Say("gates.a-leaf-falls-from-its"))
	case leaf > 0:
		add(words.Say("gates.a-leaf-falls-from-its-2"))
	}
	if slide {
		add(words.Say("gates.a-sliding-leaf-that-passes"))
	}
	if drive {
		add(words.Say("gates.at-a-drive-there-is"))
	}
	if pool {
		add(words.Say("gates.a-gate-in-a-pool-2"))
	}
	if animals {
		add(words.Say("gates.animals-lean-on-gates-and"))
	}
	return out
}

// hardware is the gate's set of hinges and latch, in words.
func (w teller) hardware() string {
	if h, ok := w.m.Cat.HardwareOf(w.gate.Hardware.Kind); ok {
		return stage.Lower(h.Name)
	}
	return words.Plain("gates.hinges-and-latch-of-your")
}

// order is what is ordered for the gate.
func (w teller) order() {
	add := func(t reason.Text) { w.out.Order = append(w.out.Order, GateStep{t}) }
	made := w.m.LeafMake(w.gate)
	if r := w.out.RunBack; r != nil {
		add(words.Say("gates.1-sliding-leaf-with-its", words.V{"past": r.Past, "leaf": w.out.Leaf}))
	}
	for _, l := range w.out.Leaves {
		of := words.V{"width": l.Width, "height": l.Height, "tip": l.TipHeight, "made": stage.Lower(made.Name), "mass": l.Mass, "post": l.Post,
			"level": (l.Height - l.TipHeight).Abs() <= length.Millimetre, "weighed": !l.Estimated}
		add(words.Say("gates.order-leaf", of))
	}
	if n := len(w.out.Leaves); n > 0 {
		hinges := 0
		for _, l := range w.out.Leaves {
			hinges += len(l.Hinges)
		}
		add(words.Say("gates.hinges-for-a-post-of", words.V{"hinges": hinges, "hardware": w.hardware(), "post": w.out.Post}))
		if n == 2 {
			add(words.Say("gates.1-latch-for-two-leaves"))
		} else {
			add(words.Say("gates.1-latch-with-its-catch"))
		}
		if w.gate.Lift > 0 {
			add(words.Say("gates.the-hinges-are-rising-ones", words.V{"lift": w.gate.Lift}))
		}
		add(words.Say("gates.for-the-open-leaf-with", words.V{"count": n}))
	}
	for i, p := range w.posts {
		if p.Stays != "" || i == 1 && p.Shared != "" {
			continue
		}
		role := words.Plain("gates.latch-post")
		if p.Hung {
			role = words.Plain("gates.hinge-post")
		}
		if w.gate.Kind == job.SlideGate {
			role = words.Plain("gates.guide-post")
		}
		if p.Stock != nil {
			add(words.Say("gates.order-post", words.V{"post": p.Label, "role": role, "width": w.out.Post, "stock": *p.Stock}))
		} else {
			add(words.Say("gates.at-least-longer-than-any", words.V{"post": p.Label, "role": role, "width": w.out.Post, "needed": p.Needed}))
		}
		if p.Card >= 0 {
			if c := w.m.Cards[p.Card]; c.Core > 0 {
				add(words.Say("gates.a-steel-core-down-to", words.V{"post": p.Label, "core": c.Core}))
			} else if w.m.Spec.PostOf(p.Kind).Hollow && p.Hung && w.m.Spec.PostOf(p.Kind).Shape == job.SquarePost {
				add(words.Say("gates.is-hollow-a-steel-core", words.V{"post": p.Label}))
			}
		}
	}
}

// wait says how long the hinge post is left alone, and what makes it longer.
func (w teller) wait() reason.Text {
	heavy := length.Mass(0)
	how := ""
	for _, l := range w.out.Leaves {
		heavy = max(heavy, l.Mass)
		if p := w.post(l.End); p.Card >= 0 {
			how = w.m.Cards[p.Card].Method.Told().Waits
		}
	}
	if how == "" {
		return words.Say("gates.the-posts-stand-already-rock")
	}
	says := words.Say("gates.leave-the-posts-alone-before", words.V{"how": how})
	if heavy >= w.m.Cat.Passage.Heavy {
		says = append(says, words.Say("gates.with-a-leaf-of-a", words.V{"weight": w.m.Job.Units.Weight(heavy)})...)
	}
	return says
}

// steps is how the gate is hung, in order.
func (w teller) steps() {
	add := func(t reason.Text) { w.out.Steps = append(w.out.Steps, GateStep{t}) }
	add(words.Say("gates.set-and-with-a-spreader", words.V{"first": w.posts[0].Label, "second": w.posts[1].Label, "opening": w.out.Opening, "length": w.out.Checks[2].Length}))
	w.out.Steps = append(w.out.Steps, GateStep{w.wait()})
	if w.gate.Kind == job.SlideGate {
		add(words.Say("gates.set-track-or-rollers-level", words.V{"past": w.out.RunBack.Past}))
		add(words.Say("gates.a-stop-at-either-end"))
		return
	}
	for _, l := range w.out.Leaves {
		w.hangSteps(&l, add)
	}
	if len(w.out.Leaves) == 2 {
		add(words.Say("gates.bring-the-tips-level-with", words.V{"meeting": w.gate.Hardware.Meeting}))
	}
	if t := w.out.Latch; t != nil && len(w.out.Leaves) == 1 {
		add(words.Say("gates.latch-at-above-ground-on", words.V{"above": t.Above, "post": t.Post, "markSays": markSays(t.FromMark)}))
	} else if t != nil {
		add(words.Say("gates.latch-at-above-the-ground", words.V{"above": t.Above, "post": t.Post}))
	}
	for _, l := range w.out.Leaves {
		for _, s := range l.Sides {
			where := words.Say("gates.closed")
			if s.Angle >= 0.5 {
				where = words.Say("gates.at-and-from-its-pins", words.V{"angle": math.Round(s.Angle), "out": s.Out})
			}
			add(words.Say("gates.swing-by-hand-all-of", words.V{"leafName": leafName(w.out, l), "side": string(s.Side), "open": math.Round(w.out.Open), "gap": s.Gap, "where": where, "off": s.Hold.Off, "along": s.Hold.Along, "post": l.Post}))
		}
	}
}

// hangSteps are the steps of one leaf.
func (w teller) hangSteps(l *GateLeaf, add func(reason.Text)) {
	if len(l.Hinges) == 0 {
		return
	}
	var marks reason.Text
	for i, h := range l.Hinges {
		if i > 0 {
			marks = append(marks, words.Say("gates.next-mark")...)
		}
		marks = append(marks, words.Say("gates.hinge-above-ground", words.V{"name": stage.Lower(h.Name), "above": h.Above, "mark": markSays(h.FromMark)})...)
	}
	add(words.Say("gates.mark-the-hinges", words.V{"post": l.Post, "marks": marks}))
	add(words.Say("gates.block-up-under-its-hinge", words.V{"leafName": leafName(w.out, *l), "hingeEnd": l.Blocks[0].Height, "tip": l.Blocks[1].Height, "hinge": w.gate.Hardware.Hinge}))
	add(words.Say("gates.bottom-hinge-first-its-pin"))
}

// markSays says where a mark lies from the reference mark.
func markSays(from length.Length) reason.Text {
	if from < 0 {
		return words.Say("gates.above-the-reference-mark", words.V{"from": -from})
	}
	return words.Say("gates.below-the-reference-mark", words.V{"from": from})
}

func leafName(g *Gate, l GateLeaf) string {
	if len(g.Leaves) == 1 {
		return words.Plain("gates.the-leaf")
	}
	return words.Plain("gates.the-leaf-on", words.V{"post": l.Post})
}

// after is what is looked at when the gate has hung for a week.
func (w teller) after() {
	add := func(t reason.Text) { w.out.After = append(w.out.After, GateStep{t}) }
	if w.gate.Kind == job.SlideGate {
		add(words.Say("gates.does-it-still-run-by"))
		add(words.Say("gates.are-both-posts-plumb-and"))
		return
	}
	add(words.Say("gates.tape-the-gap-at-the"))
	add(words.Say("gates.are-both-posts-plumb-tape", words.V{"opening": w.out.Opening}))
	add(words.Say("gates.nuts-and-screws-of-the"))
	add(words.Say("gates.does-the-latch-meet-its"))
	add(words.Say("gates.open-it-all-the-way"))
	add(words.Say("gates.look-at-the-ground-round", words.V{"first": w.posts[0].Label, "second": w.posts[1].Label}))
}

func label(g Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}
