package stage

import (
	"slices"

	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/words"
)

// can tells whether the run's material can do something. Findings, ways out,
// looks, steps and cautions all ask here; a run without a fence system is
// taken to be of timber, which can do everything.
func (m *Run) Can(a job.Ability) bool {
	return !slices.Contains(m.cannot, a)
}

// canLean tells whether the run's panels can follow a slope out of square.
func (m *Run) canLean() bool {
	rack := m.Spec.Grade.Rack
	return m.Can(job.RackPanels) && (rack == nil || *rack > 0)
}

// looksRefused are the looks that the run's panels cannot have, and why.
func (m *Run) LooksRefused() map[job.Look]string {
	if m.canLean() {
		return map[job.Look]string{}
	}
	why := words.Plain("stage.these-panels-are-rigid-they")
	return map[job.Look]string{job.Raked: why, job.Rolling: why}
}

// crew is how fast holes are dug here: the crew's own rates, or usual ones.
func (m *Run) Crew() materials.CrewRate {
	rate := m.Cat.Supply.Crew
	own := m.Job.Site.Crew
	if own == nil {
		return rate
	}
	if own.Hand > 0 {
		rate.Hand = own.Hand
	}
	if own.Auger != nil {
		rate.Auger = *own.Auger
	}
	if own.Setup != nil {
		rate.Setup = *own.Setup
	}
	return rate
}

// material is what the run's posts are made of.
func (m *Run) Material() string {
	if sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems); ok && sys.Material != "" {
		return sys.Material
	}
	if m.Spec.Post.Hollow {
		return "metal"
	}
	return "timber"
}

// solid is the share of the fence's face that is solid: the run's, or else its
// fence system's, or all of it.
func (m *Run) Solid() float64 {
	if own := m.Spec.Fence.Solidity; own > 0 {
		return own
	}
	if sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems); ok && sys.Fence.Solidity > 0 {
		return sys.Fence.Solidity
	}
	return 1
}
