package help_test

import (
	"os"
	"slices"
	"strings"
	"testing"

	"mallow/help"
	"mallow/paper"
)

// Every stage at which a sheet is offered is told of, once; every term is said
// once, in whole sentences, and none promises what Mallow may not.
func TestHelpIsWhole(t *testing.T) {
	var ids []string
	for _, s := range help.Stages() {
		if slices.Contains(ids, s.ID) || s.Name == "" || len(s.About) < 120 || !strings.HasSuffix(s.About, ".") {
			t.Errorf("stage %+v", s)
		}
		ids = append(ids, s.ID)
	}
	for _, k := range paper.Kinds {
		if !slices.Contains(ids, k.Stage) {
			t.Errorf("nobody is told what %s is for", k.Stage)
		}
	}
	seen := map[string]bool{}
	for _, term := range help.Terms() {
		low := strings.ToLower(term.Means)
		if seen[term.Term] || !strings.HasSuffix(term.Means, ".") {
			t.Errorf("%+v", term)
		}
		for _, never := range []string{"simply", " safe", "approved", "complies"} {
			if strings.Contains(low, never) {
				t.Errorf("%s: %q", term.Term, never)
			}
		}
		seen[term.Term] = true
	}
	if len(seen) < 40 {
		t.Errorf("only %d terms", len(seen))
	}
	if doc, err := os.ReadFile("../docs/terms.md"); err != nil || string(doc) != help.Markdown() {
		t.Errorf("docs/terms.md is not what the terms say: run make generate (%v)", err)
	}
}
