package document_test

import (
	"reflect"
	"strconv"
	"strings"
	"testing"

	"mallow/core/job"
)

// numbers lists every number of a type, as Type.field, with its limits.
func numbers(t reflect.Type, at string, seen map[reflect.Type]bool, each func(name, tag string)) {
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Array:
		numbers(t.Elem(), at, seen, each)
	case reflect.Struct:
		if seen[t] {
			return
		}
		seen[t] = true
		for i := range t.NumField() {
			f := t.Field(i)
			if f.Tag.Get("json") == "-" {
				continue // worked out, not given
			}
			name := t.Name() + "." + strings.Split(f.Tag.Get("json"), ",")[0]
			of := f.Type
			for of.Kind() == reflect.Pointer {
				of = of.Elem()
			}
			switch of.Kind() {
			case reflect.Float64, reflect.Int:
				each(name, f.Tag.Get("jsonschema"))
			default:
				numbers(f.Type, name, seen, each)
			}
		}
	}
}

// Every number of the document has a least and a most, so that no value of it
// can run a plan out of numbers.
func TestEveryNumberHasLimits(t *testing.T) {
	n := 0
	numbers(reflect.TypeFor[job.Job](), "", map[reflect.Type]bool{}, func(name, tag string) {
		n++
		if strings.HasPrefix(name, "Job.mallow") || strings.Contains(tag, "enum=") {
			return
		}
		for _, rule := range []string{"minimum=", "maximum="} {
			_, after, ok := strings.Cut(tag, rule)
			v, _, _ := strings.Cut(after, ",")
			if f, err := strconv.ParseFloat(v, 64); !ok || err != nil || f < -2e9 || f > 2e9 {
				t.Errorf("%s has no sensible %s: %q", name, rule, tag)
			}
		}
	})
	if n < 100 {
		t.Errorf("only %d numbers were found", n)
	}
}
