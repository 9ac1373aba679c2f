package plan

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

// hinges asks whether two hinges fit on the leaf.
func (w *gateJudge) hinges() {
	for _, l := range w.out.Leaves {
		if l.Spacing > 0 {
			continue
		}
		in := w.m.job.Units.Round(l.Height / 5)
		var remedies []finding.Remedy
		if l.Height-2*in >= leastSpacing {
			remedies = append(remedies, finding.Remedy{Says: reason.Say("Hinges ", in, " from top and bottom"), Edits: []job.Edit{w.set("hingeIn", in)}})
		}
		w.find("hinges", finding.Cannot, reason.Say("A leaf ", l.Height, " high has no room for hinges ", w.g.HingeIn, " from its top and bottom."), remedies...)
		return
	}
}

// meets says at which angle a leaf that is to open further meets its post.
func (w *gateJudge) meets() {
	if len(w.out.Leaves) == 0 || w.g.OpensTo() <= w.out.Meets {
		return
	}
	stop := math.Floor(w.out.Meets)
	f := []finding.Remedy{}
	if stop >= 30 {
		f = append(f, finding.Remedy{Says: reason.Say("A stop at ", stop, "°"), Edits: []job.Edit{w.set("open", stop)}})
	}
	w.find("leaf-meets-post", finding.Check, reason.Say(w.name(), " is to open ", w.g.OpensTo(), "°. With these hinges a leaf ", w.g.Thick, " thick meets its post at ", stop, "°: they do not let it lie back against the fence. Hinges on the post's face, with their pins out from it, do."), f...)
}

// latch asks whether the latch is on the leaf.
func (w *gateJudge) latch() {
	t := w.out.Latch
	if t == nil || t.OnLeaf > length.Tolerance && t.OnLeaf < w.out.Leaf-length.Tolerance {
		return
	}
	above := w.m.job.Units.Round(t.Above - t.OnLeaf + w.out.Leaf*2/3)
	w.find("latch-off-leaf", finding.Check, reason.Say("A latch ", w.g.Latch, " above ground is not on the leaf of ", w.name(), ", which is ", w.out.Leaf, " high over a gap of ", w.out.Bottom-w.out.Highest, "."),
		finding.Remedy{Says: reason.Say("Latch at ", above), Edits: []job.Edit{w.set("latch", above)}})
}

// pull asks whether the hinge posts' footings bear the leaf's weight with room
// to spare, and tries what helps.
func (w *gateJudge) pull() {
	m, most := w.m, w.m.cat.Passage.Share
	for _, l := range w.out.Leaves {
		i := slices.IndexFunc(m.out.Posts, func(p Post) bool { return p.ID == l.Post })
		p := &m.out.Posts[i]
		if p.Wind == nil || p.Wind.Leaf == nil || p.Wind.Leaf.Share <= most {
			continue
		}
		share := func(x float64) string { return fmt.Sprintf("%.0f %%", 100*x) }
		says := reason.Say("The leaf on ", l.Post, " takes ", share(p.Wind.Leaf.Share), " of what its footing is counted to bear, by its weight alone; over ", share(most), " posts are found to lean in time.")
		w.find("hinge-post", finding.Check, says, w.firmer(i, most)...)
		return
	}
}

// firmer offers a deeper and a wider hole for hinge posts, as much as brings a
// leaf's share under a limit.
func (w *gateJudge) firmer(i int, most float64) []finding.Remedy {
	m := w.m
	p := &m.out.Posts[i]
	d := &m.ditches[p.Card]
	if d.sized.driven || d.sized.depth.ByHand || p.Stopped != nil {
		return nil
	}
	var out []finding.Remedy
	step := deeperInches
	if m.job.Units.System == length.Metric {
		step = deeperMetric
	}
	rules, st := d.sized.rules, m.stand(i, d)
	for k := 1; k <= 6; k++ {
		extra := rules.Hole.HingeExtraDepth + step*length.Length(k)
		deep := p.Bottom + step*length.Length(k)
		if s := st.share(girth(d, p.HoleWidth, deep), deep-d.sized.held()); s <= most && extra <= 1500 {
			out = append(out, finding.Remedy{Says: reason.Say("Hinge posts ", extra, " deeper than latch posts: ", fmt.Sprintf("%.0f %%", 100*s)),
				Edits: []job.Edit{m.ruleEdit(rules, "hole/hingeExtraDepth", extra)}})
			break
		}
	}
	return out
}

// hardware asks whether hinges are for so heavy a leaf.
func (w *gateJudge) hardware() {
	h, ok := w.m.cat.HardwareOf(w.g.Hardware.Kind)
	if !ok {
		return
	}
	if post := w.m.run.PostOf(job.GatePost); len(w.out.Leaves) > 0 && !h.Goes(post) {
		names := map[materials.HungOn]string{materials.OnSolid: "a solid post", materials.OnSquare: "a hollow square post", materials.OnRound: "pipe"}
		var remedies []finding.Remedy
		for _, other := range w.m.cat.Hardware {
			g := w.g
			if g.Hardware = other.Takes; other.System == h.System && other.Goes(post) && other.Most >= w.out.Leaves[0].Mass && w.fits(g) {
				remedies = append(remedies, finding.Remedy{Says: reason.Say("Take ", lower(other.Name)), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find("hardware-post", finding.Check, reason.Say(h.Name, " do not go on ", names[materials.Hinge(post)], ", which the posts of ", w.name(), " are."), remedies...)
		return
	}
	for _, l := range w.out.Leaves {
		if l.Mass <= h.Most {
			continue
		}
		var remedies []finding.Remedy
		for _, other := range w.m.cat.Hardware {
			g := w.g
			if g.Hardware = other.Takes; other.System == h.System && other.Most >= l.Mass && other.Goes(w.m.run.PostOf(job.GatePost)) && w.fits(g) {
				remedies = append(remedies, finding.Remedy{Says: reason.Say("Take ", lower(other.Name)), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find("hardware-weak", finding.Check, reason.Say("A leaf of ", l.Mass, " is over what ", lower(h.Name), " are usually hung with, ", h.Most, "."), remedies...)
		return
	}
}

// sag says when the bolts have not enough thread.
func (w *gateJudge) sag() {
	for _, l := range w.out.Leaves {
		if l.Adjust != nil && !l.Adjust.Enough {
			w.find("tip-drop", finding.Check, append(reason.Say(w.name(), " has dropped ", l.Adjust.Drop, " at its tip. "), l.Adjust.Says...))
			return
		}
	}
}
