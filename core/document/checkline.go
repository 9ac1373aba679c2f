package document

import (
	"strconv"
	"time"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

func checkTicket(t *job.Ticket) Errors {
	if t == nil {
		return nil
	}
	var e Errors
	for field, date := range map[string]string{"asked": t.Asked, "clear": t.Clear} {
		e = append(e, checkDate("/site/before/ticket/"+field, date)...)
	}
	return e
}

// checkDate refuses what is no day.
func checkDate(field, date string) Errors {
	if _, err := time.Parse(time.DateOnly, date); err != nil {
		return Errors{{field, strconv.Quote(date), words.Plain("document.a-date-year-month-day")}}
	}
	return nil
}

// checkOffer refuses days that are none, or in the wrong order.
func checkOffer(o job.Offer) Errors {
	var e Errors
	days := map[string]time.Time{}
	for field, date := range map[string]string{"start": o.Start, "end": o.End} {
		if date == "" {
			continue
		}
		e = append(e, checkDate("/offer/"+field, date)...)
		days[field], _ = time.Parse(time.DateOnly, date)
	}
	if len(e) == 0 && len(days) == 2 && days["end"].Before(days["start"]) {
		e = append(e, FieldError{"/offer/end", strconv.Quote(o.End), words.Plain("document.not-before-the-first-day", words.V{"start": o.Start})})
	}
	return e
}

func checkKeepOuts(at string, r job.Run, u length.Units) Errors {
	var e Errors
	for _, k := range r.KeepOuts {
		field := job.At(at, "keepOuts", k.ID)
		if k.At > *r.Length+length.Tolerance {
			e = append(e, FieldError{field + "/at", u.Tape(k.At), words.Plain("document.a-station-on-the-run", words.V{"length": u.Tape(*r.Length)})})
		}
		if k.Low != nil && k.High != nil && *k.High <= *k.Low+length.Tolerance {
			e = append(e, FieldError{field + "/highHinge", u.Short(*k.High), words.Plain("document.above-the-lower-hinge", words.V{"low": u.Short(*k.Low)})})
		}
	}
	return e
}

// leastClosed is the fewest runs that enclose anything.
const leastClosed = 3

func checkLine(at string, l job.Line, u length.Units) Errors {
	var e Errors
	if l.Closed && len(l.Runs) < leastClosed {
		e = append(e, FieldError{at + "/closed", "true", words.Plain("document.false-on-a-line-of", words.V{"leastClosed": leastClosed})})
	}
	for i, r := range l.Runs {
		if r.Corner == nil {
			continue
		}
		before := (i + len(l.Runs) - 1) % len(l.Runs)
		e = append(e, checkCorner(job.At(at, "runs", r.ID, "corner"), *r.Corner, l.Runs[before], r, u)...)
	}
	byID := map[string]job.Run{}
	for _, r := range l.Runs {
		byID[r.ID] = r
	}
	for _, b := range l.Books {
		field := job.At(at, "books", b.ID)
		e = append(e, checkBook(field, b, byID, u)...)
	}
	return e
}

// checkCorner refuses a triangle that cannot be. A leg that is a whole run
// taped along the slope is known only once the heights are, and judged then.
func checkCorner(at string, c job.Corner, before, after job.Run, u length.Units) Errors {
	switch c.By {
	case job.ByOffset:
		if c.Along == 0 && c.Off == 0 {
			return Errors{{at + "/off", u.Short(0), words.Plain("document.more-than-0-or-a")}}
		}
	case job.ByDiagonal:
		sloped := c.Back == nil && before.Taped == job.TapedSlope || c.Forth == nil && after.Taped == job.TapedSlope
		back, forth, ok := c.Legs(before, after)
		if !ok || sloped {
			return nil
		}
		least, most := (back - forth).Abs(), back+forth
		if c.Diagonal < least-length.Tolerance || c.Diagonal > most+length.Tolerance {
			return Errors{{at + "/diagonal", u.Tape(c.Diagonal),
				words.Plain("document.to-with-legs-of-and", words.V{"least": u.Tape(least), "most": u.Tape(most), "back": u.Tape(back), "forth": u.Tape(forth)})}}
		}
	}
	return nil
}

func checkBook(at string, b job.Book, runs map[string]job.Run, u length.Units) Errors {
	if b.Kind == job.Rod {
		return checkRod(at, b, runs, u)
	}
	run, ok := runs[b.Run]
	if !ok {
		return Errors{{at + "/run", strconv.Quote(b.Run), words.Plain("document.the-id-of-a-run")}}
	}
	var e Errors
	for i, row := range b.Rows {
		field := job.At(at, "rows", row.ID, "at")
		e = append(e, onRun(field, row.At, run, u)...)
		if i > 0 && row.At <= b.Rows[i-1].At+length.Tolerance {
			e = append(e, FieldError{field, u.Tape(row.At), words.Plain("document.past-the-row-before-it", words.V{"at": u.Tape(b.Rows[i-1].At)})})
		}
	}
	return e
}

func onRun(field string, at length.Length, run job.Run, u length.Units) Errors {
	if run.Length != nil && at > *run.Length+length.Tolerance {
		return Errors{{field, u.Tape(at), words.Plain("document.a-station-on-the-run", words.V{"length": u.Tape(*run.Length)})}}
	}
	return nil
}

func checkRod(at string, b job.Book, runs map[string]job.Run, u length.Units) Errors {
	var e Errors
	for i, row := range b.Rows {
		field := job.At(at, "rows", row.ID)
		switch {
		case i == 0 && row.Back == nil:
			e = append(e, FieldError{field + "/back", "nothing", words.Plain("document.the-first-reading-of-the")})
		case i == 0 && (row.Side != nil || row.Fore != nil):
			e = append(e, FieldError{field + "/side", words.Plain("document.a-reading"), words.Plain("document.nothing-the-first-row-only")})
		case i > 0 && row.Side == nil && row.Fore == nil:
			e = append(e, FieldError{field + "/side", "nothing", words.Plain("document.a-reading-on-this-point")})
		case row.Side != nil && row.Fore != nil:
			e = append(e, FieldError{field + "/side", u.Short(*row.Side), words.Plain("document.nothing-where-there-is-a")})
		case row.Side != nil && row.Back != nil:
			e = append(e, FieldError{field + "/back", u.Short(*row.Back), words.Plain("document.nothing-here-the-level-moves")})
		}
		if row.Run == "" {
			continue
		}
		if run, ok := runs[row.Run]; ok {
			e = append(e, onRun(field+"/at", row.At, run, u)...)
		} else {
			e = append(e, FieldError{field + "/run", strconv.Quote(row.Run), words.Plain("document.the-id-of-a-run-2")})
		}
	}
	return e
}
