package plan

import (
	"math"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
)

// RailHole is where a rail goes into a post, its middle above the ground at
// the post. On a step the two sides differ.
type RailHole struct {
	Before *length.Length `json:"before,omitempty" jsonschema_description:"Of the bay before; left out at the run's first post and beside a gate."`
	After  *length.Length `json:"after,omitempty" jsonschema_description:"Of the bay after."`
}

// PanelInfill is what closes the triangle that a level panel leaves over a slope.
type PanelInfill struct {
	Kind   job.Infill    `json:"kind" jsonschema:"required,enum=gravel boards,enum=boards"`
	Long   length.Length `json:"long" jsonschema:"required" jsonschema_description:"Face to face of the posts."`
	Start  length.Length `json:"start" jsonschema:"required" jsonschema_description:"Height at the first post's face: from the panel's bottom to the least gap over the ground."`
	End    length.Length `json:"end" jsonschema:"required" jsonschema_description:"The same at the second post's face."`
	Most   length.Length `json:"most" jsonschema:"required" jsonschema_description:"Greatest height."`
	Boards int           `json:"boards" jsonschema:"required" jsonschema_description:"Boards one under the other."`
	Board  length.Length `json:"board" jsonschema:"required" jsonschema_description:"Height of one."`
	Let    length.Length `json:"let" jsonschema:"required" jsonschema_description:"How deep gravel boards are let into the high ground; 0 for boards cut to the slope."`
	Marks  []InfillMark  `json:"marks" jsonschema:"required" jsonschema_description:"For boards cut to the slope: where to mark them, from the first post's face."`
}

// InfillMark is one mark of the line that infill boards are cut to.
type InfillMark struct {
	At    length.Length `json:"at" jsonschema:"required" jsonschema_description:"From the first post's face, level."`
	Under length.Length `json:"under" jsonschema:"required" jsonschema_description:"Below the panel's bottom."`
}

// onSlope gives a post what the slope does to it.
func (m *maker) onSlope(p *Post, i int) {
	half := m.run.PostOf(p.Kind).Width / 2
	at := func(station length.Length) length.Length {
		return p.Top - m.profile.Height(min(max(0, station), m.out.Length))
	}
	p.RevealBefore, p.RevealAfter = at(p.Station-half), at(p.Station+half)
	p.Mark = m.line.FenceTop(i) - p.Ground - m.run.String.Mark
	p.Overlap = m.run.Fence.Height
	if i > 0 && i < len(m.line.Bays) {
		before, after := m.line.Bays[i-1], m.line.Bays[i]
		p.Step = after.TopStart - before.TopEnd
		if p.Step.Abs() <= length.Tolerance {
			p.Step = 0
		}
		p.Overlap = max(0, m.run.Fence.Height-p.Step.Abs())
	}
	if m.railsIntoPosts() {
		p.Holes = m.holes(p, i)
	}
}

// railsIntoPosts tells whether rails go into holes or routs of the posts.
func (m *maker) railsIntoPosts() bool {
	s := m.run.Spacing
	return s.Way == job.OverlapRails && m.can(job.MorticePosts) || s.Way == job.PanelsBetween && s.Slot > 0 && len(m.run.RailHeights()) > 0
}

func (m *maker) holes(p *Post, i int) []RailHole {
	rails := m.run.RailHeights()
	out := make([]RailHole, len(rails))
	side := func(bay int, bottom func(grade.Bay) length.Length) func(length.Length) *length.Length {
		if bay < 0 || bay >= len(m.line.Bays) || m.layout.Bays[bay].Gate != spacing.NoGate {
			return func(length.Length) *length.Length { return nil }
		}
		b := bottom(m.line.Bays[bay]) - p.Ground
		return func(rail length.Length) *length.Length { h := b + rail; return &h }
	}
	before := side(i-1, func(b grade.Bay) length.Length { return b.BottomEnd })
	after := side(i, func(b grade.Bay) length.Length { return b.BottomStart })
	for k, r := range rails {
		out[k] = RailHole{before(r), after(r)}
	}
	return out
}

// leaning gives a bay what the slope does to it.
func (m *maker) leaning(b *Bay, i int, from, to Post) {
	b.Look = m.courseLook(i)
	b.Lean = b.TopEnd - b.TopStart
	slope := float64(b.Lean / b.CentreToCentre)
	b.Angle = math.Atan(slope) * 180 / math.Pi
	b.Long = b.Clear * length.Length(math.Hypot(1, slope))
	b.OnGround = to.Slope - from.Slope
	face := func(at length.Length) length.Length {
		return b.BottomStart + (b.BottomEnd-b.BottomStart)*(at-from.Station)/b.CentreToCentre - m.profile.Height(at)
	}
	b.FaceStart = face(from.Station + m.run.PostOf(from.Kind).Width/2)
	b.FaceEnd = face(to.Station - m.run.PostOf(to.Kind).Width/2)
	b.Why.Lean = m.whyLean(b.Look)
	if b.Gate == "" && m.run.Fence.Boards > 0 {
		b.Boards, b.Board = m.run.Fence.Boards, m.run.Grade.BoardHeight(m.job.Units)
	}
	if b.Infill = m.infill(*b, m.run.Grade.Infill, from, to); b.Infill != nil {
		b.Fill = nil // boards close it: nothing is filled
	}
}

// courseLook is a bay's look, by its middle.
func (m *maker) courseLook(i int) job.Look {
	b := m.layout.Bays[i]
	return m.run.Grade.LookAt((m.layout.Posts[b.First].Station + m.layout.Posts[b.First+1].Station) / 2)
}

// infill sizes what closes the triangle under a level panel: boards cut to
// run at the least gap over the ground, or level boards one under the other
// until the gap under the lowest is no more than the most.
func (m *maker) infill(b Bay, kind job.Infill, from, to Post) *PanelInfill {
	if kind != job.CutBoards && kind != job.GravelBoards || b.Gate != "" || b.Look.Leans() || b.Fill == nil {
		return nil
	}
	start := from.Station + m.run.PostOf(from.Kind).Width/2
	end := to.Station - m.run.PostOf(to.Kind).Width/2
	if end <= start {
		return nil
	}
	f := m.run.Fence
	out := &PanelInfill{Kind: kind, Long: b.Clear, Board: m.run.Grade.BoardHeight(m.job.Units), Marks: []InfillMark{}}
	high := length.Length(math.Inf(1)) // gap over the highest ground
	m.profile.Each(start, end, func(at, ground length.Length) {
		under := max(0, b.BottomStart-ground-f.GapLeast)
		if at == start {
			out.Start = under
		}
		out.End, out.Most = under, max(out.Most, under)
		high = min(high, b.BottomStart-ground)
		if kind == job.CutBoards {
			out.Marks = append(out.Marks, InfillMark{at - start, under})
		}
	})
	need := out.Most
	if kind == job.GravelBoards {
		need = max(0, b.GapMost.Gap-f.GapMost) // a level board leaves the most gap at the low end
	}
	out.Boards = int(math.Ceil(float64((need - noBoard) / out.Board)))
	if kind == job.GravelBoards {
		out.Let = max(0, length.Length(out.Boards)*out.Board-high)
	}
	if out.Boards < 1 {
		return nil
	}
	return out
}

// noBoard is what no board is taken for.
const noBoard = length.Millimetre / 2

// soil adds up what is cut and filled along the run; what a board closes is
// not filled.
func (t *Totals) soil(bays []Bay, strip length.Length) {
	width := strip.Metres()
	for i := range bays {
		b := &bays[i]
		if b.Cut != nil {
			t.Cut += length.Volume(float64(b.Cut.Section) * width)
		}
		switch {
		case b.Infill != nil:
			t.InfillBoards += b.Infill.Boards
		case b.Fill != nil:
			t.Fill += length.Volume(float64(b.Fill.Section) * width)
		}
	}
}

// swings adds what is cut so that leaves clear the ground on their way.
func (t *Totals) swings(gates []Gate) {
	for i := range gates {
		for _, l := range gates[i].Leaves {
			for _, s := range l.Sides {
				if s.IsCut {
					t.Cut += s.Earth
				}
			}
		}
	}
}

// breaks counts where the top changes slope or height.
func (t *Totals) breaks(posts []Post, mark length.Length) {
	for i := range posts {
		if posts[i].Grade {
			t.GradePosts++
		}
		if posts[i].Step.Abs() >= mark/2 {
			t.Steps++
		}
	}
}
