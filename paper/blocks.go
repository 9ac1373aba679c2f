package paper

import (
	"fmt"
	"strings"

	"mallow/core/plan"
	"mallow/core/scene"
)

// Sheet is one kind of sheet, on as many pages as it takes.
type Sheet struct {
	ID     string // such as stakeout; with a run, stakeout/R1
	Title  string
	Run    string // name of the run that it is of, or the gate
	Blocks []Block
}

// Block is a part of a sheet, laid out from the top down.
type Block interface{ lay(*layout) }

// Heading stands over what follows it.
type Heading string

// Para is a paragraph.
type Para struct {
	Words string
	Bold  bool
}

// List is points, numbered or each with a box to tick.
type List struct {
	Items    []string
	Numbered bool
	Tick     bool
}

// Table is rows under a head that stands again on every page.
type Table struct {
	Head []string
	Rows [][]string
	Tick bool // a box to tick before each row
	Bold int  // column that is set bold; -1 for none
}

// Grid is small drawings of a plan side by side, each with a title and lines
// under it.
type Grid struct {
	Plan   plan.Plan
	Across int
	Cells  []Cell
	Height float64 // of a picture
}

// Cell is one of a grid.
type Cell struct {
	Title string
	View  scene.View
	Lines []string
}

const body = 9.5 // points

func splitWords(s string) []string { return strings.Fields(s) }

func (h Heading) lay(l *layout) {
	l.need(16)
	l.y += 3
	l.word(margin, l.y+4, string(h), 12, true)
	l.y += 7
}

func (p Para) lay(l *layout) {
	lines := l.wrap(p.Words, body, p.Bold, l.wide())
	l.need(float64(len(lines))*4.6 + 4)
	for _, line := range lines {
		l.word(margin, l.y+4, line, body, p.Bold)
		l.y += 4.6
	}
	l.y += 2
}

func (p List) lay(l *layout) {
	for i, item := range p.Items {
		lines := l.wrap(item, body, false, l.wide()-8)
		l.need(float64(len(lines))*4.6 + 1.5)
		switch {
		case p.Tick:
			l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{margin, l.y + 0.9}, {margin + 3.4, l.y + 0.9}, {margin + 3.4, l.y + 4.3}, {margin, l.y + 4.3}}, Closed: true, Width: 0.35})
		case p.Numbered:
			l.word(margin, l.y+4, fmt.Sprintf("%d.", i+1), body, true)
		default:
			l.word(margin+1.5, l.y+4, "•", body, true)
		}
		for _, line := range lines {
			l.word(margin+7, l.y+4, line, body, false)
			l.y += 4.6
		}
		l.y += 1
	}
	l.y += 1.5
}

const cellPad = 1.2

// widths shares the page's width among the columns: what each needs at the
// most, and where that is too much, the widest give way.
func (t Table) widths(l *layout, room float64) []float64 {
	need := make([]float64, len(t.Head))
	for k, h := range t.Head {
		for _, word := range splitWords(h) {
			need[k] = max(need[k], l.measure(word, 8, true))
		}
	}
	for _, row := range t.Rows {
		for k, c := range row {
			need[k] = max(need[k], l.measure(c, body, k == t.Bold))
		}
	}
	sum := 0.0
	for k := range need {
		need[k] += 2 * cellPad
		sum += need[k]
	}
	for sum > room {
		widest := 0
		for k := range need {
			if need[k] > need[widest] {
				widest = k
			}
		}
		cut := min(sum-room, need[widest]*0.1)
		need[widest] -= cut
		sum -= cut
	}
	spare := (room - sum) / float64(len(need))
	for k := range need {
		need[k] += min(spare, 8)
	}
	return need
}

func (t Table) lay(l *layout) {
	left := margin
	if t.Tick {
		left += 6
	}
	widths := t.widths(l, margin+l.wide()-left)
	right := left
	for _, w := range widths {
		right += w
	}
	head := func() {
		lines := 1
		cells := make([][]string, len(t.Head))
		for k, h := range t.Head {
			cells[k] = l.wrap(h, 8, true, widths[k]-2*cellPad)
			lines = max(lines, len(cells[k]))
		}
		x := left
		for k := range t.Head {
			for i, line := range cells[k] {
				l.word(x+cellPad, l.y+3.2+3.6*float64(i+lines-len(cells[k])), line, 8, true)
			}
			x += widths[k]
		}
		l.y += 3.6*float64(lines) + 1.4
		l.rule(margin, l.y, right, l.y, 0.4)
	}
	l.need(24)
	head()
	for _, row := range t.Rows {
		cells := make([][]string, len(row))
		lines := 1
		for k, c := range row {
			cells[k] = l.wrap(c, body, k == t.Bold, widths[k]-2*cellPad)
			lines = max(lines, len(cells[k]))
		}
		height := float64(lines)*4.4 + 1.2
		if l.y+height > l.bottom() {
			l.newPage()
			head()
		}
		if t.Tick {
			l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{margin, l.y + 1}, {margin + 3.4, l.y + 1}, {margin + 3.4, l.y + 4.4}, {margin, l.y + 4.4}}, Closed: true, Width: 0.35})
		}
		x := left
		for k := range row {
			for i, line := range cells[k] {
				l.word(x+cellPad, l.y+4+4.4*float64(i), line, body, k == t.Bold)
			}
			x += widths[k]
		}
		l.y += height
		l.rule(margin, l.y, right, l.y, 0.12)
	}
	l.y += 3
}

func (g Grid) lay(l *layout) {
	wide := l.wide() / float64(g.Across)
	for i := 0; i < len(g.Cells); i += g.Across {
		row := g.Cells[i:min(i+g.Across, len(g.Cells))]
		tallest := 0.0
		lines := make([][]string, len(row))
		for k, c := range row {
			for _, line := range c.Lines {
				lines[k] = append(lines[k], l.wrap(line, 8.5, false, wide-4)...)
			}
			tallest = max(tallest, float64(len(lines[k]))*4)
		}
		height := g.Height + tallest + 11
		l.need(height)
		for k, c := range row {
			x := margin + float64(k)*wide
			l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{x, l.y}, {x + wide, l.y}, {x + wide, l.y + height - 2}, {x, l.y + height - 2}}, Closed: true, Width: 0.25})
			l.word(x+2, l.y+4.6, l.fit(c.Title, 10, true, wide-4), 10, true)
			l.draw(g.Plan, c.View, x+1, l.y+6, wide-2, g.Height, 1)
			for n, line := range lines[k] {
				l.word(x+2, l.y+g.Height+9+float64(n)*4, line, 8.5, false)
			}
		}
		l.y += height
	}
}
