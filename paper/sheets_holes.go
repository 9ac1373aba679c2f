package paper

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/scene"
	"mallow/core/words"
)

// holeCard is a kind of hole, and the posts that have it.
type holeCard struct {
	*plan.Card
	view  scene.View
	title string
	steps []string
	count int
	posts []string // of each run, with the run's name
}

// holes are the cards of every kind of hole. Holes that are dug and filled
// alike share a card, whichever run they are in. How it is done stands once for
// all cards that differ in nothing but figures.
func (w writer) holes(run string) []Sheet {
	cards, first, many := w.holeCards(run)
	if len(cards) == 0 {
		return nil
	}
	s := Sheet{At: w.at(first)}
	if many > 1 {
		s.At.Number = 0
	}
	done := map[string]*holeCard{} // by what is done, without its figures
	var order []string
	for _, c := range cards {
		way := wayOf(c.steps)
		if best := done[way]; best == nil || c.count > best.count {
			if best == nil {
				order = append(order, way)
			}
			done[way] = c
		}
	}
	g := Grid{Plan: w.plan, Across: min(4, max(2, len(cards))), Height: 40}
	for _, c := range cards {
		lines := slices.Clone(c.posts)
		if c.Concrete > 0 {
			lines = append(lines, w.words("paper.bags-a-hole", words.V{"bags": fmt.Sprintf("%.1f", c.Bags), "bag": c.Bag}))
		}
		g.Cells = append(g.Cells, Cell{Title: fmt.Sprintf("%s (%d)", c.title, c.count), View: c.view, Lines: lines})
	}
	s.Blocks = append(s.Blocks, g)
	var ways Columns
	for _, way := range order {
		c := done[way]
		ways = append(ways, []Block{Para{Words: w.words("paper.done-as", words.V{"method": sentence(c.Method.Told().Name), "size": c.title, "count": c.count}), Bold: true}, List{Items: c.steps, Numbered: true}})
	}
	s.Blocks = append(s.Blocks, across(ways, 3)...)
	return []Sheet{w.warned(s, "dig", "pour")}
}

// sentence begins words with a capital letter.
func sentence(words string) string {
	first, size := utf8.DecodeRuneInString(words)
	return string(unicode.ToUpper(first)) + words[size:]
}

var figures = regexp.MustCompile(`[0-9][0-9./ ]*`)

// wayOf is what is done, without its figures.
func wayOf(steps []string) string {
	return figures.ReplaceAllString(strings.Join(steps, "\n"), "#")
}

// holeCards are the kinds of hole of a run or of all, the first run that has
// any, and how many have.
func (w writer) holeCards(run string) (cards []*holeCard, first, many int) {
	alike := map[string]*holeCard{}
	for i := range w.plan.Runs {
		r := &w.plan.Runs[i]
		if run != "" && r.ID != run || len(r.Posts) == 0 {
			continue
		}
		if many++; many == 1 {
			first = i
		}
		posts := map[*holeCard][]string{}
		var order []*holeCard
		for k := range r.Cards {
			var ids []string
			for _, p := range r.Posts {
				if p.Card == k && p.Shared == "" {
					ids = append(ids, p.Label)
				}
			}
			if len(ids) == 0 {
				continue // dug with the run before
			}
			title, steps := w.card(&r.Cards[k])
			key := title + "\n" + strings.Join(steps, "\n")
			c := alike[key]
			if c == nil {
				c = &holeCard{Card: &r.Cards[k], view: scene.View{Of: scene.OfHole, Run: r.ID, Card: k}, title: title, steps: steps}
				alike[key] = c
				cards = append(cards, c)
			}
			if len(posts[c]) == 0 {
				order = append(order, c)
			}
			posts[c] = append(posts[c], ids...)
			c.count += len(ids)
		}
		for _, c := range order {
			c.posts = append(c.posts, w.words("paper.posts-of-run", words.V{"run": w.name(i), "posts": strings.Join(report.Ranges(r, posts[c]), ", ")}))
		}
	}
	return cards, first, many
}

// card is what a hole's card says: its size, and how it is dug and filled.
func (w writer) card(c *plan.Card) (title string, steps []string) {
	title = w.units.Short(c.Width) + " × " + w.units.Short(c.Depth)
	if c.Square {
		title = w.words("paper.square-hole", words.V{"size": title})
	}
	if c.Method == job.Drive {
		title = w.words("paper.driven", words.V{"deep": c.Foot})
	}
	for _, step := range c.Steps {
		steps = append(steps, w.say(step))
	}
	return title, steps
}
