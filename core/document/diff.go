package document

import (
	"maps"
	"slices"

	"mallow/core/job"
)

// Since is the edits that made a document of an earlier one.
func (o Opened) Since(before Opened) []job.Edit { return diff("", before.tree, o.tree, []job.Edit{}) }

// diff adds what makes one object another.
func diff(path string, from, to map[string]any, out []job.Edit) []job.Edit {
	for _, name := range slices.Sorted(maps.Keys(from)) {
		if _, stays := to[name]; !stays {
			out = append(out, job.Set(job.At(path, name), nil))
		}
	}
	for _, name := range slices.Sorted(maps.Keys(to)) {
		was, there := from[name]
		now, at := to[name], job.At(path, name)
		a, isObject := was.(map[string]any)
		b, staysOne := now.(map[string]any)
		list, isList := was.([]any)
		more, staysList := now.([]any)
		switch {
		case isObject && staysOne:
			out = diff(at, a, b, out)
		case isList && staysList && job.IsList(name) && name != "laid": // which is worked out, all of it
			out = diffList(at, list, more, out)
		case !there || !same(was, now):
			out = append(out, job.Set(at, now))
		}
	}
	return out
}

// diffList adds what makes one list another, entry by entry where their order
// comes out right.
func diffList(path string, from, to []any, out []job.Edit) []job.Edit {
	was, ok := byID(from)
	now, fine := byID(to)
	if !ok || !fine || !slices.Equal(now.ids, after(was, now)) {
		if same(from, to) {
			return out
		}
		return append(out, job.Set(path, to))
	}
	for _, id := range was.ids {
		if now.get(id) == (absent{}) {
			out = append(out, job.Set(job.At(path, id), nil))
		}
	}
	for _, id := range now.ids {
		a, isObject := was.get(id).(map[string]any)
		b, staysOne := now.item[id].(map[string]any)
		if same(was.get(id), now.item[id]) {
			continue
		}
		if isObject && staysOne {
			out = diff(job.At(path, id), a, b, out)
		} else {
			out = append(out, job.Set(job.At(path, id), now.item[id]))
		}
	}
	return out
}

// after is the order of a list whose entries are taken out and added by edits.
func after(was, now items) []string {
	var out []string
	for _, id := range was.ids {
		if now.get(id) != (absent{}) {
			out = append(out, id)
		}
	}
	for _, id := range now.ids {
		if was.get(id) == (absent{}) {
			out = append(out, id)
		}
	}
	return out
}
