package document

import (
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"strconv"
	"strings"
	"unicode/utf8"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// binder lays a parsed JSON tree over a Go value that already holds the usual
// values. It enforces the limits that stand in the types' jsonschema tags, so
// that the published schema and the check are one thing.
type binder struct {
	errors  Errors
	unknown []string
	printed func(length.Length) string
	usual   func(reflect.Value) // fills a new element with its usual values
}

var lengthType = reflect.TypeFor[length.Length]()

func (b *binder) fail(field string, given any, allowed string) {
	if len(b.errors) < enough {
		b.errors = append(b.errors, FieldError{field, b.show(given), allowed})
	}
}

// show prints a value of the document short enough for one line.
func (b *binder) show(v any) string {
	if v == nil {
		return "null"
	}
	raw, err := json.Marshal(v)
	if err != nil {
		return fmt.Sprint(v)
	}
	return Brief(string(raw))
}

// Brief is what was given, short enough for one line of an error.
func Brief(given string) string {
	if utf8.RuneCountInString(given) <= 60 {
		return given
	}
	return string([]rune(given)[:60]) + "…"
}

func (b *binder) bind(path string, given any, into reflect.Value, lim limits) {
	if into.Kind() == reflect.Pointer {
		fresh := reflect.New(into.Type().Elem())
		b.bind(path, given, fresh.Elem(), lim)
		into.Set(fresh)
		return
	}
	switch into.Kind() {
	case reflect.Struct:
		b.object(path, given, into)
	case reflect.Slice:
		b.list(path, given, into, lim)
	case reflect.Map:
		b.named(path, given, into)
	case reflect.String:
		s, ok := given.(string)
		if !ok {
			b.fail(path, given, lim.text())
			return
		}
		if why := lim.checkText(s); why != "" {
			b.fail(path, given, why)
		}
		into.SetString(s)
	case reflect.Bool:
		v, ok := given.(bool)
		if !ok {
			b.fail(path, given, words.Plain("document.true-or-false"))
			return
		}
		if len(lim.enum) > 0 && lim.enum[0] != strconv.FormatBool(v) {
			b.fail(path, given, lim.text())
		}
		into.SetBool(v)
	default:
		b.number(path, given, into, lim)
	}
}

func (b *binder) number(path string, given any, into reflect.Value, lim limits) {
	n, ok := given.(json.Number)
	isLength := into.Type() == lengthType
	if !ok {
		b.fail(path, given, b.span(lim, isLength))
		return
	}
	v, err := n.Float64()
	if err != nil || math.IsInf(v, 0) || v < lim.least || v > lim.most ||
		len(lim.enum) > 0 && strconv.FormatFloat(v, 'g', -1, 64) != lim.enum[0] ||
		into.CanInt() && v != math.Trunc(v) {
		if isLength && err == nil && !math.IsInf(v, 0) { // as a tape shows it
			if len(b.errors) < enough {
				b.errors = append(b.errors, FieldError{path, b.printed(length.Length(v)), b.span(lim, true)})
			}
			return
		}
		b.fail(path, given, b.span(lim, isLength))
		return
	}
	if into.CanInt() {
		into.SetInt(int64(v))
		return
	}
	into.SetFloat(v)
}

// span says what numbers are allowed, lengths also as the tape shows them.
func (b *binder) span(lim limits, isLength bool) string {
	switch {
	case len(lim.enum) > 0:
		return strings.Join(lim.enum, ", ")
	case isLength && !math.IsInf(lim.least, 0):
		return words.Plain("document.least-to-most", words.V{"least": b.printed(length.Length(lim.least)), "most": b.printed(length.Length(lim.most))})
	case isLength:
		return words.Plain("document.millimetres-as-a-number")
	case math.IsInf(lim.least, 0):
		return words.Plain("document.a-number")
	}
	return words.Plain("document.a-number-from-to", words.V{"least": plain(lim.least), "most": plain(lim.most)})
}

// plain is a number as people write it, unless that would be a page of noughts.
func plain(v float64) string {
	if a := math.Abs(v); a != 0 && (a < 1e-6 || a > 1e15) {
		return strconv.FormatFloat(v, 'g', -1, 64)
	}
	return strconv.FormatFloat(v, 'f', -1, 64)
}

func (b *binder) list(path string, given any, into reflect.Value, lim limits) {
	items, ok := given.([]any)
	if !ok || float64(len(items)) < lim.leastItems || float64(len(items)) > lim.mostItems {
		b.fail(path, given, lim.items())
		return
	}
	out := reflect.MakeSlice(into.Type(), len(items), len(items))
	seen := map[string]bool{}
	for i, item := range items {
		if b.usual != nil {
			b.usual(out.Index(i))
		}
		at := path // of a list of plain values, which is one value itself
		if into.Type().Elem().Kind() == reflect.Struct {
			key, ok := keyOf(item)
			if !ok {
				key = nth(i)
			}
			at = job.At(path, key)
			if ok && seen[key] {
				b.fail(at+"/"+keyField(into.Type().Elem()), key, words.Plain("document.a-name-no-other-has", words.V{"what": words.Plain("document.entry-of-the-list")}))
			}
			seen[key] = true
		}
		b.bind(at, item, out.Index(i), anything)
	}
	into.Set(out)
}

// keyField is the field that tells the entries of a list apart.
func keyField(entry reflect.Type) string {
	if fieldsOf(entry).byName["id"] {
		return "id"
	}
	return "kind"
}

func (b *binder) object(path string, given any, into reflect.Value) {
	tree, ok := given.(map[string]any)
	if !ok {
		b.fail(path, given, words.Plain("document.an-object"))
		return
	}
	fields := fieldsOf(into.Type())
	for _, f := range fields.list {
		at := path + "/" + f.name
		value, present := tree[f.name]
		if !present || value == nil && f.pointer {
			if f.lim.required {
				b.errors = append(b.errors, FieldError{at, "nothing", f.needs})
			}
			continue
		}
		b.bind(at, value, into.Field(f.index), f.lim)
	}
	for name, value := range tree {
		if _, known := fields.byName[name]; known {
			continue
		}
		if right, ok := fields.byFold[strings.ToLower(name)]; ok {
			b.fail(path+"/"+name, value, words.Plain("document.the-name-spelled-so", words.V{"right": right}))
			continue
		}
		b.unknown = append(b.unknown, path+"/"+name)
	}
}

// named reads the one kind of map that a document has: fields by name, with
// the units that they were entered in.
func (b *binder) named(path string, given any, into reflect.Value) {
	tree, ok := given.(map[string]any)
	if !ok {
		b.fail(path, given, words.Plain("document.an-object"))
		return
	}
	out := map[string]length.System{}
	for name, value := range tree {
		sys, ok := value.(string)
		if s := length.System(sys); !ok || s != length.Imperial && s != length.Metric {
			b.fail(path+"/"+name, value, words.Plain("document.imperial-metric"))
			continue
		}
		out[name] = length.System(sys)
	}
	into.Set(reflect.ValueOf(out))
}
