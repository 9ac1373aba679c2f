package plan_test

import (
	"encoding/json"
	"fmt"
	"testing"

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
