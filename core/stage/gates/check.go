package gates

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/dig"
	"mallow/core/stage/slope"
	"mallow/core/words"
)

// gatesCheck looks at a run's gates.
type check struct {
	*Gates
	*stage.Checking
}

// check says what is to be said of the run's gates.
func (m *Gates) Check(c *stage.Checking) {
	w := check{m, c}
	w.leaves()
	w.gates()
}

// leastLeaf is the lowest leaf that is still a gate.
const leastLeaf = 300 * length.Millimetre

func (m *check) leaves() {
	for _, g := range m.Made {
		if g.Leaf < leastLeaf {
			m.Find(finding.Finding{Rule: codeLeaf, Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Gate: g.ID},
				Says: words.Say("gates.leaf", words.V{"leaf": g.Leaf, "label": label(g)})})
		}
	}
}

// pool asks what barriers round water are usually held to.
func (w *judge) pool() {
	if !w.g.Pool {
		return
	}
	p := w.m.Cat.Passage
	if w.out.Kind == job.SwingGate && w.out.Swing != job.SwingOut {
		w.find(codePoolSwing, finding.Check, words.Say("gates.a-gate-in-a-pool", words.V{"name": w.name(), "swing": string(w.out.Swing)}),
			finding.Remedy{Says: words.Say("gates.swing-it-out"), Edits: []job.Edit{w.set("swing", job.SwingOut)}})
	}
	if t := w.out.Latch; t != nil && t.Above < p.PoolLatch-length.Tolerance {
		high := finding.Remedy{Says: words.Say("gates.latch-at", words.V{"poolLatch": p.PoolLatch}), Edits: []job.Edit{w.set("latch", p.PoolLatch)}}
		says := words.Say("gates.codes-usually-ask-for-a", words.V{"poolLatch": p.PoolLatch, "name": w.name(), "above": t.Above})
		if t.OnLeaf-t.Above+p.PoolLatch >= w.out.Leaf {
			w.find(codePoolLatch, finding.Check, append(says, words.Say("gates.the-leaf-is-not-that")...))
		} else {
			w.find(codePoolLatch, finding.Check, says, high)
		}
	}
	if under := w.out.Bottom - w.out.Highest; under > p.PoolGap+length.Tolerance {
		g := w.g
		g.Gap = p.PoolGap
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance || w.g.Kind == job.SlideGate {
			remedies = append(remedies, finding.Remedy{Says: words.Say("gates.a-gap-of", words.V{"poolGap": p.PoolGap}), Edits: []job.Edit{w.set("gap", p.PoolGap)}})
		}
		w.find(codePoolGap, finding.Check, words.Say("gates.codes-usually-allow-no-more", words.V{"poolGap": p.PoolGap, "name": w.name(), "under": under}), remedies...)
	}
}

// animals asks what keeps animals in.
func (w *judge) animals() {
	p := w.m.Cat.Passage
	if under := w.out.Bottom - w.out.Highest; w.g.Animals && under > p.Creeping+length.Tolerance {
		g := w.g
		g.Gap = p.Creeping
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance {
			remedies = append(remedies, finding.Remedy{Says: words.Say("gates.a-gap-of-2", words.V{"creeping": p.Creeping}), Edits: []job.Edit{w.set("gap", p.Creeping)}})
		}
		w.find(codeAnimalsGap, finding.Note, words.Say("gates.small-animals-get-through-a", words.V{"creeping": p.Creeping, "name": w.name(), "under": under}), remedies...)
	}
}

// gateJudge looks at one finished gate.
type judge struct {
	m   *check
	g   job.Gate
	out *Gate
}

// gates looks at every gate: what its leaves strike, who gets through,
// what its posts bear.
func (m *check) gates() {
	for i := range m.Made {
		w := judge{m, m.Spec.Gates[m.Made[i].index], &m.Made[i]}
		w.swing()
		w.unmeasured()
		w.room()
		w.road()
		w.passage()
		w.runBack()
		w.hinges()
		w.oldHinges()
		w.meets()
		w.latch()
		w.pull()
		w.hardware()
		w.sag()
		w.pool()
		w.animals()
	}
}

func (w *judge) find(rule string, severity finding.Severity, says reason.Text, remedies ...finding.Remedy) {
	w.m.Find(finding.Finding{Rule: rule, Stage: finding.Gates, Severity: severity, Place: finding.Place{Gate: w.out.ID}, Says: says}, func(a *stage.Advising) []finding.Remedy { return remedies })
}

func (w *judge) name() string { return label(*w.out) }

func (w *judge) set(field string, value any) job.Edit {
	return job.Set(w.out.Path+"/"+field, value)
}

// fits tells whether a changed gate fits on the run.
func (w *judge) fits(g job.Gate) bool {
	run := w.m.Spec
	run.Gates = slices.Clone(run.Gates)
	run.Gates[w.out.index] = g
	return len(document.CheckRun("", run, w.m.Job.Units)) == 0
}

// up is a length rounded up to the tape's mark.
func (w *judge) up(l length.Length) length.Length { return w.m.Up(l) }

// swing says where a leaf strikes the ground, and what would clear it.
func (w *judge) swing() {
	if w.g.Cut || len(w.out.Leaves) == 0 {
		return
	}
	var worst *LeafSide
	var leaf *GateLeaf
	for i := range w.out.Leaves {
		for k := range w.out.Leaves[i].Sides {
			if s := &w.out.Leaves[i].Sides[k]; worst == nil || s.Gap < worst.Gap {
				worst, leaf = s, &w.out.Leaves[i]
			}
		}
	}
	short := worst.Wanted - worst.Gap
	if short <= length.Tolerance {
		return
	}
	severity, says := finding.Check, words.Say("gates.swung-of-clears-the-ground", words.V{"side": string(worst.Side), "leafName": leafName(w.out, *leaf), "name": w.name(), "gap": worst.Gap, "angle": math.Round(worst.Angle), "out": worst.Out, "wanted": worst.Wanted})
	if worst.Gap < -length.Tolerance {
		severity = finding.Cannot
		says = words.Say("gates.swung-of-strikes-the-ground", words.V{"side": string(worst.Side), "leafName": leafName(w.out, *leaf), "name": w.name()})
		if worst.Touch != nil {
			says = append(says, words.Say("gates.at", words.V{"touch": math.Round(*worst.Touch)})...)
		}
		says = append(says, words.Say("gates.too-high-open-from-its", words.V{"gap": -worst.Gap, "angle": math.Round(worst.Angle), "out": worst.Out})...)
	}
	w.find(codeLeafStrikes, severity, says, w.clearing(short)...)
}

// unmeasured says where a leaf reaches past the ground that was measured.
func (w *judge) unmeasured() {
	if len(w.out.Leaves) == 0 {
		return
	}
	reach := w.m.standsOff(w.g)
	for _, side := range w.g.Swing.Sides() {
		levels := w.g.In
		if side == job.SwingOut {
			levels = w.g.Out
		}
		switch {
		case len(levels) == 0 && w.out.Use == job.VehicleGate:
			w.find(codeSwingUnmeasured, finding.Note, words.Say("gates.how-does-the-ground-lie", words.V{"name": w.name(), "side": string(side), "up": w.up(reach)}))
		case len(levels) > 0 && levels[len(levels)-1].Off < reach-100:
			w.find(codeSwingUnmeasured, finding.Note, words.Say("gates.the-ground-beside-was-measured", words.V{"name": w.name(), "off": levels[len(levels)-1].Off, "reach": reach}))
		}
	}
}

// hinges asks whether two hinges fit on the leaf.
func (w *judge) hinges() {
	for _, l := range w.out.Leaves {
		if l.Spacing > 0 {
			continue
		}
		in := w.m.Job.Units.Round(l.Height / 5)
		var remedies []finding.Remedy
		if l.Height-2*in >= leastSpacing {
			remedies = append(remedies, finding.Remedy{Says: words.Say("gates.hinges-from-top-and-bottom", words.V{"in": in}), Edits: []job.Edit{w.set("hingeIn", in)}})
		}
		w.find(codeHinges, finding.Cannot, words.Say("gates.a-leaf-high-has-no", words.V{"height": l.Height, "hingeIn": w.g.HingeIn}), remedies...)
		return
	}
}

// oldHinges says which old hinges are not on the leaf that hangs there: it is hung
// by the gate's own rule then, and the old holes are plugged.
func (w *judge) oldHinges() {
	maker := w.m.maker(w.out, slices.IndexFunc(w.m.Bays, func(b slope.Bay) bool { return b.Gate == w.g.ID }))
	for k := range w.out.Leaves {
		l := &w.out.Leaves[k]
		low, high, ok := maker.onOld(maker.post(l.End))
		if !ok || l.Given {
			continue
		}
		remedies := []finding.Remedy{}
		if gap := w.g.Gap + low; low < 0 && gap >= w.g.Least { // a leaf hung lower has its bottom under the hinge
			remedies = append(remedies, finding.Remedy{Says: words.Say("gates.leaf-down-to-the-hinge", words.V{"gap": gap}), Edits: []job.Edit{w.set("gap", gap)}})
		}
		w.find(codeOldHinges, finding.Check, words.Say("gates.old-hinges", words.V{"post": l.Post, "low": low, "high": high, "height": l.Height}), remedies...)
		return
	}
}

// meets says at which angle a leaf that is to open further meets its post.
func (w *judge) meets() {
	if len(w.out.Leaves) == 0 || w.g.OpensTo() <= w.out.Meets {
		return
	}
	stop := math.Floor(w.out.Meets)
	f := []finding.Remedy{}
	if stop >= 30 {
		f = append(f, finding.Remedy{Says: words.Say("gates.a-stop-at", words.V{"stop": stop}), Edits: []job.Edit{w.set("open", stop)}})
	}
	w.find(codeLeafMeetsPost, finding.Check, words.Say("gates.is-to-open-with-these", words.V{"name": w.name(), "opensTo": w.g.OpensTo(), "thick": w.g.Thick, "stop": stop}), f...)
}

// latch asks whether the latch is on the leaf.
func (w *judge) latch() {
	t := w.out.Latch
	if t == nil || t.OnLeaf > length.Tolerance && t.OnLeaf < w.out.Leaf-length.Tolerance {
		return
	}
	above := w.m.Job.Units.Round(t.Above - t.OnLeaf + w.out.Leaf*2/3)
	w.find(codeLatchOffLeaf, finding.Check, words.Say("gates.a-latch-above-ground-is", words.V{"latch": w.g.Latch, "name": w.name(), "leaf": w.out.Leaf, "bottom": w.out.Bottom - w.out.Highest}),
		finding.Remedy{Says: words.Say("gates.latch-at-2", words.V{"above": above}), Edits: []job.Edit{w.set("latch", above)}})
}

// pull asks whether the hinge posts' footings bear the leaf's weight with room
// to spare, and tries what helps.
func (w *judge) pull() {
	m, most := w.m, w.m.Cat.Passage.Share
	for _, l := range w.out.Leaves {
		i := slices.IndexFunc(m.Posts, func(p dig.Post) bool { return p.Label == l.Post })
		p := &m.Posts[i]
		if p.Wind == nil || p.Wind.Leaf == nil || p.Wind.Leaf.Share <= most {
			continue
		}
		share := func(x float64) string { return fmt.Sprintf("%.0f %%", 100*x) }
		says := words.Say("gates.the-leaf-on-takes-of", words.V{"post": l.Post, "share": share(p.Wind.Leaf.Share), "most": share(most)})
		w.find(codeHingePost, finding.Check, says, w.firmer(i, most)...)
		return
	}
}

// hardware asks whether hinges are for so heavy a leaf.
func (w *judge) hardware() {
	h, ok := w.m.Cat.HardwareOf(w.g.Hardware.Kind)
	if !ok {
		return
	}
	if post := w.m.Spec.PostOf(job.GatePost); len(w.out.Leaves) > 0 && !h.Goes(post) {
		names := map[materials.HungOn]string{materials.OnSolid: words.Plain("gates.a-solid-post"), materials.OnSquare: words.Plain("gates.a-hollow-square-post"), materials.OnRound: "pipe"}
		var remedies []finding.Remedy
		for _, other := range w.m.Cat.Hardware {
			g := w.g
			if g.Hardware = other.Takes; other.System == h.System && other.Goes(post) && other.Most >= w.out.Leaves[0].Mass && w.fits(g) {
				remedies = append(remedies, finding.Remedy{Says: words.Say("gates.take", words.V{"name": stage.Lower(other.Name)}), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find(codeHardwarePost, finding.Check, words.Say("gates.do-not-go-on-which", words.V{"hardware": h.Name, "section": names[materials.Hinge(post)], "run": w.name()}), remedies...)
		return
	}
	for _, l := range w.out.Leaves {
		if l.Mass <= h.Most {
			continue
		}
		var remedies []finding.Remedy
		for _, other := range w.m.Cat.Hardware {
			g := w.g
			if g.Hardware = other.Takes; other.System == h.System && other.Most >= l.Mass && other.Goes(w.m.Spec.PostOf(job.GatePost)) && w.fits(g) {
				remedies = append(remedies, finding.Remedy{Says: words.Say("gates.take", words.V{"name": stage.Lower(other.Name)}), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find(codeHardwareWeak, finding.Check, words.Say("gates.a-leaf-of-is-over", words.V{"mass": l.Mass, "name": stage.Lower(h.Name), "most": h.Most}), remedies...)
		return
	}
}

// sag says when the bolts have not enough thread.
func (w *judge) sag() {
	for _, l := range w.out.Leaves {
		if l.Adjust != nil && !l.Adjust.Enough {
			w.find(codeTipDrop, finding.Check, append(words.Say("gates.has-dropped-at-its-tip", words.V{"name": w.name(), "drop": l.Adjust.Drop}), adjustSays(*l.Adjust, w.g.Hardware)...))
			return
		}
	}
}

// room keeps an open leaf clear of a wall inside.
func (w *judge) room() {
	reach := w.m.standsOff(w.g)
	if w.g.RoomIn <= 0 || reach <= w.g.RoomIn+length.Tolerance || !slices.Contains(w.g.Swing.Sides(), job.SwingIn) {
		return
	}
	w.find(codeGateRoom, finding.Cannot, words.Say("gates.swung-in-stands-off-the", words.V{"name": w.name(), "reach": reach, "roomIn": w.g.RoomIn}), w.shorter(func(g job.Gate) bool {
		return !slices.Contains(g.Swing.Sides(), job.SwingIn) || w.m.standsOff(g) <= g.RoomIn+length.Tolerance
	})...)
}

// road keeps leaves off the road, and vehicles that wait for them.
func (w *judge) road() {
	out := w.m.swingsOut(w.g)
	if w.g.Road > 0 && out > w.g.Road+length.Tolerance {
		w.find(codeGateIntoRoad, finding.Cannot, words.Say("gates.swung-out-stands-past-the", words.V{"name": w.name(), "out": out - w.g.Road}), w.shorter(func(g job.Gate) bool {
			return w.m.swingsOut(g) <= g.Road+length.Tolerance
		})...)
	}
	back := w.out.SetBack
	switch {
	case back == nil:
		return
	case back.Road == 0:
		w.find(codeRoadUnmeasured, finding.Note, words.Say("gates.how-far-is-it-from", words.V{"name": w.name(), "needed": back.Needed}))
	case back.Needed > back.Road+length.Tolerance:
		v := *w.g.Vehicle
		w.find(codeSetBack, finding.Check, words.Say("gates.set-back", words.V{"length": v.Length, "trailer": trailer(v), "over": back.Needed - back.Road, "name": w.name(), "needed": back.Needed, "road": back.Road}),
			w.shorter(func(g job.Gate) bool {
				return gate.SetBack(v.Length, v.Trailer, w.m.swingsOut(g)) <= back.Road+length.Tolerance
			})...)
	}
}

func trailer(v job.Vehicle) any {
	if v.Trailer > 0 {
		return words.Say("gates.with-a-trailer-of", words.V{"trailer": v.Trailer})
	}
	return ""
}

// passage asks whether what goes through gets through.
func (w *judge) passage() {
	p := w.m.Cat.Passage
	need, says := length.Length(0), reason.Text{}
	switch {
	case w.g.Vehicle != nil && w.g.Vehicle.Width > 0:
		need = w.g.Vehicle.Width + 2*p.Beside
		says = words.Say("gates.is-clear-what-is-wide", words.V{"name": w.name(), "clear": w.out.Clear, "width": w.g.Vehicle.Width, "need": need, "beside": p.Beside})
	case w.out.Use == job.VehicleGate:
		need = p.Clear
		says = words.Say("gates.is-clear-10-to-12", words.V{"name": w.name(), "clear": w.out.Clear})
	}
	if w.out.Clear >= need-length.Tolerance {
		return
	}
	g := w.g
	g.Clear, g.Leaf, g.Second, g.Leaves = &need, nil, nil, g.LeafCount()
	var remedies []finding.Remedy
	if w.fits(g) {
		remedies = append(remedies, finding.Remedy{Says: words.Say("gates.clear-between-the-posts", words.V{"need": need, "inside": g.Inside()}),
			Edits: []job.Edit{w.set("clear", need), w.set("leaf", nil), w.set("second", nil), w.set("leaves", g.Leaves)}})
	}
	w.find(codeGateNarrow, finding.Check, says, remedies...)
}

// runBack keeps a sliding leaf's way clear.
func (w *judge) runBack() {
	r := w.out.RunBack
	if r == nil {
		return
	}
	m := w.m
	other := w.g
	other.Slides = job.SecondPost
	if w.g.Slides != job.FirstPost {
		other.Slides = job.FirstPost
	}
	turn := finding.Remedy{Says: words.Say("gates.let-it-run-back-past"), Edits: []job.Edit{w.set("slides", other.Slides)}}
	roomThere := w.out.At + w.out.Opening/2
	if other.Slides == job.SecondPost {
		roomThere = m.Ground.Length - (w.out.At - w.out.Opening/2)
	}
	// Its way past the other post begins at that post's near face.
	roomThere -= w.out.Opening
	var remedies []finding.Remedy
	if roomThere >= r.Past-length.Tolerance {
		remedies = []finding.Remedy{turn}
	}
	if r.Room < r.Past-length.Tolerance {
		w.find(codeRunBack, finding.Cannot, words.Say("gates.open-runs-back-past-and", words.V{"name": w.name(), "past": r.Past, "post": r.Post, "room": r.Room}), remedies...)
	}
	for _, o := range m.Made {
		if o.ID != w.out.ID && o.At+o.Opening/2 > r.From && o.At-o.Opening/2 < r.To {
			w.find(codeRunBack, finding.Cannot, words.Say("gates.open-stands-before", words.V{"name": w.name(), "label": label(o)}), remedies...)
		}
	}
	if want := wanted(w.g); r.Gap < want-length.Tolerance {
		more := w.up(w.g.Gap + want - r.Gap)
		g := w.g
		g.Gap = more
		list := slices.Clone(remedies)
		if w.fits(g) && w.out.Leaf-(more-w.g.Gap) >= leastLeaf {
			list = append(list, finding.Remedy{Says: words.Say("gates.a-gap-of-under-the-2", words.V{"more": more}), Edits: []job.Edit{w.set("gap", more)}})
		}
		w.find(codeRunBackGround, finding.Cannot, words.Say("gates.the-ground-at-leaves-under", words.V{"at": r.At, "gap": r.Gap, "name": w.name(), "want": want}), list...)
	}
}
