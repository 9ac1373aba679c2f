package report

import (
	"mallow/core/length"
	"mallow/core/plan"
)

// leaf is a leaf with its gate; of a sliding gate, the gate alone.
type leaf struct {
	run *plan.Run
	*plan.Gate
	leaf *plan.GateLeaf
}

// Gates are a run's gates, a row for each leaf and one for a sliding gate: the
// opening with its post distances and check diagonal, the leaf to order, the
// least gap on its way, and where its hinges and latch go.
func Gates(p plan.Plan, r *plan.Run) Table {
	var list []leaf
	for i := range r.Gates {
		g := &r.Gates[i]
		if g.RunBack != nil {
			list = append(list, leaf{r, g, nil})
		}
		for k := range g.Leaves {
			list = append(list, leaf{r, g, &g.Leaves[k]})
		}
	}
	its := func(v func(*plan.GateLeaf) any) func(leaf) any {
		return func(l leaf) any {
			if l.leaf == nil {
				return nil
			}
			return v(l.leaf)
		}
	}
	hinge := func(last bool) func(leaf) any {
		return its(func(l *plan.GateLeaf) any {
			switch n := len(l.Hinges); {
			case n == 0:
				return nil
			case last:
				return l.Hinges[n-1].Above
			}
			return l.Hinges[0].Above
		})
	}
	least := func(l leaf) (gap length.Length, degrees float64, known bool) {
		if l.leaf == nil {
			return l.RunBack.Gap, 0, true
		}
		for i, s := range l.leaf.Sides {
			if i == 0 || s.Gap < gap {
				gap, degrees, known = s.Gap, s.Angle, true
			}
		}
		return gap, degrees, known
	}
	return filled("gates", p.Units, []column[leaf]{
		col("gate", Text, func(l leaf) any { return l.ID }, file),
		col("name", Text, func(l leaf) any { return gateName(l.Gate) }),
		col("gate_kind", Text, func(l leaf) any { return string(l.Kind) }, file),
		col("use", Text, func(l leaf) any { return string(l.Use) }, file),
		col("middle", Tape, func(l leaf) any { return l.At }),
		col("first_post", Text, func(l leaf) any { return l.First }),
		col("second_post", Text, func(l leaf) any { return l.Second }),
		col("inside", Short, func(l leaf) any { return l.Opening }, main),
		col("clear_way", Short, func(l leaf) any { return l.Clear }),
		col("centre_to_centre", Short, func(l leaf) any { return l.Centre }),
		col("outside", Short, func(l leaf) any { return l.Outside }, file),
		col("diagonal", Short, func(l leaf) any { return l.Checks[2].Length }),
		col("gap_under", Short, func(l leaf) any { return l.Bottom - l.Highest }, file),
		col("hangs_on", Text, its(func(l *plan.GateLeaf) any { return l.Post })),
		col("swings", Text, func(l leaf) any { return string(l.Swing) }),
		col("leaf_width", Short, func(l leaf) any {
			if l.leaf == nil {
				return l.RunBack.Past
			}
			return l.leaf.Width
		}),
		col("leaf_height", Short, func(l leaf) any {
			if l.leaf == nil {
				return l.Leaf
			}
			return l.leaf.Height
		}),
		col("leaf", Mass, its(func(l *plan.GateLeaf) any { return l.Mass }), total),
		col("estimated", Flag, its(func(l *plan.GateLeaf) any { return l.Estimated }), file),
		col("moment", Moment, its(func(l *plan.GateLeaf) any { return l.Moment }), file),
		col("hinge_pull", Force, its(func(l *plan.GateLeaf) any { return l.Pull })),
		col("least_gap", Short, func(l leaf) any { gap, _, known := least(l); return some(gap, known) }),
		col("least_gap_at", Degrees, func(l leaf) any {
			if _, degrees, _ := least(l); l.leaf != nil {
				return degrees
			}
			return nil
		}, file),
		col("bottom_hinge", Short, hinge(false), file),
		col("top_hinge", Short, hinge(true), file),
		col("latch", Short, func(l leaf) any {
			if l.Latch == nil {
				return nil
			}
			return l.Latch.Above
		}, file),
	}, list, func(leaf) Row { return Row{Run: r.ID} })
}

func gateName(g *plan.Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}
