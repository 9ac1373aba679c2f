package words

import (
	"fmt"
	"slices"
	"strings"
)

// message is a sentence taken apart: words, values, and forms to choose from.
type message []part

// part is words, with how they are spelled in metres where that differs, or a
// value with its kind.
type part struct {
	text    string
	british string
	name    string
	kind    string
	forms   map[string]message
}

const (
	pluralKind = "plural"
	selectKind = "select"
	wordsKind  = "words"
)

// kinds are what a value can be. Words stand without a kind: {post}.
var kinds = []string{wordsKind, "length", "tape", "volume", "bulk", "mass", "speed", "force", "moment", "pressure", "temperature", "drying", "number", "percent", "text", pluralKind, selectKind}

// form is the words for a case, or for all others.
func (p part) form(name string) message {
	if m, ok := p.forms[name]; ok {
		return m
	}
	return p.forms["other"]
}

// parse reads a message in the ICU message syntax, as far as Mallow uses it:
// values with a kind, plural and select. Braces are never words.
func parse(s string) (message, error) {
	p := reader{rest: s}
	m, err := p.message()
	if err == nil && p.rest != "" {
		err = fmt.Errorf("a brace is closed that was not opened, at %q", p.rest)
	}
	return m, err
}

type reader struct{ rest string }

func (p *reader) message() (message, error) {
	var m message
	for p.rest != "" && p.rest[0] != '}' {
		if p.rest[0] != '{' {
			n := strings.IndexAny(p.rest, "{}")
			if n < 0 {
				n = len(p.rest)
			}
			m = append(m, spelled(p.rest[:n])...)
			p.rest = p.rest[n:]
			continue
		}
		p.rest = p.rest[1:]
		v, err := p.value()
		if err != nil {
			return nil, err
		}
		m = append(m, v)
	}
	return m, nil
}

// value reads what stands between braces.
func (p *reader) value() (part, error) {
	v := part{kind: wordsKind}
	n := strings.IndexAny(p.rest, ",}")
	if n < 0 {
		return v, fmt.Errorf("a brace is not closed, at %q", p.rest)
	}
	v.name = strings.TrimSpace(p.rest[:n])
	if v.name == "" || strings.ContainsAny(v.name, " {") {
		return v, fmt.Errorf("%q is not the name of a value", v.name)
	}
	end := p.rest[n]
	p.rest = p.rest[n+1:]
	if end == '}' {
		return v, nil
	}
	if n = strings.IndexAny(p.rest, ",}"); n < 0 {
		return v, fmt.Errorf("a brace is not closed, at %q", p.rest)
	}
	v.kind, end = strings.TrimSpace(p.rest[:n]), p.rest[n]
	p.rest = p.rest[n+1:]
	if !slices.Contains(kinds, v.kind) {
		return v, fmt.Errorf("value %s is of kind %q, which is none of %s", v.name, v.kind, strings.Join(kinds, ", "))
	}
	if chosen := v.kind == pluralKind || v.kind == selectKind; chosen != (end == ',') {
		return v, fmt.Errorf("value %s: forms follow a plural or a select, and nothing else", v.name)
	}
	if end == '}' {
		return v, nil
	}
	return v, p.choices(&v)
}

// choices reads the forms of a plural or a select: one {post} other {posts}.
func (p *reader) choices(v *part) error {
	v.forms = map[string]message{}
	for {
		p.rest = strings.TrimLeft(p.rest, " ")
		if strings.HasPrefix(p.rest, "}") {
			p.rest = p.rest[1:]
			if _, ok := v.forms["other"]; !ok {
				return fmt.Errorf("value %s has no form for all others", v.name)
			}
			return nil
		}
		n := strings.IndexByte(p.rest, '{')
		if n < 0 {
			return fmt.Errorf("value %s: a form is not closed", v.name)
		}
		name := strings.TrimSpace(p.rest[:n])
		p.rest = p.rest[n+1:]
		m, err := p.message()
		if err != nil {
			return err
		}
		if !strings.HasPrefix(p.rest, "}") {
			return fmt.Errorf("value %s: the form %s is not closed", v.name, name)
		}
		p.rest = p.rest[1:]
		v.forms[name] = m
	}
}
