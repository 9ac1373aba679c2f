package plan

import (
	"reflect"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
)

// mostTrials is what one plan spends on weighing ways out, a second or two. What
// is beyond it is not offered, and that is said.
const mostTrials = 400_000

// watch is what a plan under way is held by: somebody who may tell it to stop,
// and what it has left to spend on trials.
type watch struct {
	stop  func() error
	left  int
	told  int
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

// afford tells whether a trial of a run can be paid for, and pays.
func (m *maker) afford(run job.Run) bool {
	m.watch.look()
	cost := m.effort(run)
	if cost > m.watch.left {
		m.watch.spent = true
		return false
	}
	m.watch.left -= cost
	return true
}

// mostTold is how many entries the lists hold that a plan's ways out set afresh:
// each such way tells its whole list.
const mostTold = 20_000

// tell tells whether edits are still to be told in full.
func (w *watch) tell(edits []job.Edit) bool {
	for _, e := range edits {
		if v := reflect.ValueOf(e.Value); v.Kind() == reflect.Slice {
			w.told += v.Len()
		}
	}
	if w.told > mostTold {
		w.spent = true
		return false
	}
	return true
}

// sound tells whether the job would take a run as it is changed. To look costs
// something too, where a run holds much; when nothing is left to spend, it is
// taken for unsound and said not to be weighed.
func (m *maker) sound(run job.Run) bool {
	m.watch.look()
	m.watch.left -= (4*len(run.Gates) + len(run.Spots) + len(run.KeepOuts) + len(run.Ground)/2) / 16
	if m.watch.left < 0 {
		m.watch.spent = true
		return false
	}
	return len(job.CheckRun("", run, m.job.Units)) == 0
}

// trialBase is what the smallest trial costs, in posts.
const trialBase = 8

// effort is what a trial of a run costs. A line that leans is solved for, with
// some limits for each bay and each height of the ground; leaning pieces are
// spaced and solved for in turns.
func (m *maker) effort(run job.Run) int {
	posts := len(m.layout.Posts) + trialBase
	if !run.Leans() {
		return 2 * posts
	}
	limits := 32*posts + 6*len(m.ground.Points)
	if _, piece := run.Spacing.ByPiece(); piece {
		return 6 * limits
	}
	return 2 * limits
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
