package plan

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

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
