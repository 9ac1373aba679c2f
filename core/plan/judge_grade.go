package plan

import (
	"cmp"
	"fmt"
	"slices"

	"mallow/core/finding"
	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// judgeCorridor reports where both gaps cannot be held, once for the run, at
// the worst bay.
func (m *maker) judgeCorridor() {
	if m.line.Lost {
		m.find(finding.Finding{Rule: "line-not-found", Stage: finding.Grade, Severity: finding.Check,
			Says: reason.Say("The best top line of ", m.name(), " was not found: the calculation did not come to an end. The line shown is a possible one, perhaps with more earth than is needed. Hold a height by hand, or choose another look.")})
	}
	bays, worst, depth := 0, -1, length.Length(0)
	for i, b := range m.line.Bays {
		if m.out.Bays[i].Infill != nil && b.Cut == nil {
			continue // boards close it
		}
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
	t := m.out.Totals
	switch {
	case t.Cut > 0 && t.Fill > 0:
		says = append(says, reason.Say(". In all ", reason.Bulk(t.Cut), " to cut and ", reason.Bulk(t.Fill), " to fill.")...)
	case t.Cut > 0:
		says = append(says, reason.Say(". In all ", reason.Bulk(t.Cut), " of soil to cut.")...)
	default:
		says = append(says, reason.Say(". In all ", reason.Bulk(t.Fill), " of soil to fill.")...)
	}
	m.find(finding.Finding{Rule: "corridor", Stage: finding.Grade, Severity: finding.Check, Place: finding.Place{Bay: bayID(worst)},
		Says: says, Remedies: m.corridorRemedies(worst, depth)})
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

// mostRemedies is how many ways out are worth reading at once.
const mostRemedies = 6

// corridorRemedies tries each way out on this very run and offers those that
// move less earth, with what they come to.
func (m *maker) corridorRemedies(bay int, now length.Length) []finding.Remedy {
	t := &corridorTrials{maker: m, now: now}
	g := m.run.Grade
	if len(m.layout.Posts) > weighMost {
		t.gapMore()
		return t.out
	}
	t.letGo()
	t.otherLooks(bay)
	t.postMore(bay)
	if m.out.Bays[bay].Look == job.Stepped && m.line.Bays[bay].Fill != nil && (g.Infill == "" || g.Infill == job.EarthInfill) {
		t.boards(job.GravelBoards, "Close it with gravel boards")
		t.boards(job.CutBoards, "Close it with boards cut to the slope")
	}
	if len(m.run.Gates) > 0 && g.Across != job.GoesOn && m.out.Bays[bay].Look.Leans() {
		t.try(reason.Say("Let the tops go on over the gates"), func(r *job.Run) { r.Grade.Across = job.GoesOn }, m.set("/grade/across", job.GoesOn))
	}
	if g.Look != job.Level {
		most := m.job.Units.Round(m.run.Spacing.Most * 3 / 4)
		t.try(reason.Say("Bays of at most ", most), func(r *job.Run) { r.Spacing.Most = most }, m.set("/spacing/most", most))
	}
	t.gapMore()
	return t.out[:min(len(t.out), mostRemedies)]
}

// gapMore tries a corridor as wide as the ground asks.
func (t *corridorTrials) gapMore() {
	m, mark := t.maker, t.job.Units.SmallestMark
	gap := length.Length(int((m.run.Fence.GapMost+t.now)/mark)+1) * mark
	if gap <= 1500 {
		t.try(reason.Say("Let the gap grow to ", gap), func(r *job.Run) { r.Fence.GapMost = gap }, m.set("/fence/gapMost", gap))
	}
}

// corridorTrials collects the ways out that help.
type corridorTrials struct {
	*maker
	now length.Length
	out []finding.Remedy
}

// letGo tries the line without the heights that are held by hand.
func (t *corridorTrials) letGo() {
	m, g := t.maker, t.run.Grade
	if g.StartGap != nil || g.EndGap != nil {
		t.try(reason.Say("Let the string's ends go"), func(r *job.Run) { r.Grade.StartGap, r.Grade.EndGap = nil, nil },
			m.set("/grade/startGap", nil), m.set("/grade/endGap", nil))
	}
	if !slices.ContainsFunc(m.run.FixedPosts, func(f job.FixedPost) bool { return f.Gap != nil }) {
		return
	}
	free := slices.Clone(m.run.FixedPosts)
	for i := range free {
		free[i].Gap = nil
	}
	t.try(reason.Say("Let the heights of the grade posts go"), func(r *job.Run) { r.FixedPosts = free }, m.set("/fixedPosts", free))
}

// otherLooks tries the whole run in another look, and then only the bays
// around the bad one, where they are few.
func (t *corridorTrials) otherLooks(bay int) {
	m, g := t.maker, t.run.Grade
	names := map[job.Look]string{job.Raked: "Rake it", job.Stepped: "Step it", job.Level: "Make it level", job.Rolling: "Let it roll"}
	whole := len(g.Parts) == 0
	refused := m.looksRefused()
	for _, look := range []job.Look{job.Raked, job.Rolling, job.Stepped, job.Level} {
		if look != g.Look && whole && refused[look] == "" {
			t.try(reason.Say(names[look]), func(r *job.Run) { r.Grade.Look = look }, m.set("/grade/look", look))
		}
	}
	first, last := m.badAround(bay)
	if 3*(last-first+1) > len(m.line.Bays) {
		return
	}
	for _, look := range []job.Look{job.Raked, job.Stepped} {
		if look == m.out.Bays[bay].Look || refused[look] != "" {
			continue
		}
		name := map[job.Look]string{job.Raked: "Rake only ", job.Stepped: "Step only "}[look] + bayID(first)
		if last > first {
			name += " to " + bayID(last)
		}
		parts := m.withPart(first, last, look)
		t.try(reason.Say(name), func(r *job.Run) { r.Grade.Parts = parts }, m.set("/grade/parts", parts))
	}
}

// badAround is the stretch of bays with earth to move around a bay.
func (m *maker) badAround(bay int) (first, last int) {
	bad := func(i int) bool {
		return i >= 0 && i < len(m.line.Bays) && m.layout.Bays[i].Gate == spacing.NoGate && earth(m.line.Bays[i]) > 0
	}
	for first = bay; bad(first - 1); first-- {
	}
	for last = bay; bad(last + 1); last++ {
	}
	return first, last
}

// withPart is the run's parts with another look for some of its bays.
func (m *maker) withPart(first, last int, look job.Look) []job.LookPart {
	from, to := m.layout.Posts[m.layout.Bays[first].First].Station, m.layout.Posts[m.layout.Bays[last].First+1].Station
	return m.run.Grade.WithPart(job.LookPart{From: from, To: to, Look: look})
}

// postMore tries a post at the very hump, else at the hollow beside it, where
// the top may break; where a post stands there already, half way.
func (t *corridorTrials) postMore(bay int) {
	m, b := t.maker, t.line.Bays[bay]
	places := []length.Length{b.Most.At, b.Least.At}
	if b.Cut != nil && (b.Fill == nil || b.Cut.Depth >= b.Fill.Depth) || b.Least.Gap <= m.run.Fence.GapLeast+length.Tolerance && b.Cut == nil {
		places[0], places[1] = places[1], places[0] // the hump that holds the line up
	}
	from, to := m.layout.Posts[m.layout.Bays[bay].First].Station, m.layout.Posts[m.layout.Bays[bay].First+1].Station
	places = append(places, (from+to)/2)
	tried := len(t.out)
	for _, at := range places {
		at = m.job.Units.Round(at)
		if len(t.out) == tried && at > from+m.run.Post.Width && at < to-m.run.Post.Width {
			t.postAt(at)
		}
	}
}

func (t *corridorTrials) postAt(at length.Length) {
	m, id := t.maker, ""
	for n := 1; id == "" || slices.ContainsFunc(m.run.FixedPosts, func(f job.FixedPost) bool { return f.ID == id }); n++ {
		id = fmt.Sprintf("F%d", n)
	}
	posts := append(slices.Clone(m.run.FixedPosts), job.FixedPost{ID: id, At: at, Grade: true})
	slices.SortFunc(posts, func(a, b job.FixedPost) int { return cmp.Compare(a.At, b.At) })
	t.try(reason.Say("A post at ", reason.Tape(at)), func(r *job.Run) { r.FixedPosts = posts }, m.set("/fixedPosts", posts))
}

// boards closes triangles with boards instead of earth.
func (t *corridorTrials) boards(kind job.Infill, says string) {
	m, n := t.maker, 0
	for i := range m.out.Bays {
		at := m.layout.Bays[i].First
		if f := m.infill(m.out.Bays[i], kind, m.out.Posts[at], m.out.Posts[at+1]); f != nil {
			n += f.Boards
		}
	}
	if n == 0 {
		return
	}
	t.out = append(t.out, finding.Remedy{Says: reason.Say(says, ": ", n, plural(n, " board", " boards"), " of ", m.run.Grade.BoardHeight(m.job.Units)),
		Edits: []job.Edit{m.set("/grade/infill", kind)}})
}

// try weighs a change by the earth it leaves at worst.
func (t *corridorTrials) try(says reason.Text, change func(*job.Run), edits ...job.Edit) {
	m := t.maker
	run := m.run
	change(&run)
	if !m.sound(run) || !m.afford(run) {
		return
	}
	then := m.trial(run)
	then.rough = true
	alone := []*maker{then}
	gradeTogether(alone, nil, false)
	settle(alone, func() { gradeTogether(alone, nil, false) })
	layout, line := then.layout, then.line
	worst := length.Length(0)
	for _, b := range line.Bays {
		worst = max(worst, earth(b))
	}
	if worst > t.now-m.job.Units.SmallestMark {
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
	t.out = append(t.out, finding.Remedy{Says: says, Edits: edits})
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

// judgeRack reports panels that lean more than they can: past its rack limit
// a panel is stepped.
func (m *maker) judgeRack() {
	if m.run.Grade.Rack == nil {
		return
	}
	limit := *m.run.Grade.Rack
	// A sixty-fourth of an inch is no lean that a panel feels.
	let := limit + m.job.Units.SmallestMark/4
	bays, worst, lean := 0, -1, let
	first, last := -1, -1
	for i, b := range m.line.Bays {
		if m.layout.Bays[i].Gate == spacing.NoGate && b.Lean() > let {
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
	f := finding.Finding{Rule: "rack", Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Bay: bayID(worst)},
		Says: reason.Say(bays, plural(bays, " bay leans", " bays lean"), " more than the panel's rack of ", limit, "; ", bayID(worst), " the most, ", lean, ".")}
	if last-first+1 < len(m.line.Bays) {
		name := "Step only " + bayID(first)
		if last > first {
			name += " to " + bayID(last)
		}
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say(name), Edits: []job.Edit{m.set("/grade/parts", m.withPart(first, last, job.Stepped))}})
	}
	step := []job.Edit{m.set("/grade/look", job.Stepped)}
	if len(m.run.Grade.Parts) > 0 {
		step = append(step, m.set("/grade/parts", nil))
	}
	if limit > 0 {
		if most := m.job.Units.Round(m.run.Spacing.Most*limit/lean - m.job.Units.SmallestMark); most >= 300 && most < m.run.Spacing.Most {
			if _, piece := m.run.Spacing.ByPiece(); !piece {
				f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Bays of at most ", most, ", which lean less"), Edits: []job.Edit{m.set("/spacing/most", most)}})
			}
		}
	}
	mark := m.job.Units.SmallestMark
	enough := length.Length(int(lean/mark)+1) * mark
	f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Step all of it"), Edits: step},
		finding.Remedy{Says: reason.Say("Take panels that rack ", enough), Edits: []job.Edit{m.set("/grade/rack", enough)}})
	if !m.can(job.RackPanels) { // there are none of this fence type
		f.Remedies = f.Remedies[:len(f.Remedies)-1]
	}
	m.find(f)
}

// judgeSteps reports drops over the run's limit.
func (m *maker) judgeSteps() {
	most := m.run.Grade.StepMost
	if most == nil {
		return
	}
	count, worst := 0, -1
	for i := range m.out.Posts {
		d := m.out.Posts[i].Step.Abs()
		if m.out.Posts[i].Kind == job.GatePost || d <= *most+m.job.Units.SmallestMark/4 {
			continue
		}
		if count++; worst < 0 || d > m.out.Posts[worst].Step.Abs() {
			worst = i
		}
	}
	if worst < 0 {
		return
	}
	p := m.out.Posts[worst]
	mark := m.job.Units.SmallestMark
	f := finding.Finding{Rule: "step", Stage: finding.Grade, Severity: finding.Check, Place: finding.Place{Post: p.ID},
		Says: reason.Say("The top steps more than ", *most, " at ", count, plural(count, " post", " posts"), "; at ", p.ID, " the most, ", p.Step.Abs(), ".")}
	if m.school() != job.Gradual {
		f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Let the drops grow gradually"), Edits: []job.Edit{m.set("/grade/steps", job.Gradual)}})
	}
	enough := length.Length(int(p.Step.Abs()/mark)+1) * mark
	f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("Let it step ", enough), Edits: []job.Edit{m.set("/grade/stepMost", enough)}})
	m.find(f)
}

// judgeMarks looks for metal posts whose grade mark would go below ground.
func (m *maker) judgeMarks() {
	mark := m.run.Post.Mark
	if mark == nil {
		return
	}
	count, worst := 0, -1
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if min(p.RevealBefore, p.RevealAfter) >= *mark-length.Tolerance || p.Stays != "" {
			continue
		}
		if count++; worst < 0 || p.Reveal < m.out.Posts[worst].Reveal {
			worst = i
		}
	}
	if worst < 0 {
		return
	}
	p := m.out.Posts[worst]
	least := min(p.RevealBefore, p.RevealAfter)
	gap := m.job.Units.Round(m.run.Fence.GapLeast + *mark - least + m.job.Units.SmallestMark)
	f := finding.Finding{Rule: "grade-mark", Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
		Says: reason.Say("The grade mark, ", *mark, " under the post's top, would go below ground at ", count, plural(count, " post", " posts"), ": ", p.ID, " shows only ", least, ". It must stay above ground.")}
	if gap <= 1000 && gap <= m.run.Fence.GapMost {
		f.Remedies = []finding.Remedy{{Says: reason.Say("A least gap of ", gap), Edits: []job.Edit{m.set("/fence/gapLeast", gap)}}}
	}
	m.find(f)
}

// judgeRails looks for rails that would go into a post below the ground.
func (m *maker) judgeRails() {
	half := m.run.Fence.Rail(m.job.Units) / 2
	worst, low := -1, length.Length(0)
	for i := range m.out.Posts {
		if len(m.out.Posts[i].Holes) == 0 {
			continue
		}
		for _, side := range []*length.Length{m.out.Posts[i].Holes[0].Before, m.out.Posts[i].Holes[0].After} {
			if side != nil && (worst < 0 && *side < half || worst >= 0 && *side < low) {
				worst, low = i, *side
			}
		}
	}
	if worst < 0 {
		return
	}
	p := m.out.Posts[worst]
	up := half - low
	gap := m.job.Units.Round(m.run.Fence.GapLeast + up + m.job.Units.SmallestMark)
	f := finding.Finding{Rule: "rail-in-ground", Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
		Says: reason.Say("The lowest rail would go into ", p.ID, " ", up, " below where the ground allows: a hole must stay above ground.")}
	if gap <= m.run.Fence.GapMost {
		f.Remedies = []finding.Remedy{{Says: reason.Say("A least gap of ", gap), Edits: []job.Edit{m.set("/fence/gapLeast", gap)}}}
	}
	m.find(f)
}
