package slope

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
	"mallow/core/stage"
	"mallow/core/stage/space"
)

// mostRemedies is how many ways out are worth reading at once.
const mostRemedies = 6

// corridorRemedies tries each way out on this very run and offers those that
// move less earth, with what they come to.
func (m *Slope) corridorRemedies(a *stage.Advising, bay int, now length.Length) []finding.Remedy {
	t := &corridorTrials{Slope: m, now: now}
	g := m.Spec.Grade
	if len(m.Layout.Posts) > stage.WeighMost {
		t.gapMore(a)
		return t.out
	}
	t.letGo(a)
	t.otherLooks(a, bay)
	t.postMore(a, bay)
	if m.Bays[bay].Look == job.Stepped && m.Top.Bays[bay].Fill != nil && (g.Infill == "" || g.Infill == job.EarthInfill) {
		t.boards(a, job.GravelBoards, "Close it with gravel boards")
		t.boards(a, job.CutBoards, "Close it with boards cut to the slope")
	}
	if len(m.Spec.Gates) > 0 && g.Across != job.GoesOn && m.Bays[bay].Look.Leans() {
		t.try(a, reason.Say("Let the tops go on over the gates"), m.Set("/grade/across", job.GoesOn))
	}
	if g.Look != job.Level {
		most := m.Job.Units.Round(m.Spec.Spacing.Most * 3 / 4)
		t.try(a, reason.Say("Bays of at most ", most), m.Set("/spacing/most", most))
	}
	t.gapMore(a)
	return t.out[:min(len(t.out), mostRemedies)]
}

// gapMore tries a corridor as wide as the ground asks.
func (t *corridorTrials) gapMore(a *stage.Advising) {
	m, mark := t.Slope, t.Job.Units.SmallestMark
	gap := length.Length(int((m.Spec.Fence.GapMost+t.now)/mark)+1) * mark
	if gap <= 1500 {
		t.try(a, reason.Say("Let the gap grow to ", gap), m.Set("/fence/gapMost", gap))
	}
}

// corridorTrials collects the ways out that help.
type corridorTrials struct {
	*Slope
	now length.Length
	out []finding.Remedy
}

// letGo tries the line without the heights that are held by hand.
func (t *corridorTrials) letGo(a *stage.Advising) {
	m, g := t.Slope, t.Spec.Grade
	if g.StartGap != nil || g.EndGap != nil {
		t.try(a, reason.Say("Let the string's ends go"), m.Set("/grade/startGap", nil), m.Set("/grade/endGap", nil))
	}
	if !slices.ContainsFunc(m.Spec.FixedPosts, func(f job.FixedPost) bool { return f.Gap != nil }) {
		return
	}
	free := slices.Clone(m.Spec.FixedPosts)
	for i := range free {
		free[i].Gap = nil
	}
	t.try(a, reason.Say("Let the heights of the grade posts go"), m.Set("/fixedPosts", free))
}

// otherLooks tries the whole run in another look, and then only the bays
// around the bad one, where they are few.
func (t *corridorTrials) otherLooks(a *stage.Advising, bay int) {
	m, g := t.Slope, t.Spec.Grade
	names := map[job.Look]string{job.Raked: "Rake it", job.Stepped: "Step it", job.Level: "Make it level", job.Rolling: "Let it roll"}
	whole := len(g.Parts) == 0
	refused := m.LooksRefused()
	for _, look := range []job.Look{job.Raked, job.Rolling, job.Stepped, job.Level} {
		if look != g.Look && whole && refused[look] == "" {
			t.try(a, reason.Say(names[look]), m.Set("/grade/look", look))
		}
	}
	first, last := m.badAround(bay)
	if 3*(last-first+1) > len(m.Top.Bays) {
		return
	}
	for _, look := range []job.Look{job.Raked, job.Stepped} {
		if look == m.Bays[bay].Look || refused[look] != "" {
			continue
		}
		name := map[job.Look]string{job.Raked: "Rake only ", job.Stepped: "Step only "}[look] + stage.BayID(first)
		if last > first {
			name += " to " + stage.BayID(last)
		}
		parts := m.withPart(first, last, look)
		t.try(a, reason.Say(name), m.Set("/grade/parts", parts))
	}
}

// badAround is the stretch of bays with earth to move around a bay.
func (m *Slope) badAround(bay int) (first, last int) {
	bad := func(i int) bool {
		return i >= 0 && i < len(m.Top.Bays) && m.Layout.Bays[i].Gate == spacing.NoGate && Earth(m.Top.Bays[i]) > 0
	}
	for first = bay; bad(first - 1); first-- {
	}
	for last = bay; bad(last + 1); last++ {
	}
	return first, last
}

// withPart is the run's parts with another look for some of its bays.
func (m *Slope) withPart(first, last int, look job.Look) []job.LookPart {
	from, to := m.Layout.Posts[m.Layout.Bays[first].First].Station, m.Layout.Posts[m.Layout.Bays[last].First+1].Station
	return m.Spec.Grade.WithPart(job.LookPart{From: from, To: to, Look: look})
}

// postMore tries a post at the very hump, else at the hollow beside it, where
// the top may break; where a post stands there already, half way.
func (t *corridorTrials) postMore(a *stage.Advising, bay int) {
	m, b := t.Slope, t.Top.Bays[bay]
	places := []length.Length{b.Most.At, b.Least.At}
	if b.Cut != nil && (b.Fill == nil || b.Cut.Depth >= b.Fill.Depth) || b.Least.Gap <= m.Spec.Fence.GapLeast+length.Tolerance && b.Cut == nil {
		places[0], places[1] = places[1], places[0] // the hump that holds the line up
	}
	from, to := m.Layout.Posts[m.Layout.Bays[bay].First].Station, m.Layout.Posts[m.Layout.Bays[bay].First+1].Station
	places = append(places, (from+to)/2)
	tried := len(t.out)
	for _, at := range places {
		at = m.Job.Units.Round(at)
		if len(t.out) == tried && at > from+m.Spec.Post.Width && at < to-m.Spec.Post.Width {
			t.postAt(a, at)
		}
	}
}

func (t *corridorTrials) postAt(a *stage.Advising, at length.Length) {
	m, id := t.Slope, ""
	for n := 1; id == "" || slices.ContainsFunc(m.Spec.FixedPosts, func(f job.FixedPost) bool { return f.ID == id }); n++ {
		id = fmt.Sprintf("F%d", n)
	}
	posts := append(slices.Clone(m.Spec.FixedPosts), job.FixedPost{ID: id, At: at, Grade: true})
	slices.SortFunc(posts, func(a, b job.FixedPost) int { return cmp.Compare(a.At, b.At) })
	t.try(a, reason.Say("A post at ", reason.Tape(at)), m.Set("/fixedPosts", posts))
}

// boards closes triangles with boards instead of earth.
func (t *corridorTrials) boards(a *stage.Advising, kind job.Infill, says string) {
	m, n := t.Slope, 0
	for i := range m.Bays {
		at := m.Layout.Bays[i].First
		if f := m.infill(m.Bays[i], kind, &m.Posts[at], &m.Posts[at+1]); f != nil {
			n += f.Boards
		}
	}
	if n == 0 {
		return
	}
	t.out = append(t.out, finding.Remedy{Says: reason.Say(says, ": ", n, stage.Plural(n, " board", " boards"), " of ", m.Spec.Grade.BoardHeight(m.Job.Units)),
		Edits: []job.Edit{m.Set("/grade/infill", kind)}})
}

// try weighs a change by the earth it leaves at worst.
func (t *corridorTrials) try(a *stage.Advising, says reason.Text, edits ...job.Edit) {
	m := t.Slope
	run, ok := a.Edited(edits)
	if !ok {
		return
	}
	then := Unsolved(space.Compute(stage.NewRun(m.Job, run, m.Cat, m.Path, m.Lie)))
	then.rough = true
	(&Group{Runs: []*Line{then}}).Grade(a.Watch.Look)
	layout, line := then.Layout, then.Top
	worst := length.Length(0)
	for _, b := range line.Bays {
		worst = max(worst, Earth(b))
	}
	if worst > t.now-m.Job.Units.SmallestMark {
		return
	}
	says = append(says, reason.Say(": ")...)
	if worst <= length.Tolerance {
		says = append(says, reason.Say("no earth to move")...)
	} else {
		says = append(says, reason.Say(worst, " of earth at worst")...)
	}
	if more := len(layout.Posts) - len(m.Layout.Posts); more > 0 {
		says = append(says, reason.Say(", ", more, stage.Plural(more, " more post", " more posts"))...)
	}
	if longest := longestAbove(m, layout, line); longest > m.Job.Units.SmallestMark {
		says = append(says, reason.Say(", tallest post ", longest, " more")...)
	}
	t.out = append(t.out, finding.Remedy{Says: says, Edits: edits})
}

// longestReveal returns how much taller the tallest post gets.
func longestAbove(m *Slope, layout spacing.Layout, line grade.Line) length.Length {
	tallest := func(l spacing.Layout, tops []length.Length) length.Length {
		most := length.Length(0)
		for i, p := range l.Posts {
			most = max(most, tops[i]-m.Profile.Height(p.Station))
		}
		return most
	}
	return tallest(layout, line.Tops) - tallest(m.Layout, m.Top.Tops)
}

// lookIdea is a look to try.
type lookIdea struct {
	Id, Name, Says string
	Look           job.Look
	steps          job.Steps
	straight       *float64
}

var hugged, straightened = 0.0, 1.0

var LookIdeas = []lookIdea{
	{Id: "level", Name: "Level", Says: "One height all along. Dead calm to the eye; tall posts and much daylight at the low end.", Look: job.Level},
	{Id: "stepped least", Name: "Stepped, least gap", Says: "Each panel as low as its ground lets it. Drops differ from post to post.", Look: job.Stepped, steps: job.LeastGap},
	{Id: "stepped even", Name: "Stepped, even", Says: "A tight string from the top post to the bottom one: equal bays drop equally.", Look: job.Stepped, steps: job.EvenSteps},
	{Id: "stepped gradual", Name: "Stepped, gradual", Says: "Drops that grow into the slope and out of it.", Look: job.Stepped, steps: job.Gradual},
	{Id: "stepped round", Name: "Stepped, round drops", Says: "Drops by one increment, easy to set by a block.", Look: job.Stepped, steps: job.RoundStep},
	{Id: "raked hug", Name: "Raked, near the ground", Says: "Every bay leans with its own ground: the least earth, and every bump shows on top.", Look: job.Raked, straight: &hugged},
	{Id: "raked straight", Name: "Raked, shot straight", Says: "As straight as the gaps allow: bumps are taken out of the top.", Look: job.Raked, straight: &straightened},
	{Id: "rolling", Name: "Rolling", Says: "Straight over several bays, broken only at grade posts: few strings, clean lines.", Look: job.Rolling},
}

// take lists the edits that give the run a look. What is held by hand at the
// ends is let go: it was meant for the line as it was.
func (m *Slope) Take(i lookIdea) []job.Edit {
	g := m.Given.Grade
	edits := []job.Edit{m.Set("/grade/look", i.Look), m.Set("/grade/parts", nil)}
	if i.steps != "" {
		edits = append(edits, m.Set("/grade/steps", i.steps))
	}
	if i.straight != nil {
		edits = append(edits, m.Set("/grade/straight", *i.straight))
	}
	if g.StartGap != nil || g.EndGap != nil {
		edits = append(edits, m.Set("/grade/startGap", nil), m.Set("/grade/endGap", nil))
	}
	return edits
}
