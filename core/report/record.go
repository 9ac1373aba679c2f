package report

import (
	"slices"
	"strings"

	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/stage/record"
	"mallow/core/survey"
	"mallow/core/words"
)

// Record are posts as they really go; those of which nothing was written down have no row.
func Record(p plan.Plan, r *record.Log) Table {
	var seen []record.RecordPost
	if r == nil {
		r = &record.Log{}
	}
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
		col("off", Rise, func(o record.RecordPost) any { return long(o.Off) }, file),
		col("beside_string", Words, func(o record.RecordPost) any { return handed(p.Units, o.Off, "left", "right") }, page),
		col("plumb_along", Rise, func(o record.RecordPost) any { return long(o.Plumb) }, file),
		col("plumb_across", Rise, func(o record.RecordPost) any { return long(o.Across) }, file),
		col("leans_along", Words, func(o record.RecordPost) any { return handed(p.Units, o.Plumb, "on", "back") }, page),
		col("leans_across", Words, func(o record.RecordPost) any { return handed(p.Units, o.Across, "left", "right") }, page),
		col("top_off", Rise, func(o record.RecordPost) any { return long(o.Top) }),
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

// AsBuilt are posts where they really stand, for the next crew or the surveyor.
func AsBuilt(p plan.Plan, r *record.Log) Table {
	if r == nil {
		r = &record.Log{}
	}
	var known []record.RecordPost // none while nothing is written down
	if slices.ContainsFunc(r.Posts, func(o record.RecordPost) bool { return o.Stage > record.Nothing || o.When != "" }) {
		known = r.Posts
	}
	names, ends := map[string]string{}, map[string]*plan.Run{}
	for i := range p.Runs {
		names[p.Runs[i].ID], ends[p.Runs[i].ID] = runName(&p.Runs[i]), &p.Runs[i]
	}
	long := func(l *length.Length) any {
		if l == nil {
			return nil
		}
		return *l
	}
	place := func(o record.RecordPost) survey.Place {
		if run := ends[o.Run]; run != nil {
			return run.Beside(o.Stands())
		}
		return survey.Place{}
	}
	return filled("asbuilt", p.Units, []column[record.RecordPost]{
		col("run", Text, func(o record.RecordPost) any { return names[o.Run] }),
		col("post", Text, func(o record.RecordPost) any { return o.Label }),
		col("stands_at", Tape, func(o record.RecordPost) any { at, _ := o.Stands(); return at }, main),
		col("measured", Flag, func(o record.RecordPost) any { return o.At != nil }),
		col("off", Rise, func(o record.RecordPost) any { return long(o.Off) }, file),
		col("beside_string", Words, func(o record.RecordPost) any { return handed(p.Units, o.Off, "left", "right") }, page),
		col("map_x", Tape, func(o record.RecordPost) any { return place(o).X }, file),
		col("map_y", Tape, func(o record.RecordPost) any { return place(o).Y }, file),
		col("top_off", Rise, func(o record.RecordPost) any { return long(o.Top) }),
		col("plumb_along", Rise, func(o record.RecordPost) any { return long(o.Plumb) }, file),
		col("plumb_across", Rise, func(o record.RecordPost) any { return long(o.Across) }, file),
		col("leans_along", Words, func(o record.RecordPost) any { return handed(p.Units, o.Plumb, "on", "back") }, page),
		col("leans_across", Words, func(o record.RecordPost) any { return handed(p.Units, o.Across, "left", "right") }, page),
		col("depth", Short, func(o record.RecordPost) any {
			if o.Depth != nil {
				return *o.Depth
			}
			return o.Planned
		}),
		col("depth_measured", Flag, func(o record.RecordPost) any { return o.Depth != nil }, file),
		col("met", Text, func(o record.RecordPost) any {
			if o.Hit == "" {
				return nil
			}
			return words.Plain("choice.seen-" + words.Key(o.Hit))
		}),
		col("met_at", Short, func(o record.RecordPost) any { return long(o.HitAt) }),
		col("so_far", Text, func(o record.RecordPost) any { return words.Plain("record.stage-" + o.Stage.Name()) }),
	}, known, func(o record.RecordPost) Row { return Row{Run: o.Run, Post: o.ID} })
}

// handed says a measure with the hand that it is on; what no tape can tell is none.
func handed(u length.Units, by *length.Length, more, less string) reason.Text {
	if by == nil || by.Abs() < u.SmallestMark/2 {
		return nil
	}
	side := more
	if *by < 0 {
		side = less
	}
	return words.Say("report.hand-"+side, words.V{"by": by.Abs()})
}
