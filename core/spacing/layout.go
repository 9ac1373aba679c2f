// Package spacing finds where the posts of a run stand.
//
// Fixed posts come first: the run's two ends, gate posts at their exact
// openings, posts that are held, posts that stay. Each stretch between two of
// them is then solved by itself (see Stretch).
package spacing

import (
	"math"
	"slices"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
)

// NoGate stands in Post.Gate and Bay.Gate where there is none; Nothing where
// any other list of the run has no part.
const (
	NoGate  = -1
	Nothing = -1
)

// Post is where a post stands.
type Post struct {
	Station length.Length
	Kind    job.PostKind
	Gate    int           // index of the run's gate that it carries, or NoGate
	Segment int           // segment that it ends or stands in
	Held    int           // index of the run's fixed post that it is, or Nothing
	Stays   int           // index of the keep-out that it is: an old post that stays; or Nothing
	Shift   length.Length // how far it stands off its regular place
	Off     length.Length // how far it landed off its mark
}

// Bay is the space between two neighbouring posts: the first and the one
// after it.
type Bay struct {
	First   int // index of its first post; the second follows
	Gate    int // index of the run's gate in it, or NoGate
	Held    int // index of the run's held bay that it is, or Nothing
	Segment int
	Odd     bool          // it is not the segment's regular bay
	Piece   length.Length // length of the panel, board or rail in it; 0 where none sets the bay
	Cut     bool          // the piece is cut from a full one
	Trims   int           // tongues to trim, of an overlapping rail
	Lead    length.Length // how far from its first post's middle the panel begins: at a corner
	Trail   length.Length // the same at its second post
}

// Segment is the stretch between two fixed posts.
type Segment struct {
	From, To length.Length
	Gate     int // index of the gate that it is, or NoGate
	Held     int // index of the held bay that it is, or Nothing
	Bays     int
	Regular  length.Length // the regular bay
	Odd      int           // bays of another length
	Uneven   length.Length // by how much the oddest departs
	Shift    length.Length // how far the farthest post is off its regular place
	Block    *Block        // what could not be met; Of counts the run's keep-outs
}

// Layout is every post and bay of a run, in order.
type Layout struct {
	Posts    []Post
	Bays     []Bay
	Segments []Segment
}

// Site is what Lay must know beside the run.
type Site struct {
	Hole       func(job.PostKind) length.Length // how wide the holes are
	Mark       length.Length                    // the tape's smallest mark
	Bay        length.Length                    // by how much one may be, and it is let go
	Pack       length.Length                    // by how much a bay may be too long for its piece, and be packed out
	Start, End Corner                           // how it meets the runs on either side
	Leans      []Lean                           // where the fence leans, in order; what is between is level
}

// Corner is how a run meets the one before or after it: the hand that the line
// turns to, or none where it goes straight on or ends.
type Corner struct {
	Turns bool
	To    job.Side // empty: not measured
}

// Count returns how few equal bays, none over most, fill a stretch. A stretch
// within Tolerance of a whole number of bays takes that number.
func Count(stretch, most length.Length) int {
	return max(1, int(math.Ceil(float64((stretch-length.Tolerance)/most))))
}

// fixed is a place where a post must stand, or two with a bay between.
type fixed struct {
	from, to                 length.Length
	gate, held, bay, staying int
}

// Lay lays out a run. The run has been checked: its length is known, what is
// fixed stands on it and not in each other's way. Where a gate post falls on
// an end post or on the post of the next gate, one post serves both.
func Lay(run job.Run, site Site) Layout {
	if len(run.Stood) > 0 {
		if l, ok := lay(run.AsAsked(), site); ok {
			return l
		}
		run.Stood = nil // there is no room for one beside what was planned: all of it is laid from where they stand
	}
	l, _ := lay(run, site)
	return l
}

func lay(run job.Run, site Site) (l Layout, ok bool) {
	w := layer{run: run, site: site, out: &l, soft: make([]bool, len(run.FixedPosts)), firm: make([]bool, len(run.Firm))}
	for i, p := range run.FixedPosts {
		w.soft[i] = p.Landed && !p.Respace
	}
	for k := 0; ; k++ {
		l = Layout{}
		w.lay()
		if w.stray(k < mostOneByOne) && w.landed(k < mostOneByOne) {
			break
		}
	}
	if !w.stood() {
		return l, false
	}
	w.pieces()
	return l, true
}

// stood moves posts of gates and held bays that stand off where they were asked
// for: only what is beside them changes. It is false where a neighbour is in
// the way.
func (w *layer) stood() bool {
	l := w.out
	for _, s := range w.run.Stood {
		k := slices.IndexFunc(l.Posts, func(p Post) bool { return p.Off == 0 && length.Same(p.Station, s.Mark) })
		if k <= 0 || k == len(l.Posts)-1 || s.At-l.Posts[k-1].Station < w.run.Post.Width || l.Posts[k+1].Station-s.At < w.run.Post.Width {
			return false
		}
		w.shift(k, s.At)
		l.Posts[k].Off = s.At - s.Mark
	}
	return true
}

// shift moves one post, and the ends of the two bays beside it.
func (w *layer) shift(k int, at length.Length) {
	l := w.out
	post := &l.Posts[k]
	by := at - post.Station
	post.Station, post.Shift = at, post.Shift+by
	if by.Abs() <= length.Tolerance {
		return
	}
	for b := k - 1; b <= k; b++ {
		s := &l.Segments[l.Bays[b].Segment]
		if s.Gate == NoGate && !l.Bays[b].Odd {
			l.Bays[b].Odd = true
			s.Odd++
		}
		if s.Gate == NoGate {
			s.Uneven, s.Shift = max(s.Uneven, by.Abs()), max(s.Shift, post.Shift.Abs())
		}
		if length.Same(s.From, at-by) {
			s.From = at
		}
		if length.Same(s.To, at-by) {
			s.To = at
		}
	}
}

func (w *layer) lay() {
	run, l := w.run, w.out
	if _, piece := run.Spacing.ByPiece(); piece {
		w.slant = newSlant(w.site.Leans, run.Spacing, run.Post.Width)
	} else {
		w.slant = newSlant(nil, run.Spacing, 0) // equal bays are equal over the level
	}
	w.shut = w.shutOut()
	end := *run.Length
	l.Posts = append(make([]Post, 0, Count(end, run.Spacing.Most)+16), w.post(0, job.EndPost))
	for _, f := range w.fixed() {
		if f.from > length.Tolerance && f.from-l.last().Station > length.Tolerance {
			w.fence(f.from)
		}
		switch {
		case f.gate != NoGate:
			l.last().Kind, l.last().Gate = job.GatePost, f.gate
			w.bay(f.to, Segment{Gate: f.gate, Held: Nothing})
			l.last().Kind, l.last().Gate = job.GatePost, f.gate
		case f.bay != Nothing:
			w.bay(f.to, Segment{Gate: NoGate, Held: f.bay})
		case f.held != Nothing:
			l.last().Held = f.held
		case f.staying != Nothing:
			l.last().Stays = f.staying
		}
	}
	if end-l.last().Station > length.Tolerance {
		w.fence(end)
	}
	if last := l.last(); last.Kind != job.GatePost {
		last.Kind = job.EndPost
	}
	w.staying()
}

// staying finds the old posts that stay and stand where a gate, an end or a post
// held by hand has one: they are that post. The others are laid out already.
func (w *layer) staying() {
	for i, k := range w.run.KeepOuts {
		if k.Kind != job.OldPost || !k.Stays {
			continue
		}
		best := Nothing
		for p := range w.out.Posts {
			off := (w.out.Posts[p].Station - k.At).Abs()
			if off <= w.run.Post.Width && (best == Nothing || off < (w.out.Posts[best].Station-k.At).Abs()) {
				best = p
			}
		}
		if best == Nothing {
			continue
		}
		if p := &w.out.Posts[best]; p.Stays == Nothing && (p.Kind != job.LinePost || p.Held != Nothing) {
			p.Stays = i
		}
	}
}

// stray tells whether every post that is dug or set stands where it is. Where a
// layout would have it elsewhere, it is held like any other from then on: what is
// dug is only noticed when something would move it.
func (w *layer) stray(oneByOne bool) bool {
	all := true
	for i, at := range w.run.Firm {
		if w.firm[i] || w.out.Stands(at) {
			continue
		}
		w.firm[i] = true
		w.stuck = append(w.stuck, at)
		if all = false; oneByOne {
			return false
		}
	}
	return all
}

// Stands tells whether a post stands at a station, to the millimetre to which stations
// are kept.
func (l *Layout) Stands(at length.Length) bool {
	i := sort.Search(len(l.Posts), func(i int) bool { return l.Posts[i].Station >= at-length.Millimetre })
	return i < len(l.Posts) && l.Posts[i].Station <= at+length.Millimetre
}

// landed moves the posts that landed off their mark to where they stand: only
// the bays beside each change, however long they get, which is for the crew to
// decide about. It is false where the post could not be told from another one,
// or would stand in it: then it is held like any other, and the rest is spaced
// again from it. One by one, as what is held may make room for the next; or all
// at once, where they are many.
func (w *layer) landed(oneByOne bool) bool {
	l := w.out
	all := true
	for i, p := range w.run.FixedPosts {
		if !w.soft[i] {
			continue
		}
		k := w.meant(p)
		if k < 0 || !w.lands(k, p.At) {
			if w.soft[i], all = false, false; oneByOne {
				return false
			}
			continue
		}
		post := &l.Posts[k]
		post.Held, post.Off = i, p.At-post.Station
		w.shift(k, p.At)
	}
	return all
}

// mostOneByOne is how many landed posts are held one by one.
const mostOneByOne = 24

// isFirm tells whether the post at a station is dug or set there.
func (w *layer) isFirm(at length.Length) bool {
	i := sort.Search(len(w.run.Firm), func(i int) bool { return w.run.Firm[i] >= at-length.Millimetre })
	return i < len(w.run.Firm) && w.run.Firm[i] <= at+length.Millimetre
}

// meant is the line post that a landed one was meant to be: the one at its
// mark, where that is known and nothing else took its place since; else the
// nearest to where it stands that is free to. None: -1.
func (w *layer) meant(p job.FixedPost) int {
	l := w.out
	free := func(i int) bool {
		o := &l.Posts[i]
		return o.Kind == job.LinePost && o.Held == Nothing && o.Stays == Nothing && o.Gate == NoGate && !w.isFirm(o.Station)
	}
	between := func(i int) bool { // so that it passes no other
		return i > 0 && i < len(l.Posts)-1 && p.At > l.Posts[i-1].Station && p.At < l.Posts[i+1].Station
	}
	best := -1
	for _, mark := range []length.Length{p.Mark, p.At} {
		i := sort.Search(len(l.Posts), func(i int) bool { return l.Posts[i].Station >= mark })
		for k := max(0, i-1); k <= min(i, len(l.Posts)-1); k++ {
			if free(k) && between(k) && (best < 0 || (l.Posts[k].Station-mark).Abs() < (l.Posts[best].Station-mark).Abs()) {
				best = k
			}
		}
		if best >= 0 {
			return best
		}
	}
	return best
}

// lands tells whether a post can stand at a station beside its neighbours.
func (w *layer) lands(k int, at length.Length) bool {
	l := w.out
	for b := k - 1; b <= k; b++ {
		if l.Bays[b].Held != Nothing || l.Bays[b].Gate != NoGate {
			return false
		}
	}
	return at-l.Posts[k-1].Station >= w.run.Post.Width && l.Posts[k+1].Station-at >= w.run.Post.Width
}

func (l *Layout) last() *Post { return &l.Posts[len(l.Posts)-1] }

// layer lays one run.
type layer struct {
	run   job.Run
	site  Site
	slant slant
	soft  []bool // fixed posts that landed, and move the post that is nearest
	firm  []bool // posts that are dug or set and are held
	stuck []length.Length
	shut  []Closed
	out   *Layout
}

func (w *layer) post(at length.Length, kind job.PostKind) Post {
	return Post{Station: at, Kind: kind, Gate: NoGate, Held: Nothing, Stays: Nothing, Segment: max(0, len(w.out.Segments)-1)}
}

// fixed lists what is fixed, in order of station.
func (w *layer) fixed() []fixed {
	var out []fixed
	none := fixed{gate: NoGate, held: Nothing, bay: Nothing, staying: Nothing}
	for i, g := range w.run.Gates {
		f := none
		f.gate = i
		f.from, f.to = w.run.GatePosts(g)
		out = append(out, f)
	}
	end := *w.run.Length
	for i, b := range w.run.HeldBays {
		if f := none; b.At+b.Width <= end+length.Tolerance { // a slope tape may have been longer
			f.bay, f.from, f.to = i, b.At, min(end, b.At+b.Width)
			out = append(out, f)
		}
	}
	for i, p := range w.run.FixedPosts {
		if f := none; p.At < end-length.Tolerance && !w.soft[i] {
			f.held, f.from, f.to = i, p.At, p.At
			out = append(out, f)
		}
	}
	clear := func(at length.Length) bool {
		for _, f := range out {
			if at > f.from-w.run.Post.Width && at < f.to+w.run.Post.Width {
				return false
			}
		}
		return at >= w.run.Post.Width && at <= end-w.run.Post.Width
	}
	for i, k := range w.run.KeepOuts {
		if f := none; k.Kind == job.OldPost && k.Stays && clear(k.At) {
			f.staying, f.from, f.to = i, k.At, k.At
			out = append(out, f)
		}
	}
	for _, at := range w.stuck {
		if f := none; clear(at) {
			f.from, f.to = at, at
			out = append(out, f)
		}
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].from < out[b].from })
	return out
}

// bay adds a segment of one bay that is what it is.
func (w *layer) bay(to length.Length, s Segment) {
	s.From, s.To, s.Bays = w.out.last().Station, to, 1
	s.Regular = s.To - s.From
	w.add(s, []length.Length{s.From, s.To})
}

// add appends a segment with its posts.
func (w *layer) add(s Segment, posts []length.Length) {
	l := w.out
	n := len(l.Segments)
	l.Segments = append(l.Segments, s)
	for i := 1; i < len(posts); i++ {
		bay := Bay{First: len(l.Posts) - 1, Gate: s.Gate, Held: s.Held, Segment: n}
		l.Bays = append(l.Bays, bay)
		l.Posts = append(l.Posts, w.post(posts[i], job.LinePost))
	}
}

// lead is how much longer the first bay of a stretch is than a regular one:
// a panel on the face begins half a post from a corner's middle, and a panel
// between posts meets a stouter one. Trail is the same for the last bay.
func (w *layer) lead(at length.Length) length.Length {
	s, start, end := w.run.Spacing, at <= length.Tolerance, at >= *w.run.Length-length.Tolerance
	post := w.run.PostOf(job.EndPost)
	switch s.Way {
	case job.PanelsOnFaces:
		corner := w.site.Start
		if end {
			corner = w.site.End
		}
		half, over := post.Width/2, length.Length(0)
		if start && s.Turning == job.Overlapping {
			over = s.Thickness
		}
		switch {
		case !start && !end:
		case corner.Turns && s.Face != "" && corner.To != "" && s.Face != corner.To:
			return -half - over // round the corner post's outer face
		case corner.Turns:
			return half + over // the inner face: the panels meet in the corner
		case s.Ends == job.WholePost:
			return -half
		}
	case job.PanelsBetween:
		if start || end || w.atGate(at) {
			return (post.Width - w.run.Post.Width) / 2
		}
	}
	return 0
}

func (w *layer) atGate(at length.Length) bool {
	for _, g := range w.run.Gates {
		if first, second := w.run.GatePosts(g); length.Same(first, at) || length.Same(second, at) {
			return true
		}
	}
	return false
}

// fence adds a segment of fence from the last post to a station.
func (w *layer) fence(to length.Length) {
	from := w.out.last().Station
	lead, trail := w.lead(from), w.lead(to)
	if to-from-lead-trail < w.run.Post.Width { // no room for the corners' share
		lead, trail = 0, 0
	}
	along, level := w.slant.Along, w.slant.Level
	start, end := along(from+lead), along(to-trail)
	q := w.stretch(start, end)
	long := w.stands(from, to, &q)
	a := Solve(q)
	a.Posts[len(a.Posts)-1] += long
	if a.Block != nil {
		a.Block.From, a.Block.To = level(a.Block.From), level(a.Block.To)
	}
	s := Segment{From: from, To: to, Gate: NoGate, Held: Nothing, Bays: len(a.Posts) - 1,
		Regular: a.Regular, Odd: a.Odd, Uneven: a.Uneven, Shift: a.Shift, Block: a.Block}
	if s.Bays == 1 {
		s.Regular = along(to) - along(from)
		if _, ok := w.run.Spacing.ByPiece(); ok && w.run.Spacing.Remainder != job.RemainderInAll {
			s.Regular = a.Regular
		}
	}
	first := len(w.out.Bays)
	for i := range a.Posts {
		a.Posts[i] = level(a.Posts[i])
	}
	a.Posts[0], a.Posts[s.Bays] = from, to
	w.add(s, a.Posts)
	last := len(w.out.Bays) - 1
	for i := first; i < len(w.out.Bays); i++ {
		b := &w.out.Bays[i]
		begins, ends := along(w.out.Posts[b.First].Station), along(w.out.Posts[b.First+1].Station)
		if i == first {
			begins = start
		}
		if i == last {
			ends = end
		}
		b.Odd = (ends-begins-s.Regular).Abs() > length.Tolerance && s.Bays > 1 || s.Bays == 1 && a.Odd > 0
		if p := &w.out.Posts[b.First+1]; i < last {
			p.Shift = p.Station - level(start+s.Regular*length.Length(i-first+1))
			if w.first(from, to) {
				p.Shift = p.Station - level(end-s.Regular*length.Length(last-i))
			}
		}
	}
}

// stands lets the bays of a stretch be as long as is let go, or one of them be packed
// out, where the stretch begins or ends at a post that was measured where it stands:
// nobody digs one more hole for an inch. It says by how much the last bay is longer.
func (w *layer) stands(from, to length.Length, q *Stretch) (long length.Length) {
	if !w.measured(from) && !w.measured(to) || len(q.Closed) > 0 {
		return 0
	}
	span := q.To - q.From
	n := max(1, math.Floor(float64((span+length.Tolerance)/q.Most)))
	over := span - q.Most*length.Length(n)
	switch {
	case over <= length.Tolerance:
	case over/length.Length(n) <= w.site.Bay+length.Tolerance:
		q.Most, q.Module = span/length.Length(n)+length.Tolerance, 0 // all of them equal
		q.Least = min(q.Least, q.Most)
	case over <= w.site.Pack+length.Tolerance:
		q.To -= over
		return over
	}
	return 0
}

// measured tells whether a post was measured to stand at a station, or is held there
// as it is dug or set: where that is is known to the millimetre.
func (w *layer) measured(at length.Length) bool {
	if slices.ContainsFunc(w.stuck, func(s length.Length) bool { return length.Same(s, at) }) {
		return true
	}
	if w.run.EndStands && at >= *w.run.Length-length.Tolerance {
		return true
	}
	return slices.ContainsFunc(w.run.FixedPosts, func(p job.FixedPost) bool { return p.Landed && length.Same(p.At, at) })
}

// first tells whether the remainder of a stretch goes to its start.
func (w *layer) first(from, to length.Length) bool {
	switch w.run.Spacing.Remainder {
	case job.RemainderFirst:
		return true
	case job.RemainderAway:
		before, after := length.Length(math.Inf(1)), length.Length(math.Inf(1))
		for _, g := range w.run.Gates {
			if g.At < from {
				before = min(before, from-g.At)
			} else if g.At > to {
				after = min(after, g.At-to)
			}
		}
		return after < before
	}
	return false
}

// stretch puts the question for one stretch, along the slope where pieces lie
// so.
func (w *layer) stretch(from, to length.Length) Stretch {
	s := w.run.Spacing
	q := Stretch{From: from, To: to, Most: s.Most, Mark: w.site.Mark}
	if _, ok := s.ByPiece(); !ok {
		// Rails of equal bays may be no longer along the slope than on the flat.
		q.Most /= steepest(w.site.Leans, from, to)
	} else {
		q.Most = s.Regular(w.run.Post.Width, w.run.Post.Width)
		if s.Remainder != job.RemainderInAll {
			q.Module = q.Most
		}
		q.RemainderFirst, q.Shared = w.first(from, to), s.Remainder == job.RemainderShared
	}
	q.Least = min(s.Shortest(q.Most), q.Most)
	for _, c := range w.shut {
		if c.To > from && c.From < to {
			q.Closed = append(q.Closed, c)
		}
	}
	return q
}

// shutOut lists where no line post can stand, along the slope where pieces lie
// so.
func (w *layer) shutOut() []Closed {
	out := make([]Closed, 0, len(w.run.KeepOuts))
	for i, k := range w.run.KeepOuts {
		if c, ok := w.closed(k); ok {
			c.From, c.To, c.Of = w.slant.Along(c.From), w.slant.Along(c.To), i
			out = append(out, c)
		}
	}
	return out
}

// yields are the things that can be dug out, if it comes to that; a pipe, a
// drain and a stretch where nobody digs cannot.
var yields = map[job.Obstacle]bool{job.Root: true, job.Rock: true, job.Footing: true, job.OldPost: true}

// usualSoil is the undisturbed soil between a new hole and an old footing.
const usualSoil = 100 * length.Millimetre

// closed is where no line post can stand because of a keep-out: it is the
// hole that must miss, not the post's centre.
func (w *layer) closed(k job.KeepOut) (Closed, bool) {
	beside := w.site.Hole(job.LinePost) / 2
	switch k.Kind {
	case job.Footing, job.OldPost:
		if k.Repour {
			return Closed{}, false
		}
		if !k.Stays {
			beside += Soil(w.run.Spacing)
		}
	case job.Service:
		if !w.run.Spacing.HandDig {
			beside += k.Hand
		}
	}
	return Closed{From: k.From() - beside, To: k.To() + beside, Yields: yields[k.Kind]}, true
}

// Soil is the undisturbed soil that is left beside an old footing.
func Soil(s job.Spacing) length.Length {
	if s.Soil != nil {
		return *s.Soil
	}
	return usualSoil
}

// pieces works out the panel, board or rail of each bay.
func (w *layer) pieces() {
	s := w.run.Spacing
	if _, ok := s.ByPiece(); !ok || s.Way == job.StockRails {
		return
	}
	l := w.out
	for i := range l.Bays {
		b := &l.Bays[i]
		if b.Gate != NoGate {
			continue
		}
		a, z := &l.Posts[b.First], &l.Posts[b.First+1]
		d := z.Station - a.Station
		lean := length.Length(Lean{Slope: float64(rise(w.site.Leans, a.Station, z.Station) / d)}.stretch())
		wide := func(p *Post) length.Length { return w.run.PostOf(p.Kind).Width }
		full := s.Piece
		switch s.Way {
		case job.PanelsBetween:
			b.Piece = (d - (wide(a)+wide(z))/2 - 2*s.Play + 2*s.Slot) * lean
		case job.PanelsOnFaces:
			b.Lead, b.Trail = w.lead(a.Station), w.lead(z.Station)
			b.Piece = (d - b.Lead - b.Trail) * lean
		case job.FixedModule:
			b.Piece = d * lean
		case job.OverlapRails:
			// A terminal is morticed half as deep: its tongue ends at the middle.
			b.Piece = d*lean + s.Overlap
			for _, p := range []*Post{a, z} {
				if p.Kind != job.LinePost {
					b.Piece -= s.Overlap / 2
					full -= s.Overlap / 2
					b.Trims++
				}
			}
		}
		b.Cut = b.Piece < full-max(length.Tolerance, w.site.Mark/2)
	}
}
