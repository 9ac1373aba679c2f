package gates

import (
	"slices"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
)

// sweptKey is what a leaf's way over the ground was found from, but for the
// ground itself.
type sweptKey struct {
	leaf     gate.Leaf
	side     job.Swing
	from, to length.Length
	crown    length.Length
	want     length.Length
	cut      bool
}

// sweptSide is a leaf's way to one side, before it is placed on the map.
type sweptSide struct {
	levels []job.GroundLevel
	side   LeafSide
}

// sweptBefore is what was found of the very same leaf over the very same
// ground the last time: of a hundred gates one is dragged.
func (m *Gates) sweptBefore(key sweptKey, levels []job.GroundLevel) (LeafSide, bool) {
	was, ok := m.was[key]
	return was.side, ok && slices.EqualFunc(was.levels, levels, sameLevel)
}

func sameLevel(a, b job.GroundLevel) bool {
	aFirst, aSecond := a.Ends()
	bFirst, bSecond := b.Ends()
	return a.Off == b.Off && aFirst == bFirst && aSecond == bSecond
}
