// Package paper lays a plan out on sheets that a crew prints: black on white,
// with the line drawn on them. Pages are laid out once, in lines and words, and
// written as PDF or drawn on screen as SVG.
package paper

import (
	"fmt"
	"math"
	"strings"
	"time"

	"golang.org/x/image/font"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
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
	Sheet string // its sheet's ID
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
	margin = 14.0 // millimetres round a page; printers reach that far
	point  = 25.4 / 72
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
	sheet         Sheet
	pages         []Page
	y             float64
}

// Lay puts sheets on pages.
func Lay(title string, sheets []Sheet, size Size, stamp Stamp) Document {
	l := &layout{size: size, stamp: stamp}
	l.regular, l.bold = fonts()
	heads := []Sheet{}
	for _, s := range sheets {
		l.sheet = s
		first := len(l.pages)
		l.newPage()
		for i, b := range s.Blocks {
			if i+1 < len(s.Blocks) {
				l.together(b, s.Blocks[i+1])
			}
			b.lay(l)
		}
		for range l.pages[first:] {
			heads = append(heads, s)
		}
	}
	for i := range l.pages {
		l.head(&l.pages[i], heads[i], i+1, len(l.pages))
		l.print(&l.pages[i])
	}
	return Document{Size: size, Title: basic(title), Stamp: stamp, Pages: l.pages}
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

// together keeps a heading on the page of the figure that follows it.
func (l *layout) together(b, next Block) {
	_, heading := b.(Heading)
	if f, figure := next.(Figure); heading && figure {
		l.need(f.Height + 14)
	}
}

func (l *layout) page() *Page { return &l.pages[len(l.pages)-1] }

func (l *layout) newPage() {
	l.pages = append(l.pages, Page{Sheet: l.sheet.ID})
	l.y = margin + 17
}

func (l *layout) wide() float64   { return l.size.Width - 2*margin }
func (l *layout) bottom() float64 { return l.size.Height - margin - 8 }

// need begins a new page where so much room is not left.
func (l *layout) need(height float64) {
	if l.y+height > l.bottom() && l.y > margin+18 {
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

// head writes what stands on every page: job, sheet, run, revision, date, page
// of pages, and whether the ground may be opened.
func (l *layout) head(p *Page, s Sheet, n, of int) {
	put := func(x, y float64, text string, size float64, bold bool, right bool) {
		w := l.measure(text, size, bold)
		if right {
			x -= w
		}
		p.Words = append(p.Words, Word{X: x, Y: y, Text: text, Size: size, Bold: bold, Width: w})
	}
	left, right := margin, l.size.Width-margin
	put(left, margin+5, l.fit(l.stamp.Job, 13, true, l.wide()*0.62), 13, true, false)
	title := s.Title
	if s.Run != "" {
		title += ": " + s.Run
	}
	put(left, margin+10.5, l.fit(title, 11, false, l.wide()*0.62), 11, false, false)
	stamp := l.stamp.Date.Format("2 January 2006")
	if l.stamp.Revision > 0 {
		stamp = fmt.Sprintf("revision %d, %s", l.stamp.Revision, stamp)
	}
	put(right, margin+5, stamp, 9, false, true)
	if !l.stamp.Cleared {
		const words = "NOT CLEARED TO DIG"
		w := l.measure(words, 9, true)
		p.Lines = append(p.Lines, Line{Points: [][2]float64{{right - w - 4, margin + 6.6}, {right, margin + 6.6}, {right, margin + 12}, {right - w - 4, margin + 12}}, Closed: true, Width: 0.5})
		put(right-2, margin+10.5, words, 9, true, true)
	}
	p.Lines = append(p.Lines, Line{Points: [][2]float64{{left, margin + 13.5}, {right, margin + 13.5}}, Width: 0.4})
	put(right, l.size.Height-margin, fmt.Sprintf("page %d of %d", n, of), 9, false, true)
	put(left, l.size.Height-margin, "Mallow plans; it does not approve. Local codes, surveyor and engineer decide.", 8, false, false)
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
