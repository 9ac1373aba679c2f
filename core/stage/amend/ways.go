package amend

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/dig"
	"mallow/core/stage/load"
	"mallow/core/stage/record"
	"mallow/core/words"
)

// Minutes of one person, from memory of common practice; the crew's own rates of digging
// are taken for all that is dug.
const (
	pushMinutes  = 5  // loosen the braces, bring the post back, brace it again
	packMinutes  = 5  // a packer behind a rail, each bay
	cutMinutes   = 5  // one panel, rail or bay of boards cut to fit
	fetchMinutes = 10 // one longer rail bought and brought
	trimMinutes  = 3  // a top cut off at the string
	tampMinutes  = 5  // each lift of gravel
	breakMinutes = 45 // a set post broken out of its concrete
	setMinutes   = 15 // a post set and braced
	taperMinutes = 10 // a rail's bearing eased over its neighbours
)

// lift is how much gravel is tamped at once: 6 in or 150 mm (common practice).
const lift = 150 * length.Millimetre

// What one more of something counts for in minutes, to tell the cheaper way: a bag is
// carried and mixed, a post is dug for, set and bought, a piece is cut.
const (
	bagCounts   = 4.0
	postCounts  = 60.0
	pieceCounts = cutMinutes
)

// finder finds the ways out of one deviation.
type finder struct {
	*load.Load
	a     *stage.Advising
	try   Trial
	post  *record.RecordPost
	dev   *record.Deviation
	i     int // place of the post in the run
	p     *dig.Post
	seen  []job.Fact     // all that was written down
	facts []job.Fact     // about the post, that hold
	now   *stage.Outcome // of the run as it is, once it is asked for
	ways  []Way
}

// Ways are what can be done about a deviation of a post, the cheapest first.
func Ways(seen []job.Fact, m *load.Load, a *stage.Advising, try Trial, post *record.RecordPost, dev *record.Deviation) []Way {
	i := m.PostAt(post.ID)
	if i < 0 {
		return nil
	}
	f := &finder{Load: m, a: a, try: try, post: post, dev: dev, i: i, p: &m.Posts[i], seen: seen, facts: Standing(seen, post.ID)}
	switch dev.What {
	case job.Landed:
		f.along()
	case job.OffLine:
		f.beside()
	case job.OffPlumb, job.OffAcross:
		f.leaning()
	case job.TopMark:
		f.top()
	case job.DepthDug:
		f.depth()
	case job.WidthDug:
		f.width()
	case job.SeenRock, job.SeenWater, job.SeenRoot:
		f.stopped()
	}
	slices.SortStableFunc(f.ways, func(a, b Way) int {
		if a.last != b.last {
			return map[bool]int{true: 1, false: -1}[a.last]
		}
		if a.last && a.gust != b.gust {
			return cmp.Compare(b.gust, a.gust) // of what does not do, what holds most
		}
		return cmp.Compare(a.effort(), b.effort())
	})
	return f.ways
}

// effort is what a way takes, all in minutes.
func (w *Way) effort() float64 {
	e := w.Minutes
	if w.Cost != nil {
		e += bagCounts*float64(w.Cost.Bags) + postCounts*float64(w.Cost.Posts) + pieceCounts*float64(w.Cost.CutPieces)
	}
	return e
}

// Standing are the facts about a post that no later one strikes out.
func Standing(all []job.Fact, post string) (out []job.Fact) {
	struck := map[string]bool{}
	for _, f := range all {
		struck[f.Strikes] = f.What == job.StruckOut
	}
	for _, f := range all {
		if f.OnPost() == post && f.What != job.StruckOut && !struck[f.ID] {
			out = append(out, f)
		}
	}
	return out
}

// add adds a way. Every way leaves a decision, so that it is not asked again.
func (f *finder) add(w Way) {
	if w.Moves == nil {
		w.Moves = []Move{}
	}
	f.ways = append(f.ways, w)
}

// write is the edit that writes a fact down. The ids of one way follow each other; those
// of another way begin anew, as only one is taken.
func (f *finder) write(n int, fact job.Fact) job.Edit {
	taken := func(id string) bool {
		return slices.ContainsFunc(f.seen, func(o job.Fact) bool { return o.ID == id })
	}
	next := 0
	fact.ID = job.FreeID("f", func(id string) bool {
		if taken(id) {
			return true
		}
		next++
		return next <= n
	})
	fact.On = job.On("post", f.post.ID)
	return job.Set(job.At("/observed", fact.ID), fact)
}

// decided is the edit that keeps what was decided.
func (f *finder) decided(way string) job.Edit {
	return f.write(0, job.Fact{What: job.Decided, Answers: f.dev.Fact, Way: way})
}

// strike strikes out facts about the post of some kinds.
func (f *finder) strike(kinds ...job.Seen) (edits []job.Edit, gone []string) {
	for _, o := range f.facts {
		if slices.Contains(kinds, o.What) {
			edits = append(edits, f.write(len(edits), job.Fact{What: job.StruckOut, Strikes: o.ID}))
			gone = append(gone, o.ID)
		}
	}
	return edits, gone
}

// without is the run as it is without some of its facts, and with what else is changed
// on it. A post whose marks are gone is free to stand elsewhere.
func (f *finder) without(gone []string, free bool, edits ...job.Edit) (job.Run, bool) {
	run := f.Given
	if len(gone) > 0 {
		run.Seen = slices.Clone(run.Seen)
		for i := range run.Seen {
			run.Seen[i].Void = run.Seen[i].Void || slices.Contains(gone, run.Seen[i].ID)
		}
		run = run.Settled()
	}
	if mark := f.p.Station - f.p.Off; f.p.Off != 0 && !free && len(gone) > 0 && f.post.Stage >= record.Dug {
		k, _ := slices.BinarySearch(run.Firm, mark) // it is dug or set, and stands on its mark then
		run.Firm = slices.Insert(slices.Clone(run.Firm), k, mark)
	}
	if free {
		at := f.p.Station
		run.Firm = slices.DeleteFunc(slices.Clone(run.Firm), func(s length.Length) bool { return (s - at).Abs() <= length.Millimetre })
	}
	if len(edits) > 0 {
		var err error
		if run, err = run.Edited(f.Path, f.Usual, edits); err != nil {
			return run, false
		}
	}
	return run, f.a.Sound(run)
}

// weigh tries a run, and says what it costs and which posts move.
func (f *finder) weigh(run job.Run) (cost *finding.Cost, moves []Move, then *load.Load, now *stage.Outcome, out *stage.Outcome) {
	if f.now == nil {
		_, f.now = f.try(f.Given)
	}
	now = f.now
	then, out = f.try(run)
	if then == nil || now == nil {
		return nil, nil, nil, nil, nil
	}
	c := out.CostOver(now)
	if c != (finding.Cost{}) {
		cost = &c
	}
	was := map[string]length.Length{}
	for i := range f.Posts {
		was[f.Posts[i].ID] = f.Posts[i].Station
	}
	moves = []Move{}
	for i := range then.Posts {
		p := &then.Posts[i]
		if from, ok := was[p.ID]; ok && (p.Station-from).Abs() > length.Tolerance {
			moves = append(moves, Move{Post: p.ID, Label: p.Label, From: from, To: p.Station})
		}
	}
	return cost, moves, then, now, out
}

// spot are the edits that give the post's hole rules of its own.
func (f *finder) spot(h job.HoleRules, s job.SettingRules) []job.Edit {
	if i := slices.IndexFunc(f.Given.Overrides, func(o job.HoleOverride) bool { return o.ID == f.p.Spot }); i >= 0 && f.Given.Overrides[i].Fact == "" {
		own := f.Given.Overrides[i]
		own.Hit = nil
		for _, set := range []struct{ to, from **length.Length }{{&own.Hole.Width, &h.Width}, {&own.Hole.Depth, &h.Depth}, {&own.Hole.Along, &h.Along}, {&own.Hole.Across, &h.Across}, {&own.Setting.Gravel, &s.Gravel}} {
			if *set.from != nil {
				*set.to = *set.from
			}
		}
		return []job.Edit{f.Set(job.At("/overrides", own.ID), own)}
	}
	id := job.FreeID("S", func(id string) bool {
		return slices.ContainsFunc(f.Given.Overrides, func(o job.HoleOverride) bool { return o.ID == id })
	})
	return []job.Edit{f.Set(job.At("/overrides", id), job.HoleOverride{ID: id, At: f.p.Station, Hole: h, Setting: s})}
}

// hole tells whether only a hole is there so far, into which the post goes yet. Where
// nothing was said of how far it is, one that is measured along the fence stands.
func (f *finder) hole() bool {
	return f.post.Stage == record.Dug || f.post.Stage < record.Dug && f.dev.What == job.OffLine
}

// loose tells whether the post stands, and nothing holds it but braces, as far as is said.
func (f *finder) loose() bool { return f.post.Stage < record.Poured && !f.hole() }

// hard tells whether concrete holds the post.
func (f *finder) hard() bool { return f.post.Stage >= record.Poured }

// holeHours is how long the post's hole takes by hand.
func (f *finder) holeHours() float64 {
	return pour.HandHours(hole(f.p.HoleWidth).Times(f.p.HoleDepth), f.Soil.Digging, f.Crew())
}

func hole(width length.Length) length.Area { return length.Disc(width) }

// shave are the ways to bring a post to its place within a hole that was dug beside it.
func (f *finder) shave(by length.Length, strike job.Seen, off job.HoleRules) {
	if f.p.Driven || f.p.Card < 0 {
		return
	}
	room := (f.p.HoleWidth-f.Spec.PostOf(f.p.Kind).Across())/2 - dig.LeastRoom
	edits, gone := f.strike(strike)
	if by.Abs() <= room+length.Tolerance {
		spot := f.spot(off, job.SettingRules{})
		run, ok := f.without(gone, false, spot...)
		if !ok {
			return
		}
		cost, moves, _, _, _ := f.weigh(run)
		f.add(Way{ID: "on-mark", Name: words.Say("amend.on-mark", words.V{"post": f.p.Label, "room": room}), Cost: cost, Moves: moves, Edits: append(edits, spot...)})
		return
	}
	cut := by.Abs() - max(0, room)
	// A slot as wide as the hole is dug beside it: the round hole of the same area has
	// the same concrete.
	width := length.Length(math.Sqrt(float64(f.p.HoleWidth * (f.p.HoleWidth + 4*cut/math.Pi))))
	dug := (hole(width) - hole(f.p.HoleWidth)).Times(f.p.HoleDepth)
	spot := f.spot(job.HoleRules{Width: &width}, job.SettingRules{})
	run, ok := f.without(gone, false, spot...)
	if !ok {
		return
	}
	cost, moves, _, _, _ := f.weigh(run)
	f.add(Way{ID: "shave", Name: words.Say("amend.shave", words.V{"post": f.p.Label, "cut": cut}), Says: words.Say("amend.shave-says"), Cost: cost, Moves: moves,
		Minutes: setMinutes/3 + 60*pour.HandHours(dug, f.Soil.Digging, f.Crew()), Edits: append(edits, spot...)})
}

// again digs the hole once more where it should be.
func (f *finder) again() {
	edits, gone := f.strike(job.Landed, job.OffLine, job.OffPlumb, job.OffAcross, job.TopMark, job.DepthDug, job.WidthDug, job.SeenRock, job.SeenWater, job.SeenRoot,
		job.MarkDug, job.MarkSet, job.MarkPoured, job.MarkBuilt)
	run, ok := f.without(gone, true)
	if !ok {
		return
	}
	cost, moves, _, _, _ := f.weigh(run)
	minutes := 60*f.holeHours() + setMinutes
	if f.hard() {
		minutes += breakMinutes
	}
	more := finding.Cost{}
	if cost != nil {
		more = *cost
	}
	if f.hard() { // what was poured is lost
		more.Bags += int(math.Ceil(f.p.Bags - 1e-9))
		more.Concrete += f.p.ConcreteVolume
		cost = &more
	}
	f.add(Way{ID: "dig-again", Name: words.Say("amend.dig-again", words.V{"post": f.p.Label}), Says: words.Say("amend.dig-again-says"), Minutes: minutes, Cost: cost, Moves: moves, Edits: edits})
}

// leave lets it be.
func (f *finder) leave(says reason.Text) {
	f.add(Way{ID: "leave", Name: words.Say("amend.leave"), Says: says, Edits: []job.Edit{f.decided("leave")}, last: true})
}

// push brings back a post that nothing holds but braces.
func (f *finder) push(strike ...job.Seen) {
	if !f.loose() {
		return
	}
	edits, gone := f.strike(strike...)
	run, ok := f.without(gone, false)
	if !ok {
		return
	}
	cost, moves, _, _, _ := f.weigh(run)
	f.add(Way{ID: "push-back", Name: words.Say("amend.push", words.V{"post": f.p.Label}), Minutes: pushMinutes, Cost: cost, Moves: moves, Edits: edits})
}

// beside is a post off the string.
func (f *finder) beside() {
	by := f.dev.By
	if f.hole() {
		f.shave(by, job.OffLine, job.HoleRules{Across: &by})
	} else {
		f.push(job.OffLine)
		if by.Abs() <= *f.Tolerances.Pack+length.Tolerance {
			f.add(Way{ID: "pack", Name: words.Say("amend.pack-line", words.V{"post": f.p.Label, "by": by.Abs()}), Says: words.Say("amend.pack-line-says"), Minutes: 2 * packMinutes, Edits: []job.Edit{f.decided("pack")}})
		}
	}
	f.again()
	f.leave(words.Say("amend.leave-line"))
}

// leaning is a post out of plumb.
func (f *finder) leaning() {
	f.push(f.dev.What)
	if !f.loose() && f.dev.By.Abs() <= *f.Tolerances.Pack+length.Tolerance {
		f.add(Way{ID: "pack", Name: words.Say("amend.pack-plumb", words.V{"post": f.p.Label, "by": f.dev.By.Abs()}), Says: words.Say("amend.pack-plumb-says"), Minutes: 2 * packMinutes, Edits: []job.Edit{f.decided("pack")}})
	}
	f.again()
	f.leave(words.Say("amend.leave-plumb"))
}

// top is a post whose top is too high or too low.
func (f *finder) top() {
	if f.dev.By > 0 && f.Can(job.CutPosts) {
		f.add(Way{ID: "trim", Name: words.Say("amend.trim", words.V{"post": f.p.Label, "by": f.dev.By}), Says: words.Say("amend.trim-says"), Minutes: trimMinutes, Edits: []job.Edit{f.decided("trim")}})
	}
	if f.loose() {
		f.push(job.TopMark)
	}
	if f.dev.By < 0 {
		f.add(Way{ID: "ease", Name: words.Say("amend.ease", words.V{"post": f.p.Label, "by": -f.dev.By}), Says: words.Say("amend.ease-says"), Minutes: taperMinutes, Edits: []job.Edit{f.decided("ease")}})
	}
	f.again()
	f.leave(words.Say("amend.leave-top"))
}

// depth is a hole that is not as deep as planned, and nothing stopped it.
func (f *finder) depth() {
	by := f.dev.By
	edits, _ := f.strike(job.DepthDug)
	if by < 0 {
		dug := hole(f.p.HoleWidth).Times(-by)
		f.add(Way{ID: "dig-on", Name: words.Say("amend.dig-on", words.V{"post": f.p.Label, "by": -by}), Minutes: setMinutes/3 + 60*pour.HandHours(dug, f.Soil.Digging, f.Crew()), Edits: edits})
		f.shallow(-by)
		return
	}
	gravel := f.rules().Setting.Gravel + by
	f.deeper("tamp", job.HoleRules{}, job.SettingRules{Gravel: &gravel}, tampMinutes*math.Ceil(float64(by/lift)), words.Say("amend.tamp", words.V{"post": f.p.Label, "by": by}), words.Say("amend.tamp-says", words.V{"lift": lift}))
	foot := f.p.Foot + by
	f.deeper("fill", job.HoleRules{Depth: &foot}, job.SettingRules{}, 0, words.Say("amend.fill-depth", words.V{"post": f.p.Label}), words.Say("amend.fill-depth-says", words.V{"by": by}))
}

// rules are those of the post's hole.
func (f *finder) rules() *job.Rules { return f.Designs[f.p.Card].Sized.Rules }

// deeper takes a hole as it was dug.
func (f *finder) deeper(id string, h job.HoleRules, s job.SettingRules, minutes float64, name, says reason.Text) {
	spot := f.spot(h, s)
	run, ok := f.without(nil, false, spot...)
	if !ok {
		return
	}
	cost, moves, _, now, then := f.weigh(run)
	if then == nil || then.StockShort > now.StockShort {
		return // no post is that long
	}
	f.add(Way{ID: id, Name: name, Says: says, Minutes: minutes, Cost: cost, Moves: moves, Edits: append(spot, f.decided(id))})
}

// shallow leaves a hole less deep than planned, where frost does not reach under it.
func (f *finder) shallow(by length.Length) {
	foot := f.p.Foot - by
	if foot <= 0 {
		return
	}
	spot := f.spot(job.HoleRules{Depth: &foot}, job.SettingRules{})
	run, ok := f.without(nil, false, spot...)
	if !ok {
		return
	}
	cost, moves, then, _, _ := f.weigh(run)
	if then == nil {
		return
	}
	k := then.PostAt(f.post.ID)
	if k < 0 || then.Posts[k].Heaves && !f.p.Heaves {
		return
	}
	f.add(Way{ID: "shallow", Name: words.Say("amend.shallow", words.V{"post": f.p.Label, "foot": foot}), Says: words.Say("amend.shallow-says"), Cost: cost, Moves: moves, Edits: append(spot, f.decided("shallow")), last: true})
}

// width is a hole that is wider or narrower than planned.
func (f *finder) width() {
	width := f.p.HoleWidth + f.dev.By
	room := (width - f.Spec.PostOf(f.p.Kind).Across()) / 2
	if f.dev.By > 0 {
		f.deeper("fill", job.HoleRules{Width: &width}, job.SettingRules{}, 0, words.Say("amend.fill-width", words.V{"post": f.p.Label}), words.Say("amend.fill-width-says"))
		f.leave(words.Say("amend.form-says"))
		return
	}
	if room >= dig.LeastRoom-length.Tolerance {
		f.deeper("fill", job.HoleRules{Width: &width}, job.SettingRules{}, 0, words.Say("amend.narrow", words.V{"post": f.p.Label, "room": room}), nil)
	}
	dug := (hole(f.p.HoleWidth) - hole(width)).Times(f.p.HoleDepth)
	edits, _ := f.strike(job.WidthDug)
	f.add(Way{ID: "widen", Name: words.Say("amend.widen", words.V{"post": f.p.Label, "by": -f.dev.By}), Minutes: setMinutes/3 + 60*pour.HandHours(dug, f.Soil.Digging, f.Crew()), Edits: edits})
}

// stopped is a hole that was stopped: the ways out that the digging knows.
func (f *finder) stopped() {
	s := f.p.Stopped
	if s == nil {
		return
	}
	for _, w := range f.WaysOut(f.a, f.i) {
		way := Way{ID: w.ID, Name: w.Name, Says: w.Says, Edits: w.Edits, Cost: w.Cost, gust: w.Gust}
		if way.Cost == nil && w.Concrete != 0 && f.BagKnown {
			way.Cost = &finding.Cost{Concrete: w.Concrete, Bags: int(math.Ceil(float64(w.Concrete/f.Bag.Yield) - 1e-9))}
		}
		way.Minutes = 60 * pour.HandHours(w.Concrete, f.Soil.Digging, f.Crew())
		switch job.Settled(w.ID) {
		case job.SettledPinned:
			way.Minutes += breakMinutes
		}
		if w.ID == "moved" {
			way.Minutes += 60*f.holeHours() + setMinutes/3
			run, ok := f.without(nil, true, w.Edits...)
			if !ok {
				continue
			}
			if way.Cost, way.Moves, _, _, _ = f.weigh(run); way.Moves == nil {
				continue
			}
			gone, _ := f.strike(job.MarkDug, job.DepthDug) // it is dug elsewhere
			way.Edits = append(slices.Clone(way.Edits), gone...)
		}
		// What frost can lift, or wind tilts sooner than the hole that was planned, is no
		// sound way while there is another.
		way.last = !w.Frost || w.Gust < s.Planned*(1-weaker)
		f.add(way)
	}
}

// weaker is by how much a footing may be weaker than planned and still do.
const weaker = 0.02

// along is a post that stands off its mark along the fence.
func (f *finder) along() {
	by := f.dev.By
	if f.dev.State == record.Spaced {
		if f.hole() {
			by = f.offMark()
			f.shave(by, job.Landed, job.HoleRules{Along: &by})
		} else {
			f.push(job.Landed)
		}
		f.again()
		f.leave(words.Say("amend.leave-along"))
		return
	}
	if f.hole() {
		f.shave(by, job.Landed, job.HoleRules{Along: &by})
	} else {
		f.push(job.Landed)
	}
	if f.i == 0 || f.i == len(f.Posts)-1 {
		f.corner()
	} else {
		f.take()
		f.share()
		f.gate(by)
	}
	f.again()
	f.leave(words.Say("amend.leave-along"))
}

// offMark is how far the post is off the mark that it would have had it not landed.
func (f *finder) offMark() length.Length {
	_, gone := f.strike(job.Landed)
	run, ok := f.without(gone, false)
	if !ok {
		return 0
	}
	_, moves, _, _, _ := f.weigh(run)
	for _, m := range moves {
		if m.Post == f.post.ID {
			return m.From - m.To
		}
	}
	return 0
}

// side is one of the two bays beside the post.
type side struct {
	label string
	long  length.Length // over the longest piece that fits
	cut   bool
	piece length.Length
	span  length.Length
}

func (f *finder) side(b int) side {
	bay, s := &f.Bays[b], f.Spec.Spacing
	out := side{label: bay.Label, span: bay.CentreToCentre, cut: bay.PieceCut, piece: bay.Piece, long: bay.CentreToCentre - s.Regular(f.Spec.Post.Width, f.Spec.Post.Width)}
	if bay.Piece > 0 {
		out.long = bay.Piece - s.Piece
	}
	return out
}

// take takes the post as it stands: pack what is too long, cut what is too short, or take
// a longer rail.
func (f *finder) take() {
	var says reason.Text
	minutes, pack, cuts := 0.0, length.Length(0), 0
	long := -1
	for b := f.i - 1; b <= f.i; b++ {
		s := f.side(b)
		switch {
		case f.Bays[b].Gate != "":
			says = append(says, words.Say("amend.bay-gate", words.V{"bay": s.label, "inside": f.Bays[b].Clear})...)
		case s.long > *f.Tolerances.Bay+length.Tolerance:
			pack, long = max(pack, s.long), b
			minutes += packMinutes
			says = append(says, words.Say("amend.bay-pack", words.V{"bay": s.label, "long": s.long})...)
		case s.long > length.Tolerance:
			says = append(says, words.Say("amend.bay-little", words.V{"bay": s.label, "long": s.long})...)
		case s.cut:
			minutes, cuts = minutes+cutMinutes, cuts+1
			says = append(says, words.Say("amend.bay-cut", words.V{"bay": s.label, "piece": s.piece})...)
		default:
			says = append(says, words.Say("amend.bay-fits", words.V{"bay": s.label, "span": s.span})...)
		}
	}
	if cuts > 0 && !f.Can(job.CutWide) {
		return
	}
	if pack <= *f.Tolerances.Pack+length.Tolerance {
		way := Way{ID: "take", Name: words.Say("amend.take", words.V{"post": f.p.Label}), Says: says, Minutes: minutes}
		if pack > 0 {
			way.ID, way.Name = "pack", words.Say("amend.pack", words.V{"post": f.p.Label})
		}
		way.Edits = []job.Edit{f.decided(way.ID)}
		f.add(way)
	}
	if long < 0 {
		return
	}
	if stock, ok := f.longer(f.side(long).span); ok {
		f.add(Way{ID: "longer", Name: words.Say("amend.longer", words.V{"bay": f.Bays[long].Label, "stock": stock}), Says: words.Say("amend.longer-says"), Minutes: float64(max(1, f.Spec.Spacing.Rails)) * (cutMinutes + fetchMinutes), Edits: []job.Edit{f.decided("longer")}})
	}
}

// longer is the next length in which rails are sold that reaches over a bay.
func (f *finder) longer(span length.Length) (length.Length, bool) {
	var best length.Length
	for _, p := range f.Cat.Recipe(f.Spec.System, f.Job.Systems, f.Given.Parts) {
		if p.Kind != job.RailPart {
			continue
		}
		for _, l := range p.Stock {
			if l >= span+p.More-length.Tolerance && (best == 0 || l < best) {
				best = l
			}
		}
	}
	return best, best > 0
}

// share spaces the posts that are not dug yet again from this one.
func (f *finder) share() {
	held := f.Layout.Posts[f.i].Held
	if held == spacing.Nothing {
		return
	}
	own := f.Spec.FixedPosts[held]
	edit := f.Set(job.At("/fixedPosts", own.ID, "respace"), true)
	if own.Fact != "" { // the job holds no post there of its own
		edit = f.Set(job.At("/fixedPosts", own.ID), job.FixedPost{ID: own.ID, At: own.At, Respace: true})
	}
	run, ok := f.without(nil, false, edit)
	if !ok {
		return
	}
	cost, moves, then, now, out := f.weigh(run)
	if then == nil || len(moves) == 0 || out.Trouble > now.Trouble {
		return
	}
	longest := length.Length(0)
	regular := f.Spec.Spacing.Regular(f.Spec.Post.Width, f.Spec.Post.Width)
	for i := range then.Bays {
		if b := &then.Bays[i]; b.Gate == "" {
			over := b.CentreToCentre - regular
			if b.Piece > 0 {
				over = b.Piece - f.Spec.Spacing.Piece
			}
			longest = max(longest, over)
		}
	}
	if longest > *f.Tolerances.Pack+length.Tolerance {
		return
	}
	f.add(Way{ID: "share", Name: words.Say("amend.share", words.V{"count": len(moves)}), Says: words.Say("amend.share-says", words.V{"first": moves[0].Label, "most": furthest(moves)}), Cost: cost, Moves: moves,
		Minutes: 2 * float64(len(moves)), Edits: []job.Edit{edit, f.decided("share")}})
}

// gate moves a gate along with a post of it that stands off its mark, while its other
// post is not dug for.
func (f *finder) gate(by length.Length) {
	if f.p.Gate == "" {
		return
	}
	k := slices.IndexFunc(f.Given.Gates, func(g job.Gate) bool { return g.ID == f.p.Gate })
	if k < 0 {
		return
	}
	for i := range f.Posts {
		if o := &f.Posts[i]; i != f.i && o.Gate == f.p.Gate && slices.ContainsFunc(Standing(f.seen, o.ID), func(s job.Fact) bool {
			return s.What == job.Landed || s.What == job.DepthDug || s.What == job.MarkDug || s.What == job.MarkSet || s.What == job.MarkPoured || s.What == job.MarkBuilt
		}) {
			return
		}
	}
	edit := f.Set(job.At("/gates", f.p.Gate, "at"), f.Given.Gates[k].Asked().At+by)
	run, ok := f.without(nil, false, edit)
	if !ok {
		return
	}
	cost, moves, then, now, out := f.weigh(run)
	if then == nil || len(moves) == 0 || out.Trouble > now.Trouble {
		return
	}
	f.add(Way{ID: "gate", Name: words.Say("amend.move-gate", words.V{"by": by.Abs(), "way": stage.Heading(by)}), Says: words.Say("amend.share-says", words.V{"first": moves[0].Label, "most": furthest(moves)}),
		Cost: cost, Moves: moves, Minutes: 2 * float64(len(moves)), Edits: []job.Edit{edit, f.decided("gate")}})
}

// furthest is how far the post moves that moves most.
func furthest(moves []Move) (most length.Length) {
	for _, m := range moves {
		most = max(most, (m.To - m.From).Abs())
	}
	return most
}

// corner takes the end of a run where it stands: the run is so much longer or shorter.
func (f *finder) corner() {
	if f.i == 0 || f.Given.Length == nil || f.Given.Taped == job.TapedSlope {
		return
	}
	edit := f.Set("/length", f.Job.Units.Round(*f.Given.Length+f.dev.By))
	run, ok := f.without(nil, false, edit)
	if !ok {
		return
	}
	cost, moves, then, now, out := f.weigh(run)
	if then == nil || out.Trouble > now.Trouble {
		return
	}
	moves = slices.DeleteFunc(moves, func(m Move) bool { return m.Post == f.post.ID })
	says := words.Say("amend.corner-says")
	if f.p.Kind != job.CornerPost {
		says = words.Say("amend.end-says")
	}
	f.add(Way{ID: "corner", Name: words.Say("amend.corner", words.V{"post": f.p.Label, "length": *run.Length}), Says: says, Cost: cost, Moves: moves, Minutes: 2 * float64(len(moves)), Edits: []job.Edit{edit}})
}
