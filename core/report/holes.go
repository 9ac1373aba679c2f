package report

import (
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/words"
	"strings"
)

// Holes are how wide and deep is dug for every post, where foot and concrete
// end, what goes in, and the gust at which its footing reaches the published
// limit.
func Holes(p plan.Plan, r *plan.Run) Table {
	card := func(s standing) *plan.Card { return &s.run.Cards[s.Card] }
	dug := func(v func(standing) any) func(standing) any {
		return func(s standing) any {
			if s.Card < 0 {
				return nil
			}
			return v(s)
		}
	}
	// A corner post's hole is dug, and counted, with the run that ends there.
	counted := func(v func(standing) any) func(standing) any {
		return func(s standing) any {
			if !s.dug() {
				return nil
			}
			return v(s)
		}
	}
	columns := append(postColumns(),
		col("level", Tape, func(s standing) any { return s.Station }, file),
		col("set", Text, func(s standing) any {
			if s.Card < 0 {
				return words.Plain("report.set-stays")
			}
			return string(card(s).Method)
		}, file),
		col("width", Short, dug(func(s standing) any { return s.HoleWidth }), why("holeWidth")),
		col("square", Flag, dug(func(s standing) any { return card(s).Square })),
		col("dig", Short, dug(func(s standing) any { return s.HoleDepth }), main, why("holeDepth")),
		col("concrete_bottom", Short, dug(func(s standing) any { return s.Bottom })),
		col("foot", Short, dug(func(s standing) any { return s.Foot })),
		col("gravel", Short, dug(func(s standing) any { return s.Gravel })),
		col("dug_volume", Small, counted(func(s standing) any { return card(s).Dug }), file, total),
		col("gravel_volume", Small, counted(func(s standing) any { return card(s).Gravel }), file, total),
		col("stone_volume", Small, counted(func(s standing) any { return card(s).Stone }), file, total),
		col("concrete_volume", Small, counted(func(s standing) any { return card(s).Concrete }), total, why("concrete")),
		col("soil_back", Small, counted(func(s standing) any { return card(s).Soil }), file, total),
		col("spoil_loose", Small, counted(func(s standing) any { return card(s).Spoil }), file, total),
		col("bag", Text, counted(func(s standing) any { return card(s).Bag }), file),
		col("bags", Number, counted(func(s standing) any { return card(s).Bags }), total),
		col("layers_from_the_bottom", Text, dug(func(s standing) any { return layers(s.plan.Units, card(s)) }), file),
		col("stopped_by", Text, func(s standing) any {
			if s.Stopped == nil {
				return ""
			}
			return string(s.Stopped.What)
		}, file),
		col("dug_with_run", Text, func(s standing) any { return s.Shared }, file),
		col("gust", Wind, func(s standing) any {
			if s.Wind == nil {
				return nil
			}
			return s.Wind.Gust
		}, file),
		col("notes", Words, func(s standing) any { return s.notes(false) }),
	)
	return filled("holes", p.Units, columns, posts(&p, r), standing.row)
}

// layers names a hole's layers with their heights, from the bottom up.
func layers(u length.Units, c *plan.Card) string {
	var out []string
	for _, l := range c.Layers {
		out = append(out, string(l.Kind)+" "+u.Short(l.To-l.From))
	}
	return strings.Join(out, "; ")
}
