package document

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// checkGrade refuses parts that are off the run, empty or in one another, and
// rails that are off the fence or out of order.
func checkGrade(at string, r job.Run, u length.Units) Errors {
	var e Errors
	for i, p := range r.Grade.Parts {
		field := job.At(at, "grade", "parts", p.ID)
		switch {
		case r.Length != nil && p.From > *r.Length+length.Tolerance:
			e = append(e, FieldError{field + "/from", u.Tape(p.From), words.Plain("document.a-station-on-the-run", words.V{"length": u.Tape(*r.Length)})})
		case p.To <= p.From+length.Tolerance:
			e = append(e, FieldError{field + "/to", u.Tape(p.To), words.Plain("document.past-where-the-part-begins", words.V{"from": u.Tape(p.From)})})
		case i > 0 && p.From < r.Grade.Parts[i-1].To-length.Tolerance:
			e = append(e, FieldError{field + "/from", u.Tape(p.From), words.Plain("document.at-or-past-the-end", words.V{"to": u.Tape(r.Grade.Parts[i-1].To)})})
		}
	}
	for i, rail := range r.Fence.Rails {
		field := at + "/fence/rails"
		switch {
		case rail < 0 || rail > r.Fence.Height:
			e = append(e, FieldError{field, u.Short(rail), words.Plain("document.on-the-fence-0-to", words.V{"height": u.Short(r.Fence.Height)})})
		case i > 0 && rail <= r.Fence.Rails[i-1]:
			e = append(e, FieldError{field, u.Short(rail), words.Plain("document.over-the-rail-under-it", words.V{"rails": u.Short(r.Fence.Rails[i-1])})})
		}
	}
	return e
}
