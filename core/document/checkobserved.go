package document

import (
	"slices"
	"strconv"
	"strings"
	"time"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// idsOf is how many ids lead to what a fact is about.
var idsOf = map[string]int{"job": 0, "run": 1, "post": 1, "gate": 2}

var unitsOf = map[job.Measured][]string{
	job.MeasuresLength: {"mm", "cm", "m", "in", "ft", "ft-in"},
	job.MeasuresVolume: {"L", "m3", "yd3"},
	job.MeasuresCount:  {"bags"},
}

// enough is how many errors are collected of one list.
const enough = 50

// checkObserved refuses facts that say nothing that can be used; the first
// ones are known to.
func checkObserved(j job.Job, known int) Errors {
	var e Errors
	struck := map[string]bool{}
	for _, f := range j.Observed[known:] {
		struck[f.Strikes], struck[f.Answers] = f.Strikes != "", f.Answers != ""
	}
	before := map[string]job.Fact{} // those that later ones name
	for i, f := range j.Observed {
		if len(e) > enough {
			break // as many are wrong as anybody reads
		}
		if i >= known {
			e = append(e, checkFact(job.At("/observed", f.ID), f, before, j.Units)...)
		}
		if len(struck) > 0 && struck[f.ID] {
			before[f.ID] = f
		}
	}
	return e
}

func checkFact(at string, f job.Fact, before map[string]job.Fact, u length.Units) Errors {
	var e Errors
	refuse := func(field, given, allowed string) { e = append(e, FieldError{at + field, given, allowed}) }
	sight, _ := job.SightOf(f.What)
	kind, ids := f.About()
	if n, known := idsOf[kind]; !known || n != len(ids) || !slices.Contains(sight.About, kind) || slices.Contains(ids, "") {
		refuse("/on", strconv.Quote(f.On), words.Plain("document.what-a-fact-is-about", words.V{"about": strings.Join(sight.About, ", ")}))
	}
	if sight.Placed && f.At == nil {
		refuse("/at", "nothing", words.Plain("document.the-station-where-it-was"))
	}
	switch {
	case sight.Measures == job.MeasuresNothing && f.Value != nil:
		refuse("/value", plain(*f.Value), words.Plain("document.nothing-it-measures-nothing"))
	case sight.Measures == job.MeasuresNothing:
	case f.Value == nil:
		refuse("/value", "nothing", words.Plain("document.a-number"))
	default:
		least := 0.0
		if sight.Sides {
			least = -sight.Most
		}
		if v := *f.Value; v < least || v > sight.Most {
			refuse("/value", plain(v), words.Plain("document.a-number-from-to", words.V{"least": plain(least), "most": plain(sight.Most)}))
		}
	}
	if f.Unit != "" && !slices.Contains(unitsOf[sight.Measures], f.Unit) {
		allowed := words.Plain("document.nothing-it-measures-nothing")
		if sight.Measures != job.MeasuresNothing {
			allowed = strings.Join(unitsOf[sight.Measures], ", ")
		}
		refuse("/unit", strconv.Quote(f.Unit), allowed)
	}
	if _, err := time.Parse(time.RFC3339, f.When); f.When != "" && err != nil {
		refuse("/when", strconv.Quote(f.When), words.Plain("document.a-date-and-time"))
	}
	if answered, known := before[f.Answers]; f.What == job.Decided {
		if !known || answered.On != f.On || answered.What == job.StruckOut || answered.What == job.Decided {
			refuse("/answers", strconv.Quote(f.Answers), words.Plain("document.answers-an-earlier-fact"))
		}
		if f.Way == "" {
			refuse("/way", "nothing", words.Plain("document.a-way-by-name"))
		}
	} else if f.Answers != "" || f.Way != "" {
		refuse("/answers", strconv.Quote(f.Answers+f.Way), words.Plain("document.nothing-it-answers-nothing"))
	}
	if f.Turned && !f.Handed() {
		refuse("/turned", "true", words.Plain("document.nothing-it-has-no-hand"))
	}
	if f.Photo != "" && f.What != job.Noted {
		refuse("/photo", strconv.Quote(f.Photo), words.Plain("document.nothing-only-a-note-has-a-photograph"))
	}
	if was, known := before[f.Strikes]; f.What == job.StruckOut && (!known || was.What == job.StruckOut) {
		refuse("/strikes", strconv.Quote(f.Strikes), words.Plain("document.an-earlier-fact"))
	} else if f.What != job.StruckOut && f.Strikes != "" {
		refuse("/strikes", strconv.Quote(f.Strikes), words.Plain("document.nothing-it-strikes-nothing"))
	}
	return e
}
