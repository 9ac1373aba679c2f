package slope

import (
	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage/space"
)

// RailRow is one row of rails along a run.
type RailRow struct {
	Row    int     `json:"row" jsonschema:"required" jsonschema_description:"From the ground up, 1 first."`
	Pieces []Piece `json:"pieces" jsonschema:"required"`
}

// Piece is one rail from joint to joint.
type Piece struct {
	From   string        `json:"from" jsonschema:"required" jsonschema_description:"Post that it begins on."`
	To     string        `json:"to" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Cut    bool          `json:"cut" jsonschema:"required" jsonschema_description:"Cut from a full rail."`
}

// RailHole is where a rail goes into a post, its middle above the ground at
// the post. On a step the two sides differ.
type RailHole struct {
	Before *length.Length `json:"before,omitempty" jsonschema_description:"Of the bay before; left out at the run's first post and beside a gate."`
	After  *length.Length `json:"after,omitempty" jsonschema_description:"Of the bay after."`
}

// PanelInfill is what closes the triangle that a level panel leaves over a slope.
type PanelInfill struct {
	Kind   job.Infill    `json:"kind" jsonschema:"required,enum=gravel boards,enum=boards"`
	Long   length.Length `json:"long" jsonschema:"required" jsonschema_description:"Face to face of the posts."`
	Start  length.Length `json:"start" jsonschema:"required" jsonschema_description:"Height at the first post's face: from the panel's bottom to the least gap over the ground."`
	End    length.Length `json:"end" jsonschema:"required" jsonschema_description:"The same at the second post's face."`
	Most   length.Length `json:"most" jsonschema:"required" jsonschema_description:"Greatest height."`
	Boards int           `json:"boards" jsonschema:"required" jsonschema_description:"Boards one under the other."`
	Board  length.Length `json:"board" jsonschema:"required" jsonschema_description:"Height of one."`
	Let    length.Length `json:"let" jsonschema:"required" jsonschema_description:"How deep gravel boards are let into the high ground; 0 for boards cut to the slope."`
	Marks  []InfillMark  `json:"marks" jsonschema:"required" jsonschema_description:"For boards cut to the slope: where to mark them, from the first post's face."`
}

// InfillMark is one mark of the line that infill boards are cut to.
type InfillMark struct {
	At    length.Length `json:"at" jsonschema:"required" jsonschema_description:"From the first post's face, level."`
	Under length.Length `json:"under" jsonschema:"required" jsonschema_description:"Below the panel's bottom."`
}

// gradePost is how a post stands on the slope.
type Post struct {
	space.Post
	Grade       bool          `json:"grade,omitempty" jsonschema_description:"A grade post: the top changes slope here."`
	Top         length.Length `json:"top" jsonschema:"required" jsonschema_description:"Height of the post's top above the datum."`
	AboveGrade  length.Length `json:"reveal" jsonschema:"required" jsonschema_description:"How much post shows above ground, at its middle."`
	AboveBefore length.Length `json:"revealBefore" jsonschema:"required" jsonschema_description:"The same at the face towards the run's start: a post stays plumb on a slope, so its faces differ."`
	AboveAfter  length.Length `json:"revealAfter" jsonschema:"required" jsonschema_description:"The same at its other face."`
	Mark        length.Length `json:"mark" jsonschema:"required" jsonschema_description:"Reference mark above ground, so far below the fence's top: everything on the post is measured from it."`
	Step        length.Length `json:"step" jsonschema:"required" jsonschema_description:"By how much the fence's top goes up here from the bay before to the one after; negative is down."`
	Overlap     length.Length `json:"overlap" jsonschema:"required" jsonschema_description:"Height over which the panels on both sides meet on the post."`
	Holes       []RailHole    `json:"holes,omitempty" jsonschema_description:"Holes or routs for the rails, the lowest first; left out where rails do not go into posts."`
}

// Bay is the space between two neighbouring posts, as it lies on the slope.
type Bay struct {
	space.Bay
	BottomStart length.Length `json:"bottomStart" jsonschema:"required" jsonschema_description:"Heights above the datum; for a gate, of the leaf's bottom."`
	BottomEnd   length.Length `json:"bottomEnd" jsonschema:"required"`
	TopStart    length.Length `json:"topStart" jsonschema:"required"`
	TopEnd      length.Length `json:"topEnd" jsonschema:"required"`
	Look        job.Look      `json:"look" jsonschema:"required,enum=level,enum=stepped,enum=raked,enum=rolling"`
	Lean        length.Length `json:"lean" jsonschema:"required" jsonschema_description:"How far the top rises over the bay, centre to centre; negative is falling."`
	Angle       float64       `json:"angle" jsonschema:"required" jsonschema_description:"The same as an angle, degrees."`
	Long        length.Length `json:"long" jsonschema:"required" jsonschema_description:"True length along the slope of the bay's top, face to face of its posts: what a rail between them is cut to."`
	FaceStart   length.Length `json:"faceStart" jsonschema:"required" jsonschema_description:"Gap under the fence at the face of its first post."`
	FaceEnd     length.Length `json:"faceEnd" jsonschema:"required" jsonschema_description:"The same at the face of its second post."`
	OnGround    length.Length `json:"onGround" jsonschema:"required" jsonschema_description:"Centre to centre along the ground, as a tape lies on the slope."`
	GapLeast    grade.Gap     `json:"gapLeast" jsonschema:"required"`
	GapMost     grade.Gap     `json:"gapMost" jsonschema:"required"`
	Cut         *grade.Earth  `json:"cut,omitempty" jsonschema_description:"Ground to cut so that the least gap holds; left out where it does."`
	Fill        *grade.Earth  `json:"fill,omitempty" jsonschema_description:"Ground to fill so that the most gap holds; left out where it does."`
	Boards      int           `json:"boards,omitempty" jsonschema_description:"Gravel boards that belong to the fence, one above the other at its foot."`
	Board       length.Length `json:"board,omitempty" jsonschema_description:"Height of one, and of an infill board."`
	Infill      *PanelInfill  `json:"infill,omitempty" jsonschema_description:"What closes the triangle under a level panel instead of earth."`
	Why         *BayWhy       `json:"why,omitempty"`
}

// BayWhy is where a bay's figures are explained.
type BayWhy struct {
	Spacing reason.Ref `json:"spacing" jsonschema:"required"`
	Gap     reason.Ref `json:"gap" jsonschema:"required"`
	Lean    reason.Ref `json:"lean" jsonschema:"required"`
}
