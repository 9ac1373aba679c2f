package plan

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

// LookChoice is a run in one look, with what it takes.
type LookChoice struct {
	ID         string        `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs."`
	Name       string        `json:"name" jsonschema:"required"`
	Says       reason.Text   `json:"says" jsonschema:"required" jsonschema_description:"What it gives and what it costs."`
	Now        bool          `json:"now" jsonschema:"required" jsonschema_description:"It is how the run is planned."`
	Edits      []job.Edit    `json:"edits" jsonschema:"required" jsonschema_description:"What takes it."`
	Cost       finding.Cost  `json:"cost" jsonschema:"required" jsonschema_description:"Against the run as it is planned."`
	Cut        length.Volume `json:"cut" jsonschema:"required" jsonschema_description:"Soil to cut."`
	Fill       length.Volume `json:"fill" jsonschema:"required" jsonschema_description:"Soil to fill."`
	Deepest    length.Length `json:"deepest" jsonschema:"required" jsonschema_description:"Deepest cut or fill."`
	Longest    length.Length `json:"longest" jsonschema:"required" jsonschema_description:"Longest post that is needed."`
	StockShort int           `json:"stockShort" jsonschema:"required" jsonschema_description:"Posts for which no stock length is long enough."`
	Breaks     int           `json:"breaks" jsonschema:"required" jsonschema_description:"Posts at which the top steps or changes slope."`
	Racked     int           `json:"racked" jsonschema:"required" jsonschema_description:"Panels that would lean more than they can."`
	MostStep   length.Length `json:"mostStep" jsonschema:"required" jsonschema_description:"Greatest step of the top at a post."`
	Posts      int           `json:"posts" jsonschema:"required"`
	Stock      []Stock       `json:"stock" jsonschema:"required" jsonschema_description:"Posts to buy, by length, the shortest first."`
	Bags       int           `json:"bags" jsonschema:"required"`
	Boards     int           `json:"boards" jsonschema:"required" jsonschema_description:"Infill boards."`
	Drawing    Silhouette    `json:"drawing" jsonschema:"required"`
}

// lookIdea is a look to try.
type lookIdea struct {
	id, name, says string
	look           job.Look
	steps          job.Steps
	straight       *float64
}

var hugged, straightened = 0.0, 1.0

var lookIdeas = []lookIdea{
	{id: "level", name: "Level", says: "One height all along. Dead calm to the eye; tall posts and much daylight at the low end.", look: job.Level},
	{id: "stepped least", name: "Stepped, least gap", says: "Each panel as low as its ground lets it. Drops differ from post to post.", look: job.Stepped, steps: job.LeastGap},
	{id: "stepped even", name: "Stepped, even", says: "A tight string from the top post to the bottom one: equal bays drop equally.", look: job.Stepped, steps: job.EvenSteps},
	{id: "stepped gradual", name: "Stepped, gradual", says: "Drops that grow into the slope and out of it.", look: job.Stepped, steps: job.Gradual},
	{id: "stepped round", name: "Stepped, round drops", says: "Drops by one increment, easy to set by a block.", look: job.Stepped, steps: job.RoundStep},
	{id: "raked hug", name: "Raked, near the ground", says: "Every bay leans with its own ground: the least earth, and every bump shows on top.", look: job.Raked, straight: &hugged},
	{id: "raked straight", name: "Raked, shot straight", says: "As straight as the gaps allow: bumps are taken out of the top.", look: job.Raked, straight: &straightened},
	{id: "rolling", name: "Rolling", says: "Straight over several bays, broken only at grade posts: few strings, clean lines.", look: job.Rolling},
}

// Looks plans a run in every look. It is false when the job has no such run
// with a length.
func Looks(j job.Job, cat materials.Catalog, run string) ([]LookChoice, bool) {
	out, ok, _ := LooksUntil(nil, j, cat, run)
	return out, ok
}

// LooksUntil is Looks with somebody who may end it, as MakeUntil.
func LooksUntil(stop func() error, j job.Job, cat materials.Catalog, run string) (out []LookChoice, ok bool, err error) {
	err = until(func() {
		if m := planned(j, cat, run, newWatch(stop)); m != nil {
			out, ok = m.lookChoices(), true
		}
	})
	return out, ok, err
}

func (m *maker) lookChoices() []LookChoice {
	now := m.inLine(m.given)
	var out []LookChoice
	known := false
	refused := m.looksRefused()
	for _, i := range lookIdeas {
		if refused[i.look] != "" {
			continue // nobody is shown what these panels cannot do
		}
		run := m.given
		edits := m.take(&run.Grade, i)
		then := m.inLine(run)
		c := m.lookChoice(now, then, edits)
		c.ID, c.Name, c.Says = i.id, i.name, reason.Say(i.says)
		c.Now = sameTops(now, then)
		known = known || c.Now
		out = append(out, c)
	}
	if !known { // mixed, or by hand
		c := m.lookChoice(now, now, nil)
		c.ID, c.Name, c.Says, c.Now = "now", "As it is", reason.Say("The top line that is planned."), true
		out = append([]LookChoice{c}, out...)
	}
	return out
}

// take changes a grade to an idea, and lists the edits that do so. What is
// held by hand at the ends is let go: it was meant for the line as it was.
func (m *maker) take(g *job.Grade, i lookIdea) []job.Edit {
	g.Look, g.Parts = i.look, nil
	edits := []job.Edit{m.set("/grade/look", i.look), m.set("/grade/parts", nil)}
	if i.steps != "" {
		g.Steps = i.steps
		edits = append(edits, m.set("/grade/steps", i.steps))
	}
	if i.straight != nil {
		g.Straight = i.straight
		edits = append(edits, m.set("/grade/straight", *i.straight))
	}
	if g.StartGap != nil || g.EndGap != nil {
		g.StartGap, g.EndGap = nil, nil
		edits = append(edits, m.set("/grade/startGap", nil), m.set("/grade/endGap", nil))
	}
	return edits
}

func sameTops(a, b *maker) bool {
	return slices.EqualFunc(a.out.Bays, b.out.Bays, func(p, q Bay) bool {
		return p.Look == q.Look && length.Same(p.TopStart, q.TopStart) && length.Same(p.TopEnd, q.TopEnd)
	})
}

func (m *maker) lookChoice(now, then *maker, edits []job.Edit) LookChoice {
	cost := costOf(now, then)
	t := then.out.Totals
	c := LookChoice{Edits: edits, Cost: cost, Cut: t.Cut, Fill: t.Fill, Breaks: then.broken(),
		Posts: then.out.Totals.Posts, Bags: then.out.Totals.Bags, Boards: t.InfillBoards, Drawing: then.out.outline()}
	own := make([]*Post, 0, len(then.out.Posts))
	for i := range then.out.Posts {
		if i > 0 || m.out.Posts[0].Shared == "" { // the first may be bought with the run before
			own = append(own, &then.out.Posts[i])
		}
	}
	c.Stock, c.StockShort = stockByLength(own)
	if c.Edits == nil {
		c.Edits = []job.Edit{}
	}
	for i := range then.out.Posts {
		p := &then.out.Posts[i]
		c.Longest, c.MostStep = max(c.Longest, p.Needed), max(c.MostStep, p.Step.Abs())
	}
	for i := range then.out.Bays {
		b := &then.out.Bays[i]
		if b.Infill == nil {
			c.Deepest = max(c.Deepest, earth(then.line.Bays[i]))
		}
		if r := m.run.Grade.Rack; r != nil && b.Gate == "" && b.Lean.Abs() > *r+m.job.Units.SmallestMark/4 {
			c.Racked++
		}
	}
	return c
}

// broken counts the posts at which the top steps or changes slope by what the
// eye sees: half a mark over a bay.
func (m *maker) broken() int {
	n := 0
	seen := m.job.Units.SmallestMark / 2
	for i := 1; i < len(m.out.Bays); i++ {
		a, b := &m.out.Bays[i-1], &m.out.Bays[i]
		slope := (b.Lean/b.CentreToCentre - a.Lean/a.CentreToCentre) * (a.CentreToCentre + b.CentreToCentre) / 2
		if (b.TopStart-a.TopEnd).Abs() >= seen || slope.Abs() >= seen {
			n++
		}
	}
	return n
}
