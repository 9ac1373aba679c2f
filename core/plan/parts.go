package plan

import (
	"cmp"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// partOrder is the order in which a load is read out.
var partOrder = []string{"terminal posts", "line posts", "panels", "rails", "bays of boards", "gravel boards"}

// material is what the run's posts are made of.
func (m *maker) material() string {
	if sys, ok := m.cat.System(m.run.System, m.job.Systems); ok && sys.Material != "" {
		return sys.Material
	}
	if m.run.Post.Hollow {
		return "metal"
	}
	return "timber"
}

// parts counts the run's posts, panels, rails and gravel boards by what they
// are.
func (t *Totals) parts(m *maker, posts []*Post) {
	put := func(p LoadPart) {
		if p.Count > 0 {
			t.part(p)
		}
	}
	for _, p := range posts {
		part := LoadPart{What: "line posts", Count: 1, Material: m.material(), Width: p.Width, Round: p.Round, Hollow: p.Hollow}
		if p.Kind != job.LinePost {
			part.What = "terminal posts"
		}
		if p.Stock != nil {
			part.Length = snapped(*p.Stock)
		}
		put(part)
	}
	s := m.run.Spacing
	switch s.Way {
	case job.StockRails:
		rails := LoadPart{What: "rails", Length: s.Piece}
		for _, row := range m.out.Rails {
			for _, p := range row.Pieces {
				rails.Count++
				if p.Cut {
					rails.Cut++
				}
			}
		}
		put(rails)
	default:
		what, ok := map[job.Way]string{job.PanelsBetween: "panels", job.PanelsOnFaces: "panels", job.OverlapRails: "rails", job.FixedModule: "bays of boards"}[s.Way]
		if !ok {
			break
		}
		each := 1
		if what == "rails" {
			each = max(1, len(m.run.RailHeights()))
		}
		part := LoadPart{What: what, Length: s.Piece}
		if what == "panels" {
			part.Width = m.run.Fence.Height - length.Length(m.run.Fence.Boards)*m.run.Grade.BoardHeight(m.job.Units)
		}
		for i := range m.out.Bays {
			if b := &m.out.Bays[i]; b.Piece > 0 {
				part.Count += each
				if b.PieceCut {
					part.Cut += each
				}
			}
		}
		put(part)
	}
	boards := LoadPart{What: "gravel boards", Width: m.run.Grade.BoardHeight(m.job.Units)}
	if _, piece := s.ByPiece(); piece {
		boards.Length = s.Piece
	}
	for i := range m.out.Bays {
		b := &m.out.Bays[i]
		if b.Gate == "" {
			boards.Count += m.run.Fence.Boards
		}
		if b.Infill != nil && b.Infill.Kind == job.GravelBoards {
			boards.Count += b.Infill.Boards
		}
	}
	put(boards)
	t.sortParts()
}

// part adds a part to those of its kind and size.
func (t *Totals) part(p LoadPart) {
	for i := range t.Parts {
		if q := &t.Parts[i]; q.What == p.What && q.Material == p.Material && length.Same(q.Length, p.Length) && length.Same(q.Width, p.Width) && q.Round == p.Round && q.Hollow == p.Hollow {
			q.Count, q.Cut = q.Count+p.Count, q.Cut+p.Cut
			return
		}
	}
	p.Says = p.says()
	t.Parts = append(t.Parts, p)
}

func (t *Totals) sortParts() {
	slices.SortStableFunc(t.Parts, func(a, b LoadPart) int {
		return cmp.Or(cmp.Compare(slices.Index(partOrder, a.What), slices.Index(partOrder, b.What)), cmp.Compare(a.Width, b.Width), cmp.Compare(a.Length, b.Length))
	})
}

// says tells a part's section, material and length.
func (p LoadPart) says() reason.Text {
	switch p.What {
	case "line posts", "terminal posts":
		shape := "square"
		if p.Round {
			shape = "round"
		}
		if p.Hollow {
			shape += " hollow"
		}
		t := reason.Say(p.Width, " "+shape+" "+p.Material+", ")
		if p.Length == 0 {
			return append(t, reason.Say("longer than any stock: order them")...)
		}
		return append(t, reason.Say(p.Length, " long")...)
	case "panels", "gravel boards":
		t := reason.Say(p.Width, " high")
		if p.Length > 0 {
			t = append(reason.Say(p.Length, " × "), t...)
		}
		return t
	}
	return reason.Say(p.Length, " long")
}

// Named is what the part is called, one or many.
func (p LoadPart) Named() string {
	if p.Count != 1 {
		return p.What
	}
	return map[string]string{"line posts": "line post", "terminal posts": "terminal post", "panels": "panel", "rails": "rail", "bays of boards": "bay of boards", "gravel boards": "gravel board"}[p.What]
}

// WithWaste says how much waste the concrete to buy has, after what it is of;
// nothing where it has none.
func (t Totals) WithWaste() string {
	switch {
	case t.Waste > 0:
		return " with " + percent(t.Waste) + " waste"
	case t.Waste < 0:
		return " with the waste that was given"
	}
	return ""
}
