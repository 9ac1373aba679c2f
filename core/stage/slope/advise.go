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
	"mallow/core/words"
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
		t.boards(a, job.GravelBoards, words.Plain("slope.close-it-with-gravel-boards"))
		t.boards(a, job.CutBoards, words.Plain("slope.close-it-with-boards-cut"))
	}
	if len(m.Spec.Gates) > 0 && g.Across != job.GoesOn && m.Bays[bay].Look.Leans() {
		t.try(a, words.Say("slope.let-the-tops-go-on"), m.Set("/grade/across", job.GoesOn))
	}
	if g.Look != job.Level {
		most := m.Job.Units.Round(m.Spec.Spacing.Most * 3 / 4)
		t.try(a, words.Say("slope.bays-of-at-most", words.V{"most": most}), m.Set("/spacing/most", most))
	}
	t.gapMore(a)
	return t.out[:min(len(t.out), mostRemedies)]
}

// gapMore tries a corridor as wide as the ground asks.
func (t *corridorTrials) gapMore(a *stage.Advising) {
	m, mark := t.Slope, t.Job.Units.SmallestMark
	gap := length.Length(int((m.Spec.Fence.GapMost+t.now)/mark)+1) * mark
	if gap <= 1500 {
		t.try(a, words.Say("slope.let-the-gap-grow-to", words.V{"gap": gap}), m.Set("/fence/gapMost", gap))
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
		t.try(a, words.Say("slope.let-the-strings-ends-go"), m.Set("/grade/startGap", nil), m.Set("/grade/endGap", nil))
	}
	var free []job.Edit
	for _, f := range m.Spec.FixedPosts {
		if f.Gap != nil {
			free = append(free, m.Set(job.At("/fixedPosts", f.ID, "gap"), nil))
		}
	}
	if len(free) > 0 {
		t.try(a, words.Say("slope.let-the-heights-of-the"), free...)
	}
}

// otherLooks tries the whole run in another look, and then only the bays
// around the bad one, where they are few.
func (t *corridorTrials) otherLooks(a *stage.Advising, bay int) {
	m, g := t.Slope, t.Spec.Grade
	names := map[job.Look]string{job.Raked: words.Plain("slope.rake-it"), job.Stepped: words.Plain("slope.step-it"), job.Level: words.Plain("slope.make-it-level"), job.Rolling: words.Plain("slope.let-it-roll")}
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
		parts := m.withPart(first, last, look)
		t.try(a, m.onlyBays(look, first, last), m.Set("/grade/parts", parts))
	}
}

// onlyBays says that a stretch of bays takes a look of its own.
func (m *Slope) onlyBays(look job.Look, first, last int) reason.Text {
	return words.Say("slope.only-bays", words.V{"look": string(look), "first": m.BayLabel(first), "last": m.BayLabel(last), "more": last - first})
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
	t.try(a, words.Say("slope.a-post-at", words.V{"at": at}), m.Set("/fixedPosts", posts))
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
	t.out = append(t.out, finding.Remedy{Says: words.Say("slope.of", words.V{"says": says, "count": n, "boardHeight": m.Spec.Grade.BoardHeight(m.Job.Units)}),
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
	says = append(says, words.Say("slope.colon")...)
	if worst <= length.Tolerance {
		says = append(says, words.Say("slope.no-earth-to-move")...)
	} else {
		says = append(says, words.Say("slope.of-earth-at-worst", words.V{"worst": m.Job.Units.Dug(worst)})...)
	}
	if more := len(layout.Posts) - len(m.Layout.Posts); more > 0 {
		says = append(says, words.Say("slope.more-posts", words.V{"more": more})...)
	}
	if longest := longestAbove(m, layout, line); longest > m.Job.Units.SmallestMark {
		says = append(says, words.Say("slope.tallest-post-more", words.V{"longest": longest})...)
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
	{Id: "level", Name: words.Plain("slope.level"), Says: words.Plain("slope.one-height-all-along-dead"), Look: job.Level},
	{Id: "stepped least", Name: words.Plain("slope.stepped-least-gap"), Says: words.Plain("slope.each-panel-as-low-as"), Look: job.Stepped, steps: job.LeastGap},
	{Id: "stepped even", Name: words.Plain("slope.stepped-even"), Says: words.Plain("slope.a-tight-string-from-the"), Look: job.Stepped, steps: job.EvenSteps},
	{Id: "stepped gradual", Name: words.Plain("slope.stepped-gradual"), Says: words.Plain("slope.drops-that-grow-into-the"), Look: job.Stepped, steps: job.Gradual},
	{Id: "stepped round", Name: words.Plain("slope.stepped-round-drops"), Says: words.Plain("slope.drops-by-one-increment-easy"), Look: job.Stepped, steps: job.RoundStep},
	{Id: "raked hug", Name: words.Plain("slope.raked-near-the-ground"), Says: words.Plain("slope.every-bay-leans-with-its"), Look: job.Raked, straight: &hugged},
	{Id: "raked straight", Name: words.Plain("slope.raked-shot-straight"), Says: words.Plain("slope.as-straight-as-the-gaps"), Look: job.Raked, straight: &straightened},
	{Id: "rolling", Name: words.Plain("slope.rolling"), Says: words.Plain("slope.straight-over-several-bays-broken"), Look: job.Rolling},
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
