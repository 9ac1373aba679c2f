package document

import (
	"encoding/json"
	"mallow/core/job"
	"reflect"
	"strconv"
)

// ReplaceLines puts changed lines into a document. Fields that Mallow does not
// know are taken over: of an object from its old self, of a list's elements
// from the old element with the same id. Made says from which old element a
// new one was made, by their ids.
func ReplaceLines(doc []byte, lines []job.Line, made map[string]string) ([]byte, error) {
	tree, err := current(doc)
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(map[string]any{"lines": lines})
	if err != nil {
		return nil, err
	}
	fresh, err := parse(raw)
	if err != nil {
		return nil, err
	}
	tree["lines"] = carry(tree["lines"], fresh["lines"], reflect.TypeOf(lines), made)
	placed(tree["observed"], lines)
	name(tree)
	return json.Marshal(tree)
}

// placed puts the facts where their runs and gates are now.
func placed(observed any, lines []job.Line) {
	now := map[string]job.Fact{}
	for _, l := range lines {
		for _, r := range l.Runs {
			for _, f := range r.Seen {
				if kind, _ := f.About(); kind == "run" {
					f.On = job.On("run", r.ID)
				}
				now[f.ID] = f
			}
			for _, g := range r.Gates {
				for _, f := range g.Seen {
					f.On = job.On("gate", r.ID, g.ID)
					now[f.ID] = f
				}
			}
		}
	}
	each(observed, func(o map[string]any) {
		id, _ := keyOf(o)
		if f, ok := now[id]; ok {
			if o["on"] = f.On; f.At != nil {
				o["at"] = json.Number(strconv.FormatFloat(float64(*f.At), 'g', -1, 64))
			}
			if delete(o, "turned"); f.Turned {
				o["turned"] = true
			}
		}
	})
}

func carry(old, fresh any, t reflect.Type, made map[string]string) any {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch t.Kind() {
	case reflect.Struct:
		carryFields(old, fresh, t, made)
	case reflect.Slice:
		carryItems(old, fresh, t, made)
	}
	return fresh
}

func carryFields(old, fresh any, t reflect.Type, made map[string]string) {
	was, ok := old.(map[string]any)
	now, fine := fresh.(map[string]any)
	if !ok || !fine {
		return
	}
	known := fieldsOf(t)
	for name, value := range was {
		if !known.byName[name] {
			now[name] = value
		}
	}
	for _, f := range known.list {
		if value, there := now[f.name]; there {
			now[f.name] = carry(was[f.name], value, t.Field(f.index).Type, made)
		}
	}
}

func carryItems(old, fresh any, t reflect.Type, made map[string]string) {
	was, _ := old.([]any)
	byID := map[string]any{}
	for _, item := range was {
		if id, ok := keyOf(item); ok {
			byID[id] = item
		}
	}
	now, _ := fresh.([]any)
	for i, item := range now {
		id, ok := keyOf(item)
		if !ok {
			continue
		}
		if from, ok := made[id]; ok && byID[id] == nil {
			id = from
		}
		now[i] = carry(byID[id], item, t.Elem(), made)
	}
}
