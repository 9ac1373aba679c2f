package length

// Entry is what a field is filled with, which tells what a number without a
// unit means there: a person who types 120 for a run means 120 feet, and for
// a post 120 millimetres.
type Entry string

// What fields are filled with. An imperial and a metric job read a bare number
// as follows.
const (
	// Section is a section, a gap, a depth: inches, or millimetres.
	Section Entry = "section"
	// Distance is a length of run, a station, a leg: feet, or metres.
	Distance Entry = "distance"
	// Either is a spacing, a fence's height, a gate's width, which people give
	// in either: under 24 in feet, or under 30 in metres, else in the small
	// unit.
	Either Entry = "either"
	// Level is a height of the ground, a drop or a rod reading: inches; or
	// under 5 in metres, else millimetres.
	Level Entry = "level"
)

// Where the plausible unit changes.
const (
	feetUnder   = 24 // a spacing of 8, a gate of 16: feet; of 30, 72 or 96: inches
	metresUnder = 30 // a spacing of 2.4: metres; of 1800: millimetres
	levelUnder  = 5  // a reading of 1.42: metres; of 25 or 1420: millimetres
)

// big tells whether a bare number is in the big unit, feet or metres.
func (e Entry) big(n float64, sys System) bool {
	if n < 0 {
		n = -n
	}
	switch e {
	case Distance:
		return true
	case Either:
		return sys == Imperial && n < feetUnder || sys == Metric && n < metresUnder
	case Level:
		return sys == Metric && n < levelUnder
	}
	return false
}
