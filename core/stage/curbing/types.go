// Package curbing plans the mowing curb of a run: its section, what it takes beside the
// holes, its forms with the marks on them, its joints, and how the fence stands over it.
package curbing

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
)

// CurbPlan is the mowing curb of a run. Lengths along it are measured along the ground, in
// its middle, from the middle of the run's first post.
type CurbPlan struct {
	Width    length.Length   `json:"width" jsonschema:"required"`
	Depth    length.Length   `json:"depth" jsonschema:"required" jsonschema_description:"From its top to its bottom."`
	Above    length.Length   `json:"above" jsonschema:"required" jsonschema_description:"How far its top stands over the ground."`
	Off      length.Length   `json:"off" jsonschema:"required" jsonschema_description:"Its middle to the left of the posts', walking on."`
	Past     length.Length   `json:"past" jsonschema:"required" jsonschema_description:"How far it goes on past the middle of an end post."`
	Most     length.Length   `json:"most" jsonschema:"required" jsonschema_description:"Most from joint to joint."`
	Gates    job.CurbAtGates `json:"gates" jsonschema:"required,enum=through,enum=stops"`
	Parts    []CurbPart      `json:"parts" jsonschema:"required" jsonschema_description:"Stretches without a break."`
	Pours    []CurbPour      `json:"pours" jsonschema:"required" jsonschema_description:"What is poured from post to post."`
	Marks    []CurbMark      `json:"marks" jsonschema:"required" jsonschema_description:"On the forms, in order: posts and joints."`
	Length   length.Length   `json:"length" jsonschema:"required" jsonschema_description:"Of all stretches; at a corner to where the two middles meet."`
	Concrete length.Volume   `json:"concrete" jsonschema:"required" jsonschema_description:"Without the posts, and without what is counted in the holes."`
	Buy      length.Volume   `json:"buy" jsonschema:"required" jsonschema_description:"With the run's waste."`
	Waste    float64         `json:"waste" jsonschema:"required"`
	InHoles  length.Volume   `json:"inHoles" jsonschema:"required" jsonschema_description:"Concrete in its section that is counted in the holes."`
	Dug      length.Volume   `json:"dug" jsonschema:"required" jsonschema_description:"Trench beside the holes, as the soil lies."`
	Forms    length.Length   `json:"forms" jsonschema:"required" jsonschema_description:"Both sides, and the ends."`
	Stakes   int             `json:"stakes" jsonschema:"required"`
	Boards   int             `json:"boards" jsonschema:"required" jsonschema_description:"Form boards for this run alone."`
	Board    length.Length   `json:"board" jsonschema:"required" jsonschema_description:"Length of a form board."`
	Least    length.Length   `json:"least" jsonschema:"required" jsonschema_description:"Least gap from its top to the fence's bottom."`
	LeastAt  string          `json:"leastAt" jsonschema:"required" jsonschema_description:"Bay with the least gap; empty where no fence stands over it."`
	Beside   length.Length   `json:"beside" jsonschema:"required" jsonschema_description:"Least concrete beside a post."`
	BesideAt string          `json:"besideAt" jsonschema:"required" jsonschema_description:"Post with the least; empty where none stands in it."`

	Bag materials.Bag `json:"-"`

	square [2]bool // a corner that is too sharp to be mitered
}

// CurbPart is a stretch without a break.
type CurbPart struct {
	From  length.Length `json:"from" jsonschema:"required" jsonschema_description:"Before zero where it begins before the first post."`
	To    length.Length `json:"to" jsonschema:"required"`
	Begin length.Length `json:"begin" jsonschema:"required" jsonschema_description:"Station of its beginning, level."`
	Stop  length.Length `json:"stop" jsonschema:"required" jsonschema_description:"Station of its end, level."`
	Start bool          `json:"start,omitempty" jsonschema_description:"It goes on round a corner at its start."`
	End   bool          `json:"end,omitempty" jsonschema_description:"It goes on round a corner at its end."`
}

// CurbPour is what is poured between two neighbouring posts.
type CurbPour struct {
	Bay    string        `json:"bay" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Volume length.Volume `json:"volume" jsonschema:"required"`
	Buy    length.Volume `json:"buy" jsonschema:"required"`
}

// CurbMark is one mark on the forms.
type CurbMark struct {
	At    length.Length `json:"at" jsonschema:"required"`
	Post  string        `json:"post,omitempty" jsonschema_description:"Left out for a joint between posts."`
	Joint bool          `json:"joint,omitempty"`
}

// End is what is at one end of a run: the run beyond, where that has a curb too.
type End struct {
	Meets bool
	Turn  float64 // degrees off the straight-on line, walking the line on; left positive
	Off   length.Length
}
