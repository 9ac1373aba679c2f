package job_test

import (
	"reflect"
	"slices"
	"strings"
	"testing"

	"mallow/core/job"
)

// Ways of setting that a document may name are those of the table, in its
// order, and each is told of in full.
func TestSettingMethodsAreThoseOfTheTable(t *testing.T) {
	tag := func(of reflect.Type, field string) []job.Method {
		f, ok := of.FieldByName(field)
		if !ok {
			t.Fatalf("%s has no %s", of, field)
		}
		var out []job.Method
		for _, rule := range strings.Split(f.Tag.Get("jsonschema"), ",") {
			if name, ok := strings.CutPrefix(rule, "enum="); ok {
				out = append(out, job.Method(name))
			}
		}
		slices.Sort(out)
		return out
	}
	sorted := func(all []job.Method) []job.Method {
		all = slices.Clone(all)
		slices.Sort(all)
		return all
	}
	if got := tag(reflect.TypeFor[job.SettingRules](), "Method"); !slices.Equal(got, sorted(job.HoleMethods)) {
		t.Errorf("a document may say %v", got)
	}
	if got := tag(reflect.TypeFor[job.Forbidden](), "Method"); !slices.Equal(got, sorted(job.Methods)) {
		t.Errorf("a system may forbid %v", got)
	}
	for _, s := range job.SettingMethods {
		if s.Name == "" || s.Done == "" || s.Starts == "" || s.Waits == "" || s.Costs == "" && s.Method != job.Drive {
			t.Errorf("%s is not told of in full: %+v", s.Method, s)
		}
		if s.Method.Told() != s {
			t.Errorf("%s is told as another", s.Method)
		}
	}
}
