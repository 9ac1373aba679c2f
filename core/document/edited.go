package document

import (
	"encoding/json"
	"errors"
	"maps"
	"reflect"
	"slices"

	"mallow/core/job"
	"mallow/core/words"
)

// Edited is the document with edits made to it, read and checked as Open does.
// What was seen on site and is not touched is not read again, for there can be
// thousands of it and a save mostly adds one. Errors about the edits or what
// comes of them are of type Errors.
func (o Opened) Edited(edits []job.Edit, usual Usual) (Opened, error) {
	for _, e := range edits {
		switch job.Names(e.Path)[0] {
		case "":
			return Opened{}, told(editError{"/", words.Plain("document.no-path")})
		case "mallow":
			return Opened{}, Errors{{"/mallow", (&binder{}).show(e.Value), words.Plain("document.versions", words.V{"version": job.Version})}}
		}
	}
	if !o.addsOnly(edits) {
		doc, err := Apply(o.Doc, edits)
		if err != nil {
			return Opened{}, told(err)
		}
		return Open(doc, usual)
	}
	seen, _ := o.tree["observed"].([]any)
	tree, touched := without(o.tree, len(seen)), map[string]bool{}
	for _, e := range edits {
		if name := job.Names(e.Path)[0]; !touched[name] {
			touched[name] = true
			tree = apart(tree, name)
		}
	}
	if err := apply(tree, edits); err != nil {
		return Opened{}, told(err)
	}
	if touched["lines"] {
		name(tree)
	}
	fresh, _ := tree["observed"].([]any)
	out := Opened{Left: o.Left, Unknown: o.Unknown, Job: o.Job, parts: map[string][]byte{}}
	for name, raw := range o.parts {
		if !touched[name] {
			out.parts[name] = raw
		}
	}
	if len(fresh) > 0 {
		tree["observed"] = fresh
		if err := out.addFacts(o, fresh); err != nil {
			return Opened{}, err
		}
	}
	if len(seen)+len(fresh) > 0 {
		tree["observed"] = append(seen[:len(seen):len(seen)], fresh...)
	}
	errs := out.take(tree, o.Job.Observed, len(touched) == 1 && touched["observed"], usual)
	if len(errs) > 0 {
		return out, sorted(o.Doc, tree, errs)
	}
	return out, out.write()
}

// told is what is wrong with an edit, as an error about a field.
func told(err error) error {
	var e editError
	if !errors.As(err, &e) {
		return err
	}
	return Errors{{e.path, e.why, words.Plain("document.an-edit-of-what-is-there")}}
}

// addsOnly tells whether edits leave the facts that there are as they are, with
// no more of them than a job may hold.
func (o Opened) addsOnly(edits []job.Edit) bool {
	added := map[string]bool{}
	for _, e := range edits {
		switch to := job.Names(e.Path); {
		case to[0] != "observed":
		case len(to) != 2 || e.Value == nil || to[1] == "":
			return false
		default:
			added[to[1]] = true
		}
	}
	if len(o.Job.Observed)+len(added) > mostFacts() {
		return false
	}
	return !slices.ContainsFunc(o.Job.Observed, func(f job.Fact) bool { return added[f.ID] })
}

// mostFacts is how many facts a job may hold, as its schema says.
func mostFacts() int {
	for _, f := range fieldsOf(reflect.TypeFor[job.Job]()).list {
		if f.name == "observed" {
			return int(f.lim.mostItems)
		}
	}
	return 0
}

// without is a document without its first facts.
func without(tree map[string]any, facts int) map[string]any {
	list, ok := tree["observed"].([]any)
	if !ok || facts == 0 {
		return tree
	}
	tree = maps.Clone(tree)
	if tree["observed"] = list[facts:]; len(list) == facts {
		delete(tree, "observed")
	}
	return tree
}

// apart is a document in which one field can be changed by itself.
func apart(tree map[string]any, name string) map[string]any {
	tree = maps.Clone(tree)
	if value, there := tree[name]; there {
		tree[name] = copied(value)
	}
	return tree
}

// copied is a value of a document that can be changed by itself.
func copied(v any) any {
	switch v := v.(type) {
	case map[string]any:
		out := make(map[string]any, len(v))
		for name, value := range v {
			out[name] = copied(value)
		}
		return out
	case []any:
		out := make([]any, len(v))
		for i, value := range v {
			out[i] = copied(value)
		}
		return out
	}
	return v
}

// addFacts writes facts behind those of the document that it is made of.
func (o *Opened) addFacts(was Opened, fresh []any) error {
	more, err := json.Marshal(fresh)
	if err != nil {
		return err
	}
	before := was.parts["observed"]
	if before == nil && was.tree["observed"] != nil {
		if before, err = json.Marshal(was.tree["observed"]); err != nil {
			return err
		}
	}
	if n := len(before); n > len("[]") { // [ … ] and [ … ]: one list
		more = slices.Concat(before[:n-1], []byte{','}, more[1:])
	}
	o.parts["observed"] = more
	return nil
}

// write writes the tree as json.Marshal does, field by field: those that were
// written before and did not change, as they were.
func (o *Opened) write() error {
	parts, size := make(map[string][]byte, len(o.tree)), 0
	for name, value := range o.tree {
		raw := o.parts[name]
		if raw == nil {
			var err error
			if raw, err = json.Marshal(value); err != nil {
				return err
			}
		}
		parts[name] = raw
		size += len(name) + len(raw) + 8
	}
	doc := append(make([]byte, 0, size), '{')
	for i, name := range slices.Sorted(maps.Keys(parts)) {
		if i > 0 {
			doc = append(doc, ',')
		}
		key, err := json.Marshal(name)
		if err != nil {
			return err
		}
		doc = append(append(append(doc, key...), ':'), parts[name]...)
	}
	o.Doc, o.parts = append(doc, '}'), parts
	return nil
}
