package slope

import (
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/space"
	"mallow/core/words"
)

// gradeCheck looks at how a run lies on its slope.
type check struct {
	*Slope
	*stage.Checking
}

// check says what is to be said of the run on its slope.
func (m *Slope) Check(c *stage.Checking) {
	w := check{m, c}
	w.corridor()
	w.rack()
	w.steps()
	w.marks()
	w.lowRails()
	w.weakJoints()
	w.misfits()
	w.system()
	w.nearBays()
	w.nearPanels()
}

// weakJoints looks for posts on which nothing carries through.
func (m *check) weakJoints() {
	if n := len(m.Weak); n > 0 {
		m.Find(finding.Finding{Rule: codeWeakJoints, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: m.Weak[0]},
			Says: words.Say("slope.weak-joints", words.V{"posts": stage.Names(m.Weak)})}, func(a *stage.Advising) []finding.Remedy {
			return a.Offer(words.Say("slope.rails-that-span-two-bays"), func(now, then *stage.Outcome) bool { return then.Weak < now.Weak }, m.Set("/spacing/piece", 2*m.Spec.Spacing.Piece/length.Length(m.Spec.Spacing.Spans())), m.Set("/spacing/span", 2))
		})
	}
}

// system holds the run's slope against the fence type it was set up from.
func (m *check) system() {
	sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems)
	if !ok || m.Spec.System == "" {
		return
	}
	if limit, own := sys.Grade.Rack, m.Spec.Grade.Rack; limit != nil && m.Spec.Grade.Look.Leans() && (own == nil || *own > *limit) {
		m.Find(finding.Finding{Rule: codeRackOverSystem, Stage: finding.Grade, Severity: finding.Check,
			Says: words.Say("slope.rack-over-system", words.V{"name": sys.Name, "limit": *limit})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("slope.rack-at-most", words.V{"limit": *limit}), Edits: []job.Edit{m.Set("/grade/rack", *limit)}}}
		})
	}
	if m.Spec.Fence.GapMost > sys.Fence.GapMost && sys.Fence.GapMost <= smallGap {
		m.Find(finding.Finding{Rule: codeGapOverSystem, Stage: finding.Grade, Severity: finding.Check,
			Says: words.Say("slope.gap-over-system", words.V{"name": sys.Name, "asked": sys.Fence.GapMost, "allowed": m.Spec.Fence.GapMost})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("slope.a-gap-of-at-most", words.V{"gapMost": sys.Fence.GapMost}), Edits: []job.Edit{m.Set("/fence/gapMost", sys.Fence.GapMost)}}}
		})
	}
}

// corridor reports where both gaps cannot be held, once for the run, at
// the worst bay.
func (m *check) corridor() {
	if m.Top.Lost {
		m.Find(finding.Finding{Rule: codeLineNotFound, Stage: finding.Grade, Severity: finding.Check,
			Says: words.Say("slope.line-not-found", words.V{"name": m.Name()})})
	}
	bays, worst, depth := 0, -1, length.Length(0)
	for i, b := range m.Top.Bays {
		if m.Bays[i].Infill != nil && b.Cut == nil {
			continue // boards close it
		}
		if d := Earth(b); d > 0 {
			bays++
			if d > depth {
				worst, depth = i, d
			}
		}
	}
	if bays == 0 {
		return
	}
	says := words.Say("slope.of-cannot-keep-the-gap", words.V{"bays": bays, "count": len(m.Top.Bays), "gapLeast": m.Spec.Fence.GapLeast, "gapMost": m.Spec.Fence.GapMost, "bay": m.BayLabel(worst)})
	b := m.Top.Bays[worst]
	if b.Cut != nil {
		says = append(says, words.Say("slope.cut-at", words.V{"depth": m.Job.Units.Dug(b.Cut.Depth), "at": b.Cut.At})...)
	}
	if b.Fill != nil {
		if b.Cut != nil {
			says = append(says, words.Say("slope.comma")...)
		}
		says = append(says, words.Say("slope.fill-at", words.V{"depth": m.Job.Units.Dug(b.Fill.Depth), "at": b.Fill.At})...)
	}
	t := m.Earth()
	switch {
	case t.Cut > 0 && t.Fill > 0:
		says = append(says, words.Say("slope.in-all-to-cut-and", words.V{"cut": t.Cut, "fill": t.Fill})...)
	case t.Cut > 0:
		says = append(says, words.Say("slope.in-all-of-soil-to", words.V{"cut": t.Cut})...)
	default:
		says = append(says, words.Say("slope.in-all-of-soil-to-2", words.V{"fill": t.Fill})...)
	}
	m.Find(finding.Finding{Rule: codeCorridor, Stage: finding.Grade, Severity: finding.Check, Place: finding.Place{Bay: m.BayLabel(worst)},
		Says: says}, func(a *stage.Advising) []finding.Remedy { return m.corridorRemedies(a, worst, depth) })
}

// rack reports panels that lean more than they can: past its rack limit
// a panel is stepped.
func (m *check) rack() {
	if m.Spec.Grade.Rack == nil {
		return
	}
	limit := *m.Spec.Grade.Rack
	// A sixty-fourth of an inch is no lean that a panel feels.
	let := limit + m.Job.Units.SmallestMark/4
	bays, worst, lean := 0, -1, let
	first, last := -1, -1
	for i, b := range m.Top.Bays {
		if m.Layout.Bays[i].Gate == spacing.NoGate && b.Lean() > let {
			if bays++; first < 0 {
				first = i
			}
			if last = i; b.Lean() > lean {
				worst, lean = i, b.Lean()
			}
		}
	}
	if worst < 0 {
		return
	}
	f := finding.Finding{Rule: codeRack, Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Bay: m.BayLabel(worst)},
		Says: words.Say("slope.rack", words.V{"bays": bays, "limit": limit, "bay": m.BayLabel(worst), "lean": lean})}
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if last-first+1 < len(m.Top.Bays) {
			out = append(out, finding.Remedy{Says: m.onlyBays(job.Stepped, first, last), Edits: []job.Edit{m.Set("/grade/parts", m.withPart(first, last, job.Stepped))}})
		}
		step := []job.Edit{m.Set("/grade/look", job.Stepped)}
		if len(m.Spec.Grade.Parts) > 0 {
			step = append(step, m.Set("/grade/parts", nil))
		}
		if limit > 0 {
			// The bays are as long as they came out, not as they may be.
			long := min(m.Spec.Spacing.Most, m.Bays[worst].CentreToCentre)
			if most := m.Job.Units.Round(long*limit/lean - m.Job.Units.SmallestMark); most >= 300 && most < long {
				if _, piece := m.Spec.Spacing.ByPiece(); !piece {
					out = append(out, finding.Remedy{Says: words.Say("slope.bays-of-at-most-which", words.V{"most": most}), Edits: []job.Edit{m.Set("/spacing/most", most)}})
				}
			}
		}
		mark := m.Job.Units.SmallestMark
		enough := length.Length(int(lean/mark)+1) * mark
		out = append(out, finding.Remedy{Says: words.Say("slope.step-all-of-it"), Edits: step},
			finding.Remedy{Says: words.Say("slope.take-panels-that-rack", words.V{"enough": enough}), Edits: []job.Edit{m.Set("/grade/rack", enough)}})
		if !m.Can(job.RackPanels) { // there are none of this fence type
			out = out[:len(out)-1]
		}
		return out
	})
}

// steps reports drops over the run's limit.
func (m *check) steps() {
	most := m.Spec.Grade.StepMost
	if most == nil {
		return
	}
	count, worst := 0, -1
	for i := range m.Posts {
		d := m.Posts[i].Step.Abs()
		if m.Posts[i].Kind == job.GatePost || d <= *most+m.Job.Units.SmallestMark/4 {
			continue
		}
		if count++; worst < 0 || d > m.Posts[worst].Step.Abs() {
			worst = i
		}
	}
	if worst < 0 {
		return
	}
	p := m.Posts[worst]
	mark := m.Job.Units.SmallestMark
	f := finding.Finding{Rule: codeStep, Stage: finding.Grade, Severity: finding.Check, Place: finding.Place{Post: p.Label},
		Says: words.Say("slope.step", words.V{"most": *most, "count": count, "post": p.Label, "step": p.Step.Abs()})}
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if m.stepping() != job.Gradual {
			out = append(out, finding.Remedy{Says: words.Say("slope.let-the-drops-grow-gradually"), Edits: []job.Edit{m.Set("/grade/steps", job.Gradual)}})
		}
		enough := length.Length(int(p.Step.Abs()/mark)+1) * mark
		out = append(out, finding.Remedy{Says: words.Say("slope.let-it-step", words.V{"enough": enough}), Edits: []job.Edit{m.Set("/grade/stepMost", enough)}})
		return out
	})
}

// marks looks for metal posts whose grade mark would go below ground.
func (m *check) marks() {
	mark := m.Spec.Post.Mark
	if mark == nil {
		return
	}
	count, worst := 0, -1
	for i := range m.Posts {
		p := &m.Posts[i]
		if min(p.AboveBefore, p.AboveAfter) >= *mark-length.Tolerance || p.Stays != "" {
			continue
		}
		if count++; worst < 0 || p.AboveGrade < m.Posts[worst].AboveGrade {
			worst = i
		}
	}
	if worst < 0 {
		return
	}
	p := m.Posts[worst]
	least := min(p.AboveBefore, p.AboveAfter)
	gap := m.Job.Units.Round(m.Spec.Fence.GapLeast + *mark - least + m.Job.Units.SmallestMark)
	f := finding.Finding{Rule: codeGradeMark, Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Post: p.Label},
		Says: words.Say("slope.grade-mark", words.V{"mark": *mark, "count": count, "post": p.Label, "least": least})}
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if gap <= 1000 && gap <= m.Spec.Fence.GapMost {
			out = []finding.Remedy{{Says: words.Say("slope.a-least-gap-of", words.V{"gap": gap}), Edits: []job.Edit{m.Set("/fence/gapLeast", gap)}}}
		}
		return out
	})
}

// lowRails looks for rails that would go into a post below the ground.
func (m *check) lowRails() {
	half := m.Spec.Fence.Rail(m.Job.Units) / 2
	worst, low := -1, length.Length(0)
	for i := range m.Posts {
		if len(m.Posts[i].Holes) == 0 {
			continue
		}
		for _, side := range []*length.Length{m.Posts[i].Holes[0].Before, m.Posts[i].Holes[0].After} {
			if side != nil && (worst < 0 && *side < half || worst >= 0 && *side < low) {
				worst, low = i, *side
			}
		}
	}
	if worst < 0 {
		return
	}
	p := m.Posts[worst]
	up := half - low
	gap := m.Job.Units.Round(m.Spec.Fence.GapLeast + up + m.Job.Units.SmallestMark)
	f := finding.Finding{Rule: codeRailInGround, Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Post: p.Label},
		Says: words.Say("slope.rail-in-ground", words.V{"post": p.Label, "up": up})}
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if gap <= m.Spec.Fence.GapMost {
			out = []finding.Remedy{{Says: words.Say("slope.a-least-gap-of", words.V{"gap": gap}), Edits: []job.Edit{m.Set("/fence/gapLeast", gap)}}}
		}
		return out
	})
}

// misfits says where no posts could be found on which leaning pieces fit.
func (m *check) misfits() {
	_, piece := m.Spec.Spacing.ByPiece()
	if !m.Spec.Leans() || piece && m.Spec.Spacing.Remainder == job.RemainderInAll {
		return
	}
	worst, over := -1, m.Misfit()
	for i := range m.Bays {
		b := &m.Bays[i]
		if b.Gate != "" || b.Held != "" || !b.Look.Leans() {
			continue
		}
		long := length.Length(0)
		switch {
		case !piece:
			long = b.CentreToCentre*length.Length(math.Hypot(1, float64(b.Lean/b.CentreToCentre))) - m.Spec.Spacing.Most
		case b.Piece > 0 && b.Trims == 0:
			long = b.Piece - m.Spec.Spacing.Piece
		}
		if slope := b.Lean / b.CentreToCentre; piece && slope.Abs() > space.SteepestLean {
			// Spaced as if it leaned no more than that, which it does.
			long = b.CentreToCentre * length.Length(math.Hypot(1, float64(slope))-math.Hypot(1, space.SteepestLean))
		}
		if long > over {
			worst, over = i, long
		}
	}
	if worst < 0 {
		return
	}
	b := &m.Bays[worst]
	m.Find(finding.Finding{Rule: codeLeanMisfit, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Bay: b.Label},
		Says: words.Say("slope.lean-misfit", words.V{"post": b.Label, "over": over})})
}

// smallGap is the most gap up to which a system's own is meant strictly: at a
// barrier, or over a gravel board.
const smallGap = 51

// How near is near.
const (
	nearBay  = 1 * length.Inch // of bay, over the most spacing
	nearPlay = 4 * length.Millimetre
)

// nearBays looks for stretches of equal bays that take a post more for an inch.
func (m *check) nearBays() {
	if _, piece := m.Spec.Spacing.ByPiece(); piece {
		return
	}
	for i, s := range m.Layout.Segments {
		if s.Bays < 2 || s.Block != nil || s.Held >= 0 || s.Gate >= 0 {
			continue
		}
		long := length.Length(0)
		for k := range m.Bays {
			if m.Layout.Bays[k].Segment == i {
				long += m.long(k, k+1)
			}
		}
		most := m.Up(long / length.Length(s.Bays-1))
		if over := most - m.Spec.Spacing.Most; over <= 0 || over > nearBay+length.Tolerance || most > 10000 {
			continue
		}
		m.Nearly(finding.Finding{Rule: codeNearBay, Stage: finding.Space, Place: finding.Place{Bay: m.Bays[m.FirstBay(i)].Label},
			Says: words.Say("slope.near-bay", words.V{"from": s.From, "to": s.To, "bays": s.Bays - 1, "over": most - m.Spec.Spacing.Most, "most": m.Spec.Spacing.Most})},
			func(now, then *stage.Outcome) bool { return then.Posts < now.Posts },
			stage.Change{Says: words.Say("slope.bays-of-up-to", words.V{"most": most}), Edits: []job.Edit{m.Set("/spacing/most", most)}})
		return
	}
}

// nearPanels looks for stretches where a little more or less play at each
// joint leaves no panel to cut.
func (m *check) nearPanels() {
	sp := m.Spec.Spacing
	if sp.Way != job.PanelsBetween || sp.Remainder == job.RemainderInAll {
		return
	}
	regular := sp.Regular(m.Spec.Post.Width, m.Spec.Post.Width)
	for i, s := range m.Layout.Segments {
		if s.Odd == 0 || s.Block != nil || s.Held >= 0 || s.Gate >= 0 {
			continue
		}
		n := math.Round(float64((s.To - s.From) / regular))
		if n < 1 {
			continue
		}
		by := ((s.To-s.From)/length.Length(n) - regular) / 2
		play := sp.Play + by
		if by.Abs() > nearPlay || play < 0 || play > 50 {
			continue
		}
		word, round := "more", length.Length(math.Ceil(float64(play*100)-1e-6)/100) // up, so that no sliver is left
		if by < 0 {
			word = "less"
		}
		m.Nearly(finding.Finding{Rule: codeNearPanel, Stage: finding.Space, Place: finding.Place{Bay: m.Bays[m.FirstBay(i)].Label},
			Says: words.Say("slope.near-panel", words.V{"from": s.From, "to": s.To, "by": by.Abs(), "word": word})},
			func(now, then *stage.Outcome) bool { return then.CutPieces < now.CutPieces },
			stage.Change{Says: words.Say("slope.play-of-at-each-joint", words.V{"play": play}), Edits: []job.Edit{m.Set("/spacing/play", round)}})
		return
	}
}
