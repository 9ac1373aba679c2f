package report

import (
	"strings"

	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/record"
	"mallow/core/words"
)

// Record are posts as they really go; those of which nothing was written down have no row.
func Record(p plan.Plan, r *record.Log) Table {
	var seen []record.RecordPost
	for _, o := range r.Posts {
		if o.Stage > record.Nothing || o.When != "" || len(o.Notes) > 0 {
			seen = append(seen, o)
		}
	}
	names := map[string]string{}
	for i := range p.Runs {
		names[p.Runs[i].ID] = runName(&p.Runs[i])
	}
	long := func(l *length.Length) any {
		if l == nil {
			return nil
		}
		return *l
	}
	return filled("record", p.Units, []column[record.RecordPost]{
		col("run", Text, func(o record.RecordPost) any { return names[o.Run] }),
		col("post", Text, func(o record.RecordPost) any { return o.Label }),
		col("so_far", Text, func(o record.RecordPost) any { return words.Plain("record.stage-" + o.Stage.Name()) }, main),
		col("depth_dug", Short, func(o record.RecordPost) any { return long(o.Depth) }),
		col("depth_planned", Short, func(o record.RecordPost) any { return some(o.Planned, o.Depth != nil) }),
		col("width_dug", Short, func(o record.RecordPost) any { return long(o.Width) }),
		col("off_string", Rise, func(o record.RecordPost) any { return long(o.Off) }),
		col("out_of_plumb", Rise, func(o record.RecordPost) any { return long(o.Plumb) }),
		col("met", Text, func(o record.RecordPost) any {
			if o.Hit == "" {
				return nil
			}
			return words.Plain("choice.seen-" + words.Key(o.Hit))
		}),
		col("met_at", Short, func(o record.RecordPost) any { return long(o.HitAt) }),
		col("bags_used", Number, func(o record.RecordPost) any {
			if o.Bags == nil {
				return nil
			}
			return *o.Bags
		}),
		col("notes", Text, func(o record.RecordPost) any { return strings.Join(o.Notes, "; ") }),
		col("written_at", Text, func(o record.RecordPost) any { return o.When }, file),
		col("by_whom", Text, func(o record.RecordPost) any { return o.Who }, file),
	}, seen, func(o record.RecordPost) Row { return Row{Run: o.Run, Post: o.ID} })
}
