package job

import (
	"slices"

	"mallow/core/length"
)

// System is a fence system: the material, and what it asks of the posts. A run
// set up from one copies its values and keeps its name, so that its limits and
// cautions hold.
type System struct {
	ID          string        `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Name        string        `json:"name" jsonschema:"required,minLength=1,maxLength=120"`
	From        string        `json:"from,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Catalogue system that a user's own one is a copy of."`
	System      length.System `json:"system" jsonschema:"required,enum=imperial,enum=metric" jsonschema_description:"Unit system that its sizes are made in."`
	Says        string        `json:"says,omitempty" jsonschema:"maxLength=600" jsonschema_description:"What it is, in a sentence."`
	Material    string        `json:"material,omitempty" jsonschema:"maxLength=40" jsonschema_description:"What its posts are made of, in a word."`
	Face        Face          `json:"face,omitempty" jsonschema:"enum=boards,enum=slats,enum=pickets,enum=bars,enum=mesh,enum=sheet,enum=open" jsonschema_description:"What its bays look like: boards upright, slats across, pickets, bars, mesh, one sheet, or nothing between the rails. Left out: by its posts."`
	Gate        bool          `json:"gate,omitempty" jsonschema_description:"A bare gate: no fence beside it."`
	Fence       Fence         `json:"fence" jsonschema:"required"`
	Post        Post          `json:"post" jsonschema:"required"`
	Terminal    *Terminal     `json:"terminal,omitempty"`
	Spacing     Spacing       `json:"spacing" jsonschema:"required"`
	Grade       Grade         `json:"grade" jsonschema:"required"`
	Hole        HoleRules     `json:"hole,omitzero" jsonschema_description:"What it asks of holes; the rest is the job's."`
	Setting     SettingRules  `json:"setting,omitzero" jsonschema_description:"What it asks of what goes into them."`
	Kinds       []KindRules   `json:"kinds,omitempty" jsonschema:"maxItems=4" jsonschema_description:"What it asks of posts of one kind."`
	Allowed     []Method      `json:"allowed" jsonschema:"required,minItems=1,maxItems=8" jsonschema_description:"Ways to set its posts, the usual one first."`
	Forbidden   []Forbidden   `json:"forbidden,omitempty" jsonschema:"maxItems=8" jsonschema_description:"Ways that must not be used, and why."`
	InConcrete  []PostKind    `json:"inConcrete,omitempty" jsonschema:"maxItems=4" jsonschema_description:"Kinds of post that must stand in concrete: those that take the pull."`
	Mind        []Forbidden   `json:"mind,omitempty" jsonschema:"maxItems=8" jsonschema_description:"Ways that makers rule out and crews use all the same: a choice, with its caution."`
	Cannot      []Ability     `json:"cannot,omitempty" jsonschema:"maxItems=12" jsonschema_description:"What its material cannot be asked to do: cut posts, drill posts, drive posts, mortice posts, rack, cut wide, cut high. How far panels rack is grade/rack; what is never filled, neverFilled; how its posts may be set, allowed and forbidden."`
	NeverFilled bool          `json:"neverFilled,omitempty" jsonschema_description:"Its hollow posts are never filled, but round a steel core up to the ground."`
	Cautions    []string      `json:"cautions,omitempty" jsonschema:"maxItems=12"`
	Tolerances  *Tolerances   `json:"tolerances,omitempty" jsonschema_description:"By how much its posts may differ from the plan; what it leaves out is usual."`
	Parts       []Part        `json:"parts,omitempty" jsonschema:"maxItems=60" jsonschema_description:"What stands above ground, part by part. Of a user's own type, left out: those of the type that it is a copy of."`
	Steps       []string      `json:"steps,omitempty" jsonschema:"maxItems=40" jsonschema_description:"Order in which it is put together."`
}

// Ability is something that a fence's material may be asked to do.
type Ability string

// What material may be unable to do.
const (
	CutPosts     Ability = "cut posts"     // to height
	DrillPosts   Ability = "drill posts"   // for bolts through them
	DrivePosts   Ability = "drive posts"   // with a driver
	MorticePosts Ability = "mortice posts" // for rails through or into them
	RackPanels   Ability = "rack"          // lean out of square
	CutWide      Ability = "cut wide"      // a panel to a narrower bay
	CutHigh      Ability = "cut high"      // a panel to a lower one
)

// Face is what the bays of a fence look like.
type Face string

// Faces.
const (
	BoardFace  Face = "boards"
	SlatFace   Face = "slats"
	PicketFace Face = "pickets"
	BarFace    Face = "bars"
	MeshFace   Face = "mesh"
	SheetFace  Face = "sheet"
	OpenFace   Face = "open"
)

// Abilities are all of them.
var Abilities = []Ability{CutPosts, DrillPosts, DrivePosts, MorticePosts, RackPanels, CutWide, CutHigh}

// Can tells whether the system's material can do something.
func (s System) Can(a Ability) bool { return !slices.Contains(s.Cannot, a) }

// Forbidden is a way to set posts that a system rules out.
type Forbidden struct {
	Method Method `json:"method" jsonschema:"required,enum=braced,enum=fast,enum=dry packed,enum=stabbed,enum=rock,enum=driven,enum=slurry,enum=layered"`
	Why    string `json:"why" jsonschema:"required,minLength=1,maxLength=300"`
}

// Outfit gives a run a system's material and rules. What was measured on site
// stays: its length, ground, gates, what is in the way, posts held, and where
// its look changes.
func (s System) Outfit(r Run) Run {
	parts, start, end, placed := r.Grade.Parts, r.Grade.StartGap, r.Grade.EndGap, r.Grade.Placed
	r.System = s.ID
	r.Fence, r.Post, r.Terminal, r.Spacing, r.Grade, r.Hole, r.Setting, r.Kinds = s.Fence, s.Post, s.Terminal, s.Spacing, s.Grade.Settings(), s.Hole, s.Setting, slices.Clone(s.Kinds)
	r.Grade.Parts, r.Grade.StartGap, r.Grade.EndGap, r.Grade.Placed = parts, start, end, placed
	return r
}
