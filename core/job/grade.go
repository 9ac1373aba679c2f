package job

import (
	"cmp"
	"slices"

	"mallow/core/length"
)

// Look is how the fence follows the ground.
type Look string

// The four looks.
const (
	Level   Look = "level"   // the top dead level
	Stepped Look = "stepped" // each panel level, drops at posts
	Raked   Look = "raked"   // panels lean, the top goes with the ground
	Rolling Look = "rolling" // the top straight over several bays, broken only at grade posts
)

// Looks are all of them.
var Looks = []Look{Level, Stepped, Raked, Rolling}

// Leans tells whether panels of this look lean out of square.
func (l Look) Leans() bool { return l == Raked || l == Rolling }

// Give is what is done where the ground does not fit the corridor.
type Give string

// Ways to make the ground fit.
const (
	Fill Give = "fill" // hold the least gap; fill under the low places
	Cut  Give = "cut"  // hold the most gap; cut the high places
	Both Give = "both" // half and half
)

// Steps is how the drops of a stepped fence are found.
type Steps string

// The methods of stepping.
const (
	LeastGap  Steps = "least"   // each panel as near its own ground as it may be
	EvenSteps Steps = "even"    // a tight string from the top post to the bottom post
	Gradual   Steps = "gradual" // drops that grow and shrink little by little
	RoundStep Steps = "round"   // multiples of an increment
)

// Across is how the tops run over a gate.
type Across string

// Tops over a gate.
const (
	FlatAcross Across = "flat"
	GoesOn     Across = "along" // the line goes on over the leaf as if it were fence
)

// Infill is what closes the triangle that a step leaves under a panel.
type Infill string

// Ways to close the triangle under a stepped panel.
const (
	EarthInfill  Infill = "earth"         // the ground is filled or cut
	GravelBoards Infill = "gravel boards" // level boards under the panel, let into the high ground
	CutBoards    Infill = "boards"        // boards cut to the ground's slope
)

// TopsBy is how tops are brought to height.
type TopsBy string

// The methods of bringing tops to height.
const (
	ByString TopsBy = "string" // a tight string over the tops, from grade post to grade post
	ByLaser  TopsBy = "laser"  // one level mark on every post
	ByDrops  TopsBy = "drops"  // a level string from the highest top, and drops from it
	ByEye    TopsBy = "sight"  // sighting from post to post
)

// Cutting is when the posts' tops are cut.
type Cutting string

// When tops are cut.
const (
	CutAfter Cutting = "after" // left long, cut when the concrete has set
	CutFirst Cutting = "first" // cut to length, then set to it
)

// LookPart is a stretch of a run with another look, or another height.
type LookPart struct {
	ID   string        `json:"id,omitempty" jsonschema:"minLength=1,maxLength=40" jsonschema_description:"Unlike that of any other part of the run. Left out: given when the job is saved."`
	From length.Length `json:"from" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station at which it begins; bays whose middle is in it have its look."`
	To   length.Length `json:"to" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station at which it ends."`
	Look Look          `json:"look" jsonschema:"required,enum=level,enum=stepped,enum=raked,enum=rolling"`

	Height *length.Length `json:"height,omitempty" jsonschema:"minimum=300,maximum=5000" jsonschema_description:"Height of the fence in it: the top steps up or down to it where it begins and ends, on level ground too. Left out: the run's."`
}

// Grade is how the fence follows the ground.
type Grade struct {
	Look  Look           `json:"look" jsonschema:"enum=level,enum=stepped,enum=raked,enum=rolling"`
	Parts []LookPart     `json:"parts,omitempty" jsonschema:"maxItems=200" jsonschema_description:"Stretches with another look or another height, in order of station."`
	Give  Give           `json:"give" jsonschema:"enum=fill,enum=cut,enum=both" jsonschema_description:"What gives where both gaps cannot be held: fill under the low places, cut the high ones, or half and half."`
	Rack  *length.Length `json:"rack,omitempty" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"How far a panel can lean out of square over one bay. Left out: no limit."`

	Straight *float64      `json:"straight,omitempty" jsonschema:"minimum=0,maximum=1" jsonschema_description:"Raked, and gradual steps: 0 hugs the ground, 1 is as straight as the gaps allow. Left out: 0.5."`
	Dips     length.Length `json:"dips,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Rolling: how deep a dip or hump may be filled or cut for the sake of a straight line. Usual: 0."`

	Steps     Steps          `json:"steps,omitempty" jsonschema:"enum=least,enum=even,enum=gradual,enum=round" jsonschema_description:"Stepped: how the drops are found. Usual: least."`
	StepBy    length.Length  `json:"stepBy,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Round steps: drops are multiples of this. Usual: 2 in or 50 mm."`
	StepMost  *length.Length `json:"stepMost,omitempty" jsonschema:"minimum=1,maximum=3000" jsonschema_description:"Stepped: the most that the top may drop at one post. Left out: no limit."`
	StepEase  int            `json:"stepEase,omitempty" jsonschema:"minimum=0,maximum=20" jsonschema_description:"Round steps: by how many increments a drop may differ from the one before it. 0: by any."`
	HoldLevel int            `json:"holdLevel,omitempty" jsonschema:"minimum=0,maximum=50" jsonschema_description:"Round steps: panels held at one height at the higher end, before the first drop."`

	Across    Across         `json:"across,omitempty" jsonschema:"enum=flat,enum=along" jsonschema_description:"Tops over a gate: flat, or along with the line. Usual: flat."`
	StartGap  *length.Length `json:"startGap,omitempty" jsonschema:"minimum=-2000,maximum=4000" jsonschema_description:"Gap under the fence held at the run's first post: the string's end is lifted or lowered by hand. Left out: found."`
	EndGap    *length.Length `json:"endGap,omitempty" jsonschema:"minimum=-2000,maximum=4000" jsonschema_description:"The same at its last post."`
	Infill    Infill         `json:"infill,omitempty" jsonschema:"enum=earth,enum=gravel boards,enum=boards" jsonschema_description:"Stepped: what closes the triangle under a panel. Usual: earth."`
	Board     length.Length  `json:"board,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"Height of an infill board or gravel board. Usual: 6 in or 150 mm."`
	Strip     length.Length  `json:"strip,omitempty" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"Width of the strip along the fence that is cut or filled. Usual: 12 in or 300 mm."`
	Placed    length.Length  `json:"placed,omitempty" jsonschema:"minimum=0,maximum=20000" jsonschema_description:"Fill is placed and compacted in layers before holes are dug: its level width across the line. Left out: fill is loose, and no footing counts on it."`
	By        TopsBy         `json:"by,omitempty" jsonschema:"enum=string,enum=laser,enum=drops,enum=sight" jsonschema_description:"How the tops are brought to height on site. Usual: string."`
	EyeHeight length.Length  `json:"eyeHeight,omitempty" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"Height of the eyes of whoever sights, or looks along the line. Usual: 5 ft 3 in or 1600 mm."`
}

// The usual values of what a document may leave out, in round figures of each
// system (common practice).
const usualStraight = 0.5

// Stiff is how straight a raked line is pulled, 0 to 1.
func (g Grade) Stiff() float64 {
	if g.Straight == nil {
		return usualStraight
	}
	return *g.Straight
}

// or is a value, or the usual one of the system where it was left out.
func or(v length.Length, u length.Units, imperial, metric length.Length) length.Length {
	switch {
	case v > 0:
		return v
	case u.System == length.Metric:
		return metric
	}
	return imperial
}

// Increment is what round steps are multiples of.
func (g Grade) Increment(u length.Units) length.Length {
	return or(g.StepBy, u, 2*length.Inch, 50)
}

// BoardHeight is the height of an infill board.
func (g Grade) BoardHeight(u length.Units) length.Length {
	return or(g.Board, u, 6*length.Inch, 150)
}

// StripWidth is the width of the strip that is cut or filled.
func (g Grade) StripWidth(u length.Units) length.Length {
	return or(g.Strip, u, 12*length.Inch, 300)
}

// FillWidth is the width of the strip that is filled: as wide as fill that is
// placed, where it is.
func (g Grade) FillWidth(u length.Units) length.Length {
	return max(g.StripWidth(u), g.Placed)
}

// Eye is the height of the eyes.
func (g Grade) Eye(u length.Units) length.Length { return or(g.EyeHeight, u, 63*length.Inch, 1600) }

// LookAt is the look at a station.
func (g Grade) LookAt(at length.Length) Look {
	for _, p := range g.Parts {
		if at >= p.From && at <= p.To {
			return p.Look
		}
	}
	return g.Look
}

// WithPart is the parts with another one laid over them. A height that one of
// them has stays, unless the one on top has its own.
func (g Grade) WithPart(over LookPart) []LookPart {
	out := []LookPart{}
	taken := func(id string) bool {
		return slices.ContainsFunc(append(out, g.Parts...), func(p LookPart) bool { return p.ID == id })
	}
	lay := func(p LookPart) {
		if p.To <= p.From || p.Look == g.Look && p.Height == nil {
			return
		}
		if p.ID == "" || taken(p.ID) {
			p.ID = FreeID("a", taken)
		}
		out = append(out, p)
	}
	rest := over // what of it lies over nothing that has a height
	for _, p := range g.Parts {
		before, after := p, p
		before.To, after.From = min(p.To, over.From), max(p.From, over.To)
		if before.To > before.From {
			out = append(out, before)
			after.ID = FreeID("a", taken)
		}
		if after.To > after.From {
			out = append(out, after)
		}
		if from, to := max(p.From, over.From), min(p.To, over.To); to > from && p.Height != nil && over.Height == nil {
			part := rest
			part.To = from
			lay(part)
			lay(LookPart{From: from, To: to, Look: over.Look, Height: p.Height})
			rest.From = to
		}
	}
	lay(rest)
	slices.SortFunc(out, func(a, b LookPart) int { return cmp.Compare(a.From, b.From) })
	return out
}

// Settings are the grade without what stands at one place only.
func (g Grade) Settings() Grade {
	g.Parts, g.StartGap, g.EndGap, g.Placed = nil, nil, nil, 0
	return g
}

// Rail is the height of a rail's section.
func (f Fence) Rail(u length.Units) length.Length { return or(f.RailWidth, u, 3.5*length.Inch, 90) }

// HeightAt is the fence's height at a station.
func (r Run) HeightAt(at length.Length) length.Length {
	for _, p := range r.Grade.Parts {
		if at >= p.From && at <= p.To && p.Height != nil {
			return *p.Height
		}
	}
	return r.Fence.Height
}

// Highest is the greatest height that the fence has anywhere on the run.
func (r Run) Highest() length.Length {
	high := r.Fence.Height
	for _, p := range r.Grade.Parts {
		if p.Height != nil {
			high = max(high, *p.Height)
		}
	}
	return high
}

// RailHeightsAt are the rails where the fence has a height of its own: the top
// rail keeps its distance from the top, and those that it would come nearer to
// than half the run's least distance of two rails fall away.
func (r Run) RailHeightsAt(high length.Length) []length.Length {
	all := r.RailHeights()
	n := len(all)
	if n == 0 || length.Same(high, r.Fence.Height) {
		return all
	}
	top := max(0, all[n-1]-(r.Fence.Height-high))
	least := length.Length(0)
	for i := 1; i < n; i++ {
		if d := all[i] - all[i-1]; i == 1 || d < least {
			least = d
		}
	}
	out := make([]length.Length, 0, n)
	for _, h := range all[:n-1] {
		if h < top-least/2 {
			out = append(out, h)
		}
	}
	return append(out, top)
}

// RailHeights are the middles of the rails above the fence's bottom, the
// lowest first.
func (r Run) RailHeights() []length.Length {
	if len(r.Fence.Rails) > 0 {
		return r.Fence.Rails
	}
	n := r.Spacing.Rails
	out := make([]length.Length, n)
	for i := range out {
		// The outer rails stand off the edges by a third of the distance
		// between two (common practice: 6 to 8 in on a 6 ft fence of three).
		out[i] = r.Fence.Height * (length.Length(i) + 1.0/3) / (length.Length(n) - 1.0/3)
		if n == 1 {
			out[i] = r.Fence.Height / 2
		}
	}
	return out
}

// Leans tells whether some part of a run leans with the ground.
func (r Run) Leans() bool {
	return r.Grade.Look.Leans() || slices.ContainsFunc(r.Grade.Parts, func(p LookPart) bool { return p.Look.Leans() })
}
