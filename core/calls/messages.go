package calls

import (
	"encoding/json"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/report"
	"mallow/core/reshape"
	"mallow/core/scene"
	"mallow/core/stage/amend"
	"mallow/core/stringline"
)

// Document is a job document, byte for byte as it is kept.
type Document = json.RawMessage

// ReshapeRequest asks for a change of the lines as a whole.
type ReshapeRequest struct {
	Doc Document   `json:"doc" jsonschema:"required"`
	Op  reshape.Op `json:"op" jsonschema:"required"`
}

// Changed is a changed document, not saved yet.
type Changed struct {
	Doc  Document `json:"doc" jsonschema:"required"`
	What string   `json:"what" jsonschema:"required" jsonschema_description:"What was changed, for the history."`
}

// SquareRequest asks for a corner's diagonal, or what a taped one means.
type SquareRequest struct {
	LegA   length.Length  `json:"legA" jsonschema:"required"`
	LegB   length.Length  `json:"legB" jsonschema:"required" jsonschema_description:"Along the run whose string is moved."`
	Angle  float64        `json:"angle" jsonschema:"required" jsonschema_description:"Degrees wanted between the runs."`
	Taped  *length.Length `json:"taped,omitempty" jsonschema_description:"Diagonal as taped."`
	Far    length.Length  `json:"far" jsonschema:"required" jsonschema_description:"Length of the run whose string is moved."`
	Mark   length.Length  `json:"mark" jsonschema:"required" jsonschema_description:"Smallest mark of the tape."`
	System length.System  `json:"system" jsonschema:"required,enum=imperial,enum=metric"`
}

// Squared is the answer.
type Squared struct {
	Diagonal length.Length             `json:"diagonal" jsonschema:"required"`
	Three    *stringline.ThreeFourFive `json:"three,omitempty" jsonschema_description:"Largest 3-4-5 on these legs, at a right angle."`
	Check    *stringline.Check         `json:"check,omitempty"`
}

// PegRequest is a two-peg test's readings and distances.
type PegRequest struct {
	MidA length.Length `json:"midA" jsonschema:"required"`
	MidB length.Length `json:"midB" jsonschema:"required"`
	EndA length.Length `json:"endA" jsonschema:"required"`
	EndB length.Length `json:"endB" jsonschema:"required"`
	FarA length.Length `json:"farA" jsonschema:"required"`
	FarB length.Length `json:"farB" jsonschema:"required"`
}

// Reading is how a tape entry was read.
type Reading struct {
	OK     bool           `json:"ok" jsonschema:"required"`
	Length length.Length  `json:"length" jsonschema:"required"`
	Bare   bool           `json:"bare" jsonschema:"required" jsonschema_description:"A number without a unit."`
	Others []OtherReading `json:"others" jsonschema:"required" jsonschema_description:"What a number without a unit could also mean."`
	System length.System  `json:"system,omitempty" jsonschema:"enum=imperial,enum=metric" jsonschema_description:"Of the units that it was written in."`
	Part   string         `json:"part,omitempty" jsonschema_description:"The part that was not understood."`
	Why    string         `json:"why,omitempty" jsonschema_description:"Why it was not understood."`
}

// OtherReading is another meaning of a bare number.
type OtherReading struct {
	Text   string        `json:"text" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
}

// TableRequest asks for rows of a table of a run.
type TableRequest struct {
	Doc   Document `json:"doc" jsonschema:"required"`
	Table string   `json:"table" jsonschema:"required,enum=setout,enum=posts,enum=bays,enum=holes,enum=gates,enum=pour,enum=curb"`
	Run   string   `json:"run" jsonschema:"required"`
	From  int      `json:"from" jsonschema:"required,minimum=0"`
	Most  int      `json:"most" jsonschema:"required,minimum=1,maximum=500"`
	Sort  string   `json:"sort,omitempty" jsonschema_description:"Column, by its id, whose order the rows are in; left out: the order of the line."`
	Down  bool     `json:"down,omitempty" jsonschema_description:"The largest first."`
	Find  string   `json:"find,omitempty" jsonschema:"maxLength=200" jsonschema_description:"Only rows in which this is read."`
}

// TableRows are some rows of a table, as a screen shows them.
type TableRows struct {
	Name    string          `json:"name" jsonschema:"required"`
	Columns []report.Column `json:"columns" jsonschema:"required"`
	Rows    []TableRow      `json:"rows" jsonschema:"required"`
	Count   int             `json:"count" jsonschema:"required" jsonschema_description:"How many rows there are in all."`
}

// TableRow is one row, and the post or bay that it is of.
type TableRow struct {
	Post  string `json:"post,omitempty"`
	Bay   string `json:"bay,omitempty"`
	Cells []any  `json:"cells" jsonschema:"required" jsonschema_description:"Lengths in millimetres, all else in words; null where there is nothing to say."`
}

// Compared is a run with other bays, lengths and heights.
type Compared struct {
	Run     string             `json:"run" jsonschema:"required"`
	Choices []plan.StockChoice `json:"choices" jsonschema:"required" jsonschema_description:"As it is first, then the least waste."`
}

// BuildRequest asks for what stands above ground on a run.
type BuildRequest struct {
	Doc   Document `json:"doc" jsonschema:"required"`
	Run   string   `json:"run" jsonschema:"required"`
	Alone bool     `json:"alone,omitempty" jsonschema_description:"Cut lists of the run by itself, as the truck goes; left out: of the whole job."`
}

// ExplainRequest asks why a figure is what it is.
type ExplainRequest struct {
	Doc    Document    `json:"doc" jsonschema:"required"`
	Figure plan.Figure `json:"figure" jsonschema:"required"`
}

// Explained is why a figure is what it is.
type Explained struct {
	Figure   string          `json:"figure" jsonschema:"required"`
	Sentence reason.Text     `json:"sentence" jsonschema:"required" jsonschema_description:"The explanation in one sentence."`
	Steps    []reason.Step   `json:"steps" jsonschema:"required" jsonschema_description:"The rules that spoke."`
	Asked    []length.Length `json:"asked,omitempty" jsonschema_description:"What the first steps asked for, in their order, where rules compete."`
	Caution  string          `json:"caution,omitempty"`
}

// AdviseRequest asks for the ways out of findings: of those that are named, or
// of all. Each comes in a line of its own as it is worked out.
type AdviseRequest struct {
	Doc      Document `json:"doc" jsonschema:"required"`
	Findings []string `json:"findings,omitempty"`
}

// AmendRequest asks what can be done about what differs from the plan.
type AmendRequest struct {
	Doc  Document `json:"doc" jsonschema:"required"`
	Post string   `json:"post,omitempty" jsonschema_description:"Id of one post, whatever was decided there. Left out: all of which something is to be decided."`
}

// Amended is what can be done about what differs from the plan.
type Amended struct {
	Deviations []amend.Amending `json:"deviations" jsonschema:"required"`
}

// WaysRequest asks for the ways out of a hole that was stopped.
type WaysRequest struct {
	Doc  Document `json:"doc" jsonschema:"required"`
	Run  string   `json:"run" jsonschema:"required"`
	Post string   `json:"post" jsonschema:"required"`
}

// Ways are the ways out of a hole that was stopped, in one measure.
type Ways struct {
	Ways []plan.WayOut `json:"ways" jsonschema:"required"`
}

// AlternativesRequest asks for the layouts of a run that are worth having.
type AlternativesRequest struct {
	Doc Document `json:"doc" jsonschema:"required"`
	Run string   `json:"run" jsonschema:"required"`
}

// Alternatives are layouts side by side, the one as it is first.
type Alternatives struct {
	Run     string             `json:"run" jsonschema:"required"`
	Layouts []plan.Alternative `json:"layouts" jsonschema:"required"`
}

// Looks are a run in every look, side by side.
type Looks struct {
	Run   string            `json:"run" jsonschema:"required"`
	Looks []plan.LookChoice `json:"looks" jsonschema:"required"`
}

// TapeRequest is a tape entry as it is typed, and the field that it is for.
type TapeRequest struct {
	Text   string        `json:"text" jsonschema:"required"`
	System length.System `json:"system" jsonschema:"required,enum=imperial,enum=metric"`
	Field  string        `json:"field,omitempty"`
}

// ReplanRequest asks for a plan of somebody who has the one before.
type ReplanRequest struct {
	Doc   Document `json:"doc" jsonschema:"required"`
	After int      `json:"after" jsonschema:"required" jsonschema_description:"Number of the plan that the asker has; 0 for none."`
	Views []View   `json:"views,omitempty" jsonschema_description:"Drawings of it that are wanted with it."`
}

// View is which drawing of a plan, and the frame that it is put into.
type View = scene.View

// DrawRequest asks for drawings of a job's plan.
type DrawRequest struct {
	Doc   Document `json:"doc" jsonschema:"required"`
	Views []View   `json:"views" jsonschema:"required"`
}

// Drawn are the drawings, in the order of their views; null where there is
// nothing to draw any more, as of a gate that was taken out.
type Drawn struct {
	Drawings []*scene.Drawing `json:"drawings" jsonschema:"required"`
}

// Replanned is a plan without the runs that are as they were.
type Replanned struct {
	Number   int              `json:"number" jsonschema:"required"`
	Runs     []string         `json:"runs" jsonschema:"required" jsonschema_description:"Ids of all runs, in their order."`
	Plan     plan.Plan        `json:"plan" jsonschema:"required" jsonschema_description:"Its runs are those that changed only."`
	Drawings []*scene.Drawing `json:"drawings,omitempty" jsonschema_description:"The drawings that were asked for, in their order."`
}
