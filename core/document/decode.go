// Package document reads, checks, merges and writes job documents: what comes in
// is named by its field, with what was given and what is allowed.
package document

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"io"
	"math"
	"reflect"
	"slices"
	"sort"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// Usual gives the usual run and gate of a measuring system; what a document
// leaves out is taken from it.
type Usual interface {
	UsualRun(length.System) job.Run
	UsualGate(length.System) job.Gate
	UsualRules(length.System) job.Said
}

// Decode reads and checks a job document. What it leaves out takes its usual
// value. It returns the JSON pointers of fields that it does not know, which
// stay in the document but are not used. Errors about the document's content
// are of type Errors.
func Decode(doc []byte, usual Usual) (job.Job, []string, error) {
	tree, order, err := parse(doc)
	if err != nil {
		return job.Job{}, nil, err
	}
	if err := checkVersion(tree); err != nil {
		return job.Job{}, nil, err
	}
	sys := systemOf(tree)
	units := length.Usual(sys)
	b := binder{printed: readable(units), usual: func(v reflect.Value) {
		switch at := v.Addr().Interface().(type) {
		case *job.Run:
			*at = usual.UsualRun(sys)
		case *job.Gate:
			*at = usual.UsualGate(sys)
		}
	}}
	var j job.Job
	b.object("", tree, reflect.ValueOf(&j).Elem())
	sort.Strings(b.unknown)
	if len(b.errors) > 0 {
		return job.Job{}, b.unknown, order.sorted(b.errors)
	}
	if errs := Check(j); len(errs) > 0 {
		return j, b.unknown, order.sorted(errs)
	}
	return j, b.unknown, nil
}

// order is where each value of a document stands in it.
type order map[string]int

// sorted brings errors into the document's order, always the same: what is
// missing comes where the object begins that lacks it.
func (o order) sorted(e Errors) Errors {
	at := func(path string) int {
		for {
			if n, ok := o[path]; ok {
				return n
			}
			k := strings.LastIndexByte(path, '/')
			if k < 0 {
				return 0
			}
			path = path[:k]
		}
	}
	slices.SortStableFunc(e, func(a, b FieldError) int {
		return cmp.Or(cmp.Compare(at(a.Field), at(b.Field)), cmp.Compare(a.Field, b.Field))
	})
	return e
}

// readable prints the limits of lengths: what no tape reaches in kilometres or
// miles.
func readable(u length.Units) func(length.Length) string {
	return func(l length.Length) string {
		switch {
		case l.Abs() < 1000*length.Metre:
			return u.Short(l)
		case u.System == length.Metric:
			return words.Plain("document.km", words.V{"metres": math.Round(l.Metres() / 1000)})
		}
		return words.Plain("document.miles", words.V{"least": math.Floor(l.Metres() / 1609.344)})
	}
}

// systemOf looks ahead for the system, which decides the usual values; the
// binder reports it if it is wrong.
func systemOf(tree map[string]any) length.System {
	units, _ := tree["units"].(map[string]any)
	if units["system"] == string(length.Metric) {
		return length.Metric
	}
	return length.Imperial
}

func checkVersion(tree map[string]any) error {
	given, ok := tree["mallow"]
	if !ok {
		return Errors{{"/mallow", "nothing", words.Plain("document.1-the-version-of-the")}}
	}
	n, isNumber := given.(json.Number)
	if v, err := strconv.ParseFloat(n.String(), 64); isNumber && err == nil && v == job.Version {
		return nil
	}
	shown := (&binder{}).show(given)
	if v, err := n.Int64(); isNumber && err == nil && v > job.Version {
		return Errors{{"/mallow", shown, words.Plain("document.1-this-document-was-written")}}
	}
	return Errors{{"/mallow", shown, "1"}}
}

// parse reads JSON into a tree, refusing what a map would silently hide:
// doubled names and anything after the document.
func parse(doc []byte) (map[string]any, order, error) {
	dec := json.NewDecoder(bytes.NewReader(doc))
	dec.UseNumber()
	stands := order{}
	tree, err := stands.value(dec, "", 0)
	if err != nil {
		return nil, nil, syntax(err, dec)
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return nil, nil, Errors{{"/", words.Plain("document.more-text-at-byte", words.V{"byte": dec.InputOffset()}), words.Plain("document.one-json-object-and-nothing")}}
	}
	object, ok := tree.(map[string]any)
	if !ok {
		return nil, nil, Errors{{"/", (&binder{}).show(tree), words.Plain("document.a-json-object")}}
	}
	return object, stands, nil
}

func syntax(err error, dec *json.Decoder) error {
	var e Errors
	if errors.As(err, &e) {
		return e
	}
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return Errors{{"/", words.Plain("document.a-text-that-ends-at", words.V{"byte": dec.InputOffset()}), words.Plain("document.a-whole-json-object")}}
	}
	return Errors{{"/", words.Plain("document.text-that-is-not-json", words.V{"byte": dec.InputOffset(), "err": err}), words.Plain("document.a-json-object")}}
}

const deepest = 32

func (o order) value(dec *json.Decoder, path string, depth int) (any, error) {
	o[path] = len(o)
	if depth > deepest {
		return nil, Errors{{path, words.Plain("document.deeper-nesting"), words.Plain("document.at-most-levels", words.V{"deepest": deepest})}}
	}
	t, err := dec.Token()
	if err != nil {
		return nil, err
	}
	switch t {
	case json.Delim('{'):
		object := map[string]any{}
		for dec.More() {
			key, err := dec.Token()
			if err != nil {
				return nil, err
			}
			name := key.(string)
			if _, twice := object[name]; twice {
				return nil, Errors{{path + "/" + name, words.Plain("document.the-name-twice"), words.Plain("document.each-name-once")}}
			}
			if object[name], err = o.value(dec, path+"/"+name, depth+1); err != nil {
				return nil, err
			}
		}
		_, err = dec.Token()
		return object, err
	case json.Delim('['):
		list := []any{}
		for dec.More() {
			item, err := o.value(dec, path+"/"+strconv.Itoa(len(list)), depth+1)
			if err != nil {
				return nil, err
			}
			list = append(list, item)
		}
		_, err = dec.Token()
		return list, err
	}
	return t, nil
}
