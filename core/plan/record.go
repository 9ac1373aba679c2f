package plan

import "mallow/core/stage/record"

// Record holds what was seen on site against the plan.
func (r *Result) Record() *record.Record { return record.Compute(r.Job, r.loads()) }
