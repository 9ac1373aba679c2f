package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/dig"
)

// laidOut plans a job, and gives it the names that its posts have then.
func laidOut(t testing.TB, j job.Job) (job.Job, *plan.Result) {
	r, err := plan.Compute(nil, j, shipped(t), nil)
	if err != nil {
		t.Fatal(err)
	}
	laid := r.Laid()
	j.Lines = slices.Clone(j.Lines)
	for l := range j.Lines {
		j.Lines[l].Runs = slices.Clone(j.Lines[l].Runs)
		for k := range j.Lines[l].Runs {
			run := &j.Lines[l].Runs[k]
			run.Laid, run.Named = laid[run.ID].Posts, laid[run.ID].Named
		}
	}
	return j, r
}

// edit changes one thing of one run, as a hand would.
func edit(rng *rand.Rand, run job.Run) job.Run {
	long := *run.Length
	at := func() length.Length { return length.Length(600 + rng.IntN(int(long)-1200)) }
	switch rng.IntN(9) {
	case 0:
		run.Spacing.Most = length.Length(1500 + 100*rng.IntN(15))
	case 1:
		to := max(5000, long+length.Length(rng.IntN(6000)-3000))
		run.Length = &to
	case 2, 3:
		if len(run.Gates) > 0 {
			run.Gates = slices.Clone(run.Gates)
			g := &run.Gates[rng.IntN(len(run.Gates))]
			g.At += length.Length(rng.IntN(3000) - 1500)
		}
	case 4:
		id := job.FreeID("G", func(id string) bool {
			return slices.ContainsFunc(run.Gates, func(g job.Gate) bool { return g.ID == id })
		})
		run.Gates = append(slices.Clone(run.Gates), job.Gate{ID: id, At: at(), Opening: 1000, Gap: 80})
	case 5:
		if len(run.Gates) > 0 {
			i := rng.IntN(len(run.Gates))
			run.Gates = slices.Delete(slices.Clone(run.Gates), i, i+1)
		}
	case 6:
		id := job.FreeID("F", func(id string) bool {
			return slices.ContainsFunc(run.FixedPosts, func(p job.FixedPost) bool { return p.ID == id })
		})
		run.FixedPosts = append(slices.Clone(run.FixedPosts), job.FixedPost{ID: id, At: at()})
	case 7:
		if len(run.FixedPosts) > 0 {
			run.FixedPosts = slices.Clone(run.FixedPosts)
			run.FixedPosts[rng.IntN(len(run.FixedPosts))].At += length.Length(rng.IntN(1200) - 600)
		}
	case 8:
		if n := len(run.FixedPosts); n > 0 {
			i := rng.IntN(n)
			run.FixedPosts = slices.Delete(slices.Clone(run.FixedPosts), i, i+1)
		}
	}
	return run
}

func byID(posts []dig.Post) map[string]dig.Post {
	out := map[string]dig.Post{}
	for _, p := range posts {
		out[p.ID] = p
	}
	return out
}

// Whatever is edited, one thing after another: no two posts of a job have one
// name; what stands where it stood is called as it was, and so is all that is
// far away; no two line posts change places; what stands by a gate or a held
// post goes along with it; what was staked keeps its label; and going back one
// step brings the names back.
func TestNamesStay(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(18, 18))
	edits, gone := 0, 0
	for n := range sized(20000, 400) {
		j := document.New("Names", length.Metric, shipped(t))
		one := j.Lines[0].Runs[0]
		for k := range 2 {
			long := length.Length(8000 + rng.IntN(16000))
			one.ID, one.Length = fmt.Sprint("R", k+1), &long
			if k == 1 {
				one.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 40}
			}
			j.Lines[0].Runs = append(j.Lines[0].Runs[:k:k], one)
		}
		j, was := laidOut(t, j)
		for step := range 6 {
			r := rng.IntN(2)
			next := j
			next.Lines = slices.Clone(j.Lines)
			next.Lines[0].Runs = slices.Clone(j.Lines[0].Runs)
			next.Lines[0].Runs[r] = edit(rng, next.Lines[0].Runs[r])
			if rng.IntN(4) == 0 { // somebody stakes a post
				posts := was.Runs[rng.IntN(2)].Holes.Posts
				next.Observed = append(slices.Clone(next.Observed), job.Fact{ID: fmt.Sprint("f", len(next.Observed)+1), On: job.On("post", posts[rng.IntN(len(posts))].ID), What: job.MarkStaked})
			}
			if len(document.Check(next)) > 0 {
				continue
			}
			next, now := laidOut(t, next)
			edits++
			names := map[string]bool{}
			for k, run := range now.Runs {
				before, after := byID(was.Runs[k].Holes.Posts), run.Holes.Posts
				last := length.Length(-1)
				for i, p := range after {
					if i == 0 && p.Shared != "" {
						if want := now.Runs[k-1].Holes.Posts; p.ID != want[len(want)-1].ID {
							t.Fatalf("sequence %d: the corner is %s and %s", n, p.ID, want[len(want)-1].ID)
						}
						continue
					}
					if names[p.ID] {
						t.Fatalf("sequence %d: two posts are %s", n, p.ID)
					}
					names[p.ID] = true
					old, known := before[p.ID]
					if known && p.By == "" && old.By == "" {
						if old.Station < last {
							t.Fatalf("sequence %d, step %d: %s has changed places with another", n, step, p.ID)
						}
						last = old.Station
					}
				}
				if k != r { // nothing was done here
					for i, p := range after {
						if o := was.Runs[k].Holes.Posts[i]; p.Shared == "" && (o.ID != p.ID || o.Label != p.Label && len(next.Observed) == len(j.Observed)) {
							t.Fatalf("sequence %d, step %d: on the other run %s is %s now:\n%v\n%v", n, step, o.ID, p.ID, idsOf(was), idsOf(now))
						}
					}
				}
				here := byID(after)
				for id, o := range before {
					p, stays := here[id]
					switch {
					case !stays && o.Shared == "":
						gone++
						if q := slices.IndexFunc(after, func(p dig.Post) bool { return length.Same(p.Station, o.Station) && p.By == o.By }); q >= 0 {
							t.Fatalf("sequence %d, step %d: %s stands still and is %s now", n, step, id, after[q].ID)
						}
					case stays && o.By != "" && p.By != o.By && slices.ContainsFunc(after, func(p dig.Post) bool { return p.By == o.By }):
						t.Fatalf("sequence %d, step %d: what stood by %s stands by %q", n, step, o.By, p.By)
					}
				}
			}
			for _, f := range j.Observed { // staked before this edit
				_, ids := f.About()
				for k := range now.Runs {
					old, known := byID(was.Runs[k].Holes.Posts)[ids[0]]
					if p, stays := byID(now.Runs[k].Holes.Posts)[ids[0]]; known && stays && p.Shared == "" && p.Label != old.Label {
						t.Fatalf("sequence %d, step %d: %s was staked as %s and is %s now", n, step, ids[0], old.Label, p.Label)
					}
				}
			}
			// Going back brings the names back.
			if _, again := laidOut(t, j); !slices.Equal(idsOf(again), idsOf(was)) {
				t.Fatalf("sequence %d, step %d: back again they are %v, were %v", n, step, idsOf(again), idsOf(was))
			}
			j, was = next, now
		}
	}
	if edits == 0 || gone == 0 {
		t.Errorf("%d edits, %d posts went", edits, gone)
	}
}

func idsOf(r *plan.Result) (out []string) {
	for _, run := range r.Runs {
		for _, p := range run.Holes.Posts {
			out = append(out, p.ID+" "+p.Label)
		}
	}
	return out
}

// A post put in between two staked ones is called by a letter, and a post that
// is away for a while comes back under its name, with what was noted of it.
func TestStakedPostsAreCalledAsTheyWere(t *testing.T) {
	j := document.New("Staked", length.Metric, shipped(t))
	run := &j.Lines[0].Runs[0]
	long := length.Length(24000)
	run.Length, run.Spacing.Most = &long, 2400
	j, r := laidOut(t, j)
	for i, p := range r.Runs[0].Holes.Posts {
		j.Observed = append(j.Observed, job.Fact{ID: fmt.Sprint("f", i+1), On: job.On("post", p.ID), What: job.MarkStaked})
	}
	j, _ = laidOut(t, j)
	j.Lines[0].Runs[0].FixedPosts = []job.FixedPost{{ID: "F1", At: 15600}}
	j, r = laidOut(t, j)
	var labels []string
	for _, p := range r.Runs[0].Holes.Posts {
		labels = append(labels, p.Label)
	}
	if want := []string{"P1", "P2", "P3", "P4", "P5", "P6", "P7", "P7a", "P8", "P9", "P10", "P11"}; !slices.Equal(labels, want) {
		t.Errorf("got %v, want %v", labels, want)
	}
	// Fewer posts, and then as many as before.
	less := j
	less.Lines = slices.Clone(j.Lines)
	less.Lines[0].Runs = slices.Clone(j.Lines[0].Runs)
	short := length.Length(7200)
	less.Lines[0].Runs[0].Length, less.Lines[0].Runs[0].FixedPosts = &short, nil
	less, _ = laidOut(t, less)
	less.Lines[0].Runs[0].Length = &long
	if _, again := laidOut(t, less); again.Runs[0].Holes.Posts[4].ID != "R1.5" || again.Runs[0].Holes.Posts[4].Label != "P5" {
		t.Errorf("back again: %v", idsOf(again))
	}
}
