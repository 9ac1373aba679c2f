// Package paper lays a plan out on sheets that a crew prints: black on white,
// with the line drawn on them. Pages are laid out once, in lines and words, and
// written as PDF or drawn on screen as SVG.
package paper

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"golang.org/x/image/font"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/stage"
	"mallow/core/words"
)

// Size is a size of paper, millimetres.
type Size struct {
	Name          string
	Width, Height float64
}

// The sizes that are printed on.
var (
	Letter = Size{"letter", 215.9, 279.4}
	A4     = Size{"a4", 210, 297}
)

// SizeOf finds a size by its name.
func SizeOf(name string) (Size, error) {
	for _, s := range []Size{Letter, A4} {
		if s.Name == name {
			return s, nil
		}
	}
	return Size{}, fmt.Errorf("paper %q is not known; there are letter and a4", name)
}

// Stamp is what every page carries.
type Stamp struct {
	Job      string
	Revision int // 0 for a file that has none
	Date     time.Time
	Cleared  bool // to dig

	ID   string // of the kept job; "" for a file, whose sheets bear no code
	Base string // address of the server that keeps it, such as http://192.168.1.20:8484
}

// Line is a line on a page, or an area when it is closed. Millimetres from the
// page's upper left corner.
type Line struct {
	Points [][2]float64
	Closed bool
	Fill   float64 // grey, 0 for none to 1 for black
	Width  float64
	Dash   bool
	White  bool // an area that hides what lies under it
}

// Word is words on a page; X and Y are the left end of their base line, about
// which they are turned, degrees rightward.
type Word struct {
	Turn  float64
	X, Y  float64
	Text  string
	Size  float64 // points
	Bold  bool
	Width float64
}

// Page is one page.
type Page struct {
	Lines []Line
	Words []Word
}

// Document is pages of one size.
type Document struct {
	Size  Size
	Title string
	Stamp Stamp
	Pages []Page
}

const (
	margin = 10.0 // millimetres round a page; printers reach that far
	point  = 25.4 / 72
	square = 15.0 // side of the QR code, millimetres
	top    = margin + square + 2
)

// face measures words in one of the shipped fonts.
type face struct {
	font   *sfnt.Font
	buffer sfnt.Buffer
}

func parsed(ttf []byte) *face {
	f, err := sfnt.Parse(ttf)
	if err != nil {
		panic("paper: a shipped font cannot be read: " + err.Error())
	}
	return &face{font: f}
}

// measure is how wide words are, in millimetres.
func (l *layout) measure(words string, size float64, bold bool) float64 {
	l.look()
	f := l.regular
	if bold {
		f = l.bold
	}
	const units = 1000
	var sum fixed.Int26_6
	for _, r := range l.printable(words) {
		g, err := f.font.GlyphIndex(&f.buffer, r)
		if err != nil {
			continue
		}
		a, err := f.font.GlyphAdvance(&f.buffer, g, fixed.I(units), font.HintingNone)
		if err == nil {
			sum += a
		}
	}
	return float64(sum) / 64 / units * size * point
}

// layout fills pages from the top down.
type layout struct {
	size          Size
	stamp         Stamp
	regular, bold *face
	pages         []Page
	on            [][]Sheet // which sheets stand on each page
	y             float64
	left, room    float64 // of the column that is filled
	outward       bool    // a drawing for the customer
	endless       bool    // it is only measured, on a page without an end
	look          func()  // asks whether to go on
}

// Make writes sheets and puts them on pages, unless stop says to give up. Of what has
// nothing on it there are no pages.
func Make(stop func() error, j job.Job, p plan.Plan, id, run string, size Size, stamp Stamp) (d Document, err error) {
	watch := stage.NewWatch(stop)
	err = stage.Until(func() {
		if sheets := write(j, p, id, run, watch.Look); len(sheets) > 0 {
			d = lay(p.Name, sheets, size, stamp, watch.Look)
		}
	})
	return d, err
}

// Lay puts sheets on pages. A sheet begins where the one before it ends, unless
// too little of it would stand there.
func Lay(title string, sheets []Sheet, size Size, stamp Stamp) Document {
	return lay(title, sheets, size, stamp, func() {})
}

func lay(title string, sheets []Sheet, size Size, stamp Stamp, look func()) Document {
	l := &layout{size: size, stamp: stamp, left: margin, room: size.Width - 2*margin, look: look}
	l.regular, l.bold = fonts()
	for i, s := range sheets {
		if !s.known() {
			continue
		}
		tall, left := l.height(s.Blocks, l.room)+barTall, l.bottom()-l.y
		whole := l.bottom() - top
		if i == 0 || len(l.pages) == 0 || s.Alone || tall > left && (barTall+l.least(s.Blocks) > left || tall <= whole && left < whole/6) {
			l.newPage()
		} else {
			l.bar(s)
		}
		n := len(l.on) - 1
		l.on[n] = append(l.on[n], s)
		l.blocks(s.Blocks)
		for k := n + 1; k < len(l.on); k++ {
			l.on[k] = append(l.on[k], s)
		}
	}
	for i := range l.pages {
		l.head(&l.pages[i], l.on[i], i+1, len(l.pages))
		l.print(&l.pages[i])
	}
	return Document{Size: size, Title: basic(title), Stamp: stamp, Pages: l.pages}
}

const barTall = 8.0

// bar names the sheet that begins in the middle of a page.
func (l *layout) bar(s Sheet) {
	l.y += 2
	l.rule(margin, l.y, margin+l.room, l.y, 0.6)
	l.word(margin, l.y+5.4, l.fit(s.name(), 13, true, l.room), 13, true)
	l.y += barTall - 2
}

// blocks lays blocks one under the other. A heading stays with what follows.
func (l *layout) blocks(blocks []Block) {
	for i, b := range blocks {
		if _, heading := b.(Heading); heading && i+1 < len(blocks) && !l.endless {
			l.need(l.least(blocks[i:]))
		}
		b.lay(l)
	}
}

// least is how much of blocks must stand together: a heading, or what leads in,
// with as much of what follows as cannot be parted.
func (l *layout) least(blocks []Block) float64 {
	sum := 0.0
	for _, b := range blocks {
		switch b := b.(type) {
		case Heading, Para:
			sum += l.height([]Block{b}, l.room)
			continue
		case Table:
			b.Rows = b.Rows[:min(3, len(b.Rows))]
			return sum + l.height([]Block{b}, l.room)
		case List:
			b.Items = b.Items[:min(2, len(b.Items))]
			return sum + l.height([]Block{b}, l.room)
		case Halved:
			b.Items = b.Items[:min(4, len(b.Items))]
			return sum + l.height([]Block{b}, l.room)
		case Grid:
			b.Cells = b.Cells[:min(b.Across, len(b.Cells))]
			return sum + l.height([]Block{b}, l.room)
		}
		return sum + l.height([]Block{b}, l.room)
	}
	return sum
}

// height is how tall blocks are in one column of such a width.
func (l *layout) height(blocks []Block, room float64) float64 {
	m := *l
	m.pages, m.on, m.endless = []Page{{}}, [][]Sheet{nil}, true
	m.size.Height = 1e7
	m.y, m.left, m.room = 0, 0, room
	m.blocks(blocks)
	return m.y
}

// print makes sure that a page holds only what its fonts can draw, and says
// what stands for the rest.
func (l *layout) print(p *Page) {
	lacking := false
	for i := range p.Words {
		if words := l.printable(p.Words[i].Text); words != p.Words[i].Text {
			lacking = lacking || strings.ContainsRune(words, Substitute)
			p.Words[i].Text = words
		}
	}
	if lacking {
		p.Words = append(p.Words, Word{X: margin, Y: l.size.Height - margin + 4, Text: substituted, Size: 8, Width: l.measure(substituted, 8, false)})
	}
}

func (l *layout) page() *Page { return &l.pages[len(l.pages)-1] }

func (l *layout) newPage() {
	l.pages = append(l.pages, Page{})
	l.on = append(l.on, nil)
	l.y = top
}

func (l *layout) bottom() float64 { return l.size.Height - margin - 5 }

// need begins a new page where so much room is not left.
func (l *layout) need(height float64) {
	if l.y+height > l.bottom() && l.y > top+1 {
		l.newPage()
	}
}

func (l *layout) word(x, y float64, text string, size float64, bold bool) {
	l.page().Words = append(l.page().Words, Word{X: x, Y: y, Text: text, Size: size, Bold: bold, Width: l.measure(text, size, bold)})
}

// turned puts words turned about a place, so much of them before it.
func (l *layout) turned(x, y, before float64, text string, size float64, bold bool, turn float64) {
	sin, cos := math.Sincos(turn * math.Pi / 180)
	l.word(x-before*cos, y-before*sin, text, size, bold)
	words := l.page().Words
	words[len(words)-1].Turn = turn
}

func (l *layout) rule(x1, y1, x2, y2, width float64) {
	l.page().Lines = append(l.page().Lines, Line{Points: [][2]float64{{x1, y1}, {x2, y2}}, Width: width})
}

// head writes what stands on every page: job, sheets, revision, date, page of
// pages, whether the ground may be opened, and the code that opens the job at
// this place. Ticks at the edges say where to fold it for a pocket.
func (l *layout) head(p *Page, sheets []Sheet, n, of int) {
	put := func(x, y float64, text string, size float64, bold bool, right bool) {
		w := l.measure(text, size, bold)
		if right {
			x -= w
		}
		p.Words = append(p.Words, Word{X: x, Y: y, Text: text, Size: size, Bold: bold, Width: w})
	}
	left, right := margin, l.size.Width-margin
	if of := codeOf(l.stamp, sheets); of.Words != "" {
		p.Lines = append(p.Lines, of.squares(right-square, margin)...)
		right -= square + 3
		put(right, margin+14.5, of.Words, 10, true, true)
	}
	names := []string{}
	for _, s := range sheets {
		names = append(names, s.name())
	}
	room := right - left - 52
	put(left, margin+5, l.fit(l.stamp.Job, 15, true, room), 15, true, false)
	for i, line := range l.wrap(strings.Join(slices.Compact(names), " · "), 11, false, room) {
		if i < 2 {
			put(left, margin+10.5+4.6*float64(i), line, 11, false, false)
		}
	}
	stamp := l.stamp.Date.Format("2 January 2006")
	if l.stamp.Revision > 0 {
		stamp = words.Plain("paper.revision", words.V{"revision": fmt.Sprint(l.stamp.Revision), "date": stamp})
	}
	put(right, margin+4, stamp, 9, false, true)
	if !l.stamp.Cleared && !slices.ContainsFunc(sheets, func(s Sheet) bool { return s.Outward }) {
		warning := words.Plain("paper.not-cleared")
		w := l.measure(warning, 9, true)
		p.Lines = append(p.Lines, Line{Points: [][2]float64{{right - w - 4, margin + 5.6}, {right, margin + 5.6}, {right, margin + 11}, {right - w - 4, margin + 11}}, Closed: true, Width: 0.5})
		put(right-2, margin+9.5, warning, 9, true, true)
	}
	p.Lines = append(p.Lines, Line{Points: [][2]float64{{left, top - 1}, {l.size.Width - margin, top - 1}}, Width: 0.4})
	const tick = 2.5
	for _, y := range []float64{l.size.Height / 4, l.size.Height / 2, l.size.Height * 3 / 4} {
		for _, x := range []float64{margin - tick - 1, l.size.Width - margin + 1} {
			p.Lines = append(p.Lines, Line{Points: [][2]float64{{x, y}, {x + tick, y}}, Width: 0.2})
		}
	}
	put(l.size.Width-margin, l.size.Height-margin, words.Plain("paper.page-of", words.V{"page": n, "of": of}), 9, false, true)
	put(left, l.size.Height-margin, words.Plain("paper.foot"), 8, false, false)
}

// fit cuts words that are too wide for their room.
func (l *layout) fit(words string, size float64, bold bool, room float64) string {
	room += 0.01 // a column is as wide as its widest words
	if l.measure(words, size, bold) <= room {
		return words
	}
	runes := []rune(words)
	for len(runes) > 1 && l.measure(string(runes)+"…", size, bold) > room {
		runes = runes[:len(runes)-1]
	}
	return string(runes) + "…"
}

// wrap breaks words into lines that fit.
func (l *layout) wrap(words string, size float64, bold bool, room float64) []string {
	room += 0.01
	var out []string
	line := ""
	for _, word := range splitWords(words) {
		next := word
		if line != "" {
			next = line + " " + word
		}
		if line == "" || l.measure(next, size, bold) <= room {
			line = next
			continue
		}
		out, line = append(out, line), word
	}
	if line != "" || len(out) == 0 {
		out = append(out, line)
	}
	for i := range out {
		out[i] = l.fit(out[i], size, bold, room)
	}
	return out
}
