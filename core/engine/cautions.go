package engine

import (
	"mallow/core/finding"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/slope"
)

// cautions stand at the stage where the work can hurt someone.
func (r *Result) Cautions() []stage.Caution {
	out := []stage.Caution{
		{Stage: finding.Walk, Says: reason.Say("Prove the boundary and read the local code before anything is dug. A survey and the local office decide, not this plan.")},
		{Stage: finding.Strings, Says: reason.Say("A string across a path or a drive trips people and catches riders: flag it, and take it down at night. Steel wire whips when it breaks.")},
		{Stage: finding.Dig, Says: reason.Say("Have every service located and marked first; dig by hand near a mark. Private lines are the owner's to find.")},
		{Stage: finding.Dig, Says: reason.Say("No loose clothing at an auger; it kicks when it meets rock or root. Cover or guard every open hole.")},
		{Stage: finding.Dig, Says: reason.Say("Frost and depth figures defer to the local code; an engineer decides where wind or load matters.")},
		{Stage: finding.Pour, Says: reason.Say("Wet concrete burns skin and eyes and cement dust harms lungs: gloves, goggles, mask, and water to wash with.")},
	}
	slopes, holes, hung := make([]*slope.Slope, len(r.Runs)), make([]*dig.Holes, len(r.Runs)), make([]*gates.Gates, len(r.Runs))
	for i, run := range r.Runs {
		slopes[i], holes[i], hung[i] = run.Slope, run.Holes, run.Gates
	}
	out = append(out, slope.GradeCautions(slopes)...)
	out = append(out, dig.HoleCautions(holes)...)
	out = append(out, gates.GateCautions(hung)...)
	heavy := map[string]bool{}
	for _, run := range r.Runs {
		if bag := run.Laid.Bag; bag.Mass > stage.AloneMost && !heavy[bag.ID] {
			heavy[bag.ID] = true
			out = append(out, stage.Caution{Stage: finding.Pour, Says: reason.Say("One ", bag.Name, " is over what one person should lift again and again (25 kg, 55 lb): two people, or smaller bags.")})
		}
	}
	return out
}
