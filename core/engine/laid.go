package engine

import (
	"reflect"
	"slices"

	"mallow/core/document"
	"mallow/core/job"
)

// marks are the facts by which a post is marked on the ground: it keeps its
// label from then on.
var marks = []job.Seen{job.MarkStaked, job.MarkDug, job.MarkSet, job.MarkPoured, job.MarkBuilt, job.Landed}

// Noted is the result of a job that was computed before something was written
// down that moves nothing, such as what is dug: the same runs, with what was
// seen since. It says whether the job is that.
func (r *Result) Noted(j job.Job) (*Result, bool) {
	if !sameJob(r.Job, j) || !slices.EqualFunc(r.Job.Lines, j.Lines, sameButLabels) || !r.holds(j) {
		return nil, false
	}
	noted := *r
	noted.Job = j
	return &noted, true
}

// holds tells whether the posts that a job has dug or set stand there as it is, and all
// of those before them still do: then nothing moves.
func (r *Result) holds(j job.Job) bool {
	runs := map[string]job.Run{}
	for _, l := range r.Job.Lines {
		for _, run := range l.Runs {
			runs[run.ID] = run
		}
	}
	for _, l := range j.Lines {
		for _, run := range l.Runs {
			was := runs[run.ID].Firm
			if slices.Equal(was, run.Firm) {
				continue
			}
			res := r.Run(run.ID)
			for _, at := range was {
				if _, still := slices.BinarySearch(run.Firm, at); !still {
					return false
				}
			}
			for _, at := range run.Firm {
				if !res.Laid.Layout.Stands(at) {
					return false
				}
			}
		}
	}
	return true
}

// sameButLabels tells whether two lines are the same but for which posts keep
// their labels for good, which are those that they have.
func sameButLabels(a, b job.Line) bool {
	a.Runs, b.Runs = slices.Clone(a.Runs), slices.Clone(b.Runs)
	for i := range min(len(a.Runs), len(b.Runs)) {
		r, o := &a.Runs[i], &b.Runs[i]
		if !slices.EqualFunc(r.Laid, o.Laid, func(p, q job.Laid) bool { return p.ID == q.ID && p.At == q.At && p.By == q.By }) {
			return false
		}
		r.Laid, o.Laid, r.Firm, o.Firm = nil, nil, nil, nil
	}
	return reflect.DeepEqual(a, b)
}

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
		if post := f.OnPost(); post != "" {
			told[post] = true
			if slices.Contains(marks, f.What) && !void[f.ID] {
				marked[post] = true
			}
		}
	}
	out := map[string]document.Laid{}
	for l, line := range r.Lines {
		for i, run := range line.Runs {
			m := run.Slope.Spacing
			if !m.Laid() {
				continue
			}
			before, shared := r.Job.Lines[l].Runs[i], run.Holes.Posts[0].Shared != ""
			laid, named := m.Kept(before, shared, func(id string) bool { return told[id] }, func(id string) bool { return marked[id] })
			out[before.ID] = document.Laid{Posts: laid, Named: named}
		}
	}
	return out
}
