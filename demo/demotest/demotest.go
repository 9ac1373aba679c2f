// Package demotest gives tests the demo's jobs, read and planned.
package demotest

import (
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
	p.Schedule = worded.Schedule
	return j, p
}
