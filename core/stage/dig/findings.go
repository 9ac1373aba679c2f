package dig

import "mallow/core/finding"

// What this stage finds, by its code in the plan document.
const (
	codeDrivenInFill     = "driven-in-fill"
	codeForbiddenSetting = "forbidden-setting"
	codeHandDig          = "hand-dig"
	codeHolesMeet        = "holes-meet"
	codeInTheWay         = "in-the-way"
	codeLooseSoil        = "loose-soil"
	codeMindSetting      = "mind-setting"
	codeMustBeConcrete   = "must-be-concrete"
	codeNearAuger        = "near-auger"
	codeNearStock        = "near-stock"
	codeNeverFilled      = "never-filled"
	codeNoAuger          = "no-auger"
	codeNoConcrete       = "no-concrete"
	codePostOffHole      = "post-off-hole"
	codeShallow          = "shallow"
	codeShortBay         = "short-bay"
	codeOverrideLeft     = "spot-left"
	codeStock            = "stock"
	codeStopped          = "stopped"
	codeTaperHeave       = "taper-heave"
	codeThinCover        = "thin-cover"
	codeUncutDeep        = "uncut-deep"
	codeUncutLong        = "uncut-long"
)

// Findings are what this stage finds: what each means, how bad it can be, and
// from what on it is said.
var Findings = []finding.Kind{
	{Rule: codeDrivenInFill, Costs: finding.Harm, Stage: finding.Dig, Severities: []finding.Severity{finding.Cannot},
		Means: "A post would be driven into soil that an old footing left loose.", Threshold: "disturbed"},
	{Rule: codeForbiddenSetting, Costs: finding.Harm, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot},
		Means: "Posts are set in a way that the fence type rules out."},
	{Rule: codeHandDig, Costs: finding.Harm, Stage: finding.Dig, Severities: []finding.Severity{finding.Check},
		Means: "A hole is so near a service that it is dug by hand.", Threshold: "KeepOut.Hand"},
	{Rule: codeHolesMeet, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Cannot},
		Means: "Two holes run into each other.", Threshold: "half of each hole"},
	{Rule: codeInTheWay, Costs: finding.Harm, Stage: finding.Space, Severities: []finding.Severity{finding.Cannot, finding.Check},
		Means: "A hole runs into something.", Threshold: "length.Tolerance"},
	{Rule: codeLooseSoil, Costs: finding.Rework, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "Too little firm soil is left beside an old footing.", Threshold: "spacing.Soil"},
	{Rule: codeMindSetting, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Note},
		Means: "The fence type asks for care with the way its posts are set."},
	{Rule: codeMustBeConcrete, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot},
		Means: "Posts that take the pull are packed or driven, and the fence type wants them in concrete."},
	{Rule: codeNearAuger, Costs: finding.Purchase, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "A hole a little narrower would do with the next smaller auger.", Threshold: "nearAuger"},
	{Rule: codeNearStock, Costs: finding.Purchase, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "Posts a little shorter would come from the next shorter stock.", Threshold: "nearStock"},
	{Rule: codeNeverFilled, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot},
		Means: "Hollow posts would be filled, and the fence type forbids it."},
	{Rule: codeNoAuger, Costs: finding.Purchase, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "No auger in the list is as wide as a hole."},
	{Rule: codeNoConcrete, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot},
		Means: "The soil cover leaves no room for concrete."},
	{Rule: codePostOffHole, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Cannot},
		Means: "A hole lies so far off its post that the post is not in it.", Threshold: "length.Tolerance"},
	{Rule: codeShallow, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Check},
		Means: "A depth set by hand is less than the rules ask for.", Threshold: "length.Tolerance"},
	{Rule: codeShortBay, Costs: finding.Looks, Stage: finding.Space, Severities: []finding.Severity{finding.Check},
		Means: "A bay beside a gate or a held post is a sliver.", Threshold: "a third of the most spacing"},
	{Rule: codeOverrideLeft, Costs: finding.Time, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "Rules for a single hole have no post any more."},
	{Rule: codeStock, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Cannot},
		Means: "A post is longer than any stock.", Threshold: "the longest stock"},
	{Rule: codeStopped, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Check},
		Means: "A hole was stopped short of its depth, and nothing is settled yet."},
	{Rule: codeTaperHeave, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "A footing is wider at the top, and frost grips it."},
	{Rule: codeThinCover, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "Too little concrete stands between a post and the soil.", Threshold: "LeastRoom"},
	{Rule: codeUncutDeep, Costs: finding.Purchase, Stage: finding.Dig, Severities: []finding.Severity{finding.Note},
		Means: "A post that cannot be cut stands much deeper than asked.", Threshold: "muchDeeper"},
	{Rule: codeUncutLong, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Cannot},
		Means: "A post that cannot be cut is too long for its hole.", Threshold: "the tape's mark"},
}
