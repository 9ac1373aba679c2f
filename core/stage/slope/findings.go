package slope

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeCorridor       = "corridor"
	codeGapOverSystem  = "gap-over-system"
	codeGradeMark      = "grade-mark"
	codeLeanMisfit     = "lean-misfit"
	codeLineNotFound   = "line-not-found"
	codeNearBay        = "near-bay"
	codeNearPanel      = "near-panel"
	codeRack           = "rack"
	codeRackOverSystem = "rack-over-system"
	codeRailInGround   = "rail-in-ground"
	codeStep           = "step"
	codeWeakJoints     = "weak-joints"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeCorridor, Costs: finding.Time, Stage: finding.Grade, Severities: []finding.Severity{finding.Check},
		Means: "Bays cannot keep the gap between its least and its most: ground is cut or filled.", Threshold: "Fence.GapLeast, Fence.GapMost"},
	{Rule: codeGapOverSystem, Costs: finding.Looks, Stage: finding.Grade, Severities: []finding.Severity{finding.Check},
		Means: "The run allows a larger gap than its fence type.", Threshold: "the type's own gap, up to smallGap"},
	{Rule: codeGradeMark, Costs: finding.Rework, Stage: finding.Grade, Severities: []finding.Severity{finding.Cannot},
		Means: "The grade mark of a metal post would go below ground.", Threshold: "Post.Mark"},
	{Rule: codeLeanMisfit, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "No posts were found on which every leaning piece fits.", Threshold: "Spacing.Most, misfit, steepestLean"},
	{Rule: codeLineNotFound, Costs: finding.Time, Stage: finding.Grade, Severities: []finding.Severity{finding.Check},
		Means: "The best top line was not found: the one shown is possible, perhaps with more earth than is needed.", Threshold: "the solver's turns"},
	{Rule: codeNearBay, Costs: finding.Purchase, Stage: finding.Space, Severities: []finding.Severity{finding.Note},
		Means: "A bay a little longer would save a post.", Threshold: "nearBay"},
	{Rule: codeNearPanel, Costs: finding.Purchase, Stage: finding.Space, Severities: []finding.Severity{finding.Note},
		Means: "A little more or less play would leave no panel to cut.", Threshold: "nearPlay"},
	{Rule: codeRack, Costs: finding.Rework, Stage: finding.Grade, Severities: []finding.Severity{finding.Cannot},
		Means: "Panels lean more than they can.", Threshold: "Grade.Rack and a quarter of a mark"},
	{Rule: codeRackOverSystem, Costs: finding.Rework, Stage: finding.Grade, Severities: []finding.Severity{finding.Check},
		Means: "The run lets panels lean more than its fence type.", Threshold: "the type's own rack"},
	{Rule: codeRailInGround, Costs: finding.Rework, Stage: finding.Grade, Severities: []finding.Severity{finding.Cannot},
		Means: "The lowest rail would go into a post below the ground.", Threshold: "half a rail"},
	{Rule: codeStep, Costs: finding.Looks, Stage: finding.Grade, Severities: []finding.Severity{finding.Check},
		Means: "The top steps more than the run allows.", Threshold: "Grade.StepMost and a quarter of a mark"},
	{Rule: codeWeakJoints, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "Every rail has a joint on the same post.", Threshold: "spacing.Stagger"},
}
