package engine

import (
	"slices"
	"strconv"
	"strings"
	"sync"

	"mallow/core/finding"
	"mallow/core/stage"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/walk"
)

// Findings looks at all that was computed and says what is to be said of it.
// The ways out are worked out by whoever asks for them.
func (r *Result) Findings() []stage.Found {
	var out []stage.Found
	for _, l := range r.Lines {
		out = append(out, l.Walk.Check()...)
	}
	swings := r.swings()
	for _, run := range r.Runs {
		out = append(out, run.check()...)
		if c := swings[run.Load.Spec.ID]; c != nil {
			out = append(out, c.Found...)
		}
	}
	bases := make([]*stage.Run, len(r.Runs))
	for i, run := range r.Runs {
		bases[i] = run.Laid.Run
	}
	out = append(out, walk.SiteFindings(r.Job, r.Catalog, bases)...)
	out = append(out, load.NearMix(r.Job, r.Totals, r.loads())...)
	slices.SortStableFunc(out, func(a, b stage.Found) int {
		return finding.Order(a.Severity, b.Severity, stakes()[a.Rule], stakes()[b.Rule])
	})
	return name(out)
}

// stakes are what it costs to pass a finding over, by its rule.
var stakes = sync.OnceValue(func() map[string]finding.Stake {
	out := map[string]finding.Stake{}
	for _, k := range Kinds() {
		out[k.Rule] = k.Costs
	}
	return out
})

// checked is what the stages find on a run, once somebody has asked.
type checked struct {
	once  sync.Once
	found []stage.Found
}

// check is what the stages find on a run, in their order.
func (run *Run) check() []stage.Found {
	run.checked.once.Do(func() {
		c := &stage.Checking{RunID: run.Laid.Spec.ID}
		run.Laid.Missing(c)
		if run.Laid.Laid() {
			for _, check := range checkList {
				check(run, c)
			}
			for _, s := range laterList {
				s.Check(run.Parts[s.Name], c)
			}
		}
		run.checked.found = c.Found
	})
	return run.checked.found
}

// swings is what leaves strike on the map, by run.
func (r *Result) swings() map[string]*stage.Checking {
	all := make([]*gates.Gates, len(r.Runs))
	for i, run := range r.Runs {
		all[i] = run.Gates
	}
	out := map[string]*stage.Checking{}
	gates.CheckSwings(all, func(run string) *stage.Checking {
		if out[run] == nil {
			out[run] = &stage.Checking{RunID: run}
		}
		return out[run]
	})
	return out
}

// name gives every finding a name of its own, by which its ways out are asked
// for: its rule, its place, and a number where that is not enough.
func name(all []stage.Found) []stage.Found {
	out := slices.Clone(all)
	seen := map[string]int{}
	for i := range out {
		p := out[i].Place
		id := strings.Join([]string{out[i].Rule, p.Line, p.Run, p.Gate, p.Bay, p.Post, out[i].Field}, ":")
		seen[id]++
		if n := seen[id]; n > 1 {
			id += "#" + strconv.Itoa(n)
		}
		out[i].ID = id
	}
	return out
}
