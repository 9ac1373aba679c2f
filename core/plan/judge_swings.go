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

// swing is one side of a leaf's way, seen on the map.
type swing struct {
	m    *maker
	gate *Gate
	leaf gate.Leaf
	side job.Swing
	gate.Swept
}

// swings are the ways of a gate's leaves, as it is or as it would be.
func (m *maker) swings(out *Gate, g job.Gate) []swing {
	var all []swing
	for _, l := range gate.Leaves(m.run, g, 0) {
		for _, side := range g.Swing.Sides() {
			pin := m.onMap(l.Pin, 0, side)
			from := math.Atan2(float64(m.out.To.Y-m.out.From.Y), float64(m.out.To.X-m.out.From.X))
			left := m.hand(side) > 0
			if !l.Ahead {
				from, left = from+math.Pi, !left
			}
			all = append(all, swing{m, out, l, side, gate.Swept{X: pin.X.Metres(), Y: pin.Y.Metres(), From: from, Left: left, Reach: l.Reach().Metres(), Half: g.Thick.Metres() / 2, Open: l.Open}})
		}
	}
	return all
}

// judgeSwings looks for what stands in the leaves' way on the map: posts and
// fence of other runs, and other leaves.
func judgeSwings(makers []*maker) {
	var all []swing
	for _, m := range makers {
		for i := range m.out.Gates {
			g := &m.out.Gates[i]
			swings := m.swings(g, m.run.Gates[g.index])
			all = append(all, swings...)
			m.judgeStruck(g, swings, makers)
		}
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

// judgeStruck says what a gate's leaves strike, and which ways clear it.
func (m *maker) judgeStruck(g *Gate, swings []swing, makers []*maker) {
	var worst *Struck
	var of swing
	for _, w := range swings {
		s := w.strikes(makers)
		if s == nil {
			continue
		}
		for l := range g.Leaves {
			for k := range g.Leaves[l].Sides {
				if side := &g.Leaves[l].Sides[k]; g.Leaves[l].End == w.leaf.Post && side.Side == w.side {
					side.Struck = s
				}
			}
		}
		if worst == nil || s.Angle < worst.Angle {
			worst, of = s, w
		}
	}
	if worst == nil {
		return
	}
	f := finding.Finding{Rule: "leaf-hits", Stage: finding.Gates, Severity: finding.Cannot, Place: finding.Place{Gate: g.ID},
		Says: reason.Say("Swung ", string(of.side), ", a leaf of ", label(*g), " strikes ", worst.What, " at ", math.Round(worst.Angle), "°.")}
	now := m.run.Gates[g.index]
	offer := func(then job.Gate, says, field string, value any) {
		for _, w := range m.swings(g, then) {
			if w.strikes(makers) != nil {
				return
			}
		}
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say(says), Edits: []job.Edit{job.Set(g.Path+"/"+field, value)}})
	}
	if stop := math.Floor(worst.Angle) - 1; stop >= 30 {
		then := now
		then.Open = stop
		offer(then, fmt.Sprintf("A stop at %.0f°", stop), "open", stop)
	}
	for _, side := range []job.Swing{job.SwingIn, job.SwingOut} {
		if then := now; side != g.Swing {
			then.Swing = side
			offer(then, "Swing it "+string(side), "swing", side)
		}
	}
	if len(g.Leaves) == 1 {
		then := now
		then.Hinge = g.Leaves[0].End.Other()
		offer(then, "Hang it on the other post", "hinge", then.Hinge)
	}
	m.find(f)
}

// strikes is what a leaf strikes first.
func (w swing) strikes(makers []*maker) *Struck {
	var first *Struck
	hit := func(what string, angle float64) {
		if first == nil || angle < first.Angle {
			first = &Struck{what, angle}
		}
	}
	for _, o := range makers {
		if o.laid() && o != w.m {
			w.strikesRun(o, hit)
		}
	}
	// Its own run's posts are in the way of a leaf that opens past square.
	for i := range w.m.out.Posts {
		p := &w.m.out.Posts[i]
		if p.ID == w.gate.First || p.ID == w.gate.Second || w.Open <= 90 {
			continue
		}
		at := w.m.onMap(p.Station, 0, w.side)
		if angle, struck := w.Round(at.X.Metres(), at.Y.Metres(), w.m.run.PostOf(p.Kind).Width.Metres()/2); struck {
			hit(p.ID, angle)
		}
	}
	return first
}

func (w swing) strikesRun(o *maker, hit func(string, float64)) {
	name := o.out.Name
	if name == "" {
		name = o.out.ID
	}
	// Far runs cannot be met.
	if outside(w.X, w.Y, w.Reach+1, o) {
		return
	}
	own := (w.gate.Post + w.leaf.Heel + 200*length.Millimetre).Metres()
	for i := range o.out.Posts {
		p := &o.out.Posts[i]
		at := o.onMap(p.Station, 0, job.SwingIn)
		if math.Hypot(at.X.Metres()-w.X, at.Y.Metres()-w.Y) < own {
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
