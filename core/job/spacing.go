package job

import (
	"mallow/core/length"
	"mallow/core/words"
)

// Way is how the bays of a run are found.
type Way string

// Ways to space posts. A mixed run is any of them with held bays and fixed
// posts between.
const (
	EqualBays     Way = "equal"
	PanelsBetween Way = "panels between"
	PanelsOnFaces Way = "panels on faces"
	FixedModule   Way = "module"
	StockRails    Way = "stock rails"
	OverlapRails  Way = "overlapping rails"
)

// Ways are all of them, the usual one first.
var Ways = []Way{EqualBays, PanelsBetween, PanelsOnFaces, FixedModule, StockRails, OverlapRails}

// Remainder is what is done with what a stretch leaves over.
type Remainder string

// What is done with the remainder.
const (
	RemainderLast   Remainder = "last"   // one odd bay, at the end of the stretch
	RemainderFirst  Remainder = "first"  // at its start
	RemainderAway   Remainder = "away"   // at the end that is farther from a gate
	RemainderShared Remainder = "shared" // shared over two bays
	RemainderInAll  Remainder = "all"    // all bays of the stretch equal, every piece cut
)

// FreeEnd is how panels on faces end where no other run meets theirs.
type FreeEnd string

// Where a panel ends at a free end.
const (
	MiddleOfPost FreeEnd = "middle"
	WholePost    FreeEnd = "whole"
)

// Turning is how panels on the posts' faces meet at a corner.
type Turning string

// How panels meet at a corner.
const (
	Meeting     Turning = "meeting"     // each side is shortened by half a post
	Overlapping Turning = "overlapping" // the run that starts there by a panel's thickness more
)

// Spacing is how the bays are found.
type Spacing struct {
	Way       Way            `json:"way,omitempty" jsonschema:"enum=equal,enum=panels between,enum=panels on faces,enum=module,enum=stock rails,enum=overlapping rails" jsonschema_description:"Usual: equal."`
	Most      length.Length  `json:"most" jsonschema:"minimum=300,maximum=10000" jsonschema_description:"Most spacing, centre to centre. Usual: 96 in for 8 ft lumber, or 2400 mm. Where pieces of a length set the bay, the piece does."`
	Least     *length.Length `json:"least,omitempty" jsonschema:"minimum=50,maximum=10000" jsonschema_description:"Least bay, centre to centre: a shorter remainder is a sliver, and shared over two bays. Left out: a third of the regular bay."`
	Piece     length.Length  `json:"piece,omitempty" jsonschema:"minimum=0,maximum=12000" jsonschema_description:"Length of the panel, board or rail that sets the bay."`
	Play      length.Length  `json:"play,omitempty" jsonschema:"minimum=0,maximum=50" jsonschema_description:"Panels between posts: play at each joint. Usual for metal panels: 3 to 5 mm."`
	Slot      length.Length  `json:"slot,omitempty" jsonschema:"minimum=0,maximum=150" jsonschema_description:"Panels between posts: how far the panel or rail goes into each post's slot or rout."`
	Overlap   length.Length  `json:"overlap,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Overlapping rails: how far the tongues pass each other in a post."`
	Span      int            `json:"span,omitempty" jsonschema:"minimum=0,maximum=6" jsonschema_description:"Rails on stock lengths: bays that one rail spans. Usual: 2."`
	Rails     int            `json:"rails,omitempty" jsonschema:"minimum=0,maximum=12" jsonschema_description:"Rails one above the other in each bay."`
	Thickness length.Length  `json:"thickness,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Panels on faces: how thick a panel is."`
	Turning   Turning        `json:"turning,omitempty" jsonschema:"enum=meeting,enum=overlapping" jsonschema_description:"Panels on faces: how they meet at a corner. Usual: meeting."`
	Face      Side           `json:"face,omitempty" jsonschema:"enum=left,enum=right" jsonschema_description:"Panels on faces: the hand of the line that they are on, walking from its start. On the outer face of a corner they reach round the corner post. Left out: taken as the inner face at every corner."`
	Ends      FreeEnd        `json:"ends,omitempty" jsonschema:"enum=middle,enum=whole" jsonschema_description:"Panels on faces: at a free end the panel ends on the middle of the end post, or covers all of it. Usual: middle."`
	Remainder Remainder      `json:"remainder,omitempty" jsonschema:"enum=last,enum=first,enum=away,enum=shared,enum=all" jsonschema_description:"What is done with the remainder of a stretch. Usual: last."`
	HandDig   bool           `json:"handDig,omitempty" jsonschema_description:"Holes may stand in the hand-dig width beside a service, clear of the pipe itself, and are dug by hand there. Left out: they stay out of it."`
	Soil      *length.Length `json:"soil,omitempty" jsonschema:"minimum=0,maximum=1000" jsonschema_description:"Undisturbed soil to leave between a new hole and an old footing. Usual: 4 in or 100 mm."`
}

// FixedPost is a post that is held at a station: where it landed, where the
// user wants it, or where the top changes slope.
type FixedPost struct {
	ID    string        `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	At    length.Length `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station of its centre."`
	Grade bool          `json:"grade,omitempty" jsonschema_description:"Grade post: the top changes slope here."`

	Respace bool `json:"respace,omitempty" jsonschema_description:"Of a post that landed: the other posts are spaced again from where it stands. Left out: it is the post that was meant to stand there, and only the bays beside it change."`

	Gap *length.Length `json:"gap,omitempty" jsonschema:"minimum=-2000,maximum=4000" jsonschema_description:"Gap under the fence held here, where the look leans. Left out: found."`

	Landed bool   `json:"-"` // it is set already, and really stands there
	Fact   string `json:"-"` // it is there only since this fact says so

	Mark length.Length `json:"-"` // of one that is there by a fact: where it was to stand
}

// HeldBay is a bay whose width is held.
type HeldBay struct {
	ID    string        `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Name  string        `json:"name,omitempty" jsonschema:"maxLength=120"`
	At    length.Length `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station of its first post."`
	Width length.Length `json:"width" jsonschema:"required,minimum=100,maximum=12000" jsonschema_description:"Centre to centre."`

	Removable bool `json:"removable,omitempty" jsonschema_description:"It must come out again: rails and boards break at its posts, and are held by brackets that let go."`

	asked *HeldBay // as the job asks for it, where its posts stand otherwise
}

// pieceWays are the ways in which a piece of a length sets the bay.
var pieceWays = map[Way]string{
	PanelsBetween: words.Plain("job.a-panel"), PanelsOnFaces: words.Plain("job.a-panel"), FixedModule: words.Plain("job.a-board"), StockRails: words.Plain("job.a-rail"), OverlapRails: words.Plain("job.a-rail"),
}

// ByPiece tells whether a piece of a length sets the bay, and what it is.
func (s Spacing) ByPiece() (what string, ok bool) {
	what, ok = pieceWays[s.Way]
	return what, ok
}

// usualSpan is how many bays a rail on a stock length usually spans.
const usualSpan = 2

// Spans is how many bays a rail on a stock length spans.
func (s Spacing) Spans() int {
	if s.Span > 0 {
		return s.Span
	}
	return usualSpan
}

// Regular is the regular bay between two posts of the given widths, centre to
// centre, when a piece sets it.
func (s Spacing) Regular(first, second length.Length) length.Length {
	switch s.Way {
	case PanelsBetween:
		return s.Piece + (first+second)/2 + 2*s.Play - 2*s.Slot
	case StockRails:
		return s.Piece / length.Length(s.Spans())
	case OverlapRails:
		return s.Piece - s.Overlap
	case PanelsOnFaces, FixedModule:
		return s.Piece
	}
	return s.Most
}

// Shortest is the least bay beside a regular one.
func (s Spacing) Shortest(regular length.Length) length.Length {
	if s.Least != nil {
		return *s.Least
	}
	return regular / 3
}
