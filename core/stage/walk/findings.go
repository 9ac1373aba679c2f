package walk

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeAngleSum         = "angle-sum"
	codeCornerMissing    = "corner-missing"
	codeCornerUnmeasured = "corner-unmeasured"
	codeFrostEstimate    = "frost-estimate"
	codeFrostMissing     = "frost-missing"
	codeHeightLoop       = "height-loop"
	codeLevelClosing     = "level-closing"
	codeMisclosure       = "misclosure"
	codeBlunder          = "slip"
	codeBlunders         = "slips"
	codeSoilUnknown      = "soil-unknown"
	codeSteep            = "steep"
	codeTooHigh          = "too-high"
	codeTriangle         = "triangle"
	codeTwoHeights       = "two-heights"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeAngleSum, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check},
		Means: "The measured turns of a closed line do not add up to a whole turn: one of them, or its left or right, is wrong.", Threshold: "looseAngle"},
	{Rule: codeCornerMissing, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Missing},
		Means: "How the line turns from one run to the next was not measured."},
	{Rule: codeCornerUnmeasured, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check},
		Means: "The corner that was left out of a closed line comes out differently from the lengths and from the other turns.", Threshold: "looseAngle"},
	{Rule: codeFrostEstimate, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Check},
		Means: "The frost depth is an estimate, not the building office's figure."},
	{Rule: codeFrostMissing, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Missing},
		Means: "No frost depth is known."},
	{Rule: codeHeightLoop, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "Round a closed line the heights do not come back to where they began.", Threshold: "survey's allowance for so many strings"},
	{Rule: codeLevelClosing, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "A page of rod readings does not close; within what is allowed it can be spread.", Threshold: "half a mark; survey's allowance"},
	{Rule: codeMisclosure, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "The measured lengths and turns of a closed line do not come back to its start.", Threshold: "the tape's mark; looseRatio"},
	{Rule: codeBlunder, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "An entry stands out from its neighbours as a misreading would.", Threshold: "survey's rules for blunders"},
	{Rule: codeBlunders, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Note},
		Means: "So many entries stand out that only the first ones are told.", Threshold: "mostBlunders"},
	{Rule: codeSoilUnknown, Costs: finding.Purchase, Stage: finding.Dig, Severities: []finding.Severity{finding.Check},
		Means: "The catalogue has no soil of that name: it is taken as the weakest."},
	{Rule: codeSteep, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Cannot},
		Means: "Two heights lie farther apart than the tape between them.", Threshold: "the tape along the slope"},
	{Rule: codeTooHigh, Costs: finding.Harm, Stage: finding.Grade, Severities: []finding.Severity{finding.Cannot},
		Means: "The fence is higher than the local code, as it was read, allows.", Threshold: "Before.MaxHeight"},
	{Rule: codeTriangle, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Cannot},
		Means: "A diagonal and two legs that make no triangle.", Threshold: "the sum and the difference of the legs"},
	{Rule: codeTwoHeights, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "One place has two heights.", Threshold: "apartMuch; half a mark"},
}
