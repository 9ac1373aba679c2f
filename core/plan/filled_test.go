package plan_test

import (
	"encoding/json"
	"math/rand/v2"
	"testing"

	"mallow/core/job"
)

// What a document leaves out is filled in as the rules take it: a job in which
// it is written down plans alike.
func TestFilledPlansAlike(t *testing.T) {
	figures := func(j job.Job) string {
		raw, err := json.Marshal(computed(t, j, nil).Figures())
		if err != nil {
			t.Fatal(err)
		}
		return string(raw)
	}
	rng := rand.New(rand.NewPCG(17, 9))
	for n := range sized(200, 40) {
		j := randomLines(t, rng)
		if n < 2 {
			j = demoJob(t, n)
		}
		full := j
		full.Site = full.Site.Filled()
		full.Lines = append([]job.Line{}, j.Lines...)
		for l := range full.Lines {
			line := &full.Lines[l]
			line.Runs, line.Books = append([]job.Run{}, line.Runs...), append([]job.Book{}, line.Books...)
			for r := range line.Runs {
				run := line.Runs[r].Filled(j.Units)
				run.Gates = append([]job.Gate{}, run.Gates...)
				for g := range run.Gates {
					run.Gates[g] = run.Gates[g].Filled()
				}
				line.Runs[r] = run
			}
			for b := range line.Books {
				line.Books[b] = line.Books[b].Filled()
			}
		}
		if got, want := figures(full), figures(j); got != want {
			i := 0
			for got[i] == want[i] {
				i++
			}
			t.Fatalf("job %d: filled in …%s, left out …%s", n, got[max(0, i-200):i+80], want[max(0, i-200):i+80])
		}
	}
}
