package plan_test

import (
	"math"
	"sync"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/plan"
)

var loaded = sync.OnceValues(catalog.Load)

func shipped(t testing.TB) materials.Catalog {
	t.Helper()
	cat, err := loaded()
	if err != nil {
		t.Fatal(err)
	}
	return cat
}

func decode(t testing.TB, doc string) job.Job {
	t.Helper()
	j, unknown, err := document.Decode([]byte(doc), shipped(t))
	if err != nil {
		t.Fatal(err)
	}
	if len(unknown) > 0 {
		t.Fatalf("unknown fields %v", unknown)
	}
	return j
}

func near(t *testing.T, what string, got, want, within float64) {
	t.Helper()
	if math.Abs(got-want) > within {
		t.Errorf("%s: got %.6f, want %.6f", what, got, want)
	}
}

// The run worked by hand outside this project: 131 ft 6 in, most 96 in, no
// gate, 12 x 42 in holes, 3 1/2 in solid posts on 6 in of gravel, concrete to
// 2 in below ground, 60 lb bags.
func TestWorkedByHand(t *testing.T) {
	j := decode(t, `{"mallow":1,"name":"By hand","units":{"system":"imperial","smallestMark":1.5875},
		"site":{"frostDepth":914.4},
		"lines":[{"id":"L1","runs":[{"id":"R1","name":"","length":40081.2,"ground":[{"at":0,"height":0}],
		"spacing":{"most":2438.4},"post":{"width":88.9},
		"hole":{"frostMargin":0,"share":"none"},"setting":{"gravel":152.4,"cover":50.8,"bag":"60lb"}}]}]}`)
	p := plan.Make(j, shipped(t))
	run := p.Runs[0]
	if len(run.Posts) != 18 || len(run.Bays) != 17 {
		t.Fatalf("got %d posts and %d bays, want 18 and 17", len(run.Posts), len(run.Bays))
	}
	for _, b := range run.Bays {
		near(t, b.Label+" in inches", b.CentreToCentre.Inches(), 92+14.0/17, 1e-9)
	}
	for _, post := range run.Posts {
		near(t, post.Label+" hole width, in", post.HoleWidth.Inches(), 12, 1e-9)
		near(t, post.Label+" hole depth, in", post.HoleDepth.Inches(), 42, 1e-9)
		near(t, post.Label+" gravel, ft³", post.GravelVolume.CubicFeet(), 0.3927, 0.00005)
		near(t, post.Label+" concrete, ft³", post.ConcreteVolume.CubicFeet(), 1.9843, 0.00006)
		near(t, post.Label+" bags", post.Bags, 4.41, 0.005)
	}
	near(t, "concrete, ft³", p.Totals.Concrete.CubicFeet(), 35.72, 0.005)
	near(t, "concrete, yd³", p.Totals.Concrete.CubicYards(), 1.323, 0.0005)
	// 35.72 ft³ and 5 % waste in bags of 0.45: 83.3.
	if p.Totals.Bags != 84 || p.Totals.Waste != 0.05 {
		t.Errorf("got %d bags with %g waste, want 84 with 0.05", p.Totals.Bags, p.Totals.Waste)
	}
	if got := p.Units.Short(run.Bays[0].CentreToCentre); got != `7' 8 13/16"` {
		t.Errorf("bay prints as %s", got)
	}
}
