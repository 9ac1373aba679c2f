package words

import (
	"fmt"
	"strconv"
	"strings"
)

// Plural tells the form that a number takes in a language: of the number as it
// is written, its whole part, how many decimals it shows, and the decimals as
// a number (Unicode CLDR, plural rules). The forms are zero, one, two, few,
// many and other.
type Plural func(whole, shown, decimals int) string

// plurals are the rules of the languages that there is a catalogue of. They
// stand here, and not in a library, for the sake of the core's size in a
// browser; the tests hold them against golang.org/x/text.
var plurals = map[string]Plural{
	"en": func(whole, shown, _ int) string {
		if whole == 1 && shown == 0 {
			return "one"
		}
		return "other"
	},
}

// of is the form of a value.
func (p Plural) of(value any) string {
	s := fmt.Sprint(value)
	if f, ok := value.(float64); ok {
		s = strconv.FormatFloat(f, 'f', -1, 64)
	}
	whole, decimals, _ := strings.Cut(strings.TrimPrefix(s, "-"), ".")
	i, _ := strconv.Atoi(whole)
	f, _ := strconv.Atoi(decimals)
	return p(i, len(decimals), f)
}
