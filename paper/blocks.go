package paper

import (
	"fmt"
	"strings"

	"mallow/core/plan"
	"mallow/core/scene"
)

// Sheet is one kind of sheet, on as many pages as it takes.
type Sheet struct {
	Kind   string // such as stakeout
	Title  string
	Of     string // name of the run that it is of, or the gate
	At     Place
	Blocks []Block

	Alone   bool // begins on a page of its own
	Outward bool // leaves the firm: nothing internal stands on it
}

// Place is where in a job a sheet belongs.
type Place struct {
	Run, Gate string // ids
	Stage     string
	Number    int // of the run or the gate in the job, counted from 1; 0 for the whole job
}

func (s Sheet) name() string {
	if s.Of == "" {
		return s.Title
	}
	return s.Title + ": " + s.Of
}

// known tells whether there is anything on it.
func (s Sheet) known() bool { return len(s.Blocks) > 0 }

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
	Size float64 // of its words, points; 0 for the usual
	Tick bool    // a box to tick before each row
	Bold int     // column that is set bold; -1 for none
}

// Columns are blocks side by side, in columns of one width.
type Columns [][]Block

// Uneven are columns that share the width as they are told.
type Uneven struct {
	Columns
	Shares []float64
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

const (
	body     = 9.3  // points
	leading  = 3.95 // millimetres from line to line
	tall     = 3.4  // of a box to tick
	gutter   = 5.0  // between columns
	mainSize = 10.0
)

func splitWords(s string) []string { return strings.Fields(s) }

func (h Heading) lay(l *layout) {
	l.need(14)
	l.y += 1
	l.word(l.left, l.y+4, l.fit(string(h), 11.5, true, l.room), 11.5, true)
	l.y += 5.6
}

func (p Para) lay(l *layout) {
	lines := l.wrap(p.Words, body, p.Bold, l.room)
	l.need(float64(len(lines)) * leading)
	for _, line := range lines {
		l.word(l.left, l.y+3.6, line, body, p.Bold)
		l.y += leading
	}
	l.y += 1.2
}

// box is one to tick.
func (l *layout) box(y float64) {
	l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{l.left, y}, {l.left + tall, y}, {l.left + tall, y + tall}, {l.left, y + tall}}, Closed: true, Width: 0.35})
}

func (p List) lay(l *layout) {
	for i, item := range p.Items {
		lines := l.wrap(item, body, false, l.room-5.5)
		l.need(float64(len(lines))*leading + 0.4)
		switch {
		case p.Tick:
			l.box(l.y + 0.6)
		case p.Numbered:
			l.word(l.left, l.y+3.6, fmt.Sprintf("%d.", i+1), body, true)
		default:
			l.word(l.left+1, l.y+3.6, "•", body, true)
		}
		for _, line := range lines {
			l.word(l.left+5.5, l.y+3.6, line, body, false)
			l.y += leading
		}
		l.y += 0.4
	}
	l.y += 0.6
}

func (c Columns) lay(l *layout) {
	Uneven{Columns: c}.lay(l)
}

func (u Uneven) lay(l *layout) {
	sum := 0.0
	for k := range u.Columns {
		sum += u.share(k)
	}
	room := l.room - gutter*float64(len(u.Columns)-1)
	deep := 0.0
	for k, blocks := range u.Columns {
		deep = max(deep, l.height(blocks, room*u.share(k)/sum))
	}
	if deep > l.bottom()-top { // no page holds them side by side
		for _, blocks := range u.Columns {
			l.blocks(blocks)
		}
		return
	}
	l.need(deep)
	left, whole, y := l.left, l.room, l.y
	for k, blocks := range u.Columns {
		l.room, l.y = room*u.share(k)/sum, y
		l.blocks(blocks)
		l.left += l.room + gutter
	}
	l.left, l.room, l.y = left, whole, y+deep
}

// share is how much of the width a column has, beside the others.
func (u Uneven) share(k int) float64 {
	if k < len(u.Shares) {
		return u.Shares[k]
	}
	return 1
}

const (
	cellPad  = 1.0
	headSize = 7.5
)

// widths shares the page's width among the columns: what each needs at the
// most, and where that is too much, those of words give way, down to a few
// words in a line.
func (t Table) widths(l *layout, room float64) []float64 {
	need, least := t.natural(l), make([]float64, len(t.Head))
	for k, h := range t.Head {
		for _, word := range splitWords(h) {
			least[k] = max(least[k], l.measure(word, headSize, true))
		}
	}
	for _, row := range t.Rows {
		for k, c := range row {
			least[k] = max(least[k], min(l.measure(c, t.size(k), k == t.Bold), unparted))
		}
	}
	sum, can := 0.0, 0.0
	for k := range need {
		sum += need[k]
		can += need[k] - least[k] - 2*cellPad
	}
	if over := sum - room; over > 0 {
		for k := range need {
			if can > 0 {
				need[k] -= min(over, can) * (need[k] - least[k] - 2*cellPad) / can
			}
		}
		if over > can { // a column for each word would not do either
			for k := range need {
				need[k] *= room / (sum - can)
			}
		}
		return need
	}
	spare := (room - sum) / float64(len(need))
	for k := range need {
		need[k] += min(spare, 6)
	}
	return need
}

// natural is how wide each column is where nothing is broken into lines.
func (t Table) natural(l *layout) []float64 {
	need := make([]float64, len(t.Head))
	for k, h := range t.Head {
		for _, word := range splitWords(h) {
			need[k] = max(need[k], l.measure(word, headSize, true))
		}
	}
	for _, row := range t.Rows {
		for k, c := range row {
			need[k] = max(need[k], l.measure(c, t.size(k), k == t.Bold))
		}
	}
	for k := range need {
		need[k] += 2 * cellPad
	}
	return need
}

// unparted is how wide a cell may be that is not broken into lines: a length.
const unparted = 26.0

// size is how large a column is set.
func (t Table) size(column int) float64 {
	switch {
	case column == t.Bold:
		return mainSize
	case t.Size > 0:
		return t.Size
	}
	return body
}

// Beside is a table of few narrow columns, laid as two or three side by side
// where they have room.
type Beside struct{ Table }

func (b Beside) lay(l *layout) {
	wide := 0.0
	for _, w := range b.natural(l) {
		wide += w
	}
	n := 1
	for n < 3 && (wide+gutter)*float64(n+1)-gutter <= l.room && len(b.Rows) > 2*n {
		n++
	}
	if n == 1 {
		b.Table.lay(l)
		return
	}
	each := (len(b.Rows) + n - 1) / n
	out := make(Columns, n)
	for k := range n {
		part := b.Table
		part.Rows = b.Rows[min(k*each, len(b.Rows)):min((k+1)*each, len(b.Rows))]
		if len(part.Rows) > 0 {
			out[k] = []Block{part}
		}
	}
	out.lay(l)
}

func (t Table) lay(l *layout) {
	left := l.left
	if t.Tick {
		left += 5
	}
	widths := t.widths(l, l.left+l.room-left)
	right := left
	for _, w := range widths {
		right += w
	}
	head := func() {
		lines := 1
		cells := make([][]string, len(t.Head))
		for k, h := range t.Head {
			cells[k] = l.wrap(h, headSize, true, widths[k]-2*cellPad)
			lines = max(lines, len(cells[k]))
		}
		x := left
		for k := range t.Head {
			for i, line := range cells[k] {
				l.word(x+cellPad, l.y+3+3.2*float64(i+lines-len(cells[k])), line, headSize, true)
			}
			x += widths[k]
		}
		l.y += 3.2*float64(lines) + 1.2
		l.rule(l.left, l.y, right, l.y, 0.4)
	}
	l.need(20)
	head()
	for _, row := range t.Rows {
		cells := make([][]string, len(row))
		lines := 1
		for k, c := range row {
			cells[k] = l.wrap(c, t.size(k), k == t.Bold, widths[k]-2*cellPad)
			lines = max(lines, len(cells[k]))
		}
		height := float64(lines)*3.9 + 0.7
		if l.y+height > l.bottom() {
			l.newPage()
			head()
		}
		if t.Tick {
			l.box(l.y + 0.6)
		}
		x := left
		for k := range row {
			for i, line := range cells[k] {
				l.word(x+cellPad, l.y+3.5+3.9*float64(i), line, t.size(k), k == t.Bold)
			}
			x += widths[k]
		}
		l.y += height
		l.rule(l.left, l.y, right, l.y, 0.12)
	}
	l.y += 2
}

func (g Grid) lay(l *layout) {
	wide := l.room / float64(g.Across)
	for i := 0; i < len(g.Cells); i += g.Across {
		row := g.Cells[i:min(i+g.Across, len(g.Cells))]
		tallest := 0.0
		lines := make([][]string, len(row))
		for k, c := range row {
			for _, line := range c.Lines {
				lines[k] = append(lines[k], l.wrap(line, small, false, wide-4)...)
			}
			tallest = max(tallest, float64(len(lines[k]))*3.7)
		}
		if tallest > 0 {
			tallest += 2
		}
		height := g.Height + tallest + 8
		l.need(height)
		for k, c := range row {
			x := l.left + float64(k)*wide
			l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{x, l.y}, {x + wide, l.y}, {x + wide, l.y + height - 1}, {x, l.y + height - 1}}, Closed: true, Width: 0.25})
			l.word(x+2, l.y+4.6, l.fit(c.Title, mainSize, true, wide-4), mainSize, true)
			if !l.endless {
				l.draw(g.Plan, c.View, x+1, l.y+6, wide-2, g.Height, 1)
			}
			for n, line := range lines[k] {
				l.word(x+2, l.y+g.Height+9+float64(n)*3.7, line, small, false)
			}
		}
		l.y += height
	}
	l.y += 1
}

// small is the size of the lines under a small drawing, points.
const small = 9.0

// Halved is a list in two columns, for points that would not fill a line. It
// goes on over the page four points at a time.
type Halved struct{ List }

func (h Halved) lay(l *layout) {
	if len(h.Items) == 1 {
		h.List.lay(l)
		return
	}
	for items := h.Items; len(items) > 0; {
		n := min(4, len(items))
		a, b := h.List, h.List
		a.Items, b.Items = items[:(n+1)/2], items[(n+1)/2:n]
		Columns{{a}, {b}}.lay(l)
		items = items[n:]
	}
}
