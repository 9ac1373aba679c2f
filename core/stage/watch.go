package stage

import (
	"reflect"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/words"
)

// mostTrials is what one plan spends on weighing ways out, a second or two. What
// is beyond it is not offered, and that is said.
const mostTrials = 400_000

// watch is what a plan under way is held by: somebody who may tell it to stop,
// and what it has left to spend on trials.
type Watch struct {
	stop  func() error
	left  int
	Told  int
	spent bool // something was not weighed
}

func NewWatch(stop func() error) *Watch { return &Watch{stop: stop, left: mostTrials} }

// halted carries the reason to stop from where it is noticed to where planning
// began. It never leaves the package.
type halted struct{ error }

// look asks whether to go on.
func (w *Watch) Look() {
	if w.stop == nil {
		return
	}
	if err := w.stop(); err != nil {
		panic(halted{err})
	}
}

// mostTold is how many entries the lists hold that a plan's ways out set afresh:
// each such way tells its whole list.
const MostTold = 20_000

// tell tells whether edits are still to be told in full.
func (w *Watch) Tell(edits []job.Edit) bool {
	for _, e := range edits {
		if v := reflect.ValueOf(e.Value); v.Kind() == reflect.Slice {
			w.Told += v.Len()
		}
	}
	if w.Told > MostTold {
		w.spent = true
		return false
	}
	return true
}

// findings says that not everything was weighed.
func (w *Watch) Findings() []finding.Finding {
	if !w.spent {
		return nil
	}
	return []finding.Finding{{Rule: codeNotAllWeighed, Stage: finding.Space, Severity: finding.Note,
		Says: words.Say("stage.not-all-weighed")}}
}

// until runs do, and gives back the reason if it was told to stop.
func Until(do func()) (err error) {
	defer func() {
		switch r := recover().(type) {
		case nil:
		case halted:
			err = r.error
		default:
			panic(r)
		}
	}()
	do()
	return nil
}

// codeNotAllWeighed is found where not every way out was worked out.
const codeNotAllWeighed = "not-all-weighed"

// Findings are what advice itself finds.
var Findings = []finding.Kind{{Rule: codeNotAllWeighed, Costs: finding.Purchase, Stage: finding.Space, Severities: []finding.Severity{finding.Note},
	Means: "So much is in doubt that not every way out was worked out.", Threshold: "mostTrials, mostTold"}}
