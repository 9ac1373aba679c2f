package load

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeNearBag   = "near-bag"
	codeNearTruck = "near-truck"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeNearBag, Costs: finding.Purchase, Stage: finding.Pour, Severities: []finding.Severity{finding.Note},
		Means: "The last bag is hardly used.", Threshold: "nearBag, nearWaste"},
	{Rule: codeNearTruck, Costs: finding.Purchase, Stage: finding.Pour, Severities: []finding.Severity{finding.Note},
		Means: "A little less waste would save a step of the truck.", Threshold: "nearWaste"},
}
