package report

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/words"
)

// standing is a post with where it stands.
type standing struct {
	plan *plan.Plan
	run  *plan.Run
	i    int
	*plan.Post
}

func posts(p *plan.Plan, r *plan.Run) []standing {
	out := make([]standing, len(r.Posts))
	for i := range r.Posts {
		out[i] = standing{p, r, i, &r.Posts[i]}
	}
	return out
}

func (s standing) row() Row {
	r := Row{Run: s.run.ID, Post: s.ID}
	if s.i > 0 {
		r.Bay = s.run.Bays[s.i-1].ID
	}
	return r
}

// role is what kind of post it is to those who set it.
func (s standing) role() string {
	switch {
	case s.Kind == job.GatePost && s.Hung:
		return words.Plain("report.hinge")
	case s.Kind == job.GatePost:
		return words.Plain("report.latch")
	}
	return string(s.Kind)
}

// onMap is where the post stands on the site map.
func (s standing) onMap() (x, y length.Length) {
	at := s.run.From.Towards(s.run.To, float64(s.Station/max(1, s.run.Length)))
	return at.X, at.Y
}

// dug tells whether a hole is dug for it in its own run.
func (s standing) dug() bool { return s.Card >= 0 && s.Shared == "" }

// notes are what else must be known where the post is marked or dug.
func (s standing) notes(pins bool) reason.Text {
	var all []reason.Text
	say := func(t reason.Text) { all = append(all, t) }
	if s.Stays != "" {
		say(words.Say("report.stays"))
	}
	if s.Shared != "" {
		say(words.Say("report.dug-with", words.V{"run": s.Shared}))
	}
	if s.Driven {
		say(words.Say("report.driven"))
	}
	if len(s.Hand) > 0 {
		say(words.Say("report.by-hand"))
	}
	if s.Repoured != "" {
		say(words.Say("report.old-footing-out"))
	}
	switch {
	case s.Stopped != nil:
		say(words.Say("report.stopped-by", words.V{"what": string(s.Stopped.What)}))
	case s.Spot != "":
		say(words.Say("report.own-rules"))
	}
	if m := s.mark(); pins && m.Pin > 0 {
		say(words.Say("report.pin", words.V{"pin": m.Pin, "past": m.Past}))
	}
	var out reason.Text
	for i, t := range all {
		if i > 0 {
			out = out.Words("; ")
		}
		out = append(out, t...)
	}
	return out
}

// length is a length that is there; nothing where it is not.
func maybe(l *length.Length) any {
	if l == nil {
		return nil
	}
	return *l
}

func some(l length.Length, there bool) any {
	if !there {
		return nil
	}
	return l
}

// postColumns say which post a row is of.
func postColumns() []column[standing] {
	return []column[standing]{
		col("post", Text, func(s standing) any { return s.Label }),
		col("kind", Text, func(s standing) any { return s.role() }),
	}
}

func mapColumns() []column[standing] {
	return []column[standing]{
		col("x", Tape, func(s standing) any { x, _ := s.onMap(); return x }, file),
		col("y", Tape, func(s standing) any { _, y := s.onMap(); return y }, file),
	}
}

// SetOut are a run's marks in taping order: running distances from its first
// post, level and along the ground, the check from the far end, and where each
// post stands on the map for those who set out with an instrument.
func SetOut(p plan.Plan, r *plan.Run) Table {
	columns := append(postColumns(),
		col("level", Tape, func(s standing) any { return s.mark().Level }, main, why("station")),
		col("slope", Tape, func(s standing) any { return s.mark().Slope }),
		col("level_tape", Text, func(s standing) any { return s.plan.Units.Tape(s.mark().Level) }, file),
		col("slope_tape", Text, func(s standing) any { return s.plan.Units.Tape(s.mark().Slope) }, file),
		col("from_far_end", Tape, func(s standing) any { return s.mark().Back }),
		col("bay", Short, func(s standing) any { return some(s.mark().Bay, s.i > 0) }, why("spacing")),
		col("clear", Short, func(s standing) any { return some(s.mark().Clear, s.i > 0) }),
		col("offset", Short, func(s standing) any { return s.run.SetOut.Offset }, file),
		col("hole_width", Short, func(s standing) any { return some(s.HoleWidth, s.Stays == "") }, why("holeWidth")),
		col("hole_depth", Short, func(s standing) any { return some(s.HoleDepth, s.Stays == "") }, why("holeDepth")),
		col("pin", Count, func(s standing) any { return orNothing(s.mark().Pin) }, file),
		col("past_pin", Tape, func(s standing) any { return some(s.mark().Past, s.mark().Pin > 0) }, file),
		col("notes", Words, func(s standing) any { return s.notes(true) }),
	)
	if r.SetOut == nil {
		return filled("setout", p.Units, columns, nil, standing.row)
	}
	return filled("setout", p.Units, append(columns, mapColumns()...), posts(&p, r), standing.row)
}

func orNothing(n int) any {
	if n == 0 {
		return nil
	}
	return n
}

func (s standing) mark() plan.Mark {
	if s.run.SetOut == nil {
		return plan.Mark{}
	}
	return s.run.SetOut.Marks[s.i]
}

func (s standing) top() plan.TopPost {
	if s.run.TopLine == nil {
		return plan.TopPost{}
	}
	return s.run.TopLine.Posts[s.i]
}

// Posts are what is marked on every post and cut of it, and how its top is
// found by laser, level string, tight string and eye.
func Posts(p plan.Plan, r *plan.Run) Table {
	columns := append(postColumns(),
		col("level", Tape, func(s standing) any { return s.Station }, why("station"), file),
		col("slope", Tape, func(s standing) any { return s.Slope }, file),
		col("ground", Short, func(s standing) any { return s.Ground }, file),
		col("top", Short, func(s standing) any { return s.Top }, file),
		col("stock", Short, func(s standing) any { return maybe(s.Stock) }, why("stock")),
		col("top_above_ground", Short, func(s standing) any { return s.AboveGrade }, main, why("top")),
		col("top_tape", Text, func(s standing) any { return s.plan.Units.Tape(s.AboveGrade) }, file),
		col("face_before", Short, func(s standing) any { return s.AboveBefore }),
		col("face_after", Short, func(s standing) any { return s.AboveAfter }),
		col("in_ground", Short, func(s standing) any { return s.Foot }),
		col("post_needed", Short, func(s standing) any { return s.Needed }, file),
		col("cut_to", Short, func(s standing) any { return some(s.Needed, s.CutFirst) }, page),
		col("cut_off", Short, func(s standing) any {
			if s.CutFirst {
				return nil
			}
			return maybe(s.CutOff)
		}),
		col("mark_above_ground", Short, func(s standing) any { return s.Mark }, why("tops")),
		col("step", Rise, func(s standing) any { return s.Step }),
		col("overlap", Short, func(s standing) any { return some(s.Overlap, s.Step.Abs() >= s.plan.Units.SmallestMark/2) }),
		col("grade_post", Flag, func(s standing) any { return s.Grade }),
		col("rail_holes", Words, func(s standing) any { return railHoles(s) }),
		col("stays", Text, func(s standing) any {
			switch {
			case s.Stays != "":
				return words.Plain("report.stays")
			case s.Stock == nil:
				return words.Plain("report.none-long-enough")
			}
			return ""
		}),
		col("from_laser", Short, func(s standing) any { return s.top().Laser }, file),
		col("from_level_string", Short, func(s standing) any { return -s.top().Drop }, file),
		col("from_tight_string", Short, func(s standing) any { return s.top().String }, file),
		col("from_sight", Short, func(s standing) any { return s.top().Sight }, file),
	)
	return filled("posts", p.Units, append(columns, mapColumns()...), posts(&p, r), standing.row)
}

// railHoles are the middles of the holes for routed rails, on the one face and
// on the other where that is not the same.
func railHoles(s standing) reason.Text {
	var out reason.Text
	for i, h := range s.Holes {
		if i > 0 {
			out = out.Words(" · ")
		}
		switch {
		case h.Before == nil && h.After == nil:
		case h.Before == nil:
			out = out.Length(*h.After)
		case h.After == nil || (*h.Before-*h.After).Abs() < s.plan.Units.SmallestMark/2:
			out = out.Length(*h.Before)
		default:
			out = out.Length(*h.Before).Words("/").Length(*h.After)
		}
	}
	return out
}
