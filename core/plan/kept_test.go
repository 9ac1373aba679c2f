package plan_test

import (
	"encoding/json"
	"math/rand/v2"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
)

// What a leaf's way over the ground was found to be is kept while everything
// it was found from is the same: one thing after another is changed, of the
// gate, of the ground on the line and beside it, and the plan is each time that
// from nothing.
func TestKeptSwingsEqualFromNothing(t *testing.T) {
	rng := rand.New(rand.NewPCG(17, 11))
	edits := []func(g *job.Gate, r *job.Run, j *job.Job){
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Gap += 10 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Least += 5 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Snow += 40 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Crown += 25 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Lift += 30 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Cut = !g.Cut },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.At += 1 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Hardware.Pin += 3 },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.Swing = job.SwingBoth },
		func(g *job.Gate, _ *job.Run, _ *job.Job) { g.In, g.Out = g.Out, g.In },
		func(g *job.Gate, _ *job.Run, _ *job.Job) {
			for i := range g.In {
				g.In[i].First += 20
			}
		},
		func(g *job.Gate, _ *job.Run, _ *job.Job) {
			for i := range g.In {
				second := g.In[i].First + 35
				g.In[i].Second = &second
			}
		},
		func(_ *job.Gate, r *job.Run, _ *job.Job) { r.Ground[len(r.Ground)/2].Height += 60 },
		func(_ *job.Gate, r *job.Run, _ *job.Job) { r.Fence.Height += 50 },
		func(_ *job.Gate, _ *job.Run, j *job.Job) {
			turned := 10.0
			j.Lines[0].Bearing = &turned
		},
		func(_ *job.Gate, _ *job.Run, j *job.Job) { j.Lines[0].Inside = "left" },
	}
	for n := range sized(400, 14) {
		j := decode(t, randomGate(rng))
		last := computed(t, j, nil)
		for k := range edits {
			next := clone(t, j)
			run := &next.Lines[0].Runs[0]
			edits[(k*7+n)%len(edits)](&run.Gates[0], run, &next)
			if len(document.Check(next)) > 0 {
				continue
			}
			j, last = next, computed(t, next, last)
			if got, want := written(t, last), written(t, computed(t, j, nil)); got != want {
				t.Fatalf("job %d, after edit %d the plan is not that from nothing", n, (k*7+n)%len(edits))
			}
		}
	}
}

// clone is a job that shares nothing with another.
func clone(t *testing.T, j job.Job) job.Job {
	t.Helper()
	raw, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	return decode(t, string(raw))
}
