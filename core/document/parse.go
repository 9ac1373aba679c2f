package document

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"io"
	"slices"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/words"
)

// parse reads JSON into a tree, refusing what a map would silently hide:
// doubled names and anything after the document.
func parse(doc []byte) (map[string]any, error) {
	// Read in one go, which is several times as fast as value by value; where
	// that does not go well, or hides something, the slow way says what it is.
	dec := json.NewDecoder(bytes.NewReader(doc))
	dec.UseNumber()
	var tree map[string]any
	if err := dec.Decode(&tree); err != nil || len(bytes.TrimSpace(doc[dec.InputOffset():])) > 0 || tree == nil {
		return (&parser{}).document(doc)
	}
	if held, depth := members(tree); held != named(doc) || depth > deepest {
		return (&parser{}).document(doc)
	}
	return tree, nil
}

// members is how many names the objects of a tree hold, and how deep it is.
func members(v any) (held, depth int) {
	below := func(v any) {
		h, d := members(v)
		held, depth = held+h, max(depth, d+1)
	}
	switch x := v.(type) {
	case map[string]any:
		held = len(x)
		for _, v := range x {
			below(v)
		}
	case []any:
		for _, v := range x {
			below(v)
		}
	}
	return held, depth
}

// named is how many names stand in a text that is sound JSON: one before each
// colon outside of strings. A doubled name is hidden by a tree, not by this.
func named(doc []byte) int {
	n := 0
	for i := 0; i < len(doc); i++ {
		switch doc[i] {
		case ':':
			n++
		case '"':
			for i++; i < len(doc) && doc[i] != '"'; i++ {
				if doc[i] == '\\' {
					i++
				}
			}
		}
	}
	return n
}

// current reads a document of any version as one of this version, with every
// entry named.
func current(doc []byte) (map[string]any, error) {
	tree, err := parse(doc)
	if err != nil {
		return nil, err
	}
	if n, ok := tree["mallow"].(json.Number); ok && isOne(n) {
		fromVersion1(tree)
	}
	name(tree)
	return tree, nil
}

// parser reads a document value by value.
type parser struct {
	*json.Decoder
	stands map[string]int // where each value stands in the document, when asked for
}

func (p *parser) document(doc []byte) (map[string]any, error) {
	p.Decoder = json.NewDecoder(bytes.NewReader(doc))
	p.UseNumber()
	tree, err := p.value("", 0)
	if err != nil {
		return nil, syntax(err, p.Decoder)
	}
	if _, err := p.Token(); !errors.Is(err, io.EOF) {
		return nil, Errors{{"/", words.Plain("document.more-text-at-byte", words.V{"byte": p.InputOffset()}), words.Plain("document.one-json-object-and-nothing")}}
	}
	object, ok := tree.(map[string]any)
	if !ok {
		return nil, Errors{{"/", (&binder{}).show(tree), words.Plain("document.a-json-object")}}
	}
	return object, nil
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

func (p *parser) value(path string, depth int) (any, error) {
	if p.stands != nil {
		p.stands[path] = len(p.stands)
	}
	if depth > deepest {
		return nil, Errors{{path, words.Plain("document.deeper-nesting"), words.Plain("document.at-most-levels", words.V{"deepest": deepest})}}
	}
	t, err := p.Token()
	if err != nil {
		return nil, err
	}
	switch t {
	case json.Delim('{'):
		object := map[string]any{}
		for p.More() {
			key, err := p.Token()
			if err != nil {
				return nil, err
			}
			name := key.(string)
			if _, twice := object[name]; twice {
				return nil, Errors{{path + "/" + name, words.Plain("document.the-name-twice"), words.Plain("document.each-name-once")}}
			}
			if object[name], err = p.value(path+"/"+name, depth+1); err != nil {
				return nil, err
			}
		}
		_, err = p.Token()
		return object, err
	case json.Delim('['):
		list := []any{}
		for p.More() {
			item, err := p.value(path+"/"+nth(len(list)), depth+1)
			if err != nil {
				return nil, err
			}
			list = append(list, item)
		}
		_, err = p.Token()
		return list, err
	}
	return t, nil
}

// nth stands for the name of an entry that has none: #2 is the second.
func nth(i int) string { return "#" + strconv.Itoa(i+1) }

// keyOf is the name of an entry of a list: its id, or the kind of post that
// it is for. Entries of plain lists have none.
func keyOf(entry any) (string, bool) {
	o, ok := entry.(map[string]any)
	if !ok {
		return "", false
	}
	if id, ok := o["id"].(string); ok {
		return id, id != ""
	}
	if _, named := o["id"]; named {
		return "", false
	}
	kind, ok := o["kind"].(string)
	return kind, ok && kind != ""
}

// find is the place of an entry in a list; −1 where it is not there.
func find(list []any, key string) int {
	return slices.IndexFunc(list, func(entry any) bool {
		k, ok := keyOf(entry)
		return ok && k == key
	})
}

// sorted brings errors into the document's order, always the same: what is
// missing comes where the object begins that lacks it.
func sorted(doc []byte, tree map[string]any, e Errors) Errors {
	p := parser{stands: map[string]int{}}
	if _, err := p.document(doc); err != nil {
		return e
	}
	at := func(path string) int {
		path = byPlace(tree, path)
		for {
			if n, ok := p.stands[path]; ok {
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

// byPlace is an address with the places of entries for their ids.
func byPlace(tree any, path string) string {
	out := ""
	for _, step := range job.Names(path) {
		if list, ok := tree.([]any); ok {
			if i := find(list, step); i >= 0 {
				out, tree = out+"/"+nth(i), list[i]
				continue
			}
		}
		o, _ := tree.(map[string]any)
		out, tree = out+"/"+step, o[step]
	}
	return out
}

func isOne(n json.Number) bool {
	v, err := n.Float64()
	return err == nil && v == 1
}
