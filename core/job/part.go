package job

import "mallow/core/length"

// Part is one part of what a fence is made of: how it is counted, what it is cut
// from, how it is fixed. A fence type is a list of them; a run may have its own
// in place of its type's of the same name.
type Part struct {
	ID   string   `json:"id" jsonschema:"required,minLength=1,maxLength=40" jsonschema_description:"Its own among the parts of its type."`
	Name string   `json:"name" jsonschema:"required,minLength=1,maxLength=80"`
	Kind PartKind `json:"kind" jsonschema:"required,enum=rail,enum=board,enum=panel,enum=mesh,enum=hardware,enum=fixing,enum=finish" jsonschema_description:"What it is bought as."`
	By   CountBy  `json:"by" jsonschema:"required,enum=post,enum=bay,enum=bay end,enum=stretch,enum=stretch end,enum=bands,enum=corner,enum=gate,enum=leaf,enum=hinge,enum=rails,enum=rows,enum=along,enum=gap,enum=roll,enum=spaced,enum=crossing,enum=joint,enum=piece,enum=cut end,enum=area" jsonschema_description:"How it is counted."`
	Off  bool     `json:"off,omitempty" jsonschema_description:"Left out: in a run's own parts, where its type has one."`

	Each int        `json:"each,omitempty" jsonschema:"minimum=0,maximum=100" jsonschema_description:"How many at each place. Usual: 1; of rails, as many as the spacing says."`
	At   []PostKind `json:"at,omitempty" jsonschema:"maxItems=4" jsonschema_description:"Kinds of post at which it counts. Left out: all."`
	Of   []string   `json:"of,omitempty" jsonschema:"maxItems=12" jsonschema_description:"Parts that it goes with: whose gaps it stands at, whose pieces it fixes, whose ends or faces it coats."`
	Over []string   `json:"over,omitempty" jsonschema:"maxItems=12" jsonschema_description:"Crossing: parts whose pieces those are fixed to; posts are called posts."`

	Long LongBy        `json:"long,omitempty" jsonschema:"enum=centres,enum=clear,enum=planned,enum=height,enum=stretch,enum=leaf width,enum=leaf height,enum=brace" jsonschema_description:"What a piece is as long as: post to post on centres, between their faces, as the spacing planned its pieces, the fence's height, a whole stretch between terminals, or a gate's leaf."`
	More length.Length `json:"more,omitempty" jsonschema:"minimum=-1000,maximum=1000" jsonschema_description:"How much longer than that; negative is shorter."`
	Span int           `json:"span,omitempty" jsonschema:"minimum=0,maximum=6" jsonschema_description:"Bays that one piece may reach over; joints stand on posts. Usual: 1."`
	Give length.Length `json:"give,omitempty" jsonschema:"minimum=0,maximum=20" jsonschema_description:"By how much a piece may be cut short, since it has room at its joints."`
	Rows []HeightRows  `json:"rows,omitempty" jsonschema:"maxItems=8" jsonschema_description:"How many rails, by the fence's height, the lowest first."`

	Width   length.Length `json:"width,omitempty" jsonschema:"minimum=0,maximum=4000" jsonschema_description:"Of its face."`
	Thick   length.Length `json:"thick,omitempty" jsonschema:"minimum=0,maximum=300"`
	Round   bool          `json:"round,omitempty" jsonschema_description:"A pipe: its width is its outside diameter."`
	High    bool          `json:"high,omitempty" jsonschema_description:"It is as wide as the fence is high."`
	Gap     *PartGap      `json:"gap,omitempty" jsonschema_description:"Between pieces side by side. Left out: none."`
	Rip     bool          `json:"rip,omitempty" jsonschema_description:"Pieces keep their gap, and what is left is ripped from one or two of them, instead of sharing it over the gaps."`
	Ends    bool          `json:"ends,omitempty" jsonschema_description:"There is a gap at both ends too, as between two posts."`
	Top     TopCut        `json:"top,omitempty" jsonschema:"enum=flat,enum=dog ear,enum=sloped" jsonschema_description:"How the tops of upright boards are cut. Usual: flat."`
	PerBay  bool          `json:"perBay,omitempty" jsonschema_description:"Pieces along the fence fill every bay by itself, between its posts. Left out: they run on over the posts' faces."`
	Layers  int           `json:"layers,omitempty" jsonschema:"minimum=0,maximum=2" jsonschema_description:"Faces of the fence that have it. Usual: 1."`
	Spacing length.Length `json:"spacing,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Most distance between fixings."`
	In      length.Length `json:"in,omitempty" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"How far the first and last fixing are from the ends."`

	Material string          `json:"material,omitempty" jsonschema:"maxLength=80"`
	Finish   string          `json:"finish,omitempty" jsonschema:"maxLength=80"`
	Stock    []length.Length `json:"stock,omitempty" jsonschema:"maxItems=24" jsonschema_description:"Lengths that it is sold in, or how long a roll is. Left out: it is counted by the piece."`
	Lap      length.Length   `json:"lap,omitempty" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"What a joint of two rolls or lengths takes."`
	Box      int             `json:"box,omitempty" jsonschema:"minimum=0,maximum=100000" jsonschema_description:"How many are in a box."`
	Mass     length.Mass     `json:"mass,omitempty" jsonschema:"minimum=0,maximum=500" jsonschema_description:"Of a piece, or of a metre where it is sold by length, kilograms."`
	Cover    float64         `json:"cover,omitempty" jsonschema:"minimum=0,maximum=100" jsonschema_description:"Square metres that a litre coats once."`
	Coats    int             `json:"coats,omitempty" jsonschema:"minimum=0,maximum=6"`
	Says     string          `json:"says,omitempty" jsonschema:"maxLength=300" jsonschema_description:"How it is fixed or cut."`
	From     string          `json:"from,omitempty" jsonschema:"maxLength=120" jsonschema_description:"Where its figures come from. Left out: common practice."`
}

// PartGap is the gap that is wanted between pieces, and what it may be.
type PartGap struct {
	Want  length.Length `json:"want" jsonschema:"required,minimum=0,maximum=1000"`
	Least length.Length `json:"least" jsonschema:"required,minimum=0,maximum=1000"`
	Most  length.Length `json:"most" jsonschema:"required,minimum=0,maximum=1000"`
}

// HeightRows is how many rows a fence has up to a height.
type HeightRows struct {
	To   length.Length `json:"to" jsonschema:"required,minimum=0,maximum=5000"`
	Rows int           `json:"rows" jsonschema:"required,minimum=1,maximum=12"`
}

// TopCut is how the tops of upright boards are cut.
type TopCut string

// Cuts of tops.
const (
	FlatTop   TopCut = "flat"
	DogEar    TopCut = "dog ear" // both corners off at 45°
	SlopedTop TopCut = "sloped"  // so that water runs off
)

// PartKind is what a part is bought as.
type PartKind string

// Kinds of part.
const (
	RailPart     PartKind = "rail"
	BoardPart    PartKind = "board"
	PanelPart    PartKind = "panel"
	MeshPart     PartKind = "mesh"
	HardwarePart PartKind = "hardware"
	FixingPart   PartKind = "fixing"
	FinishPart   PartKind = "finish"
)

// CountBy is how a part is counted.
type CountBy string

// Ways to count.
const (
	PerPost       CountBy = "post"
	PerBay        CountBy = "bay"
	PerBayEnd     CountBy = "bay end"
	PerStretch    CountBy = "stretch"     // from terminal to terminal
	PerStretchEnd CountBy = "stretch end" // a terminal, one direction
	ByBands       CountBy = "bands"       // the same, as many as hold a mesh of its height
	PerCorner     CountBy = "corner"
	PerGate       CountBy = "gate"
	PerLeaf       CountBy = "leaf"
	PerHinge      CountBy = "hinge"
	ByRails       CountBy = "rails"    // so many one above the other
	ByRows        CountBy = "rows"     // pieces over the height, with a gap
	Along         CountBy = "along"    // pieces along the fence, with a gap
	PerGap        CountBy = "gap"      // of pieces along the fence or over the height
	ByRoll        CountBy = "roll"     // by length, with joints
	Spaced        CountBy = "spaced"   // fixings along what is as long as long says
	PerCrossing   CountBy = "crossing" // where pieces meet others
	PerJoint      CountBy = "joint"
	PerPiece      CountBy = "piece"
	PerCutEnd     CountBy = "cut end"
	ByArea        CountBy = "area"
)

// LongBy is what a piece is as long as.
type LongBy string

// Lengths of pieces.
const (
	OnCentres  LongBy = "centres"
	InClear    LongBy = "clear"
	AsPlanned  LongBy = "planned"
	ByHeight   LongBy = "height"
	ByStretch  LongBy = "stretch"
	LeafWidth  LongBy = "leaf width"
	LeafHeight LongBy = "leaf height"
	ByBrace    LongBy = "brace"
)

// OverPosts is what posts are called among the parts that pieces are fixed to.
const OverPosts = "posts"

// Saw is how the job's lumber and pipe are cut.
type Saw struct {
	Kerf *length.Length `json:"kerf,omitempty" jsonschema:"minimum=0,maximum=10" jsonschema_description:"What a cut takes. Usual: 1/8 in or 3 mm."`
	Trim length.Length  `json:"trim,omitempty" jsonschema:"minimum=0,maximum=100" jsonschema_description:"What is cut off every length first, so that its end is square."`
	Keep *length.Length `json:"keep,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Shortest offcut that is worth keeping. Usual: 2 ft or 600 mm."`
}

// Offcut is a length that is left from another job and may be used.
type Offcut struct {
	ID     string        `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Width  length.Length `json:"width" jsonschema:"required,minimum=1,maximum=4000" jsonschema_description:"Of its section, the wider side."`
	Thick  length.Length `json:"thick" jsonschema:"required,minimum=1,maximum=300" jsonschema_description:"The narrower side; of a pipe the same as its width."`
	Length length.Length `json:"length" jsonschema:"required,minimum=50,maximum=20000"`
	Count  int           `json:"count" jsonschema:"required,minimum=1,maximum=1000"`
	Note   string        `json:"note,omitempty" jsonschema:"maxLength=120" jsonschema_description:"What it is, or where it lies."`
}

// PartsOf are the parts of a run: those of its type, each replaced by the run's
// own of the same name, and the run's others after them; those that are left out
// among them.
func (s System) PartsOf(own []Part) []Part {
	out := make([]Part, 0, len(s.Parts)+len(own))
	used := map[string]bool{}
	for _, p := range s.Parts {
		for _, o := range own {
			if o.ID == p.ID {
				p, used[o.ID] = o, true
				break
			}
		}
		out = append(out, p)
	}
	for _, o := range own {
		if !used[o.ID] {
			out = append(out, o)
		}
	}
	return out
}
