// Package words holds all that the core says to a person: one file of messages
// for each language. A message is written in the ICU message syntax, with the
// names and kinds of its values:
//
//	The bay between {from} and {to} is only {span, length}.
//	{count, plural, one {post is} other {posts are}} longer than any stock.
//
// Values stay numbers in the sentence that Say returns; whoever prints it does
// so in the job's units.
package words

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mallow/core/length"
	"mallow/core/reason"
)

//go:embed en.json
var english []byte

// V are the values of a message, by name.
type V map[string]any

// catalogue is the messages of one language.
type catalogue struct {
	plural   Plural
	messages map[string]entry
}

// entry is a message; one of words alone is also kept as it is said.
type entry struct {
	message message
	said    reason.Text
}

// spoken is the catalogue in use, read when the first sentence is asked for.
var spoken = sync.OnceValue(func() catalogue {
	c, err := read(english, plurals["en"])
	if err != nil {
		panic("words: en.json: " + err.Error()) // the file is built in and tested
	}
	return c
})

func read(raw []byte, plural Plural) (catalogue, error) {
	var all map[string]string
	if err := json.Unmarshal(raw, &all); err != nil {
		return catalogue{}, err
	}
	c := catalogue{plural, make(map[string]entry, len(all))}
	for id, text := range all {
		m, err := parse(text)
		if err != nil {
			return catalogue{}, fmt.Errorf("message %s: %w", id, err)
		}
		e := entry{message: m}
		if len(m) == 0 || len(m) == 1 && m[0].name == "" && m[0].british == "" {
			e.said = slices.Clip(reason.Say(text))
		}
		c.messages[id] = e
	}
	return c, nil
}

// Say returns the sentence of a message with its values. A message that the
// catalogue lacks, or a value that is missing or of another kind, is shown by
// its name in brackets: a test holds that no call in the core does this.
func Say(id string, values ...V) reason.Text {
	return spoken().sentence(id, values)
}

func (c catalogue) sentence(id string, values []V) reason.Text {
	e, ok := c.messages[id]
	if !ok {
		return reason.Say("[" + id + "]")
	}
	if e.said != nil {
		return e.said
	}
	var v V
	if len(values) > 0 {
		v = values[0]
	}
	return c.say(make(reason.Text, 0, len(e.message)+2), e.message, v)
}

// Key is a name of the document as part of a message's name: "gravel boards" is
// gravel-boards in bill.what-gravel-boards.
func Key[T ~string](name T) string {
	return strings.ReplaceAll(strings.ToLower(string(name)), " ", "-")
}

// Has tells whether there is a message.
func Has(id string) bool {
	_, ok := spoken().messages[id]
	return ok
}

// In is a message as it is printed in a system's usual units and spelling.
func In(system length.System, id string, values ...V) string {
	return Say(id, values...).Print(length.Usual(system))
}

// Plain is a message without measures and without words of two spellings: the
// name of a rule, of a setting, of a choice.
func Plain(id string, values ...V) string {
	t := Say(id, values...)
	if len(t) == 1 && t[0].Kind == reason.PlainText {
		return t[0].Text
	}
	return t.Print(length.Usual(length.Metric))
}

func (c catalogue) say(t reason.Text, m message, v V) reason.Text {
	for _, p := range m {
		if p.name == "" {
			if p.british == "" {
				t = t.Words(p.text)
			} else {
				t = t.Spelled(p.text, p.british)
			}
			continue
		}
		value, ok := v[p.name]
		if !ok {
			t = t.Words("[" + p.name + "]")
			continue
		}
		switch p.kind {
		case pluralKind:
			t = c.say(t, p.plural(c, value), v)
		case selectKind:
			t = c.say(t, p.form(fmt.Sprint(value)), v)
		default:
			t = put(t, p, value)
		}
	}
	return t
}

// put adds a value by its kind; one of another kind is shown by its name.
func put(t reason.Text, p part, value any) reason.Text {
	switch x := value.(type) {
	case string:
		if p.kind == wordsKind {
			return t.Words(x)
		}
	case length.Length:
		switch p.kind {
		case "length":
			return t.Length(x)
		case "tape":
			return t.Tape(x)
		}
	case length.Volume:
		switch p.kind {
		case "volume":
			return append(t, reason.Part{Kind: reason.Poured, Value: float64(x)})
		case "bulk":
			return append(t, reason.Part{Kind: reason.Ordered, Value: float64(x)})
		}
	case float64:
		switch p.kind {
		case "percent":
			return t.Words(strconv.FormatFloat(math.Round(x*1e4)/100, 'f', -1, 64) + " %")
		case "number":
			return append(t, reason.Part{Kind: reason.Number, Value: x})
		}
	case reason.Text:
		if p.kind == "text" {
			return append(t, x...)
		}
	default:
		if p.kind == kindOf(value) {
			return append(t, reason.Say(value)...)
		}
	}
	return t.Words("[" + p.name + "]")
}

// kindOf is the kind of a value that is said in one way only.
func kindOf(value any) string {
	switch value.(type) {
	case int, int64:
		return "number"
	case reason.As:
		return "length"
	case length.Mass:
		return "mass"
	case reason.Speed:
		return "speed"
	case reason.Force:
		return "force"
	case reason.Moment:
		return "moment"
	case reason.Pressure:
		return "pressure"
	case reason.Degrees:
		return "temperature"
	case reason.Drying:
		return "drying"
	}
	return wordsKind // a name of some type of the core's
}

// plural is the form for a number: one given for just that number, such as =0,
// or else the form of its category.
func (p part) plural(c catalogue, value any) message {
	if m, ok := p.forms["="+fmt.Sprint(value)]; ok {
		return m
	}
	return p.form(c.plural.of(value))
}
