package plan_test

import (
	"encoding/json"
	"math"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// taken is a document as it is once a way out is taken.
func taken(t *testing.T, doc json.RawMessage, way finding.Remedy) job.Job {
	t.Helper()
	edited, err := document.Apply(doc, way.Edits)
	if err != nil {
		t.Fatal(err)
	}
	after, _, err := document.Decode(edited, shipped(t))
	if err != nil {
		t.Fatalf("the way out leaves %v", err)
	}
	return after
}

// A way out of each kind of finding can be taken, does something about it, and
// costs what it is said to: the difference of the two plans, worked out from
// the documents by themselves. The trial and the button make the same edits.
func TestWaysOutCostWhatTheySay(t *testing.T) {
	priced, tried := map[string]int{}, 0
	for _, e := range examples(t) {
		doc, err := document.Apply(e.Doc, e.Over)
		if err != nil {
			t.Fatal(err)
		}
		j := decode(t, string(doc))
		before := plan.Make(j, shipped(t))
		if len(before.Runs) != 1 {
			continue // neighbours would be priced with it
		}
		for _, f := range before.Findings {
			if f.Rule != e.Code {
				continue
			}
			for _, way := range f.Remedies {
				after := plan.Make(taken(t, doc, way), shipped(t))
				tried++
				if same(after.Findings, f) {
					t.Errorf("%s: %s changes nothing", f.Rule, way.Says.Print(j.Units))
				}
				if way.Cost == nil {
					continue
				}
				priced[f.Rule]++
				for what, got := range map[string][2]float64{
					"posts":      {float64(way.Cost.Posts), float64(after.Totals.Posts - before.Totals.Posts)},
					"cut pieces": {float64(way.Cost.CutPieces), float64(after.Totals.CutPieces - before.Totals.CutPieces)},
					"bags":       {float64(way.Cost.Bags), float64(after.Totals.Bags - before.Totals.Bags)},
					"concrete":   {float64(way.Cost.Concrete), float64(after.Totals.ConcreteToBuy - before.Totals.ConcreteToBuy)},
					"stock":      {float64(way.Cost.Stock), float64(bought(after) - bought(before))},
				} {
					if math.Abs(got[0]-got[1]) > 1e-6 {
						t.Errorf("%s: %s is said to cost %v %s; the plans differ by %v", f.Rule, way.Says.Print(j.Units), got[0], what, got[1])
					}
				}
			}
		}
	}
	if len(priced) < 5 || tried < 40 {
		t.Errorf("only %d ways out were tried, and those of %v priced", tried, priced)
	}
}

// bought is the length of all posts as they are bought.
func bought(p plan.Plan) length.Length {
	sum := length.Length(0)
	for _, s := range p.Totals.Stock {
		sum += s.Length * length.Length(s.Count)
	}
	return sum
}
