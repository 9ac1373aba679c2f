package document

import (
	"encoding/json"
	"mallow/core/job"
	"maps"
	"slices"
	"sort"
	"strings"
)

// Clash is one field that two windows changed to different values. A value
// that is left out was taken away.
type Clash struct {
	Path   string `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer into the merged document."`
	Mine   any    `json:"mine,omitempty"`
	Theirs any    `json:"theirs,omitempty"`
}

// absent stands where a tree has no such field.
type absent struct{}

// Merge lays two changes of one document over each other: fields that only one
// side changed are that side's. Where both changed the same field to different
// values the merged document has theirs, and the clash says both. Lists whose
// items have ids are merged item by item; any other list is one field.
func Merge(base, mine, theirs []byte) (merged []byte, clashes []Clash, err error) {
	var trees [3]map[string]any
	for i, doc := range [][]byte{base, mine, theirs} {
		if trees[i], err = current(doc); err != nil {
			return nil, nil, err
		}
	}
	m := merger{}
	out := m.merge("", trees[0], trees[1], trees[2])
	merged, err = json.Marshal(out)
	return merged, m.clashes, err
}

type merger struct{ clashes []Clash }

// same tells whether two trees are alike. It is called for every entry of a
// document, and ten times as fast as going by reflection.
func same(a, b any) bool {
	switch x := a.(type) {
	case map[string]any:
		y, ok := b.(map[string]any)
		if !ok || len(x) != len(y) {
			return false
		}
		for name, v := range x {
			w, there := y[name]
			if !there || !same(v, w) {
				return false
			}
		}
		return true
	case []any:
		y, ok := b.([]any)
		return ok && slices.EqualFunc(x, y, same)
	}
	switch b.(type) {
	case map[string]any, []any:
		return false
	}
	return a == b
}

func (m *merger) merge(path string, base, mine, theirs any) any {
	switch {
	case same(mine, theirs), same(base, mine):
		return theirs
	case same(base, theirs):
		return mine
	}
	if x, ok := mine.(map[string]any); ok {
		if y, ok := theirs.(map[string]any); ok {
			b, _ := base.(map[string]any)
			return m.objects(path, b, x, y)
		}
	}
	x, fine := byID(mine)
	y, fineToo := byID(theirs)
	if b, ok := byID(base); fine && fineToo && (ok || base == (absent{})) {
		return m.lists(path, b, x, y)
	}
	m.clashes = append(m.clashes, Clash{path, shown(mine), shown(theirs)})
	return theirs
}

func shown(v any) any {
	if v == (absent{}) {
		return nil
	}
	return v
}

func (m *merger) objects(path string, base, mine, theirs map[string]any) map[string]any {
	names := map[string]bool{}
	for _, t := range []map[string]any{base, mine, theirs} {
		for name := range t {
			names[name] = true
		}
	}
	get := func(t map[string]any, name string) any {
		if v, ok := t[name]; ok {
			return v
		}
		return absent{}
	}
	out := map[string]any{}
	for _, name := range slices.Sorted(maps.Keys(names)) {
		if v := m.merge(path+"/"+name, get(base, name), get(mine, name), get(theirs, name)); v != (absent{}) {
			out[name] = v
		}
	}
	return out
}

// items is a list whose items have ids.
type items struct {
	ids  []string
	item map[string]any
}

func (l items) get(id string) any {
	if v, ok := l.item[id]; ok {
		return v
	}
	return absent{}
}

// byID reads a list by what tells its items apart; false where some have
// nothing that does, or two the same.
func byID(v any) (items, bool) {
	list, ok := v.([]any)
	out := items{item: map[string]any{}}
	if !ok {
		return out, false
	}
	for _, x := range list {
		id, ok := keyOf(x)
		if _, twice := out.item[id]; !ok || twice {
			return out, false
		}
		out.ids, out.item[id] = append(out.ids, id), x
	}
	return out, true
}

// apart gives what both sides added under one id two ids: each meant a thing
// of its own.
func (l items) apart(base, theirs items) items {
	out := items{item: maps.Clone(l.item)}
	for _, id := range l.ids {
		o, isObject := l.item[id].(map[string]any)
		_, has := o["id"]
		if _, there := theirs.item[id]; !there || base.get(id) != (absent{}) || !isObject || !has || same(l.item[id], theirs.item[id]) {
			out.ids = append(out.ids, id)
			continue
		}
		other := job.FreeID(strings.TrimRight(id, "0123456789"), func(id string) bool {
			_, mine := out.item[id]
			_, their := theirs.item[id]
			return mine || their || base.get(id) != (absent{})
		})
		o = maps.Clone(o)
		o["id"] = other
		delete(out.item, id)
		out.ids, out.item[other] = append(out.ids, other), o
	}
	return out
}

// lists merges two lists item by item, in their order; what only mine has is
// put behind what stands before it there.
func (m *merger) lists(path string, base, mine, theirs items) []any {
	if !strings.HasSuffix(path, "/lines") && !strings.HasSuffix(path, "/runs") { // others point at these by their ids
		mine = mine.apart(base, theirs)
	}
	ids := slices.Clone(theirs.ids)
	for i, id := range mine.ids {
		if slices.Contains(ids, id) {
			continue
		}
		at := len(ids)
		for k := i - 1; k >= 0; k-- {
			if n := slices.Index(ids, mine.ids[k]); n >= 0 {
				at = n + 1
				break
			}
		}
		if i == 0 {
			at = 0
		}
		ids = slices.Insert(ids, at, id)
	}
	out := []any{}
	before := len(m.clashes)
	for _, id := range ids {
		v := m.merge(job.At(path, id), base.get(id), mine.get(id), theirs.get(id))
		if v != (absent{}) {
			out = append(out, v)
		}
	}
	sort.SliceStable(m.clashes[before:], func(a, b int) bool { return m.clashes[before+a].Path < m.clashes[before+b].Path })
	return out
}
