package job

import (
	"math"

	"mallow/core/length"
)

// PostKind tells posts apart by what they carry.
type PostKind string

// Kinds of post. Ends, corners and gate posts are terminals: they are set
// first.
const (
	EndPost    PostKind = "end"
	CornerPost PostKind = "corner"
	GatePost   PostKind = "gate"
	LinePost   PostKind = "line"
)

// Kinds of post that stand at a run's fixed places.
var terminals = map[PostKind]bool{EndPost: true, CornerPost: true, GatePost: true}

// PostOf is the post of a kind on this run: terminals may be stouter.
func (r Run) PostOf(kind PostKind) Post {
	p := r.Post
	t := r.Terminal
	if kind == GatePost && r.GatePost != nil {
		t = r.GatePost
	}
	if t != nil && terminals[kind] {
		p.Shape, p.Width, p.Hollow, p.Wall = t.Shape, t.Width, t.Hollow, t.Wall
		if t.Above != nil {
			p.Above = *t.Above
		}
	}
	return p
}

// DrivenAt tells whether a post of a kind is driven, without a hole.
func (h Hole) DrivenAt(kind PostKind) bool {
	return h.Driven == AllDriven || h.Driven == LineDriven && !terminals[kind]
}

// Across is the widest measure through the post's section, which a hole must
// at least have: the diagonal of a square post, the diameter of a round one.
func (p Post) Across() length.Length {
	if p.Shape == RoundPost {
		return p.Width
	}
	return p.Width * math.Sqrt2
}

// Section returns the area of the post's outline.
func (p Post) Section() length.Area {
	if p.Shape == RoundPost {
		return length.Disc(p.Width)
	}
	return length.Square(p.Width)
}

// Hollowed returns the area inside a hollow post.
func (p Post) Hollowed() length.Area {
	if !p.Hollow {
		return 0
	}
	inner := p
	inner.Width -= 2 * p.Wall
	return inner.Section()
}

// Fraction is the share as a number; 0 for no share.
func (s Share) Fraction() float64 {
	switch s {
	case Quarter:
		return 1.0 / 4
	case Third:
		return 1.0 / 3
	case Half:
		return 1.0 / 2
	}
	return 0
}
