package dig

import (
	"fmt"
	"slices"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/space"
	"mallow/core/words"
)

// allowedWays offers the system's own ways to set posts that stand in
// concrete or stone.
func (m *Holes) allowedWays(sys job.System, r *job.Rules, kind job.PostKind) []finding.Remedy {
	var out []finding.Remedy
	for _, way := range sys.Allowed {
		if way == job.Drive || way == job.RockPacked && slices.Contains(sys.InConcrete, kind) {
			continue
		}
		edits := []job.Edit{m.RuleEdit(r, "setting/method", way)}
		if r.Hole.DrivenAt(kind) {
			edits = append(edits, m.RuleEdit(r, "hole/driven", job.NoneDriven))
		}
		out = append(out, finding.Remedy{Says: words.Say("dig.set-them", words.V{"done": way.Told().Done}), Edits: edits})
	}
	return out
}

// clearOf offers to move what holds a post that runs into something in the
// way: its gate, or the held post itself.
func (m *Holes) clearOf(a *stage.Advising, o space.InTheWay, post int) []finding.Remedy {
	at := m.Layout.Posts[post]
	k := slices.IndexFunc(m.Spec.KeepOuts, func(k job.KeepOut) bool { return k.ID == o.ID })
	room := m.Opened(at.Kind)/2 + m.Beside(k)
	var out []finding.Remedy
	for _, by := range []length.Length{o.To + room - at.Station, o.From - room - at.Station} {
		by = m.Outward(by)
		switch {
		case at.Gate != spacing.NoGate:
			out = append(out, m.MoveGate(a, at.Gate, by, stage.Frees)...)
		case at.Held != spacing.Nothing && !m.Spec.FixedPosts[at.Held].Landed:
			to := m.Spec.FixedPosts[at.Held].At + by
			out = append(out, a.Offer(words.Say("dig.hold", words.V{"post": m.PostLabel(post), "by": by.Abs(), "heading": stage.Heading(by)}), stage.Frees, m.Set(job.At("/fixedPosts", m.Spec.FixedPosts[at.Held].ID, "at"), to))...)
		}
	}
	if at.Held != spacing.Nothing && !m.Spec.FixedPosts[at.Held].Landed {
		out = append(out, a.Offer(words.Say("dig.let-go-and-space-it", words.V{"post": m.PostLabel(post)}), stage.Frees, m.Set(job.At("/fixedPosts", m.Spec.FixedPosts[at.Held].ID), nil))...)
	}
	out = append(out, m.shiftHole(a, o, post, room)...)
	if space.IsFooting(m.Spec.KeepOuts[k]) && !m.Spec.KeepOuts[k].Repour {
		out = append(out, m.Repour(a, []int{k})...)
	}
	return out
}

// shiftHole offers to dig a hole beside its post's middle, as far as enough
// concrete is left at the near side.
func (m *Holes) shiftHole(a *stage.Advising, o space.InTheWay, post int, room length.Length) []finding.Remedy {
	p := &m.Posts[post]
	if p.Card < 0 || p.Spot != "" || p.Driven || p.Shared != "" {
		return nil
	}
	c := &m.Cards[p.Card]
	give := (c.Width-c.Post)/2 - LeastRoom - c.Along.Abs()
	for _, by := range []length.Length{o.To + room - p.Station - c.Along, o.From - room - p.Station - c.Along} {
		if by = m.Outward(by); by.Abs() > give+length.Tolerance {
			continue
		}
		along := c.Along + by
		id := job.FreeID("S", func(id string) bool {
			return slices.ContainsFunc(m.Given.Overrides, func(o job.HoleOverride) bool { return o.ID == id })
		})
		own := job.HoleOverride{ID: id, At: p.Station, Hole: job.HoleRules{Along: &along}}
		return a.Offer(words.Say("dig.shift-only-its-hole", words.V{"by": by.Abs(), "heading": stage.Heading(by)}), stage.Frees, m.Set(job.At("/overrides", id), own))
	}
	return nil
}

// waysKey is under which a stopped post's ways out are remembered.
type waysKey struct{ post int }

// waysOut are the ways out of a hole that was stopped.
func (m *Holes) WaysOut(a *stage.Advising, i int) []WayOut {
	return stage.Remember(a, waysKey{i}, func() []WayOut {
		plain, st, width := m.shallow(i)
		w := &wayFinder{m: m, post: &m.Posts[i], index: i, plain: &plain, st: st, width: width, bottom: m.Posts[i].Bottom}
		w.asIs()
		if !plain.Sized.Driven {
			w.wider(m.Posts[i].Stopped.Same)
			w.belled()
			w.pinned()
		}
		w.moved(a)
		return w.ways
	})
}

// wayFinder tries the ways out of one hole.
type wayFinder struct {
	m             *Holes
	post          *Post
	index         int
	plain         *Design
	st            stood
	width, bottom length.Length
	ways          []WayOut
}

func (w *wayFinder) spot(field string, value any) job.Edit {
	return job.Set(job.At(w.m.Path, "overrides", w.m.Spec.Overrides[w.post.spot].ID)+"/"+field, value)
}

// volume is the concrete that the hole takes with other rules.
func (w *wayFinder) volume(width length.Length, h job.Hole) length.Volume {
	d := w.plain.Sized.dug()
	shape := footing.ShapeOf(width, d.Bottom, d.Hole, h)
	return footing.Fill(shape, d, w.plain.Sized.q.Post, w.plain.Sized.Rules.Setting, w.m.Cat.Supply.Voids, w.plain.Sized.lowered).Concrete
}

// frost tells whether the hole's bottom is below the frost depth where it stops.
func (w *wayFinder) frost() bool { return !w.plain.Sized.heaves(w.bottom) }

// clear takes back what another way out had set.
func (w *wayFinder) clear(settled job.Settled, more ...job.Edit) []job.Edit {
	edits := []job.Edit{w.spot("hole/width", nil), w.spot("hole/bell", nil), w.spot("hole/pin", nil), w.spot("settled", settled)}
	if own := w.m.Given.Overrides[w.post.spot]; own.Fact != "" { // the job says nothing of this hole yet
		edits = []job.Edit{w.m.Set(job.At("/overrides", own.ID), job.HoleOverride{ID: own.ID, At: own.At, Settled: settled})}
	}
	return append(edits, more...)
}

func (w *wayFinder) add(way WayOut) { w.ways = append(w.ways, way) }

func (w *wayFinder) asIs() {
	g, _, _ := w.st.bears(w.plain, w.width, w.bottom)
	says := words.Say("dig.no-more-work-and-the")
	if !w.frost() {
		says = words.Say("dig.frost-can-lift-it-its")
		if w.plain.Sized.hit.What == job.HitRock {
			says = words.Say("dig.its-bottom-stays-above-the")
		}
	}
	w.add(WayOut{ID: "as is", Name: words.Say("dig.leave-it-at", words.V{"bottom": w.bottom}), Says: says, Gust: g, Frost: w.frost(), Edits: w.clear(job.SettledAsIs)})
}

// mostWider is how many wider holes are offered.
const mostWider = 2

func (w *wayFinder) wider(same length.Length) {
	base := w.volume(w.width, w.plain.Sized.Rules.Hole)
	width := w.width
	for k := range mostWider {
		width = w.m.nextWider(w.plain.Sized.Rules.Hole, width)
		g, _, _ := w.st.bears(w.plain, width, w.bottom)
		says := words.Say("dig.more-to-dig-and-fill", words.V{"same": same})
		if same == 0 {
			says = words.Say("dig.more-to-dig-and-fill-2")
		} else if width >= same-length.Tolerance {
			says = words.Say("dig.wide-enough-to-bear-what")
		}
		way := WayOut{ID: fmt.Sprintf("wider %d", k+1), Name: words.Say("dig.dig-it-wide", words.V{"width": width}), Says: says, Gust: g, Frost: w.frost(),
			Concrete: w.volume(width, w.plain.Sized.Rules.Hole) - base, Edits: w.clear(job.SettledWider, w.spot("hole/width", width))}
		w.add(way)
	}
}

func (w *wayFinder) belled() {
	if w.plain.Sized.hit.What == job.HitWater {
		return // sides that stand in water do not hold a bell
	}
	h := w.plain.Sized.Rules.Hole
	base := w.volume(w.width, h)
	h.Bell = w.width + w.width/2
	h.BellHeight = min(h.BellHeight, w.bottom/2)
	belled := *w.plain
	rules := *w.plain.Sized.Rules
	rules.Hole = h
	belled.Sized.Rules = &rules
	g, _, _ := w.st.bears(&belled, w.width, w.bottom)
	w.add(WayOut{ID: "belled", Name: words.Say("dig.bell-its-foot-out-to", words.V{"bell": h.Bell}), Says: words.Say("dig.the-bell-holds-it-down"),
		Gust: g, Frost: w.frost(), Concrete: w.volume(w.width, h) - base,
		Edits: w.clear(job.SettledBelled, w.spot("hole/bell", h.Bell), w.spot("hole/bellHeight", h.BellHeight))})
}

// usualPin is the pin that is offered: 5/8 in or 16 mm.
func (w *wayFinder) usualPin() length.Length {
	if w.m.Job.Units.System == length.Metric {
		return 16
	}
	return 5 * length.Inch / 8
}

func (w *wayFinder) pinned() {
	if w.plain.Sized.hit.What != job.HitRock {
		return
	}
	pin := w.usualPin()
	st := w.st
	st.pin = w.m.pinShear(pin)
	g, _, _ := st.bears(w.plain, w.width, w.bottom)
	w.add(WayOut{ID: "pinned", Name: words.Say("dig.core-the-rock-and-pin", words.V{"pin": pin}), Says: words.Say("dig.only-in-sound-rock-a"),
		Gust: g, Frost: w.frost(), Edits: w.clear(job.SettledPinned, w.spot("hole/pin", pin))})
}

// mostAlone is up to how many stopped holes each is moved by itself. Where
// more were stopped by the same, it is the ground that is so: they are moved
// together, and weighed once.
const mostAlone = 4

// move is the layout with posts moved clear of what stopped them.
type move struct {
	posts []int
	outs  []job.KeepOut // what else is in the way then
	now   *stage.Outcome
	then  *stage.Outcome // nil: it makes nothing better
}

// move is the move of a post: with those that were stopped by the same, where
// they are many.
func (w *wayFinder) move(a *stage.Advising) *move {
	what := w.plain.Sized.hit.What
	var alike []int
	for i := range w.m.Posts {
		if p := &w.m.Posts[i]; p.Kind == job.LinePost && p.Stopped != nil && p.Stopped.What == what {
			alike = append(alike, i)
		}
	}
	if len(alike) <= mostAlone {
		return w.weigh(a, what, []int{w.index})
	}
	return stage.Remember(a, what, func() *move { return w.weigh(a, what, alike) })
}

func (w *wayFinder) weigh(a *stage.Advising, what job.Struck, posts []int) *move {
	m := w.m
	t := &move{posts: posts}
	kind := job.Rock
	if what == job.HitWater {
		kind = job.NoDig
	}
	for _, i := range posts {
		at := m.Given.Overrides[m.Posts[i].spot].At
		t.outs = append(t.outs, job.KeepOut{ID: t.freeID(m), Kind: kind, At: at, Width: w.width})
	}
	run, ok := a.Edited(t.edits(m))
	if !ok {
		return t
	}
	if now, then := a.Now(), a.Then(run); then.Trouble <= now.Trouble {
		t.now, t.then = now, then
	}
	return t
}

// moved is the layout's own answer when the post moves clear of what is there.
func (w *wayFinder) moved(a *stage.Advising) {
	m := w.m
	if w.post.Kind != job.LinePost || len(m.Layout.Posts) > stage.WeighMost {
		return
	}
	t := w.move(a)
	edits := t.edits(m)
	if t.then == nil || !a.Watch.Tell(edits) {
		return
	}
	name := words.Say("dig.move-the-post-clear-of")
	if n := len(t.posts); n > 1 {
		name = words.Say("dig.move-all-posts-that-were", words.V{"count": n})
	}
	cost := t.then.CostOver(t.now)
	concrete := cost.Concrete
	for _, i := range t.posts { // whatever is taken now
		concrete += m.Posts[i].ConcreteVolume - w.volume(w.width, w.plain.Sized.Rules.Hole)
	}
	w.add(WayOut{ID: "moved", Name: name, Says: words.Say("dig.the-bays-beside-it-are"),
		Gust: max(0, t.then.Weakest()), Frost: true, Cost: &cost, Concrete: concrete, Edits: edits})
}

func (t *move) freeID(m *Holes) string {
	is := func(id string) func(job.KeepOut) bool { return func(k job.KeepOut) bool { return k.ID == id } }
	return job.FreeID("K", func(id string) bool {
		return slices.ContainsFunc(m.Given.KeepOuts, is(id)) || slices.ContainsFunc(t.outs, is(id))
	})
}

// edits note what is in the way.
func (t *move) edits(m *Holes) []job.Edit {
	out := make([]job.Edit, len(t.outs))
	for i, k := range t.outs {
		out[i] = m.Set(job.At("/keepOuts", k.ID), k)
	}
	return out
}
