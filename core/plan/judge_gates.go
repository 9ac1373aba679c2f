package plan

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// gateJudge looks at one finished gate.
type gateJudge struct {
	m   *maker
	g   job.Gate
	out *Gate
}

// judgeGates looks at every gate: what its leaves strike, who gets through,
// what its posts bear.
func (m *maker) judgeGates() {
	for i := range m.out.Gates {
		w := gateJudge{m, m.run.Gates[m.out.Gates[i].index], &m.out.Gates[i]}
		w.swing()
		w.unmeasured()
		w.room()
		w.road()
		w.passage()
		w.runBack()
		w.hinges()
		w.latch()
		w.pull()
		w.hardware()
		w.sag()
		w.pool()
		w.animals()
	}
}

func (w *gateJudge) find(rule string, severity finding.Severity, says reason.Text, remedies ...finding.Remedy) {
	w.m.find(finding.Finding{Rule: rule, Stage: finding.Gates, Severity: severity, Place: finding.Place{Gate: w.out.ID}, Says: says, Remedies: remedies})
}

func (w *gateJudge) name() string { return label(*w.out) }

func (w *gateJudge) set(field string, value any) job.Edit {
	return job.Set(w.out.Path+"/"+field, value)
}

// fits tells whether a changed gate fits on the run.
func (w *gateJudge) fits(g job.Gate) bool {
	run := w.m.run
	run.Gates = slices.Clone(run.Gates)
	run.Gates[w.out.index] = g
	return len(job.CheckRun("", run, w.m.job.Units)) == 0
}

// up is a length rounded up to the tape's mark.
func (w *gateJudge) up(l length.Length) length.Length {
	mark := w.m.job.Units.SmallestMark
	return mark * length.Length(math.Ceil(float64((l-length.Tolerance)/mark)))
}

// swing says where a leaf strikes the ground, and what would clear it.
func (w *gateJudge) swing() {
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
	w.find("leaf-strikes", severity, says, w.clearing(short)...)
}

// clearing are the ways that let a leaf clear the ground, each worked out.
func (w *gateJudge) clearing(short length.Length) []finding.Remedy {
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
			offer(reason.Say("Swing it ", string(side), ": ", gap, " left"), g, w.set("swing", side))
		}
	}
	if w.g.LeafCount() == 1 {
		g, edits := w.twoLeaves()
		if gap, ok := clears(g); ok {
			offer(reason.Say("Two leaves of ", g.LeafWidths()[0], ": ", gap, " left"), g, edits...)
		} else if gap > want-short+length.Tolerance {
			more := w.up(g.Gap + want - gap)
			g.Gap = more
			offer(reason.Say("Two leaves of ", g.LeafWidths()[0], ", and ", more, " of gap"), g, append(edits, w.set("gap", more))...)
		}
	}
	g := w.g
	g.Gap = w.up(g.Gap + short)
	if w.out.Leaf-(g.Gap-w.g.Gap) >= leastLeaf && g.Gap <= 1500 {
		offer(reason.Say("A gap of ", g.Gap, " under the closed leaf, which gets ", w.out.Leaf-(g.Gap-w.g.Gap), " high"), g, w.set("gap", g.Gap))
	}
	if lift, ok := w.rising(); ok {
		g := w.g
		g.Lift = lift
		offer(reason.Say("Rising hinges that lift it ", lift, " by the time it is square open"), g, w.set("lift", lift))
	}
	deep, earth := w.toCut()
	g = w.g
	g.Cut = true
	offer(reason.Say("Cut the ground in its way by up to ", deep, ", ", earth), g, w.set("cut", true))
	return out
}

// twoLeaves is the gate with two leaves for its one, in the same opening.
func (w *gateJudge) twoLeaves() (job.Gate, []job.Edit) {
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
func (w *gateJudge) rising() (length.Length, bool) {
	m, most, lift := w.m, w.m.cat.Passage.LiftMost, length.Length(0)
	for _, l := range gate.Leaves(m.run, w.g, w.out.Bottom) {
		for _, side := range w.g.Swing.Sides() {
			need, ok := gate.Rising(l, gate.OnSide(m.profile, m.run, w.g, side), wanted(w.g), most)
			if !ok {
				return 0, false
			}
			lift = max(lift, need)
		}
	}
	lift = w.up(lift)
	return lift, lift <= most
}

// toCut is the ground that stands in the leaves' way.
func (w *gateJudge) toCut() (deep length.Length, earth length.Volume) {
	for _, l := range w.out.Leaves {
		for _, s := range l.Sides {
			deep, earth = max(deep, s.Cut), earth+s.Earth
		}
	}
	return deep, earth
}

// unmeasured says where a leaf reaches past the ground that was measured.
func (w *gateJudge) unmeasured() {
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
			w.find("swing-unmeasured", finding.Note, reason.Say("How does the ground lie where ", w.name(), " swings ", string(side), "? Without heights it is taken as on the line. Measure it out to ", w.up(reach), "."))
		case len(levels) > 0 && levels[len(levels)-1].Off < reach-100:
			w.find("swing-unmeasured", finding.Note, reason.Say("The ground beside ", w.name(), " was measured ", levels[len(levels)-1].Off, " out; its leaf reaches ", reach, ". Beyond, it is taken to rise on as it rose, and not to fall."))
		}
	}
}

// room keeps an open leaf clear of a wall inside.
func (w *gateJudge) room() {
	reach := w.m.standsOff(w.g)
	if w.g.RoomIn <= 0 || reach <= w.g.RoomIn+length.Tolerance || !slices.Contains(w.g.Swing.Sides(), job.SwingIn) {
		return
	}
	w.find("gate-room", finding.Cannot, reason.Say("Swung in, ", w.name(), " stands ", reach, " off the line, and there are ", w.g.RoomIn, " to whatever stands there."), w.shorter(func(g job.Gate) bool {
		return !slices.Contains(g.Swing.Sides(), job.SwingIn) || w.m.standsOff(g) <= g.RoomIn+length.Tolerance
	})...)
}

// shorter offers the ways that make a leaf stand less far off the line, where
// they are enough.
func (w *gateJudge) shorter(enough func(job.Gate) bool) []finding.Remedy {
	var out []finding.Remedy
	add := func(g job.Gate, says reason.Text, edits ...job.Edit) {
		if enough(g) && w.fits(g) {
			out = append(out, finding.Remedy{Says: says, Edits: edits})
		}
	}
	for _, side := range []job.Swing{job.SwingIn, job.SwingOut} {
		g := w.g
		if g.Swing = side; side != w.out.Swing {
			add(g, reason.Say("Swing it ", string(side)), w.set("swing", side))
		}
	}
	if w.g.Kind != job.SlideGate && w.g.LeafCount() == 1 {
		g, edits := w.twoLeaves()
		add(g, reason.Say("Two leaves of ", g.LeafWidths()[0]), edits...)
	}
	return out
}

// road keeps leaves off the road, and vehicles that wait for them.
func (w *gateJudge) road() {
	out := w.m.swingsOut(w.g)
	if w.g.Road > 0 && out > w.g.Road+length.Tolerance {
		w.find("gate-into-road", finding.Cannot, reason.Say("Swung out, ", w.name(), " stands ", out-w.g.Road, " past the kerb."), w.shorter(func(g job.Gate) bool {
			return w.m.swingsOut(g) <= g.Road+length.Tolerance
		})...)
	}
	back := w.out.SetBack
	switch {
	case back == nil:
		return
	case back.Road == 0:
		w.find("road-unmeasured", finding.Note, reason.Say("How far is it from the line out to the road at ", w.name(), "? A vehicle needs ", back.Needed, " to stand clear of it while the gate is opened."))
	case back.Needed > back.Road+length.Tolerance:
		v := *w.g.Vehicle
		w.find("set-back", finding.Check, reason.Say("A vehicle of ", v.Length, trailer(v), " stands ", back.Needed-back.Road, " in the road while ", w.name(), " is opened: ", back.Needed, " are needed, there are ", back.Road, ". Else the line is set back, or the gate is opened before the vehicle leaves the road."),
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
func (w *gateJudge) passage() {
	p := w.m.cat.Passage
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
	w.find("gate-narrow", finding.Check, says, remedies...)
}

// runBack keeps a sliding leaf's way clear.
func (w *gateJudge) runBack() {
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
		roomThere = m.out.Length - (w.out.At - w.out.Opening/2)
	}
	// Its way past the other post begins at that post's near face.
	roomThere -= w.out.Opening
	var remedies []finding.Remedy
	if roomThere >= r.Past-length.Tolerance {
		remedies = []finding.Remedy{turn}
	}
	if r.Room < r.Past-length.Tolerance {
		w.find("run-back", finding.Cannot, reason.Say("Open, ", w.name(), " runs back ", r.Past, " past ", r.Post, ", and there are ", r.Room, " to the run's end."), remedies...)
	}
	for _, o := range m.out.Gates {
		if o.ID != w.out.ID && o.At+o.Opening/2 > r.From && o.At-o.Opening/2 < r.To {
			w.find("run-back", finding.Cannot, reason.Say("Open, ", w.name(), " stands before ", label(o), "."), remedies...)
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
		w.find("run-back-ground", finding.Cannot, reason.Say("The ground at ", reason.Tape(r.At), " leaves ", r.Gap, " under ", w.name(), " as it runs back; ", want, " is wanted."), list...)
	}
}

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
		if s := st.share(girth(d, p.HoleWidth, deep), deep); s <= most && extra <= 1500 {
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
	for _, l := range w.out.Leaves {
		if l.Mass <= h.Most {
			continue
		}
		var remedies []finding.Remedy
		for _, other := range w.m.cat.Hardware {
			g := w.g
			if g.Hardware = other.Takes; other.System == h.System && other.Most >= l.Mass && w.fits(g) {
				remedies = append(remedies, finding.Remedy{Says: reason.Say("Take ", lower(other.Name)), Edits: []job.Edit{w.set("hardware", other.Takes)}})
			}
		}
		w.find("hardware-weak", finding.Check, reason.Say("A leaf of ", w.m.job.Units.Weight(l.Mass), " is over what ", lower(h.Name), " are usually hung with, ", w.m.job.Units.Weight(h.Most), "."), remedies...)
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

// pool asks what barriers round water are usually held to.
func (w *gateJudge) pool() {
	if !w.g.Pool {
		return
	}
	p := w.m.cat.Passage
	if w.out.Kind == job.SwingGate && w.out.Swing != job.SwingOut {
		w.find("pool-swing", finding.Check, reason.Say("A gate in a pool barrier opens away from the water: who leans on it shuts it. ", w.name(), " swings ", string(w.out.Swing), "."),
			finding.Remedy{Says: reason.Say("Swing it out"), Edits: []job.Edit{w.set("swing", job.SwingOut)}})
	}
	if t := w.out.Latch; t != nil && t.Above < p.PoolLatch-length.Tolerance {
		high := finding.Remedy{Says: reason.Say("Latch at ", p.PoolLatch), Edits: []job.Edit{w.set("latch", p.PoolLatch)}}
		says := reason.Say("Codes usually ask for a latch ", p.PoolLatch, " up, out of a small child's reach; ", w.name(), " has it at ", t.Above, ".")
		if t.OnLeaf-t.Above+p.PoolLatch >= w.out.Leaf {
			w.find("pool-latch", finding.Check, append(says, reason.Say(" The leaf is not that high: a shielded latch inside, as the local code says, or a higher gate.")...))
		} else {
			w.find("pool-latch", finding.Check, says, high)
		}
	}
	if under := w.out.Bottom - w.out.Highest; under > p.PoolGap+length.Tolerance {
		g := w.g
		g.Gap = p.PoolGap
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance || w.g.Kind == job.SlideGate {
			remedies = append(remedies, finding.Remedy{Says: reason.Say("A gap of ", p.PoolGap), Edits: []job.Edit{w.set("gap", p.PoolGap)}})
		}
		w.find("pool-gap", finding.Check, reason.Say("Codes usually allow no more than ", p.PoolGap, " under a gate in a pool barrier; ", w.name(), " has ", under, "."), remedies...)
	}
}

// animals asks what keeps animals in.
func (w *gateJudge) animals() {
	p := w.m.cat.Passage
	if under := w.out.Bottom - w.out.Highest; w.g.Animals && under > p.Creeping+length.Tolerance {
		g := w.g
		g.Gap = p.Creeping
		var remedies []finding.Remedy
		if w.m.worst(g).Gap >= wanted(g)-length.Tolerance {
			remedies = append(remedies, finding.Remedy{Says: reason.Say("A gap of ", p.Creeping), Edits: []job.Edit{w.set("gap", p.Creeping)}})
		}
		w.find("animals-gap", finding.Note, reason.Say("Small animals get through a gap of more than ", p.Creeping, "; ", w.name(), " has ", under, ". Where the leaf needs it to swing, a flap of belting closes it."), remedies...)
	}
}
