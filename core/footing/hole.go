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
	Kind       job.PostKind
	Hung       bool           // a gate leaf hangs on it
	AboveGrade length.Length  // how much post shows above ground
	Frost      *length.Length // nil: not known
	Height     length.Length  // fence height
	Post       job.Post
	Hole       job.Hole
	Gravel     length.Length
	Stand      length.Length  // of the foot above the concrete's bottom; negative into the gravel
	Hit        *length.Length // depth at which rock or water stops the hole
}

// Rule names a rule of depth or width.
type Rule string

// The rules.
const (
	FrostRule    Rule = "frost"
	ShareRule    Rule = "share"
	FloorRule    Rule = "floor"
	FactorRule   Rule = "factor"
	CommonRule   Rule = "common"
	CornersRule  Rule = "corners"
	SpadeRule    Rule = "spade"
	ByHand       Rule = "by-hand"
	NothingRules Rule = "none"
)

// Ask is what one rule asked for.
type Ask struct {
	Rule  Rule
	Value length.Length
}

// Depth is how deep a post's foot and its concrete stand and its hole goes.
// The bottom is what is held against the frost depth; the gravel base lies under it.
type Depth struct {
	Asks    []Ask // the rules in force, in the order of the handbook
	Governs int   // index of the one that governs, or -1 if none is in force
	Extra   length.Length
	Rounded length.Length // the governing depth with extra, rounded up
	Bottom  length.Length // of the concrete, or of what the post is packed in
	Foot    length.Length // of the post: its embedment
	Hole    length.Length // depth to dig: the bottom and the gravel under it
	Gravel  length.Length // under the bottom; none where the hole was stopped
	ByHand  bool
	Stopped bool // by rock or water, short of what the rules ask for
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

// FindDepth works out the depth of a hole. Frost and the floor ask for the
// bottom; a share of the post asks for its foot.
func FindDepth(q Question) Depth {
	d := Depth{Asks: make([]Ask, 0, 3), Gravel: q.Gravel}
	h := q.Hole
	if q.Frost != nil && !h.SkipFrost {
		d.Asks = append(d.Asks, Ask{FrostRule, *q.Frost + h.FrostMargin})
	}
	if f := h.Share.Fraction(); f > 0 {
		// A share f of the whole length L = reveal + foot stands in the ground.
		d.Asks = append(d.Asks, Ask{ShareRule, max(0, max(0, q.AboveGrade)*length.Length(f/(1-f))+q.Stand)})
	}
	if (h.Floor > 0 || h.FloorPerHeight > 0) && !h.SkipFloor {
		d.Asks = append(d.Asks, Ask{FloorRule, floor(q)})
	}
	var greatest length.Length
	d.Governs, greatest = governing(d.Asks)
	switch q.Kind {
	case job.GatePost:
		if d.Extra = h.GateExtraDepth; q.Hung {
			d.Extra += h.HingeExtraDepth
		}
	case job.EndPost, job.CornerPost:
		d.Extra = h.EndExtraDepth
	}
	d.Rounded = roundUp(greatest+d.Extra, h.RoundDepthTo)
	d.Bottom = d.Rounded
	if h.Depth != nil {
		d.Bottom, d.ByHand = *h.Depth+q.Stand, true
	}
	d.Hole = d.Bottom + d.Gravel
	if q.Hit != nil && *q.Hit < d.Hole-length.Tolerance {
		// On rock, or in water, the concrete stands on what stopped the hole.
		// Gravel goes in only as far as the bottom need not be given up for it.
		d.Hole = *q.Hit
		d.Stopped = d.Hole < d.Bottom-length.Tolerance
		d.Bottom = min(d.Bottom, d.Hole)
		d.Gravel = d.Hole - d.Bottom
	}
	d.Foot = max(0, d.Bottom-max(q.Stand, -d.Gravel))
	return d
}

// overFour is the fence height that FloorPerHeight counts from: 4 ft.
const overFour = 4 * length.Foot

func floor(q Question) length.Length {
	return q.Hole.Floor + length.Length(q.Hole.FloorPerHeight)*max(0, q.Height-overFour)
}

// FindWidth works out the width of a hole. A square hole is dug by spade and
// is as wide as it must be; a round one as the next auger.
func FindWidth(q Question) Width {
	h := q.Hole
	w := Width{Asks: make([]Ask, 0, 3)}
	if h.CommonWidth > 0 {
		w.Asks = append(w.Asks, Ask{CommonRule, h.CommonWidth})
	} else if !h.SkipFactor {
		w.Asks = append(w.Asks, Ask{FactorRule, q.Post.Width * length.Length(h.Factor(q.Post.Width))})
	}
	across := Ask{CornersRule, q.Post.Across()}
	if h.Shape == job.SquareHole {
		across.Value = q.Post.Width
	}
	w.Asks = append(w.Asks, across)
	if h.Shape == job.SquareHole && h.Spade > 0 {
		w.Asks = append(w.Asks, Ask{SpadeRule, h.Spade})
	}
	w.Governs, w.Wanted = governing(w.Asks)
	switch {
	case h.CommonWidth > 0: // it is for this very kind of post
	case q.Kind == job.GatePost:
		if w.Extra = h.GateExtraWidth; q.Hung {
			w.Extra += h.HingeExtraWidth
		}
	case q.Kind == job.EndPost || q.Kind == job.CornerPost:
		w.Extra = h.EndExtraWidth
	}
	w.Wanted += w.Extra
	// A hole that is off the post's middle still has to hold the post.
	if off := max(h.Along.Abs(), h.Across.Abs()); off > 0 {
		w.Wanted = max(w.Wanted, 2*off+across.Value)
	}
	switch {
	case h.Width != nil:
		w.Width, w.ByHand = *h.Width, true
		_, w.Auger = exact(w.Width, h.Augers)
	case h.Shape == job.SquareHole || h.AnyWidth:
		w.Width = w.Wanted
	default:
		// A multiple of the post is a rule of thumb: an auger that is a little
		// narrower will do, as long as the post goes into the hole.
		wanted := w.Wanted
		if w.Governs == 0 && w.Asks[0].Rule == FactorRule {
			wanted = max(across.Value, wanted*length.Length(1-h.WidthTolerance))
		}
		w.Width, w.Auger = shortest(wanted, h.Augers)
		if !w.Auger {
			w.Width = w.Wanted
		}
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
