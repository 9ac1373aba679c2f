package build

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeOldHeight = "old-post-height"
	codePartHigh  = "part-height"
	codePartUnfit = "part-unfit"
	codePartLong  = "part-long"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeOldHeight, Costs: finding.Purchase, Stage: finding.Build, Severities: []finding.Severity{finding.Check},
		Means: "An old post that stays is not as high as the plan has it.", Threshold: "the tape's mark"},
	{Rule: codePartHigh, Costs: finding.Purchase, Stage: finding.Build, Severities: []finding.Severity{finding.Check},
		Means: "A stretch has a height of its own, but a part of its type is sold as high as the fence.", Threshold: "the tape's mark"},
	{Rule: codePartLong, Costs: finding.Purchase, Stage: finding.Build, Severities: []finding.Severity{finding.Cannot},
		Means: "A piece is longer than any length its part is sold in, and must not be joined.", Threshold: "stock, give"},
	{Rule: codePartUnfit, Costs: finding.Purchase, Stage: finding.Build, Severities: []finding.Severity{finding.Check},
		Means: "No number of whole pieces fills a bay with gaps as they may be.", Threshold: "gap/least, gap/most"},
}
