package plan

import (
	"mallow/core/engine"
	"mallow/core/job"
	"mallow/core/stage"
	"mallow/core/stage/amend"
	"mallow/core/stage/load"
	"mallow/core/stage/record"
)

// Record holds what was seen on site against the plan.
func (r *Result) Record() *record.Log { return record.Compute(r.Job, r.loads()) }

// Amend says what can be done about what differs at a post, or at every post where
// something is to be decided; a post that nothing differs at has nothing.
func (r *Result) Amend(stop func() error, post string) (out []amend.Amending, err error) {
	out = []amend.Amending{}
	err = stage.Until(func() {
		advice, rec := r.Advice(stage.NewWatch(stop)), r.Record()
		for i := range rec.Posts {
			o := &rec.Posts[i]
			if post != "" && o.ID != post {
				continue
			}
			for k := range o.Deviations {
				if d := &o.Deviations[k]; d.State == record.Open || post != "" && d.State != record.LetGo {
					out = append(out, amend.Amending{Post: o.ID, Fact: d.Fact, Says: d.Says, Ways: r.waysOf(advice, o, d)})
				}
			}
		}
	})
	return out, err
}

func (r *Result) waysOf(advice *engine.Advice, o *record.RecordPost, d *record.Deviation) []amend.Way {
	run := r.Run(o.Run)
	a := advice.On(o.Run)
	ways := amend.Ways(r.Job.Observed, run.Load, a, func(then job.Run) (*load.Load, *stage.Outcome) {
		l := advice.InLine(then)
		if l == nil {
			return nil, nil
		}
		return l, engine.OutcomeOf(l)
	}, o, d)
	return ways
}
