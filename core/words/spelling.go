package words

import "strings"

// British is how words are spelled in jobs in metres. The catalogue is written
// in US spelling, which jobs in feet are told.
var British = map[string]string{
	"catalog":     "catalogue",
	"center":      "centre",
	"centers":     "centres",
	"color":       "colour",
	"colors":      "colours",
	"curb":        "kerb",
	"curbs":       "kerbs",
	"gray":        "grey",
	"kilometer":   "kilometre",
	"kilometers":  "kilometres",
	"liter":       "litre",
	"liters":      "litres",
	"meter":       "metre",
	"meters":      "metres",
	"millimeter":  "millimetre",
	"millimeters": "millimetres",
	"mortised":    "morticed",
	"neighbor":    "neighbour",
	"neighbors":   "neighbours",
	"neighbor's":  "neighbour's",
	"practiced":   "practised",
}

// spelled takes words apart where the two spellings differ. It reads letter by
// letter: the core in a browser carries no regular expressions.
func spelled(s string) message {
	var m message
	from, i := 0, 0
	for i < len(s) {
		to := i
		for to < len(s) && letter(s[to]) {
			to++
		}
		if strings.HasPrefix(s[to:], "'s") {
			to += 2
		}
		if other := inBritain(s[i:to]); other != "" {
			if i > from {
				m = append(m, part{text: s[from:i]})
			}
			m, from = append(m, part{text: s[i:to], british: other}), to
		}
		i = max(to, i+1)
	}
	if from < len(s) {
		m = append(m, part{text: s[from:]})
	}
	return m
}

func letter(c byte) bool { return 'a' <= c|0x20 && c|0x20 <= 'z' }

// inBritain is a word's other spelling; nothing where it has none.
func inBritain(word string) string {
	other := British[strings.ToLower(word)]
	if other != "" && word[0] < 'a' {
		other = strings.ToUpper(other[:1]) + other[1:]
	}
	return other
}
