package space

import (
	"maps"
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/words"
)

// spaceCheck looks at where a run's posts stand.
type check struct {
	*Spacing
	*stage.Checking
}

// missing says what is still to be measured or chosen, first things first.
func (m *Spacing) Missing(c *stage.Checking) {
	w := check{m, c}
	w.unmeasured()
	w.offLevel()
}

// check says what is to be said of the run's posts and bays.
func (m *Spacing) Check(c *stage.Checking) {
	w := check{m, c}
	w.spacing()
	w.system()
}

// offLevel says which gates do not fit once a slope tape is reduced to level.
func (m *check) offLevel() {
	for i, g := range m.Given.Gates {
		if m.Laid() && !slices.Contains(m.GatePlaces, i) {
			m.Find(finding.Finding{Rule: codeGateOffLevel, Stage: finding.Walk, Severity: finding.Cannot, Place: finding.Place{Gate: g.ID},
				Says: words.Say("space.gate-off-level", words.V{"length": *m.Spec.Length, "at": g.At})})
		}
	}
}

// unmeasured asks for what the plan cannot do without, first things first.
func (m *check) unmeasured() {
	if m.Given.Length == nil {
		m.Find(finding.Finding{Rule: codeLengthMissing, Stage: finding.Walk, Severity: finding.Missing, Field: m.Path + "/length",
			Says: words.Say("space.length-missing")})
	}
	if m.Given.Assumed && m.Given.Length != nil {
		m.Find(finding.Finding{Rule: codeLengthAssumed, Stage: finding.Walk, Severity: finding.Check, Field: m.Path + "/length",
			Says: words.Say("space.length-assumed", words.V{"length": *m.Given.Length})}, func(*stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("space.it-was-taped", words.V{"length": *m.Given.Length}), Edits: []job.Edit{m.Set("/assumed", nil)}}}
		})
	}
	if !m.Ground.Measured {
		m.Find(finding.Finding{Rule: codeGroundMissing, Stage: finding.Walk, Severity: finding.Missing, Field: m.Path + "/ground",
			Says: words.Say("space.ground-missing")})
	}
	if !m.BagKnown {
		usual := *m.UsualRules.Setting.Bag
		m.Find(finding.Finding{Rule: codeBagUnknown, Stage: finding.Pour, Severity: finding.Cannot,
			Says: words.Say("space.bag-unknown", words.V{"bag": m.RunRules().Setting.Bag})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("space.take", words.V{"usual": usual}), Edits: []job.Edit{m.Set("/setting/bag", usual)}}}
		})
	}
}

// landed lists the bays that a post which landed off its mark changed,
// and what to do in each.
func (m *check) landed() {
	for i := range m.Layout.Posts {
		at := m.Layout.Posts[i]
		if i == 0 || i == len(m.Layout.Posts)-1 {
			continue
		}
		if at.Held == spacing.Nothing {
			m.gateStands(i)
			continue
		}
		held := m.Spec.FixedPosts[at.Held]
		if !held.Landed || held.Respace || at.Shift.Abs() <= m.Job.Units.SmallestMark/2 {
			continue
		}
		p := &m.Posts[i]
		severity := finding.Note
		says := words.Say("space.landed-of-its-mark", words.V{"post": p.Label, "shift": at.Shift.Abs(), "heading": stage.Heading(at.Shift)})
		for b := i - 1; b <= i; b++ {
			todo, work := advising{m.Spacing}.changedBay(&m.Bays[b])
			says = append(append(says, words.Say("space.blank")...), todo...)
			if work {
				severity = finding.Check
			}
		}
		m.Find(finding.Finding{Rule: codeLanded, Stage: finding.Space, Severity: severity, Place: finding.Place{Post: p.Label}, Says: says}, func(a *stage.Advising) []finding.Remedy {
			respace := m.Set(job.At("/fixedPosts", held.ID, "respace"), true)
			if held.Fact != "" { // the job holds no post there of its own
				respace = m.Set(job.At("/fixedPosts", held.ID), job.FixedPost{ID: held.ID, At: held.At, Respace: true})
			}
			return a.Offer(words.Say("space.space-the-rest-again-from"), stage.Anyway, respace)
		})
	}
}

// gateStands says what a gate's post that stands off its mark makes of the opening.
func (m *check) gateStands(i int) {
	at := m.Layout.Posts[i]
	if at.Gate == spacing.NoGate || at.Off.Abs() <= m.Job.Units.SmallestMark/2 {
		return
	}
	g := m.Spec.Gates[at.Gate]
	asked := g.Asked()
	f := finding.Finding{Rule: codeLanded, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: m.Posts[i].Label},
		Says: append(words.Say("space.landed-of-its-mark", words.V{"post": m.Posts[i].Label, "shift": at.Off.Abs(), "heading": stage.Heading(at.Off)}),
			words.Say("space.gate-stands", words.V{"gate": stage.GateName(g), "inside": g.Inside(), "asked": asked.Inside()})...)}
	m.Find(f, func(a *stage.Advising) []finding.Remedy {
		return a.Offer(words.Say("space.move", words.V{"gateName": stage.GateName(g), "by": at.Off.Abs(), "heading": stage.Heading(at.Off)}), stage.Anyway,
			job.Set(m.GatePath(at.Gate)+"/at", asked.At+at.Off))
	})
}

// oldPosts says which gates and ends are not where the old post stands that they
// are built onto: a gate's face is to be the old post's face.
func (m *check) oldPosts() {
	for i, at := range m.Layout.Posts {
		if at.Stays == spacing.Nothing || at.Kind == job.LinePost {
			continue
		}
		k := m.Spec.KeepOuts[at.Stays]
		off, remedies := k.At-at.Station, []finding.Remedy(nil)
		switch last := i == len(m.Layout.Posts)-1; {
		case at.Gate != spacing.NoGate:
			g := m.Spec.Gates[at.Gate]
			wide := (m.Posts[i].Width - m.Spec.PostOf(job.GatePost).Width) / 2
			if first, _ := m.Spec.GatePosts(g); !length.Same(first, at.Station) {
				wide = -wide
			}
			off += wide
			given := m.Given.Gates[at.Gate]
			remedies = []finding.Remedy{{Says: words.Say("space.gate-onto-old-post", words.V{"at": given.At + off}), Edits: []job.Edit{m.Set("/gates/"+g.ID+"/at", given.At+off)}}}
		case last && m.Given.Length != nil:
			remedies = []finding.Remedy{{Says: words.Say("space.run-to-old-post", words.V{"length": *m.Given.Length + off}), Edits: []job.Edit{m.Set("/length", *m.Given.Length+off)}}}
		}
		if off.Abs() <= m.Job.Units.SmallestMark+length.Tolerance {
			continue
		}
		m.Find(finding.Finding{Rule: codeOldPostOff, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: m.Posts[i].Label},
			Says: words.Say("space.old-post-off", words.V{"post": m.Posts[i].Label, "off": off.Abs()})}, func(*stage.Advising) []finding.Remedy { return remedies })
	}
}

// faces asks which face panels are on, where it makes a difference.
func (m *check) faces() {
	if m.Spec.Spacing.Way != job.PanelsOnFaces || m.Spec.Spacing.Face != "" || !m.Turned[0].Turns && !m.Turned[1].Turns {
		return
	}
	wide := m.Spec.PostOf(job.CornerPost).Width
	f := finding.Finding{Rule: codeWhichFace, Stage: finding.Space, Severity: finding.Note,
		Says: words.Say("space.which-face", words.V{"name": m.Name(), "wide": wide})}
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		for _, side := range []job.Side{job.Left, job.Right} {
			out = append(out, a.Offer(words.Say("space.on-the-walking-from", words.V{"side": string(side), "post": m.Posts[0].Label}), stage.Anyway, m.Set("/spacing/face", side))...)
		}
		return out
	})
}

func (m *check) spacing() {
	for i, s := range m.Layout.Segments {
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
	m.landed()
	m.faces()
	m.oldPosts()
}

// blocked says which demands a stretch could not meet, by how much, and what
// would free it.
func (m *check) blocked(segment int) {
	s := m.Layout.Segments[segment]
	b := s.Block
	what := reason.Text{}
	footings, hand := false, false
	for i, of := range b.Of {
		o, k := m.InTheWay[of], m.Spec.KeepOuts[of]
		if i > 0 {
			what = append(what, words.Say("space.comma")...)
		}
		what = append(what, words.Say("space.the-at", words.V{"thing": o.Said, "at": k.At})...)
		footings = footings || IsFooting(k)
		hand = hand || k.Kind == job.Service && k.Hand > 0 && !m.Spec.Spacing.HandDig
	}
	regular := m.Spec.Spacing.Most
	piece, byPiece := m.Spec.Spacing.ByPiece()
	if byPiece {
		regular = m.Spec.Spacing.Regular(m.Spec.Post.Width, m.Spec.Post.Width)
	}
	says := words.Say("space.with-in-the-way-no", words.V{"what": what, "from": b.From, "to": b.To, "long": b.To - b.From})
	switch {
	case b.To-b.From > regular:
		says = append(says, words.Say("space.the-longest-bay-is-too", words.V{"regular": regular, "to": b.To - b.From - regular})...)
	case byPiece:
		says = append(says, words.Say("space.bays-of-cannot-be-put", words.V{"piece": piece})...)
	default:
		says = append(says, words.Say("space.bays-between-and-cannot-be", words.V{"shortest": min(m.Spec.Spacing.Shortest(regular), regular), "regular": regular})...)
	}
	says = append(says, words.Say("space.it-is-planned-as-if")...)
	f := finding.Finding{Rule: codeBlocked, Stage: finding.Space, Severity: finding.Cannot, Place: finding.Place{Bay: m.BayLabel(m.FirstBay(segment))}, Says: says}
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if footings {
			out = append(out, m.Repour(a, b.Of)...)
			zero := length.Length(0)
			if spacing.Soil(m.Spec.Spacing) > 0 {
				out = append(out, a.Offer(words.Say("space.leave-no-firm-soil-between"), stage.Frees, m.Set("/spacing/soil", zero))...)
			}
		}
		if hand {
			out = append(out, a.Offer(words.Say("space.let-holes-stand-in-the"), stage.Frees, m.Set("/spacing/handDig", true))...)
		}
		out = append(out, advising{m.Spacing}.otherBays(a, b.Over)...)
		return out
	})
}

// sliver says that a stretch needs a bay under the least.
func (m *check) sliver(segment int) {
	s := m.Layout.Segments[segment]
	shortest, at := s.To-s.From, 0
	for i, b := range m.Layout.Bays {
		if b.Segment == segment && m.Bays[i].CentreToCentre <= shortest {
			shortest, at = m.Bays[i].CentreToCentre, i
		}
	}
	m.Find(finding.Finding{Rule: codeSliver, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Bay: m.BayLabel(at)},
		Says: words.Say("space.sliver", words.V{"bay": m.BayLabel(at), "width": shortest, "least": m.Spec.Spacing.Shortest(s.Regular), "stretch": s.To - s.From})}, func(a *stage.Advising) []finding.Remedy { return advising{m.Spacing}.otherBays(a, 0) })
}

// shifted tells which posts stand off their regular place, and why.
func (m *check) shifted(segment int) {
	s := m.Layout.Segments[segment]
	moved := map[int]string{} // posts by what they make way for
	hole := m.Opened(job.LinePost)
	for k, o := range m.InTheWay {
		if m.Spec.KeepOuts[k].Repour {
			continue
		}
		reach := hole + m.Beside(k)
		first, last := m.Near(o.From, o.To, reach+s.Shift)
		for i := first; i < last; i++ {
			p := m.Layout.Posts[i]
			if p.Segment == segment && p.Shift.Abs() > length.Tolerance && moved[i] == "" && Hits(o, p.Station-p.Shift, hole+2*m.Beside(k)) {
				moved[i] = o.Said
			}
		}
	}
	var posts []string
	of, several := "", false
	most := length.Length(0)
	for _, i := range slices.Sorted(maps.Keys(moved)) {
		posts, most = append(posts, m.PostLabel(i)), max(most, m.Layout.Posts[i].Shift.Abs())
		several = several || of != "" && of != moved[i]
		of = moved[i]
	}
	if len(posts) == 0 {
		return
	}
	if several {
		of = words.Plain("space.several-things")
	} else {
		of = words.Plain("space.the-thing", words.V{"thing": of})
	}
	m.Find(finding.Finding{Rule: codeShifted, Stage: finding.Space, Severity: finding.Note, Place: finding.Place{Post: posts[0]},
		Says: words.Say("space.shifted", words.V{"posts": stage.Names(posts), "count": len(posts), "most": most, "of": of, "odd": s.Odd, "regular": s.Regular})}, func(a *stage.Advising) []finding.Remedy { return advising{m.Spacing}.evenBays(a) })
}

// cutPieces tells which panels, boards or rails are cut, and how else what is
// left over could be dealt with.
func (m *check) cutPieces() {
	what, ok := m.Spec.Spacing.ByPiece()
	if !ok || m.Spec.Spacing.Remainder == job.RemainderInAll {
		return
	}
	var cut []string
	worst := -1
	for i := range m.Bays {
		if b := &m.Bays[i]; b.PieceCut {
			cut = append(cut, b.Label)
			if worst < 0 || b.Piece < m.Bays[worst].Piece {
				worst = i
			}
		}
	}
	if worst < 0 {
		return
	}
	b := m.Bays[worst]
	f := finding.Finding{Rule: codeCutPiece, Stage: finding.Space, Severity: finding.Note, Place: finding.Place{Bay: b.Label},
		Says: words.Say("space.cut-piece", words.V{"posts": stage.Names(cut), "count": len(cut), "what": what, "piece": b.Piece})}
	odd := m.Spec.Spacing.Remainder
	if odd == "" {
		odd = job.RemainderLast
	}
	better := func(now, then *stage.Outcome) bool { return then.Trouble <= now.Trouble }
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		for _, o := range []job.Remainder{job.RemainderLast, job.RemainderFirst, job.RemainderShared, job.RemainderInAll} {
			if o != odd && len(out) < 3 {
				does := better
				if o == job.RemainderShared { // a sliver of a remainder cannot be shared
					does = func(now, then *stage.Outcome) bool { return better(now, then) && then.Odd != now.Odd }
				}
				out = append(out, a.Offer(reason.Say(oddNames[o]), does, m.Set("/spacing/remainder", o))...)
			}
		}
		out = append(out, advising{m.Spacing}.gateForPiece(a, worst)...)
		return out
	})
}

// system holds the run against the fence system it was set up from: its
// limits and cautions hold whatever was changed since.
func (m *check) system() {
	if m.Spec.System == "" {
		return
	}
	_, ok := m.Cat.System(m.Spec.System, m.Job.Systems)
	if !ok {
		m.Find(finding.Finding{Rule: codeSystemUnknown, Stage: finding.Space, Severity: finding.Check,
			Says: words.Say("space.system-unknown", words.V{"system": m.Spec.System})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("space.forget-the-system-and-keep"), Edits: []job.Edit{m.Set("/system", nil)}}}
		})
		return
	}
}
