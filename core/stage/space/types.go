package space

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// InTheWay is something in the way of holes.
type InTheWay struct {
	ID       string         `json:"id" jsonschema:"required"`
	Kind     job.Obstacle   `json:"kind" jsonschema:"required,enum=service,enum=root,enum=rock,enum=drain,enum=footing,enum=old post,enum=no dig"`
	Name     string         `json:"name" jsonschema:"required" jsonschema_description:"What it is, in words."`
	Path     string         `json:"path" jsonschema:"required"`
	From     length.Length  `json:"from" jsonschema:"required"`
	To       length.Length  `json:"to" jsonschema:"required"`
	HandFrom length.Length  `json:"handFrom" jsonschema:"required" jsonschema_description:"Where digging by hand begins."`
	HandTo   length.Length  `json:"handTo" jsonschema:"required"`
	Depth    *length.Length `json:"depth,omitempty"`
	Colour   string         `json:"colour,omitempty" jsonschema_description:"Name of the colour of its marks in the interface; left out for what is no service."`
	Stays    bool           `json:"stays" jsonschema:"required"`
	Repour   bool           `json:"repour" jsonschema:"required" jsonschema_description:"Old footing that is dug out and poured again."`
	Marked   bool           `json:"marked" jsonschema:"required"`

	Said string `json:"-"` // what it is called in a sentence, after "the"
}

// Segment is the stretch between two fixed posts, with equal bays.
type Segment struct {
	From length.Length `json:"from" jsonschema:"required"`
	To   length.Length `json:"to" jsonschema:"required"`
	Gate string        `json:"gate,omitempty"`
	Bays int           `json:"bays" jsonschema:"required"`
	Each length.Length `json:"each" jsonschema:"required" jsonschema_description:"The regular bay, centre to centre."`

	Odd    int           `json:"odd" jsonschema:"required" jsonschema_description:"Bays of another length."`
	Uneven length.Length `json:"uneven" jsonschema:"required" jsonschema_description:"By how much the oddest bay departs."`
	Shift  length.Length `json:"shift" jsonschema:"required" jsonschema_description:"How far the farthest post is off its regular place."`
	Why    *reason.Ref   `json:"why,omitempty"`

	GivenUp []string `json:"givenUp,omitempty" jsonschema_description:"What is in the way that no layout could keep clear of: planned as if it were not there."`
}

// spacePost is where a post stands.
type Post struct {
	ID      string        `json:"id" jsonschema:"required" jsonschema_description:"Its own for good, however the others are spaced: facts and links name it so."`
	Label   string        `json:"label" jsonschema:"required" jsonschema_description:"What it is called, in order along the run; unlike that of any other post of the run."`
	By      string        `json:"by,omitempty" jsonschema_description:"What it stands by, such as gates/G1/first or fixedPosts/F1; left out for a line post."`
	Kind    job.PostKind  `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Gate    string        `json:"gate,omitempty"`
	Held    string        `json:"held,omitempty" jsonschema_description:"Held post of the run that it is."`
	Landed  bool          `json:"landed,omitempty" jsonschema_description:"It is set already, and stands there."`
	Stays   string        `json:"stays,omitempty" jsonschema_description:"Old post that it is: no hole, no new post."`
	Shift   length.Length `json:"shift,omitempty" jsonschema_description:"How far it stands off its regular place."`
	Off     length.Length `json:"off,omitempty" jsonschema_description:"How far it landed off its mark: only the bays beside it changed."`
	Width   length.Length `json:"width" jsonschema:"required" jsonschema_description:"Its own section: side, or diameter of a round post. An old post's where it was measured."`
	Round   bool          `json:"round,omitempty" jsonschema_description:"A round post."`
	Hollow  bool          `json:"hollow,omitempty" jsonschema_description:"A hollow post."`
	Station length.Length `json:"station" jsonschema:"required" jsonschema_description:"Centre of the post, level from the run's start."`
	Slope   length.Length `json:"slopeTape" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Ground  length.Length `json:"ground" jsonschema:"required" jsonschema_description:"Height of the ground above the datum."`
}

// spaceBay is the space between two neighbouring posts.
type Bay struct {
	ID             string        `json:"id" jsonschema:"required" jsonschema_description:"That of the post that it ends at, after a b."`
	Label          string        `json:"label" jsonschema:"required" jsonschema_description:"What it is called: as its first post."`
	Gate           string        `json:"gate,omitempty"`
	From           string        `json:"from" jsonschema:"required"`
	To             string        `json:"to" jsonschema:"required"`
	CentreToCentre length.Length `json:"centreToCentre" jsonschema:"required"`
	Clear          length.Length `json:"clear" jsonschema:"required" jsonschema_description:"Between the posts' faces."`
	Odd            bool          `json:"odd,omitempty" jsonschema_description:"Not the stretch's regular bay."`
	Held           string        `json:"held,omitempty" jsonschema_description:"Held bay of the run that it is."`
	Piece          length.Length `json:"piece,omitempty" jsonschema_description:"Length of the panel, board or rail in it, where one sets the bay."`
	PieceCut       bool          `json:"pieceCut,omitempty" jsonschema_description:"That piece is cut from a full one."`
	Lead           length.Length `json:"lead,omitempty" jsonschema_description:"Panels on faces: from the first post's middle to where the panel begins, at a corner."`
	Trail          length.Length `json:"trail,omitempty" jsonschema_description:"The same at the second post."`
	Trims          int           `json:"trims,omitempty" jsonschema_description:"Ends of an overlapping rail whose tongue is trimmed, at terminals."`
}
