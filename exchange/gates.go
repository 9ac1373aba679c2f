package exchange

import (
	"strconv"

	"mallow/core/length"
	"mallow/core/plan"
)

// GatesCSV writes a run's gates, a row for each leaf (one for a sliding gate):
// the opening with its post distances and check diagonal, the leaf to order,
// the least gap on its way, and where its hinges and latch go. Lengths are in
// metres or feet, masses in kilograms or pounds, moments in newton metres or
// pound feet, forces in newtons or pounds.
func GatesCSV(p plan.Plan, run int) (Written, error) {
	in, number := columns(p.Units)
	weight, turn, push := "kg", "Nm", "N"
	perMass, perMoment, perForce := 1.0, 1.0, 1.0
	if p.Units.System == length.Imperial {
		weight, turn, push = "lb", "lbft", "lb"
		perMass, perMoment, perForce = float64(length.Pound), 4.4482216152605*0.3048, 4.4482216152605
	}
	decimal := func(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }
	rows := [][]string{{"gate", "name", "kind", "use", in("middle"), "first_post", "second_post", in("inside"), in("clear"), in("centre_to_centre"), in("outside"), in("diagonal"), in("gap_under"),
		"hangs_on", "swings", in("leaf_width"), in("leaf_height"), "leaf_" + weight, "estimated", "moment_" + turn, "hinge_pull_" + push, in("least_gap"), "least_gap_degrees", in("bottom_hinge"), in("top_hinge"), in("latch")}}
	r := p.Runs[run]
	for _, g := range r.Gates {
		head := []string{g.ID, g.Name, string(g.Kind), string(g.Use), number(g.At), g.First, g.Second, number(g.Opening), number(g.Clear), number(g.Centre), number(g.Outside), number(g.Checks[2].Length), number(g.Bottom - g.Highest)}
		latch := ""
		if g.Latch != nil {
			latch = number(g.Latch.Above)
		}
		if g.RunBack != nil {
			rows = append(rows, append(head, "", string(g.Swing), number(g.RunBack.Past), number(g.Leaf), "", "", "", "", number(g.RunBack.Gap), "", "", "", latch))
		}
		for _, l := range g.Leaves {
			gap, angle := length.Length(0), 0.0
			for i, s := range l.Sides {
				if i == 0 || s.Gap < gap {
					gap, angle = s.Gap, s.Angle
				}
			}
			low, high := "", ""
			if n := len(l.Hinges); n > 0 {
				low, high = number(l.Hinges[0].Above), number(l.Hinges[n-1].Above)
			}
			rows = append(rows, append(append([]string{}, head...), l.Post, string(g.Swing), number(l.Width), number(l.Height), decimal(float64(l.Mass)/perMass), strconv.FormatBool(l.Estimated),
				decimal(l.Moment/perMoment), decimal(l.Pull/perForce), number(gap), decimal(angle), low, high, latch))
		}
	}
	return table("gates.csv", rows, len(r.Gates) > 0)
}
