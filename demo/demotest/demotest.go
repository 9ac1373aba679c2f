// Package demotest gives tests the demo's jobs, read and planned.
package demotest

import (
	"fmt"
	"slices"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/demo"
)

// Catalog is the one that ships.
func Catalog(t testing.TB) materials.Catalog {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return cat
}

// Documents are the demo's jobs as they ship.
func Documents(t testing.TB) [][]byte {
	t.Helper()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	return docs
}

// Job is one of them, and its plan.
func Job(t testing.TB, n int) (job.Job, plan.Plan) {
	t.Helper()
	cat := Catalog(t)
	j, _, err := document.Decode(Documents(t)[n], cat)
	if err != nil {
		t.Fatal(err)
	}
	p := plan.Make(j, cat)
	worded, err := plan.Worded(nil, j, cat)
	if err != nil {
		t.Fatal(err)
	}
	p.Schedule, p.Log = worded.Schedule, loggedIn(t, j).Record()
	return j, p
}

// loggedIn is the job with something of every kind written down at posts of its first run.
func loggedIn(t testing.TB, j job.Job) *plan.Result {
	t.Helper()
	r, err := plan.Compute(nil, j, Catalog(t), nil)
	if err != nil {
		t.Fatal(err)
	}
	posts := r.Figures().Runs[0].Posts
	for n, s := range job.Sights {
		if !slices.Contains(s.About, "post") || s.What == job.StruckOut || s.What == job.Decided {
			continue
		}
		post := &posts[1+n%2]
		f := job.Fact{ID: fmt.Sprintf("log%d", n), On: job.On("post", post.ID), What: s.What, When: fmt.Sprintf("2027-05-03T08:%02d:00-05:00", n), Who: "Ash"}
		if s.Placed {
			f.At = &post.Station
		}
		if v := 5.0; s.Measures != job.MeasuresNothing {
			f.Value = &v
		}
		if s.What == job.Noted {
			f.Note = "as said"
		}
		j.Observed = append(slices.Clip(j.Observed), f)
	}
	if r, err = plan.Compute(nil, j, Catalog(t), nil); err != nil {
		t.Fatal(err)
	}
	return r
}
