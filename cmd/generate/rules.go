package main

import (
	"cmp"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"mallow/catalog"
	"mallow/core/begin"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// rules is docs/rules.md: every rule that speaks in the reasons of the demo's
// jobs, and of a job of each fence type on a slope with each gate, with where
// it is from. What the reasons cite is what stands here.
func rules() (string, error) {
	cat, err := catalog.Load()
	if err != nil {
		return "", err
	}
	var jobs []job.Job
	files, err := filepath.Glob("demo/jobs/*.json")
	if err != nil {
		return "", err
	}
	for _, name := range files {
		raw, err := os.ReadFile(name)
		if err != nil {
			return "", err
		}
		o, err := document.Open(raw, cat)
		if err != nil {
			return "", err
		}
		jobs = append(jobs, o.Job)
	}
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		for _, fence := range begin.Fences(sys, cat) {
			for _, gate := range []begin.AskedGate{begin.Walk, begin.Drive} {
				a := begin.Answers{System: sys, Fence: fence.ID, Gate: gate, Fall: 1200}
				if fence.Gate { // its length is the opening
					opening := 12 * length.Foot
					a.Gate, a.Fall, a.Length = "", 0, &opening
				}
				j, err := begin.Job(a, cat)
				if err != nil {
					return "", fmt.Errorf("%s: %w", fence.ID, err)
				}
				jobs = append(jobs, j)
			}
		}
	}
	from := map[string]map[string]bool{}
	for _, j := range jobs {
		p := plan.Make(j, cat)
		runs := map[string]bool{} // a run's share of a sum is told by its name, and is no rule
		for i := range p.Runs {
			runs[p.Runs[i].Name] = true
		}
		rules := p.Rules
		for i := range p.Runs {
			if b := p.Runs[i].Built; b != nil {
				for k := range b.Parts {
					why, _ := b.Explain(plan.Figure{Of: "part", ID: b.Parts[k].ID})
					rules = append(rules, why.Steps...)
				}
			}
		}
		for _, rule := range rules {
			if runs[rule.Rule] {
				continue
			}
			if from[rule.Rule] == nil {
				from[rule.Rule] = map[string]bool{}
			}
			said := string(rule.Source.Kind)
			if rule.Source.Name != "" {
				said += ": " + rule.Source.Name
			}
			from[rule.Rule][said] = true
		}
	}
	var b strings.Builder
	b.WriteString("# Rules and their sources\n\nEvery rule that speaks in Mallow's reasons, and what it rests on: a published source, common practice of the trade, memory (not looked up again), geometry, or you. Written by `make generate` from the reasons of the demo's jobs and of one job for each fence type on a slope, with a walk gate and with a drive gate. A rule's value can be changed where its reason is read; numbers that only advice uses stand in [decisions](decisions.md). No rule replaces the local code, a surveyor or an engineer.\n\n| rule | rests on |\n|---|---|\n")
	names := slices.SortedFunc(maps.Keys(from), func(a, b string) int { return cmp.Compare(strings.ToLower(a), strings.ToLower(b)) })
	for _, name := range names {
		fmt.Fprintf(&b, "| %s | %s |\n", name, strings.Join(slices.Sorted(maps.Keys(from[name])), "; "))
	}
	return b.String(), nil
}
