package stage

import (
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
)

// frost is the depth that the ground freezes to: the local office's figure, or
// else an estimate; nil while neither is known.
func (m *Run) Frost() (depth *length.Length, estimated bool) {
	if m.Job.Site.FrostDepth != nil {
		return m.Job.Site.FrostDepth, false
	}
	if m.Job.Site.Frost == nil {
		return nil, false
	}
	x := footing.FrostDepth(m.freeze())
	return &x, true
}

// freeze is what the frost depth is estimated from: what was entered, and of
// the rest what is usual for the soil.
func (m *Run) freeze() footing.Freeze {
	f, soil := m.Job.Site.Frost, m.Soil
	given := func(v *float64, usual float64) float64 {
		if v != nil {
			return *v
		}
		return usual
	}
	return footing.Freeze{
		Index: f.Index * footing.FahrenheitDays, Surface: given(f.Surface, usualSurface), Lambda: given(f.Lambda, 1),
		Conductivity: given(f.Conductivity, soil.Conductivity) * footing.BtuPerFoot,
		Moisture:     given(f.Moisture, soil.Moisture), Density: given(f.Density, soil.Density) * footing.PoundsPerFoot3,
	}
}

// usualSurface is the surface freezing index over that of the air: bare or
// mown ground (TM 5-852-6, from memory).
const usualSurface = 0.7

// question is everything that the size of a post's hole depends on.
func (m *Run) Question(kind job.PostKind, hung bool, reveal length.Length, r *job.Rules) footing.Question {
	frost, _ := m.Frost()
	return footing.Question{
		Kind: kind, Hung: hung, AboveGrade: reveal, Frost: frost, Height: m.Spec.Highest(),
		Post: m.Spec.PostOf(kind), Hole: r.Hole, Gravel: r.Setting.Gravel, Stand: r.Setting.Stand,
	}
}

// width finds a hole's width, which all posts of a kind share, but that a leaf
// may ask for more.
func (m *Run) Width(kind job.PostKind, hung bool) footing.Width {
	return m.widths[holeKind{kind, hung}]
}

// holeKind tells holes apart whose rules are the same but for what they carry.
type holeKind struct {
	kind job.PostKind
	hung bool
}

// opened is how wide the ground is opened for a post of a kind: its hole, or
// the post and its collar where it is driven.
func (m *Run) Opened(kind job.PostKind) length.Length {
	h := m.KindRules(kind).Hole
	if h.DrivenAt(kind) {
		return max(m.Spec.PostOf(kind).Across(), h.Collar)
	}
	return max(m.Width(kind, kind == job.GatePost).Width+h.Taper, h.Bell) + 2*h.Along.Abs()
}
