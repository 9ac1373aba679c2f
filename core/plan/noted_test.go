package plan_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/demo"
)

// What is written down one after another leaves the posts the names that they
// have when the whole job is computed for each; what moves a post is computed.
func TestNotedIsWhatComputingAgainGives(t *testing.T) {
	cat := shipped(t)
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	rng := rand.New(rand.NewPCG(18, 2))
	quick, whole := 0, 0
	for _, doc := range docs {
		o, err := document.Open(doc, cat)
		if err != nil {
			t.Fatal(err)
		}
		last, err := plan.Compute(nil, o.Job, cat, nil)
		if err != nil {
			t.Fatal(err)
		}
		for n := range 120 {
			laid := o.Job.Lines[0].Runs[rng.IntN(len(o.Job.Lines[0].Runs))].Laid
			f := job.Fact{ID: fmt.Sprint("x", n), On: job.On("post", laid[rng.IntN(len(laid))].ID), What: []job.Seen{job.MarkStaked, job.MarkDug, job.Noted, job.StruckOut}[rng.IntN(4)]}
			if f.What == job.StruckOut {
				if f.Strikes = fmt.Sprint("x", rng.IntN(n+1)); n == 0 || f.Strikes == f.ID || struckOut(o.Job, f.Strikes) {
					continue
				}
				if _, there := factOf(o.Job, f.Strikes); !there {
					continue
				}
			} else if rng.IntN(8) == 0 {
				depth, at := 500.0, length.Length(1000*(1+rng.IntN(15)))
				f.What, f.At, f.Value = job.SeenRock, &at, &depth
			}
			next, err := o.Edited([]job.Edit{job.Set(job.At("/observed", f.ID), f)}, cat)
			if err != nil {
				t.Fatal(err)
			}
			want, err := plan.Compute(nil, next.Job, cat, nil)
			if err != nil {
				t.Fatal(err)
			}
			got, err := plan.Again(nil, next.Job, cat, last)
			if err != nil {
				t.Fatal(err)
			}
			if !reflect.DeepEqual(got.Laid(), want.Laid()) {
				t.Fatalf("%+v: names\n%v\ncomputed again\n%v", f, got.Laid(), want.Laid())
			}
			if whole++; got.Runs[0] == last.Runs[0] {
				quick++
			}
			if _, err := next.Lay(got.Laid()); err != nil {
				t.Fatal(err)
			}
			o, last = next, got
		}
	}
	if quick < 60 || whole-quick < 10 {
		t.Fatalf("of %d, %d were not computed again: nothing is told apart", whole, quick)
	}
}

func factOf(j job.Job, id string) (job.Fact, bool) {
	for _, f := range j.Observed {
		if f.ID == id {
			return f, true
		}
	}
	return job.Fact{}, false
}

func struckOut(j job.Job, id string) bool {
	f, there := factOf(j, id)
	return there && f.What == job.StruckOut
}
