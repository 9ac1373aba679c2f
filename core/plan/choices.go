package plan

import (
	"slices"

	"mallow/core/engine"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage/dig"
	"mallow/core/stage/load"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/words"
)

// Alternative is one layout of a run worth having, with what it takes.
type Alternative struct {
	ID      string       `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs."`
	Name    string       `json:"name" jsonschema:"required"`
	Says    reason.Text  `json:"says" jsonschema:"required" jsonschema_description:"What it gives and what it costs."`
	Edits   []job.Edit   `json:"edits" jsonschema:"required" jsonschema_description:"What takes it; empty for the layout as it is."`
	Cost    finding.Cost `json:"cost" jsonschema:"required" jsonschema_description:"Against the layout as it is."`
	Posts   int          `json:"posts" jsonschema:"required"`
	Bags    int          `json:"bags" jsonschema:"required"`
	Cut     int          `json:"cut" jsonschema:"required" jsonschema_description:"Pieces cut."`
	Odd     int          `json:"odd" jsonschema:"required" jsonschema_description:"Odd bays."`
	Clashes int          `json:"clashes" jsonschema:"required" jsonschema_description:"Holes that run into something, and demands given up."`
	Drawing Silhouette   `json:"drawing" jsonschema:"required"`
}

// mostAlternatives is how many are shown beside the layout as it is.
const mostAlternatives = 3

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
	Stock      []load.Stock  `json:"stock" jsonschema:"required" jsonschema_description:"Posts to buy, by length, the shortest first."`
	Bags       int           `json:"bags" jsonschema:"required"`
	Boards     int           `json:"boards" jsonschema:"required" jsonschema_description:"Infill boards."`
	Drawing    Silhouette    `json:"drawing" jsonschema:"required"`
}

// alternatives lays a run out in the other ways worth having.
func alternatives(a *engine.Advice, m *engine.Run) []Alternative {
	on := a.On(m.Laid.Given.ID)
	now := a.InLine(m.Laid.Given)
	out := []Alternative{alternative(now, now, space.Idea{Id: "now", Name: words.Plain("plan.as-it-is"), Says: words.Plain("plan.the-layout-that-is-planned")})}
	seen := [][]spacing.Post{now.Layout.Posts}
	for _, i := range m.Line.Ideas(on) {
		run, err := m.Laid.Given.Edited(m.Laid.Path, m.Laid.Usual, i.Edits)
		if err != nil || len(out) > mostAlternatives || !on.Sound(run) {
			continue
		}
		then := a.InLine(run)
		if then.Trouble() > now.Trouble() || slices.ContainsFunc(seen, func(p []spacing.Post) bool { return sameStations(p, then.Layout.Posts) }) {
			continue
		}
		seen = append(seen, then.Layout.Posts)
		out = append(out, alternative(now, then, i))
	}
	return out
}

func sameStations(a, b []spacing.Post) bool {
	return slices.EqualFunc(a, b, func(p, q spacing.Post) bool { return length.Same(p.Station, q.Station) })
}

// alternative tells what a trial comes to.
func alternative(now, then *load.Load, i space.Idea) Alternative {
	alt := Alternative{ID: i.Id, Name: i.Name, Says: reason.Say(i.Says), Edits: i.Edits, Cost: engine.OutcomeOf(then).CostOver(engine.OutcomeOf(now)),
		Posts: then.Totals.Posts, Bags: then.Totals.Bags, Cut: then.Totals.CutPieces,
		Odd: then.Odd(), Clashes: then.Trouble(), Drawing: outline(then)}
	if alt.Edits == nil {
		alt.Edits = []job.Edit{}
	}
	return alt
}

// looksOf plans a run in every look.
func looksOf(a *engine.Advice, m *engine.Run) []LookChoice {
	now := a.InLine(m.Laid.Given)
	var out []LookChoice
	known := false
	refused := m.Laid.LooksRefused()
	for _, i := range slope.LookIdeas {
		if refused[i.Look] != "" {
			continue // nobody is shown what these panels cannot do
		}
		edits := m.Slope.Take(i)
		run, err := m.Laid.Given.Edited(m.Laid.Path, m.Laid.Usual, edits)
		if err != nil {
			continue
		}
		then := a.InLine(run)
		c := lookChoice(m, now, then, edits)
		c.ID, c.Name, c.Says = i.Id, i.Name, reason.Say(i.Says)
		c.Now = sameTops(now, then)
		known = known || c.Now
		out = append(out, c)
	}
	if !known { // mixed, or by hand
		c := lookChoice(m, now, now, nil)
		c.ID, c.Name, c.Says, c.Now = "now", words.Plain("plan.as-it-is"), words.Say("plan.the-top-line-that-is"), true
		out = append([]LookChoice{c}, out...)
	}
	return out
}

func sameTops(a, b *load.Load) bool {
	return slices.EqualFunc(a.Bays, b.Bays, func(p, q slope.Bay) bool {
		return p.Look == q.Look && length.Same(p.TopStart, q.TopStart) && length.Same(p.TopEnd, q.TopEnd)
	})
}

func lookChoice(m *engine.Run, now, then *load.Load, edits []job.Edit) LookChoice {
	t := then.Totals
	c := LookChoice{Edits: edits, Cost: engine.OutcomeOf(then).CostOver(engine.OutcomeOf(now)), Cut: t.Cut, Fill: t.Fill, Breaks: then.Broken(),
		Posts: t.Posts, Bags: t.Bags, Boards: t.InfillBoards, Drawing: outline(then)}
	own := make([]*dig.Post, 0, len(then.Posts))
	for i := range then.Posts {
		if i > 0 || m.Holes.Posts[0].Shared == "" { // the first may be bought with the run before
			own = append(own, &then.Posts[i])
		}
	}
	c.Stock, c.StockShort = load.StockByLength(own)
	if c.Edits == nil {
		c.Edits = []job.Edit{}
	}
	for i := range then.Posts {
		p := &then.Posts[i]
		c.Longest, c.MostStep = max(c.Longest, p.Needed), max(c.MostStep, p.Step.Abs())
	}
	for i := range then.Bays {
		b := &then.Bays[i]
		if b.Infill == nil {
			c.Deepest = max(c.Deepest, slope.Earth(then.Top.Bays[i]))
		}
		if r := m.Laid.Spec.Grade.Rack; r != nil && b.Gate == "" && b.Lean.Abs() > *r+m.Laid.Job.Units.SmallestMark/4 {
			c.Racked++
		}
	}
	return c
}
