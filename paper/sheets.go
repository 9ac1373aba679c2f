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
)

// Kind is a kind of sheet.
type Kind struct {
	ID, Name string
	Stage    string // where it is offered
	Of       string // what it is of: job, run or gate
}

// Kinds are all of them, in the order in which the set is printed.
var Kinds = []Kind{
	{"cover", "Check-list", "walk", "job"},
	{"summary", "Job summary", "walk", "job"},
	{"load", "Load list", "pour", "job"},
	{"stakeout", "Stake-out", "space", "run"},
	{"strings", "String picture", "string", "run"},
	{"posts", "Posts and story stick", "grade", "run"},
	{"holes", "Hole cards", "dig", "run"},
	{"gate", "Gate card", "gates", "gate"},
}

// Set is the whole printed set of a job.
func Set(j job.Job, p plan.Plan) []Sheet {
	var out []Sheet
	for _, k := range Kinds {
		out = append(out, Of(j, p, k.ID, "")...)
	}
	return out
}

// Of is the sheets of one kind: of all runs, or of the one with that id. A run
// that has no length yet has none.
func Of(j job.Job, p plan.Plan, kind, run string) []Sheet {
	w := writer{j, p, p.Units}
	switch kind {
	case "cover":
		return []Sheet{w.cover()}
	case "summary":
		return []Sheet{w.summary()}
	case "load":
		return []Sheet{w.load()}
	}
	perRun := map[string]func(int) []Sheet{"stakeout": w.stakeOut, "strings": w.strings, "posts": w.posts, "holes": w.holes, "gate": w.gates}[kind]
	if perRun == nil {
		return nil
	}
	var out []Sheet
	for r := range p.Runs {
		if (run == "" || p.Runs[r].ID == run) && len(p.Runs[r].Posts) > 0 {
			out = append(out, perRun(r)...)
		}
	}
	return out
}

// writer writes the sheets of one plan.
type writer struct {
	job   job.Job
	plan  plan.Plan
	units length.Units
}

func (w writer) say(t reason.Text) string { return t.Print(w.units) }

func (w writer) name(run int) string {
	if n := w.plan.Runs[run].Name; n != "" {
		return n
	}
	return w.plan.Runs[run].ID
}

// stakeOut is where every post is marked: strips of the fence from the side,
// each with its posts' running distances.
func (w writer) stakeOut(i int) []Sheet {
	r := w.plan.Runs[i]
	s := Sheet{ID: "stakeout/" + r.ID, Title: "Stake-out", Run: w.name(i)}
	out, str := r.SetOut, r.String
	if out == nil || str == nil {
		return nil
	}
	lead := fmt.Sprintf("%s level, %s along the ground, %d posts.", w.units.Tape(r.Length), w.units.Tape(r.SlopeLength), len(r.Posts))
	if str.Sight {
		lead += " Line the posts up by eye, sighting at " + str.Target + "."
	} else {
		lead += fmt.Sprintf(" String %s from the near face of every post (%s to its middle), %s beyond either end.", w.units.Short(str.ToFace), w.units.Short(str.ToCentre), w.units.Short(str.Beyond))
	}
	s.Blocks = append(s.Blocks, Para{Words: lead, Bold: true})
	if len(out.Sticks) > 0 {
		words := "Spacer sticks, face to face:"
		for _, k := range out.Sticks[:min(4, len(out.Sticks))] {
			words += fmt.Sprintf(" %s (%d bays)", w.units.Short(k.Length), k.Bays)
		}
		s.Blocks = append(s.Blocks, Para{Words: words + "."})
	}
	marks := report.SetOut(w.plan, &r).Read()
	const strip = 18 // posts
	for from := 0; from < len(r.Posts)-1; from += strip {
		to := min(from+strip, len(r.Posts)-1)
		if len(r.Posts)-1-to < 4 {
			to = len(r.Posts) - 1
		}
		s.Blocks = append(s.Blocks, Figure{Plan: w.plan, View: scene.View{Of: scene.OfElevation, Run: r.ID, Stress: scene.OnPaper, From: &r.Posts[from].Station, To: &r.Posts[to].Station}, Height: 60, Stretch: 3})
		start := from
		if from > 0 {
			start++
		}
		t := marks
		t.Rows = marks.Rows[start : to+1]
		s.Blocks = append(s.Blocks, tabled(t, true))
		if to == len(r.Posts)-1 {
			break
		}
	}
	s.Blocks = append(s.Blocks, w.whatPosts(r))
	s.Blocks = append(s.Blocks, Para{Words: "Check: the last post's middle lies " + w.units.Tape(out.Check) + " from the first's, level. Always read from the start, never from post to post."})
	s.Blocks = append(s.Blocks, w.squares(i)...)
	var keep []string
	for _, c := range r.Reminders {
		keep = append(keep, w.say(c.Says))
	}
	if len(keep) > 0 {
		s.Blocks = append(s.Blocks, Heading("Keep in mind"), List{Items: keep})
	}
	return []Sheet{s}
}

// tabled is a table as it is printed.
func tabled(t report.Table, tick bool) Table {
	bold := slices.IndexFunc(t.Columns, func(c report.Column) bool { return c.Main })
	return Table{Head: t.Heads(), Rows: t.Lines(), Tick: tick, Bold: bold}
}

// squares is how the corners at a run's two ends are set by tape.
func (w writer) squares(i int) []Block {
	r := w.plan.Runs[i]
	var items []string
	for _, l := range w.plan.Lines {
		for _, c := range l.Corners {
			if c.Square == nil || c.Before != r.ID && c.After != r.ID {
				continue
			}
			q := c.Square
			items = append(items, fmt.Sprintf("Corner %s: legs %s and %s, diagonal %s; both whole runs %s.", c.Post, w.units.Tape(q.LegA), w.units.Tape(q.LegB), w.units.Tape(q.Diagonal), w.units.Tape(q.Whole)))
		}
	}
	if len(items) == 0 {
		return nil
	}
	return []Block{Heading("Corners by tape"), List{Items: items}}
}

// strings is the string picture: where the strings run, and what is held at
// every post.
func (w writer) strings(i int) []Sheet {
	r := w.plan.Runs[i]
	str := r.String
	if str == nil {
		return nil
	}
	s := Sheet{ID: "strings/" + r.ID, Title: "String picture", Run: w.name(i)}
	s.Blocks = append(s.Blocks, Figure{Plan: w.plan, View: scene.View{Of: scene.OfMap, Run: r.ID, Stress: scene.Strings}, Height: 100})
	lead := fmt.Sprintf("%s, pulled with %s, %s tie to tie. Hold %s to the near face of every post.", str.Kind, w.units.Force(str.Pull), w.units.Tape(str.Span), w.units.Short(str.ToFace))
	if str.Sight {
		lead = "Sight along both sides of the posts at " + str.Target + ": a string this long does not hold its line here."
	}
	s.Blocks = append(s.Blocks, Para{Words: lead, Bold: true},
		Para{Words: fmt.Sprintf("The height string sags %s without props; %d props keep it within %s. Wind moves the low string %s.", w.units.Short(str.Sag), str.PropsFor, w.units.Short(str.SagAllowed), w.units.Short(str.Drift))})
	t := Table{Head: []string{"Post", "Low string above ground", "Height string above ground", "Sag here", "Drift here", "Mark over the string"}, Bold: 2}
	for _, q := range str.Posts {
		t.Rows = append(t.Rows, []string{q.Post, w.units.Short(q.Low), w.units.Short(q.High), w.units.Short(q.Sag), w.units.Short(q.Drift), w.units.Short(q.Mark)})
	}
	s.Blocks = append(s.Blocks, t)
	order := "Order of setting: "
	for k, id := range str.Order {
		if k > 0 {
			order += ", "
		}
		order += id
	}
	s.Blocks = append(s.Blocks, Para{Words: order + "."})
	return []Sheet{w.warned(s, "Caution", "string")}
}

// whatPosts says what the run's posts are: section, material and length, and
// which of them are terminals.
func (w writer) whatPosts(r plan.Run) Para {
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
		if len(ids) <= mostNamed {
			said += " (" + strings.Join(ids, ", ") + ")"
		}
		parts = append(parts, said)
	}
	return Para{Words: "Posts to set: " + strings.Join(parts, "; ") + "."}
}

// mostNamed is how many posts of one length are named one by one.
const mostNamed = 6

// posts are cut lengths, marks and the story stick.
func (w writer) posts(i int) []Sheet {
	r := w.plan.Runs[i]
	top := r.TopLine
	if top == nil {
		return nil
	}
	s := Sheet{ID: "posts/" + r.ID, Title: "Posts and story stick", Run: w.name(i)}
	s.Blocks = append(s.Blocks, w.whatPosts(r))
	s.Blocks = append(s.Blocks, tabled(report.Posts(w.plan, &r).Read(), true), Heading("Bays"), tabled(report.Bays(w.plan, &r).Read().Without("on_ground", "gap_first_face", "gap_second_face"), true), Heading("Set the tops"))
	var steps []string
	for _, step := range top.Steps {
		steps = append(steps, w.say(step))
	}
	s.Blocks = append(s.Blocks, List{Items: steps, Numbered: true}, Heading("Story stick, from the reference mark"), Figure{Plan: w.plan, View: scene.View{Of: scene.OfStick, Run: r.ID}, Height: 88})
	return []Sheet{s}
}

// holes are the cards of every kind of hole, many to a page.
func (w writer) holes(i int) []Sheet {
	r := w.plan.Runs[i]
	s := Sheet{ID: "holes/" + r.ID, Title: "Hole cards", Run: w.name(i)}
	g := Grid{Plan: w.plan, Across: 2, Height: 56}
	var counts []int
	for k, c := range r.Cards {
		ids := ""
		count := 0
		for _, p := range r.Posts {
			if p.Card == k && p.Shared == "" {
				if count > 0 {
					ids += ", "
				}
				ids += p.Label
				count++
			}
		}
		if count == 0 {
			continue // dug with the run before
		}
		title := w.units.Short(c.Width) + " × " + w.units.Short(c.Depth)
		if c.Square {
			title += " square"
		}
		if c.Method == job.Drive {
			title = "Driven " + w.units.Short(c.Foot)
		}
		lines := []string{ids}
		if c.Concrete > 0 {
			lines = append(lines, fmt.Sprintf("%.2f × %s, concrete %s", c.Bags, c.Bag, w.units.Small(c.Concrete)))
		}
		for n, step := range c.Steps {
			lines = append(lines, fmt.Sprintf("%d. %s", n+1, w.say(step)))
		}
		g.Cells = append(g.Cells, Cell{Title: fmt.Sprintf("%s (%d)", title, count), View: scene.View{Of: scene.OfHole, Run: r.ID, Card: k}, Lines: lines})
		counts = append(counts, count)
		// Kinds of post whose holes are dug and filled alike share a card.
		for n := range len(g.Cells) - 1 {
			if before := &g.Cells[n]; slices.Equal(before.Lines[1:], lines[1:]) && strings.HasPrefix(before.Title, title+" (") {
				counts[n] += count
				before.Lines[0] += ", " + ids
				before.Title = fmt.Sprintf("%s (%d)", title, counts[n])
				g.Cells, counts = g.Cells[:len(g.Cells)-1], counts[:len(counts)-1]
				break
			}
		}
	}
	s.Blocks = append(s.Blocks, g)
	return []Sheet{w.warned(s, "Cautions", "dig", "pour")}
}
