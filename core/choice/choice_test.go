package choice_test

import (
	"reflect"
	"slices"
	"strings"
	"testing"

	"mallow/core/choice"
	"mallow/core/job"
)

// fieldAt finds a field of a type by its JSON names, and its tag.
func fieldAt(of any, place string) (reflect.StructField, bool) {
	t := reflect.TypeOf(of)
	var f reflect.StructField
	for _, name := range strings.Split(place, "/") {
		if t.Kind() == reflect.Slice || t.Kind() == reflect.Pointer {
			t = t.Elem()
		}
		found := false
		for i := range t.NumField() {
			if json, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ","); json == name {
				f, found = t.Field(i), true
			}
		}
		if !found {
			return f, false
		}
		t = f.Type
	}
	return f, true
}

// place finds a field of the table in what holds it.
func place(field string) (reflect.StructField, bool) {
	for start, of := range map[string]any{"site/": job.Site{}, "hole/": job.HoleRules{}, "setting/": job.SettingRules{}} {
		if rest, ok := strings.CutPrefix(field, start); ok {
			return fieldAt(of, rest)
		}
	}
	if rest, ok := strings.CutPrefix(field, "observed/"); ok {
		return fieldAt(job.Fact{}, rest)
	}
	if rest, ok := strings.CutPrefix(field, "books/"); ok {
		return fieldAt(job.Book{}, rest)
	}
	return fieldAt(job.Run{}, field)
}

// The choices of a field are what the document takes, no more and no less, and
// each has a name of its own.
func TestChoicesAreWhatTheDocumentTakes(t *testing.T) {
	for field, list := range choice.Fields {
		f, ok := place(field)
		if !ok {
			t.Errorf("%s: there is no such field", field)
			continue
		}
		var want, got []string
		for _, part := range strings.Split(f.Tag.Get("jsonschema"), ",") {
			if v, ok := strings.CutPrefix(part, "enum="); ok {
				want = append(want, v)
			}
		}
		names := map[string]bool{}
		for _, c := range list {
			got = append(got, c.Value)
			if c.Name == "" || strings.HasPrefix(c.Name, "[") || names[c.Name] {
				t.Errorf("%s: %s is called %q", field, c.Value, c.Name)
			}
			names[c.Name] = true
		}
		slices.Sort(want)
		slices.Sort(got)
		if !slices.Equal(got, want) {
			t.Errorf("%s: offered %v, taken %v", field, got, want)
		}
	}
}

// Every rule for holes that the document takes stands in the table, entered by
// what it is; a rule that only matters while another is so names one that
// stands there, with values that it can have.
func TestEveryRuleStandsInTheTable(t *testing.T) {
	elsewhere := []string{"hole/augers", "hole/entered", "setting/entered", "hole/pin", "hole/pinDeep"} // benches of their own
	known := map[string]bool{}
	for _, r := range choice.Rules {
		if known[r.Field] {
			t.Errorf("%s stands there twice", r.Field)
		}
		known[r.Field] = true
		f, ok := place(r.Field)
		if !ok {
			t.Errorf("%s: there is no such rule", r.Field)
			continue
		}
		of := f.Type.Elem()
		want := []choice.RuleEntry{choice.Ratio, choice.Percent, choice.PerHeight}
		switch {
		case of.Name() == "Length":
			want = []choice.RuleEntry{choice.Length}
		case of.Kind() == reflect.Bool:
			want = []choice.RuleEntry{choice.Switch}
		case of.Kind() == reflect.String:
			want = []choice.RuleEntry{choice.OneOf}
		}
		if !slices.Contains(want, r.Entry) {
			t.Errorf("%s is entered as %s, want one of %v", r.Field, r.Entry, want)
		}
		if r.Entry == choice.OneOf && choice.Fields[r.Field] == nil && r.Field != "setting/bag" {
			t.Errorf("%s has no choices", r.Field)
		}
		if w := r.Where; w != nil {
			if _, ok := choice.RuleOf(w.Field); !ok {
				t.Errorf("%s hangs on %s, which does not stand there", r.Field, w.Field)
			}
			for _, v := range append(slices.Clone(w.Is), w.Not...) {
				if !slices.ContainsFunc(choice.Fields[w.Field], func(c choice.Choice) bool { return c.Value == v }) {
					t.Errorf("%s hangs on %s being %s, which it cannot be", r.Field, w.Field, v)
				}
			}
		}
	}
	for prefix, of := range map[string]any{"hole/": job.HoleRules{}, "setting/": job.SettingRules{}} {
		for i := range reflect.TypeOf(of).NumField() {
			name, _, _ := strings.Cut(reflect.TypeOf(of).Field(i).Tag.Get("json"), ",")
			if f := prefix + name; !known[f] && !slices.Contains(elsewhere, f) {
				t.Errorf("%s stands nowhere", f)
			}
		}
	}
}
