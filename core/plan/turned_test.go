package plan_test

import (
	"encoding/json"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reshape"
)

// A line that is walked the other way: what stood to its left stands to its right, what
// leaned on leans back, and what is too high is too high still. Walked back again, all is
// as it was, to the last byte of what was seen.
func TestMeasuresKeepTheirHandWhenTheLineIsTurned(t *testing.T) {
	j, ids := logged(t)
	j = saw(j, seenAt(1, ids[3], job.OffLine, 24*ft, 25), seenAt(2, ids[3], job.OffPlumb, 24*ft, 9), seenAt(3, ids[3], job.OffAcross, 24*ft, -7), fact(4, ids[3], job.TopMark, 12))
	for l := range j.Lines {
		for r := range j.Lines[l].Runs {
			j.Lines[l].Runs[r] = j.Lines[l].Runs[r].Planned()
		}
	}
	raw, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	turn := func(doc []byte) (job.Job, []byte) {
		t.Helper()
		next, _, err := reshape.Apply(doc, reshape.Op{Do: "reverse", Line: j.Lines[0].ID}, shipped(t))
		if err != nil {
			t.Fatal(err)
		}
		then, err := document.Open(next, shipped(t))
		if err != nil {
			t.Fatal(err)
		}
		return then.Job, next
	}
	measured := func(j job.Job) (off, plumb, across, top length.Length) {
		t.Helper()
		for _, o := range recordOf(t, j).Posts {
			if o.ID == ids[3] {
				return *o.Off, *o.Plumb, *o.Across, *o.Top
			}
		}
		t.Fatal("the post is gone")
		return 0, 0, 0, 0
	}
	back, doc := turn(raw)
	if off, plumb, across, top := measured(back); off != -25 || plumb != -9 || across != 7 || top != 12 {
		t.Errorf("turned: %v %v %v %v", off, plumb, across, top)
	}
	again, _ := turn(doc)
	if off, plumb, across, top := measured(again); off != 25 || plumb != 9 || across != -7 || top != 12 {
		t.Errorf("turned twice: %v %v %v %v", off, plumb, across, top)
	}
	for _, f := range again.Observed {
		if f.Turned {
			t.Errorf("%s is turned still", f.ID)
		}
	}
}
