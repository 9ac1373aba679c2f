package paper

import (
	"fmt"
	"slices"
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/report"
	"mallow/core/stage/pourday"
	"mallow/core/words"
)

// orderSheet is what the plant or the merchant is told: loads with their times, slump
// and stone, or bags; and what stands ready when it comes. A pour without a day has
// none.
func (w writer) orderSheet(string) []Sheet {
	d := w.plan.Pour
	if d == nil || d.Date == "" || len(d.Posts) == 0 {
		return nil
	}
	s := Sheet{Alone: true, Outward: true, Of: day(d.Date)}
	if at := w.job.Site.Address; at != "" {
		s.Blocks = append(s.Blocks, Para{Words: w.words("paper.deliver-to", words.V{"address": at}), Bold: true})
	}
	o := d.Order
	if len(d.Loads) > 0 {
		s.Blocks = append(s.Blocks, Para{Words: w.words("paper.order-truck", words.V{"volume": o.Volume, "least": o.Least, "most": o.Most, "stone": o.Stone}), Bold: true})
		t := Table{Head: []string{words.Plain("report.head-load"), words.Plain("report.head-day"), words.Plain("paper.comes-at"), words.Plain("paper.concrete"), words.Plain("paper.posts")}, Tick: true, Bold: 3}
		for i, l := range d.Loads {
			t.Rows = append(t.Rows, []string{strconv.Itoa(i + 1), day(l.Comes[:10]), l.Comes[11:16], w.units.Bulk(l.Order), l.Says(w.units)})
		}
		s.Blocks = append(s.Blocks, t, Para{Words: words.Plain("paper.no-water")})
	}
	if len(o.Bags) > 0 {
		t := Table{Head: []string{words.Plain("paper.bags"), words.Plain("report.head-how_many"), words.Plain("paper.weight"), words.Plain("paper.pallets"), words.Plain("paper.water-to-a-bag")}, Tick: true, Bold: 1}
		for _, b := range o.Bags {
			t.Rows = append(t.Rows, []string{b.Bag, strconv.Itoa(b.Count), w.units.Weight(b.Mass), strconv.Itoa(b.Pallets), w.units.Water(b.Water)})
		}
		s.Blocks = append(s.Blocks, t)
	}
	if o.Cement > 0 {
		s.Blocks = append(s.Blocks, Para{Words: w.words("paper.order-site", words.V{"cement": o.Cement, "sand": o.Sand, "stone": o.Gravel}), Bold: true})
	}
	ready := []string{"access", "call", "drop"}
	if len(d.Loads) > 0 {
		ready = []string{"access", "call", "barrows", "boards", "water", "washout"}
	}
	if len(d.Curb) > 0 {
		ready = append(ready, "forms", "finish")
	}
	s.Blocks = append(s.Blocks, Heading(words.Plain("paper.have-ready")), Halved{List{Items: w.spelled("paper.ready-", ready), Tick: true}})
	return []Sheet{s}
}

// pourCard is what the crew goes by on the day: posts in the order in which they are
// set, each with its time, and when they may be loaded.
func (w writer) pourCard(string) []Sheet {
	d := w.plan.Pour
	if d == nil || d.Date == "" || len(d.Posts) == 0 {
		return nil
	}
	s := Sheet{Alone: true, Of: day(d.Date)}
	s.Blocks = append(s.Blocks, Para{Words: w.words("paper.pour-sum", words.V{"posts": len(d.Posts), "hands": d.People, "rate": fmt.Sprintf("%.1f", d.PerHour)}), Bold: true})
	var say []string
	for _, f := range d.Finds {
		say = append(say, w.say(f.Says))
	}
	for _, a := range d.Asks {
		say = append(say, w.words("paper.to-enter", words.V{"what": w.say(a.Says)}))
	}
	if len(say) > 0 {
		s.Blocks = append(s.Blocks, List{Items: say})
	}
	s.Blocks = append(s.Blocks, Beside{w.pourPosts(d)})
	t := Table{Head: []string{words.Plain("paper.may-be-loaded"), words.Plain("paper.from"), words.Plain("paper.usual-wait")}, Bold: 1}
	for _, o := range d.Waits {
		at := words.Plain("paper.not-known")
		if o.At != "" {
			at = day(o.At[:10]) + ", " + o.At[11:16]
		}
		t.Rows = append(t.Rows, []string{o.Name, at, w.words("paper.hours-from-to", words.V{"from": o.Usual[0], "to": o.Usual[1]})})
	}
	s.Blocks = append(s.Blocks, Heading(words.Plain("paper.when-loaded")), t)
	if len(d.Curb) > 0 {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.finishing")), List{Items: w.spelled("paper.curb-", []string{"after", "screed", "wait", "edge", "joint", "broom"}), Numbered: true})
	}
	if slices.ContainsFunc(d.Posts, func(p pourday.DayPost) bool { return p.Method == job.Stabbed }) {
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.at-each-hole")), List{Items: w.spelled("paper.stab-", []string{"wet", "fill", "push", "sight", "back", "top", "wash"}), Numbered: true})
	}
	return []Sheet{w.warned(s, "pour")}
}

// spelled are sentences that begin with the same name.
func (w writer) spelled(prefix string, ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		out[i] = w.words(prefix+id, nil)
	}
	return out
}

// curbs are what a run's mowing curb is formed by: its section, the boards, and where
// posts and joints are marked on them.
func (w writer) curbs(string) []Sheet {
	var out []Sheet
	for i := range w.plan.Runs {
		r := &w.plan.Runs[i]
		c := r.Curb
		if c == nil {
			continue
		}
		s := Sheet{Of: w.name(i)}
		s.Blocks = append(s.Blocks,
			Para{Words: w.words("paper.curb-section", words.V{"width": c.Width, "depth": c.Depth, "length": c.Length}), Bold: true},
			Para{Words: w.words("paper.curb-forms", words.V{"boards": c.Boards, "board": c.Board, "stakes": c.Stakes, "concrete": c.Buy})})
		if c.Above > 0 {
			s.Blocks = append(s.Blocks, Para{Words: w.words("paper.curb-above", words.V{"above": c.Above})})
		}
		if c.Off != 0 {
			side := "left"
			if c.Off < 0 {
				side = "right"
			}
			s.Blocks = append(s.Blocks, Para{Words: w.words("paper.curb-off", words.V{"off": c.Off.Abs(), "side": side})})
		}
		t := report.Curb(w.plan, r)
		s.Blocks = append(s.Blocks, Heading(words.Plain("paper.on-the-forms")), Beside{tabled(t.Read(), true)}, Heading(words.Plain("paper.forming")), List{Items: w.spelled("paper.form-", []string{"string", "ends", "mark", "hold", "wall"}), Numbered: true})
		out = append(out, w.warned(s, "pour"))
	}
	return out
}

// pourPosts are the posts in their order. What nothing is said of has no column.
func (w writer) pourPosts(d *pourday.Day) Table {
	names := map[string]string{}
	for i := range w.plan.Runs {
		names[w.plan.Runs[i].ID] = w.name(i)
	}
	type column struct {
		head string
		of   func(p *pourday.DayPost) string
	}
	long := func(l length.Length) string {
		if l == 0 {
			return ""
		}
		return w.units.Short(l)
	}
	at := func(t string) string {
		switch {
		case len(t) < 16:
			return ""
		case t[:10] != d.Date:
			return t[5:16]
		}
		return t[11:16]
	}
	all := []column{
		{words.Plain("report.head-post"), func(p *pourday.DayPost) string { return p.Post }},
		{words.Plain("report.head-run"), func(p *pourday.DayPost) string {
			if len(names) < 2 {
				return ""
			}
			return names[p.Run]
		}},
		{words.Plain("report.head-load"), func(p *pourday.DayPost) string {
			if p.Load == 0 {
				return ""
			}
			return strconv.Itoa(p.Load)
		}},
		{words.Plain("report.head-at"), func(p *pourday.DayPost) string { return at(p.At) }},
		{words.Plain("paper.concrete"), func(p *pourday.DayPost) string { return w.units.Small(p.Volume) }},
		{words.Plain("paper.bags"), func(p *pourday.DayPost) string {
			if p.Bags == 0 {
				return ""
			}
			return strconv.FormatFloat(p.Bags, 'f', 1, 64)
		}},
		{words.Plain("paper.fill-to"), func(p *pourday.DayPost) string { return long(p.Fill) }},
		{words.Plain("report.head-come_back"), func(p *pourday.DayPost) string { return at(p.Back) }},
		{words.Plain("report.head-finish"), func(p *pourday.DayPost) string { return at(p.Finish) }},
	}
	t, rows := Table{Tick: true, Bold: 0}, d.Rows(w.units)
	var used []column
	for _, c := range all {
		if slices.ContainsFunc(rows, func(p pourday.DayPost) bool { return c.of(&p) != "" }) {
			used, t.Head = append(used, c), append(t.Head, c.head)
		}
	}
	for i := range rows {
		row := make([]string, len(used))
		for k, c := range used {
			row[k] = c.of(&rows[i])
		}
		t.Rows = append(t.Rows, row)
	}
	return t
}
