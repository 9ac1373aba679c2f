package gates

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeAnimalsGap      = "animals-gap"
	codeGateIntoRoad    = "gate-into-road"
	codeGateNarrow      = "gate-narrow"
	codeGateRoom        = "gate-room"
	codeHardwarePost    = "hardware-post"
	codeHardwareWeak    = "hardware-weak"
	codeHingePost       = "hinge-post"
	codeHinges          = "hinges"
	codeLatchOffLeaf    = "latch-off-leaf"
	codeLeaf            = "leaf"
	codeLeafHits        = "leaf-hits"
	codeLeafMeetsPost   = "leaf-meets-post"
	codeLeafStrikes     = "leaf-strikes"
	codeLeavesCross     = "leaves-cross"
	codeOldHinges       = "old-hinges"
	codePoolGap         = "pool-gap"
	codePoolLatch       = "pool-latch"
	codePoolSwing       = "pool-swing"
	codeRoadUnmeasured  = "road-unmeasured"
	codeRunBack         = "run-back"
	codeRunBackGround   = "run-back-ground"
	codeSetBack         = "set-back"
	codeSwingUnmeasured = "swing-unmeasured"
	codeTipDrop         = "tip-drop"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeAnimalsGap, Costs: finding.Looks, Stage: finding.Gates, Severities: []finding.Severity{finding.Note},
		Means: "Small animals get through under a gate.", Threshold: "Passage.Creeping"},
	{Rule: codeGateIntoRoad, Costs: finding.Harm, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot},
		Means: "An open leaf stands in the road.", Threshold: "Gate.Road"},
	{Rule: codeGateNarrow, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "What is to go through a gate has too little room.", Threshold: "Passage.Clear, Passage.Beside"},
	{Rule: codeGateRoom, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot},
		Means: "An open leaf meets what stands inside.", Threshold: "Gate.RoomIn"},
	{Rule: codeHardwarePost, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The hinges do not go on such a post."},
	{Rule: codeHardwareWeak, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The leaf is heavier than the hinges are usually hung with.", Threshold: "Hardware.Most"},
	{Rule: codeHingePost, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The leaf's weight takes much of what its post's footing bears.", Threshold: "Passage.Share"},
	{Rule: codeHinges, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot},
		Means: "The leaf has no room for two hinges.", Threshold: "leastSpacing"},
	{Rule: codeLatchOffLeaf, Costs: finding.Time, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The latch is not on the leaf.", Threshold: "length.Tolerance"},
	{Rule: codeLeaf, Costs: finding.Rework, Stage: finding.Grade, Severities: []finding.Severity{finding.Cannot},
		Means: "Too little is left for the height of a leaf.", Threshold: "leastLeaf"},
	{Rule: codeLeafHits, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot},
		Means: "A leaf strikes a post or another fence.", Threshold: "gate.Swept"},
	{Rule: codeLeafMeetsPost, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "A leaf meets its own post before it is as far open as is wanted.", Threshold: "gate.MeetsPost"},
	{Rule: codeLeafStrikes, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot, finding.Check},
		Means: "A leaf strikes the ground on its way, or clears it by too little.", Threshold: "Gate.Least and Gate.Snow"},
	{Rule: codeLeavesCross, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Note},
		Means: "Two leaves are in each other's way.", Threshold: "gate.Meets"},
	{Rule: codeOldHinges, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The hinges of an old gate post that stays are not on the leaf.", Threshold: "the leaf's bottom and top"},
	{Rule: codePoolGap, Costs: finding.Harm, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The gap under a gate in a pool barrier is larger than codes usually allow.", Threshold: "Passage.PoolGap"},
	{Rule: codePoolLatch, Costs: finding.Harm, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The latch in a pool barrier is within a small child's reach.", Threshold: "Passage.PoolLatch"},
	{Rule: codePoolSwing, Costs: finding.Harm, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "A gate in a pool barrier opens toward the water."},
	{Rule: codeRoadUnmeasured, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Note},
		Means: "How far the road is was not measured, and a vehicle has to wait there."},
	{Rule: codeRunBack, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot},
		Means: "A sliding leaf has no room to run back.", Threshold: "length.Tolerance"},
	{Rule: codeRunBackGround, Costs: finding.Harm, Stage: finding.Gates, Severities: []finding.Severity{finding.Cannot},
		Means: "The ground is too high where a sliding leaf runs back.", Threshold: "Gate.Least and Gate.Snow"},
	{Rule: codeSetBack, Costs: finding.Harm, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "A waiting vehicle stands in the road.", Threshold: "gate.SetBack"},
	{Rule: codeSwingUnmeasured, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Note},
		Means: "The ground under a leaf's way was not measured, or not as far as it reaches.", Threshold: "100 mm"},
	{Rule: codeTipDrop, Costs: finding.Rework, Stage: finding.Gates, Severities: []finding.Severity{finding.Check},
		Means: "The hinge's thread is too short to lift a leaf that has dropped.", Threshold: "Hardware.Travel"},
}
