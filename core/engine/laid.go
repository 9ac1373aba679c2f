package engine

import (
	"slices"

	"mallow/core/document"
	"mallow/core/job"
)

// marks are the facts by which a post is marked on the ground: it keeps its
// label from then on.
var marks = []job.Seen{job.MarkStaked, job.MarkDug, job.MarkSet, job.MarkPoured, job.MarkBuilt, job.Landed}

// Laid are the posts of each run as they were laid out, by the run's id: kept
// in the document, they keep their names in the next layout.
func (r *Result) Laid() map[string]document.Laid {
	told, marked := map[string]bool{}, map[string]bool{}
	void := map[string]bool{}
	for _, f := range r.Job.Observed {
		if f.What == job.StruckOut {
			void[f.Strikes] = true
		}
	}
	for _, f := range r.Job.Observed {
		if kind, ids := f.About(); kind == "post" && len(ids) == 1 {
			told[ids[0]] = true
			if slices.Contains(marks, f.What) && !void[f.ID] {
				marked[ids[0]] = true
			}
		}
	}
	out := map[string]document.Laid{}
	for _, run := range r.Runs {
		m := run.Slope.Spacing
		if !m.Laid() {
			continue
		}
		shared := run.Holes.Posts[0].Shared != ""
		laid, named := m.Kept(shared, func(id string) bool { return told[id] }, func(id string) bool { return marked[id] })
		out[m.Given.ID] = document.Laid{Posts: laid, Named: named}
	}
	return out
}
