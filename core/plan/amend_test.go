package plan_test

import (
	"encoding/json"
	"slices"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/amend"
	"mallow/core/stage/record"
)

// fenced is a fence whose layout is written down, with the ids of its posts.
func fenced(t testing.TB, sys length.System, kind string, height length.Length, sides ...length.Length) (job.Job, []string) {
	t.Helper()
	j := fenceOf(t, sys, kind, height, sides...)
	j.Setting.Method = ptr(job.Braced)
	return asSaved(t, j), namesOf(t, asSaved(t, j))
}

// asSaved is a job as it is saved: its posts have their names.
func asSaved(t testing.TB, j job.Job) job.Job {
	t.Helper()
	j = j.Settled()
	for id, laid := range computed(t, j, nil).Laid() {
		for l := range j.Lines {
			for r := range j.Lines[l].Runs {
				if run := &j.Lines[l].Runs[r]; run.ID == id {
					run.Laid, run.Named = laid.Posts, laid.Named
				}
			}
		}
	}
	return j.Settled()
}

func namesOf(t testing.TB, j job.Job) (ids []string) {
	t.Helper()
	for _, run := range computed(t, j, nil).Runs {
		for i := range run.Load.Posts {
			if run.Load.Posts[i].Shared == "" {
				ids = append(ids, run.Load.Posts[i].ID)
			}
		}
	}
	return ids
}

// seenAt is a fact about a post at a station.
func seenAt(n int, post string, what job.Seen, at length.Length, value ...float64) job.Fact {
	f := fact(n, post, what, value...)
	f.At = &at
	return f
}

// saw is the job with more facts.
func saw(j job.Job, facts ...job.Fact) job.Job {
	j.Observed = append(slices.Clip(j.Observed), facts...)
	return j.Settled()
}

// takenIn is the job with a way taken, as the document takes it.
func takenIn(t testing.TB, j job.Job, w amend.Way) job.Job {
	t.Helper()
	raw, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	doc, err := document.Apply(raw, w.Edits)
	if err != nil {
		t.Fatalf("%s: %v", w.ID, err)
	}
	then, _, err := document.Decode(doc, shipped(t))
	if err != nil {
		t.Fatalf("%s: %v in %s", w.ID, err, doc)
	}
	return asSaved(t, then)
}

func amendingOf(t testing.TB, j job.Job, post string) (*plan.Result, []amend.Amending) {
	t.Helper()
	if e := document.Check(j); len(e) > 0 {
		t.Fatal(e)
	}
	r := computed(t, j, nil)
	all, err := r.Amend(nil, post)
	if err != nil {
		t.Fatal(err)
	}
	return r, all
}

func wayIDs(ways []amend.Way) (ids []string) {
	for _, w := range ways {
		ids = append(ids, w.ID)
	}
	return ids
}

func TestExplore(t *testing.T) {
	show := func(j job.Job, post string) {
		r, all := amendingOf(t, j, post)
		for _, o := range r.Record().Posts {
			for _, d := range o.Deviations {
				t.Logf("%s %s by %.1f allowed %.1f %s", o.Label, d.What, float64(d.By), float64(d.Allowed), d.State)
			}
		}
		for _, a := range all {
			t.Log(a.Says.Print(j.Units))
			for _, w := range a.Ways {
				t.Logf("  %-10s %.0f min %s | %s | %+v moves %d", w.ID, w.Minutes, w.Name.Print(j.Units), w.Says.Print(j.Units), w.Cost, len(w.Moves))
			}
		}
	}
	j, ids := fenced(t, length.Imperial, "horizontal-boards", 6*ft, 60*ft)
	for k := range 4 {
		j.Observed = append(j.Observed, fact(k+1, ids[k], job.MarkPoured))
	}
	show(saw(j, seenAt(9, ids[3], job.Landed, 18*ft+25.4)), ids[3])
	j, ids = fenced(t, length.Imperial, "boards-on-rails", 6*ft, 80*ft)
	show(saw(j, fact(1, ids[3], job.MarkPoured), seenAt(9, ids[3], job.Landed, 24*ft+25.4)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkDug), seenAt(9, ids[3], job.Landed, 24*ft+100)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkDug), seenAt(9, ids[3], job.SeenRock, 24*ft, 700)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkDug), fact(9, ids[3], job.DepthDug, 600)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkDug), fact(9, ids[3], job.DepthDug, 1200)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkDug), fact(9, ids[3], job.WidthDug, 400)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkDug), fact(9, ids[3], job.OffLine, 100)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkPoured), fact(9, ids[3], job.OffLine, 25)), ids[3])
	show(saw(j, fact(1, ids[3], job.MarkPoured), fact(9, ids[3], job.TopMark, 25)), ids[3])
	show(saw(j, fact(1, ids[10], job.MarkPoured), seenAt(9, ids[10], job.Landed, 80*ft+50.8)), ids[10])
	j, ids = fenced(t, length.Metric, "boards-on-rails-m", 1800, 18000)
	show(saw(j, fact(1, ids[3], job.MarkPoured), seenAt(9, ids[3], job.Landed, 5412)), ids[3])
	_ = record.Open
}
