package document

import (
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// CheckParts looks at parts by what they say together; each field's own limits are
// checked where a document is read.
func CheckParts(at string, parts []job.Part, u length.Units) Errors { return checkParts(at, parts, u) }

// checkParts looks at parts that are a run's or a system's own.
func checkParts(at string, parts []job.Part, u length.Units) Errors {
	var e Errors
	seen := map[string]bool{}
	for _, p := range parts {
		field := job.At(at, "parts", p.ID)
		refuse := func(name, given, allowed string) { e = append(e, FieldError{field + name, given, allowed}) }
		e = append(e, once(field+"/id", p.ID, "part", seen)...)
		if (p.By == job.Along || p.By == job.ByRows) && p.Width < leastPiece {
			refuse("/width", u.Short(p.Width), words.Plain("document.from-to", words.V{"least": u.Short(leastPiece), "most": u.Short(4000)}))
		}
		if g := p.Gap; g != nil && (g.Least > g.Want || g.Want > g.Most) {
			refuse("/gap/want", u.Short(g.Want), words.Plain("document.from-to", words.V{"least": u.Short(g.Least), "most": u.Short(g.Most)}))
		}
		if p.By == job.Spaced && p.Spacing < leastPiece {
			refuse("/spacing", u.Short(p.Spacing), words.Plain("document.from-to", words.V{"least": u.Short(leastPiece), "most": u.Short(5000)}))
		}
		for _, l := range p.Stock {
			if l < 100 || l > 100000 {
				refuse("/stock", u.Short(l), words.Plain("document.from-to", words.V{"least": u.Short(100), "most": u.Short(100000)}))
			}
		}
		if p.By == job.ByRoll && (len(p.Stock) == 0 || p.Lap >= longest(p.Stock)) {
			refuse("/stock", strconv.Itoa(len(p.Stock)), words.Plain("document.a-roll-longer-than-its-lap", words.V{"lap": u.Short(p.Lap)}))
		}
	}
	return e
}

// leastPiece is the narrowest piece that is set side by side with others, and the
// least distance between fixings.
const leastPiece = 5 * length.Millimetre

func longest(all []length.Length) length.Length {
	most := length.Length(0)
	for _, l := range all {
		most = max(most, l)
	}
	return most
}

// piecesOf is how many pieces a run's own parts may come to.
func piecesOf(r job.Run, parts []job.Part, posts float64) float64 {
	if r.Length == nil {
		return 0
	}
	n := 0.0
	for _, p := range parts {
		each, wide := float64(max(1, p.Each)), max(leastPiece, p.Width)
		if p.Gap != nil {
			wide += p.Gap.Least
		}
		switch p.By {
		case job.Along:
			n += float64(max(1, p.Layers)) * float64(*r.Length/wide)
		case job.ByRows:
			n += posts * float64(r.Highest()/wide)
		case job.PerGap:
			n += each * (posts*float64(r.Highest()/leastPiece/10) + float64(*r.Length/leastPiece/10))
		default:
			n += each * posts
		}
	}
	return n
}
