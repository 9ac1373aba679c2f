package setout

import (
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stringline"
)

// setoutCheck looks at a run's strings.
type check struct {
	*Marking
	*stage.Checking
}

// check says what is to be said of the run's strings.
func (m *Marking) Check(c *stage.Checking) {
	cord, kind, known := m.cord()
	if !known {
		c.Find(finding.Finding{Rule: codeStringUnknown, Stage: finding.Strings, Severity: finding.Check,
			Says: reason.Say("There is no string called ", m.Spec.String.Kind, " in the catalogue; ", kind.Name, " is taken instead.")},
			stage.OneWay(reason.Say("Take ", kind.Name), m.Set("/string/kind", kind.ID)))
	}
	check{m, c}.lines(cord, kind)
}

// lines looks at whether the strings hold, and hang where they should.
func (m check) lines(cord stringline.Cord, kind materials.String) {
	s, out := m.Spec.String, m.Strings
	if s.Pull > kind.Most {
		m.Find(finding.Finding{Rule: codeStringBreaks, Stage: finding.Strings, Severity: finding.Cannot,
			Says: reason.Say(kind.Name, " stands ", reason.Force(kind.Most), "; ", reason.Force(s.Pull), " breaks it, and it whips.")}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: reason.Say("Pull ", reason.Force(kind.Pull)), Edits: []job.Edit{m.Set("/string/pull", kind.Pull)}}}
		})
	}
	if !out.Sight && s.Props < out.PropsFor && out.SagPropped > sagSpoken {
		severity := finding.Note
		if out.SagPropped > sagMuch {
			severity = finding.Check
		}
		m.Find(finding.Finding{Rule: codeSag, Stage: finding.Strings, Severity: severity,
			Says: reason.Say("The height string of ", m.Name(), " sags ", out.SagPropped, " where it hangs freest; the middle posts would be set that low.")}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: reason.Say(out.PropsFor, stage.Plural(out.PropsFor, " prop", " props")), Edits: []job.Edit{m.Set("/string/props", out.PropsFor)}}}
		})
	}
	if out.Sight {
		return
	}
	if out.Drift > driftAllowed {
		m.Find(finding.Finding{Rule: codeDrift, Stage: finding.Strings, Severity: finding.Check,
			Says: reason.Say("Today's wind pushes the string of ", m.Name(), " ", out.Drift, " out of line at its middle. Over ", *out.SightFrom, " sight along the posts instead, or wait for a still morning.")}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: reason.Say("Set ", m.Name(), " by sight"), Edits: []job.Edit{m.Set("/string/school", job.BySight)}}}
		})
	}
	m.touching(cord)
}

// touching looks for ground that the alignment string would touch.
func (m check) touching(cord stringline.Cord) {
	out := m.Strings
	least, where := length.Length(math.Inf(1)), length.Length(0)
	m.Profile.Each(0, m.Ground.Length, func(at, ground length.Length) {
		if clear := m.low(out, cord, at) - ground; clear < least {
			least, where = clear, at
		}
	})
	if least >= leastClear {
		return
	}
	raised := m.Job.Units.SmallestMark * length.Length(math.Ceil(float64((m.Spec.String.Low+leastClear-least)/m.Job.Units.SmallestMark)))
	f := finding.Finding{Rule: codeStringTouches, Stage: finding.Strings, Severity: finding.Check,
		Says: reason.Say("The alignment string of ", m.Name(), " comes within ", max(0, least), " of the ground at ", reason.Tape(where), ". A string that touches is not straight.")}
	if raised > 2000 {
		f.Says = append(f.Says, reason.Say(" String it in two lengths, over the crest and beyond.")...)
		m.Find(f)
		return
	}
	m.Find(f, stage.OneWay(reason.Say("Tie it ", raised, " above ground"), m.Set("/string/low", raised)))
}
