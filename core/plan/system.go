package plan

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
)

// judgeSystem holds the run against the fence system it was set up from: its
// limits and cautions hold whatever was changed since.
func (m *maker) judgeSystem() {
	if m.run.System == "" {
		return
	}
	sys, ok := m.cat.System(m.run.System, m.job.Systems)
	if !ok {
		m.find(finding.Finding{Rule: "system-unknown", Stage: finding.Space, Severity: finding.Check,
			Says:     reason.Say("The fence system ", m.run.System, " is neither in the catalogue nor among the job's own; its limits and cautions are not known here."),
			Remedies: []finding.Remedy{{Says: reason.Say("Forget the system and keep the values"), Edits: []job.Edit{m.set("/system", nil)}}}})
		return
	}
	for _, c := range sys.Cautions {
		m.out.Reminders = append(m.out.Reminders, Caution{finding.Pour, reason.Say(c)})
	}
	for _, f := range sys.Forbidden {
		m.out.Reminders = append(m.out.Reminders, Caution{finding.Pour, reason.Say("Not ", methodNames[f.Method], ": ", f.Why)})
	}
	for _, f := range sys.Mind {
		m.out.Reminders = append(m.out.Reminders, Caution{finding.Pour, reason.Say("Mind, ", methodNames[f.Method], ": ", f.Why)})
	}
	if limit, own := sys.Grade.Rack, m.run.Grade.Rack; limit != nil && m.run.Grade.Look.Leans() && (own == nil || *own > *limit) {
		m.find(finding.Finding{Rule: "rack-over-system", Stage: finding.Grade, Severity: finding.Check,
			Says:     reason.Say(sys.Name, " rack at most ", *limit, "; this run lets them rack more."),
			Remedies: []finding.Remedy{{Says: reason.Say("Rack at most ", *limit), Edits: []job.Edit{m.set("/grade/rack", *limit)}}}})
	}
	if m.run.Fence.GapMost > sys.Fence.GapMost && sys.Fence.GapMost <= smallGap {
		m.find(finding.Finding{Rule: "gap-over-system", Stage: finding.Grade, Severity: finding.Check,
			Says:     reason.Say(sys.Name, " ask for a gap of at most ", sys.Fence.GapMost, "; this run allows ", m.run.Fence.GapMost, "."),
			Remedies: []finding.Remedy{{Says: reason.Say("A gap of at most ", sys.Fence.GapMost), Edits: []job.Edit{m.set("/fence/gapMost", sys.Fence.GapMost)}}}})
	}
}

// smallGap is the most gap up to which a system's own is meant strictly: at a
// barrier, or over a gravel board.
const smallGap = 51

var methodNames = map[job.Method]string{
	job.Braced: "braced and filled", job.FastDry: "with fast-setting mix poured dry", job.DryPacked: "dry-packed", job.Stabbed: "stabbed into wet concrete",
	job.RockPacked: "packed in rock or gravel", job.Drive: "driven", job.Slurry: "with rocks first and slurry", job.Layered: "layered round a sleeve",
}
