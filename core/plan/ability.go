package plan

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// can tells whether the run's material can do something. Findings, ways out,
// looks, steps and cautions all ask here; a run without a fence system is
// taken to be of timber, which can do everything.
func (m *maker) can(a job.Ability) bool {
	return !slices.Contains(m.cannot, a)
}

// canLean tells whether the run's panels can follow a slope out of square.
func (m *maker) canLean() bool {
	rack := m.run.Grade.Rack
	return m.can(job.RackPanels) && (rack == nil || *rack > 0)
}

// looksRefused are the looks that the run's panels cannot have, and why.
func (m *maker) looksRefused() map[job.Look]string {
	if m.canLean() {
		return map[job.Look]string{}
	}
	why := "these panels are rigid: they do not lean out of square."
	return map[job.Look]string{job.Raked: why, job.Rolling: why}
}

// lengthen sets a post that cannot be cut to height as much deeper as the next
// stock length is longer. By is how much that is.
func (m *maker) lengthen(p *Post, s *sized) {
	if m.can(job.CutPosts) || s.depth.Stopped || s.depth.ByHand {
		return
	}
	foot := s.dug().Foot
	stock, ok := footing.Stock(p.Reveal+foot, m.run.Post.Stock)
	if !ok {
		return
	}
	s.longer += stock - p.Reveal - foot
	s.depth.Foot += stock - p.Reveal - foot
	s.depth.Bottom += stock - p.Reveal - foot
	s.depth.Hole += stock - p.Reveal - foot
}

// muchDeeper is how much deeper than asked a post that is not cut may stand
// before it is spoken of: a foot.
const muchDeeper = 300 * length.Millimetre

// judgeUncut speaks of posts that cannot be cut and whose stock is too long.
func (m *maker) judgeUncut() {
	if m.can(job.CutPosts) {
		return
	}
	deep, long := -1, -1
	count := 0
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Card < 0 || p.Shared != "" {
			continue
		}
		s := &m.ditches[p.Card].sized
		if s.longer >= muchDeeper-length.Tolerance {
			if count++; deep < 0 || s.longer > m.ditches[m.out.Posts[deep].Card].sized.longer {
				deep = i
			}
		}
		if p.CutOff != nil && *p.CutOff > m.job.Units.SmallestMark && (long < 0 || *p.CutOff > *m.out.Posts[long].CutOff) {
			long = i
		}
	}
	if deep >= 0 {
		p := &m.out.Posts[deep]
		m.find(finding.Finding{Rule: "uncut-deep", Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
			Says: reason.Say("These posts are not cut to height: ", count, plural(count, " stands", " stand"), " a foot (300 mm) or more deeper than the rules ask, ", p.ID, " the most, by ", m.ditches[p.Card].sized.longer, ". Another stock length or even steps would save digging.")})
	}
	if long >= 0 {
		p := &m.out.Posts[long]
		m.find(finding.Finding{Rule: "uncut-long", Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
			Says: reason.Say("These posts are not cut to height, and ", p.ID, ", ", *p.Stock, " long, is ", *p.CutOff, " too long for its hole: order one of ", *p.Stock-*p.CutOff, ", or dig deeper.")})
	}
}
