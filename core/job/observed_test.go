package job_test

import (
	"testing"

	"mallow/core/job"
	"mallow/core/length"
)

// The last fact of a kind counts, and one that is struck out does not: the one
// before it holds again, or none.
func TestFactsThatHold(t *testing.T) {
	long := 20 * length.Metre
	num := func(v float64) *float64 { return &v }
	at := func(v length.Length) *length.Length { return &v }
	j := job.Job{Lines: []job.Line{{ID: "L1", Runs: []job.Run{{ID: "R1", Length: &long,
		FixedPosts: []job.FixedPost{{ID: "F1", At: 5000}}, Gates: []job.Gate{{ID: "G1", At: 15000, Opening: 1000}},
		Laid: []job.Laid{{ID: "R1.2", At: 5000, By: "fixedPosts/F1"}, {ID: "R1.3", At: 8000}}}}}}}
	hole, held, gate := job.On("post", "R1.3"), job.On("post", "R1.2"), job.On("gate", "R1", "G1")
	for _, step := range []struct {
		fact                job.Fact
		depth, landed, drop length.Length // 0: none
	}{
		{job.Fact{ID: "f1", On: hole, What: job.SeenRock, At: at(8000), Value: num(500)}, 500, 0, 0},
		{job.Fact{ID: "f2", On: hole, What: job.SeenRock, At: at(8000), Value: num(650)}, 650, 0, 0},
		{job.Fact{ID: "f3", On: hole, What: job.StruckOut, Strikes: "f2"}, 500, 0, 0},
		{job.Fact{ID: "f4", On: hole, What: job.StruckOut, Strikes: "f1"}, 0, 0, 0},
		{job.Fact{ID: "f5", On: held, What: job.Landed, At: at(5030)}, 0, 5030, 0},
		{job.Fact{ID: "f6", On: gate, What: job.Sagged, Value: num(12)}, 0, 5030, 12},
		{job.Fact{ID: "f7", On: held, What: job.StruckOut, Strikes: "f5"}, 0, 0, 12},
		{job.Fact{ID: "f8", On: gate, What: job.StruckOut, Strikes: "f6"}, 0, 0, 0},
	} {
		j.Observed = append(j.Observed, step.fact)
		run := j.Settled().Lines[0].Runs[0]
		var depth, landed length.Length
		for _, o := range run.Overrides {
			depth = o.Hit.Depth
		}
		for _, p := range run.FixedPosts {
			if p.Landed {
				landed = p.At
			}
		}
		if depth != step.depth || landed != step.landed || run.Gates[0].Sag != step.drop || len(run.FixedPosts) != 1 {
			t.Errorf("after %s: stopped at %v, landed at %v, dropped by %v, %d held; want %v, %v, %v, 1", step.fact.ID, depth, landed, run.Gates[0].Sag, len(run.FixedPosts), step.depth, step.landed, step.drop)
		}
		if len(j.Lines[0].Runs[0].Overrides) != 0 || j.Lines[0].Runs[0].FixedPosts[0].At != 5000 {
			t.Fatal("what is planned has changed")
		}
	}
}
