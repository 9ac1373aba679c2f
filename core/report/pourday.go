package report

import (
	"strings"

	"mallow/core/plan"
	"mallow/core/stage/curbing"
	"mallow/core/stage/days"
	"mallow/core/stage/pourday"
)

func pourOf(p plan.Plan, r *plan.Run) Table {
	if p.Pour == nil {
		return Pour(p, nil)
	}
	var posts []pourday.DayPost
	for _, o := range p.Pour.Rows(p.Units) {
		if o.Run == r.ID {
			posts = append(posts, o)
		}
	}
	return Pour(p, posts)
}

// Pour is the posts of a pour in the order in which they are set.
func Pour(p plan.Plan, posts []pourday.DayPost) Table {
	return filled("pour", p.Units, []column[pourday.DayPost]{
		col("post", Text, func(o pourday.DayPost) any { return o.Post }),
		col("load", Count, func(o pourday.DayPost) any { return only(o.Load, o.Load > 0) }),
		col("day", Text, func(o pourday.DayPost) any { return dayOf(o.At) }),
		col("at", Text, func(o pourday.DayPost) any { return timeOf(o.At) }, main),
		col("fill_to", Short, func(o pourday.DayPost) any { return some(o.Fill, o.Fill > 0) }),
		col("rises", Short, func(o pourday.DayPost) any { return some(o.Rises, o.Fill > 0) }),
		col("concrete_to_buy", Small, func(o pourday.DayPost) any { return o.Volume }),
		col("bags", Number, func(o pourday.DayPost) any { return only(o.Bags, o.Bags > 0) }),
		col("water", Text, func(o pourday.DayPost) any { return only(p.Units.Water(o.Water), o.Water > 0) }),
		col("come_back", Text, func(o pourday.DayPost) any { return timeOf(o.Back) }),
		col("finish", Text, func(o pourday.DayPost) any { return timeOf(o.Finish) }),
		col("braces_off", Text, func(o pourday.DayPost) any { return readyAt(o, "braces") }, file),
		col("rails_from", Text, func(o pourday.DayPost) any { return readyAt(o, "rails") }, file),
		col("gates_from", Text, func(o pourday.DayPost) any { return readyAt(o, "gates") }, file),
	}, posts, func(o pourday.DayPost) Row {
		if o.IsCurb {
			return Row{}
		}
		return Row{Post: o.Post}
	})
}

// Curb are the marks on the forms of a run's mowing curb: posts and joints.
func Curb(p plan.Plan, r *plan.Run) Table {
	var marks []curbing.CurbMark
	if r.Curb != nil {
		marks = r.Curb.Marks
	}
	return filled("curb", p.Units, []column[curbing.CurbMark]{
		col("post", Text, func(m curbing.CurbMark) any { return m.Post }),
		col("on_forms", Tape, func(m curbing.CurbMark) any { return m.At }, main),
		col("joint", Flag, func(m curbing.CurbMark) any { return m.Joint }),
	}, marks, func(m curbing.CurbMark) Row { return Row{Post: m.Post} })
}

// Days are the parts of the work on every day on site.
func Days(p plan.Plan, s *days.Schedule) Table {
	type part struct {
		day *days.OnDay
		of  days.AgendaPart
	}
	var all []part
	for i := 0; s != nil && i < len(s.Days); i++ {
		for _, o := range s.Days[i].Parts {
			all = append(all, part{&s.Days[i], o})
		}
	}
	return filled("days", p.Units, []column[part]{
		col("day", Text, func(o part) any { return o.day.Date }),
		col("at", Text, func(o part) any { return o.of.From }, main),
		col("until", Text, func(o part) any { return o.of.To }),
		col("task", Text, func(o part) any { return o.of.Name }),
		col("hours", Number, func(o part) any { return o.of.Hours }, file),
		col("goes_on", Flag, func(o part) any { return o.of.More }),
		col("posts", Text, func(o part) any { return strings.Join(o.of.Posts, " ") }),
		col("comes", Text, func(o part) any { return strings.Join(o.day.Who, ", ") }),
	}, all, func(part) Row { return Row{} })
}

// dayOf is the day of a time in RFC 3339, and timeOf its time by the site's clock.
func dayOf(at string) string {
	if len(at) < 10 {
		return ""
	}
	return at[:10]
}

func timeOf(at string) string {
	if len(at) < 16 {
		return ""
	}
	return at[11:16]
}

func readyAt(o pourday.DayPost, id string) string {
	for _, r := range o.Ready {
		if r.ID == id && r.At != "" {
			return dayOf(r.At) + " " + timeOf(r.At)
		}
	}
	return ""
}

// only is a value where it says something.
func only(v any, says bool) any {
	if !says {
		return nil
	}
	return v
}
