package plan

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
)

// RailRow is one row of rails along a run.
type RailRow struct {
	Row    int     `json:"row" jsonschema:"required" jsonschema_description:"From the ground up, 1 first."`
	Pieces []Piece `json:"pieces" jsonschema:"required"`
}

// Piece is one rail from joint to joint.
type Piece struct {
	From   string        `json:"from" jsonschema:"required" jsonschema_description:"Post that it begins on."`
	To     string        `json:"to" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
	Cut    bool          `json:"cut" jsonschema:"required" jsonschema_description:"Cut from a full rail."`
}

// rails breaks the rails of every stretch on posts.
func (m *maker) rails() {
	s := m.run.Spacing
	if s.Way != job.StockRails {
		return
	}
	rows := max(1, s.Rails)
	for r := range rows {
		m.out.Rails = append(m.out.Rails, RailRow{Row: r + 1, Pieces: []Piece{}})
	}
	for i := 0; i < len(m.layout.Bays); {
		first, n := i, m.layout.Bays[i].Segment
		var bays []length.Length
		for ; i < len(m.layout.Bays) && m.layout.Bays[i].Segment == n; i++ {
			bays = append(bays, m.long(m.layout.Bays[i].First, m.layout.Bays[i].First+1))
		}
		if m.layout.Segments[n].Gate != spacing.NoGate {
			continue
		}
		joints := spacing.Stagger(bays, s.Piece, rows)
		for _, w := range joints.Weak {
			if rows > 1 {
				m.weak = append(m.weak, m.out.Posts[first+w].ID)
			}
		}
		for r, rail := range joints.Rails {
			for k := 1; k < len(rail.Joints); k++ {
				a, z := first+rail.Joints[k-1], first+rail.Joints[k]
				from, to, long := m.out.Posts[a], m.out.Posts[z], m.long(a, z)
				m.out.Rails[r].Pieces = append(m.out.Rails[r].Pieces, Piece{From: from.ID, To: to.ID, Length: long,
					Cut: long < s.Piece-max(length.Tolerance, m.job.Units.SmallestMark/2)})
			}
		}
	}
}

// long is how long a rail from one post to another is, as it leans.
func (m *maker) long(from, to int) length.Length {
	sum := length.Length(0)
	for i := from; i < to; i++ {
		b := &m.out.Bays[i]
		sum += b.CentreToCentre * length.Length(math.Hypot(1, float64(b.Lean/b.CentreToCentre)))
	}
	return sum
}
