package main

import (
	"encoding/json"
	"strings"
	"testing"

	"mallow/core/plan"
)

// The cut list of the yard says what is bought, each length with its cuts, where
// these go, and the bound; of a run alone it is less.
func TestCutListIsPrinted(t *testing.T) {
	const yard = "../../demo/jobs/2-pipit-yard.json"
	whole, _, err := call("", "cut", yard)
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"52 pieces from", "No way of cutting buys less.", "34 × 3600 mm", "Rail, Street side: B7–B8 row 1"} {
		if !strings.Contains(whole, want) {
			t.Errorf("the list does not say %q", want)
		}
	}
	one, _, err := call("", "cut", "--run", "Street side", yard)
	if err != nil || strings.Contains(one, "Back wall") || !strings.Contains(one, "15 pieces from") {
		t.Errorf("of one run: %v\n%.300s", err, one)
	}
	raw, _, err := call("", "cut", "--json", yard)
	var lists []plan.CutList
	if err != nil || json.Unmarshal([]byte(raw), &lists) != nil || len(lists) != 4 || lists[0].Bound == 0 || lists[0].Bars[0].Cuts[0].Goes[0].Run == "" {
		t.Errorf("as JSON: %v, %d lists", err, len(lists))
	}
	table, _, err := call("", "cut", "--csv", yard)
	if err != nil || !strings.Contains(table, "Rail") || strings.Count(table, "\n") < 10 {
		t.Errorf("as values: %v\n%.200s", err, table)
	}
	if _, _, err := call("", "cut", "--run", "nobody", yard); err == nil || !strings.Contains(err.Error(), "--run") {
		t.Errorf("a run that there is not: %v", err)
	}
}
