package plan

import (
	"mallow/core/finding"
	"mallow/core/length"
	"mallow/core/reason"
)

// aloneMost is the mass above which two people lift (common practice).
const aloneMost = 25 * length.Kilogram

// cautions stand at the stage where the work can hurt someone.
func cautions(runs []*maker) []Caution {
	out := []Caution{
		{finding.Walk, reason.Say("Prove the boundary and read the local code before anything is dug. A survey and the local office decide, not this plan.")},
		{finding.Strings, reason.Say("A string across a path or a drive trips people and catches riders: flag it, and take it down at night. Steel wire whips when it breaks.")},
		{finding.Dig, reason.Say("Have every service located and marked first; dig by hand near a mark. Private lines are the owner's to find.")},
		{finding.Dig, reason.Say("No loose clothing at an auger; it kicks when it meets rock or root. Cover or guard every open hole.")},
		{finding.Dig, reason.Say("Frost and depth figures defer to the local code; an engineer decides where wind or load matters.")},
		{finding.Pour, reason.Say("Wet concrete burns skin and eyes and cement dust harms lungs: gloves, goggles, mask, and water to wash with.")},
	}
	heavy := map[string]bool{}
	for _, m := range runs {
		if bag := m.bag; bag.Mass > aloneMost && !heavy[bag.ID] {
			heavy[bag.ID] = true
			out = append(out, Caution{finding.Pour, reason.Say("One ", bag.Name, " is over what one person should lift again and again (25 kg, 55 lb): two people, or smaller bags.")})
		}
	}
	return out
}
