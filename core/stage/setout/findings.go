package setout

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeDrift         = "drift"
	codeSag           = "sag"
	codeStringBreaks  = "string-breaks"
	codeStringTouches = "string-touches"
	codeStringUnknown = "string-unknown"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeDrift, Costs: finding.Time, Stage: finding.Strings, Severities: []finding.Severity{finding.Check},
		Means: "Wind pushes the alignment string out of line.", Threshold: "driftAllowed"},
	{Rule: codeSag, Costs: finding.Time, Stage: finding.Strings, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "The height string sags more than its props allow.", Threshold: "sagSpoken, sagMuch"},
	{Rule: codeStringBreaks, Costs: finding.Time, Stage: finding.Strings, Severities: []finding.Severity{finding.Cannot},
		Means: "The string is pulled harder than it stands.", Threshold: "String.Most"},
	{Rule: codeStringTouches, Costs: finding.Time, Stage: finding.Strings, Severities: []finding.Severity{finding.Check},
		Means: "The alignment string comes near the ground.", Threshold: "leastClear"},
	{Rule: codeStringUnknown, Costs: finding.Time, Stage: finding.Strings, Severities: []finding.Severity{finding.Check},
		Means: "The catalogue has no string of that name: the usual one is taken."},
}
