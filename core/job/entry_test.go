package job_test

import (
	"testing"

	"mallow/core/job"
	"mallow/core/length"
)

// Each field of the document that is typed, and what a bare number means in it.
func TestEveryFieldKnowsItsEntry(t *testing.T) {
	run := "/lines/L1/runs/R13"
	for entry, paths := range map[length.Entry][]string{
		length.Distance: {run + "/length", run + "/ground/h4/at", run + "/gates/G1/at", run + "/keepOuts/K2/at", run + "/fixedPosts/F1/at", run + "/heldBays/H1/at", run + "/overrides/S1/at", run + "/corner/back",
			run + "/corner/diagonal", run + "/corner/along", run + "/grade/parts/a1/from", "/lines/L1/books/B1/rows/w4/at", "/lines/L1/x", run + "/gates/G1/road", run + "/gates/G1/vehicle/length", "station", "leg", "diagonal"},
		length.Either: {run + "/fence/height", run + "/spacing/most", run + "/spacing/least", run + "/spacing/piece", run + "/heldBays/H1/width", run + "/gates/G1/opening", run + "/gates/G1/leaf",
			run + "/gates/G1/second", run + "/gates/G1/clear", run + "/post/stock", "/site/before/maxHeight", run + "/gates/G1/latch", "every"},
		length.Level: {run + "/ground/h1/height", "/lines/L1/books/B1/rows/w1/drop", "/lines/L1/books/B1/rows/w1/rise", "/lines/L1/books/B1/rows/w1/back", run + "/gates/G1/in/n1/first", "reading"},
		length.Section: {run + "/post/width", run + "/post/wall", run + "/post/trim", run + "/fence/gapLeast", run + "/spacing/play", run + "/spacing/slot", run + "/hole/floor", run + "/hole/width", "/hole/bell",
			"/setting/gravel", run + "/kinds/gate/hole/depth", run + "/overrides/S1/hole/depth", "/site/frostDepth", run + "/keepOuts/K1/width", run + "/keepOuts/K1/hand", run + "/gates/G1/gap", run + "/gates/G1/hardware/latch",
			run + "/string/mark", run + "/grade/rack", run + "/grade/board", run + "/gates/G1/thick", run + "/gates/G1/hingeIn", ""},
	} {
		for _, p := range paths {
			if got := job.EntryOf(p); got != entry {
				t.Errorf("%s is filled with a %s, want %s", p, got, entry)
			}
		}
	}
}
