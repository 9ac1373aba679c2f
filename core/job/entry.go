package job

import "mallow/core/length"

// entries are the fields in which a bare number is not in the small unit, by
// the last names of their paths; where two fit, the longer one counts.
var entries = map[string]length.Entry{
	// Along the line.
	"length": length.Distance, "at": length.Distance, "from": length.Distance, "to": length.Distance, "station": length.Distance,
	"corner/along": length.Distance, "corner/off": length.Distance, "corner/back": length.Distance, "corner/forth": length.Distance, "corner/diagonal": length.Distance,
	"leg": length.Distance, "diagonal": length.Distance, "x": length.Distance, "y": length.Distance,
	"road": length.Distance, "roomIn": length.Distance, "vehicle/length": length.Distance, "vehicle/trailer": length.Distance, "sight": length.Distance, "backSight": length.Distance,
	"in/off": length.Distance, "out/off": length.Distance, "crew/auger": length.Distance,
	// Given in either.
	"fence/height": length.Either, "maxHeight": length.Either, "spacing/most": length.Either, "spacing/least": length.Either, "spacing/piece": length.Either,
	"heldBays/width": length.Either, "opening": length.Either, "leaf": length.Either, "second": length.Either, "clear": length.Either, "vehicle/width": length.Either,
	"hardware/latch": length.Section, "post/stock": length.Either, "every": length.Either, "string/beyond": length.Either, "eyeHeight": length.Either, "gates/overlap": length.Either, "latch": length.Either,
	// Heights of the ground.
	"ground/height": length.Level, "drop": length.Level, "rise": length.Level, "back": length.Level, "side": length.Level, "fore": length.Level, "reading": length.Level,
	"books/start": length.Level, "books/close": length.Level, "in/first": length.Level, "in/second": length.Level, "out/first": length.Level, "out/second": length.Level,
}

// EntryOf is what a field of the document is filled with, by its JSON pointer.
// What is not listed is a section, a gap or a depth.
func EntryOf(path string) length.Entry {
	var names []string
	entry := false
	for _, part := range Names(path) {
		if part != "" && !entry {
			names = append(names, part)
		}
		entry = !entry && IsList(part)
	}
	n := len(names)
	if n > 1 {
		if e, ok := entries[names[n-2]+"/"+names[n-1]]; ok {
			return e
		}
	}
	if n > 0 {
		if e, ok := entries[names[n-1]]; ok {
			return e
		}
	}
	return length.Section
}
