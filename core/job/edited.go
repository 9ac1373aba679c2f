package job

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
)

// Edited returns the run as edits of the document change it, whose pointers
// begin with the run's own path. It shares what it does not change with the
// run that it is made from. What an edit takes away is as usual again.
func (r Run) Edited(path string, usual Run, edits []Edit) (Run, error) {
	r = r.asked()
	for _, e := range edits {
		rest, ok := strings.CutPrefix(e.Path, path+"/")
		if !ok {
			return r, fmt.Errorf("edit of %s: not of the run at %s", e.Path, path)
		}
		if err := setIn(reflect.ValueOf(&r).Elem(), reflect.ValueOf(usual), Names(rest), e); err != nil {
			return r, err
		}
	}
	return r.Settled(), nil
}

// setIn makes an edit below a value, copying what it goes through. Usual is
// the same value as it usually is, or none.
func setIn(v, usual reflect.Value, steps []string, e Edit) error {
	if len(steps) == 0 {
		return setTo(v, usual, e)
	}
	switch v.Kind() {
	case reflect.Pointer:
		fresh := reflect.New(v.Type().Elem())
		if !v.IsNil() {
			fresh.Elem().Set(v.Elem())
		}
		if usual.IsValid() {
			usual = usual.Elem() // none where it is nil
		}
		v.Set(fresh)
		return setIn(fresh.Elem(), usual, steps, e)
	case reflect.Struct:
		i := fieldNamed(v.Type(), steps[0])
		if i == nil {
			break
		}
		if usual.IsValid() {
			usual = usual.FieldByIndex(i)
		}
		return setIn(v.FieldByIndex(i), usual, steps[1:], e)
	case reflect.Slice:
		return setEntry(v, steps, e)
	}
	return fmt.Errorf("edit of %s: nothing to go into at %s", e.Path, steps[0])
}

// setEntry makes an edit in, or of, an entry of a list, as document.Apply does.
func setEntry(v reflect.Value, steps []string, e Edit) error {
	if v.Type().Elem().Kind() != reflect.Struct {
		return fmt.Errorf("edit of %s: a list of plain values is set as one", e.Path)
	}
	list := reflect.AppendSlice(reflect.MakeSlice(v.Type(), 0, v.Len()+1), v)
	at, key := 0, fieldNamed(v.Type().Elem(), "id")
	kinds := key == nil
	if kinds {
		key = fieldNamed(v.Type().Elem(), "kind")
	}
	for at < list.Len() && list.Index(at).FieldByIndex(key).String() != steps[0] {
		at++
	}
	switch last := len(steps) == 1; {
	case last && e.Value == nil:
		if at < list.Len() {
			list = reflect.AppendSlice(list.Slice(0, at), v.Slice(at+1, v.Len()))
		}
		v.Set(list)
		return nil
	case at == list.Len() && !last && !kinds:
		return fmt.Errorf("edit of %s: no entry %s", e.Path, steps[0])
	case at == list.Len():
		entry := reflect.New(v.Type().Elem()).Elem()
		entry.FieldByIndex(key).SetString(steps[0])
		list = reflect.Append(list, entry)
	}
	v.Set(list)
	return setIn(list.Index(at), reflect.Value{}, steps[1:], e)
}

func setTo(v, usual reflect.Value, e Edit) error {
	if e.Value == nil {
		if !usual.IsValid() {
			usual = reflect.Zero(v.Type())
		}
		v.Set(usual)
		return nil
	}
	given := reflect.ValueOf(e.Value)
	if v.Kind() == reflect.Pointer && given.Kind() != reflect.Pointer {
		fresh := reflect.New(v.Type().Elem())
		v.Set(fresh)
		v = fresh.Elem()
	}
	switch {
	case given.Type().AssignableTo(v.Type()):
		v.Set(given)
		return nil
	case given.Kind() == v.Kind() && given.CanConvert(v.Type()):
		v.Set(given.Convert(v.Type()))
		return nil
	}
	// Into a value of its own: what is there is shared with the run that the
	// edit is made from, and decoding writes over lists in place.
	fresh := reflect.New(v.Type())
	if err := decodeOver(fresh, usual, e.Value); err != nil {
		return fmt.Errorf("edit of %s: %w", e.Path, err)
	}
	v.Set(fresh.Elem())
	return nil
}

// decodeOver decodes what is usual, if anything, and a value over it.
func decodeOver(into, usual reflect.Value, value any) error {
	layers := []any{value}
	if usual.IsValid() && usual.Type() == into.Type().Elem() {
		layers = []any{usual.Interface(), value}
	}
	for _, layer := range layers {
		raw, err := json.Marshal(layer)
		if err == nil {
			err = json.Unmarshal(raw, into.Interface())
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// fieldNamed finds a struct's field by its name in documents.
func fieldNamed(t reflect.Type, name string) []int {
	for _, f := range reflect.VisibleFields(t) {
		tag, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if tag == name && tag != "-" && f.IsExported() {
			return f.Index
		}
	}
	return nil
}
