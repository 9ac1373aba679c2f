// Package job holds what the installer measured and chose: the job document.
//
// The document is JSON with a version. Lengths in it are millimetres as plain
// numbers, whatever system the job is printed in. Fields that this version
// does not know stay in the document untouched (the document's bytes are what
// is kept; the Go types are a view of it) and are reported by Decode.
package job

import "mallow/core/length"

// Version is the version of the job document that this code reads.
const Version = 2

// Job is one customer's site.
type Job struct {
	Mallow int          `json:"mallow" jsonschema:"required,enum=2" jsonschema_description:"Version of the job document."`
	Name   string       `json:"name" jsonschema:"required,minLength=1,maxLength=120"`
	Units  length.Units `json:"units" jsonschema:"required"`
	Site   Site         `json:"site"`
	Lines  []Line       `json:"lines" jsonschema:"required,minItems=1,maxItems=50" jsonschema_description:"Fence lines, each a chain of runs."`

	Hole    HoleRules    `json:"hole,omitzero" jsonschema_description:"Rules for holes that hold for the whole job; what a run, a kind of post or a single post says of its own goes before them."`
	Setting SettingRules `json:"setting,omitzero" jsonschema_description:"What goes into the holes, for the whole job."`

	Saw     Saw      `json:"saw,omitzero" jsonschema_description:"How lumber and pipe are cut."`
	Offcuts []Offcut `json:"offcuts,omitempty" jsonschema:"maxItems=500" jsonschema_description:"Lengths at hand from other jobs, used before new ones are bought."`

	Weather Weather `json:"weather,omitzero" jsonschema_description:"What is known of the weather on the days of the work."`
	Pour    Pour    `json:"pour,omitzero" jsonschema_description:"The day on which concrete is poured."`
	Days    Days    `json:"days,omitzero" jsonschema_description:"The days of the work."`

	Notes string   `json:"notes,omitempty" jsonschema:"maxLength=8000"`
	Offer Offer    `json:"offer,omitzero" jsonschema_description:"What the customer is told beside what the plan knows."`
	Tags  []string `json:"tags,omitempty" jsonschema:"maxItems=40" jsonschema_description:"Words to find the job by."`

	Observed []Fact `json:"observed,omitempty" jsonschema:"maxItems=30000" jsonschema_description:"What was seen on site, in the order of writing down. A wrong fact is struck out by a later one, never erased."`

	Systems []System `json:"systems,omitempty" jsonschema:"maxItems=200" jsonschema_description:"The user's own fence systems: copies of the catalogue's with changes."`
}

// Run is a straight stretch of fence between two end posts.
type Run struct {
	ID      string         `json:"id" jsonschema:"required,minLength=1,maxLength=40" jsonschema_description:"Unlike that of any other run of the job."`
	Name    string         `json:"name" jsonschema:"maxLength=120"`
	Length  *length.Length `json:"length,omitempty" jsonschema:"minimum=300,maximum=100000000" jsonschema_description:"Centre to centre of the two end posts, as taped (see taped). Left out: not measured yet."`
	Assumed bool           `json:"assumed,omitempty" jsonschema_description:"Nobody measured its length yet: it is a guess, and the plan says so."`
	Taped   Taped          `json:"taped,omitempty" jsonschema:"enum=level,enum=slope" jsonschema_description:"How the length, and the stations of ground heights and field books, were taped: level, or along the ground and reduced to level by the heights. Usual: level."`
	Corner  *Corner        `json:"corner,omitempty" jsonschema_description:"How the line turns at this run's start. On the first run of an open line it has no meaning; on that of a closed one it is a check."`

	Ground     []GroundPoint `json:"ground,omitempty" jsonschema:"maxItems=20000" jsonschema_description:"Ground heights in order of station, straight in between. Left out: taken as level."`
	Gates      []Gate        `json:"gates,omitempty" jsonschema:"maxItems=1000" jsonschema_description:"Gates in order of station."`
	KeepOuts   []KeepOut     `json:"keepOuts,omitempty" jsonschema:"maxItems=1000" jsonschema_description:"What is in the way of holes."`
	FixedPosts []FixedPost   `json:"fixedPosts,omitempty" jsonschema:"maxItems=1000" jsonschema_description:"Posts held at their station; the others are spaced between them."`
	HeldBays   []HeldBay     `json:"heldBays,omitempty" jsonschema:"maxItems=1000" jsonschema_description:"Bays whose width is held: an odd panel, a removable bay."`

	System    string         `json:"system,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Fence system that the run was set up from, in the catalogue or among the job's own. Its limits and cautions hold."`
	Finish    string         `json:"finish,omitempty" jsonschema:"maxLength=120" jsonschema_description:"Colour or finish, as the customer was told, in free words."`
	Fence     Fence          `json:"fence"`
	Post      Post           `json:"post"`
	Terminal  *Terminal      `json:"terminal,omitempty" jsonschema_description:"Section of end, corner and gate posts. Left out: as the line posts."`
	GatePost  *Terminal      `json:"gatePost,omitempty" jsonschema_description:"Section of gate posts, where it is not that of the other terminals: a heavy leaf asks for a stouter post."`
	Spacing   Spacing        `json:"spacing"`
	Grade     Grade          `json:"grade"`
	Hole      HoleRules      `json:"hole,omitzero" jsonschema_description:"Rules for holes that hold for this run, its fence system's among them. What it leaves out, the job says."`
	Setting   SettingRules   `json:"setting,omitzero" jsonschema_description:"What goes into the run's holes."`
	Kinds     []KindRules    `json:"kinds,omitempty" jsonschema:"maxItems=4" jsonschema_description:"Rules for the run's posts of one kind; they go before the run's."`
	Overrides []HoleOverride `json:"overrides,omitempty" jsonschema:"maxItems=2000" jsonschema_description:"Single holes with rules of their own, which go before all others."`
	Soil      string         `json:"soil,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Soil along the run, by its name in the catalogue. Left out: the site's."`
	String    String         `json:"string"`
	Parts     []Part         `json:"parts,omitempty" jsonschema:"maxItems=60" jsonschema_description:"Parts that are not as in the run's fence system: each stands for the system's of the same id, or is added."`
	Curb      *Curb          `json:"curb,omitempty" jsonschema_description:"Mowing curb along the run. Left out: none."`
	Notes     string         `json:"notes,omitempty" jsonschema:"maxLength=8000"`

	Laid  []Laid `json:"laid,omitempty" jsonschema:"maxItems=12000" jsonschema_description:"Posts of the last layout, so that the next one's keep their names. It is written when the job is saved."`
	Named int    `json:"named,omitempty" jsonschema:"minimum=0,maximum=1000000000" jsonschema_description:"Highest number that was given to a post of the run."`

	Tolerances *Tolerances `json:"tolerances,omitempty" jsonschema_description:"By how much its posts may differ from the plan before something is to be done. What it leaves out, its fence type says, or is usual."`

	Seen      []Fact          `json:"-"` // what was seen at its stations
	EndStands bool            `json:"-"` // its last post was measured where it stands
	Stood     []Stood         `json:"-"` // posts of its gates and held bays that stand otherwise than it asks
	Firm      []length.Length `json:"-"` // stations of posts that are dug or set, in order: they stay there
}

// Taped tells how a run was taped.
type Taped string

// Ways of taping.
const (
	TapedLevel Taped = "level"
	TapedSlope Taped = "slope"
)

// GroundPoint is the height of the ground at a station.
type GroundPoint struct {
	ID     string        `json:"id,omitempty" jsonschema:"minLength=1,maxLength=40" jsonschema_description:"Unlike that of any other height of the run. Left out: given when the job is saved."`
	At     length.Length `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station: level distance from the centre of the run's first post."`
	Height length.Length `json:"height" jsonschema:"required,minimum=-1000000,maximum=1000000" jsonschema_description:"Ground height above the line's datum, which is any one mark."`
	Sure   bool          `json:"sure,omitempty" jsonschema_description:"Measured twice: no slip, though its neighbours differ."`
}

// Fence is the height of the fence and the corridor its bottom runs in.
type Fence struct {
	Height   length.Length `json:"height" jsonschema:"minimum=300,maximum=5000" jsonschema_description:"From the lowest fence part to the top. Usual: 6 ft or 1800 mm."`
	GapLeast length.Length `json:"gapLeast" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"Least gap between ground and fence. Usual: 2 in or 50 mm."`
	GapMost  length.Length `json:"gapMost" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"Most gap between ground and fence. Usual: 3 in or 75 mm."`

	Solidity  float64         `json:"solidity,omitempty" jsonschema:"minimum=0.01,maximum=1" jsonschema_description:"Share of the fence's face that is solid and catches wind: 1 for boards without gaps. Left out: 1."`
	Rails     []length.Length `json:"rails,omitempty" jsonschema:"maxItems=12" jsonschema_description:"Middles of the rails above the fence's bottom, the lowest first. Left out: spread evenly, as many as the spacing's rails."`
	Boards    int             `json:"boards,omitempty" jsonschema:"minimum=0,maximum=4" jsonschema_description:"Gravel boards one above the other at the foot of every bay, part of the fence's height. Their height is grade/board."`
	RailWidth length.Length   `json:"railWidth,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Height of a rail's section. Usual: 3 1/2 in or 90 mm."`
}

// Shape is the section of a post.
type Shape string

// Shapes of post.
const (
	SquarePost Shape = "square"
	RoundPost  Shape = "round"
)

// Post is the post material.
type Post struct {
	Shape  Shape           `json:"shape" jsonschema:"enum=square,enum=round"`
	Width  length.Length   `json:"width" jsonschema:"minimum=20,maximum=400" jsonschema_description:"Side of a square post, or outside diameter of a round one."`
	Hollow bool            `json:"hollow,omitempty" jsonschema_description:"An open hollow post: it fills with concrete, up to the concrete's top, as it is set."`
	Wall   length.Length   `json:"wall,omitempty" jsonschema:"minimum=0,maximum=50" jsonschema_description:"Wall thickness of a hollow post."`
	Above  length.Length   `json:"above,omitempty" jsonschema:"minimum=-600,maximum=1000" jsonschema_description:"How far the post stands above the fence's top; negative below it, as chain-link line posts do."`
	Trim   length.Length   `json:"trim" jsonschema:"minimum=0,maximum=500" jsonschema_description:"Spare length to cut off after setting."`
	Cut    Cutting         `json:"cut,omitempty" jsonschema:"enum=after,enum=first" jsonschema_description:"When the tops are cut: after the posts are set (they are bought longer by the trim), or first, to their exact length. Usual: after."`
	Mark   *length.Length  `json:"mark,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Grade mark of a metal post, under its top: it must stay above ground."`
	Stock  []length.Length `json:"stock" jsonschema:"minItems=1,maxItems=40" jsonschema_description:"Lengths the posts are sold in."`
}

// Terminal is the section of the posts that take the pull: ends, corners and
// gate posts, where it is not that of the line posts.
type Terminal struct {
	Shape  Shape         `json:"shape" jsonschema:"enum=square,enum=round"`
	Width  length.Length `json:"width" jsonschema:"minimum=20,maximum=400" jsonschema_description:"Side of a square post, or outside diameter of a round one."`
	Hollow bool          `json:"hollow,omitempty" jsonschema_description:"An open hollow post."`
	Wall   length.Length `json:"wall,omitempty" jsonschema:"minimum=0,maximum=50" jsonschema_description:"Wall thickness of a hollow post."`

	Above *length.Length `json:"above,omitempty" jsonschema:"minimum=-600,maximum=1000" jsonschema_description:"How far it stands above the fence's top, where that is not as far as the line posts."`
}
