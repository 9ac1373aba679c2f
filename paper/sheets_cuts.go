package paper

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mallow/core/bill"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/words"
)

// cuts is what is sawn, section after section: each station gets all bars of a
// section, in the order of cutting.
func (w writer) cuts(run string) []Sheet {
	var out []Sheet
	for _, l := range w.lists(run) {
		s := Sheet{Of: w.say(l.Name), Outward: true}
		s.Blocks = append(s.Blocks, Para{Words: w.say(l.Says)})
		s.Blocks = append(s.Blocks, bars{list: l, units: w.units})
		out = append(out, s)
	}
	return out
}

// lists are the cut lists of a run, or of the whole job.
func (w writer) lists(run string) []plan.CutList {
	for _, r := range w.plan.Runs {
		if run != "" && r.ID == run {
			return w.plan.CutLists(r.Items)
		}
	}
	return w.plan.CutLists(w.plan.Items)
}

// bars are bars drawn to scale, each kind with a box to tick, how many there are,
// and what its pieces are.
type bars struct {
	list  plan.CutList
	units length.Units
}

const (
	barHead = 34.0 // how many, of what length
	barHigh = 6.0
	barFont = 12.0
)

func (b bars) lay(l *layout) {
	longest := length.Length(1)
	for _, bar := range b.list.Bars {
		longest = max(longest, bar.Length)
	}
	room := l.room - barHead - 6
	for _, bar := range b.list.Bars {
		lines := b.pieces(l, &bar, room)
		l.need(barHigh + 2 + min(float64(len(lines)), 3)*3.9 + 2)
		l.box(l.y + 1.2)
		l.word(l.left+6, l.y+4.8, fmt.Sprintf("%d × %s", bar.Count, b.units.Short(bar.Length)), barFont, true)
		left := l.left + barHead + 6
		at := left
		put := func(long length.Length, fill float64, says string, bold bool) {
			wide := room * float64(long/longest)
			l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{at, l.y}, {at + wide, l.y}, {at + wide, l.y + barHigh}, {at, l.y + barHigh}}, Closed: true, Fill: fill, Width: 0.3})
			if said := l.measure(says, 10, bold); said < wide-1 {
				l.word(at+(wide-said)/2, l.y+4.3, says, 10, bold)
			}
			at += wide
		}
		for _, c := range bar.Cuts {
			for range c.Each {
				put(c.Long, 0, b.units.Short(c.Long), true)
			}
		}
		if over := bar.Length - length.Length((at-left)/room)*longest; over > 0.5 {
			put(over, 0.15, b.units.Short(bar.Left), false)
		}
		l.y += barHigh + 1
		for _, line := range lines {
			if l.y+3.9 > l.bottom() {
				l.newPage()
			}
			l.word(left, l.y+3.4, line, body, false)
			l.y += 3.9
		}
		l.y += 2
	}
}

// pieces are the lines that say what comes from a bar, and where it goes.
func (b bars) pieces(l *layout, bar *bill.Bar, room float64) []string {
	var out []string
	for _, c := range bar.Cuts {
		says := words.Say("paper.cut-piece", words.V{"count": c.Each, "long": c.Long, "where": c.Where}).Print(b.units)
		if c.Wide > 0 {
			says = words.Say("paper.cut-ripped", words.V{"count": c.Each, "long": c.Long, "wide": c.Wide, "where": c.Where}).Print(b.units)
		}
		out = append(out, l.wrap(says, body, false, room)...)
	}
	return out
}

// labels are to be cut out and stuck on the bundles: the pieces of one part and
// length that go to one run.
func (w writer) labels(run string) []Sheet {
	type bundle struct {
		part, run string
		long      length.Length
		count     int
		at        []string
	}
	var all []*bundle
	find := func(part, run string, long length.Length) *bundle {
		for _, b := range all {
			if b.part == part && b.run == run && length.Same(b.long, long) {
				return b
			}
		}
		all = append(all, &bundle{part: part, run: run, long: long})
		return all[len(all)-1]
	}
	for _, l := range w.lists(run) {
		for _, bar := range l.Bars {
			for _, c := range bar.Cuts {
				for _, g := range c.Goes {
					b := find(g.Part, g.Run, c.Long)
					b.count += g.Count
					at := g.From
					if g.Gate != "" {
						at = g.Gate
					}
					if !slices.Contains(b.at, at) {
						b.at = append(b.at, at)
					}
				}
			}
		}
	}
	if len(all) == 0 {
		return nil
	}
	s := Sheet{Alone: true, Outward: true}
	g := stickers{}
	for _, b := range all {
		name := b.run
		for i, r := range w.plan.Runs {
			if r.ID == b.run {
				name = w.name(i)
			}
		}
		slices.SortFunc(b.at, naturally)
		at := b.at[0]
		if n := len(b.at); n > 1 {
			at = words.Plain("paper.label-at", words.V{"first": b.at[0], "last": b.at[n-1], "count": n})
		}
		g.of = append(g.of, sticker{w.words("paper.label-many", words.V{"count": b.count, "long": b.long}), b.part, words.Plain("paper.label-run", words.V{"run": name, "at": at})})
	}
	s.Blocks = append(s.Blocks, g)
	return []Sheet{s}
}

// naturally is by the number in a name, B2 before B10.
func naturally(a, b string) int {
	return cmp.Or(cmp.Compare(len(a), len(b)), cmp.Compare(a, b))
}

// sticker is one label: how many of what length, of what part, where to.
type sticker struct{ many, part, at string }

// stickers are labels in three columns, with lines to cut along.
type stickers struct{ of []sticker }

const (
	labelsAcross = 3
	labelTall    = 25.0
)

func (s stickers) lay(l *layout) {
	wide := l.room / labelsAcross
	for i := 0; i < len(s.of); i += labelsAcross {
		l.need(labelTall)
		for k := range int(math.Min(labelsAcross, float64(len(s.of)-i))) {
			one, x := s.of[i+k], l.left+float64(k)*wide
			l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{x, l.y}, {x + wide, l.y}, {x + wide, l.y + labelTall}, {x, l.y + labelTall}}, Closed: true, Width: 0.2, Dash: true})
			l.word(x+3, l.y+8, l.fit(one.many, 15, true, wide-6), 15, true)
			l.word(x+3, l.y+14.5, l.fit(one.part, 11, false, wide-6), 11, false)
			l.word(x+3, l.y+20.5, l.fit(one.at, 11, true, wide-6), 11, true)
		}
		l.y += labelTall
	}
}
