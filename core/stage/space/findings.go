package space

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeBagUnknown    = "bag-unknown"
	codeBlocked       = "blocked"
	codeCutPiece      = "cut-piece"
	codeGateOffLevel  = "gate-off-level"
	codeGroundMissing = "ground-missing"
	codeLanded        = "landed"
	codeLengthMissing = "length-missing"
	codeLengthAssumed = "length-assumed"
	codeOldPostOff    = "old-post-off"
	codeShifted       = "shifted"
	codeSliver        = "sliver"
	codeSystemUnknown = "system-unknown"
	codeWhichFace     = "which-face"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeBagUnknown, Costs: finding.Purchase, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot},
		Means: "The catalogue has no bag of that name: bags are not counted."},
	{Rule: codeBlocked, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Cannot},
		Means: "A stretch has no layout that keeps clear of all that is in the way.", Threshold: "spacing's search"},
	{Rule: codeCutPiece, Costs: finding.Purchase, Stage: finding.Space, Severities: []finding.Severity{finding.Note},
		Means: "Panels, boards or rails are cut from full ones.", Threshold: "half a mark"},
	{Rule: codeGateOffLevel, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Cannot},
		Means: "Reduced to level, the run is too short for a gate.", Threshold: "document.CheckGates"},
	{Rule: codeGroundMissing, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Missing},
		Means: "No height of the run was measured."},
	{Rule: codeLanded, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Check, finding.Note},
		Means: "A post was set off its mark.", Threshold: "half a mark"},
	{Rule: codeLengthAssumed, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Check},
		Means: "The run's length is a guess."},
	{Rule: codeLengthMissing, Costs: finding.Rework, Stage: finding.Walk, Severities: []finding.Severity{finding.Missing},
		Means: "The run has no length."},
	{Rule: codeOldPostOff, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "A gate or a run's end is planned beside the old post that it is built onto.", Threshold: "the tape's mark"},
	{Rule: codeShifted, Costs: finding.Time, Stage: finding.Space, Severities: []finding.Severity{finding.Note},
		Means: "Posts stand off their regular places so that their holes miss something.", Threshold: "length.Tolerance"},
	{Rule: codeSliver, Costs: finding.Looks, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "A stretch cannot be filled without a bay under the least.", Threshold: "Spacing.Shortest"},
	{Rule: codeSystemUnknown, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "The fence type is neither in the catalogue nor the job's own."},
	{Rule: codeWhichFace, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Note},
		Means: "Panels are on faces and the run turns: which face they are on makes a difference."},
}
