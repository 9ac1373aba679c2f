package engine

import (
	"mallow/core/finding"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/slope"
	"mallow/core/words"
)

// cautions stand at the stage where the work can hurt someone.
func (r *Result) Cautions() []stage.Caution {
	out := []stage.Caution{
		{Stage: finding.Walk, Says: words.Say("engine.prove-the-boundary-and-read")},
		{Stage: finding.Strings, Says: words.Say("engine.a-string-across-a-path")},
		{Stage: finding.Dig, Says: words.Say("engine.have-every-service-located-and")},
		{Stage: finding.Dig, Says: words.Say("engine.no-loose-clothing-at-an")},
		{Stage: finding.Dig, Says: words.Say("engine.frost-and-depth-figures-defer")},
		{Stage: finding.Pour, Says: words.Say("engine.wet-concrete-burns-skin-and")},
	}
	slopes, holes, hung := make([]*slope.Slope, len(r.Runs)), make([]*dig.Holes, len(r.Runs)), make([]*gates.Gates, len(r.Runs))
	built := make([]*build.Build, len(r.Runs))
	for i, run := range r.Runs {
		slopes[i], holes[i], hung[i], built[i] = run.Slope, run.Holes, run.Gates, run.Build
	}
	out = append(out, slope.GradeCautions(slopes)...)
	out = append(out, dig.HoleCautions(holes)...)
	out = append(out, gates.GateCautions(hung)...)
	out = append(out, build.Cautions(built)...)
	heavy := map[string]bool{}
	for _, run := range r.Runs {
		if bag := run.Laid.Bag; bag.Mass > stage.AloneMost && !heavy[bag.ID] {
			heavy[bag.ID] = true
			out = append(out, stage.Caution{Stage: finding.Pour, Says: words.Say("engine.one-is-over-what-one", words.V{"name": bag.Name})})
		}
	}
	return out
}
