package plan

import (
	"cmp"
	"slices"

	"mallow/core/engine"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/load"
	"mallow/core/words"
)

// StockChoice is a run with other bays, other lengths or another height, and what
// is cut for it.
type StockChoice struct {
	ID     string        `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs."`
	Name   reason.Text   `json:"name" jsonschema:"required"`
	Now    bool          `json:"now" jsonschema:"required" jsonschema_description:"It is how the run is planned."`
	Edits  []job.Edit    `json:"edits" jsonschema:"required" jsonschema_description:"What takes it."`
	Waste  float64       `json:"waste" jsonschema:"required" jsonschema_description:"Share of all lengths that is neither built in nor worth keeping."`
	Bought length.Length `json:"bought" jsonschema:"required" jsonschema_description:"Of all lengths together."`
	Posts  int           `json:"posts" jsonschema:"required"`
	Bays   int           `json:"bays" jsonschema:"required"`
	Pieces int           `json:"pieces" jsonschema:"required" jsonschema_description:"To cut."`
}

// Compared tries other bays, lengths and heights against their waste, the least
// waste first, behind the run as it is. It is false when the job has no such run
// with a length.
func (r *Result) Compared(stop func() error, run string) (out []StockChoice, ok bool, err error) {
	err = stage.Until(func() {
		if m := r.Run(run); m != nil && m.Laid.Laid() {
			out, ok = compared(r.Advice(stage.NewWatch(stop)), m), true
		}
	})
	return out, ok, err
}

// tried is a change that is tried: what it is called, and its edits.
type tried struct {
	id    string
	name  reason.Text
	edits []job.Edit
}

// mostTried is how many changes are shown beside the run as it is.
const mostTried = 8

func compared(a *engine.Advice, m *engine.Run) []StockChoice {
	on := a.On(m.Laid.Given.ID)
	now := stockChoice(a.InLine(m.Laid.Given))
	now.ID, now.Name, now.Now = "now", words.Say("plan.as-it-is"), true
	var rest []StockChoice
	for _, c := range changes(m) {
		run, err := m.Laid.Given.Edited(m.Laid.Path, m.Laid.Usual, c.edits)
		if err != nil || !on.Sound(run) {
			continue
		}
		then := stockChoice(a.InLine(run))
		then.ID, then.Name, then.Edits = c.id, c.name, c.edits
		rest = append(rest, then)
	}
	slices.SortStableFunc(rest, func(a, b StockChoice) int {
		return cmp.Or(cmp.Compare(a.Waste, b.Waste), cmp.Compare(a.Bought, b.Bought))
	})
	return append([]StockChoice{now}, rest[:min(len(rest), mostTried)]...)
}

// stockChoice is what a trial is cut from.
func stockChoice(l *load.Load) StockChoice {
	c := StockChoice{Edits: []job.Edit{}, Posts: l.Totals.Posts, Bays: 0}
	for i := range l.Bays {
		if l.Bays[i].Gate == "" {
			c.Bays++
		}
	}
	used, bought, kept := length.Length(0), length.Length(0), length.Length(0)
	for _, i := range load.Compute(build.Compute(l.Gates), nil).Items() { // a curb is not cut from stock
		if i.Cuts == nil || i.Cuts.Joined {
			continue
		}
		bought, used, kept = bought+i.Cuts.Bought, used+i.Cuts.Used, kept+i.Cuts.Kept
		for _, w := range i.Cuts.Wants {
			c.Pieces += w.Count
		}
	}
	c.Bought = bought
	if bought > 0 {
		c.Waste = max(0, float64((bought-used-kept)/bought))
	}
	return c
}

// changes are what may waste less: bays that go evenly into lengths as they are
// sold, and heights that do.
func changes(m *engine.Run) []tried {
	var out []tried
	u, given := m.Laid.Job.Units, m.Laid.Spec
	sys, _ := m.Laid.Cat.System(given.System, m.Laid.Job.Systems)
	most := max(given.Spacing.Most, sys.Spacing.Most)
	least := most * 5 / 8
	var rails, uprights []length.Length
	for i := range m.Build.Parts {
		p := &m.Build.Parts[i]
		switch {
		case p.Gates:
		case p.Kind == job.RailPart && p.By == job.ByRails, p.By == job.ByRows:
			rails = append(rails, p.Stock...)
		case p.Long == job.ByHeight && p.Kind == job.BoardPart:
			uprights = append(uprights, p.Stock...)
		}
	}
	seen := map[length.Length]bool{u.Round(m.Laid.Spec.Spacing.Most): true}
	for _, l := range rails {
		for n := 1; n <= 4; n++ {
			bay := l / length.Length(n)
			if bay < least || bay > most+length.Tolerance || seen[u.Round(bay)] {
				continue
			}
			seen[u.Round(bay)] = true
			c := tried{id: "bays-" + u.Short(bay), name: words.Say("plan.bays-from", words.V{"bay": bay, "stock": l})}
			switch given.Spacing.Way {
			case job.StockRails:
				c.edits = []job.Edit{m.Laid.Set("/spacing/piece", l), m.Laid.Set("/spacing/span", n), m.Laid.Set("/spacing/most", bay)}
			case job.FixedModule:
				c.edits = []job.Edit{m.Laid.Set("/spacing/piece", bay), m.Laid.Set("/spacing/most", bay)}
			case job.EqualBays, "":
				c.edits = []job.Edit{m.Laid.Set("/spacing/most", bay)}
			default:
				continue
			}
			out = append(out, c)
		}
	}
	high := given.Fence.Height
	for _, l := range uprights {
		for n := 1; n <= 4; n++ {
			to := l / length.Length(n)
			if to < high*4/5 || to > high*5/4 || length.Same(to, high) || seen[-to] {
				continue
			}
			seen[-to] = true
			out = append(out, tried{"high-" + u.Short(to), words.Say("plan.high-from", words.V{"high": to, "stock": l}), []job.Edit{m.Laid.Set("/fence/height", to)}})
		}
	}
	return out
}
