package document

import (
	"math"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"mallow/core/words"
)

// limits is what a field's jsonschema tag allows.
type limits struct {
	required              bool
	least, most           float64
	leastItems, mostItems float64
	leastChars, mostChars int
	enum                  []string
}

func limitsOf(tag string) limits {
	l := limits{least: math.Inf(-1), most: math.Inf(1), mostItems: math.Inf(1), mostChars: math.MaxInt}
	for _, rule := range strings.Split(tag, ",") {
		key, value, _ := strings.Cut(rule, "=")
		n, _ := strconv.ParseFloat(value, 64)
		switch key {
		case "required":
			l.required = true
		case "minimum":
			l.least = n
		case "maximum":
			l.most = n
		case "minItems":
			l.leastItems = n
		case "maxItems":
			l.mostItems = n
		case "minLength":
			l.leastChars = int(n)
		case "maxLength":
			l.mostChars = int(n)
		case "enum":
			l.enum = append(l.enum, value)
		}
	}
	return l
}

// anything is the limits of a value without a tag.
var anything = limitsOf("")

func (l limits) checkText(s string) string {
	n := utf8.RuneCountInString(s)
	if n < l.leastChars || n > l.mostChars {
		return l.text()
	}
	for _, e := range l.enum {
		if e == s {
			return ""
		}
	}
	if len(l.enum) > 0 {
		return l.text()
	}
	return ""
}

func (l limits) text() string {
	switch {
	case len(l.enum) > 0:
		return strings.Join(l.enum, ", ")
	case l.leastChars > 0:
		return words.Plain("document.text-of-to-characters", words.V{"leastChars": l.leastChars, "mostChars": l.mostChars})
	case l.mostChars < math.MaxInt:
		return words.Plain("document.text-of-at-most-characters", words.V{"mostChars": l.mostChars})
	}
	return "text"
}

func (l limits) items() string {
	switch {
	case l.mostItems == 0:
		return words.Plain("document.nothing-yet-this-version-cannot")
	case l.leastItems == l.mostItems:
		return words.Plain("document.a-list-of-this-version", words.V{"mostItems": l.mostItems})
	case math.IsInf(l.mostItems, 0):
		return words.Plain("document.a-list")
	}
	return words.Plain("document.a-list-of-to", words.V{"leastItems": l.leastItems, "mostItems": l.mostItems})
}

type field struct {
	name    string
	index   int
	pointer bool
	lim     limits
	needs   string
}

type fields struct {
	list   []field
	byName map[string]bool
	byFold map[string]string
}

var fieldCache sync.Map

// fieldsOf reads a struct's JSON names and limits once.
func fieldsOf(t reflect.Type) fields {
	if f, ok := fieldCache.Load(t); ok {
		return f.(fields)
	}
	f := fields{byName: map[string]bool{}, byFold: map[string]string{}}
	for i := range t.NumField() {
		sf := t.Field(i)
		name, _, _ := strings.Cut(sf.Tag.Get("json"), ",")
		if name == "-" {
			continue // worked out, not written
		}
		lim := limitsOf(sf.Tag.Get("jsonschema"))
		f.list = append(f.list, field{name, i, sf.Type.Kind() == reflect.Pointer, lim, needs(sf.Type, lim)})
		f.byName[name] = true
		f.byFold[strings.ToLower(name)] = name
	}
	fieldCache.Store(t, f)
	return f
}

func needs(t reflect.Type, lim limits) string {
	switch t.Kind() {
	case reflect.String:
		return lim.text()
	case reflect.Slice:
		return lim.items()
	case reflect.Struct:
		return words.Plain("document.an-object")
	}
	if len(lim.enum) > 0 {
		return strings.Join(lim.enum, ", ")
	}
	if t == lengthType {
		return words.Plain("document.millimetres-as-a-number")
	}
	return words.Plain("document.a-number")
}
