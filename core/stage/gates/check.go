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
	"mallow/core/stage/dig"
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
				Says: reason.Say("Between its gap and the fence's top only ", g.Leaf, " are left for the leaf of ", label(g), ".")})
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
		w.find(codePoolSwing, finding.Check, reason.Say("A gate in a pool barrier opens away from the water: who leans on it shuts it. ", w.name(), " swings ", string(w.out.Swing), "."),
			finding.Remedy{Says: reason.Say("Swing it out"), Edits: []job.Edit{w.set("swing", job.SwingOut)}})
	}
	if t := w.out.Latch; t != nil && t.Above < p.PoolLatch-length.Tolerance {
		high := finding.Remedy{Says: reason.Say("Latch at ", p.PoolLatch), Edits: []job.Edit{w.set("latch", p.PoolLatch)}}
		says := reason.Say("Codes usually ask for a latch ", p.PoolLatch, " up, out of a small child's reach; ", w.name(), " has it at ", t.Above, ".")
		if t.OnLeaf-t.Above+p.PoolLatch >= w.out.Leaf {
			w.find(codePoolLatch, finding.Check, append(says, reason.Say(" The leaf is not that high: a shielded latch inside, as the local code says, or a higher gate.")...))
		} else {
			w.find(codePoolLatch, finding.Check, says, high)
		}
	}
	if under := w.out.Bottom - w.out.Highest; under > p.PoolGap+length.Tolerance {
		g := w.g
		g.Gap = p.PoolGap
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance || w.g.Kind == job.SlideGate {
			remedies = append(remedies, finding.Remedy{Says: reason.Say("A gap of ", p.PoolGap), Edits: []job.Edit{w.set("gap", p.PoolGap)}})
		}
		w.find(codePoolGap, finding.Check, reason.Say("Codes usually allow no more than ", p.PoolGap, " under a gate in a pool barrier; ", w.name(), " has ", under, "."), remedies...)
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
			remedies = append(remedies, finding.Remedy{Says: reason.Say("A gap of ", p.Creeping), Edits: []job.Edit{w.set("gap", p.Creeping)}})
		}
		w.find(codeAnimalsGap, finding.Note, reason.Say("Small animals get through a gap of more than ", p.Creeping, "; ", w.name(), " has ", under, ". Where the leaf needs it to swing, a flap of belting closes it."), remedies...)
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
	return len(job.CheckRun("", run, w.m.Job.Units)) == 0
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
	severity, says := finding.Check, reason.Say("Swung ", string(worst.Side), ", ", leafName(w.out, *leaf), " of ", w.name(), " clears the ground by ", worst.Gap, " only, ", math.Round(worst.Angle), "° open and ", worst.Out, " from its pins; ", worst.Wanted, " is wanted.")
	if worst.Gap < -length.Tolerance {
		severity = finding.Cannot
		says = reason.Say("Swung ", string(worst.Side), ", ", leafName(w.out, *leaf), " of ", w.name(), " strikes the ground")
		if worst.Touch != nil {
			says = append(says, reason.Say(" at ", math.Round(*worst.Touch), "°")...)
		}
		says = append(says, reason.Say(": ", -worst.Gap, " too high ", math.Round(worst.Angle), "° open, ", worst.Out, " from its pins.")...)
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
			w.find(codeSwingUnmeasured, finding.Note, reason.Say("How does the ground lie where ", w.name(), " swings ", string(side), "? Without heights it is taken as on the line. Measure it out to ", w.up(reach), "."))
		case len(levels) > 0 && levels[len(levels)-1].Off < reach-100:
			w.find(codeSwingUnmeasured, finding.Note, reason.Say("The ground beside ", w.name(), " was measured ", levels[len(levels)-1].Off, " out; its leaf reaches ", reach, ". Beyond, it is taken to rise on as it rose, and not to fall."))
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
			remedies = append(remedies, finding.Remedy{Says: reason.Say("Hinges ", in, " from top and bottom"), Edits: []job.Edit{w.set("hingeIn", in)}})
		}
		w.find(codeHinges, finding.Cannot, reason.Say("A leaf ", l.Height, " high has no room for hinges ", w.g.HingeIn, " from its top and bottom."), remedies...)
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
		f = append(f, finding.Remedy{Says: reason.Say("A stop at ", stop, "°"), Edits: []job.Edit{w.set("open", stop)}})
	}
	w.find(codeLeafMeetsPost, finding.Check, reason.Say(w.name(), " is to open ", w.g.OpensTo(), "°. With these hinges a leaf ", w.g.Thick, " thick meets its post at ", stop, "°: they do not let it lie back against the fence. Hinges on the post's face, with their pins out from it, do."), f...)
}

// latch asks whether the latch is on the leaf.
func (w *judge) latch() {
	t := w.out.Latch
	if t == nil || t.OnLeaf > length.Tolerance && t.OnLeaf < w.out.Leaf-length.Tolerance {
		return
	}
	above := w.m.Job.Units.Round(t.Above - t.OnLeaf + w.out.Leaf*2/3)
	w.find(codeLatchOffLeaf, finding.Check, reason.Say("A latch ", w.g.Latch, " above ground is not on the leaf of ", w.name(), ", which is ", w.out.Leaf, " high over a gap of ", w.out.Bottom-w.out.Highest, "."),
		finding.Remedy{Says: reason.Say("Latch at ", above), Edits: []job.Edit{w.set("latch", above)}})
}

// pull asks whether the hinge posts' footings bear the leaf's weight with room
// to spare, and tries what helps.
func (w *judge) pull() {
	m, most := w.m, w.m.Cat.Passage.Share
	for _, l := range w.out.Leaves {
		i := slices.IndexFunc(m.Posts, func(p dig.Post) bool { return p.ID == l.Post })
		p := &m.Posts[i]
		if p.Wind == nil || p.Wind.Leaf == nil || p.Wind.Leaf.Share <= most {
			continue
		}
		share := func(x float64) string { return fmt.Sprintf("%.0f %%", 100*x) }
		says := reason.Say("The leaf on ", l.Post, " takes ", share(p.Wind.Leaf.Share), " of what its footing is counted to bear, by its weight alone; over ", share(most), " posts are found to lean in time.")
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
		names := map[materials.HungOn]string{materials.OnSolid: "a solid post", materials.OnSquare: "a hollow square post", materials.OnRound: "pipe"}
		var remedies []finding.Remedy
		for _, other := range w.m.Cat.Hardware {
			g := w.g
			if g.Hardware = other.Takes; other.System == h.System && other.Goes(post) && other.Most >= w.out.Leaves[0].Mass && w.fits(g) {
				remedies = append(remedies, finding.Remedy{Says: reason.Say("Take ", stage.Lower(other.Name)), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find(codeHardwarePost, finding.Check, reason.Say(h.Name, " do not go on ", names[materials.Hinge(post)], ", which the posts of ", w.name(), " are."), remedies...)
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
				remedies = append(remedies, finding.Remedy{Says: reason.Say("Take ", stage.Lower(other.Name)), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find(codeHardwareWeak, finding.Check, reason.Say("A leaf of ", l.Mass, " is over what ", stage.Lower(h.Name), " are usually hung with, ", h.Most, "."), remedies...)
		return
	}
}

// sag says when the bolts have not enough thread.
func (w *judge) sag() {
	for _, l := range w.out.Leaves {
		if l.Adjust != nil && !l.Adjust.Enough {
			w.find(codeTipDrop, finding.Check, append(reason.Say(w.name(), " has dropped ", l.Adjust.Drop, " at its tip. "), adjustSays(*l.Adjust, w.g.Hardware)...))
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
	w.find(codeGateRoom, finding.Cannot, reason.Say("Swung in, ", w.name(), " stands ", reach, " off the line, and there are ", w.g.RoomIn, " to whatever stands there."), w.shorter(func(g job.Gate) bool {
		return !slices.Contains(g.Swing.Sides(), job.SwingIn) || w.m.standsOff(g) <= g.RoomIn+length.Tolerance
	})...)
}

// road keeps leaves off the road, and vehicles that wait for them.
func (w *judge) road() {
	out := w.m.swingsOut(w.g)
	if w.g.Road > 0 && out > w.g.Road+length.Tolerance {
		w.find(codeGateIntoRoad, finding.Cannot, reason.Say("Swung out, ", w.name(), " stands ", out-w.g.Road, " past the kerb."), w.shorter(func(g job.Gate) bool {
			return w.m.swingsOut(g) <= g.Road+length.Tolerance
		})...)
	}
	back := w.out.SetBack
	switch {
	case back == nil:
		return
	case back.Road == 0:
		w.find(codeRoadUnmeasured, finding.Note, reason.Say("How far is it from the line out to the road at ", w.name(), "? A vehicle needs ", back.Needed, " to stand clear of it while the gate is opened."))
	case back.Needed > back.Road+length.Tolerance:
		v := *w.g.Vehicle
		w.find(codeSetBack, finding.Check, reason.Say("A vehicle of ", v.Length, trailer(v), " stands ", back.Needed-back.Road, " in the road while ", w.name(), " is opened: ", back.Needed, " are needed, there are ", back.Road, ". Else the line is set back, or the gate is opened before the vehicle leaves the road."),
			w.shorter(func(g job.Gate) bool {
				return gate.SetBack(v.Length, v.Trailer, w.m.swingsOut(g)) <= back.Road+length.Tolerance
			})...)
	}
}

func trailer(v job.Vehicle) any {
	if v.Trailer > 0 {
		return reason.Say(" with a trailer of ", v.Trailer)
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
		says = reason.Say(w.name(), " is ", w.out.Clear, " clear: what is ", w.g.Vehicle.Width, " wide wants ", need, ", ", p.Beside, " on either side.")
	case w.out.Use == job.VehicleGate:
		need = p.Clear
		says = reason.Say(w.name(), " is ", w.out.Clear, " clear: 10 to 12 ft (3 to 3.6 m) is usual for machinery.")
	}
	if w.out.Clear >= need-length.Tolerance {
		return
	}
	g := w.g
	g.Clear, g.Leaf, g.Second, g.Leaves = &need, nil, nil, g.LeafCount()
	var remedies []finding.Remedy
	if w.fits(g) {
		remedies = append(remedies, finding.Remedy{Says: reason.Say(need, " clear: ", g.Inside(), " between the posts"),
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
	turn := finding.Remedy{Says: reason.Say("Let it run back past the other post"), Edits: []job.Edit{w.set("slides", other.Slides)}}
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
		w.find(codeRunBack, finding.Cannot, reason.Say("Open, ", w.name(), " runs back ", r.Past, " past ", r.Post, ", and there are ", r.Room, " to the run's end."), remedies...)
	}
	for _, o := range m.Made {
		if o.ID != w.out.ID && o.At+o.Opening/2 > r.From && o.At-o.Opening/2 < r.To {
			w.find(codeRunBack, finding.Cannot, reason.Say("Open, ", w.name(), " stands before ", label(o), "."), remedies...)
		}
	}
	if want := wanted(w.g); r.Gap < want-length.Tolerance {
		more := w.up(w.g.Gap + want - r.Gap)
		g := w.g
		g.Gap = more
		list := slices.Clone(remedies)
		if w.fits(g) && w.out.Leaf-(more-w.g.Gap) >= leastLeaf {
			list = append(list, finding.Remedy{Says: reason.Say("A gap of ", more, " under the closed leaf"), Edits: []job.Edit{w.set("gap", more)}})
		}
		w.find(codeRunBackGround, finding.Cannot, reason.Say("The ground at ", reason.Tape(r.At), " leaves ", r.Gap, " under ", w.name(), " as it runs back; ", want, " is wanted."), list...)
	}
}
