package days

import "mallow/core/words"

// What is asked for, waited for, and who comes.
var (
	startAsked     = words.Say("days.ask-start")
	marksDown      = words.Plain("days.locate")
	augerComes     = words.Plain("days.who-machine")
	inspectorComes = words.Plain("days.who-inspector")
	truckComes     = words.Plain("days.who-truck")
)
