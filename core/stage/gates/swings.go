package gates

import (
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// swing is one side of a leaf's way, seen on the map.
type swing struct {
	m    *Gates
	gate *Gate
	leaf gate.Leaf
	side job.Swing
	gate.Swept
}

// swings are the ways of a gate's leaves, as it is or as it would be.
func (m *Gates) swings(out *Gate, g job.Gate) []swing {
	var all []swing
	for _, l := range gate.Leaves(m.Spec, g, 0) {
		for _, side := range g.Swing.Sides() {
			pin := m.onMap(l.Pin, 0, side)
			from := math.Atan2(float64(m.To.Y-m.From.Y), float64(m.To.X-m.From.X))
			left := m.hand(side) > 0
			if !l.Ahead {
				from, left = from+math.Pi, !left
			}
			all = append(all, swing{m, out, l, side, gate.Swept{X: pin.X.Metres(), Y: pin.Y.Metres(), From: from, Left: left, Reach: l.Reach().Metres(), Half: g.Thick.Metres() / 2, Open: l.Open}})
		}
	}
	return all
}

// strike is what a gate's leaf strikes on its way to a side.
type strike struct {
	*Struck
	gate *Gate
	swing
}

// strikes finds what stands in the leaves' way on the map: posts and fence of
// other runs, and other leaves.
func Strikes(runs []*Gates) (hits []strike, crossing [][2]swing) {
	var all []swing
	for _, m := range runs {
		for i := range m.Made {
			g := &m.Made[i]
			for _, w := range m.swings(g, m.Spec.Gates[g.index]) {
				all = append(all, w)
				if s := w.strikes(runs); s != nil {
					hits = append(hits, strike{s, g, w})
				}
			}
		}
	}
	for i, a := range all {
		for _, b := range all[i+1:] {
			if a.gate != b.gate && math.Hypot(a.X-b.X, a.Y-b.Y) < a.Reach+b.Reach && a.Meets(b.Swept) {
				crossing = append(crossing, [2]swing{a, b})
			}
		}
	}
	return hits, crossing
}

// checkSwings says what leaves strike on the map, run by run, and which ways
// clear it.
func CheckSwings(runs []*Gates, of func(run string) *stage.Checking) {
	hits, crossing := Strikes(runs)
	for i := 0; i < len(hits); {
		worst, k := hits[i], i
		for ; k < len(hits) && hits[k].gate == hits[i].gate; k++ {
			if hits[k].Angle < worst.Angle {
				worst = hits[k]
			}
		}
		worst.check(of(worst.m.Spec.ID), runs)
		i = k
	}
	for _, c := range crossing {
		of(c[0].m.Spec.ID).Find(finding.Finding{Rule: codeLeavesCross, Stage: finding.Gates, Severity: finding.Note, Place: finding.Place{Gate: c[0].gate.ID},
			Says: words.Say("gates.leaves-cross", words.V{"one": label(*c[0].gate), "other": label(*c[1].gate)})})
	}
}

// check says what a leaf strikes.
func (w strike) check(c *stage.Checking, runs []*Gates) {
	m, g, worst := w.m, w.swing.gate, w.Struck
	f := finding.Finding{Rule: codeLeafHits, Stage: finding.Gates, Severity: finding.Cannot, Place: finding.Place{Gate: g.ID},
		Says: words.Say("gates.leaf-hits", words.V{"side": string(w.side), "label": label(*g), "what": worst.What, "angle": math.Round(worst.Angle)})}
	now := m.Spec.Gates[g.index]
	c.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		offer := func(then job.Gate, says reason.Text, field string, value any) {
			for _, w := range m.swings(g, then) {
				if w.strikes(runs) != nil {
					return
				}
			}
			out = append(out, finding.Remedy{Says: says, Edits: []job.Edit{job.Set(g.Path+"/"+field, value)}})
		}
		if stop := math.Floor(worst.Angle) - 1; stop >= 30 {
			then := now
			then.Open = stop
			offer(then, words.Say("gates.a-stop-at", words.V{"stop": stop}), "open", stop)
		}
		for _, side := range []job.Swing{job.SwingIn, job.SwingOut} {
			if then := now; side != g.Swing {
				then.Swing = side
				offer(then, words.Say("gates.swing-it", words.V{"side": string(side)}), "swing", side)
			}
		}
		if len(g.Leaves) == 1 {
			then := now
			then.Hinge = g.Leaves[0].End.Other()
			offer(then, words.Say("gates.hang-it-on-the-other"), "hinge", then.Hinge)
		}
		return out
	})
}

// strikes is what a leaf strikes first.
func (w swing) strikes(runs []*Gates) *Struck {
	var first *Struck
	hit := func(what string, angle float64) {
		if first == nil || angle < first.Angle {
			first = &Struck{what, angle}
		}
	}
	for _, o := range runs {
		if o.Laid() && o != w.m {
			w.strikesRun(o, hit)
		}
	}
	// Its own run's posts are in the way of a leaf that opens past square.
	for i := range w.m.Posts {
		p := &w.m.Posts[i]
		if p.Label == w.gate.First || p.Label == w.gate.Second || w.Open <= 90 {
			continue
		}
		at := w.m.onMap(p.Station, 0, w.side)
		if angle, struck := w.Round(at.X.Metres(), at.Y.Metres(), w.m.Spec.PostOf(p.Kind).Width.Metres()/2); struck {
			hit(p.Label, angle)
		}
	}
	return first
}

func (w swing) strikesRun(o *Gates, hit func(string, float64)) {
	name := o.Spec.Name
	if name == "" {
		name = o.Spec.ID
	}
	// Far runs cannot be met.
	if outside(w.X, w.Y, w.Reach+1, o) {
		return
	}
	own := (w.gate.Post + w.leaf.Heel + 200*length.Millimetre).Metres()
	for i := range o.Posts {
		p := &o.Posts[i]
		at := o.onMap(p.Station, 0, job.SwingIn)
		if math.Hypot(at.X.Metres()-w.X, at.Y.Metres()-w.Y) < own {
			continue // the gate's own post, that the run shares
		}
		if angle, struck := w.Round(at.X.Metres(), at.Y.Metres(), o.Spec.PostOf(p.Kind).Width.Metres()/2); struck {
			hit(words.Plain("gates.post-of-run", words.V{"post": p.Label, "run": name}), angle)
		}
	}
	for i := range o.Bays {
		if o.Bays[i].Gate != "" {
			continue
		}
		a, b := o.onMap(o.Posts[i].Station, 0, job.SwingIn), o.onMap(o.Posts[i+1].Station, 0, job.SwingIn)
		if angle, struck := w.Wall(a.X.Metres(), a.Y.Metres(), b.X.Metres(), b.Y.Metres()); struck {
			hit(words.Plain("gates.the-fence-of", words.V{"run": name}), angle)
		}
	}
}

// outside tells whether a circle is clear of a whole run.
func outside(x, y, radius float64, o *Gates) bool {
	ax, ay, bx, by := o.From.X.Metres(), o.From.Y.Metres(), o.To.X.Metres(), o.To.Y.Metres()
	dx, dy := bx-ax, by-ay
	t := 0.0
	if l := dx*dx + dy*dy; l > 0 {
		t = min(1, max(0, ((x-ax)*dx+(y-ay)*dy)/l))
	}
	return math.Hypot(ax+t*dx-x, ay+t*dy-y) > radius
}

// on is the run whose leaf it is.
func (w strike) On() *Gates { return w.m }

// mark is a list of the run's gates in which it is marked what the leaf
// strikes. What it is made from stays as it is.
func (w strike) Mark(list []Gate) []Gate {
	list = slices.Clone(list)
	for g := range list {
		if list[g].ID != w.swing.gate.ID {
			continue
		}
		list[g].Leaves = slices.Clone(list[g].Leaves)
		for l := range list[g].Leaves {
			leaf := &list[g].Leaves[l]
			if leaf.End != w.leaf.Post {
				continue
			}
			leaf.Sides = slices.Clone(leaf.Sides)
			for k := range leaf.Sides {
				if leaf.Sides[k].Side == w.side {
					leaf.Sides[k].Struck = w.Struck
				}
			}
		}
	}
	return list
}
