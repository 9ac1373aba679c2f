package plan

import (
	"fmt"
	"slices"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// Stopped is a hole that rock or water stopped short of its depth.
type Stopped struct {
	What    job.Struck    `json:"what" jsonschema:"required,enum=rock,enum=water,enum=root"`
	Depth   length.Length `json:"depth" jsonschema:"required"`
	Wanted  length.Length `json:"wanted" jsonschema:"required" jsonschema_description:"Bottom that the rules ask for."`
	Planned float64       `json:"planned" jsonschema:"required" jsonschema_description:"Gust at the limit had it reached that depth, metres per second."`
	Settled job.Settled   `json:"settled,omitempty" jsonschema:"enum=as is,enum=wider,enum=belled,enum=pinned"`
	Same    length.Length `json:"same" jsonschema:"required" jsonschema_description:"How wide the hole would have to be, no deeper, for the same gust; 0: no width that can be dug."`
	Ways    []WayOut      `json:"ways" jsonschema:"required" jsonschema_description:"What each way out gives, in the same measure."`
}

// WayOut is one way out of a hole that is too shallow.
type WayOut struct {
	ID       string        `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs."`
	Name     reason.Text   `json:"name" jsonschema:"required"`
	Says     reason.Text   `json:"says" jsonschema:"required" jsonschema_description:"What it costs and what to mind."`
	Gust     float64       `json:"gust" jsonschema:"required" jsonschema_description:"At the limit, metres per second."`
	Frost    bool          `json:"frost" jsonschema:"required" jsonschema_description:"Its bottom is below the frost depth, or none is known."`
	Concrete length.Volume `json:"concrete" jsonschema:"required" jsonschema_description:"More than the hole takes as it is."`
	Edits    []job.Edit    `json:"edits" jsonschema:"required"`
	Cost     *finding.Cost `json:"cost,omitempty" jsonschema_description:"Where posts move: what that changes."`
}

// stopped works out the ways out of every hole that was stopped.
func (m *maker) stopped() {
	moves := newMoves(m)
	for i := range m.out.Posts {
		m.watch.look()
		p := &m.out.Posts[i]
		if p.spot < 0 || p.Shared != "" || p.Stays != "" {
			continue
		}
		if d := &m.ditches[p.Card]; d.sized.hit != nil && d.sized.depth.Stopped {
			p.Stopped = m.stop(i, d, moves)
		}
	}
}

func (m *maker) stop(i int, d *ditch, moves *moves) *Stopped {
	p, st := &m.out.Posts[i], m.stand(i, d)
	hit := d.sized.hit
	s := &Stopped{What: hit.What, Depth: hit.Depth, Wanted: d.sized.depth.Rounded + d.sized.lowered, Settled: hit.Settled}
	plain := *d // the hole without a way out: as wide as its kind, straight, no pin
	plain.sized.rules = m.kindRules(p.Kind)
	width := footing.FindWidth(m.question(p.Kind, p.Hung, p.Reveal, plain.sized.rules)).Width
	unpinned := st
	unpinned.pin = 0
	s.Planned, _, _ = unpinned.bears(&plain, width, s.Wanted)
	s.Same = m.sameWidth(&plain, unpinned, width, p.Bottom, s.Planned)
	w := &wayFinder{m: m, post: p, index: i, plain: &plain, st: unpinned, width: width, bottom: p.Bottom}
	w.asIs()
	if !d.sized.driven {
		w.wider(s.Same)
		w.belled()
		w.pinned()
	}
	w.moved(moves)
	s.Ways = w.ways
	return s
}

// sameWidth looks by halving for the width at which a shallow hole bears what
// the deep one would have.
func (m *maker) sameWidth(d *ditch, st stood, width, bottom length.Length, gust float64) length.Length {
	low, high := width, width
	for range 12 {
		if g, _, _ := st.bears(d, high, bottom); g >= gust {
			break
		}
		high *= 2
	}
	for range 40 {
		mid := (low + high) / 2
		if g, _, _ := st.bears(d, mid, bottom); g < gust {
			low = mid
		} else {
			high = mid
		}
	}
	if high > widestHole {
		return 0
	}
	return high
}

// widestHole is wider than anyone digs for a fence post: 10 ft or 3 m.
const widestHole = 3 * length.Metre

// wayFinder tries the ways out of one hole.
type wayFinder struct {
	m             *maker
	post          *Post
	index         int
	plain         *ditch
	st            stood
	width, bottom length.Length
	ways          []WayOut
}

func (w *wayFinder) spot(field string, value any) job.Edit {
	return job.Set(fmt.Sprintf("%s/spots/%d/%s", w.m.path, w.post.spot, field), value)
}

// volume is the concrete that the hole takes with other rules.
func (w *wayFinder) volume(width length.Length, h job.Hole) length.Volume {
	d := w.plain.sized.dug()
	shape := footing.ShapeOf(width, d.Bottom, d.Hole, h)
	return footing.Fill(shape, d, w.plain.sized.q.Post, w.plain.sized.rules.Setting, w.m.cat.Supply.Voids, w.plain.sized.lowered).Concrete
}

// frost tells whether the hole's bottom is below the frost depth where it stops.
func (w *wayFinder) frost() bool { return !w.plain.sized.heaves(w.bottom) }

// clear takes back what another way out had set.
func (w *wayFinder) clear(settled job.Settled, more ...job.Edit) []job.Edit {
	edits := []job.Edit{w.spot("hole/width", nil), w.spot("hole/bell", nil), w.spot("hole/pin", nil), w.spot("hit/settled", settled)}
	return append(edits, more...)
}

func (w *wayFinder) add(way WayOut) { w.ways = append(w.ways, way) }

func (w *wayFinder) asIs() {
	g, _, _ := w.st.bears(w.plain, w.width, w.bottom)
	says := reason.Say("No more work, and the weakest.")
	if !w.frost() {
		says = reason.Say("Frost can lift it: its bottom stays above the frost depth.")
		if w.plain.sized.hit.What == job.HitRock {
			says = reason.Say("Its bottom stays above the frost depth. On sound rock that holds no water there is little to lift it; in broken rock frost can.")
		}
	}
	w.add(WayOut{ID: "as is", Name: reason.Say("Leave it at ", w.bottom), Says: says, Gust: g, Frost: w.frost(), Edits: w.clear(job.SettledAsIs)})
}

// mostWider is how many wider holes are offered.
const mostWider = 2

func (w *wayFinder) wider(same length.Length) {
	base := w.volume(w.width, w.plain.sized.rules.Hole)
	width := w.width
	for k := range mostWider {
		width = w.m.nextWider(w.plain.sized.rules.Hole, width)
		g, _, _ := w.st.bears(w.plain, width, w.bottom)
		says := reason.Say("More to dig and fill, little gained: for what the depth gives it would have to be ", same, " wide.")
		if same == 0 {
			says = reason.Say("More to dig and fill, little gained: no width that can be dug gives what the depth does.")
		} else if width >= same-length.Tolerance {
			says = reason.Say("Wide enough to bear what the deep hole would have.")
		}
		way := WayOut{ID: fmt.Sprintf("wider %d", k+1), Name: reason.Say("Dig it ", width, " wide"), Says: says, Gust: g, Frost: w.frost(),
			Concrete: w.volume(width, w.plain.sized.rules.Hole) - base, Edits: w.clear(job.SettledWider, w.spot("hole/width", width))}
		w.add(way)
	}
}

func (w *wayFinder) belled() {
	if w.plain.sized.hit.What == job.HitWater {
		return // sides that stand in water do not hold a bell
	}
	h := w.plain.sized.rules.Hole
	base := w.volume(w.width, h)
	h.Bell = w.width + w.width/2
	h.BellHeight = min(h.BellHeight, w.bottom/2)
	belled := *w.plain
	rules := *w.plain.sized.rules
	rules.Hole = h
	belled.sized.rules = &rules
	g, _, _ := w.st.bears(&belled, w.width, w.bottom)
	w.add(WayOut{ID: "belled", Name: reason.Say("Bell its foot out to ", h.Bell), Says: reason.Say("The bell holds it down against lifting; its bottom stays where it is. Sideways it counts by its mean width. By hand, with a bar."),
		Gust: g, Frost: w.frost(), Concrete: w.volume(w.width, h) - base,
		Edits: w.clear(job.SettledBelled, w.spot("hole/bell", h.Bell), w.spot("hole/bellHeight", h.BellHeight))})
}

// usualPin is the pin that is offered: 5/8 in or 16 mm.
func (w *wayFinder) usualPin() length.Length {
	if w.m.job.Units.System == length.Metric {
		return 16
	}
	return 5 * length.Inch / 8
}

func (w *wayFinder) pinned() {
	if w.plain.sized.hit.What != job.HitRock {
		return
	}
	pin := w.usualPin()
	st := w.st
	st.pin = w.m.pinShear(pin)
	g, _, _ := st.bears(w.plain, w.width, w.bottom)
	w.add(WayOut{ID: "pinned", Name: reason.Say("Core the rock and pin it, ", pin, " steel"), Says: reason.Say("Only in sound rock; a drill, grout and a day. Goggles and mask: stone dust harms lungs. An engineer sizes the pin where it matters."),
		Gust: g, Frost: w.frost(), Edits: w.clear(job.SettledPinned, w.spot("hole/pin", pin))})
}

// mostAlone is up to how many stopped holes each is moved by itself. Where
// more were stopped by the same, it is the ground that is so: they are moved
// together, and weighed once.
const mostAlone = 4

// moves are the trials of moving stopped posts.
type moves struct {
	m      *maker
	struck map[job.Struck][]int // line posts that were stopped, by what
	made   map[job.Struck]*move
}

// move is the layout with posts moved clear of what stopped them.
type move struct {
	posts []int
	outs  []job.KeepOut // all that is in the way then
	now   *maker
	then  *maker // nil: it makes nothing better
}

func newMoves(m *maker) *moves {
	v := &moves{m: m, struck: map[job.Struck][]int{}, made: map[job.Struck]*move{}}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.spot < 0 || p.Shared != "" || p.Stays != "" || p.Kind != job.LinePost {
			continue
		}
		if d := &m.ditches[p.Card]; d.sized.hit != nil && d.sized.depth.Stopped {
			v.struck[d.sized.hit.What] = append(v.struck[d.sized.hit.What], i)
		}
	}
	return v
}

// of is the move of a post: with those that were stopped by the same, where
// they are many.
func (v *moves) of(w *wayFinder) *move {
	what := w.plain.sized.hit.What
	all := v.struck[what]
	if len(all) <= mostAlone {
		return v.weigh(what, []int{w.index}, w.width)
	}
	if v.made[what] == nil {
		v.made[what] = v.weigh(what, all, w.width)
	}
	return v.made[what]
}

func (v *moves) weigh(what job.Struck, posts []int, width length.Length) *move {
	m := v.m
	t := &move{posts: posts, outs: slices.Clone(m.given.KeepOuts)}
	kind := job.Rock
	if what == job.HitWater {
		kind = job.NoDig
	}
	for _, i := range posts {
		at := m.given.Spots[m.out.Posts[i].spot].At
		t.outs = append(t.outs, job.KeepOut{ID: freeID(t.outs), Kind: kind, At: at, Width: width})
	}
	run := m.given
	run.KeepOuts = t.outs
	if !m.sound(run) || !m.afford(run) {
		return t
	}
	now, then := m.now(), m.trial(run).weigh()
	if then.trouble() <= now.trouble() {
		then.wind()
		t.now, t.then = now, then
	}
	return t
}

// moved is the layout's own answer when the post moves clear of what is there.
func (w *wayFinder) moved(moves *moves) {
	m := w.m
	if w.post.Kind != job.LinePost || len(m.layout.Posts) > weighMost {
		return
	}
	t := moves.of(w)
	if t.then == nil || !m.watch.tell([]job.Edit{m.set("/keepOuts", t.outs)}) {
		return
	}
	weakest := -1.0
	for i := range t.then.out.Posts {
		if p := &t.then.out.Posts[i]; p.Wind != nil && p.Kind == job.LinePost && (weakest < 0 || p.Wind.Gust < weakest) {
			weakest = p.Wind.Gust
		}
	}
	name := reason.Say("Move the post clear of it")
	if n := len(t.posts); n > 1 {
		name = reason.Say("Move all ", n, " posts that were stopped so clear of it")
	}
	cost := costOf(t.now, t.then)
	concrete := cost.Concrete
	for _, i := range t.posts { // whatever is taken now
		concrete += m.out.Posts[i].ConcreteVolume - w.volume(w.width, w.plain.sized.rules.Hole)
	}
	w.add(WayOut{ID: "moved", Name: name, Says: reason.Say("The bays beside it are spaced again, and a new hole is dug to its full depth. Fill and tamp the old one."),
		Gust: max(0, weakest), Frost: true, Cost: &cost, Concrete: concrete,
		Edits: []job.Edit{m.set("/keepOuts", t.outs)}})
}

func freeID(list []job.KeepOut) string {
	for n := len(list) + 1; ; n++ {
		id := fmt.Sprintf("K%d", n)
		if !slices.ContainsFunc(list, func(k job.KeepOut) bool { return k.ID == id }) {
			return id
		}
	}
}

// judgeStopped asks what is to be done where a hole was stopped, and names the
// single holes' rules that have no post any more.
func (m *maker) judgeStopped() {
	used := map[string]bool{}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Spot != "" && p.Shared == "" {
			used[p.Spot] = true
		}
		if p.Stopped == nil || p.Stopped.Settled != "" {
			continue
		}
		s := p.Stopped
		f := finding.Finding{Rule: "stopped", Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.ID},
			Says: reason.Say(p.ID, " is stopped by ", struckNames[s.What], " at ", s.Depth, "; the rules ask for ", s.Wanted, ". To compare: as it is it bears a gust of ", reason.Speed(s.Ways[0].Gust), ", at full depth ", reason.Speed(s.Planned), "; ")}
		if asked := m.job.Site.CodeWind; asked != nil {
			f.Says = append(f.Says, reason.Say("the local code asks ", reason.Speed(*asked), ".")...)
		} else {
			f.Says = append(f.Says, reason.Say("what is asked here, the building office says.")...)
		}
		for _, w := range s.Ways {
			says := append(slices.Clone(w.Name), reason.Say(": ", reason.Speed(w.Gust))...)
			f.Remedies = append(f.Remedies, finding.Remedy{Says: says, Edits: w.Edits, Cost: w.Cost})
		}
		m.find(f)
	}
	for i, s := range m.given.Spots {
		if used[s.ID] {
			continue
		}
		f := finding.Finding{Rule: "spot-left", Stage: finding.Dig, Severity: finding.Note}
		if m.watch.told < mostTold {
			f.Remedies = []finding.Remedy{{Says: reason.Say("Forget it"), Edits: []job.Edit{m.set("/spots", without(m.given.Spots, i))}}}
		}
		if s.Hit != nil {
			f.Says = reason.Say("The hole at ", reason.Tape(s.At), ", stopped by ", struckNames[s.Hit.What], ", is no post's any more. Fill and tamp it.")
		} else {
			f.Says = reason.Say("Rules were made for a single post at ", reason.Tape(s.At), ", where none stands any more.")
		}
		m.find(f)
	}
}

func without(list []job.Spot, i int) []job.Spot { return slices.Delete(slices.Clone(list), i, i+1) }
