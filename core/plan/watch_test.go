package plan_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/demo"
)

// A plan that is told to stop ends with the reason, wherever it is by then, and
// one that is not is the plan.
func TestPlansEndWhenTold(t *testing.T) {
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	cat := shipped(t)
	j, _, err := document.Decode(docs[0], cat)
	if err != nil {
		t.Fatal(err)
	}
	enough := errors.New("enough")
	asked := 0
	p, err := plan.MakeUntil(func() error { asked++; return nil }, j, cat)
	again := plan.Make(j, cat)
	for i := range p.Runs { // what they were found from is no part of the document
		p.Runs[i].Built, again.Runs[i].Built = nil, nil
	}
	if err != nil || !reflect.DeepEqual(p, again) || asked < 50 {
		t.Fatalf("asked %d times, %v", asked, err)
	}
	for _, k := range []int{1, 2, asked / 3, asked / 2, asked - 1, asked} {
		n := 0
		stop := func() error {
			if n++; n >= k {
				return enough
			}
			return nil
		}
		if _, err := plan.MakeUntil(stop, j, cat); !errors.Is(err, enough) || n != k {
			t.Errorf("told at the %d. time: %v, asked %d times", k, err, n)
		}
		if _, _, err := plan.LooksUntil(func() error { return enough }, j, cat, "R1"); !errors.Is(err, enough) {
			t.Errorf("looks: %v", err)
		}
		if _, _, err := plan.AlternativesUntil(func() error { return enough }, j, cat, "R1"); !errors.Is(err, enough) {
			t.Errorf("alternatives: %v", err)
		}
	}
}

// A job with as much in doubt as a job may have says that not all was weighed;
// usual ones, and a line of eight runs in doubt, are weighed in full.
func TestNotAllIsWeighed(t *testing.T) {
	said := func(p plan.Plan) bool {
		for _, f := range p.Findings {
			if f.Rule == "not-all-weighed" {
				return true
			}
		}
		return false
	}
	cat := shipped(t)
	doubtful := func(runs int) job.Job {
		j := document.New("Doubtful", length.Metric, cat)
		like := j.Lines[0].Runs[0]
		like.Spacing.Way, like.Spacing.Piece = job.PanelsOnFaces, 1800
		like.Grade.Look = job.Rolling
		j.Lines[0].Runs = nil
		for i := range runs {
			r, long := like, length.Length(4100)
			r.ID, r.Length = fmt.Sprintf("R%d", i), &long
			r.Ground = []job.GroundPoint{{At: 0}, {At: 900, Height: 500}, {At: 2000, Height: -400}, {At: 3000, Height: 600}}
			r.KeepOuts = []job.KeepOut{{ID: "K1", Kind: job.Rock, At: 1850, Width: 900}}
			j.Lines[0].Runs = append(j.Lines[0].Runs, r)
		}
		if errs := document.Check(j); len(errs) > 0 {
			t.Fatal(errs)
		}
		return j
	}
	if !said(plan.Make(doubtful(350), cat)) {
		t.Error("350 runs in doubt were weighed in full")
	}
	if said(plan.Make(doubtful(8), cat)) {
		t.Error("8 runs in doubt were not")
	}
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	for _, doc := range docs {
		j, _, err := document.Decode(doc, cat)
		if err != nil {
			t.Fatal(err)
		}
		if said(plan.Make(j, cat)) {
			t.Errorf("%s was not weighed in full", j.Name)
		}
	}
}

// Up to four holes that were stopped are moved each by itself; more than that,
// and it is the ground: they are moved together, in one trial.
func TestManyStoppedHolesMoveTogether(t *testing.T) {
	cat := shipped(t)
	for n := 3; n <= 6; n++ {
		j := document.New("Rock", length.Metric, cat)
		r := &j.Lines[0].Runs[0]
		long := length.Length(24000)
		r.Length = &long
		for k := range n {
			r.Overrides = append(r.Overrides, job.HoleOverride{ID: fmt.Sprintf("S%d", k), At: length.Length(2400 * (2 + k)), Hit: &job.Hit{What: job.HitRock, Depth: 300}})
		}
		j = j.WithFacts()
		p := plan.Make(j, cat)
		together, alone := 0, 0
		for _, post := range p.Runs[0].Posts {
			if post.Stopped == nil {
				continue
			}
			for _, w := range post.Stopped.Ways {
				if w.ID != "moved" {
					continue
				}
				if strings.HasPrefix(w.Name.Print(p.Units), fmt.Sprintf("Move all %d posts", n)) {
					together++
				} else {
					alone++
				}
			}
		}
		if n <= 4 && (alone != n || together != 0) || n > 4 && (together != n || alone != 0) {
			t.Errorf("%d stopped: %d moved alone, %d together", n, alone, together)
		}
	}
}

// A blunder of a height makes a slope that nothing can be raked along: the posts
// are spaced along 2 up for 1 along at the most, and the plan says that the
// pieces do not fit.
func TestASlipAsksForNoMillionsOfPosts(t *testing.T) {
	cat := shipped(t)
	j := document.New("Slip", length.Metric, cat)
	r := &j.Lines[0].Runs[0]
	long := length.Length(24000)
	r.Length, r.Grade.Look = &long, job.Raked
	r.Spacing.Way, r.Spacing.Piece = job.PanelsBetween, 1800
	r.Ground = []job.GroundPoint{{At: 0}, {At: 12000, Height: 700000}, {At: 24000, Height: 700000}}
	p := plan.Make(j, cat)
	// 12 m at 2 up for 1 along are 26.8 m: with the 12 m level at most 38.9 m of panels.
	if n := len(p.Runs[0].Posts); n > 25 || n < 14 {
		t.Errorf("%d posts", n)
	}
	if find(p, "lean-misfit") == nil {
		t.Error("that the pieces do not fit is not said")
	}
}

// Each way out of many tells no more than what it takes away, so that all of
// them keep the answer a size that a phone can take.
func TestManyWaysOutAreShort(t *testing.T) {
	cat := shipped(t)
	j := document.New("Overrides", length.Metric, cat)
	r := &j.Lines[0].Runs[0]
	long := length.Length(24000)
	r.Length = &long
	for k := range 2000 {
		r.Overrides = append(r.Overrides, job.HoleOverride{ID: fmt.Sprintf("S%d", k), At: length.Length(k) * 12})
	}
	left, told, size := 0, 0, 0
	for _, f := range plan.Make(j, cat).Findings {
		if f.Rule == "spot-left" {
			left++
			if len(f.Remedies) > 0 {
				told++
			}
			for _, w := range f.Remedies {
				edits, err := json.Marshal(w.Edits)
				if err != nil {
					t.Fatal(err)
				}
				size += len(edits)
			}
		}
	}
	if left < 1900 || told != left || size > 120*left {
		t.Errorf("%d rules without a post, %d with a way out, %d bytes of edits", left, told, size)
	}
}
