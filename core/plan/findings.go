package plan

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

func (m *maker) find(f finding.Finding) {
	f.Place.Run = m.run.ID
	f.Remedies = slices.DeleteFunc(f.Remedies, func(r finding.Remedy) bool { return !m.watch.tell(r.Edits) })
	m.findings = append(m.findings, f)
}

func (m *maker) set(path string, value any) job.Edit { return job.Set(m.path+path, value) }

// missing asks for what the plan cannot do without, first things first.
func (m *maker) missing() {
	if m.run.Length == nil {
		m.find(finding.Finding{Rule: "length-missing", Stage: finding.Walk, Severity: finding.Missing, Field: m.path + "/length",
			Says: reason.Say("How long is the run, centre to centre of its end posts?")})
	}
	if !m.ground.Measured {
		m.find(finding.Finding{Rule: "ground-missing", Stage: finding.Walk, Severity: finding.Missing, Field: m.path + "/ground",
			Says: reason.Say("How does the ground fall? Without heights it is taken as level.")})
	}
	if !m.bagKnown {
		usual := *m.usualRules.Setting.Bag
		m.find(finding.Finding{Rule: "bag-unknown", Stage: finding.Pour, Severity: finding.Cannot,
			Says:     reason.Say("There is no bag called ", m.runRules().Setting.Bag, " in the catalogue, so bags are not counted."),
			Remedies: []finding.Remedy{{Says: reason.Say("Take ", usual), Edits: []job.Edit{m.set("/setting/bag", usual)}}}})
	}
}

// judge looks at the finished run.
func (m *maker) judge() {
	m.judgeShortSegments()
	m.judgeCorridor()
	m.judgeRack()
	m.judgeSteps()
	m.judgeMarks()
	m.judgeRails()
	m.judgeLeaves()
	m.judgeHoles()
	m.judgeStock()
}

// judgeShortSegments looks for posts so near a gate post that their holes
// meet, and for slivers of bay beside a gate.
func (m *maker) judgeShortSegments() {
	for i, s := range m.layout.Segments {
		span := s.To - s.From
		if s.Gate != spacing.NoGate || s.Held != spacing.Nothing || len(m.layout.Segments) == 1 || span >= m.run.Spacing.Most/3 {
			continue
		}
		first := m.firstPost(i)
		a, b := m.out.Posts[first], m.out.Posts[first+1]
		f := finding.Finding{Rule: "short-bay", Stage: finding.Space, Severity: finding.Check,
			Place:    finding.Place{Bay: bayID(first), Post: a.ID},
			Says:     reason.Say("The bay between ", a.ID, " and ", b.ID, " is only ", span, "."),
			Remedies: m.moveGates(i, span)}
		if span < (a.HoleWidth+b.HoleWidth)/2 {
			f.Rule, f.Severity = "holes-meet", finding.Cannot
			f.Says = reason.Say(a.ID, " and ", b.ID, " stand ", span, " apart: their holes, ", a.HoleWidth, " and ", b.HoleWidth, " wide, run into each other.")
		}
		m.find(f)
	}
}

func (m *maker) firstPost(segment int) int {
	for _, b := range m.layout.Bays {
		if b.Segment == segment {
			return b.First
		}
	}
	return 0
}

// moveGates offers to close a short segment, so that one post serves both
// ends, or to open it to a full bay, by moving a gate beside it.
func (m *maker) moveGates(segment int, span length.Length) []finding.Remedy {
	var out []finding.Remedy
	offer := func(gate int, by length.Length, says string) {
		if gate == spacing.NoGate {
			return
		}
		moved := m.run
		moved.Gates = append([]job.Gate(nil), m.run.Gates...)
		moved.Gates[gate].At += by
		if !m.sound(moved) {
			return
		}
		at := moved.Gates[gate].At
		out = append(out, m.offer(reason.Say("Move the gate ", by.Abs(), says), anyway,
			func(r *job.Run) {
				r.Gates = slices.Clone(r.Gates)
				r.Gates[m.gates[gate]].At = at
			}, job.Set(m.gatePath(gate)+"/at", at))...)
	}
	full := m.run.Spacing.Most - span
	if segment+1 < len(m.layout.Segments) {
		g := m.layout.Segments[segment+1].Gate
		offer(g, -span, ", so that one post serves both")
		offer(g, full, ", for a full bay")
	}
	if segment > 0 {
		g := m.layout.Segments[segment-1].Gate
		offer(g, span, ", so that one post serves both")
		offer(g, -full, ", for a full bay")
	}
	return out
}

// leastLeaf is the lowest leaf that is still a gate.
const leastLeaf = 300 * length.Millimetre

func (m *maker) judgeLeaves() {
	for _, g := range m.out.Gates {
		if g.Leaf < leastLeaf {
			m.find(finding.Finding{Rule: "leaf", Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Gate: g.ID},
				Says: reason.Say("Between its gap and the fence's top only ", g.Leaf, " are left for the leaf of ", label(g), ".")})
		}
	}
}

func label(g Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}

func (m *maker) judgeStock() {
	var longest *Post
	count := 0
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Stock == nil {
			count++
			if longest == nil || p.Needed > longest.Needed {
				longest = p
			}
		}
	}
	if longest == nil {
		return
	}
	top := length.Length(0)
	for _, l := range m.run.Post.Stock {
		top = max(top, l)
	}
	over := longest.Needed - top
	f := finding.Finding{Rule: "stock", Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: longest.ID},
		Says: reason.Say(count, plural(count, " post is", " posts are"), " longer than any stock; ", longest.ID, " the most: it needs ", longest.Needed, ", ", over, " over the longest, ", top, ".")}
	unit := length.Foot
	if m.job.Units.System == length.Metric {
		unit = 300
	}
	next := unit * length.Length(int((longest.Needed-length.Tolerance)/unit)+1)
	if next <= 12000 {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Order ", next, " posts"),
			Edits: []job.Edit{m.set("/post/stock", append(append([]length.Length(nil), m.run.Post.Stock...), next))}})
	}
	if lowered := m.job.Units.Round(m.run.Fence.Height - over - m.job.Units.SmallestMark); lowered >= 300 && m.runRules().Hole.Share == job.NoShare {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("A fence ", lowered, " high"), Edits: []job.Edit{m.set("/fence/height", lowered)}})
	}
	if m.run.Grade.Look == job.Level {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Step it"), Edits: []job.Edit{m.set("/grade/look", job.Stepped)}})
	}
	m.find(f)
}
