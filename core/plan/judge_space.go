package plan

import (
	"fmt"
	"maps"
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

func (m *maker) judgeSpacing() {
	for i, s := range m.layout.Segments {
		switch {
		case s.Block != nil && len(s.Block.Of) > 0:
			m.blocked(i)
		case s.Block != nil:
			m.sliver(i)
		case s.Odd > 0:
			m.shifted(i)
		}
	}
	m.cutPieces()
	m.judgeLanded()
	m.judgeFaces()
	if n := len(m.weak); n > 0 {
		m.find(finding.Finding{Rule: "weak-joints", Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: m.weak[0]},
			Says: reason.Say("Every rail has a joint on ", names(m.weak), ": nothing carries through there."),
			Remedies: m.offer(reason.Say("Rails that span two bays"), func(now, then *maker) bool { return len(then.weak) < len(now.weak) },
				func(r *job.Run) {
					r.Spacing.Piece, r.Spacing.Span = 2*m.run.Spacing.Piece/length.Length(m.run.Spacing.Spans()), 2
				},
				m.set("/spacing/piece", 2*m.run.Spacing.Piece/length.Length(m.run.Spacing.Spans())), m.set("/spacing/span", 2))})
	}
}

// firstBay is the first bay of a segment.
func (m *maker) firstBay(segment int) int {
	return slices.IndexFunc(m.layout.Bays, func(b spacing.Bay) bool { return b.Segment == segment })
}

// blocked says which demands a stretch could not meet, by how much, and what
// would free it.
func (m *maker) blocked(segment int) {
	s := m.layout.Segments[segment]
	b := s.Block
	what := reason.Text{}
	footings, hand := false, false
	for i, of := range b.Of {
		o, k := m.out.InTheWay[of], m.run.KeepOuts[of]
		if i > 0 {
			what = append(what, reason.Say(", ")...)
		}
		what = append(what, reason.Say("the ", o.said, " at ", reason.Tape(k.At))...)
		footings = footings || isFooting(k)
		hand = hand || k.Kind == job.Service && k.Hand > 0 && !m.run.Spacing.HandDig
	}
	regular := m.run.Spacing.Most
	piece, byPiece := m.run.Spacing.ByPiece()
	if byPiece {
		regular = m.run.Spacing.Regular(m.run.Post.Width, m.run.Post.Width)
	}
	says := reason.Say("With ", what, " in the way no hole fits from ", reason.Tape(b.From), " to ", reason.Tape(b.To), ", over ", b.To-b.From)
	switch {
	case b.To-b.From > regular:
		says = append(says, reason.Say("; the longest bay is ", regular, ", ", b.To-b.From-regular, " too short.")...)
	case byPiece:
		says = append(says, reason.Say("; bays of ", piece, " cannot be put together so.")...)
	default:
		says = append(says, reason.Say("; bays between ", min(m.run.Spacing.Shortest(regular), regular), " and ", regular, " cannot be put together so.")...)
	}
	says = append(says, reason.Say(" It is planned as if that were not there.")...)
	f := finding.Finding{Rule: "blocked", Stage: finding.Space, Severity: finding.Cannot, Place: finding.Place{Bay: bayID(m.firstBay(segment))}, Says: says}
	if footings {
		f.Remedies = append(f.Remedies, m.repour(b.Of)...)
		zero := length.Length(0)
		if spacing.Soil(m.run.Spacing) > 0 {
			f.Remedies = append(f.Remedies, m.offer(reason.Say("Leave no firm soil between a new hole and an old footing"), frees,
				func(r *job.Run) { r.Spacing.Soil = &zero }, m.set("/spacing/soil", zero))...)
		}
	}
	if hand {
		f.Remedies = append(f.Remedies, m.offer(reason.Say("Let holes stand in the hand-dig width, and dig those by hand"), frees,
			func(r *job.Run) { r.Spacing.HandDig = true }, m.set("/spacing/handDig", true))...)
	}
	f.Remedies = append(f.Remedies, m.otherBays(b.Over)...)
	m.find(f)
}

// otherBays are ways out by other bays: longer, shorter, or all equal.
func (m *maker) otherBays(over length.Length) []finding.Remedy {
	var out []finding.Remedy
	sp := m.run.Spacing
	regular := sp.Regular(m.run.Post.Width, m.run.Post.Width)
	if _, ok := sp.ByPiece(); ok {
		out = append(out, m.offer(reason.Say("Equal bays, every piece cut to fit"), frees,
			func(r *job.Run) { r.Spacing.Odd = job.OddAll }, m.set("/spacing/odd", job.OddAll))...)
	} else if over > 0 && sp.Most+over <= 10000 {
		most := sp.Most + over
		out = append(out, m.offer(reason.Say("Let a bay be as long as ", most), frees,
			func(r *job.Run) { r.Spacing.Most = most }, m.set("/spacing/most", most))...)
	}
	least := m.job.Units.Round(sp.Shortest(regular) / 2)
	if least > m.run.Post.Width && least >= 50 {
		out = append(out, m.offer(reason.Say("Let a bay be as short as ", least), frees,
			func(r *job.Run) { r.Spacing.Least = &least }, m.set("/spacing/least", least))...)
	}
	return out
}

// repour offers to dig out the old footings and pour them anew.
func (m *maker) repour(of []int) []finding.Remedy {
	var edits []job.Edit
	for _, i := range of {
		if isFooting(m.run.KeepOuts[i]) {
			edits = append(edits, job.Set(fmt.Sprintf("%s/keepOuts/%d/repour", m.path, i), true))
		}
	}
	if len(edits) == 0 {
		return nil
	}
	return m.offer(reason.Say("Dig out the old ", plural(len(edits), "footing", "footings"), " where a post falls on one, and pour wider"), frees,
		func(r *job.Run) {
			r.KeepOuts = slices.Clone(r.KeepOuts)
			for _, i := range of {
				if isFooting(r.KeepOuts[i]) {
					r.KeepOuts[i].Repour = true
				}
			}
		}, edits...)
}

// sliver says that a stretch needs a bay under the least.
func (m *maker) sliver(segment int) {
	s := m.layout.Segments[segment]
	shortest, at := s.To-s.From, 0
	for i, b := range m.layout.Bays {
		if b.Segment == segment && m.out.Bays[i].CentreToCentre <= shortest {
			shortest, at = m.out.Bays[i].CentreToCentre, i
		}
	}
	m.find(finding.Finding{Rule: "sliver", Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Bay: bayID(at)},
		Says:     reason.Say(bayID(at), " is only ", shortest, ": no bays of ", m.run.Spacing.Shortest(s.Regular), " or more fill ", s.To-s.From, "."),
		Remedies: m.otherBays(0)})
}

// shifted tells which posts stand off their regular place, and why.
func (m *maker) shifted(segment int) {
	s := m.layout.Segments[segment]
	moved := map[int]string{} // posts by what they make way for
	hole := m.opened(job.LinePost)
	for k, o := range m.out.InTheWay {
		if m.run.KeepOuts[k].Repour {
			continue
		}
		reach := hole + m.beside(k)
		first, last := m.near(o.From, o.To, reach+s.Shift)
		for i := first; i < last; i++ {
			p := m.layout.Posts[i]
			if p.Segment == segment && p.Shift.Abs() > length.Tolerance && moved[i] == "" && hits(o, p.Station-p.Shift, hole+2*m.beside(k)) {
				moved[i] = o.said
			}
		}
	}
	var posts []string
	var of string
	most := length.Length(0)
	for _, i := range slices.Sorted(maps.Keys(moved)) {
		posts, most = append(posts, postID(i)), max(most, m.layout.Posts[i].Shift.Abs())
		if of == "" {
			of = moved[i]
		} else if of != moved[i] {
			of = "what is in the way"
		}
	}
	if len(posts) == 0 {
		return
	}
	prefix := "the "
	if of == "what is in the way" {
		prefix = ""
	}
	m.find(finding.Finding{Rule: "shifted", Stage: finding.Space, Severity: finding.Note, Place: finding.Place{Post: posts[0]},
		Says: reason.Say(names(posts), plural(len(posts), " stands ", " stand up to "), most, " off ", plural(len(posts), "its regular place so that its hole misses ", "their regular places so that their holes miss "),
			prefix, of, ": ", s.Odd, plural(s.Odd, " bay differs", " bays differ"), " from ", s.Regular, "."),
		Remedies: m.evenBays()})
}

// beside is how far a hole must keep from a thing in the way.
func (m *maker) beside(k int) length.Length {
	o := m.run.KeepOuts[k]
	switch {
	case isFooting(o):
		return spacing.Soil(m.run.Spacing)
	case o.Kind == job.Service && !m.run.Spacing.HandDig:
		return o.Hand
	}
	return 0
}

var oddNames = map[job.Odd]string{
	job.OddLast: "One odd bay, at the far end", job.OddFirst: "One odd bay, at the start", job.OddAway: "One odd bay, away from the gate",
	job.OddShared: "Share it over two bays", job.OddAll: "All bays equal, every piece cut",
}

// cutPieces tells which panels, boards or rails are cut, and how else what is
// left over could be dealt with.
func (m *maker) cutPieces() {
	what, ok := m.run.Spacing.ByPiece()
	if !ok || m.run.Spacing.Odd == job.OddAll {
		return
	}
	var cut []string
	worst := -1
	for i := range m.out.Bays {
		if b := &m.out.Bays[i]; b.PieceCut {
			cut = append(cut, b.ID)
			if worst < 0 || b.Piece < m.out.Bays[worst].Piece {
				worst = i
			}
		}
	}
	if worst < 0 {
		return
	}
	b := m.out.Bays[worst]
	f := finding.Finding{Rule: "cut-piece", Stage: finding.Space, Severity: finding.Note, Place: finding.Place{Bay: b.ID},
		Says: reason.Say(names(cut), plural(len(cut), " takes ", " take "), plural(len(cut), what+" cut to ", "pieces cut, the shortest to "), b.Piece, ".")}
	odd := m.run.Spacing.Odd
	if odd == "" {
		odd = job.OddLast
	}
	better := func(now, then *maker) bool { return then.trouble() <= now.trouble() }
	for _, o := range []job.Odd{job.OddLast, job.OddFirst, job.OddShared, job.OddAll} {
		if o != odd && len(f.Remedies) < 3 {
			f.Remedies = append(f.Remedies, m.offer(reason.Say(oddNames[o]), better, func(r *job.Run) { r.Spacing.Odd = o }, m.set("/spacing/odd", o))...)
		}
	}
	f.Remedies = append(f.Remedies, m.gateForPiece(worst)...)
	m.find(f)
}

// gateForPiece offers to move a gate beside a stretch so that its cut piece
// becomes a full one.
func (m *maker) gateForPiece(bay int) []finding.Remedy {
	const little = 4 // a move of more than a quarter of a piece is another design
	segment := m.layout.Bays[bay].Segment
	short := m.layout.Segments[segment].Regular - m.out.Bays[bay].CentreToCentre
	over := -m.out.Bays[bay].CentreToCentre
	for _, by := range []length.Length{short, over} {
		if by.Abs() > m.run.Spacing.Piece/little {
			continue
		}
		for _, side := range []int{segment + 1, segment - 1} {
			if side < 0 || side >= len(m.layout.Segments) || m.layout.Segments[side].Gate == spacing.NoGate {
				continue
			}
			move := by
			if side < segment {
				move = -by
			}
			g := m.layout.Segments[side].Gate
			if r := m.moveGate(g, move, func(now, then *maker) bool {
				return then.out.Totals.CutPieces < now.out.Totals.CutPieces && then.trouble() <= now.trouble()
			}); r != nil {
				return r
			}
		}
	}
	return nil
}

// moveGate offers to move a gate along the run.
func (m *maker) moveGate(gate int, by length.Length, better func(now, then *maker) bool) []finding.Remedy {
	place := m.gates[gate]
	to := m.given.Gates[place].At + by
	return m.offer(reason.Say("Move ", gateName(m.run.Gates[gate]), " ", by.Abs(), " ", heading(by)), better,
		func(r *job.Run) {
			r.Gates = slices.Clone(r.Gates)
			r.Gates[place].At = to
		}, job.Set(m.gatePath(gate)+"/at", to))
}

// heading is which way along the run a move goes, in words.
func heading(by length.Length) string {
	if by > 0 {
		return "on"
	}
	return "back"
}

func gateName(g job.Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return "the gate"
}

// clearOf offers to move what holds a post that runs into something in the
// way: its gate, or the held post itself.
func (m *maker) clearOf(o InTheWay, post int) []finding.Remedy {
	at := m.layout.Posts[post]
	k := slices.IndexFunc(m.run.KeepOuts, func(k job.KeepOut) bool { return k.ID == o.ID })
	room := m.opened(at.Kind)/2 + m.beside(k)
	var out []finding.Remedy
	for _, by := range []length.Length{o.To + room - at.Station, o.From - room - at.Station} {
		by = m.outward(by)
		switch {
		case at.Gate != spacing.NoGate:
			out = append(out, m.moveGate(at.Gate, by, frees)...)
		case at.Held != spacing.Nothing && !m.run.FixedPosts[at.Held].Landed:
			to := m.run.FixedPosts[at.Held].At + by
			out = append(out, m.offer(reason.Say("Hold ", postID(post), " ", by.Abs(), " ", heading(by)), frees,
				func(r *job.Run) {
					r.FixedPosts = slices.Clone(r.FixedPosts)
					r.FixedPosts[at.Held].At = to
				}, m.set(fmt.Sprintf("/fixedPosts/%d/at", at.Held), to))...)
		}
	}
	if at.Held != spacing.Nothing && !m.run.FixedPosts[at.Held].Landed {
		rest := slices.Delete(slices.Clone(m.given.FixedPosts), at.Held, at.Held+1)
		out = append(out, m.offer(reason.Say("Let ", postID(post), " go, and space it with the rest"), frees,
			func(r *job.Run) { r.FixedPosts = rest }, m.set("/fixedPosts", rest))...)
	}
	out = append(out, m.shiftHole(o, post, room)...)
	if isFooting(m.run.KeepOuts[k]) && !m.run.KeepOuts[k].Repour {
		out = append(out, m.repour([]int{k})...)
	}
	return out
}

// shiftHole offers to dig a hole beside its post's middle, as far as enough
// concrete is left at the near side.
func (m *maker) shiftHole(o InTheWay, post int, room length.Length) []finding.Remedy {
	p := &m.out.Posts[post]
	if p.Card < 0 || p.Spot != "" || p.Driven || p.Shared != "" {
		return nil
	}
	c := &m.out.Cards[p.Card]
	give := (c.Width-c.Post)/2 - leastRoom - c.Along.Abs()
	for _, by := range []length.Length{o.To + room - p.Station - c.Along, o.From - room - p.Station - c.Along} {
		if by = m.outward(by); by.Abs() > give+length.Tolerance {
			continue
		}
		along := c.Along + by
		spot := job.Spot{ID: freeSpot(m.given.Spots), At: p.Station, Hole: job.HoleRules{Along: &along}}
		list := append(slices.Clone(m.given.Spots), spot)
		return m.offer(reason.Say("Shift only its hole ", by.Abs(), " ", heading(by)), frees,
			func(r *job.Run) { r.Spots = list }, m.set("/spots", list))
	}
	return nil
}

func freeSpot(list []job.Spot) string {
	for n := len(list) + 1; ; n++ {
		id := fmt.Sprintf("S%d", n)
		if !slices.ContainsFunc(list, func(s job.Spot) bool { return s.ID == id }) {
			return id
		}
	}
}

// outward rounds away from zero to the tape's next mark.
func (m *maker) outward(by length.Length) length.Length {
	mark := m.job.Units.SmallestMark
	n := length.Length(int64(by.Abs()/mark - 1e-6))
	if by < 0 {
		return -(n + 1) * mark
	}
	return (n + 1) * mark
}
