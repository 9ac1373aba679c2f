package job_test

import (
	"testing"

	"mallow/core/job"
	"mallow/core/length"
)

// Each field of the document that is typed, and what a bare number means in it.
func TestEveryFieldKnowsItsEntry(t *testing.T) {
	run := "/lines/0/runs/12"
	for entry, paths := range map[length.Entry][]string{
		length.Distance: {run + "/length", run + "/ground/3/at", run + "/gates/0/at", run + "/keepOuts/1/at", run + "/fixedPosts/0/at", run + "/heldBays/0/at", run + "/spots/0/at", run + "/corner/back",
			run + "/corner/diagonal", run + "/corner/along", run + "/grade/parts/0/from", "/lines/0/books/0/rows/3/at", "/lines/0/x", run + "/gates/0/road", run + "/gates/0/vehicle/length", "station", "leg", "diagonal"},
		length.Either: {run + "/fence/height", run + "/spacing/most", run + "/spacing/least", run + "/spacing/piece", run + "/heldBays/0/width", run + "/gates/0/opening", run + "/gates/0/leaf",
			run + "/gates/0/second", run + "/gates/0/clear", run + "/post/stock/2", "/site/before/maxHeight", run + "/gates/0/latch", "every"},
		length.Level: {run + "/ground/0/height", "/lines/0/books/0/rows/0/drop", "/lines/0/books/0/rows/0/rise", "/lines/0/books/0/rows/0/back", run + "/gates/0/in/0/first", "reading"},
		length.Section: {run + "/post/width", run + "/post/wall", run + "/post/trim", run + "/fence/gapLeast", run + "/spacing/play", run + "/spacing/slot", run + "/hole/floor", run + "/hole/width", "/hole/bell",
			"/setting/gravel", run + "/kinds/0/hole/depth", run + "/spots/0/hit/depth", "/site/frostDepth", run + "/keepOuts/0/width", run + "/keepOuts/0/hand", run + "/gates/0/gap", run + "/gates/0/hardware/latch",
			run + "/string/mark", run + "/grade/rack", run + "/grade/board", run + "/gates/0/thick", run + "/gates/0/hingeIn", ""},
	} {
		for _, p := range paths {
			if got := job.EntryOf(p); got != entry {
				t.Errorf("%s is filled with a %s, want %s", p, got, entry)
			}
		}
	}
}
