package dig

import (
	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/stage/slope"
	"mallow/core/words"
)

// hung is a leaf with its mass.
type hungLeaf struct {
	gate.Leaf
	Mass      length.Mass
	Estimated bool
}

// hang describes a gate's leaves in its bay.
func (m *Holes) Hang(g job.Gate, bay *slope.Bay) []hungLeaf {
	leaves := gate.Leaves(m.Spec, g, bay.BottomStart)
	out := make([]hungLeaf, len(leaves))
	wider := length.Length(0)
	for _, l := range leaves {
		wider = max(wider, l.Width)
	}
	for i, l := range leaves {
		height := bay.TopStart - bay.BottomStart
		if l.Post == job.SecondPost {
			height = bay.TopEnd - bay.BottomEnd
		}
		out[i] = hungLeaf{Leaf: l, Mass: m.leafMass(g, l.Width, height), Estimated: true}
		if g.Weight != nil {
			out[i].Mass, out[i].Estimated = *g.Weight*length.Mass(l.Width/wider), false
		}
	}
	return out
}

// leafMass estimates a leaf's mass from how it is made.
func (m *Holes) leafMass(g job.Gate, width, height length.Length) length.Mass {
	if made, ok := m.Cat.Make(g.Make); ok {
		return gate.Weigh(width, height, made.Area, made.Metre)
	}
	return gate.Weigh(width, height, m.Cat.Supply.Leaf, 0)
}

// leafMake is how a gate's leaves are made; a strut braces what is not said.
func (m *Holes) LeafMake(g job.Gate) materials.Make {
	if made, ok := m.Cat.Make(g.Make); ok {
		return made
	}
	return materials.Make{Name: words.Plain("dig.leaf"), Area: m.Cat.Supply.Leaf, Brace: materials.Strut}
}
