package exchange

import (
	"strconv"

	"mallow/core/plan"
)

// TopsCSV writes a run's tops: for every post what is marked on it, in metres
// or feet, and how its top is found by laser, level string, tight string and
// eye; and for the bay after it what a rail on the slope is cut to.
func TopsCSV(p plan.Plan, run int) (Written, error) {
	in, number := columns(p.Units)
	rows := [][]string{{"post", "kind", in("level"), in("ground"), in("top"), in("top_above_ground"), "top_tape", in("face_before"), in("face_after"), in("mark_above_ground"), in("step"),
		in("from_laser"), in("from_level_string"), in("from_tight_string"), in("from_sight"), in("post_needed"), "grade_post",
		"bay_look", in("bay_lean"), "bay_degrees", in("bay_rail"), in("gap_least"), in("gap_most")}}
	r := p.Runs[run]
	if r.TopLine == nil {
		return table("tops.csv", rows, false)
	}
	for i, post := range r.Posts {
		w := r.TopLine.Posts[i]
		row := []string{post.Label, string(post.Kind), number(post.Station), number(post.Ground), number(post.Top), number(post.AboveGrade), p.Units.Tape(post.AboveGrade),
			number(post.AboveBefore), number(post.AboveAfter), number(post.Mark), number(post.Step),
			number(w.Laser), number(-w.Drop), number(w.String), number(w.Sight), number(post.Needed), strconv.FormatBool(post.Grade)}
		if i < len(r.Bays) {
			b := r.Bays[i]
			row = append(row, string(b.Look), number(b.Lean), strconv.FormatFloat(b.Angle, 'f', 3, 64), number(b.Long), number(b.GapLeast.Gap), number(b.GapMost.Gap))
		} else {
			row = append(row, "", "", "", "", "", "")
		}
		rows = append(rows, row)
	}
	return table("tops.csv", rows, true)
}
