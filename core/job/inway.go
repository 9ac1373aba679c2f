package job

import "mallow/core/length"

// Obstacle is a kind of thing that is in the way of holes.
type Obstacle string

// What is in the way.
const (
	Service Obstacle = "service"  // pipe or cable
	Root    Obstacle = "root"     //
	Rock    Obstacle = "rock"     //
	Drain   Obstacle = "drain"    //
	Footing Obstacle = "footing"  // old footing, in soil that is disturbed
	OldPost Obstacle = "old post" // existing post
	NoDig   Obstacle = "no dig"   // any other stretch
)

// KeepOut is something in the way on a run: a spot or a stretch.
type KeepOut struct {
	ID      string         `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Kind    Obstacle       `json:"kind" jsonschema:"required,enum=service,enum=root,enum=rock,enum=drain,enum=footing,enum=old post,enum=no dig"`
	Service string         `json:"service,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Which service, by its name in the catalogue."`
	Name    string         `json:"name,omitempty" jsonschema:"maxLength=120"`
	At      length.Length  `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station of its middle."`
	Width   length.Length  `json:"width,omitempty" jsonschema:"minimum=0,maximum=100000000" jsonschema_description:"How wide it is along the run; 0 for a line that crosses."`
	Hand    length.Length  `json:"hand,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Width either side of it that is dug by hand."`
	Depth   *length.Length `json:"depth,omitempty" jsonschema:"minimum=0,maximum=10000" jsonschema_description:"Depth of its top, where it is known. It is never relied on."`
	Stays   bool           `json:"stays,omitempty" jsonschema_description:"Old post: it stays, and is built onto."`
	Tall    *length.Length `json:"tall,omitempty" jsonschema:"minimum=100,maximum=6000" jsonschema_description:"Old post that stays: how high it stands above the ground. What is built onto it is matched to it."`
	Low     *length.Length `json:"lowHinge,omitempty" jsonschema:"minimum=0,maximum=6000" jsonschema_description:"Old post that stays: its lower hinge, or the hole of one, above the ground. A leaf that hangs on it is hung there."`
	High    *length.Length `json:"highHinge,omitempty" jsonschema:"minimum=0,maximum=6000" jsonschema_description:"The same of its upper hinge."`
	Repour  bool           `json:"repour,omitempty" jsonschema_description:"Old footing: it is dug out where a new post falls on it, and the wider hole is poured again."`
	Marked  bool           `json:"marked,omitempty" jsonschema_description:"Marked on the ground by the locating office."`
}

// From is where it begins.
func (k KeepOut) From() length.Length { return k.At - k.Width/2 }

// To is where it ends.
func (k KeepOut) To() length.Length { return k.At + k.Width/2 }
