package document

import (
	"encoding/json"
	"mallow/core/job"
	"reflect"
)

// ReplaceLines puts changed lines into a document. Fields that Mallow does not
// know are taken over: of an object from its old self, of a list's elements
// from the old element with the same id. Made says from which old element a
// new one was made, by their ids.
func ReplaceLines(doc []byte, lines []job.Line, made map[string]string) ([]byte, error) {
	tree, _, err := parse(doc)
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(map[string]any{"lines": lines})
	if err != nil {
		return nil, err
	}
	fresh, _, err := parse(raw)
	if err != nil {
		return nil, err
	}
	tree["lines"] = carry(tree["lines"], fresh["lines"], reflect.TypeOf(lines), made)
	return json.Marshal(tree)
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
		if id, ok := idOf(item); ok {
			byID[id] = item
		}
	}
	now, _ := fresh.([]any)
	for i, item := range now {
		id, ok := idOf(item)
		if !ok {
			continue
		}
		if from, ok := made[id]; ok && byID[id] == nil {
			id = from
		}
		now[i] = carry(byID[id], item, t.Elem(), made)
	}
}

func idOf(item any) (string, bool) {
	o, ok := item.(map[string]any)
	if !ok {
		return "", false
	}
	id, ok := o["id"].(string)
	return id, ok
}
