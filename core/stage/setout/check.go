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
	"mallow/core/words"
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
			Says: words.Say("setout.string-unknown", words.V{"kind": m.Spec.String.Kind, "name": kind.Name})},
			stage.OneWay(words.Say("setout.take", words.V{"name": kind.Name}), m.Set("/string/kind", kind.ID)))
	}
	check{m, c}.lines(cord, kind)
}

// lines looks at whether the strings hold, and hang where they should.
func (m check) lines(cord stringline.Cord, kind materials.String) {
	s, out := m.Spec.String, m.Strings
	if s.Pull > kind.Most {
		m.Find(finding.Finding{Rule: codeStringBreaks, Stage: finding.Strings, Severity: finding.Cannot,
			Says: words.Say("setout.string-breaks", words.V{"name": kind.Name, "most": reason.Force(kind.Most), "pull": reason.Force(s.Pull)})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("setout.pull", words.V{"pull": reason.Force(kind.Pull)}), Edits: []job.Edit{m.Set("/string/pull", kind.Pull)}}}
		})
	}
	if !out.Sight && s.Props < out.PropsFor && out.SagPropped > sagSpoken {
		severity := finding.Note
		if out.SagPropped > sagMuch {
			severity = finding.Check
		}
		m.Find(finding.Finding{Rule: codeSag, Stage: finding.Strings, Severity: severity,
			Says: words.Say("setout.sag", words.V{"name": m.Name(), "sagPropped": out.SagPropped})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("setout.props-in-a-piece", words.V{"propsFor": out.PropsFor}), Edits: []job.Edit{m.Set("/string/props", out.PropsFor)}}}
		})
	}
	if out.Sight {
		return
	}
	if out.Drift > driftAllowed {
		m.Find(finding.Finding{Rule: codeDrift, Stage: finding.Strings, Severity: finding.Check,
			Says: words.Say("setout.drift", words.V{"name": m.Name(), "drift": out.Drift, "sightFrom": *out.SightFrom})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("setout.set-by-sight", words.V{"name": m.Name()}), Edits: []job.Edit{m.Set("/string/position", job.BySight)}}}
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
		Says: words.Say("setout.string-touches", words.V{"name": m.Name(), "value": max(0, least), "where": where})}
	if raised > 2000 {
		f.Says = append(f.Says, words.Say("setout.string-it-in-two-lengths")...)
		m.Find(f)
		return
	}
	m.Find(f, stage.OneWay(words.Say("setout.tie-it-above-ground", words.V{"raised": raised}), m.Set("/string/low", raised)))
}
