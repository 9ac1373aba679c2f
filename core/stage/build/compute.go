// Package build plans what stands above ground: the parts of every bay and every
// leaf, counted from the planned bays by the recipe of the fence's type.
package build

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage/gates"
)

// Build is a run with its parts.
type Build struct {
	*gates.Gates
	Stretches []Stretch
	Parts     []Part // nil for a fence of no known type

	recipe []job.Part
}

// Compute counts the run's parts. A run of no known type has none.
func Compute(m *gates.Gates) *Build {
	b := &Build{Gates: m}
	if !m.Laid() {
		return b
	}
	b.Stretches = stretches(m)
	b.gravelBoards()
	b.recipe = m.Cat.Recipe(m.Spec.System, m.Job.Systems, m.Spec.Parts)
	b.put(b.recipe, false)
	if len(b.recipe) == 0 {
		b.Parts = nil
		return b
	}
	b.liftOut()
	made := map[string]bool{}
	for g := range m.Made {
		made[m.MadeOf(g).ID] = true
	}
	for _, make := range m.Cat.Makes {
		if made[make.ID] {
			b.put(make.Parts[m.Job.Units.System], true)
		}
	}
	return b
}

func stretches(m *gates.Gates) []Stretch {
	var out []Stretch
	open := false
	for i := range m.Bays {
		switch {
		case m.Bays[i].Gate != "":
			open = false
		case open && m.Posts[i].Kind == job.LinePost:
			out[len(out)-1].Last = i
		default:
			out, open = append(out, Stretch{i, i}), true
		}
	}
	return out
}

// Of finds a part.
func (b *Build) Of(id string) *Part {
	for i := range b.Parts {
		if b.Parts[i].ID == id {
			return &b.Parts[i]
		}
	}
	return nil
}

// counters is how each way of counting counts, given what it goes with.
var counters = map[job.CountBy]func(*Build, *Part){
	job.PerPost: perPost, job.PerBay: perBay, job.PerBayEnd: perBayEnd,
	job.PerStretch: perStretch, job.PerStretchEnd: perStretchEnd, job.ByBands: byBands,
	job.PerCorner: perCorner, job.PerGate: perGate, job.PerLeaf: perLeaf, job.PerHinge: perHinge,
	job.ByRails: byRails, job.ByRows: byRows, job.Along: along, job.PerGap: perGap,
	job.ByRoll: byRoll, job.Spaced: spaced, job.PerCrossing: perCrossing,
	job.PerJoint: perJoint, job.PerPiece: perPiece, job.PerCutEnd: perCutEnd, job.ByArea: byArea,
}

// gravelBoard is the part that gravel boards are: how many there are, the run
// says, and its slopes.
const gravelBoard = "gravel-board"

func (b *Build) gravelBoards() {
	p := Part{Part: job.Part{ID: gravelBoard, Name: gravelBoardName, Kind: job.BoardPart, By: job.PerBay, Long: job.InClear}, Given: true}
	for i := range b.Bays {
		v := &b.Bays[i]
		n := v.Boards
		if v.Infill != nil && v.Infill.Kind == job.GravelBoards {
			n += v.Infill.Boards
		}
		if v.Gate == "" && n > 0 {
			p.Width = v.Board
			p.add(Piece{Bay: i, To: i, Gate: -1, Count: n, Long: v.Long})
		}
	}
	if p.Count > 0 {
		b.Parts = append(b.Parts, p)
	}
}

// panel is a panel's size, where the run says it: as long as the piece that sets
// its bays, as high as the fence less what stands under and on it.
func (b *Build) panel(p *job.Part) {
	if p.High {
		p.Width = b.Spec.Fence.Height
	}
	if p.Kind != job.PanelPart {
		return
	}
	piece := b.Spec.Spacing.Piece
	if _, set := b.Spec.Spacing.ByPiece(); !set || piece == 0 { // bays are equal: panels are cut to them
		sys, _ := b.Cat.System(b.Spec.System, b.Job.Systems)
		piece = sys.Spacing.Piece
	}
	if len(p.Stock) == 0 && piece > 0 {
		p.Stock = []length.Length{piece}
	}
	if p.Width == 0 {
		p.Width = b.Spec.Fence.Height - length.Length(b.Spec.Fence.Boards)*b.Spec.Grade.BoardHeight(b.Job.Units)
		for _, o := range b.recipe {
			if o.Kind == job.PanelPart && o.ID != p.ID {
				p.Width -= o.Width
			}
		}
	}
}

// put counts parts, each after those that it goes with, wherever they stand in the
// list. What there is none of is left out.
func (b *Build) put(list []job.Part, leaf bool) {
	first := len(b.Parts)
	at := make(map[string]int, len(list))
	b.Parts = slices.Grow(b.Parts, len(list)) // no pointer into it is to move
	for _, spec := range list {
		b.panel(&spec)
		if _, twice := at[spec.ID]; !twice {
			at[spec.ID] = len(b.Parts)
		}
		b.Parts = append(b.Parts, Part{Part: spec, Gates: leaf})
	}
	begun := make([]bool, len(list))
	var visit func(i int)
	visit = func(i int) {
		if begun[i-first] { // counted, or parts that go with each other: in the order of the list
			return
		}
		begun[i-first] = true
		p := &b.Parts[i]
		for _, id := range slices.Concat(p.Of, p.Over) {
			if k, ok := at[id]; ok {
				visit(k)
			}
		}
		if count := counters[p.By]; count != nil {
			count(b, p)
		}
	}
	for i := first; i < len(b.Parts); i++ {
		visit(i)
	}
	none := func(p Part) bool { return p.Count == 0 && p.Litres == 0 && p.Unfit == nil }
	b.Parts = append(b.Parts[:first], slices.DeleteFunc(b.Parts[first:], none)...)
}

func (p *Part) each() int { return max(1, p.Each) }

func (p *Part) counts(kind job.PostKind) bool { return len(p.At) == 0 || slices.Contains(p.At, kind) }

func (p *Part) add(n Piece) {
	p.Count += n.Count
	if last := len(p.Pieces) - 1; last >= 0 {
		at := &p.Pieces[last]
		if at.Bay == n.Bay && at.To == n.To && at.Gate == n.Gate && at.Row == n.Row && at.Cut == n.Cut && length.Same(at.Long, n.Long) && length.Same(at.Wide, n.Wide) {
			at.Count += n.Count
			return
		}
	}
	p.Pieces = append(p.Pieces, n)
}

func (b *Build) mark() length.Length { return b.Job.Units.SmallestMark }

// level is the bay's height of fence at a station of it: what is above its
// gravel boards.
func (b *Build) high(bay int, at length.Length) length.Length {
	v := &b.Bays[bay]
	share := (at - b.Posts[bay].Station) / v.CentreToCentre
	share = max(0, min(1, share))
	top, bottom := v.TopStart+(v.TopEnd-v.TopStart)*share, v.BottomStart+(v.BottomEnd-v.BottomStart)*share
	return max(0, top-bottom-length.Length(v.Boards)*v.Board)
}

func (b *Build) middle(bay int) length.Length {
	return (b.Posts[bay].Station + b.Posts[bay+1].Station) / 2
}

// leaning is how long something over a bay is that leans with its top.
func (b *Build) leaning(bay int) length.Length {
	v := &b.Bays[bay]
	return v.CentreToCentre * length.Length(math.Hypot(1, float64(v.Lean/v.CentreToCentre)))
}

// over is how long a piece over some bays is.
func (b *Build) over(p *Part, first, last int) length.Length {
	switch p.Long {
	case job.ByHeight:
		return b.high(first, b.middle(first)) + p.More
	case job.InClear:
		sum := length.Length(0)
		for i := first; i <= last; i++ {
			sum += b.Bays[i].Long
			if i > first {
				sum += b.Posts[i].Width
			}
		}
		return sum + p.More
	case job.AsPlanned:
		if piece := b.Bays[first].Piece; piece > 0 {
			return piece + p.More
		}
		if p.Kind == job.PanelPart {
			return b.Bays[first].Clear + p.More
		}
	}
	sum := length.Length(0)
	for i := first; i <= last; i++ {
		sum += b.leaning(i)
	}
	return sum + p.More
}

// long is a stretch as what hangs between its terminal posts is long.
func (b *Build) long(s Stretch) length.Length {
	sum := -(b.Posts[s.First].Width + b.Posts[s.Last+1].Width) / 2
	for i := s.First; i <= s.Last; i++ {
		sum += b.leaning(i)
	}
	return max(0, sum)
}
