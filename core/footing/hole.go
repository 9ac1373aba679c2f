// Package footing sizes post holes: their width, and their depth by the
// greatest of the rules in force.
package footing

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// Question is everything that a hole's size depends on.
type Question struct {
	Kind   job.PostKind
	Reveal length.Length  // how much post shows above ground
	Frost  *length.Length // nil: not known
	Height length.Length  // fence height
	Post   job.Post
	Hole   job.Hole
	Gravel length.Length
}

// Rule names a rule of depth or width.
type Rule string

// The rules.
const (
	FrostRule    Rule = "Frost"
	ShareRule    Rule = "Share of the post"
	FloorRule    Rule = "Floor"
	FactorRule   Rule = "Times the post"
	CornersRule  Rule = "Post's corners"
	ByHand       Rule = "Set by hand"
	NothingRules Rule = "No rule in force"
)

// Ask is what one rule asked for.
type Ask struct {
	Rule  Rule
	Value length.Length
}

// Depth is how deep a post's foot stands and its hole goes.
type Depth struct {
	Asks    []Ask // the rules in force, in the order of the handbook
	Governs int   // index of the one that governs, or -1 if none is in force
	Extra   length.Length
	Rounded length.Length // the governing depth with extra, rounded up
	Foot    length.Length // depth of the post's foot: Rounded, or set by hand
	Hole    length.Length // depth to dig: Foot and the gravel under it
	ByHand  bool
}

// Width is how wide a hole is.
type Width struct {
	Asks    []Ask
	Governs int
	Extra   length.Length
	Wanted  length.Length
	Width   length.Length // the auger taken, or the width set by hand
	Auger   bool          // an auger of this width is to be had
	ByHand  bool
}

// FindDepth works out the depth of a hole.
func FindDepth(q Question) Depth {
	d := Depth{Asks: make([]Ask, 0, 3)}
	h := q.Hole
	if q.Frost != nil {
		d.Asks = append(d.Asks, Ask{FrostRule, *q.Frost + h.FrostMargin})
	}
	if f := h.Share.Fraction(); f > 0 {
		// A share f of the whole length L = reveal + foot stands in the ground.
		d.Asks = append(d.Asks, Ask{ShareRule, max(0, q.Reveal) * length.Length(f/(1-f))})
	}
	if h.Floor > 0 || h.FloorPerHeight > 0 {
		d.Asks = append(d.Asks, Ask{FloorRule, floor(q)})
	}
	var greatest length.Length
	d.Governs, greatest = governing(d.Asks)
	switch q.Kind {
	case job.GatePost:
		d.Extra = h.GateExtraDepth
	case job.EndPost, job.CornerPost:
		d.Extra = h.EndExtraDepth
	}
	d.Rounded = roundUp(greatest+d.Extra, h.RoundDepthTo)
	d.Foot = d.Rounded
	if h.Depth != nil {
		d.Foot, d.ByHand = *h.Depth, true
	}
	d.Hole = d.Foot + q.Gravel
	return d
}

// overFour is the fence height that FloorPerHeight counts from: 4 ft.
const overFour = 4 * length.Foot

func floor(q Question) length.Length {
	return q.Hole.Floor + length.Length(q.Hole.FloorPerHeight)*max(0, q.Height-overFour)
}

// FindWidth works out the width of a hole.
func FindWidth(q Question) Width {
	w := Width{Asks: []Ask{
		{FactorRule, q.Post.Width * length.Length(q.Hole.WidthFactor)},
		{CornersRule, q.Post.Across()},
	}}
	w.Governs, w.Wanted = governing(w.Asks)
	if q.Kind == job.GatePost {
		w.Extra = q.Hole.GateExtraWidth
		w.Wanted += w.Extra
	}
	w.Width, w.Auger = shortest(w.Wanted, q.Hole.Augers)
	if q.Hole.Width != nil {
		w.Width, w.ByHand = *q.Hole.Width, true
		_, w.Auger = exact(w.Width, q.Hole.Augers)
	}
	return w
}

// shortest returns the smallest size that is big enough; when none is, what
// was wanted itself (a hole is then dug with a spade).
func shortest(wanted length.Length, augers []length.Length) (length.Length, bool) {
	best := length.Length(math.Inf(1))
	for _, a := range augers {
		if a >= wanted-length.Tolerance && a < best {
			best = a
		}
	}
	if math.IsInf(float64(best), 1) {
		return wanted, false
	}
	return best, true
}

func exact(width length.Length, augers []length.Length) (length.Length, bool) {
	for _, a := range augers {
		if length.Same(a, width) {
			return a, true
		}
	}
	return width, false
}

func governing(asks []Ask) (int, length.Length) {
	best, value := -1, length.Length(0)
	for i, a := range asks {
		if best < 0 || a.Value > value+length.Tolerance {
			best, value = i, a.Value
		}
	}
	return best, value
}

func roundUp(l, to length.Length) length.Length {
	if to <= 0 {
		return l
	}
	return to * length.Length(math.Ceil(float64((l-length.Tolerance)/to)))
}

// Stock returns the shortest stock length that is long enough.
func Stock(needed length.Length, stock []length.Length) (length.Length, bool) {
	return shortest(needed, stock)
}
