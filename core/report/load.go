package report

import (
	"mallow/core/bill"
	"mallow/core/length"
	"mallow/core/plan"
	"slices"
	"strings"
)

func loadOf(p plan.Plan, r *plan.Run) Table { return Load(p, r.Items) }

// Load is a bill: each way to buy each item in a row of its own, the exact
// number with its unit, and how it is said.
func Load(p plan.Plan, items []bill.Item) Table {
	names := gateNames(p)
	imperial := p.Units.System == length.Imperial
	bulk, per := "m³", 1.0
	if imperial {
		bulk, per = "yd³", float64(length.CubicYard)
	}
	inBulk := func(r bill.Row) bool { return r.Item.Unit == bill.CubicMetres }
	t := filled("load", p.Units, []column[bill.Row]{
		col("item", Text, func(r bill.Row) any { return r.Item.ID }, file),
		col("item_kind", Text, func(r bill.Row) any { return string(r.Item.Kind) }, file),
		col("what", Text, func(r bill.Row) any { return r.Buy.What }),
		col("exact", Number, func(r bill.Row) any {
			if inBulk(r) {
				return r.Item.Exact / per
			}
			return r.Item.Exact
		}, file),
		col("unit", Text, func(r bill.Row) any {
			if inBulk(r) {
				return bulk
			}
			return string(r.Item.Unit)
		}, file),
		col("bought_by", Text, func(r bill.Row) any { return r.By }, file),
		col("to_buy", Number, func(r bill.Row) any {
			if r.By == bill.Truck || r.By == bill.Loose {
				return r.Count / per
			}
			return r.Count
		}, file),
		col("how_many", Words, func(r bill.Row) any { return r.Many }, main),
		col("piece", Short, func(r bill.Row) any { return some(r.Item.Length, r.Item.Length > 0) }, file),
		col("piece_tape", Text, func(r bill.Row) any {
			if r.Item.Length == 0 {
				return ""
			}
			return p.Units.Short(r.Item.Length)
		}, file),
		col("of_what", Words, func(r bill.Row) any { return r.Of }),
		col("for", Text, func(r bill.Row) any { return gatesOf(r, names) }, page),
		col("of_them_cut", Count, func(r bill.Row) any {
			if r.Or {
				return nil
			}
			return orNothing(r.Item.Cut)
		}, file),
		col("where", Text, func(r bill.Row) any { return where(r) }, file),
	}, bill.Rows(items), func(bill.Row) Row { return Row{} })
	return t
}

// gateNames are the names of all gates, by their runs' ids and their own.
func gateNames(p plan.Plan) map[string]string {
	names := map[string]string{}
	for i := range p.Runs {
		for k := range p.Runs[i].Gates {
			g := &p.Runs[i].Gates[k]
			names[p.Runs[i].ID+"/"+g.ID] = gateName(g)
		}
	}
	return names
}

// GatesOf says which gates a row of a bill is for, in words.
func GatesOf(p plan.Plan) func(bill.Row) string {
	names := gateNames(p)
	return func(r bill.Row) string { return gatesOf(r, names) }
}

// gatesOf are the gates that leaves are for, by the names that are on the site.
func gatesOf(r bill.Row, names map[string]string) string {
	var out []string
	if r.Item.Kind != bill.Leaf || r.Or {
		return ""
	}
	for _, lot := range r.Item.Goes {
		for _, id := range lot.At {
			if name := names[lot.Run+"/"+id]; name != "" && !slices.Contains(out, name) {
				out = append(out, name)
			}
		}
	}
	return strings.Join(out, ", ")
}

// where is where an item's pieces go.
func where(r bill.Row) string {
	var all []string
	if r.Or {
		return ""
	}
	for _, g := range r.Item.Goes {
		all = append(all, g.At...)
	}
	return strings.Join(all, " ")
}
