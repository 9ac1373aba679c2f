package report

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/words"
)

// Stake is all that is marked on the ground and on the posts of a run, one row
// for each post: what a crew takes to the line.
func Stake(p plan.Plan, r *plan.Run) Table {
	mark := p.Units.SmallestMark / 2
	sloped := false
	if r.SetOut != nil {
		for _, m := range r.SetOut.Marks {
			sloped = sloped || (m.Slope-m.Level).Abs() >= mark
		}
	}
	strung := r.String != nil && !r.String.Sight && len(r.String.Posts) == len(r.Posts)
	columns := []column[standing]{
		col("post", Text, func(s standing) any {
			if role := s.role(); role != string(job.LinePost) {
				return s.Label + " " + role
			}
			return s.Label
		}),
		col("level", Tape, func(s standing) any { return s.mark().Level }, main),
		col("slope", Tape, func(s standing) any { return some(s.mark().Slope, sloped) }),
		col("clear", Short, func(s standing) any { return some(s.mark().Clear, s.i > 0) }),
		col("hole", Words, func(s standing) any { return s.hole() }),
		col("top_above_ground", Short, func(s standing) any { return s.AboveGrade }),
		col("cut_to", Short, func(s standing) any { return some(s.Needed, s.CutFirst) }),
		col("cut_off", Short, func(s standing) any {
			if s.CutFirst || s.CutOff == nil {
				return nil
			}
			return some(*s.CutOff, *s.CutOff >= mark)
		}),
		col("mark_above_ground", Short, func(s standing) any { return s.Mark }),
		col("off_string", Words, func(s standing) any {
			if !strung {
				return nil
			}
			return arrow(s.run.String.Posts[s.i].Mark, mark)
		}),
		col("step", Words, func(s standing) any { return arrow(s.Step, mark) }),
		col("notes", Words, func(s standing) any { return s.notes(false) }),
	}
	if r.SetOut == nil {
		return filled("stake", p.Units, columns, nil, standing.row)
	}
	return filled("stake", p.Units, columns, posts(&p, r), standing.row)
}

// arrow is a rise as it stands in a narrow column; nothing where no tape tells
// it from level.
func arrow(rise, mark length.Length) reason.Text {
	switch {
	case rise >= mark:
		return words.Say("report.arrow-up", words.V{"rise": rise})
	case rise <= -mark:
		return words.Say("report.arrow-down", words.V{"rise": -rise})
	}
	return nil
}

// hole is how wide and deep is dug for the post; nothing where none is.
func (s standing) hole() reason.Text {
	if s.Stays != "" || s.Card < 0 {
		return nil
	}
	wide, deep := s.HoleWidth, s.HoleDepth
	if s.Driven && s.HoleDepth == 0 {
		return words.Say("report.driven-deep", words.V{"deep": s.Foot})
	}
	return words.Say("report.wide-by-deep", words.V{"wide": wide, "deep": deep})
}

// RailHoles are where routed rails go into the posts.
func RailHoles(p plan.Plan, r *plan.Run) Table {
	return Posts(p, r).Only("post", "rail_holes")
}

// Rails is what is cut and closed in every bay, beside what the posts say.
func Rails(p plan.Plan, r *plan.Run) Table {
	t := Bays(p, r)
	for i := range t.Rows {
		b := &r.Bays[i]
		name := b.From + "–" + b.To
		if b.Gate != "" {
			name = words.Plain("report.gate-between", words.V{"bay": name})
			t.Rows[i].Cells[t.Column("rail")] = nil
		}
		t.Rows[i].Cells[t.Column("bay_name")] = name
		t.Rows[i].Cells[t.Column("lean")] = arrow(b.Lean, p.Units.SmallestMark/2)
	}
	t.Columns[t.Column("lean")].Kind = Words
	alike := true // level rails are as long as the bay is between its posts
	for i := range r.Bays {
		b := &r.Bays[i]
		alike = alike && (b.Gate != "" || (b.Long-b.Clear).Abs() < p.Units.SmallestMark/2)
	}
	if alike {
		return t.Only("bay_name", "lean", "piece_cut", "gap_least", "gap_most", "fill", "cut", "boards")
	}
	return t.Only("bay_name", "rail", "lean", "piece_cut", "gap_least", "gap_most", "fill", "cut", "boards")
}

// Ranges names posts of a run that stand side by side by the first and last of
// them: P1–P6, P9.
func Ranges(r *plan.Run, labels []string) []string {
	place := make(map[string]int, len(r.Posts))
	for i := range r.Posts {
		place[r.Posts[i].Label] = i
	}
	var out []string
	for i := 0; i < len(labels); {
		j := i
		for j+1 < len(labels) && place[labels[j+1]] == place[labels[j]]+1 {
			j++
		}
		switch j - i {
		case 0:
			out = append(out, labels[i])
		case 1:
			out = append(out, labels[i], labels[j])
		default:
			out = append(out, labels[i]+"–"+labels[j])
		}
		i = j + 1
	}
	return out
}
