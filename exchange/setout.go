package exchange

import (
	"strconv"

	"mallow/core/length"
	"mallow/core/plan"
)

// SetOutCSV writes a run's marks in taping order: running distances from its
// first post, level and along the ground, in metres or feet and as the tape
// prints them; the check from the far end; and where each post stands on the
// map, for those who set out with an instrument.
func SetOutCSV(p plan.Plan, run int) (Written, error) {
	in, number := columns(p.Units)
	rows := [][]string{{"post", "kind", in("level"), in("slope"), "level_tape", "slope_tape", in("from_far_end"), in("bay"), in("clear"), in("offset"), in("x"), in("y"), in("hole_width"), in("hole_depth")}}
	r := p.Runs[run]
	if r.SetOut == nil {
		return table("set-out.csv", rows, false)
	}
	for i, m := range r.SetOut.Marks {
		post := r.Posts[i]
		at := r.From.Towards(r.To, float64(m.Level/r.Length))
		rows = append(rows, []string{m.Post, string(post.Kind), number(m.Level), number(m.Slope), p.Units.Tape(m.Level), p.Units.Tape(m.Slope),
			number(m.Back), number(m.Bay), number(m.Clear), number(r.SetOut.Offset), number(at.X), number(at.Y), number(post.HoleWidth), number(post.HoleDepth)})
	}
	return table("set-out.csv", rows, true)
}

// columns name and print lengths in the job's unit, metres or feet.
func columns(u length.Units) (in func(name string) string, number func(length.Length) string) {
	unit, per := Metres, length.Metre
	if u.System == length.Imperial {
		unit, per = Feet, length.Foot
	}
	in = func(name string) string { return name + "_" + string(unit) }
	number = func(l length.Length) string { return strconv.FormatFloat(float64(l/per), 'f', 7, 64) }
	return in, number
}
