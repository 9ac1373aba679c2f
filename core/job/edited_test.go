package job_test

import (
	"reflect"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
)

// An edited run leaves the run that it is made from as it was, and the usual
// one too, however the edit's value was written: lists and what hangs on
// pointers are shared until they are changed.
func TestEditedLeavesWhatItIsMadeFrom(t *testing.T) {
	floor := 600 * length.Millimetre
	given := func() job.Run {
		return job.Run{
			ID:   "R1",
			Post: job.Post{Width: 100, Stock: []length.Length{1800, 2400, 3000}},
			Hole: job.HoleRules{Floor: &floor, Augers: []length.Length{200, 300}},
			Gates: []job.Gate{
				{ID: "G1", At: 3000, Opening: 1200, In: []job.GroundLevel{{Off: 500}, {Off: 900}}},
				{ID: "G2", At: 9000, Opening: 1200},
			},
			FixedPosts: []job.FixedPost{{ID: "F1", At: 5000}},
		}
	}
	usual := func() job.Run {
		return job.Run{Post: job.Post{Width: 90, Stock: []length.Length{2100, 2700}}, Hole: job.HoleRules{Floor: &floor}}
	}
	for _, c := range []struct {
		path  string
		value any
		want  func(r *job.Run)
	}{
		{"/post/stock", []any{900.0, 1200.0}, func(r *job.Run) { r.Post.Stock = []length.Length{900, 1200} }},
		{"/post/stock", nil, func(r *job.Run) { r.Post.Stock = []length.Length{2100, 2700} }},
		{"/post", map[string]any{"width": 75.0}, func(r *job.Run) { r.Post = job.Post{Width: 75, Stock: []length.Length{2100, 2700}} }},
		{"/gates", []map[string]any{{"id": "G9", "at": 4000.0, "opening": 900.0}}, func(r *job.Run) { r.Gates = []job.Gate{{ID: "G9", At: 4000, Opening: 900}} }},
		{"/gates/G1/in", []map[string]any{{"off": 700.0}}, func(r *job.Run) { r.Gates[0].In = []job.GroundLevel{{Off: 700}} }},
		{"/gates/G3", map[string]any{"id": "G3", "at": 6000.0, "opening": 1000.0}, func(r *job.Run) {
			r.Gates = append(r.Gates, job.Gate{ID: "G3", At: 6000, Opening: 1000})
		}},
		{"/hole", map[string]any{"floor": 900.0}, func(r *job.Run) {
			nine := 900 * length.Millimetre
			r.Hole = job.HoleRules{Floor: &nine}
		}},
		{"/gates/G1", nil, func(r *job.Run) { r.Gates = r.Gates[1:] }},
		{"/gates/G7", nil, func(*job.Run) {}},
		{"/kinds/gate/hole/floor", 950.0, func(r *job.Run) {
			deep := 950 * length.Millimetre
			r.Kinds = []job.KindRules{{Kind: job.GatePost, Hole: job.HoleRules{Floor: &deep}}}
		}},
		{"/hole/floor", 750.0, func(r *job.Run) { f := 750 * length.Millimetre; r.Hole.Floor = &f }},
		{"/fixedPosts/F1/at", 5100.0, func(r *job.Run) { r.FixedPosts = []job.FixedPost{{ID: "F1", At: 5100}} }},
	} {
		before, as := given(), usual()
		got, err := before.Edited("/lines/L1/runs/R1", as, []job.Edit{job.Set("/lines/L1/runs/R1"+c.path, c.value)})
		if err != nil {
			t.Errorf("%s: %v", c.path, err)
			continue
		}
		want := given()
		c.want(&want)
		if !reflect.DeepEqual(got, want) {
			t.Errorf("%s: got %+v, want %+v", c.path, got, want)
		}
		if !reflect.DeepEqual(before, given()) || floor != 600 {
			t.Errorf("%s: the run that it is made from changed to %+v", c.path, before)
		}
		if !reflect.DeepEqual(as, usual()) {
			t.Errorf("%s: the usual run changed to %+v", c.path, as)
		}
	}
}
