package document

import (
	"bytes"
	"encoding/json"
	"fmt"

	"mallow/core/job"
	"mallow/core/words"
)

// Apply makes the edits in order and returns the changed document. Fields
// that Mallow does not know stay as they are. What a list holds is gone to by
// its id; a value set where no entry has the id is a new entry, at the end.
func Apply(doc []byte, edits []job.Edit) ([]byte, error) {
	tree, err := current(doc)
	if err != nil {
		return nil, err
	}
	if err := apply(tree, edits); err != nil {
		return nil, err
	}
	name(tree) // what was put in without
	return json.Marshal(tree)
}

// editError is an edit that cannot be made.
type editError struct{ path, why string }

func (e editError) Error() string {
	return words.Plain("document.edit-of", words.V{"path": e.path, "why": e.why})
}

func apply(tree map[string]any, edits []job.Edit) error {
	for _, e := range edits {
		value, err := plainly(e.Value)
		if err != nil {
			return fmt.Errorf("edit of %s: %w", e.Path, err)
		}
		names := job.Names(e.Path)
		if n := len(names) + depthOf(value); n > deepest {
			return Errors{{e.Path, words.Plain("document.deeper-nesting"), words.Plain("document.at-most-levels", words.V{"deepest": deepest})}}
		}
		if _, err := put(tree, names, value, e.Path); err != nil {
			return err
		}
	}
	return nil
}

// plainly is a value as it is read from a document.
func plainly(v any) (any, error) {
	if isPlain(v) {
		return v, nil
	}
	raw, err := json.Marshal(v)
	if err != nil {
		return nil, err
	}
	var out any
	dec := json.NewDecoder(bytes.NewReader(raw))
	dec.UseNumber()
	return out, dec.Decode(&out)
}

// depthOf is how many levels of objects and lists a value has within it.
func depthOf(v any) (deep int) {
	switch v := v.(type) {
	case map[string]any:
		for _, within := range v {
			deep = max(deep, 1+depthOf(within))
		}
	case []any:
		for _, within := range v {
			deep = max(deep, 1+depthOf(within))
		}
	}
	return deep
}

// isPlain tells whether a value is as a document is read: its numbers as they
// are written.
func isPlain(v any) bool {
	switch v := v.(type) {
	case nil, string, bool, json.Number:
		return true
	case map[string]any:
		for _, value := range v {
			if !isPlain(value) {
				return false
			}
		}
		return true
	case []any:
		for _, value := range v {
			if !isPlain(value) {
				return false
			}
		}
		return true
	}
	return false
}

func put(node any, steps []string, value any, path string) (any, error) {
	if len(steps) == 0 {
		return value, nil
	}
	switch n := node.(type) {
	case map[string]any:
		if len(steps) == 1 && value == nil {
			delete(n, steps[0])
			return n, nil
		}
		child, ok := n[steps[0]]
		switch {
		case !ok && value == nil:
			return n, nil // it is gone already
		case !ok && len(steps) > 1 && job.IsList(steps[0]):
			child = []any{}
		case !ok && len(steps) > 1:
			child = map[string]any{}
		}
		var changed any
		var err error
		if list, ok := child.([]any); ok && len(steps) > 1 {
			changed, err = putEntry(steps[0], list, steps[1:], value, path)
		} else {
			changed, err = put(child, steps[1:], value, path)
		}
		if err == nil {
			n[steps[0]] = changed
		}
		return n, err
	}
	return node, editError{path, words.Plain("document.nothing-to-go-into", words.V{"at": steps[0]})}
}

// putEntry goes into an entry of a list, takes it out, or adds it.
func putEntry(name string, list []any, steps []string, value any, path string) (any, error) {
	i, last := find(list, steps[0]), len(steps) == 1
	switch {
	case i < 0 && last && value == nil:
		return list, nil // it is gone already
	case !job.IsList(name):
		return list, editError{path, words.Plain("document.a-plain-list-is-set-as-one")}
	case i < 0 && last:
		if key, ok := keyOf(value); !ok || key != steps[0] {
			return list, editError{path, words.Plain("document.a-new-entry-has-the-id", words.V{"id": steps[0]})}
		}
		return append(list, value), nil
	case i < 0 && name == "kinds": // its name is all that an entry needs
		list, i = append(list, map[string]any{"kind": steps[0]}), len(list)
	case i < 0:
		return list, editError{path, words.Plain("document.no-entry", words.V{"id": steps[0]})}
	case last && value == nil:
		return append(list[:i:i], list[i+1:]...), nil
	}
	changed, err := put(list[i], steps[1:], value, path)
	if err == nil {
		list[i] = changed
	}
	return list, err
}
