package stage

import (
	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// weighMost is the longest run, in posts, on which remedies are weighed:
// beyond it a plan would take too long to change under a finger.
const WeighMost = 1500

// trials plans a run as it would be, by itself: what its corner posts share
// with other runs is the same before and after, and falls out of a difference.
// It is how a stage reaches the whole plan.
type Trials interface {
	// now is the run as it is, planned like a trial.
	Now() *Outcome
	// then is the run as it would be.
	Then(run job.Run) *Outcome
}

// outcome is what a trial of a run comes to.
type Outcome struct {
	Posts      int
	Trouble    int // demands that the layout does not meet
	Odd        int // odd bays
	CutPieces  int
	StockShort int // posts for which no stock is long enough
	Weak       int // posts on which every rail has a joint

	Stock    length.Length // of all posts as bought
	Concrete length.Volume // in the holes
	Buy      length.Volume // with waste
	Bags     int

	// weakest is the gust at which the weakest line post's footing reaches its
	// limit, metres per second; negative without one.
	Weakest func() float64
}

// costOver is what an outcome takes more than another.
func (o *Outcome) CostOver(now *Outcome) finding.Cost {
	return finding.Cost{
		Posts: o.Posts - now.Posts, CutPieces: o.CutPieces - now.CutPieces, Concrete: o.Buy - now.Buy,
		Bags: o.Bags - now.Bags, OddBays: o.Odd - now.Odd, Stock: o.Stock - now.Stock,
	}
}

// advising is what the ways out of a run's findings are worked out with: trials
// of the run, and what may still be spent on them.
type Advising struct {
	*Run
	Posts int // of the run
	Watch *Watch
	Trials
	Known map[any]any // what was worked out already
}

// remember works something out once for all who ask while a run is advised on.
func Remember[K comparable, V any](a *Advising, key K, work func() V) V {
	if v, ok := a.Known[key]; ok {
		return v.(V)
	}
	v := work()
	a.Known[key] = v
	return v
}

// sound tells whether the job would take a run as it is changed. To look costs
// something too, where a run holds much; when nothing is left to spend, it is
// taken for unsound and said not to be weighed.
func (a *Advising) Sound(run job.Run) bool {
	a.Watch.Look()
	a.Watch.left -= (4*len(run.Gates) + len(run.Overrides) + len(run.KeepOuts) + len(run.Ground)/2) / 16
	if a.Watch.left < 0 {
		a.Watch.spent = true
		return false
	}
	return len(document.CheckRun("", run, a.Job.Units)) == 0
}

// afford tells whether a trial of a run can be paid for, and pays.
func (a *Advising) afford(run job.Run) bool {
	a.Watch.Look()
	cost := a.effort(run)
	if cost > a.Watch.left {
		a.Watch.spent = true
		return false
	}
	a.Watch.left -= cost
	return true
}

// trialBase is what the smallest trial costs, in posts.
const trialBase = 8

// effort is what a trial of a run costs. A line that leans is solved for, with
// some limits for each bay and each height of the ground; leaning pieces are
// spaced and solved for in turns.
func (a *Advising) effort(run job.Run) int {
	posts := a.Posts + trialBase
	if !run.Leans() {
		return 2 * posts
	}
	limits := 32*posts + 6*len(a.Ground.Points)
	if _, piece := run.Spacing.ByPiece(); piece {
		return 6 * limits
	}
	return 2 * limits
}

// edited is the run as edits make it, if the job would take it and a trial of
// it can be paid for.
func (a *Advising) Edited(edits []job.Edit) (job.Run, bool) {
	run, err := a.Given.Edited(a.Path, a.Usual, edits)
	return run, err == nil && a.Sound(run) && a.afford(run)
}

// offer weighs a way out and, if better says so, offers it with its cost. What
// is tried is what the edits come to. A way that the job would refuse is not
// offered.
func (a *Advising) Offer(says reason.Text, better func(now, then *Outcome) bool, edits ...job.Edit) []finding.Remedy {
	if a.Posts > WeighMost {
		return nil
	}
	run, ok := a.Edited(edits)
	if !ok {
		return nil
	}
	now, then := a.Now(), a.Then(run)
	if !better(now, then) {
		return nil
	}
	cost := then.CostOver(now)
	return []finding.Remedy{{Says: says, Edits: edits, Cost: &cost}}
}

// anyway takes whatever comes.
func Anyway(_, _ *Outcome) bool { return true }

// frees is what a way out of a clash must do.
func Frees(now, then *Outcome) bool { return then.Trouble < now.Trouble }

// evens is what a way to equal bays must do.
func Evens(now, then *Outcome) bool { return then.Trouble <= now.Trouble && then.Odd == 0 }

// small is a change that is tried.
type Change struct {
	Says  reason.Text
	Edits []job.Edit
}

// nearly notes a near miss, with the changes that may help: without any that
// does there is nothing to say.
func (c *Checking) Nearly(f finding.Finding, better func(now, then *Outcome) bool, tries ...Change) {
	f.Severity = finding.Note
	c.Find(f, func(a *Advising) (out []finding.Remedy) {
		for _, s := range tries {
			out = append(out, a.Offer(s.Says, func(now, then *Outcome) bool {
				return then.Trouble <= now.Trouble && then.StockShort <= now.StockShort && better(now, then)
			}, s.Edits...)...)
		}
		return out
	})
	c.Found[len(c.Found)-1].Maybe = true
}
