package plan_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// Compute alone, with findings, and with all advice: the three passes of the
// demo's first job, each from scratch.
func BenchmarkDemo(b *testing.B) {
	cat, j := shipped(b), demoJob(b, 0)
	r := computed(b, j, nil)
	b.Run("compute", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			computed(b, j, nil)
		}
	})
	b.Run("compute and check", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			computed(b, j, nil).Figures()
		}
	})
	b.Run("written down", func(b *testing.B) {
		p := r.Figures()
		b.ReportAllocs()
		for b.Loop() {
			if _, err := json.Marshal(p); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("told", func(b *testing.B) {
		for b.Loop() {
			if _, err := r.Tell(nil); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("advised", func(b *testing.B) {
		for b.Loop() {
			if err := r.Advise(nil, nil, func(plan.Advised) error { return nil }); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("one figure explained", func(b *testing.B) {
		f := plan.Figure{Run: "R1", Of: "post", ID: "P3", What: "holeDepth"}
		for b.Loop() {
			if _, ok := r.Explain(f); !ok {
				b.Fatal("no reasons")
			}
		}
	})
	_ = cat
}

func computed(t testing.TB, j job.Job, last *plan.Result) *plan.Result {
	t.Helper()
	r, err := plan.Compute(nil, j, shipped(t), last)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// One run in five hundred is edited: the others stay as they are.
func BenchmarkEditOneOf500Runs(b *testing.B) {
	j := longLine(b)
	last := computed(b, j, nil)
	last.Figures()
	height := j.Lines[0].Runs[250].Fence.Height
	b.ResetTimer()
	for i := range b.N {
		edited := j
		edited.Lines = []job.Line{j.Lines[0]}
		edited.Lines[0].Runs = append([]job.Run{}, j.Lines[0].Runs...)
		edited.Lines[0].Runs[250].Fence.Height = height + length.Length(i%9+1)
		last = computed(b, edited, last)
	}
}

// BenchmarkComputeLong computes long runs from scratch, without a word.
func BenchmarkComputeLong(b *testing.B) {
	for _, bays := range []int{39, 9999} {
		b.Run(fmt.Sprint(bays+1, " posts"), func(b *testing.B) {
			j := longRun(b, bays)
			b.ReportAllocs()
			for b.Loop() {
				computed(b, j, nil)
			}
		})
	}
}

// A job of 2,000 posts with 20,000 facts: read, given the names of its posts,
// and told apart from the revision before, as a save does.
func BenchmarkFacts20000(b *testing.B) {
	cat := shipped(b)
	j := document.New("Facts", length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	long := 1999 * 96 * length.Inch
	run.Length = &long
	r, err := plan.Compute(nil, j, cat, nil)
	if err != nil {
		b.Fatal(err)
	}
	posts := r.Runs[0].Holes.Posts
	for i := range 20000 {
		depth := float64(900 + i%7)
		f := job.Fact{ID: fmt.Sprint("f", i+1), On: job.On("post", posts[i%len(posts)].ID), When: "2026-11-28T10:00:00Z", What: job.MarkDug}
		if i%2 == 0 {
			f.What, f.Value, f.Unit = job.DepthDug, &depth, "in"
		}
		j.Observed = append(j.Observed, f)
	}
	raw, err := json.Marshal(j)
	if err != nil {
		b.Fatal(err)
	}
	o, err := document.Open(raw, cat)
	if err != nil {
		b.Fatal(err)
	}
	if _, err := o.Lay(r.Laid()); err != nil {
		b.Fatal(err)
	}
	doc := o.Doc
	more, err := document.Apply(doc, []job.Edit{job.Set("/observed/f20001", job.Fact{ID: "f20001", On: job.On("post", posts[3].ID), What: job.MarkSet})})
	if err != nil {
		b.Fatal(err)
	}
	b.Run("read", func(b *testing.B) {
		b.SetBytes(int64(len(doc)))
		for b.Loop() {
			if _, err := document.Open(doc, cat); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("named", func(b *testing.B) {
		for b.Loop() {
			r, err := plan.Compute(nil, o.Job, cat, nil)
			if err != nil {
				b.Fatal(err)
			}
			if _, err := o.Lay(r.Laid()); err != nil {
				b.Fatal(err)
			}
		}
	})
	was, err := document.Open(doc, cat)
	if err != nil {
		b.Fatal(err)
	}
	b.Run("one more written down", func(b *testing.B) { // as a save of it does, up to the store
		last := r
		n := 0
		for b.Loop() {
			n++
			id := fmt.Sprint("g", n)
			o, err := was.Edited([]job.Edit{job.Set(job.At("/observed", id), job.Fact{ID: id, On: job.On("post", posts[n%len(posts)].ID), What: job.MarkSet})}, cat)
			if err != nil {
				b.Fatal(err)
			}
			if last, err = plan.Again(nil, o.Job, cat, last); err != nil {
				b.Fatal(err)
			}
			if _, err := o.Lay(last.Laid()); err != nil {
				b.Fatal(err)
			}
			was = o
		}
	})
	if was, err = document.Open(doc, cat); err != nil {
		b.Fatal(err)
	}
	is, err := document.Open(more, cat)
	if err != nil {
		b.Fatal(err)
	}
	b.Run("told apart", func(b *testing.B) {
		for b.Loop() {
			if len(is.Since(was)) != 1 {
				b.Fatal("not told apart")
			}
		}
	})
}
