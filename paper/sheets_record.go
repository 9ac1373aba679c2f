package paper

import (
	"slices"
	"strconv"
	"strings"

	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/scene"
	"mallow/core/stage/record"
	"mallow/core/words"
)

// run is a run of the plan by its id; nil where there is none any more.
func (w writer) runOf(id string) (*plan.Run, string) {
	for i := range w.plan.Runs {
		if w.plan.Runs[i].ID == id {
			return &w.plan.Runs[i], w.name(i)
		}
	}
	return nil, id
}

// recordSheets are a page for each day on which something was written down: done, found,
// used, weather, hours, photographs, and lines to sign on.
func (w writer) recordSheets(string) []Sheet {
	if w.plan.Log == nil {
		return nil
	}
	var out []Sheet
	all := w.plan.Log.Days
	for i := range all {
		d := &all[i]
		s := Sheet{Alone: true, Of: w.words("paper.day-of", words.V{"n": strconv.Itoa(i + 1), "date": day(d.Date)})}
		s.At.Number = i + 1
		sum := w.words("paper.record-sum", words.V{"from": d.From, "to": d.To, "who": strings.Join(d.Who, ", "), "named": len(d.Who)})
		if d.Low != nil {
			sum += " " + w.words("paper.day-weather", words.V{"low": w.units.Temperature(*d.Low), "high": w.units.Temperature(*d.High)})
			if d.Rain != nil && *d.Rain > 0 {
				sum += " " + w.words("paper.record-rain", words.V{"rain": length.Length(*d.Rain)})
			}
		}
		s.Blocks = append(s.Blocks, Para{Words: sum, Bold: true}, w.doneOn(d))
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.record-found")))
		within := 0
		for _, f := range d.Found {
			if f.State == record.LetGo {
				within++
			}
		}
		if within == len(d.Found) {
			s.Blocks = append(s.Blocks, Para{Words: words.Plain("paper.record-nothing-found")})
		} else {
			t := Table{Head: []string{words.Plain("report.head-run"), words.Plain("paper.record-what"), words.Plain("paper.record-decided")}, Bold: 1}
			for _, f := range d.Found {
				if f.State == record.LetGo {
					continue
				}
				_, name := w.runOf(f.Run)
				t.Rows = append(t.Rows, []string{name, w.say(f.Says), stood(f)})
			}
			s.Blocks = append(s.Blocks, t)
		}
		if within > 0 {
			s.Blocks = append(s.Blocks, Para{Words: w.words("paper.record-let-go-more", words.V{"count": within})})
		}
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.record-used")), Para{Words: w.words("paper.record-bags", words.V{"bags": d.Bags, "holes": d.Holes, "gravel": d.Gravel})})
		if notes := w.notes(d); len(notes) > 0 {
			s.Blocks = append(s.Blocks, Heading(words.Plain("paper.record-notes")), List{Items: notes})
		}
		if d.Struck > 0 {
			s.Blocks = append(s.Blocks, Para{Words: w.words("paper.record-struck", words.V{"count": d.Struck})})
		}
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.record-signed")), Table{Head: []string{words.Plain("paper.record-crew"), words.Plain("paper.record-hours"), words.Plain("paper.record-customer"), words.Plain("paper.record-date")}, Rows: [][]string{{"", "", "", ""}, {"", "", "", ""}, {"", "", "", ""}}, Bold: -1, Size: 13})
		out = append(out, s)
	}
	return out
}

// stood is how something that was found stands.
func stood(f record.DailyFound) string {
	switch f.State {
	case record.Decided:
		return record.WayName(f.Way)
	case record.Open:
		return words.Plain("paper.record-open")
	case record.Spaced:
		return words.Plain("paper.record-spaced")
	case record.LetGo:
	}
	return ""
}

// doneOn is what was done on a day.
func (w writer) doneOn(d *record.Daily) Block {
	if len(d.Done) == 0 {
		return Para{Words: words.Plain("paper.record-nothing-done")}
	}
	t := Table{Head: []string{words.Plain("paper.record-done"), words.Plain("report.head-run"), words.Plain("paper.day-posts"), words.Plain("report.head-how_many")}, Bold: 0}
	for _, o := range d.Done {
		r, name := w.runOf(o.Run)
		posts, many := "", ""
		switch {
		case o.Gate != "":
			posts = o.Gate
			for i := range w.plan.Runs {
				for _, g := range w.plan.Runs[i].Gates {
					if w.plan.Runs[i].ID == o.Run && g.ID == o.Gate {
						posts = gateName(g)
					}
				}
			}
		case r != nil && len(o.Posts) > 0:
			posts, many = strings.Join(report.Ranges(r, o.Posts), ", "), strconv.Itoa(len(o.Posts))
		}
		t.Rows = append(t.Rows, []string{words.Plain("choice.seen-" + words.Key(o.What)), name, posts, many})
	}
	return t
}

// notes are the free words of a day; a photograph is told by when it was taken, and lies
// with the job's files.
func (w writer) notes(d *record.Daily) []string {
	var out []string
	photos := 0
	for _, n := range d.Notes {
		says := n.Says
		if n.Photo != "" {
			photos++
			says = strings.TrimSpace(says + " " + w.words("paper.record-photo", words.V{"photo": n.Photo}))
		}
		if n.On != "" {
			_, name := w.runOf(n.Run)
			says = name + " " + n.On + ": " + says
		}
		out = append(out, says)
	}
	if photos > 0 {
		out = append(out, w.words("paper.record-photos", words.V{"count": photos}))
	}
	return out
}

// inspection is what is looked down before leaving: each run as it was measured, with the
// worst named, what is still to be done, and when to come back.
func (w writer) inspection(run string) []Sheet {
	g := w.plan.Log
	if g == nil || len(g.Days) == 0 && len(g.Worst) == 0 {
		return nil
	}
	s := Sheet{Alone: true, Blocks: []Block{Para{Words: words.Plain("paper.inspect-look")}}}
	for i := range w.plan.Runs {
		r := &w.plan.Runs[i]
		measured := slices.ContainsFunc(g.Posts, func(o record.RecordPost) bool {
			return o.Run == r.ID && (o.Off != nil || o.Plumb != nil || o.Across != nil || o.Top != nil)
		})
		if !measured || run != "" && r.ID != run {
			continue
		}
		s.Blocks = append(s.Blocks, Para{Words: w.name(i), Bold: true}, Figure{Plan: w.plan, View: scene.View{Of: scene.OfStrips, Run: r.ID, Stress: scene.OnPaper}, Height: 44})
	}
	worst := []string{}
	for _, v := range g.Worst {
		_, name := w.runOf(v.Run)
		worst = append(worst, name+": "+w.say(v.Says)+" "+w.words("paper.inspect-may", words.V{"allowed": v.Allowed}))
	}
	if len(worst) > 0 {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.inspect-worst")), List{Items: worst})
	}
	var punch []string
	for _, p := range g.Punch {
		_, name := w.runOf(p.Run)
		punch = append(punch, name+": "+w.say(p.Says))
	}
	if len(punch) == 0 {
		punch = []string{words.Plain("paper.inspect-nothing")}
	}
	s.Blocks = append(s.Blocks, Heading(words.Plain("paper.inspect-punch")), List{Items: punch, Tick: true})
	var later []string
	for _, l := range g.Later {
		later = append(later, day(l.Date)+": "+w.say(l.Says))
	}
	if len(later) > 0 {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.inspect-later")), List{Items: later, Tick: true})
	}
	return []Sheet{s}
}

// asBuilt is where posts really stand, for the next crew or the surveyor.
func (w writer) asBuilt(string) []Sheet {
	t := report.AsBuilt(w.plan, w.plan.Log).Read()
	if len(t.Rows) == 0 {
		return nil
	}
	rows := tabled(t, false)
	rows.Size = 8.5
	return []Sheet{{Alone: true, Blocks: []Block{
		Para{Words: words.Plain("paper.asbuilt-says")},
		Figure{Plan: w.plan, View: scene.View{Of: scene.OfMap, Run: w.plan.Runs[0].ID, Stress: scene.AsBuilt}, Height: 80}, rows,
	}}}
}
