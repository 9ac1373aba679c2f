package plan

import (
	"fmt"
	"math"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// sweptGate is one side of a leaf's swing on the map.
type sweptGate struct {
	m    *maker
	gate *Gate
	leaf *GateLeaf
	side *LeafSide
	gate.Swept
}

// judgeSwings looks for what stands in the leaves' way on the map: posts and
// fence of other runs, and other leaves.
func judgeSwings(makers []*maker) {
	var all []sweptGate
	for _, m := range makers {
		for g := range m.out.Gates {
			for l := range m.out.Gates[g].Leaves {
				leaf := &m.out.Gates[g].Leaves[l]
				for s := range leaf.Sides {
					all = append(all, m.swept(&m.out.Gates[g], leaf, &leaf.Sides[s]))
				}
			}
		}
	}
	for i := range all {
		all[i].strikes(makers)
	}
	for i, a := range all {
		for _, b := range all[i+1:] {
			if a.gate != b.gate && math.Hypot(a.X-b.X, a.Y-b.Y) < a.Reach+b.Reach && a.Meets(b.Swept) {
				a.m.find(finding.Finding{Rule: "leaves-cross", Stage: finding.Gates, Severity: finding.Note, Place: finding.Place{Gate: a.gate.ID},
					Says: reason.Say("Open, ", label(*a.gate), " and ", label(*b.gate), " are in each other's way: one at a time, or swing one of them the other way.")})
			}
		}
	}
}

func (m *maker) swept(g *Gate, l *GateLeaf, s *LeafSide) sweptGate {
	pin := m.onMap(l.Pin, 0, s.Side)
	from := math.Atan2(float64(m.out.To.Y-m.out.From.Y), float64(m.out.To.X-m.out.From.X))
	left := m.hand(s.Side) > 0
	if !l.Ahead {
		from, left = from+math.Pi, !left
	}
	return sweptGate{m, g, l, s, gate.Swept{X: pin.X.Metres(), Y: pin.Y.Metres(), From: from, Left: left, Reach: l.Reach.Metres(), Half: l.Thick.Metres() / 2, Open: g.Open}}
}

// strikes says what of other runs stands in a leaf's way.
func (w *sweptGate) strikes(makers []*maker) {
	hit := func(what string, angle float64) {
		if w.side.Struck == nil || angle < w.side.Struck.Angle {
			w.side.Struck = &Struck{what, angle}
		}
	}
	for _, o := range makers {
		if !o.laid() || o == w.m {
			continue
		}
		w.strikesRun(o, hit)
	}
	for i := range w.m.out.Posts { // its own run's, for a leaf that opens past square
		p := &w.m.out.Posts[i]
		if p.ID == w.gate.First || p.ID == w.gate.Second || w.gate.Open <= 90 {
			continue
		}
		at := w.m.onMap(p.Station, 0, w.side.Side)
		if angle, struck := w.Round(at.X.Metres(), at.Y.Metres(), w.m.run.PostOf(p.Kind).Width.Metres()/2); struck {
			hit(p.ID, angle)
		}
	}
	s := w.side.Struck
	if s == nil {
		return
	}
	f := finding.Finding{Rule: "leaf-hits", Stage: finding.Gates, Severity: finding.Cannot, Place: finding.Place{Gate: w.gate.ID},
		Says: reason.Say("Swung ", string(w.side.Side), ", ", leafName(w.gate, *w.leaf), " of ", label(*w.gate), " strikes ", s.What, " at ", math.Round(s.Angle), "°.")}
	if stop := math.Floor(s.Angle) - 1; stop >= 30 && stop < w.gate.Open {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say(fmt.Sprintf("A stop at %.0f°", stop)), Edits: []job.Edit{job.Set(w.gate.Path+"/open", stop)}})
	}
	if w.gate.Swing != job.SwingBoth {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Swing it ", string(w.gate.Swing.Other())), Edits: []job.Edit{job.Set(w.gate.Path+"/swing", w.gate.Swing.Other())}})
	}
	if len(w.gate.Leaves) == 1 {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Hang it on the other post"), Edits: []job.Edit{job.Set(w.gate.Path+"/hinge", w.leaf.End.Other())}})
	}
	w.m.find(f)
}

func (w *sweptGate) strikesRun(o *maker, hit func(string, float64)) {
	name := o.out.Name
	if name == "" {
		name = o.out.ID
	}
	// Far runs cannot be met.
	if far := w.Reach + 1; outside(w.X, w.Y, far, o) {
		return
	}
	for i := range o.out.Posts {
		p := &o.out.Posts[i]
		at := o.onMap(p.Station, 0, job.SwingIn)
		own := math.Hypot(at.X.Metres()-w.X, at.Y.Metres()-w.Y) < (w.gate.Post + w.leaf.Heel + 200*length.Millimetre).Metres()
		if own {
			continue // the gate's own post, that the run shares
		}
		if angle, struck := w.Round(at.X.Metres(), at.Y.Metres(), o.run.PostOf(p.Kind).Width.Metres()/2); struck {
			hit(p.ID+" of "+name, angle)
		}
	}
	for i := range o.out.Bays {
		if o.out.Bays[i].Gate != "" {
			continue
		}
		a, b := o.onMap(o.out.Posts[i].Station, 0, job.SwingIn), o.onMap(o.out.Posts[i+1].Station, 0, job.SwingIn)
		if angle, struck := w.Wall(a.X.Metres(), a.Y.Metres(), b.X.Metres(), b.Y.Metres()); struck {
			hit("the fence of "+name, angle)
		}
	}
}

// outside tells whether a circle is clear of a whole run.
func outside(x, y, radius float64, o *maker) bool {
	ax, ay, bx, by := o.out.From.X.Metres(), o.out.From.Y.Metres(), o.out.To.X.Metres(), o.out.To.Y.Metres()
	dx, dy := bx-ax, by-ay
	t := 0.0
	if l := dx*dx + dy*dy; l > 0 {
		t = min(1, max(0, ((x-ax)*dx+(y-ay)*dy)/l))
	}
	return math.Hypot(ax+t*dx-x, ay+t*dy-y) > radius
}
