package engine

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/curbing"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/setout"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/stage/walk"
)

// Kinds are all that the stages find, stage after stage.
func Kinds() []finding.Kind {
	return slices.Concat(walk.Findings, space.Findings, slope.Findings, dig.Findings, gates.Findings, build.Findings, setout.Findings, curbing.Findings, load.Findings, stage.Findings)
}
