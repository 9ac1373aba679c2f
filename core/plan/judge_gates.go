package plan

import (
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
		w.meets()
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
func (w *gateJudge) up(l length.Length) length.Length { return w.m.up(l) }

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
