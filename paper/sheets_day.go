package paper

import (
	"fmt"
	"strconv"

	"mallow/core/words"
)

// daySheets are a page for each day on site: tasks with their posts, what is on the
// truck, who comes, the weather, what is checked before leaving, cautions.
func (w writer) daySheets(string) []Sheet {
	s := w.plan.Schedule
	if s == nil {
		return nil
	}
	var out []Sheet
	for i := range s.Days {
		d := &s.Days[i]
		p := Sheet{Alone: true, Of: day(d.Date)}
		sum := w.words("paper.day-sum", words.V{"from": d.From, "to": d.To, "hands": s.People, "hours": fmt.Sprintf("%.1f", d.Hours), "n": i + 1, "of": len(s.Days)})
		if d.Low != nil && d.High != nil {
			sum += " " + w.words("paper.day-weather", words.V{"low": w.units.Temperature(*d.Low), "high": w.units.Temperature(*d.High)})
		}
		p.Blocks = append(p.Blocks, Para{Words: sum, Bold: true})
		t := Table{Head: []string{words.Plain("paper.day-from"), words.Plain("paper.day-to"), words.Plain("paper.day-task"), words.Plain("paper.day-posts")}, Tick: true, Bold: 2}
		for _, part := range d.Parts {
			posts := ""
			switch n := len(part.Posts); {
			case n == 1:
				posts = part.Posts[0]
			case n > 1:
				posts = w.words("paper.day-posts-from", words.V{"first": part.Posts[0], "last": part.Posts[n-1], "count": n})
			}
			name := part.Name
			if part.More {
				name = w.words("paper.day-goes-on", words.V{"task": part.Name})
			}
			t.Rows = append(t.Rows, []string{part.From, part.To, name, posts})
		}
		p.Blocks = append(p.Blocks, t)
		if len(d.Who) > 0 {
			p.Blocks = append(p.Blocks, Heading(words.Plain("paper.day-comes")), List{Items: d.Who, Tick: true})
		}
		if len(d.Load) > 0 {
			load := Table{Head: []string{words.Plain("report.head-what"), words.Plain("report.head-how_many"), words.Plain("report.head-of_what")}, Tick: true, Bold: 1}
			for _, l := range d.Load {
				load.Rows = append(load.Rows, []string{l.What, w.say(l.Many), w.say(l.Of)})
			}
			p.Blocks = append(p.Blocks, Heading(words.Plain("paper.day-load")), load)
		}
		if len(d.Checks) > 0 {
			p.Blocks = append(p.Blocks, Heading(words.Plain("paper.day-checks")), List{Items: d.Checks, Tick: true})
		}
		var cautions []string
		for _, c := range d.Cautions {
			cautions = append(cautions, w.say(c))
		}
		if len(cautions) > 0 {
			p.Blocks = append(p.Blocks, Heading(words.Plain("paper.cautions")), Halved{List{Items: cautions}})
		}
		p.At.Number = i + 1
		out = append(out, p)
	}
	for i := range out {
		out[i].Of = w.words("paper.day-of", words.V{"n": strconv.Itoa(i + 1), "date": out[i].Of})
	}
	return out
}
