package gates

import (
	"fmt"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage/dig"
	"mallow/core/words"
)

// clearing are the ways that let a leaf clear the ground, each worked out.
func (w *judge) clearing(short length.Length) []finding.Remedy {
	var out []finding.Remedy
	m, want := w.m, wanted(w.g)
	offer := func(says reason.Text, g job.Gate, edits ...job.Edit) {
		if w.fits(g) {
			out = append(out, finding.Remedy{Says: says, Edits: edits})
		}
	}
	clears := func(g job.Gate) (length.Length, bool) {
		gap := m.worst(g).Gap
		return gap, gap >= want-length.Tolerance
	}
	for _, side := range []job.Swing{job.SwingIn, job.SwingOut} {
		g := w.g
		if g.Swing = side; side == w.out.Swing {
			continue
		}
		if gap, ok := clears(g); ok {
			offer(words.Say("gates.swing-it-left", words.V{"side": string(side), "gap": gap}), g, w.set("swing", side))
		}
	}
	if w.g.LeafCount() == 1 {
		g, edits := w.twoLeaves()
		if gap, ok := clears(g); ok {
			offer(words.Say("gates.two-leaves-of-left", words.V{"leafWidths": g.LeafWidths()[0], "gap": gap}), g, edits...)
		} else if gap > want-short+length.Tolerance {
			more := w.up(g.Gap + want - gap)
			g.Gap = more
			offer(words.Say("gates.two-leaves-of-and-of", words.V{"leafWidths": g.LeafWidths()[0], "more": more}), g, append(edits, w.set("gap", more))...)
		}
	}
	g := w.g
	g.Gap = w.up(g.Gap + short)
	if w.out.Leaf-(g.Gap-w.g.Gap) >= leastLeaf && g.Gap <= 1500 {
		offer(words.Say("gates.a-gap-of-under-the", words.V{"gap": g.Gap, "leaf": w.out.Leaf - (g.Gap - w.g.Gap)}), g, w.set("gap", g.Gap))
	}
	if lift, ok := w.rising(); ok {
		g := w.g
		g.Lift = lift
		offer(words.Say("gates.rising-hinges-that-lift-it", words.V{"lift": lift}), g, w.set("lift", lift))
	}
	deep, earth := w.toCut()
	g = w.g
	g.Cut = true
	offer(words.Say("gates.cut-the-ground-in-its", words.V{"deep": deep, "earth": earth}), g, w.set("cut", true))
	return out
}

// twoLeaves is the gate with two leaves for its one, in the same opening.
func (w *judge) twoLeaves() (job.Gate, []job.Edit) {
	g := w.g
	inside := g.Inside()
	g.Leaves, g.Second = 2, nil
	edits := []job.Edit{w.set("leaves", 2), w.set("second", nil)}
	if g.Leaf != nil {
		g.Leaf, g.Opening = nil, inside
		edits = append(edits, w.set("leaf", nil), w.set("opening", inside))
	}
	return g, edits
}

// rising is the lift that rising hinges need for all leaves and sides.
func (w *judge) rising() (length.Length, bool) {
	m, most, lift := w.m, w.m.Cat.Passage.LiftMost, length.Length(0)
	for _, l := range gate.Leaves(m.Spec, w.g, w.out.Bottom) {
		for _, side := range w.g.Swing.Sides() {
			need, ok := gate.Rising(l, gate.OnSide(m.Profile, m.Spec, w.g, side), wanted(w.g), most)
			if !ok {
				return 0, false
			}
			lift = max(lift, need)
		}
	}
	lift = max(w.up(lift), m.Job.Units.SmallestMark) // no hinges lift by less than can be measured
	return lift, lift <= most
}

// toCut is the ground that stands in the leaves' way.
func (w *judge) toCut() (deep length.Length, earth length.Volume) {
	for _, l := range w.out.Leaves {
		for _, s := range l.Sides {
			deep, earth = max(deep, s.Cut), earth+s.Earth
		}
	}
	return deep, earth
}

// firmer offers a deeper and a wider hole for hinge posts, as much as brings a
// leaf's share under a limit.
func (w *judge) firmer(i int, most float64) []finding.Remedy {
	m := w.m
	p := &m.Posts[i]
	d := &m.Designs[p.Card]
	if d.Sized.Driven || d.Sized.Depth.ByHand || p.Stopped != nil {
		return nil
	}
	var out []finding.Remedy
	step := dig.DeeperInches
	if m.Job.Units.System == length.Metric {
		step = dig.DeeperMetric
	}
	rules, st := d.Sized.Rules, m.Stand(i, d)
	for k := 1; k <= 6; k++ {
		extra := rules.Hole.HingeExtraDepth + step*length.Length(k)
		deep := p.Bottom + step*length.Length(k)
		if s := st.Share(dig.MeanWidth(d, p.HoleWidth, deep), deep-d.Sized.Held()); s <= most && extra <= 1500 {
			out = append(out, finding.Remedy{Says: words.Say("gates.hinge-posts-deeper-than-latch", words.V{"extra": extra, "share": fmt.Sprintf("%.0f %%", 100*s)}),
				Edits: []job.Edit{m.RuleEdit(rules, "hole/hingeExtraDepth", extra)}})
			break
		}
	}
	return out
}

// shorter offers the ways that make a leaf stand less far off the line, where
// they are enough.
func (w *judge) shorter(enough func(job.Gate) bool) []finding.Remedy {
	var out []finding.Remedy
	add := func(g job.Gate, says reason.Text, edits ...job.Edit) {
		if enough(g) && w.fits(g) {
			out = append(out, finding.Remedy{Says: says, Edits: edits})
		}
	}
	for _, side := range []job.Swing{job.SwingIn, job.SwingOut} {
		g := w.g
		if g.Swing = side; side != w.out.Swing {
			add(g, words.Say("gates.swing-it", words.V{"side": string(side)}), w.set("swing", side))
		}
	}
	if w.g.Kind != job.SlideGate && w.g.LeafCount() == 1 {
		g, edits := w.twoLeaves()
		add(g, words.Say("gates.two-leaves-of", words.V{"leafWidths": g.LeafWidths()[0]}), edits...)
	}
	return out
}
