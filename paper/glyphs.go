package paper

import (
	"strings"
	"unicode"

	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// Substitute stands on paper for a character that the printing font lacks: an
// emoji, or a script that it does not cover. The foot of such a page says so.
const Substitute = '□'

const substituted = string(Substitute) + " stands for characters that the printing font lacks."

// joiner glues emoji into one sign; a selector only chooses how a sign looks.
const (
	joiner        = '\u200d'
	firstSelector = '\ufe00'
	lastSelector  = '\ufe0f'
)

// has tells whether both shipped fonts draw a character.
func (l *layout) has(r rune) bool {
	if r < 0x7f {
		return r >= ' '
	}
	if r > 0xffff { // the PDF's fonts reach no further
		return false
	}
	for _, f := range []*face{l.regular, l.bold} {
		if g, err := f.font.GlyphIndex(&f.buffer, r); err != nil || g == 0 {
			return false
		}
	}
	return true
}

// printable is words as they can be printed: what no font has becomes the
// substitute, once for signs that are glued together.
func (l *layout) printable(words string) string {
	plain := true
	for _, r := range words {
		if !l.has(r) {
			plain = false
			break
		}
	}
	if plain {
		return words
	}
	var b strings.Builder
	glued := false
	for _, r := range words {
		switch {
		case r == joiner:
			glued = true
			continue
		case r >= firstSelector && r <= lastSelector, unicode.Is(unicode.Sk, r) && r > 0xffff: // a skin's colour
			continue
		case l.has(r):
			b.WriteRune(r)
		case unicode.IsSpace(r):
			b.WriteByte(' ')
		case unicode.IsControl(r), unicode.Is(unicode.Cf, r), unicode.Is(unicode.Mn, r):
		case !glued:
			b.WriteRune(Substitute)
		}
		glued = false
	}
	return b.String()
}

// fonts are what words are measured and printed in.
func fonts() (regular, bold *face) { return parsed(goregular.TTF), parsed(gobold.TTF) }

// basic is a title as a PDF's properties take it: any script, but no sign
// beyond the first 65,536 characters, which the library cannot write there.
func basic(title string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r > 0xffff:
			return Substitute
		case r == joiner, unicode.IsControl(r):
			return -1
		}
		return r
	}, title)
}
