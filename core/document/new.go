package document

import (
	"mallow/core/job"
	"mallow/core/length"
)

// New returns a job in which nothing is measured yet, with one run of usual
// values, all written out: what the job is planned with stays in the job. Rules
// for holes are the job's own; a run says only what is particular about it.
func New(name string, sys length.System, usual Usual) job.Job {
	run := usual.UsualRun(sys)
	run.ID, run.Name = "R1", "Run 1"
	run.Ground, run.Gates = []job.GroundPoint{}, []job.Gate{}
	rules := usual.UsualRules(sys)
	return job.Job{
		Mallow: job.Version, Name: name, Units: length.Usual(sys),
		// Half an inch at the ground hurts few fences, and most are designed so.
		Site: job.Site{Movement: true}, Hole: rules.Hole, Setting: rules.Setting,
		Lines: []job.Line{{ID: "L1", Runs: []job.Run{run}}},
	}
}
