package plan_test

import (
	"encoding/json"
	"os"
	"slices"
	"testing"

	"mallow/core/document"
	"mallow/core/engine"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/plan"
)

// An example is a document in which something is just found, and the edits
// with which it just is, and just is not.
type example struct {
	Code  string          `json:"code"`
	Doc   json.RawMessage `json:"doc"`
	Over  []job.Edit      `json:"over"`
	Under []job.Edit      `json:"under"`
}

func examples(t testing.TB) []example {
	t.Helper()
	raw, err := os.ReadFile("testdata/findings.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []example
	if err := json.Unmarshal(raw, &all); err != nil {
		t.Fatal(err)
	}
	return all
}

// foundIn is what is found of a kind in a document as edits change it; near
// misses only when there is a way out of them.
func foundIn(t *testing.T, e example, edits []job.Edit) *finding.Finding {
	t.Helper()
	doc, err := document.Apply(e.Doc, edits)
	if err != nil {
		t.Fatalf("%s: %v", e.Code, err)
	}
	r := computed(t, decode(t, string(doc)), nil)
	figures := r.Figures().Findings
	if i := slices.IndexFunc(figures, func(f finding.Finding) bool { return f.Rule == e.Code }); i >= 0 {
		return &figures[i]
	}
	var found *finding.Finding
	if err := r.Advise(nil, nil, func(a plan.Advised) error {
		if a.More != nil && a.More.Rule == e.Code {
			found = a.More
		}
		return nil
	}); err != nil {
		t.Fatal(err)
	}
	return found
}

// Every finding is found just over its threshold and not just under it, a
// thousandth of a millimetre or less apart, or a thousandth of a degree, a
// newton, a kilogram: or, where it is or is not, with what it is about and
// without.
func TestFindingsAtTheirThresholds(t *testing.T) {
	kinds := map[string]finding.Kind{}
	for _, k := range engine.Kinds() {
		kinds[k.Rule] = k
	}
	seen := map[string]bool{}
	for _, e := range examples(t) {
		kind, ok := kinds[e.Code]
		if !ok {
			t.Errorf("%s is found by no stage", e.Code)
			continue
		}
		seen[e.Code] = true
		over, under := foundIn(t, e, e.Over), foundIn(t, e, e.Under)
		if over == nil {
			t.Errorf("%s is not found with %v", e.Code, e.Over)
			continue
		}
		if under != nil {
			t.Errorf("%s is still found with %v", e.Code, e.Under)
		}
		if !slices.Contains(kind.Severities, over.Severity) || over.Stage != kind.Stage {
			t.Errorf("%s is %s at %s; it is told to be %v at %s", e.Code, over.Severity, over.Stage, kind.Severities, kind.Stage)
		}
	}
	for code := range kinds {
		if !seen[code] && code != "not-all-weighed" { // that one has a test of its own: it takes thousands of posts
			t.Errorf("%s has no example", code)
		}
	}
}

// What the stages say they find is all that they find, each once, with what it
// means; and nothing is as bad as it is not told to be.
func TestFindingsAreAllTold(t *testing.T) {
	kinds := map[string]finding.Kind{}
	for _, k := range engine.Kinds() {
		if kinds[k.Rule].Rule != "" || k.Means == "" || k.Costs == 0 || len(k.Severities) == 0 {
			t.Errorf("%+v is told twice, or not what it means", k)
		}
		kinds[k.Rule] = k
	}
	rng := newRand(91, 17)
	for n := range sized(300, 60) {
		j := randomLines(t, rng)
		if n%2 == 0 {
			j = random(t, rng)
			spoil(rng, &j.Lines[0].Runs[0])
			if len(document.Check(j)) > 0 {
				continue
			}
		}
		for _, f := range computed(t, j, nil).Figures().Findings {
			k, ok := kinds[f.Rule]
			if !ok || !slices.Contains(k.Severities, f.Severity) || f.Stage != k.Stage {
				t.Errorf("%s (%s at %s) is not told of: %+v", f.Rule, f.Severity, f.Stage, k)
			}
		}
	}
}
