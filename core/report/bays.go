package report

import "mallow/core/plan"

// spanning is a bay with where it is.
type spanning struct {
	plan *plan.Plan
	run  *plan.Run
	*plan.Bay
}

// Bays are what is cut and closed between the posts.
func Bays(p plan.Plan, r *plan.Run) Table {
	list := make([]spanning, len(r.Bays))
	for i := range r.Bays {
		list[i] = spanning{&p, r, &r.Bays[i]}
	}
	return filled("bays", p.Units, []column[spanning]{
		col("bay_name", Text, func(b spanning) any { return b.Label }),
		col("from", Text, func(b spanning) any { return b.From }),
		col("to", Text, func(b spanning) any { return b.To }),
		col("gate", Text, func(b spanning) any { return b.Gate }),
		col("centres", Short, func(b spanning) any { return b.CentreToCentre }, why("spacing"), total),
		col("between_faces", Short, func(b spanning) any { return b.Clear }),
		col("on_ground", Short, func(b spanning) any { return b.OnGround }),
		col("look", Text, func(b spanning) any { return string(b.Look) }, file),
		col("lean", Rise, func(b spanning) any { return b.Lean }, why("lean")),
		col("angle", Degrees, func(b spanning) any {
			if b.Lean.Abs() < b.plan.Units.SmallestMark/2 {
				return nil
			}
			return b.Angle
		}),
		col("rail", Short, func(b spanning) any { return some(b.Long, b.Gate == "") }, main, why("lean")),
		col("piece_cut", Short, func(b spanning) any { return some(b.Piece, b.PieceCut) }),
		col("gap_first_face", Short, func(b spanning) any { return b.FaceStart }),
		col("gap_second_face", Short, func(b spanning) any { return b.FaceEnd }),
		col("gap_least", Short, func(b spanning) any { return b.GapLeast.Gap }, why("gap")),
		col("gap_least_at", Tape, func(b spanning) any { return b.GapLeast.At }, file),
		col("gap_most", Short, func(b spanning) any { return b.GapMost.Gap }),
		col("gap_most_at", Tape, func(b spanning) any { return b.GapMost.At }, file),
		col("cut", Soil, func(b spanning) any {
			if b.Cut == nil {
				return nil
			}
			return b.Cut.Depth
		}),
		col("fill", Soil, func(b spanning) any {
			if b.Fill == nil || b.Infill != nil {
				return nil
			}
			return b.Fill.Depth
		}),
		col("boards", Count, func(b spanning) any {
			if b.Infill == nil {
				return nil
			}
			return b.Infill.Boards
		}),
	}, list, func(b spanning) Row { return Row{Run: r.ID, Bay: b.ID} })
}
