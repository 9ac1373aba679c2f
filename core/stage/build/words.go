package build

import "mallow/core/words"

// What the parts are called that no recipe names: gravel boards, which the run and
// its slopes have, and what holds a bay that must come out again.
var (
	gravelBoardName = words.Plain("build.gravel-board")
	liftOutName     = words.Plain("build.lift-out")
	liftOutSays     = words.Plain("build.lift-out-says")
)
