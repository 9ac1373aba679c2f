package plan

import (
	"mallow/core/finding"
	"mallow/core/reason"
)

// mostTrials is what one plan spends on weighing ways out, in posts of trial
// layouts: some seconds. What is beyond it is not offered, and that is said.
const mostTrials = 400_000

// watch is what a plan under way is held by: somebody who may tell it to stop,
// and what it has left to spend on trials.
type watch struct {
	stop  func() error
	left  int
	spent bool // something was not weighed
}

func newWatch(stop func() error) *watch { return &watch{stop: stop, left: mostTrials} }

// halted carries the reason to stop from where it is noticed to where planning
// began. It never leaves the package.
type halted struct{ error }

// look asks whether to go on.
func (w *watch) look() {
	if w.stop == nil {
		return
	}
	if err := w.stop(); err != nil {
		panic(halted{err})
	}
}

// afford tells whether a trial of so many posts can be paid for, and pays.
func (w *watch) afford(posts int) bool {
	w.look()
	if posts > w.left {
		w.spent = true
		return false
	}
	w.left -= posts
	return true
}

// findings says that not everything was weighed.
func (w *watch) findings() []finding.Finding {
	if !w.spent {
		return nil
	}
	return []finding.Finding{{Rule: "not-all-weighed", Stage: finding.Space, Severity: finding.Note,
		Says: reason.Say("So much is in doubt on this job that not every way out was worked out. Settle the first ones; the others follow.")}}
}

// until runs do, and gives back the reason if it was told to stop.
func until(do func()) (err error) {
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
