package paper

import (
	"fmt"
	"slices"
	"strings"

	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/report"
	"mallow/core/scene"
	"mallow/core/words"
)

// writer writes the sheets of one plan.
type writer struct {
	job   job.Job
	plan  plan.Plan
	units length.Units
	look  func() // asks whether to go on
}

func (w writer) say(t reason.Text) string {
	w.look()
	return t.Print(w.units)
}

// words says a message of the sheets.
func (w writer) words(id string, v words.V) string { return w.say(words.Say(id, v)) }

func (w writer) name(run int) string {
	if n := w.plan.Runs[run].Name; n != "" {
		return n
	}
	return w.plan.Runs[run].ID
}

// each writes a sheet of every run that has posts, or of the one with that id.
func (w writer) each(run string, of func(int) []Sheet) []Sheet {
	var out []Sheet
	for r := range w.plan.Runs {
		if (run == "" || w.plan.Runs[r].ID == run) && len(w.plan.Runs[r].Posts) > 0 {
			out = append(out, of(r)...)
		}
	}
	return out
}

func (w writer) at(run int) Place {
	return Place{Run: w.plan.Runs[run].ID, Number: runNumber(w.plan, run)}
}

// stakeOut is what a crew takes to the line: the fence from the side, and
// everything that is marked on the ground and on the posts.
func (w writer) stakeOut(i int) []Sheet {
	r := w.plan.Runs[i]
	out, str := r.SetOut, r.String
	if out == nil || str == nil {
		return nil
	}
	s := Sheet{Of: w.name(i), At: w.at(i)}
	lead := w.words("paper.run-is", words.V{"level": w.units.Tape(r.Length), "ground": w.units.Tape(r.SlopeLength), "posts": len(r.Posts)})
	if str.Sight {
		lead += " " + w.words("paper.by-eye", words.V{"target": str.Target})
	} else {
		lead += " " + w.words("paper.string-from-face", words.V{"face": str.ToFace, "centre": str.ToCentre})
	}
	if len(out.Sticks) > 0 {
		var sticks []string
		for _, k := range out.Sticks[:min(4, len(out.Sticks))] {
			sticks = append(sticks, w.words("paper.stick", words.V{"length": k.Length, "bays": k.Bays}))
		}
		lead += " " + w.words("paper.sticks", words.V{"sticks": strings.Join(sticks, ", ")})
	}
	for n, pin := range out.Pins {
		if at := slices.IndexFunc(out.Marks, func(m plan.Mark) bool { return m.Pin == n+1 }); at >= 0 {
			lead += " " + w.words("paper.pins", words.V{"pin": n + 1, "at": pin.At, "post": r.Posts[at].Label})
		}
	}
	s.Blocks = append(s.Blocks, Para{Words: lead})
	marks := tabled(report.Stake(w.plan, &r).Read(), true)
	marks.Size = 9
	const strip = 24 // posts
	for from := 0; from < len(r.Posts)-1; from += strip {
		to := min(from+strip, len(r.Posts)-1)
		if len(r.Posts)-1-to < 6 {
			to = len(r.Posts) - 1
		}
		s.Blocks = append(s.Blocks, Figure{Plan: w.plan, View: scene.View{Of: scene.OfElevation, Run: r.ID, Stress: scene.OnPaper, From: &r.Posts[from].Station, To: &r.Posts[to].Station}, Height: 38, Stretch: 3})
		start := from
		if from > 0 {
			start++
		}
		t := marks
		t.Rows = marks.Rows[start : to+1]
		s.Blocks = append(s.Blocks, t)
		if to == len(r.Posts)-1 {
			break
		}
	}
	s.Blocks = append(s.Blocks, Para{Words: w.words("paper.check-far-end", words.V{"far": w.units.Tape(out.Check)}) + " " + w.whatPosts(r)})
	if rails := report.Rails(w.plan, &r).Read(); len(rails.Columns) > 1 {
		t := tabled(rails, false)
		t.Bold = -1
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.bays")), Beside{t})
	}
	if holes := report.RailHoles(w.plan, &r).Read(); len(holes.Columns) > 1 {
		s.Blocks = append(s.Blocks, Heading(words.In(w.units.System, "paper.rail-holes")), Beside{tabled(holes, false)})
	}
	return []Sheet{s}
}

// stakeOuts are the runs' own, and under the last what to keep in mind on all
// of them.
func (w writer) stakeOuts(run string) []Sheet {
	out := w.each(run, w.stakeOut)
	if len(out) == 0 {
		return nil
	}
	var keep []string
	for _, r := range w.plan.Runs {
		for _, c := range r.Reminders {
			if says := w.say(c.Says); (run == "" || r.ID == run) && !slices.Contains(keep, says) {
				keep = append(keep, says)
			}
		}
	}
	if len(keep) > 0 {
		last := &out[len(out)-1]
		last.Blocks = append(last.Blocks, Heading(words.Plain("paper.keep-in-mind")), Halved{List{Items: keep}})
	}
	return out
}

// tabled is a table as it is printed.
func tabled(t report.Table, tick bool) Table {
	bold := slices.IndexFunc(t.Columns, func(c report.Column) bool { return c.Main })
	return Table{Head: t.Heads(), Rows: t.Lines(), Tick: tick, Bold: bold}
}

// squares is how the corners of a line are checked by tape.
func (w writer) squares(line int) []Block {
	var items []string
	for _, c := range w.plan.Lines[line].Corners {
		if q := c.Square; q != nil {
			items = append(items, w.words("paper.corner-by-tape", words.V{"post": c.Post, "a": w.units.Tape(q.LegA), "b": w.units.Tape(q.LegB), "diagonal": w.units.Tape(q.Diagonal), "whole": w.units.Tape(q.Whole)}))
		}
	}
	if len(items) == 0 {
		return nil
	}
	return []Block{Heading(words.Plain("paper.corners-by-tape")), Halved{List{Items: items}}}
}

// strings is where the strings of every line run and what is held to them, how
// the tops are set, and the story sticks.
func (w writer) strings(run string) []Sheet {
	var out []Sheet
	for l := range w.plan.Lines {
		s := Sheet{}
		var beside []Block
		var tops Columns
		sticks := Grid{Plan: w.plan, Across: 3, Height: 32}
		for i := range w.plan.Runs {
			r := &w.plan.Runs[i]
			if r.String == nil || len(r.Posts) == 0 || run != "" && r.ID != run || !slices.ContainsFunc(w.job.Lines[l].Runs, func(of job.Run) bool { return of.ID == r.ID }) {
				continue
			}
			if len(beside) == 0 {
				s.At = w.at(i)
			}
			beside = append(beside, w.stringOf(i)...)
			if top := r.TopLine; top != nil {
				var steps []string
				for _, step := range top.Steps {
					steps = append(steps, w.say(step))
				}
				tops = append(tops, []Block{Para{Words: w.name(i), Bold: true}, List{Items: steps, Numbered: true}})
				sticks.Cells = append(sticks.Cells, Cell{Title: w.name(i), View: scene.View{Of: scene.OfStick, Run: r.ID}})
			}
		}
		if len(beside) > 0 {
			s.Blocks = append([]Block{Columns{{Figure{Plan: w.plan, View: scene.View{Of: scene.OfMap, Run: s.At.Run, Stress: scene.Strings}, Height: 68}}, beside}}, w.squares(l)...)
		}
		set, stick := Heading(words.Plain("paper.set-the-tops")), Heading(words.Plain("paper.story-sticks"))
		switch {
		case len(tops) == 1:
			sticks.Across = 1
			s.Blocks = append(s.Blocks, Columns{{set, tops[0][1]}, {stick, sticks}})
		case len(tops) > 1:
			s.Blocks = append(append(append(s.Blocks, set), across(tops, 3)...), stick, sticks)
		}
		if len(w.plan.Lines) > 1 {
			s.Of = w.job.Lines[l].Name
		}
		out = append(out, w.warned(s, "string"))
	}
	return out
}

// across sets columns in rows of so many; one alone has the whole width.
func across(c Columns, most int) []Block {
	var out []Block
	for len(c) > 0 {
		n := min(most, len(c))
		if n == 1 {
			out = append(out, c[0]...)
		} else {
			out = append(out, c[:n])
		}
		c = c[n:]
	}
	return out
}

// stringOf is how one run's strings are pulled, held and propped.
func (w writer) stringOf(i int) []Block {
	str := w.plan.Runs[i].String
	if str.Sight {
		return []Block{Heading(w.name(i)), Para{Words: w.words("paper.sight-along", words.V{"target": str.Target})}, Para{Words: w.words("paper.order-of-setting", words.V{"order": strings.Join(report.Ranges(&w.plan.Runs[i], str.Order), ", ")})}}
	}
	pulled := w.words("paper.string-pulled", words.V{"kind": str.Kind, "pull": w.units.Force(str.Pull), "span": w.units.Tape(str.Span), "face": str.ToFace})
	sags := w.words("paper.string-sags", words.V{"mark": str.Mark, "sag": str.Sag, "props": str.PropsFor, "within": str.SagAllowed, "drift": str.Drift})
	return []Block{Heading(w.name(i)), Para{Words: pulled + " " + sags}, Para{Words: w.words("paper.order-of-setting", words.V{"order": strings.Join(report.Ranges(&w.plan.Runs[i], str.Order), ", ")})}}
}

// whatPosts says what the run's posts are: section, material and length, and
// which of them are terminals.
func (w writer) whatPosts(r plan.Run) string {
	var parts []string
	for _, row := range bill.Rows(r.Items) {
		if row.Kind != bill.Post {
			continue
		}
		said := fmt.Sprintf("%s %s, %s", w.say(row.Many), strings.ToLower(row.Buy.What), w.say(row.Of))
		var ids []string
		for _, lot := range row.Goes {
			ids = append(ids, lot.At...)
		}
		if len(ids) > 0 {
			said += " (" + strings.Join(report.Ranges(&r, ids), ", ") + ")"
		}
		parts = append(parts, said)
	}
	return w.words("paper.posts-to-set", words.V{"posts": strings.Join(parts, "; ")})
}
