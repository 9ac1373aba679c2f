package document_test

import (
	"fmt"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
)

// lots makes a job of so many runs, each as it is given, and checks it.
func lots(t *testing.T, runs int, change func(i int, r *job.Run)) document.Errors {
	t.Helper()
	j := document.New("Lots", length.Metric, shipped(t))
	like := j.Lines[0].Runs[0]
	j.Lines = nil
	for i := range runs {
		if i%400 == 0 {
			j.Lines = append(j.Lines, job.Line{ID: fmt.Sprintf("L%d", len(j.Lines))})
		}
		r := like
		r.ID = fmt.Sprintf("R%d", i)
		change(i, &r)
		l := &j.Lines[len(j.Lines)-1]
		l.Runs = append(l.Runs, r)
	}
	return document.Check(j)
}

// refusedFor tells whether a limit was passed, by its words.
func refusedFor(e document.Errors, what string) bool {
	for _, f := range e {
		if strings.Contains(f.Allowed, " "+what+" in one job") && strings.Contains(f.Given, what+" in the job") {
			return true
		}
	}
	return false
}

// Each limit at what it allows, and one more. Bays of 2400 mm: n bays are n + 1
// posts.
func TestLimitsOfAJob(t *testing.T) {
	bays := func(n int) *length.Length { l := 2400 * length.Length(n); return &l }
	many := func(n, runs, i int) int { // n shared over runs
		if i == 0 {
			return n - n/runs*(runs-1)
		}
		return n / runs
	}
	posts := func(n int, look job.Look) document.Errors {
		return lots(t, 2, func(i int, r *job.Run) { r.Length, r.Grade.Look = bays(many(n, 2, i)-1), look })
	}
	for _, c := range []struct {
		what string
		most int
		of   func(n int) document.Errors
	}{
		{"posts", document.MostPosts, func(n int) document.Errors { return posts(n, job.Level) }},
		{"posts on racked and rolling runs", document.MostLeaning, func(n int) document.Errors { return posts(n, job.Raked) }},
		{"runs", document.MostRuns, func(n int) document.Errors { return lots(t, n, func(int, *job.Run) {}) }},
		{"gates", document.MostGates, func(n int) document.Errors {
			return lots(t, 3, func(i int, r *job.Run) { r.Gates = make([]job.Gate, many(n, 3, i)) })
		}},
		{"ground heights", document.MostHeights, func(n int) document.Errors {
			return lots(t, 3, func(i int, r *job.Run) { r.Ground = make([]job.GroundPoint, many(n, 3, i)) })
		}},
		{"single holes with rules of their own", document.MostOverrides, func(n int) document.Errors {
			return lots(t, 3, func(i int, r *job.Run) { r.Overrides = make([]job.HoleOverride, many(n, 3, i)) })
		}},
		{"obstructions", document.MostInWay, func(n int) document.Errors {
			return lots(t, 3, func(i int, r *job.Run) { r.KeepOuts = make([]job.KeepOut, many(n, 3, i)) })
		}},
		{"fixed posts and bays", document.MostHeld, func(n int) document.Errors {
			return lots(t, 2, func(i int, r *job.Run) {
				if i == 0 {
					r.HeldBays = make([]job.HeldBay, many(n, 2, i))
				} else {
					r.FixedPosts = make([]job.FixedPost, many(n, 2, i))
				}
			})
		}},
		{"parts with a slope of their own", document.MostParts, func(n int) document.Errors {
			return lots(t, 20, func(i int, r *job.Run) { r.Grade.Parts = make([]job.LookPart, many(n, 20, i)) })
		}},
	} {
		if refusedFor(c.of(c.most), c.what) {
			t.Errorf("%d %s are refused", c.most, c.what)
		}
		if !refusedFor(c.of(c.most+1), c.what) {
			t.Errorf("%d %s are taken", c.most+1, c.what)
		}
	}
}

// On leaning runs posts are counted along the ground: 3 up for 4 along makes
// 5, and steeper than 2 up for 1 along is counted as that, for it is a blunder.
func TestPostsAreCountedAlongTheGround(t *testing.T) {
	for rise, along := range map[length.Length]float64{0: 1, 0.75: 1.25, 2: 2.2360679775, 50: 2.2360679775} {
		for _, over := range []bool{false, true} {
			n := float64(document.MostLeaning-2) / along
			if over {
				n = float64(document.MostLeaning+2) / along
			}
			long := length.Length(2400 * n)
			e := lots(t, 1, func(_ int, r *job.Run) {
				r.Length, r.Grade.Look = &long, job.Rolling
				r.Ground = []job.GroundPoint{{At: 0}, {At: long, Height: long * rise}}
			})
			if refusedFor(e, "posts on racked and rolling runs") != over {
				t.Errorf("rising %v over %v: refused %v", rise, long, !over)
			}
		}
	}
}
