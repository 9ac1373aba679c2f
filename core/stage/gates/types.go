package gates

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/survey"
)

// HangMark is a mark on a gate post.
type HangMark struct {
	Name     string        `json:"name" jsonschema:"required"`
	Post     string        `json:"post" jsonschema:"required"`
	Above    length.Length `json:"above" jsonschema:"required" jsonschema_description:"Above the ground at the post."`
	FromMark length.Length `json:"fromMark" jsonschema:"required" jsonschema_description:"Below the post's reference mark; negative is above it."`
	OnLeaf   length.Length `json:"onLeaf" jsonschema:"required" jsonschema_description:"Above the leaf's bottom."`
	Pin      string        `json:"pin,omitempty" jsonschema:"enum=up,enum=down" jsonschema_description:"Way that a hinge's pin points."`
}

// Block is what a leaf stands on while it is hung.
type Block struct {
	Name   string        `json:"name" jsonschema:"required"`
	Height length.Length `json:"height" jsonschema:"required"`
	At     length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station."`
}

// LeafBrace is what keeps a leaf from sagging.
type LeafBrace struct {
	Kind   materials.Brace `json:"kind" jsonschema:"required,enum=strut,enum=tie,enum=unbraced"`
	Length length.Length   `json:"length" jsonschema:"required" jsonschema_description:"From corner to corner of the leaf."`
	Angle  float64         `json:"angle" jsonschema:"required" jsonschema_description:"Degrees from level."`
	Says   reason.Text     `json:"says,omitempty"`
}

// Adjusting is how a tip that has dropped is lifted again.
type Adjusting struct {
	Drop   length.Length `json:"drop" jsonschema:"required"`
	In     length.Length `json:"in" jsonschema:"required" jsonschema_description:"How far the top hinge's bolt is turned in, or the bottom hinge is packed out."`
	Turns  float64       `json:"turns" jsonschema:"required" jsonschema_description:"0 where the hinge has no thread."`
	Travel length.Length `json:"travel" jsonschema:"required" jsonschema_description:"What the bolt has."`
	Enough bool          `json:"enough" jsonschema:"required"`
	Says   reason.Text   `json:"says,omitempty"`
}

// PostLength is a post length that can be had, and how deep it would stand.
type PostLength struct {
	Post   string        `json:"post" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Foot   length.Length `json:"foot" jsonschema:"required" jsonschema_description:"How much of it stands in the ground: its length less reveal and trim."`
	Asked  length.Length `json:"asked" jsonschema:"required" jsonschema_description:"What the rules ask for."`
	Enough bool          `json:"enough" jsonschema:"required"`
	Taken  bool          `json:"taken" jsonschema:"required"`
	Edits  []job.Edit    `json:"edits" jsonschema:"required" jsonschema_description:"Set the run's gate posts as deep as this length reaches."`
}

// GateLeaf is one leaf of a swing gate.
type GateLeaf struct {
	Post      string        `json:"post" jsonschema:"required" jsonschema_description:"That it hangs on."`
	End       job.End       `json:"end" jsonschema:"required,enum=first,enum=second" jsonschema_description:"Which of the gate's posts that is."`
	Width     length.Length `json:"width" jsonschema:"required"`
	Height    length.Length `json:"height" jsonschema:"required" jsonschema_description:"At its hinges."`
	TipHeight length.Length `json:"tipHeight" jsonschema:"required" jsonschema_description:"At its other edge."`
	Thick     length.Length `json:"thick" jsonschema:"required"`
	Pin       length.Length `json:"pin" jsonschema:"required" jsonschema_description:"Station of its hinges' pins."`
	Heel      length.Length `json:"heel" jsonschema:"required" jsonschema_description:"From the pins to its near edge."`
	Reach     length.Length `json:"reach" jsonschema:"required" jsonschema_description:"From the pins to its far edge."`
	Ahead     bool          `json:"ahead" jsonschema:"required" jsonschema_description:"Closed, it lies toward the run's end."`
	Lift      length.Length `json:"lift" jsonschema:"required"`

	Mass      length.Mass   `json:"mass" jsonschema:"required"`
	Estimated bool          `json:"estimated" jsonschema:"required"`
	Moment    float64       `json:"moment" jsonschema:"required" jsonschema_description:"Newton metres that it pulls its post over with."`
	Spacing   length.Length `json:"spacing" jsonschema:"required" jsonschema_description:"Between its outer hinges."`
	Pull      float64       `json:"pull" jsonschema:"required" jsonschema_description:"Newtons: what the top hinge is pulled out with and the bottom one pushed in; 0 where the hinges do not fit."`

	Given  bool       `json:"given,omitempty" jsonschema_description:"Its hinges are where an old post has them."`
	Hinges []HangMark `json:"hinges" jsonschema:"required" jsonschema_description:"The lowest first."`
	Blocks []Block    `json:"blocks" jsonschema:"required" jsonschema_description:"What it is propped on while it is hung: under its hinge end, then under its tip."`
	Brace  *LeafBrace `json:"brace,omitempty"`
	Adjust *Adjusting `json:"adjust,omitempty" jsonschema_description:"How a measured drop at its tip is taken out."`
	Sides  []LeafSide `json:"sides" jsonschema:"required" jsonschema_description:"The sides that it swings to."`
}

// LeafSide is a leaf's swing to one side of the fence.
type LeafSide struct {
	Side   job.Swing     `json:"side" jsonschema:"required,enum=in,enum=out"`
	Gap    length.Length `json:"gap" jsonschema:"required" jsonschema_description:"Least gap under the leaf on its way; negative where it strikes."`
	Angle  float64       `json:"angle" jsonschema:"required" jsonschema_description:"Where that is: degrees from closed."`
	Out    length.Length `json:"out" jsonschema:"required" jsonschema_description:"Where that is: from the pins."`
	Wanted length.Length `json:"wanted" jsonschema:"required" jsonschema_description:"Least gap that must be left, snow among it."`
	Clears bool          `json:"clears" jsonschema:"required" jsonschema_description:"No less than that is left anywhere on its way."`
	Short  *float64      `json:"short,omitempty" jsonschema_description:"Angle from which on less than that is left; left out where it never is."`
	Touch  *float64      `json:"touch,omitempty" jsonschema_description:"Angle at which it touches the ground."`
	Cut    length.Length `json:"cut" jsonschema:"required" jsonschema_description:"Ground to cut so that it clears, where it is deepest; 0 for none."`
	Earth  length.Volume `json:"earth" jsonschema:"required" jsonschema_description:"Volume of that."`
	IsCut  bool          `json:"isCut" jsonschema:"required" jsonschema_description:"The job says that it is cut: the other figures are with the ground cut."`
	Struck *Struck       `json:"struck,omitempty" jsonschema_description:"What stands in its way."`
	Hold   HoldBack      `json:"hold" jsonschema:"required" jsonschema_description:"Where the open leaf is held."`

	Angles  []float64       `json:"angles" jsonschema:"required" jsonschema_description:"Of the profiles."`
	Outs    []length.Length `json:"outs" jsonschema:"required" jsonschema_description:"Distances from the pins at which the ground is given."`
	Ground  []LeafGround    `json:"ground" jsonschema:"required" jsonschema_description:"Under the leaf at each of the angles."`
	Outline []survey.Place  `json:"outline" jsonschema:"required" jsonschema_description:"The swept ground on the map."`
}

// LeafGround is the ground under a leaf held at one angle.
type LeafGround struct {
	Bottom  length.Length   `json:"bottom" jsonschema:"required" jsonschema_description:"Height of the leaf's bottom above the datum."`
	Heights []length.Length `json:"heights" jsonschema:"required" jsonschema_description:"Of the ground, at the distances of the profile."`
	Gap     length.Length   `json:"gap" jsonschema:"required" jsonschema_description:"Least gap there."`
	Out     length.Length   `json:"out" jsonschema:"required" jsonschema_description:"Where that is."`
}

// Struck is what a leaf strikes.
type Struck struct {
	What  string  `json:"what" jsonschema:"required"`
	Angle float64 `json:"angle" jsonschema:"required"`
}

// HoldBack is where the open leaf's tip stands.
type HoldBack struct {
	Off   length.Length `json:"off" jsonschema:"required" jsonschema_description:"Square off the line."`
	Along length.Length `json:"along" jsonschema:"required" jsonschema_description:"From the hinge post's middle along the run, toward the gate's other post; negative is away from it."`
}

// Gate is one planned gate: its opening, its leaves, how they swing, and how
// they are hung.
type Gate struct {
	ID      string        `json:"id" jsonschema:"required"`
	Name    string        `json:"name" jsonschema:"required"`
	Path    string        `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of the gate in the job document."`
	At      length.Length `json:"at" jsonschema:"required"`
	Opening length.Length `json:"opening" jsonschema:"required" jsonschema_description:"Inside measure, between the faces of its posts."`
	First   string        `json:"first" jsonschema:"required" jsonschema_description:"Its first post."`
	Second  string        `json:"second" jsonschema:"required"`
	Bay     string        `json:"bay" jsonschema:"required"`
	Leaf    length.Length `json:"leaf" jsonschema:"required" jsonschema_description:"Height of the leaf: from its gap up to the fence's top line."`

	Kind    job.GateKind  `json:"kind" jsonschema:"required,enum=swing,enum=slide"`
	Use     job.GateUse   `json:"use" jsonschema:"required,enum=walk,enum=vehicle"`
	Swing   job.Swing     `json:"swing" jsonschema:"required,enum=in,enum=out,enum=both"`
	SizedBy string        `json:"sizedBy" jsonschema:"required,enum=leaf,enum=clear,enum=inside" jsonschema_description:"Measure that the others follow from."`
	Clear   length.Length `json:"clear" jsonschema:"required" jsonschema_description:"Clear way past the open leaves."`
	Centre  length.Length `json:"centre" jsonschema:"required" jsonschema_description:"Centre to centre of its posts."`
	Outside length.Length `json:"outside" jsonschema:"required" jsonschema_description:"Outside to outside of its posts."`
	Post    length.Length `json:"post" jsonschema:"required" jsonschema_description:"Width of its posts."`
	Bottom  length.Length `json:"bottom" jsonschema:"required" jsonschema_description:"Height of the closed leaf's bottom above the datum."`
	Highest length.Length `json:"highest" jsonschema:"required" jsonschema_description:"Highest ground across the opening, above the datum."`
	Meets   float64       `json:"meets" jsonschema:"required" jsonschema_description:"Angle at which a leaf meets its own post, degrees from closed; 180 where it never does."`
	Open    float64       `json:"open" jsonschema:"required" jsonschema_description:"How far its leaves open, degrees."`

	Checks  []GateCheck  `json:"checks,omitempty" jsonschema_description:"Measures that prove the two posts before anything is hung."`
	Leaves  []GateLeaf   `json:"leaves" jsonschema:"required" jsonschema_description:"The one on the first post first."`
	RunBack *RunBack     `json:"runBack,omitempty" jsonschema_description:"Where a sliding leaf runs to."`
	SetBack *SetBack     `json:"setBack,omitempty" jsonschema_description:"How far from the road the line must lie."`
	Lengths []PostLength `json:"lengths" jsonschema:"required" jsonschema_description:"Post lengths that can be had, and how deep each would stand."`
	Latch   *HangMark    `json:"latch,omitempty"`
	Steps   []GateStep   `json:"steps,omitempty" jsonschema_description:"How it is hung, in order."`
	After   []GateStep   `json:"after,omitempty" jsonschema_description:"What to look at after a week."`
	Order   []GateStep   `json:"order,omitempty" jsonschema_description:"What is ordered for it."`
	Why     *GateWhy     `json:"why,omitempty"`

	index int // place in the planned run's gates
}

// GateWhy is where a gate's figures are explained.
type GateWhy struct {
	Inside reason.Ref `json:"inside" jsonschema:"required"`
	Clear  reason.Ref `json:"clear" jsonschema:"required"`
	Swing  reason.Ref `json:"swing" jsonschema:"required"`
	Pull   reason.Ref `json:"pull" jsonschema:"required"`
}

// GateCheck is a measure to tape.
type GateCheck struct {
	Name   string        `json:"name" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Says   reason.Text   `json:"says" jsonschema:"required"`
}

// GateStep is a step of the work, or a line of a list.
type GateStep struct {
	Says reason.Text `json:"says" jsonschema:"required"`
}

// RunBack is the stretch of fence that an open sliding leaf stands before.
type RunBack struct {
	Past length.Length `json:"past" jsonschema:"required" jsonschema_description:"How far it reaches past the post."`
	Room length.Length `json:"room" jsonschema:"required" jsonschema_description:"What there is to the run's end."`
	From length.Length `json:"from" jsonschema:"required" jsonschema_description:"Station at which it begins."`
	To   length.Length `json:"to" jsonschema:"required"`
	Post string        `json:"post" jsonschema:"required"`
	Gap  length.Length `json:"gap" jsonschema:"required" jsonschema_description:"Least gap under the leaf on its way."`
	At   length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station of it."`
}

// SetBack is what a vehicle needs to stand clear of the road.
type SetBack struct {
	Needed length.Length `json:"needed" jsonschema:"required"`
	Road   length.Length `json:"road" jsonschema:"required" jsonschema_description:"What there is; 0 where it was not measured."`
}
