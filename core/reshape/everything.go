package reshape

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
	"strings"
)

// everything is all that lies along a run.
var everything = []lies{ground, gates, keepOuts, fixedPosts, heldBays, holes{overrides}, looks{parts}, laid, seen}

// ground: where a run is cut between two heights both parts get the height
// there, so that neither profile changes.
var ground = along[job.GroundPoint]{
	letter: "h", taped: true,
	list: func(r *job.Run) *[]job.GroundPoint { return &r.Ground },
	id:   func(g *job.GroundPoint) *string { return &g.ID },
	move: func(g *job.GroundPoint, by length.Length) { g.At = max(0, g.At+by) },
	turn: func(g *job.GroundPoint, end length.Length) { g.At = end - g.At },
	at:   func(g job.GroundPoint) length.Length { return g.At },
	between: func(p, g job.GroundPoint, at length.Length) job.GroundPoint {
		if p == g {
			return job.GroundPoint{At: at, Height: p.Height}
		}
		return job.GroundPoint{At: at, Height: p.Height + (g.Height-p.Height)*(at-p.At)/(g.At-p.At)}
	},
	cut: func(g job.GroundPoint, at length.Length) (first, second []job.GroundPoint) {
		if length.Same(g.At, at) {
			return []job.GroundPoint{g}, []job.GroundPoint{g}
		}
		return sides(g, g.At, at)
	},
	left:  func(g job.GroundPoint, end length.Length) []job.GroundPoint { return upTo(g, g.At, end) },
	again: func(last, g job.GroundPoint) bool { return g.At <= last.At+length.Tolerance },
}

// upTo keeps an entry at a place that is not past the run's end.
func upTo[T any](t T, at, end length.Length) []T {
	if at > end+length.Tolerance {
		return nil
	}
	return []T{t}
}

var gates = along[job.Gate]{
	letter: "G",
	list:   func(r *job.Run) *[]job.Gate { return &r.Gates },
	id:     func(g *job.Gate) *string { return &g.ID },
	move:   func(g *job.Gate, by length.Length) { g.At += by },
	turn:   func(g *job.Gate, end length.Length) { *g = g.Reversed(end) },
	cut:    func(g job.Gate, at length.Length) (first, second []job.Gate) { return sides(g, g.At, at) },
	bars: func(run job.Run, g job.Gate, at length.Length, u length.Units) error {
		if first, second := run.GatePosts(g); at > first+length.Tolerance && at < second-length.Tolerance {
			return refuse(words.Plain("reshape.is-in-the-opening-of", words.V{"at": u.Tape(at), "name": named(g.Name, g.ID), "first": u.Tape(first), "second": u.Tape(second)}))
		}
		return nil
	},
	over: func(run job.Run, g job.Gate, end length.Length, u length.Units) error {
		if _, second := run.GatePosts(g); second > end+length.Tolerance {
			return refuse(words.Plain("reshape.stands-to-past-a-run", words.V{"name": named(g.Name, g.ID), "second": u.Tape(second), "level": u.Tape(end)}))
		}
		return nil
	},
}

// keepOuts: what lies across a split is cut in two. A spot whose hand-dig width
// reaches over it stands in both parts.
var keepOuts = along[job.KeepOut]{
	letter: "K",
	list:   func(r *job.Run) *[]job.KeepOut { return &r.KeepOuts },
	id:     func(k *job.KeepOut) *string { return &k.ID },
	move:   func(k *job.KeepOut, by length.Length) { k.At += by },
	turn:   func(k *job.KeepOut, end length.Length) { k.At = end - k.At },
	cut: func(k job.KeepOut, at length.Length) (first, second []job.KeepOut) {
		switch {
		case k.To() <= at && k.At < at || k.To() <= at && k.Width > 0:
			return []job.KeepOut{k}, nil
		case k.From() >= at:
			return nil, []job.KeepOut{k}
		}
		a, b := k, k
		a.Width, b.Width = at-k.From(), k.To()-at
		a.At, b.At = (k.From()+at)/2, (k.To()+at)/2
		return []job.KeepOut{a}, []job.KeepOut{b}
	},
	over: func(_ job.Run, k job.KeepOut, end length.Length, u length.Units) error {
		if k.At > end+length.Tolerance {
			return refuse(words.Plain("reshape.something-in-the-way-at", words.V{"at": u.Tape(k.At), "level": u.Tape(end)}))
		}
		return nil
	},
}

// fixedPosts: a post held where the run is split is the corner post there from
// now on.
var fixedPosts = along[job.FixedPost]{
	letter: "F",
	list:   func(r *job.Run) *[]job.FixedPost { return &r.FixedPosts },
	id:     func(f *job.FixedPost) *string { return &f.ID },
	move:   func(f *job.FixedPost, by length.Length) { f.At += by },
	turn:   func(f *job.FixedPost, end length.Length) { f.At = end - f.At },
	cut: func(f job.FixedPost, at length.Length) (first, second []job.FixedPost) {
		if length.Same(f.At, at) {
			return nil, nil
		}
		return sides(f, f.At, at)
	},
	over: func(_ job.Run, f job.FixedPost, end length.Length, u length.Units) error {
		if f.At > end+length.Tolerance {
			return refuse(words.Plain("reshape.a-post-is-held-at", words.V{"at": u.Tape(f.At), "level": u.Tape(end)}))
		}
		return nil
	},
}

var heldBays = along[job.HeldBay]{
	letter: "H",
	list:   func(r *job.Run) *[]job.HeldBay { return &r.HeldBays },
	id:     func(h *job.HeldBay) *string { return &h.ID },
	move:   func(h *job.HeldBay, by length.Length) { h.At = max(0, h.At+by) },
	turn:   func(h *job.HeldBay, end length.Length) { h.At = end - h.At - h.Width },
	cut: func(h job.HeldBay, at length.Length) (first, second []job.HeldBay) {
		if h.At+h.Width <= at+length.Tolerance {
			return []job.HeldBay{h}, nil
		}
		return nil, []job.HeldBay{h}
	},
	bars: func(_ job.Run, h job.HeldBay, at length.Length, u length.Units) error {
		if at > h.At+length.Tolerance && at < h.At+h.Width-length.Tolerance {
			return refuse(words.Plain("reshape.is-in-the-held-bay", words.V{"at": u.Tape(at), "name": named(h.Name, h.ID), "from": u.Tape(h.At), "to": u.Tape(h.At + h.Width)}))
		}
		return nil
	},
	over: func(_ job.Run, h job.HeldBay, end length.Length, u length.Units) error {
		if h.At+h.Width > end+length.Tolerance {
			return refuse(words.Plain("reshape.the-held-bay-reaches-to", words.V{"name": named(h.Name, h.ID), "at": u.Tape(h.At + h.Width), "level": u.Tape(end)}))
		}
		return nil
	},
}

// overrides: a single hole where the run is split is the corner post's, which
// is dug with the first part.
var overrides = along[job.HoleOverride]{
	letter: "S",
	list:   func(r *job.Run) *[]job.HoleOverride { return &r.Overrides },
	id:     func(s *job.HoleOverride) *string { return &s.ID },
	move:   func(s *job.HoleOverride, by length.Length) { s.At += by },
	turn:   func(s *job.HoleOverride, end length.Length) { s.At, s.Hole = max(0, end-s.At), turned(s.Hole) },
	cut: func(s job.HoleOverride, at length.Length) (first, second []job.HoleOverride) {
		if s.At <= at+length.Tolerance {
			return []job.HoleOverride{s}, nil
		}
		return nil, []job.HoleOverride{s}
	},
	left: func(s job.HoleOverride, end length.Length) []job.HoleOverride { return upTo(s, s.At, end) },
	at:   func(s job.HoleOverride) length.Length { return s.At },
}

// laid are the posts of the last layout, so that they keep their names. The
// one at a corner belongs to the run that ends there.
var laid = along[job.Laid]{
	letter: "p", near: length.Millimetre,
	list: func(r *job.Run) *[]job.Laid { return &r.Laid },
	id:   func(p *job.Laid) *string { return &p.ID },
	move: func(p *job.Laid, by length.Length) { p.At = max(0, p.At+by) },
	turn: func(p *job.Laid, end length.Length) { p.At, p.By = max(0, end-p.At), otherEnd(p.By) },
	at:   func(p job.Laid) length.Length { return p.At },
	cut: func(p job.Laid, at length.Length) (first, second []job.Laid) {
		if p.At <= at+length.Millimetre {
			return []job.Laid{p}, nil
		}
		return nil, []job.Laid{p}
	},
}

// otherEnd is what a post stands by, walking the run the other way.
func otherEnd(by string) string {
	switch rest, first := strings.CutSuffix(by, "/first"); {
	case by == "start":
		return "end"
	case by == "end":
		return "start"
	case first:
		return rest + "/second"
	}
	if rest, second := strings.CutSuffix(by, "/second"); second {
		return rest + "/first"
	}
	return by
}

// seen are the facts with a station. They are never dropped.
var seen = along[job.Fact]{
	letter: "f",
	list:   func(r *job.Run) *[]job.Fact { return &r.Seen },
	id:     func(f *job.Fact) *string { return &f.ID },
	move:   func(f *job.Fact, by length.Length) { f.At = ptr(max(0, *f.At+by)) },
	turn: func(f *job.Fact, end length.Length) {
		f.At = ptr(max(0, end-*f.At))
		if f.Handed() {
			f.Turned = !f.Turned
		}
	},
	at: func(f job.Fact) length.Length { return *f.At },
	cut: func(f job.Fact, at length.Length) (first, second []job.Fact) {
		if *f.At <= at+length.Tolerance {
			return []job.Fact{f}, nil
		}
		return nil, []job.Fact{f}
	},
	over: func(_ job.Run, f job.Fact, end length.Length, u length.Units) error {
		if f.What == job.Landed && !f.Void && *f.At > end+length.Tolerance {
			return refuse(words.Plain("reshape.a-post-is-held-at", words.V{"at": u.Tape(*f.At), "level": u.Tape(end)}))
		}
		return nil
	},
}

// holes are the single holes, and the rules of holes that lie off their posts:
// from the other end ahead is behind, and left is right.
type holes struct{ along[job.HoleOverride] }

func (h holes) reverse(run *job.Run, end station) {
	run.Hole = turned(run.Hole)
	kinds := append([]job.KindRules(nil), run.Kinds...)
	for i := range kinds {
		kinds[i].Hole = turned(kinds[i].Hole)
	}
	run.Kinds = kinds
	h.along.reverse(run, end)
}

func turned(h job.HoleRules) job.HoleRules {
	if h.Along != nil {
		h.Along = ptr(-*h.Along)
	}
	if h.Across != nil {
		h.Across = ptr(-*h.Across)
	}
	return h
}

var parts = along[job.LookPart]{
	letter: "a",
	list:   func(r *job.Run) *[]job.LookPart { return &r.Grade.Parts },
	id:     func(p *job.LookPart) *string { return &p.ID },
	move:   func(p *job.LookPart, by length.Length) { p.From, p.To = max(0, p.From+by), p.To+by },
	turn: func(p *job.LookPart, end length.Length) {
		p.From, p.To = max(0, end-p.To), max(0, end-p.From)
	},
	cut: func(p job.LookPart, at length.Length) (first, second []job.LookPart) {
		if before := p; before.From < at-length.Tolerance {
			before.To = min(before.To, at)
			first = append(first, before)
		}
		if after := p; after.To > at+length.Tolerance {
			after.From = max(at, after.From)
			second = append(second, after)
		}
		return first, second
	},
	left: func(p job.LookPart, end length.Length) []job.LookPart {
		if p.To = min(p.To, end); p.To <= p.From+length.Tolerance {
			return nil
		}
		return []job.LookPart{p}
	},
}

// looks are the parts with a look of their own, and the heights held at a
// run's ends.
type looks struct{ along[job.LookPart] }

func (l looks) bare(run *job.Run) {
	l.along.bare(run)
	run.Grade.StartGap, run.Grade.EndGap = nil, nil
}

func (l looks) split(run job.Run, first, second *job.Run, at station) {
	first.Grade.EndGap, second.Grade.StartGap = nil, nil
	for _, f := range run.FixedPosts {
		if length.Same(f.At, at.level) { // the corner post there from now on
			first.Grade.EndGap, second.Grade.StartGap = f.Gap, f.Gap
		}
	}
	l.along.split(run, first, second, at)
}

// join carries the second run's looks on. Where its own look or height is another
// one, it becomes a part.
func (l looks) join(into *job.Run, second job.Run, by, end station) {
	g := into.Grade
	g.EndGap = second.Grade.EndGap
	g.Parts = nil
	for _, p := range into.Grade.Parts { // nothing of the first reaches into the second
		if p.To = min(p.To, by.level); p.To > p.From {
			g.Parts = append(g.Parts, p)
		}
	}
	over := job.LookPart{From: by.level, To: end.level, Look: second.Grade.Look}
	if !length.Same(second.Fence.Height, into.Fence.Height) {
		over.Height = &second.Fence.Height
	}
	g.Parts = g.WithPart(over)
	for _, p := range second.Grade.Parts {
		p.From, p.To = p.From+by.level, min(p.To+by.level, end.level)
		g.Parts = g.WithPart(p)
	}
	into.Grade = g
}

func (l looks) reverse(run *job.Run, end station) {
	g := &run.Grade
	g.StartGap, g.EndGap = g.EndGap, g.StartGap
	l.along.reverse(run, end)
}
