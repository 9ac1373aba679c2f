package length

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
)

// ParseError says which part of an entry was not understood, and why.
type ParseError struct {
	Input string // as it was typed
	Part  string // the part that was not understood; may be empty
	Why   string // one clause, no full stop
}

func (e *ParseError) Error() string {
	if e.Part == "" || e.Part == e.Input {
		return fmt.Sprintf("%q: %s", e.Input, e.Why)
	}
	return fmt.Sprintf("%q: did not understand %q: %s", e.Input, e.Part, e.Why)
}

// Reading is how an entry was read, with the other ways it could have been
// meant when it carries no unit.
type Reading struct {
	Length Length
	Bare   bool    // a number without a unit, read as the field that it is in asks
	Unit   string  // of a bare number: the unit that it was read in
	Others []Other // the same number in the other units that it might be in
	System System  // of the units that it was written in
}

// Other is another meaning of a bare number.
type Other struct {
	Unit   string
	Length Length
}

// Longest is the longest length that an entry may have: 1000 km.
const Longest = 1e6 * Metre

// Parse reads tape notation. It takes feet, inches and fractions
// (8' 6 1/2", 8-6-1/2, 8ft 6.5), inches (102.5in, 6 1/2), metres,
// centimetres and millimetres (2.45m, 245 cm, 2450mm), in either system at
// any time. A bare number is in the small unit of the system: inches or
// millimetres; ReadAs asks the field that it is in. Errors are of type *ParseError.
func Parse(s string, sys System) (Length, error) {
	r, err := Read(s, sys)
	return r.Length, err
}

// Read is Parse with the other possible readings of a bare number.
func Read(s string, sys System) (Reading, error) { return ReadAs(s, sys, Section) }

// ReadAs is Read for a field that is filled with entries of a kind. A comma or
// a point decides nothing: 120 and 120.0 are read alike.
func ReadAs(s string, sys System, as Entry) (Reading, error) {
	tokens, err := scan(s)
	if err != nil {
		return Reading{}, err
	}
	p := parser{input: s, tokens: tokens, sys: sys, as: as}
	r, err := p.entry()
	if err != nil {
		return Reading{}, err
	}
	if r.Length.Abs() > Longest {
		return Reading{}, &ParseError{s, "", "longer than 1000 km"}
	}
	return r, nil
}

type token struct {
	text   string
	number bool
}

// glyphs maps what keyboards and clipboards write to what the scanner reads.
var glyphs = strings.NewReplacer(
	"′", "'", "’", "'", "‘", "'", "″", `"`, "”", `"`, "“", `"`, "''", `"`,
	"−", "-", "–", "-", "⁄", "/",
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4",
	"⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8",
)

func scan(s string) ([]token, error) {
	if len(s) > 64 {
		return nil, &ParseError{s[:16] + "…", "", "longer than any tape entry (64 characters)"}
	}
	runes := []rune(strings.ToLower(glyphs.Replace(s)))
	var out []token
	for i := 0; i < len(runes); {
		r := runes[i]
		start := i
		switch {
		case unicode.IsSpace(r):
			i++
			continue
		case r >= '0' && r <= '9' || r == '.':
			for i < len(runes) && (runes[i] >= '0' && runes[i] <= '9' || runes[i] == '.' || runes[i] == ',') {
				i++
			}
			out = append(out, token{string(runes[start:i]), true})
		case r >= 'a' && r <= 'z':
			for i < len(runes) && runes[i] >= 'a' && runes[i] <= 'z' {
				i++
			}
			out = append(out, token{string(runes[start:i]), false})
		case strings.ContainsRune(`'"-/+`, r):
			i++
			out = append(out, token{string(r), false})
		default:
			return nil, &ParseError{s, string(r), "not part of a length"}
		}
	}
	if len(out) == 0 {
		return nil, &ParseError{s, "", "nothing entered"}
	}
	return out, nil
}

// unit is a unit of length as it is written; bigger units come first in an
// entry, and the two systems do not mix in one entry. Sizes are in the small
// unit of the system, inches or millimetres, so that feet, inches and binary
// fractions add up without rounding and become millimetres in one step.
type unit struct {
	size float64
	sys  System
}

// of returns so many of the system's small unit as a length.
func (s System) of(n float64) Length {
	if s == Imperial {
		return Length(n) * Inch
	}
	return Length(n) * Millimetre
}

var unitsByName = map[string]unit{
	"'": {12, Imperial}, "ft": {12, Imperial}, "feet": {12, Imperial}, "foot": {12, Imperial},
	`"`: {1, Imperial}, "in": {1, Imperial}, "inch": {1, Imperial}, "inches": {1, Imperial},
	"yd": {36, Imperial}, "yard": {36, Imperial}, "yards": {36, Imperial},
	"mm": {1, Metric}, "cm": {10, Metric}, "m": {1000, Metric},
	"metre": {1000, Metric}, "metres": {1000, Metric}, "meter": {1000, Metric}, "meters": {1000, Metric},
}

type parser struct {
	input  string
	tokens []token
	pos    int
	sys    System
	as     Entry
}

func (p *parser) fail(part, why string) error { return &ParseError{p.input, part, why} }

func (p *parser) peek() token {
	if p.pos < len(p.tokens) {
		return p.tokens[p.pos]
	}
	return token{}
}

func (p *parser) take(text string) bool {
	if p.peek().text == text && !p.peek().number {
		p.pos++
		return true
	}
	return false
}

func (p *parser) entry() (Reading, error) {
	sign := Length(1)
	if p.take("-") {
		sign = -1
	} else {
		p.take("+")
	}
	if r, ok, err := p.dashed(); ok || err != nil {
		return Reading{Length: sign * r, System: Imperial}, err
	}
	r, err := p.sum()
	if err != nil {
		return Reading{}, err
	}
	r.Length *= sign
	for i := range r.Others {
		r.Others[i].Length *= sign
	}
	return r, nil
}

// dashed reads feet-inches and feet-inches-fraction: 8-6, 8-6-1/2. A fraction
// straight after the dash is not feet: 6-1/2 is six and a half inches, as
// carpenters write it, and 6 ft 1/2 in is 6-0-1/2.
func (p *parser) dashed() (Length, bool, error) {
	if len(p.tokens) < p.pos+3 || !p.tokens[p.pos].number || p.tokens[p.pos+1].text != "-" || p.tokens[p.pos+1].number || p.isFraction(p.pos+2) {
		return 0, false, nil
	}
	feet, err := p.whole()
	if err != nil {
		return 0, true, err
	}
	p.pos++ // the dash
	inches, fraction, err := p.mixed(true)
	if err != nil {
		return 0, true, err
	}
	if inches+fraction >= 12 {
		return 0, true, p.fail(p.input, "inches after feet run from 0 to less than 12")
	}
	p.take(`"`)
	if p.pos < len(p.tokens) {
		return 0, true, p.fail(p.peek().text, "nothing may follow feet-inches-fraction")
	}
	return Imperial.of(12*feet + inches + fraction), true, nil
}

// sum reads one or more numbers, each with its unit: 8' 6 1/2", 2 m 45 cm.
func (p *parser) sum() (Reading, error) {
	total := 0.0
	var last unit
	parts := 0
	for p.pos < len(p.tokens) {
		start := p.peek().text
		value, fraction, err := p.mixed(false)
		if err != nil {
			return Reading{}, err
		}
		next := p.peek()
		u, named := unitsByName[next.text]
		switch {
		case named && !next.number:
			p.pos++
		case p.pos < len(p.tokens) && !next.number && next.text != "-":
			return Reading{}, p.fail(next.text, "not a unit that Mallow knows (ft, in, m, cm, mm)")
		case last == unit{12, Imperial}:
			u = unit{1, Imperial} // 8ft 6.5
		case parts > 0:
			return Reading{}, p.fail(start, "which unit is it in?")
		case p.pos < len(p.tokens):
			return Reading{}, p.fail(next.text, "put a unit between the two numbers, as in 8' 6\" or 8-6")
		case fraction != 0:
			u = unit{1, Imperial} // only inches are divided into fractions
		default:
			return p.bare(value), nil
		}
		if parts > 0 && u.sys != last.sys {
			return Reading{}, p.fail(start+" "+next.text, "one entry, one system: feet and inches, or metres")
		}
		if parts > 0 && u.size >= last.size {
			return Reading{}, p.fail(start+" "+next.text, "the bigger unit comes first")
		}
		amount := (value + fraction) * u.size
		if parts > 0 && amount >= last.size {
			return Reading{}, p.fail(start, fmt.Sprintf("must be less than one of the unit before it (%g)", last.size/u.size))
		}
		total += amount
		last = u
		parts++
		if p.take("-") && p.pos == len(p.tokens) { // 8'-6" is as common as 8' 6"
			return Reading{}, p.fail("-", "something is missing after it")
		}
	}
	if parts == 0 {
		return Reading{}, p.fail(p.input, "no number in it")
	}
	return Reading{Length: last.sys.of(total), System: last.sys}, nil
}

func (p *parser) bare(value float64) Reading {
	in, mm := Other{"in", Length(value) * Inch}, Other{"mm", Length(value) * Millimetre}
	ft, m := Other{"ft", Length(value) * Foot}, Other{"m", Length(value) * Metre}
	small, big, otherSmall, otherBig := in, ft, mm, m
	if p.sys == Metric {
		small, big, otherSmall, otherBig = mm, m, in, ft
	}
	if p.as.big(value, p.sys) {
		return Reading{Length: big.Length, Bare: true, Unit: big.Unit, Others: []Other{small, otherBig}, System: p.sys}
	}
	return Reading{Length: small.Length, Bare: true, Unit: small.Unit, Others: []Other{big, otherSmall}, System: p.sys}
}

func (p *parser) whole() (float64, error) {
	t := p.peek()
	v, err := strconv.ParseUint(t.text, 10, 31)
	if err != nil || !t.number {
		return 0, p.fail(t.text, "a whole number belongs here")
	}
	p.pos++
	return float64(v), nil
}

// mixed reads 6, 6.5, 1/2, 6 1/2, and 6-1/2 where a dash joins the parts.
func (p *parser) mixed(dashed bool) (whole, fraction float64, err error) {
	t := p.peek()
	if !t.number {
		if t.text == "" {
			return 0, 0, p.fail("", "something is missing at the end")
		}
		return 0, 0, p.fail(t.text, "a number belongs here")
	}
	if p.isFraction(p.pos) {
		fraction, err = p.fraction()
		return 0, fraction, err
	}
	whole, err = p.decimal()
	if err != nil {
		return 0, 0, err
	}
	at := p.pos
	if p.peek().text == "-" && (dashed || p.isFraction(p.pos+1)) {
		at++
	}
	if p.isFraction(at) {
		if whole != math.Trunc(whole) {
			return 0, 0, p.fail(p.tokens[at].text, "a decimal and a fraction do not go together")
		}
		p.pos = at
		fraction, err = p.fraction()
	}
	return whole, fraction, err
}

func (p *parser) isFraction(at int) bool {
	return at+2 < len(p.tokens) && p.tokens[at].number && p.tokens[at+1].text == "/" && p.tokens[at+2].number
}

func (p *parser) fraction() (float64, error) {
	text := p.tokens[p.pos].text + "/" + p.tokens[p.pos+2].text
	n, err := p.whole()
	if err != nil {
		return 0, err
	}
	p.pos++ // the stroke
	d, err := p.whole()
	if err != nil {
		return 0, err
	}
	if d == 0 || n >= d {
		return 0, p.fail(text, "a fraction is less than one: write 1 1/2, not 3/2")
	}
	return n / d, nil
}

func (p *parser) decimal() (float64, error) {
	t := p.peek()
	text := t.text
	if i := strings.IndexByte(text, ','); i >= 0 {
		if strings.Count(text, ",") > 1 || strings.Contains(text, ".") || len(text)-i == 4 {
			return 0, p.fail(text, "is the comma a decimal point? Write 1.250 or 1250")
		}
		text = strings.Replace(text, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || len(text) > 15 {
		return 0, p.fail(t.text, "not a number")
	}
	p.pos++
	return v, nil
}
