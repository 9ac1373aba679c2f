package job

import "mallow/core/length"

// Share is the part of the whole post that belongs in the ground.
type Share string

// The methods of how much post belongs in the ground.
const (
	NoShare Share = "none"
	Quarter Share = "quarter" // of the whole length; the same as a third of the height above
	Third   Share = "third"   // of the whole length
	Half    Share = "half"    // of the whole length
)

// Driven tells which posts are driven.
type Driven string

// Posts that are driven into undisturbed soil.
const (
	NoneDriven Driven = "none"
	LineDriven Driven = "line"
	AllDriven  Driven = "all"
)

// HoleShape is a hole seen from above.
type HoleShape string

// Shapes of hole.
const (
	RoundHole  HoleShape = "round"  // by auger or clamshell digger
	SquareHole HoleShape = "square" // by spade
)

// Hole is the rules for hole width and depth, as they come out for one post.
type Hole struct {
	WidthFactor     float64
	WideFactor      float64
	SkipFactor      bool
	CommonWidth     length.Length
	WidthTolerance  float64
	Augers          []length.Length
	AnyWidth        bool
	Shape           HoleShape
	Spade           length.Length
	Bell            length.Length
	BellHeight      length.Length
	Taper           length.Length
	Along           length.Length
	Across          length.Length
	GateExtraWidth  length.Length
	HingeExtraWidth length.Length
	EndExtraWidth   length.Length
	Width           *length.Length
	SkipFrost       bool
	FrostMargin     length.Length
	Share           Share
	Floor           length.Length
	FloorPerHeight  float64
	SkipFloor       bool
	GateExtraDepth  length.Length
	HingeExtraDepth length.Length
	EndExtraDepth   length.Length
	RoundDepthTo    length.Length
	Depth           *length.Length
	Driven          Driven
	Collar          length.Length
	Pin             length.Length
	PinDeep         length.Length
}

// HoleRules is what one level, from the whole job down to a single post, says
// about holes. What it leaves out, the next level out says.
type HoleRules struct {
	WidthFactor     *float64        `json:"widthFactor,omitempty" jsonschema:"minimum=1,maximum=8" jsonschema_description:"Hole width as a multiple of the post's width. Usual: 3; chain link 4 for posts up to 4 in (100 mm)."`
	WideFactor      *float64        `json:"wideFactor,omitempty" jsonschema:"minimum=0,maximum=8" jsonschema_description:"The same for posts over 4 in or 100 mm; 0: as the others. Chain link: 3."`
	CommonWidth     *length.Length  `json:"commonWidth,omitempty" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"Width that crews dig for such a post (common practice), instead of the multiple of its width and what is added to that; 0: the multiple."`
	WidthTolerance  *float64        `json:"widthTolerance,omitempty" jsonschema:"minimum=0,maximum=0.2" jsonschema_description:"By what share an auger may be narrower than the multiple of the post's width asks. Usual: 0.03, so that 18 1/2 in asks for an 18 in auger."`
	SkipFactor      *bool           `json:"skipFactor,omitempty" jsonschema_description:"The multiple of the post's width is not in force: the post's corners and the tools decide."`
	Augers          []length.Length `json:"augers,omitempty" jsonschema:"minItems=1,maxItems=40" jsonschema_description:"Auger diameters that the crew owns or can get."`
	AnyWidth        *bool           `json:"anyWidth,omitempty" jsonschema_description:"The width is not rounded up to an auger."`
	Shape           *HoleShape      `json:"shape,omitempty" jsonschema:"enum=round,enum=square" jsonschema_description:"Round by auger or digger, or square by spade. Usual: round."`
	Spade           *length.Length  `json:"spade,omitempty" jsonschema:"minimum=100,maximum=1000" jsonschema_description:"Least side of a square hole, that a spade still works in. Usual: 12 in or 300 mm."`
	Bell            *length.Length  `json:"bell,omitempty" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"Width of the hole's bottom where it is belled out against frost heave; 0: straight."`
	BellHeight      *length.Length  `json:"bellHeight,omitempty" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"Height over which it widens to the bell. Usual: 12 in or 300 mm."`
	Taper           *length.Length  `json:"taper,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"How much wider a hand tool leaves the hole at the top than at the bottom."`
	Along           *length.Length  `json:"along,omitempty" jsonschema:"minimum=-1000,maximum=1000" jsonschema_description:"Middle of the hole off the middle of the post, along the run, away from its start."`
	Across          *length.Length  `json:"across,omitempty" jsonschema:"minimum=-1000,maximum=1000" jsonschema_description:"The same across the run, to the left; negative to the right: away from a wall or a kerb."`
	GateExtraWidth  *length.Length  `json:"gateExtraWidth,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Gate post holes are this much wider, before rounding up to an auger."`
	HingeExtraWidth *length.Length  `json:"hingeExtraWidth,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"The post that a leaf hangs on has a hole so much wider still."`
	EndExtraWidth   *length.Length  `json:"endExtraWidth,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"The same for end and corner posts."`
	Width           *length.Length  `json:"width,omitempty" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"Hole width set by hand, over all rules; 0: by the rules, whatever is said farther out."`

	SkipFrost       *bool          `json:"skipFrost,omitempty" jsonschema_description:"Frost is not counted."`
	FrostMargin     *length.Length `json:"frostMargin,omitempty" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"Added below the frost depth. Many add 6 in or 150 mm."`
	Share           *Share         `json:"share,omitempty" jsonschema:"enum=none,enum=quarter,enum=third,enum=half" jsonschema_description:"Share of the whole post's length that stands in the ground."`
	Floor           *length.Length `json:"floor,omitempty" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"Never shallower than this. Usual: 24 in or 600 mm."`
	FloorPerHeight  *float64       `json:"floorPerHeight,omitempty" jsonschema:"minimum=0,maximum=2" jsonschema_description:"Added to the floor for each unit of fence height over 4 ft: 0.25 is 3 in per foot."`
	SkipFloor       *bool          `json:"skipFloor,omitempty" jsonschema_description:"The floor is not in force."`
	GateExtraDepth  *length.Length `json:"gateExtraDepth,omitempty" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"Gate posts go this much deeper."`
	HingeExtraDepth *length.Length `json:"hingeExtraDepth,omitempty" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"The post that a leaf hangs on goes so much deeper still."`
	EndExtraDepth   *length.Length `json:"endExtraDepth,omitempty" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"End and corner posts go this much deeper."`
	RoundDepthTo    *length.Length `json:"roundDepthTo,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Depth is rounded up to a multiple of this, so that one mark on the digger's handle serves. 0: not rounded, else at least 1 mm."`
	Depth           *length.Length `json:"depth,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Depth of the post's foot set by hand, over all rules; 0: by the rules, whatever is said farther out."`

	Driven  *Driven        `json:"driven,omitempty" jsonschema:"enum=none,enum=line,enum=all" jsonschema_description:"Posts that are driven, without a hole: none, the line posts, or all. Usual: none."`
	Collar  *length.Length `json:"collar,omitempty" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"Width and depth of a concrete collar round the head of a driven post; 0: none."`
	Pin     *length.Length `json:"pin,omitempty" jsonschema:"minimum=0,maximum=60" jsonschema_description:"Diameter of a steel pin grouted into drilled rock under the foot; 0: none."`
	PinDeep *length.Length `json:"pinDeep,omitempty" jsonschema:"minimum=0,maximum=1500" jsonschema_description:"How far the pin goes into the rock. Usual: 8 in or 200 mm."`

	Entered map[string]length.System `json:"entered,omitempty" jsonschema_description:"Fields of this list that were entered in the units of a system: they are said in it."`
}

// Top is what closes a hole.
type Top string

// The methods of the top of the concrete.
const (
	CoverTop Top = "cover" // stopped below ground, soil over it
	CrownTop Top = "crown" // above ground, sloped away from the post
)

// Inside is what is inside a hollow post.
type Inside string

// Insides of a hollow post.
const (
	OpenInside   Inside = "open"   // open at the foot: it fills to a level as it is set
	ClosedInside Inside = "closed" // capped at the foot: nothing goes in
	CoreInside   Inside = "core"   // a steel core stands in it, with concrete round it to a level
)

// Setting is what goes into the hole, as it comes out for one post.
type Setting struct {
	Method     Method
	Gravel     length.Length
	Stand      length.Length
	Top        Top
	Cover      length.Length
	Crown      length.Length
	Mound      length.Length
	RocksTo    length.Length
	Rubble     float64
	Inside     Inside
	FillTo     *length.Length
	Core       length.Length
	CoreWall   length.Length
	Bag        string
	Waste      float64
	Restrained bool
}

// SettingRules is what one level says about what goes into the hole.
type SettingRules struct {
	Method     *Method        `json:"method,omitempty" jsonschema:"enum=braced,enum=fast,enum=dry packed,enum=stabbed,enum=rock,enum=slurry,enum=layered" jsonschema_description:"How posts in holes are set. Usual: braced, then filled with mixed concrete."`
	Gravel     *length.Length `json:"gravel,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Gravel under the concrete, dug below the depth that the rules ask for."`
	Stand      *length.Length `json:"stand,omitempty" jsonschema:"minimum=-300,maximum=300" jsonschema_description:"How far the post's foot stands above the bottom of the concrete; negative: it reaches into the gravel, so that the end grain drains. Usual: 0."`
	Top        *Top           `json:"top,omitempty" jsonschema:"enum=cover,enum=crown" jsonschema_description:"The concrete stops below ground, under soil, or is crowned above it. Usual: cover."`
	Cover      *length.Length `json:"cover,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Soil over the concrete: how far below ground the concrete stops."`
	Crown      *length.Length `json:"crown,omitempty" jsonschema:"minimum=0,maximum=150" jsonschema_description:"How high the crown stands at the post, sloped down to the hole's edge. Usual: 1 in or 25 mm."`
	Mound      *length.Length `json:"mound,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"How high the soil is mounded at the post, sloped down to the hole's edge. Usual: 1 in or 25 mm."`
	RocksTo    *length.Length `json:"rocksTo,omitempty" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"Rocks first, slurry over: depth of the rocks' top. Usual: 24 in or 600 mm."`
	Rubble     *float64       `json:"rubble,omitempty" jsonschema:"minimum=0,maximum=0.4" jsonschema_description:"Clean rubble put into the concrete, as a share of it."`
	Inside     *Inside        `json:"inside,omitempty" jsonschema:"enum=open,enum=closed,enum=core" jsonschema_description:"Hollow posts: open at the foot, closed, or with a steel core. Usual: open."`
	FillTo     *length.Length `json:"fillTo,omitempty" jsonschema:"minimum=-1500,maximum=3000" jsonschema_description:"Level of the concrete inside a hollow post, above ground; negative below. Left out: as high as the concrete round it; with a core, to the ground."`
	Core       *length.Length `json:"core,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Side of the steel core, square."`
	CoreWall   *length.Length `json:"coreWall,omitempty" jsonschema:"minimum=0,maximum=30" jsonschema_description:"Wall of the core; 0: solid."`
	Bag        *string        `json:"bag,omitempty" jsonschema:"minLength=1,maxLength=40" jsonschema_description:"Bag of dry concrete, by its name in the catalogue: 40lb, 50lb, 60lb, 80lb, 20kg, 25kg."`
	Waste      *float64       `json:"waste,omitempty" jsonschema:"minimum=0,maximum=0.5" jsonschema_description:"Concrete bought beyond what is computed, as a fraction."`
	Restrained *bool          `json:"restrained,omitempty" jsonschema_description:"Posts are held at the ground by paving or a slab; it counts in the wind figure only."`

	Entered map[string]length.System `json:"entered,omitempty" jsonschema_description:"Fields of this list that were entered in the units of a system: they are said in it."`
}

// KindRules are rules for posts of one kind.
type KindRules struct {
	Kind    PostKind     `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Hole    HoleRules    `json:"hole,omitzero"`
	Setting SettingRules `json:"setting,omitzero"`
}

// Struck is what a hole met.
type Struck string

// What stops a hole.
const (
	HitRock  Struck = "rock"
	HitWater Struck = "water"
	HitRoot  Struck = "root"
)

// Settled is what was decided of a hole that does not reach its depth.
type Settled string

// Ways out of a hole that does not reach its depth.
const (
	SettledAsIs   Settled = "as is"
	SettledWider  Settled = "wider"
	SettledBelled Settled = "belled"
	SettledPinned Settled = "pinned"
)

// Hit is what was met while digging, as the facts have it.
type Hit struct {
	What    Struck
	Depth   length.Length // at which it was met; the hole goes no deeper
	Settled Settled       // what was decided; empty while nothing is
}

// HoleOverride is a single hole with rules of its own. It belongs to a place on the
// ground, so that it stays when posts get other numbers.
type HoleOverride struct {
	ID      string        `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	At      length.Length `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station of the hole; its rules are for the post nearest to it."`
	Settled Settled       `json:"settled,omitempty" jsonschema:"enum=as is,enum=wider,enum=belled,enum=pinned" jsonschema_description:"What was decided of a hole that was stopped; left out while nothing is."`
	Hole    HoleRules     `json:"hole,omitzero"`
	Setting SettingRules  `json:"setting,omitzero"`

	Hit  *Hit   `json:"-"` // what it met, where a fact says so
	Fact string `json:"-"` // it is there only since this fact says so
}
