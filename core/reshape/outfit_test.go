package reshape_test

import (
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/reshape"
)

// A fence type goes to one run, to all of a line, or away again; what was
// measured stays, and without a type the values stay too.
func TestATypeForOneRunOrAllOrNone(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	doc := []byte(`{"mallow":2,"name":"Two","units":{"system":"imperial","smallestMark":1.5875},"lines":[{"id":"L1","runs":[{"id":"R1","length":10000},{"id":"R2","length":8000,"corner":{"by":"deflection","side":"left","angle":90}}]}]}`)
	runs := func(op reshape.Op) []job.Run {
		op.Line = "L1"
		changed, _, err := reshape.Apply(doc, op, cat)
		if err != nil {
			t.Fatal(err)
		}
		doc = changed
		j, _, err := document.Decode(doc, cat)
		if err != nil {
			t.Fatal(err)
		}
		return j.Lines[0].Runs
	}
	one := runs(reshape.Op{Do: reshape.DoOutfit, Run: "R2", System: "chain-link"})
	if one[0].System != "" || one[1].System != "chain-link" {
		t.Errorf("one run: %q and %q", one[0].System, one[1].System)
	}
	all := runs(reshape.Op{Do: reshape.DoOutfit, System: "split-rail"})
	for _, r := range all {
		if r.System != "split-rail" || r.Spacing.Way != job.OverlapRails {
			t.Errorf("all runs: %s is %q, %s", r.ID, r.System, r.Spacing.Way)
		}
	}
	if *all[1].Length != 8000 {
		t.Errorf("the length became %v", *all[1].Length)
	}
	none := runs(reshape.Op{Do: reshape.DoOutfit, Run: "R1"})
	if none[0].System != "" || none[1].System != "split-rail" || none[0].Spacing.Way != job.OverlapRails {
		t.Errorf("none: %q keeps %s, the other is %q", none[0].System, none[0].Spacing.Way, none[1].System)
	}
	if _, _, err := reshape.Apply(doc, reshape.Op{Do: reshape.DoOutfit, Line: "L1", System: "moss"}, cat); err == nil {
		t.Error("there is no type of moss")
	}
}

// A length that was assumed is measured once it is corrected, also to itself.
func TestACorrectedLengthIsNotAssumed(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	doc := []byte(`{"mallow":2,"name":"Guess","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L1","runs":[{"id":"R1","length":20000,"assumed":true}]}]}`)
	changed, _, err := reshape.Apply(doc, reshape.Op{Do: reshape.DoCorrect, Line: "L1", Run: "R1", At: 20000}, cat)
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(changed, cat)
	if err != nil {
		t.Fatal(err)
	}
	if j.Lines[0].Runs[0].Assumed {
		t.Error("it is still assumed")
	}
}
