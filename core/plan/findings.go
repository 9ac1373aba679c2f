package plan

import (
	"reflect"
	"slices"

	"mallow/core/finding"
	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

func (m *maker) find(f finding.Finding) {
	f.Place.Run = m.run.ID
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
		usual := m.usual.Setting.Bag
		m.find(finding.Finding{Rule: "bag-unknown", Stage: finding.Pour, Severity: finding.Cannot,
			Says:     reason.Say("There is no bag called ", m.run.Setting.Bag, " in the catalogue, so bags are not counted."),
			Remedies: []finding.Remedy{{Says: reason.Say("Take ", usual), Edits: []job.Edit{m.set("/setting/bag", usual)}}}})
	}
}

// judge looks at the finished run.
func (m *maker) judge() {
	m.judgeShortSegments()
	m.judgeCorridor()
	m.judgeRack()
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
		if len(job.CheckRun("", moved, m.job.Units)) > 0 {
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

// judgeCorridor reports where both gaps cannot be held, once for the run, at
// the worst bay.
func (m *maker) judgeCorridor() {
	bays, worst, depth := 0, -1, length.Length(0)
	for i, b := range m.line.Bays {
		if d := earth(b); d > 0 {
			bays++
			if d > depth {
				worst, depth = i, d
			}
		}
	}
	if bays == 0 {
		return
	}
	says := reason.Say(bays, " of ", len(m.line.Bays), plural(len(m.line.Bays), " bay", " bays"), " cannot keep the gap between ", m.run.Fence.GapLeast, " and ", m.run.Fence.GapMost, ". Worst is ", bayID(worst), ": ")
	b := m.line.Bays[worst]
	if b.Cut != nil {
		says = append(says, reason.Say("cut ", b.Cut.Depth, " at ", reason.Tape(b.Cut.At))...)
	}
	if b.Fill != nil {
		if b.Cut != nil {
			says = append(says, reason.Say(", ")...)
		}
		says = append(says, reason.Say("fill ", b.Fill.Depth, " at ", reason.Tape(b.Fill.At))...)
	}
	m.find(finding.Finding{Rule: "corridor", Stage: finding.Grade, Severity: finding.Check, Place: finding.Place{Bay: bayID(worst)},
		Says: append(says, reason.Say(".")...), Remedies: m.corridorRemedies(depth)})
}

func earth(b grade.Bay) length.Length {
	d := length.Length(0)
	if b.Cut != nil {
		d += b.Cut.Depth
	}
	if b.Fill != nil {
		d += b.Fill.Depth
	}
	return d
}

// corridorRemedies tries each way out on this very run and offers those that
// move less earth, with what they come to.
func (m *maker) corridorRemedies(now length.Length) []finding.Remedy {
	var out []finding.Remedy
	try := func(says reason.Text, change func(*job.Run), edits ...job.Edit) {
		run := m.run
		change(&run)
		layout := m.layout
		if !reflect.DeepEqual(run.Spacing, m.run.Spacing) || lies(run) != lies(m.run) {
			layout = spacing.Lay(run, m.site(run))
		}
		line := grade.Solve(m.course(run, layout))
		worst := length.Length(0)
		for _, b := range line.Bays {
			worst = max(worst, earth(b))
		}
		if worst > now-m.job.Units.SmallestMark {
			return
		}
		says = append(says, reason.Say(": ")...)
		if worst <= length.Tolerance {
			says = append(says, reason.Say("no earth to move")...)
		} else {
			says = append(says, reason.Say(worst, " of earth at worst")...)
		}
		if more := len(layout.Posts) - len(m.layout.Posts); more > 0 {
			says = append(says, reason.Say(", ", more, plural(more, " more post", " more posts"))...)
		}
		if longest := longestReveal(m, layout, line); longest > m.job.Units.SmallestMark {
			says = append(says, reason.Say(", tallest post ", longest, " more")...)
		}
		out = append(out, finding.Remedy{Says: says, Edits: edits})
	}
	for _, look := range []job.Look{job.Raked, job.Stepped, job.Level} {
		if look == m.run.Grade.Look {
			continue
		}
		name := map[job.Look]string{job.Raked: "Rake it", job.Stepped: "Step it", job.Level: "Make it level"}[look]
		try(reason.Say(name), func(r *job.Run) { r.Grade.Look = look }, m.set("/grade/look", look))
	}
	if m.run.Grade.Look != job.Level {
		most := m.job.Units.Round(m.run.Spacing.Most * 3 / 4)
		try(reason.Say("Bays of at most ", most), func(r *job.Run) { r.Spacing.Most = most }, m.set("/spacing/most", most))
	}
	gap := m.run.Fence.GapMost + now
	gap = length.Length(int(gap/m.job.Units.SmallestMark)+1) * m.job.Units.SmallestMark
	if gap <= 1500 {
		try(reason.Say("Let the gap grow to ", gap), func(r *job.Run) { r.Fence.GapMost = gap }, m.set("/fence/gapMost", gap))
	}
	return out
}

// longestReveal returns how much taller the tallest post gets.
func longestReveal(m *maker, layout spacing.Layout, line grade.Line) length.Length {
	tallest := func(l spacing.Layout, tops []length.Length) length.Length {
		most := length.Length(0)
		for i, p := range l.Posts {
			most = max(most, tops[i]-m.profile.Height(p.Station))
		}
		return most
	}
	return tallest(layout, line.Tops) - tallest(m.layout, m.line.Tops)
}

func (m *maker) judgeRack() {
	if m.run.Grade.Rack == nil || m.run.Grade.Look != job.Raked {
		return
	}
	limit := *m.run.Grade.Rack
	bays, worst, lean := 0, -1, limit+length.Tolerance
	for i, b := range m.line.Bays {
		if m.layout.Bays[i].Gate == spacing.NoGate && b.Lean() > limit+length.Tolerance {
			bays++
			if b.Lean() > lean {
				worst, lean = i, b.Lean()
			}
		}
	}
	if worst < 0 {
		return
	}
	m.find(finding.Finding{Rule: "rack", Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Bay: bayID(worst)},
		Says: reason.Say(bays, plural(bays, " bay leans", " bays lean"), " more than the panel's rack of ", limit, "; ", bayID(worst), " the most, ", lean, "."),
		Remedies: []finding.Remedy{
			{Says: reason.Say("Step it"), Edits: []job.Edit{m.set("/grade/look", job.Stepped)}},
			{Says: reason.Say("Take panels that rack ", lean), Edits: []job.Edit{m.set("/grade/rack", lean)}},
		}})
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

func (m *maker) judgeHoles() {
	h := m.run.Hole
	if m.noAuger >= 0 {
		p := &m.out.Posts[m.noAuger]
		m.find(finding.Finding{Rule: "no-auger", Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
			Says: reason.Say("No auger in the list is ", p.HoleWidth, " wide: ", p.ID, " is dug by spade."),
			Remedies: []finding.Remedy{{Says: reason.Say("Add a ", p.HoleWidth, " auger"),
				Edits: []job.Edit{m.set("/hole/augers", append(append([]length.Length(nil), h.Augers...), p.HoleWidth))}}}})
	}
	if m.shallow >= 0 {
		p := &m.out.Posts[m.shallow]
		m.find(finding.Finding{Rule: "shallow", Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.ID},
			Says:     reason.Say("The depth set by hand, ", p.Foot, ", is less than the rules ask for at ", p.ID, ". Frost can lift it."),
			Remedies: []finding.Remedy{{Says: reason.Say("Go by the rules"), Edits: []job.Edit{m.set("/hole/depth", nil)}}}})
	}
	if m.dry >= 0 {
		p := &m.out.Posts[m.dry]
		m.find(finding.Finding{Rule: "no-concrete", Stage: finding.Pour, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
			Says:     reason.Say("The soil cover, ", m.run.Setting.Cover, ", reaches the foot of ", p.ID, ": no concrete is left."),
			Remedies: []finding.Remedy{{Says: reason.Say("Cover ", m.usual.Setting.Cover), Edits: []job.Edit{m.set("/setting/cover", m.usual.Setting.Cover)}}}})
	}
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
	if lowered := m.job.Units.Round(m.run.Fence.Height - over - m.job.Units.SmallestMark); lowered >= 300 && m.run.Hole.Share == job.NoShare {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("A fence ", lowered, " high"), Edits: []job.Edit{m.set("/fence/height", lowered)}})
	}
	if m.run.Grade.Look == job.Level {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Step it"), Edits: []job.Edit{m.set("/grade/look", job.Stepped)}})
	}
	m.find(f)
}
